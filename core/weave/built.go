package weave

import (
	"cmp"
	"maps"
	"slices"

	"jantel/core/model"
)

// Built is how the features of a place are built: their files by the sorts of
// part that the codebase itself has, whatever it calls them.
type Built struct {
	Place string `json:"place"`
	// Parts are the sorts of part from the outside in.
	Parts    []string       `json:"parts"`
	Features []BuiltFeature `json:"features" doc:"the specimen first, then the largest"`
	More     int            `json:"more" doc:"features without a part that others have as well"`
}

// BuiltFeature is one feature with its files in reading order.
type BuiltFeature struct {
	Name     string      `json:"name"`
	Specimen bool        `json:"specimen" doc:"it is nearest to how features are usually built here"`
	Files    []BuiltFile `json:"files"`
	Parts    []int       `json:"parts" doc:"files of each sort of part"`
	Missing  []int       `json:"missing" doc:"sorts of part that it lacks of the usual ones"`
	Total    int         `json:"total" doc:"all of its files, those not named among them"`
}

// BuiltFile is one file of a feature.
type BuiltFile struct {
	Path    string     `json:"path"`
	Part    string     `json:"part" doc:"empty for what no other feature has"`
	Role    model.Role `json:"role"`
	Assumed bool       `json:"assumed"`
	Lines   int        `json:"lines"`
}

// maxBuiltFiles is how many files of one feature are named.
const maxBuiltFiles = 60

// BuiltAt tells how the features are built that have files at a place.
func BuiltAt(s *model.Survey, j *model.Judgement, place string) *Built {
	b := &Built{Place: place, Parts: []string{}, Features: []BuiltFeature{}}
	var shown []*model.Feature
	for i := range j.Features {
		f := &j.Features[i]
		if !slices.ContainsFunc(f.Files, func(p string) bool { return model.Within(place, p) }) {
			continue
		}
		if len(f.Parts) == 0 {
			b.More++
			continue
		}
		shown = append(shown, f)
	}
	slices.SortStableFunc(shown, func(x, y *model.Feature) int {
		first := func(f *model.Feature) int {
			if f.Specimen {
				return 0
			}
			return 1
		}
		return cmp.Or(cmp.Compare(first(x), first(y)), cmp.Compare(len(y.Files), len(x.Files)), cmp.Compare(x.Name, y.Name))
	})
	b.Parts = partsInOrder(shown, j.Roles)
	at := map[string]int{}
	for i, p := range b.Parts {
		at[p] = i
	}
	for _, f := range shown {
		x := BuiltFeature{
			Name: f.Name, Specimen: f.Specimen, Files: []BuiltFile{}, Parts: make([]int, len(b.Parts)), Missing: []int{}, Total: len(f.Files),
		}
		partOf := map[string]string{}
		for part, files := range f.Parts {
			x.Parts[at[part]] = len(files)
			for _, p := range files {
				partOf[p] = part
			}
		}
		for _, p := range InReadingOrder(f, j.Roles) {
			if len(x.Files) == maxBuiltFiles {
				break
			}
			lines := 0
			if file := s.File(p); file != nil {
				lines = file.Lines()
			}
			r := j.Roles[p]
			x.Files = append(x.Files, BuiltFile{p, partOf[p], r.Role, r.Source == model.RoleAssumed, lines})
		}
		for _, m := range f.Missing {
			if i, ok := at[m]; ok {
				x.Missing = append(x.Missing, i)
			}
		}
		b.Features = append(b.Features, x)
	}
	return b
}

// partsInOrder lists the sorts of part from the outside in: by the mean of their
// files' roles, ties by name.
func partsInOrder(features []*model.Feature, roles map[string]model.RoleOf) []string {
	rank := map[model.Role]int{}
	for i, r := range model.Roles {
		rank[r] = i
	}
	sum, n := map[string]int{}, map[string]int{}
	for _, f := range features {
		for part, files := range f.Parts {
			for _, p := range files {
				sum[part] += rank[roles[p].Role]
				n[part]++
			}
		}
	}
	return slices.SortedFunc(maps.Keys(n), func(a, b string) int {
		return cmp.Or(cmp.Compare(sum[a]*n[b], sum[b]*n[a]), cmp.Compare(a, b))
	})
}
