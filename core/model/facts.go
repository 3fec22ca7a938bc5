package model

import "slices"

//go:generate go tool msgp -file facts.go -o facts_packed.go -io=false -tests=false -unexported

//msgp:tuple Definition Import Use Project Command Alias Facts RouteFact CallFact EntityFact
//msgp:tuple WiredFact OperationFact MessageFact Span Literal RunFact MountFact Mention Sign
//msgp:tuple Inside Choice Flag TestCase Stretch EnvFact AskFact OffRoute InsertFact FaultFact
//msgp:limit arrays:2000000 maps:2000000
//msgp:shim SignName as:string using:string/SignName
//msgp:shim LinkKind as:uint8 using:packLinkKind/linkKindOf
//msgp:shim DefinitionKind as:uint8 using:packDefinitionKind/definitionKindOf

// Definition is one named thing a file defines. Lines count from 1 and both
// ends belong to it. Parent is the qualified name of what encloses it, or "".
type Definition struct {
	Name     string         `json:"name"`
	Parent   string         `json:"parent"`
	Kind     DefinitionKind `json:"kind"`
	Line     int            `json:"line"`
	EndLine  int            `json:"end_line"`
	Exported bool           `json:"exported"`
	Params   int            `json:"-"`
	Variadic bool           `json:"-"` // the last parameter stands for any number
	Bases    []string       `json:"-"`
	Marks    []string       `json:"-"` // annotations and decorators as written
}

// Import is one import statement as it is written, not yet resolved.
type Import struct {
	Text  string   // the module text: "./shelf", "..lots.rules", "encoding/json"
	Line  int      // where the statement starts
	Kind  LinkKind // import, lazy import or re-export
	Names []string // names taken from the module, sorted; "*" for all
	Alias string   // the local name of the whole module
	As    []string // of a re-export: what each of Names is called outside
	// Types: only types are taken; nothing of it is there when it runs.
	Types bool
}

// Use is something taken from a module by name and put to work: a component
// that is rendered, a type that is built upon.
type Use struct {
	Kind   LinkKind // rendering or inheritance
	Module string   // as imported
	Name   string   // as the module calls it: a name, "default", or "*" for the whole
	Line   int
}

// Project is what a project file declares.
type Project struct {
	Tool         string // npm, go, python, typescript, make, docker
	Name         string
	Description  string
	Scripts      []Command
	Dependencies map[string]string `msg:",allownil"` // package to version as written
	Workspaces   []string
	Entries      []string          // main, module, bin: paths relative to the project
	Exports      map[string]string `msg:",allownil"` // subpath pattern to target, "." first
	Imports      map[string]string `msg:",allownil"` // "#name" pattern to target
	Paths        []Alias
	BaseURL      string
	Extends      []string
	Roots        []string // source roots it declares
	Bin          []string // files that are installed as commands
	Outputs      []string // folders it has something written to
	Written      []string // files it has something written to, "*" for any part of a name
	Builds       []Built  // what a build of compiled languages makes for those who install it
	Library      bool     // it says of itself that it is a library
	Problem      string   // why it could not be understood
}

// Built is something that a build makes, with the line that says so.
type Built struct {
	Name string
	Kind BuiltKind
	Line int
}

// BuiltKind is what is made by a build.
type BuiltKind string

// Kinds of what is built.
const (
	BuiltProgram BuiltKind = "program"
	BuiltLibrary BuiltKind = "library" // for others to link with
	BuiltPlugIn  BuiltKind = "plug-in" // loaded by a program while it runs
)

// Command is something one can run, with the line that says so.
type Command struct {
	Name string `json:"name"`
	Text string `json:"text"`
	Line int    `json:"line"`
}

// Alias maps an import pattern (one "*" at most) to targets, tried in order.
type Alias struct {
	Pattern string
	Targets []string
}

