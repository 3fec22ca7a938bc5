package server

import (
	"context"
	"encoding/json"
	"net/http"
	"runtime"
	"sort"
	"strconv"
	"strings"
	"sync"
	"time"

	"jantel/core/find"
	"jantel/core/model"
	"jantel/store"

	"github.com/go-chi/chi/v5"
)

// findPlaces ranks folders, files and definitions by how well a query fits.
func findPlaces(o *judged, q string, most int) []PlaceHit {
	m := find.NewMatcher(q)
	hits := []PlaceHit{}
	add := func(h PlaceHit, score int) {
		if score > 0 {
			h.score = score
			hits = append(hits, h)
		}
	}
	for _, d := range o.Folders {
		if d.Path != "." {
			add(PlaceHit{Path: d.Path, Kind: "folder", Name: d.Name}, m.Path(d.Path))
		}
	}
	for _, f := range o.facts.Files {
		add(PlaceHit{Path: f.Path, Kind: "file", Name: f.Path[strings.LastIndexByte(f.Path, '/')+1:]}, m.Path(f.Path))
		if f.Facts == nil || f.Skipped != "" {
			continue
		}
		for i := range f.Facts.Definitions {
			d := &f.Facts.Definitions[i]
			if sc := m.Name(d.Name); sc > 0 {
				add(PlaceHit{Path: f.Path, Kind: string(d.Kind), Name: d.Name, Definition: d.Qualified(), Line: d.Line}, sc)
			}
		}
	}
	sort.SliceStable(hits, func(i, j int) bool {
		if hits[i].score != hits[j].score {
			return hits[i].score > hits[j].score
		}
		if len(hits[i].Path) != len(hits[j].Path) {
			return len(hits[i].Path) < len(hits[j].Path)
		}
		return hits[i].Path < hits[j].Path
	})
	return hits[:min(most, len(hits))]
}

// corpus keeps the unpacked texts of the survey that was searched last.
type corpus struct {
	mu     sync.Mutex
	survey int64
	texts  map[string][]byte
	size   int
}

// maxCorpus bounds what is kept unpacked between searches.
const maxCorpus = 512 << 20

// SearchLine is one line of a search's answer, which is sent as they come in.
type SearchLine struct {
	Path string     `json:"path,omitempty"`
	Sort string     `json:"sort,omitempty"` // own, tests, or others for what nobody here wrote
	Hits []find.Hit `json:"hits,omitempty"`
	// Cut says that the file holds more hits than are told.
	Cut  bool `json:"cut,omitempty"`
	Done bool `json:"done,omitempty"`
	// Files is how many files hold a hit, Hits how many hits were found in
	// all; More says that the search stopped at its limit.
	Files   int    `json:"files,omitempty"`
	Total   int    `json:"total,omitempty"`
	Read    int    `json:"read,omitempty"`
	More    bool   `json:"more,omitempty"`
	Problem string `json:"problem,omitempty"`
}

const (
	maxHits     = 2000
	perFile     = 50
	maxDuration = 20 * time.Second
)

// search streams the hits of a text or a regular expression, one file a line,
// as JSON lines.
func (s *Server) search(w http.ResponseWriter, r *http.Request) {
	id, _ := strconv.ParseInt(chi.URLParam(r, "id"), 10, 64)
	q := r.URL.Query()
	survey, _ := strconv.ParseInt(q.Get("survey"), 10, 64)
	o, err := s.shelf.survey(r.Context(), id, survey)
	if err != nil {
		problem(w, http.StatusNotFound, err.Error())
		return
	}
	p, err := find.NewPattern(q.Get("q"), q.Get("regex") == "1", q.Get("case") == "1")
	if err != nil {
		problem(w, http.StatusUnprocessableEntity, err.Error())
		return
	}
	at := q.Get("at")
	if at == "" {
		at = "."
	}
	ctx, cancel := context.WithTimeout(r.Context(), maxDuration)
	defer cancel()
	w.Header().Set("Content-Type", "application/x-ndjson")
	rc := http.NewResponseController(w)
	enc := json.NewEncoder(w)
	var mu sync.Mutex
	end := SearchLine{Done: true}
	last := time.Time{}
	send := func(path, sort string, hits []find.Hit) bool {
		all := len(hits)
		hits = hits[:min(all, perFile)]
		mu.Lock()
		defer mu.Unlock()
		if end.Total >= maxHits {
			end.More = true
			cancel()
			return false
		}
		end.Files++
		end.Total += len(hits)
		if enc.Encode(SearchLine{Path: path, Sort: sort, Hits: hits, Cut: all > perFile}) != nil {
			cancel()
			return false
		}
		if time.Since(last) > 30*time.Millisecond {
			last = time.Now()
			_ = rc.Flush()
		}
		return true
	}
	read, err := s.texts.each(ctx, s.facts, o, at, func(f *model.File, text []byte) bool {
		if hits := p.In(text, perFile+1); len(hits) > 0 {
			return send(f.Path, o.sortOf(f.Path), hits)
		}
		return true
	})
	mu.Lock()
	defer mu.Unlock()
	end.Read = read
	if err != nil && r.Context().Err() == nil && !end.More {
		end.Problem = "the search took longer than is allowed; what was found so far is shown"
		if ctx.Err() == nil {
			end.Problem = err.Error()
		}
	}
	_ = enc.Encode(end)
}

