package cfamily

import (
	"path"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

// resolve follows includes: beside the file first, then from the folders that
// usually are searched, then wherever one file alone fits.
func resolve(t *syntax.Tree) {
	byBase := map[string][]string{}
	for _, f := range t.Files {
		byBase[path.Base(f.Path)] = append(byBase[path.Base(f.Path)], f.Path)
	}
	types := syntax.NewTypeIndex(t, ".", false, "C", "C++")
	t.Each(func(out *syntax.Out, f *model.File) {
		included := map[string]bool{}
		for _, im := range f.Facts.Imports {
			to, sure := find(t, byBase, f.Path, im)
			switch {
			case to != "" && to != f.Path:
				included[to] = true
				out.Links = append(out.Links, model.Link{From: f.Path, To: to, Kind: im.Kind, Line: im.Line, Text: im.Text, Sure: sure})
			case to != "":
			case im.Alias == "system" || len(byBase[path.Base(im.Text)]) == 0 && im.Alias != "":
				out.External = append(out.External, model.External{From: f.Path, Package: im.Text, Line: im.Line})
			default:
				reason := "no such file beside it or below a folder that is searched"
				if n := len(byBase[path.Base(im.Text)]); n > 0 {
					reason = "several files have this name, none of them where it would be looked for"
				}
				out.Unresolved = append(out.Unresolved, model.Unresolved{From: f.Path, Text: im.Text, Line: im.Line, Reason: reason})
			}
		}
		for _, d := range f.Facts.Definitions {
			for _, b := range d.Bases {
				base(out, types, f, &d, b, included)
			}
		}
	}, "C", "C++")
}

// base links a class with the included file that defines its base.
func base(out *syntax.Out, types *syntax.TypeIndex, f *model.File, d *model.Definition, name string, included map[string]bool) {
	for scope := d.Parent; ; scope = scope[:max(strings.LastIndex(scope, "."), 0)] {
		full := name
		if scope != "" {
			full = scope + "." + name
		}
		for _, to := range types.Files(full, f.Path) {
			if included[to] {
				out.Links = append(out.Links, model.Link{
					From: f.Path, To: to, Kind: model.LinkInheritance, Line: d.Line, Text: name, Sure: true,
				})
			}
		}
		if scope == "" {
			return
		}
	}
}

// platform are the headers of the language and of the usual systems, which a file
// of that name in the tree hardly ever stands for.
var platform = syntax.Set(strings.Fields(`
	assert complex ctype errno fenv float inttypes iso646 limits locale math setjmp signal stdalign stdarg stdatomic stdbool
	stddef stdint stdio stdlib stdnoreturn string strings tgmath threads time uchar wchar wctype
	aio alloca conio cpio crypt curses direct dirent dlfcn elf endian err fcntl features fnmatch ftw getopt glob grp iconv io
	langinfo libgen libintl link malloc memory monetary mqueue ncurses ndbm netdb nl_types poll process pthread pty pwd regex
	regexp resolv sched search semaphore shadow spawn stropts sysexits syslog tar termcap termio termios thread tzfile ucontext
	ulimit unistd utime utmp utmpx values varargs windows windowsx winsock winsock2 wordexp ws2tcpip zlib
	config version`)...)

// find is the file that an include means, "" when none does; sure tells
// whether the rules of the language alone led to it.
func find(t *syntax.Tree, byBase map[string][]string, from string, im model.Import) (to string, sure bool) {
	text := strings.ReplaceAll(im.Text, `\`, "/")
	if im.Alias == "" {
		if p, ok := syntax.Join(path.Dir(from), text); ok && t.File(p) != nil {
			return p, true
		}
	}
	syntax.Up(path.Dir(from), func(d string) bool {
		for _, sub := range []string{"", "include", "src", "inc", "lib"} {
			if sub == "" && im.Alias == "system" && !strings.Contains(text, "/") {
				continue // <string.h> is hardly a file that happens to lie here
			}
			if p, ok := syntax.Join(d, sub, text); ok && t.File(p) != nil {
				to = p
				return true
			}
		}
		return false
	})
	if to != "" {
		return to, true
	}
	if im.Alias == "system" && !strings.Contains(text, "/") && (platform[strings.TrimSuffix(text, ".h")] || path.Ext(text) == "") {
		return "", false
	}
	// The build alone knows its search path: where one file fits, it is that.
	var fits []string
	clean := strings.TrimLeft(path.Clean(text), "./")
	for _, p := range byBase[path.Base(text)] {
		if p == clean || strings.HasSuffix(p, "/"+clean) {
			fits = append(fits, p)
		}
	}
	if len(fits) == 1 {
		return fits[0], false
	}
	return "", false
}
