package hostile

import (
	"archive/tar"
	"archive/zip"
	"bytes"
	"compress/gzip"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"

	"github.com/klauspost/compress/zstd"
	"github.com/stretchr/testify/require"
)

func write(t *testing.T, p, text string) {
	t.Helper()
	require.NoError(t, os.MkdirAll(filepath.Dir(p), 0o755))
	require.NoError(t, os.WriteFile(p, []byte(text), 0o644))
}

func git(t *testing.T, dir string, args ...string) string {
	t.Helper()
	cmd := exec.Command("git", append([]string{"-C", dir, "-c", "user.name=a", "-c", "user.email=a@b", "-c", "init.defaultBranch=main"}, args...)...)
	cmd.Env = append(os.Environ(), "GIT_CONFIG_GLOBAL=/dev/null", "GIT_CONFIG_NOSYSTEM=1")
	out, err := cmd.CombinedOutput()
	require.NoError(t, err, string(out))
	return strings.TrimSpace(string(out))
}

// repository is a folder with one commit.
func repository(t *testing.T, dir string) string {
	write(t, filepath.Join(dir, "lots.go"), "package lots\n\nfunc Weigh() {}\n")
	git(t, dir, "init", "-q")
	git(t, dir, "add", "-A")
	git(t, dir, "commit", "-q", "-m", "first")
	return dir
}

// put are ways in which something is no file like others.
var put = map[string]func(t *testing.T, p string){
	"a pipe":             func(t *testing.T, p string) { require.NoError(t, syscall.Mkfifo(p, 0o644)) },
	"a link to a device": func(t *testing.T, p string) { require.NoError(t, os.Symlink("/dev/zero", p)) },
	"a sparse file": func(t *testing.T, p string) {
		h, err := os.Create(p)
		require.NoError(t, err)
		require.NoError(t, h.Truncate(5<<30))
		require.NoError(t, h.Close())
	},
	"a link that goes round": func(t *testing.T, p string) { require.NoError(t, os.Symlink(filepath.Base(p), p)) },
	"a folder":               func(t *testing.T, p string) { require.NoError(t, os.Mkdir(p, 0o755)) },
}

// odd replaces a path below a folder.
func odd(t *testing.T, dir, at, kind string) {
	p := filepath.Join(dir, at)
	require.NoError(t, os.MkdirAll(filepath.Dir(p), 0o755))
	_ = os.RemoveAll(p)
	put[kind](t, p)
}

// inputs lists everything that is handed over.
func inputs() (all []input) {
	all = append(all, oddFiles()...)
	all = append(all, oddRepositories()...)
	all = append(all, slowTexts()...)
	all = append(all, oddTexts()...)
	all = append(all, archives()...)
	return append(all, folders()...)
}

// oddFiles stand in a plain folder.
func oddFiles() (all []input) {
	for _, at := range []string{".gitignore", "box/.gitignore", "lots.py", "jantel.yaml", "package.json", "README.md", "box/.git/HEAD", "box/.git/commondir", "box/.git", ".git/HEAD", ".git"} {
		for kind := range put {
			all = append(all, input{name: kind + " as " + at, build: func(t *testing.T, dir string) string {
				write(t, filepath.Join(dir, "lots.go"), "package lots\n")
				write(t, filepath.Join(dir, "box", "box.go"), "package box\n")
				odd(t, dir, at, kind)
				return dir
			}})
		}
	}
	return all
}

