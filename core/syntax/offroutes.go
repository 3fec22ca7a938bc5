package syntax

import (
	"bytes"
	"regexp"
	"strings"

	"jantel/core/model"
)

// switchedOff is a call that declares a route, or puts a router below a path, as it
// stands behind the signs of a comment: a word of a method or of putting, and an
// address as the first argument.
var switchedOff = regexp.MustCompile(`^(?:[\w$]+(?:\.|->|::))*` +
	`(get|post|put|patch|delete|all|use|mount|route|Get|Post|Put|Patch|Delete|` +
	`MapGet|MapPost|MapPut|MapDelete|HandleFunc|Handle|path|re_path)` +
	`(?:\(|\s+)\s*["'](/?[\w/:{}<>*.\-]*)["']\s*(?:,|\)|=>)`)

// offMethods are the words of it that name a method.
var offMethods = map[string]string{
	"get": "GET", "post": "POST", "put": "PUT", "patch": "PATCH", "delete": "DELETE", "mapget": "GET", "mappost": "POST",
	"mapput": "PUT", "mapdelete": "DELETE",
}

// offRoutes finds routes that are switched off by a comment. Only a file that
// declares others is looked at: elsewhere such a line is an example.
func offRoutes(f *model.Facts, s *Stream) {
	if len(f.Routes)+len(f.Mounts) == 0 {
		return
	}
	for i := range s.Comments {
		c := &s.Comments[i]
		text := s.Src[c.Start:c.End]
		if bytes.HasPrefix(text, []byte("/**")) || bytes.HasPrefix(text, []byte("///")) {
			continue // what explains a definition shows examples
		}
		line := int(c.Line)
		for l := range bytes.Lines(text) {
			l = bytes.Trim(bytes.TrimSpace(l), "/*#- \t")
			if m := switchedOff.FindSubmatch(l); m != nil && len(f.OffRoutes) < maxTraits {
				f.OffRoutes = append(f.OffRoutes, model.OffRoute{
					Method: offMethods[strings.ToLower(string(m[1]))], Pattern: string(m[2]), Line: line,
				})
			}
			line++
		}
	}
}
