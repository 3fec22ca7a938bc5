package shapes_test

import (
	"fmt"
	"math/rand"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/shapes"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// told writes fields as one line each.
func told(fields []shapes.ShapeField) (out []string) {
	for _, f := range fields {
		line := f.Name + ": " + f.Type
		if f.Optional {
			line += "?"
		}
		if f.Default != "" {
			line += " = " + f.Default
		}
		if f.Limits != "" {
			line += " [" + f.Limits + "]"
		}
		out = append(out, fmt.Sprintf("%s @%d", line, f.Line))
	}
	return out
}

func TestFieldsAreReadAsLanguagesWriteThem(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		want []string
	}{
		"an interface, functions and comments left out": {`
export interface Box {
  /** its number */
  readonly id: string
  shelf?: string; // where
  weight: number | null,
  weigh(scale: Scale): number
  tags: { name: string }[]
}`, []string{"id: string @3", "shelf: string? @4", "weight: number? @5", "tags: { name: string }[] @7"}},
		"a class with fields that begin with a value": {`class Lot {
  private grams: number = 0
  dry = false
  constructor() { this.grams = 1 }
  size() {
    const inner: string = 'x'
    return inner
  }
}`, []string{"grams: number = 0 @2"}},
		"what a framework's forms are checked by": {`
const lot = z.object({
  name: z.string().min(1).max(40),
  grams: z.number().optional(),
})
`, []string{
			"name: z.string().min(1).max(40) [min 1, max 40] @2",
			"grams: z.number().optional()? @3",
		}},
		"a struct with tags": {"type Slip struct {\n\tCode string `json:\"code\"`\n\tCopies int\n\tNote *string // may be none\n}", []string{"Code: string @2", "Copies: int @3", "Note: string? @4"}},
		"a struct with colons": {`
pub struct Card {
    pub number: u32,
    site: Option<String>,
}
`, []string{
			"number: u32 @2",
			"site: String? @3",
		}},
		"a class with the type first": {`
public class Card {
    private String number;
    @Size(max = 20)
    private String site;
    private int copies = 1;

    public String number() {
        return number;
    }
}
`, []string{
			"number: String @2",
			"site: String [max 20] @4",
			"copies: int = 1 @5",
		}},
		"properties": {`
public class Entry
{
    public int Id { get; set; }
    [MaxLength(12)]
    public string? Shelf { get; set; }
    public bool Dry => true;
}
`, []string{
			"Id: int @3",
			"Shelf: string? [maxlength 12] @5",
		}},
		"a record": {`
public record Card(String number, List<String> sites) {
}
`, []string{
			"number: String @1",
			"sites: List<String> @1",
		}},
		"a data class over several lines": {`
data class Card(
    val number: String,
    val site: String? = null,
)
`, []string{
			"number: String @2",
			"site: String? = null @3",
		}},
		"fields in a constructor": {`
final class Card
{
    public function __construct(
        public readonly string $number,
        private ?int $copies = 1,
    ) {
    }
}
`, []string{
			"number: string @4",
			"copies: int? = 1 @5",
		}},
		"annotations": {`
class Run:
    """A run."""

    lot: str
    target: float = 5.0
    note: str | None = None

    def dry(self) -> bool:
        done: bool = True
        return done
`, []string{
			"lot: str @4",
			"target: float = 5.0 @5",
			"note: str? = None @6",
		}},
		"columns": {`
class Reading(Base):
    day: Mapped[str] = mapped_column(String(10), primary_key=True)
    celsius: Mapped[float | None] = mapped_column(Float)
`, []string{
			"day: str [at most 10] @2",
			"celsius: float? @3",
		}},
		"columns as values": {`
class Grower(models.Model):
    name = models.CharField(max_length=80)
    since = models.DateField(null=True)

    def age(self):
        return 1
`, []string{
			"name: models.CharField [max_length 80] @2",
			"since: models.DateField? @3",
		}},
		"a table": {`
CREATE TABLE vault (
  id TEXT PRIMARY KEY,
  shelf VARCHAR(8) NOT NULL,
  weight REAL DEFAULT 0,
  CONSTRAINT one UNIQUE (shelf)
);
`, []string{
			"id: TEXT @2",
			"shelf: VARCHAR(8) [at most 8] @3",
			"weight: REAL? = 0 @4",
		}},
		"a step of a store": {`
create_table :boxes do |t|
  t.string :shelf, null: false, limit: 8
  t.integer :copies, default: 1
end
`, []string{
			"shelf: string [limit 8] @2",
			"copies: integer? = 1 @3",
		}},
		"nothing that holds data": {`
function weigh() {
  const a = 1
  return a
}
`, []string{}},
	} {
		t.Run(name, func(t *testing.T) {
			require.Equal(t, c.want, append([]string{}, told(shapes.Fields(strings.Split(strings.Trim(c.text, "\n"), "\n"), 1))...))
		})
	}
}

func fields(spec string) (out []shapes.ShapeField) {
	for i, f := range strings.Fields(spec) {
		name, kind, _ := strings.Cut(f, ":")
		plain, optional := strings.CutSuffix(kind, "?")
		out = append(out, shapes.ShapeField{Name: name, Type: plain, Optional: optional, Line: i + 1})
	}
	return out
}

