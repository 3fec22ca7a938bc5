package xaml

import (
	"cmp"
	"encoding/xml"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// entry is a text of a catalogue on its way: of a resource file (<data name>), of
// an application for telephones (<string name>), of a toolkit (<message>) or of a
// file of exchange (<trans-unit>).
type entry struct {
	in    string // the element it stands in, "" outside
	key   string
	line  int
	value strings.Builder
	// source is the text that is translated, where that is the key.
	source strings.Builder
	part   string // the element whose text comes next
}

// parts are the elements of an entry that hold its text, and those that hold what
// it translates.
var (
	holds  = map[string]string{"data": "value", "string": "string", "message": "translation", "trans-unit": "target", "unit": "target"}
	source = "source"
)

func (e *entry) open(t xml.StartElement, line int) {
	name := t.Name.Local
	if e.in == "" && holds[name] != "" {
		*e = entry{in: name, line: line, part: name}
		for _, a := range t.Attr {
			if a.Name.Local == "name" || a.Name.Local == "id" || a.Name.Local == "resname" {
				e.key = cmp.Or(e.key, a.Value)
			}
		}
		return
	}
	e.part = name
}

func (e *entry) text(t xml.CharData) {
	switch {
	case e.in == "":
	case e.part == holds[e.in] && e.value.Len() < syntax.MaxText:
		e.value.Write(t)
	case e.part == source && e.source.Len() < 300:
		e.source.Write(t)
	}
}

// shut keeps the entry where its element ends.
func (e *entry) shut(t xml.EndElement, all []model.Literal) []model.Literal {
	if e.in == "" || t.Name.Local != e.in {
		e.part = e.in
		return all
	}
	key := cmp.Or(e.key, strings.TrimSpace(e.source.String()))
	if key != "" && len(key) <= 300 && len(all) < syntax.MaxHeld {
		all = append(all, syntax.Held(key, strings.TrimSpace(e.value.String()), e.line))
	}
	*e = entry{}
	return all
}