// Facts is what follows from one file's bytes and its language alone.
type Facts struct {
	Lines       int
	Code        int
	Comment     int
	Blank       int
	Read        string // "full", "partial", or "" when only lines were counted
	Problem     string // why it is partial
	Skipped     string // generated, binary or minified, as its bytes tell
	Definitions []Definition
	Imports     []Import
	Namespace   string
	Doc         string // the opening words of its authors about it
	DocLine     int
	Starts      int // line where a program starts in it, 0 if none does
	Declared    int // functions that are only declared in it, and written elsewhere
	Signs       []Sign
	Project     *Project
	Commands    []Command // what a README says to run
	Names       []string  // every exported name, sorted: what others can take from it
	Mentions    []Mention // names of types and constants met in the code, by name, for languages that find them without an import
	Routes      []RouteFact
	Mounts      []MountFact
	Env         []EnvFact // variables of the environment it reads, by name
	Uses        []Use
	Templates   []Mention  // templates it names, by line: to be found by what they are called
	Calls       []CallFact // requests it sends over HTTP
	Entities    []EntityFact
	Operations  []OperationFact
	Messages    []MessageFact
	Literals    []Literal // constants that hold a text, by name
	Runs        []RunFact
	Prints      []byte `msg:",allownil"` // the set of fingerprints of the code, sorted, four bytes each
	Tokens      int    // tokens they were made of
	Spans       []Span
	Charter     string    // the text of a charter
	Selectors   []Mention // elements and attributes of pages that what it defines answers to
	Tags        []Mention // elements and attributes of its pages that may be such
	Hints       []Hint    // what tells who wrote it
	Wired       []WiredFact
	Body        []byte `msg:",allownil"` // what its bodies do, packed: see Body
	Insides     []Inside
	Choices     []Choice
	Flags       []Flag
	Cases       []TestCase
	Asides      []Stretch    // comments that are code
	StyleBlocks []Stretch    // styles written at the top of a file of code
	Answers     []Mention    // where an answer to a request is handed over, by its kind
	OuterStyles []Mention    // styles that place what they are set on among others, by name
	Asked       []AskFact    // what it asks for by a name that is held elsewhere, by line
	Texts       []Literal    // of a catalogue: the texts it holds, by their keys
	OffRoutes   []OffRoute   // routes, and routers put below a path, that a comment switches off
	Given       []Literal    // variables of the environment that it gives a value, as a sample or to a process
	Inserts     []InsertFact // what runs around what answers requests, by line
	Faults      []FaultFact  // what is raised, and what becomes of it, by line
	Locals      []byte       `msg:",allownil"` // names of parameters and locals, packed: see LocalNames
	Closed      bool         // its top is the body of a function: names there are known to it alone
}

// EnvFact is a variable of the environment that is read.
type EnvFact struct {
	Name    string
	Line    int    // where it is read first
	Default string // what stands for it where it is not set, as far as that is written beside it
	Must    bool   // nothing stands for it, and to read it fails where it is not set
}

// AskFact is something asked for by name: a text of a catalogue, the address of a
// route.
type AskFact struct {
	Kind string // AskText or AskRoute
	Name string // with "*" for what is put in
	Line int
	// Sure says that the call is for nothing else; others count when what they name
	// is held somewhere.
	Sure bool
}

// OffRoute is a route that is there as a comment alone.
type OffRoute struct {
	Method  string // upper case; "" where a router is put below the path, or none is told
	Pattern string
	Line    int
}

// Kinds of AskFact.
const (
	AskText  = "text"
	AskRoute = "route"
)

// Inside is what the body of a definition looks like, kept where that tells
// something.
type Inside struct {
	Definition int // its place among the file's definitions
	Nesting    int // how deep branches and loops stand in each other
	NestLine   int // where they stand deepest
	Branches   int // branches, loops, cases and handlers of errors
	// Passes is what it does nothing but hand its own arguments on to, as
	// written; "" where it does more.
	Passes  string
	Gives   bool // a value back
	Empty   bool // nothing stands in it, or only that it is not done yet
	Asserts bool // it calls something that checks
	Sets    []Mention
	// Takes are the types of what it takes, as far as they are written like classes:
	// of what may answer a request alone.
	Takes []string
}

// Choice is a choice among many cases of one subject.
type Choice struct {
	Definition int // that it stands in; -1 at the top of the file
	Line       int
	Subject    string // as written
	Cases      int
	ByType     bool // the cases are types
}

// Flag is a field or a cell of state that is only true or false.
type Flag struct {
	Owner string // the qualified name of what holds it
	Name  string
	Line  int
	Sets  int // how often it is set to either
}

// TestCase is one case of a test.
type TestCase struct {
	Name    string
	Line    int
	EndLine int
	Asserts bool     // it calls something that checks, by its name
	Waits   int      // the line where it waits for time to pass, 0 where it does not
	Calls   []string // what it calls, by name, where it does not assert itself
}

// Stretch is a run of lines; both ends belong to it.
type Stretch struct {
	From int
	To   int
}

// RouteFact is a route as its file declares it, without the prefixes under
// which the file is mounted elsewhere.
type RouteFact struct {
	Method  string // upper case; "ANY" when all are answered
	Pattern string // with the prefixes of the groups around it in the file
	Line    int
	On      string   // the router it is declared on
	Handler string   // what answers, as written; "" when it is not told or written in place
	InPlace bool     // what answers is written where the route is
	Guards  []string // what is asked before it answers, as written, in order
	Name    string   // that it is given; "" for none
	// Inner is the first name that the call is handed which makes what answers: where
	// that is a function of the codebase, it answers, and the other lets it. "" for none.
	Inner string
}

// CallFact is a request that the code sends over HTTP, as far as it is written
// where it is sent.
type CallFact struct {
	Method  string // upper case; "" where it is not told
	Pattern string // path with "*" for what is put in; the host is left out
	Line    int
	Host    string // as written, where it is another system's
}

// EntityFact is something the code keeps: a model of a mapper, a table of a
// migration or of a schema.
type EntityFact struct {
	Name string
	Line int
	// From says how it is told: "model", "table" or "schema".
	From string
}