// oddRepositories are asked for a revision: what git would open is no file.
func oddRepositories() (all []input) {
	for _, at := range []string{".git/packed-refs", ".git/shallow", ".git/commondir", ".git/objects/info/alternates", ".git/objects/pack/pack-1.idx", ".git/objects/info/commit-graph"} {
		for _, kind := range []string{"a pipe", "a link to a device", "a sparse file"} {
			refused := "repository"
			if at == ".git/objects/pack/pack-1.idx" && kind == "a sparse file" || at == ".git/objects/info/commit-graph" && kind == "a sparse file" {
				refused = "" // git sees by its head that it is none
			}
			all = append(all, input{name: "a revision with " + kind + " as " + at, rev: "HEAD", refused: refused, build: func(t *testing.T, dir string) string {
				repository(t, dir)
				odd(t, dir, at, kind)
				return dir
			}})
		}
	}
	neighbour := func(t *testing.T, dir string) (secret, mine string) {
		secret, mine = filepath.Join(dir, "secret"), filepath.Join(dir, "mine")
		require.NoError(t, os.MkdirAll(secret, 0o755))
		repository(t, secret)
		write(t, filepath.Join(mine, "a.go"), "package a\n")
		return secret, mine
	}
	return append(all,
		input{name: "a gitdir file that leads to a neighbour", rev: "HEAD", refused: "leads out of", build: func(t *testing.T, dir string) string {
			secret, mine := neighbour(t, dir)
			write(t, filepath.Join(mine, ".git"), "gitdir: "+secret+"/.git\n")
			return mine
		}},
		input{name: "alternates that lead to a neighbour", rev: "HEAD", refused: "leads out of", build: func(t *testing.T, dir string) string {
			secret, mine := neighbour(t, dir)
			git(t, mine, "init", "-q")
			write(t, filepath.Join(mine, ".git/objects/info/alternates"), secret+"/.git/objects\n")
			return mine
		}},
		input{name: "alternates that go round", rev: "HEAD", refused: "go round", build: func(t *testing.T, dir string) string {
			repository(t, dir)
			write(t, filepath.Join(dir, ".git/objects/info/alternates"), dir+"/.git/objects\n")
			return dir
		}},
		input{name: "a configuration that runs programs", rev: "HEAD", build: func(t *testing.T, dir string) string {
			repository(t, dir)
			for _, k := range []string{"core.fsmonitor", "core.sshCommand", "gpg.program", "core.pager", "diff.external"} {
				git(t, dir, "config", k, "touch "+filepath.Join(dir, "..", "ran"))
			}
			return dir
		}},
		input{name: "a hundred thousand refs", rev: "HEAD", build: func(t *testing.T, dir string) string {
			repository(t, dir)
			id := git(t, dir, "rev-parse", "HEAD")
			var b strings.Builder
			for i := range 100_000 {
				fmt.Fprintf(&b, "%s refs/tags/t%d\n", id, i)
			}
			write(t, filepath.Join(dir, ".git/packed-refs"), b.String())
			return dir
		}},
		input{name: "a commit of a hundred megabytes", rev: "HEAD", build: func(t *testing.T, dir string) string {
			repository(t, dir)
			write(t, filepath.Join(dir, ".git/message"), strings.Repeat("seed ", 4<<20))
			git(t, dir, "commit", "-q", "--allow-empty", "-F", ".git/message")
			return dir
		}},
		input{name: "an object that is damaged", rev: "HEAD", refused: "can not be read", build: func(t *testing.T, dir string) string {
			repository(t, dir)
			id := git(t, dir, "rev-parse", "HEAD^{tree}")
			p := filepath.Join(dir, ".git/objects", id[:2], id[2:])
			require.NoError(t, os.Chmod(p, 0o644))
			write(t, p, "not an object")
			return dir
		}},
	)
}

// slowTexts were made to be slow: each is read or given up in time.
func slowTexts() (all []input) {
	pieces := map[string]string{
		"open brackets": "([{", "open angles": "a<", "open templates": "`${", "open texts": "\"#{", "heredocs": "<<A;", "raw texts": "R\"x(", "nested types": "class A { ", "tags": "<a b=", "comments": "/* ", "links": "[![a](", "questions": "a?b:", "backslashes": "\\'", "arrows": "f(() => {", "names": "a.b(c,",
	}
	files := []string{"a.rb", "a.pl", "a.ts", "a.tsx", "a.csproj", "README.md", "a.c", "a.cpp", "a.cs", "A.java", "a.kt", "a.php", "a.py", "a.rs", "a.erb", "pyproject.toml", "docker-compose.yml"}
	for what, piece := range pieces {
		all = append(all, input{name: "a megabyte of " + what + " for every reader", build: func(t *testing.T, dir string) string {
			line := strings.Repeat(piece, 90/len(piece)) + "\n"
			for _, f := range files {
				write(t, filepath.Join(dir, f), strings.Repeat(line, 1<<20/len(line)))
			}
			return dir
		}})
	}
	return all
}

