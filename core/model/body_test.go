package model

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func aBody() *Body {
	return &Body{
		Spare: true,
		Nodes: []ChainNode{{NoChain, 1, ChainName}, {0, 2, ChainMember}, {1, 0, ChainResult}, {2, 0, ChainElement}, {NoChain, 1, ChainSelf}},
		Words: []string{"", "vault", "Shelves", "Box", "shelf", "open", "(string)"},
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

func TestOnlyWordsOfStepsAndShapesArePacked(t *testing.T) {
	body := aBody()
	body.Words = append([]string{"", "aLocal"}, body.Words[1:]...)
	for i := range body.Nodes {
		if n := &body.Nodes[i]; n.Word > 0 {
			n.Word++
		}
	}
	require.NotContains(t, string(PackBody(body)), "aLocal")
	require.Equal(t, PackBody(aBody()), PackBody(body), "whatever else the words of a file are")
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
			require.Less(t, int(n.Word), len(b.Words))
		}
		again, err := UnpackBody(PackBody(b))
		require.NoError(t, err)
		require.Equal(t, PackBody(b), PackBody(again))
	})
}
