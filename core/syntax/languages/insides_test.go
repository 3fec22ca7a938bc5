package languages_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/model"
	"jantel/core/syntax"
	_ "jantel/core/syntax/languages"

	"github.com/stretchr/testify/require"
)

// inside says what was told of the bodies of a file, one part after the other.
func inside(f *model.Facts) string {
	var out []string
	say := func(text string, a ...any) { out = append(out, fmt.Sprintf(text, a...)) }
	for _, in := range f.Insides {
		name := f.Definitions[in.Definition].Qualified()
		if in.Nesting >= 3 {
			say("%s %d deep at %d", name, in.Nesting, in.NestLine)
		}
		if in.Passes != "" {
			say("%s passes to %s", name, in.Passes)
		}
		if !in.Gives && !in.Empty && in.Nesting < 3 && in.Passes == "" && !in.Asserts {
			say("%s gives nothing", name)
		}
		for _, m := range in.Sets {
			say("%s sets %s", name, m.Name)
		}
	}
	for _, c := range f.Choices {
		kind := ""
		if c.ByType {
			kind = " by type"
		}
		say("choice of %d on %s%s at %d", c.Cases, c.Subject, kind, c.Line)
	}
	for _, x := range f.Flags {
		say("flag %s.%s set %d", x.Owner, x.Name, x.Sets)
	}
	for _, c := range f.Cases {
		asserts := "asserts"
		if !c.Asserts {
			asserts = "calls " + strings.Join(c.Calls, " ")
		}
		if c.Waits > 0 {
			asserts += fmt.Sprintf(", waits at %d", c.Waits)
		}
		say("case %s %d-%d %s", c.Name, c.Line, c.EndLine, asserts)
	}
	for _, a := range f.Asides {
		say("code in comments %d-%d", a.From, a.To)
	}
	for _, b := range f.StyleBlocks {
		say("styles %d-%d", b.From, b.To)
	}
	for _, m := range f.OuterStyles {
		say("places itself by %s at %d", m.Name, m.Line)
	}
	return strings.Join(out, "\n")
}

