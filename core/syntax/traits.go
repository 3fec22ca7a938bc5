package syntax

import (
	"regexp"
	"strings"

	"jantel/core/model"
)

// traits gathers what calls tell by the name of what is called, in whatever
// language: requests over HTTP, messages, templates, what is kept and what is
// done to it, plans of jobs and checks of who may do something. Frameworks of
// many languages call these alike, so that one list serves all.
func traits(f *model.Facts, s *Stream, signs Signs) {
	t := &traiter{f: f, s: s, signs: signs, stands: map[string]standsFor{}}
	t.models()
	for i := range s.Tokens {
		switch s.Tokens[i].Kind {
		case String, Text:
			t.statement(i)
		case Ident:
			t.declared(i)
			t.sets(i)
			if mayAsk(s.Bytes(i)) {
				t.askedAs(i)
			}
			t.word(i)
		}
	}
	t.done()
}

// maxTraits bounds what is kept of each sort of one file.
const maxTraits = 500

type traiter struct {
	f        *model.Facts
	s        *Stream
	signs    Signs
	literals map[string]model.Literal
	stands   map[string]standsFor // what names stand for, as far as it is kept
	fields   []int                // operations on fields that were not known when they were met
}

func (t *traiter) word(i int) {
	s := t.s
	open := i + 1
	if s.Src[s.Tokens[i].Start] == 'd' && t.signs != nil && s.stops(i) {
		t.signs.Add(model.SignDebug, s.Line(i))
	}
	if s.Src[s.Tokens[i].Start] == 'r' && s.Is(i, "role") && s.Any(i-1, ".", ">", "?.") {
		t.roleAsked(i)
	}
	if s.Ends && s.Is(i-1, ".") && !s.Is(open, "(") {
		t.bare(i)
	}
	if open >= len(s.Tokens) || s.Tokens[open].Start == s.Tokens[open].End || s.Tokens[open].Kind == Newline {
		t.checks(i)
		return
	}
	switch c := s.Src[s.Tokens[open].Start]; {
	case c == '(':
	case c == '{' && operSieve.May(s.Bytes(i)):
		t.withBlock(i)
		return
	case c == '=', c == ':':
		t.literal(i)
		if s.Src[s.Tokens[i].End-1] == '!' { // authorize! :read
			t.checks(i)
		}
		return
	case c == '<': // get<Lot[]>("/lots")
		if !known(s.Bytes(i)) {
			return
		}
		if open = s.typeArgsEnd(open); open == 0 {
			return
		}
	default:
		// Ruby and Perl call without parentheses.
		if k := s.Tokens[open].Kind; (k == String || k == Ident) && s.Tokens[open].Line == s.Tokens[i].Line && known(s.Bytes(i)) {
			t.call(i, [][2]int{{open, open + 1}})
		} else {
			t.checks(i)
		}
		return
	}
	if !known(s.Bytes(i)) {
		t.operation(i, open)
		return
	}
	t.call(i, s.Args(open))
	t.operation(i, open)
}

// bare takes a member that is called without parentheses: Lot.all, lot.destroy.
func (t *traiter) bare(i int) {
	w := t.s.Bytes(i)
	if !operSieve.May(w) {
		return
	}
	what := operations[string(w)]
	if name, found := t.entityBefore(i, changes(what)); found && what != "" {
		t.doneTo(name, what, i, false)
		return
	}
	if instanceDoes[string(w)] != "" {
		t.onInstance(i, i)
	}
}

// typeArgsEnd is the index of the "(" behind <…> at i, 0 where none is.
func (s *Stream) typeArgsEnd(i int) int {
	depth := 0
	for k := i; k < len(s.Tokens) && k < i+24; k++ {
		switch string(s.Bytes(k)) {
		case "<":
			depth++
		case ">":
			if depth--; depth == 0 && s.Is(k+1, "(") {
				return k + 1
			}
		case ";", "{", "}":
			return 0
		}
	}
	return 0
}

// names are all names of calls that tell something, so that one look-up turns
// most words away.
var (
	names       = map[string]bool{}
	namesSieve  = &Sieve{}
	accessSieve = NewSieve(access)
	validSieve  = NewSieve(valids)
	operSieve   = &Sieve{}
)

