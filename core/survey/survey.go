// Package survey reads a whole codebase into facts: it lists a source, reads
// what changed since the last time, and links the files. It judges nothing.
package survey

import (
	"context"
	"encoding/hex"
	"errors"
	"fmt"
	"maps"
	"path"
	"slices"
	"sort"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"time"

	"jantel/core/history"
	"jantel/core/model"
	"jantel/core/parallel"
	"jantel/core/relations"
	"jantel/core/source"
	"jantel/core/syntax"
	"jantel/core/twins"

	"golang.org/x/crypto/blake2b"
)

// Progress tells how far a survey is. Total is 0 while it is unknown.
type Progress struct {
	Step  string `json:"step"`
	Done  int    `json:"done"`
	Total int    `json:"total"`
	Lines int    `json:"lines"`
	Links int    `json:"links"`
}

// Stamped is what was known of a file when it was last read.
type Stamped struct {
	Stamp source.Stamp `cbor:"1,keyasint"`
	Hash  string       `cbor:"2,keyasint"`
}

// Cache keeps facts by content, so that nothing is read twice. A cache may
// forget anything at any time; errors only make it forget.
type Cache interface {
	// Stamps returns what is known of a source, by blob id or path.
	Stamps(ctx context.Context, source string) map[string]Stamped
	// SaveStamps replaces what is known of a source.
	SaveStamps(ctx context.Context, source string, stamps map[string]Stamped) error
	// Facts returns the facts that are known among the keys.
	Facts(ctx context.Context, keys []string) map[string]*model.Facts
	// SaveFacts adds facts.
	SaveFacts(ctx context.Context, facts map[string]*model.Facts) error
}

// Options are what a survey needs besides its source.
type Options struct {
	Name     string // of the codebase
	Root     string // name of the root folder, where it has one
	Key      string // identifies the source in the cache
	Cache    Cache  // nil reads everything
	Progress func(Progress)
	// Listed is told how many bytes of source there are, before any is read;
	// nil is not told.
	Listed func(source int64)
	// Keep is handed every text that was read, from several goroutines; nil
	// keeps none.
	Keep func(hash string, text []byte) error
	// HasText reports whether the text of that content is kept already; a file
	// whose text is not is read even when its facts are known.
	HasText func(hash string) bool
	// Ours reports whether the lead says that a file is judged, whoever its place and
	// its text say wrote it; nil where nothing was said.
	Ours func(path string) bool
	Now  func() time.Time
}

// factKey is the key under which the facts of a content are kept: they change
// only when the content, its place or the reader does.
func factKey(hash string, l *syntax.Language, p place) string {
	if l == nil {
		return hash + ":plain:" + strconv.Itoa(plainVersion)
	}
	return hash + ":" + l.Name + ":" + strconv.Itoa(l.Version) + "." + strconv.Itoa(syntax.SharedVersion) + string(p)
}

// plainVersion is raised when what is told of files without a reader changes.
const plainVersion = 1

// Run surveys a source.
func Run(ctx context.Context, src source.Source, o Options) (*model.Survey, error) {
	if o.Now == nil {
		o.Now = time.Now
	}
	started := o.Now()
	r := &run{o: o, src: src, timings: map[string]float64{}, started: started}
	s := &model.Survey{Codebase: o.Name, Origin: src.Origin(), SurveyedAt: started.UTC().Truncate(time.Second), Timings: r.timings}

	r.report(Progress{Step: "listing"})
	t := time.Now()
	known := r.remember(ctx)
	listing, err := src.List(ctx)
	if err != nil {
		known() // the cache may be closed as soon as this returns
		return nil, err
	}
	s.Notes = listing.Notes
	if o.Listed != nil {
		var bytes int64
		for _, e := range listing.Entries {
			if syntax.ForFile(e.Path, nil) != nil {
				bytes += e.Size
			}
		}
		o.Listed(bytes)
	}
	r.took("list", &t)

	defer r.keeping.Wait()
	if s.Files, err = r.read(ctx, listing.Entries, known); err != nil {
		return nil, err
	}
	r.took("read", &t)

	r.report(Progress{Step: "linking", Done: len(s.Files), Total: len(s.Files), Lines: int(r.lines.Load())})
	var twin sync.WaitGroup
	twin.Go(func() { r.try("near twins", func() { s.Twins = twins.Of(s.Files) }) })
	tree := syntax.NewTree(s.Files, o.Root)
	s.Links, s.External, s.Unresolved = tree.Resolve()
	s.BuildIndex()
	r.notes = append(append(r.notes, tree.Notes()...), relations.Add(s, tree)...)
	twin.Wait()
	r.took("link", &t)
	if h, ok := src.(source.Historian); ok {
		r.try("the history", func() { s.History, err = r.history(ctx, h, s) })
		if err != nil {
			s.Notes = append(s.Notes, model.Note{Path: ".", Text: "the history could not be read: " + err.Error()})
		} else if s.History != nil && s.History.Cut != "" {
			s.Notes = append(s.Notes, model.Note{Path: ".", Text: s.History.Cut})
		}
		r.took("history", &t)
	}
	r.keeping.Wait()
	r.took("keep", &t)
	s.Notes = append(s.Notes, r.notes...)
	sort.SliceStable(s.Notes, func(i, j int) bool { return s.Notes[i].Path < s.Notes[j].Path })
	r.report(Progress{Step: "linked", Done: len(s.Files), Total: len(s.Files), Lines: int(r.lines.Load()), Links: len(s.Links)})
	return s, ctx.Err()
}

