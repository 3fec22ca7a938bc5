package smells

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/relations"
)

var senderWithoutReceiverRule = &Rule{
	Slug: "sender-without-receiver", Facet: model.Boundaries, Title: "Sender without receiver", Weight: 0.6,
	Habit: true, find: senderWithoutReceiver,
	Question: "Is a message sent that nobody receives, or waited for that nobody sends?",
	Why:      "One end was renamed or removed, and no compiler says so.",
	Example:  "`bus.publish(\"lot.dried\")`, and nobody subscribes.",
	Remedy:   "Find the other end, or take this one away.",
}

// otherEndsElsewhere reports whether most messages of a codebase of some size have one end
// alone: the other is in a library, a page, a protocol.
func (c *Context) otherEndsElsewhere(ends map[string][2][]model.Message) bool {
	whole := 0
	for _, e := range ends {
		if len(e[0]) > 0 && len(e[1]) > 0 {
			whole++
		}
	}
	return 2*whole < len(ends) && c.sources() > fewFiles
}

// plainWord reports whether a message is called by one word alone.
func plainWord(name string) bool {
	return len(naming.Words(name)) < 2 && !strings.ContainsAny(name, ".:/")
}

// senderWithoutReceiver reports messages of which one end is missing.
func senderWithoutReceiver(c *Context, _ *Rule) (out []hit) {
	ends := map[string][2][]model.Message{}
	for _, m := range relations.Messages(c.Survey) {
		if !c.Judged[m.Path] || c.Roles[m.Path].Role == model.RoleTest {
			continue
		}
		e := ends[m.Name]
		i := 0
		if m.Direction == model.Receive {
			i = 1
		}
		e[i] = append(e[i], m)
		ends[m.Name] = e
	}
	names := slices.Sorted(maps.Keys(ends))
	if c.otherEndsElsewhere(ends) {
		return nil
	}
	for _, n := range names {
		e := ends[n]
		if len(e[0]) > 0 && len(e[1]) > 0 {
			continue
		}
		here, what := e[0], "is sent and nobody here receives it"
		if len(here) == 0 {
			if plainWord(n) {
				continue // what libraries send is called so: change, zoomend
			}
			here, what = e[1], "is waited for and nobody here sends it"
		}
		out = append(out, hit{
			path: here[0].Path, line: here[0].Line, name: n, strength: 0.35, touches: []string{here[0].Path},
			message:  fmt.Sprintf("The message *%s* %s", n, what),
			evidence: []model.Evidence{{Path: here[0].Path, Line: here[0].Line, Note: n}},
		})
	}
	return out
}
