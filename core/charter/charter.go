// Package charter reads the architecture that a lead declares and finds the
// dependencies that it forbids.
package charter

import (
	"cmp"
	"errors"
	"fmt"
	"path"
	"slices"
	"strings"
	"time"

	"jantel/core/model"
	"jantel/core/reading"

	"github.com/bmatcuk/doublestar/v4"
	"github.com/goccy/go-yaml"
	"github.com/goccy/go-yaml/ast"
	"github.com/goccy/go-yaml/parser"
)

// FileName is where a charter lies in a codebase.
const FileName = "jantel.yaml"

// Limits of a charter, checked before it is decoded.
const (
	MaxBytes   = 256 << 10
	maxNesting = 12
	maxGlobs   = 2000
)

// Charter is the declared architecture.
type Charter struct {
	// Rings says that the layers are rings around a core, the first of them
	// the outermost, and are drawn so.
	Rings      bool               `yaml:"rings,omitempty" json:"rings"`
	Layers     []Layer            `yaml:"layers" json:"layers"`
	Apart      []Area             `yaml:"apart,omitempty" json:"apart"`
	Exceptions []Exception        `yaml:"exceptions,omitempty" json:"exceptions"`
	Thresholds map[string]float64 `yaml:"thresholds,omitempty" json:"thresholds"`
	// Names are rules of the codebase's own for how things are named, Glossary what its
	// words stand for.
	Names    []NameRule `yaml:"names,omitempty" json:"names"`
	Glossary []Term     `yaml:"glossary,omitempty" json:"glossary"`
}

// NameRule says how things of some kinds are named below some places. Each of its
// demands that is given has to hold.
type NameRule struct {
	Of     []string `yaml:"of" json:"of"` // kinds of definitions, "file" or "folder"
	Places []string `yaml:"places,omitempty" json:"places"`
	Case   string   `yaml:"case,omitempty" json:"case"`
	Begins []string `yaml:"begins,omitempty" json:"begins"` // with one of these
	Ends   []string `yaml:"ends,omitempty" json:"ends"`
	Not    []string `yaml:"not,omitempty" json:"not"` // words that it has not
	Why    string   `yaml:"why,omitempty" json:"why"`
}

// Term is a word of the codebase's users: what it stands for, and the words that are
// not to be said instead of it.
type Term struct {
	Word  string   `yaml:"word" json:"word"`
	Means string   `yaml:"means,omitempty" json:"means"`
	Not   []string `yaml:"not,omitempty" json:"not"`
}

// Layer is a part with what it holds and what it may depend on. A layer may
// always depend on itself. The wiring layer may depend on everything.
type Layer struct {
	Name   string   `yaml:"name" json:"name"`
	Holds  []string `yaml:"holds" json:"holds"`
	May    []string `yaml:"may,omitempty" json:"may"`
	Wiring bool     `yaml:"wiring,omitempty" json:"wiring"`
	line   int
}

// Area names places that must not depend on each other, in either direction.
type Area struct {
	Name   string   `yaml:"name" json:"name"`
	Places []string `yaml:"places" json:"places"`
}

// Exception allows a dependency that the layers forbid, for a reason, until a
// day.
type Exception struct {
	From   string `yaml:"from" json:"from"`
	To     string `yaml:"to" json:"to"`
	Reason string `yaml:"reason" json:"reason"`
	Until  string `yaml:"until,omitempty" json:"until" doc:"last day it holds, as YYYY-MM-DD; empty for good"`
	line   int
}

// Fault is what is wrong with a charter, at a line of its text.
type Fault struct {
	Line int    `json:"line"`
	Text string `json:"text"`
}

func (f Fault) Error() string {
	if f.Line > 0 {
		return fmt.Sprintf("line %d: %s", f.Line, f.Text)
	}
	return f.Text
}

