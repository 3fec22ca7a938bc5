// Package section cuts a codebase open: its parts side by side, each a pile of
// blocks as wide as their own code and stacked by who needs whom, above them
// those who come in, below them what is kept and what is called. It computes
// coordinates; the browser and the writers of pictures draw the same ones.
package section

import (
	"cmp"
	"fmt"
	"maps"
	"path"
	"slices"
	"strconv"
	"strings"

	"jantel/core/judgement"
	"jantel/core/links"
	"jantel/core/model"
	"jantel/core/overview"
	"jantel/core/reading"
	"jantel/core/routes"
	"jantel/core/syntax"
)

// Limits of one section: what an eye takes in.
const (
	maxParts  = 9
	maxBlocks = 14 // of a part alone
	minBlocks = 6  // of one of many
	maxRows   = 6
	maxTies   = 24
	maxTags   = 3 // above or below one part
)

// Section is a codebase or folder cut open. Lengths are in px.
type Section struct {
	Place  string   `json:"place"`
	Width  float64  `json:"width"`
	Height float64  `json:"height"`
	Roof   float64  `json:"roof" doc:"the line below those who come in"`
	Ground float64  `json:"ground" doc:"the line above what is kept and called"`
	Parts  []Part   `json:"parts"`
	Blocks []Block  `json:"blocks"`
	Tags   []Tag    `json:"tags"`
	Ties   []Tie    `json:"ties"`
	Notes  []string `json:"notes"`
}

// Part is a project, or a folder that holds several, with a pile of blocks.
type Part struct {
	Path  string  `json:"path"`
	Name  string  `json:"name"`
	Lines int     `json:"lines" doc:"own program text, tests left out"`
	X     float64 `json:"x"`
	W     float64 `json:"w"`
}

// RoleLines is how many lines of a block have a role: its index in the order
// of roles, -1 where nothing tells.
type RoleLines struct {
	Role    int `json:"role"`
	Lines   int `json:"lines"`
	Assumed int `json:"assumed" doc:"of these, the lines whose role is only assumed"`
}

// Block is a folder or a file, or several small ones together.
type Block struct {
	Path     string      `json:"path" doc:"what it opens"`
	Name     string      `json:"name"`
	Part     int         `json:"part" doc:"the index of its part"`
	Together int         `json:"together" doc:"how many stand together in it, 0 where it is one alone"`
	Row      int         `json:"row" doc:"from the top"`
	Lines    int         `json:"lines" doc:"own program text, tests left out: its width"`
	Files    int         `json:"files"`
	Tests    int         `json:"tests" doc:"lines of tests"`
	Foreign  int         `json:"foreign" doc:"lines that nobody here wrote"`
	Roles    []RoleLines `json:"roles"`
	Ring     bool        `json:"ring" doc:"it needs others in a ring"`
	Breaches int         `json:"breaches" doc:"dependencies from it that the charter forbids"`
	// Title are the lines its name is written on, none where it has no room.
	Title  []string `json:"title"`
	Beside bool     `json:"beside" doc:"its name stands to the right of it"`
	X      float64  `json:"x"`
	Y      float64  `json:"y"`
	W      float64  `json:"w"`
	H      float64  `json:"h"`

	together bool // files that lie loose or were gathered
}

// Tag names those who come into a part, or what it keeps and calls.
type Tag struct {
	Text  string  `json:"text"`
	Full  string  `json:"full" doc:"the text where it is cut short"`
	Path  string  `json:"path" doc:"the place it leads to"`
	Line  int     `json:"line"`
	Kind  string  `json:"kind" enum:"routes,entry,facade,job,store,system,more"`
	Below bool    `json:"below"`
	X     float64 `json:"x"`
	Y     float64 `json:"y"`
	W     float64 `json:"w"`
}

// Tie is what one block needs of another in the drawing.
type Tie struct {
	From   string `json:"from"`
	To     string `json:"to"`
	Class  string `json:"class" enum:"code,http,message,by name,declared"`
	Count  int    `json:"count"`
	Breach bool   `json:"breach" doc:"the charter forbids it"`
	Ring   bool   `json:"ring" doc:"it points upwards: without it there were no ring"`
	Faint  bool   `json:"faint" doc:"a longer way implies it"`
	Line   string `json:"line" doc:"path data"`
	Tip    string `json:"tip" doc:"path data of the arrow"`

	from, to int // the blocks
}

// builder is a section on the way.
type builder struct {
	*Section
	s      *model.Survey
	j      *judgement.Result
	place  string
	partOf map[string]int // of a file at the place
	// blockOf are the blocks of files, by their index.
	blockOf map[string]int
}

