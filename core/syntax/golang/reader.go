package golang

import (
	"go/build/constraint"
	"path"
	"regexp"
	"slices"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{
		Name: "Go", Version: 7, Profile: syntax.Profile{ExactRoutes: true, Code: true, PlainNames: true, FolderPackages: true, SameNames: true,
			FolderFiles: []string{"doc.go"}},
		Loggers: []string{
			"log", "log/slog", "logrus", "zap", "zerolog", "klog", "glog", "hclog", "charmbracelet/log", "apex/log",
			"logr",
		},
		Extensions: []string{".go"}, Read: read, Resolve: resolve,
	})
}

var environment = &syntax.Environment{Calls: syntax.Set("os.Getenv", "os.LookupEnv", "syscall.Getenv", "viper.BindEnv")}

type reader struct {
	s     *syntax.Stream
	f     *model.Facts
	signs syntax.Signs
	names []string                   // of what is declared at the top
	used  map[string]map[string]bool // local package name to the names taken from it
	walk  walker
}

func read(how syntax.How, src []byte) *model.Facts {
	r := &reader{s: lex(src), f: syntax.NewFacts(), signs: syntax.Signs{}, used: map[string]map[string]bool{}}
	r.walk = walker{s: r.s, c: r.s.Chains(), repeated: none, switched: none, heads: how.By == syntax.ByOthers}
	if !usual(r.s) {
		r.walk.c.Spare()
	}
	r.file()
	r.selectors()
	if how.By != syntax.ByOthers {
		r.routes()
		r.f.Env = environment.Read(r.s)
	}
	slices.Sort(r.names)
	r.f.Names = slices.Compact(r.names)
	return syntax.Finish(how, r.f, r.s, r.signs)
}

// usual reports whether a file is built on the machine that stands for all:
// Linux on amd64, as its build constraint says.
func usual(s *syntax.Stream) bool {
	for i := range s.Comments {
		if len(s.Tokens) > 0 && s.Comments[i].Start > s.Tokens[0].Start {
			break
		}
		line := string(s.Src[s.Comments[i].Start:s.Comments[i].End])
		if !constraint.IsGoBuild(line) {
			continue
		}
		x, err := constraint.Parse(line)
		return err != nil || x.Eval(func(tag string) bool {
			return tag == "linux" || tag == "amd64" || tag == "unix" || tag == "gc" || tag == "cgo" || strings.HasPrefix(tag, "go1.")
		})
	}
	return true
}

// file walks the declarations at the top of a file.
func (r *reader) file() {
	s := r.s
	for i := 0; i < s.Len(); {
		switch {
		case s.Match(i, "package", syntax.Name) && r.f.Namespace == "":
			r.f.Namespace = s.Text(i + 1)
			r.doc(i)
			i += 2
		case s.Is(i, "import"):
			i = r.group(i+1, r.importSpec)
		case s.Is(i, "type"):
			i = r.group(i+1, r.typeSpec)
		case s.Is(i, "const"):
			r.walk.repeated = none
			i = r.group(i+1, func(i int) int { return r.valueSpec(i, model.DefConstant) })
			r.walk.repeated = none
		case s.Is(i, "var"):
			i = r.group(i+1, func(i int) int { return r.valueSpec(i, model.DefVariable) })
		case s.Is(i, "func"):
			i = r.function(i)
		default:
			i = s.Close(i) + 1
		}
	}
}

// doc keeps the comment that stands right above the package clause.
func (r *reader) doc(pkg int) {
	s := r.s
	last := -1
	for i := range s.Comments {
		if int(s.Comments[i].EndLine) == s.Line(pkg)-1 {
			last = i
		}
	}
	first := last
	for first > 0 && s.Comments[first-1].EndLine == s.Comments[first].Line-1 {
		first--
	}
	if first < 0 {
		return
	}
	var text []string
	for i := first; i < len(s.Comments) && int(s.Comments[i].EndLine) < s.Line(pkg); i++ {
		t := string(s.Src[s.Comments[i].Start:s.Comments[i].End])
		if strings.HasPrefix(t, "//go:") || strings.HasPrefix(t, "// +build") {
			continue
		}
		t = strings.TrimSuffix(strings.TrimPrefix(strings.TrimPrefix(t, "//"), "/*"), "*/")
		text = append(text, strings.TrimPrefix(t, " "))
	}
	doc := syntax.Sentence(strings.Join(text, "\n"), 240)
	if strings.HasPrefix(doc, "Copyright") {
		return
	}
	r.f.Doc, r.f.DocLine = doc, int(s.Comments[first].Line)
}

