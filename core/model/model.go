// Package model holds the nouns that every part of Jantel shares: files and
// what was read in them, the links between them, and what is judged of them.
// It computes nothing.
package model

import (
	"sort"
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

// Definition is one named thing a file defines. Lines count from 1 and both
// ends belong to it. Parent is the qualified name of what encloses it, or "".
type Definition struct {
	Name     string         `cbor:"1,keyasint" json:"name"`
	Parent   string         `cbor:"2,keyasint,omitempty" json:"parent"`
	Kind     DefinitionKind `cbor:"3,keyasint" json:"kind"`
	Line     int            `cbor:"4,keyasint" json:"line"`
	EndLine  int            `cbor:"5,keyasint" json:"end_line"`
	Exported bool           `cbor:"6,keyasint,omitempty" json:"exported"`
	Params   int            `cbor:"7,keyasint,omitempty" json:"-"`
	Bases    []string       `cbor:"8,keyasint,omitempty" json:"-"`
	Marks    []string       `cbor:"9,keyasint,omitempty" json:"-"` // annotations and decorators as written
}

// Qualified is the definition's name with its parents, joined by dots.
func (d Definition) Qualified() string {
	if d.Parent == "" {
		return d.Name
	}
	return d.Parent + "." + d.Name
}

// Import is one import statement as it is written, not yet resolved.
type Import struct {
	Text  string   `cbor:"1,keyasint"`           // the module text: "./shelf", "..lots.rules", "encoding/json"
	Line  int      `cbor:"2,keyasint"`           // where the statement starts
	Kind  LinkKind `cbor:"3,keyasint"`           // import, lazy import or re-export
	Names []string `cbor:"4,keyasint,omitempty"` // names taken from the module, sorted; "*" for all
	Alias string   `cbor:"5,keyasint,omitempty"` // the local name of the whole module
	As    []string `cbor:"6,keyasint,omitempty"` // of a re-export: what each of Names is called outside
}

// Use is something taken from a module by name and put to work: a component
// that is rendered, a type that is built upon.
type Use struct {
	Kind   LinkKind `cbor:"1,keyasint"` // rendering or inheritance
	Module string   `cbor:"2,keyasint"` // as imported
	Name   string   `cbor:"3,keyasint"` // as the module calls it: a name, "default", or "*" for the whole
	Line   int      `cbor:"4,keyasint"`
}

// Project is what a project file declares.
type Project struct {
	Tool         string            `cbor:"1,keyasint"` // npm, go, python, typescript, make, docker
	Name         string            `cbor:"2,keyasint,omitempty"`
	Description  string            `cbor:"3,keyasint,omitempty"`
	Scripts      []Command         `cbor:"4,keyasint,omitempty"`
	Dependencies map[string]string `cbor:"5,keyasint,omitempty"` // package to version as written
	Workspaces   []string          `cbor:"6,keyasint,omitempty"`
	Entries      []string          `cbor:"7,keyasint,omitempty"` // main, module, bin: paths relative to the project
	Exports      map[string]string `cbor:"8,keyasint,omitempty"` // subpath pattern to target, "." first
	Imports      map[string]string `cbor:"9,keyasint,omitempty"` // "#name" pattern to target
	Paths        []Alias           `cbor:"10,keyasint,omitempty"`
	BaseURL      string            `cbor:"11,keyasint,omitempty"`
	Extends      []string          `cbor:"12,keyasint,omitempty"`
	Roots        []string          `cbor:"13,keyasint,omitempty"` // source roots it declares
	Problem      string            `cbor:"14,keyasint,omitempty"` // why it could not be understood
}

// Command is something one can run, with the line that says so.
type Command struct {
	Name string `cbor:"1,keyasint" json:"name"`
	Text string `cbor:"2,keyasint" json:"text"`
	Line int    `cbor:"3,keyasint" json:"line"`
}

// Alias maps an import pattern (one "*" at most) to targets, tried in order.
type Alias struct {
	Pattern string   `cbor:"1,keyasint"`
	Targets []string `cbor:"2,keyasint"`
}

// Facts is what follows from one file's bytes and its language alone.
type Facts struct {
	Lines       int             `cbor:"1,keyasint"`
	Code        int             `cbor:"2,keyasint"`
	Comment     int             `cbor:"3,keyasint,omitempty"`
	Blank       int             `cbor:"4,keyasint,omitempty"`
	Read        string          `cbor:"5,keyasint,omitempty"` // "full", "partial", or "" when only lines were counted
	Problem     string          `cbor:"6,keyasint,omitempty"` // why it is partial
	Skipped     string          `cbor:"7,keyasint,omitempty"` // generated, binary or minified, as its bytes tell
	Definitions []Definition    `cbor:"8,keyasint,omitempty"`
	Imports     []Import        `cbor:"9,keyasint,omitempty"`
	Namespace   string          `cbor:"10,keyasint,omitempty"`
	Doc         string          `cbor:"11,keyasint,omitempty"` // the opening words of its authors about it
	DocLine     int             `cbor:"12,keyasint,omitempty"`
	Starts      int             `cbor:"13,keyasint,omitempty"` // line where a program starts in it, 0 if none does
	Signs       []Sign          `cbor:"14,keyasint,omitempty"`
	Project     *Project        `cbor:"15,keyasint,omitempty"`
	Commands    []Command       `cbor:"16,keyasint,omitempty"` // what a README says to run
	Names       []string        `cbor:"17,keyasint,omitempty"` // every exported name, sorted: what others can take from it
	Mentions    []Mention       `cbor:"18,keyasint,omitempty"` // names of types and constants met in the code, by name, for languages that find them without an import
	Routes      []RouteFact     `cbor:"19,keyasint,omitempty"`
	Mounts      []MountFact     `cbor:"20,keyasint,omitempty"`
	Env         []Mention       `cbor:"21,keyasint,omitempty"` // variables of the environment it reads, by name
	Uses        []Use           `cbor:"22,keyasint,omitempty"`
	Templates   []Mention       `cbor:"23,keyasint,omitempty"` // templates it names, by line: to be found by what they are called
	Calls       []CallFact      `cbor:"24,keyasint,omitempty"` // requests it sends over HTTP
	Entities    []EntityFact    `cbor:"25,keyasint,omitempty"`
	Operations  []OperationFact `cbor:"26,keyasint,omitempty"`
	Messages    []MessageFact   `cbor:"27,keyasint,omitempty"`
	Literals    []Literal       `cbor:"28,keyasint,omitempty"` // constants that hold a text, by name
	Runs        []RunFact       `cbor:"29,keyasint,omitempty"`
	Prints      []byte          `cbor:"30,keyasint,omitempty"` // fingerprints of the code in order, four bytes each
	Tokens      int             `cbor:"31,keyasint,omitempty"` // tokens they were made of
	Spans       []Span          `cbor:"32,keyasint,omitempty"`
	Charter     string          `cbor:"33,keyasint,omitempty"` // the text of a charter
	Selectors   []Mention       `cbor:"34,keyasint,omitempty"` // elements and attributes of pages that what it defines answers to
	Tags        []Mention       `cbor:"35,keyasint,omitempty"` // elements and attributes of its pages that may be such
}

// RouteFact is a route as its file declares it, without the prefixes under
// which the file is mounted elsewhere.
type RouteFact struct {
	Method  string `cbor:"1,keyasint"` // upper case; "ANY" when all are answered
	Pattern string `cbor:"2,keyasint"` // with the prefixes of the groups around it in the file
	Line    int    `cbor:"3,keyasint"`
	On      string `cbor:"4,keyasint,omitempty"` // the router it is declared on
	Handler string `cbor:"5,keyasint,omitempty"` // what answers, as written; "" when it is written in place
}

// CallFact is a request that the code sends over HTTP, as far as it is written
// where it is sent.
type CallFact struct {
	Method  string `cbor:"1,keyasint"` // upper case; "" where it is not told
	Pattern string `cbor:"2,keyasint"` // path with "*" for what is put in; the host is left out
	Line    int    `cbor:"3,keyasint"`
	Host    string `cbor:"4,keyasint,omitempty"` // as written, where it is another system's
}

// EntityFact is something the code keeps: a model of a mapper, a table of a
// migration or of a schema.
type EntityFact struct {
	Name string `cbor:"1,keyasint"`
	Line int    `cbor:"2,keyasint"`
	// From says how it is told: "model", "table" or "schema".
	From string `cbor:"3,keyasint"`
}

// What is done to an entity.
const (
	Create = "create"
	Read   = "read"
	Update = "update"
	Delete = "delete"
)

// OperationFact is something done to what may be an entity: a table in a
// statement, or a type that a mapper is asked for.
type OperationFact struct {
	Entity string `cbor:"1,keyasint"`
	What   string `cbor:"2,keyasint"`
	Line   int    `cbor:"3,keyasint"`
}

// MessageFact is a message sent or received by name.
type MessageFact struct {
	Name  string `cbor:"1,keyasint,omitempty"`
	Const string `cbor:"2,keyasint,omitempty"` // the constant that holds the name, where none is written
	Line  int    `cbor:"3,keyasint"`
	Send  bool   `cbor:"4,keyasint,omitempty"`
	// Plain says that the call alone makes it a message. Others could be
	// anything, and count when the other end is found.
	Plain bool `cbor:"5,keyasint,omitempty"`
}

// Span says which of a file's fingerprints belong to a definition.
type Span struct {
	Definition int `cbor:"1,keyasint"`
	From       int `cbor:"2,keyasint"`
	To         int `cbor:"3,keyasint"`
	Tokens     int `cbor:"4,keyasint"`
}

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

// Literal is a constant that holds a text.
type Literal struct {
	Name  string `cbor:"1,keyasint"`
	Value string `cbor:"2,keyasint"`
	Line  int    `cbor:"3,keyasint"`
}

// Kinds of RunFact.
const (
	RunSchedule = "schedule" // a job and when it runs
	RunAccess   = "access"   // a check of who may do something
	RunProcess  = "process"  // a process and the command that starts it
	RunStore    = "store"    // a store that runs beside it
)

// RunFact is something that tells how the system runs.
type RunFact struct {
	Kind string `cbor:"1,keyasint"`
	Name string `cbor:"2,keyasint"` // the plan of a job, the name of a check
	Line int    `cbor:"3,keyasint"`
}

// Chain starts the names of routers that are known to all files: actions that
// others go on from, by their path.
const Chain = "chain:"

// MountFact says that one router answers below a path of another.
type MountFact struct {
	On     string `cbor:"1,keyasint,omitempty"` // the outer router
	Path   string `cbor:"2,keyasint"`
	Target string `cbor:"3,keyasint"` // the inner router as written, or the module that holds it
	Line   int    `cbor:"4,keyasint"`
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
}

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
	Operations map[string][]Evidence `json:"operations"`
}

