// Package worker surveys one codebase in a process of its own, so that
// whatever a stranger's files make of it costs that survey and nothing else:
// it may take so much memory, time and files, and where the system offers it
// sees only the codebase and the store of facts, and no network.
//
// The program starts itself again for it. Its main function asks IsWorker
// first of all, and then calls Main.
package worker

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"runtime"
	"strings"
	"sync"
	"time"

	"jantel/core/model"
	"jantel/core/survey"
)

// Limits are what one survey may take. A zero limit is none.
type Limits struct {
	Memory int64         `json:"memory"` // bytes
	Files  uint64        `json:"files"`  // open at once
	Time   time.Duration `json:"time"`
}

// Request is what a worker is asked to do.
type Request struct {
	// Survey is the number under which the survey is kept; 0 only looks
	// whether the source can be taken in.
	Survey   int64    `json:"survey"`
	Name     string   `json:"name"`
	Path     string   `json:"path"`
	Revision string   `json:"revision"`
	Key      string   `json:"key"`   // of the source in the cache
	Allow    []string `json:"allow"` // folders that may be read
	Data     string   `json:"data"`  // the folder of the store of facts
	Scratch  string   `json:"scratch"`
	Limits   Limits   `json:"limits"`
	// Said is what the lead says against what was computed.
	Said []model.Overrule `json:"said"`
	// Past asks for the scores of so many revisions instead, judged by Inputs, which
	// are judgement's as JSON.
	Past   int             `json:"past"`
	Inputs json.RawMessage `json:"inputs"`
	Scores func(Score)     `json:"-"` // hears of each as it comes
}

// End is what came of it.
type End struct {
	Kind     string `json:"kind"` // of the source: folder, git, archive
	Revision string `json:"revision"`
	Files    int    `json:"files"`
	Lines    int    `json:"lines"`
}

// message is a line that a worker writes.
type message struct {
	Progress *survey.Progress `json:"progress,omitempty"`
	End      *End             `json:"end,omitempty"`
	Score    *Score           `json:"score,omitempty"`
	Problem  string           `json:"problem,omitempty"`
	Sort     string           `json:"sort,omitempty"` // of the problem, see problems
}

var (
	// ErrLimit says that a survey needed more than one may take.
	ErrLimit = errors.New("more than a survey may take")
	// ErrDied says that the process ended without a word.
	ErrDied = errors.New("the process that surveyed ended unexpectedly")
	// ErrDamaged says that the store of facts is damaged.
	ErrDamaged = errors.New("the store of facts is damaged")
)

const variable = "JANTEL_WORKER"

// IsWorker reports whether this process was started as a worker.
func IsWorker() bool { return os.Getenv(variable) != "" }

// grace is how long a worker has to end by itself once it was asked to.
const grace = 2 * time.Second

// Run starts a worker, passes its progress on, and waits for its end. When the
// context ends, so does the worker, and all it started, within seconds.
func Run(ctx context.Context, r Request, progress func(survey.Progress)) (End, error) {
	self, err := os.Executable()
	if err != nil {
		return End{}, err
	}
	if err := os.MkdirAll(r.Scratch, 0o700); err != nil {
		return End{}, fmt.Errorf("a scratch folder can not be made: %w", err)
	}
	defer func() { _ = os.RemoveAll(r.Scratch) }()
	if r.Limits.Time > 0 {
		var cancel context.CancelFunc
		ctx, cancel = context.WithTimeoutCause(ctx, r.Limits.Time, fmt.Errorf("%w: it took longer than %s", ErrLimit, r.Limits.Time))
		defer cancel()
	}
	text, err := json.Marshal(r)
	if err != nil {
		return End{}, err
	}
	cmd := exec.CommandContext(ctx, self)
	cmd.Env = []string{
		variable + "=1", "PATH=" + os.Getenv("PATH"), "HOME=" + r.Scratch, "TMPDIR=" + r.Scratch,
		"GOMAXPROCS=" + os.Getenv("GOMAXPROCS"),
	}
	cmd.Stdin = bytes.NewReader(text)
	said := &tail{}
	cmd.Stderr = said
	out, err := cmd.StdoutPipe()
	if err != nil {
		return End{}, err
	}
	cmd.WaitDelay = grace + time.Second
	belong(cmd)
	// The worker must end when this process does: the system ties it to the
	// thread that starts it.
	runtime.LockOSThread()
	defer runtime.UnlockOSThread()
	if err := cmd.Start(); err != nil {
		return End{}, fmt.Errorf("a process for the survey can not be started: %w", err)
	}
	end, problem := listen(out, progress, r.Scores)
	err = cmd.Wait()
	endAll(cmd)
	switch {
	case problem == nil && end != nil:
		return *end, nil
	case ctx.Err() != nil:
		return End{}, context.Cause(ctx)
	case problem != nil:
		return End{}, problem
	}
	return End{}, whyDied(err, said.String(), r.Limits, mostMemory(cmd))
}

