// Package model holds the nouns that every part of Jantel shares: files and
// what was read in them, the links between them, and what is judged of them.
// It computes nothing.
package model

//go:generate go tool msgp -file model.go -o model_packed.go -io=false -tests=false -unexported

//msgp:tuple TwinPlace Twins Link External Unresolved Note Origin History Author FileHistory Pair
//msgp:ignore Survey File Route Message Entity Stage LinkKind DefinitionKind
//msgp:limit arrays:10000000 maps:2000000

import (
	"sort"
	"sync"
	"time"
)

// Schema names the format of the survey as JSON.
const Schema = "jantel-survey/1"

// Stage says how far along the lead takes a codebase to be; it sets how
// strict the judgement is.
type Stage string

// The stages a brief can name.
const (
	Sketch    Stage = "sketch"
	Growing   Stage = "growing"
	InService Stage = "in service"
)

// Valid reports whether s is one of the three stages.
func (s Stage) Valid() bool { return s == Sketch || s == Growing || s == InService }

// LinkKind is the kind of a dependency between two files.
type LinkKind string

// The closed list of link kinds.
const (
	LinkImport        LinkKind = "import"
	LinkLazyImport    LinkKind = "lazy import"
	LinkReExport      LinkKind = "re-export"
	LinkNameViaIndex  LinkKind = "name via index"
	LinkInheritance   LinkKind = "inheritance"
	LinkRendering     LinkKind = "rendering"
	LinkTemplate      LinkKind = "template"
	LinkRoute         LinkKind = "route"
	LinkHTTP          LinkKind = "http"
	LinkMessage       LinkKind = "message"
	LinkConfiguration LinkKind = "configuration"
	LinkDeclared      LinkKind = "declared"
)

// Repeats reports whether links of this kind say more of a dependency that an
// import states as well: they are left out where dependencies are counted.
func (k LinkKind) Repeats() bool {
	return k == LinkInheritance || k == LinkRendering || k == LinkNameViaIndex
}

// DefinitionKind is the kind of a definition.
type DefinitionKind string

// The closed list of definition kinds.
const (
	DefType      DefinitionKind = "type"
	DefClass     DefinitionKind = "class"
	DefInterface DefinitionKind = "interface"
	DefEnum      DefinitionKind = "enum"
	DefFunction  DefinitionKind = "function"
	DefMethod    DefinitionKind = "method"
	DefComponent DefinitionKind = "component"
	DefConstant  DefinitionKind = "constant"
	DefVariable  DefinitionKind = "variable"
	DefProperty  DefinitionKind = "property"
	DefNamespace DefinitionKind = "namespace"
	DefOther     DefinitionKind = "other"
)

// Reasons why a file is counted and shown but not judged.
const (
	SkippedGenerated = "generated"
	SkippedVendored  = "vendored"
	SkippedBinary    = "binary"
	SkippedMinified  = "minified"
	SkippedTooLarge  = "too large"
)

// How completely a file was read.
const (
	ReadFull    = "full"
	ReadPartial = "partial"
)

// TwinPlace is one of several that are nearly the same code: a file, or a
// definition where it has a name.
type TwinPlace struct {
	Path    string `json:"path"`
	Line    int    `json:"line"`
	EndLine int    `json:"end_line"`
	Name    string `json:"name"`
}

// Twins are places that are nearly the same code, with how alike the two of
// them are that are least so, from 0 to 1.
type Twins struct {
	Alike   float64     `json:"alike"`
	Members []TwinPlace `json:"members"`
}

// Route is a route of the whole system.
type Route struct {
	Method      string `json:"method"`
	Pattern     string `json:"pattern"`
	Path        string `json:"path"`
	Line        int    `json:"line"`
	HandlerPath string `json:"handler_path"` // "" when it could not be followed
	HandlerName string `json:"handler_name"`
	HandlerLine int    `json:"handler_line"`
	InPlace     bool   `json:"in_place"` // what answers is written where the route is
	// Guards are what is asked before it answers, in order: functions that stand
	// before the handler, marks of the handler or its class that speak of rights.
	Guards []string `json:"guards"`
	Name   string   `json:"name"` // that it is given; "" for none
	// Answers is what kind of answer it gives: one of the Answer…; "" where it is
	// not told.
	Answers string `json:"answers"`
	// Around is what runs around what answers without being named at the route, in
	// running order.
	Around []RouteInsert `json:"around"`
	// App is the file at the head of the routers it hangs below, and Order the place
	// at which it is tried there; 0 where the most exact route answers, wherever it
	// is declared.
	App   string `json:"app"`
	Order int    `json:"order"`
	// Checks is what looks at what is sent before it is used: calls, marks and types by
	// their names.
	Checks []string `json:"checks"`
	// Fallback: it answers what no other route of its router does.
	Fallback bool `json:"fallback"`
}

// RouteInsert is something that runs before, after or around what answers a route,
// or when that fails.
type RouteInsert struct {
	Name   string `json:"name"` // "" where it is written in place
	When   string `json:"when"` // one of the Insert…
	Path   string `json:"path"` // where it is put there
	Line   int    `json:"line"`
	ToPath string `json:"to_path"` // what runs; "" where it could not be followed
	ToLine int    `json:"to_line"`
}

// Kinds of answer.
const (
	AnswerPage     = "page"
	AnswerData     = "data"
	AnswerRedirect = "redirect"
	AnswerFile     = "file"
)

