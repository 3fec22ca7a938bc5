package calls_test

import "testing"

// kotlin are small trees in Kotlin; what is called was written down before any was run.
var kotlin = []smallFile{
	{"classes of another package by import, by an alias and from the same package", "a.kt", `
-- vault/Lot.kt --
package vault
class Lot {
    fun sow() {}
}
fun weigh(lot: Lot): Int = 1
-- vault/Shelf.kt --
package vault
class Shelf {
    fun put(lot: Lot) { lot.sow(); weigh(lot) }
}
-- web/Desk.kt --
package web
import vault.Lot as Seeds
import vault.Shelf
import vault.weigh
class Desk {
    fun run() {
        val shelf = Shelf()
        shelf.put(Seeds())
        weigh(Seeds())
    }
}
`, []string{"Shelf.put -> Lot.sow", "Shelf.put -> weigh", "Desk.run -> Shelf (construct)", "Desk.run -> Lot (construct)", "Desk.run -> Shelf.put", "Desk.run -> weigh"}, nil},
	{"two classes of one name in two packages", "a.kt", `
-- a/Lot.kt --
package a
class Lot { fun go() {} }
-- b/Lot.kt --
package b
class Lot { fun go() {} }
class Desk { fun run(l: Lot) { l.go() } }
`, []string{"Desk.run -> Lot.go"}, nil},
	{"fields with types, lateinit, lazy and by what they are made", "a.kt", `
class Scale { fun tare() {} }
class Press { fun print() {} }
class Lamp { fun on() {} }
class Desk {
    private lateinit var scale: Scale
    private val press = Press()
    private val lamp by lazy { Lamp() }
    fun run() {
        scale.tare()
        press.print()
        this.lamp.on()
    }
}
`, []string{"Desk.press -> Press (construct)", "Desk.lamp -> Lamp (construct)", "Desk.run -> Scale.tare", "Desk.run -> Press.print", "Desk.run -> Lamp.on"}, nil},
	{"what functions give, told by their value", "a.kt", `
class Lot { fun dry() = this
    fun sow() {} }
fun make() = Lot()
fun pick(flag: Boolean): Lot? = if (flag) make() else null
fun run() {
    make().dry().sow()
    pick(true)?.sow()
}
`, []string{"make -> Lot (construct)", "pick -> make", "run -> make", "run -> Lot.dry", "run -> Lot.sow", "run -> pick"}, nil},
	{"scope functions hand on what they are asked of", "a.kt", `
class Lot {
    var grams = 0
    fun sow() {}
    fun dry() {}
}
fun run() {
    val lot = Lot().apply { sow() }
    lot.let { it.dry() }
    lot.also { l -> l.sow() }
    with(lot) { dry() }
}
`, []string{"run -> Lot (construct)", "run -> Lot.sow", "run -> Lot.dry"}, nil},
	{"lambdas over lists have the element", "a.kt", `
class Lot {
    fun grams(): Int = 1
    fun sow() {}
}
class Bed(private val lots: List<Lot>) {
    fun weigh() = lots.sumOf { it.grams() }
    fun run() {
        lots.filter { l -> l.grams() > 3 }.forEach { it.sow() }
    }
    fun one() { lots.first().sow() }
    fun by(index: Map<String, Lot>) { index["a"]?.sow() }
}
`, []string{"Bed.weigh -> Lot.grams", "Bed.run -> Lot.grams", "Bed.run -> Lot.sow", "Bed.one -> Lot.sow", "Bed.by -> Lot.sow"}, nil},
	{"functions that extend a type, by its value and in their body", "a.kt", `
class Lot {
    fun grams() = 1
}
fun Lot.heavy() = grams() > 3
fun Lot?.orNone(): Lot = this ?: Lot()
val Lot.half get() = grams() / 2
fun run(lot: Lot) {
    lot.heavy()
    lot.orNone().grams()
}
`, []string{"heavy -> Lot.grams", "orNone -> Lot (construct)", "half -> Lot.grams", "run -> heavy", "run -> orNone", "run -> Lot.grams"}, nil},
	{"companions, objects and constants", "a.kt", `
class Lot private constructor() {
    companion object {
        const val MAX = 3
        fun of(x: Int): Lot = Lot()
        fun max() = of(MAX)
    }
}
object Press {
    fun print(l: Lot) { log() }
    private fun log() {}
}
fun run() { Press.print(Lot.max()) }
`, []string{"Lot.Companion.of -> Lot (construct)", "Lot.Companion.max -> Lot.Companion.of", "Press.print -> Press.log", "run -> Press.print", "run -> Lot.Companion.max"}, nil},
	{"an abstract class calls what its heirs write", "a.kt", `
abstract class Job {
    fun handle() {
        before()
        work()
    }
    open fun before() {}
    protected abstract fun work()
}
class Sow : Job() {
    override fun work() { tell() }
    private fun tell() {}
}
`, []string{"Sow -> Job (inherit)", "Sow -> Job (construct)", "Job.handle -> Job.before", "Job.handle -> Job.work", "Job.handle ~> Sow.work", "Sow.work -> Sow.tell"}, nil},
	{"what is asked to be of a type is of it", "a.kt", `
open class A
class B : A() {
    fun dry() {}
}
class C : A() {
    fun wet() {}
}
fun run(x: A) {
    if (x is B) x.dry()
    when (x) {
        is B -> x.dry()
        is C -> x.wet()
    }
    if (x !is C) return
    x.wet()
    (x as B).dry()
}
`, []string{"B -> A (inherit)", "B -> A (construct)", "C -> A (inherit)", "C -> A (construct)", "run -> B.dry", "run -> C.wet"}, nil},
	{"when as a value", "a.kt", `
class A { fun go() {} }
fun one() = A()
fun pick(x: Int): A = when (x) {
    1 -> one()
    else -> { A() }
}
fun run() { val a = when { true -> one() else -> null }
    a?.go()
    pick(1).go() }
`, []string{"one -> A (construct)", "pick -> one", "pick -> A (construct)", "run -> one", "run -> pick", "run -> A.go"}, nil},
	{"what is caught, and try as a value", "a.kt", `
class Full : Exception() { fun tell() {} }
class Lot { fun sow() {} }
fun find(): Lot = throw Full()
fun run() {
    val lot = try { find() } catch (e: Full) { e.tell(); null } finally { done() }
    lot?.sow()
}
fun done() {}
`, []string{"find -> Full (construct)", "run -> find", "run -> Full.tell", "run -> done", "run -> Lot.sow"}, nil},
	{"texts with code in them", "a.kt", "\nclass Lot { fun name() = 1 }\nfun run(lot: Lot) { val a = \"x ${lot.name()} $lot\"; val b = \"\"\"${lot.name()}\"\"\"; val c = \"lot.name()\" }\n",
		[]string{"run -> Lot.name"}, nil},
	{"functions handed by their name", "a.kt", `
class Lot { fun dry() = true }
fun weigh(l: Lot) = 1
fun run(lots: List<Lot>) {
    lots.map(::weigh)
    lots.filter(Lot::dry)
}
`, []string{"run -> weigh", "run -> Lot.dry"}, nil},
	{"infix functions, operators and what invoke runs", "a.kt", `
class Weight {
    infix fun and(o: Weight): Weight = this
    operator fun invoke(x: Int) {}
    fun sum() {}
}
fun run(a: Weight, b: Weight) {
    (a and b).sum()
    a(3)
}
`, []string{"run -> Weight.and", "run -> Weight.sum", "run -> Weight.invoke"}, nil},
	{"generic functions made with a type", "a.kt", `
class Lot { fun sow() {} }
class Box {
    inline fun <reified T> get(key: String): T = TODO()
    fun put(x: Int) { check<Lot>(x) }
    fun <T> check(x: Int) {}
}
fun run(box: Box) { box.get<Lot>("a").sow() }
`, []string{"Box.put -> Box.check", "run -> Box.get", "run -> Lot.sow"}, nil},
	{"an interface and what implements it, given by delegation", "a.kt", `
interface Store { fun put(x: Int) }
class Shelf : Store { override fun put(x: Int) {} }
class Kept(private val inner: Store) : Store by inner
fun run(s: Kept) { s.put(1) }
`, []string{"Shelf -> Store (inherit)", "Kept -> Store (inherit)", "run -> Store.put", "run ~> Shelf.put"}, nil},
	{"inner classes and what is around them", "a.kt", `
class Desk {
    private fun log() {}
    inner class Row {
        fun go() { log() }
    }
    class Nested { fun dry() {} }
    fun run() {
        Row().go()
        Nested().dry()
    }
}
fun run() { Desk.Nested().dry() }
`, []string{"Desk.Row.go -> Desk.log", "Desk.run -> Desk.Row (construct)", "Desk.run -> Desk.Row.go", "Desk.run -> Desk.Nested (construct)", "Desk.run -> Desk.Nested.dry", "run -> Desk.Nested (construct)", "run -> Desk.Nested.dry"}, nil},
	{"constructors, init blocks and defaults", "a.kt", `
class Log { fun tell() {} }
class Desk(private val log: Log = Log()) {
    private val n = count()
    init {
        log.tell()
        ready()
    }
    constructor(x: Int) : this(Log()) { ready() }
    private fun ready() {}
    private fun count() = 1
}
`, []string{"Desk.log -> Log (construct)", "Desk.n -> Desk.count", "Desk -> Log.tell", "Desk -> Desk.ready",
		"Desk.constructor -> Desk.ready", "Desk.constructor -> Log (construct)"}, nil},
	{"suspending functions and builders", "a.kt", `
class Store { suspend fun load(): Lot = Lot() }
class Lot { fun sow() {} }
class Desk(private val store: Store) {
    fun run() {
        scope.launch {
            val lot = store.load()
            lot.sow()
        }
    }
}
`, []string{"Store.load -> Lot (construct)", "Desk.run -> Store.load", "Desk.run -> Lot.sow"}, nil},
	{"data that is taken apart", "a.kt", `
class Lot { fun sow() {} }
data class Pair2(val lot: Lot, val n: Int)
fun pair() = Pair2(Lot(), 1)
fun run() {
    val (lot, n) = pair()
    pair().lot.sow()
    pair().copy(n = 2).lot.sow()
}
`, []string{"pair -> Pair2 (construct)", "pair -> Lot (construct)", "run -> pair", "run -> Lot.sow"}, nil},
	{"enumerations with bodies", "a.kt", `
enum class State {
    DRY { override fun next() = WET },
    WET { override fun next() = tell() };
    abstract fun next(): State
    fun tell(): State = this
}
fun run() { State.DRY.next().tell() }
`, []string{"run -> State.next", "run -> State.tell", "State.WET.next -> State.tell"}, nil},
	{"annotations call nothing, and named arguments are no calls", "a.kt", `
annotation class Route(val path: String)
class Desk {
    @Route("x")
    fun run() { more(path = 1) }
    private fun more(path: Int) {}
    private fun path() {}
}
`, []string{"Desk.run -> Desk.more"}, nil},
	{"local functions and closures", "a.kt", `
fun tare() {}
fun run() {
    fun inner() { tare() }
    val f = { x: Int -> tare() }
    inner()
    f(1)
}
`, []string{"run -> tare", "run -> run.inner", "run.inner -> tare"}, nil},
	{"a member that several have is told of none", "a.kt", `
class A { fun go() {} }
class B { fun go() {} }
fun run(x: Any) { x.go() }
`, []string{}, nil},
	{"type aliases", "a.kt", `
class Lot { fun sow() {} }
typealias Seeds = Lot
fun run(s: Seeds) { s.sow() }
`, []string{"run -> Lot.sow"}, nil},
}

func TestKotlinInSmallTrees(t *testing.T) { holdFiles(t, kotlin) }
