package calls_test

import "testing"

// csharp are small trees in C#; what is called was written down before any was run.
var csharp = []smallFile{
	{"classes of another namespace by using, by an alias and by their path", "A.cs", `
-- Lot.cs --
namespace Vault.Seeds;
public class Lot { public void Sow() {} }
-- Desk.cs --
using Vault.Seeds;
using Kept = Vault.Seeds.Lot;
namespace Vault.Web;
public class Desk
{
    public void Run(Lot a, Kept b, Vault.Seeds.Lot c)
    {
        a.Sow();
        b.Sow();
    }
    public void More(Kept b) { b.Sow(); }
    public void Last(Vault.Seeds.Lot c) { c.Sow(); }
}
`, []string{"Desk.Run -> Lot.Sow", "Desk.More -> Lot.Sow", "Desk.Last -> Lot.Sow"}, nil},
	{"the namespace around is known, and one beside it is not", "A.cs", `
-- a.cs --
namespace A { public class Lot { public void Go() {} } }
-- b.cs --
namespace A.B { public class Desk { public void Run() { new Lot().Go(); } } }
-- c.cs --
namespace C { public class Desk { public void Run() { new Lot().Go(); } } }
`, []string{"Desk.Run -> Lot (construct)", "Desk.Run -> Lot.Go"}, nil},
	{"properties with bodies, and what a getter gives", "A.cs", `
class Scale { public void Tare() {} }
class Desk
{
    private Scale _scale;
    public Scale Scale => _scale ??= Make();
    public Scale Other { get { return Make(); } set { _scale = value; } }
    private Scale Make() { return new Scale(); }
    public void Run()
    {
        Scale.Tare();
        Other.Tare();
    }
}
`, []string{"Desk.Scale -> Desk.Make", "Desk.Other -> Desk.Make", "Desk.Make -> Scale (construct)", "Desk.Run -> Scale.Tare"}, nil},
	{"what is awaited gives what the task holds", "A.cs", `
class Lot { public void Sow() {} }
class Store
{
    public async Task<Lot> FindAsync(int id) { return new Lot(); }
    public ValueTask<Lot> Last() => default;
}
class Desk
{
    private readonly Store _store;
    public async Task Run()
    {
        var lot = await _store.FindAsync(1);
        lot.Sow();
        (await _store.Last()).Sow();
    }
}
`, []string{"Store.FindAsync -> Lot (construct)", "Desk.Run -> Store.FindAsync", "Desk.Run -> Lot.Sow", "Desk.Run -> Store.Last"}, nil},
	{"lists and dictionaries, walked and asked", "A.cs", `
class Lot { public void Sow() {} public int Grams() { return 1; } }
class Bed
{
    private readonly List<Lot> _lots = new();
    private readonly Dictionary<string, Lot> _byName = new();
    public void Run()
    {
        foreach (var lot in _lots)
        {
            lot.Sow();
        }
        _lots[0].Sow();
        _byName["a"].Sow();
    }
    public void Count() { _lots.Select(l => l.Grams()); }
    public void One() { _lots.First().Sow(); }
}
`, []string{"Bed.Run -> Lot.Sow", "Bed.Count -> Lot.Grams", "Bed.One -> Lot.Sow"}, nil},
	{"a call of a method of the base by its bare name, and one that hides it", "A.cs", `
class Base
{
    protected void Log() {}
    public virtual void Run() {}
}
class Desk : Base
{
    public new void Log() {}
    public override void Run()
    {
        Log();
        base.Log();
        base.Run();
    }
}
`, []string{"Desk -> Base (inherit)", "Desk.Run -> Desk.Log", "Desk.Run -> Base.Log", "Desk.Run -> Base.Run"}, nil},
	{"constructors that call another and the base", "A.cs", `
class Base
{
    public Base(int x) { Check(x); }
    protected void Check(int x) {}
}
class Lot : Base
{
    public Lot() : this(Default()) {}
    public Lot(int x) : base(x) {}
    private static int Default() { return 1; }
}
`, []string{"Lot -> Base (inherit)", "Base.Base -> Base.Check", "Lot.Lot -> Lot.Default"}, nil},
	{"an interface of types, and the one who implements it", "A.cs", `
interface IStore<T> { T Get(int id); }
class Lot { public void Sow() {} }
class Shelf : IStore<Lot> { public Lot Get(int id) { return null; } }
class Desk
{
    public void Run(IStore<Lot> store) { store.Get(1); }
}
`, []string{"Shelf -> IStore (inherit)", "Desk.Run -> IStore.Get", "Desk.Run ~> Shelf.Get"}, nil},
	{"explicit members of an interface", "A.cs", `
interface IGo { void Go(); }
class Lot : IGo
{
    void IGo.Go() { Dry(); }
    private void Dry() {}
}
`, []string{"Lot -> IGo (inherit)", "Lot.Go -> Lot.Dry"}, nil},
	{"static using, and constants of a class", "A.cs", `
-- Weights.cs --
namespace W;
public static class Weights { public static int Grams(int x) { return x; } }
-- Desk.cs --
using static W.Weights;
class Desk { public int Run() { return Grams(1); } }
`, []string{"Desk.Run -> Weights.Grams"}, nil},
	{"events and delegates that are raised", "A.cs", `
class Bell
{
    public event EventHandler Rung;
    protected virtual void OnRung() { Rung?.Invoke(this, null); }
    public void Ring() { OnRung(); }
}
class Desk
{
    private readonly Bell _bell = new Bell();
    public Desk() { _bell.Rung += (s, e) => Hear(); }
    private void Hear() {}
}
`, []string{"Bell.Ring -> Bell.OnRung", "Desk._bell -> Bell (construct)", "Desk.Desk -> Desk.Hear"}, nil},
	{"what is handed as a group of methods", "A.cs", `
class Desk
{
    private bool Dry(int x) { return true; }
    public void Run(int[] xs) { xs.Where(Dry); Take(Dry); }
    private void Take(Func<int, bool> f) {}
}
`, []string{"Desk.Run -> Desk.Take"}, []string{"Desk.Run -> Desk.Dry"}},
	{"is, as and what a pattern binds", "A.cs", `
class A1 { public void Go() {} }
class B1 { public void Go() {} public A1 Inner { get; set; } }
class Desk
{
    public void Run(object o)
    {
        if (o is A1 a) a.Go();
        (o as B1)?.Go();
        var b = o as B1;
        b.Inner.Go();
        if (o is not B1 c) return;
        c.Go();
    }
}
`, []string{"Desk.Run -> A1.Go", "Desk.Run -> B1.Go"}, nil},
	{"switch expressions give one of several", "A.cs", `
class A1 { public void Go() {} }
class Desk
{
    private A1 Make(int x) => x switch { 1 => First(), _ => new A1() };
    private A1 First() { return null; }
    public void Run() { Make(1).Go(); }
}
`, []string{"Desk.Make -> Desk.First", "Desk.Make -> A1 (construct)", "Desk.Run -> Desk.Make", "Desk.Run -> A1.Go"}, nil},
	{"tuples that are taken apart", "A.cs", `
class A1 { public void Go() {} }
class Desk
{
    private (A1 first, int n) Pair() { return (new A1(), 1); }
    public void Run()
    {
        var (a, n) = Pair();
        a.Go();
        Pair().first.Go();
    }
}
`, []string{"Desk.Pair -> A1 (construct)", "Desk.Run -> Desk.Pair"}, []string{"Desk.Run -> A1.Go"}},
	{"objects with their properties set at once", "A.cs", `
class Lamp { public void On() {} }
class Desk { public Lamp Lamp { get; set; } public int N { get; init; } }
class Room
{
    private Lamp Make() { return new Lamp { }; }
    public void Run()
    {
        var desk = new Desk { Lamp = Make(), N = 3 };
        desk.Lamp.On();
    }
}
`, []string{"Room.Make -> Lamp (construct)", "Room.Run -> Desk (construct)", "Room.Run -> Room.Make", "Room.Run -> Lamp.On"}, nil},
	{"members of a record, and a record that is built upon", "A.cs", `
abstract record Shape(string Name) { public abstract int Area(); public string Tell() => Name + Area(); }
record Square(int Side) : Shape("square")
{
    public override int Area() => Side * Side;
}
class Desk { public void Run(Shape s) { s.Tell(); } }
`, []string{"Square -> Shape (inherit)", "Shape.Tell -> Shape.Area", "Shape.Tell ~> Square.Area", "Desk.Run -> Shape.Tell"}, nil},
	{"generic methods with their types written", "A.cs", `
class Lot { public void Sow() {} }
class Box
{
    public T Get<T>(string key) { return default; }
    public void Put<T>(T x) { Check<T>(); }
    private void Check<T>() {}
}
class Desk
{
    public void Run(Box box) { box.Get<Lot>("a").Sow(); }
}
`, []string{"Box.Put -> Box.Check", "Desk.Run -> Box.Get", "Desk.Run -> Lot.Sow"}, nil},
	{"indexers and operators", "A.cs", `
class Grid
{
    public int this[int i] { get { return At(i); } }
    public static Grid operator +(Grid a, Grid b) { return a.Join(b); }
    private int At(int i) { return i; }
    private Grid Join(Grid b) { return this; }
}
`, []string{"Grid.this -> Grid.At", "Grid.operator + -> Grid.Join"}, nil},
	{"texts with holes", "A.cs", `
class Desk
{
    private string Name() { return ""; }
    private int Count(string x) { return 1; }
    public string Run() { return $"{Name()}: {Count("a"):N0} {{Name()}}"; }
    public string Raw() { return $@"a {Name()}"; }
}
`, []string{"Desk.Run -> Desk.Name", "Desk.Run -> Desk.Count", "Desk.Raw -> Desk.Name"}, nil},
	{"attributes and nameof call nothing", "A.cs", `
class Route : Attribute { public Route(string x) {} }
class Desk
{
    [Route("x")]
    public void Run() { Tell(nameof(Hidden)); }
    private void Tell(string x) {}
    private void Hidden() {}
}
`, []string{"Desk.Run -> Desk.Tell"}, nil},
	{"iterators and locks", "A.cs", `
class Lot { public void Sow() {} }
class Bed
{
    private readonly object _gate = new();
    public IEnumerable<Lot> Lots() { lock (_gate) { yield return Make(); } }
    private Lot Make() { return new Lot(); }
    public void Run() { foreach (Lot lot in Lots()) lot.Sow(); }
}
`, []string{"Bed.Lots -> Bed.Make", "Bed.Make -> Lot (construct)", "Bed.Run -> Bed.Lots", "Bed.Run -> Lot.Sow"}, nil},
	{"a minimal program with lambdas for its routes", "A.cs", `
var app = Host.Create();
app.MapGet("/lots", (Store store) => store.All());
app.Run();
class Host
{
    public static Host Create() { return new Host(); }
    public void Run() {}
    public void MapGet(string p, Delegate d) {}
}
class Store { public void All() {} }
`, []string{"-> Host.Create", "-> Host.MapGet", "-> Store.All", "-> Host.Run", "Host.Create -> Host (construct)"}, nil},
	{"an enum with methods that extend it", "A.cs", `
enum State { Dry, Wet }
static class States { public static State Next(this State s) => s == State.Dry ? State.Wet : State.Dry; }
class Desk { private State _s; public void Run() { _s.Next(); State.Dry.Next(); } }
`, []string{"Desk.Run -> States.Next"}, nil},
	{"what is caught, with a filter", "A.cs", `
class Full : Exception { public bool Hard() { return true; } public void Tell() {} }
class Desk
{
    public void Run()
    {
        try { Go(); }
        catch (Full e) when (e.Hard()) { e.Tell(); throw; }
        finally { Shut(); }
    }
    private void Go() { throw new Full(); }
    private void Shut() {}
}
`, []string{"Desk.Run -> Desk.Go", "Desk.Run -> Full.Hard", "Desk.Run -> Full.Tell", "Desk.Run -> Desk.Shut", "Desk.Go -> Full (construct)"}, nil},
	{"partial classes in two files, and nested ones", "A.cs", `
-- a.cs --
partial class Desk
{
    public void Run() { Shut(); new Row().Go(); }
    class Row { public void Go() {} }
}
-- b.cs --
partial class Desk { private void Shut() {} }
`, []string{"Desk.Run -> Desk.Shut", "Desk.Run -> Desk.Row (construct)", "Desk.Run -> Desk.Row.Go"}, nil},
	{"a member that several have is told of none", "A.cs", `
class A1 { public void Go() {} }
class B1 { public void Go() {} }
class Desk { public void Run(dynamic x) { x.Go(); } }
`, []string{}, nil},
	{"default members of an interface", "A.cs", `
interface ILog
{
    void Write(string s);
    void Tell() { Write("x"); }
}
class Desk { public void Run(ILog log) { log.Tell(); } }
`, []string{"ILog.Tell -> ILog.Write", "Desk.Run -> ILog.Tell"}, nil},
}

func TestCSharpInSmallTrees(t *testing.T) { holdFiles(t, csharp) }
