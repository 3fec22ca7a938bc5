"""What Python's own parser and import rules say of a tree: definitions from ast,
links by looking modules up as the import system does over the tree's roots.
Prints one JSON object a file.

    python3 truth.py ROOT [SOURCE_ROOT ...]   (source roots relative to ROOT; "." when none is given)
"""
import ast
import json
import os
import sys
import warnings

warnings.simplefilter("ignore")
sys.setrecursionlimit(20000)
root = sys.argv[1].rstrip("/")
roots = sys.argv[2:] or ["."]
files = []
for d, dirs, names in os.walk(root):
    dirs.sort()
    files += [os.path.relpath(os.path.join(d, n), root) for n in sorted(names) if n.endswith(".py") and not os.path.islink(os.path.join(d, n))]
have = set(files)
folders = {os.path.dirname(f) for f in files}


def module(parts, base):
    """The file of a dotted module below a root, its package's __init__ for a package, None when there is none."""
    p = os.path.normpath(os.path.join(base, *parts)) if parts else os.path.normpath(base)
    p = "" if p == "." else p
    init = os.path.join(p, "__init__.py") if p else "__init__.py"
    if init in have:
        return init
    if p and p + ".py" in have:
        return p + ".py"
    return None


def is_namespace(parts, base):
    p = os.path.normpath(os.path.join(base, *parts))
    return any(f == p or f.startswith(p + "/") for f in folders)


def targets(node, path):
    here = os.path.dirname(path)
    if isinstance(node, ast.Import):
        for a in node.names:
            parts = a.name.split(".")
            for r in roots:
                m = module(parts, r)
                if m:
                    yield m
                    break
    else:
        parts = node.module.split(".") if node.module else []
        if node.level:
            base = here
            for _ in range(node.level - 1):
                base = os.path.dirname(base)
            bases = [base]
        else:
            bases = roots
        for b in bases:
            m = module(parts, b)
            if m is None and not (parts and is_namespace(parts, b)) and not (not parts):
                continue
            package = m is None or os.path.basename(m) == "__init__.py"
            found = False
            rest = False
            for a in node.names:
                sub = module(parts + [a.name], b) if package and a.name != "*" else None
                # A name the package itself defines wins over a module beside it.
                if sub and m and a.name in defined(m):
                    sub = None
                if sub:
                    found = True
                    yield sub
                else:
                    rest = True
            if m and rest:
                found = True
                yield m
            if found or m:
                break


names_of = {}


def defined(path):
    if path not in names_of:
        out = set()
        try:
            tree = ast.parse(open(os.path.join(root, path), "rb").read())
            for n in tree.body:
                if isinstance(n, (ast.FunctionDef, ast.ClassDef, ast.AsyncFunctionDef)):
                    out.add(n.name)
                elif isinstance(n, ast.Assign):
                    out |= {t.id for t in n.targets if isinstance(t, ast.Name)}
        except (SyntaxError, ValueError):
            pass
        names_of[path] = out
    return names_of[path]


class Walk(ast.NodeVisitor):
    def __init__(self):
        self.defs = []
        self.imports = []
        self.around = []

    def add(self, node, kind, name):
        self.defs.append({"kind": kind, "name": name, "line": node.lineno, "end": node.end_lineno})

    def visit_ClassDef(self, n):
        self.add(n, "class", n.name)
        self.around.append("class")
        self.generic_visit(n)
        self.around.pop()

    def visit_FunctionDef(self, n):
        self.add(n, "method" if self.around and self.around[-1] == "class" else "function", n.name)
        self.around.append("function")
        self.generic_visit(n)
        self.around.pop()

    visit_AsyncFunctionDef = visit_FunctionDef

    def visit_Import(self, n):
        self.imports.append(n)

    visit_ImportFrom = visit_Import


for path in files:
    try:
        tree = ast.parse(open(os.path.join(root, path), "rb").read())
    except (SyntaxError, ValueError, RecursionError):
        continue
    w = Walk()
    w.visit(tree)
    links = sorted({t for n in w.imports for t in targets(n, path) if t != path})
    print(json.dumps({"path": path, "defs": w.defs, "links": links}))
