package smells

import (
	"fmt"
	"path"
	"regexp"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
	"jantel/core/weave"
)

// callable reports whether a definition is code that is called.
func callable(d model.Definition) bool {
	return d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefComponent
}

// source calls fn for each judged file of program text that is no test.
func (c *Context) source(fn func(f *model.File)) {
	for _, f := range c.sources {
		fn(f)
	}
}

func longFunction(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "lines"))
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if n := d.EndLine - d.Line + 1; callable(d) && n > limit {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.EndLine, name: d.Qualified(), strength: over(float64(n), float64(limit)), touches: []string{f.Path}, message: fmt.Sprintf("*%s* is %d lines long, where %d is the limit", d.Name, n, limit)})
			}
		}
	})
	return out
}

func manyParameters(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "parameters"))
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefFunction || d.Kind == model.DefMethod) && d.Params > limit {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(), strength: 0.2 + 0.08*float64(d.Params-limit), touches: []string{f.Path}, message: fmt.Sprintf("*%s* takes %s parameters", d.Name, number(d.Params))})
			}
		}
	})
	return out
}

func severalTypes(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "types"))
	c.source(func(f *model.File) {
		if !syntax.ProfileOf(f.Language).OneType {
			return
		}
		var ev []model.Evidence
		n := 0
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefClass || d.Kind == model.DefInterface) && (d.Parent == "" || d.Parent == f.Facts.Namespace) && d.EndLine-d.Line >= 10 {
				n++
				ev = append(ev, model.Evidence{Path: f.Path, Line: d.Line, Note: d.Name})
			}
		}
		if n >= limit {
			out = append(out, hit{path: f.Path, strength: 0.2 + 0.06*float64(n-limit), touches: []string{f.Path}, evidence: ev[:min(12, len(ev))], message: fmt.Sprintf("%s types share one file", capital(number(n)))})
		}
	})
	return out
}

// handlerDoesWork reports handlers that talk to the store themselves.
func handlerDoesWork(c *Context, _ *Rule) (out []hit) {
	c.source(func(f *model.File) {
		if c.Roles[f.Path].Role != model.RoleHandler {
			return
		}
		var ev []model.Evidence
		for _, o := range f.Facts.Operations {
			if n, l := f.Facts.Sign(model.SignSQL); n > 0 && l <= o.Line {
				ev = append(ev, model.Evidence{Path: f.Path, Line: o.Line, Note: o.What + " " + o.Entity})
			}
		}
		if n, l := f.Facts.Sign(model.SignSQL); n > 0 && len(ev) == 0 {
			ev = append(ev, model.Evidence{Path: f.Path, Line: l, Note: "a statement to the store"})
		}
		if len(ev) > 0 {
			out = append(out, hit{path: f.Path, line: ev[0].Line, strength: 0.35 + 0.05*float64(len(ev)), touches: []string{f.Path}, evidence: ev[:min(12, len(ev))], message: fmt.Sprintf("The handler *%s* talks to the store itself", path.Base(f.Path))})
		}
	})
	return out
}

// pictureAsCode reports components that are nothing but a picture.
func pictureAsCode(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	byFolder := map[string][]*model.File{}
	for _, f := range c.Survey.Files {
		if c.Judged[f.Path] && c.Roles[f.Path].Role == model.RoleAsset && weave.IsCode(f) {
			byFolder[model.FolderOf(f.Path)] = append(byFolder[model.FolderOf(f.Path)], f)
		}
	}
	dirs := make([]string, 0, len(byFolder))
	for d := range byFolder {
		dirs = append(dirs, d)
	}
	sort.Strings(dirs)
	for _, d := range dirs {
		if fs := byFolder[d]; len(fs) >= limit {
			out = append(out, hit{path: d, extra: "pictures", strength: 0.2 + 0.03*float64(len(fs)-limit), touches: paths(fs), evidence: evidence(paths(fs), "draws a picture and nothing else"), message: fmt.Sprintf("%s files are pictures kept as code", capital(number(len(fs))))})
		}
	}
	return out
}

func debugLeftOver(c *Context, _ *Rule) (out []hit) {
	c.source(func(f *model.File) {
		if r := c.Roles[f.Path].Role; r == model.RoleScript || r == model.RoleConfig {
			return
		}
		if n, l := f.Facts.Sign(model.SignDebug); n > 0 {
			what := "A line"
			if n > 1 {
				what = capital(number(n)) + " lines"
			}
			out = append(out, hit{path: f.Path, line: l, strength: 0.2 + 0.05*float64(n-1), touches: []string{f.Path}, evidence: []model.Evidence{{Path: f.Path, Line: l, Note: "the first"}}, message: what + " of looking for a fault left over"})
		}
	})
	return out
}

