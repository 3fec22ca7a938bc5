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
