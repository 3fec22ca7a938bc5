package smells

import (
	"regexp"
	"strings"

	"jantel/core/naming"
)

var longNumber = regexp.MustCompile(`\b\d{4,}\b`)

// thousands parts the figures of a sentence at their thousands. Names, which
// stand between stars, are left as they are.
func thousands(sentence string) string {
	parts := strings.Split(sentence, "*")
	for i := 0; i < len(parts); i += 2 {
		parts[i] = longNumber.ReplaceAllStringFunc(parts[i], naming.Digits)
	}
	return strings.Join(parts, "*")
}
