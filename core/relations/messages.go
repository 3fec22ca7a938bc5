package relations

import (
	"cmp"
	"slices"
	"strings"

	"jantel/core/model"
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
	sent, received := map[string]bool{}, map[string]bool{}
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
				sent[name] = true
			} else {
				received[name] = true
			}
			plain[name] = plain[name] || m.Plain
			all = append(all, e)
		}
	}
	out := []model.Message{}
	for _, e := range all {
		both := sent[e.Name] && received[e.Name]
		if both && (plain[e.Name] || strings.ContainsAny(e.Name, ".:/-_") || !common[e.Name]) || e.plain && plain[e.Name] {
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

// messageLinks ties each sender to each receiver of a message.
func messageLinks(all []model.Message) []model.Link {
	var out []model.Link
	for from := 0; from < len(all); {
		to := from
		for to < len(all) && all[to].Name == all[from].Name {
			to++
		}
		for _, a := range all[from:to] {
			for _, b := range all[from:to] {
				if a.Direction == model.Send && b.Direction == model.Receive && a.Path != b.Path && len(out) < maxMessageLinks {
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
