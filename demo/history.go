package demo

import (
	"bytes"
	"context"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"sort"
	"strings"
	"time"

	"golang.org/x/tools/txtar"
)

//go:embed history
var history embed.FS

// commit is one step of the demo's history: its head and the files it writes.
type commit struct {
	author, message, tag string
	at                   time.Time
	deleted              []string
	files                []txtar.File
}

// commits reads the history, oldest first.
func commits() ([]commit, error) {
	names, err := fs.Glob(history, "history/*.txtar")
	if err != nil {
		return nil, err
	}
	sort.Strings(names)
	var out []commit
	for _, n := range names {
		text, err := history.ReadFile(n)
		if err != nil {
			return nil, err
		}
		ar := txtar.Parse(text)
		c := commit{files: ar.Files}
		for line := range strings.Lines(string(ar.Comment)) {
			key, value, ok := strings.Cut(strings.TrimSpace(line), ": ")
			if !ok {
				continue
			}
			switch key {
			case "author":
				c.author = value
			case "date":
				if c.at, err = time.Parse("2006-01-02T15:04:05Z07:00", value); err != nil {
					return nil, fmt.Errorf("%s: %w", n, err)
				}
			case "message":
				c.message = value
			case "tag":
				c.tag = value
			case "delete":
				c.deleted = append(c.deleted, value)
			default:
				return nil, fmt.Errorf("%s: the head has no field %q", n, key)
			}
		}
		if c.author == "" || c.message == "" || c.at.IsZero() {
			return nil, fmt.Errorf("%s: the head must name author, date and message", n)
		}
		out = append(out, c)
	}
	return out, nil
}

// stream writes the history in the form that git fast-import reads; the same
// text gives the same hashes everywhere.
func stream(cs []commit) []byte {
	var b bytes.Buffer
	for _, c := range cs {
		when := fmt.Sprintf("%d %s", c.at.Unix(), c.at.Format("-0700"))
		fmt.Fprintf(
			&b, "commit refs/heads/main\nauthor %s %s\ncommitter %s %s\ndata %d\n%s\n", c.author, when, c.author,
			when, len(c.message)+1, c.message+"\n",
		)
		for _, d := range c.deleted {
			fmt.Fprintf(&b, "D %s\n", d)
		}
		for _, f := range c.files {
			fmt.Fprintf(&b, "M 100644 inline %s\ndata %d\n%s\n", f.Name, len(f.Data), f.Data)
		}
		if c.tag != "" {
			fmt.Fprintf(&b, "reset refs/tags/%s\nfrom refs/heads/main\n\n", c.tag)
		}
	}
	b.WriteString("done\n")
	return b.Bytes()
}

func git(ctx context.Context, dir string, in []byte, args ...string) error {
	cmd := exec.CommandContext(ctx, "git", args...)
	cmd.Dir = dir
	cmd.Stdin = bytes.NewReader(in)
	// Nothing of the reader's own configuration may change the hashes.
	cmd.Env = append(
		os.Environ(), "GIT_CONFIG_NOSYSTEM=1", "GIT_CONFIG_GLOBAL=/dev/null", "GIT_DIR="+filepath.Join(dir, ".git"),
		"GIT_WORK_TREE="+dir,
	)
	out, err := cmd.CombinedOutput()
	if errors.Is(err, exec.ErrNotFound) {
		return errors.New("git is not installed; install git and try again")
	}
	if err != nil {
		return fmt.Errorf("git %s: %w: %s", args[0], err, strings.TrimSpace(string(out)))
	}
	return nil
}

// Make builds the demo's repository in dir; one that is there already, whole,
// is kept.
func Make(ctx context.Context, dir string) error {
	if _, err := os.Stat(filepath.Join(dir, ".git", "made")); err == nil {
		return nil
	}
	cs, err := commits()
	if err != nil {
		return fmt.Errorf("the demo's history can not be read: %w", err)
	}
	if err := os.RemoveAll(dir); err != nil {
		return fmt.Errorf("the demo's folder can not be cleared: %w", err)
	}
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return fmt.Errorf("the demo's folder can not be made: %w", err)
	}
	for _, step := range []struct {
		in   []byte
		args []string
	}{
		{nil, []string{"init", "--quiet", "--initial-branch=main"}},
		{stream(cs), []string{"fast-import", "--quiet", "--done"}},
		{nil, []string{"reset", "--quiet", "--hard", "main"}},
	} {
		if err := git(ctx, dir, step.in, step.args...); err != nil {
			return fmt.Errorf("the demo's repository can not be made: %w", err)
		}
	}
	// Written last: a repository without it is made again.
	return os.WriteFile(filepath.Join(dir, ".git", "made"), []byte("whole\n"), 0o644)
}
