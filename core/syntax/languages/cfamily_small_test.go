package languages_test

import "testing"

func TestCSmall(t *testing.T) {
	small(t, "a.c", `
== the name stands in the middle of a declaration
int *a(void) { return 0; }
int (*b)(int);
int c[4][2];
=> +function a 1-1; +variable b 2-2; +variable c 3-3
== a function that returns a function
int (*pick(int n))(char) { return 0; }
=> +function pick 1-1
== what is only declared is not defined
int a(int);
extern int b;
struct lot;
int c(void) { return 1; }
=> +function c 4-4
== static is private
static int a(void) { return 1; }
static int b;
int c;
=> function a 1-1; variable b 2-2; +variable c 3-3
== strings and characters with brackets
char *a = "{\"";
char b = '{', c = '\'';
int d(void) { return 0; }
=> +variable a 1-1; +variable b 2-2; +variable c 2-2; +function d 3-3
== a comment over lines, and one that continues
/* int no(void) { */
// int no(void) { \
   int no(void) { }
int b(void) { return 0; }
=> +function b 4-4
== a macro over lines with open brackets
#define OPEN do { \
    if (1) {
int b(void) { return 0; }
=> +constant OPEN 1-2; +function b 3-3
== both sides of a condition have a body
#ifdef WIDE
int a(long n) {
#else
int a(int n) {
#endif
    return 1;
}
int b(void) { return 0; }
=> +function a 2-7; +function b 8-8
== what is switched off
#if 0
int no(void) { "
#endif
int b(void) { return 0; }
=> +function b 4-4
== conditions inside conditions
#if A
#if B
int a;
#else
int b;
#endif
#endif
int c;
=> +variable a 3-3; +variable c 8-8
== a struct with everything
struct lot {
    int grams;
    unsigned dry : 1, wet : 2;
    char name[8];
    struct { int x; } place;
    int (*weigh)(struct lot *);
};
=> +class lot 1-7; +property lot.grams 2-2; +property lot.dry 3-3; +property lot.wet 3-3; +property lot.name 4-4; +property lot.x 5-5; +property lot.place 5-5; +property lot.weigh 6-6
== a struct that is used where a type stands
struct lot *first(struct lot *l) { return l; }
struct lot one, *two;
=> +function first 1-1; +variable one 2-2; +variable two 2-2
== types under another name
typedef unsigned long size;
typedef struct lot { int n; } lot;
typedef int (*step)(void);
typedef int row[4];
=> +type size 1-1; +class lot 2-2; +property lot.n 2-2; +type lot 2-2; +type step 3-3; +type row 4-4
== enums
enum stage { DAMP, DRY = 1 << 2, };
enum { FREE };
=> +enum stage 1-1; +constant stage.DAMP 1-1; +constant stage.DRY 1-1; +constant FREE 2-2
== values in braces
int a[] = { 1, 2 }, b = 3;
struct lot c = { .grams = 1, .name = "}" };
int d;
=> +variable a 1-1; +variable b 1-1; +variable c 2-2; +variable d 3-3
== what compilers add
__attribute__((used)) int a(void) { return 1; }
int b(void) __attribute__((pure));
static inline __attribute__((always_inline)) int c(void) { return 1; }
=> +function a 1-1; function c 3-3
== a macro in front of a function
API_EXPORT int a(void) { return 1; }
EXPORT_SYMBOL(a);
int b(void) { return 1; }
=> +function a 1-1; +function b 3-3
== parameters in the old way
int a(x, y)
int x; char *y;
{ return 1; }
=> +function a 1-3
== numbers of all kinds
int a = 0x1fUL, b = 1'000;
double c = 1.5e-3f;
=> +variable a 1-1; +variable b 1-1; +variable c 2-2
== includes of both kinds, and one that a macro makes
#include <stdio.h>
#  include "lots/lot.h"
#include WHERE
<- 1 stdio.h; 2 lots/lot.h
`)
}

