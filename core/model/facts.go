package model

//go:generate go tool msgp -file facts.go -o facts_packed.go -io=false -tests=false -unexported

//msgp:tuple Definition Import Use Project Command Alias Facts RouteFact CallFact EntityFact OperationFact MessageFact Span Literal RunFact MountFact Mention Sign
//msgp:limit arrays:2000000 maps:2000000
//msgp:shim SignName as:string using:string/SignName
//msgp:shim LinkKind as:uint8 using:packLinkKind/linkKindOf
//msgp:shim DefinitionKind as:uint8 using:packDefinitionKind/definitionKindOf

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
	Dependencies map[string]string `cbor:"5,keyasint,omitempty" msg:",allownil"` // package to version as written
	Workspaces   []string          `cbor:"6,keyasint,omitempty"`
	Entries      []string          `cbor:"7,keyasint,omitempty"`                 // main, module, bin: paths relative to the project
	Exports      map[string]string `cbor:"8,keyasint,omitempty" msg:",allownil"` // subpath pattern to target, "." first
	Imports      map[string]string `cbor:"9,keyasint,omitempty" msg:",allownil"` // "#name" pattern to target
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
	Prints      []byte          `cbor:"30,keyasint,omitempty" msg:",allownil"` // the set of fingerprints of the code, sorted, four bytes each
	Tokens      int             `cbor:"31,keyasint,omitempty"`                 // tokens they were made of
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
	Handler string `cbor:"5,keyasint,omitempty"` // what answers, as written; "" when it is not told or written in place
	InPlace bool   `cbor:"6,keyasint,omitempty"` // what answers is written where the route is
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

// Span is the set of fingerprints of one of the file's definitions.
type Span struct {
	Definition int    `cbor:"1,keyasint"`
	Tokens     int    `cbor:"4,keyasint"`
	Prints     []byte `cbor:"5,keyasint,omitempty" msg:",allownil"` // sorted, four bytes each
}

// Literal is a constant that holds a text.
type Literal struct {
	Name  string `cbor:"1,keyasint"`
	Value string `cbor:"2,keyasint"`
	Line  int    `cbor:"3,keyasint"`
}

// RunFact is something that tells how the system runs.
type RunFact struct {
	Kind string `cbor:"1,keyasint"`
	Name string `cbor:"2,keyasint"` // the plan of a job, the name of a check
	Line int    `cbor:"3,keyasint"`
}

// MountFact says that one router answers below a path of another.
type MountFact struct {
	On     string `cbor:"1,keyasint,omitempty"` // the outer router
	Path   string `cbor:"2,keyasint"`
	Target string `cbor:"3,keyasint"` // the inner router as written, or the module that holds it
	Line   int    `cbor:"4,keyasint"`
}

// Mention is a name met in the code, with the line it is first met on.
type Mention struct {
	Name string `cbor:"1,keyasint"`
	Line int    `cbor:"2,keyasint"`
}

// Sign is a telling thing met while reading, such as JSX being drawn or SQL
// being run. Roles and patterns are judged from signs.
type Sign struct {
	Name  SignName `cbor:"1,keyasint"`
	Line  int      `cbor:"2,keyasint"` // of the first
	Count int      `cbor:"3,keyasint"`
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

// Kinds of RunFact.
const (
	RunSchedule = "schedule" // a job and when it runs
	RunAccess   = "access"   // a check of who may do something
	RunProcess  = "process"  // a process and the command that starts it
	RunStore    = "store"    // a store that runs beside it
	RunHealth   = "health"   // a check of whether something is well
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
