package languages_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestCSharp(t *testing.T) {
	run(t, []sample{
		{name: "a file-scoped namespace and directives of every form", file: "A.cs", text: "global using System.Linq;\nusing Vault.Lots;\nusing static Vault.Rules;\nusing Grams = Vault.Lots.Grams;\nusing global::System.IO;\nnamespace Vault.Shelves;\n\npublic class Shelf { }\n",
			defs: []string{"+class Shelf 8-8"}, imports: []string{"1 System.Linq: global", "2 Vault.Lots: ", "3 Vault.Rules: static", "4 Vault.Lots.Grams: ", "5 System.IO: "}},
		{name: "namespaces in blocks and in each other", file: "A.cs", text: "namespace A.B\n{\n    using C;\n    class D { }\n    namespace E { struct F { } }\n}\n", defs: []string{"class D 4-4", "class F 5-5"}, imports: []string{"3 C: "}},
		{name: "records of every form", file: "A.cs", text: "public record Lot(string Name, int Grams = 1);\npublic record struct Box(int N) { public int Twice => N * 2; }\nrecord class Wild : Lot { public Wild() : base(\"x\", 2) { } }\n",
			defs: []string{"+class Lot 1-1", "+class Box 2-2", "+property Box.Twice 2-2", "class Wild 3-3", "+method Wild.Wild 3-3"}},
		{name: "properties in their forms", file: "A.cs", text: `class A {
    public int B { get; private set; } = 3;
    public string C => $"{B:N2} {(B > 1 ? "}" : "{")}";
    int D {
        get { return 1; }
        set { value = 2; }
    }
    public required List<int> E { get; init; } = new() { 1, 2 };
    public int this[int i, string j] { get => i; }
    internal (int X, int Y) F { get; }
    int IShape.G => 2;
}
`, defs: []string{"class A 1-12", "+property A.B 2-2", "+property A.C 3-3", "property A.D 4-7", "+property A.E 8-8", "+property A.this 9-9", "property A.F 10-10", "property A.G 11-11"}},
		{name: "methods in their forms", file: "A.cs", text: `partial class A<T> where T : class, new() {
    public A(int x) : this(x, 1) { }
    ~A() { }
    public async Task<List<T>> Get<U>(U u, params int[] rest) where U : struct => await f(u);
    static void One() {
        int Local() => 1;
        void Other() { }
    }
    (int, string) Pair((int a, int b) p) { return (1, ""); }
    public static A<T> operator +(A<T> a, A<T> b) => a;
    public static implicit operator int(A<T> a) { return 1; }
    void IDisposable.Dispose() { }
    abstract int Last();
    partial void Part();
    ref readonly int R() => ref x;
}
`, defs: []string{"class A 1-16", "+method A.A 2-2", "method A.~A 3-3", "+method A.Get 4-4", "method A.One 5-8", "method A.Pair 9-9", "+method A.operator + 10-10", "+method A.operator int 11-11", "method A.Dispose 12-12", "method A.Last 13-13", "method A.Part 14-14", "method A.R 15-15"}},
		{name: "fields, constants and events", file: "A.cs", text: `class A {
    public const int Max = 3, Min = -1;
    private readonly Dictionary<string, List<int>> byName = new Dictionary<string, List<int>>();
    static int[] a = { 1, 2 }, b;
    public event EventHandler<Args> Changed;
    public event Action Other { add { } remove { } }
    int? maybe;
    Func<int, int> f = x => { return x; };
}
`, defs: []string{"class A 1-9", "+constant A.Max 2-2", "+constant A.Min 2-2", "property A.byName 3-3", "property A.a 4-4", "property A.b 4-4", "+property A.Changed 5-5", "+property A.Other 6-6", "property A.maybe 7-7", "property A.f 8-8"}},
		{name: "enums with values and attributes", file: "A.cs", text: "[Flags]\npublic enum Side : byte {\n    None = 0,\n    [Display(Name = \"l, r\")] Left = 1 << 0,\n    Both = Left | Right,\n}\n",
			defs: []string{"+enum Side 1-6", "+constant Side.None 3-3", "+constant Side.Left 4-4", "+constant Side.Both 5-5"}},
		{name: "delegates, nested types, interfaces", file: "A.cs", text: `public delegate void Weighed<in T>(object sender, T args) where T : Args;
public interface IHold : INamed, IKept<int> {
    int Count { get; }
    void Put(Lot lot);
    static abstract int Max();
    public class Inner { enum Deep { A } }
}
`, defs: []string{"+type Weighed 1-1", "+interface IHold 2-7", "+property IHold.Count 3-3", "+method IHold.Put 4-4", "+method IHold.Max 5-5", "+class IHold.Inner 6-6", "enum IHold.Inner.Deep 6-6", "+constant IHold.Inner.Deep.A 6-6"}},
		{name: "strings of every form hide what looks like code", file: "A.cs", text: "class A {\n    string a = @\"C:\\\" + @\"say \"\"{\"\"\n}\";\n    string b = $@\"x {y}\n} \";\n    string c = \"\"\"\n        class No { \"quoted\" }\n        \"\"\";\n    string d = $$\"\"\"{ {{e}} }\"\"\";\n    string f = $\"{{ {g(\"}\")} }}\";\n    char h = '\"', i = '\\'';\n    int @class = 1;\n}\n",
			defs: []string{"class A 1-13", "property A.a 2-3", "property A.b 4-5", "property A.c 6-8", "property A.d 9-9", "property A.f 10-10", "property A.h 11-11", "property A.i 11-11", "property A.class 12-12"}},
		{name: "of branches of the preprocessor the first is read", file: "A.cs", text: "#region A\n#if DEBUG\nclass A {\n#else\nclass A : B {\n#if X\n#endif\n#endif\n    int b;\n#if Y\n    int c;\n#elif Z\n    int d }\n#endif\n}\n#endregion\n#nullable enable\nclass E { }\n",
			defs: []string{"class A 3-15", "property A.b 9-9", "property A.c 11-11", "class E 18-18"}},
		{name: "attributes with arguments on everything", file: "A.cs", text: "[assembly: AssemblyTitle(\"Vault\")]\n[Route(\"api/[controller]\"), ApiController]\npublic class A {\n    [HttpGet(\"{id}\")]\n    [return: NotNull]\n    public Lot Get([FromRoute] int id) => null;\n    [field: NonSerialized] int x;\n}\n",
			defs: []string{"+class A 2-8", "+method A.Get 4-6", "property A.x 7-7"}},
		{name: "statements at the top start the program", file: "Program.cs", text: "using Vault;\nvar app = Build();\napp.MapGet(\"/lots\", () => { return 1; });\nif (x) { app.Run(); }\nint Build() { return 1; }\npublic partial class Program { }\n",
			defs: []string{"+class Program 6-6"}, imports: []string{"1 Vault: "}},
		{name: "a using statement is no directive", file: "A.cs", text: "using System;\nclass A { void F() { using (var a = B()) { } using var c = D(); } }\nusing var top = Open();\n", defs: []string{"class A 2-2", "method A.F 2-2"}, imports: []string{"1 System: "}},
		{name: "primary constructors and bases with arguments", file: "A.cs", text: "class A(int x, string y = \"a\") : B<int>(x), IC, D.E<F> where T : G;\nstruct H { }\n", defs: []string{"class A 1-1", "class H 2-2"}},
		{name: "generics that look like comparisons", file: "A.cs", text: "class A {\n    bool a = b < c && d > e;\n    Dictionary<int, Func<A, B<C>>> f;\n    D<E>? g() => h<I>(j);\n    int k = l << 2 >> 1;\n}\n", defs: []string{"class A 1-6", "property A.a 2-2", "property A.f 3-3", "method A.g 4-4", "property A.k 5-5"}},
		{name: "words that are only sometimes of the language", file: "A.cs", text: "class A {\n    int record, value, partial, file;\n    void where(int on, int by) { }\n    record R(int record);\n    int get() => 1;\n    new int Count;\n    required_ x;\n}\n", defs: []string{"class A 1-8", "property A.record 2-2", "property A.value 2-2", "property A.partial 2-2", "property A.file 2-2", "method A.where 3-3", "class A.R 4-4", "method A.get 5-5", "property A.Count 6-6", "property A.x 7-7"}},
		{name: "comments that look like code", file: "A.cs", text: "/// <summary>class No { </summary>\n// class No\n/* class\n No { */\nclass A /* : B */ { } // }\n", defs: []string{"class A 5-5"}},
		{name: "lambdas and patterns in bodies", file: "A.cs", text: "class A {\n    int F(object o) => o switch { B { C: > 1 } b => 2, (_, var d) => 3, _ => 4 };\n    Action G = delegate (int x) { H(); };\n    void I() { J(k => new { k.L, M = 1 }); if (n is { O: 1 } and not null) { } }\n}\n", defs: []string{"class A 1-5", "method A.F 2-2", "property A.G 3-3", "method A.I 4-4"}},
		{name: "a string that is not closed costs its line", file: "A.cs", partial: true, text: "class A {\n    string b = \"open;\n    int c;\n}\nclass D { }\n", defs: []string{"class A 1-4", "property A.b 2-2", "property A.c 3-3", "class D 5-5"}},
		{name: "a brace too few", file: "A.cs", partial: true, text: "class A {\n    void B() {\n}\nclass C { }\n", defs: []string{"class A 1-1", "class C 4-4"}},
		{name: "unsafe, fixed and pointers", file: "A.cs", text: "unsafe struct A {\n    fixed byte b[16];\n    int* c;\n    delegate* unmanaged<int, void> d;\n    static extern int E(int* f);\n}\n", defs: []string{"class A 1-6", "property A.b 2-2", "property A.c 3-3", "property A.d 4-4", "method A.E 5-5"}},
		{name: "nothing but directives", file: "Usings.cs", text: "global using A;\nglobal using static A.B;\n", imports: []string{"1 A: global", "2 A.B: global static"}},
		{name: "an empty file", file: "A.cs", text: "\n"},
		{name: "a mark of encoding and other line ends", file: "A.cs", text: "\xEF\xBB\xBFnamespace A;\r\nclass B\r\n{\r\n}\r\n", defs: []string{"class B 2-4"}},
	})
}

