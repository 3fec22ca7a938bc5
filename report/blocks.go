package report

import (
	"bytes"
	"net/url"
	"path"
	"regexp"
	"strconv"
	"strings"

	"github.com/yuin/goldmark"
	"github.com/yuin/goldmark/ast"
	"github.com/yuin/goldmark/extension"
	"github.com/yuin/goldmark/text"
)

// Block is a piece of a page as it is shown: text that was made harmless, or a place
// whose lines stand there.
type Block struct {
	HTML    string      `json:"html" doc:"empty where a place stands"`
	Excerpt *ExcerptRef `json:"-"`
}

// ExcerptRef is a place that a page shows: a definition, or lines; neither for the head
// of the file.
type ExcerptRef struct {
	Path, Caption, Name string
	From, To            int
}

var pages = goldmark.New(goldmark.WithExtensions(extension.Table, extension.Strikethrough, extension.Linkify, extension.TaskList))

// PageBlocks takes a page apart. A link to a path of the codebase that stands alone in
// its paragraph, as in "[how a lot is weighed](bench/weigh.py#weigh)", is the place
// itself; behind the # stand lines, as L12 or L12-L20, or the name of a definition.
func PageBlocks(page string) []Block {
	source := []byte(shallow(page))
	out := []Block{}
	var html bytes.Buffer
	flush := func() {
		if html.Len() > 0 {
			harmless := pagePolicy().Sanitize(html.String())
			out = append(out, Block{HTML: strings.ReplaceAll(harmless, "<input ", `<input aria-label="this step is done" `)})
			html.Reset()
		}
	}
	for n := pages.Parser().Parse(text.NewReader(source)).FirstChild(); n != nil; n = n.NextSibling() {
		if x := excerptOf(n, source); x != nil {
			flush()
			out = append(out, Block{Excerpt: x})
			continue
		}
		if err := pages.Renderer().Render(&html, source, n); err != nil {
			html.WriteString("<p>" + SafeHTML(string(n.Lines().Value(source))) + "</p>")
		}
	}
	flush()
	return out
}

// excerptOf is the place that a paragraph is nothing but a link to; nil where it is
// something else.
func excerptOf(n ast.Node, source []byte) *ExcerptRef {
	if n.Kind() != ast.KindParagraph || n.ChildCount() != 1 {
		return nil
	}
	link, ok := n.FirstChild().(*ast.Link)
	if !ok {
		return nil
	}
	x := linkedPlace(string(link.Destination))
	if x == nil {
		return nil
	}
	for c := link.FirstChild(); c != nil; c = c.NextSibling() {
		if t, ok := c.(*ast.Text); ok {
			x.Caption += string(t.Segment.Value(source))
		}
	}
	return x
}

var lineRange = regexp.MustCompile(`^L(\d{1,7})(?:-L?(\d{1,7}))?$`)

// linkedPlace is the place in the codebase that a link leads to; nil where it leads
// elsewhere.
func linkedPlace(href string) *ExcerptRef {
	u, err := url.Parse(href)
	if err != nil || u.Scheme != "" || u.Host != "" || u.Path == "" || path.IsAbs(u.Path) {
		return nil
	}
	x := &ExcerptRef{Path: path.Clean(u.Path)}
	if x.Path == "." || strings.HasPrefix(x.Path, "..") {
		return nil
	}
	if m := lineRange.FindStringSubmatch(u.Fragment); m != nil {
		x.From, _ = strconv.Atoi(m[1])
		x.To, _ = strconv.Atoi(m[2])
		x.To = max(x.To, x.From)
	} else {
		x.Name = u.Fragment
	}
	return x
}
