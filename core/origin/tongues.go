package origin

import (
	"path"
	"regexp"
	"slices"
	"strings"

	"jantel/core/model"
)

// tongues are the languages that texts are translated to, by the codes of ISO 639-1.
var tongues = set(`aa ab af am an ar as ast az be bg bn bo br bs ca ckb cs cy da de dv dz el en eo es et eu fa fi fil fo fr fy ga gd gl gu
	he hi hr hsb hu hy ia id ie is it ja ka kab kk km kn ko ku ky lb lo lt lv mai mi mk ml mn mr ms mt my nb nds ne nl nn no oc or pa pl
	ps pt ro ru rw sc sd si sk sl so sq sr sv sw szl ta te tg th tk tl tr tt ug uk ur uz vi wa xh yi yo zh zu`)

// spoken are the same as people write them out.
var spoken = set(`arabic bulgarian catalan chinese czech danish dutch estonian finnish french german greek hebrew hungarian indonesian
	italian japanese korean latvian lithuanian malay norwegian persian polish portuguese romanian russian schinese serbian slovak
	slovenian spanish swedish tchinese thai turkish ukrainian vietnamese brazilian`)

// usual are those into which nearly everything is translated that is translated at all:
// short names of other things are short as codes are, and never all of these.
var usual = set("de fr es it ru ja pt nl pl zh cs sv ko german french spanish italian russian japanese polish portuguese")

// original are the languages that texts are first written in, mostly.
var original = regexp.MustCompile(`^(?:C|en(?:[_\-][A-Za-z]{2})?|english)$`)

// tongue is the language that a name stands for, "" where it is none.
func tongue(name string) string {
	if spoken[strings.ToLower(name)] {
		return strings.ToLower(name)
	}
	if m := coded.FindStringSubmatch(name); m != nil && tongues[m[1]] {
		return m[1]
	}
	return ""
}

// coded is the code of a language, with those of a script and a region.
var coded = regexp.MustCompile(`^([a-z]{2,3})(?:[_\-@][A-Za-z]{2,8}){0,2}$`)

// leastTongues is from how many languages on something is translated.
const leastTongues = 3

// translations are the folders that each hold the same in another language, with the
// names of all such beside, by their path; files that do so in one folder, by folder and
// ending.
func (t *teller) translations() (folders map[string][]string, files map[string]bool) {
	below, named := map[string][]string{}, map[string][]string{}
	count := map[string]int{}
	for d := range t.folders {
		if d != "." && (tongue(path.Base(d)) != "" || original.MatchString(path.Base(d))) {
			below[model.FolderOf(d)] = append(below[model.FolderOf(d)], path.Base(d))
		}
	}
	for p := range t.has {
		base, ext := path.Base(p), path.Ext(p)
		at := model.FolderOf(p) + "/*" + ext
		count[at]++
		if ext != "" && tongue(strings.TrimSuffix(base, ext)) != "" {
			named[at] = append(named[at], strings.TrimSuffix(base, ext))
		}
	}
	folders, files = map[string][]string{}, map[string]bool{}
	isUsual := func(name string) bool { return usual[tongue(name)] }
	for d, names := range below {
		if len(names) < leastTongues || !slices.ContainsFunc(names, isUsual) {
			continue
		}
		slices.Sort(names)
		for _, n := range names {
			if !original.MatchString(n) {
				folders[path.Join(d, n)] = names
			}
		}
	}
	for at, names := range named {
		if len(names) >= leastTongues+2 && 5*len(names) >= 4*count[at] && slices.ContainsFunc(names, isUsual) {
			files[at] = true
		}
	}
	return folders, files
}

// inAnotherTongue is a text that says in another language what its like beside does.
func (t *teller) inAnotherTongue(f *model.File) (model.FileOrigin, string) {
	ext := path.Ext(f.Path)
	if t.tongueFiles[model.FolderOf(f.Path)+"/*"+ext] && tongue(strings.TrimSuffix(path.Base(f.Path), ext)) != "" && mostlyTexts(f) {
		return model.OriginData, "it is named for a language, as nearly all beside it are"
	}
	d := t.around[model.FolderOf(f.Path)].tongue
	if d == "" || !mostlyTexts(f) {
		return "", ""
	}
	rel := strings.TrimPrefix(f.Path, d+"/")
	for _, other := range t.tongueFolders[d] {
		if p := path.Join(model.FolderOf(d), other, rel); p != f.Path && t.has[p] {
			return model.OriginData, "a translation: " + p + " is the same in another language"
		}
	}
	return "", ""
}
