package syntax

import (
	"slices"
	"strings"

	"jantel/core/model"
)

// testCases lists the cases of tests: calls that take a sentence and a function
// (it, test, specify), and definitions that are named or marked as tests.
func testCases(f *model.Facts, s *Stream) {
	marked := slices.ContainsFunc(f.Definitions, func(d model.Definition) bool { return marksTest(&d) })
	for i := range f.Definitions {
		if d := &f.Definitions[i]; hasBody(d.Kind) && (marksTest(d) || !marked && namedTest(d)) {
			from := lineToken(s, d.Line)
			if !marksTest(d) && (standIn(d.Parent) || givesBack(s, from, d.Name) || rowsFor(f, d)) {
				continue // named for what it is tested with
			}
			c := model.TestCase{Name: caseName(s, from, d.Name), Line: d.Line, EndLine: d.EndLine}
			c.Asserts = expects(d) || tellsByAnswer(s, from, d.Name)
			if macroTests[d.Name] {
				from++ // what writes the case is none of what it calls
			}
			keepCase(f, s, c, from, lineToken(s, d.EndLine+1))
		}
	}
	s.tells(asksCases, func(i int) {
		if !caseWords[string(s.Bytes(i))] || s.Is(i-1, ".") {
			return
		}
		open := i + 1
		if s.Match(open, ".", Name) && s.Any(open+1, "only", "concurrent", "serial") {
			open += 2
		}
		switch {
		case s.Match(open, "(", Quoted):
			if end := s.Close(open); end > open+3 {
				keepCase(f, s, model.TestCase{Name: s.Unquote(open + 1), Line: s.Line(i), EndLine: s.EndLine(end)}, open, end)
			}
		case s.Ends && s.Kind(open) == String && s.Is(open+1, "do"):
			end := untilEnd(s, open+1)
			keepCase(f, s, model.TestCase{Name: s.Unquote(open), Line: s.Line(i), EndLine: s.EndLine(end)}, open, end)
		}
	})
}

// caseWords are functions that take a case of a test.
var (
	caseWords = Set("it", "test", "specify", "scenario", "subtest")
)

// macroTests are macros that write a case of a test: it has no other name.
var macroTests = Set("START_TEST", "TEST", "TEST_F", "TEST_P", "TYPED_TEST", "TEST_CASE", "TEST_METHOD", "BOOST_AUTO_TEST_CASE",
	"BOOST_FIXTURE_TEST_CASE", "BOOST_DATA_TEST_CASE", "BOOST_AUTO_TEST_CASE_TEMPLATE", "SCENARIO")

// caseName is what a case is called: where a macro writes it, by what is handed to that.
func caseName(s *Stream, from int, name string) string {
	at := nameAt(s, from, name)
	if at < 0 || !macroTests[name] {
		return name
	}
	var parts []string
	args := s.Args(at + 1)
	for _, a := range args[:min(2, len(args))] {
		if a[1] == a[0]+1 && (s.Kind(a[0]) == Ident || s.Kind(a[0]) == String) {
			parts = append(parts, s.Unquote(a[0]))
		}
	}
	if len(parts) == 0 {
		return name
	}
	return strings.Join(parts, ".")
}

// namedTest reports whether a definition is one case of a test by its name.
func namedTest(d *model.Definition) bool {
	if d.Parent != "" && (d.Parent == d.Name || strings.HasSuffix(d.Parent, "."+d.Name)) {
		return false // what builds a class of tests
	}
	n := d.Name
	if macroTests[n] {
		return true
	}
	switch {
	case n == "TestMain" || len(n) < 5:
		return false
	case strings.HasPrefix(n, "test_"):
		return true
	case n[4] < 'A' || n[4] > 'Z':
		return false
	}
	return n[:4] == "Test" || n[:4] == "test" && d.Kind == model.DefMethod
}

// standIn reports whether a type stands in for another in tests: its methods are what is
// tested with.
func standIn(parent string) bool {
	return slices.Contains([]string{"fake", "mock", "stub", "dummy"}, strings.ToLower(FirstWord(parent)))
}

// rowsFor reports whether a definition gives the rows that the case of its name runs on.
func rowsFor(f *model.Facts, d *model.Definition) bool {
	of, is := strings.CutSuffix(d.Name, "_data")
	return is && slices.ContainsFunc(f.Definitions, func(o model.Definition) bool { return o.Name == of && o.Parent == d.Parent })
}

// nameAt is where a definition that begins at a token has its name, before its parameters;
// -1 where that is not near.
func nameAt(s *Stream, from int, name string) int {
	for i := from; i < min(from+12, len(s.Tokens)); i++ {
		if s.Is(i, name) && s.Is(i+1, "(") {
			return i
		}
	}
	return -1
}

// givesBack reports whether the definition that begins at a token writes a result behind
// its parameters: nobody takes one from a case.
func givesBack(s *Stream, from int, name string) bool {
	i := nameAt(s, from, name)
	if i < 0 {
		return false
	}
	end := s.Close(i+1) + 1
	return s.Any(end, "(", "*", "[") || s.Kind(end) == Ident && !s.Any(end, "throws", "const", "override", "noexcept", "final", "where")
}

