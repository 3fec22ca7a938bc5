package states_test

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/reading"
	"jantel/core/states"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// holders are whole trees with what can be in several states in them, how it goes
// from one to another and which choices leave one out; written down before any
// was run.
var holders = []struct {
	name, tree string
	want       []string
}{
	{"TypeScript: a union in one file, a reducer in another", `
-- state.ts --
export type Phase = 'dry' | 'soaking' | 'sown'
export interface Tray { phase: Phase }
-- step.ts --
import { Tray } from './state'
export function step(t: Tray): Tray {
  switch (t.phase) {
    case 'dry':
      return { ...t, phase: 'soaking' }
    case 'soaking':
      return { ...t, phase: 'sown' }
    default:
      return t
  }
}
`, []string{"Phase dry soaking sown", "dry>soaking step", "soaking>sown step", "choice rest sown"}},
	{"TypeScript: an enumeration with values", `
-- a.ts --
export enum State { Idle = 'idle', Busy = 'busy', Done = 'done' }
export class Job {
  state: State = State.Idle
  start() {
    if (this.state === State.Idle) {
      this.state = State.Busy
    }
  }
  end() {
    this.state = State.Done
  }
}
`, []string{"State Idle Busy Done", ">Idle Job.state", "Idle>Busy Job.start", ">Done Job.end"}},
	{"JavaScript: constants in an object", `
-- a.js --
export const STATUS = Object.freeze({
  OPEN: 'open',
  HELD: 'held',
  SHUT: 'shut',
})
export class Box {
  status = STATUS.OPEN
  hold() {
    if (this.status === STATUS.OPEN) {
      this.status = STATUS.HELD
    }
  }
  shut() {
    this.status = STATUS.SHUT
  }
}
`, []string{"STATUS OPEN HELD SHUT", ">OPEN Box.status", "OPEN>HELD Box.hold", ">SHUT Box.shut"}},
	{"React: a cell that holds one of three", `
-- a.tsx --
import { useState } from 'react'
type Stage = 'asked' | 'sent' | 'failed'
export function Form() {
  const [stage, setStage] = useState<Stage>('asked')
  const send = () => {
    if (stage === 'asked') {
      setStage('sent')
    }
  }
  return <button onClick={send}>{stage}</button>
}
`, []string{"Stage asked sent failed", "asked>sent Form"}},
	{"Go: numbers of a type, a switch that leaves one out", `
-- go.mod --
module a
-- a.go --
package a

type State int

const (
	Idle State = iota
	Busy
	Done
)

type Job struct{ state State }

func (j *Job) Step() {
	switch j.state {
	case Idle:
		j.state = Busy
	case Busy:
		j.state = Done
	}
}
`, []string{"State Idle Busy Done", "Idle>Busy Job.Step", "Busy>Done Job.Step", "choice lacks Done"}},
	{"Go: texts of a type, set in another file of the package", `
-- go.mod --
module a
-- state.go --
package a

type Phase string

const (
	PhaseNew  Phase = "new"
	PhaseSown Phase = "sown"
	PhaseDead Phase = "dead"
)
-- job.go --
package a

type Bed struct{ Phase Phase }

func (b *Bed) Sow() error {
	if b.Phase != PhaseNew {
		return nil
	}
	b.Phase = PhaseSown
	return nil
}
`, []string{"Phase PhaseNew PhaseSown PhaseDead", "PhaseNew>PhaseSown Bed.Sow"}},
	{"Java: an enumeration with arrows", `
-- Order.java --
package a;
class Order {
  enum Status { NEW, PAID, SENT }
  private Status status = Status.NEW;
  void next() {
    switch (status) {
      case NEW -> status = Status.PAID;
      case PAID -> status = Status.SENT;
      case SENT -> {}
    }
  }
}
`, []string{"Status NEW PAID SENT", ">NEW Order.status", "NEW>PAID Order.next", "PAID>SENT Order.next", "choice"}},
	{"C#: an enumeration and a switch that gives the next", `
-- a.cs --
namespace A;
public enum Stage { Draft, Review, Public }
public class Page
{
    public Stage Stage { get; set; } = Stage.Draft;
    public void Next()
    {
        Stage = Stage switch
        {
            Stage.Draft => Stage.Review,
            Stage.Review => Stage.Public,
            _ => Stage,
        };
    }
    public void Reset() { Stage = Stage.Draft; }
}
`, []string{"Stage Draft Review Public", ">Draft Page.Stage", "Draft>Review Page.Next", "Review>Public Page.Next", "choice rest Public", ">Draft Page.Reset"}},
	{"Kotlin: when on an enumeration", `
-- a.kt --
enum class State { IDLE, BUSY, DONE }
class Job {
    var state: State = State.IDLE
    fun step() {
        when (state) {
            State.IDLE -> state = State.BUSY
            State.BUSY -> state = State.DONE
            State.DONE -> {}
        }
    }
}
`, []string{"State IDLE BUSY DONE", ">IDLE Job.state", "IDLE>BUSY Job.step", "BUSY>DONE Job.step", "choice"}},
	{"Python: an enumeration matched", `
-- a.py --
from enum import Enum

class Stage(Enum):
    SEED = 1
    GROWN = 2
    CUT = 3

class Plant:
    def __init__(self):
        self.stage: Stage = Stage.SEED

    def step(self):
        if self.stage == Stage.SEED:
            self.stage = Stage.GROWN
        elif self.stage == Stage.GROWN:
            self.stage = Stage.CUT
`, []string{"Stage SEED GROWN CUT", ">SEED Plant.__init__", "SEED>GROWN Plant.step", "GROWN>CUT Plant.step"}},
	{"Python: constants of a class, one field", `
-- a.py --
class Order:
    STATUS_NEW = 'new'
    STATUS_PAID = 'paid'
    STATUS_SENT = 'sent'

    def __init__(self):
        self.status = self.STATUS_NEW

    def pay(self):
        if self.status == self.STATUS_NEW:
            self.status = self.STATUS_PAID
`, []string{"STATUS STATUS_NEW STATUS_PAID STATUS_SENT", ">STATUS_NEW Order.__init__", "STATUS_NEW>STATUS_PAID Order.pay"}},
	{"Django: choices of a field", `
-- a.py --
from django.db import models

class Loan(models.Model):
    class Status(models.TextChoices):
        OPEN = 'o', 'Open'
        LATE = 'l', 'Late'
        BACK = 'b', 'Back'
    status = models.CharField(choices=Status.choices, default=Status.OPEN)

    def bring(self):
        self.status = self.Status.BACK
`, []string{"Status OPEN LATE BACK", ">BACK Loan.bring"}},
	{"PHP: an enumeration matched", `
-- a.php --
<?php
enum State: string { case Idle = 'i'; case Busy = 'b'; case Done = 'd'; }
class Job {
    private State $state = State::Idle;
    public function step(): void {
        $this->state = match ($this->state) {
            State::Idle => State::Busy,
            State::Busy => State::Done,
            State::Done => State::Done,
        };
    }
}
`, []string{"State Idle Busy Done", ">Idle Job.state", "Idle>Busy Job.step", "Busy>Done Job.step", "Done>Done Job.step", "choice"}},
	{"PHP: constants of a class", `
-- a.php --
<?php
class Order {
    const STATE_NEW = 1;
    const STATE_PAID = 2;
    const STATE_SENT = 3;
    private $state = self::STATE_NEW;
    public function pay() {
        if ($this->state === self::STATE_NEW) {
            $this->state = self::STATE_PAID;
        }
    }
    public function send() {
        $this->state = self::STATE_SENT;
    }
}
`, []string{"STATE STATE_NEW STATE_PAID STATE_SENT", ">STATE_NEW Order.state", "STATE_NEW>STATE_PAID Order.pay", ">STATE_SENT Order.send"}},
	{"Ruby: an enumeration of a model is not read yet", `
-- Gemfile --
gem 'rails'
-- app/models/order.rb --
class Order < ApplicationRecord
  enum status: { fresh: 0, paid: 1, sent: 2 }

  def pay
    self.status = :paid if status == :fresh
  end

  def send_off
    update(status: :sent)
  end
end
`, nil},
	{"Rust: arms that give the next", `
-- Cargo.toml --
[package]
name = "a"
-- src/main.rs --
pub enum State { Idle, Busy, Done }
pub struct Job { state: State }
impl Job {
    pub fn step(&mut self) {
        self.state = match self.state {
            State::Idle => State::Busy,
            State::Busy => State::Done,
            State::Done => State::Done,
        };
    }
}
fn main() {}
`, []string{"State Idle Busy Done", "Idle>Busy Job.step", "Busy>Done Job.step", "Done>Done Job.step", "choice"}},
	{"GDScript: an enumeration of a scene", `
-- project.godot --
config_version=5
-- player.gd --
extends Node
enum State { IDLE, RUN, FALL }
var state: State = State.IDLE

func _process(_delta):
	match state:
		State.IDLE:
			state = State.RUN
		State.RUN:
			state = State.FALL
`, []string{"State IDLE RUN FALL", ">IDLE state", "IDLE>RUN _process", "RUN>FALL _process", "choice lacks FALL"}},
	{"C: an enumeration and a switch", `
-- a.c --
enum state { STATE_IDLE, STATE_BUSY, STATE_DONE };
struct job { enum state state; };
void step(struct job *j) {
    switch (j->state) {
    case STATE_IDLE:
        j->state = STATE_BUSY;
        break;
    case STATE_BUSY:
        j->state = STATE_DONE;
        break;
    default:
        break;
    }
}
`, []string{"state STATE_IDLE STATE_BUSY STATE_DONE", "STATE_IDLE>STATE_BUSY step", "STATE_BUSY>STATE_DONE step", "choice rest STATE_DONE"}},
	{"C++: a class of states", `
-- a.cpp --
enum class Mode { Off, Warm, Hot };
class Oven {
    Mode mode = Mode::Off;
public:
    void heat() {
        if (mode == Mode::Off) {
            mode = Mode::Warm;
        } else {
            mode = Mode::Hot;
        }
    }
};
`, []string{"Mode Off Warm Hot", ">Off Oven.mode", "Off>Warm Oven.heat", ">Hot Oven.heat"}},
	{"colours are a list of texts, and nothing is ever given one", `
-- a.ts --
export type Colour = 'red' | 'green' | 'blue'
export const paint = (c: Colour) => c.length
`, []string{"Colour red green blue"}},
	{"two sides are too few", `
-- a.ts --
export enum Side { Left, Right }
export let side: Side = Side.Left
`, nil},
	{"numbers that are no states", `
-- a.go --
package a

const (
	maxLots = 3
	maxBeds = 4
	maxRows = 5
)
`, nil},
	{"what a test moves is not told", `
-- a.ts --
export type Phase = 'dry' | 'wet' | 'sown'
-- a.test.ts --
import { Phase } from './a'
test('it', () => { const t: { phase: Phase } = { phase: 'dry' }; t.phase = 'wet' })
`, []string{"Phase dry wet sown"}},
	{"two holders in one file are kept apart", `
-- a.java --
class A {
  enum Door { OPEN, SHUT, LOCKED }
  enum Light { OFF, DIM, BRIGHT }
  Door door = Door.SHUT;
  Light light = Light.OFF;
  void enter() {
    door = Door.OPEN;
    light = Light.BRIGHT;
  }
}
`, []string{"Door OPEN SHUT LOCKED", ">SHUT A.door", ">OPEN A.enter", "Light OFF DIM BRIGHT", ">OFF A.light", ">BRIGHT A.enter"}},
	{"a state compared the other way round, and one given by a ternary", `
-- a.ts --
export enum State { Idle, Busy, Done }
export class Job {
  state: State = State.Idle
  step(fail: boolean) {
    if (State.Idle === this.state) {
      this.state = fail ? State.Done : State.Busy
    }
  }
}
`, []string{"State Idle Busy Done", ">Idle Job.state", "Idle>Done Job.step", "Idle>Busy Job.step"}},
}