// group calls spec for the one spec at i, or for each in the parentheses.
func (r *reader) group(i int, spec func(i int) int) int {
	s := r.s
	if !s.Is(i, "(") {
		return max(spec(i), i+1)
	}
	end := s.Close(i)
	if end == i {
		return i + 1
	}
	for i++; i < end; {
		i = max(spec(i), i+1)
	}
	return end + 1
}

func (r *reader) importSpec(i int) int {
	s := r.s
	im := model.Import{Kind: model.LinkImport, Line: s.Line(i)}
	if s.Any(i, syntax.Name, ".") {
		im.Alias = s.Text(i)
		i++
	}
	if s.Kind(i) != syntax.String {
		return i
	}
	im.Text = s.Unquote(i)
	if im.Text != "" {
		r.f.Imports = append(r.f.Imports, im)
	}
	if s.Is(i+1, ";") {
		i++
	}
	return i + 1
}

func exported(name string) bool { return name != "" && name[0] >= 'A' && name[0] <= 'Z' }

func (r *reader) define(d model.Definition) {
	d.Exported = exported(d.Name)
	r.f.Definitions = append(r.f.Definitions, d)
	if d.Parent == "" && d.Name != "_" {
		r.names = append(r.names, d.Name)
	}
}

func (r *reader) typeSpec(i int) int {
	s := r.s
	if !s.IsIdent(i) {
		return i + 1
	}
	d := model.Definition{Name: s.Text(i), Kind: model.DefType, Line: s.Line(i)}
	scope := r.walk.c.Open()
	defer r.walk.c.Close(scope)
	j := i + 1
	if s.Is(j, "[") { // type parameters, or an array type
		inner := s.Close(j)
		if inner > j+2 && s.IsIdent(j+1) && !s.Is(j+2, "]") {
			r.walk.typeParams(j)
			j = inner + 1
		}
	}
	if s.Is(j, "=") {
		j++
	}
	switch {
	case s.Match(j, "interface", "{"):
		d.Kind = model.DefInterface
		r.members(&d, j+1)
	case s.Match(j, "struct", "{"):
		d.Kind = model.DefClass
		r.embedded(&d, j+1)
	default:
		t, _ := r.walk.typ(j)
		r.walk.c.Shape(model.Shape{Name: d.Name, Kind: model.ShapeUnder, Node: t})
	}
	end := specEnd(s, j)
	d.EndLine = s.EndLine(end - 1)
	r.define(d)
	return end
}

// members lists what an interface embeds.
func (r *reader) members(d *model.Definition, open int) {
	r.eachLine(open, func(items []int) {
		r.base(d, items)
		r.walk.member(d.Name, items)
	})
}

// embedded lists the embedded types of a struct.
func (r *reader) embedded(d *model.Definition, open int) {
	r.eachLine(open, func(items []int) {
		r.walk.field(d.Name, items)
		if r.s.Is(items[0], "*") {
			items = items[1:]
		}
		// Tags and type arguments are no part of the name.
		if n := len(items); n > 1 && r.s.Kind(items[n-1]) == syntax.String {
			items = items[:n-1]
		}
		if n := len(items); n > 1 && r.s.Is(items[n-1], "[") {
			items = items[:n-1]
		}
		r.base(d, items)
	})
}

// eachLine calls fn with the tokens of each line of a group, groups inside
// counted as one.
func (r *reader) eachLine(open int, fn func(items []int)) {
	s := r.s
	end := s.Close(open)
	for k := open + 1; k < end; {
		line := s.Line(k)
		var items []int
		for k < end && s.Line(k) == line {
			if !s.Is(k, ";") {
				items = append(items, k)
			}
			k = s.Close(k) + 1
		}
		if len(items) > 0 {
			fn(items)
		}
	}
}