// Of cuts a place open: "." for the codebase, or a folder of it. It has no
// parts where no own program text lies.
func Of(s *model.Survey, j *judgement.Result, place string) *Section {
	b := &builder{
		Section: &Section{Place: place, Parts: []Part{}, Blocks: []Block{}, Tags: []Tag{}, Ties: []Tie{}, Notes: []string{}},
		s:       s, j: j, place: place, partOf: map[string]int{}, blockOf: map[string]int{},
	}
	b.parts()
	if len(b.Parts) == 0 {
		return b.Section
	}
	b.order()
	for i := range b.Parts {
		b.blocks(i)
	}
	b.measure()
	needs := b.needs()
	for i := range b.Parts {
		b.stack(i, needs)
	}
	b.ties(needs)
	b.tags()
	b.lay()
	return b.Section
}

// counts reports whether a file's lines make a block wider: own program text
// and what draws, tests left out.
func counts(r *reading.Reading, f *model.File) bool {
	if !r.Judged[f.Path] {
		return false
	}
	switch r.Role(f.Path) {
	case model.RoleTest, model.RoleDocs, model.RoleTranslation, model.RoleAsset, model.RoleConfig:
		return false
	case model.RoleView, model.RoleStyle, model.RoleSchema:
		return true
	}
	return reading.IsCode(f)
}

// parts chooses what stands side by side: the projects. Where they are too
// many those that share a folder stand together, and at last the smallest. One
// project alone is one part.
func (b *builder) parts() {
	r := b.j.Reading
	projects := []string{}
	for _, m := range b.j.Modules {
		if m.Project && m.Path != b.place && model.Within(b.place, m.Path) {
			projects = append(projects, m.Path)
		}
	}
	// A project within another stands in it.
	projects = slices.DeleteFunc(projects, func(p string) bool {
		return slices.ContainsFunc(projects, func(outer string) bool { return outer != p && model.Within(outer, p) })
	})
	projectOf := func(p string) string {
		for _, m := range projects {
			if model.Within(m, p) {
				return m
			}
		}
		return b.place
	}
	of := map[string]string{} // the project of a folder
	lines := map[string]int{}
	for _, f := range r.At(b.place) {
		d := model.FolderOf(f.Path)
		if _, known := of[d]; !known {
			of[d] = projectOf(f.Path)
		}
		if counts(r, f) {
			lines[of[d]] += f.Facts.Lines
		}
	}
	// Projects that hold little of it lie in it as other folders do.
	inside, all := 0, 0
	for p, n := range lines {
		if all += n; p != b.place {
			inside += n
		}
	}
	if 2*inside < all {
		lines = map[string]int{b.place: all}
		for d := range of {
			of[d] = b.place
		}
	}
	into := folded(lines, b.place)
	weight := map[string]int{}
	for p, n := range lines {
		weight[into[p]] += n
	}
	at := map[string]int{}
	for _, p := range slices.Sorted(maps.Keys(weight)) {
		at[p] = len(b.Parts)
		part := Part{Path: p, Name: path.Base(p), Lines: weight[p]}
		switch {
		case p == restOf(b.place):
			part.Path, part.Name = b.place, theRest
		case p == b.place:
			if part.Name = b.s.Codebase; p != "." {
				part.Name = path.Base(p)
			}
			if len(weight) > 1 {
				part.Path, part.Name = b.beside(projects)
			}
		}
		b.Parts = append(b.Parts, part)
	}
	for _, f := range r.At(b.place) {
		if i, ok := at[into[of[model.FolderOf(f.Path)]]]; ok {
			b.partOf[f.Path] = i
		}
	}
}

// order stands the parts that need others to the left of those they need, so
// that most ties run one way and few are long.
func (b *builder) order() {
	joined := map[need]bool{}
	for i := range b.s.Links {
		l := &b.s.Links[i]
		from, ok := b.partOf[l.From]
		to, both := b.partOf[l.To]
		if ok && both && from != to && classOf(l) != "" {
			joined[need{from, to}] = true
		}
	}
	weight := make([]int, len(b.Parts))
	for k := range joined {
		weight[k.from]--
		weight[k.to]++
	}
	was := make([]int, len(b.Parts))
	for i := range was {
		was[i] = i
	}
	for i := range b.Parts {
		if b.Parts[i].Name == theRest {
			weight[i] = len(joined) + 1 // last of all
		}
	}
	slices.SortStableFunc(was, func(x, y int) int { return cmp.Compare(weight[x], weight[y]) })
	parts, now := make([]Part, len(was)), make([]int, len(was))
	for i, w := range was {
		parts[i], now[w] = b.Parts[w], i
	}
	b.Parts = parts
	for p, i := range b.partOf {
		b.partOf[p] = now[i]
	}
}

