package review_test

import (
	"testing"

	"jantel/review"

	"github.com/stretchr/testify/require"
)

func some() []review.Finding {
	at := func(path string) review.Place { return review.Place{Path: path} }
	return []review.Finding{
		{ID: 1, Kind: review.Fix, State: review.Noted, Title: "The tare is lost", Place: at("desk/src/weigh.ts"), Assignee: "Ines", Labels: []string{"scales"}},
		{ID: 2, Kind: review.Keep, State: review.Agreed, Title: "Drying reads well", Place: at("bench/drying"), Labels: []string{}},
		{ID: 3, Kind: review.Fix, State: review.Done, Title: "Labels twice", Place: at("press"), Assignee: "Ines", Labels: []string{"print", "scales"}},
		{ID: 4, Kind: review.Ask, State: review.Dropped, Title: "Why two shelves?", Place: at("."), Text: "The VAULT has two.", Labels: []string{}},
	}
}

func ids(l review.List) (out []int64) {
	for _, r := range l.Rows {
		out = append(out, r.ID)
	}
	return out
}

func TestAFilterLetsPassWhatItNames(t *testing.T) {
	for name, c := range map[string]struct {
		w    review.Filter
		want []int64
	}{
		"nothing is asked for":           {review.Filter{}, []int64{1, 2, 3, 4}},
		"the whole codebase is a place":  {review.Filter{At: "."}, []int64{1, 2, 3, 4}},
		"a folder holds what lies in it": {review.Filter{At: "desk"}, []int64{1}},
		"a name that only begins alike":  {review.Filter{At: "bench/dry"}, nil},
		"words in any case, of the text": {review.Filter{Words: "vault"}, []int64{4}},
		"words of the place":             {review.Filter{Words: "WEIGH"}, []int64{1}},
		"still open":                     {review.Filter{State: review.Open}, []int64{1, 2}},
		"a state":                        {review.Filter{State: review.Dropped}, []int64{4}},
		"a kind and a person":            {review.Filter{Kind: review.Fix, Person: "Ines"}, []int64{1, 3}},
		"a label":                        {review.Filter{Label: "print"}, []int64{3}},
	} {
		l := review.Select(some(), c.w.Passes, "", 0, 100)
		require.Equal(t, c.want, ids(l), name)
		require.Equal(t, len(c.want), l.Count, name)
		require.Equal(t, 4, l.All)
	}
}

func TestGroupsStandInTheirOrderAndAFindingInEachOfItsOwn(t *testing.T) {
	all := func(*review.Finding) bool { return true }
	byKind := review.Select(some(), all, "kind", 0, 100)
	require.Equal(t, []review.Group{{Key: "fix", Count: 2}, {Key: "ask", Count: 1}, {Key: "keep", Count: 1}}, byKind.Groups)
	require.Equal(t, []int64{1, 3, 4, 2}, ids(byKind))
	byLabel := review.Select(some(), all, "label", 0, 100)
	require.Equal(t, []review.Group{{Key: "print", Count: 1}, {Key: "scales", Count: 2}, {Key: "", Count: 2}}, byLabel.Groups)
	require.Equal(t, 5, byLabel.Total)
	require.Equal(t, 4, byLabel.Count, "one stands in two groups and is one finding")
	require.Equal(t, []string{"print", "scales"}, byLabel.Labels)
	require.Equal(t, []string{"Ines"}, byLabel.People)
}

func TestStretchesJoinToTheWholeList(t *testing.T) {
	all := func(*review.Finding) bool { return true }
	for _, by := range []string{"", "place", "kind", "state", "person", "label"} {
		whole := ids(review.Select(some(), all, by, 0, 100))
		for size := 1; size < 6; size++ {
			var got []int64
			for from := 0; from < len(whole); from += size {
				l := review.Select(some(), all, by, from, size)
				require.LessOrEqual(t, len(l.Rows), size)
				got = append(got, ids(l)...)
			}
			require.Equal(t, whole, got, "%s in stretches of %d", by, size)
		}
	}
}