// base keeps an embedded type, T or pkg.T, which is all that the line holds.
func (r *reader) base(d *model.Definition, items []int) {
	s := r.s
	n := len(items)
	if n != 1 && (n != 3 || !s.Is(items[1], ".") || !s.IsIdent(items[0])) || !s.IsIdent(items[n-1]) {
		return
	}
	name := s.Text(items[n-1])
	d.Bases = append(d.Bases, name)
	u := model.Use{Kind: model.LinkInheritance, Name: name, Line: s.Line(items[0])}
	if n == 3 {
		from := s.Text(items[0])
		for _, im := range r.f.Imports {
			if slices.Contains(localNames(im), from) {
				u.Module = im.Text
				break
			}
		}
		if u.Module == "" {
			return
		}
	}
	r.f.Uses = append(r.f.Uses, u)
}

// specEnd is the index after the last token of a declaration that starts at
// i: groups are stepped over, and a line that does not end in an operator ends
// it.
func specEnd(s *syntax.Stream, i int) int {
	for i < s.Len() {
		if s.Any(i, ")", "}", "]") {
			return i // the group around it ends
		}
		if s.Is(i, ";") {
			return i + 1
		}
		j := s.Close(i)
		if j+1 >= s.Len() {
			return s.Len()
		}
		if s.Line(j+1) != s.EndLine(j) && endsStatement(s, j) {
			return j + 1
		}
		i = j + 1
	}
	return s.Len()
}

// endsStatement reports whether Go puts a semicolon behind token i at the end
// of a line.
func endsStatement(s *syntax.Stream, i int) bool {
	switch s.Kind(i) {
	case syntax.Ident:
		switch s.Text(i) {
		case "struct", "interface", "func", "map", "chan":
			return false
		}
		return true
	case syntax.Number, syntax.String:
		return true
	}
	switch b := s.Bytes(i); string(b) {
	case ")", "]", "}":
		return true
	case "+", "-":
		return i > 0 && s.Is(i-1, string(b)) && s.Tokens[i-1].End == s.Tokens[i].Start
	}
	return false
}

func (r *reader) valueSpec(i int, kind model.DefinitionKind) int {
	s := r.s
	first := i
	var names []int
	for s.IsIdent(i) {
		names = append(names, i)
		if !s.Is(i+1, ",") {
			break
		}
		i += 2
	}
	end := specEnd(s, first)
	for _, n := range names {
		if s.Is(n, "_") {
			continue
		}
		r.define(model.Definition{Name: s.Text(n), Kind: kind, Line: s.Line(first), EndLine: s.EndLine(end - 1)})
	}
	if len(names) > 0 {
		r.walk.top(names, len(r.f.Definitions)-1)
	}
	return end
}

func (r *reader) function(i int) int {
	s := r.s
	d := model.Definition{Kind: model.DefFunction, Line: s.Line(i)}
	scope := r.walk.c.Open()
	defer r.walk.c.Close(scope)
	j := i + 1
	if s.Is(j, "(") { // receiver
		d.Kind = model.DefMethod
		end := s.Close(j)
		d.Parent = receiver(s, j, end)
		r.walk.receiver(j, d.Parent)
		j = end + 1
	}
	if !s.IsIdent(j) {
		return i + 1
	}
	d.Name = s.Text(j)
	j++
	if s.Is(j, "[") {
		r.walk.typeParams(j)
		j = s.Close(j) + 1
	}
	if !s.Is(j, "(") {
		return j
	}
	close := s.Close(j)
	d.Params = params(s, j, close)
	r.shape(j, close)
	last := r.functionEnd(close)
	d.EndLine = s.EndLine(last)
	if d.Name == "main" && d.Parent == "" && r.f.Namespace == "main" {
		r.f.Starts = d.Line
	}
	r.define(d)
	r.walk.body(&d, j, last, len(r.f.Definitions)-1)
	return last + 1
}

// functionEnd is the last token of a function whose parameters end at close. A
// body starts on the line its signature ends on; without one the function is
// implemented elsewhere.
func (r *reader) functionEnd(close int) int {
	s := r.s
	last, k := close, close+1
	for k < s.Len() && !s.Is(k, "{") {
		if s.Line(k) != s.EndLine(last) && !s.Any(last, "(", ",") {
			break
		}
		if s.Any(k, "interface", "struct") && s.Is(k+1, "{") {
			k++
		}
		last = s.Close(k)
		k = last + 1
	}
	if !s.Is(k, "{") || s.Line(k) != s.EndLine(last) {
		return last
	}
	if last = s.Close(k); last == k {
		return s.Len() - 1
	}
	return last
}

