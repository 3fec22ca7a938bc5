package patterns

import (
	"fmt"
	"iter"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
)

// Plug-ins.

var plugNames = []string{"plugins", "plug ins", "plugin", "extensions", "addons", "add ons", "drivers", "providers", "backends", "formats"}

// plugs are the parts that are plugged in: each by its path, with the folders
// that hold them.
type plugs struct {
	in    []*model.Folder
	parts map[string]bool
	of    map[string]string // by a file, the part that it belongs to
	// alone: what else lies in those folders is none of it.
	alone bool
}

// files is how many source files belong to it.
func (p *plugs) files(c *context) (n int) {
	if !p.alone {
		return c.within(p.in...)
	}
	for _, f := range c.source {
		if p.of[f.Path] != "" {
			n++
		}
	}
	return n
}

// holds reports whether a file lies among the plug-ins.
func (p *plugs) holds(file string) bool {
	if p.alone {
		return p.of[file] != ""
	}
	return slices.ContainsFunc(p.in, func(d *model.Folder) bool { return model.Within(d.Path, file) })
}

func (p *plugs) paths() string {
	var out []string
	for _, d := range p.in[:min(3, len(p.in))] {
		out = append(out, d.Path)
	}
	return strings.Join(out, ", ")
}

// plugged finds the folder whose parts do not know each other; where none is
// named for them, families that are loaded by name.
func (c *context) plugged() *plugs {
	if !c.told {
		c.told, c.plugs = true, c.findPlugged()
	}
	return c.plugs
}

func (c *context) findPlugged() *plugs {
	var best *plugs
	most := 0
	for _, d := range append(c.foldersNamed(plugNames...), c.foldersEnding("plugins", "extensions", "addons")...) {
		parts := map[string]bool{}
		for part := range c.singleParts(d) {
			if name := path.Base(part); !strings.HasPrefix(naming.Stem(name), "index") && !strings.HasPrefix(name, "__init__") {
				parts[part] = true
			}
		}
		if n := c.within(d); len(parts) >= 3 && n > most {
			best, most = &plugs{in: []*model.Folder{d}, parts: parts}, n
		}
	}
	// A folder named for them may be a corner, where the rest is built so as well.
	if other := c.families(); best == nil || other != nil && c.within(other.in...) > 2*most {
		best = other
	}
	if other := c.spread(); other != nil && (best == nil || other.files(c) > 2*best.files(c)) {
		best = other
	}
	if best == nil {
		return nil
	}
	if !best.alone {
		best.of = map[string]string{}
		for _, d := range best.in {
			for part, f := range partsIn(d, c.survey.Files) {
				for p := f.Path; len(p) >= len(part); p = path.Dir(p) { // or a part of a group of them
					if best.parts[p] {
						best.of[f.Path] = p
						break
					}
				}
			}
		}
	}
	c.withoutBase(best)
	return best
}

// partsIn goes over those of some files, sorted by path, that lie below a folder, each
// with what it belongs to directly in the folder: a folder there, or itself. The
// root has none.
func partsIn(d *model.Folder, files []*model.File) iter.Seq2[string, *model.File] {
	return func(yield func(string, *model.File) bool) {
		if d.Path == "." {
			return
		}
		for _, f := range reading.At(files, d.Path) {
			first, _, _ := strings.Cut(f.Path[len(d.Path)+1:], "/")
			if !yield(f.Path[:len(d.Path)+1+len(first)], f) {
				return
			}
		}
	}
}

// leastGrouped is of how many folders each a folder for plug-ins has to be made for those
// to be groups of them.
const leastGrouped = 2

// singleParts goes over the parts of a folder, each file's; where most of its folders are
// groups, which hold folders and nothing else, over the parts of these.
func (c *context) singleParts(d *model.Folder) iter.Seq2[string, *model.File] {
	below, plain := map[string]map[string]bool{}, map[string]bool{}
	for part, f := range partsIn(d, c.source) {
		rest := strings.TrimPrefix(f.Path, part+"/")
		child, _, deeper := strings.Cut(rest, "/")
		if below[part] == nil {
			below[part] = map[string]bool{}
		}
		below[part][child] = true
		plain[part] = plain[part] || !deeper || rest == f.Path
	}
	groups := map[string]bool{}
	for part, children := range below {
		if !plain[part] && len(children) >= leastGrouped {
			groups[part] = true
		}
	}
	grouped := 3*len(groups) >= 2*len(below)
	return func(yield func(string, *model.File) bool) {
		for part, f := range partsIn(d, c.source) {
			if grouped && groups[part] {
				child, _, _ := strings.Cut(f.Path[len(part)+1:], "/")
				part = path.Join(part, child)
			}
			if !yield(part, f) {
				return
			}
		}
	}
}

// severalHeirs is how many parts have to be built upon another for that to be a base.
const severalHeirs = 3

