// Package hostile holds the program against what a stranger may hand it: over a
// hundred and fifty generated folders, repositories and archives, each surveyed
// by the program itself with limits on memory and time. `make test` runs every
// seventh of them, `make hostile` all.
package hostile

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// Limits on one survey: generous against what any of the inputs needs, and far
// below what one that got out of hand would take.
const (
	patience = 60 * time.Second
	memoryKB = 3 << 20 // of what is written to, in KB as the shell counts it
)

// input is one thing that is surveyed.
type input struct {
	name  string
	build func(t *testing.T, dir string) (path string)
	rev   string // "" as it stands
	// refused says what stands in the error; "" when it must be surveyed.
	refused string
	// said must stand in the survey's notes or problems.
	said string
}

// binary is the program, built once for all.
func binary(t *testing.T) string {
	t.Helper()
	bin, err := filepath.Abs("../bin/jantel")
	require.NoError(t, err)
	if _, err := os.Stat(bin); err != nil {
		t.Skip("bin/jantel is not built; run make build first")
	}
	return bin
}

type survey struct {
	Files []struct {
		Path    string
		Read    *string
		Problem *string
	}
	Notes []struct{ Path, Text string }
}

// run surveys an input in a process of its own under limits.
func run(t *testing.T, bin, path, rev string) (s survey, problem string, code int) {
	t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	args := fmt.Sprintf("ulimit -d %d; exec \"$0\" \"$@\"", memoryKB)
	cmd := exec.CommandContext(ctx, "bash", append([]string{"-c", args, bin, "survey", path, "--format", "json", "--no-cache"}, revision(rev)...)...)
	home := t.TempDir()
	cmd.Env = append(os.Environ(), "HOME="+home, "XDG_CACHE_HOME="+home, "XDG_DATA_HOME="+home, "TMPDIR="+home)
	cmd.WaitDelay = time.Second
	var out, said bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &said
	err := cmd.Run()
	require.NoError(t, ctx.Err(), "it did not end within %s", patience)
	left, globbed := filepath.Glob(filepath.Join(home, "jantel-*"))
	require.NoError(t, globbed)
	require.Empty(t, left, "scratch is left")
	if err == nil {
		require.NoError(t, json.Unmarshal(out.Bytes(), &s))
	}
	return s, said.String(), cmd.ProcessState.ExitCode()
}

func revision(rev string) []string {
	if rev == "" {
		return nil
	}
	return []string{"--rev", rev}
}

func TestNothingAStrangerHandsOverBringsTheProgramDown(t *testing.T) {
	bin := binary(t)
	all := inputs()
	require.GreaterOrEqual(t, len(all), 150)
	names := map[string]bool{}
	for i, in := range all {
		require.False(t, names[in.name], "%q stands twice", in.name)
		names[in.name] = true
		if os.Getenv("HOSTILE") == "" && i%7 != 0 {
			continue
		}
		t.Run(in.name, func(t *testing.T) {
			t.Parallel()
			path := in.build(t, t.TempDir())
			s, problem, code := run(t, bin, path, in.rev)
			require.NotContains(t, problem, "panic", problem)
			require.NotContains(t, problem, "goroutine", problem)
			if in.refused != "" {
				require.Equal(t, 2, code, problem)
				require.Contains(t, problem, in.refused)
				require.Equal(t, 1, strings.Count(strings.TrimSpace(problem), "\n")+1, "one line: %s", problem)
				return
			}
			require.Zero(t, code, problem)
			require.NotEmpty(t, s.Files)
			if in.said != "" {
				require.Contains(t, words(s), in.said)
			}
		})
	}
}

func words(s survey) string {
	var b strings.Builder
	for _, n := range s.Notes {
		b.WriteString(n.Path + ": " + n.Text + "\n")
	}
	for _, f := range s.Files {
		if f.Problem != nil {
			b.WriteString(f.Path + ": " + *f.Problem + "\n")
		}
	}
	return b.String()
}
