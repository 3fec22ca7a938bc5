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
	"jantel/core/relations"
)

// ending reports whether the words of a name end with one of the endings, each
// written as it is split: "view model".
func ending(name string, endings ...string) bool {
	// Few names end so: the last letters turn the others away.
	if !slices.ContainsFunc(endings, func(e string) bool {
		last := e[strings.LastIndexByte(e, ' ')+1:]
		return len(name) >= len(last) && strings.EqualFold(name[len(name)-len(last):], last)
	}) {
		return false
	}
	words := " " + strings.Join(naming.Words(name), " ")
	return slices.ContainsFunc(endings, func(e string) bool { return strings.HasSuffix(words, " "+e) })
}

// filesEnding are the source files whose name ends so.
func (c *context) filesEnding(endings ...string) (out []*model.File) {
	for _, f := range c.source {
		if ending(naming.Stem(f.Path), endings...) {
			out = append(out, f)
		}
	}
	return out
}

// between counts the links from files for which a holds to files for which b
// does, and lists them.
func (c *context) between(a, b func(p string) bool) (out []model.Link) {
	for _, l := range c.edges {
		if a(l.From) && b(l.To) {
			out = append(out, *l)
		}
	}
	return out
}

// into are the dependencies on some files, in the order of the survey.
func (c *context) into(paths iter.Seq[string]) (out []*model.Link) {
	if c.needed == nil {
		c.needed = map[string][]int{}
		for i, l := range c.edges {
			c.needed[l.To] = append(c.needed[l.To], i)
		}
	}
	var at []int
	for p := range paths {
		at = append(at, c.needed[p]...)
	}
	slices.Sort(at)
	for _, i := range at {
		out = append(out, c.edges[i])
	}
	return out
}

func in(d *model.Folder) func(p string) bool {
	return func(p string) bool { return model.Within(d.Path, p) }
}

// siblings finds folders that lie side by side, one for each group of names;
// none where a group has none beside the others.
func (c *context) siblings(groups ...[]string) []*model.Folder {
	for _, first := range c.foldersNamed(groups[0]...) {
		found := []*model.Folder{first}
		for _, g := range groups[1:] {
			for _, d := range c.foldersNamed(g...) {
				if d.Parent == first.Parent && !slices.Contains(found, d) {
					found = append(found, d)
					break
				}
			}
		}
		if len(found) == len(groups) {
			return found
		}
	}
	return nil
}

// large is 1 when so many files are at least that share of the source, less as
// they are fewer: what makes up a corner of a codebase is not how it is built.
func (c *context) large(files int, share float64) float64 {
	return min(1, float64(files)/float64(len(c.source))/share)
}

// within counts the source files below folders.
func (c *context) within(ds ...*model.Folder) (n int) {
	if len(ds) == 1 {
		return len(reading.At(c.source, ds[0].Path))
	}
	for _, f := range c.source {
		if slices.ContainsFunc(ds, func(d *model.Folder) bool { return model.Within(d.Path, f.Path) }) {
			n++
		}
	}
	return n
}

func names(ds []*model.Folder) string {
	var out []string
	for _, d := range ds {
		out = append(out, d.Name)
	}
	return strings.Join(out, ", ")
}

// Model, view and view model.

var viewModelWords = []string{"view model", "viewmodel", "vm"}

func viewModels(c *context) outcome {
	fs := c.filesEnding(viewModelWords...)
	if len(fs) == 0 {
		return outcomeOf(0, "No file is named for a view model.", nil)
	}
	return outcomeOf(
		min(float64(len(fs))/2, c.large(len(fs), 0.1)),
		fmt.Sprintf("%d of %d source files are view models by their names.", len(fs), len(c.source)),
		filesEvidence(fs, "a view model"),
	)
}

