// Package gdscript reads GDScript and the scenes, resources and project files
// that belong to it.
package gdscript

import (
	"bytes"
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/indented"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "GDScript", Version: 4, Profile: syntax.Profile{Code: true, Plain: "gdscript", NamesNodes: true},
		Extensions: []string{".gd"}, Read: read, Resolve: resolve,
	})
	syntax.Register(&syntax.Language{
		Name: "Godot scene", Version: 2, ResolvedWith: "GDScript", Extensions: []string{".tscn", ".escn"},
		Read: scene,
	})
	syntax.Register(&syntax.Language{
		Name: "Godot resource", Version: 2, ResolvedWith: "GDScript", Extensions: []string{".tres"}, Read: scene,
	})
	syntax.Register(&syntax.Language{
		Name: "Godot project", Version: 1, ResolvedWith: "GDScript", FileNames: []string{"project.godot"},
		Read: project,
	})
}

var environment = &syntax.Environment{Calls: syntax.Set("OS.get_environment")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names map[string]bool
	class string // the name that the whole file has
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{s: indented.Lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, names: map[string]bool{}}
	r.doc()
	r.head()
	r.block(0, r.s.Len(), r.class, r.class != "")
	r.inside()
	r.f.Mentions = syntax.TypeMentions(r.s, map[string]bool{r.class: true})
	r.f.Env = environment.Read(r.s)
	r.f.Names = syntax.SortedSet(r.names)
	plainly.Calls(r.s, r.f)
	return syntax.Finish(how, r.f, r.s, r.signs)
}

// doc takes the "##" lines above or right below the head of the file.
func (r *reader) doc() {
	var lines []string
	for _, c := range r.s.Comments {
		text, ok := strings.CutPrefix(string(r.s.Src[c.Start:c.End]), "##")
		if !ok || len(lines) > 0 && int(c.Line) != r.f.DocLine+len(lines) {
			break
		}
		if len(lines) == 0 {
			if c.Line > 6 {
				return
			}
			r.f.DocLine = int(c.Line)
		}
		lines = append(lines, strings.TrimSpace(text))
	}
	r.f.Doc = syntax.Sentence(strings.Join(lines, "\n"), 240)
}

// head reads class_name and extends, which may stand in either order.
func (r *reader) head() {
	s := r.s
	for i := 0; i < s.Len() && i < 200 && r.class == ""; i++ {
		if s.Match(i, "class_name", syntax.Name) {
			r.class = s.Text(i + 1)
		}
	}
	base, line := "", 0
	for i := 0; i < s.Len() && i <= 200 && s.Kind(i) != syntax.Indent; i++ {
		if i > 0 && s.Kind(i-1) != syntax.Newline {
			continue // no statement begins here
		}
		switch {
		case s.Match(i, "class_name", syntax.Name) && line == 0:
			line = s.Line(i)
			if s.Is(i+2, "extends") {
				base = r.base(i + 3)
			}
		case s.Is(i, "extends") && base == "":
			base = r.base(i + 1)
		}
	}
	if r.class == "" {
		return
	}
	d := model.Definition{Name: r.class, Kind: model.DefClass, Line: max(line, 1), EndLine: s.EndLine(s.Len() - 1), Exported: true}
	if base != "" && !strings.HasPrefix(base, "res:") {
		d.Bases = []string{base}
	}
	r.f.Definitions = append(r.f.Definitions, d)
	r.names[r.class] = true
}

// base is what stands behind extends: a class, or a script by its path.
func (r *reader) base(i int) string {
	s := r.s
	if s.Kind(i) == syntax.String {
		p := s.Unquote(i)
		r.f.Imports = append(r.f.Imports, model.Import{Text: p, Kind: model.LinkImport, Line: s.Line(i), Alias: "extends"})
		return "res:" + p
	}
	if !s.IsIdent(i) {
		return ""
	}
	for s.Match(i+1, ".", syntax.Name) {
		i += 2
	}
	name, _ := s.Dotted(i)
	if r.class == "" {
		r.f.Imports = append(r.f.Imports, model.Import{Text: name, Kind: model.LinkInheritance, Line: s.Line(i), Alias: "class"})
	}
	return name
}

