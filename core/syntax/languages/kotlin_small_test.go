package languages_test

import "testing"

func TestKotlinSmall(t *testing.T) {
	small(t, "A.kt", `
== a string with a template that holds a string
val a = "one ${f("}")} two"
fun b() {}
=> +variable a 1-1; +function b 2-2
== a template within a template
val a = "x ${if (n > 1) "y ${n} {" else "z"}"
fun b() {}
=> +variable a 1-1; +function b 2-2
== a raw string with quotes and braces
val a = """ fun no() { "" " """
fun b() {}
=> +variable a 1-1; +function b 2-2
== a raw string that ends in more quotes
val a = """he said "so""""
fun b() {}
=> +variable a 1-1; +function b 2-2
== a dollar that is only a dollar
val a = "$ 5 and $name"
fun b() {}
=> +variable a 1-1; +function b 2-2
== characters
val a = '"'
val b = '\''
val c = '\u007b'
=> +variable a 1-1; +variable b 2-2; +variable c 3-3
== comments within comments
/* a /* fun no() {} */ class No */
fun b() {}
=> +function b 2-2
== a body that is one expression
fun a() = 1
fun b() = if (x) 1 else 2
fun c() = when (x) {
    1 -> "one"
    else -> "more"
}
fun d() {}
=> +function a 1-1; +function b 2-2; +function c 3-6; +function d 7-7
== an expression that goes on behind an operator
fun a() = one +
    two
fun b() {}
=> +function a 1-2; +function b 3-3
== visibility
private fun a() {}
internal class B
protected val c = 1
public fun d() {}
=> function a 1-1; class B 2-2; variable c 3-3; +function d 4-4
== words before a function
inline fun <reified T> a() {}
tailrec suspend fun b() {}
operator fun Lot.plus(o: Lot) = 1
infix fun Lot.near(o: Lot) = true
external fun e()
=> +function a 1-1; +function b 2-2; +function plus 3-3; +function near 4-4; +function e 5-5
== receivers with generics and nullability
fun <K, V> Map<K, V>?.both(): K? = null
fun (() -> Unit).twice() {}
=> +function both 1-1; +function twice 2-2
== a class with a body, and one without
class A { fun f() {} }
class B
class C(n: Int)
=> +class A 1-1; +method A.f 1-1; +class B 2-2; +class C 3-3
== parts in the head of a class
class Lot(val grams: Double, var name: String = f(1, "x"), hidden: Int)
=> +class Lot 1-1; +property Lot.grams 1-1; +property Lot.name 1-1
== data, sealed, open, abstract and inner classes
data class A(val n: Int)
sealed class B { object C : B() }
abstract class D { abstract fun f() }
class E { inner class F }
=> +class A 1-1; +property A.n 1-1; +class B 2-2; +class B.C 2-2; +class D 3-3; +method D.f 3-3; +class E 4-4; +class E.F 4-4
== sealed interfaces
sealed interface Stage
interface Holder<in T> { fun put(t: T) }
=> +interface Stage 1-1; +interface Holder 2-2; +method Holder.put 2-2
== a companion with and without a name
class A { companion object { val max = 1 } }
class B { companion object Limits { val max = 1 } }
=> +class A 1-1; +class A.Companion 1-1; +property A.Companion.max 1-1; +class B 2-2; +class B.Limits 2-2; +property B.Limits.max 2-2
== an object without a name is no definition of its own
val a = object : Named { override fun name() = "x" }
fun b() {}
=> +variable a 1-1; +function b 2-2
== delegation
class A(b: B) : B by b
val c by lazy { 1 }
var d: Int by watched(1) { _, _, _ -> }
=> +class A 1-1; +variable c 2-2; +variable d 3-3
== getters and setters
class A {
    var free: Int = 1
        get() = field
        private set(v) { field = v }
    val all get() = 2
}
=> +class A 1-6; +property A.free 2-4; +property A.all 5-5
== enums with parts, bodies and functions
enum class Stage(val days: Int) {
    DAMP(1),
    DRY(2) { override fun next() = DAMP };
    open fun next() = DRY
}
=> +enum Stage 1-5; +property Stage.days 1-1; +constant Stage.DAMP 2-2; +constant Stage.DRY 3-3; +method Stage.DRY.next 3-3; +method Stage.next 4-4
== enums with a comma at the end
enum class Side { LEFT, RIGHT, }
class B
=> +enum Side 1-1; +constant Side.LEFT 1-1; +constant Side.RIGHT 1-1; +class B 2-2
== annotations with arguments
@Entity(name = "a)", value = [1, 2])
@JvmInline value class Lot(val n: Int)
@get:Rule val rule = 1
=> +class Lot 1-2; +property Lot.n 2-2; +variable rule 3-3
== names between backticks
fun `+"`it weighs (a) lot`"+`() {}
val `+"`in`"+` = 1
=> +function it weighs (a) lot 1-1; +variable in 2-2
== a lambda as last argument
val a = list.map { it + 1 }.filter { x -> x > 1 }
fun b() {}
=> +variable a 1-1; +function b 2-2
== comparison is no bracket
fun a(n: Int) = n < 3 && n > 1
fun b() {}
=> +function a 1-1; +function b 2-2
== a range, an elvis and a safe call
val a = 1..9
val b = x?.y ?: z!!
fun c() {}
=> +variable a 1-1; +variable b 2-2; +function c 3-3
== constants
const val A = 1
private const val B = 2
=> +constant A 1-1; constant B 2-2
== pairs taken apart
val (a, b) = pair
val c = 1
=> +variable a 1-1; +variable b 1-1; +variable c 2-2
== local functions
fun a() {
    fun inner() {}
    class Held
}
=> +function a 1-4; +function a.inner 2-2; +class a.Held 3-3
== constructors and initialisers
class A {
    constructor(n: Int) : this() {}
    init { println("}") }
    fun f() {}
}
=> +class A 1-5; +method A.constructor 2-2; +method A.f 4-4
== types of functions, and types under another name
typealias Step = (Int, String) -> Unit
typealias Lots<T> = Map<String, List<T>>
=> +type Step 1-1; +type Lots 2-2
== imports
package hollin.vault
import hollin.lots.Lot
import hollin.seed.*
import hollin.lots.weigh as scale
<- 2 hollin.lots.Lot; 3 hollin.seed.*; 4 hollin.lots.weigh
== semicolons
fun a() {}; fun b() {}
val c = 1; val d = 2
=> +function a 1-1; +function b 1-1; +variable c 2-2; +variable d 2-2
`)
}