// Parse reads a charter. What is wrong comes back as faults, each with its
// line; the charter is nil then.
func Parse(src []byte) (out *Charter, faults []Fault) {
	// The library that reads YAML gives up on some texts instead of refusing
	// them: a charter must not take the survey with it.
	defer func() {
		if p := recover(); p != nil {
			out, faults = nil, []Fault{{0, "not YAML that can be read"}}
		}
	}()
	if f := bounded(src); f != nil {
		return nil, []Fault{*f}
	}
	file, err := parser.ParseBytes(src, 0)
	if err != nil {
		return nil, []Fault{faultOf(err)}
	}
	var c Charter
	if len(file.Docs) == 0 || file.Docs[0].Body == nil {
		return nil, []Fault{{1, "the charter is empty: it needs layers"}}
	}
	if err := yaml.NodeToValue(file.Docs[0].Body, &c, yaml.DisallowUnknownField()); err != nil {
		return nil, []Fault{faultOf(err)}
	}
	for i, line := range linesOf(file.Docs[0].Body, "layers") {
		if i < len(c.Layers) {
			c.Layers[i].line = line
		}
	}
	for i, line := range linesOf(file.Docs[0].Body, "exceptions") {
		if i < len(c.Exceptions) {
			c.Exceptions[i].line = line
		}
	}
	if faults := c.check(src); len(faults) > 0 {
		return nil, faults
	}
	c.fill()
	return &c, nil
}

// fill makes empty lists of those that are left out, as readers of the API
// expect them.
func (c *Charter) fill() {
	for i := range c.Layers {
		if c.Layers[i].May == nil {
			c.Layers[i].May = []string{}
		}
	}
	if c.Apart == nil {
		c.Apart = []Area{}
	}
	if c.Exceptions == nil {
		c.Exceptions = []Exception{}
	}
	c.fillNames()
	if c.Thresholds == nil {
		c.Thresholds = map[string]float64{}
	}
}

// bounded turns away what is too large or could explode before it is decoded.
func bounded(src []byte) *Fault {
	if len(src) > MaxBytes {
		return &Fault{0, fmt.Sprintf("the charter has %d bytes; at most %d are read", len(src), MaxBytes)}
	}
	n := 0
	for line := range strings.Lines(string(src)) {
		n++
		text := strings.TrimRight(line, "\r\n")
		body, _, _ := strings.Cut(text, " #")
		trimmed := strings.TrimLeft(body, " ")
		if len(body)-len(trimmed) > 2*maxNesting || strings.Count(body, "[")+strings.Count(body, "{") > maxNesting ||
			strings.HasPrefix(strings.TrimLeft(trimmed, " "), strings.Repeat("- ", maxNesting)) {
			return &Fault{n, "nested deeper than a charter can be"}
		}
		if strings.Contains(text, "\t") && strings.TrimLeft(text, " \t") != text &&
			strings.Contains(text[:len(text)-len(strings.TrimLeft(text, " \t"))], "\t") {
			return &Fault{n, "indented with a tab; YAML takes blanks"}
		}
		// Quoted globs may hold these signs; a plain value that starts with one
		// names something said elsewhere.
		for _, f := range strings.Fields(strings.TrimPrefix(strings.TrimSpace(body), "- ")) {
			if len(f) > 1 && (f[0] == '&' || f[0] == '*') && f[1] != '*' && f[1] != '/' && f[1] != '.' && !strings.ContainsAny(f, `"'`) {
				return &Fault{n, "anchors and aliases are not taken; write it out (and put a glob that starts with * in quotes)"}
			}
		}
	}
	return nil
}

func faultOf(err error) Fault {
	var y yaml.Error
	if errors.As(err, &y) {
		line := 0
		if t := y.GetToken(); t != nil && t.Position != nil {
			line = t.Position.Line
		}
		return Fault{line, y.GetMessage()}
	}
	return Fault{0, err.Error()}
}

// linesOf are the lines on which the entries of a list stand.
func linesOf(n ast.Node, key string) (out []int) {
	m, ok := n.(*ast.MappingNode)
	if !ok {
		return nil
	}
	for _, v := range m.Values {
		if v.Key.String() != key {
			continue
		}
		if s, ok := v.Value.(*ast.SequenceNode); ok {
			for _, e := range s.Values {
				out = append(out, e.GetToken().Position.Line)
			}
		}
	}
	return out
}

// LineOf is the first line of a charter that holds a text, 0 where none does.
func LineOf(src []byte, text string) int {
	i := strings.Index(string(src), text)
	if i < 0 || text == "" {
		return 0
	}
	return strings.Count(string(src[:i]), "\n") + 1
}

// faults gathers what is wrong with a charter.
type faults struct {
	src   []byte
	found []Fault
	globs int
}

