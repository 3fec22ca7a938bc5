package smells

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestFiguresArePartedAndNamesAreNot(t *testing.T) {
	for in, want := range map[string]string{
		"2305 lines of code in one file, where 500 is the limit": "2,305 lines of code in one file, where 500 is the limit",
		"1234567 lines":                      "1,234,567 lines",
		"*page2026* is like *page2025*":      "*page2026* is like *page2025*",
		"*1000* stands in 1000 places":       "*1000* stands in 1,000 places",
		"sha1024 is a word, and so is a1000": "sha1024 is a word, and so is a1000",
	} {
		require.Equal(t, want, thousands(in))
	}
}
