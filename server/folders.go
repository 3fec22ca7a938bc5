package server

import (
	"context"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"jantel/core/source"

	"github.com/danielgtaylor/huma/v2"
)

// Folders are what may be chosen to be taken in.
type Folders struct {
	At      string        `json:"at" doc:"empty for the allowed folders themselves"`
	Above   string        `json:"above" doc:"the folder above, empty where there is none that may be surveyed"`
	Folders []FolderShown `json:"folders"`
	More    int           `json:"more" doc:"folders that are not told"`
}

// FolderShown is a folder or archive that may be chosen.
type FolderShown struct {
	Path string `json:"path"`
	Name string `json:"name"`
	Kind string `json:"kind" enum:"folder,git,archive"`
}

// maxFolders is how many folders of one are told.
const maxFolders = 500

// folders lists what lies in an allowed folder: folders, Git repositories and
// archives. What is not allowed is not told of.
func (s *Server) folders(_ context.Context, in *struct {
	At string `query:"at"`
}) (*body[Folders], error) {
	out := Folders{At: in.At, Folders: []FolderShown{}}
	if in.At == "" {
		for _, a := range s.cfg.Allow {
			if real, err := source.Resolve(a, s.cfg.Allow); err == nil {
				out.Folders = append(out.Folders, FolderShown{real, real, kindOf(real)})
			}
		}
		return &body[Folders]{out}, nil
	}
	if len(s.cfg.Allow) == 0 {
		return nil, huma.Error422UnprocessableEntity("no folder may be surveyed")
	}
	real, err := source.Resolve(in.At, s.cfg.Allow)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(err.Error())
	}
	entries, err := os.ReadDir(real)
	if err != nil {
		return nil, huma.Error422UnprocessableEntity(in.At + " can not be read")
	}
	out.At = real
	if above, err := source.Resolve(filepath.Dir(real), s.cfg.Allow); err == nil && above != real {
		out.Above = above
	}
	for _, e := range entries {
		p := filepath.Join(real, e.Name())
		switch {
		case strings.HasPrefix(e.Name(), "."):
		case len(out.Folders) == maxFolders:
			out.More++
		case e.IsDir():
			out.Folders = append(out.Folders, FolderShown{p, e.Name(), kindOf(p)})
		case e.Type().IsRegular() && isArchive(e.Name()):
			out.Folders = append(out.Folders, FolderShown{p, e.Name(), "archive"})
		}
	}
	return &body[Folders]{out}, nil
}

func kindOf(folder string) string {
	if _, err := os.Lstat(filepath.Join(folder, ".git")); err == nil || strings.HasSuffix(folder, ".git") {
		return "git"
	}
	return "folder"
}

var archives = []string{".tar.gz", ".tar.zst", ".tgz", ".tar", ".zip"}

func isArchive(name string) bool {
	return slices.ContainsFunc(archives, func(e string) bool { return strings.HasSuffix(strings.ToLower(name), e) })
}
