// Command bench measures the budgets as ratios: a survey against reading and
// counting the same files, a second survey against the first, large trees
// against small ones, all in one run on one machine. It prints a table and
// judges nothing but by the budgets.
//
//	bench [FOLDER]…   (without a folder: Go's own source tree)
package main

import (
	"bytes"
	"compress/gzip"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/cookiejar"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"syscall"
	"time"
)

// rounds is how often each is measured; what is compared runs in one round, since
// a machine's clock moves.
const rounds = 5

func main() {
	if err := run(os.Args[1:]); err != nil {
		fmt.Fprintln(os.Stderr, "bench: "+err.Error())
		os.Exit(1)
	}
}

type bench struct {
	dir string // scratch
	bin string
}

func run(folders []string) (err error) {
	bin, err := filepath.Abs("bin/jantel")
	if err != nil {
		return err
	}
	dir, err := os.MkdirTemp("", "jantel-bench-")
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, os.RemoveAll(dir)) }()
	b := &bench{dir, bin}
	if len(folders) == 0 {
		root, err := exec.Command("go", "env", "GOROOT").Output()
		if err != nil {
			return err
		}
		folders = []string{filepath.Join(strings.TrimSpace(string(root)), "src")}
	}
	fmt.Printf("%-34s %12s %12s %10s %8s\n", "", "measured", "against", "ratio", "budget")
	for _, f := range folders {
		if err := b.tree(f); err != nil {
			return fmt.Errorf("%s: %w", f, err)
		}
	}
	if err := b.growth(); err != nil {
		return err
	}
	return b.views(folders[0])
}

func row(what string, measured, against []time.Duration, budget float64) {
	ratios := make([]float64, len(measured))
	for i := range ratios {
		ratios[i] = measured[i].Seconds() / against[i].Seconds()
	}
	fmt.Printf("%-34s %11.2fs %11.2fs %10.2f %8.2f\n", what, median(measured).Seconds(), median(against).Seconds(), median(ratios), budget)
}

// timed runs a command and returns its wall time and peak memory in bytes.
func timed(cmd *exec.Cmd) (time.Duration, int64, error) {
	var said bytes.Buffer
	cmd.Stderr = &said
	began := time.Now()
	err := cmd.Run()
	took := time.Since(began)
	if err != nil {
		return 0, 0, fmt.Errorf("%s: %w: %s", cmd.Path, err, said.String())
	}
	usage, ok := cmd.ProcessState.SysUsage().(*syscall.Rusage)
	if !ok {
		return took, 0, nil
	}
	return took, usage.Maxrss * 1024, nil
}

func median[T int64 | float64 | time.Duration](l []T) T {
	return slices.Sorted(slices.Values(l))[len(l)/2]
}

func (b *bench) survey(folder, cache, format string) *exec.Cmd {
	cmd := exec.Command(b.bin, "survey", folder, "--format", format, "--out", filepath.Join(b.dir, "out"))
	cmd.Env = append(os.Environ(), "XDG_CACHE_HOME="+cache)
	return cmd
}

