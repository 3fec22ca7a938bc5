package smells

import (
	"fmt"
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
	"jantel/core/weave"
)

// units are the judged files of a folder that a reader has to take in: tests,
// assets, prose and settings aside.
func (c *Context) units(d string) []*model.File {
	var out []*model.File
	for _, f := range c.own[d] {
		switch c.Roles[f.Path].Role {
		case model.RoleTest, model.RoleAsset, model.RoleDocs, model.RoleConfig, model.RoleTranslation, model.RoleGenerated:
			continue
		}
		if weave.IsCode(f) {
			out = append(out, f)
		}
	}
	return out
}

// testPlace reports whether a folder holds tests or what tests work on, where
// many files side by side are a convention.
func testPlace(d string) bool {
	for part := range strings.SplitSeq(d, "/") {
		switch part {
		case "test", "tests", "__tests__", "spec", "specs", "testdata", "fixtures", "e2e", "examples", "locales":
			return true
		}
	}
	return false
}

func crowdedFolder(c *Context, r *Rule) (out []hit) {
	limit := c.Value(r, "files")
	for _, d := range c.Folders {
		if testPlace(d.Path) {
			continue
		}
		files := c.units(d.Path)
		if n := float64(len(files)); n > limit {
			groups := firstWords(files)
			msg := fmt.Sprintf("%d files lie side by side", len(files))
			var ev []model.Evidence
			for _, g := range groups {
				if len(g.files) >= 3 && len(ev) < 6 {
					ev = append(ev, model.Evidence{Path: g.files[0].Path, Note: fmt.Sprintf("%d of them begin with %q", len(g.files), g.word)})
				}
			}
			if len(ev) == 0 {
				ev = evidence(paths(files), "one of them")
			}
			out = append(out, hit{path: d.Path, strength: over(n, limit), message: msg, evidence: ev, touches: paths(files)})
		}
	}
	return out
}

type group struct {
	word  string
	files []*model.File
}

// firstWords groups files by the first word of their names, largest first.
func firstWords(files []*model.File) []group {
	by := map[string][]*model.File{}
	for _, f := range files {
		if w := naming.Words(naming.Stem(f.Path)); len(w) > 1 && len(w[0]) > 2 {
			by[w[0]] = append(by[w[0]], f)
		}
	}
	var out []group
	for w, fs := range by {
		out = append(out, group{w, fs})
	}
	sort.Slice(out, func(i, j int) bool {
		if len(out[i].files) != len(out[j].files) {
			return len(out[i].files) > len(out[j].files)
		}
		return out[i].word < out[j].word
	})
	return out
}

var smallNumbers = []string{"none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}

func number(n int) string {
	if n < len(smallNumbers) {
		return smallNumbers[n]
	}
	return fmt.Sprint(n)
}

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

func hiddenByPrefix(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "siblings"))
	for _, d := range c.Folders {
		files := c.units(d.Path)
		if testPlace(d.Path) || len(files) <= limit {
			continue
		}
		lastWord := ""
		if w := naming.Words(path.Base(d.Path)); len(w) > 0 {
			lastWord = strings.TrimSuffix(w[len(w)-1], "s")
		}
		for _, g := range firstWords(files) {
			// A prefix of every file is the folder's name repeated, not a
			// folder inside it; "use" is the form of a hook.
			if len(g.files) < limit || len(g.files) == len(files) || strings.TrimSuffix(g.word, "s") == lastWord || g.word == "use" || g.word == "get" || g.word == "is" {
				continue
			}
			home := path.Join(d.Path, g.word)
			out = append(out, hit{path: d.Path, extra: g.word, strength: 0.3 + 0.08*float64(len(g.files)-limit),
				message:  fmt.Sprintf("%s siblings share the prefix *%s*", capital(number(len(g.files))), g.word),
				evidence: evidence(paths(g.files), "begins with "+g.word), touches: paths(g.files),
				remedy: fmt.Sprintf("Make a folder %s and move the %s files there, without the prefix.", home, number(len(g.files)))})
		}
	}
	return out
}

func singleFolderChain(c *Context, r *Rule) (out []hit) {
	limit := int(c.Value(r, "folders"))
	byPath := map[string]*model.Folder{}
	for _, d := range c.Folders {
		byPath[d.Path] = d
	}
	single := func(d *model.Folder) bool { return d.Path != "." && d.OwnFiles == 0 && len(c.sub[d.Path]) == 1 }
	for _, d := range c.Folders {
		if !single(d) || single(byPath[d.Parent]) || d.JudgedLines == 0 {
			continue
		}
		chain := []string{d.Path}
		at := byPath[c.sub[d.Path][0]]
		for single(at) {
			chain = append(chain, at.Path)
			at = byPath[c.sub[at.Path][0]]
		}
		if len(chain) < limit {
			continue
		}
		var below []string
		byConvention := false
		for _, f := range c.Survey.Files {
			if model.Within(d.Path, f.Path) {
				byConvention = byConvention || syntax.ProfileOf(f.Language).PathPackages
				if c.Judged[f.Path] {
					below = append(below, f.Path)
				}
			}
		}
		if byConvention || len(below) == 0 {
			continue
		}
		out = append(out, hit{path: d.Path, strength: 0.2 + 0.15*float64(len(chain)-limit+1),
			message:  fmt.Sprintf("%s folders in a row hold nothing but the next: %s", capital(number(len(chain))), strings.TrimPrefix(at.Path, d.Parent+"/")),
			evidence: evidence(chain, "holds one folder and no file"), touches: below})
	}
	return out
}

func catchAllFolder(c *Context, r *Rule) (out []hit) {
	limit := c.Value(r, "files")
	lex := weave.Words()
	for _, d := range c.Folders {
		if d.Path == "." || testPlace(d.Path) || !lex.CatchAll[strings.Join(naming.Words(d.Name), " ")] {
			continue
		}
		files := c.units(d.Path)
		if n := float64(len(files)); n >= limit {
			out = append(out, hit{path: d.Path, strength: 0.3 + 0.4*(n-limit)/(2*limit),
				message:  fmt.Sprintf("*%s* holds %s files that share a folder only for want of a better one", d.Name, number(len(files))),
				evidence: evidence(paths(files), "lies in it"), touches: paths(files)})
		}
	}
	return out
}
