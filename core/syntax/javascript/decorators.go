package javascript

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
	"jantel/core/syntax/templates"
)

// maxTags bounds what is kept of the pages written in one file.
const maxTags = 2000

// decorator reads what a class says of its page: the element it answers to, the
// template and the styles it brings along, or a template written in place.
func (r *reader) decorator(name string, open int) {
	s := r.s
	args := s.Args(open)
	if len(args) == 0 {
		return
	}
	at := args[0][0]
	switch name {
	case "customElement":
		r.answersTo(at)
	case "Component", "Directive":
		if !s.Is(at, "{") {
			return
		}
		for _, pair := range s.Args(at) {
			read := pageOptions[s.Text(pair[0])]
			if v := pair[0] + 2; read != nil && s.Match(pair[0], syntax.Name, ":") && v < pair[1] {
				read(r, v)
			}
		}
	}
}

// pageOptions read what a class says of its page, by the key it stands behind.
var pageOptions = map[string]func(*reader, int){
	"selector":    (*reader).answersTo,
	"templateUrl": (*reader).sidecar,
	"styleUrl":    (*reader).sidecar,
	"styleUrls": func(r *reader, v int) {
		if r.s.Is(v, "[") {
			for _, one := range r.s.Args(v) {
				r.sidecar(one[0])
			}
		}
	},
	"template": (*reader).ownTemplate,
}

func (r *reader) answersTo(i int) {
	if r.s.Kind(i) == syntax.String {
		r.selectors(r.s.Unquote(i), r.s.Line(i))
	}
}

// ownTemplate reads a template that is written in place.
func (r *reader) ownTemplate(i int) {
	s := r.s
	if s.Kind(i) != syntax.String || len(r.f.Tags) >= maxTags {
		return
	}
	first := s.Line(i)
	for _, m := range templates.Tags(s.Bytes(i)) {
		m.Line += first - 1
		r.f.Tags = append(r.f.Tags, m)
	}
	r.signs.Add(model.SignDraws, first)
}

// sidecar keeps a file that lies beside a component and belongs to it.
func (r *reader) sidecar(i int) {
	if r.s.Kind(i) != syntax.String {
		return
	}
	p := r.s.Unquote(i)
	if p == "" || strings.Contains(p, "${") {
		return
	}
	if !strings.HasPrefix(p, ".") && !strings.HasPrefix(p, "/") {
		p = "./" + p
	}
	r.add(model.Import{Text: p, Kind: model.LinkTemplate, Line: r.s.Line(i)})
}

// selectors keeps the elements and attributes that a selector asks for:
// "app-lot, button[appWeigh]".
func (r *reader) selectors(text string, line int) {
	for _, one := range strings.Split(text, ",") {
		one = strings.TrimSpace(one)
		if _, attribute, ok := strings.Cut(one, "["); ok {
			one, _, _ = strings.Cut(strings.TrimSuffix(attribute, "]"), "=")
			one, _, _ = strings.Cut(one, "]")
		}
		if one != "" && !strings.ContainsAny(one, " .:#>") && len(r.f.Selectors) < maxTags {
			r.f.Selectors = append(r.f.Selectors, model.Mention{Name: one, Line: line})
		}
	}
}
