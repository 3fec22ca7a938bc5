package model

import "strings"

// Role is what a file is technically.
type Role string

// The closed list of roles, from the outside of a system to its inside. This
// is also the order in which they are drawn.
const (
	RoleEntry       Role = "entry"
	RoleRouting     Role = "routing"
	RoleHandler     Role = "handler"
	RoleView        Role = "view"
	RoleState       Role = "state"
	RoleLogic       Role = "logic"
	RoleMessage     Role = "message"
	RoleModel       Role = "model"
	RoleDataAccess  Role = "data access"
	RoleSchema      Role = "schema"
	RoleHelper      Role = "helper"
	RoleStyle       Role = "style"
	RoleAsset       Role = "asset"
	RoleTranslation Role = "translation"
	RoleConfig      Role = "config"
	RoleScript      Role = "script"
	RoleTest        Role = "test"
	RoleDocs        Role = "docs"
	RoleStructure   Role = "structure" // data structures and algorithms that know no trade
	RoleFormat      Role = "format"    // reads or writes a format or protocol
	RolePlatform    Role = "platform"  // the machine beneath
	RoleFacade      Role = "facade"    // the public face of a package
)

// Roles lists every role in drawing order.
var Roles = []Role{RoleEntry, RoleFacade, RoleRouting, RoleHandler, RoleView, RoleState, RoleLogic, RoleMessage, RoleModel,
	RoleStructure, RoleFormat, RoleDataAccess, RoleSchema, RolePlatform, RoleHelper, RoleStyle, RoleAsset, RoleTranslation,
	RoleConfig, RoleScript, RoleTest, RoleDocs}

// Sources of a role.
const (
	RoleSeen    = "seen"    // evidence in the file
	RoleAssumed = "assumed" // a default, its neighbours, or a folder's name alone
	RoleByLead  = "lead"
)

// Evidence is a place with a word on why it counts. Line 0 means the whole
// file or folder.
type Evidence struct {
	Path string `json:"path"`
	Line int    `json:"line"`
	Note string `json:"note"`
}

// RoleOf is a file's role with how sure it is (0 to 1) and why. Role is ""
// when nothing tells.
type RoleOf struct {
	Role       Role     `json:"role"`
	Confidence float64  `json:"confidence"`
	Reasons    []string `json:"reasons"`
	// Source says what tells it: seen, assumed or lead; "" without a role.
	Source string `json:"source"`
	ByHand bool   `json:"by_hand"` // the lead set it
}

// RuleRests stands before the reason in what silences the hits of a rule that
// rests.
const RuleRests = "the rule rests: "

// Kinds of Overrule.
const (
	OverruleRole    = "role"
	OverruleOrigin  = "origin" // who wrote it
	OverruleFeature = "feature"
	OverrulePurpose = "purpose"
	OverruleRename  = "rename"  // of a feature; an empty value rejects it, the name of another merges
	OverruleWord    = "word"    // a word of names and folders stands for a role; an empty value takes it out of the lexicon
	OverruleRule    = "rule"    // it rests: what it hits is listed and does not count; the value is why
	OverruleGap     = "gap"     // what a resource lacks, on purpose: the target is its module and address with a tab between
	OverruleTerm    = "term"    // a word of the glossary; the value is what it stands for
	OverruleInstead = "instead" // a word that is not to be said; the value is the one to say
	OverruleLink    = "link"    // a dependency that no line tells: the target is two files with a tab between, the value why
)

// Overrule is what the lead says against what was computed: for a file, a
// folder or a glob, or for a feature by its name.
type Overrule struct {
	Kind   string `json:"kind" enum:"role,origin,feature,purpose,rename,rule,gap,link,word,term,instead"`
	Target string `json:"target"`
	Value  string `json:"value"`
	By     string `json:"by"`
}

// Facet is one of the four sides of legibility.
type Facet string

// The facets in their fixed order.
const (
	Layout     Facet = "Layout"
	Boundaries Facet = "Boundaries"
	Units      Facet = "Units"
	Names      Facet = "Names"
)

// Facets lists the facets in their fixed order.
var Facets = []Facet{Layout, Boundaries, Units, Names}

// Smell is one hit of a rule.
type Smell struct {
	ID       string     `json:"id"`
	Rule     string     `json:"rule"`
	Facet    Facet      `json:"facet"`
	Strength float64    `json:"strength"`
	Path     string     `json:"path"`
	Line     *int       `json:"line"`
	EndLine  *int       `json:"end_line"`
	Name     *string    `json:"name"`
	Message  string     `json:"message"`
	Evidence []Evidence `json:"evidence"`
	Remedy   string     `json:"remedy"`
	// Was lists the ids it had when its rule told it apart otherwise, so that
	// what was said of it then still finds it.
	Was []string `json:"was"`
	// Touches lists the files whose lines the smell weighs on.
	Touches []string `json:"-"`
	// Count is how many hits it tells of, Places where they are: more than one
	// where the same is a habit all over a folder, or where rules that ask much
	// the same speak through it.
	Count  int      `json:"count"`
	Places []string `json:"places"`
	// Habit: it is about the same small thing all over a folder.
	Habit bool `json:"habit,omitempty"`
	// Amount is how much of it there is, in a measure of its rule's own; Strength
	// is where that lies among what the rule finds in other codebases.
	Amount float64 `json:"-"`
	// Rank orders smells of different rules: the largest first.
	Rank float64 `json:"rank"`
	// ToldBy is the id of the smell that tells of this hit, "" where it speaks for
	// itself; ToldAt where that stands, if it is one of a habit or of twin folders
	// that the hit is part of.
	ToldBy string `json:"-"`
	ToldAt string `json:"-"`
	// Silenced holds the lead's reason when the smell does not count.
	Silenced string `json:"silenced,omitempty"`
}

