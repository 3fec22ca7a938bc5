package review_test

import (
	"strings"
	"testing"

	"jantel/review"

	"github.com/stretchr/testify/require"
)

func good() review.Finding {
	return review.Finding{Kind: review.Fix, State: review.Noted, Title: "Mend the lid", Place: review.Place{Path: "desk/box.ts", Line: 3, EndLine: 5}}
}

func TestAFindingIsCheckedAndTidied(t *testing.T) {
	f := good()
	f.Title = "  Mend the lid "
	f.Assignee = " Odd Fennimore "
	f.Labels = []string{"#lid", " lid", "", "box"}
	f.Place.Quote = strings.Repeat("ä", review.MaxQuote)
	require.NoError(t, f.Check())
	require.Equal(t, "Mend the lid", f.Title)
	require.Equal(t, "Odd Fennimore", f.Assignee)
	require.Equal(t, []string{"box", "lid"}, f.Labels)
	require.LessOrEqual(t, len(f.Place.Quote), review.MaxQuote)
	require.True(t, strings.HasPrefix(strings.Repeat("ä", review.MaxQuote), f.Place.Quote), "cut between signs, not within one")
	f = good()
	require.NoError(t, f.Check())
	require.NotNil(t, f.Labels, "no labels is an empty list, not null")
}

func TestWhatIsWrongWithAFindingIsSaid(t *testing.T) {
	for name, c := range map[string]struct {
		spoil func(f *review.Finding)
		words string
	}{
		"no words":            {func(f *review.Finding) { f.Title = " " }, "needs words"},
		"a title too long":    {func(f *review.Finding) { f.Title = strings.Repeat("x", review.MaxTitle+1) }, "put the rest into the text"},
		"a title of lines":    {func(f *review.Finding) { f.Title = "a\nb" }, "one line"},
		"a text too long":     {func(f *review.Finding) { f.Text = strings.Repeat("x", review.MaxText+1) }, "the text has"},
		"words that are none": {func(f *review.Finding) { f.Text = "\xff" }, "not UTF-8"},
		"no such kind":        {func(f *review.Finding) { f.Kind = "rant" }, `"rant"`},
		"no such state":       {func(f *review.Finding) { f.State = "later" }, `"later"`},
		"no place":            {func(f *review.Finding) { f.Place.Path = "" }, "needs a place"},
		"lines backwards":     {func(f *review.Finding) { f.Place.EndLine = 1 }, "backwards"},
		"a person too long":   {func(f *review.Finding) { f.Assignee = strings.Repeat("x", review.MaxName+1) }, "name of a person"},
		"too many labels":     {func(f *review.Finding) { f.Labels = make([]string, 31) }, "30 labels"},
		"a label too long":    {func(f *review.Finding) { f.Labels = []string{strings.Repeat("x", review.MaxName+1)} }, "a label has"},
	} {
		t.Run(name, func(t *testing.T) {
			f := good()
			c.spoil(&f)
			err := f.Check()
			require.ErrorIs(t, err, review.ErrInvalid)
			require.ErrorContains(t, err, c.words)
		})
	}
}

func to[T any](v T) *T { return &v }

func TestAChangeIsNotedPerField(t *testing.T) {
	f := good()
	require.NoError(t, f.Check())
	changes, err := f.Apply(review.Patch{State: to(review.Done), Labels: to([]string{"lid"}), Title: to("Mend the lid"), Position: to(2.5)})
	require.NoError(t, err)
	var said []string
	for _, c := range changes {
		said = append(said, c.Field+": "+c.Old+" -> "+c.New)
	}
	require.Equal(t, []string{"state: noted -> done", "labels:  -> lid", "position: 0 -> 2.5"}, said, "what stays the same is no change")
	changes, err = f.Apply(review.Patch{})
	require.NoError(t, err)
	require.Empty(t, changes)
}

func TestAChangeThatIsWrongChangesNothing(t *testing.T) {
	f := good()
	require.NoError(t, f.Check())
	before := f
	_, err := f.Apply(review.Patch{Text: to("kept?"), State: to(review.State("later"))})
	require.ErrorIs(t, err, review.ErrInvalid)
	require.Equal(t, before, f)
}
