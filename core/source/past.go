package source

import (
	"bufio"
	"context"
	"fmt"
	"strconv"
	"strings"
	"time"
)

// Commit is a revision of a repository with the time it was made.
type Commit struct {
	Revision string    `json:"revision"`
	At       time.Time `json:"at"`
}

// Past is a source that knows the revisions its own came from.
type Past interface {
	// Past lists at most so many revisions from the first to the source's own, along
	// the first parents, as far apart from each other as they can be.
	Past(ctx context.Context, most int) ([]Commit, error)
}

// Past implements the interface of that name.
func (s *gitSource) Past(ctx context.Context, most int) ([]Commit, error) {
	cmd := runGit(
		ctx, s.scratch, "", "log", "--first-parent", "--no-color", "--no-show-signature", "-n", strconv.Itoa(MaxCommits),
		"--format=%H %ct", "--end-of-options", s.origin.Revision,
	)
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, err
	}
	if err := cmd.Start(); err != nil {
		return nil, fmt.Errorf("git can not be started: %w", err)
	}
	var all []Commit // the newest first
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		hash, when, ok := strings.Cut(lines.Text(), " ")
		seconds, err := strconv.ParseInt(strings.TrimSpace(when), 10, 64)
		if ok && err == nil && objectID.MatchString(hash) {
			all = append(all, Commit{hash, time.Unix(seconds, 0).UTC()})
		}
	}
	if err := cmd.Wait(); err != nil {
		return nil, fmt.Errorf("the history can not be read: %w", err)
	}
	return spread(all, most), nil
}

// spread picks at most so many of some, evenly, the first and the last among them,
// and turns them round.
func spread[T any](all []T, most int) []T {
	n := min(most, len(all))
	out := make([]T, 0, n)
	for i := range n {
		at := 0
		if n > 1 {
			at = (len(all) - 1) * (n - 1 - i) / (n - 1)
		}
		out = append(out, all[at])
	}
	return out
}
