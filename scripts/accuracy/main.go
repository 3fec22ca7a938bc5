// Command accuracy compares what Jantel reads with what each language's own
// tools say, over trees not written here: definitions by kind, name, first and
// last line, and links by their ends. It prints precision and recall and, with
// -misses, what differs.
//
//	accuracy [-misses N] LANGUAGE ROOT [ARG…]
//
// where ARGs are handed to the language's truth program.
package main

import (
	"bufio"
	"bytes"
	"encoding/json"
	"flag"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strings"
)

// truth says how a language's own tools are asked. Each prints one JSON object
// a file: {"path", "defs": [{kind, name, line, end}], "links": [path]}; those that
// tell of calls {"path", "calls": ["from -> path name"]}.
var truth = map[string]struct {
	command   []string
	languages []string
}{
	"java-calls":       {[]string{"java", "scripts/accuracy/truth/Calls.java"}, []string{"Java"}},
	"java":             {[]string{"java", "scripts/accuracy/truth/Truth.java"}, []string{"Java"}},
	"python":           {[]string{"python3", "scripts/accuracy/truth/truth.py"}, []string{"Python"}},
	"go":               {[]string{"go", "run", "./scripts/accuracy/truth/gotruth"}, []string{"Go"}},
	"go-calls":         {[]string{"go", "run", "./scripts/accuracy/truth/gocalls"}, []string{"Go"}},
	"typescript-calls": {[]string{"node", "scripts/accuracy/truth/calls.mjs"}, []string{"TypeScript", "TSX", "JavaScript", "JSX"}},
	"typescript":       {[]string{"node", "scripts/accuracy/truth/truth.mjs"}, []string{"TypeScript", "TSX", "JavaScript", "JSX"}},
	"php":              {[]string{"php", "scripts/accuracy/truth/truth.php"}, []string{"PHP"}},
	"perl":             {[]string{"perl", "scripts/accuracy/truth/truth.pl"}, []string{"Perl"}},
	"ruby":             {[]string{"ruby", "scripts/accuracy/truth/truth.rb"}, []string{"Ruby"}},
}

type definition struct {
	Kind string `json:"kind"`
	Name string `json:"name"`
	Line int    `json:"line"`
	End  int    `json:"end"`
}

type file struct {
	Path  string       `json:"path"`
	Defs  []definition `json:"defs"`
	Links []string     `json:"links"`
	Calls []string     `json:"calls"`
}

func main() {
	misses := flag.Int("misses", 0, "how many misses of each sort are listed")
	flag.Parse()
	if flag.NArg() < 2 {
		flag.Usage()
		os.Exit(2)
	}
	if err := run(flag.Arg(0), flag.Arg(1), flag.Args()[2:], *misses); err != nil {
		fmt.Fprintln(os.Stderr, "accuracy: "+err.Error())
		os.Exit(1)
	}
}

func run(language, root string, more []string, misses int) error {
	tr, ok := truth[language]
	if !ok {
		return fmt.Errorf("there is no truth program for %q", language)
	}
	said, err := ask(tr.command, root, more)
	if err != nil {
		return err
	}
	if strings.HasSuffix(language, "-calls") {
		return calls(language, root, said, misses)
	}
	ours, links, unread, err := survey(root, tr.languages)
	if err != nil {
		return err
	}
	var defs, lks [2]map[string]bool
	for i := range 2 {
		defs[i], lks[i] = map[string]bool{}, map[string]bool{}
	}
	known := map[string]bool{}
	withLinks := false
	for _, f := range said {
		if unread[f.Path] {
			continue
		}
		known[f.Path] = true
		for _, d := range f.Defs {
			defs[0][fmt.Sprintf("%s:%d-%d %s %s", f.Path, d.Line, d.End, d.Kind, d.Name)] = true
		}
		for _, to := range f.Links {
			withLinks = true
			lks[0][f.Path+" -> "+to] = true
		}
	}
	// Only kinds the truth tells of are compared. A component is a function or
	// a class to the language itself.
	kinds := map[string]bool{}
	for _, f := range said {
		for _, d := range f.Defs {
			kinds[d.Kind] = true
		}
	}
	for k, path := range ours {
		if !known[path] {
			continue
		}
		at, rest, _ := strings.Cut(k, " ")
		what, name, _ := strings.Cut(rest, " ")
		if what == "method" && language == "perl" {
			what = "function" // the language itself has but one word for both
		}
		if what == "component" || what == "enum" && !kinds["enum"] {
			for _, as := range []string{"function", "class", "method"} {
				if defs[0][at+" "+as+" "+name] {
					what = as
				}
			}
		}
		if kinds[what] {
			defs[1][at+" "+what+" "+name] = true
		}
	}
	for k, path := range links {
		if known[path] {
			lks[1][k] = true
		}
	}
	report(language+" definitions", filepath.Base(root), defs, misses)
	if withLinks {
		report(language+" links", filepath.Base(root), lks, misses)
	}
	return nil
}

