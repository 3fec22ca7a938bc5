package model

import (
	"regexp"
	"strings"
)

//go:generate go tool msgp -file origin.go -o origin_packed.go -io=false -tests=false -unexported

//msgp:tuple Hint
//msgp:ignore FileOrigin OriginOf
//msgp:shim HintName as:string using:string/HintName

// FileOrigin says who wrote a file: the people whose code is judged, or a
// program, or others.
type FileOrigin string

// The closed list of origins.
const (
	OriginOwn       FileOrigin = "own"
	OriginGenerated FileOrigin = "generated" // by a tool, from something else
	OriginBuilt     FileOrigin = "built"     // bundled, compiled, minified: output beside or instead of its source
	OriginVendored  FileOrigin = "vendored"  // others' code copied in
	OriginData      FileOrigin = "data"      // translations, fixtures, tables, snapshots, declarations made by a tool
	OriginScaffold  FileOrigin = "scaffold"  // as a framework's generator made it, unchanged
)

// FileOrigins lists the origins.
var FileOrigins = []FileOrigin{OriginOwn, OriginGenerated, OriginBuilt, OriginVendored, OriginData, OriginScaffold}

// OriginOf is a file's origin with what tells it, strongest first. Origin is ""
// for what was not read as text.
type OriginOf struct {
	Origin   FileOrigin `json:"origin"`
	Evidence []string   `json:"evidence"`
	ByHand   bool       `json:"by_hand"`
}

// HintName names something met in a text that tells who wrote it.
type HintName string

// The closed list of hints.
const (
	HintGenerated HintName = "says it is generated" // in a comment at its head
	HintSourceMap HintName = "names a source map"
	HintBundle    HintName = "begins as a bundler writes"      // the prologue of one
	HintBanner    HintName = "carries a banner"                // the name of a project with its version or licence
	HintKeyword   HintName = "was kept elsewhere"              // the store of another project wrote its name into it
	HintRights    HintName = "says who has its rights besides" // where it names the project that it is part of
	HintHolder    HintName = "names who has its rights"        // who that is, in small letters
	HintPage      HintName = "begins as a page does"           // a number for how, its title and the way to other pages left out
	HintRunBy     HintName = "names what runs it"              // in its first line, the last part of the path without figures
	HintLicence   HintName = "carries a licence whole"         // one that has to stay with each copy
	HintHandedOn  HintName = "is handed on as it is"           // a macro of a collection that builds copy from
	HintSqueezed  HintName = "has squeezed names"              // nearly all are of one letter or two
	HintLiterals  HintName = "is a table"                      // nine of ten tokens are literals and what parts them
)

// Hint is one of them, with the words that say so.
type Hint struct {
	Name HintName
	Text string
	Line int
}

// Hint returns the first hint of that name, or nil.
func (f *Facts) Hint(name HintName) *Hint {
	if f == nil {
		return nil
	}
	for i := range f.Hints {
		if f.Hints[i].Name == name {
			return &f.Hints[i]
		}
	}
	return nil
}

// settled are the folders of steps by which a store's shape came about.
var settled = regexp.MustCompile(`(?:^|/)(?:migrations?|migrate)/[^/]+$`)

// Settled reports whether a file is such a step: a tool may begin it, people answer
// for it and keep it.
func Settled(path string) bool { return strings.Contains(path, "migrat") && settled.MatchString(path) }
