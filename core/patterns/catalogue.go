package patterns

import (
	"cmp"
	"fmt"
	"math"
	"path"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/weave"
)

// catalogue lists the patterns that are told apart. A pattern is added here,
// with signals of its own or shared ones; docs/analysis.md tells how.
var catalogue = []pattern{
	{"layered", []signal{
		{30, true, 0, roles("The code holds %s of the layers routes or handlers, logic, and data access", []model.Role{model.RoleRouting, model.RoleHandler}, []model.Role{model.RoleLogic}, []model.Role{model.RoleDataAccess})},
		{35, true, 0, downwards},
		{20, true, 45, named("Folders are named for layers", "No folders are named for layers", 3, "routes", "handlers", "controllers", "logic", "services", "domain", "data", "repositories", "persistence", "store", "api", "business")},
		{15, false, 0, skips},
	}},
	{"model-view-controller", []signal{
		{30, true, 0, roles("The code holds %s of models, views and controllers", []model.Role{model.RoleModel, model.RoleDataAccess}, []model.Role{model.RoleView}, []model.Role{model.RoleHandler})},
		{50, true, 0, parts("Folders are named models, views and controllers", "Folders are not named models, views and controllers", []string{"models", "model"}, []string{"views", "view", "templates"}, []string{"controllers", "controller"})},
		{20, false, 0, leads("Controllers use models", "No controller uses a model", model.RoleHandler, model.RoleModel, model.RoleDataAccess)},
	}},
	{"rings", []signal{
		{45, true, 20, around},
		{55, true, 0, inward},
	}},
	{"model-view-viewmodel", []signal{
		{50, true, 0, viewModels},
		{30, true, 30, paired},
		{20, false, 0, viewModelsApart},
	}},
	{"core-feature-shared", []signal{
		{60, true, 0, threeParts},
		{40, true, 20, featuresApart},
	}},
	{"ui-logic-data", []signal{
		{60, true, 0, threeTiers},
		{40, true, 20, tiersDown},
	}},
	{"message loops", []signal{
		{45, true, 0, updates},
		{30, true, 20, messageTypes},
		{25, true, 20, draws},
	}},
	{"publish-subscribe", []signal{
		{70, true, 0, tiedByMessages},
		{30, true, 30, receiversUnknown},
	}},
	{"pipeline", []signal{
		{70, true, 0, row},
		{30, false, 0, named("A folder is named for stages", "No folder is named for stages", 1, "pipeline", "pipelines", "stages", "steps", "etl", "jobs", "passes")},
	}},
	{"plug-ins", []signal{
		{45, true, 0, plugFolder},
		{25, true, 20, plugsApart},
		{30, true, 20, hostBlind},
	}},
	{"scaffold", []signal{
		{60, true, 0, laidOut},
		{40, true, 20, barely},
	}},
	{"by kind", []signal{
		{70, true, 0, kindShare},
		{30, false, 0, pureFolders},
		{20, true, 30, cutBy(-1)},
	}},
	{"by feature", []signal{
		{60, true, 0, featureShare},
		{40, false, 0, selfContained},
		{20, true, 30, cutBy(1)},
	}},
	{"components and pages", []signal{
		{40, true, 0, named("There is a folder for components and one for pages", "There are no folders for components and for pages", 2, "components", "pages", "screens", "views")},
		{30, true, 0, views},
		{30, false, 0, leads("Pages use components", "No page uses a component of the component folder", model.RoleView, model.RoleView)},
	}},
	{"apps and libs", []signal{
		{60, true, 0, named("Top folders hold applications beside libraries", "There are no top folders for applications beside libraries", 2, appFolders...)},
		{40, true, 0, projects},
	}},
	{"library", []signal{
		{60, true, 0, offers},
		{40, false, 0, noStart},
	}},
	{"scripts", []signal{
		{60, true, 0, starts},
		{40, false, 0, loose},
	}},
}

