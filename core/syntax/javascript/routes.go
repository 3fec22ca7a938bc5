package javascript

import (
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// routerName is how routers are called where they come in as parameters.
var routerName = regexp.MustCompile(`(?i)^(app|server|fastify|instance|routes?|(\w*router)|(\w+app))$`)

// makers are the calls whose result routes are declared on.
var makers = map[string]bool{
	"express": true, "Router": true, "express.Router": true, "fastify": true, "Fastify": true, "Hono": true,
	"Koa": true, "KoaRouter": true, "restify.createServer": true, "polka": true, "Elysia": true, "OpenAPIHono": true,
}

// routes finds the routes declared by calls on a router: its methods named for
// those of HTTP, "use" for what is mounted below, "route" for chains.
func (r *reader) routes() {
	s := r.s
	made := r.routersMade()
	var found []routeCall // how they end is told from all of them
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") || !s.Is(i-1, ".") {
			continue
		}
		method, isMethod := syntax.Methods[string(s.Bytes(i))]
		if !isMethod && !s.Any(i, "use", "register", "route") {
			continue
		}
		c := routeCall{at: i, args: s.Args(i + 1)}
		if len(c.args) == 0 {
			continue
		}
		if isMethod && s.Is(i-2, ")") { // app.route('/x').get(a).post(b)
			if on, pattern, ok := r.chained(i - 2); ok {
				c.on, c.method, c.path = on, method, pattern
				found = append(found, c)
			}
			continue
		}
		if !s.IsIdent(i - 2) {
			continue
		}
		c.on, _ = s.Dotted(i - 2)
		if !made[c.on] && !routerName.MatchString(c.on[strings.LastIndexByte(c.on, '.')+1:]) {
			continue
		}
		path, isPath := r.path(c.args[0])
		switch {
		case !isMethod:
			r.mount(c, path, isPath)
		case isPath && len(c.args) > 1 && !s.Is(c.args[1][0], "{"):
			c.method, c.path = method, path
			found = append(found, c)
		}
	}
	r.endings(found)
	for _, c := range found {
		r.route(c)
	}
}

// routeCall is a call on what may be a router.
type routeCall struct {
	at           int // the name of the method
	on           string
	args         [][2]int
	method, path string // of a route
}

func (c *routeCall) last() [2]int { return c.args[len(c.args)-1] }

// routersMade are the names that hold what one of the makers made.
func (r *reader) routersMade() map[string]bool {
	s := r.s
	made := map[string]bool{}
	for i := range s.Tokens {
		if s.Tokens[i].Kind != syntax.Ident || !s.Is(i+1, "(") {
			continue
		}
		name, first := s.Dotted(i)
		if !makers[name] {
			continue
		}
		if s.Is(first-1, "new") {
			first--
		}
		if s.Match(first-2, syntax.Name, "=") {
			made[s.Text(first-2)] = true
		}
	}
	return made
}

func (r *reader) route(c routeCall) {
	n := r.answering(c)
	r.f.Routes = append(r.f.Routes, model.RouteFact{
		Method: c.method, Pattern: syntax.JoinRoute("", c.path), Line: r.s.Line(c.at),
		On: c.on, Handler: r.handler(c.args[n]), InPlace: r.s.InPlace(c.args[n]), Guards: r.before(c.args[:n]),
	})
}

// answering is which argument answers a route: the last, but where that is a step
// that most routes of the file end with (respond), and before it stands a function
// of the route's own.
func (r *reader) answering(c routeCall) int {
	n := len(c.args) - 1
	name := r.s.Name(c.last())
	if n < 2 || name == "" || r.ends[name] < 2 {
		return n
	}
	before := r.s.Name(c.args[n-1])
	if r.s.InPlace(c.args[n-1]) || before != "" && r.ends[before] == 0 && r.nextTo[before] < 2 {
		return n - 1
	}
	return n
}

// endings counts by which names calls on what may be routers end, and which
// stand right before.
func (r *reader) endings(calls []routeCall) {
	r.ends, r.nextTo = map[string]int{}, map[string]int{}
	for _, c := range calls {
		if n := len(c.args); n > 1 {
			r.ends[r.s.Name(c.last())]++
			r.nextTo[r.s.Name(c.args[n-2])]++
		}
	}
}

// before names the functions that stand between the path of a route and what
// answers it; one that a call makes with what it was made with.
func (r *reader) before(args [][2]int) (names []string) {
	s := r.s
	for _, a := range args {
		from, to := a[0], a[1]
		if s.Kind(from) == syntax.String || s.Is(from, "{") {
			continue
		}
		if s.Is(from, "[") { // a list of them
			from, to = from+1, s.Close(from)
		}
		for k := from; k < to; k = s.Close(k) + 1 {
			if !s.IsIdent(k) || s.Any(k-1, ".", "new") || s.Any(k+1, "=>") {
				continue
			}
			text := s.Text(k)
			for s.Match(k+1, ".", syntax.Name) {
				k += 2
				text += "." + s.Text(k)
			}
			if s.Match(k+1, "(", syntax.Quoted, ")") {
				text += "(" + s.Unquote(k+2) + ")"
			}
			if wraps.MatchString(text) && s.Is(k+1, "(") { // asyncHandler(check): what it wraps
				text = ""
				if inner := s.Args(k + 1); len(inner) == 1 {
					text = s.Name(inner[0])
				}
			}
			if text != "" {
				names = append(names, text)
			}
		}
	}
	return names
}

