package report

import (
	_ "embed" // the template of a page
	"html/template"
	"io"
	"time"
)

// PageSheet is a page as it is handed out.
type PageSheet struct {
	Title, Kind, By string
	At              time.Time
	Pieces          []PagePiece
}

// PagePiece is text that was made harmless, or the lines of a place.
type PagePiece struct {
	HTML                   string
	Path, Caption, Missing string
	First                  int
	Lines                  []string
}

//go:embed page.html
var pageText string

var pageTemplate = template.Must(template.New("page").Funcs(template.FuncMap{
	"harmless": func(s string) template.HTML { return template.HTML(s) }, // by pagePolicy
	"number":   func(first, i int) int { return first + i },
	"serif":    func() template.CSS { return face("Newsreader", serif) },
	"sans":     func() template.CSS { return face("Source Sans", sans) },
}).Parse(pageText))

// PageHTML writes a page as one HTML file that needs nothing else.
func PageHTML(w io.Writer, x *PageSheet) error { return pageTemplate.Execute(w, x) }
