package naming

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/require"
)

// Names of ASCII are cut by a way of their own, which has to agree with the
// one for all letters.
func TestBothWaysOfTakingNamesApartAgree(t *testing.T) {
	signs := []byte("abzABZ019_-. $")
	r := rand.New(rand.NewPCG(1, 2))
	for range 20_000 {
		name := make([]byte, r.IntN(12))
		for i := range name {
			name[i] = signs[r.IntN(len(signs))]
		}
		require.Equal(t, wordsOf(string(name)), Words(string(name)), "%q", name)
	}
	require.Equal(t, []string{"größe", "lot"}, Words("größeLot"))
}
