package parts_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/parts"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// told lists the parts of a tree, one a line.
func told(t *testing.T, tree string) string {
	t.Helper()
	j := judgement.Judge(testkit.Survey(t, tree), model.Brief{}, nil)
	var out []string
	for _, p := range parts.Of(j.Reading, func(_, name string) bool { return strings.Contains(name, "tested") }) {
		var duties []string
		for _, d := range p.Duties {
			duties = append(duties, fmt.Sprintf("%s at %d", d.Name, d.Line))
		}
		line := fmt.Sprintf("%s %s (%s) %d lines, takes %d, offers %d, uses %d, used by %d",
			p.Path, p.Name, p.Kind, p.Lines, p.Takes, p.Offers, p.Uses, p.Users)
		if p.Built != "" {
			line += ", " + p.Built
		}
		if p.Tested {
			line += ", tested"
		}
		if len(duties) > 0 {
			line += ": " + strings.Join(duties, ", ")
		}
		out = append(out, line)
	}
	return strings.Join(out, "\n")
}

func TestPartsAreToldWithTheirDuties(t *testing.T) {
	for name, c := range map[string]struct{ tree, want string }{
		"components": {`
-- desk/package.json --
{"dependencies": {"react": "19"}}
-- desk/src/Badge.tsx --
export function Badge({ text }: { text: string }) {
  return <b>{text}</b>
}
-- desk/src/Picker.tsx --
import { useState } from 'react'
import { Badge } from './Badge'
export function Picker() {
  const [isOpen, setIsOpen] = useState(false)
  const load = () => fetch('/api/shelves', { method: 'POST' })
  return <p onClick={load} onBlur={() => setIsOpen(true)}><Badge text="a" /></p>
}
-- desk/src/Page.tsx --
import { Picker } from './Picker'
export const Page = () => <Picker />
`, `desk/src/Badge.tsx Badge (component) 3 lines, takes 1, offers 0, uses 0, used by 1, primitive: draws at 1
desk/src/Page.tsx Page (component) 1 lines, takes 0, offers 0, uses 1, used by 0, composed: draws at 2
desk/src/Picker.tsx Picker (component) 5 lines, takes 0, offers 0, uses 1, used by 1, composed: draws at 6, keeps state at 4, asks over HTTP at 5`},
		"a class, and functions beside it": {`
-- bench/lots.py --
class Lots:
    def find(self, id):
        return self.db.execute("SELECT * FROM lots WHERE id = ?", id)

    def testedKeep(self, lot):
        return lot


def plan(lots):
    return Lots().find(lots)
-- bench/main.py --
from lots import plan, Lots

def main():
    plan([1])
    Lots()
`, `bench/lots.py Lots (class) 6 lines, takes 0, offers 2, uses 0, used by 2, tested: reads or writes a store at 3
bench/lots.py lots.py (functions) 2 lines, takes 0, offers 1, uses 1, used by 1
bench/main.py main.py (functions) 3 lines, takes 0, offers 1, uses 2, used by 0`},
		"what is set keeps state, what a class only is does not": {`
-- bench/rack.py --
class Rack:
    movable = False
    wide = True

    def size(self):
        return 2


class Dryer:
    running = False

    def start(self):
        self.running = True
`, `bench/rack.py Rack (class) 6 lines, takes 0, offers 3, uses 0, used by 0
bench/rack.py Dryer (class) 5 lines, takes 0, offers 2, uses 0, used by 0: keeps state at 10`},
		"lists and settings are no store": {`
-- desk/src/rows.ts --
export function rows(el: HTMLElement) {
  const all = Array.from(el.children).filter(Boolean)
  return all.filter((row) => settings.get('wide', row))
}
`, `desk/src/rows.ts rows.ts (functions) 4 lines, takes 0, offers 1, uses 0, used by 0`},
		"methods apart from their type": {`
-- press/go.mod --
module moor/press
-- press/core/queue.go --
package core

type Queue struct{ labels []string }

func (q *Queue) Add(label string) { q.labels = append(q.labels, label) }

func (q *Queue) first() string { return q.labels[0] }
-- press/main.go --
package main

import "moor/press/core"

func main() {
	q := &core.Queue{}
	q.Add("a")
}
`, `press/core/queue.go Queue (class) 3 lines, takes 0, offers 1, uses 0, used by 1
press/main.go main.go (functions) 4 lines, takes 0, offers 0, uses 1, used by 0`},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, told(t, c.tree)) })
	}
}
