package source

import (
	"bufio"
	"bytes"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"time"

	"jantel/core/history"
	"jantel/core/model"

	"golang.org/x/sync/errgroup"
)

// runGit starts the real git on a scratch directory of our own. A surveyed
// repository's configuration, hooks and attributes are never loaded: git can
// be made to run programs by any of them.
func runGit(ctx context.Context, scratch, workTree string, args ...string) *exec.Cmd {
	cmd := exec.CommandContext(ctx, "git", args...)
	cmd.WaitDelay = 2 * time.Second // a pipe that somebody else holds open ends nothing
	cmd.Env = []string{
		"PATH=" + os.Getenv("PATH"),
		"HOME=" + scratch,
		"XDG_CONFIG_HOME=" + scratch,
		"LC_ALL=C",
		"GIT_DIR=" + scratch,
		"GIT_CONFIG_NOSYSTEM=1",
		"GIT_CONFIG_GLOBAL=/dev/null",
		"GIT_ATTR_NOSYSTEM=1",
		"GIT_ALLOW_PROTOCOL=",
		"GIT_NO_LAZY_FETCH=1",
		"GIT_TERMINAL_PROMPT=0",
		"GIT_OPTIONAL_LOCKS=0",
		"GIT_NO_REPLACE_OBJECTS=1",
		"GIT_PAGER=cat",
		"GIT_ALLOC_LIMIT=1g", // of one object; a tree or commit of that size is none
	}
	if workTree != "" {
		cmd.Env = append(cmd.Env, "GIT_WORK_TREE="+workTree)
		cmd.Dir = workTree
	} else {
		cmd.Dir = scratch
	}
	return cmd
}

func gitOutput(cmd *exec.Cmd) ([]byte, error) {
	var errText bytes.Buffer
	cmd.Stderr = &errText
	out, err := cmd.Output()
	if errors.Is(err, exec.ErrNotFound) {
		return nil, errors.New("git is not installed; install git and try again")
	}
	if err != nil {
		return nil, fmt.Errorf("git %s: %w: %s", cmd.Args[1], err, firstLine(errText.String()))
	}
	return out, nil
}

func firstLine(s string) string {
	s, _, _ = strings.Cut(strings.TrimSpace(s), "\n")
	return s
}

// newScratch makes an empty bare Git directory with our own configuration.
// objects, when not "", is the object store it borrows from.
func newScratch(objects, format string) (string, error) {
	dir, err := makeScratch()
	if err != nil {
		return "", fmt.Errorf("a scratch folder for git can not be made: %w", err)
	}
	fail := func(err error) (string, error) {
		_ = dropScratch(dir)
		return "", fmt.Errorf("a scratch folder for git can not be filled: %w", err)
	}
	for _, d := range []string{"objects/info", "refs", "info"} {
		if err := os.MkdirAll(filepath.Join(dir, d), 0o700); err != nil {
			return fail(err)
		}
	}
	config := "[core]\n\trepositoryformatversion = 0\n\tfsmonitor = false\n\thooksPath = /dev/null\n\tquotePath = false\n"
	if format == "sha256" {
		config = strings.Replace(config, "= 0\n", "= 1\n", 1) + "[extensions]\n\tobjectformat = sha256\n"
	}
	files := map[string]string{"config": config, "HEAD": "ref: refs/heads/scratch\n"}
	if objects != "" {
		if strings.ContainsAny(objects, "\n\"") {
			return fail(errors.New("the path of the repository holds a line break or a quote"))
		}
		files["objects/info/alternates"] = objects + "\n"
	}
	for name, text := range files {
		if err := os.WriteFile(filepath.Join(dir, name), []byte(text), 0o600); err != nil {
			return fail(err)
		}
	}
	return dir, nil
}