// beside names what lies in no project: by its folder where it is one.
func (b *builder) beside(projects []string) (at, name string) {
	var files []*model.File
	for _, f := range b.j.Reading.At(b.place) {
		if counts(b.j.Reading, f) && !slices.ContainsFunc(projects, func(p string) bool { return model.Within(p, f.Path) }) {
			files = append(files, f)
		}
	}
	if at = rootOf(files); at == b.place || at == "." {
		return b.place, "in no project"
	}
	return at, path.Base(at)
}

// theRest is what the smallest projects are called together.
const theRest = "all others"

// restOf is under which name the smallest projects stand together; no folder
// can be called so.
func restOf(place string) string { return place + "/" }

// folded says for each project which part it stands in, at most maxParts.
func folded(lines map[string]int, place string) map[string]string {
	into := make(map[string]string, len(lines))
	for p := range lines {
		into[p] = p
	}
	for {
		parts := map[string]bool{}
		for _, p := range into {
			parts[p] = true
		}
		if len(parts) <= maxParts {
			return into
		}
		// Of the folders that hold several, the one deepest in the tree stands
		// for them, the one that holds most first.
		holds := map[string]int{}
		for p := range parts {
			if d := model.FolderOf(p); p != place && d != place && model.Within(place, d) {
				holds[d]++
			}
		}
		best := ""
		for _, d := range slices.Sorted(maps.Keys(holds)) {
			deeper := strings.Count(d, "/") - strings.Count(best, "/")
			if best == "" || deeper > 0 || deeper == 0 && holds[d] > holds[best] {
				best = d
			}
		}
		if best == "" {
			break
		}
		for p, part := range into {
			if part != place && model.Within(best, part) {
				into[p] = best
			}
		}
	}
	weight := map[string]int{}
	for p, part := range into {
		weight[part] += lines[p]
	}
	order := slices.SortedFunc(maps.Keys(weight), func(x, y string) int {
		return cmp.Or(cmp.Compare(weight[y], weight[x]),
			cmp.Compare(x, y))
	})
	for p, part := range into {
		if slices.Index(order, part) >= maxParts-1 {
			into[p] = restOf(place)
		}
	}
	return into
}

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
		b.Blocks = append(b.Blocks, Block{Path: strings.TrimSuffix(key, "/"), Part: part, Name: p.name(key),
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

// measure counts what each block holds.
func (b *builder) measure() {
	r := b.j.Reading
	roles := make([]map[int]*RoleLines, len(b.Blocks))
	only := make([]string, len(b.Blocks)) // the last file met
	for i := range roles {
		roles[i] = map[int]*RoleLines{}
	}
	for _, f := range r.At(b.place) {
		i, ok := b.blockOf[f.Path]
		if !ok {
			continue
		}
		x := &b.Blocks[i]
		switch {
		case counts(r, f):
			x.Files++
			x.Lines += f.Facts.Lines
			only[i] = f.Path
			role := b.j.Roles[f.Path]
			at := slices.Index(model.Roles, role.Role)
			if roles[i][at] == nil {
				roles[i][at] = &RoleLines{Role: at}
			}
			roles[i][at].Lines += f.Facts.Lines
			if role.Source == model.RoleAssumed {
				roles[i][at].Assumed += f.Facts.Lines
			}
		case r.IsTest(f.Path) && r.Judged[f.Path]:
			x.Tests += f.Lines()
		case b.j.Skipped(f) != "" && syntax.ProfileOf(f.Language).Code:
			x.Foreign += f.Lines()
		}
	}
	for i := range b.Blocks {
		x := &b.Blocks[i]
		x.Roles = []RoleLines{}
		for _, at := range slices.Sorted(maps.Keys(roles[i])) {
			x.Roles = append(x.Roles, *roles[i][at])
		}
		switch {
		case x.together && x.Files == 1:
			x.Path = only[i]
		case x.together:
			x.Together = x.Files
		}
	}
}

// need is what one block needs of another.
type need struct{ from, to int }

// needs counts the links between blocks, per way they are drawn; of what is
// only needed as a type, and what is loaded late, nothing hangs.
func (b *builder) needs() map[need]map[string]int {
	out := map[need]map[string]int{}
	for i := range b.s.Links {
		l := &b.s.Links[i]
		from, ok := b.blockOf[l.From]
		to, both := b.blockOf[l.To]
		class := classOf(l)
		if !ok || !both || from == to || class == "" || !counts(b.j.Reading, b.s.File(l.From)) || !counts(b.j.Reading, b.s.File(l.To)) {
			continue
		}
		k := need{from, to}
		if out[k] == nil {
			out[k] = map[string]int{}
		}
		out[k][class]++
	}
	return out
}

// Classes of ties.
const (
	code     = "code"
	overHTTP = "http"
	message  = "message"
	byName   = "by name"
	declared = "declared"
)

func classOf(l *model.Link) string {
	switch l.Kind {
	case model.LinkImport, model.LinkReExport, model.LinkInheritance, model.LinkRendering, model.LinkLazyImport:
		return code
	case model.LinkHTTP:
		return overHTTP
	case model.LinkMessage:
		return message
	case model.LinkTemplate, model.LinkRoute, model.LinkConfiguration:
		return byName
	case model.LinkDeclared:
		return declared
	}
	return ""
}

// routesAt lists the routes of the place by part.
func (b *builder) routesAt() map[int][]model.Route {
	out := map[int][]model.Route{}
	for _, r := range routes.Of(b.s) {
		if i, ok := b.partOf[r.Path]; ok && !b.j.Reading.IsTest(r.Path) {
			out[i] = append(out[i], r)
		}
	}
	return out
}

// tags names who comes into each part and what it keeps and calls.
func (b *builder) tags() {
	at := b.routesAt()
	entries := map[int][]model.Entry{}
	for _, e := range b.j.Entries {
		if i, ok := b.partOf[e.Path]; ok && e.Kind != model.EntryScript {
			entries[i] = append(entries[i], e)
		}
	}
	faces := map[int][]string{}
	for _, f := range b.j.Facades {
		if i, ok := b.partOf[f]; ok {
			faces[i] = append(faces[i], f)
		}
	}
	byPart := overview.Systems(b.s, b.j, func(p string) (string, bool) {
		i, ok := b.partOf[p]
		return strconv.Itoa(i), ok
	})
	for i := range b.Parts {
		var above []Tag
		if n := len(at[i]); n > 0 {
			above = append(above, Tag{Text: many(n, "route"), Path: b.Parts[i].Path, Kind: "routes"})
		}
		above = append(above, entryTags(entries[i])...)
		if len(above) == 0 && len(faces[i]) > 0 {
			text := "library: " + path.Base(faces[i][0])
			if len(faces[i]) > 1 {
				text = fmt.Sprintf("library, %d faces", len(faces[i]))
			}
			above = append(above, Tag{Text: text, Path: faces[i][0], Kind: "facade"})
		}
		var below []Tag
		for _, roster := range byPart[strconv.Itoa(i)] {
			switch roster.Name {
			case overview.Plans:
				text := many(len(roster.Items), "planned job")
				above = append(above, Tag{Text: text, Path: roster.Items[0].Path, Line: roster.Items[0].Line, Kind: "job"})
			case overview.Stores, overview.Others:
				kind := "store"
				if roster.Name == overview.Others {
					kind = "system"
				}
				for _, e := range roster.Items {
					below = append(below, Tag{Text: e.Note, Path: e.Path, Line: e.Line, Kind: kind, Below: true})
				}
			}
		}
		b.stand(i, above, false)
		b.stand(i, below, true)
	}
}

// stand adds the tags of a part, the last of too many standing for the rest.
func (b *builder) stand(part int, tags []Tag, below bool) {
	if more := len(tags) - maxTags; more > 0 {
		tags = append(tags[:maxTags-1:maxTags-1], Tag{Text: fmt.Sprintf("%d more", more+1), Path: b.Parts[part].Path, Kind: "more",
			Below: below})
	}
	for k, t := range tags {
		t.X, t.Y = float64(part), float64(k) // made into px by lay
		b.Tags = append(b.Tags, t)
	}
}

// entryTags names the entries of a part: one of its kind by its file, several
// by their number.
func entryTags(entries []model.Entry) []Tag {
	out := []Tag{}
	for _, kind := range []string{model.EntryPage, model.EntryProgram, model.EntryWorker, model.EntryCommand} {
		var of []model.Entry
		for _, e := range entries {
			if e.Kind == kind {
				of = append(of, e)
			}
		}
		if len(of) == 0 {
			continue
		}
		text := kind + " " + path.Base(of[0].Path)
		if len(of) > 1 {
			text = many(len(of), kind)
		}
		out = append(out, Tag{Text: text, Path: of[0].Path, Line: of[0].Line, Kind: "entry"})
	}
	return out
}

func many(n int, word string) string {
	if n == 1 {
		return "1 " + word
	}
	return fmt.Sprintf("%d %ss", n, word)
}
