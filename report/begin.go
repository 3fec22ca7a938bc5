package report

import (
	"fmt"
	"net/url"
	"regexp"
	"strings"

	"jantel/core/overview"
	"jantel/review"
)

// Known is what a page may begin with: what was reckoned, and what was recorded.
type Known struct {
	Name     string
	Sheet    *overview.Sheet // of the whole codebase
	Feature  string          // the one to read first, "" where none is
	Parts    []string        // the files of that feature, in reading order
	Findings []review.Finding
	Unread   []string // folders of which nothing was looked at
}

// mostListed bounds each list that a page begins with.
const mostListed = 8

// Begin writes the title and the text that a page of a kind starts out with. All of it
// is there to be changed; what only its writer can know is left to be written.
func Begin(kind review.PageKind, k *Known) (title, text string) {
	b := &beginning{}
	switch kind {
	case review.PageGuide:
		b.guide(k)
		return "Getting to know " + k.Name, b.String()
	case review.PageReport:
		b.report(k)
		return "What we found in " + k.Name, b.String()
	case review.PageRegrouping:
		b.head("Why", "")
		b.head("Moves", "Lines as these are read as moves; above them stands what becomes of it.\n\n```\ngit mv FROM TO\n```")
		b.head("What is not moved, and why", "")
		return "Other homes for ", b.String()
	}
	b.head("What was decided", "")
	b.head("Alternatives", "")
	b.head("Why", "")
	b.head("Where it shows", "")
	return "", b.String()
}

type beginning struct{ strings.Builder }

func (b *beginning) head(title, text string) {
	fmt.Fprintf(b, "## %s\n\n", title)
	if text != "" {
		b.WriteString(text + "\n\n")
	}
}

// emphasis are the signs that sentences put around names.
var emphasis = regexp.MustCompile(`\*([^*]+)\*`)

func (b *beginning) guide(k *Known) {
	s := k.Sheet
	var said []string
	for _, x := range s.Sentences[:min(6, len(s.Sentences))] {
		said = append(said, emphasis.ReplaceAllString(x.Text, "$1"))
	}
	b.head("What it is", strings.Join(said, " "))
	b.list("Run it", "", len(s.Runs), func(i int) string {
		r := &s.Runs[i]
		return fmt.Sprintf("[ ] %s: %s, said in %s", r.Purpose, codeSpan(r.Text), link(r.Path, r.Path, r.Line))
	})
	b.list("Where it starts", "", len(s.Entries), func(i int) string {
		e := &s.Entries[i]
		return link(e.Path, e.Path, e.Line) + ": " + emphasis.ReplaceAllString(e.Note, "$1")
	})
	b.list("Read one thing through", fmt.Sprintf("*%s* is built as the others are. Read it in this order:", k.Feature), len(k.Parts),
		func(i int) string { return "[ ] " + link(k.Parts[i], k.Parts[i], 0) })
	b.list("Read next", "", len(s.ReadFirst), func(i int) string {
		r := &s.ReadFirst[i]
		return fmt.Sprintf("[ ] %s: %s", link(r.Path, r.Path, r.Line), emphasis.ReplaceAllString(r.Why, "$1"))
	})
	b.head("Where new code goes", "")
}

// list is a heading with the first of some things below it; nothing where there are none.
func (b *beginning) list(title, text string, n int, item func(i int) string) {
	if n == 0 {
		return
	}
	b.head(title, text)
	for i := range min(mostListed, n) {
		b.WriteString("- " + item(i) + "\n")
	}
	b.WriteString("\n")
}

func (b *beginning) report(k *Known) {
	b.head("The verdict", "")
	of := func(is func(f *review.Finding) bool) (out []review.Finding) {
		for i := range k.Findings {
			if f := &k.Findings[i]; !f.Deleted && f.State != review.Dropped && is(f) {
				out = append(out, *f)
			}
		}
		return out
	}
	b.findings("What to keep", of(func(f *review.Finding) bool { return f.Kind == review.Keep }), false)
	b.findings("What is to be done, in this order", of(func(f *review.Finding) bool {
		return f.Kind != review.Keep && f.Kind != review.Ask && f.State != review.Done
	}), true)
	b.findings("Done since", of(func(f *review.Finding) bool { return f.Kind != review.Keep && f.State == review.Done }), false)
	b.findings("Open questions", of(func(f *review.Finding) bool { return f.Kind == review.Ask && f.State != review.Done }), false)
	if len(k.Unread) > 0 {
		b.head("Not looked at", "")
		for _, d := range k.Unread[:min(mostListed, len(k.Unread))] {
			fmt.Fprintf(b, "- %s\n", codeSpan(d))
		}
		if more := len(k.Unread) - mostListed; more > 0 {
			fmt.Fprintf(b, "- and %d folders more\n", more)
		}
		b.WriteString("\n")
	}
}

// findings lists some, each with what was written of it and the place it is about.
func (b *beginning) findings(title string, all []review.Finding, numbered bool) {
	if len(all) == 0 {
		return
	}
	b.head(title, "")
	for i := range all {
		f := &all[i]
		mark := "###"
		if numbered {
			mark = fmt.Sprintf("### %d.", i+1)
		}
		fmt.Fprintf(b, "%s %s\n\n", mark, f.Title)
		if f.Text != "" {
			b.WriteString(f.Text + "\n\n")
		}
		switch {
		case f.Place.Definition != "":
			fmt.Fprintf(b, "[%s](%s#%s)\n\n", f.Place.Definition, escaped(f.Place.Path), url.PathEscape(f.Place.Definition))
		case f.Place.Line > 0:
			fmt.Fprintf(b, "%s\n\n", stretch(&f.Place))
		case f.Place.Path != "." && f.Place.Path != "":
			fmt.Fprintf(b, "In %s.\n\n", link(f.Place.Path, f.Place.Path, 0))
		}
	}
}

func stretch(p *review.Place) string {
	if p.EndLine > p.Line {
		return fmt.Sprintf("[%s](%s#L%d-L%d)", brackets.Replace(Place(*p)), escaped(p.Path), p.Line, p.EndLine)
	}
	return link(Place(*p), p.Path, p.Line)
}

var brackets = strings.NewReplacer("[", `\[`, "]", `\]`)

// link leads to a place of the codebase, at a line where there is one.
func link(text, path string, line int) string {
	at := ""
	if line > 0 {
		at = fmt.Sprintf("#L%d", line)
	}
	return fmt.Sprintf("[%s](%s%s)", brackets.Replace(text), escaped(path), at)
}

// escaped writes a path so that a link may have it, whatever signs are in it.
func escaped(path string) string {
	parts := strings.Split(path, "/")
	for i := range parts {
		parts[i] = strings.NewReplacer("(", "%28", ")", "%29").Replace(url.PathEscape(parts[i]))
	}
	return strings.Join(parts, "/")
}
