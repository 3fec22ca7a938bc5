// Package styles reads style sheets: CSS and the languages that become it.
package styles

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "CSS", Version: 1, Profile: syntax.Profile{Counted: true}, Extensions: []string{".css", ".pcss"},
		Read: readWith(plain), Resolve: resolve,
	})
	syntax.Register(&syntax.Language{
		Name: "SCSS", Version: 1, Profile: syntax.Profile{Counted: true}, ResolvedWith: "CSS",
		Extensions: []string{".scss"}, Read: readWith(slashes),
	})
	syntax.Register(&syntax.Language{Name: "Sass", Version: 1, ResolvedWith: "CSS", Extensions: []string{".sass"}, Read: readWith(slashes)})
	syntax.Register(&syntax.Language{Name: "Less", Version: 1, ResolvedWith: "CSS", Extensions: []string{".less"}, Read: readWith(slashes)})
}

var (
	plain   = &syntax.Braces{Special: func(b *syntax.Builder) bool { return address(b) || double(b) }}
	slashes = &syntax.Braces{Special: address}
)

// double takes "//" as two signs where it starts no comment.
func double(b *syntax.Builder) bool {
	if !b.Next("//") {
		return false
	}
	b.Sign()
	b.Sign()
	return true
}

// address takes url(…) without quotes as one string: it may hold any sign.
func address(b *syntax.Builder) bool {
	if b.Src[b.Pos] != 'u' || !b.Next("url(") || b.Pos > 0 && syntax.IsIdentPart(b.Src[b.Pos-1]) {
		return false
	}
	p := b.Pos + 4
	for p < len(b.Src) && (syntax.In(b.Src[p], " \t")) {
		p++
	}
	if p >= len(b.Src) || syntax.In(b.Src[p], "\"'") {
		return false
	}
	for end := p; end < len(b.Src) && b.Src[end] != '\n' && b.Src[end] != '{'; end++ {
		if b.Src[end] == ')' {
			start, line := b.Pos, b.LineNo
			b.Pos = end + 1
			b.Add(syntax.String, start, line)
			return true
		}
	}
	return false
}

func readWith(g *syntax.Braces) func(syntax.How, []byte) *model.Facts {
	return func(how syntax.How, src []byte) *model.Facts {
		r := &reader{s: g.Lex(src), f: &model.Facts{}, names: map[string]bool{}}
		r.walk()
		r.f.Names = syntax.SortedSet(r.names)
		return syntax.Finish(how, r.f, r.s, syntax.Signs{})
	}
}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	names map[string]bool
}

func (r *reader) add(name string, kind model.DefinitionKind, i, last int) {
	r.f.Definitions = append(r.f.Definitions, model.Definition{
		Name: name, Kind: kind, Line: r.s.Line(i), EndLine: r.s.EndLine(last), Exported: true,
	})
	r.names[name] = true
}

// walk reads what is brought in, and the mixins, functions and variables that a
// sheet defines at its top.
func (r *reader) walk() {
	s := r.s
	depth := 0
	for i := 0; i < s.Len(); i++ {
		switch {
		case s.Is(i, "("):
			i = s.Close(i)
		case s.Is(i, "{"):
			depth++
		case s.Is(i, "}"):
			depth--
		case s.Match(i, "@", syntax.Name):
			switch s.Text(i + 1) {
			case "import", "use", "forward", "reference", "plugin":
				r.brings(i)
			case "mixin", "function":
				name, j := r.dashed(i + 2)
				last := j
				for last < s.Len() && !s.Is(last, "{") && !s.Is(last, ";") {
					last = s.Close(last) + 1
				}
				if name != "" && s.Is(last, "{") {
					r.add(name, model.DefFunction, i, s.Close(last))
				}
			default:
				// A variable of Less.
				if name, j := r.dashed(i + 1); depth == 0 && s.Is(j, ":") && !s.Is(j+1, ":") {
					r.add("@"+name, model.DefVariable, i, r.stop(j))
				}
			}
		case depth == 0 && s.IsIdent(i) && s.Bytes(i)[0] == '$':
			if name, j := r.dashed(i); s.Is(j, ":") {
				r.add(name, model.DefVariable, i, r.stop(j))
				i = j
			}
		}
	}
}

// dashed reads a name with dashes, of which each part is a token.
func (r *reader) dashed(i int) (string, int) {
	s := r.s
	var b strings.Builder
	for ; i < s.Len() && (s.Any(i, syntax.Name, "-", syntax.Figure)); i++ {
		if b.Len() > 0 && s.Tokens[i].Start != s.Tokens[i-1].End {
			break
		}
		b.Write(s.Bytes(i))
	}
	return b.String(), i
}

func (r *reader) stop(i int) int {
	for ; i < r.s.Len(); i = r.s.Close(i) + 1 {
		if r.s.Any(i, ";", "}") {
			return i
		}
	}
	return max(r.s.Len()-1, 0)
}

// brings reads the paths of an @import, @use or @forward.
func (r *reader) brings(i int) {
	s := r.s
	for k := i + 2; k < s.Len() && !s.Is(k, ";") && !s.Is(k, "{"); k++ {
		if s.Kind(k) != syntax.String {
			if s.Line(k) > s.Line(i)+8 {
				return
			}
			if s.Any(k, "with", "as") {
				return
			}
			continue
		}
		text := s.Unquote(k)
		if rest, ok := strings.CutPrefix(text, "url("); ok {
			text = strings.TrimSpace(strings.TrimSuffix(rest, ")"))
		}
		if text != "" && !strings.ContainsAny(text, "#{\n") {
			kind := model.LinkImport
			if s.Is(i+1, "forward") {
				kind = model.LinkReExport
			}
			r.f.Imports = append(r.f.Imports, model.Import{Text: text, Kind: kind, Line: s.Line(i), Names: []string{"*"}})
		}
	}
}

func resolve(t *syntax.Tree) {
	t.Each(func(out *syntax.Out, f *model.File) {
		for _, im := range f.Facts.Imports {
			switch {
			case strings.HasPrefix(im.Text, "sass:"):
				continue
			case strings.Contains(im.Text, "://") || strings.HasPrefix(im.Text, "//"):
				out.External = append(out.External, model.External{From: f.Path, Package: im.Text, Line: im.Line})
				continue
			}
			d := model.FolderOf(f.Path)
			to := syntax.FindStyle(t, d, im.Text)
			if to == "" { // a package's sheet, or one that bundlers find
				to = syntax.FindStyle(t, d, "node_modules/"+im.Text)
			}
			switch {
			case to != "" && to != f.Path:
				out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: true})
			case to != "":
			case strings.HasPrefix(im.Text, ".") || strings.HasPrefix(im.Text, "/"):
				out.Unresolved = append(
					out.Unresolved,
					model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: "no such style sheet"},
				)
			default:
				name, _, _ := strings.Cut(im.Text, "/")
				if strings.HasPrefix(im.Text, "@") {
					if parts := strings.SplitN(im.Text, "/", 3); len(parts) > 1 {
						name = parts[0] + "/" + parts[1]
					}
				}
				out.External = append(out.External, model.External{From: f.Path, Package: name, Line: im.Line})
			}
		}
	}, "CSS", "SCSS", "Sass", "Less")
}
