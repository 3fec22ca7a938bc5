package weave_test

import (
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

var things = []string{"lot", "shelf", "grower", "drying", "label", "order"}

func title(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// spread makes a file for each thing and kind from a pattern, in which {t} is
// the thing, {T} the same with a capital, {k} the kind and {K} likewise.
func spread(pattern, text string, ts, ks []string) string {
	var b strings.Builder
	for _, t := range ts {
		for _, k := range ks {
			r := strings.NewReplacer("{t}", t, "{T}", title(t), "{k}", k, "{K}", title(k))
			fmt.Fprintf(&b, "-- %s --\n%s\n", r.Replace(pattern), r.Replace(text))
		}
	}
	return b.String()
}

// TestAFewFilesAreCutAsTheirFoldersSay are trees too small for pairs: a grid of
// things and kinds is read from its folders.
func TestAFewFilesAreCutAsTheirFoldersSay(t *testing.T) {
	two := things[:2]
	for name, c := range map[string]struct{ tree, want string }{
		"folders of kinds that hold the same things":   {spread("{k}/{t}.go", "package {k}\n\nfunc {T}() {}", two, []string{"handler", "service", "repository"}), "by kind"},
		"folders of things that hold the same kinds":   {spread("{t}/{k}.go", "package {t}\n\nfunc {T}() {}", things[:3], []string{"handler", "service", "repository"}), "by feature"},
		"kinds, with the templates":                    {spread("app/{k}s/{t}.rb", "class {T}\nend", two, []string{"controller", "model"}) + spread("app/views/{t}/show.erb", "<p/>", two, []string{"x"}), "by kind"},
		"a part with its style, in a folder each":      {spread("src/{T}/{T}.tsx", "export const {T} = () => <p/>", things[:3], []string{"x"}) + spread("src/{T}/{T}.css", "p {}", things[:3], []string{"x"}), "by feature"},
		"folders of kinds that hold other things each": {"-- services/lot.go --\npackage services\n-- services/box.go --\npackage services\n-- data/row.go --\npackage data\n-- data/page.go --\npackage data\n-- main.go --\npackage main\n", ""},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, cutOf(t, c.tree).Label) })
	}
	grid := cutOf(t, spread("{k}/{t}.go", "package {k}\n\nfunc {T}() {}", two, []string{"handler", "service", "repository"}))
	require.Equal(t, "handler is called for one kind and holds lot, shelf", grid.Evidence[0].Note)
}

func cutOf(t *testing.T, tree string) model.Cut {
	return judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Cut
}

