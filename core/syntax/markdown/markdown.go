// Package markdown reads what a README says in its opening words and which
// commands it tells the reader to run.
package markdown

import (
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{Name: "Markdown", Version: 4, Extensions: []string{".md", ".markdown", ".mdown", ".mkd"}, Read: markdown})
	syntax.Register(&syntax.Language{
		Name: "Plain text", Version: 4, Extensions: []string{".txt", ".rst", ".adoc", ".rdoc", ".textile"},
		FileNames: []string{"README", "LICENSE", "COPYING", "NOTICE", "AUTHORS", "CHANGES"}, Read: text,
	})
}

var (
	nested  = regexp.MustCompile(`\[!\[[^\]]*\](?:\([^)]*\)|\[[^\]]*\])?\](?:\([^)]*\)|\[[^\]]*\])`)
	badge   = regexp.MustCompile(`\[!\[[^\]]*\]\([^)]*\)\]\([^)]*\)|!?\[[^\]]*\]\([^)]*\)`)
	image   = regexp.MustCompile(`!\[[^\]]*\]\([^)]*\)`)
	link    = regexp.MustCompile(`\[([^\]]*)\]\([^)]*\)`)
	refLink = regexp.MustCompile(`!?\[[^\]]*\] ?\[[^\]]*\]`)
	tagged  = regexp.MustCompile(`<[^>]{0,300}>`)
	// [text][name] and ![picture][name], resolved elsewhere in the text.
	refImage = regexp.MustCompile(`!\[[^\]]*\]\[[^\]]*\]`)
	refText  = regexp.MustCompile(`(?:^|[^!])\[([^\]]*)\]\[[^\]]*\]`)
	under    = regexp.MustCompile(`^[=\-~*^#]{3,}$`)
	command  = regexp.MustCompile(
		`^(\$ )?((make|npm|npx|yarn|pnpm|go|python3?|pip3?|cargo|docker|composer|php|bundle|` +
			`rake|mvn|gradle|dotnet|pytest|tox|uvicorn|flask|node)\b.*|\./\S.*|bin/\S.*)$`,
	)
)

// maxParagraph is as much of a paragraph as is looked at, in bytes: what is kept
// of it is far shorter.
const maxParagraph = 1500

func markdown(_ syntax.How, src []byte) *model.Facts { return read(src, false) }

func text(_ syntax.How, src []byte) *model.Facts { return read(src, true) }

// read reads prose; bare tells that its headings bear no mark.
func read(src []byte, bare bool) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	syntax.CountPlain(f, src)
	f.Code, f.Comment = 0, f.Code // prose is no code
	o := opening{facts: f, bare: bare}
	n, fence, comment := 0, false, false
	for line := range strings.Lines(string(src)) {
		n++
		if n > 3000 {
			break
		}
		t := strings.TrimSpace(line)
		if comment || strings.HasPrefix(t, "<!--") {
			comment = !strings.Contains(t, "-->")
			continue
		}
		if strings.HasPrefix(t, "```") || strings.HasPrefix(t, "~~~") {
			fence = !fence
			o.finish()
			continue
		}
		indented := strings.HasPrefix(line, "    ") || strings.HasPrefix(line, "\t")
		if fence || indented {
			if m := command.FindStringSubmatch(t); m != nil && len(f.Commands) < 40 && len(t) < 200 {
				f.Commands = append(f.Commands, model.Command{Name: m[3], Text: m[2], Line: n})
			}
			continue
		}
		o.line(t, n)
	}
	o.finish()
	return f
}

// opening takes what a text says of its subject from its first paragraphs: the
// first that says in so many words what it is, else one of the very first that
// may well do so.
type opening struct {
	facts      *model.Facts
	bare       bool
	words      []string
	at         int  // line of the first word
	paragraphs int  // that were looked at
	firm       bool // what was taken says what the thing is
}

// How many paragraphs are looked at for what is said in so many words, and for
// what may be meant so.
const deep, shallow = 10, 3

func (o *opening) line(t string, n int) {
	switch {
	case o.firm || o.paragraphs >= deep:
	case t == "":
		o.finish()
	case under.MatchString(t):
		o.words = nil // what stood above was a title
	case strings.HasPrefix(t, "#"), strings.HasPrefix(t, ">"), strings.HasPrefix(t, "|"), strings.HasPrefix(t, "="),
		strings.HasPrefix(t, ".. "), strings.HasPrefix(t, "---"):
	case strings.Contains(t, "](") && strings.TrimSpace(badge.ReplaceAllString(t, "")) == "":
	case o.bare && strings.HasPrefix(t, "* ") && len(strings.Fields(t)) < 5 && len(o.words) == 0:
	default:
		if len(o.words) == 0 {
			o.at = n
		}
		o.words = append(o.words, t)
	}
}

func (o *opening) finish() {
	words := o.words
	o.words = nil
	if len(words) == 0 || o.firm || o.paragraphs >= deep {
		return
	}
	text := strings.Join(words, " ")
	text = plain(text[:min(len(text), maxParagraph)])
	if text == "" || o.bare && len(words) == 1 && o.paragraphs == 0 && syntax.Title(text) {
		return
	}
	o.paragraphs++
	said, firm := syntax.Statement(text)
	if said == "" || !firm && (o.facts.Doc != "" || o.paragraphs > shallow) {
		return
	}
	o.facts.Doc, o.facts.DocLine, o.firm = syntax.Sentence(said, 280), o.at, firm
}

// plain is a paragraph without what marks it up. A badge may well be broken over
// lines, so the paragraph is taken as a whole.
func plain(paragraph string) string {
	t := paragraph
	if strings.Contains(t, "[") { // nothing else is looked for in most
		t = nested.ReplaceAllString(t, "")
	}
	bare := t
	if strings.Contains(t, "[") {
		bare = refLink.ReplaceAllString(badge.ReplaceAllString(t, ""), "")
		t = refText.ReplaceAllString(refImage.ReplaceAllString(t, ""), " $1")
		t = link.ReplaceAllString(image.ReplaceAllString(t, ""), "$1")
	}
	if syntax.CountWords(bare, 2) < 2 {
		return "" // links alone say nothing, as badges and as a list of contents
	}
	if strings.Contains(t, "<") {
		t = tagged.ReplaceAllString(t, "")
	}
	if t = unmarked.Replace(t); strings.ContainsAny(t, "*_") {
		t = leaning.ReplaceAllString(t, "$1$2$3")
	}
	return strings.Join(strings.Fields(t), " ")
}

// leaning are words that lean: *so* and _so_.
var leaning = regexp.MustCompile(`(^|[\s(])[*_]([^\s*_][^*_]{0,80}?)[*_]($|[\s.,;:!?)])`)

var unmarked = strings.NewReplacer("**", "", "__", "", "`", "")