func (x *faults) add(line int, format string, args ...any) {
	x.found = append(x.found, Fault{line, fmt.Sprintf(format, args...)})
}

func (x *faults) glob(g string) {
	x.globs++
	if !doublestar.ValidatePattern(g) || strings.HasPrefix(g, "/") || strings.Contains(g, "..") {
		x.add(LineOf(x.src, g), "%q is no glob of paths below the root", g)
	}
}

func (c *Charter) check(src []byte) []Fault {
	x := &faults{src: src}
	if len(c.Layers) == 0 && len(c.Names)+len(c.Glossary) == 0 {
		x.add(1, "a charter needs at least one layer")
	}
	x.names(c)
	names := map[string]bool{}
	for _, l := range c.Layers {
		x.layer(l, names[l.Name])
		names[l.Name] = true
	}
	for _, l := range c.Layers {
		for _, m := range l.May {
			if !names[m] {
				x.add(l.line, "%q may depend on %q, which is no layer", l.Name, m)
			}
		}
	}
	for _, a := range c.Apart {
		if len(a.Places) < 2 {
			x.add(LineOf(src, a.Name), "areas kept apart need at least two places")
		}
		for _, g := range a.Places {
			x.glob(g)
		}
	}
	for _, e := range c.Exceptions {
		x.exception(e)
	}
	if x.globs > maxGlobs {
		x.add(0, "more than %d globs", maxGlobs)
	}
	return x.found
}

func (x *faults) layer(l Layer, twice bool) {
	switch {
	case l.Name == "":
		x.add(l.line, "a layer needs a name")
	case twice:
		x.add(l.line, "two layers are called %q", l.Name)
	}
	if len(l.Holds) == 0 {
		x.add(l.line, "the layer %q holds nothing; give it globs under holds", l.Name)
	}
	for _, g := range l.Holds {
		x.glob(g)
	}
}

func (x *faults) exception(e Exception) {
	x.glob(e.From)
	x.glob(e.To)
	if strings.TrimSpace(e.Reason) == "" {
		x.add(e.line, "an exception needs a reason")
	}
	if e.Until == "" {
		return
	}
	if _, err := time.Parse(time.DateOnly, e.Until); err != nil {
		x.add(e.line, "%q is no day as YYYY-MM-DD", e.Until)
	}
}

// Breach is a dependency that the charter forbids.
type Breach struct {
	From      string         `json:"from"`
	To        string         `json:"to"`
	Line      int            `json:"line"`
	Text      string         `json:"text"`
	Kind      model.LinkKind `json:"kind"`
	LayerFrom string         `json:"layer_from"`
	LayerTo   string         `json:"layer_to"`
	Rule      string         `json:"rule"`
}

// Result is what comes of holding a codebase against a charter.
type Result struct {
	Breaches []Breach          `json:"breaches"`
	LayerOf  map[string]string `json:"-"`
	Loose    []string          `json:"loose" doc:"judged source files that no layer holds"`
	Idle     []string          `json:"idle" doc:"globs that match nothing"`
	Expired  []Exception       `json:"expired"`
	Wiring   []model.Evidence  `json:"wiring" doc:"logic in the layer that only wires"`
}

// Hold holds a codebase against the charter. Dependencies of tests are left
// out; today decides which exceptions have expired.
func (c *Charter) Hold(r *reading.Reading, today time.Time) *Result {
	x := &comparison{Charter: c, r: r, used: map[string]bool{}, Result: &Result{
		Breaches: []Breach{}, LayerOf: map[string]string{}, Loose: []string{}, Idle: []string{},
		Expired: []Exception{}, Wiring: []model.Evidence{},
	}}
	for f := range r.Own(".") {
		x.place(f)
	}
	live := x.live(today)
	x.idle(live)
	x.links(live)
	for _, f := range r.Files {
		x.wiring(f)
	}
	return x.Result
}

// comparison is a charter and a codebase on the way to a result.
type comparison struct {
	*Charter
	*Result
	r    *reading.Reading
	used map[string]bool // globs that match a file
}

