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
	"jantel/core/syntax"
	"jantel/core/weave"
)

// catalogue lists the patterns that are told apart. A pattern is added here,
// with signals of its own or shared ones; docs/analysis.md tells how.
var catalogue = []pattern{
	{"layered", []signal{
		{
			30, true, 0,
			roles(
				"The code holds %s of the layers routes or handlers, logic, and data access",
				[]model.Role{model.RoleRouting, model.RoleHandler}, []model.Role{model.RoleLogic},
				[]model.Role{model.RoleDataAccess},
			),
		},
		{35, true, 0, downwards},
		{
			20, true, 45,
			named(
				"Folders are named for layers", "No folders are named for layers", 3, "routes", "handlers",
				"controllers", "logic", "services", "domain", "data", "repositories", "persistence", "store", "api",
				"business", "handler", "controller", "service", "repository", "router", "routers",
			),
		},
		{15, false, 0, skips},
	}},
	{"model-view-controller", []signal{
		{
			30, true, 0,
			roles(
				"The code holds %s of models, views and controllers",
				[]model.Role{model.RoleModel, model.RoleDataAccess}, []model.Role{model.RoleView},
				[]model.Role{model.RoleHandler},
			),
		},
		{
			50, true, 0,
			either(parts(
				"Folders are named models, views and controllers",
				"Folders are not named models, views and controllers", []string{"models", "model"},
				[]string{"views", "view", "templates"}, []string{"controllers", "controller"},
			), modelsViewsTemplates),
		},
		{
			20, false, 0,
			leads("Controllers use models", "No controller uses a model", model.RoleHandler, model.RoleModel, model.RoleDataAccess),
		},
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
		{
			30, false, 0,
			named(
				"A folder is named for stages", "No folder is named for stages", 1, "pipeline", "pipelines",
				"stages", "steps", "etl", "jobs", "passes",
			),
		},
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
		{70, true, 0, orTheCut(-1, kindShare)},
		{30, false, 0, pureFolders},
		{20, true, 30, cutBy(-1)},
	}},
	{"by feature", []signal{
		{60, true, 0, orTheCut(1, featureShare)},
		{40, false, 0, selfContained},
		{20, true, 30, cutBy(1)},
	}},
	{"components and pages", []signal{
		{
			40, true, 0,
			named(
				"There is a folder for components and one for pages",
				"There are no folders for components and for pages", 2, "components", "pages", "screens", "views",
			),
		},
		{30, true, 0, views},
		{30, false, 0, leads("Pages use components", "No page uses a component of the component folder", model.RoleView, model.RoleView)},
	}},
	{"apps and libs", []signal{
		{
			60, true, 0,
			named(
				"Top folders hold applications beside libraries",
				"There are no top folders for applications beside libraries", 2, appFolders...,
			),
		},
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
		return outcomeOf(float64(n)/float64(len(groups)), fmt.Sprintf(text, words[n])+".", ev)
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
			return outcomeOf(0, no+".", nil)
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
			return outcomeOf(
				min(share, 0.4), no+fmt.Sprintf(", but for %s.", strings.Join(names, ", ")),
				foldersEvidence(first, "so named"),
			)
		}
		return outcomeOf(share, yes+": "+strings.Join(names, ", ")+".", foldersEvidence(first, "so named"))
	}
}

// parts tests that a folder is named for each of the groups.
func parts(yes, no string, groups ...[]string) func(*context) outcome {
	return func(c *context) outcome {
		if ds := c.siblings(groups...); ds != nil {
			return outcomeOf(1, yes+": "+names(ds)+".", foldersEvidence(ds, "so named"))
		}
		var found []*model.Folder
		for _, g := range groups {
			if ds := c.foldersNamed(g...); len(ds) > 0 {
				found = append(found, ds[0])
			}
		}
		if two := c.siblings(groups[1:]...); len(found) < len(groups) && two != nil {
			// What they show is kept elsewhere.
			n := c.within(c.inner[two[0].Parent])
			return outcomeOf(
				0.7*c.large(n, 0.25),
				fmt.Sprintf("%s side by side, around which lie %d of %d source files.", names(two), n, len(c.source)),
				foldersEvidence(two, "so named"),
			)
		}
		switch {
		case len(found) == len(groups):
			// Apart from each other they must hold a good part of the code.
			n := c.within(found...)
			return outcomeOf(
				c.large(n, 0.25),
				fmt.Sprintf("%s: %s, with %d of %d source files.", yes, names(found), n, len(c.source)),
				foldersEvidence(found, "so named"),
			)
		case len(found) > 0:
			return outcomeOf(0.15*float64(len(found)), no+", but for "+names(found)+".", foldersEvidence(found, "so named"))
		}
		return outcomeOf(0, no+".", nil)
	}
}

