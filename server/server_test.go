package server_test

import (
	"archive/zip"
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"jantel/core/testkit"
	"jantel/review"
	"jantel/server"
	"jantel/server/worker"

	"github.com/stretchr/testify/require"
)

// The test binary is started again as a server that can be killed.
func TestMain(m *testing.M) {
	if worker.IsWorker() {
		os.Exit(worker.Main())
	}
	if dir := os.Getenv("JANTEL_TEST_SERVER"); dir != "" {
		s, err := server.New(context.Background(), server.Config{Addr: "127.0.0.1:0", Data: dir, Allow: []string{os.Getenv("JANTEL_TEST_ALLOW")}})
		if err != nil {
			fmt.Println(err)
			os.Exit(1)
		}
		fmt.Println(s.URL())
		_ = s.Serve(context.Background())
		os.Exit(0)
	}
	os.Exit(m.Run())
}

const tree = `
-- README.md --
# Vault

Keeps seed.
-- go.mod --
module vault
-- main.go --
package main

import "vault/lots"

func main() { lots.Weigh() }
-- lots/lots.go --
package lots

// Weigh weighs.
func Weigh() {
	println("seed")
}
-- lots/utils/a.go --
package utils
-- lots/utils/b.go --
package utils
-- lots/utils/c.go --
package utils
-- lots/utils/d.go --
package utils
`

type page struct {
	t      *testing.T
	base   string
	client *http.Client
	srv    *server.Server
}

// start starts a server on real files and signs a browser in.
func start(t *testing.T, allow ...string) *page { return startIn(t, t.TempDir(), allow...) }

// startIn is start with a data folder of its own.
func startIn(t *testing.T, data string, allow ...string) *page {
	t.Helper()
	ctx, cancel := context.WithCancel(context.Background())
	s, err := server.New(ctx, server.Config{Addr: "127.0.0.1:0", Data: data, Allow: allow})
	require.NoError(t, err)
	done := make(chan error, 1)
	go func() { done <- s.Serve(ctx) }()
	t.Cleanup(func() {
		cancel()
		require.NoError(t, <-done)
	})
	return signIn(t, s.URL(), s)
}

type jar map[string]*http.Cookie

func signIn(t *testing.T, url string, s *server.Server) *page {
	t.Helper()
	cookies := jar{}
	p := &page{t: t, base: url[:strings.Index(url, "/start")], srv: s}
	p.client = &http.Client{Transport: carry{cookies}, CheckRedirect: func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }}
	r, err := p.client.Get(url)
	require.NoError(t, err)
	require.NoError(t, r.Body.Close())
	require.Equal(t, http.StatusSeeOther, r.StatusCode)
	require.Len(t, r.Cookies(), 1)
	c := r.Cookies()[0]
	require.True(t, c.HttpOnly)
	require.Equal(t, http.SameSiteStrictMode, c.SameSite)
	cookies["it"] = c
	return p
}

// carry sends the session's cookie with every request.
type carry struct{ cookies jar }

func (c carry) RoundTrip(r *http.Request) (*http.Response, error) {
	for _, k := range c.cookies {
		r.AddCookie(k)
	}
	return http.DefaultTransport.RoundTrip(r)
}

func (p *page) send(method, path string, body any, head ...string) (*http.Response, []byte) {
	p.t.Helper()
	var in []byte
	if body != nil {
		b, err := json.Marshal(body)
		require.NoError(p.t, err)
		in = b
	}
	return p.raw(method, path, "application/json", in, head...)
}

// raw sends bytes as they are.
func (p *page) raw(method, path, kind string, sent []byte, head ...string) (*http.Response, []byte) {
	p.t.Helper()
	var in io.Reader
	if sent != nil {
		in = bytes.NewReader(sent)
	}
	req, err := http.NewRequest(method, p.base+path, in)
	require.NoError(p.t, err)
	if method != http.MethodGet {
		req.Header.Set("Origin", p.base)
		req.Header.Set("Content-Type", kind)
	}
	for i := 0; i+1 < len(head); i += 2 {
		req.Header.Set(head[i], head[i+1])
		if head[i] == "Host" {
			req.Host = head[i+1]
		}
		if head[i+1] == "" {
			req.Header.Del(head[i])
		}
	}
	r, err := p.client.Do(req)
	require.NoError(p.t, err)
	out, err := io.ReadAll(r.Body)
	require.NoError(p.t, err)
	require.NoError(p.t, r.Body.Close())
	return r, out
}

