package javascript

import (
	"bytes"
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "Vue", Version: 4, Profile: syntax.Profile{Code: true, Reached: true}, ResolvedWith: "TypeScript",
		Extensions: []string{".vue"}, Read: readComponent,
	})
	syntax.Register(&syntax.Language{
		Name: "Svelte", Version: 4, Profile: syntax.Profile{Code: true, Reached: true}, ResolvedWith: "TypeScript",
		Extensions: []string{".svelte"}, Read: readComponent,
	})
}

// part is one element at the top of a component written in one file.
type part struct {
	name, head string // the element, and its attributes as written
	from, to   int    // of what it holds
}

var partHead = regexp.MustCompile(`<(script|template|style)((?:\s+[^<>"']*(?:"[^"]*"|'[^']*')?)*)\s*>`)

// partsOf finds the elements of a component. A template may hold others of its
// name; what is in a script is no markup.
func partsOf(src []byte) []part {
	var out []part
	for at := 0; ; {
		m := partHead.FindSubmatchIndex(src[at:])
		if m == nil {
			return out
		}
		p := part{name: string(src[at+m[2] : at+m[3]]), head: string(src[at+m[4] : at+m[5]]), from: at + m[1]}
		if strings.HasSuffix(strings.TrimSpace(p.head), "/") {
			p.to = p.from
		} else {
			p.to = p.from + closing(src[p.from:], p.name)
		}
		out = append(out, p)
		at = p.to
	}
}

// closing is where the element that text stands in ends.
func closing(text []byte, name string) int {
	open, shut := []byte("<"+name), []byte("</"+name)
	depth := 1
	for at := 0; ; {
		end := bytes.Index(text[at:], shut)
		if end < 0 {
			return len(text)
		}
		if name == "template" {
			for in := text[at : at+end]; ; {
				k := bytes.Index(in, open)
				if k < 0 {
					break
				}
				if gt := bytes.IndexByte(in[k:], '>'); gt < 0 || in[k+gt-1] != '/' {
					depth++
				}
				in = in[k+len(open):]
			}
		}
		if depth--; depth == 0 {
			return at + end
		}
		at += end + len(shut)
	}
}

var (
	attributeSrc = regexp.MustCompile(`\bsrc\s*=\s*["']([^"']+)["']`)
	styleImport  = regexp.MustCompile(`@(?:import|use|forward)\s+(?:url\()?["']([^"']+)["']`)
)

// readComponent reads a component whose script, markup and style stand in one
// file: the scripts as the language they are in, and in the markup which other
// components are rendered.
func readComponent(how syntax.How, src []byte) *model.Facts {
	parts := partsOf(src)
	scripts := blank(src)
	ts := false
	var markup [][2]int
	at := 0
	f := &model.Facts{}
	line := func(at int) int { return bytes.Count(src[:at], []byte{'\n'}) + 1 }
	for _, p := range parts {
		if m := attributeSrc.FindStringSubmatch(p.head); m != nil {
			kind := model.LinkImport
			if p.name != "script" {
				kind = model.LinkTemplate
			}
			f.Imports = append(f.Imports, model.Import{Text: m[1], Kind: kind, Line: line(p.from)})
		}
		switch p.name {
		case "script":
			copy(scripts[p.from:p.to], src[p.from:p.to])
			ts = ts || strings.Contains(p.head, `"ts`) || strings.Contains(p.head, `'ts`)
		case "template":
			if how.Language == "Vue" {
				markup = append(markup, [2]int{p.from, p.to})
			}
		case "style":
			for _, m := range styleImport.FindAllSubmatchIndex(src[p.from:p.to], -1) {
				f.Imports = append(f.Imports, model.Import{
					Text: string(src[p.from+m[2] : p.from+m[3]]), Kind: model.LinkTemplate,
					Line: line(p.from + m[2]),
				})
			}
		}
		if how.Language == "Svelte" && p.name != "template" {
			markup = append(markup, [2]int{at, max(at, p.from)})
			at = p.to
		}
	}
	if how.Language == "Svelte" {
		markup = append(markup, [2]int{at, len(src)})
	}
	r := newReader(lex(scripts, false, ts), f)
	r.component = true
	r.statements(0, r.s.Len(), "")
	r.dropOverloads()
	r.walk()
	r.bases()
	r.f.Env = environment.Read(r.s)
	for _, m := range markup {
		r.rendered(src[m[0]:m[1]], line(m[0]))
	}
	r.signs.Add(model.SignDraws, 1)
	r.names["default"] = true
	r.f.Names = syntax.SortedSet(r.names)
	r.bodies()
	out := syntax.Finish(how, r.f, r.s, r.signs)
	// The script alone was lexed: the lines are those of the whole file.
	out.Lines, out.Code, out.Comment, out.Blank = 0, 0, 0, 0
	syntax.CountPlain(out, src)
	return out
}

// blank is a text of as many bytes and lines with nothing in it.
func blank(src []byte) []byte {
	out := bytes.Repeat([]byte{' '}, len(src))
	for i, c := range src {
		if c == '\n' {
			out[i] = '\n'
		}
	}
	return out
}

var element = regexp.MustCompile(`<([A-Za-z][\w.:-]*)`)

// rendered notes the components that markup draws, as far as the script takes
// them in.
func (r *reader) rendered(text []byte, line int) {
	seen, last := map[string]bool{}, 0
	for _, m := range element.FindAllSubmatchIndex(text, -1) {
		name := string(text[m[2]:m[3]])
		if seen[name] {
			continue
		}
		seen[name] = true
		line += bytes.Count(text[last:m[0]], []byte{'\n'})
		last = m[0]
		if head, rest, dotted := strings.Cut(name, "."); dotted {
			r.useOf(head, rest, line)
			continue
		}
		if c := name[0]; c >= 'A' && c <= 'Z' || strings.Contains(name, "-") {
			r.signs.Add(model.SignComposes, line)
			r.use(pascal(name), line)
		}
	}
}

// pascal writes my-shelf as MyShelf.
func pascal(name string) string {
	var b strings.Builder
	for _, p := range strings.Split(name, "-") {
		if p != "" {
			b.WriteString(strings.ToUpper(p[:1]) + p[1:])
		}
	}
	return b.String()
}