// Mention is a name met in the code, with the line it is first met on.
type Mention struct {
	Name string `cbor:"1,keyasint"`
	Line int    `cbor:"2,keyasint"`
}

// Sign is a telling thing met while reading, such as JSX being drawn or SQL
// being run. Roles and patterns are judged from signs.
type Sign struct {
	Name  string `cbor:"1,keyasint"`
	Line  int    `cbor:"2,keyasint"` // of the first
	Count int    `cbor:"3,keyasint"`
}

// Sign returns how often the named sign was met and the line of the first.
func (f *Facts) Sign(name string) (count, line int) {
	if f == nil {
		return 0, 0
	}
	for _, s := range f.Signs {
		if s.Name == name {
			return s.Count, s.Line
		}
	}
	return 0, 0
}

// File is one file of a survey.
type File struct {
	Path     string
	Language string // "" when unknown
	Hash     string // hex BLAKE2b-256 of the bytes, "" when it was not read
	Bytes    int64
	Skipped  string // "" when it is judged
	Facts    *Facts // nil when it was not read
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
	Commits       int           `cbor:"1,keyasint"`
	Authors       []Author      `cbor:"2,keyasint,omitempty"` // most commits first
	First         int64         `cbor:"3,keyasint"`
	Last          int64         `cbor:"4,keyasint"`
	MedianFolders *float64      `cbor:"5,keyasint,omitempty"` // folders an ordinary commit touches
	Files         []FileHistory `cbor:"6,keyasint,omitempty"` // by path
	Pairs         []Pair        `cbor:"7,keyasint,omitempty"` // files that change together, most often first
	Cut           string        `cbor:"8,keyasint,omitempty"` // why it is not the whole history
}

// Author is somebody who changed the code.
type Author struct {
	Name    string `cbor:"1,keyasint" json:"name"`
	Commits int    `cbor:"2,keyasint" json:"commits"`
	Last    int64  `cbor:"3,keyasint" json:"last"`
}

// FileHistory is how a file came to be what it is.
type FileHistory struct {
	Path    string         `cbor:"1,keyasint"`
	Changes int            `cbor:"2,keyasint"`
	Authors map[string]int `cbor:"3,keyasint"` // name to changes
	First   int64          `cbor:"4,keyasint"`
	Last    int64          `cbor:"5,keyasint"`
}

// Pair is two files that change in the same commits: how often, and in what
// share of the changes of the one that changes less.
type Pair struct {
	A          string  `cbor:"1,keyasint" json:"a"`
	B          string  `cbor:"2,keyasint" json:"b"`
	Together   int     `cbor:"3,keyasint" json:"together"`
	Confidence float64 `cbor:"4,keyasint" json:"confidence"`
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

	index map[string]*File
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
	s.index = m
}
