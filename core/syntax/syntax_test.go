package syntax_test

import (
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/syntax"

	"github.com/stretchr/testify/require"
)

var braces = &syntax.Braces{NestedComments: true, HashComments: true, Chars: true}

// words are the tokens of a stream as they stand.
func words(s *syntax.Stream) []string {
	var out []string
	for i := range s.Tokens {
		out = append(out, s.Text(i))
	}
	return out
}

func TestBracesAreLexedAndMatched(t *testing.T) {
	s := braces.Lex([]byte("a(b[1.5e+3], \"c}\\\"\") { /* { /* } */ ( */ # (\n 'x' 'static 1..2 }"))
	require.Equal(t, []string{"a", "(", "b", "[", "1.5e+3", "]", ",", `"c}\""`, ")", "{", "'x'", "'", "static", "1", ".", ".", "2", "}"}, words(s))
	require.Empty(t, s.Problem)
	require.Len(t, s.Comments, 2)
	require.Equal(t, 8, s.Close(1))
	require.Equal(t, 5, s.Close(3))
	require.Equal(t, 17, s.Close(9))
	require.Equal(t, 0, s.Close(0), "what opens nothing closes at itself")
	require.Equal(t, 2, s.Line(10))
}

func TestWhatIsNotClosedCostsALineAndIsSaid(t *testing.T) {
	for name, c := range map[string]struct{ text, problem, last string }{
		"a string":              {"a = \"open\nb = 1", "a string is not closed (line 1)", "1"},
		"a comment":             {"a /* open\nb", "a comment is not closed (line 1)", "a"},
		"a bracket":             {"f(a\ng", "a bracket is not closed (line 1)", "g"},
		"a bracket too many":    {"f)\ng", "a bracket closes nothing (line 1)", "g"},
		"brackets that cross":   {"f([)]\ng", "a bracket is not closed (line 1)", "g"},
		"the first is the tale": {")\n\"\n", "a bracket closes nothing (line 1)", `"`},
	} {
		t.Run(name, func(t *testing.T) {
			s := braces.Lex([]byte(c.text))
			require.Equal(t, c.problem, s.Problem)
			require.Equal(t, c.last, s.Text(s.Len()-1))
		})
	}
}

// A reader for strings alone, to try what languages build theirs of.
func special(fn func(b *syntax.Builder) bool) *syntax.Braces { return &syntax.Braces{Special: fn} }

func TestStringsThatRunOverLines(t *testing.T) {
	until := special(func(b *syntax.Builder) bool {
		if !b.Next(`"""`) {
			return false
		}
		b.Until(3, `"""`)
		return true
	})
	s := until.Lex([]byte("a \"\"\"one\n\"two\" {\n\"\"\" b"))
	require.Equal(t, []string{"a", "\"\"\"one\n\"two\" {\n\"\"\"", "b"}, words(s))
	require.Equal(t, 3, s.Line(2))
	s = until.Lex([]byte("a \"\"\" b\nc"))
	require.NotEmpty(t, s.Problem)
	require.Equal(t, "c", s.Text(s.Len()-1), "what is never closed is a sign")
}

func TestCodeInStringsIsSteppedOver(t *testing.T) {
	held := special(func(b *syntax.Builder) bool { return b.Next(`$"`) && b.Interpolated(1, '"', "{", false) })
	for text, want := range map[string][]string{
		`$"a {b("}")} c" d`:      {`$"a {b("}")} c"`, "d"},
		`$"a {x ? "{" : y}" d`:   {`$"a {x ? "{" : y}"`, "d"},
		`$"{new { A = 1 }.A}"`:   {`$"{new { A = 1 }.A}"`},
		`$"plain \" still" d`:    {`$"plain \" still"`, "d"},
		"$\"never closed\nd = 1": {"$", `"`, "never", "closed", "d", "=", "1"},
	} {
		require.Equal(t, want, words(held.Lex([]byte(text))), text)
	}
}

