package languages_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestC(t *testing.T) {
	run(t, []sample{
		{name: "functions, types, macros and what the preprocessor leaves out", file: "shelf.c", text: `#include <stdio.h>
#include "lots/lot.h" /* why
 not */
#define MAX_SLOTS 40
#define WEIGH(l) \
  ((l)->grams)
#define GUARD
static int slots[MAX_SLOTS] = {1, 2}, spare;
const char *const name = "a{b";
struct shelf { int free; struct lot *first[4]; unsigned wide : 3; void (*put)(int); };
typedef struct { int x; } point, *points;
typedef int (*callback)(int, void *);
enum stage { DAMP = 1, DRY, };
union both { int a; char b; } one;
int declared(int);
extern int elsewhere;
static struct shelf *make(int n, char *s) {
    if (n) { return 0; }
}
#if 0
int no(void) { return '"'; }
#else
int yes(void)
{
    return '{';
}
#endif
#ifdef WIN
int first() { }
#include "win.h"
#else
int second() { }
#include "unix.h"
#endif
int old(a, b)
    int a;
    char *b;
{
}
__attribute__((noreturn)) void stop(void) {}
PyAPI_FUNC(int) api(int x) { return 1; }
MODULE_NAME("x")
int main(int argc, char **argv) { char *h = getenv("HOME"); return 0; }
`, defs: []string{"+constant MAX_SLOTS 4-4", "+other WEIGH 5-6", "variable slots 8-8", "variable spare 8-8", "+constant name 9-9", "+class shelf 10-10", "+property shelf.free 10-10", "+property shelf.first 10-10", "+property shelf.wide 10-10", "+property shelf.put 10-10", "+property x 11-11", "+type point 11-11", "+type points 11-11", "+type callback 12-12", "+enum stage 13-13", "+constant stage.DAMP 13-13", "+constant stage.DRY 13-13", "+class both 14-14", "+property both.a 14-14", "+property both.b 14-14", "+variable one 14-14", "function make 17-19", "+function yes 23-26", "+function first 29-29", "+function old 35-39", "+function stop 40-40", "+function api 41-41", "+function main 43-43"},
			imports: []string{"1 stdio.h: ", "2 lots/lot.h: ", "30 win.h: ", "33 unix.h: "}},
		{name: "a function that returns a struct, and attributes behind parameters", file: "a.c", text: `static enum stage next(struct lot *l, enum stage s) { return s; }
void *start(int a) __acquires(RCU) { return 0; }
struct box { DECLARE_BITS(bits, 4); int x; } __packed;
struct lot first = { .x = 1, .y = { 2 } };
int after;
`, defs: []string{"function next 1-1", "+function start 2-2", "+class box 3-3", "+property box.x 3-3", "+variable first 4-4", "+variable after 5-5"}},
	})
}

func TestCPlusPlus(t *testing.T) {
	run(t, []sample{
		{name: "classes, namespaces, templates and operators", file: "shelf.cpp", text: `#include <vector>
namespace hollin::vault {
namespace { int hidden; }
template <typename T, class U = std::vector<T>>
class VAULT_API Shelf final : public Rack<T>, private virtual seed::Box {
  int slots_ = 4;
public:
  explicit Shelf(int n) : slots_{n}, name_("}") { }
  ~Shelf() override;
  Shelf &operator=(const Shelf &) = delete;
  bool operator()(int a) const noexcept { return a < 3; }
  operator bool() const;
  static constexpr int kMax = 3;
  using Item = T;
  enum class Side : char { Left, Right };
  virtual auto take(int n, std::function<void(int)> f = {}) -> std::vector<T> = 0;
private:
  struct Part { int x, y; };
  std::map<int, std::vector<T>> parts_;
};
void Shelf<int>::put(const Lot &l) const { }
Shelf::~Shelf() { }
}
const char *raw = R"x(int no() { )" )x";
constexpr auto big = 1'000'000;
extern "C" { int c_api(void) { return 0; } }
template <> struct std::hash<Lot> { size_t operator()(const Lot &) const { return 1; } };
using Lots = std::vector<Lot>;
auto f = [](int x) { return x; };
int main() { }
`, defs: []string{"+namespace hollin.vault 2-23", "variable hollin.vault.hidden 3-3", "+class hollin.vault.Shelf 4-20", "property hollin.vault.Shelf.slots_ 6-6", "+method hollin.vault.Shelf.Shelf 8-8", "+method hollin.vault.Shelf.~Shelf 9-9", "+method hollin.vault.Shelf.operator= 10-10", "+method hollin.vault.Shelf.operator() 11-11", "+method hollin.vault.Shelf.operator bool 12-12", "+constant hollin.vault.Shelf.kMax 13-13", "+type hollin.vault.Shelf.Item 14-14", "+enum hollin.vault.Shelf.Side 15-15", "+constant hollin.vault.Shelf.Side.Left 15-15", "+constant hollin.vault.Shelf.Side.Right 15-15", "+method hollin.vault.Shelf.take 16-16", "class hollin.vault.Shelf.Part 18-18", "+property hollin.vault.Shelf.Part.x 18-18", "+property hollin.vault.Shelf.Part.y 18-18", "property hollin.vault.Shelf.parts_ 19-19", "+method hollin.vault.Shelf.put 21-21", "+method hollin.vault.Shelf.~Shelf 22-22", "+constant raw 24-24", "+constant big 25-25", "+function c_api 26-26", "+class std.hash 27-27", "+method std.hash.operator() 27-27", "+type Lots 28-28", "+variable f 29-29", "+function main 30-30"},
			imports: []string{"1 vector: "}},
	})
}

