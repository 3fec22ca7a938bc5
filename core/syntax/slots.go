package syntax

import (
	"encoding/binary"
	"math/rand/v2"

	"jantel/core/model"
)

// slots find the steps of chains, and the calls of a file, that are there already: each
// slot holds the place of one plus one, 0 for none, at its hash or behind. A survey asks
// for millions of them; a map would keep every key a second time, and hash them slower.
type slots []int32

// full reports whether so many are too many for the slots: half of them are free, so that
// what is looked for is found in a step or two.
func (s slots) full(n int) bool { return 2*(n+1) > len(s) }

// more is how many slots come after these.
func (s slots) more() int { return max(64, 2*len(s)) }

func (s slots) first(h uint32) uint32 { return h & uint32(len(s)-1) }

func (s slots) next(i uint32) uint32 { return (i + 1) & uint32(len(s)-1) }

func (s slots) put(h uint32, n int32) {
	i := s.first(h)
	for s[i] != 0 {
		i = s.next(i)
	}
	s[i] = n + 1
}

// Hashes are other ones in each process, so that no text can be written whose steps all
// fall on one slot. Nothing that is told depends on them.
var odd = [3]uint64{rand.Uint64() | 1, rand.Uint64() | 1, rand.Uint64() | 1}

func stepHash(n *model.ChainNode) uint32 {
	return uint32((uint64(uint32(n.From))*odd[0] + uint64(uint32(n.Word))*odd[1] + uint64(n.Op)*odd[2]) >> 32)
}

func callHash(c *model.BodyCall) uint32 {
	return uint32((uint64(uint32(c.Line))*odd[0] + uint64(uint32(c.Node))*odd[1] + uint64(c.Kind)*odd[2]) >> 32)
}

// wordHash takes eight bytes of a word at a time: most words have no more.
func wordHash(word []byte) uint32 {
	h := uint64(len(word)) * odd[0]
	for ; len(word) >= 8; word = word[8:] {
		h = (h ^ binary.LittleEndian.Uint64(word)) * odd[1]
		h ^= h >> 32
	}
	rest := uint64(0)
	for _, b := range word {
		rest = rest<<8 | uint64(b)
	}
	return uint32(((h ^ rest) * odd[2]) >> 32)
}
