package smells_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/assert"
)

// Faults are planted at seeded places of clean trees in several languages, and what
// only looks like them. `make calibrate` prints how many each rule finds and how
// often it keeps silent.

// tongue writes code of one language.
type tongue struct {
	name, ext string
	comment   string
	debug     string // a call left over from looking for a fault
	log       string // one that is kept
	function  func(name string, params, body []string, gives bool) string
	branch    func(cond string, inner []string) []string
	choice    func(subject string, cases []string) []string
	say       func(what string, n int) string // a statement
	file      func(stem string, functions []string) string
	returns   string
	takes     func(to string) string // what takes a file in, "" where that is not said
	camel     bool
}

func indent(lines []string) (out []string) {
	for _, l := range lines {
		out = append(out, "    "+l)
	}
	return out
}

func braces(open string, inner []string) []string {
	return append(append([]string{open + " {"}, indent(inner)...), "}")
}

func braceChoice(subject, arm string) func(string, []string) []string {
	return func(_ string, cases []string) []string {
		var arms []string
		for i, c := range cases {
			arms = append(arms, fmt.Sprintf("case %q:", c), fmt.Sprintf("    "+arm, i), "    break;")
		}
		return braces(subject, arms)
	}
}

func plainFile(_ string, functions []string) string { return strings.Join(functions, "\n\n") + "\n" }

func inClass(head, end string) func(string, []string) string {
	return func(stem string, functions []string) string {
		var body []string
		for _, f := range functions {
			body = append(body, strings.Split(f, "\n")...)
			body = append(body, "")
		}
		return fmt.Sprintf(head, strings.ToUpper(stem[:1])+stem[1:]) + "\n" + strings.Join(indent(body), "\n") + "\n" + end + "\n"
	}
}

var tongues = []tongue{
	{
		returns: "return grams",
		takes:   func(to string) string { return "import * as other from '../" + to + "'\n" },
		name:    "TypeScript", ext: ".ts", comment: "// ", debug: "console.log(grams)", log: "logger.info(grams)", camel: true,
		function: func(name string, params, body []string, gives bool) string {
			kind := map[bool]string{true: "number", false: "void"}[gives]
			head := "export function " + name + "(" + strings.Join(params, ": number, ") + ": number): " + kind
			return strings.Join(braces(strings.ReplaceAll(head, "(: number)", "()"), body), "\n")
		},
		branch: func(c string, inner []string) []string { return braces("if ("+c+" > 1)", inner) },
		choice: braceChoice("switch (kind)", "grams += %d"),
		say:    func(w string, n int) string { return fmt.Sprintf("%s = %s + %d", w, w, n) }, file: plainFile,
	},
	{
		returns: "return grams",
		name:    "Go", ext: ".go", comment: "// ", debug: "", camel: true,
		function: func(name string, params, body []string, gives bool) string {
			result := map[bool]string{true: " int", false: ""}[gives]
			list := strings.Join(params, ", ")
			if list != "" {
				list += " int"
			}
			return strings.Join(braces("func "+strings.ToUpper(name[:1])+name[1:]+"("+list+")"+result, body), "\n")
		},
		branch: func(c string, inner []string) []string { return braces("if "+c+" > 1", inner) },
		choice: braceChoice("switch kind", "grams += %d"),
		say:    func(w string, n int) string { return fmt.Sprintf("%s = %s + %d", w, w, n) },
		file:   func(_ string, functions []string) string { return "package shelf\n\n" + plainFile("", functions) },
	},
	{
		returns: "return grams",
		takes:   func(to string) string { return "from src." + strings.ReplaceAll(to, "/", ".") + " import *\n" },
		name:    "Python", ext: ".py", comment: "# ", debug: "breakpoint()", log: "logger.info(grams)",
		function: func(name string, params, body []string, _ bool) string {
			return strings.Join(append([]string{"def " + name + "(" + strings.Join(params, ", ") + "):"}, indent(body)...), "\n")
		},
		branch: func(c string, inner []string) []string {
			return append([]string{"if " + c + " > 1:"}, indent(inner)...)
		},
		choice: func(_ string, cases []string) []string {
			out := []string{}
			for i, c := range cases {
				out = append(out, []string{"if", "elif"}[min(i, 1)]+fmt.Sprintf(" kind == %q:", c), fmt.Sprintf("    grams += %d", i))
			}
			return out
		},
		say: func(w string, n int) string { return fmt.Sprintf("%s = %s + %d", w, w, n) }, file: plainFile,
	},
	{
		returns: "return grams;",
		name:    "Java", ext: ".java", comment: "// ", camel: true,
		function: func(name string, params, body []string, gives bool) string {
			kind := map[bool]string{true: "int", false: "void"}[gives]
			list := strings.Join(params, ", int ")
			if list != "" {
				list = "int " + list
			}
			return strings.Join(braces("public "+kind+" "+name+"("+list+")", body), "\n")
		},
		branch: func(c string, inner []string) []string { return braces("if ("+c+" > 1)", inner) },
		choice: braceChoice("switch (kind)", "grams += %d;"),
		say:    func(w string, n int) string { return fmt.Sprintf("%s = %s + %d;", w, w, n) },
		file:   inClass("package shelf;\n\npublic class %s {", "}"),
	},
	{
		returns: "return $grams;",
		takes:   func(to string) string { return "require_once __DIR__ . '/../" + to + ".php';\n" },
		name:    "PHP", ext: ".php", comment: "// ", debug: "var_dump($grams);", log: "$this->log->info($grams);", camel: true,
		function: func(name string, params, body []string, _ bool) string {
			list := strings.Join(params, ", $")
			if list != "" {
				list = "$" + list
			}
			return strings.Join(braces("public function "+name+"("+list+")", body), "\n")
		},
		branch: func(c string, inner []string) []string { return braces("if ($"+c+" > 1)", inner) },
		choice: braceChoice("switch ($kind)", "$grams += %d;"),
		say:    func(w string, n int) string { return fmt.Sprintf("$%s = $%s + %d;", w, w, n) },
		file:   inClass("<?php\n\nclass %s\n{", "}"),
	},
}

