// Command languages writes the table by which files without a reader of our own
// are named for their language, from that of the library. The library itself
// fills maps of many megabytes whenever a program starts.
package main

import (
	"bytes"
	"fmt"
	"maps"
	"os"
	"slices"
	"strings"

	"github.com/go-enry/go-enry/v2/data"
)

func main() {
	var b bytes.Buffer
	b.WriteString(
		"# Made by scripts/languages; a name, or a star and an ending, a tab, and the language: of a name when it is " +
			"the only one, of an ending the most likely.\n",
	)
	for _, of := range []struct {
		mark  string
		table map[string][]string
	}{{"", data.LanguagesByFilename}, {"*", data.LanguagesByExtension}} {
		for _, k := range slices.Sorted(maps.Keys(of.table)) {
			if !strings.ContainsAny(k, "\t\n") && (len(of.table[k]) == 1 || len(of.table[k]) > 1 && of.mark == "*") {
				fmt.Fprintf(&b, "%s%s\t%s\n", of.mark, k, of.table[k][0])
			}
		}
	}
	if err := os.WriteFile("languages.txt", b.Bytes(), 0o644); err != nil {
		fmt.Fprintln(os.Stderr, "languages: "+err.Error())
		os.Exit(1)
	}
}