// Each tree stands with the label a reader would give it; "" is too little to
// tell.
func TestTreesAreCutAsAReaderWouldSay(t *testing.T) {
	server := []string{"controller", "service", "repository"}
	flask := []string{"routes", "service", "repository"}
	half := things[:3]
	for name, c := range map[string]struct{ tree, want string }{
		"one folder a thing, kinds in the names": {spread("src/{t}/{t}.{k}.ts", "export class {T}{K} {}", things, server), "by feature"},
		"one folder a kind":                      {spread("src/{k}s/{t}.ts", "export class {T}{K} {}", things, server), "by kind"},
		"one folder a kind, kinds in the names":  {spread("src/{k}s/{t}.{k}.ts", "export class {T}{K} {}", things, server), "by kind"},
		"all in one folder":                      {spread("src/{t}.{k}.ts", "export class {T}{K} {}", things, server), ""},
		// A reader would rather say mixed; but of the pairs that could lie together
		// by feature half do, of those by kind a fifth.
		"half of it so and half so":                  {spread("src/{t}/{t}.{k}.ts", "export class {T}{K} {}", half, server) + spread("src/{k}s/{t}.{k}.ts", "export class {T}{K} {}", things[3:], server), "by feature"},
		"Java by layer":                              {spread("src/main/java/vault/{k}/{T}{K}.java", "package vault.{k}; public class {T}{K} {}", things, server), "by kind"},
		"Java by feature":                            {spread("src/main/java/vault/{t}/{T}{K}.java", "package vault.{t}; public class {T}{K} {}", things, server), "by feature"},
		"Java by feature, layers inside":             {spread("src/main/java/vault/{t}/{k}/{T}{K}.java", "package vault.{t}.{k}; public class {T}{K} {}", things, server) + spread("src/main/java/vault/{t}/{k}/{T}Item{K}.java", "public class {T}Item{K} {}", things, server), "by feature, kinds inside"},
		"C# by kind":                                 {spread("Vault/{K}s/{T}{K}.cs", "namespace Vault.{K}s; public class {T}{K} {}", things, []string{"controller", "service", "repository", "entity"}), "by kind"},
		"C# by feature":                              {spread("Vault/Features/{T}/{T}{K}.cs", "namespace Vault.{T}; public class {T}{K} {}", things, server), "by feature"},
		"Go packages by feature":                     {spread("internal/{t}/{k}.go", "package {t}\n\n// {T}{K} is.\ntype {T}{K} struct{}\n\nfunc New{T}{K}() {}", things, []string{"handler", "service", "repository"}), "by feature"},
		"Go packages by kind":                        {spread("internal/{k}/{t}_{k}.go", "package {k}\n\ntype {T}{K} struct{}\n\nfunc New{T}() {}", things, []string{"handler", "service", "repository"}), "by kind"},
		"Python apps, names of kinds alone":          {spread("vault/{t}/{k}.py", "class {T}{K}:\n    pass\n\ndef list_{t}(): pass", things, flask), "by feature"},
		"Python by kind":                             {spread("vault/{k}/{t}_{k}.py", "class {T}{K}:\n    pass", things, flask), "by kind"},
		"Ruby as its framework has it":               {spread("app/{k}s/{t}_{k}.rb", "class {T}{K}\nend", things, []string{"controller", "serializer", "policy"}), "by kind"},
		"PHP as its framework has it":                {spread("app/{K}s/{T}{K}.php", "<?php class {T}{K} {}", things, []string{"controller", "service", "repository"}), "by kind"},
		"PHP by feature":                             {spread("src/{T}/{T}{K}.php", "<?php class {T}{K} {}", things, server), "by feature"},
		"Kotlin by feature":                          {spread("app/src/main/kotlin/vault/{t}/{T}{K}.kt", "package vault.{t}\nclass {T}{K}", things, server), "by feature"},
		"a front end by kind":                        {spread("src/{k}s/{T}{K}.tsx", "export const {T}{K} = () => <p>{ {t} }</p>", things, []string{"page"}) + spread("src/store/{t}Slice.ts", "export const slice = createSlice({})", things, []string{"x"}) + spread("src/api/{t}Api.ts", "export const load = () => fetch('/api/{t}')", things, []string{"x"}), "by kind"},
		"a front end by feature":                     {spread("src/features/{t}/{T}Page.tsx", "export const {T}Page = () => <p>x</p>", things, []string{"x"}) + spread("src/features/{t}/{t}Slice.ts", "export const slice = createSlice({})", things, []string{"x"}) + spread("src/features/{t}/{t}Api.ts", "export const load = () => fetch('/api/{t}')", things, []string{"x"}), "by feature"},
		"tests beside what they test change nothing": {spread("src/{t}/{t}.{k}.ts", "export class {T}{K} {}", things, server) + spread("test/{t}.{k}.test.ts", "test('{t}', () => {})", things, server), "by feature"},
		"all in one folder, beside three small ones": {spread("src/{t}_{k}.go", "package src\n\nfunc {T}{K}() {}", things, []string{"reader", "shelf", "desk"}) + "-- src/util/a.go --\npackage util\n-- src/tui/b.go --\npackage tui\n", ""},
		"one thing only":                             {spread("src/{k}s/lot.{k}.ts", "export class Lot{K} {}", []string{"lot"}, server), ""},
		"one kind only":                              {spread("src/{t}/{t}.service.ts", "export class {T}Service {}", things, []string{"x"}), ""},
		"rings around a core, things in the names":   {spread("src/{k}/{t}.{k}.ts", "export class {T}{K} {}", things, []string{"entity", "usecase", "gateway"}), "by kind"},
		// Neither names nor folders that are built alike tell here.
		"names that tell nothing":                      {spread("src/{t}/{t}{k}.ts", "export const x = 1", things[:2], []string{"ab", "cd", "ef"}) + spread("src/{t}/x{t}{k}.ts", "export const x = 1", things[2:4], []string{"gh", "ij", "kl"}), ""},
		"folders built alike, names that tell nothing": {spread("src/{t}/a{k}.ts", "export const x = 1", things, []string{"a", "b", "c"}), "by feature"},
		"folders built alike, beside others":           {spread("src/{t}/a{k}.ts", "export const x = 1", things[:3], []string{"a", "b"}) + spread("lib/{t}{k}/z{k}.ts", "export const x = 1", things, []string{"gh", "ij", "kl"}), ""},
		"a helper folder beside features":              {spread("src/{t}/{t}.{k}.ts", "export class {T}{K} {}", things, server) + "-- src/utils/dates.ts --\nexport const day = 1\n-- src/utils/text.ts --\nexport const cap = 1\n", "by feature"},
		"a folder of types beside kinds":               {spread("src/{k}s/{t}.{k}.ts", "export class {T}{K} {}", things, server) + "-- src/types/all.ts --\nexport interface Lot {}\n", "by kind"},
		"features that are called like kinds":          {spread("src/{t}/{t}.{k}.ts", "export class {T}{K} {}", []string{"menu", "slot", "part", "tool"}, server), "by feature"},
		"two programs, each with a project of its own": {"-- a/package.json --\n{\"name\":\"a\"}\n-- b/package.json --\n{\"name\":\"b\"}\n" + spread("a/src/{t}/{t}.{k}.ts", "export class {T}{K} {}", things, server) + spread("b/src/{t}/{t}.{k}.ts", "export class {T}{K} {}", half, server), "by feature"},
		"two programs that differ":                     {"-- a/package.json --\n{\"name\":\"a\"}\n-- b/package.json --\n{\"name\":\"b\"}\n" + spread("a/src/{t}/{t}.{k}.ts", "export class {T}{K} {}", things, server) + spread("b/src/{k}s/{t}.{k}.ts", "export class {T}{K} {}", things, server), "mixed"},
		"Rust modules by kind":                         {spread("src/{k}/{t}_{k}.rs", "pub struct {T}{K};", things, []string{"handler", "service", "repository"}), "by kind"},
		"a deep folder above the features":             {spread("code/app/vault/{t}/{t}_{k}.py", "class {T}{K}:\n    pass", things, flask), "by feature"},
	} {
		t.Run(name, func(t *testing.T) {
			got := cutOf(t, c.tree)
			require.Equal(t, c.want, got.Label, "%v", got)
			if c.want == "" {
				require.Nil(t, got.Value)
				return
			}
			require.NotEmpty(t, got.Evidence)
		})
	}
}

