package smells

import (
	"regexp"
	"strings"
)

var longNumber = regexp.MustCompile(`\b\d{4,}\b`)

// thousands parts the figures of a sentence at their thousands. Names, which
// stand between stars, are left as they are.
func thousands(sentence string) string {
	parts := strings.Split(sentence, "*")
	for i := 0; i < len(parts); i += 2 {
		parts[i] = longNumber.ReplaceAllStringFunc(parts[i], func(n string) string {
			for i := len(n) - 3; i > 0; i -= 3 {
				n = n[:i] + "," + n[i:]
			}
			return n
		})
	}
	return strings.Join(parts, "*")
}
