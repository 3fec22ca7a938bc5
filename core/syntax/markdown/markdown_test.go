package markdown

import (
	"testing"

	"jantel/core/syntax"

	"github.com/stretchr/testify/require"
)

func TestTheOpeningWordsAreTheFirstThatSayAnything(t *testing.T) {
	for name, c := range map[string]struct {
		text, want string
		line       int
	}{
		"words that lean":           {"Vault is a register of *seed lots*, _and_ of growers; 2 * 3 is six, snake_case_name stays.\n", "Vault is a register of seed lots, and of growers; 2 * 3 is six, snake_case_name stays.", 1},
		"plain":                     {"# Vault\n\nKeeps the boxes. And more.\n", "Keeps the boxes. And more.", 3},
		"badges broken over lines":  {"# Vault\n\n[![Seed\nCI](https://vault.example/ci.svg)](https://vault.example/ci)\n[![Lots](l.svg)](l)\n\nKeeps the boxes.\n", "Keeps the boxes.", 7},
		"a badge before words":      {"[![CI](a.svg)](a) Keeps the boxes.\n", "Keeps the boxes.", 1},
		"links alone":               {"[Docs](d) [Site](s)\n\nKeeps the boxes.\n", "Keeps the boxes.", 3},
		"links among words":         {"Keeps the [boxes](b) of **seed**.\n", "Keeps the boxes of seed.", 1},
		"a picture in HTML":         {"<p align=\"right\"><img src=\"a.png\"></p>\n\nKeeps the boxes.\n", "Keeps the boxes.", 3},
		"a title with a line below": {"Vault\n=====\n\nKeeps the boxes.\n", "Keeps the boxes.", 4},
		"code before words":         {"```\nmake\n```\nKeeps the boxes.\n", "Keeps the boxes.", 4},
		"a title of a part":         {"Vault\n=====\n\nCONTENTS\n--------\nVault is a register of lots.\n", "Vault is a register of lots.", 6},
		"what it is, further down":  {"# Vault\n\nSeed for all.\n\nRun it.\n\nVault is a register of lots.\n", "Vault is a register of lots.", 7},
		"a remark of the author":    {"<!-- Vault is old,\nand so are we. -->\nVault is a register of lots.\n", "Vault is a register of lots.", 3},
		"nothing":                   {"# Vault\n\n![](a.png)\n", "", 0},
	} {
		t.Run(name, func(t *testing.T) {
			f := markdown(syntax.How{}, []byte(c.text))
			require.Equal(t, c.want, f.Doc)
			if c.want != "" {
				require.Equal(t, c.line, f.DocLine)
			}
		})
	}
}

func FuzzRead(f *testing.F) {
	f.Add("# a\n\n[![b\nc](d)](e)\n```\nmake\n```\n")
	f.Fuzz(func(t *testing.T, text string) {
		x := markdown(syntax.How{}, []byte(text))
		require.LessOrEqual(t, len(x.Doc), 4*300)
		require.GreaterOrEqual(t, x.DocLine, 0)
	})
}
