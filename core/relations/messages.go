package relations

import (
	"cmp"
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// Messages lists what is sent and received by name: all that calls say plainly
// is a message, and of the others those whose other end is found. Names held
// in constants are looked up, in the same file or where one file alone has a
// constant of that name.
func Messages(s *model.Survey) []model.Message {
	values := map[string]map[string]bool{}
	for _, f := range s.Files {
		if f.Facts == nil {
			continue
		}
		for _, l := range f.Facts.Literals {
			if values[l.Name] == nil {
				values[l.Name] = map[string]bool{}
			}
			values[l.Name][l.Value] = true
		}
	}
	type end struct {
		model.Message
		plain bool
	}
	var all []end
	sent, received := map[string]map[string]bool{}, map[string]map[string]bool{} // the files, by name
	note := func(in map[string]map[string]bool, name, file string) {
		if in[name] == nil {
			in[name] = map[string]bool{}
		}
		in[name][file] = true
	}
	plain := map[string]bool{}
	for _, f := range s.Files {
		if f.Facts == nil {
			continue
		}
		for _, m := range f.Facts.Messages {
			name := m.Name
			if name == "" {
				if name = constantValue(f, m.Const, values); name == "" {
					continue
				}
			}
			e := end{model.Message{Name: name, Path: f.Path, Line: m.Line, Direction: model.Receive}, m.Plain}
			if m.Send {
				e.Direction = model.Send
				note(sent, name, f.Path)
			} else {
				note(received, name, f.Path)
			}
			plain[name] = plain[name] || m.Plain
			all = append(all, e)
		}
	}
	out := []model.Message{}
	for _, e := range all {
		both := len(sent[e.Name]) > 0 && len(received[e.Name]) > 0
		everywhere := len(sent[e.Name]) > fewSenders && len(received[e.Name]) > fewReceivers
		own := strings.ContainsAny(e.Name, ".:/-_") && !toolkits[e.Name] || !common[e.Name] && !toolkits[e.Name]
		if both && (plain[e.Name] || own && !everywhere) || e.plain && plain[e.Name] {
			out = append(out, e.Message)
		}
	}
	slices.SortFunc(out, func(a, b model.Message) int {
		return cmp.Or(
			cmp.Compare(a.Name, b.Name), cmp.Compare(b.Direction, a.Direction), cmp.Compare(a.Path, b.Path),
			cmp.Compare(a.Line, b.Line),
		)
	})
	return slices.Compact(out)
}

// common are events that every page and stream has: that two files know one
// ties them in no way.
var common = map[string]bool{
	"click": true, "change": true, "error": true, "data": true, "end": true, "close": true, "open": true,
	"message": true, "connect": true, "disconnect": true, "submit": true, "input": true, "load": true,
	"keydown": true, "finish": true, "ready": true, "exit": true, "update": true, "start": true, "stop": true,
	"drain": true, "pipe": true, "request": true, "response": true, "listening": true, "connection": true,
	"resize": true, "scroll": true, "focus": true, "blur": true, "abort": true, "timeout": true, "progress": true,
}

// toolkits are what the parts of interfaces say of themselves, whoever made them.
var toolkits = syntax.Set(
	"activate", "activated", "added", "button-press-event", "button-release-event", "changed", "clicked",
	"configure-event", "cursor-changed", "delete-event", "destroy", "drag-begin", "drag-data-get",
	"drag-data-received", "drag-end", "drag-motion", "draw", "edited", "editing-done", "enter-notify-event",
	"expose-event", "focus-in", "focus-in-event", "focus-out", "focus-out-event", "hide", "key-press-event",
	"key-release-event", "leave-notify-event", "map", "motion-notify-event", "notify", "popup-menu", "pressed",
	"query-tooltip", "realize", "released", "removed", "response", "row-activated", "row-changed", "row-deleted",
	"row-inserted", "scroll-event", "selected", "selection-changed", "show", "size-allocate", "state-changed",
	"switch-page", "toggled", "triggered", "unmap", "unrealize", "value-changed", "visibility-notify-event",
)

// A name that more files than these send, and more than these receive, ties no two
// of them: each has a thing of its own in mind.
const (
	fewSenders   = 2
	fewReceivers = 12
)

func constantValue(f *model.File, name string, values map[string]map[string]bool) string {
	for _, l := range f.Facts.Literals {
		if l.Name == name {
			return l.Value
		}
	}
	if len(values[name]) == 1 {
		for v := range values[name] {
			return v
		}
	}
	return ""
}

// Observed are the messages that are events of a thing at hand rather than of a bus:
// each file that receives one needs a file that sends it, whose event it is. The pairs
// that need each other are given with them, sender first.
func Observed(s *model.Survey, all []model.Message) map[string]map[[2]string]bool {
	send, receive := map[string]map[string]bool{}, map[string]map[string]bool{}
	files := map[string]bool{}
	for _, m := range all {
		in := receive
		if m.Direction == model.Send {
			in = send
		}
		if in[m.Name] == nil {
			in[m.Name] = map[string]bool{}
		}
		in[m.Name][m.Path], files[m.Path] = true, true
	}
	has := atHand(s, files)
	out := map[string]map[[2]string]bool{}
	for name, receivers := range receive {
		if pairs := pairsOf(send[name], receivers, has); len(pairs) > 0 {
			out[name] = pairs
		}
	}
	return out
}

// atHand are the pairs of files, the second of which needs the first.
func atHand(s *model.Survey, files map[string]bool) map[[2]string]bool {
	has := map[[2]string]bool{}
	for i := range s.Links {
		if l := &s.Links[i]; l.Kind != model.LinkMessage && l.Kind != model.LinkHTTP && files[l.From] && files[l.To] {
			has[[2]string{l.To, l.From}] = true
		}
	}
	return has
}

// pairsOf are the senders at hand of each receiver; nil where one has none, and does not
// send itself.
func pairsOf(senders, receivers map[string]bool, has map[[2]string]bool) map[[2]string]bool {
	pairs := map[[2]string]bool{}
	for r := range receivers {
		one := senders[r]
		for x := range senders {
			if p := [2]string{x, r}; x != r && has[p] {
				pairs[p], one = true, true
			}
		}
		if !one {
			return nil
		}
	}
	return pairs
}

// messageLinks ties each sender to each receiver of a message; of an event of a thing
// at hand, those that have it at hand.
func messageLinks(s *model.Survey, all []model.Message) []model.Link {
	var out []model.Link
	observed := Observed(s, all)
	for from := 0; from < len(all); {
		to := from
		for to < len(all) && all[to].Name == all[from].Name {
			to++
		}
		for _, a := range all[from:to] {
			for _, b := range all[from:to] {
				if a.Direction == model.Send && b.Direction == model.Receive && a.Path != b.Path && len(out) < maxMessageLinks &&
					(observed[a.Name] == nil || observed[a.Name][[2]string{a.Path, b.Path}]) {
					out = append(out, model.Link{From: a.Path, To: b.Path, Kind: model.LinkMessage, Line: a.Line, Text: a.Name, Sure: true})
				}
			}
		}
		from = to
	}
	return out
}

// maxMessageLinks bounds what one survey says of messages: names that
// everything sends and receives tie nothing.
const maxMessageLinks = 20_000
