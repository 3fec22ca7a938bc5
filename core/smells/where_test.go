package smells_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// said are the messages of one rule about a tree.
func said(t *testing.T, rule, tree string) (out []string) {
	t.Helper()
	for _, sm := range judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil).Smells {
		if sm.Rule == rule {
			out = append(out, sm.Message)
		}
	}
	return out
}

// What was read on programs drawn by lot and was not worth saying stays unsaid,
// beside what is.
func TestWhatOnlyLooksLikeASmellIsLeftUnsaid(t *testing.T) {
	headers, includes, imports := "", "", ""
	for i := range 9 {
		headers += fmt.Sprintf("-- include/vault/part%c.h --\nint part%c(void);\n", 'a'+i, 'a'+i)
		includes += fmt.Sprintf("#include \"../include/vault/part%c.h\"\n", 'a'+i)
		imports += fmt.Sprintf("-- labels/part%c.ts --\nexport const part%c = 1\n", 'a'+i, 'a'+i)
	}
	lone := "-- desk/boxLabel.ts --\n"
	for i := range 9 {
		lone += fmt.Sprintf("import { part%c } from '../labels/part%c'\n", 'a'+i, 'a'+i)
	}
	among := "-- desk/text.ts --\nimport { number } from './number'\nexport const text = number\n-- desk/number.ts --\nexport const number = 1\n"
	for _, c := range []struct {
		rule, tree string
		says       bool
	}{
		{"file-elsewhere", headers + "-- drivers/scale.c --\n" + includes + "int weigh(void) { return 1; }\n", false},
		{"file-elsewhere", imports + lone + "export const label = parta\n" + among + "-- labels/sheet.ts --\nimport { label } from '../desk/boxLabel'\nexport const sheet = label\n", true},
		{"file-elsewhere", imports + lone + "export const label = parta\n", false},
		{"numbered-name", "-- a.c --\nint read16(void) { return 1; }\nint read32(void) { return 2; }\nint read64(void) { return 3; }\n", false},
		{"numbered-name", "-- a.c --\nint read1(void) { return 1; }\nint read2(void) { return 2; }\n", true},
		{"single-folder-chain", "-- usr/lib/python3/dist-packages/vault/a.py --\ndef a():\n    pass\n-- usr/lib/python3/dist-packages/vault/b.py --\ndef b():\n    pass\n", false},
		{"single-folder-chain", "-- press/code/inner/labels/a.py --\ndef a():\n    pass\n-- press/code/inner/labels/b.py --\ndef b():\n    pass\n", true},
		{"file-nobody-reaches", "-- logic/desk.js --\nDesk.open = function () { return 1; };\n-- run.js --\n#!/usr/bin/env node\nrequire('./a').a()\n-- a.js --\nexports.a = function () {}\n", false},
		{"file-nobody-reaches", "-- logic/desk.js --\nimport { a } from '../a'\nexport function open() { return a() }\n-- run.js --\n#!/usr/bin/env node\nimport { a } from './a'\na()\n-- a.js --\nexport function a() {}\n", true},
		{"file-nobody-reaches", loaded("desk/imports/file_%s.py"), false},
		{"file-nobody-reaches", loaded("desk/extensions/%s/%[1]s.py"), false},
		{"file-nobody-reaches", loaded("desk/upgrade/01%d_%s.py"), false},
		{"file-nobody-reaches", loaded("desk/store/%s_scale.py"), true},
		{"file-nobody-reaches", emptyPackages + "-- desk/logic/vetch/vetch.py --\ndef weigh():\n    return 1\n", true},
		{"same-type-name", steps("migrations"), false},
		{"same-type-name", steps("movements"), true},
		{"suffix-against-folder", typed("Models.php"), false},
		{"suffix-against-folder", typed("Weighing.php"), true},
		{"commented-out-code", "-- config/settings.py --\n" + aside, false},
		{"commented-out-code", "-- desk/weigh.py --\n" + aside, true},
		{"folder-name-untrue", machine("arch", "i386"), false},
		{"folder-name-untrue", machine("src", "views"), true},
	} {
		got := said(t, c.rule, c.tree)
		if c.says {
			require.NotEmpty(t, got, c.rule)
		} else {
			require.Empty(t, got, c.rule)
		}
	}
}

// aside is code in comments, before a line that runs.
const aside = "def weigh(lot):\n    return lot\n\n" + "# weight = read(scale, 12)\n# if weight > 10:\n#     store(weight)\n#     return weight\n" +
	"# scale = find(weight)\n# print(scale.name)\n# close(scale)\n# open(scale, 4)\n# wait(scale)\n# x = scale.weigh(lot)\n# store(x)\n"

// emptyPackages is a program beside packages that hold nothing but their mark.
const emptyPackages = "-- desk/main.py --\nfrom desk.lots import lots\n\nif __name__ == '__main__':\n    lots()\n-- desk/lots.py --\ndef lots():\n    return 1\n" +
	"-- desk/logic/barley/__init__.py --\n\n-- desk/logic/rye/__init__.py --\n\n-- desk/logic/oat/__init__.py --\n\n"

// loaded is a program with four files that nothing names, called so, and others that it
// takes in.
func loaded(pattern string) string {
	out := "-- desk/main.py --\nfrom desk.lots import lots\n\nif __name__ == '__main__':\n    lots()\n-- desk/lots.py --\ndef lots():\n    return 1\n"
	for i, name := range []string{"barley", "rye", "oat", "vetch"} {
		p := fmt.Sprintf(pattern, name)
		if strings.Contains(pattern, "%d") {
			p = fmt.Sprintf(pattern, i, name)
		}
		out += fmt.Sprintf("-- %s --\ndef weigh%d():\n    return %d\n", p, i, i)
	}
	return out
}

// steps are files of one class each, in a folder of that name in each of four parts.
func steps(folder string) string {
	var b strings.Builder
	for _, part := range []string{"drying", "vault", "growers", "labels"} {
		fmt.Fprintf(&b, "-- %s/%s/0001_start.py --\nclass Migration:\n    depends = 1\n", part, folder)
	}
	return b.String()
}

// typed is a folder of types, and one more file.
func typed(more string) string {
	out := "-- seeds/" + more + " --\n<?php\nclass " + strings.TrimSuffix(more, ".php") + " { }\n"
	for _, name := range strings.Fields("Barley Rye Oat Vetch Clover Sedge Moss Fern Heath") {
		out += fmt.Sprintf("-- seeds/%sModel.php --\n<?php\nclass %[1]sModel { }\n", name)
	}
	return out
}

// machine is a folder of files that each hold types alone.
func machine(up, name string) string {
	var b strings.Builder
	for i := range 8 {
		fmt.Fprintf(&b, "-- %s/%s/part%c.ts --\nexport interface Part%c { n: number }\n", up, name, 'a'+i, 'A'+i)
	}
	return b.String()
}
