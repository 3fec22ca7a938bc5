package csharp

import (
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// verbs are the attributes that give a method its address, and the calls that
// map one onto a function.
var verbs = map[string]string{
	"HttpGet": "GET", "HttpPost": "POST", "HttpPut": "PUT", "HttpPatch": "PATCH", "HttpDelete": "DELETE",
	"HttpHead": "HEAD", "HttpOptions": "OPTIONS",
}

var maps = map[string]string{
	"MapGet": "GET", "MapPost": "POST", "MapPut": "PUT", "MapPatch": "PATCH", "MapDelete": "DELETE", "Map": "ANY",
	"MapFallback": "ANY", "MapFallbackToFile": "GET", "MapFallbackToPage": "GET", "MapFallbackToController": "ANY",
}

// address is what the attributes of one declaration say.
type address struct {
	paths, methods []string
	line           int
}

// routes joins the addresses on methods with those on the class around them,
// and reads app.MapGet("/lots", list) with the groups it may hang on.
func (r *reader) routes() {
	s := r.s
	at := map[int]*address{}
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident {
			continue
		}
		word := s.Text(i)
		method, isMap := maps[word]
		switch {
		case isMap && s.Is(i-1, ".") && s.Is(i+1, "("):
			r.mapped(i, method)
		case word == "MapGroup":
			r.mapGroup(i)
		case s.Any(i-1, "[", ","):
			r.addressed(i, word, at)
		}
	}
	for i := range r.f.Definitions {
		d := &r.f.Definitions[i]
		if a := at[i]; a != nil && d.Kind == model.DefMethod && len(a.methods) > 0 {
			r.answered(d, a, at)
		}
	}
}

// mapGroup reads var lots = app.MapGroup("/lots").
func (r *reader) mapGroup(i int) {
	s := r.s
	if !s.Match(i-4, syntax.Name, "=", syntax.Name, ".") {
		return
	}
	if a := s.Args(i + 1); len(a) > 0 && s.Kind(a[0][0]) == syntax.String {
		r.f.Mounts = append(r.f.Mounts, model.MountFact{
			On: s.Text(i - 2), Path: s.Unquote(a[0][0]), Target: s.Text(i - 4), Line: s.Line(i),
		})
	}
}

// addressed keeps what an attribute says of the address of what it stands on.
func (r *reader) addressed(i int, word string, at map[int]*address) {
	s := r.s
	method, isVerb := verbs[word]
	if !isVerb && word != "Route" {
		return
	}
	d := r.owner(s.Line(i))
	if d < 0 {
		return
	}
	a := at[d]
	if a == nil {
		a = &address{line: s.Line(i)}
		at[d] = a
	}
	if isVerb {
		a.methods = append(a.methods, method)
	}
	if s.Match(i+1, "(", syntax.Quoted) {
		a.paths = append(a.paths, s.Unquote(i+2))
	}
}

func (r *reader) answered(d *model.Definition, a *address, at map[int]*address) {
	prefixes := []string{""}
	for k := range r.f.Definitions {
		if c := &r.f.Definitions[k]; at[k] != nil && c.Qualified() == d.Parent && len(at[k].paths) > 0 {
			prefixes = at[k].paths
		}
	}
	class := d.Parent[strings.LastIndexByte(d.Parent, '.')+1:]
	paths := a.paths
	if len(paths) == 0 {
		paths = []string{""}
	}
	for _, pre := range prefixes {
		for _, p := range paths {
			full := syntax.JoinRoute(pre, p)
			if strings.HasPrefix(p, "/") || strings.HasPrefix(p, "~/") {
				full = syntax.JoinRoute("", strings.TrimPrefix(p, "~")) // it leaves the class's own behind
			}
			full = strings.ReplaceAll(full, "[controller]", strings.ToLower(strings.TrimSuffix(class, "Controller")))
			full = strings.ReplaceAll(full, "[action]", strings.ToLower(d.Name))
			for _, m := range a.methods {
				r.f.Routes = append(r.f.Routes, model.RouteFact{Method: m, Pattern: full, Line: a.line, Handler: d.Name})
			}
		}
	}
}

// mapped reads a call that maps an address onto a function.
func (r *reader) mapped(i int, method string) {
	s := r.s
	args := s.Args(i + 1)
	if strings.HasPrefix(s.Text(i), "MapFallback") {
		if s.IsIdent(i - 2) {
			on, _ := s.Dotted(i - 2)
			r.f.Routes = append(r.f.Routes, model.RouteFact{Method: method, Pattern: "/{*rest}", Line: s.Line(i), On: on})
		}
		return
	}
	if len(args) < 2 || s.Kind(args[0][0]) != syntax.String || !s.IsIdent(i-2) {
		return
	}
	on, _ := s.Dotted(i - 2)
	r.f.Routes = append(r.f.Routes, model.RouteFact{
		Method: method, Pattern: syntax.JoinRoute("", s.Unquote(args[0][0])), Line: s.Line(i), On: on,
		Handler: s.Name(args[1]), InPlace: s.InPlace(args[1]),
	})
}

// owner is the index of the innermost definition with attributes that holds
// the line.
func (r *reader) owner(line int) int {
	best := -1
	for i := range r.f.Definitions {
		d := &r.f.Definitions[i]
		if d.Line <= line && line <= d.EndLine && len(d.Marks) > 0 && (best < 0 || d.Line >= r.f.Definitions[best].Line) {
			best = i
		}
	}
	return best
}
