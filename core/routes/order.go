package routes

import (
	"slices"
	"strings"

	"jantel/core/model"
)

// app is the file at the head of the routers that a route of a file hangs below.
func (h hung) app(file string) string {
	if len(h.at) > 0 {
		return h.at[0].file
	}
	return file
}

// order is where a route stands among all that hang below the same head: the lines
// at which its routers are put there, from the outermost on, and its own. It is nil
// where the most exact route answers, whatever the order.
func (h hung) order(file string, line int) []int {
	if !inOrder(h.app(file)) || !inOrder(file) {
		return nil
	}
	var at []int
	for _, p := range h.at {
		at = append(at, p.line)
	}
	return append(at, line)
}

// number gives each route its place among those of its application.
func number(all []model.Route, order [][]int) {
	by := map[string][]int{}
	for i := range all {
		if i < len(order) && order[i] != nil {
			by[all[i].App] = append(by[all[i].App], i)
		}
	}
	for _, of := range by {
		slices.SortStableFunc(of, func(a, b int) int { return slices.Compare(order[a], order[b]) })
		n := 0
		for k, i := range of {
			if k == 0 || slices.Compare(order[of[k-1]], order[i]) != 0 {
				n++ // what one line declares is tried at once
			}
			all[i].Order = n
		}
	}
}

// takesAll reports whether a pattern, as its router has it, leaves nothing to
// others: a star alone.
func takesAll(pattern string) bool {
	p := parts(pattern)
	return len(p) == 1 && (takesRest(p[0]) || strings.HasPrefix(p[0], ":") && strings.HasSuffix(p[0], "(.*)"))
}