// tree compares the surveys of a copy of a tree with reading its files.
func (b *bench) tree(folder string) error {
	tree := filepath.Join(b.dir, "tree")
	if err := os.RemoveAll(tree); err != nil {
		return err
	}
	if out, err := exec.Command("cp", "-a", folder, tree).CombinedOutput(); err != nil {
		return fmt.Errorf("cp: %w: %s", err, out)
	}
	cache := filepath.Join(b.dir, "cache")
	if _, _, err := timed(b.survey(tree, cache, "json")); err != nil {
		return err
	}
	var s struct {
		Files []struct {
			Path   string `json:"path"`
			Bytes  int64  `json:"bytes"`
			Judged bool   `json:"judged"`
		} `json:"files"`
	}
	data, err := os.ReadFile(filepath.Join(b.dir, "out"))
	if err != nil {
		return err
	}
	if err := json.Unmarshal(data, &s); err != nil {
		return err
	}
	var list bytes.Buffer
	var all, judged int64
	edit := ""
	for _, f := range s.Files {
		if strings.Contains(f.Path, "%") {
			continue // a name that is not UTF-8
		}
		fmt.Fprintf(&list, "%s\x00", filepath.Join(tree, f.Path))
		all += f.Bytes
		if f.Judged {
			judged += f.Bytes
			if ext := filepath.Ext(f.Path); edit == "" && (ext == ".go" || ext == ".py" || ext == ".js") {
				edit = filepath.Join(tree, f.Path)
			}
		}
	}
	names := filepath.Join(b.dir, "names")
	if err := os.WriteFile(names, list.Bytes(), 0o600); err != nil {
		return err
	}
	var count, first, again, same, rejudged []time.Duration
	var peak []int64
	for i := range rounds {
		t, _, err := timed(exec.Command("sh", "-c", "xargs -0 cat <"+names+" | wc -l"))
		if err != nil {
			return err
		}
		count = append(count, t)
		if err := os.RemoveAll(cache); err != nil {
			return err
		}
		t, mem, err := timed(b.survey(tree, cache, "text"))
		if err != nil {
			return err
		}
		first, peak = append(first, t), append(peak, mem)
		judging, err := b.judging(tree, cache)
		if err != nil {
			return err
		}
		rejudged = append(rejudged, judging)
		if t, _, err = timed(b.survey(tree, cache, "text")); err != nil {
			return err
		}
		same = append(same, t)
		if edit != "" {
			h, err := os.OpenFile(edit, os.O_APPEND|os.O_WRONLY, 0)
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(h, "\n// %d\n", i)
			if err := errors.Join(err, h.Close()); err != nil {
				return err
			}
		}
		if t, _, err = timed(b.survey(tree, cache, "text")); err != nil {
			return err
		}
		again = append(again, t)
	}
	fmt.Printf("%s: %d files, %.0f MB, %.0f MB judged\n", folder, len(s.Files), float64(all)/1e6, float64(judged)/1e6)
	row("  first survey / cat into wc -l", first, count, 14)
	row("  again, one file changed / first", again, first, 0.45)
	row("  again, nothing changed / first", same, first, 0.45)
	row("  judged anew / first", rejudged, first, 0.3)
	limit := 400e6 + 5*float64(judged)
	fmt.Printf(
		"%-34s %9.0f MB %9.0f MB %10.2f %8.2f\n", "  peak memory / 400 MB + 5 × source", float64(median(peak))/1e6,
		limit/1e6, float64(median(peak))/limit, 1.0,
	)
	return nil
}

// judging is how long a survey says that judging took: what is done again when
// a rule, an origin, a role or the charter changes.
func (b *bench) judging(tree, cache string) (time.Duration, error) {
	if _, _, err := timed(b.survey(tree, cache, "json")); err != nil {
		return 0, err
	}
	data, err := os.ReadFile(filepath.Join(b.dir, "out"))
	if err != nil {
		return 0, err
	}
	var s struct {
		Timings map[string]float64 `json:"timings"`
	}
	if err := json.Unmarshal(data, &s); err != nil {
		return 0, err
	}
	return time.Duration(s.Timings["judge"] * float64(time.Second)), nil
}

