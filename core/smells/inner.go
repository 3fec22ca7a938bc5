package smells

import (
	"fmt"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/relations"
)

// featureKnowsInside reports dependencies that go past the index by which a
// folder is meant to be used, where others keep to it.
func featureKnowsInside(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "users"))
	doors := map[string]string{} // folder to its index
	for _, f := range c.sources {
		if n, _ := f.Facts.Sign(model.SignReExports); n > 0 && isIndex(f.Path) {
			doors[model.FolderOf(f.Path)] = f.Path
		}
	}
	if len(doors) == 0 {
		return nil
	}
	through := map[string]map[string]bool{}
	past := map[string][]*edge{}
	for i := range c.edges {
		l := &c.edges[i]
		if l.fromRole == model.RoleTest || l.again {
			continue
		}
		// The outermost door between the two ends is the one to knock at.
		for d := model.FolderOf(l.To); d != "."; d = model.FolderOf(d) {
			door, ok := doors[d]
			if !ok || model.Within(d, l.From) {
				continue
			}
			if door == l.To {
				if through[d] == nil {
					through[d] = map[string]bool{}
				}
				through[d][l.From] = true
			} else if l.Kind == model.LinkImport {
				past[d] = append(past[d], l)
			}
		}
	}
	for _, d := range slices.Sorted(maps.Keys(past)) {
		n := len(through[d])
		if n < limit || len(past[d]) > n {
			continue // it is no rule here
		}
		for _, l := range past[d] {
			if through[d][l.From] {
				continue // it comes by both ways: the index may not offer it
			}
			out = append(out, hit{path: l.From, line: l.Line, extra: l.To, strength: 0.35, touches: []string{l.From, l.To}, evidence: []model.Evidence{{Path: l.From, Line: l.Line, Note: l.Text}, {Path: doors[d], Line: 1, Note: "what it offers to others"}},
				message: fmt.Sprintf("%s reaches into *%s* past its index, by which %d others use it", path.Base(l.From), path.Base(d), n)})
		}
	}
	return out
}

func isIndex(p string) bool {
	switch naming.Stem(p) {
	case "index", "__init__", "mod":
		return true
	}
	return false
}

// outerPackages are what only the outer layers of a system have business with:
// what answers requests, and what draws. A name ends where a part of it does.
var outerPackages = []string{
	"express", "koa", "fastify", "hono", "@nestjs/common", "@hapi/hapi", "react", "react-dom", "vue", "svelte", "@angular/core", "@angular/common/http",
	"flask", "fastapi", "starlette", "django.http", "django.shortcuts", "django.views", "bottle", "aiohttp.web", "tkinter", "PyQt5", "PyQt6", "PySide6",
	"net/http", "github.com/gin-gonic/gin", "github.com/labstack/echo", "github.com/go-chi/chi", "github.com/gofiber/fiber", "html/template",
	"org.springframework.web", "jakarta.servlet", "javax.servlet", "jakarta.ws.rs", "javax.ws.rs", "javax.swing", "javafx",
	"Microsoft.AspNetCore", "System.Web", "System.Windows", "Illuminate\\Http", "Symfony\\Component\\HttpFoundation", "sinatra", "action_controller", "action_view",
}

// innerLayerFramework reports logic and models that know how requests come in or
// how things are drawn, where there is an outer layer to know it.
func innerLayerFramework(c *Context, _ *Rule) (out []hit) {
	outer := 0
	for _, f := range c.sources {
		switch c.Roles[f.Path].Role {
		case model.RoleHandler, model.RoleRouting, model.RoleView:
			outer++
		}
	}
	if outer < 3 {
		return nil
	}
	seen := map[string]bool{}
	for _, e := range c.Survey.External {
		role := c.Roles[e.From].Role
		if role != model.RoleLogic && role != model.RoleModel || !c.Judged[e.From] || seen[e.From] || c.Survey.File(e.From).Facts.Starts > 0 {
			continue
		}
		if !slices.ContainsFunc(outerPackages, func(p string) bool { return e.Package == p || within(e.Package, p) }) {
			continue
		}
		seen[e.From] = true
		out = append(out, hit{path: e.From, line: e.Line, name: e.Package, strength: 0.35, touches: []string{e.From}, evidence: []model.Evidence{{Path: e.From, Line: e.Line, Note: e.Package}},
			message: fmt.Sprintf("*%s* is %s, and knows %s", path.Base(e.From), role, e.Package)})
	}
	return out
}

