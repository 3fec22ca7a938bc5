package report

import (
	"fmt"
	"io"
	"strings"

	"jantel/core/reach"
)

// ReachSVG writes what is reached from a place as a picture. All text of the
// codebase is escaped.
func ReachSVG(w io.Writer, x *reach.ReachPicture, title, source string) error {
	var b strings.Builder
	const head = 56.0
	fmt.Fprintf(&b, `<g transform="translate(20 %g)">`+"\n", head)
	for _, t := range x.Ties {
		fmt.Fprintf(&b, `<path d="%s" fill="none" stroke="#B4AB9B" stroke-width="%g"><title>%s</title></path>`+"\n",
			t.Curve, t.Wide, some(t.Count, "link"))
	}
	for _, c := range x.Columns {
		fmt.Fprintf(&b, `<text x="%g" y="14" fill="#5F6B70">%s: %s</text>`+"\n", c.X, escape(c.Title), some(c.Count, x.What))
	}
	for _, box := range x.Boxes {
		dash, fill := "", "#F7F3EA"
		if box.Likely && box.Column > 0 {
			dash = ` stroke-dasharray="4 3"`
		}
		if box.Tests {
			fill = "#E9E4D8"
		}
		full := box.Path
		if full == "" {
			full = box.Name
		}
		fmt.Fprintf(&b, `<g><title>%s</title><rect x="%g" y="%g" width="%g" height="%g" fill="%s" stroke="#1E2A32"%s/>`+
			`<text x="%g" y="%g" font-family="JetBrains Mono, monospace" font-size="11" fill="#1E2A32">%s</text>`+
			`<text x="%g" y="%g" font-size="11" fill="#5F6B70">%s</text></g>`+"\n",
			escape(full), box.X, box.Y, box.W, box.H, fill, dash, box.X+8, box.Y+16, escape(box.Name), box.X+8, box.Y+31, some(box.Count, x.What))
	}
	b.WriteString("</g>\n")
	return paper(w, max(x.Width+40, 420), x.Height+head+20, title, source, b.String())
}

// ReachMarkdown writes what a change at a place may touch, and what comes along when
// it is taken elsewhere, as CommonMark.
func ReachMarkdown(w io.Writer, x *reach.Reach, place string) error {
	var b strings.Builder
	fmt.Fprintf(&b, "# What a change at %s may touch\n\n", codeSpan(place))
	if x.Files == 0 {
		b.WriteString("Nothing was found that needs it.\n")
	} else {
		fmt.Fprintf(&b, "%s in %s.\n", title(some(x.Files, "file")), some(len(x.Folders), "folder"))
	}
	if x.ByTypes > 0 {
		fmt.Fprintf(&b, "%s more through types alone.\n", title(some(x.ByTypes, "file")))
	}
	for _, s := range x.Steps {
		title := fmt.Sprintf("Over %d steps", s.Distance)
		if s.Distance == 1 {
			title = "Directly"
		}
		fmt.Fprintf(&b, "\n## %s: %d\n\n", title, s.Count)
		reached(&b, s.Places, s.Count)
	}
	b.WriteString("\n## Tests that reach it\n\n")
	if len(x.Tests) == 0 {
		b.WriteString("None was found.\n")
	}
	reached(&b, x.Tests, len(x.Tests))
	if len(x.Together) > 0 {
		b.WriteString("\n## Changed with it most often\n\n")
		for _, t := range x.Together {
			fmt.Fprintf(&b, "- %s, %s\n", codeSpan(t.Path), some(t.Times, "time"))
		}
	}
	if x.Along.Files > 0 {
		fmt.Fprintf(&b, "\n## What comes along when it is taken elsewhere: %d\n\n", x.Along.Files)
		for _, c := range x.Along.Cuts {
			at := fmt.Sprintf("%s:%d", c.From, c.Line)
			fmt.Fprintf(&b, "- %s fewer without %s, needed at %s\n", some(c.Saves, "file"), codeSpan(c.To), codeSpan(at))
		}
		if len(x.Along.Cuts) > 0 {
			b.WriteString("\n")
		}
		reached(&b, x.Along.List, x.Along.Files)
	}
	_, err := io.WriteString(w, b.String())
	return err
}

// reached lists places, and how many are not listed.
func reached(b *strings.Builder, list []reach.Reached, all int) {
	for _, p := range list {
		where := p.Path
		if p.Name != "" {
			where = fmt.Sprintf("%s at %s:%d", p.Name, p.Path, p.Line)
		}
		fmt.Fprintf(b, "- %s", codeSpan(where))
		if !p.Sure {
			b.WriteString(" (may be)")
		}
		b.WriteString("\n")
	}
	if all > len(list) {
		fmt.Fprintf(b, "- and %d more\n", all-len(list))
	}
}
