package syntax

import (
	"math/rand/v2"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
)

// What is told by hand, because every line or name is asked about, is told as
// the words of its comment say.
func TestRunningWordsAreToldAsTheirExpressionDoes(t *testing.T) {
	slow := regexp.MustCompile(`(?:\b[a-z]{2,} ){3}`)
	pieces := []string{"box", "a", "of", " ", " ", " ", "x_y", "Box", "9", ".", "(", "é", "-", "  ", "shelf "}
	r := rand.New(rand.NewPCG(7, 7731))
	said := 0
	for range 100_000 {
		var b strings.Builder
		for range r.IntN(20) {
			b.WriteString(pieces[r.IntN(len(pieces))])
		}
		want := slow.MatchString(b.String())
		if want {
			said++
		}
		assert.Equal(t, want, running([]byte(b.String())), "%q", b.String())
	}
	assert.Greater(t, said, 500, "the pieces hardly ever make prose")
}

func TestChecksKnowsWhatChecksByItsName(t *testing.T) {
	for _, name := range []string{
		"assert", "assertEquals", "AssertThat", "_assert", "__verify", "expect", "expectThrows", "shouldBe", "require", "Require",
		"mustParse", "QVERIFY", "CHECK_EQ", "validateBox", "Errorf", "Fatal", "FailNow", "toMatchSnapshot", "is_deeply", "ok", "Equal",
		"DemandAll", "ensure", "raises", "throws", "skip",
	} {
		assert.True(t, checks([]byte(name)), name)
	}
	for _, name := range []string{"", "_", "__", "weigh", "reassert", "isOk", "box", "Expo", "mus", "done", "Equalizer", "okay", "Ok", "équal"} {
		assert.False(t, checks([]byte(name)), name)
	}
}
