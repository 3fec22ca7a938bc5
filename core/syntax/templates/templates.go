// Package templates reads pages and the template languages of frameworks: what
// they build upon, what they include, and where their forms and links lead.
package templates

import (
	"bytes"
	"regexp"
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
	refs       []*regexp.Regexp
	comment    *regexp.Regexp
}

func all(patterns ...string) []*regexp.Regexp {
	var out []*regexp.Regexp
	for _, p := range patterns {
		out = append(out, regexp.MustCompile(p))
	}
	return out
}

const quoted = `["']([^"'\n]+)["']`

var (
	// blocks is what Jinja and Twig have in common; pages without an ending of
	// their own are read so too, since frameworks keep them as plain HTML.
	blocks = []string{`\{%[-~+]?\s*(?:extends|include|import|from|embed|use)\s+` + quoted, `\{\{[-~]?\s*include\(\s*` + quoted}
	// fragments is how Thymeleaf names others.
	fragments = []string{`(?:th:(?:replace|insert|include)|data-th-(?:replace|insert|include)|layout:decorate)\s*=\s*["']\s*(?:~\{)?\s*/?([\w./-]+)`}
	kinds     = []kind{
		{name: "HTML", extensions: []string{".html", ".htm", ".xhtml"}, refs: all(append(append([]string{}, blocks...), fragments...)...), comment: regexp.MustCompile(`(?s)<!--.*?-->`)},
		{name: "Jinja", extensions: []string{".j2", ".jinja", ".jinja2"}, refs: all(blocks...), comment: regexp.MustCompile(`(?s)\{#.*?#\}|<!--.*?-->`)},
		{name: "Twig", extensions: []string{".twig"}, refs: all(blocks...), comment: regexp.MustCompile(`(?s)\{#.*?#\}|<!--.*?-->`)},
		{name: "Blade", extensions: []string{".blade.php"}, refs: all(`@(?:extends|include(?:If|When|Unless|First|Isolated)?|component|each|livewire)\s*\(\s*(?:\$?\w[^,'"]*,\s*)?\[?\s*`+quoted, `<x-([\w.:-]+)`, `<livewire:([\w.-]+)`),
			comment: regexp.MustCompile(`(?s)\{\{--.*?--\}\}|<!--.*?-->`)},
		{name: "ERB", extensions: []string{".erb", ".rhtml", ".haml", ".slim"}, refs: all(`\brender\s*\(?\s*(?:partial:\s*|layout:\s*|template:\s*|:partial\s*=>\s*)?` + quoted), comment: regexp.MustCompile(`(?s)<%#.*?%>|<!--.*?-->`)},
		{name: "EJS", extensions: []string{".ejs"}, refs: all(`<%[-=]\s*include\s*\(?\s*` + quoted), comment: regexp.MustCompile(`(?s)<%#.*?%>|<!--.*?-->`)},
		{name: "Handlebars", extensions: []string{".hbs", ".handlebars", ".mustache"}, refs: all(`\{\{~?#?>\s*["']?([\w./-]+)`, `\{\{#extend\s+`+quoted), comment: regexp.MustCompile(`(?s)\{\{!--.*?--\}\}|\{\{![^-].*?\}\}|<!--.*?-->`)},
		{name: "Razor", extensions: []string{".cshtml", ".razor", ".vbhtml"}, refs: all(`\bLayout\s*=\s*`+quoted, `<partial\s+name\s*=\s*`+quoted, `Html\.(?:Partial|RenderPartial|PartialAsync|RenderPartialAsync)\s*\(\s*`+quoted), comment: regexp.MustCompile(`(?s)@\*.*?\*@|<!--.*?-->`)},
		{name: "Template Toolkit", extensions: []string{".tt", ".tt2"}, refs: all(`\[%-?\+?\s*(?:INCLUDE|PROCESS|WRAPPER|INSERT)\s+["']?([\w./-]+)`), comment: regexp.MustCompile(`(?s)\[%#.*?%\]|<!--.*?-->`)},
		{name: "Mojo template", extensions: []string{".ep"}, refs: all(`\b(?:include|layout|extends)\s*\(?\s*` + quoted)},
	}
)

