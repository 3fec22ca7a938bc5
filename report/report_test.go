package report_test

import (
	"bytes"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"strings"
	"testing"
	"time"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/smells"
	"jantel/core/testkit"
	"jantel/report"
	"jantel/review"

	"github.com/stretchr/testify/require"
)

const hostile = `<script>alert(1)</script> ![x](http://evil.example/p.png) [go](javascript:x) =cmd()`

func found() []review.Finding {
	at := time.Date(2026, 3, 1, 10, 0, 0, 0, time.UTC)
	return []review.Finding{
		{Kind: review.Fix, State: review.Noted, Title: hostile, Text: hostile, Labels: []string{"=1+1"}, Assignee: "@sum", Author: "Maren", Created: at, Updated: at, Place: review.Place{Path: "a`b.go", Line: 3, EndLine: 5, Quote: "```\n</pre><b>"}, Evidence: []model.Evidence{{Path: "x.go", Line: 2, Note: "<i>"}}},
		{Kind: review.Keep, State: review.Done, Title: "plain", Place: review.Place{Path: "."}, Created: at, Updated: at},
	}
}

func judged(t *testing.T, tree string) (*model.Survey, *judgement.Result) {
	s := testkit.Survey(t, tree)
	return s, judgement.Judge(s, model.Brief{Questions: []string{hostile}}, nil)
}

const tree = `
-- README.md --
# Vault

<script>alert(1)</script> Keeps seed. ![x](http://evil.example/p.png)

    make test
-- package.json --
{ "name": "vault", "scripts": { "start": "node a.js" } }
-- a.js --
#!/usr/bin/env node
import './b'
import './none'
import 'react'
export function weigh() {}
-- b.js --
import './a'
-- utils/one.js --
-- utils/two.js --
-- utils/three.js --
-- utils/four.js --
`

func TestTheSurveyAsJSONHasEveryKeyOfTheFormat(t *testing.T) {
	s, j := judged(t, tree)
	var b bytes.Buffer
	require.NoError(t, report.JSON(&b, s, j, report.Extras{}))
	var d map[string]any
	require.NoError(t, json.Unmarshal(b.Bytes(), &d))
	for _, k := range strings.Fields("schema versions codebase revision surveyed_at stage totals files entries facades folders modules definitions links external unresolved " +
		"routes messages entities features cut journeys wiring tested_by levels cycles patterns breaches smells legibility raise history timings") {
		require.Contains(t, d, k)
	}
	require.Equal(t, "jantel-survey/1", d["schema"])
	versions := d["versions"].(map[string]any)
	require.Nil(t, versions["jantel"], "who calls did not tell it")
	require.Regexp(t, `^\d+\.\d+$`, versions["reader"])
	require.Regexp(t, `^\d+\.[0-9a-f]+$`, versions["rules"])
	for _, k := range []string{"revision", "breaches", "history"} {
		require.Nil(t, d[k], "%s is not known and must be null", k)
	}
	has := func(list string, keys string) {
		rows := d[list].([]any)
		require.NotEmpty(t, rows, list)
		for _, k := range strings.Fields(keys) {
			require.Contains(t, rows[0], k)
		}
	}
	has("files", "path language role role_confidence role_evidence feature lines code_lines bytes hash read entry judged skipped")
	has("folders", "path purpose purpose_source files lines roles legibility cohesion")
	has("modules", "path cut patterns levels")
	has("definitions", "path name parent kind line end_line exported")
	has("links", "from to kind line text sure")
	has("external", "from package version line")
	has("unresolved", "from text line reason")
	has("cycles", "level members break exact")
	has("smells", "id rule facet strength path line end_line name message evidence remedy")
	for _, k := range []string{"total", "layout", "boundaries", "units", "names", "judged_share"} {
		require.Contains(t, d["legibility"], k)
	}
	for _, k := range []string{"files", "folders", "lines", "code_lines", "judged_lines", "bytes", "links", "unresolved"} {
		require.Contains(t, d["totals"], k)
	}
}

