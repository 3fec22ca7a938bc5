package demo_test

import (
	"context"
	"path/filepath"
	"testing"

	"jantel/core/charter"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/routes"
	"jantel/core/source"
	"jantel/core/survey"
	"jantel/core/syntax"
	_ "jantel/core/syntax/languages"
	"jantel/demo"

	"github.com/stretchr/testify/require"
)

// at surveys the demo at a revision.
func at(t *testing.T, dir, rev string) (*model.Survey, *judgement.Result) {
	t.Helper()
	src, err := source.Open(context.Background(), source.Request{Path: dir, Revision: rev})
	require.NoError(t, err)
	defer func() { require.NoError(t, src.Close()) }()
	s, err := survey.Run(context.Background(), src, survey.Options{Name: "hollin-vault"})
	require.NoError(t, err)
	return s, judgement.Judge(s, model.Brief{Stage: model.InService}, nil)
}

func TestTheDemoHasSomethingTrueToShow(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "hollin-vault")
	require.NoError(t, demo.Make(context.Background(), dir))
	before, judgedBefore := at(t, dir, "before")
	after, judgedAfter := at(t, dir, "after")

	for _, s := range []*model.Survey{before, after} {
		for _, f := range s.Files {
			if f.Facts != nil {
				require.True(t, f.Facts.Read != model.ReadPartial || syntax.Unlooked(f.Facts), "%s: %s", f.Path, f.Facts.Problem)
			}
		}
		require.Empty(t, s.Unresolved, "every import of the demo leads somewhere")
	}

	rules := func(j *judgement.Result) map[string]int {
		m := map[string]int{}
		for _, sm := range j.Hits {
			m[sm.Rule]++
		}
		return m
	}
	was, is := rules(judgedBefore), rules(judgedAfter)
	for _, slug := range []string{"hidden-by-prefix", "file-cycle", "climbing-imports", "vague-name", "long-file", "crowded-folder"} {
		require.Positive(t, is[slug], "the demo shows %s", slug)
	}
	require.NotEqual(t, was, is, "what was mended and what is new shows")

	for _, m := range judgedAfter.Modules {
		for _, p := range m.Patterns {
			require.NotEmpty(t, p.For, "something speaks for %s in %s", p.Name, m.Path)
		}
	}

	all := routes.Of(after)
	require.Len(t, all, 56)
	for _, r := range all {
		require.NotEmpty(t, r.HandlerPath, "%s %s is followed to what answers", r.Method, r.Pattern)
	}

	h := after.History
	require.Equal(t, 84, h.Commits)
	require.Len(t, h.Authors, 4)
	require.NotEmpty(t, h.Pairs)
	require.Less(t, before.History.Commits, h.Commits)
}

func TestTheBenchReadsBetterThanTheDesk(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "hollin-vault")
	require.NoError(t, demo.Make(context.Background(), dir))
	_, j := at(t, dir, "after")
	bench, desk := j.Folder("bench").Legibility, j.Folder("desk").Legibility
	require.Greater(t, *bench.Total, *desk.Total, "the good example scores above the one with faults")
	require.Greater(t, *bench.Layout, *desk.Layout)
}

func TestTheCharterOfTheDemoIsBrokenWhereTheReviewSaysSo(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "hollin-vault")
	require.NoError(t, demo.Make(context.Background(), dir))
	s, _ := at(t, dir, "after")
	c, faults := charter.Parse([]byte(demo.Charter))
	require.Empty(t, faults)
	j := judgement.JudgeBy(s, judgement.Inputs{Charter: demo.Charter})
	held := j.Conformance
	require.Empty(t, held.Idle, "every glob of the charter holds something")
	require.Empty(t, held.Wiring)
	var from []string
	for _, b := range held.Breaches {
		from = append(from, b.From+" needs "+b.To)
	}
	require.Equal(t, []string{"counter/src/handlers/growers.ts needs counter/src/data/growers.ts", "counter/src/handlers/requests.ts needs counter/src/data/requests.ts", "press/core/queue/queue.go needs press/adapters/spool/spool.go"}, from)
	require.Len(t, c.Exceptions, 1)
}
