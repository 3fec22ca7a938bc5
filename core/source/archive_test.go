package source_test

import (
	"archive/tar"
	"archive/zip"
	"bytes"
	"compress/gzip"
	"context"
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"jantel/core/source"

	"github.com/klauspost/compress/zstd"
	"github.com/stretchr/testify/require"
)

type member struct {
	name, text string
	kind       byte // of a tar header; 0 is a plain file
}

func tarOf(t testing.TB, ms []member) []byte {
	t.Helper()
	var b bytes.Buffer
	w := tar.NewWriter(&b)
	for _, m := range ms {
		h := &tar.Header{Name: m.name, Mode: 0o644, Size: int64(len(m.text)), Typeflag: m.kind}
		if m.kind == tar.TypeSymlink || m.kind == tar.TypeLink {
			h.Size, h.Linkname = 0, m.text
		}
		require.NoError(t, w.WriteHeader(h))
		if h.Size > 0 {
			_, err := w.Write([]byte(m.text))
			require.NoError(t, err)
		}
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

func zipOf(t testing.TB, ms []member) []byte {
	t.Helper()
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, m := range ms {
		h := &zip.FileHeader{Name: m.name, Method: zip.Deflate}
		h.SetMode(0o644)
		if m.kind == tar.TypeSymlink {
			h.SetMode(os.ModeSymlink | 0o777)
		}
		f, err := w.CreateHeader(h)
		require.NoError(t, err)
		_, err = f.Write([]byte(m.text))
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

func gz(t testing.TB, data []byte) []byte {
	t.Helper()
	var b bytes.Buffer
	w := gzip.NewWriter(&b)
	_, err := w.Write(data)
	require.NoError(t, err)
	require.NoError(t, w.Close())
	return b.Bytes()
}

func zst(t testing.TB, data []byte, o ...zstd.EOption) []byte {
	t.Helper()
	w, err := zstd.NewWriter(nil, o...)
	require.NoError(t, err)
	return w.EncodeAll(data, nil)
}

// pack writes the members under each kind of archive and returns their paths.
func pack(t testing.TB, ms []member) map[string]string {
	t.Helper()
	dir := t.TempDir()
	out := map[string]string{}
	plain := tarOf(t, ms)
	for ending, data := range map[string][]byte{".tar": plain, ".tar.gz": gz(t, plain), ".tgz": gz(t, plain), ".tar.zst": zst(t, plain), ".zip": zipOf(t, ms)} {
		p := filepath.Join(dir, "seed"+ending)
		require.NoError(t, os.WriteFile(p, data, 0o644))
		out[ending] = p
	}
	return out
}

func TestEveryKindOfArchiveIsRead(t *testing.T) {
	for ending, p := range pack(t, []member{{name: "vault/lots.go", text: "package lots\n"}, {name: "vault/shelf/box.go", text: "package shelf\n"}, {name: "vault/.git/config", text: "[core]\n"}}) {
		t.Run(ending, func(t *testing.T) {
			texts, _, _, src := read(t, source.Request{Path: p})
			require.Equal(t, map[string]string{"lots.go": "package lots\n", "shelf/box.go": "package shelf\n"}, texts, "the folder around everything is left out, and so is .git")
			require.Equal(t, "archive", src.Origin().Kind)
			left, err := os.ReadDir(filepath.Dir(p))
			require.NoError(t, err)
			require.Len(t, left, 5, "nothing is unpacked to disk")
		})
	}
}

func TestAHostileArchiveIsRefusedWhole(t *testing.T) {
	good := member{name: "lots.go", text: "package lots\n"}
	for name, c := range map[string]struct {
		members []member
		says    string
	}{
		"a name that climbs":              {[]member{good, {name: "../evil.go", text: "x"}}, "climbs out"},
		"a name that climbs inside":       {[]member{good, {name: "a/../../evil.go", text: "x"}}, "climbs out"},
		"an absolute name":                {[]member{good, {name: "/etc/evil", text: "x"}}, "is absolute"},
		"a drive":                         {[]member{good, {name: "C:/evil", text: "x"}}, "is absolute"},
		"a backslash":                     {[]member{good, {name: "a\\..\\evil", text: "x"}}, "backslash"},
		"a name twice":                    {[]member{good, good}, "are one file"},
		"a name twice by case":            {[]member{good, {name: "LOTS.go", text: "x"}}, "are one file"},
		"a name twice by composition":     {[]member{{name: "caf\u00e9.go", text: "a"}, {name: "cafe\u0301.go", text: "b"}}, "are one file"},
		"a file that is a folder as well": {[]member{{name: "a", text: "x"}, {name: "a/b", text: "y"}}, "both as a file and as a folder"},
		"nothing":                         {nil, "holds no files"},
		"a repository alone":              {[]member{{name: ".git/HEAD", text: "ref: refs/heads/main"}}, "holds no files"},
	} {
		for ending, p := range pack(t, c.members) {
			t.Run(name+ending, func(t *testing.T) {
				_, err := source.Open(context.Background(), source.Request{Path: p})
				require.ErrorIs(t, err, source.ErrNotCodebase)
				require.ErrorContains(t, err, c.says)
			})
		}
	}
}

func TestLinksAndDevicesInAnArchiveAreNotedAndNotFollowed(t *testing.T) {
	dir := t.TempDir()
	p := filepath.Join(dir, "seed.tar")
	require.NoError(t, os.WriteFile(p, tarOf(t, []member{{name: "lots.go", text: "x\n"}, {"link.go", "/etc/passwd", tar.TypeSymlink}, {"hard.go", "lots.go", tar.TypeLink}, {"pipe", "", tar.TypeFifo}, {"null", "", tar.TypeChar}}), 0o644))
	texts, _, notes, _ := read(t, source.Request{Path: p})
	require.Equal(t, []string{"lots.go"}, keys(texts))
	require.Len(t, notes, 4)
	z := filepath.Join(dir, "seed.zip")
	require.NoError(t, os.WriteFile(z, zipOf(t, []member{{name: "lots.go", text: "x\n"}, {"link.go", "/etc/passwd", tar.TypeSymlink}}), 0o644))
	texts, _, notes, _ = read(t, source.Request{Path: z})
	require.Equal(t, []string{"lots.go"}, keys(texts))
	require.Equal(t, []string{"link.go: a link or special file, not followed"}, notes)
}

func TestAnArchiveThatUnpacksToTooMuchIsRefused(t *testing.T) {
	zeros := strings.Repeat("\x00", 24<<20)
	for ending, p := range pack(t, []member{{name: "bomb", text: zeros}}) {
		if ending == ".tar" {
			continue // unpacks to itself
		}
		t.Run(ending, func(t *testing.T) {
			_, err := source.Open(context.Background(), source.Request{Path: p})
			require.ErrorContains(t, err, "times its size")
			l := source.DefaultLimits()
			l.Ratio, l.TotalBytes = 1<<40, 20<<20
			_, err = source.Open(context.Background(), source.Request{Path: p, Limits: l})
			require.ErrorContains(t, err, "unpacks to more than")
		})
	}
	l := source.DefaultLimits()
	l.ArchiveBytes = 100
	_, err := source.Open(context.Background(), source.Request{Path: pack(t, []member{{name: "a", text: "b"}})[".tar"], Limits: l})
	require.ErrorContains(t, err, "more than the limit")
}

func TestAZstdWindowThatIsTooLargeIsRefused(t *testing.T) {
	p := filepath.Join(t.TempDir(), "seed.tar.zst")
	// A frame header that asks for a window of 2 GB.
	require.NoError(t, os.WriteFile(p, []byte{0x28, 0xB5, 0x2F, 0xFD, 0x00, 0xA8, 0x01, 0x00, 0x00}, 0o644))
	_, err := source.Open(context.Background(), source.Request{Path: p})
	require.ErrorIs(t, err, source.ErrNotCodebase)
}

func TestACorruptArchiveIsRefused(t *testing.T) {
	for ending, p := range pack(t, []member{{name: "lots.go", text: strings.Repeat("package lots\n", 2000)}, {name: "b.go", text: strings.Repeat("x y z ", 900)}}) {
		data, err := os.ReadFile(p)
		require.NoError(t, err)
		for name, bad := range map[string][]byte{"cut in half": data[:len(data)/2], "not an archive": []byte("these are just words, no archive at all"), "empty": {}} {
			if ending == ".tar" && name == "empty" {
				continue // an empty tar holds no files, which is said below
			}
			t.Run(ending+" "+name, func(t *testing.T) {
				q := filepath.Join(t.TempDir(), "bad"+ending)
				require.NoError(t, os.WriteFile(q, bad, 0o644))
				_, err := source.Open(context.Background(), source.Request{Path: q})
				require.ErrorIs(t, err, source.ErrNotCodebase)
			})
		}
	}
}

func TestALargeMemberIsListedAndNotRead(t *testing.T) {
	l := source.DefaultLimits()
	l.FileBytes = 10
	for ending, p := range pack(t, []member{{name: "large.go", text: "0123456789abcdef"}, {name: "small.go", text: "x"}}) {
		t.Run(ending, func(t *testing.T) {
			texts, problems, _, _ := read(t, source.Request{Path: p, Limits: l})
			require.Equal(t, map[string]string{"small.go": "x"}, texts)
			require.True(t, source.IsTooLarge(problems["large.go"]))
		})
	}
}

func FuzzArchive(f *testing.F) {
	ms := []member{{name: "a/lots.go", text: "package lots\n"}, {name: "a/b", text: "x"}}
	plain := tarOf(f, ms)
	for i, data := range [][]byte{plain, gz(f, plain), zst(f, plain), zipOf(f, ms)} {
		f.Add(uint8(i), data)
	}
	endings := []string{".tar", ".tar.gz", ".tar.zst", ".zip"}
	f.Fuzz(func(t *testing.T, kind uint8, data []byte) {
		p := filepath.Join(t.TempDir(), "x"+endings[int(kind)%len(endings)])
		require.NoError(t, os.WriteFile(p, data, 0o600))
		l := source.DefaultLimits()
		l.TotalBytes, l.FileBytes = 1<<20, 1<<16
		src, err := source.Open(context.Background(), source.Request{Path: p, Limits: l})
		if err != nil {
			return
		}
		list, err := src.List(context.Background())
		require.NoError(t, err)
		for _, e := range list.Entries {
			require.False(t, strings.HasPrefix(e.Path, "/") || strings.HasPrefix(e.Path, "../") || e.Path == "..", e.Path)
		}
		_ = src.Read(context.Background(), list.Entries, func(_ source.Entry, data []byte, err error) error {
			require.LessOrEqual(t, len(data), 1<<16+1)
			return nil
		})
	})
}

func TestAnArchiveOfLinksOrFoldersAloneIsBounded(t *testing.T) {
	for what, kind := range map[string]byte{"links": tar.TypeSymlink, "folders": tar.TypeDir} {
		t.Run(what, func(t *testing.T) {
			ms := []member{{name: "lots.go", text: "package lots\n"}}
			for i := range 4000 {
				ms = append(ms, member{name: fmt.Sprintf("d%d", i), kind: kind})
			}
			p := filepath.Join(t.TempDir(), "seed.tar")
			require.NoError(t, os.WriteFile(p, tarOf(t, ms), 0o644))
			l := source.DefaultLimits()
			l.Files = 100
			_, err := source.Open(context.Background(), source.Request{Path: p, Limits: l})
			require.ErrorContains(t, err, "more than 400 entries")
			// Within the limit what is noted of them stays readable.
			_, _, notes, _ := read(t, source.Request{Path: p})
			require.LessOrEqual(t, len(notes), 1001)
			if kind == tar.TypeSymlink {
				require.Contains(t, notes, ".: 3000 more notes like these were left out")
			}
		})
	}
}