func known(w []byte) bool { return namesSieve.May(w) && names[string(w)] }

// Sieve turns away most words that are not in a set, by their first sign and
// their length, before the set itself is asked: nearly all words of a text are
// asked for, and nearly none is in it.
type Sieve [256]uint32

// NewSieve makes the sieve of some sets.
func NewSieve[V any](sets ...map[string]V) *Sieve {
	v := &Sieve{}
	for _, set := range sets {
		for w := range set {
			if w != "" {
				v.add(w)
			}
		}
	}
	return v
}

func (v *Sieve) add(w string) { v[w[0]] |= 1 << min(len(w), 31) }

// May reports whether a word, which is not empty, can be in the set.
func (v *Sieve) May(w []byte) bool { return v[w[0]]>>min(len(w), 31)&1 == 1 }

func init() {
	for _, m := range []map[string]bool{
		templateCalls, sends, receives, plainSends, plainReceives, bareRequests, plans, access, definers, health, bounds, valids,
		plainTextCalls, textCalls, carriedTextCalls, plainRouteCalls, routeCalls,
	} {
		for n := range m {
			names[n] = true
		}
	}
	for n := range requestVerbs {
		names[n] = true
	}
	for n := range leftOver {
		names[n] = true
	}
	namesSieve = NewSieve(names)
	for _, set := range []map[string]string{operations, instanceDoes, keeperDoes, repositoryDoes} {
		for n := range set {
			operSieve.add(n)
		}
	}
}

func (t *traiter) call(i int, args [][2]int) {
	name := t.s.Text(i)
	if on := leftOver[name]; on != nil && t.signs != nil && on[t.receiver(i)] {
		if t.looksFor(i, name, args) && !t.onDemand(i) && !t.inTelling(i) {
			t.signs.Add(model.SignDebug, t.s.Line(i))
		}
	}
	if access[name] {
		t.access(i)
	}
	if health[name] {
		t.run(model.RunHealth, name, t.s.Line(i))
	}
	if valids[name] {
		t.valid(i)
	}
	if bounds[name] && (name != "transaction" || t.s.Any(i-1, ".", ">", ":", "->", "::") || t.s.Is(i+1, "do")) {
		t.run(model.RunBounds, name, t.s.Line(i))
	}
	if len(args) == 0 || t.built(i, name, args) {
		return
	}
	switch {
	case templateCalls[name]:
		t.template(i, args)
	case plans[name]:
		t.plan(i, args)
	case definers[name]:
		t.definer(i, args)
	}
	t.request(i, name, args)
	t.message(i, name, args)
	t.ask(i, name, args)
}

// receiver is the word before the dot, arrow or colons in front of i, "" for a
// call on nothing.
func (t *traiter) receiver(i int) string {
	s := t.s
	k := i - 1
	for k >= 0 && s.Kind(k) == Punct && k > i-4 {
		switch s.Text(k) {
		case ".", "->", "::", ":", "?.", "?", ">", "-", "!":
			k--
			continue
		}
		return ""
	}
	if k == i-1 {
		return ""
	}
	if s.Is(k, ")") { // client().get(…)
		if m := int(s.Tokens[k].Match); m > 0 && s.IsIdent(m-1) {
			return s.Text(m - 1)
		}
		return ""
	}
	if s.IsIdent(k) {
		return strings.TrimLeft(s.Text(k), "$@_")
	}
	return ""
}

var filledIn = regexp.MustCompile(`\$?\{[^{}]*\}|#\{[^{}]*\}|\$[A-Za-z_]\w*|%[sdv]`)

// text is the literal that token i is, without its quotes and the letters
// before them; ok is false for anything else.
func (t *traiter) text(i int) (text string, ok bool) {
	if t.s.Kind(i) != String {
		return "", false
	}
	b := string(t.s.Bytes(i))
	n := 0
	for n < len(b) && n < 4 && (isLetter(b[n]) || In(b[n], "$@")) {
		n++
	}
	switch {
	case n < len(b) && In(b[n], "\"'`"):
		b = b[n:]
	case b == "":
		return "", false
	case b[0] == ':': // a symbol
		return b[1:], true
	}
	q := b[:1]
	if !In(b[0], "\"'`") {
		return b, true
	}
	return strings.Trim(strings.TrimPrefix(strings.TrimSuffix(b, q), q), q), true
}

