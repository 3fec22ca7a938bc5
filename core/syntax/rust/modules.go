package rust

import (
	"jantel/core/syntax"
	"strings"

	"jantel/core/model"
)

func (r *reader) module(h head, i, end int, in scope) int {
	s := r.s
	name := s.Text(i + 1)
	below := name
	if in.modules != "" {
		below = in.modules + "::" + name
	}
	if s.Is(i+2, "{") {
		last := s.Close(i + 2)
		d := r.add(h, in, name, model.DefNamespace, last)
		r.items(i+3, last, scope{parent: d.Qualified(), modules: below, hidden: in.hidden})
		return last + 1
	}
	if s.Is(i+2, ";") && !in.hidden {
		im := model.Import{Text: below, Kind: model.LinkImport, Line: s.Line(i), Alias: "mod"}
		if h.path != "" {
			im.Text, im.Alias = h.path, "path"
			im.Names = []string{below}
		}
		r.f.Imports = append(r.f.Imports, im)
		if in.parent == "" {
			r.names[name] = true
		}
	}
	return i + 3
}

// use reads one use statement with all its branches.
func (r *reader) use(h head, i, end int, in scope) int {
	s := r.s
	last := r.semicolon(i+1, end)
	kind := model.LinkImport
	switch {
	case h.public:
		kind = model.LinkReExport
	case in.hidden:
		kind = model.LinkLazyImport
	}
	r.branches("", i+1, last, func(path, name, local string) {
		text := path
		if name != "*" && name != "" {
			text = path + "::" + name
			if path == "" || path == "::" {
				text = path + name
			}
		}
		im := model.Import{Text: text, Kind: kind, Line: s.Line(h.first), Alias: in.modules}
		if name != "" {
			im.Names = []string{local}
			if name == "*" {
				im.Names = []string{"*"}
			}
		}
		if text != "" {
			r.f.Imports = append(r.f.Imports, im)
			if h.public && in.parent == "" && local != "*" {
				r.names[local] = true
			}
		}
	})
	return last + 1
}

// branches walks the tree of a use statement and hands out each leaf: the
// path before it, its name ("*" for all) and what it is called here.
func (r *reader) branches(prefix string, i, end int, leaf func(path, name, local string)) {
	s := r.s
	path := prefix
	for i < end {
		switch {
		case s.Is(i, ":"):
			if path == "" && s.Is(i+1, ":") {
				path = "::"
			}
			i++
		case s.Is(i, "*"):
			leaf(path, "*", "*")
			i++
		case s.Is(i, "{"):
			closing := s.Close(i)
			r.branches(path, i+1, closing, leaf)
			i = closing + 1
			path = prefix
		case s.Is(i, ","):
			path = prefix
			i++
		case s.IsIdent(i):
			name := s.Text(i)
			if s.Match(i+1, ":", ":") {
				switch path {
				case "":
					path = name
				case "::":
					path += name
				default:
					path += "::" + name
				}
				i += 3
				continue
			}
			local := name
			if s.Match(i+1, "as", syntax.Name) {
				local = s.Text(i + 2)
				i += 2
			}
			if name == "self" && path != "" {
				leaf(path, "", path[strings.LastIndex(path, ":")+1:])
			} else {
				leaf(path, name, local)
			}
			path = prefix
			i++
		default:
			i++
		}
	}
}