// get reads an answer into v and requires that there is one.
func (p *page) get(path string, v any) *http.Response {
	p.t.Helper()
	r, b := p.send(http.MethodGet, path, nil)
	require.Equal(p.t, http.StatusOK, r.StatusCode, string(b))
	require.NoError(p.t, json.Unmarshal(b, v), string(b))
	return r
}

func (p *page) do(method, path string, body, v any, head ...string) {
	p.t.Helper()
	r, b := p.send(method, path, body, head...)
	require.Less(p.t, r.StatusCode, 300, string(b))
	if v != nil {
		require.NoError(p.t, json.Unmarshal(b, v), string(b))
	}
}

// events waits for the named event whose data fits.
func (p *page) events(fits func(name string, data map[string]any) bool, act func()) {
	p.t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), 30*time.Second)
	defer cancel()
	req, err := http.NewRequestWithContext(ctx, http.MethodGet, p.base+"/api/events", nil)
	require.NoError(p.t, err)
	r, err := p.client.Do(req)
	require.NoError(p.t, err)
	defer func() { _ = r.Body.Close() }()
	require.Equal(p.t, "text/event-stream", r.Header.Get("Content-Type"))
	sc := bufio.NewScanner(r.Body)
	sc.Scan() // the greeting: from here on nothing is missed
	act()
	name := ""
	for sc.Scan() {
		if n, ok := strings.CutPrefix(sc.Text(), "event: "); ok {
			name = n
		}
		if d, ok := strings.CutPrefix(sc.Text(), "data: "); ok {
			var v map[string]any
			require.NoError(p.t, json.Unmarshal([]byte(d), &v))
			if fits(name, v) {
				return
			}
		}
	}
	require.FailNow(p.t, "the event did not come")
}

// takeIn adds a codebase and waits until it is surveyed.
func (p *page) takeIn(path string) int64 {
	p.t.Helper()
	var c server.CodebaseStatus
	p.events(func(name string, d map[string]any) bool {
		if name == "survey" && d["state"] != "running" {
			require.Equal(p.t, "finished", d["state"], d["problem"])
			return true
		}
		return false
	}, func() { p.do(http.MethodPost, "/api/codebases", server.NewCodebase{Path: path}, &c) })
	return c.ID
}

func TestOnlyLoopbackIsListenedOn(t *testing.T) {
	for _, addr := range []string{"0.0.0.0:0", "192.0.2.1:0", ":7420", "example.org:80", "nonsense"} {
		_, err := server.New(context.Background(), server.Config{Addr: addr, Data: t.TempDir()})
		require.Error(t, err, addr)
	}
}

func TestWithoutTheTokenNobodyIsLetIn(t *testing.T) {
	p := start(t)
	for _, path := range []string{"/api/home", "/api/events", "/api/openapi.json", "/api/codebases/1/overview", "/api/codebases/1/search?q=x", "/api/codebases/1/export/findings.md"} {
		r, err := http.Get(p.base + path)
		require.NoError(t, err)
		require.NoError(t, r.Body.Close())
		require.Equal(t, http.StatusUnauthorized, r.StatusCode, path)
	}
	for _, q := range []string{"", "?token=", "?token=wrong"} {
		r, _ := p.send(http.MethodGet, "/start"+q, nil)
		require.Equal(t, http.StatusUnauthorized, r.StatusCode)
		require.Empty(t, r.Cookies())
	}
	token := p.srv.URL()[strings.Index(p.srv.URL(), "?"):]
	for _, to := range []string{"//evil.example", "https://evil.example", "/\\evil.example"} {
		r, _ := p.send(http.MethodGet, "/start"+token+"&to="+to, nil)
		require.Equal(t, "/", r.Header.Get("Location"))
	}
}

