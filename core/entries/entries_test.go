package entries_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestWhereSomethingStarts(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want map[string]string // path to kind
	}{
		"commands that a package installs, mapped to their source": {
			"-- package.json --\n{\"bin\": {\"vault\": \"./dist/cli.js\", \"seed\": \"bin/seed\"}}\n-- src/cli.ts --\nexport function run() {}\n-- bin/seed --\n#!/usr/bin/env node\nrun()\n",
			map[string]string{"src/cli.ts": "command", "bin/seed": "command"},
		},
		"a start script, and a server that another file starts": {
			"-- package.json --\n{\"scripts\": {\"start\": \"node --inspect main.js\", \"test\": \"node run-tests.js\"}}\n-- main.js --\nimport { open } from './server.js'\nopen()\n-- server.js --\nexport function open() { app.listen(3000) }\n-- run-tests.js --\nx()\n",
			map[string]string{"main.js": "program"},
		},
		"a server that nothing takes in": {
			"-- server.js --\nconst app = express()\napp.listen(3000)\n-- lots.js --\nexport function list() {}\n",
			map[string]string{"server.js": "program"},
		},
		"scripts without an ending, by what their first line says runs them": {
			"-- etc/rc/weigh --\n#!/bin/sh\nweigh all\n-- usr/bin/vault --\n#!/usr/bin/env bash\nexec python -m vault\n-- etc/scale.in --\n#!/bin/sh\nexit\n-- etc/notes --\nno program\n-- a.c --\nint a;\n",
			map[string]string{"etc/rc/weigh": "script", "usr/bin/vault": "command"},
		},
		"what listens when somebody who has one asks it to": {
			"-- server.js --\nclass Scale {\n  start() {\n    this.app.listen(3000)\n  }\n}\nmodule.exports = Scale\n-- desk.js --\nfunction open() {\n  app.listen(3000)\n}\nopen()\n",
			map[string]string{"desk.js": "program"},
		},
		"main functions, those among tools and beside a package apart": {
			"-- go.mod --\nmodule vault\n-- main.go --\npackage main\n\nfunc main() {}\n-- lots/lots.go --\npackage lots\n\nfunc List() {}\n-- lots/gen.go --\npackage main\n\nfunc main() {}\n-- tools/weigh/main.go --\npackage main\n\nfunc main() {}\n-- lots/lots_test.go --\npackage lots\n",
			map[string]string{"main.go": "program", "lots/gen.go": "script", "tools/weigh/main.go": "script"},
		},
		"an application that a server is handed": {
			"-- vault/main.py --\nfrom fastapi import FastAPI\nfrom vault import lots\napp = FastAPI()\n-- vault/lots.py --\nfrom flask import Flask\napp = Flask(__name__)\n",
			map[string]string{"vault/main.py": "program"},
		},
		"pages that a framework finds by their place": {
			"-- desk/package.json --\n{\"dependencies\": {\"next\": \"14\"}}\n-- desk/app/layout.tsx --\nexport default () => <p />\n-- desk/app/lots/page.tsx --\nexport default () => <p />\n-- other/app/layout.tsx --\nexport default () => <p />\n",
			map[string]string{"desk/app/layout.tsx": "page"},
		},
		"the main script of a desktop program": {
			"-- package.json --\n{\"main\": \"main.js\", \"devDependencies\": {\"electron\": \"30\"}}\n-- main.js --\napp.whenReady()\n-- preload.js --\nbridge.expose()\n",
			map[string]string{"main.js": "program"},
		},
		"the build's own program is none": {
			"-- Cargo.toml --\n[package]\nname = \"vault\"\n-- build.rs --\nfn main() {}\n-- src/main.rs --\nfn main() {}\n-- src/lib.rs --\npub fn weigh() {}\n",
			map[string]string{"src/main.rs": "program"},
		},
		"what servers start by name": {
			"-- usr/share/vault/index.php --\n<?php\nrequire 'lib/a.php';\nclass Front {}\n-- usr/share/vault/lib/a.php --\n<?php\nclass A {}\n-- usr/share/vault/lib/index.php --\n<?php\nclass B {}\n",
			map[string]string{"usr/share/vault/index.php": "page"},
		},
		"a main function that has another name on another machine": {
			"-- src/main.c --\n#ifdef ON_MOOR\nint moorMain(int n, char **v)\n#else\nint main(int n, char **v)\n#endif\n{\n  return 0;\n}\n-- src/own.c --\n#ifdef ON_MOOR\nint\nmoorMain(int n, char **v)\n{\n  return 0;\n}\n#else\nint\nmain(int n, char **v)\n{\n  return 0;\n}\n#endif\n-- src/lot.c --\n/* int main(void) is elsewhere */\nint lot(void) { return 1; }\n",
			map[string]string{"src/main.c": "program", "src/own.c": "program"},
		},
		"what servers of several languages start": {
			"-- config.ru --\nrun Vault\n-- vault.psgi --\nmy $app = sub { 1 };\n-- desk/wsgi.py --\napplication = 1\n-- public/index.php --\n<?php\nboot();\n-- src/index.php --\n<?php\nfunction boot() {}\n",
			map[string]string{"config.ru": "program", "vault.psgi": "program", "desk/wsgi.py": "program", "public/index.php": "page"},
		},
		"the script of a page, and what mounts it": {
			"-- index.html --\n<script type=\"module\" src=\"src/desk.js\"></script>\n-- src/desk.js --\nimport './lots.js'\n-- src/lots.js --\nexport const a = 1\n-- src/app.tsx --\ncreateRoot(x).render(<A />)\n",
			map[string]string{"src/desk.js": "page", "src/app.tsx": "page"},
		},
		"a container's command": {
			"-- Dockerfile --\nFROM x\nCMD [\"python\", \"vault/run.py\"]\n-- vault/run.py --\ndef run(): pass\n-- vault/lots.py --\ndef lots(): pass\n",
			map[string]string{"vault/run.py": "program"},
		},
		"functions that a project of Python installs as commands": {
			"-- pyproject.toml --\n[project]\nname = \"vault\"\n[project.scripts]\nweigh = \"vault.cli:main\"\n-- src/vault/cli.py --\nimport sys\n\ndef main():\n    pass\n-- src/vault/lots.py --\ndef lots(): pass\n",
			map[string]string{"src/vault/cli.py": "command"},
		},
		"commands of a project that a program describes": {
			"-- setup.py --\nfrom setuptools import setup\nsetup(name='vault', scripts=['bin/dry'], entry_points={'console_scripts': ['weigh = vault.cli:main'], 'vault.scales': ['bench = vault.bench:Scale']})\n-- bin/dry --\n#!/usr/bin/python\nimport vault.cli\nvault.cli.main()\n-- vault/cli.py --\ndef main():\n    pass\n-- vault/bench.py --\nclass Scale:\n    pass\n",
			map[string]string{"bin/dry": "command", "vault/cli.py": "command"},
		},
		"modules that have the first line of a program and only define": {
			"-- dry.py --\n#!/usr/bin/env python3\n\nRATE = 2\n\ndef dry(lot):\n    return lot * RATE\n\n# last words\n-- sow.py --\n#!/usr/bin/env python3\n\ndef sow(lot):\n    return lot\n\nsow(1)\n-- weigh.pl --\n#!/usr/bin/perl\nweigh();\nsub weigh { return 1 }\n",
			map[string]string{"sow.py": "script", "weigh.pl": "script"},
		},
		"a script by its first line, and a test that could be one": {
			"-- bin/dry --\n#!/usr/bin/perl\nprint 1;\n-- scripts/tidy.py --\n#!/usr/bin/python\nx = 1\n-- t/lots.t --\n#!/usr/bin/perl\nok(1);\n",
			map[string]string{"bin/dry": "command", "scripts/tidy.py": "script"},
		},
	} {
		t.Run(name, func(t *testing.T) {
			j := judgement.Judge(testkit.Survey(t, c.tree), model.Brief{}, nil)
			got := map[string]string{}
			for _, e := range j.Entries {
				got[e.Path] = e.Kind
				require.NotEmpty(t, e.Mechanism)
				require.Positive(t, e.Line)
			}
			require.Equal(t, c.want, got)
		})
	}
}

func TestALibraryHasAFaceAndNoEntry(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, "-- package.json --\n{\"name\": \"scales\", \"main\": \"index.js\"}\n-- index.js --\nexport * from './weigh.js'\n-- weigh.js --\nexport function weigh() {}\n"), model.Brief{}, nil)
	require.Empty(t, j.Entries)
	require.Equal(t, []string{"index.js"}, j.Facades)
	require.Equal(t, model.RoleFacade, j.Roles["index.js"].Role)
}