func TestSearchingInVainEnds(t *testing.T) {
	b := syntax.NewBuilder(make([]byte, 100))
	require.False(t, b.Spent())
	b.Waste(1 << 30)
	require.True(t, b.Spent())
}

func TestManyStrayBracketsAreReadInOnePass(t *testing.T) {
	// Ten thousand open, a million that close nothing: without a count of what
	// is open this would take minutes.
	s := braces.Lex([]byte(strings.Repeat("(", 9000) + strings.Repeat("]", 1_000_000)))
	require.Equal(t, 1_009_000, s.Len())
	require.NotEmpty(t, s.Problem)
}

func TestArgumentsAndNames(t *testing.T) {
	s := braces.Lex([]byte("a.b.c(d.e, f(1, 2), { g: h }, ) i()"))
	open := 5
	require.True(t, s.Is(open, "("))
	args := s.Args(open)
	require.Len(t, args, 3)
	require.Equal(t, "d.e", s.Name(args[0]))
	require.Empty(t, s.Name(args[1]), "a call is no name")
	require.Empty(t, s.Name(args[2]))
	name, first := s.Dotted(4)
	require.Equal(t, "a.b.c", name)
	require.Zero(t, first)
	require.Empty(t, s.Args(s.Len()-2))
	require.Nil(t, s.Args(0))
}

func TestRoutesAreJoinedWithOneSlash(t *testing.T) {
	for _, c := range [][3]string{{"", "", "/"}, {"/", "/", "/"}, {"/api/", "/lots/", "/api/lots"}, {"api", "", "/api"}, {"", "lots/:id", "/lots/:id"}} {
		require.Equal(t, c[2], syntax.JoinRoute(c[0], c[1]))
	}
	spans := []syntax.Span{{First: 0, Last: 90, Prefix: "/a"}, {First: 10, Last: 20, Prefix: "b"}}
	require.Equal(t, "/a/b", syntax.Around(spans, 15))
	require.Equal(t, "/a", syntax.Around(spans, 30))
	require.Empty(t, syntax.Around(spans, 91))
}

func TestTypesAreFoundByTheirFullNameNearestFirst(t *testing.T) {
	file := func(p, ns string, defs ...model.Definition) *model.File {
		return &model.File{Path: p, Language: "Java", Facts: &model.Facts{Namespace: ns, Definitions: defs}}
	}
	lot := model.Definition{Name: "Lot", Kind: model.DefClass}
	part := model.Definition{Name: "Part", Parent: "Lot", Kind: model.DefEnum}
	method := model.Definition{Name: "weigh", Parent: "Lot", Kind: model.DefMethod}
	tree := syntax.NewTree([]*model.File{file("desk/main/Lot.java", "vault", lot, part, method), file("press/main/Lot.java", "vault", lot), {Path: "x.py", Language: "Python", Facts: &model.Facts{Definitions: []model.Definition{lot}}}}, "")
	x := syntax.NewTypeIndex(tree, ".", false, "Java")
	require.Equal(t, []string{"desk/main/Lot.java"}, x.Files("vault.Lot", "desk/test/A.java"))
	require.Equal(t, []string{"press/main/Lot.java"}, x.Files("vault.Lot", "press/A.java"))
	require.Len(t, x.Files("vault.Lot", "other/A.java"), 2, "equally near, both are meant")
	require.Equal(t, []string{"desk/main/Lot.java"}, x.Files("vault.Lot.Part", "a"))
	require.Empty(t, x.Files("vault.Lot.weigh", "a"), "a method is no type")
	require.Empty(t, x.Files("Lot", "a"), "another language's type is not meant")
	require.True(t, x.HasNamespace("vault"))
	require.True(t, x.In("vault.Lot", "Part"))
	require.Equal(t, []string{"Lot"}, x.Names("vault"))
}

