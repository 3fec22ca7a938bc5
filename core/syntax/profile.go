package syntax

import (
	"path"
	"strings"

	"jantel/core/model"
)

// Profile answers what anybody may ask of a language besides reading it: how
// its code is laid out, named and found. Whoever judges asks the profile and
// names no language, so that a new one is a folder and a line.
type Profile struct {
	// Code tells program text from markup, styles, data and prose.
	Code bool
	// Template languages draw pages and texts from what they are handed.
	Template bool
	// Scripts: what is written in it is run by hand or by others, line by line.
	Scripts bool
	// Pages: a server answers with what a file of it writes, at the file's own
	// address.
	Pages bool
	// Counted languages stand beside program text where the code is shared out
	// by language: markup, styles and statements to a store.
	Counted bool
	// PathPackages: packages are written as chains of folders, which the files
	// in them spell.
	PathPackages bool
	// FolderPackages: the files of a folder are one package, know each other's
	// names, and any of them may say what it is for.
	FolderPackages bool
	// FolderFiles are the names of files whose opening comment is about their
	// folder.
	FolderFiles []string
	// Namespace is the sign between the parts of a declared namespace, "" where
	// none is declared; NamespaceIsPath tells that it must follow the folders.
	Namespace       string
	NamespaceIsPath bool
	// Headers are the endings of files that declare what stands elsewhere.
	Headers []string
	// ToolFolders are folders that tools of the language fill, whatever else there is.
	ToolFolders []string
	// OneType: readers expect one type a file.
	OneType bool
	// NamedForType: files have the name of the type they hold, whatever their
	// folder is called.
	NamedForType bool
	// Inherits: classes build upon classes, and say so.
	Inherits bool
	// ClassInterfaces: an interface is written as a class.
	ClassInterfaces bool
	// Reached: what reaches a file is known well enough to say that nothing does.
	Reached bool
	// SameNames: types of one name in several places are what the language makes
	// of packages or headers.
	SameNames bool
	// NamesNodes: a text that looks like a template's name is a node's.
	NamesNodes bool
	// CalledBelow: what stands at the top can only call functions that are defined
	// above it.
	CalledBelow bool
	// OneOfAName: a program holds at most one function of a name at its top.
	OneOfAName bool
	// Overloads: a type may have several methods of a name, told apart by how many
	// parameters they have.
	Overloads bool
	// TestPrograms: tests are programs like others, told by their names and functions.
	TestPrograms bool
	// PlainNames: names of files end in no word for their role.
	PlainNames bool
	// Words are roles that words at the end of names have in this language
	// alone; "" where a word has none in it.
	Words map[string]model.Role
	// FolderWords are the same of folders, where they differ from what others mean.
	FolderWords map[string]model.Role
	// Plain names the languages that know each other's names without taking them
	// in, where bodies are read by names alone; "" where their grammar tells more.
	Plain string
	// PartialTypes: several files of a namespace may each write a part of a type.
	PartialTypes bool
	// OpenTypes: a type may be opened again in any file, and its members are called
	// as they are read.
	OpenTypes bool
	// FieldCalls: what a field of a type holds is called as if it were a method.
	FieldCalls bool
	// HandsOn: what a file imports others can take from it.
	HandsOn bool
	// Globals: files that take nothing in and hand nothing out know the names at each
	// other's top.
	Globals bool
	// TakesIn: a file that takes in others and defines nothing stands for them all.
	TakesIn bool
	// WrittenExports: what others can take is written out, and taken by name.
	WrittenExports bool
	// Getters are the marks of methods that are read like fields.
	Getters map[string]bool
	// Invoked is the method that runs when a value is called like a function.
	Invoked string
	// ListGives are members of lists that give a list of the same, ListOne those
	// that give one of its elements.
	ListGives, ListOne map[string]bool
	// ExactRoutes: of several routes that an address fits the most exact answers,
	// in whichever order they are declared; else the one declared first.
	ExactRoutes bool
	// Controllers is how files of controllers end, and the folder below which
	// their templates are named for them; "" where there is no such habit.
	ControllerEnd, ControllerRoot string
}

// unread are languages of program text that have no reader yet: some are judged by
// what their files are called and where they lie; the others only weigh.
var unread = map[string]Profile{
	"Scala": {
		Code: true, PathPackages: true,
	}, "Groovy": {PathPackages: true, Counted: true}, "Swift": {Code: true}, "Dart": {Code: true}, "Lua": {Code: true},
	"Shell": {Code: true, Scripts: true}, "Elixir": {Code: true}, "Erlang": {Code: true},
	"Haskell": {Code: true}, "Clojure": {Code: true}, "Assembly": {Code: true}, "Unix Assembly": {Code: true}, "Objective-C": {Code: true},
}

// runs are the languages without a reader by what runs a text in them.
var runs = map[string]string{
	"sh": "Shell", "bash": "Shell", "dash": "Shell", "ash": "Shell", "ksh": "Shell", "zsh": "Shell", "awk": "Awk",
	"gawk": "Awk", "mawk": "Awk",
	"tclsh": "Tcl", "wish": "Tcl", "expect": "Tcl", "lua": "Lua", "guile": "Scheme", "Rscript": "R", "julia": "Julia", "runghc": "Haskell",
}

// RunBy is the language of a file without a reader, by what its first line says runs it;
// "" where that is not known, or the file only becomes a program.
func RunBy(p string, f *model.Facts) string {
	h := f.Hint(model.HintRunBy)
	if h == nil || notYet[strings.ToLower(path.Ext(p))] {
		return ""
	}
	return runs[h.Text]
}

func init() {
	for _, name := range strings.Split("Ada,Awk,COBOL,CoffeeScript,Common Lisp,Crystal,Cuda,Cython,D,Emacs Lisp,F#,Fortran,Fortran Free Form,"+
		"GLSL,HLSL,Julia,Lex,MATLAB,Nim,OCaml,Objective-C++,PLSQL,PLpgSQL,Pascal,PowerShell,Prolog,QML,R,Racket,Raku,Scheme,Smalltalk,"+
		"Solidity,Standard ML,SystemVerilog,TSQL,Tcl,VHDL,Vala,Verilog,Visual Basic .NET,Yacc,Zig", ",") {
		unread[name] = Profile{Counted: true}
	}
}

// ProfileOf is the profile of the language of that name, or of one commonly
// called so; nothing is known of any other.
func ProfileOf(name string) Profile {
	if l := byTitle[name]; l != nil {
		return l.Profile
	}
	return unread[name]
}

// Loose reports whether a file is no module: it takes nothing in and hands nothing
// out, and what stands at its top all such files of a page know.
func (p *Profile) Loose(f *model.Facts) bool {
	return p.Globals && len(f.Imports) == 0 && len(f.Names) == 0
}
