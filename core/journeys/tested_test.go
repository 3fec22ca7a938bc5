package journeys_test

import (
	"fmt"
	"testing"

	"jantel/core/journeys"
	"jantel/core/judgement"
	"jantel/core/model"
	"jantel/core/testkit"

	"github.com/stretchr/testify/require"
)

// Which tests reach what, in several languages, each row said by a reader before it
// was run: the definition, its test, the kind of test and over how many calls.
func TestWhatIsTestedByWhich(t *testing.T) {
	for name, c := range map[string]struct {
		tree string
		want []string
	}{
		"typescript: a unit, one behind it, and a component": {`
-- package.json --
{ "devDependencies": { "vitest": "2", "@testing-library/react": "16" } }
-- src/lots.ts --
export function weigh(lot: number) { return round(lot) }
export function round(n: number) { return n | 0 }
export function unseen() { return 1 }
-- src/lots.test.ts --
import { expect, it } from 'vitest'
import { weigh } from './lots'
it('weighs', () => { expect(weigh(2)).toBe(2) })
-- src/Card.tsx --
export function Card() { return <p>one</p> }
-- src/Card.test.tsx --
import { render } from '@testing-library/react'
import { Card } from './Card'
it('draws', () => { render(<Card />); expect(1).toBe(1) })
`, []string{
			"src/lots.ts weigh by src/lots.test.ts unit 1", "src/lots.ts round by src/lots.test.ts unit 2", "src/Card.tsx Card by src/Card.test.tsx unit 1",
		}},
		"python: a class that a method of the tests gives": {`
-- vault/boxes.py --
most = 4
class Box:
    def weigh(self):
        return 1
class Unseen:
    pass
-- vault/test_boxes.py --
import unittest
class BoxTests(unittest.TestCase):
    def target(self):
        from vault.boxes import Box
        return Box
    def test_weighs(self):
        self.assertEqual(self.target()().weigh(), 1)
`, []string{"vault/boxes.py Box by vault/test_boxes.py unit 1"}},
		"python: a fixture, a method, and through a client": {`
-- requirements.txt --
fastapi==0.110
pytest==8.0
-- bench/__init__.py --
-- bench/lots.py --
class Lots:
    def weigh(self, grams):
        return self.check(grams)

    def check(self, grams):
        return grams > 0
-- tests/test_lots.py --
from bench.lots import Lots

def test_weigh():
    lots = Lots()
    assert lots.weigh(2)
`, []string{
			"bench/lots.py Lots.weigh by tests/test_lots.py unit 1", "bench/lots.py Lots.check by tests/test_lots.py unit 2",
			"bench/lots.py Lots by tests/test_lots.py unit 1",
		}},
		"go: a table, and a helper of the test": {`
-- go.mod --
module vault
-- lots/lots.go --
package lots

func Weigh(n int) int { return round(n) }

func round(n int) int { return n }

func Unseen() {}
-- lots/lots_test.go --
package lots

import "testing"

func TestWeigh(t *testing.T) {
	for _, n := range []int{1, 2} {
		check(t, n)
	}
}

func check(t *testing.T, n int) {
	if Weigh(n) != n {
		t.Fatal(n)
	}
}
`, []string{"lots/lots.go Weigh by lots/lots_test.go unit 1", "lots/lots.go round by lots/lots_test.go unit 2"}},
		"java: a class that is built and called": {`
-- pom.xml --
<project><artifactId>vault</artifactId></project>
-- src/main/java/vault/Lots.java --
package vault;
public class Lots {
    public int weigh(int grams) { return round(grams); }
    private int round(int grams) { return grams; }
    public int unseen() { return 1; }
}
-- src/test/java/vault/LotsTest.java --
package vault;
import org.junit.jupiter.api.Test;
class LotsTest {
    @Test void weighs() {
        Lots lots = new Lots();
        assertEquals(2, lots.weigh(2));
    }
}
`, []string{
			"src/main/java/vault/Lots.java Lots.weigh by src/test/java/vault/LotsTest.java unit 1",
			"src/main/java/vault/Lots.java Lots.round by src/test/java/vault/LotsTest.java unit 2",
			"src/main/java/vault/Lots.java Lots by src/test/java/vault/LotsTest.java unit 1",
		}},
		"end to end: what a browser opens calls nothing here": {`
-- package.json --
{ "devDependencies": { "@playwright/test": "1" } }
-- src/lots.ts --
export function weigh() { return 1 }
-- e2e/lots.spec.ts --
import { expect, test } from '@playwright/test'
test('weighs', async ({ page }) => { await page.goto('/lots'); await expect(page).toHaveTitle('Lots') })
`, nil},
	} {
		t.Run(name, func(t *testing.T) {
			j := judgement.Judge(testkit.Survey(t, c.tree), model.Brief{}, nil)
			var got []string
			for _, x := range journeys.TestedBy(j.Reading) {
				if j.Reading.IsTest(x.Path) {
					continue
				}
				for _, by := range x.Tests {
					got = append(got, fmt.Sprintf("%s %s by %s %s %d", x.Path, x.Name, by.Path, by.Kind, by.Distance))
				}
			}
			require.ElementsMatch(t, c.want, got)
		})
	}
}
