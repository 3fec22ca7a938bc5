package cfamily

import "jantel/core/syntax"

// plainly is how calls are told.
var plainly = &syntax.Plainly{
	Arrow: true, Self: syntax.Set("this"),
	NotCalls: syntax.Set("if", "while", "for", "switch", "catch", "return", "sizeof", "alignof", "decltype", "typeof",
		"defined", "static_cast",
		"dynamic_cast", "const_cast", "reinterpret_cast", "__attribute__", "noexcept", "operator", "size", "begin", "end", "push_back",
		"c_str", "empty", "data", "get", "reset", "clear", "insert", "erase", "find", "emplace_back"),
}