func TestIncludes(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"beside, in folders that are searched, and where one file alone fits": {tree: `
-- src/a.c --
#include "b.h"
#include "lots/lot.h"
#include <vault/api.h>
#include <stdio.h>
#include "odd/deep.h"
#include "gone.h"
-- src/b.h --
#include "b.h"
-- include/lots/lot.h --
class Lot { };
-- include/vault/api.h --
-- third/odd/deep.h --
-- src/shelf.cpp --
#include "lots/lot.h"
class Shelf : public Lot { };
`, links: []string{"src/a.c -> src/b.h", "src/a.c -> include/lots/lot.h", "src/a.c -> include/vault/api.h", "src/a.c -> third/odd/deep.h", "src/shelf.cpp -> include/lots/lot.h", "src/shelf.cpp -> include/lots/lot.h (inheritance)"},
			external: []string{"stdio.h"}, unresolved: []string{"gone.h"}},
		"in pointed brackets by a search path that only the build knows": {tree: `
-- src/core/vault_core.h --
-- src/core/string.h --
-- src/mail/vault_mail.h --
-- other/mail/vault_mail.h --
-- src/mail/send.c --
#include <vault_core.h>
#include <string.h>
#include <vault_mail.h>
#include <vault_gone.h>
`, links: []string{"src/mail/send.c -> src/core/vault_core.h"}, external: []string{"string.h", "vault_mail.h", "vault_gone.h"}},
	})
}

func TestBranchesThatAreNotReadAreCodeAllTheSame(t *testing.T) {
	f := facts("vault.c", "#ifdef DESK\nint desk;\n#else\nint vault(void)\n{\n\n\treturn 1;\n}\n#endif\n/* a word\n   more */\n#if 0\nint old;\n#else\nint kept;\n#endif\n")
	require.Equal(t, 16, f.Lines)
	require.Equal(t, 1, f.Blank)
	require.Equal(t, 2, f.Comment)
	require.Equal(t, 13, f.Code)
}

func TestWhatIsWrittenForReadersIsNoCode(t *testing.T) {
	f := facts("Vault.pm", "package Vault;\nsub weigh { 1 }\n\n=pod\n\nWeighs a lot.\n\n=cut\n\n1;\n")
	require.Equal(t, 3, f.Code)
}

// TestListsOfMacrosAreNoTwins: what is alike in them is that each line defines something.
func TestListsOfMacrosAreNoTwins(t *testing.T) {
	var a, b strings.Builder
	for i := range 200 {
		fmt.Fprintf(&a, "#define SHELF_%d %d\n", i, i)
		fmt.Fprintf(&b, "#include <lot%d.h>\n#undef LID_%d\n", i, i)
	}
	require.Empty(t, facts("a.h", a.String()).Prints)
	require.Empty(t, facts("b.h", b.String()).Prints)
	require.NotEmpty(t, facts("c.c", "int weigh(int a) {\n"+strings.Repeat("\ta = dry(a, 2);\n\tif (a > 3) return a;\n", 30)+"}\n").Prints)
}
