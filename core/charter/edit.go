package charter

import (
	_ "embed" // the schema
	"fmt"
	"slices"
	"strconv"
	"strings"

	"github.com/goccy/go-yaml"
	"github.com/goccy/go-yaml/ast"
	"github.com/goccy/go-yaml/parser"
)

// Revision is one change of a charter's text. Index counts from 0; −1 adds.
type Revision struct {
	What      string     `json:"what" enum:"layer,apart,exception,threshold,rings"`
	Index     int        `json:"index" doc:"of the layer, area or exception; -1 adds one"`
	Drop      bool       `json:"drop" doc:"takes it away"`
	Layer     *Layer     `json:"layer,omitempty"`
	Apart     *Area      `json:"apart,omitempty"`
	Exception *Exception `json:"exception,omitempty"`
	Key       string     `json:"key,omitempty" doc:"of the threshold"`
	Value     float64    `json:"value,omitempty" doc:"of the threshold"`
	Rings     bool       `json:"rings,omitempty"`
}

// Apply changes the text of a charter where the change asks for it and leaves
// every other line as it is, comments and order included. A text that can not
// be read is not changed.
func Apply(src string, ch Revision) (string, []Fault) {
	from := src
	if strings.TrimSpace(src) == "" {
		from = "layers:\n"
	} else if _, faults := Parse([]byte(src)); len(faults) > 0 {
		return src, faults
	}
	file, err := parser.ParseBytes([]byte(from), 0)
	if err != nil {
		return src, []Fault{faultOf(err)}
	}
	e := &editor{lines: strings.Split(strings.TrimSuffix(from, "\n"), "\n"), file: file}
	switch ch.What {
	case "layer":
		err = e.item("layers", ch.Index, ch.Drop, layerFields(ch.Layer))
	case "apart":
		err = e.item("apart", ch.Index, ch.Drop, areaFields(ch.Apart))
	case "exception":
		err = e.item("exceptions", ch.Index, ch.Drop, exceptionFields(ch.Exception))
	case "threshold":
		err = e.threshold(ch.Key, ch.Value, ch.Drop)
	case "rings":
		value := ""
		if ch.Rings {
			value = "true"
		}
		e.top("rings", value)
	default:
		err = fmt.Errorf("a layer, an area kept apart, an exception, a threshold or rings can be changed")
	}
	if err != nil {
		return src, []Fault{{0, err.Error()}}
	}
	out := strings.Join(e.lines, "\n") + "\n"
	if _, err := parser.ParseBytes([]byte(out), 0); err != nil {
		return src, []Fault{{0, "this can not be written into the charter; change it in the text"}}
	}
	return out, nil
}

// Schema is the JSON Schema of a charter.
//
//go:embed schema.json
var Schema []byte

// field is a key with its value as YAML; without a value the key goes.
type field struct{ key, value string }

func layerFields(l *Layer) []field {
	if l == nil {
		return nil
	}
	wiring := ""
	if l.Wiring {
		wiring = "true"
	}
	return []field{{"name", flow(l.Name)}, {"holds", flow(l.Holds)}, {"may", flow(l.May)}, {"wiring", wiring}}
}

func areaFields(a *Area) []field {
	if a == nil {
		return nil
	}
	return []field{{"name", flow(a.Name)}, {"places", flow(a.Places)}}
}

func exceptionFields(x *Exception) []field {
	if x == nil {
		return nil
	}
	return []field{{"from", flow(x.From)}, {"to", flow(x.To)}, {"reason", flow(x.Reason)}, {"until", flow(x.Until)}}
}

// flow writes a text or a list in one line; nothing for what is empty.
func flow(v any) string {
	switch x := v.(type) {
	case string:
		if x == "" {
			return ""
		}
		if strings.ContainsAny(x, "\n\r") {
			v = strings.Join(strings.Fields(x), " ")
		}
	case []string:
		if len(x) == 0 {
			return ""
		}
	}
	out, err := yaml.MarshalWithOptions(v, yaml.Flow(true))
	if err != nil {
		return ""
	}
	return strings.TrimSuffix(string(out), "\n")
}

type editor struct {
	lines []string
	file  *ast.File
}

// pairs are the keys of the charter, or of one of its items, in their order.
func pairs(n ast.Node) []*ast.MappingValueNode {
	switch m := n.(type) {
	case *ast.MappingNode:
		return m.Values
	case *ast.MappingValueNode:
		return []*ast.MappingValueNode{m}
	}
	return nil
}

func (e *editor) body() []*ast.MappingValueNode {
	if len(e.file.Docs) == 0 || e.file.Docs[0].Body == nil {
		return nil
	}
	return pairs(e.file.Docs[0].Body)
}

func lineOf(p *ast.MappingValueNode) int { return p.Key.GetToken().Position.Line - 1 }

// end is the line behind what starts at from and whose next begins at next:
// comments and blank lines right before the next belong to that.
func (e *editor) end(from, next int) int {
	for next > from+1 {
		t := strings.TrimSpace(e.lines[next-1])
		if t != "" && !strings.HasPrefix(t, "#") {
			break
		}
		next--
	}
	return next
}

// under finds a key at the top with the line behind its value.
func (e *editor) under(key string) (at *ast.MappingValueNode, end int) {
	body := e.body()
	for i, p := range body {
		if p.Key.String() != key {
			continue
		}
		next := len(e.lines)
		if i+1 < len(body) {
			next = lineOf(body[i+1])
		}
		return p, e.end(lineOf(p), next)
	}
	return nil, 0
}

