package smells

import (
	"crypto/sha256"
	"embed"
	"encoding/hex"
	"fmt"
	"strconv"
	"strings"

	"jantel/core/model"
)

// sources is the text of the rules themselves.
//
//go:embed *.go
var sources embed.FS

// Version tells one state of the rules from another. It is made of their own
// source, so that nobody has to remember to raise it.
var Version = version()

func version() string {
	sum := sha256.New()
	list, err := sources.ReadDir(".")
	if err != nil {
		panic(err) // compiled in
	}
	for _, file := range list {
		if strings.HasSuffix(file.Name(), "_test.go") {
			continue
		}
		text, err := sources.ReadFile(file.Name())
		if err != nil {
			panic(err) // compiled in
		}
		fmt.Fprintf(sum, "%s %d\n%s", file.Name(), len(text), text)
	}
	return hex.EncodeToString(sum.Sum(nil)[:8])
}

// Guide is the catalogue as Markdown, by facet and in its order: what stands
// about the rules in the guide to the analysis.
func Guide() string {
	var b strings.Builder
	for _, facet := range model.Facets {
		name := string(facet)
		fmt.Fprintf(&b, "### %s%s\n\n", strings.ToUpper(name[:1]), name[1:])
		for _, r := range catalogue {
			if r.Facet == facet {
				r.guide(&b)
			}
		}
	}
	return strings.TrimSuffix(b.String(), "\n")
}

func (r *Rule) guide(b *strings.Builder) {
	weight := limit(r.Weight)
	fmt.Fprintf(b, "**%s** (`%s`, weight %s). %s %s\n\n", r.Title, r.Slug, weight, r.Question, r.Why)
	fmt.Fprintf(b, "- Example: %s\n- Remedy: %s\n", r.Example, r.Remedy)
	if len(r.Parameters) > 0 {
		var limits []string
		for _, p := range r.Parameters {
			limits = append(limits, fmt.Sprintf("%s: %s / %s / %s", p.Meaning, limit(p.Sketch), limit(p.Growing), limit(p.InService)))
		}
		fmt.Fprintf(b, "- Limits: %s\n", strings.Join(limits, "; "))
	}
	b.WriteString("\n")
}

func limit(v float64) string { return strconv.FormatFloat(v, 'g', -1, 64) }
