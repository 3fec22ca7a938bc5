package report

import (
	"bytes"
	_ "embed" // the template of the offline sheet
	"encoding/base64"
	"fmt"
	"html/template"
	"io"
	"regexp"
	"strings"
	"sync"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/overview"
	"jantel/core/section"
	"jantel/core/smells"
	"jantel/review"

	"github.com/microcosm-cc/bluemonday"
	"github.com/yuin/goldmark"
	"github.com/yuin/goldmark/extension"
)

var markdown = goldmark.New(goldmark.WithExtensions(extension.Table, extension.Strikethrough, extension.Linkify))

var policy = sync.OnceValue(safe)

// pagePolicy lets the boxes of steps stand as well.
var pagePolicy = sync.OnceValue(func() *bluemonday.Policy {
	p := safe()
	p.AllowAttrs("type").Matching(regexp.MustCompile("^checkbox$")).OnElements("input")
	p.AllowAttrs("checked", "disabled").OnElements("input")
	return p
})

func safe() *bluemonday.Policy {
	p := bluemonday.NewPolicy()
	p.AllowElements(
		"p", "br", "strong", "em", "del", "code", "pre", "ul", "ol", "li", "blockquote", "h1", "h2", "h3", "h4",
		"h5", "h6", "hr", "table", "thead", "tbody", "tr", "th", "td",
	)
	p.AllowAttrs("href").OnElements("a")
	p.AllowURLSchemes("http", "https", "mailto")
	p.AllowRelativeURLs(true)
	p.RequireNoReferrerOnLinks(true)
	p.AddTargetBlankToFullyQualifiedLinks(true)
	return p
}

// SafeHTML renders a finding's CommonMark. Raw HTML and images are left out.
func SafeHTML(text string) string {
	var b bytes.Buffer
	if err := markdown.Convert([]byte(shallow(text)), &b); err != nil {
		return template.HTMLEscapeString(text)
	}
	return policy().Sanitize(b.String())
}

//go:embed sheet.html
var sheetText string

// The faces the page is set in, so that it looks the same without a network.
var (
	//go:embed type/serif.woff2
	serif []byte
	//go:embed type/sans.woff2
	sans []byte
)

// face is a font as the page's styles name it.
func face(name string, data []byte) template.CSS {
	return template.CSS(fmt.Sprintf(
		"@font-face{font-family:%q;font-weight:200 900;src:url(data:font/woff2;base64,%s) format('woff2')}",
		name, base64.StdEncoding.EncodeToString(data),
	))
}

var sheet = template.Must(template.New("sheet").Funcs(template.FuncMap{
	"group":  naming.Figure,
	"score":  score,
	"plain":  func(s string) string { return strings.ReplaceAll(s, "*", "") },
	"safe":   func(s string) template.HTML { return template.HTML(SafeHTML(s)) }, // made harmless by SafeHTML
	"place":  Place,
	"line":   func(l *int) string { return lineText(l) },
	"indent": func(d int) string { return fmt.Sprintf("%.1fem", float64(min(d, 12))*1.1) },
	"ink":    func(s float64) int { return min(4, int(s*5)) + 1 },
	"spoken": overview.Spoken,
	"percent": func(f float64) string {
		return fmt.Sprintf("%.0f %%", 100*f)
	},
	"rule": func(slug string) *smells.Rule { return smells.Named(slug) },
	"short": func(rev string) string {
		return short(rev)
	},
}).Parse(sheetText))

func lineText(l *int) string {
	if l == nil {
		return ""
	}
	return fmt.Sprintf(":%d", *l)
}

type bar struct {
	Class string
	Width string
	Title string
}

type htmlRow struct {
	*model.Folder
	Bars []bar
}

type htmlSmell struct {
	model.Smell
	Rule *smells.Rule
}

// maxRows bounds the ledger of the offline file; deeper folders are left out
// first and their number is told.
const maxRows = 300

// HTML writes one self-contained file with Overview, Layout, Weave,
// Dependencies and findings.
func HTML(w io.Writer, s *model.Survey, j *judgement.Result, fs []review.Finding) error {
	rows, hidden := ledger(j)
	var listed []htmlSmell
	for _, sm := range overview.Worst(counted(j.Smells), 60) {
		listed = append(listed, htmlSmell{sm, smells.Named(sm.Rule)})
	}
	legend := []bar{}
	for i, r := range model.Roles {
		if root := j.Folder("."); root != nil && root.Roles[r] > 0 {
			legend = append(legend, bar{Class: fmt.Sprintf("r%d", i), Title: plural(r)})
		}
	}
	drawn, err := drawingOf(s, j)
	if err != nil {
		return err
	}
	var cut template.HTML
	if x := section.Of(s, j, "."); len(x.Parts) > 0 {
		var b strings.Builder
		if err := Section(&b, x, s.Codebase, Source(s)); err != nil {
			return err
		}
		cut = template.HTML(b.String()) // all text in it is escaped by Section
	}
	return sheet.Execute(w, map[string]any{
		"Section": cut, "Faces": face("Newsreader", serif) + face("Source Sans 3", sans),
		"Weave": weaveOf(s, j), "Drawing": drawn,
		"Sheet": overview.Of(s, j, "."), "Survey": s, "Rows": rows, "Hidden": hidden, "Smells": listed,
		"SmellCount": len(counted(j.Smells)),
		"Findings":   fs, "Legend": legend, "Stage": j.Brief.Stage, "Questions": j.Brief.Questions,
		"Weights": smells.FacetWeights, "At": s.SurveyedAt.Format("2 January 2006, 15:04 MST"),
	})
}

func counted(all []model.Smell) (out []*model.Smell) {
	for i := range all {
		if all[i].Silenced == "" {
			out = append(out, &all[i])
		}
	}
	return out
}

func ledger(j *judgement.Result) (rows []htmlRow, hidden int) {
	depth := 64
	for ; depth > 1; depth-- {
		n := 0
		for _, d := range j.Folders {
			if d.Depth <= depth {
				n++
			}
		}
		if n <= maxRows {
			break
		}
	}
	most := 1
	for _, d := range j.Folders {
		if d.Depth > 0 {
			most = max(most, d.Lines)
		}
	}
	for _, d := range j.Folders {
		if d.Depth > depth {
			hidden++
			continue
		}
		r := htmlRow{Folder: d}
		total := 0
		for _, n := range d.RoleLines {
			total += n
		}
		if total > 0 {
			for i, role := range model.Roles {
				if n := d.RoleLines[role]; n > 0 {
					r.Bars = append(r.Bars, bar{
						fmt.Sprintf("r%d", i), fmt.Sprintf("%.2f%%", 100*float64(n)/float64(total)),
						fmt.Sprintf("%s, %s lines", plural(role), naming.Figure(n)),
					})
				}
			}
			if n := d.RoleLines[""]; n > 0 {
				r.Bars = append(r.Bars, bar{
					"none", fmt.Sprintf("%.2f%%", 100*float64(n)/float64(total)),
					"role unknown, " + naming.Figure(n) + " lines",
				})
			}
		}
		rows = append(rows, r)
	}
	return rows, hidden
}