func isLetter(c byte) bool { return c|0x20 >= 'a' && c|0x20 <= 'z' }

// pattern is what an argument says as a whole: its literals, with "*" for what
// is put in between.
func (t *traiter) pattern(a [2]int) string {
	var b strings.Builder
	star := func() {
		if !strings.HasSuffix(b.String(), "*") {
			b.WriteByte('*')
		}
	}
	for i := a[0]; i < a[1] && b.Len() < 300; i++ {
		switch t.s.Kind(i) {
		case String:
			b.WriteString(filledIn.ReplaceAllString(t.piece(i), "*"))
		case Ident, Number:
			star()
			i = t.putIn(i, a[1])
		case Punct:
			if m := t.s.Close(i); m > i && m < a[1] {
				if host := t.hostIn(i, m); host != "" {
					b.WriteString(host)
				} else {
					star()
				}
				i = m
			}
		}
	}
	return b.String()
}

// hostIn is an address of a server written in what is put in, such as the one
// that stands where no setting says another; "" for none.
func (t *traiter) hostIn(from, to int) string {
	for i := from; i < to; i++ {
		if t.s.Kind(i) == String {
			if text, ok := t.text(i); ok && strings.HasPrefix(text, "http") && strings.Contains(text, "://") {
				return strings.TrimSuffix(text, "/")
			}
		}
	}
	return ""
}

// piece is the text of token i, which may be a piece of one with code in it:
// its open ends are signs of it.
func (t *traiter) piece(i int) string {
	raw := string(t.s.Bytes(i))
	text, _ := t.text(i)
	switch {
	case strings.HasSuffix(raw, "${"):
		return strings.TrimSuffix(strings.TrimLeft(raw, "}`"), "${")
	case strings.HasPrefix(raw, "}"):
		return strings.TrimRight(raw[1:], "`")
	case strings.HasSuffix(raw, "`") && !strings.HasPrefix(raw, "`"):
		return strings.TrimSuffix(text, "`") // the last piece, where the brace stands apart
	}
	return text
}

// putIn is the last token of what is put in from i on: all that belongs to it
// is one thing.
func (t *traiter) putIn(i, end int) int {
	for i+1 < end && t.s.Kind(i+1) == Punct && !t.s.Any(i+1, "+", "}") {
		i = t.s.Close(i + 1)
		if t.s.IsIdent(i + 1) {
			i++
		}
	}
	return i
}

// literal keeps a name that is set to a text, where both read like a constant.
func (t *traiter) literal(i int) {
	s := t.s
	k := t.setTo(i)
	if s.Kind(k) != String {
		return
	}
	if after := s.Bytes(k + 1); len(after) == 1 && In(after[0], "+.%") {
		return
	}
	name := strings.TrimLeft(s.Text(i), "$@")
	value, _ := t.text(k)
	if value == "" || len(value) > 100 || strings.ContainsAny(value, " \n\\") || !constant(name, value) || len(t.literals) >= maxTraits {
		return
	}
	if t.literals == nil {
		t.literals = map[string]model.Literal{}
	}
	if _, have := t.literals[name]; !have {
		t.literals[name] = model.Literal{Name: name, Value: value, Line: s.Line(i)}
	}
}

// setTo is the token that the name at i may be set to: behind "=" or "=>" on
// its line, with a type between.
func (t *traiter) setTo(i int) int {
	s := t.s
	k := i + 1
	for k < i+8 && k < len(s.Tokens) && s.Tokens[k].Line == s.Tokens[i].Line && !s.Any(k, "=", Quoted) {
		k++
	}
	if s.Is(k, "=") {
		if k++; s.Is(k, ">") {
			k++
		}
	}
	return k
}

var dottedName = regexp.MustCompile(`^[\w*{}:]+(?:[./:-][\w*{}:]+)+$|^/[\w*{}:/.-]+$`)

