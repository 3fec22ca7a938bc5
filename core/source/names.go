package source

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// EncodeName turns a stored name into one that is UTF-8 and free of control
// signs: bytes that are neither become %XX, and a literal % before two hex
// digits becomes %25 where the name needed encoding at all.
func EncodeName(raw string) string {
	if cleanName(raw) {
		return raw
	}
	var b strings.Builder
	for i := 0; i < len(raw); {
		r, n := utf8.DecodeRuneInString(raw[i:])
		switch {
		case r == utf8.RuneError && n <= 1, r < 0x20, r == 0x7f, r == '%':
			fmt.Fprintf(&b, "%%%02X", raw[i])
			n = 1
		default:
			b.WriteString(raw[i : i+n])
		}
		i += n
	}
	return b.String()
}

func cleanName(s string) bool {
	for i := 0; i < len(s); i++ {
		if s[i] < 0x20 || s[i] == 0x7f {
			return false
		}
	}
	return utf8.ValidString(s)
}

// foldName is the form under which two names of an archive would overwrite
// each other on a file system that folds case or composes accents.
func foldName(s string) string { return strings.ToLower(norm.NFC.String(s)) }

func sortedKeys[V any](m map[string]V) []string { return slices.Sorted(maps.Keys(m)) }