// SmellKey tells a smell by what it is about: the id of a smell changes when
// its rule does, these seldom.
type SmellKey struct {
	Rule string `json:"rule"`
	Path string `json:"path"`
	Name string `json:"name"` // "" where it is about a whole file or folder
}

// Key is what the smell is about.
func (s *Smell) Key() SmellKey {
	k := SmellKey{Rule: s.Rule, Path: s.Path}
	if s.Name != nil {
		k.Name = *s.Name
	}
	return k
}

// Silence is the lead's word that a smell does not count. Its key is empty
// where an earlier version kept the id alone.
type Silence struct {
	SmellKey
	Reason string `json:"reason"`
}

// Legibility is the score of a place; a nil figure is unknown.
type Legibility struct {
	Total       *float64 `json:"total"`
	Layout      *float64 `json:"layout"`
	Boundaries  *float64 `json:"boundaries"`
	Units       *float64 `json:"units"`
	Names       *float64 `json:"names"`
	Tests       *float64 `json:"tests"` // of tests, which do not enter the total
	JudgedShare *float64 `json:"judged_share"`
}

// Facet returns the figure of one facet.
func (l Legibility) Facet(f Facet) *float64 {
	switch f {
	case Layout:
		return l.Layout
	case Boundaries:
		return l.Boundaries
	case Units:
		return l.Units
	case Names:
		return l.Names
	}
	return nil
}

// Strain is one line of the arithmetic behind a score.
type Strain struct {
	Rule        string  `json:"rule"`
	Facet       Facet   `json:"facet"`
	Weight      float64 `json:"weight"`
	Hits        int     `json:"hits"`
	JudgedLines int     `json:"judged_lines"`
	Touched     float64 `json:"touched"` // lines, each times its strongest hit's strength
	Strain      float64 `json:"strain"`
}

// Argument is one signal's outcome for a pattern: a sentence, what it is worth
// and the places it came from.
type Argument struct {
	Text     string     `json:"text"`
	Points   float64    `json:"points"`
	Evidence []Evidence `json:"evidence"`
}

// PatternMatch is how well one pattern of the catalogue fits.
type PatternMatch struct {
	Name    string     `json:"name"`
	Score   float64    `json:"score"`
	For     []Argument `json:"for"`
	Against []Argument `json:"against"`
}

// Mend is something that would raise the score, with the points it brings.
type Mend struct {
	What   string   `json:"what"`
	Path   string   `json:"path"`
	Gain   float64  `json:"gain"`
	Smells []string `json:"smells"`
}

// Purpose is what a folder is for, and who says so: "author", "inferred",
// "lead" or "".
type Purpose struct {
	Text   string `json:"text"`
	Source string `json:"source"`
	Path   string `json:"path"` // the file the words stand in
	Line   int    `json:"line"`
}

// Folder is one folder with all that lies below it summed up.
type Folder struct {
	Path        string
	Parent      string
	Name        string
	Depth       int
	Files       int // all files below
	OwnFiles    int // files directly in it
	Lines       int
	CodeLines   int
	JudgedLines int
	Roles       map[Role]int // judged files per role, below
	RoleLines   map[Role]int // lines per role, below
	In, Out     int          // links that cross its border
	Smells      int
	Strongest   float64
	Purpose     Purpose
	Legibility  Legibility
}

// Cycle is a ring of files or folders that need each other.
type Cycle struct {
	Level   string      `json:"level"`
	Members []string    `json:"members"`
	Break   []CycleLink `json:"break"`
	Exact   bool        `json:"exact"`
}

// CycleLink is a dependency whose removal helps to break a cycle.
type CycleLink struct {
	From string `json:"from"`
	To   string `json:"to"`
}

// Brief is what the lead sets before judging.
type Brief struct {
	Stage     Stage    `json:"stage"`
	In        []string `json:"in"`  // globs; empty means everything
	Out       []string `json:"out"` // globs
	Questions []string `json:"questions"`
}

// Feature is something the software is about, with the files that are about it
// and the number of innermost folders these lie in.
type Feature struct {
	Name    string
	Files   []string
	Scatter int
	// Parts are its files by sort of part, as the codebase itself calls them;
	// Missing those that its siblings usually have.
	Parts   map[string][]string
	Missing []string
	// Specimen: of all features it is nearest to how they are usually built.
	Specimen bool
}

