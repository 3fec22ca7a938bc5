package languages_test

import "testing"

func TestKotlin(t *testing.T) {
	run(t, []sample{
		{name: "classes with parts, companions and what they stand on", file: "Shelf.kt", text: `package hollin.vault

import hollin.lots.Lot
import hollin.lots.weigh as scale
import hollin.seed.*

@Entity(name = "}")
data class Shelf<T : Comparable<T>>(
    val name: String = "a(b",
    private var slots: Map<String, List<T>>,
    hidden: Int,
) : Rack<T>(name), Holder by slots.holder {
    var free: Int = 4
        get() = field + 1
        private set
    val all by lazy { listOf(1) }
    companion object { const val MAX = 3; fun of() = Shelf("x") }
    init { fun inner() {} }
    constructor(n: Int) : this("$n") { free = n }
    override fun put(lot: Lot, vararg more: Lot): Boolean {
        val local = object : Runnable { override fun run() {} }
        return true
    }
    inner class Side
}
internal interface Holder { fun free(): Int; val size: Int }
object Limits
enum class Stage(val days: Int) { DAMP(1) { override fun next() = DRY }, DRY(2); abstract fun next(): Stage }
annotation class Checked(val by: String)
typealias Lots = List<Lot>
`, defs: []string{"+class Shelf 7-25", "+property Shelf.name 9-9", "property Shelf.slots 10-10", "+property Shelf.free 13-15", "+property Shelf.all 16-16", "+class Shelf.Companion 17-17", "+constant Shelf.Companion.MAX 17-17", "+method Shelf.Companion.of 17-17", "+function Shelf.inner 18-18", "+method Shelf.constructor 19-19", "+method Shelf.put 20-23", "+class Shelf.Side 24-24", "interface Holder 26-26", "+method Holder.free 26-26", "+property Holder.size 26-26", "+class Limits 27-27", "+enum Stage 28-28", "+property Stage.days 28-28", "+constant Stage.DAMP 28-28", "+method Stage.DAMP.next 28-28", "+constant Stage.DRY 28-28", "+method Stage.next 28-28", "+interface Checked 29-29", "+property Checked.by 29-29", "+type Lots 30-30"},
			imports: []string{"3 hollin.lots.Lot: ", "4 hollin.lots.weigh: ", "5 hollin.seed.*: "}},
		{name: "functions with receivers, and bodies that are expressions over lines", file: "a.kt", text: `fun <T> List<T>.second(): T? =
    if (size > 1)
        this[1]
    else
        null
private suspend fun Lot?.dry(days: (Int) -> Unit, n: Int = f(1, 2)) = days
    .let { it }
    ?: stop()
val total get() = 3
val Lot.grams: Int
    get() { return 1 }
fun ` + "`words in a name`" + `() { }
val (a, _, b) = pair
fun chain() = listOf(1)
    .map { x -> x + 1 }
val after = "one ${f("}")} two" + """ raw "fun no() {" """
fun main() = println('"')
`, defs: []string{"+function second 1-5", "function dry 6-8", "+variable total 9-9", "+variable grams 10-11", "+function words in a name 12-12", "+variable a 13-13", "+variable b 13-13", "+function chain 14-15", "+variable after 16-16", "+function main 17-17"}},
		{name: "words of the language used as names", file: "a.kt", text: `class A {
    val data = 1
    val open: Boolean = false
    fun value(inner: Int, enum: Int) {}
    val get = 3
    var set = 4
    val companion = 5
}
fun interface Named { fun name(): String }
value class Grams(val n: Int)
`, defs: []string{"+class A 1-8", "+property A.data 2-2", "+property A.open 3-3", "+method A.value 4-4", "+property A.get 5-5", "+property A.set 6-6", "+property A.companion 7-7", "+interface Named 9-9", "+method Named.name 9-9", "+class Grams 10-10", "+property Grams.n 10-10"}},
		{name: "names that are missing define nothing", file: "a.kt", partial: true, text: "val () = x\nval (_) = y\nfun = 3\nval (", defs: nil},
		{name: "nested comments and labels", file: "a.kt", text: `/* one /* fun no() {} */ class No */
fun f() { loop@ for (i in 1..2) { break@loop } ; return@f }
@file:Suppress("x")
class B @Inject constructor(private val a: Int) : C(a)
class D
`, defs: []string{"+function f 2-2", "+class B 4-4", "property B.a 4-4", "+class D 5-5"}},
	})
}

func TestKotlinLinks(t *testing.T) {
	linksOf(t, map[string]linkCase{
		"types and functions of the same package, of others, and of Java": {tree: `
-- src/Shelf.kt --
package hollin.vault
import hollin.lots.Lot
import hollin.lots.weigh as scale
import kotlinx.coroutines.launch
import hollin.lots.none
class Shelf : Rack() { fun f(l: Lot) = clean(scale(l)) }
-- src/Rack.java --
package hollin.vault;
public class Rack { Shelf s; }
-- src/Tools.kt --
package hollin.vault
fun clean(n: Int) = n
fun own() = clean(1)
-- src/lots/Lot.kt --
package hollin.lots
class Lot
-- src/lots/Weigh.kt --
package hollin.lots
fun weigh(l: Lot) = 1
`, links: []string{"src/Rack.java -> src/Shelf.kt", "src/Shelf.kt -> src/lots/Lot.kt", "src/Shelf.kt -> src/lots/Weigh.kt", "src/Shelf.kt -> src/Rack.java", "src/Shelf.kt -> src/Rack.java (inheritance)", "src/Shelf.kt -> src/Tools.kt", "src/lots/Weigh.kt -> src/lots/Lot.kt"},
			external: []string{"kotlinx.coroutines"}, unresolved: []string{"hollin.lots.none"}},
	})
}