// listUnignored names all files below dir that its .gitignore files let
// through, as git itself understands them; a nested repository ends in "/".
// Where git would open something by itself that is no regular file it is not
// asked, and everything is listed.
func listUnignored(ctx context.Context, dir string) ([]string, []model.Note, error) {
	w, err := walk(dir)
	if err != nil {
		return nil, nil, err
	}
	if w.odd != nil {
		return w.unignored(), w.notes(), nil
	}
	scratch, err := newScratch("", "")
	if err != nil {
		return nil, nil, err
	}
	defer func() { _ = dropScratch(scratch) }()
	out, err := gitOutput(runGit(ctx, scratch, dir, "ls-files", "-z", "--others", "--exclude-per-directory=.gitignore"))
	if err != nil {
		return nil, nil, fmt.Errorf("%s can not be listed: %w", dir, err)
	}
	names := strings.Split(string(out), "\x00")
	kept := names[:0]
	for _, n := range names {
		if n != "" {
			kept = append(kept, n)
		}
	}
	return kept, w.notes(), nil
}

func isBare(dir string) bool {
	for _, n := range []string{"HEAD", "objects", "refs"} {
		if _, err := os.Lstat(filepath.Join(dir, n)); err != nil {
			return false
		}
	}
	_, err := os.Lstat(filepath.Join(dir, ".git"))
	return err != nil
}

type gitSource struct {
	scratch string
	limits  Limits
	origin  model.Origin
	dir     string
}

var objectFormat = regexp.MustCompile(`(?mi)^\s*objectformat\s*=\s*sha256\s*$`)

// repository is where the parts of a repository lie.
type repository struct {
	gitDir string
	common string   // what all work trees share
	stores []string // of objects: its own, then what it borrows from
}

// findRepository finds the parts of the repository of a folder, and refuses
// one that leads out of the allowed folders.
func findRepository(dir string, allow []string) (*repository, error) {
	gitDir, err := gitDirOf(dir, allow)
	if err != nil {
		return nil, err
	}
	common := gitDir
	if p, err := readWord(filepath.Join(gitDir, "commondir"), maxGitText); err == nil {
		if !filepath.IsAbs(p) {
			p = filepath.Join(gitDir, p)
		}
		if common, err = insideAllowed(p, dir, allow); err != nil {
			return nil, fmt.Errorf("the repository's commondir: %w", err)
		}
	} else if !absent(err) {
		return nil, fmt.Errorf("%w: the repository's commondir can not be read: %s", ErrNotCodebase, reason(err))
	}
	objects, err := insideAllowed(filepath.Join(common, "objects"), dir, allow)
	if err != nil {
		return nil, fmt.Errorf("the repository's objects: %w", err)
	}
	r := &repository{gitDir: gitDir, common: common}
	return r, r.checkObjects(objects, dir, allow, 0)
}

func openGit(ctx context.Context, dir, rev string, allow []string, l Limits) (_ Source, err error) {
	r, err := findRepository(dir, allow)
	if err != nil {
		return nil, err
	}
	format := ""
	if text, err := readRegular(filepath.Join(r.common, "config"), maxGitConfig); err == nil && objectFormat.Match(text) {
		format = "sha256"
	}
	scratch, err := newScratch(r.stores[0], format)
	if err != nil {
		return nil, err
	}
	defer func() {
		if err != nil {
			_ = dropScratch(scratch)
		}
	}()
	if err := copyRefs(r.gitDir, r.common, scratch); err != nil {
		return nil, err
	}
	if rev == "" {
		rev = "HEAD"
	}
	id, err := resolveRevision(ctx, scratch, dir, rev)
	if err != nil {
		return nil, err
	}
	s := &gitSource{scratch: scratch, limits: l, dir: dir}
	s.origin = model.Origin{Kind: "git", Revision: id, Label: rev}
	// %x00 apart, so that a hostile subject can not pose as a date.
	out, err := gitOutput(runGit(ctx, scratch, "", "log", "-1", "--no-show-signature", "--format=%s%x00%an%x00%aI", "--end-of-options", id))
	if err != nil {
		return nil, fmt.Errorf("%w: the commit %s can not be read: %v", ErrNotCodebase, id, err)
	}
	if f := strings.SplitN(strings.TrimRight(string(out), "\n"), "\x00", 3); len(f) == 3 {
		s.origin.Subject, s.origin.Author, s.origin.Date = strings.ToValidUTF8(f[0], "?"), strings.ToValidUTF8(f[1], "?"), f[2]
	}
	return s, nil
}