// growth compares what a file costs in a large tree with what it costs in a
// small one.
func (b *bench) growth() error {
	sizes := []int{1000, 20000}
	trees := map[int]string{}
	for _, n := range sizes {
		tree := filepath.Join(b.dir, fmt.Sprint("grown", n))
		for i := range n {
			dir := filepath.Join(tree, fmt.Sprintf("shelf%d", i/400), fmt.Sprintf("box%d", i/20%20))
			if i%20 == 0 {
				if err := os.MkdirAll(dir, 0o700); err != nil {
					return err
				}
			}
			var text strings.Builder
			fmt.Fprintf(
				&text, "import { lot%d } from '../box%d/lot%d'\nimport { readFile } from 'node:fs'\n", max(0, i-20),
				max(0, i-20)/20%20, max(0, i-20),
			)
			for k := range 12 {
				fmt.Fprintf(
					&text,
					"export function lot%d_%d(weight: number, moisture: number) {\n  const dry = weight * (1 - "+
						"moisture / 100)\n  if (dry < %d) return readFile\n  return `lot ${dry}`\n}\n",
					i, k, k,
				)
			}
			fmt.Fprintf(&text, "export const lot%d = lot%d\n", i, max(0, i-20))
			if err := os.WriteFile(filepath.Join(dir, fmt.Sprintf("lot%d.ts", i)), []byte(text.String()), 0o600); err != nil {
				return err
			}
		}
		trees[n] = tree
	}
	cost := map[int][]time.Duration{}
	for range rounds {
		for _, n := range sizes {
			cmd := b.survey(trees[n], b.dir, "text")
			cmd.Args = append(cmd.Args, "--no-cache")
			t, _, err := timed(cmd)
			if err != nil {
				return err
			}
			if n == sizes[0] {
				t *= 20
			}
			cost[n] = append(cost[n], t)
		}
	}
	row("20,000 files / 20 × 1,000 files", cost[20000], cost[1000], 1.2)
	return nil
}

var address = regexp.MustCompile(`http://\S+`)

// views asks a server for the data of each view of a large tree.
func (b *bench) views(folder string) error {
	cmd := exec.Command(b.bin, "serve", "--addr", "127.0.0.1:0", "--data", filepath.Join(b.dir, "data"), "--allow", folder)
	out, err := cmd.StdoutPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return err
	}
	defer func() {
		_ = cmd.Process.Signal(os.Interrupt)
		_ = cmd.Wait()
	}()
	buf := make([]byte, 400)
	n, err := out.Read(buf)
	if err != nil {
		return err
	}
	start := string(address.Find(buf[:n]))
	u, err := url.Parse(start)
	if err != nil {
		return err
	}
	jar, _ := cookiejar.New(nil)
	c := &http.Client{Jar: jar, Transport: &http.Transport{DisableCompression: true}}
	base := "http://" + u.Host
	if _, _, err := get(c, start); err != nil {
		return err
	}
	body, _ := json.Marshal(map[string]string{"path": folder})
	req, _ := http.NewRequest(http.MethodPost, base+"/api/codebases", bytes.NewReader(body))
	req.Header.Set("Content-Type", "application/json")
	req.Header.Set("Origin", base)
	resp, err := c.Do(req)
	if err != nil {
		return err
	}
	_ = resp.Body.Close()
	if resp.StatusCode != http.StatusOK {
		return fmt.Errorf("taking %s in was answered with %s", folder, resp.Status)
	}
	for deadline := time.Now().Add(5 * time.Minute); ; {
		data, _, err := get(c, base+"/api/codebases/1")
		if err != nil {
			return err
		}
		var st struct {
			Latest  int64 `json:"latest"`
			Running any   `json:"running"`
		}
		if err := json.Unmarshal(data, &st); err != nil {
			return err
		}
		if st.Latest > 0 && st.Running == nil {
			break
		}
		if time.Now().After(deadline) {
			return errors.New("the survey did not end within five minutes")
		}
		time.Sleep(50 * time.Millisecond)
	}
	file := ""
	_ = filepath.WalkDir(folder, func(p string, d os.DirEntry, _ error) error {
		if d != nil && d.Type().IsRegular() && filepath.Ext(p) == ".go" {
			file, _ = filepath.Rel(folder, p)
			return filepath.SkipAll
		}
		return nil
	})
	fmt.Println("data of a view: median, slowest, compressed (budget 30 ms, 300 KB)")
	for _, v := range []string{
		"overview", "section", "layout", "weave", "built", "dependencies?auto=true", "narrowed?role=handler", "margin", "smells",
		"code?at=" + url.QueryEscape(file), "places?q=reader", "search?q=Shutdown", "beside?at=net&with=os",
	} {
		if err := showTimes(c, base, v); err != nil {
			return err
		}
	}
	if err := record(c, base, file, 10_000); err != nil {
		return err
	}
	fmt.Println("of 10,000 findings: median, slowest, compressed (budget 50 ms, 100 KB)")
	for _, v := range []string{
		"findings", "findings?from=9000", "findings?kind=fix&group=person", "findings?words=tare+9", "margin", "recorded",
	} {
		if err := showTimes(c, base, v); err != nil {
			return err
		}
	}
	return b.browser(jar, u)
}

