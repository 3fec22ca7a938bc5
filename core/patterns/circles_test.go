package patterns_test

import (
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/patterns"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

func TestWhereThePatternIsRingsEachFileLiesInOne(t *testing.T) {
	s := testkit.Survey(t, `
-- go.mod --
module press
-- core/queue.go --
package core

type Queue struct{ Sheets []string }

func (q *Queue) Next() string { return q.Sheets[0] }
-- core/sheet.go --
package core

type Sheet struct{ Text string }
-- ports/printer.go --
package ports

import "press/core"

type Printer interface{ Print(s core.Sheet) error }
-- adapters/spool.go --
package adapters

import (
	"press/core"
	"press/ports"
)

var _ ports.Printer = Spool{}

type Spool struct{}

func (Spool) Print(s core.Sheet) error { return nil }
-- adapters/serial.go --
package adapters

import "press/core"

type Serial struct{}

func (Serial) Print(s core.Sheet) error { return nil }
`)
	j := judgement.Judge(s, model.Brief{}, nil)
	require.Equal(t, "rings", j.Patterns[0].Name)
	ringOf := patterns.Circles(j.Patterns)
	require.NotNil(t, ringOf)
	require.Equal(t, patterns.CircleCore, ringOf("core/queue.go"))
	require.Equal(t, patterns.CircleCore, ringOf("ports/printer.go"), "what the core asks through is its own")
	require.Equal(t, patterns.CircleAround, ringOf("adapters/spool.go"))
	require.Empty(t, ringOf("go.mod"))
}

func TestWhereAnotherPatternLeadsThereAreNoRings(t *testing.T) {
	require.Nil(t, patterns.Circles(nil))
	require.Nil(t, patterns.Circles([]model.PatternMatch{{Name: "layered", Score: 90}, {Name: "rings", Score: 80}}))
	require.Nil(t, patterns.Circles([]model.PatternMatch{{Name: "rings", Score: 40}}))
}