func (r *run) history(ctx context.Context, src source.Historian, s *model.Survey) (*model.History, error) {
	log, cut, err := src.History(ctx)
	if err != nil || log == nil {
		return nil, err
	}
	r.report(Progress{Step: "history", Done: len(s.Files), Total: len(s.Files), Lines: int(r.lines.Load()), Links: len(s.Links)})
	h, err := history.Read(log, source.EncodeName, func(p string) bool { return s.File(p) != nil })
	if err = errors.Join(err, log.Close()); err != nil {
		return nil, err
	}
	if h.Commits < 2 {
		if cut != "" {
			r.note(".", cut)
		}
		return nil, nil // one commit is no history: it tells nothing of change
	}
	if h.Cut = cut; h.Commits >= source.MaxCommits {
		h.Cut = "only the newest " + strconv.Itoa(source.MaxCommits) + " commits were read"
	}
	return h, nil
}

type run struct {
	o       Options
	src     source.Source
	timings map[string]float64
	started time.Time
	lines   atomic.Int64
	done    atomic.Int64
	mu      sync.Mutex
	notes   []model.Note
	last    atomic.Int64
	places  places
	keeping sync.WaitGroup // of what is written to the cache while files are linked
}

// memory is what the cache knew of a source before it was listed.
type memory struct {
	stamps map[string]Stamped
	facts  map[string]*model.Facts
}

// remember asks the cache for what it knows of the source while the source is
// still being listed: most of it will not have changed. Of a Git revision only
// the stamps can be asked for, since blobs have no names yet.
func (r *run) remember(ctx context.Context) func() memory {
	if r.o.Cache == nil {
		return func() memory { return memory{stamps: map[string]Stamped{}} }
	}
	var m memory
	done := make(chan struct{})
	go func() {
		defer close(done)
		m.stamps = r.o.Cache.Stamps(ctx, r.o.Key)
		var keys []string
		at := placesOf(slices.Collect(maps.Keys(m.stamps)), r.o.Ours)
		for p, st := range m.stamps {
			if st.Stamp.Blob == "" {
				keys = append(keys, factKey(st.Hash, syntax.ForFile(p, nil), at.of(p)))
			}
		}
		if len(keys) > 0 {
			sort.Strings(keys) // as the cache has them
			m.facts = r.o.Cache.Facts(ctx, keys)
		}
	}()
	return func() memory {
		<-done
		return m
	}
}

// try tells one thing of the whole; when it breaks that is noted, and the rest
// of the survey is there all the same.
func (r *run) try(what string, fn func()) {
	if broken := parallel.Try(fn); broken != nil {
		r.note(".", what+" could not be told: "+broken.Error())
	}
}

func (r *run) report(p Progress) {
	if r.o.Progress != nil {
		r.o.Progress(p)
	}
}

func (r *run) took(step string, since *time.Time) {
	now := time.Now()
	r.timings[step] = float64(now.Sub(*since).Milliseconds()) / 1000
	*since = now
}

func stampKey(e source.Entry) string {
	if e.Stamp.Blob != "" {
		return e.Stamp.Blob
	}
	return e.Path
}

