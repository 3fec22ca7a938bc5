package server_test

import (
	"fmt"
	"net/http"
	"testing"

	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/server"

	"github.com/stretchr/testify/require"
)

func TestTheGlossaryIsKeptAndHeldAgainstNames(t *testing.T) {
	dir := testkit.Tree(t, "-- src/batch.ts --\nexport function weighBatch(lot: string) { return lot }\n"+
		"-- jantel.yaml --\nglossary:\n  - word: shelf\n    means: a row of the vault\n")
	p := start(t, dir)
	id := p.takeIn(dir)
	names := func() (out server.Names) {
		p.get(fmt.Sprintf("/api/codebases/%d/names", id), &out)
		return out
	}
	require.Len(t, names().Glossary, 1)
	require.Equal(t, "a row of the vault", names().Glossary[0].Means)
	require.False(t, names().Glossary[0].ByHand)
	say := func(kind, target, value string) int {
		r, _ := p.send(http.MethodPost, fmt.Sprintf("/api/codebases/%d/overrules", id), model.Overrule{Kind: kind, Target: target, Value: value, By: "ida"})
		return r.StatusCode
	}
	require.Equal(t, http.StatusOK, say(model.OverruleTerm, "lot", "seed as it came in"))
	require.Equal(t, http.StatusOK, say(model.OverruleInstead, "batch", "lot"))
	require.Equal(t, http.StatusUnprocessableEntity, say(model.OverruleTerm, "lot", " "), "a word that stands for nothing")
	require.Equal(t, http.StatusUnprocessableEntity, say(model.OverruleInstead, "lot", "Lot"), "a word instead of itself")
	all := names().Glossary
	require.Equal(t, []string{"lot", "shelf"}, []string{all[0].Word, all[1].Word})
	require.Equal(t, []string{"batch"}, all[0].Not)
	require.Equal(t, 1, all[0].Names)
	require.Equal(t, "ida", all[0].By)
	var desk server.Desk
	p.get(fmt.Sprintf("/api/codebases/%d/desk?words=glossary", id), &desk)
	require.NotEmpty(t, desk.Smells)
	require.Contains(t, desk.Smells[0].Message, "*batch* stands in two names, where the glossary says *lot*")
}
