package smells

import (
	"fmt"
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
)

var routeFormRule = &Rule{
	Slug: "route-form", Facet: model.Names, Title: "Verb in a route", Weight: 0.4, Family: familyName, Habit: true, find: routeForm,
	Question: "Does a path say what its method says?",
	Why:      "Two ways to say one thing are soon used both, and callers have to remember which.",
	Example:  "`POST /api/growers/add`.",
	Remedy:   "Name the thing in the path and leave the verb to the method.",
}

var routeVerb = regexp.MustCompile(`(?i)^(add|create|get|list|update|delete|remove|save|fetch|make|edit|insert|set|find)$`)

// routeForm reports routes with a verb in their path, where the method says it
// already.
func routeForm(c *Context, _ *Rule) (out []hit) {
	for _, rt := range c.routes() {
		if !c.Judged[rt.Path] || c.Roles[rt.Path].Role == model.RoleTest {
			continue
		}
		for _, part := range strings.Split(rt.Pattern, "/") {
			w := naming.Words(part)
			if len(w) == 0 || strings.ContainsAny(part, ":{<*[") || !routeVerb.MatchString(w[0]) {
				continue
			}
			out = append(out, hit{
				path: rt.Path, line: rt.Line, name: rt.Method + " " + rt.Pattern, strength: 0.25,
				touches:  []string{rt.Path},
				evidence: []model.Evidence{{Path: rt.Path, Line: rt.Line, Note: rt.Method + " " + rt.Pattern}},
				message:  fmt.Sprintf("The path of *%s %s* holds the verb *%s*", rt.Method, rt.Pattern, w[0]),
			})
			break
		}
	}
	return out
}
