package languages_test

import "testing"

func TestJava(t *testing.T) {
	run(t, []sample{
		{name: "types in types, generics and annotations with arguments", file: "Shelf.java", text: `package hollin.vault;

import java.util.List;
import static hollin.vault.Limits.MAX;
import hollin.lots.*;

@Entity(name = "shelf", value = {"}", ")"})
public abstract class Shelf<T extends Lot & Comparable<T>> extends Rack<T> implements Holder, Named<List<T>> {
    private static final int SLOTS = 40, SPARE[] = {1, 2};
    protected Map<String, List<T>> byName = new HashMap<String, List<T>>(), other;
    static { start(); }
    public Shelf(int slots) throws IOException { super(slots); }
    @Override
    public <R> List<R> all(Function<? super T, ? extends R> f, int... more) {
        return List.of();
    }
    abstract int free() default 3;
    enum Side { LEFT("l") { int turn() { return 1; } }, RIGHT; int turn() { return 0; } }
    @interface Checked { String by() default ""; }
}
`, defs: []string{"+class Shelf 7-20", "constant Shelf.SLOTS 9-9", "constant Shelf.SPARE 9-9", "property Shelf.byName 10-10", "property Shelf.other 10-10", "+method Shelf.Shelf 12-12", "+method Shelf.all 13-16", "method Shelf.free 17-17", "enum Shelf.Side 18-18", "+constant Shelf.Side.LEFT 18-18", "method Shelf.Side.LEFT.turn 18-18", "+constant Shelf.Side.RIGHT 18-18", "method Shelf.Side.turn 18-18", "interface Shelf.Checked 19-19", "+method Shelf.Checked.by 19-19"},
			imports: []string{"3 java.util.List: ", "4 hollin.vault.Limits.MAX: ", "5 hollin.lots.*: "}},
		{name: "records, sealed types and text blocks", file: "Lot.java", text: `public sealed interface Lot permits Wild, Grown {
    String TEXT = """
        class NotOne { " \""" }
        """;
    record Wild(String name, int grams) implements Lot {
        Wild { if (grams < 0) throw new Error("}"); }
        static int record = 1;
    }
    non-sealed class Grown implements Lot {}
    default void weigh() {
        class Scale { int read() { return '}'; } }
        Runnable r = new Runnable() { public void run() {} };
    }
}
`, defs: []string{"+interface Lot 1-14", "+constant Lot.TEXT 2-4", "class Lot.Wild 5-8", "+property Lot.Wild.name 5-5", "+property Lot.Wild.grams 5-5", "method Lot.Wild.Wild 6-6", "property Lot.Wild.record 7-7", "class Lot.Grown 9-9", "+method Lot.weigh 10-13", "class Lot.weigh.Scale 11-11", "method Lot.weigh.Scale.read 11-11"}},
		{name: "a string that is not closed costs its line", file: "Bad.java", partial: true, text: "class Bad {\n  String a = \"open;\n  int b;\n}\nclass Good {}\n",
			defs: []string{"class Bad 1-4", "property Bad.a 2-2", "property Bad.b 3-3", "class Good 5-5"}},
	})
}

func TestJavaInItsCorners(t *testing.T) {
	run(t, []sample{
		{name: "members of an interface are public, its fields constants", file: "A.java", text: `interface Holder<T> extends Named, Kept<T> {
    int MAX = 3;
    T take(int n) throws Empty, Full;
    private void help() {}
    static <X> Holder<X> of(X... xs) { return null; }
}
`, defs: []string{"interface Holder 1-6", "+constant Holder.MAX 2-2", "+method Holder.take 3-3", "method Holder.help 4-4", "+method Holder.of 5-5"}},
		{name: "several names of one field end where each does", file: "A.java", text: `class A {
    int a = f(1, 2),
        b[] = {1, 2},
        c;
    Map<String, List<int[]>> d = new HashMap<>(), e;
    final Runnable r = () -> { int inner = 1; };
}
`, defs: []string{"class A 1-7", "property A.c 2-4", "property A.b 2-3", "property A.a 2-2", "property A.d 5-5", "property A.e 5-5", "property A.r 6-6"}},
		{name: "annotations between modifiers, and on everything", file: "A.java", text: `public @Deprecated final @Named("a") class A {
    private @Inject Lot lot;
    public @Override @Nullable String toString(@Nonnull final Object... o) { return null; }
    @Retry(times = 3, on = {A.class, B.class})
    void run() {}
}
`, defs: []string{"+class A 1-6", "property A.lot 2-2", "+method A.toString 3-3", "method A.run 4-5"}},
		{name: "classes without a name define nothing", file: "A.java", text: `class A {
    Object o = new Object() { int hidden; void no() {} };
    void f() { new Thread() { public void run() {} }.start(); }
}
`, defs: []string{"class A 1-4", "property A.o 2-2", "method A.f 3-3"}},
		{name: "generics that look like shifts and comparisons", file: "A.java", text: `class A<T extends Comparable<? super T>, U> {
    Map<String, Map<String, List<T>>> deep;
    int shift = 1 >> 2 >>> 3;
    boolean less = a < b && c > d;
    <V extends List<T>> V pick(V v) { return v; }
    T[] array() [] { return null; }
}
`, defs: []string{"class A 1-7", "property A.deep 2-2", "property A.shift 3-3", "property A.less 4-4", "method A.pick 5-5", "method A.array 6-6"}},
		{name: "an enum with constructor, fields and nothing but a semicolon", file: "A.java", text: `enum Stage {
    DAMP(1), /** dry */ DRY(2) { @Override int days() { return 3; } },
    ;
    private final int n;
    Stage(int n) { this.n = n; }
    int days() { return n; }
    static final Stage FIRST = DAMP;
}
enum Empty { ; static void f() {} }
`, defs: []string{"enum Stage 1-8", "+constant Stage.DAMP 2-2", "+constant Stage.DRY 2-2", "method Stage.DRY.days 2-2", "property Stage.n 4-4", "method Stage.Stage 5-5", "method Stage.days 6-6", "constant Stage.FIRST 7-7", "enum Empty 9-9", "method Empty.f 9-9"}},
		{name: "words of the language used as names where it allows them", file: "A.java", text: `class A {
    int record = 1, sealed, permits;
    void record(int record) { var var = record; }
    record Pair(int a, int b) { Pair(int a) { this(a, 0); } }
}
`, defs: []string{"class A 1-5", "property A.record 2-2", "property A.sealed 2-2", "property A.permits 2-2", "method A.record 3-3", "class A.Pair 4-4", "+property A.Pair.a 4-4", "+property A.Pair.b 4-4", "method A.Pair.Pair 4-4"}},
		{name: "a file of a module, and one of a package alone", file: "module-info.java", text: `/** The vault. */
module hollin.vault { requires java.sql; exports hollin.vault; }
`},
	})
}
