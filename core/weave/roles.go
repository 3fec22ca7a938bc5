package weave

import (
	"fmt"
	"math"
	"path"
	"sort"
	"strings"

	"jantel/core/model"
	"jantel/core/naming"
	"jantel/core/reading"
)

type vote struct {
	role   model.Role
	weight float64
	why    string
}

// Role judges what a file is technically, by a vote of its name, its ending,
// its folders and what stands in it.
func Role(f *model.File) model.RoleOf { return Words().Role(f) }

// Role tells the role of a file by the words of a lexicon.
func (lex *Lexicon) Role(f *model.File) model.RoleOf {
	votes := lex.votes(f)
	sum := map[model.Role]float64{}
	var total float64
	for _, v := range votes {
		sum[v.role] += v.weight
		total += v.weight
	}
	if total == 0 {
		return model.RoleOf{}
	}
	best, top := model.Role(""), 0.0
	for _, r := range model.Roles {
		if s := round4(sum[r]); s > top {
			best, top = r, s
		}
	}
	out := model.RoleOf{Role: best, Confidence: round4(top / total * math.Min(1, top/0.8))}
	sort.SliceStable(votes, func(i, j int) bool { return votes[i].weight > votes[j].weight })
	for _, v := range votes {
		if v.role == best {
			out.Reasons = append(out.Reasons, v.why)
		} else {
			out.Reasons = append(out.Reasons, "against: "+v.why+", which speaks for "+string(v.role))
		}
	}
	return out
}

func round4(x float64) float64 { return math.Round(x*10000) / 10000 }

func (lex *Lexicon) votes(f *model.File) (out []vote) {
	add := func(r model.Role, w float64, format string, args ...any) {
		out = append(out, vote{r, w, fmt.Sprintf(format, args...)})
	}
	base := path.Base(f.Path)
	lower := strings.ToLower(base)
	stem := naming.Stem(base)
	ext := strings.TrimPrefix(strings.ToLower(path.Ext(base)), ".")
	isCode := reading.IsCode(f)

	if isTestName(lower) {
		add(model.RoleTest, 3, "its name has the form of a test's")
	} else if n, line := f.Facts.Sign(model.SignTest); n > 0 {
		add(model.RoleTest, 1.2, "it declares tests, first on line %d", line)
	}
	if isProjectFile(lower) || f.Facts != nil && f.Facts.Project != nil {
		add(model.RoleConfig, 2.5, "it is a project file")
	}
	if !isCode {
		if r, ok := lex.Extensions[ext]; ok {
			add(r, 1.5, "files that end in .%s are %s", ext, plural(r))
		}
		if strings.HasPrefix(lower, "readme") || strings.HasPrefix(lower, "license") || strings.HasPrefix(lower, "changelog") ||
			lower == "copying" || lower == "authors" {
			add(model.RoleDocs, 2, "its name is that of a text for readers")
		}
	}
	words := naming.Words(stem)
	if n := len(words); n > 0 && isCode {
		if r, ok := lex.Files[strings.Join(words, " ")]; ok && !(r == model.RoleEntry && strings.Contains(f.Path, "testdata/")) {
			add(r, 0.7, "its name is %q", stem)
		} else if r, ok := lex.Names[words[n-1]]; ok {
			add(r, 1, "its name ends in %q", words[n-1])
		}
		// "lots.service.ts": the word before the ending names the role.
		if parts := strings.Split(strings.ToLower(base), "."); len(parts) > 2 {
			if r, ok := lex.Names[parts[len(parts)-2]]; ok {
				add(r, 1.5, "its name ends in %q", "."+parts[len(parts)-2])
			}
		}
	}
	weight := 1.0
	for d := model.FolderOf(f.Path); d != "."; d = model.FolderOf(d) {
		if lex.passing[d] {
			continue
		}
		if r, ok := lex.Folders[strings.Join(naming.Words(path.Base(d)), " ")]; ok &&
			(isCode || r == model.RoleAsset || r == model.RoleTranslation || r == model.RoleTest || r == model.RoleDocs ||
				r == model.RoleSchema) {
			if r == model.RoleTranslation && !isCode {
				add(r, 2, "it lies in the folder %s", path.Base(d))
			} else if r == model.RoleTest {
				add(r, 1.5, "it lies in the folder %s", path.Base(d))
			} else {
				add(r, weight, "it lies in the folder %s", path.Base(d))
			}
		}
		if weight /= 2.5; weight < 0.1 {
			break
		}
	}
	if isCode && f.Facts != nil {
		lex.content(f.Facts, words, add)
	}
	return out
}

