package syntax

import (
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestStatementsAreToldFromTheRestOfAText(t *testing.T) {
	for text, want := range map[string]string{
		"Vault keeps boxes of seed for growers.":                                      "same",
		"Vault is a register of seed lots.":                                           "same",
		"Keeps the boxes.":                                                            "same",
		"This folder contains the labels that are printed.":                           "same",
		"Welcome to Vault! Vault is a register.":                                      "Vault is a register.",
		"Vault is a register, first released in 2019.":                                "same",
		"Vault is a register of lots. It:":                                            "Vault is a register of lots.",
		"Register of lots":                                                            "same",
		"Vault is a register. It is quick. If you have questions, ask us. It counts.": "Vault is a register. It is quick.",
		"Vault is a register of lots. More information is available on the wiki":      "Vault is a register of lots.",
		"Boxes":                              "",
		"Vault 5.4, released on 13 Jan 2025": "",
		"v1.2.3":                             "",
		"Linux users should visit the vault. They must bring seed.":          "",
		"Vault is a register with which users can find lots.":                "same",
		"Prerequisites: a) a box b) a shelf":                                 "",
		"For installation see the manual.":                                   "",
		"For weighing lots before they are dried.":                           "same",
		"This module integrates the scales of a vault in your desk.":         "same",
		"To run Vault, you need:":                                            "",
		"Run the migrations first. The output is a list of lots.":            "",
		"All documentation for Vault is now online at https://vault.example": "",
		"Vault is a register of lots, written by growers. It counts them.":   "same",
		"Register of lots, written by growers of the valley.":                "",
		"Vault is free software, under the GNU licence.":                     "",
		"Copyright 2026 the growers of the valley.":                          "",
		"This file only tells how things are compiled.":                      "",
		"* boxes - Keeps the boxes. * lots - Keeps the lots.":                "",
		"1. Open the box. 2. Close the box.":                                 "",
		"This project was bootstrapped with a starter kit.":                  "",
		"Added lots of wood, and mended the kiln.":                           "",
		"Contents of the directory tree is below.":                           "",
		"This mode is for growers who write on paper.":                       "",
		"This package follows the official policy of the valley.":            "",
		"This library is updated for the lists of the year.":                 "",
		"Vault is a register whose features were added by growers.":          "same",
		"What is kept here?":                                                 "",
		"":                                                                   "",
	} {
		t.Run(text, func(t *testing.T) {
			if want == "same" {
				want = text
			}
			got, _ := Statement(text)
			require.Equal(t, want, got)
		})
	}
}

func TestWhatIsSaidInSoManyWordsIsFirm(t *testing.T) {
	_, firm := Statement("Vault is a register of lots.")
	require.True(t, firm)
	_, firm = Statement("Seed for the valley.")
	require.False(t, firm)
}

func FuzzStatement(f *testing.F) {
	f.Add("Welcome to Vault! Vault is a register: see https://vault.example.")
	f.Fuzz(func(t *testing.T, text string) {
		said, _ := Statement(text)
		require.Contains(t, text, said, "nothing is put into the authors' mouths")
		again, _ := Statement(said)
		require.Equal(t, said, again)
	})
}

// What is looked for first must let all through that the slow expression finds.
func TestWhatInstructsBeginsWithAWordThatIsKnown(t *testing.T) {
	words := regexp.MustCompile(`[a-z]+`).FindAllString(strings.ToLower(instructs.String()), -1)
	require.Greater(t, len(words), 100)
	found := 0
	for _, w := range words {
		for _, s := range []string{
			w + " the lots.", w + "s of lots.", "  * " + w + ", the lots", strings.ToUpper(w) + " lots", w + " a b", w + " an box", w + "d lots",
			"in " + w + " to weigh", w + " you weigh", w + ": lots", w + ";dr lots", w + "'s weigh", w + "'t weigh",
		} {
			if instructs.MatchString(s) {
				found++
				require.True(t, mayInstruct(s), s)
			}
		}
	}
	require.Greater(t, found, 300)
	require.False(t, mayInstruct("Vault is a register."))
}

func TestWordsOfTwoLettersAreCounted(t *testing.T) {
	for text, want := range map[string]int{
		"": 0, "a b c": 0, "ab c de": 2, "ab-cd ef gh ij": 4, "12 ab3cd": 2, "Zürich über": 2, "a1b": 0,
	} {
		require.Equal(t, want, CountWords(text, 4), text)
	}
}
