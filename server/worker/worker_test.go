package worker_test

import (
	"context"
	"net"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"jantel/core/model"
	"jantel/core/source"
	"jantel/core/survey"
	"jantel/core/syntax"
	"jantel/core/testkit"
	"jantel/server/worker"
	"jantel/store"

	"github.com/stretchr/testify/require"
)

// The test binary is started again as the worker; one of its languages does
// what a reader that got out of hand would do.
func TestMain(m *testing.M) {
	syntax.Register(&syntax.Language{Name: "Wild", Version: 1, Extensions: []string{".wild"}, Read: func(_ syntax.How, src []byte) *model.Facts {
		switch do, arg, _ := strings.Cut(strings.TrimSpace(string(src)), " "); do {
		case "loop":
			for {
				os.Getpid()
			}
		case "memory":
			var all [][]byte
			for {
				all = append(all, make([]byte, 1<<20))
				for i := range all[len(all)-1] {
					all[len(all)-1][i] = 1
				}
			}
		case "read":
			if b, err := os.ReadFile(arg); err == nil {
				return &model.Facts{Doc: "read " + string(b)}
			}
		case "call":
			if c, err := net.Dial("tcp", arg); err == nil {
				_ = c.Close()
				return &model.Facts{Doc: "called"}
			}
		}
		return &model.Facts{Doc: "refused", Lines: 1, Code: 1}
	}})
	if worker.IsWorker() {
		os.Exit(worker.Main())
	}
	os.Exit(m.Run())
}

func run(t *testing.T, ctx context.Context, l worker.Limits, tree string) (*model.Survey, error) {
	t.Helper()
	data := t.TempDir()
	facts, err := store.OpenFacts(context.Background(), data)
	require.NoError(t, err)
	t.Cleanup(func() { require.NoError(t, facts.Close()) })
	dir := testkit.Tree(t, tree)
	scratch := filepath.Join(data, "scratch", "1")
	var steps []string
	_, err = worker.Run(ctx, worker.Request{Survey: 1, Name: "vault", Path: dir, Key: "x", Data: data, Scratch: scratch, Allow: []string{dir}, Limits: l}, func(p survey.Progress) { steps = append(steps, p.Step) })
	require.NoDirExists(t, scratch)
	if err != nil {
		return nil, err
	}
	require.Contains(t, steps, "keeping")
	return facts.Survey(context.Background(), 1)
}

var plenty = worker.Limits{Memory: 1 << 30, Files: 512, Time: time.Minute}

func TestAWorkerSurveysAndKeeps(t *testing.T) {
	s, err := run(t, context.Background(), plenty, "-- lots.go --\npackage lots\n\nfunc Weigh() {}\n")
	require.NoError(t, err)
	require.Equal(t, "Weigh", s.File("lots.go").Facts.Definitions[0].Name)
}

func TestAWorkerThatTakesTooMuchIsEnded(t *testing.T) {
	_, err := run(t, context.Background(), worker.Limits{Memory: 200 << 20, Files: 512, Time: time.Minute}, "-- a.wild --\nmemory\n")
	require.ErrorIs(t, err, worker.ErrLimit)
	require.ErrorContains(t, err, "more than the 200 MB of memory")
	began := time.Now()
	_, err = run(t, context.Background(), worker.Limits{Memory: 1 << 30, Files: 512, Time: time.Second}, "-- a.wild --\nloop\n")
	require.ErrorIs(t, err, worker.ErrLimit)
	require.ErrorContains(t, err, "it took longer than 1s")
	require.Less(t, time.Since(began), time.Minute)
}

func TestAWorkerThatLoopsIsCancelledAllTheSame(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	began := time.Now()
	go func() {
		for began.Add(300 * time.Millisecond).After(time.Now()) {
		}
		cancel()
	}()
	_, err := run(t, ctx, plenty, "-- a.wild --\nloop\n")
	require.ErrorIs(t, err, context.Canceled)
	require.Less(t, time.Since(began), 30*time.Second)
}

func TestAWorkerSeesNothingButTheCodebase(t *testing.T) {
	secret := filepath.Join(t.TempDir(), "secret")
	require.NoError(t, os.WriteFile(secret, []byte("the key of the vault"), 0o644))
	ln, err := net.Listen("tcp", "127.0.0.1:0")
	require.NoError(t, err)
	defer func() { _ = ln.Close() }()
	s, err := run(t, context.Background(), plenty, "-- a.wild --\nread "+secret+"\n-- b.wild --\ncall "+ln.Addr().String()+"\n")
	require.NoError(t, err)
	if s.File("a.wild").Facts.Doc != "refused" {
		t.Skip("this system offers no way to confine a process")
	}
	require.Equal(t, "refused", s.File("b.wild").Facts.Doc, "no network either")
}

func TestWhatIsWrongWithASourceKeepsItsMeaning(t *testing.T) {
	r := worker.Request{Path: filepath.Join(t.TempDir(), "none"), Scratch: filepath.Join(t.TempDir(), "s"), Limits: plenty}
	_, err := worker.Run(context.Background(), r, nil)
	require.ErrorIs(t, err, source.ErrNotCodebase)
	r.Allow = []string{t.TempDir()}
	_, err = worker.Run(context.Background(), r, nil)
	require.ErrorIs(t, err, source.ErrNotAllowed)
}