// place finds the layer of a file, and notes which globs match it.
func (x *comparison) place(f *model.File) {
	for _, l := range x.Layers {
		for _, g := range l.Holds {
			if x.matches(g, f.Path) && x.LayerOf[f.Path] == "" {
				x.LayerOf[f.Path] = l.Name
			}
		}
	}
	if x.LayerOf[f.Path] == "" && len(f.Facts.Definitions) > 0 && !aside[x.r.Role(f.Path)] {
		x.Loose = append(x.Loose, f.Path)
	}
	for _, a := range x.Apart {
		for _, g := range a.Places {
			x.matches(g, f.Path)
		}
	}
	for _, e := range x.Exceptions {
		x.matches(e.From, f.Path)
		x.matches(e.To, f.Path)
	}
}

// aside are the roles of files that need no layer.
var aside = map[model.Role]bool{model.RoleTest: true, model.RoleConfig: true, model.RoleDocs: true, model.RoleScript: true}

func (x *comparison) matches(g, p string) bool {
	is := match(g, p)
	x.used[g] = x.used[g] || is
	return is
}

// live are the exceptions that have not expired; the others are noted.
func (x *comparison) live(today time.Time) (live []Exception) {
	for _, e := range x.Exceptions {
		if day, err := time.Parse(time.DateOnly, e.Until); err == nil && today.After(day.AddDate(0, 0, 1)) {
			x.Expired = append(x.Expired, e)
			continue
		}
		live = append(live, e)
	}
	return live
}

// idle lists the globs of layers and exceptions that match nothing.
func (x *comparison) idle(live []Exception) {
	var globs []string
	for _, l := range x.Layers {
		globs = append(globs, l.Holds...)
	}
	for _, e := range live {
		globs = append(globs, e.From, e.To)
	}
	for _, g := range globs {
		if !x.used[g] {
			x.Idle = append(x.Idle, g)
		}
	}
	slices.Sort(x.Idle)
	x.Idle = slices.Compact(x.Idle)
}

// allowed are the layers by name, and which may need which.
func (c *Charter) allowed() (layer map[string]*Layer, may map[[2]string]bool) {
	layer, may = map[string]*Layer{}, map[[2]string]bool{}
	for i := range c.Layers {
		l := &c.Layers[i]
		layer[l.Name] = l
		for _, m := range l.May {
			may[[2]string{l.Name, m}] = true
		}
	}
	return layer, may
}

// links lists the dependencies that are forbidden and not excepted.
func (x *comparison) links(live []Exception) {
	layer, may := x.allowed()
	for _, l := range x.r.Edges() {
		if !orders(l.Kind) || l.FromRole == model.RoleTest {
			continue
		}
		from, to := x.LayerOf[l.From], x.LayerOf[l.To]
		rule := x.forbids(from, to, *l.Link, layer, may)
		if rule == "" || slices.ContainsFunc(live, func(e Exception) bool { return match(e.From, l.From) && match(e.To, l.To) }) {
			continue
		}
		x.Breaches = append(x.Breaches, Breach{l.From, l.To, l.Line, l.Text, l.Kind, from, to, rule})
	}
	slices.SortFunc(x.Breaches, func(a, b Breach) int {
		return cmp.Or(cmp.Compare(a.From, b.From), cmp.Compare(a.Line, b.Line), cmp.Compare(a.To, b.To), cmp.Compare(a.Rule, b.Rule))
	})
}

// Would is the rule that a dependency from one place to another would break, ""
// when it would break none. A folder stands for all files below it: it is the
// first rule that any two of them break.
func (c *Charter) Would(r *reading.Reading, from, to string) string {
	x := &comparison{Charter: c, r: r, used: map[string]bool{}, Result: &Result{LayerOf: map[string]string{}}}
	layer, may := x.allowed()
	// Files of one layer are alike to the rules, but for those of areas kept apart.
	tell := func(place string) (ends []string) {
		seen := map[string]bool{}
		for f := range r.Own(place) {
			if r.IsTest(f.Path) {
				continue
			}
			x.place(f)
			key := x.LayerOf[f.Path]
			for i, a := range c.Apart {
				for j, g := range a.Places {
					if match(g, f.Path) {
						key += fmt.Sprintf(" %d.%d", i, j)
					}
				}
			}
			if !seen[key] {
				seen[key] = true
				ends = append(ends, f.Path)
			}
		}
		return ends
	}
	tos := tell(to)
	for _, a := range tell(from) {
		for _, b := range tos {
			if rule := c.forbids(x.LayerOf[a], x.LayerOf[b], model.Link{From: a, To: b}, layer, may); rule != "" {
				return rule
			}
		}
	}
	return ""
}