// paired tests that view models have a view of the same name.
func paired(c *context) outcome {
	fs := c.filesEnding(viewModelWords...)
	views := map[string]bool{}
	for _, f := range c.survey.Files {
		if c.roles[f.Path].Role == model.RoleView || strings.HasSuffix(f.Path, ".xaml") {
			words := naming.Words(naming.Stem(f.Path))
			for n := len(words); n > 0; n-- {
				views[strings.Join(words[:n], " ")] = true
			}
		}
	}
	n := 0
	for _, f := range fs {
		words := " " + strings.Join(naming.Words(naming.Stem(f.Path)), " ")
		for _, e := range viewModelWords {
			if rest, ok := strings.CutSuffix(words, " "+e); ok && views[strings.TrimSpace(rest)] {
				n++
				break
			}
		}
	}
	if len(fs) == 0 {
		return outcomeOf(0, "There are no view models that could belong to views.", nil)
	}
	return outcomeOf(
		float64(n)/float64(len(fs)), fmt.Sprintf("%d of %d view models have a view of the same name.", n, len(fs)),
		filesEvidence(fs, "a view model"),
	)
}

func viewModelsApart(c *context) outcome {
	fs := c.filesEnding(viewModelWords...)
	if len(fs) == 0 {
		return outcomeOf(0, "There are no view models that could know their views.", nil)
	}
	own := map[string]bool{}
	for _, f := range fs {
		own[f.Path] = true
	}
	ls := c.between(func(p string) bool { return own[p] }, func(p string) bool { return c.roles[p].Role == model.RoleView && !own[p] })
	if len(ls) == 0 {
		return outcomeOf(1, "No view model needs a view.", nil)
	}
	return outcomeOf(
		1-float64(len(ls))/float64(len(fs)), fmt.Sprintf("%d dependencies lead from view models to views.", len(ls)),
		linksEvidence(ls),
	)
}

// A core, features and what they share.

var (
	coreNames    = []string{"core"}
	featureNames = []string{"features", "feature", "modules", "domains"}
	sharedNames  = []string{"shared", "common"}
)

func threeParts(c *context) outcome {
	ds := c.siblings(coreNames, featureNames, sharedNames)
	if ds == nil {
		return outcomeOf(0, "There is no core beside features and what they share.", nil)
	}
	return outcomeOf(
		c.large(c.within(ds...), 0.5),
		fmt.Sprintf(
			"A core, features and what they share lie side by side: %s, with %d of %d source files.", names(ds),
			c.within(ds...), len(c.source),
		),
		foldersEvidence(ds, "so named"),
	)
}

// featuresApart tests that what is shared knows no feature, nor one feature
// another.
func featuresApart(c *context) outcome {
	ds := c.siblings(coreNames, featureNames, sharedNames)
	if ds == nil {
		return outcomeOf(0, "There are no features that could be kept apart.", nil)
	}
	features := ds[1]
	of := func(p string) string {
		rest := strings.TrimPrefix(p, features.Path+"/")
		first, _, _ := strings.Cut(rest, "/")
		return first
	}
	var against []model.Link
	for _, l := range c.between(func(string) bool { return true }, in(features)) {
		inside := model.Within(features.Path, l.From)
		if inside && of(l.From) != of(l.To) || !inside && (model.Within(ds[0].Path, l.From) || model.Within(ds[2].Path, l.From)) {
			against = append(against, l)
		}
	}
	down := len(c.between(in(features), in(ds[0]))) + len(c.between(in(features), in(ds[2])))
	if down == 0 {
		return outcomeOf(0, "No feature uses the core or what is shared.", nil)
	}
	return outcomeOf(
		1-2*float64(len(against))/float64(down+len(against)),
		fmt.Sprintf(
			"%d dependencies lead from features to the core and to what is shared, %d the other way or between features.",
			down, len(against),
		),
		linksEvidence(against),
	)
}

// Interface, logic and data.

func uiLogicData(c *context) []*model.Folder {
	return c.siblings(
		[]string{"ui", "presentation", "gui"}, []string{"logic", "business", "domain", "bll"},
		[]string{"data", "dal", "persistence", "storage"},
	)
}

