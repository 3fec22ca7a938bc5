package routes

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"jantel/core/model"
)

// What is usually done with a resource, in the order it is shown.
const (
	List   = "list"
	Create = "create"
	Read   = "read"
	Update = "update"
	Delete = "delete"
)

// Usual are the five in their order.
var Usual = []string{List, Create, Read, Update, Delete}

// Resource is what several routes are about: one address for all of its kind,
// one below it for each.
type Resource struct {
	Pattern string         `json:"pattern" doc:"the address of all of them"`
	In      string         `json:"in" doc:"the module that answers"`
	Routes  []int          `json:"routes" doc:"its routes, by their place in the list"`
	Has     map[string]int `json:"has" doc:"what is usually done with a resource, and the route that does it"`
	// Odd is what is done at an address of its own, such as POST /lots/add.
	Odd     []string `json:"odd" doc:"of what is usually done, what is done at another address than the usual one"`
	Missing []string `json:"missing" doc:"what is usually done and is not done here"`
	Purpose string   `json:"purpose" doc:"why what is missing is missing on purpose; empty where nobody said so"`
	// Guards are those of most of its routes; Open are the routes without any,
	// where others have some.
	Guards   []string  `json:"guards"`
	Open     []int     `json:"open" doc:"its routes that ask nothing first, while others of it do"`
	Standard *Standard `json:"standard,omitempty" doc:"how the framework would declare it in one line, where it has such a form"`
}

// Standard is the form in which a framework declares a resource in one line,
// beside the rows it would replace.
type Standard struct {
	Text      string      `json:"text"`
	Replaces  []int       `json:"replaces" doc:"routes, by their place in the list"`
	Otherwise []Differing `json:"otherwise" doc:"addresses that would answer differently"`
}

// Differing is an address that a standard form has in another way.
type Differing struct {
	Route int    `json:"route" doc:"by its place in the list"`
	Now   string `json:"now"`
	Then  string `json:"then"`
}

// isVariable reports whether a part of a pattern stands for any value.
func isVariable(seg string) bool {
	return seg[0] == ':' || seg[0] == '*' || strings.ContainsAny(seg, "{<[(")
}

// Resources puts the routes together that are about one thing, in modules told by
// in. A thing is told from an address with another below it for each of its kind
// (/lots and /lots/:id); one has at least two of what is usually done. What hangs
// below each (/lots/:id/dry) is part of it, unless it is a thing by itself.
func Resources(all []model.Route, in func(path string) string) []Resource {
	type key struct{ in, pattern string }
	things := map[key]bool{}
	for i := range all {
		if segs := parts(all[i].Pattern); len(segs) > 1 && isVariable(segs[len(segs)-1]) && !isVariable(segs[len(segs)-2]) {
			things[key{in(all[i].Path), join(segs[:len(segs)-1])}] = true
		}
	}
	by := map[key]*Resource{}
	for i := range all {
		r := &all[i]
		segs := parts(r.Pattern)
		if len(segs) == 0 {
			continue
		}
		module := in(r.Path)
		thing, does, odd := key{module, join(segs)}, "", false
		switch last := segs[len(segs)-1]; {
		case isVariable(last):
			thing.pattern, does = join(segs[:len(segs)-1]), one[r.Method]
		case things[thing]:
			does = each[r.Method]
		default:
			// A form, or something that is done with one or with all.
			for n := len(segs) - 1; n > 0; n-- {
				if k := (key{module, join(segs[:n])}); things[k] {
					thing = k
					break
				}
			}
			if thing.pattern == join(segs) {
				does = each[r.Method]
			} else if what := spoken[strings.ToLower(last)]; what == List == (r.Method == "GET") {
				does, odd = what, true
			}
		}
		x := by[thing]
		if x == nil {
			x = &Resource{Pattern: thing.pattern, In: module, Has: map[string]int{}}
			x.Odd, x.Missing, x.Guards, x.Open = []string{}, []string{}, []string{}, []int{}
			by[thing] = x
		}
		x.Routes = append(x.Routes, i)
		before, there := x.Has[does]
		switch {
		case does == "":
		case !there:
			x.Has[does] = i
			if odd {
				x.Odd = append(x.Odd, does)
			}
		case !odd && slices.Contains(x.Odd, does): // the usual one speaks
			x.Has[does] = i
			x.Odd = slices.DeleteFunc(x.Odd, func(w string) bool { return w == does })
		default:
			x.Has[does] = before
		}
	}
	out := []Resource{}
	for _, x := range by {
		if len(x.Has) < 2 {
			continue
		}
		for _, what := range Usual {
			if _, there := x.Has[what]; !there {
				x.Missing = append(x.Missing, what)
			}
		}
		x.guards(all)
		x.Standard = standardOf(all, x)
		out = append(out, *x)
	}
	slices.SortFunc(out, func(a, b Resource) int { return cmp.Or(cmp.Compare(a.In, b.In), cmp.Compare(a.Pattern, b.Pattern)) })
	return out
}