func TestWhatAForeignSiteCouldSendIsRefused(t *testing.T) {
	p := start(t)
	body := server.NewCodebase{Path: "/"}
	for name, head := range map[string][]string{
		"another host":      {"Host", "evil.example"},
		"another port":      {"Host", "127.0.0.1:1"},
		"a rebound name":    {"Host", "evil.example:80"},
		"another origin":    {"Origin", "http://evil.example"},
		"a null origin":     {"Origin", "null"},
		"no origin":         {"Origin", ""},
		"a form":            {"Content-Type", "application/x-www-form-urlencoded"},
		"a plain text":      {"Content-Type", "text/plain"},
		"no type of body":   {"Content-Type", ""},
		"an upload's bytes": {"Content-Type", "application/octet-stream"},
	} {
		r, b := p.send(http.MethodPost, "/api/codebases", body, head...)
		require.True(t, r.StatusCode == http.StatusForbidden || r.StatusCode == http.StatusUnsupportedMediaType, "%s: %d %s", name, r.StatusCode, b)
	}
	r, _ := p.send(http.MethodGet, "/api/home", nil, "Host", "evil.example")
	require.Equal(t, http.StatusForbidden, r.StatusCode)
	r, _ = p.send("TRACE", "/api/home", nil)
	require.GreaterOrEqual(t, r.StatusCode, 400)
}

func TestAnswersCarryTheHeadersThatKeepThemSafe(t *testing.T) {
	p := start(t)
	r, b := p.send(http.MethodGet, "/", nil)
	if r.StatusCode == http.StatusOK {
		csp := r.Header.Get("Content-Security-Policy")
		require.Contains(t, csp, "default-src 'none'")
		require.NotContains(t, csp, "unsafe")
		nonce := csp[strings.Index(csp, "nonce-")+6:]
		require.Contains(t, string(b), nonce[:32])
		second, _ := p.send(http.MethodGet, "/", nil)
		require.NotEqual(t, csp, second.Header.Get("Content-Security-Policy"), "a nonce is used once")
	}
	for _, path := range []string{"/", "/api/home", "/api/none", "/assets/none.js"} {
		r, _ := p.send(http.MethodGet, path, nil)
		require.Equal(t, "nosniff", r.Header.Get("X-Content-Type-Options"))
		require.Equal(t, "DENY", r.Header.Get("X-Frame-Options"))
		require.NotEmpty(t, r.Header.Get("Content-Security-Policy"))
	}
}

func TestWhatIsNoCodebaseIsSaidAndLeavesNothing(t *testing.T) {
	dir := testkit.Repository(t, tree)
	require.NoError(t, os.MkdirAll(filepath.Join(dir, "empty"), 0o755))
	p := start(t, dir)
	for path, says := range map[string]string{dir + "/none": "does not exist", dir + "/main.go": "is a file", dir + "/empty": "holds no files", "/etc": "outside the allowed folders", "": "no path", "upload:../x": "no such upload", "upload:none.zip": "does not exist"} {
		r, b := p.send(http.MethodPost, "/api/codebases", server.NewCodebase{Path: path})
		require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode, path)
		require.Equal(t, "application/problem+json", r.Header.Get("Content-Type"))
		require.Contains(t, string(b), says)
	}
	r, b := p.send(http.MethodPost, "/api/codebases", server.NewCodebase{Path: dir, Revision: "none"})
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
	require.Contains(t, string(b), "has no revision")
	var home server.Home
	p.get("/api/home", &home)
	require.Empty(t, home.Codebases)
}

func TestTheDataFolderMayBeNamedFromWhereTheServerIsStarted(t *testing.T) {
	t.Chdir(t.TempDir())
	dir := testkit.Repository(t, tree)
	p := startIn(t, "data", dir)
	p.takeIn(dir)
	require.DirExists(t, "data")
}