// sortOf is the sort a file is searched in.
func (o *judged) sortOf(path string) string {
	switch {
	case !o.InScope[path]:
		return "others"
	case o.Roles[path].Role == model.RoleTest:
		return "tests"
	}
	return "own"
}

// searched are the text files in the order they are searched: what people here
// write and change first, then tests, then what nobody here wrote.
func (o *judged) searched() []*model.File {
	return cached(o, "searched", func() []*model.File {
		var out, tests, others []*model.File
		for _, f := range o.facts.Files {
			if f.Hash == "" || f.Skipped == model.SkippedBinary {
				continue
			}
			switch o.sortOf(f.Path) {
			case "own":
				out = append(out, f)
			case "tests":
				tests = append(tests, f)
			default:
				others = append(others, f)
			}
		}
		return append(append(out, tests...), others...)
	})
}

// each calls fn with the text of every text file below a place, on all cores,
// begun in the order they are searched.
func (c *corpus) each(ctx context.Context, facts *store.Facts, o *judged, at string, fn func(*model.File, []byte) bool) (int, error) {
	files := o.searched()
	c.mu.Lock()
	if c.survey != o.survey {
		c.survey, c.texts, c.size = o.survey, map[string][]byte{}, 0
	}
	have := c.texts
	var ready, missing []*model.File
	for _, f := range files {
		if !model.Within(at, f.Path) {
			continue
		}
		if have[f.Hash] != nil {
			ready = append(ready, f)
		} else {
			missing = append(missing, f)
		}
	}
	texts := make([][]byte, len(ready))
	for i, f := range ready {
		texts[i] = have[f.Hash]
	}
	c.mu.Unlock()
	type work struct {
		f      *model.File
		text   []byte
		packed []byte
	}
	jobs := make(chan work, 64)
	var wg sync.WaitGroup
	var mu sync.Mutex
	n := 0
	for range runtime.GOMAXPROCS(0) {
		wg.Go(func() {
			for j := range jobs {
				if ctx.Err() != nil {
					continue
				}
				if j.text == nil {
					t, err := store.Unpack(j.packed)
					if err != nil {
						continue
					}
					j.text = t
					c.keep(o.survey, j.f.Hash, t)
				}
				mu.Lock()
				n++
				mu.Unlock()
				fn(j.f, j.text)
			}
		})
	}
	err := func() error {
		for i, f := range ready {
			select {
			case jobs <- work{f: f, text: texts[i]}:
			case <-ctx.Done():
				return ctx.Err()
			}
		}
		byHash := map[string][]*model.File{}
		var hashes []string
		for _, f := range missing {
			if byHash[f.Hash] == nil {
				hashes = append(hashes, f.Hash)
			}
			byHash[f.Hash] = append(byHash[f.Hash], f)
		}
		const batch = 500
		for i := 0; i < len(hashes); i += batch {
			err := facts.Texts(ctx, hashes[i:min(i+batch, len(hashes))], func(h string, packed []byte) error {
				for _, f := range byHash[h] {
					select {
					case jobs <- work{f: f, packed: packed}:
					case <-ctx.Done():
						return ctx.Err()
					}
				}
				return nil
			})
			if err != nil {
				return err
			}
		}
		return nil
	}()
	close(jobs)
	wg.Wait()
	return n, err
}

func (c *corpus) keep(survey int64, hash string, text []byte) {
	c.mu.Lock()
	defer c.mu.Unlock()
	if c.survey == survey && c.size+len(text) <= maxCorpus && c.texts[hash] == nil {
		c.texts[hash] = text
		c.size += len(text)
	}
}