// Directions of a message.
const (
	Send    = "send"
	Receive = "receive"
)

// Message is one end of a message by name.
type Message struct {
	Name      string `json:"name"`
	Path      string `json:"path"`
	Line      int    `json:"line"`
	Direction string `json:"direction"`
}

// Entity is something the code keeps, with the places that create, read,
// update and delete it.
type Entity struct {
	Name       string                `json:"name"`
	Path       string                `json:"path"`
	Line       int                   `json:"line"`
	Operations map[string][]Evidence `json:"operations"` // nil where an object mapper does them and none was told
}

// File is one file of a survey.
type File struct {
	Path     string
	Language string // "" when unknown
	Hash     string // hex BLAKE2b-256 of the bytes, "" when it was not read
	Bytes    int64
	Skipped  string // "" when it is judged
	Facts    *Facts // nil when it was not read
	Key      string // under which its facts are kept
}

// Lines is the number of lines, 0 when the file was not read.
func (f *File) Lines() int {
	if f.Facts == nil {
		return 0
	}
	return f.Facts.Lines
}

// Judgeable reports whether the file counts in judgement as far as its bytes
// and path tell; the brief's scope may still exclude it.
func (f *File) Judgeable() bool { return f.Skipped == "" && f.Facts != nil }

// Link is a dependency inside the codebase, from file to file.
type Link struct {
	From  string   `json:"from"`
	To    string   `json:"to"`
	Kind  LinkKind `json:"kind"`
	Line  int      `json:"line"`
	Text  string   `json:"text"`
	Sure  bool     `json:"sure"`
	Names []string `json:"names,omitempty"`
	// TypeOnly: it is there for types alone.
	TypeOnly bool `json:"type_only"`
}

// External is a dependency on a package outside the codebase. Version is nil
// where no project file tells it.
type External struct {
	From    string  `json:"from"`
	Package string  `json:"package"`
	Version *string `json:"version"`
	Line    int     `json:"line"`
}

// Unresolved is an import that should lead into the codebase and does not.
type Unresolved struct {
	From   string `json:"from"`
	Text   string `json:"text"`
	Line   int    `json:"line"`
	Reason string `json:"reason"`
}

// Note is something met while taking the codebase in that the reader should
// know of: a limit reached, a symlink not followed, a file that vanished.
type Note struct {
	Path string `json:"path"`
	Text string `json:"text"`
}

// Origin says where the bytes came from.
type Origin struct {
	Kind     string `json:"kind"`     // folder, git, archive
	Revision string `json:"revision"` // commit id, "" when there is none
	Subject  string `json:"subject"`  // first line of the commit's message
	Author   string `json:"author"`
	Date     string `json:"date"` // RFC 3339, "" when there is none
	BasedOn  string `json:"based_on"`
	Label    string `json:"label"` // the branch or tag asked for
}

// History is what Git tells of a codebase, up to the revision surveyed. Times
// are seconds since 1970.
type History struct {
	Commits       int
	Authors       []Author // most commits first
	First         int64
	Last          int64
	MedianFolders *float64      // folders an ordinary commit touches
	Files         []FileHistory // by path
	Pairs         []Pair        // files that change together, most often first
	Cut           string        // why it is not the whole history
}

// Author is somebody who changed the code.
type Author struct {
	Name    string `json:"name"`
	Commits int    `json:"commits"`
	Last    int64  `json:"last"`
}

// FileHistory is how a file came to be what it is.
type FileHistory struct {
	Path    string
	Changes int
	Authors map[string]int // name to changes
	First   int64
	Last    int64
}

// Pair is two files that change in the same commits: how often, and in what
// share of the changes of the one that changes less.
type Pair struct {
	A          string  `json:"a"`
	B          string  `json:"b"`
	Together   int     `json:"together"`
	Confidence float64 `json:"confidence"`
}

// File returns the history of a file, or nil.
func (h *History) File(path string) *FileHistory {
	if h == nil {
		return nil
	}
	i := sort.Search(len(h.Files), func(i int) bool { return h.Files[i].Path >= path })
	if i < len(h.Files) && h.Files[i].Path == path {
		return &h.Files[i]
	}
	return nil
}

// Survey is one complete reading: facts alone, immutable, sorted by path.
type Survey struct {
	Codebase   string
	Origin     Origin
	SurveyedAt time.Time
	Files      []*File
	Links      []Link
	External   []External
	Unresolved []Unresolved
	Notes      []Note
	History    *History // nil where there is no Git
	Twins      []Twins
	Timings    map[string]float64

	index   map[string]*File
	derived *sync.Map
}

// Derived gives what follows from the survey alone and is asked for by several:
// it is made where it is asked for first, and kept as long as the survey is.
func (s *Survey) Derived(what string, make func() any) any {
	if s.derived == nil {
		return make() // it was not indexed: it is a trial that nobody asks twice
	}
	if v, ok := s.derived.Load(what); ok {
		return v
	}
	v, _ := s.derived.LoadOrStore(what, make())
	return v
}

// File returns the file at path, or nil.
func (s *Survey) File(path string) *File {
	if s.index == nil {
		s.BuildIndex()
	}
	return s.index[path]
}

// BuildIndex prepares File for use by several goroutines.
func (s *Survey) BuildIndex() {
	m := make(map[string]*File, len(s.Files))
	for _, f := range s.Files {
		m[f.Path] = f
	}
	s.index, s.derived = m, &sync.Map{}
}