// item changes, adds or takes away an item of a list at the top.
func (e *editor) item(list string, index int, drop bool, fields []field) error {
	if !drop && len(fields) == 0 {
		return fmt.Errorf("say what the new %s are to be", list)
	}
	at, end := e.under(list)
	var values []ast.Node
	if at != nil {
		if seq, ok := at.Value.(*ast.SequenceNode); ok {
			if seq.IsFlowStyle {
				return fmt.Errorf("%s is written in one line; change it in the text", list)
			}
			values = seq.Values
		}
	}
	if index < 0 {
		e.add(list, at, end, values, fields)
		return nil
	}
	if index >= len(values) {
		return fmt.Errorf("%s has no item %d", list, index+1)
	}
	own := pairs(values[index])
	if len(own) == 0 {
		return fmt.Errorf("item %d of %s is written in one line; change it in the text", index+1, list)
	}
	start, next := lineOf(own[0]), end
	if index+1 < len(values) {
		if p := pairs(values[index+1]); len(p) > 0 {
			next = e.end(start, lineOf(p[0]))
		}
	}
	if drop {
		if len(values) == 1 {
			start = lineOf(at) // the list goes with its last item
		}
		e.lines = slices.Delete(e.lines, start, next)
		return nil
	}
	indent := strings.Repeat(" ", own[0].Key.GetToken().Position.Column-1)
	// From the last to the first, so that lines above stay where they are.
	for i := len(fields) - 1; i >= 0; i-- {
		f := fields[i]
		k := slices.IndexFunc(own, func(p *ast.MappingValueNode) bool { return p.Key.String() == f.key })
		if k < 0 {
			continue
		}
		from, to := lineOf(own[k]), next
		if k+1 < len(own) {
			to = lineOf(own[k+1])
		}
		to = e.end(from, to)
		if same(own[k].Value, f.value) {
			continue
		}
		if f.value == "" && k > 0 {
			e.lines = slices.Delete(e.lines, from, to)
			next -= to - from
			continue
		}
		lead := e.lines[from][:own[k].Key.GetToken().Position.Column-1]
		e.lines = slices.Replace(e.lines, from, to, lead+f.key+": "+f.value+comment(e.lines[from]))
		next -= to - from - 1
	}
	for _, f := range fields {
		if f.value != "" && !slices.ContainsFunc(own, func(p *ast.MappingValueNode) bool { return p.Key.String() == f.key }) {
			e.lines = slices.Insert(e.lines, next, indent+f.key+": "+f.value)
			next++
		}
	}
	return nil
}

// same reports whether a node says what the YAML of a value says.
func same(n ast.Node, value string) bool {
	var a, b any
	return yaml.NodeToValue(n, &a) == nil && yaml.Unmarshal([]byte(value), &b) == nil && fmt.Sprint(a) == fmt.Sprint(b)
}

// comment is what stands behind a value in its line, with the blanks before it.
func comment(line string) string {
	i := strings.Index(line, " #")
	if i < 0 || strings.Count(line[:i], `"`)%2 == 1 || strings.Count(line[:i], "'")%2 == 1 {
		return ""
	}
	for i > 0 && line[i-1] == ' ' {
		i--
	}
	return line[i:]
}

func (e *editor) add(list string, at *ast.MappingValueNode, end int, values []ast.Node, fields []field) {
	dash := "  "
	if len(values) > 0 {
		if p := pairs(values[0]); len(p) > 0 {
			dash = strings.Repeat(" ", max(0, p[0].Key.GetToken().Position.Column-3))
		}
	}
	var text []string
	for _, f := range fields {
		if f.value == "" {
			continue
		}
		lead := dash + "  "
		if len(text) == 0 {
			lead = dash + "- "
		}
		text = append(text, lead+f.key+": "+f.value)
	}
	if at == nil {
		end = len(e.lines)
		text = append([]string{list + ":"}, text...)
	}
	e.lines = slices.Insert(e.lines, end, text...)
}

// top sets a plain value at the top, or takes it away.
func (e *editor) top(key, value string) {
	at, end := e.under(key)
	switch {
	case at == nil && value == "":
	case at == nil:
		first := 0
		if body := e.body(); len(body) > 0 {
			first = lineOf(body[0])
		}
		e.lines = slices.Insert(e.lines, first, key+": "+value)
	case value == "":
		e.lines = slices.Delete(e.lines, lineOf(at), end)
	default:
		e.lines = slices.Replace(e.lines, lineOf(at), end, key+": "+value+comment(e.lines[lineOf(at)]))
	}
}

func (e *editor) threshold(key string, value float64, drop bool) error {
	if key == "" {
		return fmt.Errorf("name the threshold: a rule, or rule.parameter")
	}
	at, end := e.under("thresholds")
	text := flow(key) + ": " + strconv.FormatFloat(value, 'f', -1, 64)
	if at == nil {
		if !drop {
			e.lines = append(e.lines, "thresholds:", "  "+text)
		}
		return nil
	}
	own := pairs(at.Value)
	for i, p := range own {
		if p.Key.String() != key && p.Key.String() != flow(key) {
			continue
		}
		from, to := lineOf(p), end
		if i+1 < len(own) {
			to = lineOf(own[i+1])
		}
		to = e.end(from, to)
		switch {
		case drop && len(own) == 1:
			e.lines = slices.Delete(e.lines, lineOf(at), to)
		case drop:
			e.lines = slices.Delete(e.lines, from, to)
		default:
			e.lines = slices.Replace(e.lines, from, to, e.lines[from][:p.Key.GetToken().Position.Column-1]+text+comment(e.lines[from]))
		}
		return nil
	}
	if !drop {
		indent := "  "
		if len(own) > 0 {
			indent = strings.Repeat(" ", own[0].Key.GetToken().Position.Column-1)
		}
		e.lines = slices.Insert(e.lines, end, indent+text)
	}
	return nil
}