// FeatureOf is the one feature a file belongs to, "" for what several share,
// and why.
type FeatureOf struct {
	Feature string   `json:"feature"`
	Reasons []string `json:"reasons"`
	ByHand  bool     `json:"by_hand"`
	// Alone: it is one of many files built alike, each about something else.
	Alone bool `json:"-"`
}

// Kinds of entries.
const (
	EntryProgram = "program"
	EntryPage    = "page"
	EntryWorker  = "worker"
	EntryCommand = "command"
	EntryScript  = "script" // run by hand or by the build
)

// Entry is where something starts, by which mechanism.
type Entry struct {
	Path      string `json:"path"`
	Line      int    `json:"line"`
	Kind      string `json:"kind"`
	Mechanism string `json:"mechanism"`
}

// Cut labels.
const (
	CutByFeature = "by feature"
	CutInside    = "by feature, kinds inside"
	CutByKind    = "by kind"
	CutMixed     = "mixed"
)

// Cut says whether files lie together that are about the same or that are of
// the same kind: from -1 (by kind) to 1 (by feature). Value and Label are nil
// and "" where there is too little to tell.
type Cut struct {
	Value    *float64   `json:"value"`
	Label    string     `json:"label"`
	Depth    int        `json:"depth"`
	Evidence []Evidence `json:"evidence"` // Note is a sentence; Path a folder it is about
	// Levels are folders within that are cut otherwise than the whole.
	Levels []CutLevel `json:"levels"`
}

// CutLevel is how the code below a folder is cut.
type CutLevel struct {
	Path  string  `json:"path"`
	Label string  `json:"label"`
	Value float64 `json:"value"`
}

// Module is a part of the codebase with a project file of its own, or one of
// its top folders.
type Module struct {
	Path     string
	Name     string
	Project  bool // it has a project file of its own
	Files    int
	Cut      Cut
	Patterns []PatternMatch
	Levels   [][]string
}

// Judgement is what is made of a survey under a brief. It can be thrown away
// and made again.
type Judgement struct {
	Version    string
	Brief      Brief
	InScope    map[string]bool // judged files
	Roles      map[string]RoleOf
	Origins    map[string]OriginOf
	Entries    []Entry   // by path
	Facades    []string  // by path
	Folders    []*Folder // sorted by path, the root first
	Smells     []Smell   // those that are told, by path, line and rule
	Hits       []Smell   // of all rules one by one, those that another tells of as well
	Cycles     []Cycle
	Patterns   []PatternMatch
	Features   []Feature
	FeatureOf  map[string]FeatureOf
	Modules    []Module
	Cut        Cut
	Levels     [][]string // folders at LevelDepth, from the top; the last depends on nothing
	LevelDepth int
	Legibility Legibility
	Strains    []Strain
	Raise      []Mend // what would raise the total most
	Judged     int    // judged lines
	AllLines   int
	Notes      []Note // what could not be told, and why

	folders map[string]*Folder
}

// Projects are the folders with a project file of their own.
func (j *Judgement) Projects() (all []string) {
	for _, m := range j.Modules {
		if m.Project {
			all = append(all, m.Path)
		}
	}
	return all
}

// Folder returns the folder at path ("." is the root), or nil.
func (j *Judgement) Folder(p string) *Folder { return j.folders[p] }

// BuildIndex prepares Folder for use.
func (j *Judgement) BuildIndex() {
	j.folders = make(map[string]*Folder, len(j.Folders))
	for _, f := range j.Folders {
		j.folders[f.Path] = f
	}
}

// Within reports whether p is place or lies below it. "." holds everything.
func Within(place, p string) bool {
	if place == "." || place == p {
		return true
	}
	return len(p) > len(place) && p[len(place)] == '/' && p[:len(place)] == place
}

// FolderOf is the folder a path lies in, "." at the top.
func FolderOf(p string) string {
	if i := strings.LastIndexByte(p, '/'); i >= 0 {
		return p[:i] // a substring: nothing is copied
	}
	return "."
}

// SmellsAt are the smells that are told at a place, in their order: of a place
// within a folder with a habit the hits that the habit is made of, since the habit
// itself stands above it, and of a copy those that the first of its twins tells; in
// a file with a habit its lines tell more than the habit.
func (j *Judgement) SmellsAt(place string) (out []*Smell) {
	for i := range j.Smells {
		if sm := &j.Smells[i]; Within(place, sm.Path) && !(sm.Path == place && sm.ofFile()) {
			out = append(out, sm)
		}
	}
	for i := range j.Hits {
		if sm := &j.Hits[i]; sm.ToldAt != "" && Within(place, sm.Path) && (place == sm.Path || !Within(place, sm.ToldAt)) {
			out = append(out, sm)
		}
	}
	return out
}

// ofFile reports whether a smell is the habit of one file.
func (sm *Smell) ofFile() bool { return sm.Habit && len(sm.Places) == 1 && sm.Places[0] == sm.Path }

// ProjectOf is the innermost module with a project file that holds a path, "."
// where none does.
func ProjectOf(modules []Module, p string) string {
	best := "."
	for i := range modules {
		if m := modules[i].Path; modules[i].Project && Within(m, p) && (best == "." || len(m) > len(best)) {
			best = m
		}
	}
	return best
}