func (lex *Lexicon) content(f *model.Facts, words []string, add func(model.Role, float64, string, ...any)) {
	if f.Starts > 1 {
		add(model.RoleEntry, 1.2, "a program starts in it, line %d", f.Starts)
	} else if f.Starts == 1 {
		add(model.RoleScript, 0.7, "its first line makes it a program to run")
	}
	draws, line := f.Sign(model.SignDraws)
	if draws > 0 {
		svg, _ := f.Sign(model.SignPicture)
		composes, _ := f.Sign(model.SignComposes)
		if svg > 0 && composes == 0 && len(f.Definitions) <= 2 {
			add(model.RoleAsset, 1.3, "all it draws is a picture, line %d", line)
		} else {
			add(model.RoleView, 1.1, "it draws elements, first on line %d", line)
		}
	}
	if _, l := f.Sign(model.SignEntry); l > 0 {
		add(model.RoleEntry, 1.2, "it mounts the interface, line %d", l)
	}
	if _, l := f.Sign(model.SignListens); l > 0 {
		add(model.RoleEntry, 1, "it starts to listen, line %d", l)
	}
	if n, l := f.Sign(model.SignRoutes); n > 0 {
		add(model.RoleRouting, math.Min(1.2, 0.5+0.15*float64(n)), "it declares %s, first on line %d", count(n, "route"), l)
	}
	if n, l := f.Sign(model.SignSQL); n > 0 {
		add(model.RoleDataAccess, math.Min(1.2, 0.6+0.2*float64(n)), "it runs SQL, first on line %d", l)
	}
	if n, l := f.Sign(model.SignHandles); n > 0 {
		add(model.RoleHandler, math.Min(1, 0.4+0.2*float64(n)), "it answers HTTP requests, first on line %d", l)
	}
	if _, l := f.Sign(model.SignHTTP); l > 0 && draws == 0 {
		add(model.RoleDataAccess, 0.8, "it calls over HTTP, first on line %d", l)
	}
	if _, l := f.Sign(model.SignStore); l > 0 {
		add(model.RoleState, 1, "it makes a store, line %d", l)
	}
	if _, l := f.Sign(model.SignKeepsState); l > 0 && draws == 0 {
		add(model.RoleState, 0.8, "it keeps state without drawing, line %d", l)
	}
	if len(words) > 1 && words[0] == "use" {
		add(model.RoleState, 1, "its name has the form of a hook's")
	}
	spoken := false
	types, rest := 0, 0
	for _, d := range f.Definitions {
		if d.Kind == model.DefClass && d.Parent == "" && !spoken {
			if w := naming.Words(d.Name); len(w) > 1 {
				if r, ok := lex.Names[w[len(w)-1]]; ok {
					spoken = true
					add(r, 0.8, "it defines %s, line %d", d.Name, d.Line)
				}
			}
		}
		switch d.Kind {
		case model.DefType, model.DefInterface, model.DefEnum:
			types++
		case model.DefFunction, model.DefMethod, model.DefComponent, model.DefClass:
			rest++
		}
	}
	if types > 0 && rest == 0 {
		add(model.RoleModel, 0.9, "it defines nothing but %s", count(types, "type"))
	}
}

func count(n int, word string) string {
	if n == 1 {
		return "one " + word
	}
	return fmt.Sprintf("%d %ss", n, word)
}

func isTestName(b string) bool {
	for _, mark := range []string{"_test.", ".test.", ".spec.", "_spec.", "-test.", "tests.cs", "test.java", "test.kt", "test.php"} {
		if strings.Contains(b, mark) {
			return true
		}
	}
	return strings.HasPrefix(b, "test_") && strings.HasSuffix(b, ".py") || b == "conftest.py"
}

func isProjectFile(b string) bool {
	switch b {
	case "makefile", "gnumakefile", "dockerfile", "containerfile", "gemfile", "rakefile", "jantel.yaml", "procfile",
		"cmakelists.txt", "requirements.txt", "pom.xml", "build.gradle", "setup.py", "codeowners":
		return true
	}
	return strings.HasPrefix(b, ".") && !strings.HasSuffix(b, ".md") ||
		strings.Contains(b, ".config.") || strings.HasPrefix(b, "tsconfig") || strings.HasPrefix(b, "docker-compose") ||
		strings.HasPrefix(b, "compose.")
}

// plural is how a role is spoken of for many files.
func plural(r model.Role) string {
	switch r {
	case model.RoleEntry:
		return "entry points"
	case model.RoleRouting:
		return "routes"
	case model.RoleHandler:
		return "handlers"
	case model.RoleView:
		return "views"
	case model.RoleState:
		return "state"
	case model.RoleLogic:
		return "logic"
	case model.RoleMessage:
		return "events and messages"
	case model.RoleModel:
		return "models"
	case model.RoleDataAccess:
		return "data access"
	case model.RoleSchema:
		return "schemas"
	case model.RoleHelper:
		return "helpers"
	case model.RoleStyle:
		return "styles"
	case model.RoleAsset:
		return "assets"
	case model.RoleTranslation:
		return "translations"
	case model.RoleConfig:
		return "configuration"
	case model.RoleScript:
		return "scripts"
	case model.RoleTest:
		return "tests"
	case model.RoleDocs:
		return "documents"
	}
	return string(r)
}

// Plural is how a role is spoken of for many files: "views", "data access".
func Plural(r model.Role) string { return plural(r) }
