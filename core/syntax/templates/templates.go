// Package templates reads pages and the template languages of frameworks: what
// they build upon, what they include, and where their forms and links lead.
package templates

import (
	"bytes"
	"regexp"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// kind is one template language: the shapes in which it names others. The
// first group of each pattern is the name.
type kind struct {
	name       string
	extensions []string
	refs       []ref
	comments   [][2]string // what opens and closes each sort; of two that open alike the longer comes first
}

// ref is a shape that names another template; all texts with one have one of
// the leads in them, where there are any.
type ref struct {
	re    *regexp.Regexp
	leads []string
}

func all(patterns ...string) []ref {
	var out []ref
	for _, p := range patterns {
		r := ref{re: regexp.MustCompile(p)}
		if lead, _ := r.re.LiteralPrefix(); lead != "" {
			r.leads = []string{lead}
		}
		out = append(out, r)
	}
	return out
}

// in reports whether the text can have the shape in it at all.
func (r ref) in(text []byte) bool {
	return len(r.leads) == 0 || slices.ContainsFunc(r.leads, func(l string) bool { return bytes.Contains(text, []byte(l)) })
}

const quoted = `["']([^"'\n]+)["']`

var (
	// blocks is what Jinja and Twig have in common; pages without an ending of
	// their own are read so too, since frameworks keep them as plain HTML.
	blocks = []string{`\{%[-~+]?\s*(?:extends|include|import|from|embed|use)\s+` + quoted, `\{\{[-~]?\s*include\(\s*` + quoted}
	// fragments is how Thymeleaf names others.
	fragments = ref{
		leads: []string{"th:replace", "th:insert", "th:include", "data-th-", "layout:decorate"},
		re: regexp.MustCompile(
			`(?:th:(?:replace|insert|include)|data-th-(?:replace|insert|include)|layout:decorate)\s*=\s*["']\s*(?:~\{)?\s*/?([\w./-]+)`,
		),
	}
	kinds = []kind{
		{
			name: "HTML", extensions: []string{".html", ".htm", ".xhtml"}, refs: append(all(blocks...), fragments),
			comments: [][2]string{{"<!--", "-->"}},
		},
		{
			name: "Jinja", extensions: []string{".j2", ".jinja", ".jinja2"}, refs: all(blocks...),
			comments: [][2]string{{"{#", "#}"}, {"<!--", "-->"}},
		},
		{name: "Twig", extensions: []string{".twig"}, refs: all(blocks...), comments: [][2]string{{"{#", "#}"}, {"<!--", "-->"}}},
		{name: "Blade", extensions: []string{".blade.php"}, refs: all(
			`@(?:extends|include(?:If|When|Unless|First|Isolated)?|component|each|livewire)\s*\(\s*(?:\$?\w[^,'"]*,\s*)?\[?\s*`+quoted,
			`<x-([\w.:-]+)`, `<livewire:([\w.-]+)`,
		),
			comments: [][2]string{{"{{--", "--}}"}, {"<!--", "-->"}}},
		{
			name: "ERB", extensions: []string{".erb", ".rhtml", ".haml", ".slim"},
			refs: all(
				`\brender\s*\(?\s*(?:partial:\s*|layout:\s*|template:\s*|:partial\s*=>\s*)?`+quoted,
				`\brender\s*\(?\s*(@\w+)\s*(?:%>|\)|$)`,
			),
			comments: [][2]string{{"<%#", "%>"}, {"<!--", "-->"}},
		},
		{
			name: "EJS", extensions: []string{".ejs"}, refs: all(`<%[-=]\s*include\s*\(?\s*` + quoted),
			comments: [][2]string{{"<%#", "%>"}, {"<!--", "-->"}},
		},
		{
			name: "Handlebars", extensions: []string{".hbs", ".handlebars", ".mustache"},
			refs:     all(`\{\{~?#?>\s*["']?([\w./-]+)`, `\{\{#extend\s+`+quoted),
			comments: [][2]string{{"{{!--", "--}}"}, {"{{!", "}}"}, {"<!--", "-->"}},
		},
		{
			name: "Razor", extensions: []string{".cshtml", ".razor", ".vbhtml"},
			refs: all(
				`\bLayout\s*=\s*`+quoted, `<partial\s+name\s*=\s*`+quoted,
				`Html\.(?:Partial|RenderPartial|PartialAsync|RenderPartialAsync)\s*\(\s*`+quoted,
			),
			comments: [][2]string{{"@*", "*@"}, {"<!--", "-->"}},
		},
		{
			name: "Template Toolkit", extensions: []string{".tt", ".tt2"},
			refs:     all(`\[%-?\+?\s*(?:INCLUDE|PROCESS|WRAPPER|INSERT)\s+["']?([\w./-]+)`),
			comments: [][2]string{{"[%#", "%]"}, {"<!--", "-->"}},
		},
		{name: "Mojo template", extensions: []string{".ep"}, refs: all(`\b(?:include|layout|extends)\s*\(?\s*` + quoted)},
	}
)

func init() {
	for _, k := range kinds {
		l := &syntax.Language{Name: k.name, Version: 4, Extensions: k.extensions, Read: k.read, ResolvedWith: "HTML",
			Profile: syntax.Profile{Template: k.name != "HTML"}}
		if k.name == l.ResolvedWith {
			l.Resolve, l.Counted = resolve, true
		}
		syntax.Register(l)
	}
}

var (
	loading  = syntax.Set("script", "link", "img", "source", "iframe", "embed")
	source   = regexp.MustCompile(`\s(?:src|href)\s*=\s*["']`)
	target   = regexp.MustCompile(`\shref\s*=\s*["']`)
	action   = regexp.MustCompile(`\baction\s*=\s*["'](/[^"'\n]*)["']`)
	method   = regexp.MustCompile(`(?i)\bmethod\s*=\s*["'](get|post)["']`)
	requests = regexp.MustCompile(`\bhx-(get|post|put|patch|delete)\s*=\s*["'](/[^"'\n]*)["']`)
	page     = regexp.MustCompile(`(?m)^\s*@page\s+"([^"]*)"`)
	using    = regexp.MustCompile(`(?m)^\s*@(?:model|inherits|inject)\s+([\w.]+)`)
	hole     = regexp.MustCompile(`\{\{.*?\}\}|<%.*?%>|\{%.*?%\}|\[%.*?%\]|@\{?[\w.()]+\}?|\$\{.*?\}`)
)

// maxRefs bounds what is kept of one file.
const maxRefs = 2000

func (k kind) read(_ syntax.How, src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	signs := syntax.Signs{}
	signs.Add(model.SignDraws, 1)
	spans := k.commented(src)
	text := without(src, spans)
	lines := starts(src)
	at := func(i int) int { return sort.SearchInts(lines, i+1) }
	for _, r := range k.refs {
		if !r.in(text) {
			continue
		}
		for _, m := range r.re.FindAllSubmatchIndex(text, maxRefs) {
			f.Templates = append(f.Templates, model.Mention{Name: string(text[m[2]:m[3]]), Line: at(m[2])})
		}
	}
	sort.SliceStable(f.Templates, func(i, j int) bool { return f.Templates[i].Line < f.Templates[j].Line })
	tags(text, func(name string, from, to int) {
		switch {
		case loading[name] && len(f.Imports) < maxRefs:
			if m, ok := value(
				text, source, from, to,
				func(v string) bool { return v != "" && !strings.ContainsAny(v, "{}<>% \t\r\n\f") },
			); ok {
				f.Imports = append(f.Imports, model.Import{Text: string(text[m[0]:m[1]]), Kind: model.LinkTemplate, Line: at(m[0])})
			}
		case name == "form" && len(f.Calls) < maxRefs:
			head := text[from:to]
			if a := action.FindSubmatch(head); a != nil {
				how := "GET"
				if b := method.FindSubmatch(head); b != nil {
					how = strings.ToUpper(string(b[1]))
				}
				f.Calls = append(f.Calls, call(how, string(a[1]), at(from)))
			}
		case name == "a" && len(f.Calls) < maxRefs:
			if m, ok := value(
				text, target, from, to,
				func(v string) bool { return strings.HasPrefix(v, "/") && !strings.Contains(v, "\n") },
			); ok {
				f.Calls = append(f.Calls, call("GET", string(text[m[0]:m[1]]), at(m[0])))
			}
		}
	})
	for _, m := range matches(requests, text, "hx-") {
		f.Calls = append(f.Calls, call(strings.ToUpper(string(text[m[2]:m[3]])), string(text[m[4]:m[5]]), at(m[2])))
	}
	sort.SliceStable(f.Calls, func(i, j int) bool { return f.Calls[i].Line < f.Calls[j].Line })
	if k.name == "HTML" {
		f.Tags = Tags(text)
	}
	if k.name == "Razor" {
		k.razor(f, text, at)
	}
	f.Asked = syntax.AskedInPage(text, at)
	counted(f, src, spans, lines)
	f.Signs = signs.List()
	return f
}

// component is an attribute as components are bound by: no other has a capital
// letter in it.
var component = regexp.MustCompile(`[\s\[*(]([a-z]+[A-Z][A-Za-z0-9]*)\b`)

// Tags lists the elements of a page that are none of the language's own (they
// have a dash in their name) and the attributes that may be a component's, each
// with the first line it is met on.
func Tags(text []byte) []model.Mention {
	seen := map[string]bool{}
	var out []model.Mention
	line, counted := 1, 0
	keep := func(name string, at int) {
		if name == "" || seen[name] || len(out) >= maxRefs {
			return
		}
		seen[name] = true
		line += bytes.Count(text[counted:at], []byte{'\n'})
		counted = at
		out = append(out, model.Mention{Name: name, Line: line})
	}
	tags(text, func(name string, from, to int) {
		end := from + 1 + len(name)
		for end < to && (text[end] == '-' || syntax.IsIdentPart(text[end])) {
			end++
		}
		if full := string(text[from+1 : end]); strings.Contains(full, "-") {
			keep(full, from)
		}
		if bytes.ContainsFunc(text[end:to], func(c rune) bool { return c >= 'A' && c <= 'Z' }) {
			for _, m := range component.FindAllSubmatch(text[end:to], 20) {
				keep(string(m[1]), from)
			}
		}
	})
	return out
}

// tags calls fn for each tag that is opened: its name in lower case as far as
// ASCII goes, and where it starts and ends, the ">" included. A tag may stand
// in the value of another, so the inside of each is looked through again; but
// only as long as that does not come to many times the text.
func tags(text []byte, fn func(name string, from, to int)) {
	left := 16*len(text) + 64<<10
	for i := 0; ; {
		k := bytes.IndexByte(text[i:], '<')
		if k < 0 {
			return
		}
		from := i + k
		end := from + 1
		for end < len(text) && end < from+64 && (text[end] >= 'a' && text[end] <= 'z' || text[end] >= '0' && text[end] <= '9') {
			end++
		}
		i = from + 1
		if end == from+1 || end < len(text) && syntax.IsIdentPart(text[end]) {
			continue
		}
		to := bytes.IndexByte(text[end:min(len(text), end+maxTag)], '>')
		if to < 0 {
			continue
		}
		fn(string(text[from+1:end]), from, end+to+1)
		if left -= to; left > 0 {
			i = end
		} else {
			i = end + to
		}
	}
}

// maxTag bounds how far the end of a tag is looked for, in bytes.
const maxTag = 16 << 10

// value finds the first value of an attribute, in its quotes, that starts in
// the tag and passes.
func value(text []byte, attribute *regexp.Regexp, from, to int, passes func(string) bool) (span [2]int, ok bool) {
	for from < to {
		m := attribute.FindIndex(text[from:to])
		if m == nil {
			return span, false
		}
		from += m[1]
		n := bytes.IndexAny(text[from:min(len(text), from+maxValue)], `"'`)
		if n >= 0 && passes(string(text[from:from+n])) {
			return [2]int{from, from + n}, true
		}
	}
	return span, false
}

// maxValue bounds how far the end of a value is looked for, in bytes.
const maxValue = 4000

// commented finds the comments of a text.
func (k kind) commented(src []byte) (spans [][]int) {
	next := make([]int, len(k.comments)) // where each sort opens next, -1 where it does not
	seek := func(i, from int) {
		if next[i] = bytes.Index(src[from:], []byte(k.comments[i][0])); next[i] >= 0 {
			next[i] += from
		}
	}
	for i := range next {
		seek(i, 0)
	}
	for at := 0; ; {
		first := -1
		for i := range next {
			if next[i] >= 0 && next[i] < at {
				seek(i, at)
			}
			if next[i] >= 0 && (first < 0 || next[i] < next[first]) {
				first = i
			}
		}
		if first < 0 {
			return spans
		}
		from := next[first]
		n := bytes.Index(src[from+len(k.comments[first][0]):], []byte(k.comments[first][1]))
		if n < 0 {
			next[first] = -1 // it is never closed, so it is none
			continue
		}
		at = from + len(k.comments[first][0]) + n + len(k.comments[first][1])
		spans = append(spans, []int{from, at})
	}
}

// matches finds all matches of an expression, without looking where a text that
// each of them holds is missing.
func matches(re *regexp.Regexp, text []byte, lead string) [][]int {
	if !bytes.Contains(text, []byte(lead)) {
		return nil
	}
	return re.FindAllSubmatchIndex(text, maxRefs)
}

// razor reads what the pages of one framework say besides: their own address
// and the types they are about.
func (k kind) razor(f *model.Facts, text []byte, at func(int) int) {
	for _, m := range page.FindAllSubmatchIndex(text, -1) {
		f.Routes = append(f.Routes, model.RouteFact{Method: "GET", Pattern: syntax.JoinRoute("", string(text[m[2]:m[3]])), Line: at(m[2])})
	}
	for _, m := range using.FindAllSubmatchIndex(text, maxRefs) {
		f.Mentions = append(f.Mentions, model.Mention{Name: string(text[m[2]:m[3]]), Line: at(m[2])})
	}
}

// call is a request to a path of a page, holes in it written as "*".
func call(how, path string, line int) model.CallFact {
	path = hole.ReplaceAllString(path, "*")
	path, _, _ = strings.Cut(path, "?")
	path, _, _ = strings.Cut(path, "#")
	return model.CallFact{Method: how, Pattern: path, Line: line}
}

// without blanks the spans of a text out.
func without(src []byte, spans [][]int) []byte {
	if len(spans) == 0 {
		return src
	}
	out := bytes.Clone(src)
	for _, s := range spans {
		for i := s[0]; i < s[1]; i++ {
			if out[i] != '\n' {
				out[i] = ' '
			}
		}
	}
	return out
}

// starts lists where each line begins.
func starts(src []byte) []int {
	out := []int{0}
	for i, c := range src {
		if c == '\n' {
			out = append(out, i+1)
		}
	}
	return out
}

// counted fills in the lines; those that a comment alone stands on are its own.
func counted(f *model.Facts, src []byte, spans [][]int, lines []int) {
	syntax.CountPlain(f, src)
	rest := without(src, spans)
	for i, from := range lines {
		to := len(src)
		if i+1 < len(lines) {
			to = lines[i+1]
		}
		if len(bytes.TrimSpace(src[from:to])) > 0 && len(bytes.TrimSpace(rest[from:to])) == 0 {
			f.Comment++
			f.Code--
		}
	}
}
