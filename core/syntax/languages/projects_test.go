package languages_test

import (
	"testing"

	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

func TestProjectFilesOfOtherTools(t *testing.T) {
	p := facts("composer.json", `{
  "name": "hollin/vault", "description": "Keeps the boxes.",
  "require": { "php": ">=8", "psr/log": "^3" }, "require-dev": { "seed/test": "1" },
  "autoload": { "psr-4": { "Hollin\\": ["src/", "lib"] } },
  "scripts": { "test": ["lint", "unit"], "start": "php -S localhost:1" }
}`).Project
	require.Equal(t, map[string]string{"psr/log": "^3", "seed/test": "1"}, p.Dependencies)
	require.Equal(t, []model.Command{{Name: "start", Text: "php -S localhost:1", Line: 5}, {Name: "test", Text: "lint && unit", Line: 5}}, p.Scripts)
	require.Equal(t, []string{"lib", "src/"}, p.Roots)

	p = facts("pom.xml", `<project><parent><artifactId>other</artifactId></parent>
<artifactId>vault</artifactId><description>Keeps
  boxes.</description>
<dependencies><dependency><groupId>seed</groupId><artifactId>lots</artifactId><version>2</version></dependency></dependencies></project>`).Project
	require.Equal(t, "vault", p.Name)
	require.Equal(t, "Keeps boxes.", p.Description)
	require.Equal(t, map[string]string{"seed:lots": "2"}, p.Dependencies)

	p = facts("build.gradle.kts", "description = \"Keeps boxes\"\ndependencies {\n  implementation(\"seed:lots:2.1\")\n  testImplementation 'seed:test'\n  println(\"not:one:1\")\n}\n").Project
	require.Equal(t, map[string]string{"seed:lots": "2.1", "seed:test": ""}, p.Dependencies)

	for text, want := range map[string]string{
		"task weigh(type: Copy) {\n  description \"Copies the scale\"\n}\n":                              "",
		"task weigh {\n  description 'Weighs'\n}\ndescription = 'Keeps boxes'\n":                         "Keeps boxes",
		"subprojects {\n  tasks.register('pack') {\n    description = 'Packs'\n  }\n}\n":                 "",
		"plugins { id 'java' }\ngroup = 'seed'\ndescription 'Keeps boxes'\ntask a { description 'A' }\n": "Keeps boxes",
	} {
		require.Equal(t, want, facts("build.gradle", text).Project.Description, text)
	}

	for _, name := range []string{"composer.json", "pom.xml"} {
		f := facts(name, "{ <broken")
		require.Equal(t, model.ReadPartial, f.Read, name)
		require.NotEmpty(t, f.Problem)
	}
}

func TestAProgramThatDescribesAProject(t *testing.T) {
	f := facts("setup.py", `"""Installs it."""
from setuptools import setup, find_packages

NAME = "hollin-vault"

def read():
    return setup

setup(
    name=NAME,
    description="Keeps the boxes of a vault.",
    packages=find_packages("src"),
    package_dir={"": "src"},
    scripts=["bin/dry"],
    install_requires=["seed >= 2", "lots[all] (>=1); python_version < '3'"],
    classifiers=["Topic :: Software Development :: Libraries :: Python Modules"],
    entry_points={"console_scripts": ["weigh = vault.cli:main"], "vault.scales": ["bench = vault.bench:Scale"]},
)
`)
	p := f.Project
	require.Equal(t, "hollin-vault", p.Name)
	require.Equal(t, "Keeps the boxes of a vault.", p.Description)
	require.Equal(t, "Keeps the boxes of a vault.", f.Doc)
	require.Equal(t, 11, f.DocLine)
	require.Equal(t, []string{"src"}, p.Roots)
	require.Equal(t, []string{"bin/dry"}, p.Bin)
	require.Equal(t, map[string]string{"seed": ">= 2", "lots": ">=1"}, p.Dependencies)
	require.Equal(t, []model.Command{{Name: "weigh", Text: "vault.cli:main", Line: 17}}, p.Scripts)
	require.True(t, p.Library)

	require.Nil(t, facts("setup.py", "def setup(name):\n    pass\nsetup(name='a')\n").Project, "a function of its own")
	require.NotNil(t, facts("setup.py", "from setuptools import setup\nsetup(").Project, "broken off")
}

func TestWhatProjectsOfPythonInstall(t *testing.T) {
	p := facts("setup.cfg", "[metadata]\nname = vault\nclassifiers =\n    Topic :: Software Development :: Libraries\n[options.entry_points]\nconsole_scripts =\n    weigh = vault.cli:main\nvault.scales =\n    bench = vault.bench:Scale\n").Project
	require.Equal(t, []model.Command{{Name: "weigh", Text: "vault.cli:main", Line: 7}}, p.Scripts)
	require.True(t, p.Library)
	p = facts("pyproject.toml", "[tool.poetry]\nname = \"vault\"\n[tool.poetry.scripts]\nweigh = \"vault.cli:main\"\n").Project
	require.Equal(t, []model.Command{{Name: "weigh", Text: "vault.cli:main", Line: 4}}, p.Scripts)
}

func TestTypesThatMacrosMake(t *testing.T) {
	bases := map[string][]string{}
	for _, d := range facts("shelf.c", `
G_DEFINE_TYPE (MoorShelf, moor_shelf, GTK_TYPE_BOX)
G_DEFINE_TYPE_WITH_CODE (MoorLot, moor_lot, moor_thing_get_type (),
                         G_IMPLEMENT_INTERFACE (MOOR_TYPE_KEPT, moor_lot_kept))
G_DECLARE_FINAL_TYPE (MoorBox, moor_box, MOOR, BOX, GtkWidget)
G_DEFINE_QUARK (moor-error, moor_error)
static void moor_shelf_init (MoorShelf *s) { }
`).Definitions {
		bases[d.Name] = d.Bases
	}
	require.Equal(t, map[string][]string{
		"MoorShelf": {"GtkBox"}, "MoorLot": {"MoorThing", "MoorKept"}, "MoorBox": {"GtkWidget"}, "moor_shelf_init": nil,
	}, bases)
}