// roles tests how many of the groups of roles are present with at least two
// files or a tenth of the code.
func roles(text string, groups ...[]model.Role) func(*context) outcome {
	return func(c *context) outcome {
		n := 0
		var ev []model.Evidence
		for _, g := range groups {
			var fs []*model.File
			for _, r := range g {
				if r == model.RoleView {
					fs = append(fs, c.drawn...)
				} else {
					fs = append(fs, c.byRole[r]...)
				}
			}
			if len(fs) >= 2 && float64(len(fs)) >= 0.03*float64(len(c.source)) {
				n++
				ev = append(ev, filesEvidence(fs[:min(2, len(fs))], string(c.roles[fs[0].Path].Role))...)
			}
		}
		words := []string{"none", "one", "two", "all three", "all four"}
		return told(float64(n)/float64(len(groups)), fmt.Sprintf(text, words[n])+".", ev)
	}
}

func named(yes, no string, enough int, words ...string) func(*context) outcome {
	return func(c *context) outcome {
		found := c.foldersNamed(words...)
		// Of several of one name the one that holds most is meant.
		var first []*model.Folder
		at := map[string]int{}
		for _, d := range found {
			k := strings.TrimSuffix(strings.ToLower(d.Name), "s")
			i, ok := at[k]
			if !ok {
				at[k] = len(first)
				first = append(first, d)
			} else if d.JudgedLines > first[i].JudgedLines {
				first[i] = d
			}
		}
		if len(first) == 0 {
			return told(0, no+".", nil)
		}
		var names []string
		for i, d := range first {
			if i == 5 {
				break
			}
			names = append(names, d.Name)
		}
		share := float64(len(first)) / float64(enough)
		if share < 0.5 || len(first) == 1 && enough > 1 {
			return told(min(share, 0.4), no+fmt.Sprintf(", but for %s.", strings.Join(names, ", ")), foldersEvidence(first, "so named"))
		}
		return told(share, yes+": "+strings.Join(names, ", ")+".", foldersEvidence(first, "so named"))
	}
}

// parts tests that a folder is named for each of the groups.
func parts(yes, no string, groups ...[]string) func(*context) outcome {
	return func(c *context) outcome {
		if ds := c.siblings(groups...); ds != nil {
			return told(1, yes+": "+names(ds)+".", foldersEvidence(ds, "so named"))
		}
		var found []*model.Folder
		for _, g := range groups {
			if ds := c.foldersNamed(g...); len(ds) > 0 {
				found = append(found, ds[0])
			}
		}
		switch {
		case len(found) == len(groups):
			// Apart from each other they must hold a good part of the code.
			n := c.within(found...)
			return told(c.large(n, 0.25), fmt.Sprintf("%s: %s, with %d of %d source files.", yes, names(found), n, len(c.source)), foldersEvidence(found, "so named"))
		case len(found) > 0:
			return told(0.15*float64(len(found)), no+", but for "+names(found)+".", foldersEvidence(found, "so named"))
		}
		return told(0, no+".", nil)
	}
}

// rank is the trade's order from outside to inside.
var rank = map[model.Role]int{model.RoleEntry: 1, model.RoleRouting: 2, model.RoleHandler: 3, model.RoleLogic: 4, model.RoleDataAccess: 5}

func downwards(c *context) outcome {
	down, up := 0, 0
	var against []model.Link
	for k, ls := range c.links {
		a, b := rank[k[0]], rank[k[1]]
		switch {
		case a == 0 || b == 0 || a == b || b == 1:
		case a < b:
			down += len(ls)
		default:
			up += len(ls)
			against = append(against, ls...)
		}
	}
	if down+up < 3 {
		return told(0, "There are too few dependencies between layers to tell their direction.", nil)
	}
	share := float64(down) / float64(down+up)
	// Half of them pointing down is chance; all of them is a direction.
	text := fmt.Sprintf("%d of %d dependencies between layers point from the outside in.", down, down+up)
	return told((share-0.5)*2, text, linksEvidence(sorted(against)))
}

func sorted(ls []model.Link) []model.Link {
	out := slices.Clone(ls)
	slices.SortFunc(out, func(a, b model.Link) int {
		return cmp.Or(strings.Compare(a.From, b.From), cmp.Compare(a.Line, b.Line), strings.Compare(a.To, b.To))
	})
	return out
}

