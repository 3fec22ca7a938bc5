// Command gotruth says what Go's own parser and its own go command say of a
// tree: definitions from go/parser; links from the packages `go list` finds an
// import to mean, narrowed to the files that declare the names used. Prints
// one JSON object a file.
package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
)

type definition struct {
	Kind string `json:"kind"`
	Name string `json:"name"`
	Line int    `json:"line"`
	End  int    `json:"end"`
}

type file struct {
	Path  string       `json:"path"`
	Defs  []definition `json:"defs"`
	Links []string     `json:"links"`
	ast   *ast.File
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
	fset := token.NewFileSet()
	var files []*file
	names := map[string]map[string][]string{} // folder to exported name to files
	var dirs []string
	err = filepath.WalkDir(root, func(p string, d fs.DirEntry, err error) error {
		if err != nil || !d.Type().IsRegular() || filepath.Ext(p) != ".go" {
			if err == nil && d.IsDir() {
				dirs = append(dirs, p)
			}
			return err
		}
		f, err := parser.ParseFile(fset, p, nil, parser.SkipObjectResolution)
		if err != nil {
			return nil // what the language's own parser refuses is no truth
		}
		rel, _ := filepath.Rel(root, p)
		x := &file{Path: rel, ast: f, Defs: []definition{}, Links: []string{}}
		files = append(files, x)
		dir := filepath.Dir(p)
		if names[dir] == nil {
			names[dir] = map[string][]string{}
		}
		define(fset, x, func(name string) {
			if !strings.HasSuffix(p, "_test.go") && ast.IsExported(name) {
				names[dir][name] = append(names[dir][name], rel)
			}
		})
		return nil
	})
	if err != nil {
		return err
	}
	places, err := list(root, dirs)
	if err != nil {
		return err
	}
	vendored := map[string]place{} // by folder
	for _, at := range places {
		if strings.Contains(at.dir, string(filepath.Separator)+"vendor"+string(filepath.Separator)) {
			vendored[at.dir] = at
		}
	}
	w := bufio.NewWriter(os.Stdout)
	enc := json.NewEncoder(w)
	for _, f := range files {
		links(root, f, places, vendored, names)
		if err := enc.Encode(f); err != nil {
			return err
		}
	}
	return w.Flush()
}

func define(fset *token.FileSet, x *file, top func(name string)) {
	add := func(n ast.Node, kind, name string) {
		x.Defs = append(x.Defs, definition{kind, name, fset.PositionFor(n.Pos(), false).Line, fset.PositionFor(n.End(), false).Line})
	}
	for _, d := range x.ast.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			if d.Recv != nil {
				add(d, "method", d.Name.Name)
				continue
			}
			add(d, "function", d.Name.Name)
			top(d.Name.Name)
		case *ast.GenDecl:
			for _, s := range d.Specs {
				switch s := s.(type) {
				case *ast.TypeSpec:
					top(s.Name.Name)
				case *ast.ValueSpec:
					for _, id := range s.Names {
						top(id.Name)
					}
				}
			}
		}
	}
}

// place is where a package lies and what it calls itself.
type place struct{ dir, name string }

// list asks the go command which folder each import path of the tree means.
func list(root string, dirs []string) (map[string]place, error) {
	places := map[string]place{}
	for _, d := range dirs {
		if _, err := os.Stat(filepath.Join(d, "go.mod")); err != nil {
			continue
		}
		// The modules of Go itself are listed by their names: then what is
		// vendored in them is listed as well.
		which := "./..."
		if text, err := os.ReadFile(filepath.Join(d, "go.mod")); err == nil {
			for _, own := range []string{"std", "cmd"} {
				if bytes.HasPrefix(text, []byte("module "+own+"\n")) {
					which = own
				}
			}
		}
		cmd := exec.Command("go", "list", "-e", "-json=ImportPath,Dir,Name", which)
		cmd.Dir = d
		cmd.Env = append(os.Environ(), "GOPROXY=off", "GOWORK=off")
		if which == "./..." {
			cmd.Env = append(cmd.Env, "GOFLAGS=-mod=mod")
		}
		out, err := cmd.Output()
		if err != nil {
			return nil, fmt.Errorf("go list in %s: %w", d, err)
		}
		for dec := json.NewDecoder(bytes.NewReader(out)); dec.More(); {
			var p struct{ ImportPath, Dir, Name string }
			if err := dec.Decode(&p); err != nil {
				return nil, err
			}
			if rel, err := filepath.Rel(root, p.Dir); err == nil && !strings.HasPrefix(rel, "..") {
				places[p.ImportPath] = place{p.Dir, p.Name}
			}
		}
	}
	return places, nil
}

// imported is the package that an import of a file in the folder means: a
// vendored copy of the nearest folder upwards that has one, else the package of
// that path.
func imported(dir, p string, places map[string]place, vendored map[string]place) (place, bool) {
	for d := dir; ; d = filepath.Dir(d) {
		if at, ok := vendored[filepath.Join(d, "vendor", filepath.FromSlash(p))]; ok {
			return at, true
		}
		if d == filepath.Dir(d) {
			break
		}
	}
	at, ok := places[p]
	return at, ok
}

func links(root string, f *file, places, vendored map[string]place, names map[string]map[string][]string) {
	local := map[string]string{} // local name to folder
	var dots []string            // folders whose names are taken without one
	for _, im := range f.ast.Imports {
		p, _ := strconv.Unquote(im.Path.Value)
		at, ok := imported(filepath.Dir(filepath.Join(root, filepath.FromSlash(f.Path))), p, places, vendored)
		if !ok {
			continue
		}
		name := at.name
		if im.Name != nil {
			name = im.Name.Name
		}
		if name == "." {
			dots = append(dots, at.dir)
			continue
		}
		local[name] = at.dir
	}
	seen := map[string]bool{}
	ast.Inspect(f.ast, func(n ast.Node) bool {
		if id, ok := n.(*ast.Ident); ok {
			for _, d := range dots {
				for _, to := range names[d][id.Name] {
					if to != f.Path && !seen[to] {
						seen[to] = true
						f.Links = append(f.Links, to)
					}
				}
			}
		}
		s, ok := n.(*ast.SelectorExpr)
		if !ok {
			return true
		}
		if id, ok := s.X.(*ast.Ident); ok {
			for _, to := range names[local[id.Name]][s.Sel.Name] {
				if to != f.Path && !seen[to] {
					seen[to] = true
					f.Links = append(f.Links, to)
				}
			}
		}
		return true
	})
}
