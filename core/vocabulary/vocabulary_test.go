package vocabulary_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/vocabulary"

	"github.com/stretchr/testify/require"
)

const tree = `-- counter/logic/growers.ts --
export function getGrower(id: string) { return find(id) }
export function fetchGrower(id: string) { return find(id) }
export function loadLots() { return all }
export function findLots() { store.lots() }
export function isDry(req: Request) { return req.dry }
export function askRequest(requestId: string) { return requestId }
export function keepRequest(requestId: string) { return requestId }
export function readReq(id: string) { return id }
-- counter/logic/moisture_meter.ts --
export const read = () => 1
-- counter/logic/shelfPlan.ts --
export const plan = () => 1
-- counter/logic/boxPlan.ts --
export class BoxPlan { weight_of() { return 1 } sizeOf() { return 2 } nameOf() { return 3 } shelfOf() { return 4 } lidOf() { return 5 } }
-- counter/logic/lidPlan.test.ts --
export function getNothing() { store.lots() }
`

func of(t *testing.T, place string) *vocabulary.Vocabulary {
	t.Helper()
	return vocabulary.Of(judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Reading, place)
}

func word(v *vocabulary.Vocabulary, w string) *vocabulary.Word {
	for i := range v.Words {
		if v.Words[i].Word == w {
			return &v.Words[i]
		}
	}
	return nil
}

func TestWordsAreCountedInTheSingularWithTheirPlaces(t *testing.T) {
	v := of(t, ".")
	plan := word(v, "plan")
	require.Equal(t, 4, plan.Count, "two files, a function and a class; tests are left out")
	require.Equal(t, []vocabulary.Kinds{{Kind: "parameter", Count: 2}}, word(v, "id").Kinds, "each name of a kind once a file")
	require.Equal(t, 2, plan.Files)
	require.Equal(t, "file", plan.Kinds[0].Kind)
	require.Equal(t, 2, word(v, "lot").Count, "lots are lots of lot")
	require.Equal(t, "request", word(v, "req").Long)
	require.Empty(t, word(v, "dry").Long)
	require.Nil(t, word(v, "nothing"))
}

func TestWhatIsPutTogetherIsNotShortened(t *testing.T) {
	tree := "-- src/bean.ts --\nexport function bean(info: string) {}\nexport function beaninfo(bean: string) {}\nexport class Beaninfo {}\n" +
		"-- src/info.ts --\nexport function info(req: string, request: string) {}\nexport function request(req: string) {}\n"
	v := vocabulary.Of(judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Reading, ".")
	require.Empty(t, word(v, "bean").Long)
	require.Equal(t, "request", word(v, "req").Long)
}

func TestHowNamesAreWrittenIsTold(t *testing.T) {
	v := of(t, ".")
	for _, c := range v.Conventions {
		switch c.Kind {
		case "method":
			require.Equal(t, 5, c.Count)
			require.Equal(t, vocabulary.Cased{Case: "camelCase", Count: 4}, c.Cases[0])
			require.Empty(t, c.Outliers, "one of five is no outlier")
		case "function":
			require.Equal(t, 8, c.Cases[0].Count)
		}
	}
}

func TestVerbsAndThePromisesTheyBreak(t *testing.T) {
	v := of(t, ".")
	require.Equal(t, "find", v.Verbs[0].Verb, "what is broken comes first")
	require.Equal(t, 1, v.Verbs[0].Broken)
	require.Equal(t, "findLots", v.Verbs[0].Places[0].Name)
	require.Len(t, v.Actions, 1)
	require.Len(t, v.Actions[0].Verbs, 4)
	require.Equal(t, []string{"get", "fetch"}, v.Actions[0].Things[0].Verbs)
	require.Equal(t, "grower", v.Actions[0].Things[0].Thing)
	require.Equal(t, []string{"load", "find"}, v.Actions[0].Things[1].Verbs)
}

func TestAPlaceHasItsOwnVocabulary(t *testing.T) {
	require.Zero(t, len(of(t, "counter/logic/moisture_meter.ts").Verbs))
	require.Equal(t, 1, word(of(t, "counter/logic/moisture_meter.ts"), "read").Count)
}