// listen reads what a worker writes until it ends.
func listen(out io.Reader, progress func(survey.Progress), scores func(Score)) (end *End, problem error) {
	in := bufio.NewScanner(out)
	in.Buffer(nil, 1<<20)
	for in.Scan() {
		var m message
		if json.Unmarshal(in.Bytes(), &m) != nil {
			continue // a stranger's text on our output would be one
		}
		switch {
		case m.Progress != nil && progress != nil:
			progress(*m.Progress)
		case m.Score != nil && scores != nil:
			scores(*m.Score)
		case m.End != nil:
			end = m.End
		case m.Problem != "":
			problem = asError(m)
		}
	}
	_, _ = io.Copy(io.Discard, out)
	return end, problem
}

// whyDied says why a process that wrote no end ended. One that is refused more
// memory may die in many ways: that it had most of what it may have tells.
func whyDied(err error, said string, l Limits, had int64) error {
	switch {
	case l.Memory > 0 && had > l.Memory/2:
		return fmt.Errorf("%w: it needed more than the %d MB of memory it may have", ErrLimit, l.Memory>>20)
	case strings.Contains(said, "out of memory"), strings.Contains(said, "cannot allocate memory"),
		strings.Contains(said, "Resource temporarily unavailable"):
		// The last is a thread whose stack found no room.
		return fmt.Errorf("%w: it needed more than the %d MB of memory it may have", ErrLimit, l.Memory>>20)
	case err != nil && strings.Contains(err.Error(), "CPU time limit"):
		return fmt.Errorf("%w: it took longer than %s", ErrLimit, l.Time)
	}
	first, _, _ := strings.Cut(strings.TrimSpace(said), "\n")
	if err == nil {
		return fmt.Errorf("%w: %s", ErrDied, first)
	}
	if first == "" {
		return fmt.Errorf("%w (%v)", ErrDied, err)
	}
	return fmt.Errorf("%w (%v): %s", ErrDied, err, first)
}

// tail keeps the first bytes that are written to it: a Go program that dies
// says why in its first line.
type tail struct {
	mu sync.Mutex
	b  []byte
}

func (t *tail) Write(p []byte) (int, error) {
	t.mu.Lock()
	defer t.mu.Unlock()
	if room := 8<<10 - len(t.b); room > 0 {
		t.b = append(t.b, p[:min(room, len(p))]...)
	}
	return len(p), nil
}

func (t *tail) String() string {
	t.mu.Lock()
	defer t.mu.Unlock()
	return string(t.b)
}

// SweepScratch removes what workers of a server that was killed left behind.
func SweepScratch(dir string) error { return os.RemoveAll(Scratch(dir)) }

// Scratch is the folder for scratch folders in a data folder.
func Scratch(dir string) string { return filepath.Join(dir, "scratch") }

// DefaultLimits are what a survey may take on this machine: half of its
// memory, but 1 GB at least and 8 GB at most.
func DefaultLimits() Limits {
	return Limits{Memory: max(1<<30, min(8<<30, machineMemory()/2)), Files: 1024, Time: time.Hour}
}
