package origin

import (
	"path"
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/syntax"
)

var (
	// testFolders hold tests, and what those work on; specFolders may.
	testFolders = regexp.MustCompile(`(?i)^(?:t|(?:[a-z]*|.*[_\-.])tests?|(?:test|spec)suites?|regress(?:ion)?|__tests__)$`)
	specFolders = regexp.MustCompile(`(?i)^specs?$`)
	// notTests are words that end as they do.
	notTests = set("latest contest contests greatest fastest protest attest")
	// testData are folders of what lies in those and is no test.
	testData = regexp.MustCompile(`(?i)^(?:files|resources|dumps)$|(?:data|inputs?|outputs?|expected|results|corpus)$`)
	// mayBeTests are such as may hold tests as well.
	mayBeTests = regexp.MustCompile(`(?i)^(?:samples|cases)$`)
	// compared are endings of what a program prints, and of what that is compared with.
	compared = set(`.out .ok .err .errors .expected .expect .golden .gold .results .result .ref .output .stdout .stderr .exp-out`)
	// builds are endings of what a build is told, of pages that are written, and of what only
	// a runner of tests reads: they are written as tests are, whatever lies beside them.
	builds = set(`.test .t .ext .sch .at .m4 .am .ac .mk .mak .bp .bazel .bzl .build .cmake .exp .gradle .feature .robot .bats .in .vcproj
		.vcxproj .filters .sln .dsp .dsw .props .csproj .pbxproj .xcscheme .plist .md .markdown .rst .adoc .asciidoc .texi .tex .pod .rdoc
		.dox .sgml .docbook .dtd .xsd .rng .proto .idl .thrift .graphql .ipynb .nix .spec .prof`)
	// plainNames are files that are about their folder, whatever it holds.
	plainNames = regexp.MustCompile(`(?i)^(?:\.|(?:readme|changelog|changes|news|todo|authors|copying|licen[cs]e|notes|index|` +
		`manifest|makefile|gnumakefile|cmakelists|files\.am|dockerfile|jamfile|build|sconscript|requirements|owners)(?:$|[._\-]))`)
)

// laidOut are files that tell a build what lies in a folder.
var laidOut = regexp.MustCompile(`(?i)^(?:gnu)?makefile|^cmakelists\.txt$|\.am$|^meson\.build$|\.feature$`)

// besides is where what is no program text lies for languages whose packages may be called
// by any word.
var besides = regexp.MustCompile(`(?:^|/)src/\w+/resources/`)

// leastAlike is how many files of one ending have to lie in a folder of tests for them to
// be what those work on.
const leastAlike = 3

// lying is what is known of the files of a folder by their names alone.
type lying struct {
	endings map[string]int  // files by ending
	stems   map[string]bool // of what is compared, up to the first full stop
}

// allLying is that of each folder.
func (t *teller) allLying() map[string]lying {
	out := map[string]lying{}
	for p := range t.has {
		d, base := model.FolderOf(p), path.Base(p)
		l := out[d]
		if l.endings == nil {
			l = lying{map[string]int{}, map[string]bool{}}
			out[d] = l
		}
		ext := strings.ToLower(path.Ext(base))
		l.endings[ext]++
		if compared[ext] {
			l.stems[stem(base)] = true
		}
	}
	return out
}

// stem is a name up to its first full stop.
func stem(base string) string {
	s, _, _ := strings.Cut(base, ".")
	return s
}

// workedOn is what tests work on: what a program prints and what that is compared with,
// what the like of it is made from, and files of one sort that lie among tests and are
// no program text.
func (t *teller) workedOn(f *model.File) (model.FileOrigin, string) {
	p, base := syntax.ProfileOf(f.Language), path.Base(f.Path)
	at := t.around[model.FolderOf(f.Path)]
	if p.Code || !at.tests && !at.tested && !at.shown {
		return "", ""
	}
	ext := strings.ToLower(path.Ext(base))
	beside := t.lying[model.FolderOf(f.Path)]
	switch {
	case (at.tested || at.shown && !p.Counted) && !laidOut.MatchString(base) && (!p.PathPackages || besides.MatchString(f.Path)):
		return model.OriginData, "what tests work on"
	case !at.tests || plainNames.MatchString(base) || f.Facts.Project != nil:
	case compared[ext]:
		return model.OriginData, "what a test's output is compared with, by its ending"
	case beside.stems[stem(base)] && (!builds[ext] || ext == ".in"):
		return model.OriginData, "what a test works on: what comes of it lies beside"
	case ext != "" && beside.endings[ext] >= leastAlike && !p.Counted && !builds[ext]:
		return model.OriginData, "what tests work on: no program text, and more of its sort beside"
	}
	return "", ""
}
