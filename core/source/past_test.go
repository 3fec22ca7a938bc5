package source

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestSomeArePickedEvenlyWithBothEnds(t *testing.T) {
	all := []int{9, 8, 7, 6, 5, 4, 3, 2, 1, 0}
	require.Equal(t, []int{0, 3, 6, 9}, spread(all, 4))
	require.Equal(t, []int{0, 1, 2, 3, 4, 5, 6, 7, 8, 9}, spread(all, 40))
	require.Equal(t, []int{9}, spread(all, 1))
	require.Empty(t, spread([]int{}, 5))
	require.Empty(t, spread(all, 0))
}
