// What the Java compiler says of the calls in a tree: for each method and field
// which methods of the tree it calls. Prints one JSON object a file.
//
//   java Calls.java ROOT [MODULE]
import com.sun.source.tree.*;
import com.sun.source.util.*;
import java.io.*;
import java.nio.charset.StandardCharsets;
import java.nio.file.*;
import java.util.*;
import java.util.stream.*;
import javax.lang.model.element.*;
import javax.tools.*;

public class Calls {
    static final Map<String, String> files = new HashMap<>(); // full name of a top type to its file

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
        Trees trees = Trees.instance(task);
        List<CompilationUnitTree> units = new ArrayList<>();
        for (CompilationUnitTree u : task.parse()) units.add(u);
        for (CompilationUnitTree u : units) {
            String pkg = u.getPackageName() == null ? "" : u.getPackageName() + ".";
            for (Tree t : u.getTypeDecls())
                if (t instanceof ClassTree) files.put(pkg + ((ClassTree) t).getSimpleName(), path(root, u));
        }
        try { task.analyze(); } catch (Throwable e) { System.err.println("attributed in part: " + e); }
        PrintStream out = new PrintStream(new FileOutputStream(FileDescriptor.out), false, "UTF-8");
        for (CompilationUnitTree u : units) {
            SortedSet<String> calls = new TreeSet<>();
            new TreePathScanner<Void, Void>() {
                @Override public Void visitMethodInvocation(MethodInvocationTree m, Void v) {
                    Element e = trees.getElement(new TreePath(getCurrentPath(), m.getMethodSelect()));
                    String select = m.getMethodSelect().toString();
                    if (e instanceof ExecutableElement && e.getKind() == ElementKind.METHOD && !select.equals("super") && !select.equals("this"))
                        add(e, calls, around(getCurrentPath()));
                    return super.visitMethodInvocation(m, v);
                }
                @Override public Void visitMemberReference(MemberReferenceTree m, Void v) {
                    Element e = trees.getElement(getCurrentPath());
                    if (e instanceof ExecutableElement && e.getKind() == ElementKind.METHOD) add(e, calls, around(getCurrentPath()));
                    return super.visitMemberReference(m, v);
                }
            }.scan(u, null);
            out.println("{\"path\":" + quote(path(root, u)) + ",\"calls\":[" + calls.stream().map(Calls::quote).collect(Collectors.joining(",")) + "]}");
        }
        out.flush();
    }

    static String path(Path root, CompilationUnitTree u) {
        return root.relativize(Path.of(u.getSourceFile().toUri())).toString();
    }

    static void add(Element e, Set<String> calls, String from) {
        String name = e.getSimpleName().toString();
        Element owner = e.getEnclosingElement();
        StringBuilder q = new StringBuilder();
        Element top = null;
        for (Element o = owner; o != null && !(o instanceof PackageElement); o = o.getEnclosingElement()) {
            if (!(o instanceof TypeElement) || o.getSimpleName().length() == 0) return; // of a class within a method
            q.insert(0, o.getSimpleName() + ".");
            top = o;
        }
        if (top == null) return;
        String file = files.get(((TypeElement) top).getQualifiedName().toString());
        if (file != null) calls.add(from + " -> " + file + " " + q + name);
    }

    static String around(TreePath p) {
        String name = "";
        StringBuilder owner = new StringBuilder();
        String member = null;
        for (; p != null; p = p.getParentPath()) {
            Tree t = p.getLeaf();
            Tree up = p.getParentPath() == null ? null : p.getParentPath().getLeaf();
            if (t instanceof ClassTree) {
                String n = ((ClassTree) t).getSimpleName().toString();
                boolean named = n.length() > 0 && (up instanceof ClassTree || up instanceof CompilationUnitTree);
                if (!named) { member = null; owner.setLength(0); continue; } // what stands in it belongs to what is around
                owner.insert(0, n + ".");
            } else if (up instanceof ClassTree && member == null && owner.length() == 0) {
                if (t instanceof MethodTree) {
                    String n = ((MethodTree) t).getName().toString();
                    member = n.equals("<init>") ? ((ClassTree) up).getSimpleName().toString() : n;
                } else if (t instanceof VariableTree) member = ((VariableTree) t).getName().toString();
            }
        }
        String o = owner.toString();
        if (member != null) return o + member;
        return o.endsWith(".") ? o.substring(0, o.length() - 1) : name;
    }

    static String quote(String s) { return "\"" + s.replace("\\", "\\\\").replace("\"", "\\\"") + "\""; }
}