// showTimes asks for a view's data many times and prints how long it takes and
// how large it is.
func showTimes(c *http.Client, base, v string) error {
	var l []time.Duration
	size := 0
	var one time.Duration
	for i := range 21 {
		began := time.Now()
		data, _, err := get(c, base+"/api/codebases/1/"+v)
		if err != nil {
			return fmt.Errorf("%s: %w", v, err)
		}
		if i == 0 {
			one = time.Since(began)
			var z bytes.Buffer
			w := gzip.NewWriter(&z)
			_, _ = w.Write(data)
			_ = w.Close()
			size = z.Len()
			continue
		}
		l = append(l, time.Since(began))
	}
	fmt.Printf(
		"  %-32s %9.1f ms %9.1f ms first %6.1f KB\n", v[:min(len(v), 32)],
		float64(median(l).Microseconds())/1000, float64(one.Microseconds())/1000, float64(size)/1000,
	)
	return nil
}

// record writes so many remarks, as a team would over years.
func record(c *http.Client, base, file string, n int) error {
	kinds := []string{"redo", "fix", "improve", "taste", "ask", "keep"}
	for i := range n {
		body, _ := json.Marshal(map[string]any{
			"kind": kinds[i%len(kinds)], "title": fmt.Sprintf("tare %d is lost between two scales", i), "path": file,
			"text": "What is weighed here is weighed again at the counter.", "assignee": fmt.Sprintf("person %d", i%40),
			"labels": []string{fmt.Sprintf("label%d", i%25)},
		})
		req, _ := http.NewRequest(http.MethodPost, base+"/api/codebases/1/findings", bytes.NewReader(body))
		req.Header.Set("Content-Type", "application/json")
		req.Header.Set("Origin", base)
		resp, err := c.Do(req)
		if err != nil {
			return err
		}
		_, _ = io.Copy(io.Discard, resp.Body)
		_ = resp.Body.Close()
		if resp.StatusCode != http.StatusOK {
			return fmt.Errorf("a remark was answered with %s", resp.Status)
		}
	}
	return nil
}

// browser hands the server to a browser that measures its own frames; without
// one that part is left out.
func (b *bench) browser(jar *cookiejar.Jar, u *url.URL) error {
	if _, err := os.Stat("/usr/bin/chromium"); err != nil {
		fmt.Println("in the browser: left out, Debian's chromium is missing")
		return nil
	}
	cookies := jar.Cookies(&url.URL{Scheme: "http", Host: u.Host, Path: "/"})
	if len(cookies) == 0 {
		return errors.New("the server let nobody in")
	}
	cmd := exec.Command("node", "frames.mjs", "http://"+u.Host, cookies[0].Name+"="+cookies[0].Value, "1")
	cmd.Dir = "e2e"
	cmd.Stdout, cmd.Stderr = os.Stdout, os.Stderr
	return cmd.Run()
}

func get(c *http.Client, u string) ([]byte, http.Header, error) {
	resp, err := c.Get(u)
	if err != nil {
		return nil, nil, err
	}
	defer func() { _ = resp.Body.Close() }()
	data, err := io.ReadAll(resp.Body)
	if err == nil && resp.StatusCode != http.StatusOK {
		err = fmt.Errorf("%s: %s", u, resp.Status)
	}
	return data, resp.Header, err
}
