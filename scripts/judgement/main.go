// Command judgement holds what Jantel judges of real programs against what was
// written down by hand before it was run.
//
//	judgement [-locked] [-misses N] TREES LABELS…
//
// TREES is a folder with a folder for each tree, called by its name. A file of
// labels is named for what it labels and has a line for each statement: tree,
// what it is of, what is right; several right answers are parted by "|". Lines
// behind "# locked" are left out unless asked for.
package main

import (
	"bufio"
	"cmp"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
)

// label is one statement.
type label struct {
	tree, of string
	right    []string
}

// survey is as much of a survey as is looked at.
type survey struct {
	Files []struct {
		Path   string
		Role   string
		Source string `json:"role_source"`
		Origin string
	}
	Entries  []struct{ Path string }
	Features []struct{ Name string }
	Cut      struct{ Label string }
	Patterns []struct{ Name string }
	Folders  []struct{ Path, Purpose string }
}

// tally counts answers of one kind.
type tally struct {
	right, wrong, untold int
	misses               []string
}

func main() {
	locked := flag.Bool("locked", false, "ask the locked part alone")
	misses := flag.Int("misses", 0, "how many misses to print of each kind")
	binary := flag.String("jantel", "bin/jantel", "the program")
	made := flag.String("small", "", "a folder of made-up trees, asked instead of TREES and LABELS")
	flag.Parse()
	if *made != "" {
		if err := small(*made, *locked, *misses); err != nil {
			fail(err)
		}
		return
	}
	if flag.NArg() < 2 {
		flag.Usage()
		os.Exit(2)
	}
	surveys := map[string]*survey{}
	for _, file := range flag.Args()[1:] {
		labels, err := read(file, *locked)
		if err != nil {
			fail(err)
		}
		kind := strings.TrimSuffix(filepath.Base(file), ".txt")
		judge := kinds[kind]
		if judge == nil {
			fail(fmt.Errorf("%s: there are no labels of that kind", file))
		}
		counts := map[string]*tally{}
		for _, l := range labels {
			s, known := surveys[l.tree]
			if !known {
				if s, err = run(*binary, filepath.Join(flag.Arg(0), l.tree)); err != nil {
					fmt.Printf("left out: %s: %v\n", l.tree, err)
				}
				surveys[l.tree] = s
			}
			if s != nil {
				judge(s, l, counts)
			}
		}
		print(kind, counts, *misses)
	}
}

func fail(err error) {
	fmt.Fprintln(os.Stderr, "judgement:", err)
	os.Exit(1)
}

func read(file string, locked bool) (out []label, err error) {
	f, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer func() { _ = f.Close() }()
	part := "open"
	for lines := bufio.NewScanner(f); lines.Scan(); {
		text := strings.TrimSpace(lines.Text())
		switch {
		case text == "# locked", text == "# open":
			part = text[2:]
		case text == "", text[0] == '#', (part == "locked") != locked:
		default:
			w := strings.Split(text, "\t")
			if len(w) < 3 {
				return nil, fmt.Errorf("%s: %q is no label", file, text)
			}
			out = append(out, label{w[0], w[1], strings.Split(w[2], "|")})
		}
	}
	return out, nil
}

func run(binary, tree string) (*survey, error) {
	if _, err := os.Stat(tree); err != nil {
		return nil, err
	}
	text, err := exec.Command(binary, "survey", tree, "--format", "json", "--no-cache").Output()
	if err != nil {
		return nil, err
	}
	s := &survey{}
	return s, json.Unmarshal(text, s)
}

// kinds hold one statement against a survey.
var kinds = map[string]func(*survey, label, map[string]*tally){
	"origin": ofOrigin, "roles": ofRole, "entries": ofEntry, "features": ofFeature, "cut": ofCut, "patterns": ofPattern,
	"purposes": ofPurpose,
}

func count(counts map[string]*tally, name string, ok, told bool, miss string) {
	t := counts[name]
	if t == nil {
		t = &tally{}
		counts[name] = t
	}
	switch {
	case !told:
		t.untold++
		t.misses = append(t.misses, miss)
	case ok:
		t.right++
	default:
		t.wrong++
		t.misses = append(t.misses, miss)
	}
}

// ofOrigin asks whether what is not own is left out, and whether own code is
// kept; which of the others it is counts apart.
func ofOrigin(s *survey, l label, counts map[string]*tally) {
	if l.right[0] == "either" {
		return
	}
	for _, f := range s.Files {
		if f.Path != l.of {
			continue
		}
		miss := fmt.Sprintf("%s %s: %s, told %s", l.tree, l.of, l.right[0], f.Origin)
		if l.right[0] == "own" {
			count(counts, "own code kept", f.Origin == "own", true, miss)
			return
		}
		count(counts, "the rest left out", f.Origin != "own", true, miss)
		count(counts, "of these, called as expected", slices.Contains(l.right, f.Origin), true, miss)
	}
}