// wraps are names of what only takes the faults of a function over.
var wraps = regexp.MustCompile(`(?i)^(?:async_?(?:handler|wrap\w*|middleware)|wrap(?:_?async)?|catch_?(?:async|errors)|` +
	`try_?catch|promise_?handler)$`)

// mount reads what hangs one router below another: use("/x", other),
// route("/x", other), use(other), register(other, { prefix: "/x" }).
func (r *reader) mount(c routeCall, path string, isPath bool) {
	s := r.s
	target := c.args[0]
	self := "" // what cannot be meant
	switch word := s.Text(c.at); {
	case word == "use" && isPath && len(c.args) > 1, word == "route" && isPath && len(c.args) == 2:
		target = c.last()
	case word == "use" && !isPath, word == "register":
		path, self = r.prefixOf(c), c.on
	default:
		return
	}
	t := r.mounted(target)
	if t != "" && t != self {
		r.f.Mounts = append(r.f.Mounts, model.MountFact{On: c.on, Path: path, Target: t, Line: s.Line(c.at)})
	}
}

// prefixOf is what the options of a call say its routes stand below.
func (r *reader) prefixOf(c routeCall) (prefix string) {
	s := r.s
	if len(c.args) < 2 || !s.Is(c.args[1][0], "{") {
		return ""
	}
	for k := c.args[1][0]; k < c.args[1][1]; k++ {
		if s.Match(k, "prefix", ":", syntax.Quoted) {
			prefix = s.Unquote(k + 2)
		}
	}
	return prefix
}

// path is the first argument when it is a path: a literal that starts with a
// slash or a star.
func (r *reader) path(a [2]int) (string, bool) {
	if r.s.Kind(a[0]) != syntax.String {
		return "", false
	}
	p := ""
	switch {
	case a[1]-a[0] == 1:
		p = r.s.Unquote(a[0])
	case r.s.Bytes(a[0])[0] != '`' || r.s.Bytes(a[1] - 1)[len(r.s.Bytes(a[1]-1))-1] != '`':
		return "", false
	default: // something is put in between: how a parameter has to look, or a part of the path
		for i := a[0]; i < a[1]; i++ {
			if r.s.Kind(i) != syntax.String {
				if !strings.HasSuffix(p, "*") {
					p += "*"
				}
				continue
			}
			p += strings.TrimSuffix(strings.TrimPrefix(strings.Trim(r.s.Text(i), "`"), "}"), "${")
		}
		p = strings.ReplaceAll(p, "(*)", "")
	}
	return p, p == "" || syntax.In(p[0], "/*")
}

// chained follows ").post(b).get(a)" back to the route it hangs on.
func (r *reader) chained(shut int) (on, pattern string, ok bool) {
	s := r.s
	for range 12 {
		open := int(s.Tokens[shut].Match)
		if open <= 0 || open > shut || !s.IsIdent(open-1) {
			return "", "", false
		}
		if s.Is(open-1, "route") {
			args := s.Args(open)
			if len(args) != 1 || !s.IsIdent(open-3) {
				return "", "", false
			}
			p, isPath := r.path(args[0])
			on, _ := s.Dotted(open - 3)
			return on, p, isPath
		}
		if _, isMethod := syntax.Methods[s.Text(open-1)]; !isMethod || !s.Is(open-2, ".") || !s.Is(open-3, ")") {
			return "", "", false
		}
		shut = open - 3
	}
	return "", "", false
}

// handler is the name of what answers; "" for a function written in place.
func (r *reader) handler(a [2]int) string {
	s := r.s
	if n := s.Name(a); n != "" {
		return n
	}
	// wrap(list), list.bind(x): the name inside, as far as there is one.
	if s.IsIdent(a[0]) && !s.Is(a[0], "async") && !s.Is(a[0], "function") {
		for k := a[0]; k < a[1]; k++ {
			if s.Is(k, "(") && s.Close(k) == a[1]-1 {
				if in := s.Args(k); len(in) == 1 {
					if n := s.Name(in[0]); n != "" && n != "this" {
						return n
					}
				}
				break
			}
		}
	}
	return ""
}

// mounted is the router that an argument brings: a name, a call of a name, or
// a module required in place.
func (r *reader) mounted(a [2]int) string {
	s := r.s
	if n := s.Name(a); n != "" {
		return n
	}
	if (s.Any(a[0], "require", "import")) && s.Match(a[0]+1, "(", syntax.Quoted) {
		return "module:" + s.Unquote(a[0]+2)
	}
	for k := a[0]; k < a[1]; k++ {
		if s.Is(k, "(") && s.Close(k) == a[1]-1 && k > a[0] {
			return strings.TrimSuffix(s.Name([2]int{a[0], k}), ".routes")
		}
	}
	return ""
}
