package weave_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestAHeirIsWhatItsBaseIs(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, `
-- desk/Board.php --
<?php
namespace Desk;
use Toolkit\AbstractWidget;
abstract class Board extends AbstractWidget { public function title() { return 1; } }
-- desk/MoorService.php --
<?php
namespace Desk;
class MoorService extends Board { public function wet() { return 2; } }
-- desk/Bog.php --
<?php
namespace Desk;
class Bog extends MoorService { public function deep() { return 3; } }
-- ring/Ring.php --
<?php
namespace Ring;
class Ring extends Gnir { public function turn() { return 3; } }
-- ring/Gnir.php --
<?php
namespace Ring;
class Gnir extends Ring { public function nrut() { return 3; } }
-- desk/Lot.php --
<?php
namespace Desk;
class Lot extends Board { public function all() { return $this->db->query('SELECT id, name FROM lots WHERE id = 1'); } }
`), model.Brief{}, nil)
	for p, want := range map[string]model.Role{
		"desk/Board.php": model.RoleView, "desk/MoorService.php": model.RoleView, "desk/Bog.php": model.RoleView,
		"ring/Ring.php": model.RoleLogic, "ring/Gnir.php": model.RoleLogic,
		"desk/Lot.php": model.RoleDataAccess, // what it does says more
	} {
		require.Equal(t, want, j.Roles[p].Role, "%s: %s", p, j.Roles[p].Reasons)
	}
	require.Contains(t, j.Roles["desk/Bog.php"].Reasons, "Bog is a MoorService, which is a AbstractWidget, line 3")
	require.Equal(t, model.RoleSeen, j.Roles["desk/Bog.php"].Source)
}

func TestAHeaderIsWhatItsSourceIsNotTheOtherWayRound(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, `
-- src/peat.h --
typedef struct { int wet; } peat;
-- src/peat.c --
#include "peat.h"
int dry(peat *p) { return p->wet; }
-- src/lots.h --
typedef struct { int n; } lot;
-- src/crates_codec.h --
typedef struct { int n; } crate;
-- src/crates_codec.c --
#include "crates_codec.h"
int put(crate *c) { return c->n; }
-- src/daemon_unix.c --
int rest(void) { return 1; }
-- src/daemon_other.c --
int rest(void) { return 0; }
-- src/sun_other.c --
int shine(void) { return 0; }
`), model.Brief{}, nil)
	for p, want := range map[string]model.Role{
		"src/peat.c": model.RoleLogic, "src/peat.h": model.RoleLogic, "src/lots.h": model.RoleModel,
		"src/crates_codec.c": model.RoleFormat, "src/crates_codec.h": model.RoleFormat,
		"src/daemon_other.c": model.RolePlatform, "src/sun_other.c": model.RoleLogic,
	} {
		require.Equal(t, want, j.Roles[p].Role, "%s: %s", p, j.Roles[p].Reasons)
	}
}

func TestAViewOfDataThatAProgramDefinesDrawsNothing(t *testing.T) {
	j := judgement.Judge(testkit.Survey(t, `
-- go.mod --
module vault
-- shelf/shelf.go --
package shelf

type ReadView interface{ Boxes() []string }

type Shelf struct{ ReadView }

func (s *Shelf) Count() int { return len(s.Boxes()) }
-- shelf/rows.go --
package shelf

type rows struct{ Shelf }

func (r *rows) First() string { return r.Boxes()[0] }
`), model.Brief{}, nil)
	for _, p := range []string{"shelf/shelf.go", "shelf/rows.go"} {
		require.NotEqual(t, model.RoleView, j.Roles[p].Role, p)
	}
}