// oddTexts are odd in their bytes.
func oddTexts() (all []input) {
	for what, text := range map[string]string{
		"UTF-16":                 "\xff\xfeo\x00n\x00e\x00\n\x00",
		"half of UTF-16":         "\xff\xfeo",
		"zeros":                  strings.Repeat("\x00", 1<<20),
		"control signs":          "\x01\x02\x1b[31m\x7f\n",
		"carriage returns alone": strings.Repeat("a = 1\r", 50_000),
		"one line of megabytes":  strings.Repeat("a=1;", 2<<20),
		"nothing":                "",
		"a mark alone":           "\xef\xbb\xbf",
		"no last line end":       "package a",
		"latin letters":          "caf\xe9 = 'caf\xe9'\n",
	} {
		all = append(all, input{name: what + " in every kind of file", build: func(t *testing.T, dir string) string {
			for _, f := range []string{"a.go", "a.ts", "a.py", "A.java", "a.cs", "a.php", "a.rb", "a.pl", "a.rs", "a.kt", "a.c", "a.gd", "a.vue", "a.html", "a.sql", "a.css", "README.md", "package.json", "pom.xml", "jantel.yaml", "Makefile"} {
				write(t, filepath.Join(dir, f), text)
			}
			return dir
		}})
	}
	for what, text := range map[string]string{
		"deep JSON": strings.Repeat("[", 100_000), "a YAML bomb": "a: &a [x,x,x,x,x,x,x,x,x]\nb: &b [*a,*a,*a,*a,*a,*a,*a]\nc: &c [*b,*b,*b,*b,*b,*b,*b]\nd: &d [*c,*c,*c,*c,*c,*c]\ne: &e [*d,*d,*d,*d,*d,*d]\nf: [*e,*e,*e,*e,*e,*e]\n",
		"an XML bomb": "<!DOCTYPE a [<!ENTITY b \"seed\"><!ENTITY c \"&b;&b;&b;&b;&b;&b;&b;&b;\"><!ENTITY d \"&c;&c;&c;&c;&c;&c;&c;&c;\">]><a>&d;&d;&d;&d;</a>",
		"a long key":  "{\"" + strings.Repeat("a", 1<<20) + "\": 1}\n",
	} {
		all = append(all, input{name: what + " as every project file", build: func(t *testing.T, dir string) string {
			write(t, filepath.Join(dir, "lots.go"), "package lots\n")
			for _, f := range []string{"package.json", "tsconfig.json", "composer.json", "pom.xml", "a.csproj", "Cargo.toml", "pyproject.toml", "docker-compose.yml", "jantel.yaml", ".gitlab-ci.yml", "go.mod", "a.xaml", "build.gradle"} {
				write(t, filepath.Join(dir, f), text)
			}
			return dir
		}})
	}
	return all
}

type entry struct {
	name, text string
	kind       byte
}

