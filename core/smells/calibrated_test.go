package smells

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestMoreOfAThingIsNeverLessStrong(t *testing.T) {
	require.NotEmpty(t, calibration.Steps)
	for slug, steps := range calibration.Steps {
		require.NotNil(t, Named(slug), "%s was calibrated and is gone: run scripts/calibration", slug)
		require.IsNonDecreasing(t, steps, slug)
		before := 0.0
		for amount := 0.0; amount < steps[len(steps)-1]*1.2+1; amount += 0.01 + steps[len(steps)-1]/500 {
			s := strengthOf(slug, amount)
			require.GreaterOrEqual(t, s, before, "%s at %v", slug, amount)
			require.True(t, s > 0 && s < 1, "%s at %v", slug, amount)
			before = s
		}
	}
}

func TestTheMiddleOfAllHitsIsHalfAsStrongAsCanBe(t *testing.T) {
	for slug, steps := range calibration.Steps {
		if middle := steps[len(steps)/2]; middle > steps[0] && middle < steps[len(steps)-1] {
			require.InDelta(t, 0.5, strengthOf(slug, middle), 0.3, slug)
		}
	}
	require.InDelta(t, 0.5, strengthOf("cryptic-name", 0.3), 0.01, "where all are alike, each is as usual as can be")
}

func TestARuleThatWasNotCalibratedIsAsStrongAsItSays(t *testing.T) {
	require.Equal(t, 0.7, strengthOf("no-such-rule", 0.7))
	require.Equal(t, 1.0, strengthOf("no-such-rule", 3))
	require.Equal(t, 0.05, strengthOf("no-such-rule", 0))
}