// orders reports whether a link of that kind says which of two comes first: who
// only sends to another does not.
func orders(k model.LinkKind) bool {
	return !k.Repeats() && k != model.LinkHTTP && k != model.LinkMessage
}

// wiring lists the long functions of a file whose layer only wires.
func (x *comparison) wiring(f *model.File) {
	name := x.LayerOf[f.Path]
	i := slices.IndexFunc(x.Layers, func(l Layer) bool { return l.Name == name })
	if i < 0 || !x.Layers[i].Wiring || x.r.IsTest(f.Path) {
		return
	}
	for _, d := range f.Facts.Definitions {
		lines := d.EndLine - d.Line + 1
		if (d.Kind == model.DefFunction || d.Kind == model.DefMethod) && lines > wiringLines {
			x.Wiring = append(x.Wiring, model.Evidence{
				Path: f.Path, Line: d.Line, Note: fmt.Sprintf("%s has %d lines", d.Qualified(), lines),
			})
		}
	}
}

// wiringLines is how long a function may be that only wires.
const wiringLines = 60

// forbids is the rule that forbids a dependency, "" when it is allowed.
func (c *Charter) forbids(from, to string, l model.Link, layer map[string]*Layer, may map[[2]string]bool) string {
	for _, a := range c.Apart {
		x, y := -1, -1
		for i, g := range a.Places {
			if x < 0 && match(g, l.From) {
				x = i
			}
			if y < 0 && match(g, l.To) {
				y = i
			}
		}
		if x >= 0 && y >= 0 && x != y {
			return fmt.Sprintf("%s and %s are kept apart (%s)", a.Places[x], a.Places[y], a.Name)
		}
	}
	if from == "" || to == "" || from == to || layer[from].Wiring || may[[2]string{from, to}] {
		return ""
	}
	if len(layer[from].May) == 0 {
		return from + " may depend on no other layer"
	}
	return fmt.Sprintf("%s may depend on %s alone", from, strings.Join(layer[from].May, ", "))
}

// match reports whether a glob holds a path: a folder's name holds all below
// it.
func match(g, p string) bool {
	if ok, _ := doublestar.Match(g, p); ok {
		return true
	}
	if !strings.ContainsAny(path.Base(g), "*?[{") {
		ok, _ := doublestar.Match(g+"/**", p)
		return ok
	}
	return false
}

// Derive writes a charter from how a codebase is: rings where the direction of its
// interfaces tells them, else its folders in levels, each allowed what it depends on
// now and lies below it.
func Derive(s *model.Survey, j *model.Judgement) *Charter {
	if c := learned(s, j); c != nil {
		return c
	}
	c := &Charter{Layers: []Layer{}, Apart: []Area{}, Exceptions: []Exception{}, Thresholds: map[string]float64{}}
	of := map[string]string{}
	level := map[string]int{}
	used := map[string]bool{}
	for n, l := range j.Levels {
		for _, folder := range l {
			name := layerName(folder, used)
			of[folder], level[name] = name, n
			c.Layers = append(c.Layers, Layer{Name: name, Holds: []string{folder + "/**"}, May: []string{}})
		}
	}
	find := func(p string) string {
		for d := path.Dir(p); d != "."; d = path.Dir(d) {
			if n := of[d]; n != "" {
				return n
			}
		}
		return ""
	}
	need := map[[2]string]bool{}
	for _, l := range reading.Of(s, j.InScope, j.Roles).Edges() {
		if !orders(l.Kind) || l.FromRole == model.RoleTest {
			continue
		}
		a, b := find(l.From), find(l.To)
		if a != "" && b != "" && a != b && level[a] <= level[b] {
			need[[2]string{a, b}] = true
		}
	}
	for i := range c.Layers {
		for _, m := range c.Layers {
			if need[[2]string{c.Layers[i].Name, m.Name}] {
				c.Layers[i].May = append(c.Layers[i].May, m.Name)
			}
		}
	}
	return c
}

// Text writes a charter as YAML.
func (c *Charter) Text() (string, error) {
	b, err := yaml.MarshalWithOptions(c, yaml.IndentSequence(true))
	return string(b), err
}
