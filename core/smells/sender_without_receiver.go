package smells

import (
	"fmt"
	"sort"

	"jantel/core/model"
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
	names, whole := make([]string, 0, len(ends)), 0
	for n, e := range ends {
		names = append(names, n)
		if len(e[0]) > 0 && len(e[1]) > 0 {
			whole++
		}
	}
	sort.Strings(names)
	// Where most have one end alone, the other is elsewhere: in a library, a page, a protocol.
	files := 0
	for range c.Source(".") {
		files++
	}
	if 2*whole < len(names) && files > fewFiles {
		return nil
	}
	for _, n := range names {
		e := ends[n]
		if len(e[0]) > 0 && len(e[1]) > 0 {
			continue
		}
		here, what := e[0], "is sent and nobody here receives it"
		if len(here) == 0 {
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
