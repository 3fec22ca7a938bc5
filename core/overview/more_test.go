package overview_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/overview"

	"github.com/stretchr/testify/require"
)

// What is told of how features are spread bears the cut out, or is left out.
func TestTheCutIsToldWithWhatBearsItOut(t *testing.T) {
	byKind := ""
	for _, f := range []string{"lot", "box", "grower", "label"} {
		byKind += "-- src/routes/" + f + ".ts --\nimport { list } from '../handlers/" + f + "'\nrouter.get('/" + f + "', list)\n" +
			"-- src/handlers/" + f + ".ts --\nimport { all } from '../services/" + f + "'\nexport const list = (req, res) => res.json(all())\n" +
			"-- src/services/" + f + ".ts --\nimport { rows } from '../repositories/" + f + "'\nexport const all = () => rows()\n" +
			"-- src/repositories/" + f + ".ts --\nexport const rows = () => pool.query('SELECT id FROM " + f + " WHERE 1 = 1')\n"
	}
	s := sheet(t, byKind, ".", model.Brief{})
	require.Contains(t, text(s), "It is cut by technical kind: 4 of 4 features lie in 4 folders or more.")
	require.Equal(t, "clear", s.Verdict)
	require.Contains(t, text(s), "It is clearly layered.")
}

func TestEveryPatternReadsWellInASentence(t *testing.T) {
	said := map[string]bool{}
	for _, name := range []string{"layered", "model-view-controller", "model-view-viewmodel", "rings", "by feature", "by kind", "core-feature-shared", "apps and libs", "components and pages", "ui-logic-data", "message loops", "publish-subscribe", "pipeline", "plug-ins", "library", "scripts", "scaffold"} {
		spoken := overview.Spoken(name)
		require.NotEmpty(t, spoken)
		require.NotContains(t, spoken, "-view-", "a slug is no phrase")
		require.False(t, said[spoken], "two patterns are both called %q", spoken)
		said[spoken] = true
	}
}

func TestWhatOthersWroteIsSaidAndLeadsThere(t *testing.T) {
	tree := "-- src/a.ts --\nexport const a = 1\n-- src/b.ts --\nexport const b = 1\n"
	require.NotContains(t, text(sheet(t, tree, ".", model.Brief{})), "Not judged")
	one := sheet(t, tree+"-- web/js/d.min.js --\nx()\n", ".", model.Brief{})
	require.Contains(t, text(one), "Not judged: one file built from other files.")
	many := sheet(t, tree+"-- web/js/d.min.js --\nx()\n-- web/node_modules/x/y/z/a.js --\nx()\n-- web/node_modules/x/b.js --\nx()\n", ".", model.Brief{})
	require.Contains(t, text(many), "Not judged: 3 files, 2 by others and 1 built from other files.")
	for _, s := range many.Sentences {
		if strings.HasPrefix(s.Text, "Not judged") {
			require.Equal(t, model.Evidence{Path: "web/node_modules", Note: "2 files vendored: a package manager fills web/node_modules"}, s.Evidence[0])
		}
	}
	require.NotContains(t, text(sheet(t, tree+"-- web/js/d.min.js --\nx()\n", "src", model.Brief{})), "Not judged")
}

func TestTheSheetLeadsOnByTheKindOfSystem(t *testing.T) {
	server := `-- counter/app.ts --
import express from 'express'
import { show } from './handlers/lots'
const app = express()
app.get('/lots', show)
app.listen(80)
-- counter/handlers/lots.ts --
export function show(req, res) { res.json([]) }
`
	screens := `-- desk/Card.tsx --
export const Card = () => <p>card</p>
-- desk/Page.tsx --
import { Card } from './Card'
export const Page = () => <Card />
`
	require.Equal(t, "journeys", sheet(t, server, ".", model.Brief{}).Then)
	require.Equal(t, "parts", sheet(t, screens, ".", model.Brief{}).Then)
	require.Equal(t, "parts", sheet(t, server+screens, "desk", model.Brief{}).Then)
	require.Empty(t, sheet(t, "-- press/press.go --\npackage press\n\nfunc Press() {}\n", ".", model.Brief{}).Then)
}

func TestWhatNobodyHereWroteIsNotSpokenOf(t *testing.T) {
	var tree strings.Builder
	for i := range 14 {
		fmt.Fprintf(&tree, "-- dist/a%d.js --\nrequire('./a%d.js')\n//# sourceMappingURL=a.js.map\n", i, i+1)
	}
	s := sheet(t, tree.String(), ".", model.Brief{})
	require.Contains(t, text(s), "none of the code in them was written here")
	require.NotContains(t, text(s), "ring")
	require.NotContains(t, text(s), "language whose code is counted")
}

func TestOfManyStartsAlikeTheOneCalledSoIsReadFirst(t *testing.T) {
	tree := "-- go.mod --\nmodule vault\n"
	for _, n := range []string{"add", "index", "weigh"} {
		tree += "-- htdocs/" + n + ".php --\n<?php\necho '<p>" + n + "</p>';\n"
	}
	tree += "-- bin/dry --\n#!/usr/bin/env php\n<?php\necho 1;\n"
	s := sheet(t, tree, ".", model.Brief{})
	require.NotEmpty(t, s.ReadFirst)
	require.Equal(t, "htdocs/index.php", s.ReadFirst[0].Path)
}