func TestTheOfflinePageIsWholeAndHarmless(t *testing.T) {
	s, j := judged(t, tree)
	s.Codebase = hostile
	var b bytes.Buffer
	require.NoError(t, report.HTML(&b, s, j, found()))
	page := b.String()
	for _, bad := range []string{"<script", "<img", " src=", "href=\"http", "href=\"javascript", "@import", "</pre><b>"} {
		require.NotContains(t, page, bad)
	}
	// Only patterns of the page itself are drawn with, and it brings its two faces along.
	require.Equal(t, 2, strings.Count(page, "url(data:font/woff2;base64,"))
	require.NotRegexp(t, `url\([^#]`, strings.ReplaceAll(page, "url(data:font/woff2;base64,", ""))
	for _, good := range []string{"Content-Security-Policy", "id=\"overview\"", "id=\"layout\"", "id=\"weave\"", "id=\"dependencies\"", "id=\"findings\"", "Keeps seed.", "utils", "Legibility", "plain"} {
		require.Contains(t, page, good)
	}
}

func TestTheOfflinePageShowsTheCutAndWhatNeedsWhat(t *testing.T) {
	var b strings.Builder
	for _, thing := range []string{"lot", "shelf", "grower", "label"} {
		for _, kind := range []string{"controller", "service", "repository"} {
			if thing == "grower" && kind == "service" {
				continue
			}
			fmt.Fprintf(&b, "-- %[1]s/%[1]s.%[2]s.ts --\nexport function %[1]s%[2]s() {}\n", thing, kind)
		}
	}
	b.WriteString("-- shelf/a.ts --\nimport '../lot/b'\n-- lot/b.ts --\nimport '../shelf/a'\n-- shelf/c.ts --\nimport '../lot/b'\n")
	s, j := judged(t, b.String())
	var page bytes.Buffer
	require.NoError(t, report.HTML(&page, s, j, nil))
	text := page.String()
	for _, want := range []string{"It is cut by feature", "<th class=\"f\" scope=\"col\">lot</th>", "class=\"on up\"", "class=\"gap\"", "<svg", "kept and called", "<summary>The arithmetic</summary>", "A ring:", "<code>shelf/a.ts</code> needs <code>lot/b.ts</code>"} {
		require.Contains(t, text, want)
	}

	s, j = judged(t, "-- README.md --\nKeeps seed.\n")
	page.Reset()
	require.NoError(t, report.HTML(&page, s, j, nil))
	require.Contains(t, page.String(), "Too little to tell how it is cut.")
}

func TestFindingsAsCSVHoldNoFormula(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, report.FindingsCSV(&b, found()))
	rows, err := csv.NewReader(&b).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	require.Equal(t, "a`b.go:3-5", rows[1][4])
	for _, r := range rows {
		for _, c := range r {
			require.NotRegexp(t, `^\s*[=+@\t\r-]`, c)
		}
	}
}

func TestFindingsAsMarkdownLoadNothing(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, report.FindingsMarkdown(&b, hostile, found()))
	html := report.SafeHTML(b.String())
	for _, bad := range []string{"<script", "<img", "href=\"javascript", "</pre><b>"} {
		require.NotContains(t, html, bad)
	}
	require.NotContains(t, b.String(), "<script")
	require.Contains(t, b.String(), "``a`b.go:3-5``")
	require.Contains(t, b.String(), "````\n```\n")
	var empty bytes.Buffer
	require.NoError(t, report.FindingsMarkdown(&empty, "vault", nil))
	require.Contains(t, empty.String(), "Nothing was found yet")
}

