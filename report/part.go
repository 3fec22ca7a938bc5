package report

import (
	"fmt"
	"io"
	"math"
	"strings"
)

// PartSheet is a part as it is handed out.
type PartSheet struct {
	Title, Path, Head, Source string
	Line                      int
	Duties                    []PartLine
	Members                   []PartLine // Count is their lines
	Jobs                      [][]string
	Users, Uses, Twins, Tests []PartLine
	Left                      int // further ends that are not listed
}

// PartLine is something that is told of a part, with its place.
type PartLine struct {
	Name, Path string
	Line       int
	Count      int
}

func (l PartLine) where() string {
	if l.Line == 0 {
		return l.Path
	}
	return fmt.Sprintf("%s:%d", l.Path, l.Line)
}

// PartMarkdown writes a part as CommonMark.
func PartMarkdown(w io.Writer, x *PartSheet) error {
	var b strings.Builder
	fmt.Fprintf(&b, "# %s\n\n%s\n", codeSpan(x.Title), codeSpan(fmt.Sprintf("%s:%d", x.Path, x.Line)))
	if x.Head != "" {
		fmt.Fprintf(&b, "\n%s\n", fenced(x.Head))
	}
	list := func(title string, lines []PartLine, none string) {
		if len(lines) == 0 && none == "" {
			return
		}
		fmt.Fprintf(&b, "\n## %s\n\n", title)
		if len(lines) == 0 {
			b.WriteString(none + "\n")
		}
		for _, l := range lines {
			if l.Name == "" {
				fmt.Fprintf(&b, "- %s\n", codeSpan(l.where()))
			} else {
				fmt.Fprintf(&b, "- %s, %s\n", codeSpan(l.Name), codeSpan(l.where()))
			}
		}
	}
	list("What it does", x.Duties, "")
	if len(x.Jobs) > 1 {
		b.WriteString("\n## Groups of its functions that do not call each other\n\n")
		for _, names := range x.Jobs {
			fmt.Fprintf(&b, "- %s\n", codeSpan(strings.Join(names, ", ")))
		}
	}
	list("Made of", x.Members, "")
	list("Used by", x.Users, "Nobody that was found.")
	list("Uses", x.Uses, "No other part.")
	list("Nearly the same", x.Twins, "")
	list("Tests that reach it", x.Tests, "None was found.")
	if x.Left > 0 {
		fmt.Fprintf(&b, "\n%s not listed.\n", some(x.Left, "further end"))
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// mostInColumn is how many of each are drawn; the rest are counted.
const mostInColumn = 24

// PartSVG draws a part: who uses it on the left, what it is made of in the middle, as
// tall as its lines, what it uses on the right. All text of the codebase is escaped.
func PartSVG(w io.Writer, x *PartSheet) error {
	var b strings.Builder
	const top, left, middle, right = 84.0, 20.0, 290.0, 640.0
	heads := []struct {
		x    float64
		text string
	}{
		{left, "used by " + some(len(x.Users), "place")}, {middle, "made of " + some(len(x.Members), "member")},
		{right, "uses " + some(len(x.Uses), "place")},
	}
	for _, h := range heads {
		fmt.Fprintf(&b, `<text x="%g" y="70" fill="#5F6B70">%s</text>`+"\n", h.x, escape(h.text))
	}
	low := max(partEnds(&b, x.Users, left, top), partEnds(&b, x.Uses, right, top))
	y := top
	for i, m := range x.Members {
		if i == mostInColumn {
			fmt.Fprintf(&b, `<text x="%g" y="%g" fill="#5F6B70">and %d more</text>`+"\n", middle, y+14, len(x.Members)-i)
			y += 22
			break
		}
		tall := math.Round(min(20+float64(m.Count)/3, 64))
		fmt.Fprintf(&b, `<g><title>%s</title><rect x="%g" y="%g" width="290" height="%g" fill="#F7F3EA" stroke="#1E2A32"/>`+
			`<text x="%g" y="%g" font-family="JetBrains Mono, monospace" font-size="11" fill="#1E2A32">%s</text>`+
			`<text x="%g" y="%g" text-anchor="end" fill="#5F6B70">%s</text></g>`+"\n",
			escape(m.where()), middle, y, tall, middle+8, y+14, escape(cutAt(m.Name, 30)), middle+282, y+14, some(m.Count, "line"))
		y += tall + 4
	}
	low = max(low, y)
	if len(x.Jobs) > 1 {
		fmt.Fprintf(&b, `<text x="%g" y="%g" fill="#B3402A">%d groups of its functions do not call each other</text>`+"\n",
			middle, low+14, len(x.Jobs))
		low += 22
	}
	return paper(w, 920, low+20, x.Title+" in "+x.Path, x.Source, b.String())
}

// partEnds draws one end of a part as a column and gives where it ends.
func partEnds(b *strings.Builder, list []PartLine, x, y float64) float64 {
	for i, l := range list {
		if i == mostInColumn {
			fmt.Fprintf(b, `<text x="%g" y="%g" fill="#5F6B70">and %d more</text>`+"\n", x, y+12, len(list)-i)
			return y + 20
		}
		fmt.Fprintf(b, `<text x="%g" y="%g" fill="#1E2A32">%s<title>%s</title></text>`+"\n",
			x, y+12, escape(cutAt(l.Name, 34)), escape(l.where()))
		y += 18
	}
	return y
}
