"""Writes what CPython says of Python files, as DumpedTruth reads it: python3 python.py FOLDER >DUMP"""
import ast
import io
import pathlib
import sys
import tokenize


def targets(node):
    if isinstance(node, ast.Name):
        yield node
    elif isinstance(node, (ast.Tuple, ast.List)):
        for element in node.elts:
            yield from targets(element)
    elif isinstance(node, ast.Starred):
        yield from targets(node.value)


def declared(tree):
    """Classes, functions, and names assigned in modules, in classes and, once for each class, through self."""

    def visit(node, scope, names, class_names):
        for child in ast.iter_child_nodes(node):
            if isinstance(child, (ast.FunctionDef, ast.AsyncFunctionDef, ast.ClassDef)):
                yield child.name, child.lineno
                is_class = isinstance(child, ast.ClassDef)
                inner = class_names if scope == "class" and not is_class else None
                yield from visit(child, "class" if is_class else ("method" if scope == "class" else "function"), set(), set() if is_class else inner)
                continue
            assigned = []
            if isinstance(child, ast.Assign):
                assigned = child.targets
            elif isinstance(child, ast.AnnAssign):
                assigned = [child.target]
            for target in assigned:
                if scope in ("module", "class"):
                    for name in targets(target):
                        mine = class_names if scope == "class" else names
                        if name.id not in mine:
                            mine.add(name.id)
                            yield name.id, name.lineno
                elif scope == "method" and isinstance(target, ast.Attribute) and isinstance(target.value, ast.Name) and target.value.id == "self":
                    if target.attr not in class_names:
                        class_names.add(target.attr)
                        yield target.attr, target.lineno
            if not isinstance(child, ast.Lambda):
                yield from visit(child, scope, names, class_names)

    return visit(tree, "module", set(), set())


def regions(text):
    lines = text.split("\n")
    starts = [0]
    for line in lines:
        starts.append(starts[-1] + len(line.encode()) + 1)

    def offset(position):
        return starts[position[0] - 1] + len(lines[position[0] - 1][: position[1]].encode())

    for token in tokenize.generate_tokens(io.StringIO(text).readline):
        if token.type == tokenize.COMMENT:
            yield "comment", offset(token.start), offset(token.end)
        elif token.type == tokenize.STRING:
            yield "string", offset(token.start), offset(token.end)


for path in sorted(pathlib.Path(sys.argv[1]).rglob("*.py")):
    try:
        text = path.read_bytes().decode("utf-8").replace("\r\n", "\n")
        if "\r" in text or "\f" in text or text.startswith("\ufeff"):
            continue
        tree = ast.parse(text)
        found = list(regions(text))
    except (SyntaxError, ValueError, tokenize.TokenError, RecursionError):
        continue
    print("F", path, sep="\t")
    for name, line in declared(tree):
        print("D", name, line, sep="\t")
    for region, start, end in found:
        print("R", region, start, end, sep="\t")
