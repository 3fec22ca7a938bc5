package server

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

func TestWhatIsMadeForOneIsHandedOnlyToThoseWhoSeeTheSame(t *testing.T) {
	result := &judgement.Result{Judgement: &model.Judgement{}}
	held := &shelved{result: result, views: map[string]*cell{}}
	made := 0
	ask := func(sees string) int {
		o := &judged{Result: result, shelved: held, sees: sees}
		return cached(o, "list", func() int { made++; return made })
	}
	require.Equal(t, 1, ask(""))
	require.Equal(t, 1, ask(""), "made once for all who see all")
	require.Equal(t, 2, ask("the desk alone"))
	require.Equal(t, 2, ask("the desk alone"))
	require.Equal(t, 1, ask(""), "and what others see is not in it")

	all, some := &judged{Result: result}, &judged{Result: result, sees: "the desk alone"}
	require.NotEqual(t, all.etag(), some.etag(), "nor is it taken for what a browser has")
}
