package model

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func aBody() *Body {
	return &Body{
		Spare: true,
		Nodes: []ChainNode{{NoChain, ChainName, "vault"}, {0, ChainMember, "Shelves"}, {1, ChainResult, ""}, {2, ChainElement, ""}, {NoChain, ChainSelf, "vault"}},
		Calls: []BodyCall{{-1, 1, 7, CallPlain}, {2, 3, 5, CallRead}},
		Shapes: []Shape{
			{Owner: "Box", Name: "shelf", Kind: ShapeValue, Node: 4},
			{Name: "open", Kind: ShapeResult, Nth: 1, Node: NoChain, Text: "(string)"},
		},
	}
}

func TestABodyIsUnpackedAsItWasPacked(t *testing.T) {
	got, err := UnpackBody(PackBody(aBody()))
	require.NoError(t, err)
	require.Equal(t, aBody(), got)
	require.Empty(t, PackBody(&Body{}))
}

func FuzzUnpackBody(f *testing.F) {
	f.Add(PackBody(aBody()))
	f.Add([]byte{0, 1, 1, 0, 1})
	f.Fuzz(func(t *testing.T, packed []byte) {
		b, err := UnpackBody(packed)
		if err != nil {
			return
		}
		for i, n := range b.Nodes {
			require.Less(t, int(n.From), i, "a chain has an end")
		}
		again, err := UnpackBody(PackBody(b))
		require.NoError(t, err)
		require.Equal(t, PackBody(b), PackBody(again))
	})
}
