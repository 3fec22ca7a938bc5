package syntax

import (
	"bytes"
	"iter"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// What asks for a text of a catalogue or for the address of a route, by the name
// of the call. The plain ones are for nothing else wherever they are called; the
// others are asked for many things, and count when what they name is held.
var (
	plainTextCalls = Set(
		"$t", "$tc", "i18n", "__", "_e", "_x", "esc_html__", "esc_attr__", "esc_html_e", "esc_attr_e", "trans", "transChoice",
		"trans_choice", "gettext", "ngettext", "pgettext", "dgettext", "gettext_lazy", "ugettext", "ugettext_lazy", "formatMessage",
	)
	textCalls = Set(
		"t", "tc", "_", "N_", "tr", "translate", "getMessage", "getString", "GetString", "localize", "Localize", "label", "msg",
		"message", "get_text", "getText", "instant", "gettext_noop", "loc", "maketext", "add_label", "show_message",
	)
	// carriedTextCalls ask for a text when what they are called on says so.
	carriedTextCalls = Set("get", "text", "format", "of", "value", "has", "say")
	carriesTexts     = regexp.MustCompile(`(?i)i18n|l10n|locali|translat|bundle|messages|intl|lang|texts|wording|polyglot|strings`)
	plainRouteCalls  = Set("url_for", "reverse", "reverse_lazy", "redirectToRoute", "generateUrl")
	routeCalls       = Set("route", "path", "redirect", "signedRoute", "temporarySignedRoute")
	// textMembers hold the texts of a catalogue as fields of theirs, by the name
	// that compilers of catalogues give them.
	textMembers = Set("Resources", "Strings", "Resource", "Messages", "Texts", "string", "plurals")
)

// maxAsked bounds what one file asks for.
const maxAsked = 4000

// putInText is what is put into a text when it is made.
var putInText = regexp.MustCompile(`#\{[^{}]*\}|\$\{[^{}]*\}|\{\$[^{}]*\}|\$[A-Za-z_]\w*`)

// ask keeps what the call at i asks for by its first argument, or by its id.
func (t *traiter) ask(i int, name string, args [][2]int) {
	a := model.AskFact{Kind: model.AskText, Line: t.s.Line(i), Sure: plainTextCalls[name] || plainRouteCalls[name]}
	switch {
	case plainRouteCalls[name], routeCalls[name]:
		a.Kind = model.AskRoute
	case carriedTextCalls[name]:
		if on := t.receiver(i); on == "" || !carriesTexts.MatchString(on) {
			return
		}
	case !a.Sure && !textCalls[name]:
		return
	}
	at := args[0]
	if t.s.Is(at[0], "{") { // formatMessage({ id: "key" })
		for k := at[0] + 1; k+2 < at[1]; k++ {
			if t.s.Match(k, "id", ":") {
				at = [2]int{k + 2, k + 3}
				break
			}
		}
	}
	a.Name = t.asked(at)
	t.keepAsked(a)
	if name == "add_label" { // all of its arguments are keys
		for _, more := range args[1:] {
			a.Name = t.asked(more)
			t.keepAsked(a)
		}
	}
}

func (t *traiter) keepAsked(a model.AskFact) {
	if strings.Trim(a.Name, "*") == "" || len(a.Name) > 300 || len(t.f.Asked) >= maxAsked {
		return
	}
	t.f.Asked = append(t.f.Asked, a)
}

// asked is the name that an argument is, with "*" for what is put in, "" where no
// part of it is written.
func (t *traiter) asked(a [2]int) string {
	if a[1] != a[0]+1 {
		if t.s.Kind(a[0]) != String {
			return ""
		}
		return t.pattern(a)
	}
	text, ok := t.text(a[0])
	if !ok {
		return ""
	}
	if raw := t.s.Bytes(a[0]); raw[0] == '\'' {
		return text
	}
	return putInText.ReplaceAllString(text, "*")
}

// askedAs keeps what is asked for without a call: by an attribute, in brackets
// behind what hands texts out, as a member of a catalogue that was compiled.
func (t *traiter) askedAs(i int) {
	s := t.s
	a := model.AskFact{Kind: model.AskText, Line: s.Line(i)}
	switch w := s.Bytes(i); {
	case string(w) == "i18nKey" && s.Is(i+1, "=") && s.Kind(i+2) == String:
		a.Name, a.Sure = s.Unquote(i+2), true
	case string(w) == "id" && s.Is(i+1, "=") && s.Kind(i+2) == String && s.Is(i-1, "FormattedMessage"):
		a.Name, a.Sure = s.Unquote(i+2), true
	case bytes.HasSuffix(w, localizer) && s.Is(i+1, "[") && s.Kind(i+2) == String:
		a.Name, a.Sure = s.Unquote(i+2), true
	case textMembers[string(w)] && s.Is(i+1, ".") && s.IsIdent(i+2) && !s.Is(i+3, "("):
		a.Name = s.Text(i + 2)
	default:
		return
	}
	t.keepAsked(a)
}

// localizer is how the names of what hands texts out in brackets end.
var localizer = []byte("ocalizer")

// mayAsk turns away nearly all words before askedAs looks at them: by the first
// sign of what it knows, or the last of a localizer.
func mayAsk(w []byte) bool {
	switch w[0] {
	case 'i', 'R', 'S', 'M', 'T', 's', 'p':
		return string(w) == "i18nKey" || string(w) == "id" || textMembers[string(w)]
	}
	return w[len(w)-1] == 'r' && bytes.HasSuffix(w, localizer)
}

// named is a text in either quotes.
const named = `(?:"([^"\n]+)"|'([^'\n]+)')`

// inPages are the shapes in which pages ask for a text or an address: the first
// group is the name.
var inPages = []struct {
	kind  string
	leads []string // one of which each text with the shape has in it
	sure  bool
	re    *regexp.Regexp
}{
	{
		model.AskText, []string{"$t", "__(", "__ (", "@lang", "trans(", "trans (", "gettext(", "gettext (", "18n.t"}, true,
		regexp.MustCompile(`(?:\$tc?|\b__|@lang|\btrans|\bgettext|\bI18n\.t|\bi18n\.t)\s*\(\s*` + named),
	},
	{
		model.AskText, []string{" t(", "{t(", "_(", "msg(", "translate(", "=t(", "(t("}, false,
		regexp.MustCompile(`\b(?:t|_|msg|translate)\(\s*` + named),
	},
	{model.AskText, []string{"{%"}, true, regexp.MustCompile(`\{%-?\s*(?:trans|translate)\s+` + named)},
	{
		model.AskText, []string{"| trans", "|trans"}, true,
		regexp.MustCompile(`\{\{-?\s*` + named + `\s*\|\s*(?:translate|trans|transloco)\b`),
	},
	{model.AskText, []string{"#{"}, true, regexp.MustCompile(`#\{([A-Za-z][\w.\-]*)\}`)},
	{model.AskText, []string{"ocalizer["}, true, regexp.MustCompile(`ocalizer\[\s*(?:"([^"\n]+)")`)},
	{model.AskText, []string{" t ", "=t "}, false, regexp.MustCompile(`<%=?\s*t\s+` + named)},
	{
		model.AskText, []string{"data-l10n", "data-i18n", "data-translate"}, true,
		regexp.MustCompile(`\bdata-(?:l10n-id|i18n|translate|i18n-key)\s*=\s*"([^"\n{}<>]+)"`),
	},
	{model.AskRoute, []string{"{%"}, true, regexp.MustCompile(`\{%-?\s*url\s+` + named)},
	{model.AskRoute, []string{"url_for"}, true, regexp.MustCompile(`\burl_for\s*\(\s*` + named)},
	{
		model.AskRoute, []string{"route(", "route (", "path(", "path (", "url(", "url ("}, false,
		regexp.MustCompile(`\b(?:route|path|url)\s*\(\s*` + named),
	},
}

// maxPage is as much of a page as is looked at, in bytes: nobody writes a longer
// one by hand, and what tools put together asks for nothing.
const maxPage = 512 << 10

// How many bytes before and behind a lead are looked at: names are no longer than that.
const (
	beforeLead = 60
	behindLead = 700
)

// AskedInPage lists what the text of a page asks for by name; line tells the line
// of a place in it.
func AskedInPage(text []byte, line func(at int) int) []model.AskFact {
	text = text[:min(len(text), maxPage)]
	var out []model.AskFact
	for i := range inPages {
		p := &inPages[i]
		for start, end := range pieces(text, p.leads) {
			if len(out) >= maxAsked {
				break
			}
			for _, m := range p.re.FindAllSubmatchIndex(text[start:end], maxAsked) {
				g := 2
				if m[2] < 0 {
					g = 4 // in single quotes
				}
				name := string(text[start+m[g] : start+m[g+1]])
				if len(name) <= 300 && !strings.ContainsAny(name, "<>") {
					out = append(out, model.AskFact{Kind: p.kind, Name: name, Line: line(start + m[g]), Sure: p.sure})
				}
			}
		}
	}
	slices.SortStableFunc(out, func(a, b model.AskFact) int { return a.Line - b.Line })
	return out[:min(len(out), maxAsked)]
}

// pieces are the parts of a text that lie around any of the leads, those of leads near
// each other in one: an expression that begins with a lead is looked for in them alone.
func pieces(text []byte, leads []string) iter.Seq2[int, int] {
	return func(yield func(int, int) bool) {
		next := make([]int, len(leads)) // where each lead stands next
		for k := range next {
			next[k] = -1
		}
		start, end := -1, 0
		for at := 0; ; {
			first := len(text)
			for k, l := range leads {
				if next[k] < at {
					next[k] = len(text)
					if i := bytes.Index(text[at:], []byte(l)); i >= 0 {
						next[k] = at + i
					}
				}
				first = min(first, next[k])
			}
			if start >= 0 && first-beforeLead > end || first == len(text) {
				if start >= 0 && !yield(start, end) || first == len(text) {
					return
				}
				start = -1
			}
			if start < 0 {
				start = max(end, first-beforeLead)
			}
			end = min(len(text), first+behindLead)
			at = first + 1
		}
	}
}