func TestMentionsAreFoundByName(t *testing.T) {
	f := &model.Facts{Mentions: []model.Mention{{Name: "Box", Line: 3}, {Name: "Lot", Line: 9}}}
	require.Equal(t, 9, syntax.MentionLine(f, "Lot"))
	require.Zero(t, syntax.MentionLine(f, "Lots"))
}

func TestSQLIsToldFromProse(t *testing.T) {
	for text, want := range map[string]bool{
		"SELECT id FROM lots":                      true,
		"\n  insert into lots values (1)":          true,
		"update lots set dry = 1":                  true,
		"WITH dry AS (SELECT 1) SELECT * FROM dry": true,
		"CREATE TABLE lots (id INT)":               true,
		"Select a lot":                             false,
		"Update the list of lots from all stores":  false,
		"UPDATE lots\nSET dry = 1":                 true,
		"\n\tUPDATE\n\t\tlots\n\tSET\n\t\tdry=1\n": true,
		"SELECT\n\tid\nFROM\n\tlots":               true,
		"INSERT INTO\n\tlots\nVALUES (1)":          true,
		"DELETE\n\tFROM lots":                      true,
		"Selection\nof lots from all":              false,
		"Updates\nset by hand":                     false,
		"with care":                                false,
		"":                                         false,
	} {
		require.Equal(t, want, syntax.LooksSQL(text), text)
	}
}

func TestMinifiedTextIsToldByItsLines(t *testing.T) {
	long := strings.Repeat("a=1;", 700)
	require.True(t, syntax.LooksMinified([]byte(long), 1))
	require.True(t, syntax.LooksMinified([]byte("// head\n"+long+"\n"+long+"\n"+strings.Repeat("x\n", 20)), 23))
	require.False(t, syntax.LooksMinified([]byte(strings.Repeat("const a = 1\n", 900)), 900))
	require.False(t, syntax.LooksMinified([]byte(strings.Repeat("const a = 1\n", 900)+long), 901), "one long line among many is data")
	require.False(t, syntax.LooksMinified([]byte("short"), 1))
}

func TestTextsInOtherEncodingsAreRead(t *testing.T) {
	for name, c := range map[string]struct {
		src  string
		want string
		text bool
	}{
		"a mark of UTF-8":    {"\xEF\xBB\xBFa", "a", true},
		"UTF-16, little end": {"\xFF\xFEa\x00\xe4\x00", "aä", true},
		"UTF-16, big end":    {"\xFE\xFF\x00a", "a", true},
		"half a sign":        {"\xFF\xFEa\x00b", "a", true},
		"Latin-1":            {"caf\xe9", "caf\xe9", true},
		"binary":             {"a\x00b", "a\x00b", false},
	} {
		t.Run(name, func(t *testing.T) {
			got, text := syntax.Decode([]byte(c.src))
			require.Equal(t, c.text, text)
			require.Equal(t, c.want, string(got))
		})
	}
}

func TestASentenceIsOneLineAndNotTooLong(t *testing.T) {
	require.Equal(t, "Keeps boxes and shelves.", syntax.Sentence("Keeps boxes\n  and shelves.\n\nMore.", 80))
	require.Equal(t, "Keeps boxes in rows.", syntax.Sentence("Keeps boxes in rows. And then it goes on for long.", 30))
	require.LessOrEqual(t, len(syntax.Sentence(strings.Repeat("word ", 50), 40)), 44)
	require.Empty(t, syntax.Sentence("  ", 10))
}

func TestLinesThatACarriageReturnEndsAloneAreLines(t *testing.T) {
	for in, want := range map[string]string{"a\rb\r": "a\nb\n", "a\r\nb\r\n": "a\r\nb\r\n", "a\rb\n": "a\rb\n", "ab": "ab", "a\x00\rb": "a\x00\rb"} {
		got, _ := syntax.Decode([]byte(in))
		require.Equal(t, want, string(got), in)
	}
}