func TestHoldersOfStatesInWholeTrees(t *testing.T) {
	for _, c := range holders {
		t.Run(c.name, func(t *testing.T) {
			dir := testkit.Tree(t, strings.TrimPrefix(c.tree, "\n"))
			s := testkit.SurveyDir(t, dir)
			judged := map[string]bool{}
			roles := map[string]model.RoleOf{}
			for _, f := range s.Files {
				judged[f.Path] = true
				if strings.Contains(f.Path, ".test.") {
					roles[f.Path] = model.RoleOf{Role: model.RoleTest}
				}
			}
			all := states.Of(reading.Of(s, judged, roles), func(p string) []string {
				text, err := os.ReadFile(filepath.Join(dir, p))
				require.NoError(t, err)
				return strings.Split(string(text), "\n")
			})
			var got []string
			for _, h := range all.Holders {
				got = append(got, h.Name+" "+strings.Join(h.Members, " "))
				for _, m := range h.Moves {
					got = append(got, fmt.Sprintf("%s>%s %s", m.From, m.To, m.By))
				}
				for _, k := range h.Choices {
					line := "choice"
					if len(k.Lacks) > 0 {
						line += " lacks " + strings.Join(k.Lacks, "+")
					}
					if len(k.Rest) > 0 {
						line += " rest " + strings.Join(k.Rest, "+")
					}
					got = append(got, line)
				}
			}
			require.ElementsMatch(t, c.want, got)
		})
	}
}
