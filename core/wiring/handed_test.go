package wiring_test

import (
	"fmt"
	"strings"
	"testing"

	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"
	"jantel/core/wiring"

	"github.com/stretchr/testify/require"
)

func TestWhoAsksForWhatIsHandedOut(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"twice, by nothing, and kept too long": {`
-- Program.cs --
var b = WebApplication.CreateBuilder(args);
b.Services.AddScoped<IShelves, Shelves>();
b.Services.AddSingleton<ICards, FileCards>();
b.Services.AddTransient<ICards, SheetCards>();
b.Services.AddSingleton<Night>();
b.Services.AddScoped<Day>();
-- Parts.cs --
public interface IShelves { int Count(); }
public interface ICards { int Read(); }
public interface IScale { int Weigh(); }
public class Shelves : IShelves { public int Count() { return 1; } }
public class FileCards : ICards { public int Read() { return 1; } }
public class SheetCards : ICards { public int Read() { return 2; } }
public class BenchScale : IScale { public int Weigh() { return 1; } }
-- Night.cs --
public class Night
{
    private readonly IShelves _shelves;
    public Night(IShelves shelves) { _shelves = shelves; }
}
-- Day.cs --
public class Day
{
    private readonly IShelves _shelves;
    private readonly IScale _scale;
    public Day(IShelves shelves, IScale scale) { _shelves = shelves; _scale = scale; }
}
-- Loose.cs --
public class Loose
{
    private readonly IScale _scale;
}
`, []string{
			"ICards by FileCards+SheetCards: handed out twice",
			"IScale for Day: handed out by nothing",
			"IShelves by Shelves for Day+Night: kept by what lives longer",
			"Day by Day",
			"Night by Night",
		}},
		"by marks, asked for in a constructor": {`
-- src/main/java/vault/Shelves.java --
package vault;
interface Shelves { int count(); }
-- src/main/java/vault/FileShelves.java --
package vault;
@Repository
class FileShelves implements Shelves { public int count() { return 1; } }
-- src/main/java/vault/OtherShelves.java --
package vault;
@Repository
class OtherShelves implements Shelves { public int count() { return 2; } }
-- src/main/java/vault/Counting.java --
package vault;
@Service
class Counting {
  private final Shelves shelves;
  Counting(Shelves shelves) { this.shelves = shelves; }
}
`, []string{"Counting by Counting", "Shelves by FileShelves+OtherShelves for Counting"}},
		"fields that a constructor declares": {`
-- package.json --
{ "dependencies": { "@nestjs/common": "10" } }
-- src/lots.ts --
import { Injectable } from '@nestjs/common'
import { Shelves } from './shelves'
@Injectable()
export class Lots {
  constructor(private readonly shelves: Shelves) {}
}
-- src/shelves.ts --
import { Injectable } from '@nestjs/common'
@Injectable()
export class Shelves { count() { return 1 } }
`, []string{"Lots by Lots", "Shelves by Shelves for Lots"}},
		"nothing is missed where nothing is handed out": {`
-- Parts.cs --
public interface IScale { int Weigh(); }
public class BenchScale : IScale { public int Weigh() { return 1; } }
public class Day { private readonly IScale _scale; }
`, nil},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, h := range wiring.Join(judgement.Judge(testkit.Survey(t, c.tree), model.Brief{}, nil).Reading, func(string) string { return "." }) {
				line := h.For
				for i, w := range h.By {
					line += []string{" by ", "+"}[min(i, 1)] + w.Provides
				}
				for i, a := range h.Askers {
					line += []string{" for ", "+"}[min(i, 1)] + a.Name
				}
				if len(h.Wrong) > 0 {
					line += ": " + strings.Join(h.Wrong, ", ")
				}
				got = append(got, fmt.Sprint(line))
			}
			require.Equal(t, c.want, got)
		})
	}
}