func resolveRevision(ctx context.Context, scratch, dir, rev string) (string, error) {
	if strings.HasPrefix(rev, "-") || strings.ContainsAny(rev, "\x00\n") {
		return "", fmt.Errorf("%w: %q is not the name of a revision", ErrNotCodebase, rev)
	}
	out, err := gitOutput(runGit(ctx, scratch, "", "rev-parse", "--verify", "--quiet", "--end-of-options", rev+"^{commit}"))
	if err != nil {
		if refs, e := os.ReadFile(filepath.Join(scratch, "packed-refs")); e == nil && len(refs) == 0 {
			return "", fmt.Errorf("%w: the repository in %s has no commit yet", ErrNotCodebase, dir)
		}
		return "", fmt.Errorf("%w: %s has no revision %q; give a branch, a tag or a commit", ErrNotCodebase, dir, rev)
	}
	// Newer and older gits differ in whether they echo --end-of-options.
	lines := strings.Fields(string(out))
	return lines[len(lines)-1], nil
}

// gitDirOf finds the Git directory of a folder without asking git.
func gitDirOf(dir string, allow []string) (string, error) {
	if isBare(dir) {
		return dir, nil
	}
	p := filepath.Join(dir, ".git")
	info, err := os.Stat(p)
	if err != nil {
		return "", fmt.Errorf("%w: %s is not a Git repository, so it has no revisions", ErrNotCodebase, dir)
	}
	if info.IsDir() {
		return insideAllowed(p, dir, allow)
	}
	text, err := readWord(p, maxGitText)
	rest, ok := strings.CutPrefix(text, "gitdir:")
	if err != nil || !ok {
		return "", fmt.Errorf("%w: %s is neither a Git directory nor points to one", ErrNotCodebase, p)
	}
	target := strings.TrimSpace(rest)
	if !filepath.IsAbs(target) {
		target = filepath.Join(dir, target)
	}
	return insideAllowed(target, dir, allow)
}

// insideAllowed resolves a path that a repository names and refuses it when
// it leaves the allowed folders; without any, that is the repository's own: a
// stranger's repository must not lead to its neighbours.
func insideAllowed(p, dir string, allow []string) (string, error) {
	if len(allow) > 0 {
		return Resolve(p, allow)
	}
	real, err := Resolve(p, nil)
	if err != nil || !allowed(real, []string{dir}) {
		return "", fmt.Errorf("%w: %s leads out of %s; survey the repository it leads to instead", ErrNotAllowed, p, dir)
	}
	return real, nil
}

// checkObjects refuses an object store that reads from elsewhere, through a
// link or through alternates of its own, and one in which git would open what
// is no regular file.
func (r *repository) checkObjects(objects, dir string, allow []string, depth int) error {
	r.stores = append(r.stores, objects)
	if depth > 5 {
		return fmt.Errorf("%w: the repository's alternates go round", ErrNotCodebase)
	}
	seen := 0
	err := filepath.WalkDir(objects, func(p string, it os.DirEntry, err error) error {
		if seen++; seen > maxObjects {
			return fmt.Errorf("%w: the repository has more than %d loose objects and packs", ErrNotCodebase, maxObjects)
		}
		switch {
		case err != nil, it.IsDir(), it.Type().IsRegular():
			return nil // what can not be read, git can not read either
		case it.Type()&os.ModeSymlink != 0:
			return fmt.Errorf("%w: the repository's object store holds a link, %s", ErrNotAllowed, p)
		}
		return fmt.Errorf("%w: the repository's object store holds a %s, %s", ErrNotCodebase, specialKind(it.Type()), p)
	})
	if err != nil {
		return err
	}
	text, err := readRegular(filepath.Join(objects, "info", "alternates"), maxGitText)
	if absent(err) {
		return nil
	}
	if err != nil {
		return fmt.Errorf("%w: the repository's alternates can not be read: %s", ErrNotCodebase, reason(err))
	}
	for line := range strings.Lines(string(text)) {
		line = strings.TrimSpace(line)
		if line == "" || strings.HasPrefix(line, "#") {
			continue
		}
		if !filepath.IsAbs(line) {
			line = filepath.Join(objects, line)
		}
		next, err := insideAllowed(line, dir, allow)
		if err != nil {
			return fmt.Errorf("the repository borrows objects: %w", err)
		}
		if err := r.checkObjects(next, dir, allow, depth+1); err != nil {
			return err
		}
	}
	return nil
}