// within reports whether a package lies below another, however the two are
// parted in its language.
func within(p, outer string) bool {
	rest, ok := strings.CutPrefix(p, outer)
	return ok && rest != "" && strings.ContainsRune(`/.\`, rune(rest[0]))
}

// repeatedLiteral reports messages whose ends are tied by a text that each of
// several files writes for itself.
func repeatedLiteral(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	held := map[string]bool{} // texts that a constant holds
	written := map[[2]string]bool{}
	for _, f := range c.sources {
		for _, l := range f.Facts.Literals {
			held[l.Value] = true
		}
		for _, m := range f.Facts.Messages {
			if m.Name != "" {
				written[[2]string{f.Path, m.Name}] = true
			}
		}
	}
	type ends struct {
		at            []model.Evidence
		files         []string
		sent, arrives bool
	}
	by := map[string]*ends{}
	var names []string
	for _, m := range relations.Messages(c.Survey) {
		// A name of one word may be one of the platform's own, such as a key's.
		if !c.Judged[m.Path] || c.Roles[m.Path].Role == model.RoleTest || held[m.Name] || !strings.ContainsAny(m.Name, "._:/-") || !written[[2]string{m.Path, m.Name}] {
			continue
		}
		e := by[m.Name]
		if e == nil {
			e = &ends{}
			by[m.Name] = e
			names = append(names, m.Name)
		}
		e.sent, e.arrives = e.sent || m.Direction == model.Send, e.arrives || m.Direction == model.Receive
		e.at = append(e.at, model.Evidence{Path: m.Path, Line: m.Line, Note: m.Direction})
		if !slices.Contains(e.files, m.Path) {
			e.files = append(e.files, m.Path)
		}
	}
	slices.Sort(names)
	for _, n := range names {
		e := by[n]
		if len(e.files) < limit || !e.sent || !e.arrives {
			continue
		}
		out = append(out, hit{path: e.at[0].Path, line: e.at[0].Line, name: n, strength: 0.2 + 0.05*float64(len(e.files)-limit), touches: e.files, evidence: e.at[:min(12, len(e.at))],
			message: fmt.Sprintf("%s files write *%s* each for itself, and are tied by it alone", capital(number(len(e.files))), n)})
	}
	return out
}

// duties are what a file may do, by the sign that shows it.
var duties = []struct {
	sign model.SignName
	does string
}{
	{model.SignDraws, "draws"},
	{model.SignSQL, "talks to the store"},
	{model.SignRoutes, "declares routes"},
	{model.SignHTTP, "calls over HTTP"},
	{model.SignKeepsState, "keeps state"},
}

// mixedDuties reports files that do several things which elsewhere have files
// of their own.
func mixedDuties(c *Context, r *Rule) (out []hit) {
	limit, least := int(c.Value(r, "duties")), int(c.Value(r, "lines"))
	c.source(func(f *model.File) {
		if f.Facts.Code < least || f.Facts.Starts > 0 {
			return
		}
		var does []string
		var ev []model.Evidence
		for _, d := range duties {
			if n, line := f.Facts.Sign(d.sign); n > 0 {
				does = append(does, d.does)
				ev = append(ev, model.Evidence{Path: f.Path, Line: line, Note: d.does})
			}
		}
		if len(does) < limit {
			return
		}
		out = append(out, hit{path: f.Path, strength: 0.3 + 0.15*float64(len(does)-limit) + float64(f.Facts.Code)/4000, touches: []string{f.Path}, evidence: ev,
			message: fmt.Sprintf("*%s* %s and %s", path.Base(f.Path), strings.Join(does[:len(does)-1], ", "), does[len(does)-1])})
	})
	return out
}
