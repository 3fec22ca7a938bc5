package naming

// SameAction are verbs that say the same of what is done to a thing, a row for
// each action.
var SameAction = [][]string{
	{"get", "fetch", "load", "retrieve", "find", "lookup"},
	{"delete", "remove", "destroy", "erase"},
	{"create", "make", "build", "new", "generate"},
	{"update", "modify", "change", "edit"},
	{"show", "display", "render", "draw"},
	{"check", "validate", "verify"},
}

// Asking are first words of names that promise yes or no, and that nothing
// changes; Giving promise a value.
var (
	Asking = map[string]bool{"is": true, "has": true, "can": true, "should": true}
	Giving = map[string]bool{"get": true, "find": true}
)
