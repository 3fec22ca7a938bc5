// Package catalogues reads files that hold texts by their keys: catalogues of
// translations in JSON, gettext's and Java's formats, and samples of settings.
package catalogues

import (
	"bytes"
	"encoding/json"
	"strconv"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	for _, l := range []*syntax.Language{
		{Name: "JSON", Version: 1, Extensions: []string{".json", ".arb"}, Read: with(keyed)},
		{Name: "Gettext Catalog", Version: 1, Extensions: []string{".po", ".pot"}, Read: with(gettext)},
		{Name: "Java Properties", Version: 1, Extensions: []string{".properties"}, Read: with(properties)},
		{
			Name: "Dotenv", Version: 1, Extensions: []string{".env"},
			FileNames: []string{
				".env", ".env.example", ".env.sample", ".env.dist", ".env.template", ".env.test", ".env.local", ".env.development",
				".env.production", "env.example", "env.sample", "example.env", "sample.env",
			},
			Read: sample,
		},
	} {
		syntax.Register(l)
	}
}

// with makes a reader of one that lists the texts of a catalogue.
func with(list func(src []byte) []model.Literal) func(syntax.How, []byte) *model.Facts {
	return func(_ syntax.How, src []byte) *model.Facts {
		f := &model.Facts{Read: model.ReadFull}
		syntax.CountPlain(f, src)
		f.Texts = list(src)
		return f
	}
}

// maxDepth bounds how deep keys lie in each other.
const maxDepth = 12

// level is one object of JSON that is open.
type level struct {
	array bool
	key   string
	value bool // a key was read, its value comes next
}

// keyed lists the texts of JSON where nearly all that it holds are texts: their
// keys are joined by dots. Nothing is decoded into values, so that the time grows
// with the text alone. What extensions of browsers keep beside a text ({"message":
// …, "description": …}) is one text.
func keyed(src []byte) []model.Literal {
	d := json.NewDecoder(bytes.NewReader(bytes.TrimPrefix(src, []byte("\ufeff"))))
	d.UseNumber()
	var out []model.Literal
	var open []level
	other, line, counted := 0, 1, int64(0)
	for {
		t, err := d.Token()
		if err != nil {
			break
		}
		at := min(d.InputOffset(), int64(len(src)))
		line += bytes.Count(src[counted:at], []byte{'\n'})
		counted = at
		top := len(open) - 1
		switch v := t.(type) {
		case json.Delim:
			switch v {
			case '{', '[':
				if len(open) >= maxDepth {
					return nil
				}
				open = append(open, level{array: v == '['})
			default:
				open = open[:top]
				if len(open) > 0 {
					open[top-1].value = false
				}
			}
			continue
		case string:
			if top >= 0 && !open[top].array && !open[top].value {
				open[top].key, open[top].value = v, true
				continue
			}
			if key := keyOf(open); key != "" && len(key) <= 300 && len(out) < syntax.MaxHeld {
				out = append(out, syntax.Held(key, v, line))
			}
		default:
			other++
		}
		if top >= 0 {
			open[top].value = false
		}
		if other > 20 && other > len(out) {
			return nil
		}
	}
	if other*10 > len(out) {
		return nil
	}
	return messages(out)
}

// keyOf joins the keys that lead to a value; texts in lists have none.
func keyOf(open []level) string {
	var b strings.Builder
	for i, l := range open {
		if l.array {
			return ""
		}
		if i > 0 {
			b.WriteByte('.')
		}
		b.WriteString(l.key)
	}
	return b.String()
}

// messages takes "key.message" for the text of "key" where most are written so,
// and leaves out what only describes it.
func messages(all []model.Literal) []model.Literal {
	told := 0
	for i := range all {
		if strings.HasSuffix(all[i].Name, ".message") {
			told++
		}
	}
	if told*3 < len(all) {
		return all
	}
	var out []model.Literal
	for _, l := range all {
		if key, ok := strings.CutSuffix(l.Name, ".message"); ok {
			l.Name = key
			out = append(out, l)
		}
	}
	return out
}

// gettext lists the messages of a catalogue by the text they translate.
func gettext(src []byte) []model.Literal {
	var out []model.Literal
	var id, text string
	var into *string
	line, n := 0, 0
	flush := func() {
		if id != "" && len(id) <= 300 && len(out) < syntax.MaxHeld {
			out = append(out, syntax.Held(id, text, line))
		}
		id, text, into = "", "", nil
	}
	for raw := range bytes.Lines(src) {
		n++
		l := strings.TrimSpace(string(raw))
		word, rest, _ := strings.Cut(l, " ")
		switch {
		case word == "msgid":
			flush()
			line, into = n, &id
		case word == "msgstr" || word == "msgstr[0]":
			into = &text
		case strings.HasPrefix(word, "msg"):
			into = nil
		case strings.HasPrefix(l, `"`):
			rest = l
		default:
			continue
		}
		if into != nil {
			if s, err := strconv.Unquote(strings.TrimSpace(rest)); err == nil && len(*into) < 1000 {
				*into += s
			}
		}
	}
	flush()
	return out
}

// properties lists the keys of a file of properties.
func properties(src []byte) []model.Literal {
	var out []model.Literal
	n, goesOn := 0, false
	for raw := range bytes.Lines(src) {
		n++
		l := strings.TrimSpace(string(raw))
		was := goesOn
		goesOn = strings.HasSuffix(l, `\`)
		if was || l == "" || l[0] == '#' || l[0] == '!' || len(out) >= syntax.MaxHeld {
			continue
		}
		if k := strings.IndexAny(l, "=: \t"); k > 0 && k <= 300 {
			out = append(out, syntax.Held(l[:k], strings.TrimLeft(l[k:], "=: \t"), n))
		}
	}
	return out
}

// sample lists the variables that a sample of settings gives a value.
func sample(_ syntax.How, src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	syntax.CountPlain(f, src)
	for _, l := range properties(src) {
		l.Name = strings.TrimSpace(strings.TrimPrefix(l.Name, "export "))
		if l.Name == "export" {
			l.Name, l.Value, _ = strings.Cut(l.Value, "=")
		}
		l.Value = strings.Trim(l.Value, `"'`)
		f.Given = append(f.Given, l)
	}
	return f
}
