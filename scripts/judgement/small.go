package main

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/source"
	surveys "jantel/core/survey"
	_ "jantel/core/syntax/languages"
	"jantel/report"

	"golang.org/x/tools/txtar"
)

// statements are the words a line of a small tree's head may begin with, and
// the kind of label it is.
var statements = []struct{ words, kind, right string }{
	{"no entry ", "entries", "no"}, {"entry ", "entries", "yes"},
	{"no feature ", "features", "no"}, {"feature ", "features", "yes"},
	{"origin ", "origin", ""}, {"role ", "roles", ""}, {"purpose ", "purposes", ""},
	{"cut ", "cut", ""}, {"pattern ", "patterns", ""},
}

// statement reads a line of the head of a small tree: what it is of comes
// first, what is right behind it; of an entry or a feature any of several names
// will do.
func statement(tree, line string) (kind string, l label, ok bool) {
	for _, s := range statements {
		rest, found := strings.CutPrefix(line, s.words)
		if !found {
			continue
		}
		switch s.kind {
		case "entries", "features":
			return s.kind, label{tree, rest, []string{s.right}}, true
		case "cut", "patterns":
			return s.kind, label{tree, ".", strings.Split(rest, "|")}, true
		}
		// The right answer of a role may be two words, a path is one.
		of, right, _ := strings.Cut(rest, " ")
		return s.kind, label{tree, of, strings.Split(right, "|")}, true
	}
	return "", label{}, false
}

// small holds the made-up trees in a folder against what stands in their heads,
// and prints what came of it.
func small(folder string, locked bool, misses int) error {
	counts, trees, err := smallTrees(folder, locked)
	if err != nil {
		return err
	}
	fmt.Printf("%d small trees\n", trees)
	for _, kind := range []string{"origin", "roles", "entries", "features", "purposes", "cut", "patterns"} {
		print(kind, counts[kind], misses)
	}
	return nil
}

// smallTrees asks all open trees, or all locked ones: kind of label, what is
// counted, how it came out.
func smallTrees(folder string, locked bool) (counts map[string]map[string]*tally, trees int, err error) {
	list, err := os.ReadFile(filepath.Join(folder, "locked.txt"))
	if err != nil {
		return nil, 0, err
	}
	files, err := filepath.Glob(filepath.Join(folder, "*.txtar"))
	if err != nil {
		return nil, 0, err
	}
	counts = map[string]map[string]*tally{}
	for _, file := range files {
		name := strings.TrimSuffix(filepath.Base(file), ".txtar")
		if slices.Contains(strings.Fields(string(list)), name) != locked {
			continue
		}
		trees++
		if err := smallTree(file, name, counts); err != nil {
			return nil, 0, fmt.Errorf("%s: %w", file, err)
		}
	}
	return counts, trees, nil
}

// here surveys a folder without the program.
func here(folder string) (*survey, error) {
	root, err := source.Open(context.Background(), source.Request{Path: folder})
	if err != nil {
		return nil, err
	}
	defer func() { _ = root.Close() }()
	read, err := surveys.Run(context.Background(), root, surveys.Options{Name: filepath.Base(folder)})
	if err != nil {
		return nil, err
	}
	var text bytes.Buffer
	if err := report.JSON(&text, read, judgement.Judge(read, model.Brief{}, nil), report.Extras{}); err != nil {
		return nil, err
	}
	out := &survey{}
	return out, json.Unmarshal(text.Bytes(), out)
}

func smallTree(file, name string, counts map[string]map[string]*tally) error {
	a, err := txtar.ParseFile(file)
	if err != nil {
		return err
	}
	dir, err := os.MkdirTemp("", "jantel-small-")
	if err != nil {
		return err
	}
	defer func() { _ = os.RemoveAll(dir) }()
	for _, f := range a.Files {
		at := filepath.Join(dir, name, filepath.FromSlash(f.Name))
		if err := os.MkdirAll(filepath.Dir(at), 0o700); err != nil {
			return err
		}
		if err := os.WriteFile(at, f.Data, 0o600); err != nil {
			return err
		}
	}
	s, err := here(filepath.Join(dir, name))
	if err != nil {
		return err
	}
	for line := range strings.Lines(string(a.Comment)) {
		kind, l, ok := statement(name, strings.TrimSpace(line))
		if !ok {
			continue
		}
		if counts[kind] == nil {
			counts[kind] = map[string]*tally{}
		}
		kinds[kind](s, l, counts[kind])
	}
	return nil
}
