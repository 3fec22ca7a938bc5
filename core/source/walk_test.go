package source

import (
	"os"
	"path/filepath"
	"runtime"
	"syscall"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestAFolderThatCanNotBeReadIsSaidWithItsShare(t *testing.T) {
	dir := t.TempDir()
	for _, d := range []string{"open", "shut/inner"} {
		require.NoError(t, os.MkdirAll(filepath.Join(dir, d), 0o755))
	}
	require.NoError(t, os.Chmod(filepath.Join(dir, "shut"), 0))
	t.Cleanup(func() { _ = os.Chmod(filepath.Join(dir, "shut"), 0o755) })
	for p := dir; p != "/tmp" && p != "/"; p = filepath.Dir(p) {
		_ = os.Chmod(p, 0o755)
	}
	if os.Getuid() == 0 {
		// The superuser reads everything: this thread is somebody else.
		runtime.LockOSThread()
		defer runtime.UnlockOSThread()
		require.NoError(t, syscall.Setfsuid(65534))
		defer func() { require.NoError(t, syscall.Setfsuid(0)) }()
	}
	w, err := walk(dir)
	require.NoError(t, err)
	var said []string
	for _, n := range w.notes() {
		said = append(said, n.Path+": "+n.Text)
	}
	require.Equal(t, []string{"shut: a folder that can not be read: permission denied", ".: 1 of 3 folders can not be read; what lies in them is not counted"}, said)
}