// named is a name of words as a language writes it.
func (l *tongue) named(words ...string) string {
	if !l.camel {
		return strings.Join(words, "_")
	}
	for i := 1; i < len(words); i++ {
		words[i] = strings.ToUpper(words[i][:1]) + words[i][1:]
	}
	return strings.Join(words, "")
}

// some are statements of different forms, so that no two bodies are alike.
func (l *tongue) some(r *rand.Rand, n int) (out []string) {
	for len(out) < n {
		w := []string{"grams", "shelf", "boxes"}[r.IntN(3)]
		if r.IntN(3) == 0 && n-len(out) > 4 {
			out = append(out, l.branch(w, []string{l.say("grams", r.IntN(9)), l.say("shelf", r.IntN(9))})...)
			continue
		}
		out = append(out, l.say(w, r.IntN(90)))
	}
	return out
}

// plant is what is planted of one rule: a function as it must not be, or one that
// only looks so.
type plant struct {
	rule  string
	fault func(l *tongue, r *rand.Rand) string // "" where it can not be in the language
	looks func(l *tongue, r *rand.Rand) string
	// whole makes a tree by itself, with the fault or with what only looks so, and
	// tells where the rule must speak; "" where it can not be in the language.
	whole func(l *tongue, r *rand.Rand, fault bool) (tree, at string)
}

func numbers(n int) (out []string) {
	for i := range n {
		out = append(out, []string{"grams", "shelf", "boxes", "lots", "rows", "cards", "slips", "trays", "lids"}[i])
	}
	return out
}

func cases(n int) (out []string) {
	for i := range n {
		out = append(out, words(32)[i])
	}
	return out
}

func (l *tongue) nested(depth int) []string {
	inner := []string{l.say("grams", 1)}
	for range depth {
		inner = l.branch("grams", inner)
	}
	return inner
}

func (l *tongue) commented(lines []string) (out []string) {
	for _, s := range lines {
		out = append(out, strings.TrimSuffix(l.comment, " ")+" "+s)
	}
	return out
}