// end is the index of the last token of the statement at i with the block
// below it.
func (r *reader) end(i, end int) int {
	s := r.s
	for ; i < end; i++ {
		if s.Kind(i) == syntax.Newline {
			if s.Kind(i+1) != syntax.Indent {
				return i
			}
			depth := 0
			for i++; i < end; i++ {
				switch s.Kind(i) {
				case syntax.Indent:
					depth++
				case syntax.Dedent:
					if depth--; depth == 0 {
						return i
					}
				}
			}
			return end - 1
		}
		i = s.Close(i)
	}
	return end - 1
}

// last is the last token before i that is written out.
func (r *reader) last(i int) int {
	for i > 0 && (r.s.Kind(i) == syntax.Newline || r.s.Kind(i) == syntax.Dedent || r.s.Kind(i) == syntax.Indent) {
		i--
	}
	return i
}

func (r *reader) add(first, last int, name, parent string, kind model.DefinitionKind) *model.Definition {
	exported := !strings.HasPrefix(name, "_")
	r.f.Definitions = append(r.f.Definitions, model.Definition{
		Name: name, Parent: parent, Kind: kind, Line: r.s.Line(first), EndLine: r.s.EndLine(r.last(last)),
		Exported: exported,
	})
	if exported && (parent == "" || parent == r.class) {
		r.names[name] = true
	}
	return &r.f.Definitions[len(r.f.Definitions)-1]
}

// standing are the annotations that do not belong to what follows them.
var standing = syntax.Set(
	"tool", "icon", "export_group", "export_subgroup", "export_category", "warning_ignore_start",
	"warning_ignore_restore",
)

// statement is one as far as it is read: its first token, the word it begins
// with, and its last token.
type statement struct {
	first, at, last int
	parent          string
	class           bool // it stands in a class
	marks           []string
}

// declarations reads what each word declares.
var declarations map[string]func(*reader, statement) *model.Definition

func init() {
	named := func(kind model.DefinitionKind) func(*reader, statement) *model.Definition {
		return func(r *reader, d statement) *model.Definition { return r.named(d, kind) }
	}
	// within has another kind in a class than outside of one.
	within := func(inside, outside model.DefinitionKind) func(*reader, statement) *model.Definition {
		return func(r *reader, d statement) *model.Definition {
			if d.class {
				return r.named(d, inside)
			}
			return r.named(d, outside)
		}
	}
	called := func(read func(*reader, statement) *model.Definition) func(*reader, statement) *model.Definition {
		return func(r *reader, d statement) *model.Definition {
			def := read(r, d)
			if def != nil {
				def.Params = len(r.s.Args(d.at + 2))
			}
			return def
		}
	}
	declarations = map[string]func(*reader, statement) *model.Definition{
		"func":   called(within(model.DefMethod, model.DefFunction)),
		"signal": called(named(model.DefOther)),
		"const":  named(model.DefConstant),
		"var":    within(model.DefProperty, model.DefVariable),
		"class":  (*reader).innerClass,
		"enum": func(r *reader, d statement) *model.Definition {
			r.enum(d.first, d.at, d.last, d.parent)
			return nil
		},
	}
}

func (r *reader) named(d statement, kind model.DefinitionKind) *model.Definition {
	if !r.s.IsIdent(d.at + 1) {
		return nil
	}
	return r.add(d.first, d.last, r.s.Text(d.at+1), d.parent, kind)
}

// innerClass reads a class with the block below it.
func (r *reader) innerClass(d statement) *model.Definition {
	s := r.s
	def := r.named(d, model.DefClass)
	if def == nil {
		return nil
	}
	if s.Match(d.at+2, "extends", syntax.Name) {
		def.Bases = []string{s.Text(d.at + 3)}
	}
	name := def.Qualified()
	for k := d.at; k < d.last; k++ {
		if s.Is(k, ":") {
			def.Marks = d.marks
			r.block(k+1, d.last, name, true)
			return nil // what was made on the way may lie elsewhere by now
		}
	}
	return nil
}

