// Package history makes figures of what Git tells: how often files changed,
// who changed them, when, and which change together. Renames are followed.
package history

import (
	"bufio"
	"bytes"
	"cmp"
	"errors"
	"io"
	"path"
	"slices"
	"strconv"
	"strings"

	"jantel/core/model"
)

// Wide is the number of files above which a commit says nothing about what
// belongs together: a move, a reformatting, an import of foreign code.
const Wide = 40

// Limits on what is kept of pairs; below them a coincidence is as likely.
const (
	minSupport    = 3
	minConfidence = 0.5
	maxPairs      = 2_000_000 // counted at the most, by then the tree is larger than its commits tell
	keptPairs     = 5_000
)

// mark starts a commit in the log, part stands between its fields; neither can
// stand in a name as git prints it here.
const (
	mark = '\x01'
	part = "\x02"
)

// Format is what git log is asked for: id, parents, time, mail and name.
const Format = "%x01%H%x02%P%x02%at%x02%ae%x02%an"

type commit struct {
	author string // by mail, else by name
	name   string
	at     int64
	merge  bool
	files  []string
}

type reader struct {
	h       *model.History
	now     map[string]string // a former name to today's
	files   map[string]*model.FileHistory
	authors map[string]*model.Author
	pairs   map[[2]string]int
	alone   map[string]int // commits a file was changed in that count for pairs
	folders []int
	encode  func(string) string
	exists  func(string) bool
}

// Read makes a history of the output of
//
//	git log -z --name-status -M --format=Format
//
// newest commit first. encode makes a path of a name as git has it; exists
// tells which files are part of the survey: only they are kept.
func Read(in io.Reader, encode func(name string) string, exists func(path string) bool) (*model.History, error) {
	r := &reader{
		h: &model.History{}, now: map[string]string{}, files: map[string]*model.FileHistory{},
		authors: map[string]*model.Author{}, pairs: map[[2]string]int{}, alone: map[string]int{}, encode: encode,
		exists: exists,
	}
	br := bufio.NewReaderSize(in, 1<<20)
	var c *commit
	field := func() (string, error) {
		b, err := br.ReadBytes(0)
		if err == io.EOF && len(b) > 0 {
			err = nil
		}
		return string(bytes.TrimSuffix(b, []byte{0})), err
	}
	for {
		f, err := field()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, err
		}
		f = strings.TrimLeft(f, "\n")
		switch {
		case f == "":
		case f[0] == mark:
			r.take(c)
			if c = header(f[1:]); c == nil {
				return nil, errors.New("git's log can not be understood")
			}
		case c == nil:
			return nil, errors.New("git's log does not begin with a commit")
		case f[0] == 'R' || f[0] == 'C':
			from, err := field()
			if err != nil {
				return nil, io.ErrUnexpectedEOF
			}
			to, err := field()
			if err != nil {
				return nil, io.ErrUnexpectedEOF
			}
			today := r.today(to)
			c.files = append(c.files, today)
			if f[0] == 'R' {
				r.now[from] = today // what was done under the old name was done to this file
			}
		default:
			p, err := field()
			if err != nil {
				return nil, io.ErrUnexpectedEOF
			}
			c.files = append(c.files, r.today(p))
			if f[0] == 'A' {
				// Whatever bore the name before was another file.
				delete(r.now, p)
			}
		}
	}
	r.take(c)
	return r.finish(), nil
}

func header(text string) *commit {
	f := strings.SplitN(text, part, 5)
	if len(f) != 5 {
		return nil
	}
	at, _ := strconv.ParseInt(f[2], 10, 64)
	c := &commit{
		author: strings.ToLower(strings.ToValidUTF8(f[3], "?")),
		name:   strings.ToValidUTF8(strings.TrimRight(f[4], "\n"), "?"), at: at, merge: strings.Contains(f[1], " "),
	}
	if c.author == "" {
		c.author = c.name
	}
	return c
}

func (r *reader) today(p string) string {
	if t, ok := r.now[p]; ok {
		return t
	}
	return p
}

// take counts a commit whose files are all read.
func (r *reader) take(c *commit) {
	if c == nil {
		return
	}
	h := r.h
	h.Commits++
	if h.Last == 0 || c.at > h.Last {
		h.Last = c.at
	}
	if h.First == 0 || c.at < h.First {
		h.First = c.at
	}
	a := r.authors[c.author]
	if a == nil {
		a = &model.Author{Name: c.name}
		r.authors[c.author] = a
	}
	a.Commits++
	a.Last = max(a.Last, c.at)
	slices.Sort(c.files)
	c.files = slices.Compact(c.files)
	kept := c.files[:0:0]
	for _, p := range c.files {
		if p = r.encode(p); !r.exists(p) {
			continue
		}
		kept = append(kept, p)
		f := r.files[p]
		if f == nil {
			f = &model.FileHistory{Path: p, Authors: map[string]int{}, Last: c.at}
			r.files[p] = f
		}
		f.Changes++
		f.Last, f.First = max(f.Last, c.at), c.at
		f.Authors[c.author]++
	}
	if c.merge || len(c.files) == 0 || len(c.files) > Wide {
		return
	}
	dirs := map[string]bool{}
	for _, p := range c.files {
		dirs[path.Dir(p)] = true
	}
	r.folders = append(r.folders, len(dirs))
	for i, a := range kept {
		r.alone[a]++
		for _, b := range kept[i+1:] {
			if k := [2]string{a, b}; r.pairs[k] > 0 || len(r.pairs) < maxPairs {
				r.pairs[k]++
			}
		}
	}
}

func (r *reader) finish() *model.History {
	h := r.h
	for _, a := range r.authors {
		h.Authors = append(h.Authors, *a)
	}
	slices.SortFunc(h.Authors, func(a, b model.Author) int {
		return cmp.Or(cmp.Compare(b.Commits, a.Commits), cmp.Compare(a.Name, b.Name), cmp.Compare(b.Last, a.Last))
	})
	for _, f := range r.files {
		byName := map[string]int{}
		for key, n := range f.Authors {
			byName[r.authors[key].Name] += n
		}
		f.Authors = byName
		h.Files = append(h.Files, *f)
	}
	slices.SortFunc(h.Files, func(a, b model.FileHistory) int { return cmp.Compare(a.Path, b.Path) })
	if n := len(r.folders); n > 0 {
		slices.Sort(r.folders)
		m := float64(r.folders[n/2])
		if n%2 == 0 {
			m = (m + float64(r.folders[n/2-1])) / 2
		}
		h.MedianFolders = &m
	}
	for k, n := range r.pairs {
		least := min(r.alone[k[0]], r.alone[k[1]])
		if conf := float64(n) / float64(least); n >= minSupport && conf >= minConfidence {
			h.Pairs = append(h.Pairs, model.Pair{A: k[0], B: k[1], Together: n, Confidence: float64(int(conf*10000+0.5)) / 10000})
		}
	}
	slices.SortFunc(h.Pairs, func(a, b model.Pair) int {
		return cmp.Or(
			cmp.Compare(b.Together, a.Together), cmp.Compare(b.Confidence, a.Confidence), cmp.Compare(a.A, b.A),
			cmp.Compare(a.B, b.B),
		)
	})
	if len(h.Pairs) > keptPairs {
		h.Pairs = h.Pairs[:keptPairs]
	}
	return h
}