// constant reports whether a name is written like a constant: in capitals, or
// with a capital first where its value reads like a name as well.
func constant(name, value string) bool {
	if len(name) < 3 || name[0] < 'A' || name[0] > 'Z' {
		return false
	}
	if strings.ToUpper(name) == name {
		return true
	}
	return dottedName.MatchString(value)
}

func (t *traiter) done() {
	t.later()
	t.f.Texts = heldTexts(t.f, t.s)
	for _, n := range sortedKeys(t.literals) {
		t.f.Literals = append(t.f.Literals, t.literals[n])
	}
}

func sortedKeys[V any](m map[string]V) []string {
	set := make(map[string]bool, len(m))
	for k := range m {
		set[k] = true
	}
	return SortedSet(set)
}

// Templates.

var templateCalls = Set(
	"render", "view", "View", "PartialView", "render_template", "renderTemplate", "render_to_string",
	"render_to_response", "TemplateResponse", "get_template", "getTemplate", "select_template",
	"ParseFiles", "ParseFS", "ExecuteTemplate", "renderFile", "ModelAndView", "renderView", "renderForm",
	"renderBlock", "template", "erb", "haml", "slim", "process")

// template keeps the names that may be a template's: the first literal among
// the first two arguments, or all where files are parsed.
func (t *traiter) template(i int, args [][2]int) {
	all := t.s.Any(i, "ParseFiles", "ParseFS")
	for n, a := range args {
		if n > 1 && !all {
			return
		}
		at := a[0]
		if t.s.IsIdent(at) && (t.s.Any(at+1, ":", "=")) { // template_name="…"
			at += 2
		}
		text, ok := t.text(at)
		if !ok || text == "" || len(text) > 200 || strings.ContainsAny(text, " \n<>{}$") || len(t.f.Templates) >= maxTraits {
			continue
		}
		t.f.Templates = append(t.f.Templates, model.Mention{Name: text, Line: t.s.Line(at)})
		if !all {
			return
		}
	}
}

// Jobs and checks.

var plans = Set(
	"cron", "crontab", "schedule", "Scheduled", "add_job", "AddFunc", "AddJob", "Cron", "CronJob", "cronjob",
	"every", "Every", "addRepeatable", "repeat", "scheduleJob",
)

var cronText = regexp.MustCompile(
	`^(?:@(?:hourly|daily|weekly|monthly|yearly|annually|midnight|every \S+)|(?:[\d*/,?LW#-]+|[A-Z]{3})(?:\s+[\w*/,?#-]+){4,5})$`,
)

func (t *traiter) plan(i int, args [][2]int) {
	for _, a := range args {
		for k := a[0]; k < a[1] && k < a[0]+12; k++ {
			if text, ok := t.text(k); ok && cronText.MatchString(text) {
				t.run(model.RunSchedule, text, t.s.Line(k))
				return
			}
		}
	}
	if t.s.Is(i, "crontab") {
		var parts []string
		for _, a := range args {
			parts = append(parts, string(t.s.Src[t.s.Tokens[a[0]].Start:t.s.Tokens[a[1]-1].End]))
		}
		t.run(model.RunSchedule, "crontab("+strings.Join(parts, ", ")+")", t.s.Line(i))
	}
}

// health are calls that register or answer a check of whether something is well.
var health = Set(
	"MapHealthChecks", "UseHealthChecks", "AddHealthChecks", "HealthIndicator", "HealthCheckService",
	"NewHealthServer", "healthcheck", "healthCheck", "health_check", "HealthCheck", "AbstractHealthIndicator",
)

// valids check what was sent: calls, and marks of what is taken.
var valids = Set(
	"validate", "validateSync", "validateOrReject", "safeParse", "safeParseAsync", "parseAsync", "is_valid", "full_clean", "Valid",
	"ShouldBindJSON", "BindJSON", "ShouldBind", "ShouldBindQuery", "ValidateStruct", "Validated", "TryValidateModel", "validated",
	"validateWithBag", "use_args", "checkSchema", "validationResult", "model_validate", "ModelState", "validate_or_400", "celebrate",
)