// Names.

var placeholders = map[string]bool{"foo": true, "bar": true, "baz": true, "qux": true, "asdf": true, "xyz": true, "untitled": true, "dummy": true, "temp": true, "tmp": true, "todo": true, "blah": true, "thing": true, "stuff": true}

func placeholderName(c *Context, _ *Rule) (out []hit) {
	c.source(func(f *model.File) {
		words := naming.Words(naming.Stem(f.Path))
		if len(words) == 1 && placeholders[words[0]] {
			out = append(out, hit{path: f.Path, strength: 0.5, touches: []string{f.Path}, message: fmt.Sprintf("*%s* is a name that stands for a name", path.Base(f.Path))})
		}
		for _, d := range f.Facts.Definitions {
			if len(d.Name) > 8 || d.Parent != "" || !namedThing(d) {
				continue
			}
			if w := naming.Words(naming.Own(d.Name)); len(w) == 1 && placeholders[w[0]] {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(), strength: 0.4, touches: []string{f.Path}, message: fmt.Sprintf("*%s* is a name that stands for a name", d.Name)})
			}
		}
	})
	return out
}

// folderEcho reports files that repeat the whole name of their folder where
// their siblings do not have to.
func folderEcho(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "files"))
	for _, d := range c.Folders {
		if d.Path == "." || testPlace(d.Path) {
			continue
		}
		folder := naming.Words(d.Name)
		if len(folder) == 0 {
			continue
		}
		last := naming.Singular(folder[len(folder)-1])
		files := c.code(d.Path)
		var echo []string
		for _, f := range files {
			w := naming.Words(naming.Stem(f.Path))
			if len(w) > 1 && naming.Singular(w[0]) == last && !syntax.ProfileOf(f.Language).NamedForType {
				echo = append(echo, f.Path)
			}
		}
		if len(echo) < limit || len(echo)*2 < len(files) {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.2 + 0.02*float64(len(echo)-limit), touches: echo, evidence: evidence(echo, "repeats it"), message: fmt.Sprintf("%s files in *%s* begin with its name again", capital(number(len(echo))), d.Name)})
	}
	return out
}

// stackedRoleWords reports names that end in two or more words of the trade.
func stackedRoleWords(c *Context, _ *Rule) (out []hit) {
	lex := weave.Words()
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if d.Kind != model.DefClass && d.Kind != model.DefInterface {
				continue
			}
			w := naming.Words(naming.Own(d.Name))
			n := 0
			for i := len(w) - 1; i > 0; i-- {
				if _, ok := lex.Names[w[i]]; !ok && !lex.VagueSuffixes[w[i]] && w[i] != "factory" && w[i] != "impl" && w[i] != "abstract" {
					break
				}
				n++
			}
			if n >= 3 {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(), strength: 0.3 + 0.1*float64(n-3), touches: []string{f.Path}, message: fmt.Sprintf("*%s* ends in %s words that say what it is, not what it is about", d.Name, number(n))})
			}
		}
	})
	return out
}

// suffixAgainstFolder reports files that lack the ending nearly all of their
// siblings have.
func suffixAgainstFolder(c *Context, r *Rule) (out []hit) {
	least := int(c.Value(r, "siblings"))
	for _, d := range c.Folders {
		files := c.code(d.Path)
		if len(files) < least || testPlace(d.Path) {
			continue
		}
		by := map[string][]string{}
		for _, f := range files {
			if w := naming.Words(naming.Stem(f.Path)); len(w) > 1 {
				by[w[len(w)-1]] = append(by[w[len(w)-1]], f.Path)
			}
		}
		for suffix, with := range by {
			if _, role := weave.Words().Names[suffix]; !role || len(with)*100 < 85*len(files) || len(with) == len(files) {
				continue
			}
			for _, f := range files {
				w := naming.Words(naming.Stem(f.Path))
				if len(w) > 0 && w[len(w)-1] != suffix && w[0] != "index" && w[0] != "base" && !strings.HasPrefix(path.Base(f.Path), "_") {
					out = append(out, hit{path: f.Path, strength: 0.25, touches: []string{f.Path}, evidence: evidence(with, "ends in "+suffix), message: fmt.Sprintf("*%s* does not end in *%s*, as %s of its siblings do", path.Base(f.Path), suffix, number(len(with)))})
				}
			}
		}
	}
	return out
}

