// Package xaml reads the markup of windows and other XML: which class a page
// belongs to, which types and dictionaries it uses, and classes that
// configuration names.
package xaml

import (
	"bytes"
	"encoding/xml"
	"errors"
	"io"
	"path"
	"regexp"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

func init() {
	syntax.Register(&syntax.Language{Name: "XAML", Version: 1, Extensions: []string{".xaml", ".axaml"}, Read: read, Resolve: resolve})
	syntax.Register(&syntax.Language{
		Name: "XML", Version: 2, Extensions: []string{".xml", ".resx", ".xlf", ".xliff"}, Read: read, ResolvedWith: "XAML",
	})
}

// Limits of what is kept of one file, and of how deep elements lie.
const (
	maxKept    = 2000
	maxNesting = 500
)

var (
	markup    = regexp.MustCompile(`(?:x:Type|x:Static|DataType=)\s*([\w]+):([\w.]+)`)
	className = regexp.MustCompile(`^[A-Za-z_]\w*(?:\.[A-Za-z_]\w*)+$`)
)

type reader struct {
	f      *model.Facts
	spaces map[string]string // prefix to namespace of the program
	seen   map[string]bool
	held   entry
}

func read(how syntax.How, src []byte) *model.Facts {
	f := &model.Facts{Read: model.ReadFull}
	syntax.CountPlain(f, src)
	r := &reader{f: f, spaces: map[string]string{}, seen: map[string]bool{}}
	d := xml.NewDecoder(bytes.NewReader(src))
	d.Strict = false
	d.CharsetReader = func(_ string, in io.Reader) (io.Reader, error) { return in, nil }
	last, lastLine := int64(0), 1
	depth := 0
	for {
		t, err := d.RawToken()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			f.Read, f.Problem = model.ReadPartial, "not well-formed XML: "+err.Error()
			break
		}
		// Lines are counted on from the last place, not from the start.
		at := d.InputOffset()
		lastLine += bytes.Count(src[last:at], []byte{'\n'})
		last = at
		switch t := t.(type) {
		case xml.StartElement:
			if depth++; depth > maxNesting {
				f.Read, f.Problem = model.ReadPartial, "nested deeper than is read"
				return f
			}
			r.element(t, min(lastLine, max(f.Lines, 1)), how.Language == "XAML")
			r.held.open(t, min(lastLine, max(f.Lines, 1)))
		case xml.EndElement:
			depth--
			f.Texts = r.held.shut(t, f.Texts)
		case xml.CharData:
			r.held.text(t)
			if text := strings.TrimSpace(string(t)); how.Language == "XML" && className.MatchString(text) {
				r.mention(text, min(lastLine, max(f.Lines, 1)))
			}
		}
	}
	sort.SliceStable(f.Mentions, func(i, j int) bool { return f.Mentions[i].Name < f.Mentions[j].Name })
	if how.Language == "XAML" {
		f.Signs = []model.Sign{{Name: model.SignDraws, Line: 1, Count: 1}}
	}
	return f
}

func (r *reader) mention(name string, line int) {
	if r.seen[name] || len(r.f.Mentions) >= maxKept {
		return
	}
	r.seen[name] = true
	r.f.Mentions = append(r.f.Mentions, model.Mention{Name: name, Line: line})
}

func (r *reader) imports(text string, kind model.LinkKind, line int) {
	if text != "" && len(r.f.Imports) < maxKept {
		r.f.Imports = append(r.f.Imports, model.Import{Text: text, Kind: kind, Line: line})
	}
}

func (r *reader) element(t xml.StartElement, line int, page bool) {
	for _, a := range t.Attr {
		if a.Name.Space == "xmlns" {
			for _, p := range []string{"clr-namespace:", "using:"} {
				if rest, ok := strings.CutPrefix(a.Value, p); ok {
					r.spaces[a.Name.Local], _, _ = strings.Cut(rest, ";")
				}
			}
		}
	}
	if !page {
		for _, a := range t.Attr {
			if className.MatchString(a.Value) {
				r.mention(a.Value, line)
			}
		}
		return
	}
	if ns := r.spaces[t.Name.Space]; ns != "" {
		name, _, _ := strings.Cut(t.Name.Local, ".") // an attached property
		r.mention(ns+"."+name, line)
	}
	for _, a := range t.Attr {
		switch {
		case a.Name.Space == "x" && a.Name.Local == "Class":
			r.f.Namespace = a.Value
		case a.Name.Local == "StartupUri", a.Name.Local == "Source" &&
			t.Name.Local == "ResourceDictionary", a.Name.Local == "Source" && t.Name.Local == "StyleInclude":
			r.imports(a.Value, model.LinkTemplate, line)
		}
		for _, m := range markup.FindAllStringSubmatch(a.Name.Local+"="+a.Value, -1) {
			if ns := r.spaces[m[1]]; ns != "" {
				name, _, _ := strings.Cut(m[2], ".")
				r.mention(ns+"."+name, line)
			}
		}
	}
}

// resolve ties pages to the class behind them, to the types they name and to
// the dictionaries they take in; other XML to the classes it names.
func resolve(t *syntax.Tree) {
	types := syntax.NewTypeIndex(t, ".", false, "C#", "Java", "Kotlin")
	t.Each(func(out *syntax.Out, f *model.File) {
		link := func(to string, kind model.LinkKind, line int, text string) {
			if to != f.Path {
				out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: kind, Line: line, Text: text, Sure: true})
			}
		}
		if f.Facts.Namespace != "" {
			for _, to := range types.Files(f.Facts.Namespace, f.Path) {
				out.Links = append(out.Links, model.Link{
					From: to, To: f.Path, Kind: model.LinkTemplate, Line: 1, Text: f.Facts.Namespace, Sure: true,
				})
			}
		}
		kind := model.LinkConfiguration
		if f.Language == "XAML" {
			kind = model.LinkImport
		}
		for _, m := range f.Facts.Mentions {
			for _, to := range types.Files(m.Name, f.Path) {
				link(to, kind, m.Line, m.Name)
			}
		}
		for _, im := range f.Facts.Imports {
			text := strings.TrimPrefix(strings.ReplaceAll(im.Text, `\`, "/"), "avares://")
			if i := strings.Index(text, ";component/"); i >= 0 {
				text = text[i+len(";component"):]
			}
			text = strings.TrimPrefix(text, "pack://application:,,,")
			if to := find(t, path.Dir(f.Path), text); to != "" {
				link(to, im.Kind, im.Line, im.Text)
			} else if strings.HasSuffix(text, "aml") && !strings.Contains(text, ":") {
				out.Unresolved = append(out.Unresolved, model.Unresolved{
					From: f.Path, Text: im.Text, Line: im.Line, Reason: "no such page or dictionary",
				})
			}
		}
	}, "XAML", "XML")
}

// find is a file beside the one that names it, or below one of the folders
// around: paths count from the project.
func find(t *syntax.Tree, d, text string) string {
	found := ""
	syntax.Up(d, func(at string) bool {
		if p, ok := syntax.Join(at, strings.TrimPrefix(text, "/")); ok && t.File(p) != nil {
			found = p
		}
		return found != ""
	})
	return found
}
