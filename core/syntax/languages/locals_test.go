package languages_test

import (
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// The names of parameters (with a sign) and of locals, as one reads them.
func TestNamesInsideOfBodiesAreTold(t *testing.T) {
	for name, c := range map[string]struct{ file, text, want string }{
		"go": {"a.go", "package a\n\nfunc weigh(box *Box, grams int) (sum int) {\n\ttotal := box.Count\n\tvar rest = total\n\tfor _, lot := range box.Lots {\n\t\tsum += lot\n\t}\n\treturn rest\n}\n",
			"!box !grams total rest lot"},
		"typescript": {"a.ts", "export function weigh(box: Box, { grams }: Scale, extra = 2): number {\n  const total = box.count\n  let rest: number = total\n  rest = 3\n  return rest\n}\n",
			"!box !extra total rest"},
		"python": {"a.py", "def weigh(self, box, grams: int = 2, *rest):\n    total = box.count\n    if total == grams:\n        left = 1\n    return total\n", "!box !grams !rest total left"},
		"java":   {"A.java", "class A {\n    private int kept;\n    int weigh(final Box box, @Nullable String name) {\n        int total = box.count();\n        Lot lot;\n        return total;\n    }\n}\n", "!box !name total lot"},
		"csharp": {"A.cs", "class A\n{\n    int Weigh(Box box, int grams = 2)\n    {\n        var total = box.Count;\n        string label = \"\";\n        return total;\n    }\n}\n", "!box !grams total label"},
		"php":    {"a.php", "<?php\nfunction weigh(Box $box, ?string $name = null) {\n    $total = $box->count;\n    $this->kept = 2;\n    return $total;\n}\n", "!box !name total"},
		"ruby":   {"a.rb", "def weigh(box, grams = 2)\n  total = box.count\n  @kept = total\n  total\nend\n", "!box !grams total"},
		"perl":   {"a.pl", "sub weigh {\n  my ($self, $box) = @_;\n  my $total = 1;\n  return $total;\n}\n", "total"},
		"kotlin": {"a.kt", "fun weigh(box: Box, grams: Int = 2): Int {\n    val total = box.count\n    var rest = total\n    return rest\n}\n", "!box !grams total rest"},
		"rust":   {"a.rs", "fn weigh(bx: &Box, mut grams: u32) -> u32 {\n    let total = bx.count;\n    let mut rest = total;\n    rest\n}\n", "!bx !grams total rest"},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, f := range testkit.Survey(t, "-- "+c.file+" --\n"+c.text).Files {
				for l := range f.Facts.LocalNames() {
					sign := ""
					if l.Kind == model.LocalParameter {
						sign = "!"
					}
					got = append(got, sign+l.Name)
				}
			}
			require.Equal(t, c.want, strings.Join(got, " "))
		})
	}
	broken := &model.Facts{Locals: []byte{'l', 200, 'a'}}
	for range broken.LocalNames() {
		t.Fatal("what is cut off is none")
	}
}