// Written down before they were run.
func TestWhatBodiesLookLike(t *testing.T) {
	for name, c := range map[string]struct{ language, text, want string }{
		"branches in Go": {"Go", `package drying

func Plan(lots []Lot) error {
	for _, l := range lots {
		if l.Wet {
			switch l.Kind {
			case "orchid":
				if l.Old {
					return errOld
				}
			}
		} else if l.Cold {
			return nil
		}
	}
	return nil
}
`, "Plan 4 deep at 8"},
		"a function within starts no new depth": {"TypeScript", `export function plan(lots: Lot[]) {
  lots.forEach((l) => {
    if (l.wet) {
      l.boxes.forEach((b) => {
        for (const s of b.seeds) {
          while (s.wet) { dry(s) }
        }
      })
    }
  })
}
`, "plan 3 deep at 6"},
		"an object is no branch": {"TypeScript", `export const look = (a: boolean) => {
  if (a) return { size: { of: { box: 1 } } }
  const x = { y: { z: { q: {} } } }
  return x
}
`, ""},
		"branches in Python": {"Python", `def plan(lots):
    """Says which lot dries when."""
    for lot in lots:
        if lot.wet:
            with lot.lock:
                try:
                    while lot.wet:
                        dry(lot)
                except Broken:
                    if lot.old:
                        drop(lot)
    return [x for x in lots if x]
`, "plan 4 deep at 10"},
		"branches in Ruby": {"Ruby", `class Plan
  def run(lots)
    return if lots.empty?
    lots.each do |lot|
      if lot.wet?
        while lot.wet?
          case lot.kind
          when :orchid
            dry lot unless lot.old?
          end
        end
      end
    end
  end
end
`, "Plan.run 3 deep at 7"},
		"what only hands on": {"TypeScript", `export class LotService {
  constructor(private store: LotStore) {}
  find(id: string) {
    return this.store.find(id)
  }
  async save(lot: Lot, by: Person): Promise<void> {
    await this.store.save(lot, by)
  }
  swap(a: Lot, b: Lot) {
    return this.store.swap(b, a)
  }
  count(id: string) {
    return this.store.count(id) + 1
  }
}
`, "LotService.find passes to this.store.find\nLotService.save passes to this.store.save"},
		"what only hands on in Java": {"Java", `class LotService {
  private final LotStore store;
  LotService(LotStore store) { this.store = store; }
  Lot find(String id) { return store.find(id); }
  void drop(final Lot lot) { store.drop(lot); }
  Lot make(String id) { return new Lot(id); }
}
`, "LotService.find passes to store.find\nLotService.drop passes to store.drop"},
		"what only hands on in Go, Python and PHP": {"Go", `package lots

func (s *Service) Find(ctx context.Context, id string) (*Lot, error) {
	return s.store.Find(ctx, id)
}

func (s *Service) Drop(ctx context.Context, id string) error {
	if id == "" {
		return errEmpty
	}
	return s.store.Drop(ctx, id)
}
`, "Service.Find passes to s.store.Find"},
		"Python hands on": {"Python", `class Lots:
    def find(self, id):
        "One lot."
        return self.store.find(id)

    def get_all(self):
        self.cached = self.store.all()
        self.count += 1
`, "Lots.find passes to self.store.find\nLots.get_all gives nothing\nLots.get_all sets cached"},
		"PHP hands on": {"PHP", `<?php
class Lots {
    public function find(string $id): Lot { return $this->store->find($id); }
    public function isOpen(): bool { $this->asked = true; return $this->open; }
}
`, "Lots.find passes to $this->store->find\nLots.isOpen sets asked\nflag Lots.asked set 1"},
		"a choice among many": {"Go", `package labels

func size(l Label) int {
	switch l.Kind {
	case "box":
		return 1
	case "bag":
		return 2
	case "shelf":
		return 3
	case "vault":
		return 4
	case "tray", "lid":
		return 5
	}
	return 0
}

func print(x any) {
	switch v := x.(type) {
	case int:
	case string:
	case bool:
	case float64:
	case []byte:
		_ = v
	}
}
`, "choice of 5 on l.Kind at 4\nchoice of 5 on v:=x.(type) by type at 20"},
		"one condition after the other": {"TypeScript", `export function size(l: Label) {
  if (l.kind === 'box') return 1
  if (l.kind === 'bag') return 2
  else if (l.kind === 'shelf') return 3
  if (l.kind === 'vault' || l.kind === 'tray') return 4
  return 0
}
`, "choice of 5 on l.kind at 2"},
		"flags of a component": {"TSX", `export function Meter() {
  const [isReading, setIsReading] = useState(false)
  const [hasFailed, setHasFailed] = useState(false)
  const [name, setName] = useState('')
  const start = () => { setIsReading(true); setHasFailed(false) }
  return <p style={{ marginTop: 4, color: 'red' }}>{name}</p>
}
`, "flag Meter.isReading set 1\nflag Meter.hasFailed set 1\nplaces itself by marginTop at 6"},
		"flags of a class": {"C#", `class Meter {
  private bool isOpen = false;
  private bool hasRead = false;
  public void Open() { isOpen = true; hasRead = false; Log(done: true); }
}
`, "flag Meter.isOpen set 1\nflag Meter.hasRead set 1"},
		"styles before what is drawn": {"TSX", `const styles = {
  box: { margin: 4, padding: 2, color: 'red' },
  bag: { display: 'flex', gap: 3 },
}
const plain = { box: 1, bag: 2, kind: 3, of: 4 }
export const Box = () => (
  <div style={styles.box}>
    <i style={{ marginTop: 3 }} />
  </div>
)
`, "styles 1-4"},
		"code in comments": {"TypeScript", `// The shelf is chosen by its weight; the boxes that are too heavy
// go to the floor, because nobody lifts them; that is what
// the keepers asked for.
export function choose(box: Box) {
  // const shelf = shelves.find(box)
  // if (shelf.full) {
  //   return floor(box)
  // }
  return box.shelf
}
`, "code in comments 5-8"},
		"an example in a comment is none": {"Go", `package lots

// Find finds a lot:
//
//	l := Find("a")
//	l.Dry()
//	l.Keep(3)
//	print(l)
func Find(id string) *Lot { return nil }
`, ""},
		"branches of a preprocessor are no comments, but for one": {"C", `int weigh(struct box *b) {
#ifdef GRAMS
	return b->grams;
#else
	int raw = read_scale(b);
	if (raw < 0) raw = 0;
	return raw / 28;
#endif
#if 0
	log_scale(b);
	reset_scale(b);
	return 0;
#endif
}
`, "code in comments 9-12"},
		"branches in Kotlin": {"Kotlin", `fun plan(lots: List<Lot>) {
    for (lot in lots) {
        if (lot.wet) {
            when (lot.kind) {
                Kind.ORCHID -> while (lot.wet) { dry(lot) }
                else -> return
            }
        }
    }
}
`, "plan 4 deep at 5"},
		"branches in Rust": {"Rust", `fn plan(lots: &[Lot]) -> u32 {
    for lot in lots {
        if let Some(kind) = lot.kind {
            match kind {
                Kind::Orchid => loop { break },
                _ => {}
            }
        }
    }
    7
}
`, "plan 4 deep at 5"},
		"a list in Perl is no field": {"Perl", `sub IsWritable($) {
    my @found = FindLots($_[0]);
    @found = sort @found;
    return scalar @found;
}
`, ""},
		"a field in Ruby is one": {"Ruby", `class Vault
  def is_open
    @seen = now
    true
  end
end
`, "Vault.is_open sets @seen"},
		"cases that a macro writes": {"C++", `TEST_F(VaultTest, Opens) {
  Vault v;
  v.open();
}
TEST_CASE("dries a lot") {
  CHECK(dry(1));
}
`, "case VaultTest.Opens 1-4 calls open\ncase dries a lot 5-7 asserts"},
		"rows for a case are none": {"C++", `void Vault::testOpen_data() {
  addRow(1);
}
void Vault::testOpen() {
  QCOMPARE(open(), 1);
}
void Vault::test_data() {
  QCOMPARE(open(), 1);
}
`, "case testOpen 4-6 asserts\ncase test_data 7-9 asserts"},
		"branches in Perl": {"Perl", `sub plan {
    my ($lots) = @_;
    foreach my $lot (@$lots) {
        if ($lot->{wet}) {
            unless ($lot->{old}) {
                while ($lot->{wet}) {
                    dry($lot);
                }
            }
        }
    }
}
`, "plan 3 deep at 6"},
		"branches in C#": {"C#", `class Plan {
  public void Run(List<Lot> lots) {
    foreach (var lot in lots) {
      try {
        if (lot.Wet) { do { Dry(lot); } while (lot.Wet); }
      } catch (Broken e) {
        if (lot.Old) { while (true) { Drop(lot); } }
      }
    }
  }
}
`, "Plan.Run 4 deep at 7"},
		"a choice by type in Kotlin and C#": {"Kotlin", `fun width(x: Any): Int {
    return when (x) {
        is Box -> 1
        is Bag -> 2
        is Shelf -> 3
        is Vault -> 4
        is Tray -> 5
        else -> 0
    }
}
`, "choice of 6 on x by type at 2"},
		"what is asked for and set in PHP": {"PHP", `<?php
class Lot {
    private $isDry = false;
    public function dry() { $this->isDry = true; }
    public function getName() { return $this->name; }
    public function getAll(array &$into) { $into[] = 1; }
}
`, "flag Lot.$isDry set 1"},
		"a promise that raises needs no answer": {"Java", `class Checks {
  void isDry(Lot lot) { if (lot.wet) { throw new IllegalStateException("wet"); } }
  int getWeight() {
    return
        weight;
  }
}
`, ""},
		"cases in PHP and by marks in C#": {"C#", `public class LotTests {
  [Fact]
  public void Finds() { Assert.Equal(1, Find()); }
  [Theory]
  public void Dries() { Dry(); Task.Delay(10); }
  public void TestNothing() { }
}
`, "case Finds 2-3 asserts\ncase Dries 4-5 calls Delay Dry, waits at 5"},
		"cases of tests": {"TypeScript", `describe('lots', () => {
  it('is found', () => {
    expect(find('a')).toBe(1)
  })
  it('is drawn', async () => {
    render(<Lot />)
    await page.waitForTimeout(500)
  })
})
`, "case is found 2-4 asserts\ncase is drawn 5-8 calls render waitForTimeout, waits at 7"},
		"cases in Go": {"Go", `package lots

func TestFind(t *testing.T) {
	if Find("a") == nil {
		t.Fatal("not found")
	}
}

func TestDry(t *testing.T) {
	Dry("a")
	time.Sleep(time.Second)
}
`, "case TestFind 3-7 asserts\ncase TestDry 9-12 calls Dry Sleep, waits at 11"},
		"cases in Python": {"Python", `def test_find():
    assert find("a")


class TestDry:
    def test_dry(self):
        dry("a")
`, "case test_find 1-2 asserts\ncase test_dry 6-7 calls dry"},
		"cases in Java": {"Java", `class LotTest {
  @Test
  void finds() { assertEquals(1, find()); }
  @Test
  void dries() { dry(); Thread.sleep(10); }
}
`, "case finds 2-3 asserts\ncase dries 4-5 calls dry sleep, waits at 5"},
		"cases in Ruby": {"Ruby", `describe Lot do
  it "is found" do
    expect(Lot.find(1)).to eq 1
  end
  it "is dried" do
    Lot.dry(1)
  end
end
`, "case is found 2-4 asserts\ncase is dried 5-7 calls dry"},
	} {
		t.Run(name, func(t *testing.T) {
			f := syntax.Named(c.language).Read(syntax.How{Language: c.language}, []byte(c.text))
			require.Equal(t, c.want, inside(f))
		})
	}
}
