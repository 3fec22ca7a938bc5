package weave_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/weave"

	"github.com/stretchr/testify/require"
)

const bench = `
-- bench/accession/routes.py --
from flask import Blueprint
from .rules import take
bp = Blueprint('accession', __name__)

@bp.route('/accessions')
def all():
    return take()
-- bench/accession/rules.py --
from .store import rows

def take():
    return rows()
-- bench/accession/store.py --
import sqlite3

def rows():
    return sqlite3.connect('x').execute('SELECT * FROM accession')
-- bench/drying/routes.py --
from flask import Blueprint
from .rules import due
bp = Blueprint('drying', __name__)

@bp.route('/drying')
def all():
    return due()
-- bench/drying/rules.py --
from .store import rows

def due():
    return rows()
-- bench/drying/store.py --
import sqlite3

def rows():
    return sqlite3.connect('x').execute('SELECT * FROM drying')
-- bench/vault/routes.py --
from flask import Blueprint
from .rules import shelves
bp = Blueprint('vault', __name__)

@bp.route('/vault')
def all():
    return shelves()
-- bench/vault/rules.py --
def shelves():
    return 3
`

func judged(t *testing.T, tree string) (*model.Survey, *model.Judgement) {
	s := testkit.Survey(t, tree)
	return s, judgement.Judge(s, model.Brief{}, nil).Judgement
}

func TestFeaturesAreShownByTheCodebasesOwnSortsOfPart(t *testing.T) {
	s, j := judged(t, bench)
	b := weave.BuiltAt(s, j, ".")
	require.Len(t, b.Features, 3)
	require.True(t, b.Features[0].Specimen)
	require.Equal(t, 3, len(b.Features[0].Files), b.Features[0].Name)
	// From the outside in: what receives stands before what keeps.
	require.Less(t, index(b.Parts, b.Features[0].Files[0].Part), index(b.Parts, b.Features[0].Files[2].Part))
	for _, f := range b.Features {
		if f.Name == "vault" {
			require.Len(t, f.Missing, 1)
			require.Contains(t, b.Parts[f.Missing[0]], "store")
		} else {
			require.Empty(t, f.Missing, f.Name)
		}
		n := 0
		for _, k := range f.Parts {
			n += k
		}
		require.LessOrEqual(t, n, f.Total, "no file stands in two sorts of part")
	}
	require.Empty(t, weave.BuiltAt(s, j, "bench/none").Features)
}

func index(all []string, one string) int {
	for i, s := range all {
		if s == one {
			return i
		}
	}
	return -1
}

func TestWhereRolesSayLittleTheRowsArePositions(t *testing.T) {
	s, j := judged(t, `
-- go.mod --
module seeds
-- weigh/weigh.go --
package weigh

import "seeds/tare"

func Weigh(x int) int { return tare.Less(x) }
-- tare/tare.go --
package tare

import "seeds/unit"

func Less(x int) int { return x - unit.One }
-- unit/unit.go --
package unit

const One = 1

func Two() int { return 2 }
-- alone/alone.go --
package alone

func Alone() int { return 4 }
`)
	g := weave.GridOf(s, j, ".")
	if !g.ByPosition {
		t.Fatalf("%v of the lines are seen, so roles are shown", g.Seen)
	}
	files := map[string]string{}
	for _, c := range g.Cells {
		for _, p := range c.Paths {
			files[p] = string(g.Roles[c.Role])[:4]
		}
	}
	require.Equal(t, map[string]string{"weigh/weigh.go": "top:", "tare/tare.go": "midd", "unit/unit.go": "base", "alone/alone.go": "apar"}, files)
}

func TestWhereRolesAreSeenTheRowsAreRolesAndWhatIsAssumedIsCounted(t *testing.T) {
	s, j := judged(t, bench)
	g := weave.GridOf(s, j, ".")
	require.False(t, g.ByPosition)
	lines, assumed := 0, 0
	for _, c := range g.Cells {
		require.LessOrEqual(t, c.Assumed, c.Lines)
		lines += c.Lines
		assumed += c.Assumed
	}
	require.InDelta(t, g.Seen, 1-float64(assumed)/float64(lines), 0.0001)
}
