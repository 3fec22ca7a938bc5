package testkit_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/require"
)

// The shape of our own Go code, tests and generated code left out: how branched
// its functions are (one more than the conditions, loops, cases and "and" or
// "or" in them; functions within are counted by themselves) and how wide its
// lines.
const (
	mostColumns   = 140
	mostBranches  = 40
	manyBranches  = 15
	ninthTenth    = 11
	sharePerMille = 60 // of functions with more than manyBranches
)

func TestTheCodeKeepsItsShape(t *testing.T) {
	var all []int
	root := filepath.Join("..", "..")
	err := filepath.WalkDir(root, func(p string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() {
			if slices.Contains([]string{"node_modules", "testdata", ".git"}, d.Name()) {
				return filepath.SkipDir
			}
			return nil
		}
		if !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") {
			return nil
		}
		src, err := os.ReadFile(p)
		if err != nil {
			return err
		}
		file, err := parser.ParseFile(token.NewFileSet(), p, src, parser.ParseComments)
		if err != nil {
			return err
		}
		if ast.IsGenerated(file) {
			return nil
		}
		for n, line := range strings.Split(string(src), "\n") {
			if wide := utf8.RuneCountInString(line); wide > mostColumns {
				t.Errorf("%s:%d has %d columns", p, n+1, wide)
			}
		}
		ast.Inspect(file, func(n ast.Node) bool {
			body, name := functionOf(n)
			if body != nil {
				b := branches(body)
				all = append(all, b)
				if b > mostBranches {
					t.Errorf("%s: %s has %d branches", p, name, b)
				}
			}
			return true
		})
		return nil
	})
	require.NoError(t, err)
	require.Greater(t, len(all), 1000)
	slices.Sort(all)
	require.LessOrEqual(t, all[len(all)*9/10], ninthTenth, "branches of nine in ten functions")
	many := len(all) - slices.IndexFunc(all, func(b int) bool { return b > manyBranches })
	require.LessOrEqual(t, 1000*many/len(all), sharePerMille, "functions with more than %d branches", manyBranches)
}

func functionOf(n ast.Node) (*ast.BlockStmt, string) {
	switch n := n.(type) {
	case *ast.FuncDecl:
		return n.Body, n.Name.Name
	case *ast.FuncLit:
		return n.Body, "a function without a name"
	}
	return nil, ""
}

func branches(body *ast.BlockStmt) int {
	count := 1
	ast.Inspect(body, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.FuncLit:
			return false
		case *ast.IfStmt, *ast.ForStmt, *ast.RangeStmt:
			count++
		case *ast.CaseClause:
			if n.List != nil {
				count++
			}
		case *ast.CommClause:
			if n.Comm != nil {
				count++
			}
		case *ast.BinaryExpr:
			if n.Op == token.LAND || n.Op == token.LOR {
				count++
			}
		}
		return true
	})
	return count
}