// block reads the statements between i and end.
func (r *reader) block(i, end int, parent string, class bool) {
	s := r.s
	for i < end {
		switch s.Kind(i) {
		case syntax.Newline, syntax.Indent, syntax.Dedent:
			i++
			continue
		}
		d := statement{first: i, parent: parent, class: class}
		d.at = r.annotations(&d)
		for s.Any(d.at, "static", "onready", "export", "remote", "puppet", "master") {
			d.at++
			if s.Is(d.at, "(") {
				d.at = s.Close(d.at) + 1
			}
		}
		d.last = r.end(d.at, end)
		if s.Any(d.at, "var", "const", "signal", "enum") {
			// More of them may stand in the same line.
			for k := d.at; k < d.last; k = s.Close(k) + 1 {
				if s.Is(k, ";") {
					d.last = k
				}
			}
		}
		if read := declarations[s.Text(d.at)]; read != nil {
			if def := read(r, d); def != nil {
				def.Marks = d.marks
			}
		}
		i = max(d.last, d.at) + 1
	}
}

// annotations reads those before a statement and gives where its words begin.
func (r *reader) annotations(d *statement) int {
	s, i := r.s, d.first
	for s.Match(i, "@", syntax.Name) {
		alone := standing[s.Text(i+1)]
		d.marks = append(d.marks, "@"+s.Text(i+1))
		i += 2
		if s.Is(i, "(") {
			i = s.Close(i) + 1
		}
		for s.Kind(i) == syntax.Newline {
			i++
		}
		if alone {
			d.first, d.marks = i, nil
		}
	}
	return i
}

func (r *reader) enum(first, i, last int, parent string) {
	s := r.s
	j := i + 1
	if s.IsIdent(j) {
		parent = r.add(first, last, s.Text(j), parent, model.DefEnum).Qualified()
		j++
	}
	if !s.Is(j, "{") {
		return
	}
	for _, a := range s.Args(j) {
		if s.IsIdent(a[0]) {
			r.add(a[0], a[1]-1, s.Text(a[0]), parent, model.DefConstant)
		}
	}
}

var loads = map[string]model.LinkKind{
	"preload": model.LinkImport, "load": model.LinkLazyImport, "ResourceLoader.load": model.LinkLazyImport,
	"change_scene_to_file": model.LinkLazyImport, "change_scene": model.LinkLazyImport,
	"get_tree().change_scene_to_file": model.LinkLazyImport}

// inside looks for what is loaded by its path.
func (r *reader) inside() {
	s := r.s
	for i := range s.Tokens {
		r.node(i)
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") || s.Kind(i+2) != syntax.String {
			continue
		}
		name, _ := s.Dotted(i)
		kind, ok := loads[name]
		if !ok {
			kind, ok = loads[s.Text(i)]
		}
		if !s.Is(i+3, ")") && !s.Is(i+3, ",") {
			continue // a path put together at run time
		}
		if p := s.Unquote(i + 2); ok && (strings.HasPrefix(p, "res://") || s.Text(i) == "preload") {
			r.f.Imports = append(r.f.Imports, model.Import{Text: p, Kind: kind, Line: s.Line(i)})
		}
	}
}

// maxNodes bounds what is kept of the nodes that a script asks for.
const maxNodes = 1000

// node keeps the path of a node of the scene: $Shelf/Box, $"Shelf/Box", %Box and
// get_node("Shelf/Box").
func (r *reader) node(i int) {
	s := r.s
	p := ""
	switch {
	case s.Match(i, "$", syntax.Quoted):
		p = s.Unquote(i + 1)
	case s.Match(i, "$", syntax.Name):
		p = s.Text(i + 1)
		for k := i + 2; s.Match(k, "/", syntax.Name) && s.Tokens[k].Start == s.Tokens[k-1].End &&
			s.Tokens[k+1].Start == s.Tokens[k].End; k += 2 {
			p += "/" + s.Text(k+1)
		}
	case s.Match(i, "%", syntax.Name) && s.Tokens[i].End == s.Tokens[i+1].Start && !r.operand(i-1):
		p = "%" + s.Text(i+1)
	case (s.Any(i, "get_node", "get_node_or_null")) && s.Match(i+1, "(", syntax.Quoted, ")"):
		p = s.Unquote(i + 2)
	}
	if p != "" && len(r.f.Templates) < maxNodes {
		r.f.Templates = append(r.f.Templates, model.Mention{Name: p, Line: s.Line(i)})
	}
}

