package gdscript

import "jantel/core/syntax"

// plainly is how calls are told.
var plainly = &syntax.Plainly{
	Self: syntax.Set("self"), Build: "new", Typed: true, Super: "super", Gives: []string{"-", ">"},
	NotCalls: syntax.Set("if", "elif", "while", "for", "match", "return", "func", "and", "or", "not", "in", "preload",
		"load", "print", "range"),
}
