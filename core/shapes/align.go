package shapes

import (
	"regexp"
	"strings"

	"jantel/core/naming"
)

// What two shapes have of a field.
const (
	Same    = "same"
	Differs = "differs"
	Lost    = "lost"  // the second has it not
	Added   = "added" // the first has it not
)

// FieldPair is one field of two shapes.
type FieldPair struct {
	Name string      `json:"name"`
	What string      `json:"what" enum:"same,differs,lost,added"`
	How  []string    `json:"how" doc:"in what the two differ: type, may be missing, default, limits, written otherwise"`
	A    *ShapeField `json:"a,omitempty"`
	B    *ShapeField `json:"b,omitempty"`
}

// Align lays two shapes side by side: the fields of the first in its order, then
// those that only the second has.
func Align(a, b []ShapeField) []FieldPair {
	at := map[string]int{}
	for i := range b {
		if k := key(b[i].Name); at[k] == 0 {
			at[k] = i + 1
		}
	}
	used := map[int]bool{}
	out := []FieldPair{}
	for i := range a {
		x := &a[i]
		k := at[key(x.Name)]
		if k == 0 || used[k-1] {
			out = append(out, FieldPair{Name: x.Name, What: Lost, How: []string{}, A: x})
			continue
		}
		used[k-1] = true
		y := &b[k-1]
		p := FieldPair{Name: x.Name, What: Same, How: differing(x, y), A: x, B: y}
		if len(p.How) > 0 {
			p.What = Differs
		}
		out = append(out, p)
	}
	for i := range b {
		if !used[i] {
			out = append(out, FieldPair{Name: b[i].Name, What: Added, How: []string{}, B: &b[i]})
		}
	}
	return out
}

// key is a name as two shapes may both write it: started_on is startedOn.
func key(name string) string { return strings.Join(naming.Words(name), "") }

func differing(a, b *ShapeField) []string {
	how := []string{}
	if fa, fb := family(a.Type), family(b.Type); fa != fb {
		how = append(how, "type")
	}
	if a.Optional != b.Optional {
		how = append(how, "may be missing")
	}
	if a.Default != b.Default && a.Default != "" && b.Default != "" {
		how = append(how, "default")
	}
	if a.Limits != b.Limits && a.Limits != "" && b.Limits != "" {
		how = append(how, "limits")
	}
	if a.Name != b.Name && !strings.EqualFold(strings.ReplaceAll(a.Name, "_", ""), strings.ReplaceAll(b.Name, "_", "")) {
		how = append(how, "written otherwise")
	}
	return how
}

// families are the types that stand for one thing in different languages and stores.
var families = []struct {
	name string
	re   *regexp.Regexp
}{
	{"list", regexp.MustCompile(`(?i)\[\]|^list\b|^array\b|^set\b|^vec\b|^\[|slice|^iterable|^collection|^sequence`)},
	{"boolean", regexp.MustCompile(`(?i)bool`)},
	{"time", regexp.MustCompile(`(?i)date|time|instant`)},
	{"number", regexp.MustCompile(`(?i)^(?:.*\.)?(?:big)?(?:u?int(?:eger)?\d*|long|short|byte|float\d*|` +
		`double|decimal|number|numeric|real|serial|[iu]\d+|f\d+|money)` +
		`(?:field)?(?:\(.*)?$`)},
	{"text", regexp.MustCompile(`(?i)str|text|char|uuid|email|url|slug`)},
}

// family is the sort of a type: texts, numbers and so on are told alike; any other
// is itself.
func family(t string) string {
	for i := range families {
		if families[i].re.MatchString(t) {
			return families[i].name
		}
	}
	return strings.ToLower(strings.Trim(t, "*&?"))
}

// Tally counts what two shapes have of each other.
type Tally struct {
	Same    int `json:"same"`
	Differs int `json:"differs"`
	Lost    int `json:"lost"`
	Added   int `json:"added"`
}

// Count counts the pairs of each sort.
func Count(pairs []FieldPair) (n Tally) {
	for i := range pairs {
		switch pairs[i].What {
		case Same:
			n.Same++
		case Differs:
			n.Differs++
		case Lost:
			n.Lost++
		case Added:
			n.Added++
		}
	}
	return n
}

// roleWords say what a shape is for, not what it is about.
var roleWords = regexp.MustCompile(`^(?:dto|vo|entity|model|form|input|output|request|response|req|res|` +
	`record|row|schema|data|info|item|view|params?|payload|` +
	`props|type|base|abstract|new|create|update|edit|details?|summary|db|sql|table|i)$`)

// About are the words that tell what a shape is about: those of its name without
// the ones that tell what it is for, in the singular. A name of such words alone
// keeps them.
func About(name string) []string {
	all := naming.Words(name)
	var out []string
	for _, w := range all {
		if !roleWords.MatchString(w) {
			out = append(out, naming.Singular(w))
		}
	}
	if len(out) == 0 {
		for _, w := range all {
			out = append(out, naming.Singular(w))
		}
	}
	return out
}
