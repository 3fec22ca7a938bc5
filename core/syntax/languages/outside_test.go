package languages_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"jantel/core/syntax"

	"github.com/stretchr/testify/require"
)

// TestNoLanguageIsNamedOutsideItsFolder reads the program's own code: whoever
// wants to know something of a language asks its profile.
func TestNoLanguageIsNamedOutsideItsFolder(t *testing.T) {
	names := map[string]bool{}
	for _, l := range syntax.Languages() {
		names[l.Name] = true
	}
	// Words that are something else as well: a charter, and kinds of file that
	// are called like the one file they are.
	delete(names, "Charter")
	for _, l := range syntax.Languages() {
		for _, n := range l.FileNames {
			delete(names, n)
		}
	}
	require.Greater(t, len(names), 50)
	root := "../../.."
	read := 0
	for _, top := range []string{"core", "cmd", "report", "review", "server", "store"} {
		require.NoError(t, filepath.WalkDir(filepath.Join(root, top), func(p string, d os.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") || strings.HasSuffix(p, "_packed.go") || strings.HasPrefix(filepath.ToSlash(p), root+"/core/syntax/") {
				return err
			}
			fset := token.NewFileSet()
			f, err := parser.ParseFile(fset, p, nil, 0)
			if err != nil {
				return err
			}
			read++
			ast.Inspect(f, func(n ast.Node) bool {
				if lit, ok := n.(*ast.BasicLit); ok && lit.Kind == token.STRING {
					if text, err := strconv.Unquote(lit.Value); err == nil && names[text] {
						t.Errorf("%s names %s; ask its profile", fset.Position(lit.Pos()), text)
					}
				}
				return true
			})
			return nil
		}))
	}
	require.Greater(t, read, 100)
}

func TestAProfileIsKnownOfEveryLanguageOfCode(t *testing.T) {
	for _, l := range syntax.Languages() {
		if len(l.Loggers) > 0 || l.Namespace != "" || l.Inherits {
			require.True(t, l.Code, l.Name)
		}
	}
	require.True(t, syntax.ProfileOf("Scala").PathPackages, "without a reader as well")
	require.False(t, syntax.ProfileOf("Nothing").Code)
	require.False(t, syntax.ProfileOf("Markdown").Code)
}
