package perl

import "jantel/core/syntax"

// plainly is how calls are told.
var plainly = &syntax.Plainly{
	Arrow: true, Self: syntax.Set("$self", "$class", "$c"), Build: "new",
	NotCalls: syntax.Set("if", "unless", "while", "until", "for", "foreach", "elsif", "and", "or", "not", "return", "my", "our", "qw", "die",
		"push", "shift", "keys", "values", "defined", "exists", "join", "map", "grep", "sort", "print", "sprintf", "ref", "scalar", "sub"),
}
