package smells_test

import (
	"fmt"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/smells"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// A tree of a rule lies in testdata/RULE/speaks-N.txtar or silent-N.txtar. Its
// head says what is expected, a line each:
//
//	why: what the tree shows
//	stage: of the brief, when it is not growing
//	at: the place of a smell          (of trees that speak, once for each
//	says: what its message must hold   smell)
//
// A line "%repeat N text" in a file stands for N lines of the text.
type ruleTree struct {
	file  string
	stage model.Stage
	at    []string
	says  []string
	tree  string
}

var repeated = regexp.MustCompile(`(?m)^%repeat (\d+) (.*)$`)

func readTree(t *testing.T, p string) ruleTree {
	t.Helper()
	b, err := os.ReadFile(p)
	require.NoError(t, err)
	head, tree, ok := strings.Cut(string(b), "-- ")
	require.True(t, ok, "%s holds no file", p)
	out := ruleTree{file: p, tree: "-- " + repeated.ReplaceAllStringFunc(tree, func(line string) string {
		m := repeated.FindStringSubmatch(line)
		n, err := strconv.Atoi(m[1])
		require.NoError(t, err)
		return strings.TrimSuffix(strings.Repeat(m[2]+"\n", n), "\n")
	})}
	for line := range strings.Lines(head) {
		key, value, _ := strings.Cut(strings.TrimSpace(line), ": ")
		switch key {
		case "stage":
			out.stage = model.Stage(value)
		case "at":
			out.at = append(out.at, value)
		case "says":
			out.says = append(out.says, value)
		case "why", "":
		default:
			t.Fatalf("%s: the head holds %q", p, line)
		}
	}
	return out
}

func found(t *testing.T, c ruleTree, rule string) []string {
	t.Helper()
	out := []string{}
	for _, sm := range judgement.Judge(testkit.Survey(t, c.tree), model.Brief{Stage: c.stage}, nil).Hits {
		if sm.Rule != rule {
			continue
		}
		out = append(out, sm.Path+": "+sm.Message)
		require.NotEmpty(t, sm.ID)
		require.NotEmpty(t, sm.Remedy)
		require.NotEmpty(t, sm.Evidence, sm.Message)
		require.NotEmpty(t, sm.Touches)
		require.True(t, sm.Strength > 0 && sm.Strength <= 1)
	}
	return out
}

func TestEveryRuleSpeaksWhereItShouldAndIsSilentElsewhere(t *testing.T) {
	for _, r := range smells.Rules() {
		for _, kind := range []string{"speaks", "silent"} {
			trees, err := filepath.Glob(filepath.Join("testdata", r.Slug, kind+"-*.txtar"))
			require.NoError(t, err)
			require.NotEmpty(t, trees, "%s has no tree in which it is %s", r.Slug, kind)
			for _, p := range trees {
				t.Run(fmt.Sprintf("%s %s", r.Slug, filepath.Base(p)), func(t *testing.T) {
					c := readTree(t, p)
					got := found(t, c, r.Slug)
					if kind == "silent" {
						require.Empty(t, got)
						return
					}
					require.NotEmpty(t, c.at, "what is expected of it?")
					require.Len(t, c.says, len(c.at))
					for i := range c.at {
						there := false
						for _, g := range got {
							at, message, _ := strings.Cut(g, ": ")
							there = there || at == c.at[i] && strings.Contains(message, c.says[i])
						}
						require.True(t, there, "%s: %s\n\ngot\n%s", c.at[i], c.says[i], strings.Join(got, "\n"))
					}
				})
			}
		}
	}
}

func TestEveryTreeBelongsToARule(t *testing.T) {
	folders, err := os.ReadDir("testdata")
	require.NoError(t, err)
	for _, d := range folders {
		require.NotNil(t, smells.Named(d.Name()), d.Name())
	}
}