func tarred(t *testing.T, entries []entry) []byte {
	var b bytes.Buffer
	w := tar.NewWriter(&b)
	for _, e := range entries {
		h := &tar.Header{Name: e.name, Mode: 0o644, Size: int64(len(e.text)), Typeflag: e.kind}
		if e.kind == tar.TypeSymlink || e.kind == tar.TypeLink {
			h.Size, h.Linkname = 0, e.text
		}
		require.NoError(t, w.WriteHeader(h))
		if h.Size > 0 {
			_, err := w.Write([]byte(e.text))
			require.NoError(t, err)
		}
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

func packed(name string, refused string, entries func() []entry) []input {
	good := entry{name: "lots.go", text: "package lots\n"}
	list := func() []entry { return append([]entry{good}, entries()...) }
	return []input{
		{name: name + " in a tar", refused: refused, build: func(t *testing.T, dir string) string {
			p := filepath.Join(dir, "a.tar")
			require.NoError(t, os.WriteFile(p, tarred(t, list()), 0o644))
			return p
		}},
		{name: name + " in a tar.gz", refused: refused, build: func(t *testing.T, dir string) string {
			p := filepath.Join(dir, "a.tar.gz")
			var b bytes.Buffer
			z := gzip.NewWriter(&b)
			_, err := z.Write(tarred(t, list()))
			require.NoError(t, err)
			require.NoError(t, z.Close())
			require.NoError(t, os.WriteFile(p, b.Bytes(), 0o644))
			return p
		}},
		{name: name + " in a tar.zst", refused: refused, build: func(t *testing.T, dir string) string {
			p := filepath.Join(dir, "a.tar.zst")
			z, err := zstd.NewWriter(nil)
			require.NoError(t, err)
			require.NoError(t, os.WriteFile(p, z.EncodeAll(tarred(t, list()), nil), 0o644))
			return p
		}},
		{name: name + " in a zip", refused: refused, build: func(t *testing.T, dir string) string {
			p := filepath.Join(dir, "a.zip")
			h, err := os.Create(p)
			require.NoError(t, err)
			z := zip.NewWriter(h)
			for _, e := range list() {
				f := &zip.FileHeader{Name: e.name, Method: zip.Deflate}
				switch e.kind {
				case tar.TypeSymlink:
					f.SetMode(os.ModeSymlink | 0o777)
				case tar.TypeDir:
					f.Name += "/"
					f.Method = zip.Store
				}
				w, err := z.CreateHeader(f)
				require.NoError(t, err)
				_, err = w.Write([]byte(e.text))
				require.NoError(t, err)
			}
			require.NoError(t, z.Close())
			require.NoError(t, h.Close())
			return p
		}},
	}
}

func archives() (all []input) {
	one := func(e entry) func() []entry { return func() []entry { return []entry{e} } }
	all = append(all, packed("a name that climbs", "climbs out", one(entry{name: "../evil.go", text: "x"}))...)
	all = append(all, packed("an absolute name", "is absolute", one(entry{name: "/etc/evil", text: "x"}))...)
	all = append(all, packed("a name twice by case", "are one file", one(entry{name: "LOTS.go", text: "x"}))...)
	all = append(all, packed("a link out", "", one(entry{name: "link.go", text: "/etc/passwd", kind: tar.TypeSymlink}))...)
	all = append(all, packed("two million links", "more than", func() (es []entry) {
		for i := range 1_700_000 {
			es = append(es, entry{name: fmt.Sprintf("l%d", i), text: "lots.go", kind: tar.TypeSymlink})
		}
		return es
	})[1:3]...)
	all = append(all, packed("a file of zeros", "times its size", one(entry{name: "bomb", text: strings.Repeat("\x00", 64<<20)}))[1:]...)
	for _, ending := range []string{".zip", ".tar", ".tar.gz", ".tar.zst"} {
		for what, text := range map[string]string{"nothing": "", "noise": strings.Repeat("seed", 1000), "a head alone": "PK\x03\x04\x1f\x8b\x28\xb5\x2f\xfd"} {
			all = append(all, input{name: what + " as a " + ending, refused: "archive", build: func(t *testing.T, dir string) string {
				p := filepath.Join(dir, "a"+ending)
				require.NoError(t, os.WriteFile(p, []byte(text), 0o644))
				return p
			}})
		}
	}
	return all
}

// folders are odd in how they lie.
func folders() []input {
	return []input{
		{name: "folders three hundred deep", build: func(t *testing.T, dir string) string {
			write(t, filepath.Join(dir, "lots.go"), "package lots\n")
			write(t, filepath.Join(dir, strings.Repeat("a/", 300), "deep.go"), "package deep\n")
			return dir
		}, said: "deeper than"},
		{name: "thirty thousand files in one folder", build: func(t *testing.T, dir string) string {
			for i := range 30_000 {
				require.NoError(t, os.WriteFile(filepath.Join(dir, fmt.Sprintf("f%d.go", i)), []byte("package a\n"), 0o644))
			}
			return dir
		}},
		{name: "names that are no text", build: func(t *testing.T, dir string) string {
			for _, n := range []string{"caf\xe9.go", "a\nb.go", "a\x1b[31m.go", "a\tb.go", "%41.go", "-rf", "--help", " .go", "'\"`$(x).go"} {
				require.NoError(t, os.WriteFile(filepath.Join(dir, n), []byte("package a\n"), 0o644))
			}
			return dir
		}},
		{name: "folders that are repositories", build: func(t *testing.T, dir string) string {
			write(t, filepath.Join(dir, "lots.go"), "package lots\n")
			require.NoError(t, os.MkdirAll(filepath.Join(dir, "inner"), 0o755))
			repository(t, filepath.Join(dir, "inner"))
			return dir
		}, said: "a repository of its own"},
		{name: "a link that leads out", build: func(t *testing.T, dir string) string {
			write(t, filepath.Join(dir, "lots.go"), "package lots\n")
			require.NoError(t, os.Symlink("/etc", filepath.Join(dir, "etc")))
			return dir
		}, said: "a symbolic link, not followed"},
		{name: "a socket", build: func(t *testing.T, dir string) string {
			write(t, filepath.Join(dir, "lots.go"), "package lots\n")
			fd, err := syscall.Socket(syscall.AF_UNIX, syscall.SOCK_STREAM, 0)
			require.NoError(t, err)
			t.Cleanup(func() { _ = syscall.Close(fd) })
			if syscall.Bind(fd, &syscall.SockaddrUnix{Name: filepath.Join(dir, "s")}) != nil {
				t.Skip("the path is too long for a socket")
			}
			return dir
		}},
		{name: "an empty folder", refused: "holds no files", build: func(_ *testing.T, dir string) string { return dir }},
		{name: "a folder of ignored files", refused: "holds no files", build: func(t *testing.T, dir string) string {
			write(t, filepath.Join(dir, ".gitignore"), "*\n")
			return dir
		}},
		{name: "an ignore file of nonsense", build: func(t *testing.T, dir string) string {
			write(t, filepath.Join(dir, "lots.go"), "package lots\n")
			write(t, filepath.Join(dir, ".gitignore"), strings.Repeat("[a-\\**/**/**/**/*?\n", 20_000))
			return dir
		}},
		{name: "files that all import each other", build: func(t *testing.T, dir string) string {
			for i := range 300 {
				var b strings.Builder
				for k := range 300 {
					fmt.Fprintf(&b, "import { a as a%d } from './f%d'\n", k, k)
				}
				write(t, filepath.Join(dir, fmt.Sprintf("f%d.ts", i)), b.String()+"export const a = 1\n")
			}
			return dir
		}},
	}
}