// operand reports whether token i ends a value, so that what follows it is a
// sign between two.
func (r *reader) operand(i int) bool {
	switch k := r.s.Kind(i); k {
	case syntax.Ident:
		switch r.s.Text(i) {
		case "return", "in", "and", "or", "not", "if", "else", "elif", "while", "await", "is", "as":
			return false
		}
		return true
	case syntax.Number, syntax.String:
		return true
	}
	return r.s.Any(i, ")", "]", "}")
}

var (
	reference = regexp.MustCompile(`\b(instance|script)\s*=\s*ExtResource\(\s*"?([\w-]+)"?\s*\)`)
	resource  = regexp.MustCompile(`\bid\s*=\s*"?([\w-]+)"?`)
)

var attribute = regexp.MustCompile(`(\w+)\s*=\s*"((?:[^"\\]|\\.)*)"`)

// scene reads the heads of the parts of a scene or a resource.
func scene(_ syntax.How, src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	syntax.CountPlain(f, src)
	paths := map[string]string{} // of what is brought in, by id
	node := ""
	keep := func(n int, line string) {
		for _, m := range reference.FindAllStringSubmatch(line, -1) {
			if p := paths[m[2]]; p != "" && node != "" && len(f.Uses) < maxNodes {
				kind := model.LinkRendering
				if m[1] == "script" {
					kind = model.LinkConfiguration
				}
				f.Uses = append(f.Uses, model.Use{Kind: kind, Module: p, Name: node, Line: n})
			}
		}
	}
	eachLine(src, func(n int, line string) {
		switch {
		case strings.HasPrefix(line, "[ext_resource"):
			at := map[string]string{}
			for _, m := range attribute.FindAllStringSubmatch(line, -1) {
				at[m[1]] = m[2]
			}
			if at["path"] != "" {
				f.Imports = append(f.Imports, model.Import{Text: at["path"], Kind: model.LinkImport, Line: n})
				if m := resource.FindAllStringSubmatch(line, -1); len(m) > 0 {
					paths[m[len(m)-1][1]] = at["path"]
				}
			}
		case strings.HasPrefix(line, "[node"):
			at := map[string]string{}
			for _, m := range attribute.FindAllStringSubmatch(line, -1) {
				at[m[1]] = m[2]
			}
			// The path from the root, which is "." itself.
			switch parent, has := at["parent"]; {
			case !has:
				node = "."
			case parent == ".":
				node = at["name"]
			default:
				node = parent + "/" + at["name"]
			}
			keep(n, line)
		case strings.HasPrefix(line, "["):
			node = ""
		case node != "" && strings.HasPrefix(line, "script"):
			keep(n, line)
		case node != "" && strings.HasPrefix(line, "unique_name_in_owner") && strings.HasSuffix(line, "true") &&
			len(f.Selectors) < maxNodes:
			f.Selectors = append(f.Selectors, model.Mention{Name: node, Line: n})
		}
	})
	return f
}

// project reads what a project starts with and what it loads for all.
func project(_ syntax.How, src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull, Project: &model.Project{Tool: "godot"}}
	syntax.CountPlain(f, src)
	section := ""
	eachLine(src, func(n int, line string) {
		if strings.HasPrefix(line, "[") {
			section = strings.Trim(line, "[] ")
			return
		}
		key, value, ok := strings.Cut(line, "=")
		if !ok || !strings.HasPrefix(value, `"`) {
			return
		}
		value = strings.Trim(strings.TrimSpace(value), `"`)
		if value == "" {
			return
		}
		switch {
		case section == "application" && key == "config/name":
			f.Project.Name = value
		case section == "application" && key == "config/description":
			f.Project.Description = value
			f.Doc, f.DocLine = syntax.Sentence(value, 240), n
		case section == "application" && key == "run/main_scene":
			f.Project.Entries = append(f.Project.Entries, strings.TrimPrefix(value, "res://"))
			f.Imports = append(f.Imports, model.Import{Text: value, Kind: model.LinkConfiguration, Line: n})
		case section == "autoload":
			f.Imports = append(f.Imports, model.Import{
				Text: strings.TrimPrefix(value, "*"), Kind: model.LinkConfiguration, Line: n, Alias: key,
			})
		}
	})
	return f
}

func eachLine(src []byte, fn func(n int, line string)) {
	for n := 1; len(src) > 0; n++ {
		var line []byte
		line, src, _ = bytes.Cut(src, []byte{'\n'})
		fn(n, strings.TrimSpace(string(line)))
	}
}
