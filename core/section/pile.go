package section

import (
	"cmp"
	"fmt"
	"maps"
	"path"
	"slices"
	"strings"

	"jantel/core/links"
	"jantel/core/model"
)

// pile is the choice of blocks within a part: for each file the folder or file
// that stands for it.
type pile struct {
	root  string
	most  int           // blocks
	files []*model.File // that make a block wider
	keys  map[string]string
	lines map[string]int
}

// blocks chooses the blocks of a part: its top folders, the largest of them
// opened while that leaves few, the smallest together where there are many.
func (b *builder) blocks(part int) {
	r := b.j.Reading
	p := &pile{keys: map[string]string{}, most: max(minBlocks, min(maxBlocks, 36/len(b.Parts)))}
	for _, f := range r.At(b.place) {
		if i, ok := b.partOf[f.Path]; ok && i == part && counts(r, f) {
			p.files = append(p.files, f)
		}
	}
	p.root = rootOf(p.files)
	for _, f := range p.files {
		p.keys[f.Path] = p.below(p.root, f.Path)
	}
	p.weigh()
	for p.open(b.Parts[part].Lines) {
	}
	p.gather()
	index := map[string]int{}
	for _, key := range slices.Sorted(maps.Keys(p.lines)) {
		index[key] = len(b.Blocks)
		b.Blocks = append(b.Blocks, Block{Path: strings.TrimSuffix(key, "/"), Pile: part, Name: p.name(key),
			together: strings.HasSuffix(key, "/")})
	}
	for _, f := range p.files {
		b.blockOf[f.Path] = index[p.keys[f.Path]]
	}
	// Tests and what nobody here wrote lie with the block of their folder.
	for _, f := range r.At(b.place) {
		if i, ok := b.partOf[f.Path]; ok && i == part {
			if _, told := b.blockOf[f.Path]; told {
				continue
			}
			for d := model.FolderOf(f.Path); ; d = model.FolderOf(d) {
				if at, ok := index[d]; ok {
					b.blockOf[f.Path] = at
					break
				}
				if d == "." || d == p.root {
					break
				}
			}
		}
	}
}

// rootOf is the folder below which there is a choice.
func rootOf(files []*model.File) string {
	root := ""
	for i, f := range files {
		d := model.FolderOf(f.Path)
		if i == 0 {
			root = d
		}
		for root != "." && !model.Within(root, d) {
			root = model.FolderOf(root)
		}
	}
	return root
}

// below is the step from a folder towards a file: a folder in it, or the files
// that lie loose in it, whose name is the folder's with a stroke.
func (p *pile) below(folder, file string) string {
	if model.FolderOf(file) == folder {
		return folder + "/"
	}
	return links.AtDepth(folder, model.FolderOf(file), 1)
}

func (p *pile) weigh() {
	p.lines = map[string]int{}
	for _, f := range p.files {
		p.lines[p.keys[f.Path]] += max(1, f.Facts.Lines)
	}
}

// open takes the largest folder apart where it holds most of the part and few
// stand beside it, and reports whether it did.
func (p *pile) open(all int) bool {
	largest := ""
	for _, k := range slices.Sorted(maps.Keys(p.lines)) {
		if largest == "" || p.lines[k] > p.lines[largest] {
			largest = k
		}
	}
	if p.keys[largest] == largest {
		return false // a file alone
	}
	few := len(p.lines) < 5 && p.lines[largest]*3 > all || len(p.lines) < 2*p.most && p.lines[largest]*2 > all
	if largest == "" || !few {
		return false
	}
	inside := map[string]string{}
	steps := map[string]int{}
	for _, f := range p.files {
		if p.keys[f.Path] != largest {
			continue
		}
		step := f.Path // loose files each stand for themselves
		if !strings.HasSuffix(largest, "/") {
			step = p.below(largest, f.Path)
		}
		inside[f.Path] = step
		steps[step] += max(1, f.Facts.Lines)
	}
	if len(steps) == 1 && steps[largest] > 0 {
		return false
	}
	if _, loose := steps[largest+"/"]; loose && len(steps) == 1 && len(p.lines) > 1 {
		return false // beside others a folder says more than the files it holds
	}
	// Of many the largest stand for themselves and the others together.
	room := max(minBlocks, p.most-(len(p.lines)-1))
	if len(steps) > room && strings.HasSuffix(largest, "/") {
		keepLargest(inside, steps, room-1, largest)
		if len(steps) < 2 {
			return false
		}
	}
	if len(steps) > 2*p.most && len(p.lines) > 1 {
		return false // a folder of very many says more as one
	}
	maps.Copy(p.keys, inside)
	p.weigh()
	return true
}

// keepLargest puts all but the n largest steps under one name.
func keepLargest(inside map[string]string, steps map[string]int, n int, name string) {
	order := slices.SortedFunc(maps.Keys(steps), func(x, y string) int { return cmp.Or(cmp.Compare(steps[y], steps[x]), cmp.Compare(x, y)) })
	for f, step := range inside {
		if slices.Index(order, step) >= n {
			inside[f] = name
		}
	}
	clear(steps)
	for _, step := range inside {
		steps[step]++
	}
}

// gather puts the smallest blocks of a part together where they are too many:
// under the folder they share, else under the part's own.
func (p *pile) gather() {
	if len(p.lines) <= p.most {
		return
	}
	keepLargest(p.keys, p.lines, p.most-1, p.root+"/")
	p.weigh()
}

// name is what a block is called: the end of its path that no other block of
// the part ends in.
func (p *pile) name(key string) string {
	folder, loose := strings.CutSuffix(key, "/")
	if !loose {
		return p.shortest(folder)
	}
	n, last := 0, ""
	for f, k := range p.keys {
		if k == key {
			n++
			last = max(last, f)
		}
	}
	switch {
	case n == 1:
		return p.shortest(last)
	case folder == p.root:
		return fmt.Sprintf("%d others", n)
	}
	return fmt.Sprintf("%s, %d files", p.shortest(folder), n)
}

func (p *pile) shortest(at string) string {
	name := path.Base(at)
	for d := model.FolderOf(at); d != "." && d != p.root; d = model.FolderOf(d) {
		same := func(key string) bool {
			key = strings.TrimSuffix(key, "/")
			return key != at && (key == name || strings.HasSuffix(key, "/"+name))
		}
		if !slices.ContainsFunc(slices.Collect(maps.Keys(p.lines)), same) {
			break
		}
		name = path.Base(d) + "/" + name
	}
	return name
}
