package model

// Journey is the way one request, message or command takes through the code:
// from where it comes in, over the definitions that hand it on, to what is kept
// or asked of others.
type Journey struct {
	Route      *Route // nil for what comes in otherwise
	Start      JourneyStart
	Stops      []JourneyStop // the main way: the one that reaches a store, where any does
	Others     int           // further definitions that it reaches
	Skipped    []Role        // what most journeys like it have and it has not
	Operations []JourneyOperation
	Ends       []string // how it ends, in sentences
	Broken     string   // why it could not be followed, "" where it was
}

// JourneyStart is where a journey begins.
type JourneyStart struct {
	Kind string // route, message, command
	Path string
	Name string
	Line int
}

// What journeys start from.
const (
	StartRoute   = "route"
	StartMessage = "message"
	StartCommand = "command"
)

// JourneyStop is a definition that a journey comes through.
type JourneyStop struct {
	Path string
	Name string
	Line int // of the definition
	From int // line in the stop before from where it is called, 0 for the first
	Role Role
	Tie  Tie
	// Bounds is what makes it a transaction: all of it holds, or nothing; "" where it
	// makes none.
	Bounds string
	Faults []FaultFact // what it raises, turns or swallows, by line; what it handles is left out
}

// JourneyOperation is what a journey does to an entity.
type JourneyOperation struct {
	Entity string
	What   string
	Path   string
	Line   int
}

// Tie says how sure a link between two definitions is.
type Tie string

// The ties.
const (
	TieSure   Tie = "sure"
	TieLikely Tie = "likely"
	TieLooks  Tie = "only looks like"
)

// TestedBy are the tests that reach a definition.
type TestedBy struct {
	Path  string
	Name  string
	Tests []TestReach
}

// TestReach is a test that reaches a definition, over how many calls, and of
// which kind it is: unit, integration, contract or end to end.
type TestReach struct {
	Path     string
	Kind     string
	Distance int
}