// read turns entries into files, reading only what the cache does not know.
func (r *run) read(ctx context.Context, entries []source.Entry, remembered func() memory) ([]*model.File, error) {
	files := make([]*model.File, len(entries))
	at := make(map[string]int, len(entries))
	r.places = placesOf(pathsOf(entries), r.o.Ours)
	m := remembered()
	stamps := m.stamps
	var unread []source.Entry
	known := map[string][]int{}
	for i, e := range entries {
		files[i] = &model.File{Path: e.Path, Bytes: e.Size}
		at[e.Path] = i
		st, ok := stamps[stampKey(e)]
		if !ok || e.Stamp.Zero() || st.Stamp != e.Stamp || r.o.HasText != nil && !r.o.HasText(st.Hash) {
			unread = append(unread, e)
			continue
		}
		files[i].Hash = st.Hash
		// Only the name can be asked for its language here; a file known by
		// its first line is read again, which costs little.
		if l := syntax.ForFile(e.Path, nil); l != nil || path.Ext(e.Path) != "" {
			k := factKey(st.Hash, l, r.places.of(e.Path))
			known[k] = append(known[k], i)
		} else {
			unread = append(unread, e)
		}
	}
	if len(known) > 0 {
		keys := make([]string, 0, len(known))
		var ask []string
		for k := range known {
			keys = append(keys, k)
			if m.facts[k] == nil {
				ask = append(ask, k)
			}
		}
		sort.Strings(keys)
		var found map[string]*model.Facts
		if len(ask) > 0 {
			sort.Strings(ask)
			found = r.o.Cache.Facts(ctx, ask)
		}
		for _, k := range keys {
			for _, i := range known[k] {
				f := m.facts[k]
				if f == nil {
					f = found[k]
				}
				if f == nil {
					unread = append(unread, entries[i])
					continue
				}
				files[i].Facts, files[i].Key = f, k
				r.complete(files[i], syntax.ForFile(files[i].Path, nil))
				r.lines.Add(int64(f.Lines))
				r.done.Add(1)
			}
		}
		sort.Slice(unread, func(i, j int) bool { return unread[i].Path < unread[j].Path })
	}
	total := len(entries)
	r.report(Progress{Step: "reading", Done: int(r.done.Load()), Total: total, Lines: int(r.lines.Load())})
	fresh := map[string]*model.Facts{}
	err := r.src.Read(ctx, unread, func(e source.Entry, data []byte, err error) error {
		i := at[e.Path]
		f := files[i]
		if err != nil {
			r.unreadable(f, err)
			return nil
		}
		f.Bytes = int64(len(data))
		sum := blake2b.Sum256(data)
		f.Hash = hex.EncodeToString(sum[:])
		lang := syntax.ForFile(e.Path, data)
		from := r.places.of(e.Path)
		facts := read(lang, data, from)
		f.Facts, f.Key = facts, factKey(f.Hash, lang, from)
		r.complete(f, lang)
		if r.o.Keep != nil && facts.Skipped != model.SkippedBinary {
			if err := r.o.Keep(f.Hash, data); err != nil {
				return fmt.Errorf("the text of %s can not be kept: %w", e.Path, err)
			}
		}
		r.mu.Lock()
		fresh[f.Key] = facts
		r.mu.Unlock()
		lines, done := r.lines.Add(int64(facts.Lines)), r.done.Add(1)
		// A report every tenth of a second is plenty.
		if now, last := time.Now().UnixMilli(), r.last.Load(); now-last > 100 && r.last.CompareAndSwap(last, now) {
			r.report(Progress{Step: "reading", Done: int(done), Total: total, Lines: int(lines)})
		}
		return nil
	})
	if err != nil {
		return nil, err
	}
	if r.o.Cache != nil && (len(fresh) > 0 || len(stamps) == 0) {
		r.keeping.Go(func() { r.save(ctx, entries, files, fresh) })
	}
	return files, ctx.Err()
}

func (r *run) save(ctx context.Context, entries []source.Entry, files []*model.File, fresh map[string]*model.Facts) {
	next := make(map[string]Stamped, len(entries))
	for i, e := range entries {
		// A file that changed within the clock's grain could change again
		// without its stamp showing it: such a stamp is not trusted.
		racy := e.Stamp.Blob == "" && max(e.Stamp.MTime, e.Stamp.CTime) > r.started.Add(-2*time.Second).UnixNano()
		if files[i].Hash != "" && !e.Stamp.Zero() && !racy {
			next[stampKey(e)] = Stamped{Stamp: e.Stamp, Hash: files[i].Hash}
		}
	}
	if err := r.o.Cache.SaveFacts(ctx, fresh); err != nil {
		r.note(".", "the facts could not be kept, so the next survey reads everything again: "+err.Error())
		return
	}
	if err := r.o.Cache.SaveStamps(ctx, r.o.Key, next); err != nil {
		r.note(".", "the file stamps could not be kept, so the next survey reads everything again: "+err.Error())
	}
}

