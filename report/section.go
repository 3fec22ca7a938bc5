package report

import (
	"fmt"
	"io"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/section"
)

// hues are the mineral colours of the roles on paper.
var hues = map[string]string{
	"slate": "#3E556B", "lagoon": "#4C8A8F", "copper": "#A0673A", "straw": "#A8914A", "rosewood": "#9A6F78", "chalk": "#B4AB9B",
}

// looks are the hue and the pattern of each role, in the order of model.Roles.
// The interface draws roles alike; a test compares the two.
var looks = []string{
	"slate solid", "slate ruled", "slate hatched", "slate dotted", "lagoon solid", "lagoon hatched", "copper solid", "copper hatched",
	"copper dotted", "copper ruled", "straw ruled", "straw solid", "straw hatched", "straw dotted", "rosewood solid", "lagoon dotted",
	"rosewood dotted", "rosewood hatched", "chalk solid", "chalk hatched", "chalk ruled", "chalk dotted",
}

// fills are the patterns as they stand in a picture, by the name of a role's
// look.
func fills(b *strings.Builder) {
	b.WriteString("<defs>\n")
	for _, look := range slices.Compact(slices.Sorted(slices.Values(looks))) {
		hue, pattern, _ := strings.Cut(look, " ")
		id, colour := hue+"-"+pattern, hues[hue]
		switch pattern {
		case "hatched":
			fmt.Fprintf(b, `<pattern id="%s" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">`+
				`<rect width="3" height="6" fill="%s"/></pattern>`+"\n", id, colour)
		case "dotted":
			fmt.Fprintf(b, `<pattern id="%s" width="5" height="5" patternUnits="userSpaceOnUse"><circle cx="2.5" cy="2.5" r="1.5" fill="%s"/>`+
				`</pattern>`+"\n", id, colour)
		case "ruled":
			fmt.Fprintf(b, `<pattern id="%s" width="6" height="4" patternUnits="userSpaceOnUse"><rect width="6" height="1.6" fill="%s"/>`+
				`</pattern>`+"\n", id, colour)
		}
	}
	b.WriteString(`<pattern id="foreign" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">` +
		`<rect width="1.4" height="4" fill="#5F6B70"/></pattern>` + "\n</defs>\n")
}

func fill(role int) string {
	if role < 0 || role >= len(looks) {
		return "none"
	}
	hue, pattern, _ := strings.Cut(looks[role], " ")
	if pattern == "solid" {
		return hues[hue]
	}
	return "url(#" + hue + "-" + pattern + ")"
}

// Section writes a codebase cut open as a picture with a title block and its
// legend. All text from the codebase is escaped.
func Section(w io.Writer, x *section.Section, title, below string) error {
	var b strings.Builder
	const head = 54
	roles := rolesIn(x)
	legend := float64(20 + 18*((len(roles)+5)/6))
	width, height := x.Width, x.Height+head+legend+18*float64(len(x.Notes))+16
	fmt.Fprintf(&b, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %g %g" width="%g" height="%g" font-family="Source Sans 3, `+
		`sans-serif" font-size="12">`+"\n",
		width, height, width, height)
	fmt.Fprintf(&b, `<rect width="%g" height="%g" fill="#FFFDF8"/>`+"\n", width, height)
	fills(&b)
	fmt.Fprintf(&b, `<text x="20" y="26" font-family="Source Serif 4, serif" font-size="18" fill="#1E2A32">%s</text><text x="20" `+
		`y="44" fill="#5F6B70">%s</text>`+"\n",
		escape(title), escape(below))
	fmt.Fprintf(&b, `<g transform="translate(0 %d)">`+"\n", head)
	lines(&b, x)
	for _, t := range x.Ties {
		tie(&b, t)
	}
	for i := range x.Blocks {
		block(&b, &x.Blocks[i])
	}
	for _, t := range x.Tags {
		tag(&b, t)
	}
	y := x.Height + 14
	for i, r := range roles {
		lx, ly := 20+float64(i%6)*146, y+18*float64(i/6)
		name := "role unknown"
		if r >= 0 {
			name = string(model.Roles[r])
		}
		fmt.Fprintf(&b, `<rect x="%g" y="%g" width="16" height="9" fill="%s" stroke="#5F6B70" stroke-width="0.5"/><text x="%g" y="%g" `+
			`fill="#5F6B70">%s</text>`+"\n",
			lx, ly, fill(r), lx+22, ly+9, name)
	}
	for i, n := range x.Notes {
		fmt.Fprintf(&b, `<text x="20" y="%g" fill="#5F6B70">%s</text>`+"\n", y+legend-8+18*float64(i), escape(n))
	}
	b.WriteString("</g>\n</svg>\n")
	_, err := io.WriteString(w, b.String())
	return err
}

