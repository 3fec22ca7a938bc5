package smells

import (
	_ "embed"
	"encoding/json"
	"slices"
)

// Calibration is what the rules find in codebases that they were not made for:
// figures alone, kept in calibration.json and made anew by scripts/calibration.
type Calibration struct {
	// Steps are, for each rule, the amounts of its hits there: the smallest, the
	// largest, and those between at equal shares of the hits.
	Steps map[string][]float64 `json:"steps"`
	// Codebases are their scores.
	Codebases []Calibrated `json:"codebases"`
}

// Calibrated is the score of one codebase.
type Calibrated struct {
	Name       string   `json:"name"`
	Files      int      `json:"files"`
	Total      *float64 `json:"total"`
	Layout     *float64 `json:"layout"`
	Boundaries *float64 `json:"boundaries"`
	Units      *float64 `json:"units"`
	Names      *float64 `json:"names"`
}

//go:embed calibration.json
var calibrationFile []byte

var calibration = func() (c Calibration) {
	if err := json.Unmarshal(calibrationFile, &c); err != nil {
		panic(err) // it is part of the program
	}
	return c
}()

// Lies is how many of the codebases of the calibration have a lower score, and
// of how many.
func Lies(total float64) (lower, all int) {
	for _, c := range calibration.Codebases {
		if c.Total != nil {
			all++
			if *c.Total < total {
				lower++
			}
		}
	}
	return lower, all
}

// strengthOf is which share of a rule's hits elsewhere an amount exceeds, those
// that are alike counted half: 0.5 is as usual as can be. It never is 0 or 1,
// since some codebase may be better or worse. A rule that had too few hits there
// is as strong as it says itself.
func strengthOf(slug string, amount float64) float64 {
	steps := calibration.Steps[slug]
	if len(steps) < 2 {
		return round4(clamp(amount))
	}
	return round4(max(0.02, min(0.99, (below(steps, amount)+upTo(steps, amount))/2)))
}

// below is the share of amounts that are smaller, upTo that of those that are no
// larger, told from the steps.
func below(steps []float64, amount float64) float64 {
	i, _ := slices.BinarySearch(steps, amount)
	return between(steps, i, amount)
}

func upTo(steps []float64, amount float64) float64 {
	i, _ := slices.BinarySearchFunc(steps, amount, func(s, a float64) int {
		if s <= a {
			return -1
		}
		return 1
	})
	return between(steps, i, amount)
}

// between is where an amount stands that lies before step i.
func between(steps []float64, i int, amount float64) float64 {
	last := float64(len(steps) - 1)
	switch i {
	case 0:
		return 0
	case len(steps):
		return 1
	}
	lo, hi := steps[i-1], steps[i]
	if hi == lo {
		return float64(i) / last
	}
	return (float64(i-1) + (amount-lo)/(hi-lo)) / last
}
