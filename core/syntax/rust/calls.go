package rust

import "jantel/core/syntax"

// plainly is how calls are told.
var plainly = &syntax.Plainly{
	Self: syntax.Set("self", "Self"), Typed: true, Gives: []string{"-", ">"}, Lists: syntax.Set("Vec"),
	NotCalls: syntax.Set("if", "while", "for", "match", "return", "fn", "Some", "Ok", "Err", "None", "Box", "Vec", "unwrap", "clone", "into",
		"as_ref", "to_string", "iter", "collect", "map", "expect", "len", "push", "to_owned", "as_str", "unwrap_or", "is_empty"),
}
