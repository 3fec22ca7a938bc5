package weave

import (
	"fmt"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"

	"github.com/bmatcuk/doublestar/v4"
)

// CheckOverrule reports what is wrong with something set by hand, or nil.
func CheckOverrule(o model.Overrule) error {
	if strings.TrimSpace(o.Target) == "" || len(o.Target) > 1000 || len(o.Value) > 1000 {
		return fmt.Errorf("name what is meant, in 1,000 signs at most")
	}
	switch o.Kind {
	case model.OverruleRole:
		if !slices.Contains(model.Roles, model.Role(o.Value)) {
			return fmt.Errorf("there is no role %q", o.Value)
		}
	case model.OverruleOrigin:
		if !slices.Contains(model.FileOrigins, model.FileOrigin(o.Value)) {
			return fmt.Errorf("there is no origin %q", o.Value)
		}
	case model.OverruleWord:
		if o.Value != "" && !slices.Contains(model.Roles, model.Role(o.Value)) {
			return fmt.Errorf("there is no role %q", o.Value)
		}
		return nil
	case model.OverruleLink:
		from, to, ok := strings.Cut(o.Target, "\t")
		if !ok || from == "" || to == "" || from == to {
			return fmt.Errorf("a dependency is declared from one file to another")
		}
		if strings.TrimSpace(o.Value) == "" {
			return fmt.Errorf("say why the one needs the other: no line of the code does")
		}
		return nil
	case model.OverruleTerm, model.OverruleInstead:
		if strings.TrimSpace(o.Value) == "" {
			return fmt.Errorf("say what the word stands for, or which is to be said instead")
		}
		if strings.EqualFold(strings.TrimSpace(o.Target), strings.TrimSpace(o.Value)) {
			return fmt.Errorf("a word says nothing of itself")
		}
		return nil
	case model.OverruleRule:
		if strings.TrimSpace(o.Value) == "" {
			return fmt.Errorf("say why the rule rests")
		}
		return nil
	case model.OverruleGap:
		if module, pattern, ok := strings.Cut(o.Target, "\t"); !ok || module == "" || pattern == "" {
			return fmt.Errorf("a gap is that of a resource: its module and its address")
		}
		if strings.TrimSpace(o.Value) == "" {
			return fmt.Errorf("say why it is missing on purpose")
		}
		return nil
	case model.OverruleFeature, model.OverruleRename, model.OverrulePurpose:
	default:
		return fmt.Errorf("a role, an origin, a feature or a purpose can be set, a feature renamed, a dependency declared and a word explained")
	}
	if o.Kind != model.OverrulePurpose && o.Kind != model.OverruleRename && !doublestar.ValidatePattern(o.Target) {
		return fmt.Errorf("%q is not a valid glob", o.Target)
	}
	return nil
}

// covers reports whether a target means a path: itself, what lies below it, or
// what its glob matches.
func covers(target, p string) bool {
	if model.Within(target, p) {
		return true
	}
	ok, _ := doublestar.Match(target, p)
	return ok
}

// OverruleRoles puts the roles that the lead set in the place of those told;
// of several that cover a file the longest target counts.
func OverruleRoles(roles map[string]model.RoleOf, by []model.Overrule) {
	for p := range roles {
		if o := closest(by, model.OverruleRole, p); o != nil {
			roles[p] = model.RoleOf{
				Role: model.Role(o.Value), Confidence: 1, Reasons: []string{"set by hand" + whose(o.By)},
				Source: model.RoleByLead, ByHand: true,
			}
		}
	}
}

// OverruleOrigins puts the origins that the lead set in the place of those told.
func OverruleOrigins(origins map[string]model.OriginOf, by []model.Overrule) {
	for p := range origins {
		if o := closest(by, model.OverruleOrigin, p); o != nil {
			origins[p] = model.OriginOf{Origin: model.FileOrigin(o.Value), Evidence: []string{"set by hand" + whose(o.By)}, ByHand: true}
		}
	}
}

// SaidOwn reports whether the lead says of a file that people here write it.
func SaidOwn(by []model.Overrule) func(path string) bool {
	return func(p string) bool {
		o := closest(by, model.OverruleOrigin, p)
		return o != nil && model.FileOrigin(o.Value) == model.OriginOwn
	}
}

func whose(by string) string {
	if by == "" {
		return ""
	}
	return ", by " + by
}

func closest(by []model.Overrule, kind, p string) *model.Overrule {
	var best *model.Overrule
	for i := range by {
		if by[i].Kind == kind && covers(by[i].Target, p) && (best == nil || len(by[i].Target) > len(best.Target)) {
			best = &by[i]
		}
	}
	return best
}

