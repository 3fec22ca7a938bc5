package syntax

import (
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// inserter is how a call says that something runs around what answers requests.
type inserter struct {
	when string
	// where what runs is named: "called" (in the arguments), "hook" (in the second,
	// the first says when), "below" (the function below a decorator), "actions" (of
	// a class, with those it is for), "typed" (in angle brackets, or in the call's own
	// name), "depends" (in a list given by name).
	named   string
	whole   bool
	ordered bool
	phase   int
}

// inserters are the calls that put something around what answers, by their name.
// Most are called on a router; those of a class or of the whole program say so.
var inserters = map[string]inserter{
	"use": {when: model.InsertBefore, named: "called", ordered: true},
	"Use": {when: model.InsertBefore, named: "called", ordered: true},
	// By hooks of a server.
	"addHook": {named: "hook"}, "hook": {named: "hook", whole: true},
	"setErrorHandler": {when: model.InsertError, named: "called"},
	"onError":         {when: model.InsertError, named: "called"},
	// By decorators above what runs.
	"before_request": {when: model.InsertBefore, named: "below"}, "before_app_request": {when: model.InsertBefore, named: "below"},
	"after_request": {when: model.InsertAfter, named: "below"}, "teardown_request": {when: model.InsertAfter, named: "below"},
	"errorhandler": {when: model.InsertError, named: "below"}, "exception_handler": {when: model.InsertError, named: "below"},
	"app_errorhandler": {when: model.InsertError, named: "below"},
	"add_middleware":   {when: model.InsertAround, named: "called", phase: -1},
	"middleware":       {when: model.InsertAround, named: "below", phase: -1},
	"include_router":   {when: model.InsertBefore, named: "depends"}, "APIRouter": {when: model.InsertBefore, named: "depends"},
	"FastAPI": {when: model.InsertBefore, named: "depends"},
	// By the class whose actions answer.
	"before_action": {when: model.InsertBefore, named: "actions"}, "before_filter": {when: model.InsertBefore, named: "actions"},
	"prepend_before_action": {when: model.InsertBefore, named: "actions", phase: -1},
	"after_action":          {when: model.InsertAfter, named: "actions"}, "after_filter": {when: model.InsertAfter, named: "actions"},
	"around_action": {when: model.InsertAround, named: "actions"}, "around_filter": {when: model.InsertAround, named: "actions"},
	"skip_before_action": {when: model.InsertBefore, named: "actions"}, "skip_before_filter": {when: model.InsertBefore, named: "actions"},
	"skip_after_action": {when: model.InsertAfter, named: "actions"},
	"rescue_from":       {when: model.InsertError, named: "actions"},
	// For the whole program.
	"useGlobalGuards":       {when: model.InsertBefore, named: "called", whole: true, phase: 1},
	"useGlobalInterceptors": {when: model.InsertAround, named: "called", whole: true, phase: 2},
	"useGlobalPipes":        {when: model.InsertBefore, named: "called", whole: true, phase: 3},
	"useGlobalFilters":      {when: model.InsertError, named: "called", whole: true},
	"apply":                 {when: model.InsertBefore, named: "called", whole: true},
	"addInterceptor":        {when: model.InsertBefore, named: "called", whole: true, phase: 1},
	"UseMiddleware":         {when: model.InsertBefore, named: "typed", whole: true},
	"install":               {when: model.InsertAround, named: "called", whole: true},
}

// hooks are the moments that servers name, by when they come.
var hooks = map[string]string{
	"onRequest": model.InsertBefore, "preParsing": model.InsertBefore, "preValidation": model.InsertBefore,
	"preHandler": model.InsertBefore, "before": model.InsertBefore, "before_dispatch": model.InsertBefore,
	"before_routes": model.InsertBefore, "around_dispatch": model.InsertAround, "around_action": model.InsertAround,
	"preSerialization": model.InsertAfter, "onSend": model.InsertAfter, "onResponse": model.InsertAfter,
	"after": model.InsertAfter, "after_dispatch": model.InsertAfter, "onError": model.InsertError,
	"on_route_exception": model.InsertError,
}

// maxInserts bounds what is kept of one file, and maxLooked how many calls of such
// names are looked at: each may lead along a line or through its arguments.
const (
	maxInserts = 500
	maxLooked  = 2000
)

// inserted finds what runs around what answers requests, where that is not said
// by what answers. What of it counts is told where routers are joined: much else
// is called "use".
func inserted(f *model.Facts, s *Stream) {
	in := inserting{f: f, s: s}
	at := 0
	s.tells(asksInserted, func(i int) {
		for ; at < i; at++ {
			if s.Tokens[at].Kind != Ident {
				in.enter(at)
			}
		}
		switch b := s.Bytes(i); {
		case len(b) < 3 || in.looked >= maxLooked:
		case inserters[string(b)].named != "":
			in.call(i, inserters[string(b)])
		case string(b[:3]) == "Use":
			in.usesByName(i)
		case string(b) == "MIDDLEWARE":
			in.listed(i)
		}
	})
	in.classes()
	f.Inserts = f.Inserts[:min(len(f.Inserts), maxInserts)]
	slices.SortStableFunc(f.Inserts, func(a, b model.InsertFact) int { return a.Line - b.Line })
}

type inserting struct {
	f      *model.Facts
	s      *Stream
	open   []int // brackets that the present token stands in, the outermost first
	looked int
}

// enter notes the brackets that open at a token, and leaves those that closed.
func (in *inserting) enter(i int) {
	for n := len(in.open); n > 0 && int(in.s.Tokens[in.open[n-1]].Match) <= i; n-- {
		in.open = in.open[:n-1]
	}
	if int(in.s.Tokens[i].Match) > i {
		in.open = append(in.open, i)
	}
}

func (in *inserting) keep(x model.InsertFact) { in.f.Inserts = append(in.f.Inserts, x) }

func (in *inserting) call(i int, k inserter) {
	if k.named == "" {
		return
	}
	in.looked++
	s := in.s
	x := model.InsertFact{When: k.when, Line: s.Line(i), Whole: k.whole, Ordered: k.ordered, Phase: k.phase, On: in.calledOn(i)}
	switch k.named {
	case "below":
		in.below(i, x)
	case "actions":
		in.actions(i, x)
	case "typed":
		if s.Match(i+1, "<", Name) {
			x.Name, _ = nameWithDots(s, i+2)
			in.keep(x)
		}
	case "depends":
		in.depends(i, x)
	case "hook":
		if s.IsIdent(i + 1) { // hook before => sub { … }
			in.hooked(s.Text(i+1), x, [2]int{i + 2, i + 3})
		} else if args := s.Args(i + 1); s.Is(i+1, "(") && len(args) > 1 && s.Kind(args[0][0]) == String {
			in.hooked(s.Unquote(args[0][0]), x, args[1])
		}
	default:
		in.called(i, x)
	}
}

// calledOn is what a call is called on, by a dot or an arrow.
func (in *inserting) calledOn(i int) string {
	if in.s.Is(i-1, ".") && in.s.IsIdent(i-2) {
		on, _ := in.s.Dotted(i - 2)
		return on
	}
	return in.chainedOn(i)
}

// chainedOn is what stands before the arrow of a call, without its sigil.
func (in *inserting) chainedOn(i int) string {
	if !in.s.Any(i-1, ".", ">", "->") {
		return ""
	}
	for k := i - 1; k >= 0 && k > i-4; k-- {
		if in.s.IsIdent(k) {
			return strings.TrimLeft(in.s.Text(k), "$")
		}
	}
	return ""
}

// hooked keeps what a server runs at a moment that it names.
func (in *inserting) hooked(moment string, x model.InsertFact, at [2]int) {
	if x.When = hooks[moment]; x.When == "" {
		return
	}
	x.Name, _ = in.runs(at)
	in.keep(x)
}

// called reads what the arguments of a call name: first, it may be, the path below
// which alone they run.
func (in *inserting) called(i int, x model.InsertFact) {
	s := in.s
	args := s.Args(i + 1)
	if !s.Is(i+1, "(") || len(args) == 0 {
		return
	}
	if at := args[0]; s.Kind(at[0]) == String {
		text := s.Unquote(at[0])
		if at[1] != at[0]+1 || !strings.HasPrefix(text, "/") && text != "*" {
			return // a path that is put together is not told
		}
		x.Path, args = strings.TrimSuffix(strings.TrimRight(text, "*"), "/"), args[1:]
	} else if len(args) > 1 && namesPath.MatchString(s.Name(at)) {
		return
	}
	switch s.Text(i) {
	case "apply":
		if !s.Match(s.Close(i+1)+1, ".", "forRoutes") {
			return
		}
	case "install":
		if len(args) == 0 || x.On != "" || s.classAt(args[0][0]) == "" {
			return
		}
	}
	if x.Whole {
		x.Path = in.pathsBehind(i)
	}
	x.Until = in.groupEnd()
	if x.Phase < 0 {
		args = args[:1] // the rest are options of what is added
	}
	for _, a := range args {
		in.argument(a, x)
	}
}

// namesPath is how names end that hold a path.
var namesPath = regexp.MustCompile(`(?i)(?:root|path|url|prefix|base|mount\w*|route)s?$`)

// argument keeps what one argument says shall run.
func (in *inserting) argument(a [2]int, x model.InsertFact) {
	var ok bool
	if x.Name, ok = in.runs(a); !ok || missing.MatchString(x.Name) {
		return
	}
	if x.When == model.InsertBefore && (in.takesFault(a) || faulty.MatchString(x.Name)) {
		x.When, x.Ordered = model.InsertError, false
	}
	in.keep(x)
}

// faulty are names of what is called when something went wrong.
var faulty = regexp.MustCompile(`(?i)^(?:handle_?)?errors?(?:_?handler|_?middleware)?$|error_?(?:handler|middleware|converter)$`)

// missing is what answers when nothing else did: it runs around nothing.
var missing = regexp.MustCompile(`(?i)not_?found(?:_?handler)?$`)

// takesFault reports whether a function in place takes four things, the first of
// them the fault.
func (in *inserting) takesFault(a [2]int) bool {
	s := in.s
	for k := a[0]; k < a[1] && k < a[0]+4; k++ {
		if s.Is(k, "(") {
			return s.Params(k) == 4 && faultName.MatchString(s.Text(k+1))
		}
	}
	return false
}

var faultName = regexp.MustCompile(`(?i)^_?(?:e|err|error|fault|ex)$`)

// runs is the name of what an argument says shall run: "" for a function that is
// written in place; ok is false where it is no such thing.
func (in *inserting) runs(a [2]int) (name string, ok bool) {
	s := in.s
	at := a[0]
	if s.Is(at, "new") {
		at++
	}
	if s.Any(at, "function", "func", "async", "sub", "(") || s.Match(at, Name, "=>") {
		return "", s.InPlace(a)
	}
	if s.Is(at, "&") {
		at++
	}
	if s.Is(at, `\`) && s.Is(at+1, "&") {
		at += 2
	}
	if !s.IsIdent(at) || s.Any(at, "require", "import", "null", "undefined") {
		return "", false
	}
	name, end := nameWithDots(s, at)
	name = strings.TrimLeft(strings.TrimSuffix(name, ".routes"), `\$`)
	if strings.HasSuffix(name, ".allowedMethods") {
		return "", false
	}
	return name, end >= a[1] || s.Any(end, "(", ":", "{", ",")
}

// pathsBehind is the one address that a call for the whole program is for, as calls
// behind it say: apply(x).forRoutes('lots'), addInterceptor(x).addPathPatterns("/lots/**").
func (in *inserting) pathsBehind(i int) string {
	s := in.s
	for k := s.Close(i+1) + 1; s.Match(k, ".", Name, "("); k = s.Close(k+2) + 1 {
		if !s.Any(k+1, "forRoutes", "addPathPatterns") || s.Kind(k+3) != String {
			continue
		}
		path := strings.Trim(strings.TrimRight(s.Unquote(k+3), "*"), "/")
		if path == "" {
			return ""
		}
		return "/" + path
	}
	return ""
}

// groupEnd is the last line of the function in place that a call stands in, where
// that is handed to another call as a group of routes; 0 where it is not.
func (in *inserting) groupEnd() int {
	for n := len(in.open) - 1; n >= 0; n-- {
		if in.s.Is(in.open[n], "{") {
			if n > 0 && in.s.Is(in.open[n-1], "(") {
				return in.s.EndLine(int(in.s.Tokens[in.open[n]].Match))
			}
			return 0
		}
	}
	return 0
}

// below keeps the function below a decorator, or the one that a call names.
func (in *inserting) below(i int, x model.InsertFact) {
	s := in.s
	if s.Is(i, "middleware") && !s.Is(i-1, ".") { // $this->middleware('auth')
		if args := s.Args(i + 1); s.Is(i+1, "(") && len(args) > 0 && in.chainedOn(i) == "this" && s.Kind(args[0][0]) == String {
			x.When, x.Phase = model.InsertBefore, 0
			in.ofClass(i, s.Unquote(args[0][0]), x)
		}
		return
	}
	if _, first := s.Dotted(i); s.Is(first-1, "@") {
		x.Name = in.nextFunction(x.Line)
	} else if args := s.Args(i + 1); s.Is(i+1, "(") && len(args) > 0 {
		x.Name = s.Name(args[len(args)-1])
	}
	if x.Name != "" && x.On != "" {
		in.keep(x)
	}
}

// nextFunction is the first definition that begins at a line or behind it: they stand
// in that order.
func (in *inserting) nextFunction(line int) string {
	all := in.f.Definitions
	i, _ := slices.BinarySearchFunc(all, line, func(d model.Definition, line int) int { return d.Line - line })
	if i == len(all) {
		return ""
	}
	return all[i].Name
}

// depends reads dependencies=[Depends(x), …] among the arguments of a call: what is
// made holds for the router that it is given to, what is taken in for that alone.
func (in *inserting) depends(i int, x model.InsertFact) {
	s := in.s
	if !s.Is(i+1, "(") {
		return
	}
	args := s.Args(i + 1)
	if x.On == "" && s.Match(i-2, Name, "=") {
		x.On = s.Text(i - 2)
	}
	if s.Is(i, "include_router") && len(args) > 0 {
		x.Path = "\x00" + s.Name(args[0]) // for what is taken in there alone
	}
	for _, a := range args {
		for k := a[0]; k < a[1] && s.Match(a[0], "dependencies", "=", "["); k++ {
			if s.Any(k, "Depends", "Security") && s.Match(k+1, "(", Name) {
				x.Name, _ = nameWithDots(s, k+2)
				in.keep(x)
			}
		}
	}
}

// actions reads what a class puts before, after or around its actions: names, then
// only: and except:.
func (in *inserting) actions(i int, x model.InsertFact) {
	s := in.s
	if s.Any(i-1, "def", ".") {
		return
	}
	x.On = ""
	x.Lifts = strings.HasPrefix(s.Text(i), "skip_")
	from, to := in.restOfLine(i)
	names := in.actionNames(from, to, &x)
	for _, n := range names {
		x.Name = n
		in.keep(x)
	}
	if len(names) == 0 && from < to && (s.Any(from, "-", "{", "lambda", "do", "->") || s.Is(to, "do")) {
		in.keep(x) // in place
	}
}

// restOfLine are the arguments of a call that needs no parentheses.
func (in *inserting) restOfLine(i int) (from, to int) {
	s := in.s
	if s.Is(i+1, "(") {
		return i + 2, s.Close(i + 1)
	}
	for to = i + 1; to < s.Len() && s.Kind(to) != Newline && !s.Any(to, ";", "do"); {
		to = s.Close(to) + 1
	}
	return i + 1, to
}

// key is the name of an option that stands at k: only, except, with, if.
func (in *inserting) key(k int) string {
	if in.s.Match(k, Name, ":") && !in.s.Is(k+2, ":") {
		return in.s.Text(k)
	}
	if label, ok := strings.CutSuffix(in.s.Text(k), ":"); ok {
		return label
	}
	if label, ok := strings.CutPrefix(in.s.Text(k), ":"); ok && in.s.Match(k+1, "=", ">") { // :only => […]
		return label
	}
	return ""
}

// actionNames are the names that a list of actions starts with; what stands behind
// "only:" and "except:" is put into x, the handler behind "with:" is the name.
func (in *inserting) actionNames(from, to int, x *model.InsertFact) (names []string) {
	s := in.s
	into := &names
	for k := from; k < to; k++ {
		switch in.key(k) {
		case "only":
			into = &x.Only
		case "except":
			into = &x.Except
		case "with":
			into, names = &names, nil
		case "if", "unless":
			return names // it runs on a condition: it is named all the same
		default:
			switch {
			case s.Is(k, "{"):
				return names
			case s.Kind(k) == String:
				*into = append(*into, strings.Trim(s.Unquote(k), `:"'`))
			case x.When == model.InsertError && len(names) > 0 && s.Is(k-1, "::") && s.IsIdent(k):
				names[len(names)-1] = s.Text(k)
			case x.When == model.InsertError && s.IsIdent(k) && !s.Is(k+1, ":"):
				names = append(names, s.Text(k)) // the class of the fault, where nothing handles it by name
			}
		}
	}
	return names
}