func TestAnArchiveIsSentAndSurveyed(t *testing.T) {
	p := start(t)
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for _, n := range []string{"vault/lots.go", "vault/box.go"} {
		w, err := z.Create(n)
		require.NoError(t, err)
		_, err = w.Write([]byte("package vault\n"))
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	send := func(name string, data []byte) (int, map[string]any) {
		req, err := http.NewRequest(http.MethodPost, p.base+"/api/uploads?name="+name, bytes.NewReader(data))
		require.NoError(t, err)
		req.Header.Set("Origin", p.base)
		req.Header.Set("Content-Type", "application/octet-stream")
		r, err := p.client.Do(req)
		require.NoError(t, err)
		var v map[string]any
		require.NoError(t, json.NewDecoder(r.Body).Decode(&v))
		require.NoError(t, r.Body.Close())
		return r.StatusCode, v
	}
	status, v := send("../../my%20vault.zip", b.Bytes())
	require.Equal(t, http.StatusOK, status)
	id := p.takeIn(v["upload"].(string))
	var c server.CodebaseStatus
	p.get(fmt.Sprintf("/api/codebases/%d", id), &c)
	require.Equal(t, "archive", c.Kind)
	require.Equal(t, "my_vault.zip", c.Name)
	require.Equal(t, 2, c.Last.Files)
	for name, data := range map[string][]byte{"bad.zip": []byte("no archive"), "words.txt": b.Bytes(), "none": nil} {
		status, v := send(name, data)
		require.Equal(t, http.StatusUnprocessableEntity, status, name)
		require.NotEmpty(t, v["detail"])
	}
	kept, err := filepath.Glob(filepath.Join(filepath.Dir(c.Path), "*"))
	require.NoError(t, err)
	require.Len(t, kept, 1, "what was refused is not kept")
}

func TestTheViewsOfASurvey(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	at := func(view, query string) string { return fmt.Sprintf("/api/codebases/%d/%s%s", id, view, query) }

	var ledger server.Ledger
	r := p.get(at("layout", ""), &ledger)
	var names []string
	for _, row := range ledger.Rows {
		names = append(names, row.Path)
	}
	require.Equal(t, []string{".", "lots", "lots/utils", "README.md", "go.mod", "main.go"}, names)
	require.Equal(t, "Keeps seed.", ledger.Rows[0].Purpose)
	require.Equal(t, 1, ledger.Rows[1].Smells)

	again, body := p.send(http.MethodGet, at("layout", ""), nil, "If-None-Match", r.Header.Get("ETag"))
	require.Equal(t, http.StatusNotModified, again.StatusCode)
	require.Empty(t, body)

	var margin server.Margin
	p.get(at("margin", "?at=lots/utils"), &margin)
	require.Equal(t, "catch-all-folder", margin.Smells[0].Rule)
	require.NotEmpty(t, margin.Titles["catch-all-folder"].Why)
	require.NotNil(t, margin.Score.Total)

	var code server.Code
	p.get(at("code", "?at=lots/lots.go"), &code)
	require.Contains(t, code.Text, "Weigh weighs")
	require.Equal(t, "Weigh", code.Definitions[0].Name)
	require.Equal(t, server.Use{Path: "main.go", Line: 3, Kind: "import", Text: "vault/lots", Names: []string{"Weigh"}, Sure: true}, code.UsedBy[0])
	require.NoError(t, os.WriteFile(filepath.Join(dir, "lots", "lots.go"), []byte("changed"), 0o644))
	p.get(at("code", "?at=lots/lots.go"), &code)
	require.Contains(t, code.Text, "Weigh weighs", "what was surveyed is shown, not what the folder holds now")

	var sheet struct {
		Sentences []struct{ Text string }
		Entries   []struct{ Path string }
		Totals    struct{ Files int }
	}
	p.get(at("overview", ""), &sheet)
	require.Equal(t, 8, sheet.Totals.Files)
	require.Equal(t, "main.go", sheet.Entries[0].Path)
	require.NotEmpty(t, sheet.Sentences)

	var siblings []server.Sibling
	p.get(at("siblings", "?at=lots/utils"), &siblings)
	require.Equal(t, []server.Sibling{{Path: "lots/utils", Name: "utils"}, {Path: "lots/lots.go", Name: "lots.go", File: true}}, siblings)
	var hits []server.PlaceHit
	p.get(at("places", "?q=weigh"), &hits)
	require.Equal(t, "Weigh", hits[0].Definition)

	for _, bad := range []string{"layout?at=none", "margin?at=../etc", "code?at=lots", "overview?survey=99", "siblings?survey=-1"} {
		r, _ := p.send(http.MethodGet, at("", "")+bad, nil)
		require.Equal(t, http.StatusNotFound, r.StatusCode, bad)
	}
	r, _ = p.send(http.MethodGet, "/api/codebases/77/layout", nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestTheCodeIsSearchedAsItComesIn(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	search := func(q string) (paths []string, end server.SearchLine) {
		r, b := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/search?%s", id, q), nil)
		require.Equal(t, http.StatusOK, r.StatusCode, string(b))
		for line := range strings.Lines(string(b)) {
			var l server.SearchLine
			require.NoError(t, json.Unmarshal([]byte(line), &l))
			if l.Done {
				end = l
			} else {
				paths = append(paths, l.Path)
			}
		}
		return paths, end
	}
	for range 2 { // the second time from memory
		paths, end := search("q=SEED")
		require.ElementsMatch(t, []string{"README.md", "lots/lots.go"}, paths)
		require.Equal(t, 2, end.Total)
		require.Equal(t, 8, end.Read)
	}
	paths, _ := search("q=SEED&case=1")
	require.Empty(t, paths)
	paths, _ = search("q=^package+u&regex=1&at=lots/utils")
	require.Len(t, paths, 4)
	paths, _ = search("q=^func&regex=1")
	require.ElementsMatch(t, []string{"main.go", "lots/lots.go"}, paths, "^ is the start of any line")
	r, b := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/search?q=(&regex=1", id), nil)
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
	require.Contains(t, string(b), "not a regular expression")
}

func TestFindings(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	at := fmt.Sprintf("/api/codebases/%d/findings", id)

	var f review.Finding
	p.do(http.MethodPost, at, server.NewFinding{Kind: review.Fix, Title: " weigh twice ", Path: "lots/lots.go", Line: 4, EndLine: 5, Labels: []string{"#b", "a", "a"}, By: "Maren"}, &f)
	require.Equal(t, "weigh twice", f.Title)
	require.Equal(t, []string{"a", "b"}, f.Labels)
	require.Equal(t, review.Place{Path: "lots/lots.go", Definition: "Weigh", Line: 4, EndLine: 5, Survey: f.Place.Survey, Hash: f.Place.Hash, Quote: "func Weigh() {\n\tprintln(\"seed\")"}, f.Place)
	require.Len(t, f.Place.Hash, 64)

	var margin server.Margin
	p.get(fmt.Sprintf("/api/codebases/%d/margin?at=lots/utils", id), &margin)
	var g review.Finding
	p.do(http.MethodPost, at, server.NewFinding{Kind: review.Improve, Path: "lots/utils", Smell: margin.Smells[0].ID}, &g)
	require.Equal(t, "catch-all-folder", g.Rule)
	require.NotEmpty(t, g.Evidence)
	require.NotEmpty(t, g.Text)

	for name, bad := range map[string]server.NewFinding{
		"no words": {Kind: review.Fix, Path: "."}, "no such place": {Kind: review.Fix, Title: "x", Path: "none"}, "no such line": {Kind: review.Fix, Title: "x", Path: "main.go", Line: 99},
		"no such kind": {Kind: "loud", Title: "x", Path: "."}, "no such smell": {Kind: review.Fix, Title: "x", Path: ".", Smell: "none"}, "two lines": {Kind: review.Fix, Title: "x\ny", Path: "."},
	} {
		r, b := p.send(http.MethodPost, at, bad)
		require.True(t, r.StatusCode == 404 || r.StatusCode == 422, "%s: %d %s", name, r.StatusCode, b)
	}

	one := fmt.Sprintf("%s/%d", at, f.ID)
	done, words := review.Done, "weigh once"
	var changed review.Finding
	p.do(http.MethodPatch, one+"?by=Odd", review.Patch{State: &done}, &changed, "If-Match", "1")
	require.Equal(t, int64(2), changed.Version)
	r, b := p.send(http.MethodPatch, one, review.Patch{Title: &words}, "If-Match", "1")
	require.Equal(t, http.StatusPreconditionFailed, r.StatusCode, "the second of two is told")
	var conflict struct{ Current review.Finding }
	require.NoError(t, json.Unmarshal(b, &conflict))
	require.Equal(t, review.Done, conflict.Current.State, "and sees what the first made of it")
	p.do(http.MethodPatch, one, review.Patch{Title: &words}, &changed, "If-Match", "2")
	require.Equal(t, review.Done, changed.State, "a patch changes only what it names")
	for _, v := range []string{"", "x"} {
		r, _ := p.send(http.MethodPatch, one, review.Patch{Title: &words}, "If-Match", v)
		require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
	}
	var log []review.Change
	p.get(one+"/changes", &log)
	require.Equal(t, []string{"state noted done Odd", "title weigh twice weigh once "}, []string{fmt.Sprintf("%s %s %s %s", log[0].Field, log[0].Old, log[0].New, log[0].By), fmt.Sprintf("%s %s %s %s", log[1].Field, log[1].Old, log[1].New, log[1].By)})

	gone, back := true, false
	p.do(http.MethodPatch, one, review.Patch{Deleted: &gone}, nil, "If-Match", "3")
	var list review.List
	p.get(at, &list)
	require.Len(t, list.Rows, 1)
	p.do(http.MethodPatch, one, review.Patch{Deleted: &back}, nil, "If-Match", "4")
	first := 0.5
	p.do(http.MethodPatch, fmt.Sprintf("%s/%d", at, g.ID), review.Patch{Position: &first}, nil, "If-Match", "1")
	p.get(at, &list)
	require.Equal(t, []int64{g.ID, f.ID}, []int64{list.Rows[0].ID, list.Rows[1].ID}, "the order set by hand")

	for file, kind := range map[string]string{"findings.md": "text/markdown", "findings.csv": "text/csv", "survey.html": "text/html", "survey.json": "application/json"} {
		r, b := p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/export/%s", id, file), nil)
		require.Equal(t, http.StatusOK, r.StatusCode)
		require.Contains(t, r.Header.Get("Content-Type"), kind)
		require.Contains(t, r.Header.Get("Content-Disposition"), "attachment")
		require.Contains(t, string(b), map[bool]string{true: "jantel-survey/1", false: "weigh once"}[file == "survey.json"])
	}
	r, _ = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d/export/none", id), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	var html server.Rendered
	p.do(http.MethodPost, "/api/render", server.Markdown{Text: "*a* <script>x</script> ![i](http://x/y) [l](javascript:z)"}, &html)
	require.Contains(t, html.HTML, "<em>a</em>")
	for _, bad := range []string{"script>", "<img", "javascript:"} {
		require.NotContains(t, html.HTML, bad)
	}
}

func TestReadMarksBriefSilencesAndSettings(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	base := fmt.Sprintf("/api/codebases/%d", id)
	var margin server.Margin
	p.do(http.MethodPut, base+"/read", server.Mark{Path: "lots", Read: true}, nil)
	p.get(base+"/margin?at=lots", &margin)
	require.InDelta(t, 1, margin.Read, 1e-9)
	p.do(http.MethodPut, base+"/read", server.Mark{Path: "lots/lots.go"}, nil)
	p.get(base+"/margin?at=lots", &margin)
	require.InDelta(t, 0.4, margin.Read, 0.01, "the share of its lines")
	r, _ := p.send(http.MethodPut, base+"/read", server.Mark{Path: "none", Read: true})
	require.Equal(t, http.StatusNotFound, r.StatusCode)

	var brief server.BriefVersion
	p.get(base+"/brief", &brief)
	require.Equal(t, int64(0), brief.Version)
	brief.Brief.Out = []string{"lots/**"}
	before := *margin.Score.Total
	p.do(http.MethodPut, base+"/brief", brief, nil)
	p.get(base+"/margin?at=.", &margin)
	require.Zero(t, margin.SmellCount, "it takes effect at once")
	require.NotEqual(t, before, *margin.Score.Total)
	r, _ = p.send(http.MethodPut, base+"/brief", brief)
	require.Equal(t, http.StatusPreconditionFailed, r.StatusCode, "an older version overwrites nothing")
	brief.Version, brief.Brief.Out = 1, []string{"[a"}
	r, b := p.send(http.MethodPut, base+"/brief", brief)
	require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode)
	require.Contains(t, string(b), "not a valid glob")
	brief.Brief.Out = []string{}
	p.do(http.MethodPut, base+"/brief", brief, nil)

	p.get(base+"/margin?at=.", &margin)
	score := *margin.Score.Total
	p.do(http.MethodPut, base+"/silences", server.Silences{All: []server.Quiet{{Smell: margin.Smells[0].ID, Reason: "agreed on"}}}, nil)
	p.get(base+"/margin?at=.", &margin)
	require.Greater(t, *margin.Score.Total, score)
	require.Equal(t, "agreed on", margin.Smells[0].Silenced, "and is still listed")
	p.do(http.MethodPut, base+"/silences", server.Silences{All: []server.Quiet{{Smell: margin.Smells[0].ID}}}, nil)
	p.get(base+"/margin?at=.", &margin)
	require.InDelta(t, score, *margin.Score.Total, 1e-9)

	var settings server.Settings
	p.get("/api/settings", &settings)
	require.True(t, settings.Single)
	settings.Keys, settings.Person = map[string]string{"note": "w"}, "Maren"
	p.do(http.MethodPut, "/api/settings", settings, nil)
	var back server.Settings
	p.get("/api/settings", &back)
	require.Equal(t, settings, back)
}

func TestSurveysAreCancelledAndRunAgain(t *testing.T) {
	var b strings.Builder
	for i := range 3000 {
		fmt.Fprintf(&b, "-- d%d/f.go --\npackage d\n%s\n", i, strings.Repeat("\nfunc F() { println(1) }\n", 60))
	}
	dir := testkit.Tree(t, b.String())
	p := start(t, dir)
	ended := func(name string, d map[string]any) bool { return name == "survey" && d["state"] != "running" }
	var c server.CodebaseStatus
	p.events(ended, func() {
		p.do(http.MethodPost, "/api/codebases", server.NewCodebase{Path: dir}, &c)
		p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/cancel", c.ID), nil, nil)
	})
	p.get(fmt.Sprintf("/api/codebases/%d", c.ID), &c)
	require.Equal(t, review.Cancelled, c.Last.State)
	require.Zero(t, c.Latest)
	p.events(ended, func() {
		p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/surveys", c.ID), nil, nil)
		r, _ := p.send(http.MethodPost, fmt.Sprintf("/api/codebases/%d/surveys", c.ID), nil)
		require.Equal(t, http.StatusUnprocessableEntity, r.StatusCode, "one at a time")
	})
	p.get(fmt.Sprintf("/api/codebases/%d", c.ID), &c)
	require.Equal(t, review.Finished, c.Last.State)
	r, _ := p.send(http.MethodPost, fmt.Sprintf("/api/codebases/%d/cancel", c.ID), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
	p.do(http.MethodDelete, fmt.Sprintf("/api/codebases/%d", c.ID), nil, nil)
	r, _ = p.send(http.MethodGet, fmt.Sprintf("/api/codebases/%d", c.ID), nil)
	require.Equal(t, http.StatusNotFound, r.StatusCode)
}

func TestEventsAreReplayedToThoseWhoComeBack(t *testing.T) {
	dir := testkit.Tree(t, tree)
	p := start(t, dir)
	id := p.takeIn(dir)
	first := ""
	req, err := http.NewRequest(http.MethodGet, p.base+"/api/events", nil)
	require.NoError(t, err)
	req.Header.Set("Last-Event-ID", "1")
	r, err := p.client.Do(req)
	require.NoError(t, err)
	sc := bufio.NewScanner(r.Body)
	for sc.Scan() && first == "" {
		first, _ = strings.CutPrefix(sc.Text(), "id: ")
		if !strings.HasPrefix(sc.Text(), "id: ") {
			first = ""
		}
	}
	require.NotEmpty(t, first, "what was missed comes first")
	require.NoError(t, r.Body.Close())
	p.events(func(name string, d map[string]any) bool { return name == "review" && d["what"] == "finding" }, func() {
		p.do(http.MethodPost, fmt.Sprintf("/api/codebases/%d/findings", id), server.NewFinding{Kind: review.Keep, Title: "good", Path: "."}, nil)
	})
}

func TestTheAPIsDescriptionIsTheOneInTheRepository(t *testing.T) {
	now, err := server.OpenAPI()
	require.NoError(t, err)
	kept, err := os.ReadFile("openapi.json")
	require.NoError(t, err)
	require.JSONEq(t, string(kept), string(now), "run make types")
	var d struct{ OpenAPI string }
	require.NoError(t, json.Unmarshal(now, &d))
	require.True(t, strings.HasPrefix(d.OpenAPI, "3.1"))
}
