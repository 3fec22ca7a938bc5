// Command gocalls says what Go's own type checker says of the calls in a tree:
// for each function and method which functions, methods and members of
// interfaces of the tree it calls. Prints one JSON object a file.
package main

import (
	"encoding/json"
	"fmt"
	"go/ast"
	"go/token"
	"go/types"
	"os"
	"path/filepath"
	"sort"
	"strings"

	"golang.org/x/tools/go/packages"
)

type file struct {
	Path  string   `json:"path"`
	Calls []string `json:"calls"` // "from -> path name"
}

func main() {
	if err := run(os.Args[1]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(root string) error {
	root, err := filepath.EvalSymlinks(root)
	if err != nil {
		return err
	}
	if root, err = filepath.Abs(root); err != nil {
		return err
	}
	fset := token.NewFileSet()
	all, err := packages.Load(&packages.Config{
		Mode: packages.NeedName | packages.NeedFiles | packages.NeedSyntax | packages.NeedTypes | packages.NeedTypesInfo |
			packages.NeedImports | packages.NeedDeps,
		Dir: root, Fset: fset, Tests: true, Env: append(os.Environ(), "GOWORK=off", "GOFLAGS=-mod=mod", "GOOS=linux", "GOARCH=amd64"),
	}, "./...")
	if err != nil {
		return err
	}
	inside := func(p token.Pos) string {
		rel, err := filepath.Rel(root, fset.PositionFor(p, false).Filename)
		if err != nil || strings.HasPrefix(rel, "..") {
			return ""
		}
		return filepath.ToSlash(rel)
	}
	found := map[string]map[string]bool{}
	for _, p := range all {
		for _, f := range p.Syntax {
			at := inside(f.Pos())
			if at == "" {
				continue
			}
			if found[at] == nil {
				found[at] = map[string]bool{}
			}
			for _, d := range f.Decls {
				each(d, func(from string, n ast.Node) {
					ast.Inspect(n, func(n ast.Node) bool {
						if c, ok := n.(*ast.CallExpr); ok {
							if to := callee(p.TypesInfo, c.Fun); to != nil && inside(to.Pos()) != "" {
								if name := qualified(to); name != "" {
									found[at][from+" -> "+inside(to.Pos())+" "+name] = true
								}
							}
						}
						return true
					})
				})
			}
		}
	}
	enc := json.NewEncoder(os.Stdout)
	for _, p := range sorted(found) {
		if err := enc.Encode(file{p, sorted(found[p])}); err != nil {
			return err
		}
	}
	return nil
}

func sorted[T any](m map[string]T) []string {
	out := []string{}
	for k := range m {
		out = append(out, k)
	}
	sort.Strings(out)
	return out
}

// each calls fn with what stands in a declaration and the name it belongs to.
func each(d ast.Decl, fn func(from string, n ast.Node)) {
	switch d := d.(type) {
	case *ast.FuncDecl:
		from := d.Name.Name
		if d.Recv != nil && len(d.Recv.List) > 0 {
			from = typeName(d.Recv.List[0].Type) + "." + from
		}
		fn(from, d)
	case *ast.GenDecl:
		for _, s := range d.Specs {
			if v, ok := s.(*ast.ValueSpec); ok {
				fn(v.Names[len(v.Names)-1].Name, v)
			}
		}
	}
}

func typeName(e ast.Expr) string {
	switch e := e.(type) {
	case *ast.StarExpr:
		return typeName(e.X)
	case *ast.IndexExpr:
		return typeName(e.X)
	case *ast.IndexListExpr:
		return typeName(e.X)
	case *ast.ParenExpr:
		return typeName(e.X)
	case *ast.Ident:
		return e.Name
	}
	return ""
}

func callee(info *types.Info, e ast.Expr) types.Object {
	switch e := ast.Unparen(e).(type) {
	case *ast.Ident:
		return named(info.Uses[e])
	case *ast.SelectorExpr:
		return named(info.Uses[e.Sel])
	case *ast.IndexExpr:
		return callee(info, e.X)
	case *ast.IndexListExpr:
		return callee(info, e.X)
	}
	return nil
}

// named leaves functions, and variables at the top of a package.
func named(o types.Object) types.Object {
	switch o := o.(type) {
	case *types.Func:
		return o.Origin()
	case *types.Var:
		if !o.IsField() && o.Pkg() != nil && o.Parent() == o.Pkg().Scope() {
			return o
		}
	}
	return nil
}

func qualified(o types.Object) string {
	f, ok := o.(*types.Func)
	if !ok {
		return o.Name()
	}
	recv := f.Type().(*types.Signature).Recv()
	if recv == nil {
		return f.Name()
	}
	t := recv.Type()
	if p, ok := t.(*types.Pointer); ok {
		t = p.Elem()
	}
	if n, ok := t.(*types.Named); ok {
		return n.Obj().Name() + "." + f.Name()
	}
	return ""
}
