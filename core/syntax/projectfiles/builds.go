package projectfiles

import (
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// What builds of compiled languages say they make: programs, libraries that are
// installed for others, and libraries that a program loads while it runs.

func init() {
	for _, l := range []*syntax.Language{
		{Name: "Automake", Version: 1, FileNames: []string{"Makefile.am"}, Read: wrap(automake)},
		{Name: "Makefile template", Version: 1, FileNames: []string{"Makefile.in", "makefile.in"}, Read: wrap(makefileTemplate)},
		{Name: "CMake", Version: 1, FileNames: []string{"CMakeLists.txt"}, Read: wrap(cmake)},
		{Name: "Meson", Version: 1, FileNames: []string{"meson.build"}, Read: wrap(meson)},
		{Name: "pkg-config", Version: 1, Extensions: []string{".pc.in"}, Read: wrap(pkgConfig)},
	} {
		syntax.Register(l)
	}
}

// builds gathers what one file makes, each once, in the order of the file.
type builds struct {
	p    *model.Project
	seen map[model.Built]bool
}

func newBuilds(tool string) *builds {
	return &builds{&model.Project{Tool: tool}, map[model.Built]bool{}}
}

func (b *builds) add(name string, kind model.BuiltKind, line int) {
	key := model.Built{Name: name, Kind: kind}
	if name == "" || b.seen[key] || len(b.p.Builds) >= maxNamed {
		return
	}
	b.seen[key] = true
	key.Line = line
	b.p.Builds = append(b.p.Builds, key)
}

// logicalLines are the lines of a file of make, those that end in a backslash taken
// together with the next, comments left out, each with the number of its first.
func logicalLines(src []byte, visit func(line int, text string)) {
	n, first := 0, 1
	var joined strings.Builder
	for line := range strings.Lines(string(src)) {
		n++
		line = strings.TrimRight(line, "\r\n")
		if i := strings.IndexByte(line, '#'); i >= 0 {
			line = line[:i]
		}
		if rest, more := strings.CutSuffix(line, "\\"); more {
			joined.WriteString(rest)
			joined.WriteByte(' ')
			continue
		}
		joined.WriteString(line)
		visit(first, joined.String())
		joined.Reset()
		first = n + 1
	}
	if joined.Len() > 0 {
		visit(first, joined.String())
	}
}

var (
	assigned = regexp.MustCompile(`^\s*([A-Za-z0-9_]+)\s*[+:?]?=\s*(.*)$`)
	// primary is how Automake names what it makes: where it is put, and what it is.
	primary = regexp.MustCompile(`^(?:(?:nobase|dist|nodist)_)*([A-Za-z0-9]+)_(PROGRAMS|LTLIBRARIES|LIBRARIES)$`)
	named   = regexp.MustCompile(`^\$[({]([A-Za-z0-9_]+)[)}]$`)
)

// automake reads Makefile.am: what stands in bin_PROGRAMS and lib_LTLIBRARIES and their
// like. What is put nowhere (noinst) is a part of something else, what is only made to
// check the rest is nothing that others get.
func automake(src []byte) (*model.Project, error) {
	b := newBuilds("automake")
	values, modules := map[string]string{}, map[string]bool{}
	type made struct {
		where, what string
		line        int
		value       string
	}
	var all []made
	logicalLines(src, func(line int, text string) {
		m := assigned.FindStringSubmatch(text)
		if m == nil {
			return
		}
		if p := primary.FindStringSubmatch(m[1]); p != nil {
			all = append(all, made{p[1], p[2], line, m[2]})
		} else if _, ok := values[m[1]]; !ok && len(values) < maxNamed {
			values[m[1]] = m[2]
		}
		if of, ok := strings.CutSuffix(m[1], "_LDFLAGS"); ok && strings.Contains(m[2], "-module") {
			modules[of] = true
		}
	})
	for _, m := range all {
		if m.where == "noinst" || m.where == "check" || m.where == "EXTRA" {
			continue
		}
		for _, w := range strings.Fields(m.value) {
			words := []string{w}
			if v := named.FindStringSubmatch(w); v != nil {
				words = strings.Fields(values[v[1]])
			}
			for _, name := range words {
				if strings.ContainsAny(name, "$@") && !strings.HasPrefix(name, "lib") {
					continue
				}
				b.add(strings.TrimSuffix(strings.TrimSuffix(name, ".la"), ".a"), automade(m.where, m.what, modules[canonical(name)]), m.line)
			}
		}
	}
	return b.p, nil
}

// automade tells what Automake makes. What is put beside other libraries is for others to
// link with, in any other place it is loaded by the program that looks there.
func automade(where, what string, module bool) model.BuiltKind {
	switch {
	case what == "PROGRAMS":
		return model.BuiltProgram
	case module || (!strings.HasPrefix(where, "lib") || where == "libexec") && where != "toolexeclib" && where != "usrlib":
		return model.BuiltPlugIn
	}
	return model.BuiltLibrary
}

var notWord = regexp.MustCompile(`[^A-Za-z0-9_@]`)

// canonical is how Automake writes a name within names of variables.
func canonical(name string) string { return notWord.ReplaceAllString(name, "_") }

// libraryRule is a rule of make for a library.
var libraryRule = regexp.MustCompile(`^(?:\$[({]\w+[)}])?(lib[A-Za-z0-9_+-]+)\.(?:a|la|so|dylib)\b[^:=]*:(?:[^=]|$)`)

// installing is a line of a recipe that puts something where libraries or headers are.
var installing = regexp.MustCompile(`(?i)^\t.*(?:install|cp\s).*(?:libdir|includedir|/include|/lib)`)

// makefileTemplate reads Makefile.in written by hand: the libraries that it has rules for,
// where it puts headers or libraries in their place besides.
func makefileTemplate(src []byte) (*model.Project, error) {
	return madeByRules(src, "make template"), nil
}

func madeByRules(src []byte, tool string) *model.Project {
	b := newBuilds(tool)
	installs := false
	type rule struct {
		name string
		line int
	}
	var rules []rule
	logicalLines(src, func(line int, text string) {
		if m := libraryRule.FindStringSubmatch(text); m != nil {
			rules = append(rules, rule{m[1], line})
		}
		installs = installs || installing.MatchString(text)
	})
	for _, r := range rules {
		if installs {
			b.add(r.name, model.BuiltLibrary, r.line)
		}
	}
	return b.p
}

// statement is a command of CMake up to the first bracket inside: what is asked for stands
// before any.
var statement = regexp.MustCompile(`(?i)\b(project|set|add_library|add_executable|install)\s*\(([^()]*)[()]`)

var cmakeValue = regexp.MustCompile(`\$\{(\w+)\}`)

// cmake reads CMakeLists.txt: programs, and the libraries that are installed.
func cmake(src []byte) (*model.Project, error) {
	b := newBuilds("cmake")
	text := blanked(src)
	values := map[string]string{}
	valued := func(s string) string {
		return cmakeValue.ReplaceAllStringFunc(s, func(v string) string {
			if known, ok := values[v[2:len(v)-1]]; ok {
				return known
			}
			return v
		})
	}
	installed := map[string]bool{}
	type made struct {
		name string
		kind model.BuiltKind
		line int
	}
	var all []made
	line, at := 1, 0
	for _, m := range statement.FindAllStringSubmatchIndex(text, maxStatements) {
		line += strings.Count(text[at:m[0]], "\n")
		at = m[0]
		words := strings.Fields(strings.ReplaceAll(text[m[4]:m[5]], `"`, " "))
		if len(words) == 0 {
			continue
		}
		name := valued(words[0])
		switch strings.ToLower(text[m[2]:m[3]]) {
		case "project":
			values["PROJECT_NAME"], values["CMAKE_PROJECT_NAME"] = name, name
		case "set":
			if len(words) == 2 && len(values) < maxNamed {
				values[words[0]] = valued(words[1])
			}
		case "add_executable":
			if len(words) > 1 && words[1] != "ALIAS" && words[1] != "IMPORTED" {
				all = append(all, made{name, model.BuiltProgram, line})
			}
		case "add_library":
			all = append(all, made{name, libraryOf(words), line})
		case "install":
			for i := 1; i < len(words) && words[0] == "TARGETS" && !installWords[words[i]]; i++ {
				installed[valued(words[i])] = true
			}
		}
	}
	for _, m := range all {
		if m.kind == model.BuiltProgram || m.kind == model.BuiltPlugIn || m.kind == model.BuiltLibrary && installed[m.name] {
			b.add(m.name, m.kind, m.line)
		}
	}
	return b.p, nil
}

// maxStatements bounds how many statements of a file are looked at.
const maxStatements = 20_000

func libraryOf(words []string) model.BuiltKind {
	for _, w := range words[1:] {
		switch w {
		case "MODULE":
			return model.BuiltPlugIn
		case "ALIAS", "IMPORTED", "OBJECT":
			return ""
		}
	}
	return model.BuiltLibrary
}

// installWords end the list of what a statement of CMake installs.
var installWords = syntax.Set(
	"EXPORT", "RUNTIME", "LIBRARY", "ARCHIVE", "DESTINATION", "COMPONENT", "PUBLIC_HEADER", "PRIVATE_HEADER", "INCLUDES", "BUNDLE",
	"RESOURCE", "FRAMEWORK", "OPTIONAL", "CONFIGURATIONS", "PERMISSIONS", "NAMELINK_SKIP", "NAMELINK_ONLY", "OBJECTS", "FILE_SET",
)

// blanked is a text with its comments blanked out, from # to the end of the line.
func blanked(src []byte) string {
	out := []byte(string(src))
	comment := false
	for i, c := range out {
		switch {
		case c == '\n':
			comment = false
		case c == '#' || comment:
			comment = true
			out[i] = ' '
		}
	}
	return string(out)
}

var (
	mesonCall = regexp.MustCompile(
		`\b(executable|library|shared_library|static_library|both_libraries|shared_module)\s*\(\s*('[^'\n]*'|[\w.()]+)`,
	)
	mesonPut = regexp.MustCompile(`\binstall\s*:\s*(\w+)`)
	mesonOwn = regexp.MustCompile(`\binstall_dir\s*:\s*\w*(?:pkglib|pkgpriv|private|internal)`)
)

// maxArguments bounds, in bytes, how far the arguments of a call are looked through.
const maxArguments = 20_000

// meson reads meson.build: programs, and the libraries and modules that are installed.
func meson(src []byte) (*model.Project, error) {
	b := newBuilds("meson")
	text := blanked(src)
	line, at := 1, 0
	for _, m := range mesonCall.FindAllStringSubmatchIndex(text, maxNamed) {
		line += strings.Count(text[at:m[0]], "\n")
		at = m[0]
		if m[0] > 0 && text[m[0]-1] == '.' { // cc.find_library and its like ask for what is there
			continue
		}
		all := arguments(text[m[3]:])
		put := mesonPut.FindStringSubmatch(all)
		name := strings.Trim(text[m[4]:m[5]], "'")
		if put == nil || put[1] == "false" {
			continue
		}
		if text[m[2]:m[3]] != "executable" && mesonOwn.MatchString(all) {
			continue // put where only its own programs look
		}
		switch text[m[2]:m[3]] {
		case "executable":
			b.add(name, model.BuiltProgram, line)
		case "shared_module":
			b.add(name, model.BuiltPlugIn, line)
		default:
			b.add(name, model.BuiltLibrary, line)
		}
	}
	return b.p, nil
}

// arguments is what stands between the first bracket of a text and the one that closes it.
func arguments(text string) string {
	text = text[:min(len(text), maxArguments)]
	depth, quoted := 0, false
	for i := range len(text) {
		switch c := text[i]; {
		case c == '\'':
			quoted = !quoted
		case quoted:
		case c == '(':
			depth++
		case c == ')':
			if depth--; depth == 0 {
				return text[:i]
			}
		}
	}
	return text
}

var linked = regexp.MustCompile(`^Libs:.*\s-l(\S+)`)

// pkgConfig reads what tells others how to link with a library.
func pkgConfig(src []byte) (*model.Project, error) {
	b := newBuilds("pkg-config")
	logicalLines(src, func(line int, text string) {
		if m := linked.FindStringSubmatch(text); m != nil {
			b.add("lib"+m[1], model.BuiltLibrary, line)
		}
	})
	return b.p, nil
}
