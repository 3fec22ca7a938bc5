package languages_test

import (
	"fmt"
	"testing"

	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// What becomes of faults, as a reader of these lines says it.
func TestFaultsAreTold(t *testing.T) {
	for name, c := range map[string]struct {
		file, text string
		want       []string
	}{
		"a script raises, turns and swallows": {"lots.ts", `
export function take(lot) {
  if (!lot) throw new Missing('no lot')
  try {
    weigh(lot)
  } catch (e) {
    throw new ScaleFault(e)
  }
  try { shelve(lot) } catch {}
  try { count(lot) } catch (e) { log(e) }
  send(lot).catch(() => {})
}
`, []string{"raise Missing 3", "turn ScaleFault 7", "swallow  9", "catch  10", "swallow  11"}},
		"what is passed on is not turned": {"lots.js", `
try {
  weigh()
} catch (e) {
  note(e)
  throw e
}
`, []string{"catch  4"}},
		"python": {"lots.py", `
def take(lot):
    if lot is None:
        raise Missing('no lot')
    try:
        weigh(lot)
    except ScaleError as e:
        raise Unweighed() from e
    try:
        shelve(lot)
    except (KeyError, ValueError):
        pass
    try:
        count(lot)
    except OSError:
        log()
        raise
    else:
        raise Late
`, []string{"raise Missing 4", "turn Unweighed 8", "swallow KeyError 11", "catch OSError 15", "raise Late 19"}},
		"ruby": {"lots.rb", `
def take(lot)
  raise Missing, 'no lot' unless lot
  begin
    weigh(lot)
  rescue ScaleError => e
    raise Unweighed
  end
  shelve(lot)
rescue KeyError
  nil
rescue StandardError => e
  log(e)
end
`, []string{"raise Missing 3", "turn Unweighed 7", "swallow KeyError 10", "catch StandardError 12"}},
		"java": {"Lots.java", `
class Lots {
    void take(Lot lot) throws Missing {
        if (lot == null) throw new Missing();
        try {
            weigh(lot);
        } catch (IOException | ScaleError e) {
            throw new IllegalStateException(e);
        } catch (RuntimeException ignored) {
            // nothing can be done
        }
    }
}
`, []string{"raise Missing 4", "turn IllegalStateException 8", "swallow RuntimeException 9"}},
		"csharp": {"Lots.cs", `
class Lots
{
    void Take(Lot lot)
    {
        if (lot == null) throw new ArgumentNullException(nameof(lot));
        try { Weigh(lot); }
        catch (ScaleException e) when (e.Code == 1) { throw; }
        catch { }
    }
}
`, []string{"raise ArgumentNullException 6", "catch ScaleException 8", "swallow  9"}},
		"php": {"Lots.php", `<?php
function take($lot) {
    if (!$lot) { throw new \App\Missing('no lot'); }
    try {
        weigh($lot);
    } catch (\Throwable $e) {
        report($e);
    }
    abort(404);
}
`, []string{"raise Missing 3", "catch Throwable 6", "raise 404 9"}},
		"kotlin": {"Lots.kt", `
fun take(lot: Lot?) {
    lot ?: throw Missing("no lot")
    try { weigh(lot) } catch (e: ScaleError) { }
}
`, []string{"raise Missing 3", "swallow ScaleError 4"}},
		"go": {"lots.go", `package lots

func take(l *Lot) error {
	if l == nil {
		return ErrMissing
	}
	if err := weigh(l); err != nil {
		return fmt.Errorf("weigh: %w", err)
	}
	_ = shelve(l)
	panic("never")
}
`, []string{"raise panic 11"}},
		"perl": {"lots.pl", `
sub take {
  my $lot = shift;
  die "no lot" unless $lot;
  eval { weigh($lot); };
  Carp::croak('late');
}
`, []string{"raise die 4", "raise croak 6"}},
		"words that only look like it": {"lots.go", `package lots

// throw new Missing()
var throwAway = "raise Missing"

func catch(x int) int { return x }
`, nil},
	} {
		t.Run(name, func(t *testing.T) {
			var got []string
			for _, f := range testkit.Survey(t, "-- "+c.file+" --\n"+c.text).Files {
				for _, x := range f.Facts.Faults {
					got = append(got, fmt.Sprintf("%s %s %d", x.What, x.Name, x.Line))
				}
			}
			require.Equal(t, c.want, got)
		})
	}
}
