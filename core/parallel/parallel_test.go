package parallel_test

import (
	"sync/atomic"
	"testing"

	"jantel/core/parallel"

	"github.com/stretchr/testify/require"
)

func TestAPanicComesBackToWhoeverWaits(t *testing.T) {
	var done atomic.Int64
	broken := parallel.Try(func() {
		parallel.Each(100, func(i int) {
			if i == 70 {
				panic("the scale is stuck")
			}
			done.Add(1)
		})
	})
	require.NotNil(t, broken)
	require.ErrorContains(t, broken, "it broke off: the scale is stuck (parallel/parallel_test.go:")
	require.GreaterOrEqual(t, done.Load(), int64(70), "what was at work beside it went on")
	require.Nil(t, parallel.Try(func() { parallel.Each(0, func(int) { panic("never") }) }))
}

func TestEveryNumberIsVisitedOnce(t *testing.T) {
	var seen [1000]atomic.Int64
	parallel.Each(len(seen), func(i int) { seen[i].Add(1) })
	for i := range seen {
		require.Equal(t, int64(1), seen[i].Load(), i)
	}
}
