package rename_test

import (
	"bytes"
	"fmt"
	"strings"
	"testing"

	"jantel/core/calls"
	"jantel/core/model"
	"jantel/core/rename"
	_ "jantel/core/syntax/languages"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
	"golang.org/x/tools/txtar"
)

func touched(t *testing.T, tree, path, line string) *rename.Touched {
	s := testkit.Survey(t, tree)
	files := txtar.Parse([]byte(strings.TrimPrefix(tree, "\n"))).Files
	number := 0
	for _, f := range files {
		if f.Name == path {
			before, _, ok := bytes.Cut(f.Data, []byte(line))
			require.True(t, ok, "%s is in %s", line, path)
			number = 1 + bytes.Count(before, []byte{'\n'})
		}
	}
	g := calls.Of(s)
	at, ok := g.AtPath(path, number)
	require.True(t, ok)
	return rename.Of(s, g, at, func(fn func(string, []byte) bool) {
		for _, f := range files {
			fn(f.Name, f.Data)
		}
	})
}

func rows(x *rename.Touched) (out []string) {
	for _, p := range x.Places {
		out = append(out, fmt.Sprintf("%s %s:%d", p.Tie, p.Path, p.Line))
	}
	return out
}

const vault = `
-- src/lots.ts --
export function weigh(lot: string) {
  return lot.length
}
export const weighAll = (lots: string[]) => lots.map(weigh)
-- src/desk.ts --
import { weigh } from './lots'
export function tell(lot: string) {
  // weigh it first
  return weigh(lot)
}
-- src/kitchen.ts --
export function weigh(flour: number) {
  return flour
}
-- templates/lot.html --
<p data-do="weigh">weighing</p>
`

func TestWhatARenameTouchesIsToldInThreeSorts(t *testing.T) {
	require.Equal(t, []string{
		"sure src/desk.ts:1", "sure src/desk.ts:4", "sure src/lots.ts:1", "sure src/lots.ts:4",
		"only looks like src/desk.ts:3", "only looks like src/kitchen.ts:1", "only looks like templates/lot.html:1",
	}, rows(touched(t, vault, "src/lots.ts", "export function weigh")))
	require.Equal(t, []string{
		"sure src/kitchen.ts:1", "only looks like src/desk.ts:1", "only looks like src/desk.ts:3", "only looks like src/desk.ts:4",
		"only looks like src/lots.ts:1", "only looks like src/lots.ts:4", "only looks like templates/lot.html:1",
	}, rows(touched(t, vault, "src/kitchen.ts", "export function weigh")), "another with the same name is left alone")
}

func TestOverAnInterfaceItIsLikely(t *testing.T) {
	x := touched(t, `
-- Vault.java --
public class Vault implements Keeper { public void keep(String lot) { } }
-- Keeper.java --
public interface Keeper { void keep(String lot); }
-- Desk.java --
public class Desk {
  private Keeper keeper;
  void take(String lot) {
    keeper.keep(lot);
  }
}
`, "Vault.java", "public void keep")
	ties := map[string]model.Tie{}
	for _, p := range x.Places {
		ties[p.Path] = p.Tie
	}
	require.Equal(t, model.TieSure, ties["Vault.java"])
	require.Equal(t, model.TieLikely, ties["Desk.java"])
}

func TestTheTopOfAFileHasNoNameAndMuchIsCounted(t *testing.T) {
	s := testkit.Survey(t, "-- a.ts --\nimport './b'\n\nexport function weigh() {}\n")
	g := calls.Of(s)
	top, _ := g.AtPath("a.ts", 1)
	require.Nil(t, rename.Of(s, g, top, nil))
	at, _ := g.AtPath("a.ts", 3)
	x := rename.Of(s, g, at, func(fn func(string, []byte) bool) {
		fn("notes.txt", []byte(strings.Repeat("weigh the lots\nweighed\n", 1000)))
	})
	require.Equal(t, 700, x.Left)
	require.Len(t, x.Places, 300)
}

func FuzzLines(f *testing.F) {
	f.Add("weigh", "weigh\n\tweigh(weigh)\r\nweighed weigh")
	f.Fuzz(func(t *testing.T, name, text string) {
		if name == "" || strings.ContainsAny(name, "\n") {
			return
		}
		s := testkit.Survey(t, "-- a.ts --\nexport function weigh() {}\n")
		g := calls.Of(s)
		at, _ := g.AtPath("a.ts", 1)
		g.Definition(at).Name = name
		x := rename.Of(s, g, at, func(fn func(string, []byte) bool) { fn("b.txt", []byte(text)) })
		for _, p := range x.Places {
			require.Contains(t, strings.Split(text, "\n")[p.Line-1], name)
		}
	})
}