func skips(c *context) outcome {
	skip := append(append([]model.Link(nil), c.links[[2]model.Role{model.RoleHandler, model.RoleDataAccess}]...), c.links[[2]model.Role{model.RoleRouting, model.RoleDataAccess}]...)
	kept := len(c.links[[2]model.Role{model.RoleHandler, model.RoleLogic}])
	if kept == 0 {
		return told(0, "No handler uses the logic.", nil)
	}
	if len(skip) == 0 {
		return told(1, fmt.Sprintf("Handlers reach data only through the logic (%d dependencies).", kept), nil)
	}
	return told(float64(kept)/float64(kept+2*len(skip)), fmt.Sprintf("%d dependencies of handlers or routes skip the logic and reach data directly; %d keep to it.", len(skip), kept), linksEvidence(sorted(skip)))
}

func leads(yes, no string, from model.Role, to ...model.Role) func(*context) outcome {
	return func(c *context) outcome {
		var ls []model.Link
		for _, t := range to {
			ls = append(ls, c.links[[2]model.Role{from, t}]...)
		}
		if len(ls) == 0 {
			return told(0, no+".", nil)
		}
		return told(min(1, float64(len(ls))/4), fmt.Sprintf("%s (%d dependencies).", yes, len(ls)), linksEvidence(sorted(ls)))
	}
}

// rings finds folders side by side that are a core and what surrounds it, the
// core first: by their names, or because three or more need the core, which
// needs none of them and does none of their work. Of several such places the
// one that holds most counts.
func (c *context) rings() (best []*model.Folder) {
	most := 0
	for _, core := range c.foldersNamed("core", "domain") {
		found := []*model.Folder{core}
		seen := map[string]bool{core.Name: true}
		for _, d := range c.foldersNamed("core", "domain", "ports", "adapters", "application", "infrastructure", "usecases", "use cases") {
			if d.Parent == core.Parent && !seen[d.Name] {
				seen[d.Name] = true
				found = append(found, d)
			}
		}
		if len(found) == 1 {
			found = append(found, c.surrounding(core)...)
		}
		if n := c.within(found...); len(found) > 1 && n > most {
			best, most = found, n
		}
	}
	return best
}

// surrounding are the folders beside a core that need it, where it is one in
// fact: three or more do, it is neither all nor little of the code, and it holds
// hardly anything that answers, draws or stores.
func (c *context) surrounding(core *model.Folder) (out []*model.Folder) {
	held, outer := 0, 0
	for _, f := range c.source {
		if model.Within(core.Path, f.Path) {
			held++
			switch c.roles[f.Path].Role {
			case model.RoleRouting, model.RoleHandler, model.RoleView, model.RoleDataAccess:
				outer++
			}
		}
	}
	if 4*outer > held || 100*held < 15*len(c.source) || 100*held > 75*len(c.source) {
		return nil
	}
	needs, needed := map[string]bool{}, map[string]bool{}
	for _, l := range c.edges {
		switch a, b := model.Within(core.Path, l.From), model.Within(core.Path, l.To); {
		case b && !a:
			needs[l.From] = true
		case a && !b:
			needed[l.To] = true
		}
	}
	below := func(d *model.Folder, of map[string]bool) bool {
		for p := range of {
			if model.Within(d.Path, p) {
				return true
			}
		}
		return false
	}
	for _, d := range c.folders {
		if d.Parent == core.Parent && d != core && below(d, needs) && !below(d, needed) {
			out = append(out, d)
		}
	}
	if len(out) < 3 || c.siblings(coreNames, featureNames) != nil || c.siblings(coreNames, sharedNames) != nil {
		return nil
	}
	return out
}

func around(c *context) outcome {
	ds := c.rings()
	if ds == nil {
		return told(0, "No folder for a core lies beside others for what surrounds it.", nil)
	}
	n := c.within(ds...)
	return told(c.large(n, 0.4), fmt.Sprintf("A core and what surrounds it lie side by side: %s, with %d of %d source files.", names(ds), n, len(c.source)), foldersEvidence(ds, "so named"))
}

