package languages_test

import (
	"maps"
	"os"
	"runtime"
	"slices"
	"strings"
	"syscall"
	"testing"
	"time"

	"jantel/core/survey"
	"jantel/core/syntax"

	"github.com/stretchr/testify/require"
)

// hostile are pieces that made, or could make, a reader look for an end that
// never comes: repeated they are the slowest texts we know of.
var hostile = []string{
	"(", "{", "[", "<", "(]", "({[", ")", "}", "]", ">", "((", "{{", "[[", "<<", "{%", "{#", "<%", "<?", "<!--", "<![CDATA[", "<a>", "<a b=", "<a b=\"", "<a ", "</", "<T<", "<T,",
	"\"", "'", "`", "\\", "\\'", "\\\"", "\"\"\"", "'''", "`${", "\"#{", "#{", "${", "f'{", "f\"{", "$@\"", "r#\"", "R\"x(", "@\"", "q{", "q(", "qw(", "%w[", "%(", "%q<", "s{", "s/", "m/", "tr/", "y/", "/", "/x", "= /", "/*", "//", "(*", "#|", "--", "=begin\n", "=pod\n", "__END__\n",
	"<<A;", "<<~A\n", "<<-A, ", "<<\"A\" ", "<<<A\n", "<<<'A'\n", "$$", "$a$", "#if 1\n", "#else\n", "#endif\n", "#define a \\\n", "\\\n",
	"a.", "a->", "a::", "a:", "a,", "a;", "a=", "a=>", "a?", "a ", "a\n", "a(", "a{", "a[", "a<", "a.b(", "a(b,", "a=b;", "a:b,", "@a", "@a(", "#[a(", "!a", "&a", "*a", "-a", "::a",
	"f(() => {", "x = function() {", "function a() {", "class A {", "class A { x = ", "class A<T extends ", "def a\n", "def a(", "def f():\n ", "if x:\n ", "if x\n", "do\n", "end\n", "begin\n", "case x\n", "case x:", "lambda: (", "->(", "sub a {", "sub a(", "package a;", "import a\n", "import {", "import {a as b,", "from a import (", "from 'a'", "export {", "export * from 'a'\n", "require('a')", "use a::{", "use a;", "using a;", "namespace a {", "mod a {", "impl A for B {", "fn a<", "macro_rules! a {", "template <", "typedef struct {", "struct A {", "enum A {", "interface A {", "var a, b = ", "let {a: {", "const [a,", "new A(", "new A() {", "return ", "yield ", "await ",
	"/** @type {a} */(", "/** @param {", "/** @typedef {object} a @property {a} b */\n", "/** @import a, {b} from 'c' */\n",
	"app.use(a); ", "use(", "before_action ", "before_action :a, only: ", "@a.before_request\ndef a():\n ", "@ControllerAdvice class A { @ExceptionHandler void a() {} }\n", "throw ", "raise A\n", "catch (a) {", "rescue A\n", "except A:\n ", ".catch(() => {", "resultset('a')->find", "let a = ",
	"from setuptools import setup; setup(name=a, ", "G_DEFINE_TYPE (A, a, B_TYPE_A)\n", "SELECT a FROM b WHERE ", "'SELECT * FROM a'", "CREATE TABLE a (", "CREATE FUNCTION a AS $$", "BEGIN ", "@include('a', [", "{{ a | b", "{% block a %}", "<script>", "<style>", "<template>", "<x:a>", "[a](", "![a](", "[![a](", "[a]:", "*a", "**a", "_a_", "`a", "> ", "- a\n", "1. a\n", "  - a\n", "# a\n", "a\n===\n", "|a", "|-", "&a;", "&#", "<a@b.c>", "http://a.b/", "~~a", "***a", "<PackageReference Include=\"a\"", "<ItemGroup>", "<a><b>", "a: &x [*x,", "- - ", "? a\n: ", "${a:-", "$(a", "a: b\n", "[a]\n", "a = [", "a = \"", "a = {", "\"a\":", "\"a\":{", "\"a\":[", "{\"a\":", "a:\n\tb\n", "FROM a\n", "RUN a \\\n", "require a v1\n", "gem 'a'\n", "\x00", "\xff", "\r", "\t", " ", "é",
}

// kinds are one file name for every kind of file that is registered.
func kinds() []string {
	var out []string
	for _, l := range syntax.Languages() {
		switch {
		case len(l.Extensions) > 0:
			out = append(out, "lot"+l.Extensions[0])
		case len(l.FileNames) > 0:
			out = append(out, l.FileNames[0])
		default:
			out = append(out, "lot")
		}
	}
	return out
}

