package catalogues

import (
	"fmt"
	"strings"
	"testing"
	"unicode/utf8"

	"jantel/core/model"
	"jantel/core/syntax"

	"github.com/stretchr/testify/require"
)

// told writes texts as "key=text@line".
func told(all []model.Literal) string {
	var out []string
	for _, l := range all {
		out = append(out, fmt.Sprintf("%s=%s@%d", l.Name, l.Value, l.Line))
	}
	return strings.Join(out, " | ")
}

func TestTextsOfJSON(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"flat":                         {"{ \"a\": \"A\",\n\"b\": \"B\" }", "a=A@1 | b=B@2"},
		"in each other":                {`{"lots": {"dry": {"title": "Dry"}}, "b": "B"}`, "lots.dry.title=Dry@1 | b=B@1"},
		"with a mark of byte order":    {"\ufeff{\"a\": \"A\"}", "a=A@1"},
		"lists have no keys":           {`{"a": ["x", "y"], "b": "B", "c": {"d": ["z"]}}`, "b=B@1"},
		"a description is no text":     {`{"a": {"message": "A", "description": "of a"}, "b": {"message": "B"}}`, "a=A@1 | b=B@1"},
		"a message among other keys":   {`{"message": "A", "b": "B", "c": "C", "d": {"message": "D"}}`, "message=A@1 | b=B@1 | c=C@1 | d.message=D@1"},
		"figures are no catalogue":     {`{"a": 1, "b": 2, "c": "C"}`, ""},
		"a figure among many texts":    {`{"a":"1","b":"2","c":"3","d":"4","e":"5","f":"6","g":"7","h":"8","i":"9","j":"10","n":1}`, "a=1@1 | b=2@1 | c=3@1 | d=4@1 | e=5@1 | f=6@1 | g=7@1 | h=8@1 | i=9@1 | j=10@1"},
		"broken off":                   {`{"a": "A", "b": "B`, "a=A@1"},
		"text that is a key elsewhere": {`{"a": "b", "b": "a"}`, "a=b@1 | b=a@1"},
		"empty":                        {"", ""},
		"no object":                    {`["a", "b"]`, ""},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, told(keyed([]byte(c.text)))) })
	}
}

func TestMessagesOfGettext(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"a head, a message, one without its text": {
			"msgid \"\"\nmsgstr \"Language: de\"\n\nmsgid \"Box\"\nmsgstr \"Kiste\"\n\nmsgid \"Lid\"\nmsgstr \"\"\n", "Box=Kiste@4 | Lid=@7",
		},
		"over several lines":   {"msgid \"Open \"\n\"the box\"\nmsgstr \"\"\n\"Kiste \"\n\"öffnen\"\n", "Open the box=Kiste öffnen@1"},
		"plural and context":   {"msgctxt \"menu\"\nmsgid \"box\"\nmsgid_plural \"boxes\"\nmsgstr[0] \"Kiste\"\nmsgstr[1] \"Kisten\"\n", "box=Kiste@2"},
		"with signs in it":     {"msgid \"a \\\"b\\\"\\n\"\nmsgstr \"c\"\n", "a \"b\"\n=c@1"},
		"comments are skipped": {"# one\n#: src/a.py:1\n#~ msgid \"old\"\nmsgid \"a\"\nmsgstr \"b\"\n", "a=b@4"},
		"broken quotes":        {"msgid \"a\nmsgstr b\"\nmsgid \"c\"\nmsgstr \"d\"\n", "c=d@3"},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, told(gettext([]byte(c.text)))) })
	}
}

func TestKeysOfProperties(t *testing.T) {
	for name, c := range map[string]struct{ text, want string }{
		"three signs":             {"a=A\nb: B\nc C\n", "a=A@1 | b=B@2 | c=C@3"},
		"comments":                {"# a=A\n! b=B\nc=C\n", "c=C@3"},
		"going on":                {"a=one\\\n  two=2\nb=B\n", "a=one\\@1 | b=B@3"},
		"nothing behind the sign": {"a=\nb=B\n", "a=@1 | b=B@2"},
		"a line without a key":    {"=x\nalone\n", ""},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, told(properties([]byte(c.text)))) })
	}
}

func TestSamplesOfSettings(t *testing.T) {
	f := sample(syntax.How{}, []byte("# of the counter\nPORT=8080\nexport URL=\"http://vault\"\nEMPTY=\nQUOTED='x y'\n"))
	require.Equal(t, "PORT=8080@2 | URL=http://vault@3 | EMPTY=@4 | QUOTED=x y@5", told(f.Given))
	require.Empty(t, f.Texts, "a setting is no text of a catalogue")
}

func TestCataloguesAreBounded(t *testing.T) {
	var b strings.Builder
	for i := range syntax.MaxHeld + 500 {
		fmt.Fprintf(&b, "k%d=%s\n", i, strings.Repeat("ü", 200))
	}
	all := properties([]byte(b.String()))
	require.Len(t, all, syntax.MaxHeld)
	require.LessOrEqual(t, len(all[0].Value), syntax.MaxText)
	require.True(t, utf8.ValidString(all[0].Value), "cut between letters")
	require.Empty(t, keyed([]byte(strings.Repeat(`{"a":`, 500)+`"x"`+strings.Repeat("}", 500))))
	require.Empty(t, keyed([]byte(`{"`+strings.Repeat("k", 400)+`": "v"}`)), "no key is so long")
}

func FuzzCatalogues(f *testing.F) {
	for _, text := range []string{
		`{"a": {"message": "b"}}`, "msgid \"a\"\nmsgstr \"b\"\n", "a=b\\\nc", "export A='b", "{\"a\": [\"b\", {\"c\": 1}], \"d\": null}", "\ufeff{",
	} {
		f.Add([]byte(text))
	}
	f.Fuzz(func(t *testing.T, text []byte) {
		lines := strings.Count(string(text), "\n") + 1
		for _, list := range []func([]byte) []model.Literal{keyed, gettext, properties} {
			for _, l := range list(text) {
				require.NotEmpty(t, l.Name)
				require.LessOrEqual(t, len(l.Name), 300)
				require.LessOrEqual(t, len(l.Value), syntax.MaxText)
				require.True(t, l.Line >= 1 && l.Line <= lines, "line %d of %d", l.Line, lines)
			}
		}
	})
}
