package routes

import (
	"cmp"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// Answering lists the routes that fit an address, by their place in the list, the
// one that answers first; method "" stands for any. Where routes hang below the same
// file, in a language in which the order of declaration decides, it does, across the
// files that are put below one another; else the more exact goes first: a fixed part
// before one that stands for any value, that before one that takes all that follows.
// What answers only when nothing else does is last.
func Answering(all []model.Route, method, typed string) (fits []int) {
	for i := range all {
		if r := &all[i]; Match(r.Pattern, typed) && (method == "" || takes(r.Method, method)) {
			fits = append(fits, i)
		}
	}
	slices.SortStableFunc(fits, func(i, j int) int {
		a, b := &all[i], &all[j]
		switch {
		case a.Path == b.Path && inOrder(a.Path):
			return cmp.Compare(a.Line, b.Line)
		case a.App == b.App && a.Order > 0 && b.Order > 0:
			return cmp.Compare(a.Order, b.Order)
		}
		return cmp.Or(
			compareBool(a.Fallback, b.Fallback), compareExact(a.Pattern, b.Pattern), cmp.Compare(a.Path, b.Path), cmp.Compare(a.Line, b.Line),
		)
	})
	return fits
}

// takes reports whether a route of one method answers another. HEAD is answered
// by what answers GET.
func takes(declared, asked string) bool {
	return declared == "ANY" || declared == "" || strings.EqualFold(declared, asked) ||
		strings.EqualFold(asked, "HEAD") && declared == "GET"
}

// inOrder reports whether the first route that fits answers, in the language of a
// file.
func inOrder(p string) bool {
	l := syntax.ForFile(path.Base(p), nil)
	return l == nil || !l.ExactRoutes
}

// compareBool puts what is not before what is.
func compareBool(a, b bool) int {
	switch {
	case a == b:
		return 0
	case b:
		return -1
	}
	return 1
}

func compareExact(a, b string) int {
	as, bs := parts(a), parts(b)
	for i := 0; i < len(as) && i < len(bs); i++ {
		if c := cmp.Compare(looseness(as[i]), looseness(bs[i])); c != 0 {
			return c
		}
	}
	return cmp.Compare(len(bs), len(as))
}

func looseness(seg string) int {
	switch {
	case !isVariable(seg):
		return 0
	case takesRest(seg):
		return 2
	}
	return 1
}