// calls compares which function calls which: how many of the sure ones are
// right, and how many of the true ones are there, sure or likely.
func calls(language, root string, said []file, misses int) error {
	cmd := exec.Command("bin/jantel", "survey", root, "--no-cache", "--format", "json", "--with", "calls")
	cmd.Stderr = os.Stderr
	out, err := cmd.Output()
	if err != nil {
		return err
	}
	type end struct{ Path, Name string }
	var s struct {
		Calls []struct {
			From, To end
			Kind     string
			Sure     bool
		}
	}
	if err := json.Unmarshal(out, &s); err != nil {
		return err
	}
	known := map[string]bool{}
	sure := [2]map[string]bool{{}, {}}
	all := [2]map[string]bool{{}, {}}
	for _, f := range said {
		known[f.Path] = true
		for _, c := range f.Calls {
			sure[0][f.Path+" "+c], all[0][f.Path+" "+c] = true, true
		}
	}
	for _, c := range s.Calls {
		if !known[c.From.Path] || !known[c.To.Path] || c.Kind != "call" {
			continue
		}
		k := c.From.Path + " " + c.From.Name + " -> " + c.To.Path + " " + c.To.Name
		all[1][k] = true
		if c.Sure {
			sure[1][k] = true
		}
	}
	report(language+", sure ones", filepath.Base(root), sure, misses)
	report(language+", all", filepath.Base(root), all, 0)
	return nil
}

func report(what, tree string, sets [2]map[string]bool, misses int) {
	both := 0
	var missed, invented []string
	for k := range sets[0] {
		if sets[1][k] {
			both++
		} else {
			missed = append(missed, k)
		}
	}
	for k := range sets[1] {
		if !sets[0][k] {
			invented = append(invented, k)
		}
	}
	share := func(n, of int) float64 {
		if of == 0 {
			return 1
		}
		return float64(n) / float64(of)
	}
	fmt.Printf(
		"%-24s %-24s %7d true  precision %.4f  recall %.4f\n", what, tree, len(sets[0]), share(both, len(sets[1])),
		share(both, len(sets[0])),
	)
	list := func(title string, l []string) {
		sort.Strings(l)
		// Spread over the tree, not the first folder's alone.
		step := max(1, len(l)/max(misses, 1))
		for i := 0; i < len(l) && i/step < misses; i += step {
			fmt.Printf("    %s %s\n", title, l[i])
		}
	}
	list("missed  ", missed)
	list("invented", invented)
}

func ask(command []string, root string, more []string) ([]file, error) {
	args := append(append([]string{}, command[1:]...), root)
	cmd := exec.Command(command[0], append(args, more...)...)
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, err
	}
	var said []file
	r := bufio.NewReaderSize(out, 1<<20)
	for {
		line, err := r.ReadBytes('\n')
		if len(bytes.TrimSpace(line)) > 0 {
			var f file
			if err := json.Unmarshal(line, &f); err != nil {
				return nil, fmt.Errorf("%s printed what is no JSON: %w", strings.Join(command, " "), err)
			}
			said = append(said, f)
		}
		if err == io.EOF {
			break
		}
		if err != nil {
			return nil, err
		}
	}
	return said, cmd.Wait()
}

// importKinds are the links, as far as Jantel is sure of them, that a language's own tools know of.
var importKinds = map[string]bool{"import": true, "lazy import": true, "re-export": true}

// survey reads the tree with Jantel: keys to the path they lie in.
func survey(root string, languages []string) (defs, links map[string]string, unread map[string]bool, err error) {
	cmd := exec.Command("bin/jantel", "survey", root, "--no-cache", "--format", "json")
	cmd.Stderr = os.Stderr
	out, err := cmd.Output()
	if err != nil {
		return nil, nil, nil, err
	}
	var s struct {
		Files []struct {
			Path, Language string
			Read           *string
		}
		Definitions []struct {
			Path, Name, Kind string
			Line             int
			EndLine          int `json:"end_line"`
		}
		Links []struct {
			From, To, Kind string
			Sure           bool
		}
	}
	if err := json.Unmarshal(out, &s); err != nil {
		return nil, nil, nil, err
	}
	mine := map[string]bool{}
	partial := 0
	unread = map[string]bool{}
	for _, f := range s.Files {
		for _, l := range languages {
			mine[f.Path] = mine[f.Path] || f.Language == l
		}
		if f.Read == nil {
			mine[f.Path] = false // generated, minified or too large: told so, and not read
			unread[f.Path] = true
		}
		if mine[f.Path] && f.Read != nil && *f.Read == "partial" {
			partial++
		}
	}
	defs, links = map[string]string{}, map[string]string{}
	for _, d := range s.Definitions {
		if mine[d.Path] {
			defs[fmt.Sprintf("%s:%d-%d %s %s", d.Path, d.Line, d.EndLine, d.Kind, d.Name)] = d.Path
		}
	}
	for _, l := range s.Links {
		if mine[l.From] && l.Sure && importKinds[l.Kind] {
			links[l.From+" -> "+l.To] = l.From
		}
	}
	if partial > 0 {
		fmt.Printf("    %d files read in part\n", partial)
	}
	return defs, links, unread, nil
}
