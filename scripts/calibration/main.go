// Command calibration surveys codebases and writes what the rules find in them
// as figures alone, without a word of their code:
//
//	go run ./scripts/calibration NAME=FOLDER… > core/smells/calibration.json
//
// The scores rest on the steps that the program was built with, so that it is run
// twice: the second time nothing changes but the scores.
package main

import (
	"context"
	"encoding/json"
	"fmt"
	"log"
	"maps"
	"math"
	"os"
	"slices"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/smells"
	"jantel/core/source"
	"jantel/core/survey"
	_ "jantel/core/syntax/languages" // all that can be read
)

const (
	// A large codebase must not speak for all: of each so many hits of a rule at
	// most, evenly drawn.
	mostOfOne = 150
	// Steps of a rule; one with fewer hits than fewest has none.
	steps  = 40
	fewest = 20
)

func main() {
	out := smells.Calibration{Steps: map[string][]float64{}}
	amounts := map[string][]float64{}
	for _, arg := range os.Args[1:] {
		name, folder, ok := strings.Cut(arg, "=")
		if !ok {
			log.Fatalf("%s is not NAME=FOLDER", arg)
		}
		j, files, err := judge(folder)
		if err != nil {
			log.Fatalf("%s: %v", name, err)
		}
		for rule, all := range byRule(j.Hits) {
			amounts[rule] = append(amounts[rule], Quantiles(all, min(len(all), mostOfOne)-1)...)
		}
		l := j.Legibility
		out.Codebases = append(out.Codebases, smells.Calibrated{
			Name: name, Files: files, Total: l.Total, Layout: l.Layout, Boundaries: l.Boundaries, Units: l.Units, Names: l.Names,
		})
		fmt.Fprintln(os.Stderr, name, files, len(j.Hits), "hits,", len(j.Smells), "told")
	}
	for _, rule := range slices.Sorted(maps.Keys(amounts)) {
		if all := amounts[rule]; len(all) >= fewest {
			out.Steps[rule] = Quantiles(all, steps)
		}
	}
	slices.SortFunc(out.Codebases, func(a, b smells.Calibrated) int { return strings.Compare(a.Name, b.Name) })
	text, err := json.MarshalIndent(out, "", " ")
	if err != nil {
		log.Fatal(err)
	}
	fmt.Println(string(text))
}

func judge(folder string) (*judgement.Result, int, error) {
	root, err := source.Open(context.Background(), source.Request{Path: folder})
	if err != nil {
		return nil, 0, err
	}
	defer root.Close()
	s, err := survey.Run(context.Background(), root, survey.Options{Name: "codebase", Root: "codebase"})
	if err != nil {
		return nil, 0, err
	}
	return judgement.Judge(s, model.Brief{}, nil), len(s.Files), nil
}

func byRule(hits []model.Smell) map[string][]float64 {
	out := map[string][]float64{}
	for i := range hits {
		out[hits[i].Rule] = append(out[hits[i].Rule], hits[i].Amount)
	}
	return out
}

// Quantiles are n+1 of the figures, the smallest, the largest, and those at equal
// shares between.
func Quantiles(all []float64, n int) []float64 {
	all = slices.Sorted(slices.Values(all))
	if n < 1 {
		return all
	}
	out := make([]float64, 0, n+1)
	for i := range n + 1 {
		out = append(out, all[int(math.Round(float64(i)*float64(len(all)-1)/float64(n)))])
	}
	return out
}
