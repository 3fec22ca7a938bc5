package kotlin

import "jantel/core/syntax"

// plainly is how calls are told.
var plainly = &syntax.Plainly{
	Self: syntax.Set("this"), Typed: true, Super: "super", Gives: []string{":"},
	Lists:    syntax.Set("List", "MutableList", "Set", "Collection", "Iterable", "Sequence", "Array"),
	NotCalls: syntax.Set("if", "when", "while", "for", "catch", "return", "throw", "super", "fun", "constructor", "init", "get", "set"),
}