// OperationFact is something done to what may be an entity: a table in a
// statement, or a type that a mapper is asked for.
type OperationFact struct {
	Entity string
	What   string
	Line   int
	ByName bool // told by a name alone: it counts where something of that name is kept
	// Via is the member of a repository that is called, "LotRepository.find": where
	// that has a body of its own, the body does it. "" where there is none.
	Via string
	// By is the call that does it, "" where none is told: where that is known to be
	// the codebase's own, its body does it.
	By string
	// Written: a statement that is written out names it: it is kept, whether its table
	// is declared here or not.
	Written bool
}

// MessageFact is a message sent or received by name.
type MessageFact struct {
	Name  string
	Const string // the constant that holds the name, where none is written
	Line  int
	Send  bool
	// Plain says that the call alone makes it a message. Others could be
	// anything, and count when the other end is found.
	Plain bool
}

// Span is the set of fingerprints of one of the file's definitions.
type Span struct {
	Definition int
	Tokens     int
	Prints     []byte `msg:",allownil"` // sorted, four bytes each
}

// WiredFact is a call that says what is handed out where something is asked for.
type WiredFact struct {
	Provides string // as written; "" where a function makes it
	For      string
	Lifetime string // as the call says: scoped, singleton, transient; "" where it does not
	How      string // the call
	Line     int
}

// Literal is a constant that holds a text.
type Literal struct {
	Name  string
	Value string
	Line  int
}

// RunFact is something that tells how the system runs.
type RunFact struct {
	Kind  string
	Name  string // the plan of a job, the name of a check
	Line  int
	Right string // that a check asks for, where it is written there
}

// MountFact says that one router answers below a path of another.
type MountFact struct {
	On     string // the outer router
	Path   string
	Target string // the inner router as written, or the module that holds it
	Line   int
	// Instead: the path stands in the place of the one that the inner router is made
	// with, not before it.
	Instead bool
}

// InsertFact says that something runs around what answers requests without being
// named where these are declared.
type InsertFact struct {
	Name  string // as written; "" where it is written in place
	When  string // one of the Insert…
	Line  int
	On    string // the router it is put on; "" where a class, or the whole program, has it
	Path  string // below which alone; "" for everything
	Until int    // last line of the group that it is put on; 0 where there is none
	Whole bool   // it runs for the whole program
	// Ordered: it runs for what is declared behind it alone.
	Ordered bool
	Phase   int      // of those for the whole program the lowest run first
	Only    []string // actions of the class it runs for; none for all
	Except  []string
	Lifts   bool // it takes one of this name away again
}

// When something inserted runs.
const (
	InsertBefore = "before"
	InsertAround = "around"
	InsertAfter  = "after"
	InsertError  = "error"
)

// FaultFact is a fault that is raised, or what becomes of one.
type FaultFact struct {
	What    string // one of the Fault…
	Name    string // its class, or the number that is answered; "" where it is not told
	Line    int
	EndLine int // of the block that catches it
}

// What becomes of faults.
const (
	FaultRaise   = "raise"
	FaultTurn    = "turn"    // one was caught, this is raised instead
	FaultCatch   = "catch"   // it is handled
	FaultSwallow = "swallow" // it is caught and nothing is done
)

// Mention is a name met in the code, with the line it is first met on.
type Mention struct {
	Name string
	Line int
}

// Sign is a telling thing met while reading, such as JSX being drawn or SQL
// being run. Roles and patterns are judged from signs.
type Sign struct {
	Name  SignName
	Line  int // of the first
	Count int
}

// Qualified is the definition's name with its parents, joined by dots.
func (d Definition) Qualified() string {
	if d.Parent == "" {
		return d.Name
	}
	return d.Parent + "." + d.Name
}

// Sign returns how often the named sign was met and the line of the first.
func (f *Facts) Sign(name SignName) (count, line int) {
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

// NextRoute gives what finds the line of the route that follows a line, far away
// for none.
func (f *Facts) NextRoute() func(line int) int {
	lines := make([]int, len(f.Routes))
	for i := range f.Routes {
		lines[i] = f.Routes[i].Line
	}
	slices.Sort(lines)
	return func(line int) int {
		if i, _ := slices.BinarySearch(lines, line+1); i < len(lines) {
			return lines[i]
		}
		return 1 << 30
	}
}

// Kinds of RunFact.
const (
	RunSchedule = "schedule" // a job and when it runs
	RunAccess   = "access"   // a check of who may do something
	RunProcess  = "process"  // a process and the command that starts it
	RunStore    = "store"    // a store that runs beside it
	RunHealth   = "health"   // a check of whether something is well
	// RunBounds is where a transaction begins.
	RunBounds = "bounds"
	// RunValid is a check of what was sent.
	RunValid = "valid"
)

// What is done to an entity.
const (
	Create = "create"
	Read   = "read"
	Update = "update"
	Delete = "delete"
)

// Chain starts the names of routers that are known to all files: actions that
// others go on from, by their path.
const Chain = "chain:"
