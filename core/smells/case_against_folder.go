package smells

import (
	"fmt"
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var caseAgainstFolderRule = &Rule{
	Slug: "case-against-folder", Facet: model.Names, Title: "Case against its folder", Weight: 1,
	Family: familyName, Habit: true, find: caseAgainstFolder,
	Question: "Is a file's name written in another case than its siblings'?",
	Why:      "Readers guess names; one file written differently is not found, and on some systems it clashes.",
	Example:  "`weight_tag.tsx` among `BoxGrid.tsx`, `LotCard.tsx` and `ShelfPicker.tsx`.",
	Remedy:   "Write it as its siblings are written.",
	Parameters: []Parameter{
		{"siblings", "files whose case can be told", 8, 6, 6},
		{"share", "of them that are written alike", 0.85, 0.8, 0.8},
	},
}

// fixedNames are files whose names tools prescribe.
var fixedNames = map[string]bool{
	"readme": true, "makefile": true, "dockerfile": true, "index": true, "main": true, "license": true,
	"conftest": true, "setup": true, "vite-env": true, "next-env": true, "setupTests": true, "reportWebVitals": true,
	"package-info": true, "module-info": true,
}

func caseAgainstFolder(c *Context, r *Rule) (out []hit) {
	out = c.ruled(askedCase)
	limit, share := c.Value(r, "siblings"), c.Value(r, "share")
	for _, d := range c.Folders {
		byExt := map[string][]*model.File{}
		for _, f := range c.units(d.Path) {
			if s := naming.Stem(f.Path); !strings.HasPrefix(s, ".") && !strings.HasPrefix(s, "_") && !fixedNames[s] {
				e := path.Ext(f.Path)
				byExt[e] = append(byExt[e], f)
			}
		}
		for _, files := range byExt {
			counts := map[naming.Case]int{}
			total := 0
			for _, g := range files {
				if k := naming.CaseOf(naming.Stem(g.Path)); k != naming.Plain && k != naming.Caps {
					counts[k]++
					total++
				}
			}
			lead, n := leading(counts)
			// Names that are mixed each in its own way have nothing in common.
			if lead == naming.Mixed || float64(total) < limit || float64(n) < share*float64(total) {
				continue
			}
			var ev []model.Evidence
			for _, g := range files {
				if naming.CaseOf(naming.Stem(g.Path)) == lead && len(ev) < 3 {
					ev = append(ev, model.Evidence{Path: g.Path, Note: "written in " + string(lead)})
				}
			}
			for _, f := range files {
				// A single capitalised word beside PascalCase fits; one beside
				// another case does not.
				own := naming.CaseOf(naming.Stem(f.Path))
				if own == naming.Plain || own == naming.Caps || own == lead || fits(naming.Stem(f.Path), lead) ||
					namedFor(f, lead, own) || setAside(f.Path) {
					continue
				}
				out = append(out, hit{
					path: f.Path, strength: 0.4,
					message:  fmt.Sprintf("*%s* is %s, where %d of %d siblings are %s", path.Base(f.Path), own, n, total, lead),
					evidence: ev, touches: []string{f.Path},
				})
			}
		}
	}
	return out
}

// terms are what is written in capitals and figures wherever it stands, and figures
// that belong together: ec_TN3270, XML1_0Parser.
var (
	terms   = regexp.MustCompile(`(^|[_\-])[A-Z]+[0-9][A-Z0-9]*|(^|[_\-])[A-Z]+([_\-]|$)`)
	figures = regexp.MustCompile(`([0-9])[_\-]([0-9])`)
)

// namedFor reports whether a file among those of types is written as what it defines,
// which is none: a function among classes, say.
func namedFor(f *model.File, lead, own naming.Case) bool {
	stem := naming.Stem(f.Path)
	return lead == naming.Pascal && own == naming.Camel && slices.ContainsFunc(f.Facts.Definitions, func(d model.Definition) bool {
		return d.Name == stem && d.Parent == ""
	})
}

// fits reports whether a name is written in a case but for its terms. Some begin with a
// small letter, whatever the case: iXMLMetadata.
func fits(name string, lead naming.Case) bool {
	name = strings.TrimRight(figures.ReplaceAllString(name, "$1$2"), "_")
	if len(name) > 2 && isLower(name[0]) && isUpper(name[1]) && isUpper(name[2]) && naming.CaseOf(name[1:]) == lead {
		return true
	}
	if k := naming.CaseOf(name); k == lead || k == naming.Plain {
		return true
	}
	return naming.CaseOf(terms.ReplaceAllStringFunc(name, strings.ToLower)) == lead
}

func isLower(c byte) bool { return c >= 'a' && c <= 'z' }

func isUpper(c byte) bool { return c >= 'A' && c <= 'Z' }

func leading(counts map[naming.Case]int) (best naming.Case, n int) {
	for _, k := range []naming.Case{naming.Kebab, naming.Snake, naming.Camel, naming.Pascal, naming.Mixed} {
		if counts[k] > n {
			best, n = k, counts[k]
		}
	}
	return best, n
}
