package links

import (
	"cmp"
	"math"
	"path"
	"slices"

	"jantel/core/model"
	"jantel/core/naming"
)

// Kin is how much a file has to do with a folder: dependencies to and from the
// files directly in it, times it changed together with them, and words that its
// name shares with the folder's. Value is all of it, from 0 to 1.
type Kin struct {
	Folder  string  `json:"folder"`
	Links   int     `json:"links"`
	Changes int     `json:"changes"`
	Words   int     `json:"words"`
	Value   float64 `json:"value"`
}

// Belonging says where a file belongs: what it has to do with its own folder,
// and with the one among all others that it has most to do with.
type Belonging struct {
	Path string `json:"path"`
	Own  Kin    `json:"own"`
	// Other is nil where the file has nothing to do with any other folder.
	Other *Kin `json:"other"`
	// Links and Changes are all there are, wherever they lead.
	Links   int `json:"links"`
	Changes int `json:"changes"`
	// Elsewhere says that it has clearly more to do with the other folder.
	Elsewhere bool `json:"elsewhere"`
}

// How much each part of kinship weighs, and how far another folder has to be
// ahead before a file is said to belong there.
const (
	linkWeight   = 0.6
	changeWeight = 0.3
	wordWeight   = 0.1
	clearlyMore  = 0.25
	leastTies    = 3
)

// assembles reports whether a file puts together what lies below its folder: it
// needs that far more often than it is needed there, and belongs above it.
func assembles(b *Belonging, needs int) bool {
	return model.Within(b.Own.Folder, b.Other.Folder) && needs > 2*(b.Other.Links-needs)
}

// BelongingsOf tells of each file directly in a folder, as far as it counts,
// where it belongs. Parts that are not known (no dependency, no history) are
// left out of the value.
func BelongingsOf(s *model.Survey, counts func(path string) bool, folder string) []Belonging {
	own := map[string]bool{}
	out := []Belonging{}
	for _, f := range s.Files {
		if model.FolderOf(f.Path) == folder && counts(f.Path) {
			own[f.Path] = true
			out = append(out, Belonging{Path: f.Path})
		}
	}
	tied, changed, needs := map[string]map[string]int{}, map[string]map[string]int{}, map[string]map[string]int{}
	put := func(m map[string]map[string]int, file, other string, n int) {
		if !own[file] || file == other {
			return
		}
		if m[file] == nil {
			m[file] = map[string]int{}
		}
		m[file][model.FolderOf(other)] += n
	}
	for i := range s.Links {
		l := &s.Links[i]
		if !l.Kind.Repeats() && counts(l.From) && counts(l.To) {
			put(tied, l.From, l.To, 1)
			put(tied, l.To, l.From, 1)
			put(needs, l.From, l.To, 1)
		}
	}
	if s.History != nil {
		for _, p := range s.History.Pairs {
			put(changed, p.A, p.B, p.Together)
			put(changed, p.B, p.A, p.Together)
		}
	}
	for i := range out {
		b := &out[i]
		for _, n := range tied[b.Path] {
			b.Links += n
		}
		for _, n := range changed[b.Path] {
			b.Changes += n
		}
		words := naming.Words(naming.Stem(b.Path))
		kin := func(d string) Kin {
			k := Kin{Folder: d, Links: tied[b.Path][d], Changes: changed[b.Path][d]}
			for _, w := range naming.Words(path.Base(d)) {
				if d != "." && slices.Contains(words, w) {
					k.Words++
				}
			}
			sum, weight := wordWeight*math.Min(1, float64(k.Words)), wordWeight
			if b.Links > 0 {
				sum += linkWeight * float64(k.Links) / float64(b.Links)
				weight += linkWeight
			}
			if b.Changes > 0 {
				sum += changeWeight * float64(k.Changes) / float64(b.Changes)
				weight += changeWeight
			}
			k.Value = math.Round(1e4*sum/weight) / 1e4
			return k
		}
		b.Own = kin(folder)
		seen := map[string]bool{folder: true}
		for _, m := range []map[string]int{tied[b.Path], changed[b.Path]} {
			for d := range m {
				if seen[d] {
					continue
				}
				seen[d] = true
				if k := kin(d); b.Other == nil || cmp.Or(cmp.Compare(k.Value, b.Other.Value), cmp.Compare(b.Other.Folder, k.Folder)) > 0 {
					b.Other = &k
				}
			}
		}
		// Most of what it has must lead there: that one of many is ahead says little.
		b.Elsewhere = b.Other != nil && b.Other.Value >= b.Own.Value+clearlyMore && max(b.Other.Links, b.Other.Changes) >= leastTies &&
			2*b.Other.Links >= b.Links && !assembles(b, needs[b.Path][b.Other.Folder])
	}
	slices.SortStableFunc(out, func(a, c Belonging) int {
		if a.Elsewhere != c.Elsewhere {
			if a.Elsewhere {
				return -1
			}
			return 1
		}
		return cmp.Compare(a.Path, c.Path)
	})
	return out
}