func TestCSharpLinks(t *testing.T) {
	const lots = `
-- lots/Lot.cs --
namespace Vault.Lots;
public class Lot { public enum Part { A } }
-- lots/Grams.cs --
namespace Vault.Lots;
public struct Grams { }
`
	linksOf(t, map[string]linkCase{
		"a namespace is narrowed to the types named": {tree: lots + `
-- a/A.cs --
using Vault.Lots;
using System.Text;
namespace Other;
class A { Lot lot; }
`, links: []string{"a/A.cs -> lots/Lot.cs"}, external: []string{"System.Text"}},
		"the own namespace and those around it need no directive": {tree: lots + `
-- a/A.cs --
namespace Vault.Lots.Deep;
class A { Grams g; Root r; }
-- Root.cs --
namespace Vault;
class Root { }
`, links: []string{"a/A.cs -> Root.cs", "a/A.cs -> lots/Grams.cs"}},
		"an alias and a static directive mean a type": {tree: lots + `
-- a/A.cs --
using G = Vault.Lots.Grams;
using static Vault.Lots.Lot;
class A : G { Part p; }
`, links: []string{"a/A.cs -> lots/Grams.cs", "a/A.cs -> lots/Lot.cs", "a/A.cs -> lots/Grams.cs (inheritance)"}},
		"global directives count in their own project": {tree: lots + `
-- a/a.csproj --
<Project/>
-- a/Usings.cs --
global using Vault.Lots;
-- a/A.cs --
namespace X;
class A { Lot lot; }
-- b/b.csproj --
<Project/>
-- b/B.cs --
namespace X;
class B { Lot lot; }
`, links: []string{"a/A.cs -> lots/Lot.cs"}},
		"the nearer namespace wins over one that is brought in": {tree: lots + `
-- a/A.cs --
using Vault.Lots;
namespace Vault.Desk;
class A { Lot lot; }
-- a/Lot.cs --
namespace Vault.Desk;
class Lot { }
`, links: []string{"a/A.cs -> a/Lot.cs"}},
		"parts of a type are all meant": {tree: `
-- Lot.cs --
namespace V;
partial class Lot { }
-- Lot.Parts.cs --
namespace V;
partial class Lot { }
-- A.cs --
namespace V;
class A : Lot { }
`, links: []string{"A.cs -> Lot.Parts.cs", "A.cs -> Lot.Parts.cs (inheritance)", "A.cs -> Lot.cs", "A.cs -> Lot.cs (inheritance)"}},
		"bases by full and by nested name": {tree: lots + `
-- A.cs --
class A : Vault.Lots.Lot, IOther<Vault.Lots.Grams> { }
-- B.cs --
using Vault.Lots;
class B { Lot.Part part; }
`, links: []string{"A.cs -> lots/Lot.cs (inheritance)", "B.cs -> lots/Lot.cs"}},
		"a type of the file itself hides another's": {tree: lots + `
-- A.cs --
using Vault.Lots;
namespace X;
class Lot { }
class B { Lot lot; Grams g; }
`, links: []string{"A.cs -> lots/Grams.cs"}},
		"members and words behind a dot are no types": {tree: lots + `
-- A.cs --
using Vault.Lots;
class A { int x = y.Lot + z.Grams(); }
`},
		"a namespace that is here but holds no such type": {tree: lots + `
-- A.cs --
using N = Vault.Lots.None;
class A { }
`, unresolved: []string{"Vault.Lots.None"}},
		"attributes are types by their short name as written": {tree: lots + `
-- A.cs --
using Vault.Lots;
[Lot]
class A { }
`, links: []string{"A.cs -> lots/Lot.cs"}},
		"generic arguments and casts": {tree: lots + `
-- A.cs --
using Vault.Lots;
class A { object x = (Grams)y; List<Lot> l = new List<Lot>(); }
`, links: []string{"A.cs -> lots/Grams.cs", "A.cs -> lots/Lot.cs"}},
		"a type without a namespace is seen by all": {tree: `
-- Lot.cs --
public class Lot { }
-- A.cs --
namespace X.Y;
class A { Lot lot; }
`, links: []string{"A.cs -> Lot.cs"}},
		"two namespaces that define one name: the first directive is followed": {tree: lots + `
-- other/Lot.cs --
namespace Other;
public class Lot { }
-- A.cs --
using Other;
using Vault.Lots;
class A { Lot lot; }
`, links: []string{"A.cs -> other/Lot.cs"}},
		"what lies in strings and comments is not named": {tree: lots + `
-- A.cs --
using Vault.Lots;
// Lot
class A { string s = "Lot Grams"; /* Grams */ }
`},
		"directives within a namespace": {tree: lots + `
-- A.cs --
namespace X
{
    using Vault.Lots;
    class A { Lot lot; }
}
`, links: []string{"A.cs -> lots/Lot.cs"}},
	})
}

func TestCommasOfATypePartNoParameters(t *testing.T) {
	for file, text := range map[string]string{
		"A.cs":  "class A { void Put(Dictionary<string, List<int>> lots, Func<int, int> f = null) {} }",
		"a.kt":  "fun put(lots: Map<String, List<Int>>, f: (Int, Int) -> Int) {}",
		"a.cpp": "void put(std::map<int, int> lots, int n) {}",
	} {
		var params []int
		for _, d := range facts(file, text).Definitions {
			if strings.EqualFold(d.Name, "put") {
				params = append(params, d.Params)
			}
		}
		require.Equal(t, []int{2}, params, file)
	}
}