// sameTypeName reports types of one name that are defined in several places of
// one module.
func sameTypeName(c *Context, _ *Rule) (out []hit) {
	type at struct{ module, name string }
	by := map[at][]model.Evidence{}
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefClass || d.Kind == model.DefInterface || d.Kind == model.DefEnum || d.Kind == model.DefType) && (d.Parent == "" || d.Parent == f.Facts.Namespace) && d.Exported && len(d.Name) > 3 {
				k := at{c.moduleOf(f.Path), d.Name}
				by[k] = append(by[k], model.Evidence{Path: f.Path, Line: d.Line, Note: string(d.Kind)})
			}
		}
	})
	keys := make([]at, 0, len(by))
	for k := range by {
		keys = append(keys, k)
	}
	sort.Slice(keys, func(i, j int) bool {
		if keys[i].module != keys[j].module {
			return keys[i].module < keys[j].module
		}
		return keys[i].name < keys[j].name
	})
	for _, k := range keys {
		ev := by[k]
		places := map[string]bool{}
		var touches []string
		for _, e := range ev {
			if !places[e.Path] {
				touches = append(touches, e.Path)
			}
			places[e.Path] = true
		}
		// A header and its source, a package's platforms: one folder is one place.
		dirs := map[string]bool{}
		for p := range places {
			dirs[model.FolderOf(p)] = true
		}
		f := c.Survey.File(ev[0].Path)
		if len(dirs) < 2 || syntax.ProfileOf(f.Language).SameNames {
			continue
		}
		out = append(out, hit{path: ev[0].Path, line: ev[0].Line, end: ev[0].Line, name: k.name, strength: 0.25 + 0.05*float64(len(places)-2), touches: touches, evidence: ev[:min(12, len(ev))], message: fmt.Sprintf("*%s* is defined in %s places", k.name, number(len(places)))})
	}
	return out
}

func crypticName(c *Context, _ *Rule) (out []hit) {
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefFunction || d.Kind == model.DefClass) && d.Exported && d.Parent == "" && len(d.Name) <= 2 && len(d.Name) > 0 && d.EndLine-d.Line >= 4 && d.Name != "$" && d.Name != "_" && d.Name != "up" && d.Name != "of" && d.Name != "go" && d.Name != "do" && d.Name != "to" && d.Name != "is" && d.Name != "on" && d.Name != "io" && d.Name != "db" {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(), strength: 0.3, touches: []string{f.Path}, message: fmt.Sprintf("*%s* can not be read out: others have to look it up", d.Name)})
			}
		}
	})
	return out
}

func overlongName(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "words"))
	c.source(func(f *model.File) {
		for _, d := range f.Facts.Definitions {
			if !namedThing(d) || len(d.Name) < 3*limit {
				continue
			}
			if w := naming.Words(naming.Own(d.Name)); len(w) > limit {
				out = append(out, hit{path: f.Path, line: d.Line, end: d.Line, name: d.Qualified(), strength: 0.15 + 0.08*float64(len(w)-limit), touches: []string{f.Path}, message: fmt.Sprintf("*%s* has %s words", d.Name, number(len(w)))})
			}
		}
	})
	return out
}

var routeVerb = regexp.MustCompile(`(?i)^(add|create|get|list|update|delete|remove|save|fetch|make|edit|insert|set|find)$`)

// routeForm reports routes with a verb in their path, where the method says it
// already.
func routeForm(c *Context, _ *Rule) (out []hit) {
	for _, rt := range c.routes() {
		if !c.Judged[rt.Path] || c.Roles[rt.Path].Role == model.RoleTest {
			continue
		}
		for _, part := range strings.Split(rt.Pattern, "/") {
			w := naming.Words(part)
			if len(w) == 0 || strings.ContainsAny(part, ":{<*[") || !routeVerb.MatchString(w[0]) {
				continue
			}
			out = append(out, hit{path: rt.Path, line: rt.Line, name: rt.Method + " " + rt.Pattern, strength: 0.25, touches: []string{rt.Path}, evidence: []model.Evidence{{Path: rt.Path, Line: rt.Line, Note: rt.Method + " " + rt.Pattern}}, message: fmt.Sprintf("The path of *%s %s* holds the verb *%s*", rt.Method, rt.Pattern, w[0])})
			break
		}
	}
	return out
}
