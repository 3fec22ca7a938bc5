package languages_test

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/syntax"

	"github.com/stretchr/testify/require"
)

// met is where each sign can be met: for each language that has it, a text in
// which it stands.
var met = map[model.SignName]map[string]string{
	model.SignSQL: {
		"a.go": "package a\nvar q = \"SELECT id FROM lots WHERE id = ?\"\n", "a.ts": "const q = `SELECT id FROM lots`\n", "a.js": "run('DELETE FROM lots WHERE id = 1')\n",
		"a.py": "q = f\"UPDATE lots SET grams = {g}\"\n", "A.java": "class A { String q = \"INSERT INTO lots (id) VALUES (1)\"; }", "A.cs": "class A { string q = @\"SELECT id\nFROM lots\"; string r = $\"x\"; }",
		"A.kt": "val q = \"\"\"SELECT id FROM lots\"\"\"\n", "a.php": "<?php $q = \"SELECT id FROM lots\";", "a.rb": "q = <<~SQL\n  SELECT id FROM lots\nSQL\n",
		"a.pl": "my $q = q{SELECT id FROM lots};\n", "a.rs": "fn a() { let q = \"SELECT id FROM lots\"; }", "a.c": "char *q = \"SELECT id FROM lots\";\n", "a.cpp": "auto q = R\"(SELECT id FROM lots)\";\n",
	},
	model.SignDraws:       {"a.tsx": "export const A = () => <p/>\n", "a.vue": "<template><p/></template>", "a.html": "<p/>", "a.erb": "<p/>", "a.xaml": "<Page/>"},
	model.SignPicture:     {"a.tsx": "export const A = () => <svg><path d=\"M0 0\"/></svg>\n"},
	model.SignComposes:    {"a.tsx": "import { Box } from './box'\nexport const A = () => <Box/>\n", "a.vue": "<template><Box/></template><script>import Box from './box'</script>"},
	model.SignEntry:       {"a.tsx": "createRoot(el).render(<A/>)\n"},
	model.SignListens:     {"a.js": "app.listen(80)\n", "a.go": "package a\nfunc main() { http.ListenAndServe(\":80\", nil) }\n", "a.py": "app.run()\n"},
	model.SignApplication: {"a.py": "app = FastAPI()\n"},
	model.SignRoutes:      {"a.js": "router.get('/lots', list)\n", "a.go": "package a\nfunc r() { m.HandleFunc(\"/lots\", list) }\n", "a.py": "@app.get('/lots')\ndef lots(): pass\n"},
	model.SignHandles:     {"a.ts": "export function list(req: Request, res: Response) {}\n", "a.go": "package a\nfunc list(w http.ResponseWriter, r *http.Request) {}\n"},
	model.SignHTTP:        {"a.ts": "fetch('/lots')\n", "a.py": "requests.get('http://x')\n"},
	model.SignKeepsState:  {"a.ts": "const [a, b] = useState(1)\n"},
	model.SignStore:       {"a.ts": "export const s = createSlice({})\n"},
	model.SignReExports:   {"index.ts": "export * from './lots'\n"},
	model.SignTest:        {"a.ts": "it('weighs', () => {})\n", "a.py": "def test_a(): pass\n", "a.rs": "#[test]\nfn a() {}\n"},
	model.SignDebug:       {"a.ts": "console.log(1)\n", "a.php": "<?php var_dump($a);", "a.py": "breakpoint()\n"},
}

func TestEverySignIsTold(t *testing.T) {
	for name := range model.Signs {
		require.NotEmpty(t, met[name], "%s: where is it met?", name)
		for file, text := range met[name] {
			n, _ := facts(file, text).Sign(name)
			require.Positive(t, n, "%s in %s", name, file)
		}
	}
	for name := range met {
		require.Contains(t, model.Signs, name)
	}
}

func TestAnApplicationMadeInAFunctionIsNone(t *testing.T) {
	n, _ := facts("a.py", "def make():\n    app = FastAPI()\n    return app\n").Sign(model.SignApplication)
	require.Zero(t, n)
}

// TestEverySignIsAskedFor holds the constants against the code that asks.
func TestEverySignIsAskedFor(t *testing.T) {
	declared := regexp.MustCompile(`(?m)^\s(Sign\w+)\s+SignName = `)
	text, err := os.ReadFile("../../model/signs.go")
	require.NoError(t, err)
	asked := ""
	require.NoError(t, filepath.WalkDir("../..", func(p string, d os.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") || strings.Contains(filepath.ToSlash(p), "/syntax/") || strings.HasSuffix(p, "signs.go") {
			return err
		}
		b, err := os.ReadFile(p)
		asked += string(b)
		return err
	}))
	found := declared.FindAllStringSubmatch(string(text), -1)
	require.Len(t, found, len(model.Signs))
	for _, m := range found {
		require.Contains(t, asked, "model."+m[1], "nobody asks for it")
	}
}

// TestNoLanguageIsWithoutSQL looks at every language with statements: each can
// hold SQL in a text.
func TestNoLanguageIsWithoutSQL(t *testing.T) {
	told := map[string]bool{}
	for file := range met[model.SignSQL] {
		told[syntax.ForFile(file, nil).Name] = true
	}
	for _, l := range []string{"Go", "TypeScript", "JavaScript", "Python", "Java", "C#", "Kotlin", "PHP", "Ruby", "Perl", "Rust", "C", "C++"} {
		require.True(t, told[l], l)
	}
}
