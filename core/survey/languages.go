package survey

import (
	_ "embed" // the table
	"path"
	"strings"
	"sync"

	"jantel/core/syntax"
)

//go:generate go run ../../scripts/languages

//go:embed languages.txt
var languageTable string

var languagesByName = sync.OnceValue(func() map[string]string {
	out := make(map[string]string, strings.Count(languageTable, "\n"))
	for line := range strings.Lines(languageTable) {
		if name, language, ok := strings.Cut(strings.TrimSuffix(line, "\n"), "\t"); ok {
			out[name] = language
		}
	}
	return out
})

// commonName is what the language of a file is commonly taken to be by its name
// alone, or else by the longest of its endings that is known; "" when none is.
func commonName(p string) string {
	table := languagesByName()
	b := path.Base(p)
	if l := table[b]; l != "" {
		return l
	}
	b = strings.ToLower(b)
	for i := range len(b) {
		if b[i] == '.' {
			if l := table["*"+b[i:]]; l != "" {
				return l
			}
		}
	}
	return ""
}

// Version tells one state of what reads from another.
func Version() string { return syntax.Version() }