func ofRole(s *survey, l label, counts map[string]*tally) {
	for _, f := range s.Files {
		if f.Path != l.of {
			continue
		}
		miss := fmt.Sprintf("%s %s: %s, told %s (%s)", l.tree, l.of, strings.Join(l.right, "|"), f.Role, f.Source)
		ok := slices.Contains(l.right, f.Role)
		count(counts, "roles", ok, f.Role != "", miss)
		if f.Source != "" {
			count(counts, "roles "+f.Source, ok, true, miss)
		}
	}
}

func ofEntry(s *survey, l label, counts map[string]*tally) {
	told := slices.ContainsFunc(s.Entries, func(e struct{ Path string }) bool { return slices.Contains(strings.Split(l.of, "|"), e.Path) })
	if l.right[0] == "yes" {
		count(counts, "entries found", told, true, l.tree+" "+l.of+": missed")
	} else {
		count(counts, "what only looks like one left alone", !told, true, l.tree+" "+l.of+": is none")
	}
}

func ofFeature(s *survey, l label, counts map[string]*tally) {
	told := slices.ContainsFunc(s.Features, func(f struct{ Name string }) bool {
		return slices.Contains(strings.Split(strings.ToLower(l.of), "|"), strings.ToLower(f.Name))
	})
	if l.right[0] == "yes" {
		count(counts, "features found", told, true, l.tree+" "+l.of+": missed")
	} else {
		count(counts, "what is none left alone", !told, true, l.tree+" "+l.of+": is none")
	}
}

func ofCut(s *survey, l label, counts map[string]*tally) {
	miss := fmt.Sprintf("%s: %s, told %q", l.tree, strings.Join(l.right, "|"), s.Cut.Label)
	count(counts, "cut", slices.Contains(l.right, s.Cut.Label), s.Cut.Label != "" || slices.Contains(l.right, ""), miss)
}

func ofPattern(s *survey, l label, counts map[string]*tally) {
	var names []string
	for _, p := range s.Patterns[:min(3, len(s.Patterns))] {
		names = append(names, p.Name)
	}
	first := ""
	if len(names) > 0 {
		first = names[0]
	}
	miss := fmt.Sprintf("%s: %s, told %s", l.tree, strings.Join(l.right, "|"), strings.Join(names, ", "))
	count(counts, "leading pattern", slices.Contains(l.right, first), len(names) > 0 || slices.Contains(l.right, ""), miss)
	among := slices.ContainsFunc(names, func(n string) bool { return slices.Contains(l.right, n) })
	none := len(names) == 0 && slices.Contains(l.right, "")
	count(counts, "one of the first three", among || none, len(names) > 0 || none, miss)
}

// ofPurpose asks whether what is shown as a folder's purpose is its authors'
// statement, and whether such a statement is shown; "-" stands for none.
func ofPurpose(s *survey, l label, counts map[string]*tally) {
	for _, f := range s.Folders {
		if f.Path != l.of {
			continue
		}
		ok := slices.ContainsFunc(l.right, func(words string) bool {
			return words != "-" && strings.Contains(strings.ToLower(f.Purpose), strings.ToLower(words))
		})
		miss := fmt.Sprintf("%s %s: %s, shown %q", l.tree, l.of, strings.Join(l.right, "|"), f.Purpose)
		if f.Purpose != "" {
			count(counts, "shown ones are purposes", ok, true, miss)
		}
		if !slices.Contains(l.right, "-") {
			count(counts, "those authors wrote are shown", ok, f.Purpose != "", miss)
		}
	}
}

func print(kind string, counts map[string]*tally, most int) {
	fmt.Printf("%s\n", kind)
	names := make([]string, 0, len(counts))
	for n := range counts {
		names = append(names, n)
	}
	slices.SortFunc(names, func(a, b string) int { return cmp.Compare(a, b) })
	for _, n := range names {
		t := counts[n]
		all := t.right + t.wrong + t.untold
		fmt.Printf("  %-36s %4d of %4d right, %5.1f %%", n, t.right, all, 100*float64(t.right)/float64(all))
		if t.untold > 0 {
			fmt.Printf("; %d not told", t.untold)
		}
		fmt.Println()
		for _, m := range t.misses[:min(most, len(t.misses))] {
			fmt.Println("      " + m)
		}
	}
}
