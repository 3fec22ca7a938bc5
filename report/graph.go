package report

import (
	"encoding/xml"
	"fmt"
	"io"
	"strings"

	"jantel/core/drawing"
	"jantel/core/model"
)

// SVG writes a drawing as a picture with a title block. All text from the
// codebase is escaped.
func SVG(w io.Writer, d *drawing.Drawing, title, below string) error {
	var b strings.Builder
	const head = 54
	width, height := max(d.Width, 420), d.Height+head
	fmt.Fprintf(
		&b,
		`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %g %g" width="%g" height="%g" font-family="sans-serif" font-size="13">`+"\n",
		width, height, width, height,
	)
	fmt.Fprintf(&b, `<rect width="%g" height="%g" fill="#fffefa"/>`+"\n", width, height)
	fmt.Fprintf(
		&b,
		`<text x="20" y="26" font-family="serif" font-size="18" fill="#1c2430">%s</text>`+
			`<text x="20" y="44" font-size="12" fill="#5c6570">%s</text>`+"\n",
		escape(title), escape(below),
	)
	fmt.Fprintf(&b, `<g transform="translate(0 %d)">`+"\n", head)
	for _, f := range d.Frames {
		fmt.Fprintf(
			&b,
			`<rect x="%g" y="%g" width="%g" height="%g" rx="14" fill="none" stroke="#b9b09c"/>`+
				`<text x="%g" y="%g" font-size="12" fill="#5c6570">%s</text>`+"\n",
			f.X, f.Y, f.W, f.H, f.X+12, f.Y+15, escape(f.Name),
		)
	}
	for _, e := range d.Bundles {
		colour, dash := stroke(e)
		fmt.Fprintf(&b, `<g fill="%s"><title>%s</title><path d="%s" fill="none" stroke="%s" stroke-width="%g"%s/><path d="%s"/></g>`+"\n",
			colour, escape(fmt.Sprintf("%s to %s: %d %s", e.From, e.To, e.Count, e.Class)), e.Curve, colour, e.Wide, dash, e.Tip)
	}
	for _, x := range d.Boxes {
		fmt.Fprintf(&b, `<g><title>%s</title><rect x="%g" y="%g" width="%g" height="%g" fill="#f6f1e8" stroke="#1c2430"/>`+
			`<text x="%g" y="%g" text-anchor="middle" font-family="monospace" `+
			`font-size="12" fill="#1c2430">%s</text></g>`+"\n",
			escape(fmt.Sprintf("%s: %d files, %d lines", x.Path, x.Files, x.Lines)), x.X, x.Y, x.W, x.H, x.X+x.W/2, x.Y+19, escape(x.Name))
	}
	b.WriteString("</g>\n</svg>\n")
	_, err := io.WriteString(w, b.String())
	return err
}

func stroke(e drawing.Bundle) (colour, dash string) {
	colour = "#8a8f96"
	if e.Up {
		colour = "#b23a24"
	}
	switch e.Class {
	case drawing.Lazy, drawing.Message, drawing.HTTP, drawing.ByName:
		dash = ` stroke-dasharray="5 4"`
	case drawing.Declared:
		dash = ` stroke-dasharray="1 4"`
	}
	return colour, dash
}

func escape(s string) string {
	var b strings.Builder
	// Signs that XML does not allow are replaced as well.
	_ = xml.EscapeText(&b, []byte(strings.ToValidUTF8(s, "\uFFFD")))
	return b.String()
}

// DOT writes the links between files in the language of graph tools.
func DOT(w io.Writer, s *model.Survey) error {
	quote := func(t string) string {
		return `"` + strings.NewReplacer(`\`, `\\`, `"`, `\"`, "\n", `\n`).Replace(t) + `"`
	}
	var b strings.Builder
	fmt.Fprintf(&b, "digraph %s {\n", quote(s.Codebase))
	for _, l := range s.Links {
		fmt.Fprintf(&b, "  %s -> %s [kind=%s, line=%d];\n", quote(l.From), quote(l.To), quote(string(l.Kind)), l.Line)
	}
	b.WriteString("}\n")
	_, err := io.WriteString(w, b.String())
	return err
}

// GraphML writes files and the links between them.
func GraphML(w io.Writer, s *model.Survey, roles map[string]model.RoleOf) error {
	var b strings.Builder
	b.WriteString(xml.Header + `<graphml xmlns="http://graphml.graphdrawing.org/xmlns">
<key id="role" for="node" attr.name="role" attr.type="string"/>
<key id="lines" for="node" attr.name="lines" attr.type="int"/>
<key id="kind" for="edge" attr.name="kind" attr.type="string"/>
<key id="line" for="edge" attr.name="line" attr.type="int"/>
<graph id="codebase" edgedefault="directed">
`)
	for _, f := range s.Files {
		fmt.Fprintf(
			&b, `<node id="%s"><data key="role">%s</data><data key="lines">%d</data></node>`+"\n", escape(f.Path),
			escape(string(roles[f.Path].Role)), f.Lines(),
		)
	}
	for i, l := range s.Links {
		fmt.Fprintf(
			&b,
			`<edge id="e%d" source="%s" target="%s"><data key="kind">%s</data><data key="line">%d</data></edge>`+"\n",
			i, escape(l.From), escape(l.To), l.Kind, l.Line,
		)
	}
	b.WriteString("</graph>\n</graphml>\n")
	_, err := io.WriteString(w, b.String())
	return err
}