// ofClass reads what a constructor puts before the actions of its class.
func (in *inserting) ofClass(i int, name string, x model.InsertFact) {
	s := in.s
	x.On, x.Name = "", name
	for k := s.Close(i+1) + 1; ; {
		if s.Match(k, "-", ">") {
			k++
		}
		if !s.Any(k, ">", "->") || !s.Match(k+1, Name, "(") {
			break
		}
		texts := in.texts(k + 2)
		switch s.Text(k + 1) {
		case "only":
			x.Only = texts
		case "except":
			x.Except = texts
		}
		k = s.Close(k+2) + 1
	}
	in.keep(x)
}

// texts are those between the parentheses at open.
func (in *inserting) texts(open int) (all []string) {
	for j := open; j < in.s.Close(open); j++ {
		if in.s.Kind(j) == String {
			all = append(all, in.s.Unquote(j))
		}
	}
	return all
}

// notAround are calls named like those that put something around what answers and
// that do something else.
var notAround = regexp.MustCompile(`^Use(?:Url|Urls|Startup|Kestrel|Setting|Environment|ContentRoot|Npgsql|Sql|Sqlite|InMemory|My|Lazy|` +
	`Snake|Endpoints|IIS|Serilog|Swagger|Routing|Default|Static|Query|Row|Model|Service|Orleans|NLog|Windows|Systemd|Console|Internal)`)