func (r *run) note(p, text string) {
	r.mu.Lock()
	r.notes = append(r.notes, model.Note{Path: p, Text: text})
	r.mu.Unlock()
}

func (r *run) unreadable(f *model.File, err error) {
	r.done.Add(1)
	f.Language = languageName(f.Path, nil, nil)
	if source.IsTooLarge(err) {
		f.Skipped = model.SkippedTooLarge
		r.note(f.Path, "larger than what is read of one file, so it was counted but not read")
		return
	}
	r.note(f.Path, "could not be read: "+err.Error())
}

// complete fills in what a file's path tells.
func (r *run) complete(f *model.File, l *syntax.Language) {
	f.Language = languageName(f.Path, l, f.Facts)
	f.Skipped = f.Facts.Skipped
	switch {
	case inside(f.Path, r.places.vendored):
		f.Skipped = model.SkippedVendored
	case f.Skipped == "" && (generatedName(f.Path) || f.Facts.Hint(model.HintGenerated) != nil):
		f.Skipped = model.SkippedGenerated
	}
}

// languageNames puts some of the library's names in the words used here.
func languageName(p string, l *syntax.Language, facts *model.Facts) string {
	if l != nil {
		return l.Name
	}
	if facts != nil && facts.Skipped == model.SkippedBinary {
		return ""
	}
	if name := commonName(p); name != "" {
		return name
	}
	return syntax.RunBy(p, facts)
}

// Read returns the facts of one text in the given language; nil counts lines
// only.
func Read(l *syntax.Language, data []byte) *model.Facts { return read(l, data, unsaid) }

func read(l *syntax.Language, data []byte, at place) (facts *model.Facts) {
	text, isText := syntax.Decode(data)
	if !isText {
		return &model.Facts{Skipped: model.SkippedBinary}
	}
	lines := syntax.CountLines(text)
	if syntax.LooksMinified(text, lines) {
		// Reading squeezed code tells nothing: only its lines are counted.
		facts = &model.Facts{Skipped: model.SkippedMinified, Hints: syntax.Hints(text)}
		syntax.CountPlain(facts, text)
		return facts
	}
	hints := syntax.Hints(text)
	plain := func() *model.Facts {
		f := &model.Facts{}
		syntax.CountPlain(f, text)
		return f
	}
	if l == nil || l.Read == nil {
		facts = plain()
	} else if broken := parallel.Try(func() { facts = l.Read(syntax.How{Language: l.Name, By: at.by(hints)}, text) }); broken != nil {
		// What a text makes of a reader must cost no more than that text.
		facts = plain()
		facts.Read, facts.Problem = model.ReadPartial, "its reader could not go on: "+broken.Error()
		if slow, ok := broken.Value.(syntax.TooMuch); ok {
			facts.Problem = slow.Error()
		}
	}
	// A module without a name is none, whatever kind of file asks for it.
	facts.Imports = slices.DeleteFunc(facts.Imports, func(im model.Import) bool { return im.Text == "" })
	facts.Hints = append(hints, facts.Hints...)
	return facts
}

var generatedNames = map[string]bool{
	"package-lock.json": true, "npm-shrinkwrap.json": true, "yarn.lock": true, "pnpm-lock.yaml": true,
	"go.sum": true, "go.work.sum": true, "composer.lock": true, "Gemfile.lock": true, "Cargo.lock": true,
	"poetry.lock": true, "uv.lock": true, "Pipfile.lock": true, "packages.lock.json": true, "bun.lock": true,
	"deno.lock": true,
}

func generatedName(p string) bool {
	b := path.Base(p)
	return generatedNames[b] || strings.HasSuffix(b, ".pb.go") || strings.HasSuffix(b, "_pb2.py") ||
		strings.HasSuffix(b, ".designer.cs") || strings.HasSuffix(b, ".g.dart") || strings.HasSuffix(b, ".map")
}