func threeTiers(c *context) outcome {
	ds := uiLogicData(c)
	if ds == nil {
		return outcomeOf(0, "There are no three folders for interface, logic and data side by side.", nil)
	}
	return outcomeOf(
		c.large(c.within(ds...), 0.5),
		fmt.Sprintf(
			"Interface, logic and data lie side by side: %s, with %d of %d source files.", names(ds),
			c.within(ds...), len(c.source),
		),
		foldersEvidence(ds, "so named"),
	)
}

func tiersDown(c *context) outcome {
	ds := uiLogicData(c)
	if ds == nil {
		return outcomeOf(0, "There are no tiers whose direction could be told.", nil)
	}
	down := len(c.between(in(ds[0]), in(ds[1]))) + len(c.between(in(ds[1]), in(ds[2])))
	skip := c.between(in(ds[0]), in(ds[2]))
	up := append(append(c.between(in(ds[1]), in(ds[0])), c.between(in(ds[2]), in(ds[1]))...), c.between(in(ds[2]), in(ds[0]))...)
	if down == 0 {
		return outcomeOf(0, "No tier uses the one below it.", nil)
	}
	text := fmt.Sprintf("%d dependencies lead from a tier to the one below, %d skip one and %d lead upwards.", down, len(skip), len(up))
	return outcomeOf(1-float64(len(skip)+2*len(up))/float64(down+len(skip)+len(up)), text, linksEvidence(append(up, skip...)))
}

// Message loops: one state, messages, and a function that takes both.

func updates(c *context) outcome {
	var ev []model.Evidence
	named := map[string]bool{} // folders in which a type names messages
	for _, f := range c.source {
		named[model.FolderOf(f.Path)] = named[model.FolderOf(f.Path)] || slices.ContainsFunc(f.Facts.Definitions, isMessage)
	}
	for _, f := range c.source {
		if !named[model.FolderOf(f.Path)] {
			continue
		}
		for _, d := range f.Facts.Definitions {
			if (d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefVariable ||
				d.Kind == model.DefConstant) && (d.Params == 2 || d.Params == 0 && d.Kind != model.DefFunction) &&
				(ending(d.Name, "update", "reduce", "reducer") && !strings.HasPrefix(d.Name, "create")) {
				ev = append(ev, model.Evidence{Path: f.Path, Line: d.Line, Note: d.Name})
				break
			}
		}
	}
	if len(ev) == 0 {
		return outcomeOf(0, "No function takes a state and a message to the next state.", nil)
	}
	return outcomeOf(
		min(float64(len(ev))/2, c.large(len(ev), 0.1)),
		fmt.Sprintf("%d files define a function from state and message to the next state.", len(ev)),
		ev[:min(5, len(ev))],
	)
}

func isMessage(d model.Definition) bool {
	switch d.Kind {
	case model.DefType, model.DefEnum, model.DefInterface, model.DefClass:
		return ending(d.Name, "msg", "message", "action", "actions")
	}
	return false
}

func messageTypes(c *context) outcome {
	var ev []model.Evidence
	for _, f := range c.source {
		for _, d := range f.Facts.Definitions {
			if isMessage(d) {
				ev = append(ev, model.Evidence{Path: f.Path, Line: d.Line, Note: d.Name})
			}
		}
	}
	if len(ev) == 0 {
		return outcomeOf(0, "No type names the messages.", nil)
	}
	return outcomeOf(1, fmt.Sprintf("%d types name the messages.", len(ev)), ev[:min(5, len(ev))])
}