// usesByName reads app.UseAuthentication().
func (in *inserting) usesByName(i int) {
	s := in.s
	name := s.Text(i)
	if len(name) < 5 || name[3] < 'A' || name[3] > 'Z' || !s.Is(i-1, ".") || !s.Is(i+1, "(") {
		return
	}
	on, _ := s.Dotted(i - 2)
	if notAround.MatchString(name) || !appName.MatchString(on) {
		return
	}
	x := model.InsertFact{Name: name, When: model.InsertBefore, Line: s.Line(i), Whole: true}
	if strings.Contains(name, "Exception") || strings.Contains(name, "StatusCodePages") {
		x.When = model.InsertError
	}
	in.keep(x)
}

// appName is how an application is called that things are put on.
var appName = regexp.MustCompile(`(?i)^(?:\w*app|builder|application\w*|web)$`)

// listed reads the list of a settings file.
func (in *inserting) listed(i int) {
	s := in.s
	for k := i + 3; s.Match(i+1, "=", "[") && k < s.Close(i+2); k++ {
		if s.Kind(k) == String {
			name := s.Unquote(k)
			name = name[strings.LastIndexByte(name, '.')+1:]
			in.keep(model.InsertFact{Name: name, When: model.InsertAround, Line: s.Line(k), Whole: true})
		}
	}
}