func TestTwoShapesSideBySide(t *testing.T) {
	for name, c := range map[string]struct{ a, b, want string }{
		"alike in two languages":       {"id:string grams:number startedOn:Date", "id:TEXT grams:REAL started_on:timestamp", "id same|grams same|startedOn same"},
		"one lost, one added":          {"id:string site:string", "id:string county:string", "id same|site lost|county added"},
		"another type, may be missing": {"id:string grams:number", "id:int grams:number?", "id differs type|grams differs may be missing"},
		"lists and what is in them":    {"tags:string[] sites:List<String>", "tags:string sites:[]string", "tags differs type|sites same"},
		"types of one's own":           {"lot:Lot box:Box", "lot:Lot box:Shelf", "lot same|box differs type"},
		"nothing in common":            {"a:int", "b:int", "a lost|b added"},
		"a name that stands twice":     {"id:int id:int", "id:int", "id same|id lost"},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, p := range shapes.Align(fields(c.a), fields(c.b)) {
				got = append(got, strings.TrimSpace(p.Name+" "+p.What+" "+strings.Join(p.How, ", ")))
			}
			require.Equal(t, c.want, strings.Join(got, "|"))
		})
	}
}

// Whatever the shapes are: each field of both stands in exactly one pair, the other
// way round what was lost is added, and beside itself a shape is the same.
func TestNoFieldIsLostInAligning(t *testing.T) {
	r := rand.New(rand.NewSource(11))
	draw := func() (out []shapes.ShapeField) {
		for range r.Intn(8) {
			kind := []string{"int", "string", "Box"}[r.Intn(3)]
			out = append(out, shapes.ShapeField{Name: fmt.Sprintf("field_%d", r.Intn(10)), Type: kind, Optional: r.Intn(2) == 0})
		}
		return out
	}
	for range 500 {
		a, b := draw(), draw()
		there, back := shapes.Count(shapes.Align(a, b)), shapes.Count(shapes.Align(b, a))
		require.Equal(t, len(a), there.Same+there.Differs+there.Lost)
		require.Equal(t, len(b), there.Same+there.Differs+there.Added)
		require.Equal(t, there.Lost, back.Added)
		require.Equal(t, there.Added, back.Lost)
		self := shapes.Count(shapes.Align(a, a))
		require.Zero(t, self.Differs)
		require.Equal(t, self.Lost, self.Added)
	}
}

func TestWhatAShapeIsAbout(t *testing.T) {
	for name, want := range map[string]string{
		"SeedRequestDto": "seed", "CreateBoxRequest": "box", "boxes": "box", "GrowerEntity": "grower", "IGrower": "grower", "LotFormInput": "lot",
		"Request": "request", "drying_runs": "drying run", "Payload": "payload",
	} {
		require.Equal(t, want, strings.Join(shapes.About(name), " "), name)
	}
}

func TestShapesAboutOneThingStandTogether(t *testing.T) {
	s := testkit.Survey(t, `
-- a/types.ts --
export interface Box {
  id: string
}
export interface SeedBox {
  id: string
}
export interface BoxState {
  open: boolean
}
export interface SeedRequest {
  id: string
}
export interface CreateBoxRequest {
  id: string
}
export class Scale {
  zero = 0
  weigh(grams: number) {
    const net = grams - this.zero
    return net
  }
}
-- a/types.test.ts --
export interface Box {
  id: string
}
-- b/schema.sql --
CREATE TABLE boxes (
  id TEXT
);
CREATE TABLE requests (
  id TEXT
);
CREATE TABLE states (
  id TEXT
);
`)
	groups := shapes.GroupsOf(judgement.Judge(s, model.Brief{}, nil).Reading)
	got := map[string][]string{}
	for about, all := range groups {
		for _, x := range all {
			got[about] = append(got[about], x.Name)
			require.Equal(t, all, groups.With(x))
		}
	}
	require.Equal(t, map[string][]string{
		"box":     {"Box", "CreateBoxRequest", "boxes", "SeedBox"},
		"request": {"requests", "SeedRequest"},
		// A state is no thing of its own, so that the state of a box stays by itself.
		"state": {"states"}, "box state": {"BoxState"},
	}, got, "what mostly does something is no shape, and tests have none")
}

func TestHowFarShapesDriftedApart(t *testing.T) {
	n, told := shapes.Otherwise(fields("id:int grams:int"), [][]shapes.ShapeField{fields("x:int"), fields("id:int grams:string shelf:int")})
	require.True(t, told)
	require.Equal(t, 2, n, "grams and shelf, of the one that shares most")
	_, told = shapes.Otherwise(fields("id:int"), [][]shapes.ShapeField{fields("x:int"), nil})
	require.False(t, told)
}

func FuzzFields(f *testing.F) {
	f.Add("interface A {\n a: string\n}")
	f.Add("record A(int a,\n")
	f.Add("t.x :y\n)))({")
	f.Fuzz(func(t *testing.T, text string) {
		lines := strings.Split(text, "\n")
		for _, x := range shapes.Fields(lines, 1) {
			require.NotEmpty(t, x.Name)
			require.True(t, x.Line >= 1 && x.Line <= len(lines))
		}
	})
}
