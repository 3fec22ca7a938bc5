package syntax

import (
	"encoding/binary"
	"math/rand/v2"
	"slices"
	"testing"

	"jantel/core/model"

	"github.com/stretchr/testify/require"
)

// streamOf makes a stream of one-letter signs, one to a line.
func streamOf(text []byte) *Stream {
	s := &Stream{Src: text}
	for i := range text {
		s.Tokens = append(s.Tokens, Token{Start: int32(i), End: int32(i + 1), Line: int32(i + 1), EndLine: int32(i + 1), Match: -1, Kind: Punct, sign: text[i]})
		s.Tokens[i].shape = normal(text, &s.Tokens[i])
	}
	return s
}

func printsOf(text []byte) (all []uint32) {
	f := &model.Facts{Lines: len(text)}
	prints(f, streamOf(text))
	for i := 0; i+4 <= len(f.Prints); i += 4 {
		all = append(all, binary.LittleEndian.Uint32(f.Prints[i:]))
	}
	return all
}

func randomText(r *rand.Rand, n int) []byte {
	out := make([]byte, n)
	for i := range out {
		out[i] = byte('!' + r.IntN(14))
	}
	return out
}

// What winnowing promises: two texts that share a run of tokens as long as a
// window of runs share a fingerprint.
func TestASharedStretchLeavesASharedPrint(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 5))
	for range 300 {
		shared := randomText(r, printRun+printWindow-1+r.IntN(30))
		a := append(append(randomText(r, 40+r.IntN(60)), shared...), randomText(r, 40+r.IntN(60))...)
		b := append(append(randomText(r, 40+r.IntN(60)), shared...), randomText(r, 40+r.IntN(60))...)
		of := map[uint32]bool{}
		for _, p := range printsOf(a) {
			of[p] = true
		}
		found := false
		for _, p := range printsOf(b) {
			found = found || of[p]
		}
		require.True(t, found, "%q and %q share %q", a, b, shared)
	}
}

// Of each window one run is kept, so about two in nine of all.
func TestPrintsAreFewAndDependOnTheCodeAlone(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 11))
	text := randomText(r, 20_000)
	got := printsOf(text)
	require.Equal(t, got, printsOf(text))
	require.InDelta(t, 2.0/(printWindow+1), float64(len(got))/float64(len(text)), 0.02)
	require.Empty(t, printsOf(text[:PrintLeast-1]))
	require.True(t, slices.IsSorted(got), "a set, in order")
	require.Len(t, slices.Compact(slices.Clone(got)), len(got), "each once")
	// The signs of one shape alone are one run over and over.
	require.Equal(t, 1, len(printsOf([]byte("{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{{"))))
}

func TestASpanHoldsThePrintsOfItsLines(t *testing.T) {
	r := rand.New(rand.NewPCG(13, 17))
	text := randomText(r, 400)
	f := &model.Facts{Lines: len(text), Definitions: []model.Definition{
		{Name: "dryLot", Kind: model.DefFunction, Line: 100, EndLine: 250},
		{Name: "weigh", Kind: model.DefFunction, Line: 300, EndLine: 330}, // too short to be compared
		{Name: "shelf", Kind: model.DefVariable, Line: 1, EndLine: 400},   // nothing that runs
	}}
	prints(f, streamOf(text))
	require.Len(t, f.Spans, 1)
	sp := f.Spans[0]
	require.Zero(t, sp.Definition)
	require.Equal(t, 151, sp.Tokens)
	require.NotEmpty(t, sp.Prints)
	all := map[string]bool{}
	for i := 0; i+4 <= len(f.Prints); i += 4 {
		all[string(f.Prints[i:i+4])] = true
	}
	// The same code elsewhere leaves the same prints inside.
	moved := &model.Facts{Lines: 151, Definitions: []model.Definition{{Name: "dryLot", Kind: model.DefFunction, Line: 1, EndLine: 151}}}
	prints(moved, streamOf(text[99:250]))
	inside := map[string]bool{}
	for i := 0; i+4 <= len(sp.Prints); i += 4 {
		inside[string(sp.Prints[i:i+4])] = true
		require.True(t, all[string(sp.Prints[i:i+4])], "they are among those of the file")
	}
	require.Less(t, len(inside), len(all))
	same := 0
	for i := 0; i+4 <= len(moved.Prints); i += 4 {
		if inside[string(moved.Prints[i:i+4])] {
			same++
		}
	}
	require.GreaterOrEqual(t, same, len(moved.Prints)/4*8/10)
}

func TestNoTwoShapesShareASlot(t *testing.T) {
	seen := map[uint16]int{}
	for _, w := range words {
		if w.as != 0 {
			seen[w.as]++
		}
	}
	require.Len(t, seen, len(shapes))
}

func TestASieveNeverTurnsAwayAWordOfItsSet(t *testing.T) {
	v := NewSieve(names)
	for w := range names {
		require.True(t, v.May([]byte(w)), w)
	}
	require.False(t, v.May([]byte("zz")))
	require.True(t, NewSieve(Set("aVeryLongNameThatIsLongerThanThirtyOneSigns")).May([]byte("aVeryLongNameThatIsLongerThanThirtyOneSigns")))
}