var (
	refName  = regexp.MustCompile(`^refs/[^\x00-\x20~^:?*\[\\]+$`)
	objectID = regexp.MustCompile(`^[0-9a-f]{40}([0-9a-f]{24})?$`)
)

// copyRefs reads the repository's refs ourselves and writes them to the
// scratch directory, so that git can resolve names there.
func copyRefs(gitDir, common, scratch string) error {
	refs := map[string]string{}
	packed, err := readRegular(filepath.Join(common, "packed-refs"), maxGitRefs)
	if err != nil && !absent(err) {
		return fmt.Errorf("%w: the repository's packed-refs can not be read: %s", ErrNotCodebase, reason(err))
	}
	for line := range strings.Lines(string(packed)) {
		id, name, ok := strings.Cut(strings.TrimSpace(line), " ")
		if ok && objectID.MatchString(id) && safeRef(name) {
			refs[name] = id
		}
	}
	seen := 0
	for _, base := range []string{common, gitDir} {
		err := filepath.WalkDir(filepath.Join(base, "refs"), func(p string, d os.DirEntry, err error) error {
			if seen++; seen > maxRefs {
				return fmt.Errorf("%w: the repository has more than %d refs that are files of their own", ErrNotCodebase, maxRefs)
			}
			if err != nil || !d.Type().IsRegular() {
				return nil
			}
			name, _ := filepath.Rel(base, p)
			text, err := readWord(p, maxRef)
			if err == nil && safeRef(name) && objectID.MatchString(text) {
				refs[name] = text
			}
			return nil
		})
		if err != nil {
			return err
		}
		if common == gitDir {
			break
		}
	}
	var b strings.Builder
	for _, n := range sortedKeys(refs) {
		fmt.Fprintf(&b, "%s %s\n", refs[n], n)
	}
	if err := os.WriteFile(filepath.Join(scratch, "packed-refs"), []byte(b.String()), 0o600); err != nil {
		return err
	}
	head, err := readWord(filepath.Join(gitDir, "HEAD"), maxRef)
	if err == nil && (objectID.MatchString(head) || safeRef(strings.TrimSpace(strings.TrimPrefix(head, "ref:")))) {
		if err := os.WriteFile(filepath.Join(scratch, "HEAD"), []byte(head+"\n"), 0o600); err != nil {
			return err
		}
	}
	text, err := readRegular(filepath.Join(common, "shallow"), maxShallow)
	if absent(err) {
		return nil
	}
	if err != nil {
		return fmt.Errorf("%w: the repository's list of shallow commits can not be read: %s", ErrNotCodebase, reason(err))
	}
	return os.WriteFile(filepath.Join(scratch, "shallow"), text, 0o600)
}

func safeRef(n string) bool { return refName.MatchString(n) && !strings.Contains(n, "..") }

func (s *gitSource) Origin() model.Origin { return s.origin }
func (s *gitSource) Close() error         { return dropScratch(s.scratch) }

// History implements Historian: one log, renames found, nothing of the
// repository's own configuration, attributes or mail map used.
func (s *gitSource) History(ctx context.Context) (io.ReadCloser, string, error) {
	cut := ""
	if _, err := os.Stat(filepath.Join(s.scratch, "shallow")); err == nil {
		cut = "the repository is a shallow clone: older commits are missing"
	}
	cmd := runGit(
		ctx, s.scratch, "", "log", "-z", "--name-status", "-M", "--no-ext-diff", "--no-textconv",
		"--no-show-signature", "--no-mailmap", "--no-color", "-n", strconv.Itoa(MaxCommits),
		"--format="+history.Format, "--end-of-options", s.origin.Revision,
	)
	var said bytes.Buffer
	cmd.Stderr = &said
	out, err := cmd.StdoutPipe()
	if err != nil {
		return nil, "", err
	}
	if err := cmd.Start(); err != nil {
		return nil, "", fmt.Errorf("git can not be started: %w", err)
	}
	return &running{out, cmd, &said}, cut, nil
}

// running is the output of a command; Close waits for its end.
type running struct {
	io.Reader
	cmd  *exec.Cmd
	said *bytes.Buffer
}