// What a method does to one of a kind, and to all of them.
var (
	one  = map[string]string{"GET": Read, "PUT": Update, "PATCH": Update, "DELETE": Delete}
	each = map[string]string{"GET": List, "POST": Create}
)

// spoken are words at the end of an address that say what is done.
var spoken = map[string]string{
	"list": List, "all": List, "index": List, "search": List, "add": Create, "create": Create, "new": Create, "store": Create, "save": Create,
	"insert": Create, "register": Create, "edit": Update, "update": Update, "change": Update, "modify": Update, "delete": Delete,
	"remove": Delete, "destroy": Delete,
}

func join(segs []string) string { return "/" + strings.Join(segs, "/") }

// guards tells which guards most of the routes have, and which have none.
func (x *Resource) guards(all []model.Route) {
	count := map[string]int{}
	for _, i := range x.Routes {
		if len(all[i].Guards) == 0 {
			x.Open = append(x.Open, i)
		}
		for _, g := range all[i].Guards {
			if count[g]++; 2*count[g] > len(x.Routes) && !slices.Contains(x.Guards, g) {
				x.Guards = append(x.Guards, g)
			}
		}
	}
	if len(x.Open) == len(x.Routes) {
		x.Open = []int{}
	}
}

// form is how a framework declares a resource in one line: the names of its
// actions with the method and what follows the address of all.
type form struct {
	endings []string // of the files that it is declared in
	actions map[string][2]string
	order   []string
	text    func(name, handler string, only []string) string
}

var forms = []form{
	{
		endings: []string{".php"},
		order:   []string{"index", "create", "store", "show", "edit", "update", "destroy"},
		actions: map[string][2]string{
			"index": {"GET", ""}, "create": {"GET", "/create"}, "store": {"POST", ""}, "show": {"GET", "/{x}"},
			"edit": {"GET", "/{x}/edit"}, "update": {"PUT", "/{x}"}, "destroy": {"DELETE", "/{x}"},
		},
		text: func(name, handler string, only []string) string {
			text := fmt.Sprintf("Route::resource('%s', %s::class)", name, handler)
			if only != nil {
				text += "->only(['" + strings.Join(only, "', '") + "'])"
			}
			return text + ";"
		},
	},
	{
		endings: []string{".rb"},
		order:   []string{"index", "new", "create", "show", "edit", "update", "destroy"},
		actions: map[string][2]string{
			"index": {"GET", ""}, "new": {"GET", "/new"}, "create": {"POST", ""}, "show": {"GET", "/:id"},
			"edit": {"GET", "/:id/edit"}, "update": {"PATCH", "/:id"}, "destroy": {"DELETE", "/:id"},
		},
		text: func(name, _ string, only []string) string {
			text := "resources :" + name
			if only != nil {
				text += ", only: %i[" + strings.Join(only, " ") + "]"
			}
			return text
		},
	},
}

// fewestActions is from how many rows a line that stands for all is worth it.
const fewestActions = 3

// standardOf is the standard form of a resource whose rows are written one by
// one, and lead to the usual actions of one class; nil for any other.
func standardOf(all []model.Route, x *Resource) *Standard {
	for _, f := range forms {
		class, s := "", &Standard{Otherwise: []Differing{}}
		names := map[string]bool{}
		lines := map[int]bool{}
		for _, i := range x.Routes {
			r := &all[i]
			if !slices.ContainsFunc(f.endings, func(e string) bool { return strings.HasSuffix(r.Path, e) }) {
				continue
			}
			of, action := handlerOf(r.HandlerName)
			want, usual := f.actions[action]
			if !usual || names[action] || class != "" && class != of || lines[r.Line] {
				continue
			}
			class, names[action], lines[r.Line] = of, true, true
			s.Replaces = append(s.Replaces, i)
			now, then := r.Method+" "+plain(r.Pattern), want[0]+" "+plain(x.Pattern+want[1])
			if now != then && (want[0] != "PUT" || now != "PATCH"+then[3:]) && (want[0] != "PATCH" || now != "PUT"+then[5:]) {
				s.Otherwise = append(s.Otherwise, Differing{Route: i, Now: r.Method + " " + r.Pattern, Then: want[0] + " " + x.Pattern + want[1]})
			}
		}
		if len(s.Replaces) < fewestActions {
			continue
		}
		var only []string
		if len(names) < len(f.order) {
			for _, a := range f.order {
				if names[a] {
					only = append(only, a)
				}
			}
		}
		s.Text = f.text(x.Pattern[strings.LastIndexByte(x.Pattern, '/')+1:], class, only)
		return s
	}
	return nil
}

// handlerOf takes the name of what answers apart into its class and action.
func handlerOf(name string) (class, action string) {
	i := strings.LastIndexAny(name, ".#@:")
	if i < 0 {
		return "", ""
	}
	return strings.TrimRight(name[:i], ".#@:"), name[i+1:]
}

// plain is a pattern with one sign for whatever stands for any value.
func plain(pattern string) string {
	segs := parts(pattern)
	for i, s := range segs {
		if isVariable(s) {
			segs[i] = "*"
		}
	}
	return join(segs)
}
