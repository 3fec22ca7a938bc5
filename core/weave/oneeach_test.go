package weave_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/weave"

	"github.com/stretchr/testify/require"
)

// files writes one file for each name, with the name and its class in place of %[1]s and %[2]s.
func files(names []string, path, text string) string {
	var b strings.Builder
	for _, n := range names {
		class := ""
		for part := range strings.SplitSeq(n, "_") {
			class += strings.ToUpper(part[:1]) + part[1:]
		}
		fmt.Fprintf(&b, "-- "+path+" --\n"+text, n, class)
	}
	return b.String()
}

func TestOfManyFilesBuiltAlikeEachIsAboutWhatItIsCalled(t *testing.T) {
	crops := []string{"barley", "oat", "rye", "spelt", "wild_millet", "vetch"}
	base := "-- src/reader.py --\nclass Reader:\n    pass\n"
	for name, c := range map[string]struct {
		tree, path, want string
	}{
		"by what they build upon": {
			base + files(crops, "src/readers/%s.py", "from src.reader import Reader\n\nclass %[2]s(Reader):\n    def read(self, lot):\n        return lot\n"),
			"src/readers/wild_millet.py", "wild millet",
		},
		"by a function that each has": {
			files(crops, "src/tools/%s.py", "def run(lot):\n    print('%[2]s', lot)\n"), "src/tools/oat.py", "oat",
		},
		"by the word their classes end in, which is left out": {
			files(crops, "src/sorts/%s_sort.py", "class %[2]sSort:\n    def weigh(self, lot):\n        return lot\n"), "src/sorts/rye_sort.py", "rye",
		},
		"by a folder of many": {
			files(crops[:4], "src/commands/%s.py", "VERB = '%[2]s'\n\ndef %[1]s_lots(desk):\n    return desk\n"), "src/commands/spelt.py", "spelt",
		},
		"by the parts of their names that they do not share": {
			files(crops, "share/scale.%s.php", "<?php\nclass %[2]s extends Scale {\n  function weigh() { return 1; }\n}\n") + "-- share/Scale.php --\n<?php\nclass Scale {}\n",
			"share/scale.oat.php", "oat",
		},
		"by what packages have": {
			files(crops, "lib/%[2]s.pm", "package %[2]s;\nuse strict;\nsub begin { return 1 }\n1;\n"), "lib/Oat.pm", "oat",
		},
		"not where they are few": {
			base + files(crops[:5], "src/grain/%s.py", "from src.reader import Reader\n\nclass %[2]s(Reader):\n    def read(self, lot):\n        return lot\n"),
			"src/grain/oat.py", "",
		},
		"not where they share nothing": {
			files(crops, "src/grain/%s.py", "def take_%[1]s(lot):\n    return lot\n"), "src/grain/oat.py", "",
		},
		"not what only holds data": {
			files(crops, "src/grain/%s.py", "from dataclasses import dataclass\n\n@dataclass\nclass %[2]sRow:\n    grams: int\n"), "src/grain/oat.py", "",
		},
		"not the part that stands for all": {
			base + files(append([]string{"base"}, crops...), "src/readers/%s.py",
				"from src.reader import Reader\n\nclass %[2]s(Reader):\n    def read(self, lot):\n        return lot\n"),
			"src/readers/base.py", "",
		},
	} {
		t.Run(name, func(t *testing.T) {
			j := judgement.Judge(testkit.Survey(t, c.tree), model.Brief{}, nil)
			of := j.FeatureOf[c.path]
			require.Equal(t, c.want != "", of.Alone, of.Reasons)
			if c.want == "" {
				return
			}
			require.Equal(t, c.want, of.Feature, of.Reasons)
			for _, f := range j.Features {
				if f.Name == c.want {
					require.Equal(t, []string{c.path}, f.Files)
					require.Empty(t, f.Missing) // it is built of one part
					return
				}
			}
			t.Fatal("it is among the features")
		})
	}
}

func TestASmallClassSaysLittleOfTheFunctionsBesideIt(t *testing.T) {
	work := strings.Repeat("    lot = lot - tare\n", 20)
	tree := "-- src/erase.py --\nclass EraseConfig:\n    pass\n\n\ndef erase(lot, tare):\n" + work +
		"-- src/desk.py --\nclass DeskConfig:\n    def __init__(self):\n        self.path = 'x'\n"
	j := judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil)
	require.NotEqual(t, model.RoleConfig, j.Roles["src/erase.py"].Role)
	require.Equal(t, model.RoleConfig, j.Roles["src/desk.py"].Role)
}

func TestWhatOneFileIsAboutLacksNoPart(t *testing.T) {
	tree := files([]string{"barley", "oat", "rye", "spelt", "millet", "vetch"}, "src/tools/%s.py", "def run(lot):\n    print('%[2]s', lot)\n")
	for _, n := range strings.Fields("shelf crate tray vault desk scale label husk chaff barn mill loft sieve spade plough harrow sickle flail fork") {
		tree += files([]string{n}, "src/%[1]s/%[1]s_model.py", "class %[2]s:\n    def __init__(self, label):\n        self.label = label\n") +
			files([]string{n}, "src/%[1]s/%[1]s_view.py", "from tkinter import Frame\n\nclass %[2]sView(Frame):\n    pass\n")
	}
	s := testkit.Survey(t, tree)
	g := weave.GridOf(s, judgement.Judge(s, model.Brief{}, nil).Judgement, ".")
	alone := 0
	for _, f := range g.Features {
		if f.Files == 1 && f.Name != "" {
			alone++
			require.Empty(t, f.Missing, f.Name)
		}
	}
	require.Equal(t, 6, alone)
	require.Len(t, g.Features, 6+19)
}