// layouts write a piece n times: in short lines, each on a line of its own,
// and opened deeply before it is closed.
var layouts = []func(piece string, n int) []byte{
	func(piece string, n int) []byte {
		line := strings.Repeat(piece, max(1, 90/len(piece))) + "\n"
		return []byte(strings.Repeat(line, n/len(line)+1))
	},
	func(piece string, n int) []byte {
		return []byte(strings.Repeat(strings.TrimSuffix(piece, "\n")+"\n", n/(len(piece)+1)+1))
	},
	func(piece string, n int) []byte {
		line := strings.Repeat(piece, max(1, 90/len(piece))) + "\n"
		closing := strings.Map(func(r rune) rune {
			if i := strings.IndexRune("([{<", r); i >= 0 {
				return rune(")]}>"[i])
			}
			return r
		}, line)
		k := n/len(line)/2 + 1
		return []byte(strings.Repeat(line, k) + strings.Repeat(closing, k))
	},
	func(piece string, n int) []byte {
		if closers[piece] == "" {
			return nil
		}
		line := strings.Repeat(piece, max(1, 90/len(piece))) + "\n"
		return []byte(strings.Repeat(line, n/len(line)+1) + closers[piece] + "\n")
	},
	func(piece string, n int) []byte {
		ends, of := members[piece]
		if !of {
			return nil
		}
		return []byte(ends[0] + strings.Repeat(piece, n/len(piece)+1) + ends[1])
	},
}

// members are what a class may have very many of, with what opens and ends one.
var members = map[string][2]string{
	"void go() { go(); }\n": {"class A {\n", "}\n"}, "go() { this.go() }\n": {"class A {\n", "}\n"},
	"function go() { $this->go(); }\n": {"<?php\nclass A {\n", "}\n"}, "fun go() { go() }\n": {"class A {\n", "}\n"},
	"def go\n go\nend\n": {"class A\n", "end\n"}, " def go(self):\n  self.go()\n": {"class A:\n", ""},
	"fn go(&self) { self.go() }\n": {"impl A {\n", "}\n"}, "func (a *A) go() { a.go() }\n": {"package a\ntype A struct{}\n", ""},
	"sub go { go() }\n": {"package A;\n", "1;\n"}, "int a;\n": {"struct A {\n", "};\n"}, "A,\n": {"enum B {\n", "}\n"},
}

// closers end what a piece of several signs opens.
var closers = map[string]string{"/*": "*/", "{{": "}}", "<!--": "-->", "\"\"\"": "\"\"\"", "'''": "'''", "(*": "*)", "#|": "|#", "<%": "%>", "{%": "%}", "{#": "#}", "<?": "?>", "<![CDATA[": "]]>", "`${": "}`", "\"#{": "}\"", "r#\"": "\"#", "R\"x(": ")x\"", "<script>": "</script>", "<<A;": "\nA\n", "[a](": ")", "=begin\n": "\n=end\n", "=pod\n": "\n=cut\n"}

// took is the least time of the processor that a few readings of src took on
// their own thread: what else the machine does is none of it.
func took(name string, src []byte, times int) time.Duration {
	runtime.LockOSThread()
	defer runtime.UnlockOSThread()
	spent := func() time.Duration {
		var u syscall.Rusage
		if err := syscall.Getrusage(1, &u); err != nil { // 1 is this thread
			panic(err)
		}
		return time.Duration(u.Utime.Nano() + u.Stime.Nano())
	}
	least := time.Hour
	for range times {
		began := spent()
		survey.Read(syntax.ForFile(name, src), src)
		least = min(least, spent()-began)
	}
	return least
}

// TestAHostileTextTwiceAsLongTakesTwiceAsLong doubles every piece in every
// layout for every kind of file. What is read within a few milliseconds is no
// matter; whatever takes longer must not grow with the square.
func TestAHostileTextTwiceAsLongTakesTwiceAsLong(t *testing.T) {
	size, pieces := 1<<17, hostile
	if os.Getenv("HOSTILE") == "" {
		// The short form takes every ninth piece, others for each kind.
		size, pieces = 1<<15, nil
	}
	// What is read at 2 MB a second or more is no matter at this size.
	quick := time.Duration(size) * time.Second / (2 << 20)
	require.Greater(t, len(kinds()), 50)
	for k, name := range kinds() {
		mine := pieces
		if mine == nil {
			for i := k % 9; i < len(hostile); i += 9 {
				mine = append(mine, hostile[i])
			}
		}
		for _, piece := range slices.Concat(mine, slices.Sorted(maps.Keys(members))) {
			for l, layout := range layouts {
				if _, of := members[piece]; of && l+1 < len(layouts) {
					continue // these are laid out in their class alone
				}
				text := layout(piece, size)
				if took(name, text, 1) < quick {
					continue
				}
				double := layout(piece, 2*size)
				ratio := 99.0
				for range 8 { // one quiet moment is enough
					if ratio <= 2.6 {
						break
					}
					runtime.GC()
					ratio = min(ratio, float64(took(name, double, 2))/float64(took(name, text, 2)))
				}
				if ratio > 2.6 {
					t.Errorf("%s: %q in layout %d: %.1f times for twice as much (%v)", name, piece, l, ratio, took(name, text, 1))
				}
			}
		}
	}
}

// FuzzEveryKind hands any bytes to the reader of any kind of file.
func FuzzEveryKind(f *testing.F) {
	names := kinds()
	for i := range names {
		f.Add(uint8(i), []byte(hostile[i%len(hostile)]))
	}
	for _, o := range others {
		for i, n := range names {
			if syntax.ForFile(o.name, nil) == syntax.ForFile(n, nil) {
				f.Add(uint8(i), []byte(o.text))
			}
		}
	}
	f.Fuzz(func(t *testing.T, kind uint8, src []byte) { sound(t, names[int(kind)%len(names)], src) })
}