// withoutBase leaves out of the parts what others of them are built upon: what most in its
// folder need, and what several inherit from. That is plugged in nowhere.
func (c *context) withoutBase(p *plugs) {
	beside := map[string]int{} // parts by the folder that holds them
	for part := range p.parts {
		beside[model.FolderOf(part)]++
	}
	needed, heirs := map[string]map[string]bool{}, map[string]map[string]bool{}
	add := func(to map[string]map[string]bool, l *model.Link, near bool) {
		from, base := p.of[l.From], p.of[l.To]
		if from == "" || base == "" || from == base || near && model.FolderOf(from) != model.FolderOf(base) {
			return
		}
		if to[base] == nil {
			to[base] = map[string]bool{}
		}
		to[base][from] = true
	}
	for _, l := range c.edges {
		add(needed, l, true)
	}
	for i := range c.survey.Links {
		if l := &c.survey.Links[i]; l.Kind == model.LinkInheritance {
			add(heirs, l, false)
		}
	}
	bases := map[string]bool{}
	for part := range p.parts {
		if 2*len(needed[part]) > beside[model.FolderOf(part)] || len(heirs[part]) >= severalHeirs {
			bases[part] = true
		}
	}
	if len(p.parts)-len(bases) < severalHeirs {
		return
	}
	for part := range bases {
		delete(p.parts, part)
	}
	maps.DeleteFunc(p.of, func(_, part string) bool { return bases[part] })
}

func plugFolder(c *context) outcome {
	p := c.plugged()
	if p == nil {
		return outcomeOf(0, "No folder of three or more plug-ins stands in it.", nil)
	}
	n := p.files(c)
	return outcomeOf(
		c.large(n, 0.25),
		fmt.Sprintf("%s %s %d parts that are plugged in, %d of %d source files.", p.paths(), hold(len(p.in)), len(p.parts), n,
			len(c.source)),
		foldersEvidence(p.in, "holds plug-ins"),
	)
}

func hold(folders int) string {
	if folders == 1 {
		return "holds"
	}
	return "hold"
}

func plugsApart(c *context) outcome {
	p := c.plugged()
	if p == nil {
		return outcomeOf(0, "There are no plug-ins that could know each other.", nil)
	}
	// One that is made from another is no less plugged in.
	made := map[[2]string]bool{}
	for i := range c.survey.Links {
		if l := &c.survey.Links[i]; l.Kind == model.LinkInheritance {
			made[[2]string{p.of[l.From], p.of[l.To]}] = true
		}
	}
	var among []model.Link
	need := map[string]bool{}
	for _, l := range c.edges {
		if a, b := p.of[l.From], p.of[l.To]; a != b && a != "" && b != "" && !made[[2]string{a, b}] {
			among = append(among, *l)
			need[a] = true
		}
	}
	if len(among) == 0 {
		return outcomeOf(1, "No plug-in needs another.", nil)
	}
	return outcomeOf(
		1-2*float64(len(need))/float64(len(p.parts)),
		fmt.Sprintf("Of %d plug-ins %s, %s.", len(p.parts), needAnother(len(need)), times(len(among))),
		linksEvidence(among),
	)
}

func needAnother(n int) string {
	if n == 1 {
		return "one needs another"
	}
	return fmt.Sprintf("%d need another", n)
}

func times(n int) string {
	if n == 1 {
		return "once"
	}
	return fmt.Sprintf("%d times", n)
}

// hostBlind tests that plug-ins need what they are plugged into, and that at
// most one place there knows them by name.
func hostBlind(c *context) outcome {
	p := c.plugged()
	if p == nil {
		return outcomeOf(0, "There is nothing that plug-ins are plugged into.", nil)
	}
	parts := p.parts
	needs := map[string]bool{}
	// Who knows one of many by name is a corner; who knows several does the wiring.
	who, parties := map[string]map[string]bool{}, map[string]bool{}
	var known []model.Link
	for _, l := range c.edges {
		from, to := p.of[l.From], p.of[l.To]
		if from != "" && !p.holds(l.To) {
			needs[from] = true
		}
		if to == "" || p.holds(l.From) {
			continue
		}
		if who[l.From] == nil {
			who[l.From] = map[string]bool{}
			known = append(known, *l)
		}
		who[l.From][to], parties[to] = true, true
	}
	wiring := 0
	for _, of := range who {
		if 4*len(of) >= len(parts) {
			wiring++
		}
	}
	know := fmt.Sprintf("%d places know", len(who))
	if len(who) == 1 {
		know = "one place knows"
	}
	text := fmt.Sprintf(
		"%d of %d plug-ins use what they are plugged into, and %s some of them by name.", len(needs), len(parts), know,
	)
	share := float64(len(needs)) / float64(len(parts))
	if wiring == 0 {
		// What is loaded by its name or place is handed what it may use.
		share = max(share, 0.8*(1-float64(len(parties))/float64(len(parts))))
	}
	if len(who) == 0 {
		text = fmt.Sprintf("Nothing outside knows any of the %d plug-ins by name: they are loaded by their place.", len(parts))
	}
	return outcomeOf(share-0.34*float64(max(0, wiring-1)), text, linksEvidence(known))
}