// OverruleFeatures renames, merges and rejects features and gives files those
// that the lead set.
func OverruleFeatures(of map[string]model.FeatureOf, roles map[string]model.RoleOf, by []model.Overrule) []model.Feature {
	renamed := map[string]string{}
	for _, o := range by {
		if o.Kind == model.OverruleRename {
			renamed[o.Target] = o.Value
		}
	}
	gathered := map[string][]string{}
	for p, f := range of {
		// A name given may be given another: as often as there are names.
		for range renamed {
			to, ok := renamed[f.Feature]
			if !ok || f.Feature == "" {
				break
			}
			how := "renamed by hand from " + f.Feature
			if to == "" {
				how = f.Feature + " was rejected by hand"
			}
			f = model.FeatureOf{Feature: to, Reasons: []string{how}, ByHand: true}
		}
		if o := closest(by, model.OverruleFeature, p); o != nil {
			f = model.FeatureOf{Feature: o.Value, Reasons: []string{"set by hand" + whose(o.By)}, ByHand: true}
		}
		of[p] = f
		if f.Feature != "" {
			gathered[f.Feature] = append(gathered[f.Feature], p)
		}
	}
	out := []model.Feature{}
	for n, files := range gathered {
		sort.Strings(files)
		out = append(out, model.Feature{Name: n, Files: files, Scatter: scatter(n, files, roles)})
	}
	sort.Slice(out, func(i, j int) bool {
		if len(out[i].Files) != len(out[j].Files) {
			return len(out[i].Files) > len(out[j].Files)
		}
		return out[i].Name < out[j].Name
	})
	return out
}

// OverrulePurposes gives folders the purposes that the lead wrote.
func OverrulePurposes(folders []*model.Folder, by []model.Overrule) {
	for _, f := range folders {
		for _, o := range by {
			if o.Kind == model.OverrulePurpose && o.Target == f.Path {
				f.Purpose = model.Purpose{Text: o.Value, Source: "lead"}
			}
		}
	}
}

// Declare adds the dependencies that the lead declared to those of a survey, as
// far as both files are there. The survey that is handed in stays as it is.
func Declare(s *model.Survey, by []model.Overrule) *model.Survey {
	var said []model.Link
	for _, o := range by {
		from, to, _ := strings.Cut(o.Target, "\t")
		if o.Kind == model.OverruleLink && s.File(from) != nil && s.File(to) != nil {
			said = append(said, model.Link{From: from, To: to, Kind: model.LinkDeclared, Line: 1, Text: o.Value, Sure: true})
		}
	}
	if len(said) == 0 {
		return s
	}
	out := *s
	out.Links = slices.Concat(s.Links, said)
	// Those that were there are in order and stay so.
	slices.SortStableFunc(out.Links, func(a, b model.Link) int { return strings.Compare(a.From, b.From) })
	return &out
}

// SameDeclared reports whether two lists of what the lead set by hand declare the same
// dependencies.
func SameDeclared(a, b []model.Overrule) bool {
	links := func(all []model.Overrule) (out []model.Overrule) {
		for _, o := range all {
			if o.Kind == model.OverruleLink {
				out = append(out, o)
			}
		}
		return out
	}
	return slices.Equal(links(a), links(b))
}

// Idle says of what the lead set by hand what names nothing that is there: it is
// kept, for the next revision may have it again. Features are those told before
// any was renamed.
func Idle(s *model.Survey, features []model.Feature, by []model.Overrule) []model.Note {
	out := []model.Note{}
	for i := range by {
		if o := &by[i]; !meets(s, features, o) {
			out = append(out, model.Note{Path: ".", Text: fmt.Sprintf(
				"%s was set by hand for %s, which is not there; it is kept", o.Kind, strings.ReplaceAll(o.Target, "\t", " to "))})
		}
	}
	return out
}

// meets reports whether what an overrule is about is there.
func meets(s *model.Survey, features []model.Feature, o *model.Overrule) bool {
	switch o.Kind {
	case model.OverruleWord, model.OverruleRule, model.OverruleGap, model.OverruleTerm, model.OverruleInstead:
		return true // it is about a word, wherever it may stand, or told where it is read
	case model.OverruleRename:
		return slices.ContainsFunc(features, func(f model.Feature) bool { return strings.EqualFold(f.Name, o.Target) })
	case model.OverruleLink:
		from, to, _ := strings.Cut(o.Target, "\t")
		return s.File(from) != nil && s.File(to) != nil
	}
	return slices.ContainsFunc(s.Files, func(f *model.File) bool { return covers(o.Target, f.Path) })
}
