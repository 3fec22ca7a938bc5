package routes

import (
	"slices"
	"strings"

	"jantel/core/model"
)

// AnswersOtherwise is an address that something else would answer.
type AnswersOtherwise struct {
	Method  string `json:"method"`
	Address string `json:"address" doc:"made up: what stands for any value is filled in"`
	// Now and Then are the routes that answer it, by their place in the list; -1 for
	// none.
	Now  int `json:"now"`
	Then int `json:"then"`
}

// maxOtherwise bounds how many addresses are listed.
const maxOtherwise = 200

// Otherwise tells which addresses would be answered otherwise if one route had
// another method and pattern. It tries an address of each route's own, with what
// stands for any value filled in: only those that fit the old or the new pattern can
// change.
func Otherwise(all []model.Route, which int, method, pattern string) []AnswersOtherwise {
	changed := slices.Clone(all)
	changed[which].Method, changed[which].Pattern = method, pattern
	changed[which].Fallback = takesAll(pattern)
	type asked struct{ method, address string }
	seen := map[asked]bool{}
	out := []AnswersOtherwise{}
	try := func(method, address string) {
		a := asked{method, address}
		if seen[a] || len(out) >= maxOtherwise {
			return
		}
		seen[a] = true
		now, then := first(all, method, address), first(changed, method, address)
		if now != then {
			out = append(out, AnswersOtherwise{Method: method, Address: address, Now: now, Then: then})
		}
	}
	old := all[which]
	for _, m := range []string{asMethod(old.Method), asMethod(method)} {
		try(m, Sample(old.Pattern))
		try(m, Sample(pattern))
		for i := range all {
			address := Sample(all[i].Pattern)
			if takes(all[i].Method, m) && (Match(old.Pattern, address) || Match(pattern, address)) {
				try(m, address)
			}
		}
	}
	return out
}

// first is the route that answers an address; -1 for none.
func first(all []model.Route, method, address string) int {
	if fits := Answering(all, method, address); len(fits) > 0 {
		return fits[0]
	}
	return -1
}

func asMethod(m string) string {
	if m == "" || m == "ANY" {
		return "GET"
	}
	return strings.ToUpper(m)
}

// Sample is an address that a pattern fits: what stands for any value is filled in.
func Sample(pattern string) string {
	segs := parts(pattern)
	for i, s := range segs {
		switch {
		case takesRest(s):
			segs[i] = "a/b"
		case isVariable(s):
			segs[i] = "7"
		}
	}
	return join(segs)
}