// draws tests that what draws is a function of the state beside it.
func draws(c *context) outcome {
	ls := c.between(
		func(p string) bool { return c.roles[p].Role == model.RoleView || c.roles[p].Role == model.RoleEntry },
		func(p string) bool { return c.roles[p].Role == model.RoleState || c.roles[p].Role == model.RoleMessage },
	)
	n := 0
	var ev []model.Evidence
	for _, f := range c.source {
		for _, d := range f.Facts.Definitions {
			if d.Kind == model.DefFunction && d.Name == "view" {
				n++
				ev = append(ev, model.Evidence{Path: f.Path, Line: d.Line, Note: "view"})
			}
		}
	}
	if n == 0 && len(ls) == 0 {
		return outcomeOf(0, "Nothing that draws depends on a state or its messages.", nil)
	}
	return outcomeOf(
		float64(n+len(ls))/2,
		fmt.Sprintf("%d functions draw a state, and %d dependencies lead from what draws to it.", n, len(ls)),
		append(ev, linksEvidence(ls)...),
	)
}

// Publish and subscribe.

func tiedByMessages(c *context) outcome {
	type ends struct{ send, receive map[string]bool }
	by := map[string]*ends{}
	at := map[string]model.Evidence{}
	for _, m := range c.messages() {
		if !c.judged[m.Path] || c.roles[m.Path].Role == model.RoleTest {
			continue
		}
		e := by[m.Name]
		if e == nil {
			e = &ends{map[string]bool{}, map[string]bool{}}
			by[m.Name] = e
		}
		if m.Direction == model.Send {
			e.send[m.Path] = true
			at[m.Name] = model.Evidence{Path: m.Path, Line: m.Line, Note: m.Name}
		} else {
			e.receive[m.Path] = true
		}
	}
	var ev []model.Evidence
	parts := map[string]bool{}
	observed := relations.Observed(c.survey, c.messages())
	for _, n := range slices.Sorted(maps.Keys(by)) {
		e := by[n]
		apart := false
		drawn := true // by what is drawn alone: a part of an interface tells who placed it
		for s := range e.send {
			drawn = drawn && c.roles[s].Role == model.RoleView
		}
		if observed[n] != nil || drawn {
			continue // who receives it has who sends it at hand
		}
		for s := range e.send {
			for r := range e.receive {
				apart = apart || s != r
			}
		}
		if !apart {
			continue
		}
		ev = append(ev, at[n])
		for p := range e.send {
			parts[p] = true
		}
		for p := range e.receive {
			parts[p] = true
		}
	}
	if len(ev) == 0 {
		return outcomeOf(0, "No message goes by name from one file to another.", nil)
	}
	text := fmt.Sprintf(
		"%d messages go by name from one file to another; %d of %d source files send or receive one.", len(ev),
		len(parts), len(c.source),
	)
	return outcomeOf(min(float64(len(ev))/3, 3*float64(len(parts))/float64(len(c.source))), text, ev[:min(5, len(ev))])
}

// receiversUnknown tests that those who send do not need those who receive.
func receiversUnknown(c *context) outcome {
	send, receive := map[string]bool{}, map[string]bool{}
	for _, m := range c.messages() {
		if m.Direction == model.Send {
			send[m.Path] = true
		} else {
			receive[m.Path] = true
		}
	}
	if len(send) == 0 || len(receive) == 0 {
		return outcomeOf(0, "Nothing sends to what could receive.", nil)
	}
	ls := c.between(func(p string) bool { return send[p] && !receive[p] }, func(p string) bool { return receive[p] && !send[p] })
	ls = slices.DeleteFunc(ls, func(l model.Link) bool { return l.Kind == model.LinkMessage })
	if len(ls) == 0 {
		return outcomeOf(1, "Nobody who sends needs one who receives.", nil)
	}
	return outcomeOf(
		1-float64(len(ls))/float64(len(send)),
		fmt.Sprintf("%d dependencies lead from who sends to who receives.", len(ls)), linksEvidence(ls),
	)
}

// Pipelines.

var stageWords = []string{
	"stage", "stages", "step", "steps", "pipeline", "transform", "transforms", "filter", "filters", "extract",
	"load", "clean", "parse", "normalize", "normalise", "enrich", "sink", "emit", "ingest", "validate", "write",
	"read", "export", "split", "merge", "sort", "render", "join", "report", "lexer", "scanner", "tokenizer", "parser", "compiler", "codegen",
	"generator", "emitter", "optimizer", "optimiser", "checker", "summarise", "summarize",
}