// bounds are calls that begin a transaction.
var bounds = Set(
	"transaction", "beginTransaction", "BeginTransaction", "BeginTransactionAsync", "begin_transaction", "BeginTx", "withTransaction",
	"$transaction", "atomic", "startTransaction", "TransactionScope", "inTransaction", "runInTransaction", "WithTx", "transactional",
)

var access = Set(
	"login_required", "permission_required", "user_passes_test", "requires_auth", "RequireAuth", "requireAuth",
	"requireUser", "isAuthenticated", "ensureAuthenticated", "ensureLoggedIn", "authenticate_user",
	"Authorize", "PreAuthorize", "PostAuthorize", "Secured", "RolesAllowed", "UseGuards", "hasRole", "hasAnyRole",
	"hasAuthority", "hasPermission", "has_permission", "checkPermission", "check_permission", "authorize",
	"verifyToken", "verify_token", "verifyJwt", "jwt_required", "checkRole", "requireRole", "require_role",
	"IsAuthenticated", "AuthGuard", "getCurrentUser", "get_current_user", "signIn", "sign_in", "authenticate",
	"RequireRole", "RequireLogin", "requireLogin", "require_login", "denyAccessUnlessGranted", "IsGranted")

// checks keeps a word that stands for such a check.
func (t *traiter) checks(i int) {
	w := t.s.Bytes(i)
	if accessSieve.May(w) && access[string(w)] || len(w) > 8 && w[len(w)-1] == '!' && bangCheck.Match(w) {
		t.access(i)
	} else if validSieve.May(w) && valids[string(w)] {
		t.valid(i)
	}
}

// valid keeps a word that checks what was sent; not where it is defined.
func (t *traiter) valid(i int) {
	if !t.s.Any(i-1, "func", "def", "function", "fun", "sub", "class", "fn", "import", "{", ",") {
		t.run(model.RunValid, t.s.Text(i), t.s.Line(i))
	}
}

// bangCheck are Ruby's methods that refuse who may not go on: the sign belongs
// to the name there, and its lexer takes it along.
var bangCheck = regexp.MustCompile(`^(?:authenticate_\w+!|authenticate!|authorize!|authorize_\w+!|require_(?:login|user|admin|sign_in)!)$`)

func (t *traiter) access(i int) {
	// A definition of such a name is no use of it.
	switch t.s.Text(i - 1) {
	case "func", "def", "function", "fun", "sub", "class", "fn":
		return
	}
	t.run(model.RunAccess, t.s.Text(i), t.s.Line(i))
	if n := len(t.f.Runs); n > 0 && t.s.Is(i+1, "(") {
		t.f.Runs[n-1].Right = t.right(i + 1)
	}
}

// right is the first text among the arguments of a check: the right or the role
// that it asks for. In a text with a call in it, what that is called with.
func (t *traiter) right(open int) string {
	for k := open + 1; k < min(t.s.Close(open), open+8); k++ {
		if text, ok := t.text(k); ok && t.s.Kind(k) == String {
			if m := inCheck.FindStringSubmatch(text); m != nil {
				text = m[1]
			}
			if len(text) <= 60 && !strings.ContainsAny(text, " /\n") {
				return text
			}
			return ""
		}
	}
	return ""
}

var inCheck = regexp.MustCompile(`\(\s*['"]([^'"]+)['"]`)

// roleAsked keeps a comparison of somebody's role with one that is written.
func (t *traiter) roleAsked(i int) {
	k := i + 1
	for n := 0; n < 3 && t.s.Any(k, "=", "==", "===", "!=", "!==", "!"); n++ {
		k++
	}
	if k == i+1 || t.s.Kind(k) != String || t.s.Match(i+1, "=") && k == i+2 {
		return
	}
	t.run(model.RunAccess, "role", t.s.Line(i))
	if n := len(t.f.Runs); n > 0 {
		t.f.Runs[n-1].Right = t.s.Unquote(k)
	}
}

func (t *traiter) run(kind, name string, line int) {
	if len(t.f.Runs) < maxTraits {
		t.f.Runs = append(t.f.Runs, model.RunFact{Kind: kind, Name: name, Line: line})
	}
}