func receiver(s *syntax.Stream, open, end int) string {
	name := ""
	for k := open + 1; k < end; k++ {
		if s.Is(k, "[") {
			break
		}
		if s.IsIdent(k) {
			name = s.Text(k)
		}
	}
	return name
}

func params(s *syntax.Stream, open, end int) int {
	if end <= open+1 {
		return 0
	}
	n := 1
	for k := open + 1; k < end; k = s.Close(k) + 1 {
		if s.Is(k, ",") && k+1 < end {
			n++
		}
	}
	return n
}

// shape notes functions with the signature of an HTTP handler.
func (r *reader) shape(open, end int) {
	s := r.s
	for k := open + 1; k+2 < end; k++ {
		if s.Match(k, "http", ".", "ResponseWriter") {
			r.signs.Add(model.SignHandles, s.Line(k))
			return
		}
	}
}

var verbs = map[string]bool{
	"Get": true, "Post": true, "Put": true, "Delete": true, "Patch": true, "HandleFunc": true, "Handle": true,
	"GET": true, "POST": true, "PUT": true, "DELETE": true, "PATCH": true, "Route": true, "Mount": true,
}
var routePattern = regexp.MustCompile(`^((GET|POST|PUT|DELETE|PATCH) )?/`)

// selectors walks all tokens once for names taken from packages and for calls
// that tell what a file does.
func (r *reader) selectors() {
	s := r.s
	local := map[string]bool{}
	dot := false
	for _, im := range r.f.Imports {
		dot = dot || im.Alias == "."
		for _, n := range localNames(im) {
			local[n] = true
		}
	}
	sieve := syntax.NewSieve(local)
	bare := map[string]bool{} // names without a package before them
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident {
			continue
		}
		if dot && exported(string(s.Bytes(i))) && !s.Is(i-1, ".") {
			bare[s.Text(i)] = true
		}
		if i+2 >= s.Len() || s.Src[s.Tokens[i+1].Start] != '.' || s.Tokens[i+2].Kind != syntax.Ident {
			continue
		}
		r.telling(i)
		if w := s.Bytes(i); sieve.May(w) && !s.Is(i-1, ".") && local[string(w)] {
			r.take(i)
		}
	}
	for k := range r.f.Imports {
		im := &r.f.Imports[k]
		if im.Alias == "." {
			im.Names = syntax.SortedSet(bare)
			continue
		}
		set := map[string]bool{}
		for _, n := range localNames(*im) {
			for u := range r.used[n] {
				set[u] = true
			}
		}
		im.Names = syntax.SortedSet(set)
	}
}

// telling notes what "x.Name(…)" at i tells of the file.
func (r *reader) telling(i int) {
	s := r.s
	switch b := s.Bytes(i + 2); {
	case verbs[string(b)] && s.Match(i+3, "(", syntax.Quoted) && routePattern.MatchString(s.Unquote(i+4)):
		r.signs.Add(model.SignRoutes, s.Line(i))
	case string(b) == "ListenAndServe", string(b) == "ListenAndServeTLS":
		r.signs.Add(model.SignListens, s.Line(i))
	}
}

// take notes the name that "pkg.Name" at i takes.
func (r *reader) take(i int) {
	taken := r.used[string(r.s.Bytes(i))]
	if taken == nil {
		taken = map[string]bool{}
		r.used[r.s.Text(i)] = taken
	}
	if !taken[string(r.s.Bytes(i+2))] {
		taken[r.s.Text(i+2)] = true
	}
}

var version = regexp.MustCompile(`^v[0-9]+$`)

// localNames guesses under which names a package may be used: its alias, or
// what the last parts of its path suggest. The resolver knows better for
// packages inside the codebase.
func localNames(im model.Import) []string {
	if im.Alias != "" {
		return []string{im.Alias}
	}
	base := path.Base(im.Text)
	if version.MatchString(base) {
		base = path.Base(path.Dir(im.Text))
	}
	names := []string{base}
	if i := strings.LastIndex(base, ".v"); i > 0 {
		names = append(names, base[:i])
	}
	if i := strings.LastIndexByte(base, '-'); i > 0 {
		names = append(names, base[i+1:], strings.ReplaceAll(base, "-", ""), strings.ReplaceAll(base, "-", "_"))
		if base[i+1:] == "go" {
			names = append(names, base[:i])
		}
	}
	sort.Strings(names)
	return names
}