// inward tests that a core needs nothing of what surrounds it.
func inward(c *context) outcome {
	ds := c.rings()
	if ds == nil {
		return told(0, "There is no core that could be kept clean.", nil)
	}
	core := ds[0]
	base := core.Parent
	// Ports are what the core asks through: they are its own.
	var ports *model.Folder
	for _, d := range ds[1:] {
		if strings.HasPrefix(strings.ToLower(d.Name), "port") {
			ports = d
		}
	}
	inside := func(p string) bool {
		return model.Within(core.Path, p) || ports != nil && model.Within(ports.Path, p)
	}
	in, out := 0, 0
	var against []model.Link
	for _, l := range c.survey.Links {
		a, b := inside(l.From), inside(l.To)
		if l.Kind.Repeats() || a == b || !model.Within(base, l.From) || !model.Within(base, l.To) || !c.judged[l.From] || !c.judged[l.To] || c.roles[l.From].Role == model.RoleTest {
			continue
		}
		if b {
			in++
		} else {
			out++
			against = append(against, l)
		}
	}
	if in < 2 {
		return told(0, fmt.Sprintf("Hardly anything depends on %s.", core.Path), nil)
	}
	return told(1-3*float64(out)/float64(in+out), fmt.Sprintf("%d dependencies lead into %s and %d out of it.", in, core.Path, out), linksEvidence(sorted(against)))
}

// kindShare is how much of the code lies in folders named for technical kinds.
func kindShare(c *context) outcome {
	n := 0
	seen := map[string]*model.Folder{}
	var first []*model.Folder
	for _, f := range c.source {
		d := model.FolderOf(f.Path)
		if _, ok := kindFolder(path.Base(d)); ok && d != c.root && d != "." {
			n++
			if seen[d] == nil {
				seen[d] = c.inner[d]
				first = append(first, c.inner[d])
			}
		}
	}
	if len(c.source) == 0 {
		return told(0, "There is no program text to tell from.", nil)
	}
	for r, fs := range c.byRole {
		if r != "" && 100*len(fs) >= 85*len(c.source) {
			return told(0, fmt.Sprintf("It holds little but %s: %d of %d source files.", weave.Plural(r), len(fs), len(c.source)), nil)
		}
	}
	share := float64(n) / float64(len(c.source))
	return told(share*1.15, fmt.Sprintf("%d of %d source files lie in folders named for a technical kind.", n, len(c.source)), foldersEvidence(first, "named for a kind"))
}

func pureFolders(c *context) outcome {
	pure, all := 0, 0
	for _, m := range c.sortsOf() {
		total, top := 0, 0
		for r, n := range m {
			total += n
			if r != "" {
				top = max(top, n)
			}
		}
		if total >= 3 {
			all++
			if top*10 >= total*8 {
				pure++
			}
		}
	}
	if all < 2 {
		return told(0, "There are too few folders of three files or more to compare.", nil)
	}
	return told(float64(pure)/float64(all), fmt.Sprintf("%d of %d folders of three files or more hold files of one role.", pure, all), nil)
}

// cutBy tests whether the cut of the folders goes the same way: 1 for by
// feature, -1 for by kind. Mixed speaks for neither and against neither.
func cutBy(way float64) func(*context) outcome {
	return func(c *context) outcome {
		if c.cut.Value == nil || math.Abs(*c.cut.Value) <= 0.2 {
			return outcome{silent: true}
		}
		what := "feature lie together more than files of one kind"
		if *c.cut.Value < 0 {
			what = "kind lie together more than files of one feature"
		}
		share := 0.0
		if *c.cut.Value*way > 0 {
			share = 1
		}
		return told(share, fmt.Sprintf("Files of one %s (cut %.2f).", what, *c.cut.Value), nil)
	}
}

// featureShare is how much of the code lies in folders that hold several roles
// and are not named for one.
func featureShare(c *context) outcome {
	byDir := map[string]map[model.Role]int{}
	counts := map[string]int{}
	for _, f := range c.source {
		// The feature is the innermost folder not named for a kind.
		d := model.FolderOf(f.Path)
		for d != "." {
			if _, ok := kindFolder(path.Base(d)); !ok {
				break
			}
			d = model.FolderOf(d)
		}
		if byDir[d] == nil {
			byDir[d] = map[model.Role]int{}
		}
		if r := c.roles[f.Path].Role; r != "" {
			byDir[d][r]++
		}
		counts[d]++
	}
	n, features := 0, 0
	var ds []*model.Folder
	for _, dir := range c.folders {
		m := byDir[dir.Path]
		// The roles must differ by more than an entry point.
		if dir.Path == "." || len(m) < 3 || genericName(dir.Name) {
			continue
		}
		n += counts[dir.Path]
		features++
		ds = append(ds, dir)
	}
	if features < 3 || len(c.source) == 0 {
		return told(0, "Fewer than three folders hold a feature with all its roles.", nil)
	}
	return told(float64(n)/float64(len(c.source))*1.2, fmt.Sprintf("%d folders hold three or more roles each, together %d of %d source files.", features, n, len(c.source)), foldersEvidence(ds, "holds three or more roles"))
}

