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
	syntax.Register(&syntax.Language{Name: "Markdown", Version: 1, Extensions: []string{".md", ".markdown", ".mdown"}, Read: read})
	syntax.Register(&syntax.Language{Name: "Plain text", Version: 1, Extensions: []string{".txt", ".rst"}, FileNames: []string{"README", "LICENSE", "COPYING", "NOTICE", "AUTHORS", "CHANGES"}, Read: read})
}

var (
	badge   = regexp.MustCompile(`\[!\[[^\]]*\]\([^)]*\)\]\([^)]*\)|!?\[[^\]]*\]\([^)]*\)`)
	image   = regexp.MustCompile(`!\[[^\]]*\]\([^)]*\)`)
	link    = regexp.MustCompile(`\[([^\]]*)\]\([^)]*\)`)
	tagged  = regexp.MustCompile(`<[^>]{0,300}>`)
	under   = regexp.MustCompile(`^[=\-~*^#]{3,}$`)
	command = regexp.MustCompile(`^(\$ )?((make|npm|npx|yarn|pnpm|go|python3?|pip3?|cargo|docker|composer|php|bundle|rake|mvn|gradle|dotnet|pytest|tox|uvicorn|flask|node)\b.*|\./\S.*|bin/\S.*)$`)
)

func read(_ string, src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	syntax.CountPlain(f, src)
	f.Code, f.Comment = 0, f.Code // prose is no code
	n, fence := 0, false
	var words []string
	for line := range strings.Lines(string(src)) {
		n++
		if n > 3000 {
			break
		}
		t := strings.TrimSpace(line)
		if strings.HasPrefix(t, "```") || strings.HasPrefix(t, "~~~") {
			fence = !fence
			if len(words) > 0 && f.Doc == "" {
				f.Doc = syntax.Sentence(strings.Join(words, " "), 280)
			}
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
			if len(words) > 0 {
				f.Doc = syntax.Sentence(strings.Join(words, " "), 280)
			}
		case strings.HasPrefix(t, "#"), strings.HasPrefix(t, ">"), strings.HasPrefix(t, "|"), strings.HasPrefix(t, ".. "), strings.HasPrefix(t, "---"):
		case under.MatchString(t):
			words = nil // what stood above was a title
		default:
			if strings.TrimSpace(badge.ReplaceAllString(t, "")) == "" {
				continue
			}
			t = strings.TrimSpace(tagged.ReplaceAllString(link.ReplaceAllString(image.ReplaceAllString(t, ""), "$1"), ""))
			t = strings.NewReplacer("**", "", "__", "", "`", "").Replace(t)
			if t == "" {
				continue
			}
			if len(words) == 0 {
				f.DocLine = n
			}
			words = append(words, t)
		}
	}
	if f.Doc == "" && len(words) > 0 {
		f.Doc = syntax.Sentence(strings.Join(words, " "), 280)
	}
	return f
}