// either is the better of two tests.
func either(a, b func(*context) outcome) func(*context) outcome {
	return func(c *context) outcome {
		x, y := a(c), b(c)
		if y.share > x.share {
			return y
		}
		return x
	}
}

// modelsViewsTemplates tests for the same in other words: what others call
// controllers is called views, beside templates and models, each a file or a
// folder.
func modelsViewsTemplates(c *context) outcome {
	var ev []model.Evidence
	var around []*model.Folder
	for _, d := range c.foldersNamed("templates") {
		var both []model.Evidence
		for _, name := range []string{"models", "views"} {
			for _, f := range c.source {
				rest, ok := strings.CutPrefix(f.Path, d.Parent+"/")
				if first, _, _ := strings.Cut(rest, "/"); ok && naming.Stem(first) == name {
					both = append(both, model.Evidence{Path: f.Path, Line: 1, Note: name})
					break
				}
			}
		}
		if up := c.inner[d.Parent]; len(both) == 2 && up != nil {
			around = append(around, up)
			ev = append(ev, both...)
			ev = append(ev, foldersEvidence([]*model.Folder{d}, "templates")...)
		}
	}
	if len(around) == 0 {
		return outcomeOf(0, "Nothing is named models, views and templates side by side.", nil)
	}
	// In a corner it says nothing of the whole.
	n := c.within(around...)
	says := fmt.Sprintf("Models, views that answer requests, and templates stand side by side, with %d of %d source files.", n, len(c.source))
	return outcomeOf(c.large(n, 0.25), says, ev)
}

// rank is the trade's order from outside to inside.
var rank = map[model.Role]int{model.RoleEntry: 1, model.RoleRouting: 2, model.RoleHandler: 3, model.RoleLogic: 4, model.RoleDataAccess: 5}

// fewBetween is the share of the dependencies from which on those between layers
// count in full.
const fewBetween = 0.03

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
	if down+up < max(3, min(8, len(c.source)/10)) {
		return outcomeOf(0, "There are too few dependencies between layers to tell their direction.", nil)
	}
	share := float64(down) / float64(down+up)
	// Half of them pointing down is chance; all of them is a direction.
	text := fmt.Sprintf("%d of %d dependencies between layers point from the outside in.", down, down+up)
	// A handful among thousands is not how a codebase is built.
	weight := min(1, float64(down+up)/(fewBetween*float64(len(c.edges))))
	return outcomeOf((share-0.5)*2*weight, text, linksEvidence(sorted(against)))
}

func sorted(ls []model.Link) []model.Link {
	out := slices.Clone(ls)
	slices.SortFunc(out, func(a, b model.Link) int {
		return cmp.Or(strings.Compare(a.From, b.From), cmp.Compare(a.Line, b.Line), strings.Compare(a.To, b.To))
	})
	return out
}

func skips(c *context) outcome {
	skip := append(
		append([]model.Link(nil), c.links[[2]model.Role{model.RoleHandler, model.RoleDataAccess}]...),
		c.links[[2]model.Role{model.RoleRouting, model.RoleDataAccess}]...,
	)
	direct := len(c.links[[2]model.Role{model.RoleHandler, model.RoleLogic}])
	if direct == 0 {
		return outcomeOf(0, "No handler uses the logic.", nil)
	}
	if len(skip) == 0 {
		return outcomeOf(1, fmt.Sprintf("Handlers reach data only through the logic (%d dependencies).", direct), nil)
	}
	return outcomeOf(
		float64(direct)/float64(direct+2*len(skip)),
		fmt.Sprintf("%d dependencies of handlers or routes skip the logic and reach data directly; %d keep to it.", len(skip), direct),
		linksEvidence(sorted(skip)),
	)
}