func TestFilesThrownTogetherHaveNoCut(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	told := 0
	for range 30 {
		tree := ""
		for _, thing := range things {
			for _, kind := range []string{"controller", "service", "repository"} {
				tree += fmt.Sprintf("-- src/f%d/%s.%s.ts --\nexport class %s%s {}\n", r.IntN(4), thing, kind, title(thing), title(kind))
			}
		}
		if c := cutOf(t, tree); c.Value != nil {
			require.True(t, *c.Value >= -1 && *c.Value <= 1)
			told++
		}
	}
	require.Less(t, told, 15, "chance is seldom taken for a plan")
}

func TestFeatures(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, spread("src/{k}s/{t}.{k}.ts", "export class {T}{K} {}", []string{"lot", "shelf"}, []string{"controller", "service"})+
		"-- src/services/lot-weight.ts --\nexport const w = 1\n-- src/utils/dates.ts --\nexport const d = 1\n-- src/main.ts --\nlisten()\n"), model.Brief{}, nil)
	require.Len(t, j.Features, 2)
	require.Equal(t, "lot", j.Features[0].Name)
	require.Equal(t, []string{"src/controllers/lot.controller.ts", "src/services/lot-weight.ts", "src/services/lot.service.ts"}, j.Features[0].Files)
	require.Equal(t, 2, j.Features[0].Scatter)
	require.Equal(t, "shelf", j.FeatureOf["src/services/shelf.service.ts"].Feature)
	require.NotEmpty(t, j.FeatureOf["src/services/shelf.service.ts"].Reasons)
	require.Empty(t, j.FeatureOf["src/utils/dates.ts"].Feature)
	require.Empty(t, j.FeatureOf["src/main.ts"].Feature)
}

func TestLevelsOfFolders(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, `
-- src/routes/a.ts --
import '../logic/b'
-- src/logic/b.ts --
import '../data/c'
import '../words/d'
-- src/data/c.ts --
import '../logic/types'
-- src/logic/types.ts --
-- src/words/d.ts --
`), model.Brief{}, nil)
	require.Equal(t, [][]string{{"src/routes"}, {"src/data", "src/logic"}, {"src/words"}}, j.Levels)
	var rings [][]string
	for _, c := range j.Cycles {
		if c.Level == "folder" {
			rings = append(rings, c.Members)
			require.Len(t, c.Break, 1)
		}
	}
	require.Equal(t, [][]string{{"src/data", "src/logic"}}, rings)
}

func TestWhatIsCutOtherwiseIsNamed(t *testing.T) {
	tree := spread("desk/{k}s/{t}.ts", "export class {T}{K} {}", things, []string{"controller", "service", "repository", "model"}) +
		spread("bench/{t}/{k}.py", "class {T}{K}:\n    pass", things[:4], []string{"routes", "service", "repository"})
	got := cutOf(t, tree)
	require.Equal(t, "by kind", got.Label)
	require.Len(t, got.Levels, 1)
	require.Equal(t, "bench", got.Levels[0].Path)
	require.Equal(t, "by feature", got.Levels[0].Label)
	require.Empty(t, cutOf(t, spread("src/{t}/{t}.{k}.ts", "export class {T}{K} {}", things, []string{"controller", "service", "repository"})).Levels)
}
