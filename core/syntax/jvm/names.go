package jvm

import (
	"strings"

	"jantel/core/syntax"
)

// Dotted reads a.b.c or a.b.* at i, without the backticks that names may stand
// in, and returns the index behind it.
func Dotted(s *syntax.Stream, i int) (string, int) {
	var b strings.Builder
	for s.Any(i, syntax.Name, "*") {
		b.WriteString(strings.Trim(s.Text(i), "`"))
		i++
		if !s.Is(i, ".") {
			break
		}
		b.WriteByte('.')
		i++
	}
	return b.String(), i
}
