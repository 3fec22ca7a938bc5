package journeys

import (
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/calls"
	"jantel/core/model"
)

// Of all that a start reaches, where the way that is told ends.

// end is the step that the main way ends in.
func (f *follower) end(steps []step) int {
	worths := make([]int, len(steps))
	worth := 0
	for i := range steps {
		worths[i] = f.worth(&steps[i])
		worth = max(worth, worths[i])
	}
	switch worth {
	case 0:
		return f.leading(steps)
	case worthData, worthRules:
		return f.heaviest(steps, worths, worth)
	}
	return slices.Index(worths, worth)
}

// What the main way may end in, the best last.
const (
	worthRules = iota + 1
	worthData
	worthReads
	worthWrites
)

// worth ranks a definition as the end of the main way; what only asks whether
// something is so ends none, and what many ways come through counts for less.
func (f *follower) worth(s *step) int {
	w := f.worthOf(s)
	if f.common[s.ref] {
		w = max(0, w-2)
	}
	return w
}

func (f *follower) worthOf(s *step) int {
	worth := 0
	for _, o := range f.done[s.ref] {
		if s.holds(o.Line) {
			worth = max(worth, worthReads)
			if o.What != model.Read {
				worth = max(worth, worthWrites)
			}
		}
	}
	if asking.MatchString(f.g.Name(s.ref)) && worth <= worthReads {
		return min(worth, worthRules)
	}
	if worth > 0 || s.from > 0 {
		return worth
	}
	switch f.r.Role(f.g.Path(s.ref)) {
	case model.RoleDataAccess:
		return worthData
	case model.RoleLogic:
		return worthRules
	}
	return 0
}

// asking are names of what gives yes or no.
var asking = regexp.MustCompile(`(?:^|\.)(?:[iI]s|[hH]as|[cC]an|[mM]ay|[sS]hould|[dD]oes)[A-Z_]\w*$|Exists$`)

// leading is where a way goes of which nothing tells where it ends: what is called
// for certain from which most else is reached. What calls nothing may be no more
// than a helper.
func (f *follower) leading(steps []step) int {
	below := make([]int, len(steps))
	best := 0
	for i := len(steps) - 1; i > 0; i-- { // what is come to later stands behind
		s := &steps[i]
		below[s.before] += 1 + below[i]
		if s.before != 0 || s.tie != model.TieSure || below[i] == 0 || best > 0 && below[i] < below[best] {
			continue
		}
		if f.r.Role(f.g.Path(s.ref)) != model.RoleHelper && len(f.g.To(s.ref)) <= calledEverywhere {
			best = i
		}
	}
	return best
}

// heaviest is the first step of such worth below what a start calls to get the most
// of it, other than by asking who is there before it sets out.
func (f *follower) heaviest(steps []step, worths []int, worth int) (best int) {
	branch := make([]int, len(steps)) // what the start calls to come to each
	weight := make([]int, len(steps))
	most := 0
	for i := 1; i < len(steps); i++ {
		if branch[i] = branch[steps[i].before]; steps[i].before == 0 {
			branch[i] = i
		}
		if worths[i] == worth && !f.letsIn(steps[branch[i]].ref) {
			weight[branch[i]]++
			most = max(most, weight[branch[i]])
		}
	}
	for i := range steps {
		if worths[i] == worth && weight[branch[i]] == most {
			return i
		}
	}
	return 0
}

// letsIn reports whether a definition, by its name or that of the file that it
// stands for, tells whether somebody may come in.
func (f *follower) letsIn(at calls.Ref) bool {
	name := f.g.Name(at)
	if name == "default" {
		name, _, _ = strings.Cut(path.Base(f.g.Path(at)), ".")
	}
	return lettingIn.MatchString(name)
}

var lettingIn = regexp.MustCompile(`(?i)access|auth(?:$|ed|entic|ori[sz])|permission|allowed|logged_?in|signed_?in|captcha`)

// calledEverywhere is from how many places on something is called by all, and so
// tells nothing of one way.
const calledEverywhere = 20

// manyRoutes are enough to tell what they have in common.
const manyRoutes = 12

// shared finds what many routes come through.
func (f *follower) shared(all []model.Route) {
	if len(all) < manyRoutes {
		return
	}
	reached, from := map[calls.Ref]int{}, 0
	begun := map[calls.Ref]bool{}
	for i := range all {
		at, ok := f.handler(&all[i])
		if !ok || at.from == 0 && begun[at.ref] {
			continue
		}
		begun[at.ref] = true
		from++
		for _, s := range f.reach(at) {
			reached[s.ref]++
		}
	}
	if from < manyRoutes {
		return
	}
	f.common = map[calls.Ref]bool{}
	for ref, n := range reached {
		if 3*n > from {
			f.common[ref] = true
		}
	}
}
