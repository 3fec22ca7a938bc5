package main

import (
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
)

// intoFile writes to a named file. Where there is nothing yet, or a regular
// file, it is written beside and renamed, so that a full disk leaves what was
// there; a device, a pipe or a link is written through and stays what it is.
func intoFile(name string, fn func(w io.Writer) error) (err error) {
	defer func() {
		if err != nil {
			err = fmt.Errorf("%s can not be written: %w", name, err)
		}
	}()
	info, err := os.Lstat(name)
	switch {
	case errors.Is(err, fs.ErrNotExist):
	case err != nil:
		return err
	case info.IsDir():
		return errors.New("it is a folder")
	case !info.Mode().IsRegular():
		return through(name, fn)
	}
	tmp, err := os.CreateTemp(filepath.Dir(name), ".jantel-*")
	if err != nil {
		return err
	}
	defer func() {
		if err != nil {
			_ = os.Remove(tmp.Name())
		}
	}()
	mode := fs.FileMode(0o644)
	if info != nil {
		mode = info.Mode().Perm()
	}
	if err := errors.Join(fn(tmp), tmp.Chmod(mode), tmp.Close()); err != nil {
		return err
	}
	return os.Rename(tmp.Name(), name)
}

func through(name string, fn func(w io.Writer) error) error {
	h, err := os.OpenFile(name, os.O_WRONLY|os.O_TRUNC|os.O_CREATE, 0o644)
	if err != nil {
		return err
	}
	return errors.Join(fn(h), h.Close())
}