func TestCPlusPlusSmall(t *testing.T) {
	small(t, "a.cpp", `
== comparison is no bracket
bool a(int n) { return n < 3 && n > 1; }
int b() { return 1; }
=> +function a 1-1; +function b 2-2
== two closing brackets at once
std::map<int, std::vector<int>> a;
std::vector<std::vector<int>> b() { return {}; }
=> +variable a 1-1; +function b 2-2
== a raw string with brackets
auto a = R"(int no() { ")";
auto b = R"--()" )--";
int c() { return 1; }
=> +variable a 1-1; +variable b 2-2; +function c 3-3
== namespaces of each kind
namespace a { int x; }
namespace a::b { int y; }
namespace { int z; }
inline namespace v1 { int w; }
=> +namespace a 1-1; +variable a.x 1-1; +namespace a.b 2-2; +variable a.b.y 2-2; variable z 3-3; +namespace v1 4-4; +variable v1.w 4-4
== another name for a namespace
namespace fs = std::filesystem;
int b() { return 1; }
=> +function b 2-2
== private is what comes first in a class, public in a struct
class A { int a; public: int b; protected: int c; };
struct B { int a; private: int b; };
=> +class A 1-1; property A.a 1-1; +property A.b 1-1; property A.c 1-1; +class B 2-2; +property B.a 2-2; property B.b 2-2
== constructors, destructors and what they begin with
class A {
public:
    A() = default;
    A(int n) : n_{n}, s_("}") {}
    ~A() {}
private:
    int n_;
};
=> +class A 1-8; +method A.A 3-3; +method A.A 4-4; +method A.~A 5-5; property A.n_ 7-7
== methods written outside
int Shelf::put(int n) { return n; }
Shelf::Shelf() : n(1) {}
Shelf::~Shelf() {}
template <class T> T Rack<T>::take() { return {}; }
=> +method Shelf.put 1-1; +method Shelf.Shelf 2-2; +method Shelf.~Shelf 3-3; +method Rack.take 4-4
== operators
struct A {
    bool operator<(const A &o) const { return true; }
    int operator[](int n) { return n; }
    A operator+(const A &o);
    explicit operator int() const { return 1; }
};
=> +class A 1-6; +method A.operator< 2-2; +method A.operator[] 3-3; +method A.operator+ 4-4; +method A.operator int 5-5
== templates
template <typename T, int N = (1 > 0)> struct Grid { T cells[N]; };
template <typename T> T most(T a, T b) { return a > b ? a : b; }
=> +class Grid 1-1; +property Grid.cells 1-1; +function most 2-2
== a type behind the arrow
auto a() -> int { return 1; }
auto b(int n) noexcept -> std::vector<int> { return {}; }
=> +function a 1-1; +function b 2-2
== functions without a name
auto a = [](int n) { return n; };
auto b = [&, x = 1]() mutable -> int { return x; };
int c;
=> +variable a 1-1; +variable b 2-2; +variable c 3-3
== enums with a class and a type
enum class Side : char { Left, Right };
enum Old { One };
=> +enum Side 1-1; +constant Side.Left 1-1; +constant Side.Right 1-1; +enum Old 2-2; +constant Old.One 2-2
== using
using Lots = std::vector<Lot>;
using namespace std;
using std::string;
int d;
=> +type Lots 1-1; +variable d 4-4
== linkage
extern "C" {
int a() { return 1; }
}
extern "C" int b() { return 1; }
=> +function a 2-2; +function b 4-4
== attributes
[[nodiscard]] int a() { return 1; }
struct alignas(8) B { [[maybe_unused]] int n; };
=> +function a 1-1; +class B 2-2; +property B.n 2-2
== a friend, and what is deleted
class A {
    friend class B;
    A(const A &) = delete;
    friend bool same(A, A) { return true; }
};
=> +class A 1-5; method A.A 3-3; +function same 4-4
== concepts and what they ask of a function
template <class T> concept Weighed = requires(T t) { t.grams(); };
template <class T> requires Weighed<T> int a(T t) { return 1; }
=> +other Weighed 1-1; +function a 2-2
== a try around a whole function
int a() try { return 1; } catch (...) { return 2; }
int b() { return 1; }
=> +function a 1-1; +function b 2-2
`)
}
