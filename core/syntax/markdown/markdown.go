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
	syntax.Register(&syntax.Language{Name: "Markdown", Version: 2, Extensions: []string{".md", ".markdown", ".mdown"}, Read: read})
	syntax.Register(&syntax.Language{
		Name: "Plain text", Version: 2, Extensions: []string{".txt", ".rst"},
		FileNames: []string{"README", "LICENSE", "COPYING", "NOTICE", "AUTHORS", "CHANGES"}, Read: read,
	})
}

var (
	nested  = regexp.MustCompile(`\[!\[[^\]]*\]\([^)]*\)\]\([^)]*\)`)
	badge   = regexp.MustCompile(`\[!\[[^\]]*\]\([^)]*\)\]\([^)]*\)|!?\[[^\]]*\]\([^)]*\)`)
	image   = regexp.MustCompile(`!\[[^\]]*\]\([^)]*\)`)
	link    = regexp.MustCompile(`\[([^\]]*)\]\([^)]*\)`)
	refLink = regexp.MustCompile(`!?\[[^\]]*\] ?\[[^\]]*\]`)
	worded  = regexp.MustCompile(`\pL{2,}`)
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
const maxParagraph = 4000

func read(_ string, src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	syntax.CountPlain(f, src)
	f.Code, f.Comment = 0, f.Code // prose is no code
	n, fence := 0, false
	var words []string
	finish := func() {
		if f.Doc == "" && len(words) > 0 {
			text := strings.Join(words, " ")
			if t := plain(text[:min(len(text), maxParagraph)]); t != "" {
				f.Doc = syntax.Sentence(t, 280)
			}
		}
		words = nil
	}
	for line := range strings.Lines(string(src)) {
		n++
		if n > 3000 {
			break
		}
		t := strings.TrimSpace(line)
		if strings.HasPrefix(t, "```") || strings.HasPrefix(t, "~~~") {
			fence = !fence
			finish()
			continue
		}
		indented := strings.HasPrefix(line, "    ") || strings.HasPrefix(line, "\t")
		if fence || indented {
			if m := command.FindStringSubmatch(t); m != nil && len(f.Commands) < 40 && len(t) < 200 {
				f.Commands = append(f.Commands, model.Command{Name: m[3], Text: m[2], Line: n})
			}
			continue
		}
		if f.Doc != "" {
			continue
		}
		switch {
		case t == "":
			finish()
		case strings.HasPrefix(t, "#"), strings.HasPrefix(t, ">"), strings.HasPrefix(t, "|"),
			strings.HasPrefix(t, ".. "), strings.HasPrefix(t, "---"):
		case under.MatchString(t):
			words = nil // what stood above was a title
		default:
			if strings.TrimSpace(badge.ReplaceAllString(t, "")) == "" {
				continue
			}
			if len(words) == 0 {
				f.DocLine = n
			}
			words = append(words, t)
		}
	}
	finish()
	return f
}

// plain is a paragraph without what marks it up. A badge may well be broken over
// lines, so the paragraph is taken as a whole.
func plain(paragraph string) string {
	t := nested.ReplaceAllString(paragraph, "")
	if bare := refLink.ReplaceAllString(badge.ReplaceAllString(t, ""), ""); len(worded.FindAllString(bare, 2)) < 2 {
		return "" // links alone say nothing, as badges and as a list of contents
	}
	t = refText.ReplaceAllString(refImage.ReplaceAllString(t, ""), " $1")
	t = tagged.ReplaceAllString(link.ReplaceAllString(image.ReplaceAllString(t, ""), "$1"), "")
	return strings.Join(strings.Fields(strings.NewReplacer("**", "", "__", "", "`", "").Replace(t)), " ")
}