// rolesIn lists the roles that are drawn, in the order of the legend.
func rolesIn(x *section.Section) []int {
	var out []int
	for i := range x.Blocks {
		for _, r := range x.Blocks[i].Roles {
			out = append(out, r.Role)
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

func lines(b *strings.Builder, x *section.Section) {
	fmt.Fprintf(b, `<line x1="20" y1="%g" x2="%g" y2="%g" stroke="#1E2A32"/><line x1="20" y1="%g" x2="%g" y2="%g" stroke="#1E2A32" `+
		`stroke-width="2"/>`+"\n",
		x.Roof, x.Width-20, x.Roof, x.Ground, x.Width-20, x.Ground)
	fmt.Fprintf(b, `<text x="20" y="12" fill="#5F6B70" font-size="11">%s</text><text x="20" y="%g" fill="#5F6B70" font-size="11">`+
		`%s</text>`+"\n", x.In, x.Ground+15, x.Out)
	for _, p := range x.Parts {
		fmt.Fprintf(b, `<text x="%g" y="%g" font-family="JetBrains Mono, monospace" font-size="13" fill="#1E2A32">%s<title>%s</title>`+
			`</text>`+"\n",
			p.X, x.Roof-7, escape(p.Name), escape(p.Path+": "+some(p.Lines, "own line")))
	}
}

func tag(b *strings.Builder, t section.Tag) {
	if t.Below {
		fmt.Fprintf(b, `<g><title>%s</title><rect x="%g" y="%g" width="%g" height="19" rx="9.5" fill="#F7F3EA" stroke="#5F6B70"/>`+
			`<text x="%g" y="%g" fill="#1E2A32">%s</text></g>`+"\n", escape(t.Full+" "+t.Path), t.X, t.Y, t.W, t.X+7, t.Y+13.5, escape(t.Text))
		return
	}
	fmt.Fprintf(b, `<text x="%g" y="%g" fill="#1F6F6B">%s<title>%s</title></text>`+"\n", t.X, t.Y, escape(t.Text), escape(t.Full+" "+t.Path))
}

func block(b *strings.Builder, k *section.Block) {
	stroke, wide := "#1E2A32", 1.0
	says := fmt.Sprintf("%s: %s in %s", k.Path, some(k.Lines, "own line"), some(k.Files, "file"))
	if k.Ring {
		stroke, wide, says = "#B23A24", 1.6, says+"; needs others in a ring"
	}
	if k.Breaches > 0 {
		says += fmt.Sprintf("; %d against the charter", k.Breaches)
	}
	fmt.Fprintf(b, `<g><title>%s</title><rect x="%g" y="%g" width="%g" height="%g" fill="#F7F3EA" stroke="%s" stroke-width="%g"/>`,
		escape(says), k.X, k.Y, k.W, k.H, stroke, wide)
	titleX := k.X + 4
	if k.Beside {
		titleX += k.W
	}
	for i, line := range k.Title {
		fmt.Fprintf(b, `<text x="%g" y="%g" fill="#1E2A32">%s</text>`, titleX, k.Y+12+float64(i)*11, escape(line))
	}
	x, room := k.X+1, k.W-2
	for _, r := range k.Roles {
		w := room * float64(r.Lines) / float64(max(1, k.Lines))
		seen := w * float64(r.Lines-r.Assumed) / float64(max(1, r.Lines))
		fmt.Fprintf(b, `<rect x="%.1f" y="%g" width="%.1f" height="9" fill="%s"/>`, x, k.Y+k.H-10, seen, fill(r.Role))
		if r.Assumed > 0 {
			fmt.Fprintf(b, `<rect x="%.1f" y="%g" width="%.1f" height="9" fill="%s" opacity="0.45"/>`, x+seen, k.Y+k.H-10, w-seen, fill(r.Role))
		}
		x += w
	}
	// Tests and what nobody here wrote are a thin edge, as long as they are
	// large against the block's own lines.
	all := float64(max(1, k.Lines, k.Tests+k.Foreign))
	if k.Tests > 0 {
		fmt.Fprintf(b, `<rect x="%g" y="%g" width="%.1f" height="2.5" fill="#B4AB9B"/>`, k.X, k.Y+k.H+1, k.W*float64(k.Tests)/all)
	}
	if k.Foreign > 0 {
		fmt.Fprintf(b, `<rect x="%.1f" y="%g" width="%.1f" height="2.5" fill="url(#foreign)"/>`, k.X+k.W*float64(k.Tests)/all,
			k.Y+k.H+1, k.W*float64(k.Foreign)/all)
	}
	b.WriteString("</g>\n")
}

func tie(b *strings.Builder, t section.Tie) {
	says := escape(fmt.Sprintf("%s needs %s: %d %s", t.From, t.To, t.Count, t.Class))
	switch {
	case t.Breach:
		// A double line: a wide one with the ground's colour along its middle.
		fmt.Fprintf(b, `<g><title>%s, against the charter</title><path d="%s" fill="none" stroke="#B23A24" stroke-width="4"/>`+
			`<path d="%s" fill="none" stroke="#FFFDF8" stroke-width="1.6"/><path d="%s" fill="#B23A24"/></g>`+"\n", says, t.Line, t.Line, t.Tip)
	case t.Ring:
		fmt.Fprintf(b, `<g><title>%s, in a ring</title><path d="%s" fill="none" stroke="#B23A24" stroke-width="1.4"/><path d="%s" `+
			`fill="#B23A24"/></g>`+"\n", says, t.Line, t.Tip)
	default:
		colour, dash, opacity := "#5F6B70", "", 1.0
		if t.Class != "code" {
			colour, dash = "#1F6F6B", ` stroke-dasharray="4 3"`
		}
		if t.Faint {
			opacity = 0.35
		}
		fmt.Fprintf(b, `<g opacity="%g"><title>%s</title><path d="%s" fill="none" stroke="%s"%s/><path d="%s" fill="%s"/></g>`+"\n",
			opacity, says, t.Line, colour, dash, t.Tip, colour)
	}
}

// some counts things in words.
func some(n int, thing string) string {
	if n == 1 {
		return "one " + thing
	}
	return naming.Figure(n) + " " + thing + "s"
}