func init() {
	for _, k := range kinds {
		l := &syntax.Language{Name: k.name, Version: 1, Extensions: k.extensions, Read: k.read, ResolvedWith: "HTML"}
		if k.name == l.ResolvedWith {
			l.Resolve = resolve
		}
		syntax.Register(l)
	}
}

var (
	assets   = regexp.MustCompile(`<(?:script|link|img|source|iframe|embed)\b[^>]*?\s(?:src|href)\s*=\s*["']([^"'{}<>%\s]+)["']`)
	forms    = regexp.MustCompile(`<form\b([^>]*)>`)
	anchors  = regexp.MustCompile(`<a\b[^>]*?\shref\s*=\s*["'](/[^"'\n]*)["']`)
	action   = regexp.MustCompile(`\baction\s*=\s*["'](/[^"'\n]*)["']`)
	method   = regexp.MustCompile(`(?i)\bmethod\s*=\s*["'](get|post)["']`)
	requests = regexp.MustCompile(`\bhx-(get|post|put|patch|delete)\s*=\s*["'](/[^"'\n]*)["']`)
	page     = regexp.MustCompile(`(?m)^\s*@page\s+"([^"]*)"`)
	using    = regexp.MustCompile(`(?m)^\s*@(?:model|inherits|inject)\s+([\w.]+)`)
	hole     = regexp.MustCompile(`\{\{.*?\}\}|<%.*?%>|\{%.*?%\}|\[%.*?%\]|@\{?[\w.()]+\}?|\$\{.*?\}`)
)

// maxRefs bounds what is kept of one file.
const maxRefs = 2000

func (k kind) read(_ string, src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	signs := syntax.Signs{}
	signs.Add("draws", 1)
	text := src
	var spans [][]int
	if k.comment != nil {
		spans = k.comment.FindAllIndex(src, -1)
		text = without(src, spans)
	}
	lines := starts(src)
	at := func(i int) int { return sort.SearchInts(lines, i+1) }
	for _, re := range k.refs {
		if lead, _ := re.LiteralPrefix(); lead != "" && !bytes.Contains(text, []byte(lead)) {
			continue
		}
		for _, m := range re.FindAllSubmatchIndex(text, maxRefs) {
			f.Templates = append(f.Templates, model.Mention{Name: string(text[m[2]:m[3]]), Line: at(m[2])})
		}
	}
	sort.SliceStable(f.Templates, func(i, j int) bool { return f.Templates[i].Line < f.Templates[j].Line })
	for _, m := range matches(assets, text, "=") {
		f.Imports = append(f.Imports, model.Import{Text: string(text[m[2]:m[3]]), Kind: model.LinkTemplate, Line: at(m[2])})
	}
	for _, m := range matches(forms, text, "<form") {
		head := text[m[2]:m[3]]
		if a := action.FindSubmatch(head); a != nil {
			how := "GET"
			if b := method.FindSubmatch(head); b != nil {
				how = strings.ToUpper(string(b[1]))
			}
			f.Calls = append(f.Calls, call(how, string(a[1]), at(m[0])))
		}
	}
	for _, m := range matches(anchors, text, "<a") {
		f.Calls = append(f.Calls, call("GET", string(text[m[2]:m[3]]), at(m[2])))
	}
	for _, m := range matches(requests, text, "hx-") {
		f.Calls = append(f.Calls, call(strings.ToUpper(string(text[m[2]:m[3]])), string(text[m[4]:m[5]]), at(m[2])))
	}
	sort.SliceStable(f.Calls, func(i, j int) bool { return f.Calls[i].Line < f.Calls[j].Line })
	if k.name == "Razor" {
		k.razor(f, text, at)
	}
	counted(f, src, spans, lines)
	f.Signs = signs.List()
	return f
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
