package smells

import (
	"slices"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/syntax"
)

var debugLeftOverRule = &Rule{
	Slug: "debug-left-over", Facet: model.Units, Title: "Debug left-over", Weight: 0.4, Habit: true, find: debugLeftOver,
	Question: "Was something left over from looking for a fault?",
	Why:      "It fills the log with what nobody reads and hides what somebody should.",
	Example:  "`console.log(box)` in the shelf picker.",
	Remedy:   "Take it out, or log it properly.",
}

// commandFolders hold what is run from a command line: it speaks by writing there.
var commandFolders = syntax.Set("cli", "cmd", "command", "commands", "bin", "console")

// writesLogs reports whether a file is, by its name, the one through which others write
// to a console: what it writes is what it is for.
func writesLogs(p string) bool {
	for d := range strings.SplitSeq(model.FolderOf(p), "/") {
		if commandFolders[d] || strings.HasSuffix(d, "commands") {
			return true
		}
	}
	return slices.ContainsFunc(naming.Words(naming.Stem(p)), func(w string) bool { return consoles[w] })
}

var consoles = syntax.Set(
	"console", "log", "logger", "logging", "debug", "debugger", "print", "printer", "trace", "tracer", "stdout", "repl", "cli",
)

// drawn are the roles of what runs where people look at it, and no console does.
var drawn = map[model.Role]bool{model.RoleView: true, model.RoleState: true, model.RoleStyle: true}

// inCommands reports of a file whether the nearest project around it is installed as a
// command: such speak by writing to the console.
func (c *Context) inCommands() func(path string) bool {
	command := map[string]bool{} // by the folder of a project
	for _, f := range c.Survey.Files {
		if f.Facts != nil && f.Facts.Project != nil {
			command[model.FolderOf(f.Path)] = command[model.FolderOf(f.Path)] || len(f.Facts.Project.Bin) > 0
		}
	}
	return func(p string) bool {
		for d := model.FolderOf(p); ; d = model.FolderOf(d) {
			if is, project := command[d]; project || d == "." {
				return is
			}
		}
	}
}

func debugLeftOver(c *Context, _ *Rule) (out []hit) {
	inCommands := c.inCommands()
	c.source(func(f *model.File) {
		if inCommands(f.Path) && !drawn[c.Roles[f.Path].Role] {
			return
		}
		if r := c.Roles[f.Path].Role; r == model.RoleScript || r == model.RoleConfig || writesLogs(f.Path) || setAside(f.Path) {
			return
		}
		if n, l := f.Facts.Sign(model.SignDebug); n > 0 {
			what := "A line"
			if n > 1 {
				what = capital(number(n)) + " lines"
			}
			out = append(out, hit{
				path: f.Path, line: l, strength: 0.2 + 0.05*float64(n-1), touches: []string{f.Path},
				evidence: []model.Evidence{{Path: f.Path, Line: l, Note: "the first"}},
				message:  what + " of looking for a fault left over",
			})
		}
	})
	return out
}
