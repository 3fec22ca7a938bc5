package report

import (
	"fmt"
	"io"
	"strings"
	"unicode/utf8"
)

// Strip is the way of one route as it is handed out.
type Strip struct {
	Title  string
	Source string
	Before []string // what runs before what answers, in order, each as a sentence
	Stops  []StripStop
	Ends   []string // what comes of it, as sentences
}

// StripStop is a definition on the way, with some of its lines.
type StripStop struct {
	Name, Role, Where string
	Notes             []string // what is to be said of it
	First, At         int      // numbers of the first line and of the one that leads on
	Lines             []string
	Likely            bool
}

// Sizes of a strip.
const (
	stopWidth    = 330.0
	stopGap      = 26.0
	stopsInRow   = 4
	stripEdge    = 20.0
	lineHeight   = 14.0
	stripColumns = 46 // characters of code in a line
	wideText     = 54 // of a sentence below a stop
)

// StripSVG writes a strip as a picture: its stops in rows, each with its lines. All
// text of the codebase is escaped.
func StripSVG(w io.Writer, x *Strip) error {
	var body strings.Builder
	y := 62.0
	for _, line := range x.Before {
		fmt.Fprintf(&body, `<text x="%g" y="%g" fill="#5F6B70">%s</text>`+"\n", stripEdge, y, escape(cutAt(line, 190)))
		y += lineHeight + 2
	}
	y += 8
	columns := min(max(len(x.Stops), 1), stopsInRow)
	for from := 0; from < len(x.Stops); from += stopsInRow {
		row, tallest := x.Stops[from:min(from+stopsInRow, len(x.Stops))], 0.0
		for i := range row {
			left := stripEdge + float64(i)*(stopWidth+stopGap)
			tallest = max(tallest, stopBox(&body, &row[i], left, y, from+i > 0))
		}
		y += tallest + 22
	}
	for _, line := range x.Ends {
		fmt.Fprintf(&body, `<text x="%g" y="%g" fill="#1E2A32">%s</text>`+"\n", stripEdge, y, escape(cutAt(line, 190)))
		y += lineHeight + 2
	}
	width := 2*stripEdge + float64(columns)*stopWidth + float64(columns-1)*stopGap
	return paper(w, max(width, 560), y+10, x.Title, x.Source, body.String())
}

// paper writes a picture with its title block.
func paper(w io.Writer, width, height float64, title, source, body string) error {
	_, err := fmt.Fprintf(w, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %g %g" width="%g" height="%g" `+
		`font-family="Source Sans 3, sans-serif" font-size="12">`+"\n"+
		`<rect width="%g" height="%g" fill="#FFFDF8"/>`+"\n"+
		`<text x="20" y="26" font-family="Source Serif 4, serif" font-size="18" fill="#1E2A32">%s</text>`+
		`<text x="20" y="44" fill="#5F6B70">%s</text>`+"\n%s</svg>\n",
		width, height, width, height, width, height, escape(title), escape(source), body)
	return err
}

// stopBox writes one stop and gives how tall it is.
func stopBox(b *strings.Builder, s *StripStop, x, y float64, arrow bool) float64 {
	dash := ""
	if s.Likely {
		dash = ` stroke-dasharray="5 4"`
	}
	fmt.Fprintf(b, `<line x1="%g" y1="%g" x2="%g" y2="%g" stroke="#1E2A32" stroke-width="2"%s/>`+"\n", x, y, x+stopWidth, y, dash)
	if arrow {
		fmt.Fprintf(b, `<text x="%g" y="%g" fill="#5F6B70">→</text>`+"\n", x-stopGap+6, y+4)
	}
	down := y + 18
	fmt.Fprintf(b, `<text x="%g" y="%g" fill="#1E2A32" font-weight="600">%s <tspan fill="#5F6B70" font-weight="400">%s</tspan></text>`+"\n",
		x, down, escape(cutAt(s.Name, 34)), escape(s.Role))
	down += lineHeight + 1
	fmt.Fprintf(b, `<text x="%g" y="%g" fill="#1F6F6B">%s</text>`+"\n", x, down, escape(tail(s.Where, wideText)))
	for _, n := range s.Notes {
		down += lineHeight + 1
		fmt.Fprintf(b, `<text x="%g" y="%g" fill="#B3402A">%s</text>`+"\n", x, down, escape(cutAt(n, wideText)))
	}
	down += 8
	if len(s.Lines) == 0 {
		return down - y
	}
	tall := lineHeight*float64(len(s.Lines)) + 8
	fmt.Fprintf(b, `<rect x="%g" y="%g" width="%g" height="%g" fill="none" stroke="#D8CFBE"/>`+"\n", x, down, stopWidth, tall)
	b.WriteString(`<g font-family="JetBrains Mono, monospace" font-size="10" xml:space="preserve">` + "\n")
	for i, l := range s.Lines {
		at := down + 14 + lineHeight*float64(i)
		weight := ""
		if s.First+i == s.At {
			fmt.Fprintf(b, `<rect x="%g" y="%g" width="%g" height="%g" fill="#F1EADB"/>`+"\n", x+1, at-10.5, stopWidth-2, lineHeight)
			weight = ` font-weight="600"`
		}
		fmt.Fprintf(b, `<text x="%g" y="%g" fill="#5F6B70" text-anchor="end">%d</text><text x="%g" y="%g" fill="#1E2A32"%s>%s</text>`+"\n",
			x+30, at, s.First+i, x+38, at, weight, escape(cutAt(strings.ReplaceAll(l, "\t", "  "), stripColumns)))
	}
	b.WriteString("</g>\n")
	return down + tall - y
}

// cutAt is a text of at most so many characters.
func cutAt(s string, most int) string {
	if utf8.RuneCountInString(s) <= most {
		return s
	}
	return string([]rune(s)[:most-1]) + "…"
}

// tail is the end of a text of at most so many characters.
func tail(s string, most int) string {
	if n := utf8.RuneCountInString(s); n > most {
		return "…" + string([]rune(s)[n-most+1:])
	}
	return s
}