// tellsByAnswer reports whether the definition that begins at a token writes before its name
// what it gives back: a case that does says by that whether all went well.
func tellsByAnswer(s *Stream, from int, name string) bool {
	i := nameAt(s, from, name)
	return i > from && s.Is(s.Close(i+1)+1, "{") && (s.Kind(i-1) == Ident || s.Is(i-1, "*")) && !noAnswer[s.Text(i-1)]
}

// noAnswer are words before a name that are no type of what is given back.
var noAnswer = Set("void", "func", "fun", "function", "fn", "def", "sub", "async", "static", "public", "private", "protected", "internal",
	"final", "override", "virtual", "inline", "suspend", "get", "set", "unsafe", "const", "open", "new", "export", "default", "Task")

// marksTest reports whether a definition is one by its marks.
func marksTest(d *model.Definition) bool {
	for _, m := range d.Marks {
		m, _, _ = strings.Cut(strings.TrimLeft(m, "@[#"), "(")
		switch strings.TrimRight(m, "]") {
		case "Test", "Fact", "Theory", "TestMethod", "TestCase", "ParameterizedTest", "test", "tokio::test":
			return true
		}
	}
	return false
}

// waiting are calls that wait for time to pass, with what they are called on;
// none where the name alone says so.
var waiting = map[string]map[string]bool{
	"sleep": nil, "Sleep": Set("time", "Thread"), "Delay": Set("Task"), "waitForTimeout": nil, "delay": nil, "usleep": nil,
}

// expects reports whether the marks of a case say what it must break with.
func expects(d *model.Definition) bool {
	for _, m := range d.Marks {
		if strings.Contains(m, "expected") || strings.Contains(m, "Expected") || strings.Contains(m, "should_panic") {
			return true
		}
	}
	return false
}

// keepCase looks through the tokens of a case for what checks and what waits.
func keepCase(f *model.Facts, s *Stream, c model.TestCase, from, to int) {
	if len(f.Cases) >= maxInsides {
		return
	}
	calls, done := map[string]bool{}, 0
	for k := from; k < to && k < len(s.Tokens); k++ {
		if s.Kind(k) != Ident {
			continue
		}
		b := s.Bytes(k)
		if string(b) == "done" {
			done++
		}
		if k > from && string(b) != c.Name && canFail(s, k) || done > 1 { // handed in, and handed on
			c.Asserts = true
		}
		if !s.Is(k+1, "(") {
			continue
		}
		if c.Waits == 0 && waits(s, k) {
			c.Waits = s.Line(k)
		}
		if len(calls) < 40 && string(b) != c.Name && s.Tokens[k].shape == aName {
			calls[string(b)] = true
		}
	}
	if !c.Asserts {
		c.Calls = SortedSet(calls)
	}
	f.Cases = append(f.Cases, c)
}

// canFail reports whether a test can fail by what stands at a token: something
// checks, breaks on purpose, or is handed the test itself.
func canFail(s *Stream, k int) bool {
	return assertsAt(s, k) || s.Is(k+1, "(") && macro(s.Bytes(k)) || s.Tokens[k].shape == wordThrow || s.Match(k, "reject", "(") ||
		s.Is(k+1, "(") && s.Any(k+2, "t", "tb") && s.Any(k+3, ",", ")")
}

// macro reports whether a word is written as macros are: what stands behind it is not
// known, and may well check.
func macro(word []byte) bool {
	letters := 0
	for _, c := range word {
		if c >= 'A' && c <= 'Z' {
			letters++
		} else if c != '_' && (c < '0' || c > '9') {
			return false
		}
	}
	return letters > 2
}

// waits reports whether time is waited for at a token.
func waits(s *Stream, k int) bool {
	if s.Match(k, "setTimeout", "(", Name, ",", Figure) && !s.Is(k+4, "0") {
		// A promise that is kept by nothing but time.
		for back := k - 1; back >= 0 && back > k-14; back-- {
			if s.Is(back, "Promise") {
				return true
			}
		}
	}
	on, ok := waiting[s.Text(k)]
	return ok && (on == nil || s.Is(k-1, ".") && on[s.Text(k-2)])
}

// lineToken is the first token on a line or behind it.
func lineToken(s *Stream, line int) int {
	lo, hi := 0, len(s.Tokens)
	for lo < hi {
		if m := (lo + hi) / 2; int(s.Tokens[m].Line) < line {
			lo = m + 1
		} else {
			hi = m
		}
	}
	return lo
}

// untilEnd is the "end" of the block that a word opens, told by how far it is
// indented.
func untilEnd(s *Stream, open int) int {
	first := open
	for first > 0 && s.Tokens[first-1].Line == s.Tokens[open].Line && s.Tokens[first-1].Kind != Newline {
		first--
	}
	want := s.column(first)
	for k := open + 1; k < len(s.Tokens); k++ {
		if s.Is(k, "end") && s.Line(k) != s.Line(k-1) && s.column(k) <= want {
			return k
		}
	}
	return len(s.Tokens) - 1
}
