// What the Java compiler itself says of a tree: definitions from its parser,
// links from its attribution. Prints one JSON object a file.
//
//   java Truth.java ROOT [MODULE]
import com.sun.source.tree.*;
import com.sun.source.util.*;
import java.io.*;
import java.nio.charset.StandardCharsets;
import java.nio.file.*;
import java.util.*;
import java.util.stream.*;
import javax.lang.model.element.*;
import javax.tools.*;

public class Truth {
    static final Map<String, String> files = new HashMap<>(); // top type's full name to its file
    static SourcePositions positions;
    static Trees trees;

    public static void main(String[] args) throws Exception {
        Path root = Path.of(args[0]);
        List<Path> paths;
        try (Stream<Path> s = Files.walk(root)) {
            paths = s.filter(p -> p.toString().endsWith(".java")).sorted().collect(Collectors.toList());
        }
        JavaCompiler compiler = ToolProvider.getSystemJavaCompiler();
        StandardJavaFileManager fm = compiler.getStandardFileManager(d -> {}, null, StandardCharsets.UTF_8);
        List<String> options = new ArrayList<>(List.of("-proc:none", "-Xmaxerrs", "1000000", "-XDshould-stop.ifError=FLOW", "-implicit:none"));
        if (args.length > 1) options.addAll(List.of("--patch-module", args[1] + "=" + root));
        JavacTask task = (JavacTask) compiler.getTask(new StringWriter(), fm, d -> {}, options, null, fm.getJavaFileObjectsFromPaths(paths));
        trees = Trees.instance(task);
        positions = trees.getSourcePositions();
        List<CompilationUnitTree> units = new ArrayList<>();
        for (CompilationUnitTree u : task.parse()) units.add(u);
        for (CompilationUnitTree u : units) {
            String pkg = u.getPackageName() == null ? "" : u.getPackageName() + ".";
            for (Tree t : u.getTypeDecls())
                if (t instanceof ClassTree) files.put(pkg + ((ClassTree) t).getSimpleName(), root.relativize(Path.of(u.getSourceFile().toUri())).toString());
        }
        boolean attributed = true;
        try {
            task.analyze();
        } catch (Throwable e) {
            attributed = false;
            System.err.println("not attributed: " + e);
        }
        PrintStream out = new PrintStream(new BufferedOutputStream(System.out), false, "UTF-8");
        for (CompilationUnitTree u : units) {
            String path = root.relativize(Path.of(u.getSourceFile().toUri())).toString();
            StringBuilder defs = new StringBuilder();
            new Defs(u, defs).scan(u, null);
            TreeSet<String> links = new TreeSet<>();
            if (attributed) {
                try {
                    new Links(path, links).scan(u, null);
                } catch (RuntimeException | Error e) {
                    System.err.println(path + ": " + e);
                }
            }
            out.println("{\"path\":" + quote(path) + ",\"defs\":[" + (defs.length() > 0 ? defs.substring(1) : "") + "],\"links\":[" + links.stream().map(Truth::quote).collect(Collectors.joining(",")) + "]}");
        }
        out.flush();
    }

    static String quote(String s) { return "\"" + s.replace("\\", "\\\\").replace("\"", "\\\"") + "\""; }

    static class Defs extends TreePathScanner<Void, Void> {
        final CompilationUnitTree unit;
        final StringBuilder out;
        int bodies = 0;

        Defs(CompilationUnitTree u, StringBuilder out) { unit = u; this.out = out; }

        void add(Tree t, String kind, String name) {
            long a = positions.getStartPosition(unit, t), b = positions.getEndPosition(unit, t);
            if (a < 0 || b < 0) return;
            LineMap lm = unit.getLineMap();
            out.append(",{\"kind\":\"").append(kind).append("\",\"name\":").append(quote(name)).append(",\"line\":").append(lm.getLineNumber(a)).append(",\"end\":").append(lm.getLineNumber(Math.max(a, b - 1))).append("}");
        }

        @Override public Void visitClass(ClassTree c, Void v) {
            if (c.getSimpleName().length() == 0) return null; // without a name
            String kind = switch (c.getKind()) { case INTERFACE, ANNOTATION_TYPE -> "interface"; case ENUM -> "enum"; default -> "class"; };
            add(c, kind, c.getSimpleName().toString());
            return super.visitClass(c, v);
        }

        @Override public Void visitMethod(MethodTree m, Void v) {
            TreePath at = getCurrentPath().getParentPath();
            while (!(at.getLeaf() instanceof ClassTree)) at = at.getParentPath();
            Tree up = at.getLeaf();
            String name = m.getName().contentEquals("<init>") ? ((ClassTree) up).getSimpleName().toString() : m.getName().toString();
            add(m, "method", name);
            return super.visitMethod(m, v);
        }

        @Override public Void visitVariable(VariableTree f, Void v) {
            Tree up = getCurrentPath().getParentPath().getLeaf();
            if (!(up instanceof ClassTree)) return super.visitVariable(f, v);
            ClassTree c = (ClassTree) up;
            Set<Modifier> mods = f.getModifiers().getFlags();
            boolean iface = c.getKind() == Tree.Kind.INTERFACE || c.getKind() == Tree.Kind.ANNOTATION_TYPE;
            boolean constant = iface || mods.contains(Modifier.STATIC) && mods.contains(Modifier.FINAL);
            add(f, constant ? "constant" : "property", f.getName().toString());
            return c.getKind() == Tree.Kind.ENUM && constant && f.getInitializer() instanceof NewClassTree && ((NewClassTree) f.getInitializer()).getClassBody() != null ? scan(((NewClassTree) f.getInitializer()).getClassBody().getMembers(), v) : super.visitVariable(f, v);
        }
    }

    static class Links extends TreePathScanner<Void, Void> {
        final String from;
        final Set<String> to;

        Links(String from, Set<String> to) { this.from = from; this.to = to; }

        void add(Element e) {
            while (e != null && !(e.getEnclosingElement() instanceof PackageElement)) e = e.getEnclosingElement();
            if (!(e instanceof TypeElement)) return;
            String f = files.get(((TypeElement) e).getQualifiedName().toString());
            if (f != null && !f.equals(from)) to.add(f);
        }

        @Override public Void visitImport(ImportTree i, Void v) {
            // A member, or all members: what is meant is the type around it.
            Tree t = i.getQualifiedIdentifier();
            if (t instanceof MemberSelectTree) {
                MemberSelectTree m = (MemberSelectTree) t;
                Element e = trees.getElement(new TreePath(getCurrentPath(), m));
                if (e instanceof TypeElement) add(e);
                else if (i.isStatic() || m.getIdentifier().contentEquals("*")) {
                    Element around = trees.getElement(new TreePath(new TreePath(getCurrentPath(), m), m.getExpression()));
                    if (around instanceof TypeElement) add(around);
                }
            }
            return null;
        }

        @Override public Void visitIdentifier(IdentifierTree t, Void v) {
            Element e = trees.getElement(getCurrentPath());
            if (e instanceof TypeElement) add(e);
            return super.visitIdentifier(t, v);
        }
    }
}