func FuzzMarkdownIsHarmless(f *testing.F) {
	f.Add(hostile)
	f.Add("<a href=\"x\" onclick=y>z</a> <svg/onload=a>")
	f.Fuzz(func(t *testing.T, text string) {
		html := strings.ToLower(report.SafeHTML(text))
		for _, bad := range []string{"<script", "<img", "<svg", "<iframe", "<style", "href=\"javascript", "href=\"data"} {
			require.NotContains(t, html, bad)
		}
	})
}

func TestTheTextSteersNoTerminal(t *testing.T) {
	require.Equal(t, "a[31mb c d", report.Plain("a\x1b[31mb\nc\td\u202e\x00"))
	s, j := judged(t, tree)
	s.Codebase = "va\x1b]0;x\x07ult"
	var b bytes.Buffer
	require.NoError(t, report.Text(&b, s, j))
	require.NotContains(t, b.String(), "\x1b")
	require.Contains(t, b.String(), "Legibility")
}

func TestRulesAsJSON(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, report.RulesJSON(&b, smells.Rules()))
	var rules []map[string]any
	require.NoError(t, json.Unmarshal(b.Bytes(), &rules))
	for _, k := range []string{"slug", "facet", "question", "why", "remedy", "weight", "parameters"} {
		require.NotNil(t, rules[0][k], k)
	}
}

func TestTheJSONTellsRoutesHistoryAndEnvironment(t *testing.T) {
	s, j := judged(t, `
-- app.js --
const app = express()
app.get('/lots', list)
app.get('/seeds', (q, r) => process.env.SEEDS)
function list() {}
`)
	half := 1.5
	s.History = &model.History{Commits: 2, First: 1772360000, Last: 1772360060, MedianFolders: &half, Authors: []model.Author{{Name: "Maren", Commits: 2}}, Files: []model.FileHistory{{Path: "app.js", Changes: 2, Last: 1772360060}}}
	var out bytes.Buffer
	require.NoError(t, report.JSON(&out, s, j, report.Extras{}))
	var d struct {
		Routes []struct {
			Method, Pattern, Path string
			Line                  int
			HandlerPath           *string `json:"handler_path"`
			HandlerName           *string `json:"handler_name"`
		}
		Environment []struct {
			Name, Path string
			Line       int
		}
		History struct {
			Commits int
			Median  *float64 `json:"median_folders_per_commit"`
			First   string
		}
		Files []struct {
			Changes *int
			Changed *string `json:"changed_at"`
		}
	}
	require.NoError(t, json.Unmarshal(out.Bytes(), &d))
	require.Len(t, d.Routes, 2)
	require.Equal(t, "app.js", *d.Routes[0].HandlerPath)
	require.Equal(t, "list", *d.Routes[0].HandlerName)
	require.Nil(t, d.Routes[1].HandlerPath, "written in place: no name, and none is invented")
	require.Equal(t, "SEEDS", d.Environment[0].Name)
	require.Equal(t, 3, d.Environment[0].Line)
	require.Equal(t, 2, d.History.Commits)
	require.Equal(t, 1.5, *d.History.Median)
	require.Equal(t, "2026-03-01T10:13:20Z", d.History.First)
	require.Equal(t, 2, *d.Files[0].Changes)
	require.Equal(t, "2026-03-01T10:14:20Z", *d.Files[0].Changed)
}

// What a manager opens must stay small, whatever is surveyed.
func TestTheOfflinePageOfALargeCodebaseStaysSmall(t *testing.T) {
	var b strings.Builder
	for i := range 300 {
		for _, kind := range []string{"routes", "rules", "store"} {
			fmt.Fprintf(&b, "-- room%d/lot%d_%s.py --\nfrom .lot%d_store import rows\n\ndef all():\n    return rows()\n", i%60, i, kind, i)
		}
	}
	s, j := judged(t, b.String())
	var page bytes.Buffer
	require.NoError(t, report.HTML(&page, s, j, nil))
	require.Less(t, page.Len(), 400_000)
	require.LessOrEqual(t, strings.Count(page.String(), "<th class=\"f\""), 20, "as many features as fit the width")
}