// row finds the folder whose files are stages: one file needs most of them in
// turn, and they do not need each other.
func row(c *context) outcome {
	best := outcomeOf(0, "No file puts stages in a row that do not know each other.", nil)
	// A stage is a file, or a folder beside others; by what holds them.
	byFolder := map[string]map[string]string{}
	put := func(d, p, name string) {
		words := naming.Words(name)
		for len(words) > 1 && words[0][0] >= '0' && words[0][0] <= '9' {
			words = words[1:]
		}
		if len(words) == 0 || !slices.Contains(stageWords, words[0]) && !slices.Contains(stageWords, words[len(words)-1]) {
			return
		}
		if byFolder[d] == nil {
			byFolder[d] = map[string]string{}
		}
		byFolder[d][p] = name
	}
	for _, f := range c.source {
		d := model.FolderOf(f.Path)
		put(d, f.Path, naming.Stem(f.Path))
		if d != "." {
			put(model.FolderOf(d), f.Path, path.Base(d))
		}
	}
	for _, d := range slices.Sorted(maps.Keys(byFolder)) {
		of := byFolder[d]
		stages := map[string]bool{}
		for _, name := range of {
			stages[name] = true
		}
		if len(stages) < 3 {
			continue
		}
		into := c.into(maps.Keys(of))
		among := []model.Link{}
		use := map[string]map[string]bool{}
		for _, l := range into {
			if from := of[l.From]; from != "" {
				if from != of[l.To] {
					among = append(among, *l)
				}
				continue
			}
			if use[l.From] == nil {
				use[l.From] = map[string]bool{}
			}
			use[l.From][of[l.To]] = true
		}
		driver, most := "", 0
		for _, p := range slices.Sorted(maps.Keys(use)) {
			if len(use[p]) > most {
				driver, most = p, len(use[p])
			}
		}
		apart := 1 - float64(len(among))/float64(len(stages))
		if len(among) < len(stages) && translates(stages) && inTurn(among, of) {
			most, apart = reached(use[driver], among, of), 0.8 // each asks the one before it
		}
		if most < 3 {
			continue
		}
		share := (float64(most)/float64(len(stages)) - 1 + apart) * c.large(len(of), 0.2)
		if share > best.share {
			best = outcomeOf(
				share,
				fmt.Sprintf(
					"%s puts %d of %d stages of %s in a row; they need each other %s.", driver, most,
					len(stages), d, times(len(among)),
				),
				append([]model.Evidence{{Path: driver, Note: "puts the stages in a row"}}, linksEvidence(among)...),
			)
		}
	}
	return best
}

// translators are the stages of what turns one language into another; there each
// asks the one before it for more, and nobody stands over them.
var translators = []string{"lexer", "scanner", "tokenizer", "parser", "compiler", "codegen", "emitter", "optimizer", "optimiser", "checker"}

func translates(stages map[string]bool) bool {
	n := 0
	for name := range stages {
		if w := naming.Words(name); slices.Contains(translators, w[len(w)-1]) {
			n++
		}
	}
	return n > 1
}

// inTurn reports whether no stage needs more than one other and none is needed
// by more than one.
func inTurn(among []model.Link, of map[string]string) bool {
	next, before := map[string]string{}, map[string]string{}
	for _, l := range among {
		from, to := of[l.From], of[l.To]
		if next[from] != "" && next[from] != to || before[to] != "" && before[to] != from {
			return false
		}
		next[from], before[to] = to, from
	}
	return true
}

// reached counts the stages that a driver needs itself or through others.
func reached(direct map[string]bool, among []model.Link, of map[string]string) int {
	seen := maps.Clone(direct)
	for again := true; again; {
		again = false
		for _, l := range among {
			if seen[of[l.From]] && !seen[of[l.To]] {
				seen[of[l.To]], again = true, true
			}
		}
	}
	return len(seen)
}
