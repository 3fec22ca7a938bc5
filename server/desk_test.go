package server_test

import (
	"fmt"
	"net/http"
	"net/url"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

const panels = `-- desk/panel1.ts --
export const a = 1
-- desk/panel2.ts --
export const b = 1
-- counter/stuff.ts --
export const c = 1
-- counter/temp.ts --
export const wq = 1
`

func TestTheDeskGroupsSmellsAndLetsARuleRest(t *testing.T) {
	dir := testkit.Tree(t, panels)
	p := start(t, dir)
	id := p.takeIn(dir)
	at := fmt.Sprintf("/api/codebases/%d/desk", id)
	desk := func(query string) (d server.Desk) {
		p.get(at+"?"+query, &d)
		return d
	}
	all := desk("")
	require.NotEmpty(t, all.Groups)
	require.NotEmpty(t, all.Raise)
	sum := 0
	for i, g := range all.Groups {
		sum += g.Count
		require.True(t, i == 0 || g.Count <= all.Groups[i-1].Count, "the largest first")
	}
	require.Equal(t, all.Count, sum)
	for _, group := range []string{"facet", "folder", "feature"} {
		in := 0
		for _, g := range desk("group=" + group).Groups {
			in += g.Count
			one := desk("group=" + group + "&key=" + url.QueryEscape(g.Key))
			require.Equal(t, g.Count, one.Count, "%s %s", group, g.Key)
			require.Len(t, one.Smells, g.Count)
		}
		require.Equal(t, all.Count, in, group)
	}
	require.Zero(t, desk("words=nowhere").Count)
	require.Positive(t, desk("words=panel").Count)
	require.Less(t, desk("words=panel").Count, all.Count)

	rule := all.Groups[0].Key
	one := desk("key=" + rule)
	require.Equal(t, rule, one.Rule.Slug)
	require.NotEmpty(t, one.Rule.Example)
	var quiet []server.Quiet
	for _, sm := range one.Smells {
		quiet = append(quiet, server.Quiet{Smell: sm.ID, Reason: "they are numbered on the wall"})
	}
	silences := fmt.Sprintf("/api/codebases/%d/silences", id)
	p.do(http.MethodPut, silences, server.Silences{All: quiet, By: "Priya"}, nil)
	after := desk("key=" + rule)
	require.Zero(t, after.Count)
	require.Equal(t, len(quiet), after.Quiet)
	require.Empty(t, after.Smells)
	require.Len(t, after.Rule.Dismissed, len(quiet))
	require.Equal(t, "they are numbered on the wall", after.Rule.Dismissed[0].Reason)
	require.Len(t, desk("quiet=true&key="+rule).Smells, len(quiet))
	for i := range quiet {
		quiet[i].Reason = ""
	}
	p.do(http.MethodPut, silences, server.Silences{All: quiet}, nil)
	require.Equal(t, one.Count, desk("key="+rule).Count, "all count again")

	p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/overrules", id),
		model.Overrule{Kind: model.OverruleRule, Target: rule, Value: "agreed on the wall"}, nil)
	rests := desk("key=" + rule)
	require.Equal(t, "agreed on the wall", rests.Rule.Rests)
	require.Zero(t, rests.Count)
	require.Empty(t, rests.Rule.Dismissed, "no single one was dismissed")

	other := desk("quiet=true&words=stuff").Smells[0]
	r, _ := p.send(http.MethodPut, silences, server.Silences{All: []server.Quiet{{Smell: other.ID, Reason: "x"}, {Smell: "none", Reason: "x"}}})
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	require.Empty(t, desk("quiet=true&words=stuff").Smells[0].Silenced, "all or none")
	r, _ = p.send(http.MethodGet, at+"?at=nowhere", nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	r, _ = p.send(http.MethodPost, fmt.Sprintf("/api/codebases/%d/overrules", id),
		model.Overrule{Kind: model.OverruleRule, Target: rule, Value: " "})
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode, "a reason is asked for")
}

func TestAHabitIsListedOnceAndItsHitsOneByOneOnDemand(t *testing.T) {
	tree := ""
	for i := range 9 {
		tree += fmt.Sprintf("-- drying/shed%c.ts --\nexport function dry%c(seed: number) {\n%s}\n", 'a'+i, 'A'+i, strings.Repeat("  weigh(seed)\n", 90+i))
	}
	dir := testkit.Tree(t, tree+"-- vault/box.ts --\nexport const box = 1\n")
	p := start(t, dir)
	id := p.takeIn(dir)
	var desk, each, inside server.Desk
	p.get(fmt.Sprintf("/api/codebases/%d/desk?key=long-function", id), &desk)
	require.Equal(t, 1, desk.Count)
	require.True(t, desk.Smells[0].Habit)
	require.Equal(t, 9, desk.Smells[0].Count)
	p.get(fmt.Sprintf("/api/codebases/%d/desk?key=long-function&each=true", id), &each)
	require.Equal(t, 9, each.Count)
	p.get(fmt.Sprintf("/api/codebases/%d/desk?key=long-function&at=drying/sheda.ts", id), &inside)
	require.Equal(t, 1, inside.Count)
	require.False(t, inside.Smells[0].Habit, "in the file the hit itself is told")
	var telling server.Desk
	p.get(fmt.Sprintf("/api/codebases/%d/desk?group=telling&key=habit", id), &telling)
	require.Equal(t, desk.Smells[0].ID, telling.Smells[0].ID)

	// Dismissed as a whole.
	p.do(http.MethodPut, fmt.Sprintf("/api/codebases/%d/silences", id), server.Silences{
		All: []server.Quiet{{Smell: desk.Smells[0].ID, Reason: "drying is like that"}},
	}, nil)
	p.get(fmt.Sprintf("/api/codebases/%d/desk?key=long-function&each=true", id), &each)
	require.Zero(t, each.Count)
	require.Equal(t, 9, each.Quiet)
}

func TestWhatTheLeadSaysIsOursIsLookedIntoAtTheNextSurvey(t *testing.T) {
	deep := "\tfor range n {\n\t\tif n > 1 {\n\t\t\tfor range n {\n\t\t\t\tif n > 2 {\n\t\t\t\t\tfor range n {\n\t\t\t\t\t\tn--\n\t\t\t\t\t}\n\t\t\t\t}\n\t\t\t}\n\t\t}\n\t}\n"
	dir := testkit.Tree(t, "-- go.mod --\nmodule vault\n-- vault.go --\npackage vault\n\nimport \"moor/weigh\"\n\nvar _ = weigh.All\n"+
		"-- vendor/modules.txt --\n# moor/weigh v1.0.0\n-- vendor/moor/weigh/weigh.go --\npackage weigh\n\nfunc All(n int) {\n"+deep+"}\n")
	p := start(t, dir)
	base := fmt.Sprintf("/api/codebases/%d", p.takeIn(dir))
	nested := func() int {
		var d server.Desk
		p.get(base+"/desk?key=deep-nesting", &d)
		return d.Count
	}
	require.Zero(t, nested(), "others wrote it")
	p.do(http.MethodPost, base+"/overrules", model.Overrule{Kind: model.OverruleOrigin, Target: "vendor/moor", Value: "own"}, nil)
	require.Zero(t, nested(), "nobody has looked into it yet")
	p.events(func(name string, data map[string]any) bool { return name == "survey" && data["state"] == "finished" }, func() {
		p.do(http.MethodPost, base+"/surveys", map[string]any{}, nil)
	})
	require.Equal(t, 1, nested())
}
