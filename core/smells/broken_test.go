package smells

import (
	"testing"

	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestARuleThatBreaksCostsItsOwnHitsAlone(t *testing.T) {
	s := testkit.Survey(t, "-- a.go --\npackage a\n")
	c := &Context{Reading: reading.Of(s, map[string]bool{"a.go": true}, nil)}
	stuck := &Rule{Slug: "hub", find: func(*Context, *Rule) []hit { panic("the scale is stuck") }}
	sound := &Rule{Slug: "long-file", find: func(*Context, *Rule) []hit { return []hit{{path: "a.go", message: "It is there."}} }}
	found, notes := findBy(c, []*Rule{stuck, sound})
	require.Len(t, found, 1)
	require.Equal(t, "long-file", found[0].Rule)
	require.Equal(t, []model.Note{{Path: ".", Text: "the rule hub could not be told: it broke off: the scale is stuck (smells/broken_test.go:16)"}}, notes)
}
