package report

import (
	"encoding/csv"
	"fmt"
	"io"
	"strings"
	"unicode"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/overview"
	"jantel/review"
)

// Plain takes control signs out of text from a codebase, so that it can not
// steer a terminal, and keeps it on one line.
func Plain(s string) string {
	return strings.Map(func(r rune) rune {
		switch {
		case r == '\n' || r == '\t':
			return ' '
		case unicode.IsControl(r), r >= 0x202a && r <= 0x202e, r >= 0x2066 && r <= 0x2069:
			return -1
		}
		return r
	}, s)
}

func score(f *float64) string {
	if f == nil {
		return "unknown"
	}
	return fmt.Sprintf("%.0f", *f)
}

// Text writes the overview for a terminal.
func Text(w io.Writer, s *model.Survey, j *judgement.Result) error {
	sh := overview.Of(s, j, ".")
	var b strings.Builder
	fmt.Fprintf(&b, "%s\n", Plain(s.Codebase))
	if s.Origin.Revision != "" {
		fmt.Fprintf(&b, "at %s, %s\n", short(s.Origin.Revision), Plain(s.Origin.Subject))
	}
	if sh.Purpose.Text != "" {
		fmt.Fprintf(&b, "%s\n", Plain(sh.Purpose.Text))
	}
	b.WriteByte('\n')
	for _, x := range sh.Sentences {
		fmt.Fprintf(&b, "%s\n", Plain(x.Text))
	}
	l := sh.Score
	share := "unknown"
	if l.JudgedShare != nil {
		share = fmt.Sprintf("%.0f %%", 100**l.JudgedShare)
	}
	fmt.Fprintf(
		&b, "\nLegibility %s of 100 (Layout %s, Boundaries %s, Units %s, Names %s); %s of the lines judged.\n",
		score(l.Total), score(l.Layout), score(l.Boundaries), score(l.Units), score(l.Names), share,
	)
	if len(sh.Patterns) > 0 {
		fmt.Fprintf(&b, "\nPattern, %s:\n", sh.Verdict)
		for _, p := range sh.Patterns {
			fmt.Fprintf(&b, "  %s\n", p.Name)
			for _, a := range p.For {
				fmt.Fprintf(&b, "    for      %s\n", Plain(a.Text))
			}
			for _, a := range p.Against {
				fmt.Fprintf(&b, "    against  %s\n", Plain(a.Text))
			}
		}
	}
	if len(sh.Worst) > 0 {
		fmt.Fprintf(&b, "\nWorst of %d smells:\n", sh.Smells)
		for _, sm := range sh.Worst {
			fmt.Fprintf(
				&b, "  %s: %s\n    %s\n", Plain(placeOf(sm.Path, sm.Line)),
				Plain(strings.ReplaceAll(sm.Message, "*", "")), Plain(sm.Remedy),
			)
		}
	}
	if len(sh.Runs) > 0 {
		b.WriteString("\nHow to build, run and test it, as its own files say:\n")
		for _, r := range sh.Runs[:min(8, len(sh.Runs))] {
			fmt.Fprintf(&b, "  %-6s %s   (%s:%d)\n", r.Purpose, Plain(r.Text), Plain(r.Path), r.Line)
		}
	}
	notes := notesOf(s, j)
	for i, n := range notes {
		if i == 0 {
			b.WriteString("\nNoted on the way:\n")
		}
		if i == 10 {
			fmt.Fprintf(&b, "  and %d more\n", len(notes)-10)
			break
		}
		fmt.Fprintf(&b, "  %s: %s\n", Plain(n.Path), Plain(n.Text))
	}
	_, err := io.WriteString(w, b.String())
	return err
}

func short(rev string) string { return rev[:min(10, len(rev))] }

func placeOf(p string, line *int) string {
	if line != nil {
		return fmt.Sprintf("%s:%d", p, *line)
	}
	return p
}

// Place writes a finding's place as path:line-line.
func Place(p review.Place) string {
	switch {
	case p.Line == 0:
		return p.Path
	case p.EndLine > p.Line:
		return fmt.Sprintf("%s:%d-%d", p.Path, p.Line, p.EndLine)
	}
	return fmt.Sprintf("%s:%d", p.Path, p.Line)
}

