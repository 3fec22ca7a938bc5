// Package weave tells what files are: their technical role, what their
// folders are for, and how a codebase is cut.
package weave

import (
	_ "embed" // the lexicon
	"maps"
	"strings"
	"sync"

	"jantel/core/model"

	"github.com/goccy/go-yaml"
)

//go:embed lexicon.yaml
var lexiconText []byte

// Lexicon is what words of the trade stand for.
type Lexicon struct {
	Names, Folders, Files, Extensions map[string]model.Role
	CatchAll                          map[string]bool
	VagueFiles, VagueFunctions        map[string]bool
	VagueTypes, VagueSuffixes         map[string]bool
	NoFeatures                        map[string]bool
}

// Words returns the lexicon that Jantel ships.
var Words = sync.OnceValue(func() *Lexicon {
	var raw struct {
		Roles map[model.Role]struct {
			Names, Folders, Files []string
		}
		Extensions map[model.Role][]string
		CatchAll   []string `yaml:"catch_all"`
		NoFeatures []string `yaml:"no_features"`
		Vague      struct{ Files, Functions, Types, Suffixes []string }
	}
	if err := yaml.Unmarshal(lexiconText, &raw); err != nil {
		panic("the lexicon that is part of the program can not be read: " + err.Error())
	}
	l := &Lexicon{Names: map[string]model.Role{}, Folders: map[string]model.Role{}, Files: map[string]model.Role{}, Extensions: map[string]model.Role{}}
	for _, role := range model.Roles { // the fixed order decides when a word stands twice
		r := raw.Roles[role]
		fill(l.Names, r.Names, role)
		fill(l.Folders, r.Folders, role)
		fill(l.Files, r.Files, role)
		fill(l.Extensions, raw.Extensions[role], role)
	}
	l.NoFeatures = set(raw.NoFeatures)
	l.CatchAll, l.VagueFiles = set(raw.CatchAll), set(raw.Vague.Files)
	l.VagueFunctions, l.VagueTypes, l.VagueSuffixes = set(raw.Vague.Functions), set(raw.Vague.Types), set(raw.Vague.Suffixes)
	return l
})

// With is the lexicon with what the lead says words stand for in one codebase:
// a role, or none of them. The lexicon itself stays as it is.
func (lex *Lexicon) With(by []model.Overrule) *Lexicon {
	said := map[string]model.Role{}
	for _, o := range by {
		if o.Kind == model.OverruleWord {
			said[strings.ToLower(strings.TrimSpace(o.Target))] = model.Role(o.Value)
		}
	}
	if len(said) == 0 {
		return lex
	}
	out := *lex
	for _, m := range []*map[string]model.Role{&out.Names, &out.Folders, &out.Files} {
		*m = maps.Clone(*m)
		for w, r := range said {
			if r == "" {
				delete(*m, w)
			} else {
				(*m)[w] = r
			}
		}
	}
	return &out
}

func fill(m map[string]model.Role, words []string, role model.Role) {
	for _, w := range words {
		if _, ok := m[w]; !ok {
			m[w] = role
		}
	}
}

func set(words []string) map[string]bool {
	m := make(map[string]bool, len(words))
	for _, w := range words {
		m[strings.ToLower(w)] = true
	}
	return m
}
