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