func genericName(n string) bool {
	switch strings.Join(naming.Words(n), " ") {
	case "src", "lib", "app", "internal", "pkg", "source", "main", "packages":
		return true
	}
	return false
}

func selfContained(c *context) outcome {
	same, across := 0, 0
	for _, l := range c.survey.Links {
		if l.Kind.Repeats() || !c.judged[l.From] || !c.judged[l.To] || c.roles[l.From].Role == model.RoleTest {
			continue
		}
		if model.FolderOf(l.From) == model.FolderOf(l.To) {
			same++
		} else {
			across++
		}
	}
	if same+across < 5 {
		return told(0, "There are too few dependencies to tell whether folders stand on their own.", nil)
	}
	share := float64(same) / float64(same+across)
	return told(share*1.6, fmt.Sprintf("%d of %d dependencies stay within their folder.", same, same+across), nil)
}

func views(c *context) outcome {
	p := c.part(model.RoleView)
	return told(p*2.5, fmt.Sprintf("%d of %d source files draw the interface.", len(c.byRole[model.RoleView]), len(c.source)), filesEvidence(c.byRole[model.RoleView], "draws"))
}

var appFolders = []string{"apps", "libs", "packages", "cmd", "pkg", "internal", "services", "modules"}

// projects counts what stands on its own below the folders for applications and
// libraries: with a project file, or as a program. A single one is what it is
// all about, and nothing lies beside it.
func projects(c *context) outcome {
	own := map[string]bool{}
	var ev []model.Evidence
	above := map[string]bool{}
	for _, d := range c.foldersNamed(appFolders...) {
		above[d.Path] = true
	}
	for _, f := range c.survey.Files {
		if f.Facts == nil || f.Facts.Starts == 0 && (f.Facts.Project == nil || !slices.Contains(projectTools, f.Facts.Project.Tool)) || !c.judged[f.Path] || c.roles[f.Path].Role == model.RoleTest {
			continue
		}
		for part := model.FolderOf(f.Path); part != "."; part = model.FolderOf(part) {
			if above[model.FolderOf(part)] && !own[part] {
				own[part] = true
				ev = append(ev, model.Evidence{Path: f.Path, Line: f.Facts.Starts, Note: "stands on its own"})
			}
		}
	}
	return told(float64(len(own)-1)/3, fmt.Sprintf("%d of the parts in them stand on their own, as a program or with a project file.", len(own)), ev[:min(5, len(ev))])
}

var projectTools = []string{"npm", "go", "python", "composer", "maven", "gradle"}

// offers tests that others can take something from it: a project file says so,
// or nearly all of it is one package.
func offers(c *context) outcome {
	var ev []model.Evidence
	if f := c.topPackage(); f != nil {
		// Without a project file it may still be an application's.
		return told(0.65, "Nearly all of it is one package, though no project file tells what it is for.", []model.Evidence{{Path: f.Path, Line: 1, Note: "makes its folder a package"}})
	}
	for _, f := range c.survey.Files {
		if !c.judged[f.Path] || f.Facts == nil {
			continue
		}
		d := model.FolderOf(f.Path)
		switch p := f.Facts.Project; {
		case p == nil:
		case strings.Count(f.Path, "/") > 1:
		case p.Tool == "npm" && (len(p.Entries) > 0 || len(p.Exports) > 0):
			ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "names what others may import"})
		case p.Tool == "go" && p.Name != "":
			if g := c.packageIn(d); g != nil {
				ev = append(ev, model.Evidence{Path: g.Path, Line: 1, Note: "the folder of the module is a package"})
			} else if len(c.programs()) == 0 {
				ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "a module without a program in it"})
			}
		case p.Tool == "python" && p.Name != "" && len(c.programs()) == 0:
			ev = append(ev, model.Evidence{Path: f.Path, Line: 1, Note: "a module without a program in it"})
		}
	}
	if len(ev) == 0 {
		return told(0, "Nothing offers the code to others: no project file does, and it is no single package.", nil)
	}
	return told(1, "It offers its code to others.", ev)
}

