package ruby

import "jantel/core/syntax"

// plainly is how calls are told.
var plainly = &syntax.Plainly{
	Self: syntax.Set("self"), Build: "new", Bare: true,
	NotCalls: syntax.Set("if", "unless", "while", "until", "and", "or", "not", "return", "puts", "raise", "defined?", "yield", "nil?",
		"class", "to_s", "to_i", "to_sym", "each", "map", "size", "length", "empty?", "present?", "blank?", "first", "last", "dup", "freeze"),
}
