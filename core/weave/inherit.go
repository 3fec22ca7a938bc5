package weave

import (
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/reading"
)

// generations is over how many types of the codebase a role is handed down.
const generations = 4

// lineage tells what types are by what they build upon, further up than their
// own words say: the base of a framework may stand two types above.
type lineage struct {
	s   *model.Survey
	lex *Lexicon
	ups map[string][]string // by a file, those that hold what its types build upon
}

// Inherit asks the files whose types build upon types of the codebase anew, where
// nothing in them says what they are: with what those types are. Only files that
// are asked for a role at all get one.
func (lex *Lexicon) Inherit(s *model.Survey, polls Polls, roles map[string]model.RoleOf) {
	of := lineage{s, lex, map[string][]string{}}
	for i := range s.Links {
		if l := &s.Links[i]; l.Kind == model.LinkInheritance && l.Sure {
			of.ups[l.From] = append(of.ups[l.From], l.To)
		}
	}
	for p := range of.ups {
		f, own := s.File(p), polls[p]
		if own == nil || roles[p].Source == model.RoleByLead || !reading.IsCode(f) {
			continue
		}
		b := ballot{tier: content}
		if !own.speaks() && of.asHeir(&b, f) {
			roles[p] = told(append(own.all(), b.votes...))
		}
	}
}

// Headers asks the headers that belong to a source anew, without that they declare
// types or functions alone: what headers are for says nothing of their source.
func Headers(s *model.Survey, polls Polls, roles map[string]model.RoleOf) {
	for _, f := range s.Files {
		if r := roles[f.Path]; (r.Role == model.RoleModel || r.Role == model.RoleFacade) && r.Source != model.RoleByLead && hasSource(s, f.Path) {
			roles[f.Path] = told(slices.DeleteFunc(polls[f.Path].all(), func(v vote) bool { return v.tier == byShape }))
		}
	}
}

// hasSource reports whether a header belongs to a source beside it.
func hasSource(s *model.Survey, header string) bool {
	ext := path.Ext(header)
	return slices.Contains(headers, ext) && slices.ContainsFunc(sources, func(e string) bool {
		return s.File(strings.TrimSuffix(header, ext)+e) != nil
	})
}

// speaks reports whether what a file does or is marked with tells its role.
func (p *poll) speaks() bool {
	weight := 0.0
	for _, votes := range [][]vote{p.sure, p.itself, p.place} {
		for _, v := range votes {
			if v.tier <= content {
				weight += v.weight
			}
		}
	}
	return weight >= enough
}

// asHeir votes for what the types of a file are by those they build upon.
func (of lineage) asHeir(b *ballot, f *model.File) bool {
	in := owners{of: f.Facts}
	for i := range f.Facts.Definitions {
		d := &f.Facts.Definitions[i]
		if d.Kind != model.DefClass || in.has(d.Parent) {
			continue
		}
		for _, base := range d.Bases {
			if role, by := of.role(f.Path, simple(base), generations); role != "" {
				b.seen(role, 1.6, "%s is a %s, which is a %s, line %d", d.Name, simple(base), by, d.Line)
				break
			}
		}
	}
	return len(b.votes) > 0
}

// role is what a type is, called so and seen from a file, with the base that says
// it.
func (of lineage) role(from, name string, left int) (role model.Role, by string) {
	for _, p := range of.ups[from] {
		for _, base := range of.basesIn(p, name) {
			if role = of.lex.roleOfBase(base); role != "" {
				return role, simple(base)
			}
			if left > 1 {
				if role, by = of.role(p, simple(base), left-1); role != "" {
					return role, by
				}
			}
		}
	}
	return "", ""
}

// basesIn are what the class of a name builds upon that a file defines.
func (of lineage) basesIn(p, name string) (out []string) {
	f := of.s.File(p)
	if f == nil || f.Facts == nil {
		return nil
	}
	for i := range f.Facts.Definitions {
		if d := &f.Facts.Definitions[i]; d.Kind == model.DefClass && d.Name == name {
			out = append(out, d.Bases...)
		}
	}
	return out
}

// simple is a name without the packages before it.
func simple(name string) string {
	for i := len(name) - 1; i >= 0; i-- {
		if c := name[i]; c == '.' || c == ':' || c == '\\' {
			return name[i+1:]
		}
	}
	return name
}

// roleOfBase is what a type is that builds upon a base of a name, as far as that
// alone says it: that it is raised says nothing of what else its file is about.
func (lex *Lexicon) roleOfBase(base string) model.Role {
	ends, role, _ := baseRole(base, simple(base))
	if ends == "Exception" || ends == "Error" || lex.defined[ends] || lex.defined[simple(base)] {
		return ""
	}
	return role
}