// topPackage is what makes nearly all of the codebase one package of Python; nil
// where a folder of commands lies in it, as an application has one.
func (c *context) topPackage() *model.File {
	if c.root != "." {
		return nil
	}
	for _, d := range c.folders {
		f := c.survey.File(path.Join(d.Path, "__init__.py"))
		if f == nil || !c.judged[f.Path] || 10*c.within(d) < 9*len(c.source) {
			continue
		}
		for _, in := range c.foldersNamed("bin", "cli", "commands", "command line", "scripts") {
			if in.Parent == d.Path && c.within(in) > 1 {
				return nil
			}
		}
		return f
	}
	return nil
}

// packageIn is a file of Go directly in a folder that gives something to others.
func (c *context) packageIn(d string) *model.File {
	for _, f := range c.source {
		if f.Language == "Go" && model.FolderOf(f.Path) == d && f.Facts.Namespace != "main" && len(f.Facts.Names) > 0 {
			return f
		}
	}
	return nil
}

// programs are the files in which a program starts, but for those that only show
// how something is used, and for modules of a package that can be run as well.
func (c *context) programs() []*model.File {
	if c.counted {
		return c.starting
	}
	c.counted = true
	packages := c.pythonPackages()
	for _, f := range c.source {
		starts := c.roles[f.Path].Role == model.RoleEntry || f.Facts.Starts > 0 && (!packages[model.FolderOf(f.Path)] || path.Base(f.Path) == "__main__.py")
		if starts && !slices.ContainsFunc(strings.Split(model.FolderOf(f.Path), "/"), func(d string) bool {
			return slices.Contains([]string{"example", "examples", "sample", "samples", "demo", "demos", "testdata"}, strings.ToLower(strings.Trim(d, "_")))
		}) {
			c.starting = append(c.starting, f)
		}
	}
	return c.starting
}

func (c *context) pythonPackages() map[string]bool {
	out := map[string]bool{}
	for _, f := range c.survey.Files {
		if path.Base(f.Path) == "__init__.py" {
			out[model.FolderOf(f.Path)] = true
		}
	}
	return out
}

func noStart(c *context) outcome {
	fs := c.programs()
	if len(fs) == 0 {
		return told(1, "No program starts in it.", nil)
	}
	ev := filesEvidence(fs, "a program starts in it")
	switch {
	case 20*len(fs) > len(c.source):
		return told(0, fmt.Sprintf("Programs start in %d of %d source files.", len(fs), len(c.source)), ev)
	case len(fs) == 1:
		return told(0.6, fmt.Sprintf("One program, %s, stands beside what it offers.", fs[0].Path), ev)
	}
	return told(0.6, fmt.Sprintf("%d programs stand beside what it offers.", len(fs)), ev)
}

func starts(c *context) outcome {
	packages := c.pythonPackages() // a module of a package may well run by itself, to show what it does
	var fs []*model.File
	for _, f := range c.source {
		if f.Facts != nil && f.Facts.Starts > 0 && (!packages[model.FolderOf(f.Path)] || path.Base(f.Path) == "__main__.py") {
			fs = append(fs, f)
		}
	}
	if len(c.source) == 0 {
		return told(0, "There is no program text to tell from.", nil)
	}
	share := float64(len(fs)) / float64(len(c.source))
	if share < 0.3 {
		share /= 4 // most software has a program or two to run in it
	}
	return told(share*1.7, fmt.Sprintf("%d of %d source files are programs to run.", len(fs), len(c.source)), filesEvidence(fs, "a program to run"))
}

func loose(c *context) outcome {
	linked := map[string]bool{}
	for _, l := range c.survey.Links {
		linked[l.From], linked[l.To] = true, true
	}
	n := 0
	for _, f := range c.source {
		if !linked[f.Path] {
			n++
		}
	}
	if len(c.source) == 0 {
		return told(0, "There is no program text to tell from.", nil)
	}
	return told(float64(n)/float64(len(c.source))*1.3, fmt.Sprintf("%d of %d source files neither need nor serve another.", n, len(c.source)), nil)
}
