package server

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestTheSameFaultAtSeveralLinesIsToldOnce(t *testing.T) {
	require.Equal(t, []string{"raises Damp, lines 4, 9", "swallows a fault, line 12", "raises Late, line 14"}, faultNotes([]FaultHere{
		{What: "raise", Name: "Damp", Line: 4}, {What: "raise", Name: "Damp", Line: 9}, {What: "swallow", Line: 12}, {What: "raise", Name: "Late", Line: 14},
	}))
	require.Empty(t, faultNotes(nil))
}