var plants = []plant{
	{
		rule: "deep-nesting",
		fault: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("sort", "boxes"), numbers(2), l.nested(5+r.IntN(3)), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			body := append(l.nested(3), l.nested(2)...)
			return l.function(l.named("sort", "boxes"), numbers(2), append(body, l.nested(1+r.IntN(2))...), false)
		},
	},
	{
		rule: "long-function",
		fault: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("count", "boxes"), numbers(2), l.some(r, 90+r.IntN(60)), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("count", "boxes"), numbers(2), l.some(r, 40+r.IntN(20)), false)
		},
	},
	{
		rule: "many-parameters",
		fault: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("pack", "boxes"), numbers(7+r.IntN(3)), l.some(r, 4), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("pack", "boxes"), numbers(3+r.IntN(2)), l.some(r, 4), false)
		},
	},
	{
		rule: "long-choice",
		fault: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("price", "boxes"), []string{"kind", "grams"}, l.choice("kind", cases(9+r.IntN(5))), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("price", "boxes"), []string{"kind", "grams"}, l.choice("kind", cases(3+r.IntN(3))), false)
		},
	},
	{
		rule: "commented-out-code",
		fault: func(l *tongue, r *rand.Rand) string {
			body := append(l.commented(l.some(r, 7+r.IntN(5))), l.say("grams", 1))
			return l.function(l.named("weigh", "boxes"), numbers(2), body, false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			prose := []string{
				"The scale of the bench rounds to whole grams, so that", "a box may weigh one more than its lots do together.",
				"Whoever counts them at night takes the larger figure,", "because the shelf is planned by it and not by the lots.",
				"What is left over goes to the next box on the shelf,", "or into the drying room where none is free.", "See the plan of the vault.",
			}
			return l.function(l.named("weigh", "boxes"), numbers(2), append(l.commented(prose), l.some(r, 3)...), false)
		},
	},
	{
		rule: "debug-left-over",
		fault: func(l *tongue, r *rand.Rand) string {
			if l.debug == "" {
				return ""
			}
			return l.function(l.named("dry", "boxes"), numbers(2), append(l.some(r, 3), l.debug), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			if l.log == "" {
				return ""
			}
			return l.function(l.named("dry", "boxes"), numbers(2), append(l.some(r, 3), l.log), false)
		},
	},
	{
		rule: "overlong-name",
		fault: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("move", "all", "boxes", "of", "one", "shelf", "to", "another", "room"), numbers(1), l.some(r, 3), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("move", "boxes", "to", "room"), numbers(1), l.some(r, 3), false)
		},
	},
	{
		rule: "promise-not-kept",
		fault: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named([]string{"get", "find"}[r.IntN(2)], "boxes"), numbers(1), append(l.some(r, 4), l.say("lots", 2)), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named([]string{"get", "find"}[r.IntN(2)], "boxes"), numbers(1), append(l.some(r, 4), l.returns), true)
		},
	},
	{
		rule: "vague-name",
		fault: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named([]string{"do", "handle", "process"}[r.IntN(3)], "stuff"), numbers(1), l.some(r, 3), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			return l.function(l.named("do", "weighing"), numbers(1), l.some(r, 3), false)
		},
	},
	{
		rule: "placeholder-name",
		fault: func(l *tongue, r *rand.Rand) string {
			return l.function([]string{"foo", "qux", "asdf"}[r.IntN(3)], numbers(1), l.some(r, 3), false)
		},
		looks: func(l *tongue, r *rand.Rand) string {
			return l.function([]string{"footer", "barley", "fold"}[r.IntN(3)], numbers(1), l.some(r, 3), false)
		},
	},
}

// source is a file with some functions, each called by one of the names.
func (l *tongue) source(r *rand.Rand, path string, lines int, names ...string) string {
	var functions []string
	for _, n := range names {
		functions = append(functions, l.function(n, numbers(1+r.IntN(2)), l.some(r, lines), false))
	}
	stem := strings.TrimSuffix(path[strings.LastIndexByte(path, '/')+1:], l.ext)
	return fmt.Sprintf("-- %s --\n%s", path, l.file(stem, functions))
}

// folder is a folder of so many files, named by a pattern of one word.
func (l *tongue) folder(r *rand.Rand, pattern string, n int) string {
	var b strings.Builder
	for _, w := range words(32)[:n] {
		b.WriteString(l.source(r, fmt.Sprintf(pattern, w)+l.ext, 3+r.IntN(3), l.named("open", w)))
	}
	return b.String()
}

// pick is the first where the fault is planted, else the second.
func pick[T any](fault bool, is, looks T) T {
	if fault {
		return is
	}
	return looks
}

