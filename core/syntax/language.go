package syntax

import (
	"bytes"
	"path"
	"regexp"
	"slices"
	"sort"
	"strconv"
	"strings"

	"jantel/core/model"
)

// SharedVersion is raised when what all languages share changes: lines, calls
// that are told by their name, fingerprints.
const SharedVersion = 63

// Version tells one state of all readers from another: what they share, and the
// sum of what each is at.
func Version() string {
	sum := 0
	for _, l := range languages {
		sum += l.Version
	}
	return strconv.Itoa(SharedVersion) + "." + strconv.Itoa(sum)
}

// Language is what Jantel knows of one language.
type Language struct {
	Name       string
	Version    int      // raised when the reader's facts change
	Extensions []string // with the dot
	FileNames  []string // whole names
	Shebangs   []string // interpreters
	// Read returns the facts of one file. It never fails: what it can not
	// read it leaves out and says so in Facts.Problem. They depend on the
	// bytes and on how they are read alone, so that they can be kept by content.
	Read func(how How, src []byte) *model.Facts
	// Resolve turns the imports of all files of this language into links; nil
	// for languages without imports.
	Resolve func(t *Tree)
	Profile
	// Loggers are the packages by which programs in this language keep a log;
	// nil where a log is kept without asking for a package, so that not to
	// find one says nothing.
	Loggers []string
	// ResolvedWith names the language whose resolver links these files as well.
	ResolvedWith string
}

// How says how a text is to be read.
type How struct {
	Language string
	By       By
}

// By is who wrote a text, as far as that is known before it is read. What nobody
// here wrote is not judged, so that what only judges ask for is not looked for.
type By uint8

// Who may have written a text.
const (
	ByPeople By = iota // of this codebase, as far as is known
	ByTool             // read for its links, calls and routes
	ByOthers           // read for its links and what it declares
)

// Unlooked reports whether facts are those of a text that was not looked at as what
// people write is.
func Unlooked(f *model.Facts) bool {
	return f != nil && (f.Problem == unlooked[ByTool] || f.Problem == unlooked[ByOthers])
}

// unlooked is what such texts say of themselves.
var unlooked = map[By]string{
	ByTool:   "a tool wrote it, so that nobody looked at what its bodies are like",
	ByOthers: "others wrote it, so that only its links and what it declares were read",
}

// Links reports whether the imports of this language are followed.
func (l *Language) Links() bool { return l.Resolve != nil || l.ResolvedWith != "" }

var (
	languages []*Language
	byExt     = map[string]*Language{}
	byName    = map[string]*Language{}
	byShebang = map[string]*Language{}
	byTitle   = map[string]*Language{}
)

// Register adds a language; languages call it from init.
func Register(l *Language) {
	languages = append(languages, l)
	sort.Slice(languages, func(i, j int) bool { return languages[i].Name < languages[j].Name })
	byTitle[l.Name] = l
	claim := func(table map[string]*Language, names []string) {
		for _, n := range names {
			if other := table[n]; other != nil {
				panic(l.Name + " and " + other.Name + " both claim " + n)
			}
			table[n] = l
		}
	}
	claim(byExt, l.Extensions)
	claim(byName, l.FileNames)
	claim(byShebang, l.Shebangs)
}

// Languages lists the registered languages by name.
func Languages() []*Language { return languages }

// Named returns the language of that name, or nil.
func Named(name string) *Language { return byTitle[name] }

// ForFile picks the language of a file from its name, or from its first line
// when the name tells nothing. It returns nil when no reader is registered.
func ForFile(p string, head []byte) *Language {
	base := path.Base(p)
	if l := byName[base]; l != nil {
		return l
	}
	ext := strings.ToLower(path.Ext(base))
	// CHANGES.ru is a text in another tongue, whatever else ends so.
	if prose := byName[strings.TrimSuffix(base, path.Ext(base))]; prose != nil && !prose.Code && len(ext) == 3 {
		if l := byExt[ext]; l == nil || l.Code {
			return prose
		}
	}
	// Two endings together may say more: page.blade.php is no page of PHP.
	if first := strings.ToLower(path.Ext(strings.TrimSuffix(base, path.Ext(base)))); first != "" {
		if l := byExt[first+ext]; l != nil {
			return l
		}
	}
	if l := byExt[ext]; l != nil {
		if l.Code && isCatalogue(head) {
			return byExt[".xml"]
		}
		if taken[ext] && len(head) > 0 && !bytes.Contains(head[:min(len(head), 2000)], []byte("<?")) {
			return byExt[".h"].whenCode(head)
		}
		return l
	}
	if !notYet[ext] {
		if l := byShebang[Interpreter(head)]; l != nil {
			return l
		}
	}
	return nil
}

// notYet are endings of what only becomes a program, or was one.
var notYet = Set(".in", ".orig", ".bak", ".old", ".txt", ".md", ".template", ".tmpl", ".tpl", ".dist", ".sample", ".diff", ".patch")

// isCatalogue reports whether a text begins as a catalogue of translations in XML,
// which are kept under endings of languages.
func isCatalogue(head []byte) bool {
	start := bytes.TrimLeft(head[:min(len(head), 500)], "\ufeff \r\n\t")
	return bytes.HasPrefix(start, []byte("<!DOCTYPE TS")) || bytes.HasPrefix(start, []byte("<?xml")) && bytes.Contains(start, []byte("<TS"))
}

// taken are endings of what is taken in by others: pages where they say so, else
// the code of whoever takes it in.
var taken = map[string]bool{".inc": true}

// preprocessed is a line for the preprocessor of C, or a comment of its: with # alone
// begin the comments of many tables.
var preprocessed = regexp.MustCompile(`(?m)^\s*(?:#\s*(?:include|define|if|ifdef|ifndef|undef|pragma|error)\b|/[/*])`)

// whenCode is the language where a text has some of its signs, else nil: a list of
// figures is code in none.
func (l *Language) whenCode(head []byte) *Language {
	if bytes.HasPrefix(bytes.TrimLeft(head, "\ufeff \r\n"), []byte(".. ")) {
		return nil // reStructuredText, whose comments and directives begin so
	}
	head = head[:min(len(head), 2000)]
	if bytes.ContainsAny(head, "{;") || preprocessed.Match(head) {
		return l
	}
	return nil
}

// IsHeader reports whether a file declares what stands elsewhere, by its ending.
func IsHeader(p string) bool {
	ext := strings.ToLower(path.Ext(p))
	l := byExt[ext]
	return l != nil && slices.Contains(l.Headers, ext)
}

// Interpreter is the program a file's first line names ("python3.11" gives
// "python"), or "".
func Interpreter(head []byte) string {
	if len(head) < 3 || head[0] != '#' || head[1] != '!' {
		return ""
	}
	line := string(head[2:min(len(head), 200)])
	line, _, _ = strings.Cut(line, "\n")
	f := strings.Fields(line)
	for i, w := range f {
		b := path.Base(w)
		if i == 0 && b == "env" || i > 0 && (strings.HasPrefix(w, "-") || strings.Contains(w, "=")) {
			continue
		}
		return strings.TrimRight(b, "0123456789.")
	}
	return ""
}