// filterBases are what classes build upon that run around every request.
var filterBases = Set("OncePerRequestFilter", "GenericFilterBean", "ContainerRequestFilter", "HttpFilter")

// classes finds what runs by what it is: filters by their bases, and what handles
// faults for all by a mark of its class, which stands before its methods.
func (in *inserting) classes() {
	advises := map[string]bool{}
	for i := range in.f.Definitions {
		d := &in.f.Definitions[i]
		x := model.InsertFact{Name: d.Name, Line: d.Line, Whole: true}
		switch {
		case marked(d, "ControllerAdvice", "RestControllerAdvice"):
			advises[d.Qualified()] = true
			continue
		case d.Kind == model.DefClass && (slices.ContainsFunc(d.Bases, func(b string) bool { return filterBases[b] }) ||
			slices.Contains(d.Bases, "Filter") && marked(d, "Component", "WebFilter", "Order")):
			x.When = model.InsertAround
		case advises[d.Parent] && marked(d, "ExceptionHandler"):
			x.When = model.InsertError
		default:
			continue
		}
		in.keep(x)
	}
}

// marked reports whether a definition has one of some marks, whatever they are given.
func marked(d *model.Definition, names ...string) bool {
	return slices.ContainsFunc(d.Marks, func(m string) bool {
		m, _, _ = strings.Cut(strings.Trim(m, "@[]"), "(")
		return slices.Contains(names, m[strings.LastIndexByte(m, '.')+1:])
	})
}