var wholes = []plant{
	{rule: "file-cycle", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		if l.takes == nil {
			return "", "" // files of a folder need no word for each other
		}
		with := func(path, to string) string {
			head, body, _ := strings.Cut(l.source(r, "src/"+path+l.ext, 4, l.named("open", path[strings.LastIndexByte(path, '/')+1:])), "\n")
			if first, rest, ok := strings.Cut(body, "\n"); ok && strings.HasPrefix(first, "<?") {
				return head + "\n" + first + "\n" + l.takes(to) + rest
			}
			return head + "\n" + l.takes(to) + body
		}
		last := pick(fault, "vault/barley", "growers/dock")
		ring := with("vault/barley", "drying/clover") + with("drying/clover", "growers/elder") + with("growers/elder", last)
		return ring + l.source(r, "src/growers/dock"+l.ext, 4, l.named("open", "dock")) + "-- src/vault/__init__.py --\n", "src"
	}},
	{rule: "case-against-folder", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		if l.ext == ".java" || l.ext == ".php" {
			return "", "" // a file is named for its type there
		}
		var b strings.Builder
		for _, w := range words(32)[:9] {
			b.WriteString(l.source(r, "src/vault/seed_"+w+l.ext, 4, l.named("open", w)))
		}
		odd := "src/vault/" + pick(fault, "seedShelf", "seed_shelf") + l.ext
		return b.String() + l.source(r, odd, 4, l.named("open", "shelf")), odd
	}},
	{rule: "suffix-against-folder", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		var b strings.Builder
		for _, w := range words(32)[:12] {
			b.WriteString(l.source(r, "src/vault/"+l.named(w, "service")+l.ext, 4, l.named("open", w)))
		}
		odd := "src/vault/" + pick(fault, "shelves", l.named("shelf", "service")) + l.ext
		return b.String() + l.source(r, odd, 4, l.named("open", "shelf")), odd
	}},
	{rule: "several-words", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		if l.ext == ".java" || l.ext == ".php" {
			return "", "" // it asks of functions that belong to no type
		}
		verbs := pick(fault, []string{"get", "fetch", "load"}, []string{"get", "get", "weigh"})
		var b strings.Builder
		for i, w := range []string{"barley", "clover", "dock"} {
			b.WriteString(l.source(r, "src/vault/"+l.named(w, "service")+l.ext, 4, l.named(verbs[i], "grower")))
		}
		return b.String() + l.folder(r, "src/drying/%s", 4), "src/vault"
	}},
	{rule: "crowded-folder", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		return l.folder(r, "src/vault/%s", pick(fault, 32, 12+r.IntN(8))), "src/vault"
	}},
	{rule: "hidden-by-prefix", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		return l.folder(r, "src/vault/seed_%s", pick(fault, 6+r.IntN(3), 2)) + l.folder(r, "src/vault/%s", 8), "src/vault"
	}},
	{rule: "catch-all-folder", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		name := pick(fault, []string{"misc", "utils", "helpers", "common"}, []string{"vault", "mist", "shelves", "growers"})[r.IntN(4)]
		return l.folder(r, "src/"+name+"/%s", 5+r.IntN(4)) + l.folder(r, "src/drying/%s", 5), "src/" + name
	}},
	{rule: "single-folder-chain", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		if l.ext == ".java" || l.ext == ".php" {
			return "", "" // their folders follow their packages
		}
		deep := pick(fault, "src/seeds/moor/vault/", "src/")
		return l.folder(r, deep+"boxes/%s", 4) + l.folder(r, deep+"lots/%s", 4), "src"
	}},
	{rule: "numbered-name", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		second := pick(fault, l.named("pack")+"2", l.named("unpack"))
		return l.folder(r, "src/vault/%s", 4) + l.source(r, "src/vault/packing"+l.ext, 4, l.named("pack"), second), "src/vault/packing" + l.ext
	}},
	{rule: "near-twin", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		seed := r.Uint64()
		one := l.source(rand.New(rand.NewPCG(seed, 1)), "src/vault/boxes"+l.ext, 45, l.named("count", "boxes"))
		two := l.source(rand.New(rand.NewPCG(seed, 1)), "src/drying/trays"+l.ext, 45, l.named("count", "trays"))
		if !fault {
			// As long, and about as much: but another order of other things.
			body := append(append(l.choice("kind", cases(7)), l.nested(3)...), append(l.nested(2), l.some(r, 10)...)...)
			code := l.function(l.named("count", "trays"), []string{"kind", "grams"}, body, false)
			two = fmt.Sprintf("-- src/drying/trays%s --\n%s", l.ext, l.file("trays", []string{code}))
		}
		return one + two + l.folder(r, "src/growers/%s", 4), "src/drying/trays" + l.ext
	}},
	{rule: "long-file", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		var names []string
		for _, w := range words(pick(fault, 32, 14)) {
			names = append(names, l.named("open", w))
		}
		return l.source(r, "src/vault/boxes"+l.ext, 18, names...) + l.folder(r, "src/growers/%s", 4), "src/vault/boxes" + l.ext
	}},
	{rule: "folder-echo", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		if l.ext == ".java" || l.ext == ".php" {
			return "", "" // a file is named for its type there, which others call by its name alone
		}
		return l.folder(r, pick(fault, "src/vault/vault_%s", "src/vault/%s"), 7) + l.folder(r, "src/growers/%s", 4), "src/vault"
	}},
	{rule: "too-deep", whole: func(l *tongue, r *rand.Rand, fault bool) (string, string) {
		if l.ext == ".java" || l.ext == ".php" {
			return "", ""
		}
		deep := "src/a1/" + strings.Join(words(pick(fault, 9, 3)), "/")
		return l.folder(r, deep+"/%s", 3) + l.folder(r, "src/a1/barley/%s", 3), deep
	}},
}