func (r *running) Close() error {
	_, _ = io.Copy(io.Discard, r.Reader)
	if err := r.cmd.Wait(); err != nil {
		return fmt.Errorf("git log: %w: %s", err, firstLine(r.said.String()))
	}
	return nil
}

func (s *gitSource) List(ctx context.Context) (Listing, error) {
	out, err := gitOutput(runGit(ctx, s.scratch, "", "ls-tree", "-r", "-z", "-l", "--full-tree", s.origin.Revision))
	if err != nil {
		return Listing{}, fmt.Errorf("%w: the tree of %s can not be read: %v", ErrNotCodebase, s.origin.Revision, err)
	}
	var l Listing
	for rec := range strings.SplitSeq(string(out), "\x00") {
		meta, name, ok := strings.Cut(rec, "\t")
		f := strings.Fields(meta)
		if !ok || len(f) != 4 {
			continue
		}
		switch {
		case f[0] == "120000":
			l.Notes = append(l.Notes, model.Note{Path: EncodeName(name), Text: "a symbolic link, not followed"})
		case f[1] == "commit":
			l.Notes = append(l.Notes, model.Note{Path: EncodeName(name), Text: "a repository of its own (submodule), not followed"})
		case f[1] == "blob":
			size, err := strconv.ParseInt(f[3], 10, 64)
			if err != nil {
				l.Notes = append(l.Notes, model.Note{
					Path: EncodeName(name), Text: "its object is missing from the repository (a partial clone?)",
				})
				continue
			}
			l.Entries = append(l.Entries, Entry{Path: EncodeName(name), raw: name, Size: size, Stamp: Stamp{Blob: f[2]}})
		}
	}
	if len(l.Entries) == 0 {
		return Listing{}, fmt.Errorf("%w: revision %s of %s holds no files", ErrNotCodebase, s.origin.Label, s.dir)
	}
	sortEntries(l.Entries)
	entries, more := limit(l.Entries, s.limits)
	l.Entries, l.Notes = entries, append(l.Notes, more...)
	l.Notes = sortNotes(l.Notes)
	return l, nil
}

func (s *gitSource) Read(ctx context.Context, entries []Entry, fn func(Entry, []byte, error) error) error {
	wanted := entries[:0:0]
	for _, e := range entries {
		if e.Size > s.limits.FileBytes {
			if err := fn(e, nil, errTooLarge); err != nil {
				return err
			}
			continue
		}
		wanted = append(wanted, e)
	}
	if len(wanted) == 0 {
		return nil
	}
	ctx, cancel := context.WithCancel(ctx)
	defer cancel()
	cmd := runGit(ctx, s.scratch, "", "cat-file", "--batch")
	in, err := cmd.StdinPipe()
	if err != nil {
		return err
	}
	out, err := cmd.StdoutPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return fmt.Errorf("git can not be started: %w", err)
	}
	go func() {
		w := bufio.NewWriter(in)
		for _, e := range wanted {
			if _, err := w.WriteString(e.Stamp.Blob + "\n"); err != nil {
				break
			}
		}
		_ = w.Flush()
		_ = in.Close()
	}()
	g, gctx := errgroup.WithContext(ctx)
	g.SetLimit(readers)
	r := bufio.NewReaderSize(out, 1<<20)
	readErr := func() error {
		for _, e := range wanted {
			if gctx.Err() != nil {
				return nil
			}
			head, err := r.ReadString('\n')
			if err != nil {
				return fmt.Errorf("git stopped in the middle of the objects: %w", err)
			}
			f := strings.Fields(head)
			if len(f) != 3 || f[1] != "blob" {
				g.Go(func() error { return fn(e, nil, errors.New("its object is missing from the repository")) })
				continue
			}
			n, err := strconv.ParseInt(f[2], 10, 64)
			if err != nil || n > s.limits.FileBytes {
				return fmt.Errorf("git announced an object of %q bytes", f[2])
			}
			data := make([]byte, n+1)
			if _, err := io.ReadFull(r, data); err != nil {
				return fmt.Errorf("git stopped in the middle of an object: %w", err)
			}
			g.Go(func() error { return fn(e, data[:n], nil) })
		}
		return nil
	}()
	err = g.Wait()
	cancel()
	_ = cmd.Wait()
	return errors.Join(err, readErr)
}
