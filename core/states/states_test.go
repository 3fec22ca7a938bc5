package states_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/states"

	"github.com/stretchr/testify/require"
)

func lines(text string) []string { return strings.Split(strings.Trim(text, "\n"), "\n") }

func TestStatesOfATypeAreRead(t *testing.T) {
	for name, c := range map[string]struct{ text, rest, want string }{
		"a union of texts":          {"export type State = 'idle' | 'busy' | \"done\"", "", "idle busy done"},
		"a union over lines":        {"type State =\n  | 'idle'\n  | 'busy'\n  | 'done'", "", "idle busy done"},
		"a union of other types":    {"type State = 'idle' | 'busy' | Other", "", ""},
		"an enumeration":            {"enum State {\n  IDLE, BUSY,\n  DONE;\n  int n() {}\n}", "", "IDLE BUSY DONE"},
		"one in a line":             {"enum State { Idle, Busy = 2, Done }", "", "Idle Busy Done"},
		"with values":               {"enum State: string\n{\n    case Idle = 'i';\n    case Busy = 'b';\n    case Done = 'd';\n}", "", "Idle Busy Done"},
		"a class of members":        {"class State(str, Enum):\n  \"\"\"It.\"\"\"\n  IDLE = 'i'  # so\n  BUSY = 'b'\n  DONE = 'd'\n\n  def n(self):\n    pass", "", "IDLE BUSY DONE"},
		"constants behind the type": {"type State int", "\nconst (\n\tIdle State = iota\n\tBusy\n\tDone // at last\n)\n", "Idle Busy Done"},
		"constants of another type": {"type State int", "\nconst (\n\tOne Other = iota\n\tTwo\n\tThree\n)\n", ""},
		"too few to be states":      {"enum Side { Left, Right }", "", ""},
		"an interface":              {"interface State {\n  a: string\n}", "", ""},
	} {
		t.Run(name, func(t *testing.T) {
			require.Equal(t, c.want, strings.Join(states.MembersOf(lines(c.text), strings.Split(c.rest, "\n")), " "))
		})
	}
}

// follow tells moves and choices of a holder with these states in a text.
func follow(members, text string) *states.Holder {
	h := &states.Holder{Name: "State", Members: strings.Fields(members)}
	states.Follow(h, []states.Text{{Path: "a", Lines: lines(text), By: func(int) string { return "step" }}})
	return h
}

func told(h *states.Holder) (out []string) {
	for _, m := range h.Moves {
		out = append(out, strings.TrimSpace(fmt.Sprintf("%s>%s @%d %s", m.From, m.To, m.Line, m.When)))
	}
	for _, c := range h.Choices {
		line := fmt.Sprintf("choice @%d", c.Line)
		if len(c.Lacks) > 0 {
			line += " lacks " + strings.Join(c.Lacks, "+")
		}
		if c.Else {
			line = strings.TrimSpace(line + " rest " + strings.Join(c.Rest, "+"))
		}
		out = append(out, line)
	}
	return out
}

func TestHowOneStateLeadsToAnother(t *testing.T) {
	for name, c := range map[string]struct {
		members, text string
		want          []string
	}{
		"cases, with conditions and one left out": {"idle busy jammed done", `
interface Printer { state: State }
function step(p: Printer, e: Event): Printer {
  switch (p.state) {
    case 'idle':
      return e.kind === 'send' ? { ...p, state: 'busy' } : p
    case 'busy':
      if (e.kind === 'jam') return { ...p, state: 'jammed' }
      return { ...p, state: 'done' }
    case 'jammed':
      return { ...p, state: 'busy' }
  }
}
`, []string{"idle>busy @5 kind send", "busy>jammed @7 kind jam", "busy>done @8", "jammed>busy @10", "choice @3 lacks done"}},
		"a case for the rest": {"idle busy done", `
const says = (state: State) => {
  switch (state) {
    case 'idle':
    case 'busy':
      return 'wait'
    default:
      return ''
  }
}
`, []string{"choice @2 rest done"}},
		"fields that are set, from any state and from one": {"IDLE BUSY DONE", `
class Job {
  private State state = State.IDLE;
  void start() {
    if (state == State.IDLE) {
      state = State.BUSY;
    }
  }
  void end() {
    this.state = State.DONE;
  }
}
`, []string{">IDLE @2", "IDLE>BUSY @5", ">DONE @9"}},
		"by indentation": {"IDLE BUSY DONE", `
class Job:
    state: State = State.IDLE

    def step(self):
        match self.state:
            case State.IDLE:
                self.state = State.BUSY
            case State.BUSY | State.DONE:
                self.state = State.IDLE
            case _:
                pass
`, []string{">IDLE @2", "IDLE>BUSY @7", "BUSY>IDLE @9", "DONE>IDLE @9", "choice @5 rest"}},
		"arms with arrows": {"Idle Busy Done", `
struct Job { state: State }
fn step(job: &mut Job) {
    match job.state {
        State::Idle => job.state = State::Busy,
        State::Busy => job.state = State::Done,
        State::Done => {}
    }
}
`, []string{"Idle>Busy @4", "Busy>Done @5", "choice @3"}},
		"constants without a name before them": {"Idle Busy Done", `
type job struct {
	state State
}
func (j *job) step() {
	switch j.state {
	case Idle:
		j.state = Busy
	case Busy:
		j.state = Done
	}
}
`, []string{"Idle>Busy @7", "Busy>Done @9", "choice @5 lacks Done"}},
		"texts alike in what holds no state": {"idle busy done", `
const light = { colour: 'idle' }
if (mode === 'busy') log('done')
`, nil},
		"comparing and declaring move nothing": {"idle busy done", `
let state: State
if (state === 'idle') log(state == 'busy')
type Other = { state: 'idle' | 'busy' }
`, nil},
	} {
		t.Run(name, func(t *testing.T) { require.Equal(t, c.want, told(follow(c.members, c.text))) })
	}
}

func TestStatesThatNothingLeadsToOrOutOf(t *testing.T) {
	h := follow("idle busy done lost", `
interface Job { state: State }
switch (job.state) {
  case 'idle':
    job.state = 'busy'
  case 'busy':
    job.state = 'done'
}
`)
	require.Equal(t, []string{"idle", "lost"}, h.Never)
	require.Equal(t, []string{"done", "lost"}, h.Stuck)
	h = follow("idle busy done", "interface Job { state: State }\njob.state = 'busy'\n")
	require.Empty(t, h.Stuck, "it may leave any of them")
	require.Empty(t, follow("idle busy done", "const a = 1").Never, "nothing is known of it")
}

func FuzzFollow(f *testing.F) {
	f.Add("a b c", "x: State\nswitch (x) {\ncase a:\n x = b")
	f.Add("( [ \\", "State x;\n}}}\ncase")
	f.Fuzz(func(t *testing.T, members, text string) {
		h := follow(members, text)
		for _, m := range h.Moves {
			require.Contains(t, h.Members, m.To)
		}
		for _, c := range h.Choices {
			require.True(t, c.Line >= 1 && c.Line <= len(lines(text)))
		}
	})
}