// clean is a tree of a few features with a function or two in each file; at is the
// file that something is planted in.
func clean(l *tongue, r *rand.Rand, planted string) (tree, at string) {
	var b strings.Builder
	files := []string{}
	verbs := []string{"open", "close", "label", "carry", "wash", "send"}
	for _, feature := range []string{"drying", "vault", "growers"} {
		for _, part := range []string{"plan", "order", "card"} {
			files = append(files, "src/"+feature+"/"+part+l.ext)
		}
	}
	at = files[r.IntN(len(files))]
	for i, f := range files {
		stem := strings.TrimSuffix(f[strings.LastIndexByte(f, '/')+1:], l.ext)
		var functions []string
		for range 1 + r.IntN(2) {
			name := l.named(verbs[r.IntN(len(verbs))], words(32)[(i*3+len(functions))%32])
			functions = append(functions, l.function(name, numbers(1+r.IntN(2)), l.some(r, 3+r.IntN(5)), false))
		}
		if f == at {
			functions = slices.Insert(functions, r.IntN(len(functions)+1), planted)
		}
		fmt.Fprintf(&b, "-- %s --\n%s", f, l.file(stem, functions))
	}
	return b.String(), at
}

// seeds is how often each fault is planted in each language.
const seeds = 5

func TestPlantedFaultsAreFoundAndLookAlikesAreNot(t *testing.T) {
	t.Logf("%-20s %-11s %8s %8s", "rule", "language", "found", "silent")
	for _, p := range append(plants, wholes...) {
		found, planted, silent, alike := 0, 0, 0, 0
		for i := range tongues {
			l := &tongues[i]
			foundHere, silentHere, n, m := 0, 0, 0, 0
			for seed := range seeds {
				r := rand.New(rand.NewPCG(uint64(seed), uint64(i)))
				if p.whole != nil {
					if tree, at := p.whole(l, r, true); tree != "" {
						n++
						foundHere += count(slices.ContainsFunc(places(t, tree, p.rule), func(q string) bool { return model.Within(at, q) }))
						tree, _ = p.whole(l, r, false)
						m++
						silentHere += count(len(places(t, tree, p.rule)) == 0)
					}
					continue
				}
				if code := p.fault(l, r); code != "" {
					n++
					tree, at := clean(l, r, code)
					foundHere += count(slices.Contains(places(t, tree, p.rule), at))
				}
				if code := p.looks(l, r); code != "" {
					m++
					tree, _ := clean(l, r, code)
					silentHere += count(len(places(t, tree, p.rule)) == 0)
				}
			}
			if n+m > 0 {
				t.Logf("%-20s %-11s %5d/%d %6d/%d", p.rule, l.name, foundHere, n, silentHere, m)
			}
			found, planted, silent, alike = found+foundHere, planted+n, silent+silentHere, alike+m
		}
		assert.GreaterOrEqual(t, planted, 5, p.rule)
		assert.GreaterOrEqual(t, alike, 5, p.rule)
		assert.GreaterOrEqual(t, float64(found), 0.9*float64(planted), "%s finds %d of %d planted faults", p.rule, found, planted)
		assert.GreaterOrEqual(t, float64(silent), 0.97*float64(alike), "%s keeps silent at %d of %d", p.rule, silent, alike)
	}
}

func count(yes bool) int {
	if yes {
		return 1
	}
	return 0
}

// places are where a rule speaks in a tree.
func places(t *testing.T, tree, rule string) (out []string) {
	t.Helper()
	j := judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil)
	for i := range j.Hits {
		if j.Hits[i].Rule == rule {
			out = append(out, j.Hits[i].Path)
		}
	}
	return out
}
