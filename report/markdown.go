package report

import (
	"fmt"
	"io"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/overview"
)

// PlaceName is how a place is spoken of.
func PlaceName(p string) string {
	if p == "." {
		return "the codebase"
	}
	return p
}

// Source is one line on where the bytes come from.
func Source(s *model.Survey) string {
	date := s.SurveyedAt.Format("2 January 2006")
	if s.Origin.Revision != "" {
		return "at " + short(s.Origin.Revision) + ", surveyed on " + date
	}
	return "surveyed on " + date
}

// Markdown writes the overview as CommonMark that loads nothing.
func Markdown(w io.Writer, s *model.Survey, j *judgement.Result) error {
	sh := overview.Of(s, j, ".")
	var b strings.Builder
	fmt.Fprintf(&b, "# %s\n\n%s.\n\n", escapeMarkdown(s.Codebase), escapeMarkdown(Source(s)))
	if sh.Purpose.Text != "" {
		fmt.Fprintf(&b, "%s\n\n", escapeMarkdown(sh.Purpose.Text))
	}
	for _, x := range sh.Sentences {
		fmt.Fprintf(&b, "- %s\n", escapeMarkdown(x.Text))
	}
	section := func(title string) { fmt.Fprintf(&b, "\n## %s\n\n", title) }
	if len(sh.Strong) > 0 {
		section("What is good")
		for _, x := range sh.Strong {
			fmt.Fprintf(&b, "- %s\n", escapeMarkdown(x.Text))
		}
	}
	if len(sh.Patterns) > 0 {
		section("Pattern (" + sh.Verdict + ")")
		for _, p := range sh.Patterns {
			fmt.Fprintf(&b, "### %s\n\n", escapeMarkdown(p.Name))
			for _, a := range p.For {
				fmt.Fprintf(&b, "- for: %s\n", escapeMarkdown(a.Text))
			}
			for _, a := range p.Against {
				fmt.Fprintf(&b, "- against: %s\n", escapeMarkdown(a.Text))
			}
			b.WriteByte('\n')
		}
	}
	if len(sh.Worst) > 0 {
		section("Where it smells most")
		for _, sm := range sh.Worst {
			fmt.Fprintf(&b, "- %s (%s)\n", escapeMarkdown(sm.Message), codeSpan(placeOf(sm.Path, sm.Line)))
		}
	}
	list := func(title string, items []overview.Reason) {
		if len(items) == 0 {
			return
		}
		section(title)
		for _, x := range items {
			fmt.Fprintf(&b, "- %s: %s\n", codeSpan(x.Path), escapeMarkdown(x.Why))
		}
	}
	list("Where it will hurt", sh.Hurts)
	list("Where to read first", sh.ReadFirst)
	if len(sh.Ask) > 0 {
		section("Whom to ask")
		for _, x := range sh.Ask {
			fmt.Fprintf(&b, "- %s\n", escapeMarkdown(x.Text))
		}
	}
	if len(sh.Practices) > 0 {
		section("Practices")
		for _, p := range sh.Practices {
			mark := "not found"
			if p.Found {
				mark = "there"
			}
			fmt.Fprintf(&b, "- %s: %s. %s\n", escapeMarkdown(p.Name), mark, escapeMarkdown(p.Text))
		}
	}
	if len(sh.System) > 0 {
		section("What it runs with")
		for _, g := range sh.System {
			var names []string
			for _, e := range g.Items {
				names = append(names, escapeMarkdown(e.Note))
			}
			fmt.Fprintf(&b, "- %s: %s\n", g.Name, strings.Join(names, ", "))
		}
	}
	l := sh.Score
	fmt.Fprintf(
		&b, "\nLegibility %s of 100: Layout %s, Boundaries %s, Units %s, Names %s.\n", score(l.Total),
		score(l.Layout), score(l.Boundaries), score(l.Units), score(l.Names),
	)
	_, err := io.WriteString(w, b.String())
	return err
}