// FindingsCSV writes the findings as RFC 4180, one a row. Cells that a
// spreadsheet would take for a formula are neutralised.
func FindingsCSV(w io.Writer, fs []review.Finding) error {
	c := csv.NewWriter(w)
	c.UseCRLF = true
	rows := [][]string{
		{"order", "kind", "state", "title", "place", "definition", "assignee", "labels", "text", "rule", "author", "created", "updated"},
	}
	for i, f := range fs {
		row := []string{
			fmt.Sprint(i + 1), string(f.Kind), string(f.State), f.Title, Place(f.Place), f.Place.Definition,
			f.Assignee, strings.Join(f.Labels, ", "), f.Text, f.Rule, string(f.Author), f.Created.Format("2006-01-02 15:04"),
			f.Updated.Format("2006-01-02 15:04"),
		}
		for k := range row {
			row[k] = cell(row[k])
		}
		rows = append(rows, row)
	}
	return c.WriteAll(rows)
}

func cell(s string) string {
	t := strings.TrimLeft(s, " ")
	if t != "" && strings.ContainsRune("=+-@\t\r", rune(t[0])) {
		return "'" + s
	}
	return s
}

// FindingsMarkdown writes the findings as CommonMark, in the order set.
func FindingsMarkdown(w io.Writer, name string, fs []review.Finding) error {
	var b strings.Builder
	fmt.Fprintf(&b, "# Findings on %s\n", escapeMarkdown(name))
	if len(fs) == 0 {
		b.WriteString("\nNothing was found yet.\n")
	}
	for i, f := range fs {
		fmt.Fprintf(&b, "\n## %d. %s: %s\n\n", i+1, title(string(f.Kind)), escapeMarkdown(f.Title))
		fmt.Fprintf(&b, "- Place: %s\n- State: %s\n", codeSpan(Place(f.Place)), f.State)
		if f.Place.Definition != "" {
			fmt.Fprintf(&b, "- In: %s\n", codeSpan(f.Place.Definition))
		}
		if f.Assignee != "" {
			fmt.Fprintf(&b, "- For: %s\n", escapeMarkdown(f.Assignee))
		}
		if len(f.Labels) > 0 {
			fmt.Fprintf(&b, "- Labels: %s\n", escapeMarkdown(strings.Join(f.Labels, ", ")))
		}
		if f.Author != "" {
			fmt.Fprintf(&b, "- Noted by %s on %s\n", escapeMarkdown(string(f.Author)), f.Created.Format("2 January 2006"))
		}
		if t := strings.TrimSpace(f.Text); t != "" {
			fmt.Fprintf(&b, "\n%s\n", harmless(t))
		}
		if f.Place.Quote != "" {
			fmt.Fprintf(&b, "\n%s\n", fenced(f.Place.Quote))
		}
		for k, e := range f.Evidence {
			if k == 0 {
				b.WriteString("\nEvidence:\n\n")
			}
			p := e.Path
			if e.Line > 0 {
				p = fmt.Sprintf("%s:%d", p, e.Line)
			}
			fmt.Fprintf(&b, "- %s %s\n", codeSpan(p), escapeMarkdown(e.Note))
		}
	}
	_, err := io.WriteString(w, b.String())
	return err
}

func title(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

var markdownSigns = strings.NewReplacer(
	"\\", "\\\\", "`", "\\`", "*", "\\*", "_", "\\_", "[", "\\[", "]", "\\]", "<", "&lt;", ">", "&gt;", "#", "\\#",
	"!", "\\!", "|", "\\|", "\n", " ", "\r", "",
)

func escapeMarkdown(s string) string { return markdownSigns.Replace(s) }

// codeSpan quotes text with more backticks than it holds.
func codeSpan(s string) string {
	s = strings.ReplaceAll(Plain(s), "\n", " ")
	marks := "`"
	for strings.Contains(s, marks) {
		marks += "`"
	}
	if strings.HasPrefix(s, "`") || strings.HasSuffix(s, "`") {
		s = " " + s + " "
	}
	return marks + s + marks
}

func fenced(s string) string {
	marks := "```"
	for strings.Contains(s, marks) {
		marks += "`"
	}
	return marks + "\n" + s + "\n" + marks
}

// harmless keeps a writer's Markdown but takes images and raw HTML out of it.
func harmless(s string) string {
	return strings.NewReplacer("<", "&lt;", "![", "\\![").Replace(s)
}