func leads(yes, no string, from model.Role, to ...model.Role) func(*context) outcome {
	return func(c *context) outcome {
		var ls []model.Link
		for _, t := range to {
			ls = append(ls, c.links[[2]model.Role{from, t}]...)
		}
		if len(ls) == 0 {
			return outcomeOf(0, no+".", nil)
		}
		return outcomeOf(min(1, float64(len(ls))/4), fmt.Sprintf("%s (%d dependencies).", yes, len(ls)), linksEvidence(sorted(ls)))
	}
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
		return outcomeOf(0, "There is no program text to tell from.", nil)
	}
	for r, fs := range c.byRole {
		if r != "" && 100*len(fs) >= 85*len(c.source) {
			return outcomeOf(0, fmt.Sprintf("It holds little but %s: %d of %d source files.", weave.Plural(r), len(fs), len(c.source)), nil)
		}
	}
	share := float64(n) / float64(len(c.source))
	return outcomeOf(
		share*1.15,
		fmt.Sprintf("%d of %d source files lie in folders named for a technical kind.", n, len(c.source)),
		foldersEvidence(first, "named for a kind"),
	)
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
		return outcomeOf(0, "There are too few folders of three files or more to compare.", nil)
	}
	return outcomeOf(
		float64(pure)/float64(all),
		fmt.Sprintf("%d of %d folders of three files or more hold files of one role.", pure, all), nil,
	)
}

// cutBy tests whether the cut of the folders goes the same way: 1 for by
// feature, -1 for by kind. Mixed speaks for neither and against neither.
func cutBy(way float64) func(*context) outcome {
	told := func(cut model.Cut) outcome {
		if cut.Value == nil || math.Abs(*cut.Value) <= 0.2 {
			return outcome{silent: true}
		}
		what := "feature lie together more than files of one kind"
		if *cut.Value < 0 {
			what = "kind lie together more than files of one feature"
		}
		share := 0.0
		if *cut.Value*way > 0 {
			share = 1
		}
		return outcomeOf(share, fmt.Sprintf("Files of one %s (cut %.2f).", what, *cut.Value), nil)
	}
	return func(*context) outcome { return outcome{byCut: told} }
}

// What the cut says alone of how folders are laid out, told from both sides and from one:
// that files of one feature lie together whatever their kinds makes no pattern of it.
const (
	cutFromBoth = 0.55
	cutFromOne  = 0.2
)

// orTheCut takes what the cut says where a test of the folders themselves says less: of
// which kinds files are is not always known, and which lie together is.
func orTheCut(way float64, of func(*context) outcome) func(*context) outcome {
	return func(c *context) outcome {
		out := of(c)
		return outcome{byCut: func(cut model.Cut) outcome {
			if cut.Value == nil || *cut.Value*way <= 0.2 || len(cut.Evidence) == 0 {
				return out
			}
			share := cutFromOne
			if len(cut.Evidence) > 1 {
				share = cutFromBoth
			}
			if out.silent || out.share >= share {
				return out
			}
			return outcomeOf(share, "By which files lie in one folder: "+cut.Evidence[0].Note+".", nil)
		}}
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
		return outcomeOf(0, "Fewer than three folders hold a feature with all its roles.", nil)
	}
	for _, held := range counts {
		if 10*held > 7*len(c.source) {
			return outcomeOf(0, "One folder holds most of the code.", nil)
		}
	}
	return outcomeOf(
		float64(n)/float64(len(c.source))*1.2,
		fmt.Sprintf("%d folders hold three or more roles each, together %d of %d source files.", features, n, len(c.source)),
		foldersEvidence(ds, "holds three or more roles"),
	)
}

func genericName(n string) bool {
	switch strings.Join(naming.Words(n), " ") {
	case "src", "lib", "app", "internal", "pkg", "source", "main", "packages":
		return true
	}
	return false
}

func selfContained(c *context) outcome {
	same, across, packages := 0, 0, 0
	for _, l := range c.survey.Links {
		if l.Kind.Repeats() || !c.judged[l.From] || !c.judged[l.To] || c.roles[l.From].Role == model.RoleTest {
			continue
		}
		if syntax.ProfileOf(c.survey.File(l.From).Language).FolderPackages {
			packages++ // within one nothing has to be taken in
		} else if model.FolderOf(l.From) == model.FolderOf(l.To) {
			same++
		} else {
			across++
		}
	}
	if packages > same+across {
		return outcome{silent: true}
	}
	if same+across < 5 {
		return outcomeOf(0, "There are too few dependencies to tell whether folders stand on their own.", nil)
	}
	share := float64(same) / float64(same+across)
	says := fmt.Sprintf("%s of %s dependencies stay within their folder.", naming.Figure(same), naming.Figure(same+across))
	return outcomeOf(share*1.6, says, nil)
}

func views(c *context) outcome {
	p := c.part(model.RoleView)
	return outcomeOf(
		p*2.5,
		fmt.Sprintf("%d of %d source files draw the interface.", len(c.byRole[model.RoleView]), len(c.source)),
		filesEvidence(c.byRole[model.RoleView], "draws"),
	)
}
