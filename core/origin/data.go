package origin

import (
	"fmt"
	"path"
	"regexp"
	"strings"

	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/syntax"
)

var (
	// locale is a language as catalogues are named for it: de, pt_BR, zh-Hans.
	locale = regexp.MustCompile(`^(?:[a-z]{2,3}(?:[_\-][A-Za-z]{2,4}){0,2}|default|base|template)$`)
	// catalogueFolders hold texts by language.
	catalogueFolders = set(`locale locales lang langs language languages i18n l10n intl translations translation nls localization
		localisation localizations _locales po messages resources/lang`)
	catalogueEndings = set(".po .pot .mo .arb .xlf .xliff .strings .resx .ftl .qm .lang .lng .catalog")
	// catalogueFiles may hold texts where they lie in such a folder.
	catalogueFiles = set(
		".json .json5 .yml .yaml .php .inc .js .ts .py .properties .xml .ini .toml .txt .pm .pl .rb .cfg .html .htm .md .csv .lua .docbook",
	)
	suffixedFiles = set(".properties .json .yml .yaml .java")
	suffixed      = regexp.MustCompile(`^[A-Za-z][\w.\-]*[_\-.]([a-z]{2}(?:[_\-][A-Z]{2})?)\.\w+$`)
)

// CatalogueFolder reports whether a folder of that name holds texts by language.
func CatalogueFolder(name string) bool { return catalogueFolders[strings.ToLower(name)] }

// translated are texts by language, whatever format they are written in.
func (t *teller) translated(f *model.File) (model.FileOrigin, string) {
	ext := strings.ToLower(path.Ext(f.Path))
	base := path.Base(f.Path)
	if catalogueEndings[ext] {
		return model.OriginData, "a catalogue of texts, by its ending"
	}
	if ext == ".ts" && f.Facts.Hint(model.HintBanner) == nil && isQtCatalogue(f) {
		return model.OriginData, "a catalogue of texts"
	}
	if folder := t.around[model.FolderOf(f.Path)].texts; folder != "" && catalogueFiles[ext] && byLocale(f.Path, folder) && mostlyTexts(f) {
		return model.OriginData, fmt.Sprintf("a catalogue of texts: it is named for a language, below %s", strings.ToLower(path.Base(folder)))
	}
	if m := suffixed.FindStringSubmatch(base); m != nil && suffixedFiles[ext] && mostlyTexts(f) && t.siblings(f, m[1]) {
		return model.OriginData, "a catalogue of texts, one of several languages"
	}
	return t.inAnotherTongue(f)
}

// byLocale reports whether a file, or a folder that it lies in below that of texts, is
// named for a language.
func byLocale(p, texts string) bool {
	base := path.Base(p)
	if locale.MatchString(strings.TrimSuffix(base, path.Ext(base))) {
		return true
	}
	for d := model.FolderOf(p); d != texts; d = model.FolderOf(d) {
		if name := path.Base(d); len(name) > 1 && locale.MatchString(name) {
			return true
		}
	}
	return false
}

// isQtCatalogue reports whether a file that ends in .ts is one of texts: it is
// written in no language of programs.
func isQtCatalogue(f *model.File) bool { return !syntax.ProfileOf(f.Language).Code }

// mostlyTexts reports whether a file holds hardly anything that runs.
func mostlyTexts(f *model.File) bool {
	functions := 0
	for _, d := range f.Facts.Definitions {
		if d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefClass {
			functions++
		}
	}
	return functions == 0 || functions*60 < f.Lines()
}

// siblings reports whether the same name stands beside for another language.
func (t *teller) siblings(f *model.File, lang string) bool {
	base := path.Base(f.Path)
	d := model.FolderOf(f.Path)
	for _, other := range []string{"en", "de", "fr", "es", "ru", "ja", "it", "zh_CN", "pt_BR", "nl", "pl"} {
		if other != lang && t.has[path.Join(d, strings.Replace(base, lang+".", other+".", 1))] {
			return true
		}
	}
	return false
}

// fixtureFolders hold what tests work on.
var fixtureFolders = set(`fixtures fixture __fixtures__ testdata test-data test_data testfiles test-fixtures __snapshots__
	snapshots cassettes golden goldens
	test_files testcases samples sampledata`)

// tables are endings of files that hold rows and nothing else.
var tables = set(`.csv .tsv .geojson .dat .snap .ndjson .jsonl .har .pem .crt .key .bib .srt .gpx .kml .eml .mbox .dic .aff
	.gmo .sample .gff .gff3 .gtf .fa .fasta .fastq .bed .vcf .wig .pdb .mol`)

// table are rows and literals: fixtures, snapshots, tables written as code.
func (t *teller) table(f *model.File) (model.FileOrigin, string) {
	ext := strings.ToLower(path.Ext(f.Path))
	if tables[ext] {
		return model.OriginData, "rows, by its ending"
	}
	at := t.around[model.FolderOf(f.Path)]
	if at.fixtures != "" && (strings.ToLower(at.fixtures) != "samples" || sampled(f)) {
		return model.OriginData, "what tests work on: it lies in " + at.fixtures
	}
	if f.Facts.Hint(model.HintLiterals) != nil && !declares(f) {
		return model.OriginData, "a table: literals nearly alone"
	}
	if n, members := constants(f); n >= leastConstants && 10*n >= 3*f.Facts.Code && 10*(n+members) >= 6*f.Facts.Code {
		return model.OriginData, fmt.Sprintf("a table: %d constants in %d lines of code", n+members, f.Facts.Code)
	}
	code := syntax.ProfileOf(f.Language).Code
	if !code && (ext == ".json" || ext == ".xml" || ext == ".sql" || ext == ".yml" || ext == ".yaml") && f.Lines() > 1500 {
		return model.OriginData, fmt.Sprintf("%d lines of data", f.Lines())
	}
	return "", ""
}

// sampled reports whether a file in a folder of samples is one: programs there show how
// something is used, with what tells of them and builds them.
func sampled(f *model.File) bool {
	p := syntax.ProfileOf(f.Language)
	return !p.Code && !p.Counted && f.Facts.Project == nil && !plainNames.MatchString(path.Base(f.Path)) &&
		!builds[strings.ToLower(path.Ext(f.Path))]
}

// leastConstants is from how many constants a file may be a table of them.
const leastConstants = 100

// constants counts those that each stand on a line of their own, members of
// enumerations apart: those alone are part of a design. None where something runs as
// well.
func constants(f *model.File) (n, members int) {
	if f.Facts == nil {
		return 0, 0
	}
	for i := range f.Facts.Definitions {
		switch d := &f.Facts.Definitions[i]; {
		case d.Kind == model.DefFunction || d.Kind == model.DefMethod || d.Kind == model.DefComponent:
			return 0, 0
		case d.Kind == model.DefConstant && d.Line == d.EndLine && d.Parent == "":
			n++
		case d.Kind == model.DefConstant && d.Line == d.EndLine:
			members++
		}
	}
	return n, members
}

// declares reports whether a good part of a file is something that runs, or says
// what others have to be: a class around a table, and the few lines that look things
// up in it, are part of the table.
func declares(f *model.File) bool {
	runs := 0
	for i, d := range f.Facts.Definitions {
		switch d.Kind {
		case model.DefFunction, model.DefMethod:
			if !reading.IsTable(f, i) {
				runs += d.EndLine - d.Line + 1
			}
		case model.DefComponent, model.DefInterface:
			return true
		}
	}
	return 10*runs > f.Lines()
}
