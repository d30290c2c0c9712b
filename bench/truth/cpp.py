"""Writes what clang says of C++ headers and sources, as DumpedTruth reads it: python3 cpp.py FLAG… FOLDER… >DUMP

Needs the Python bindings of libclang. A file that clang has errors in is left out, as is one whose headers are not there. Of
lines that the preprocessor skips, nothing is told; nor of names that a macro puts together.
"""
import ctypes
import pathlib
import re
import sys

from clang import cindex
from clang.cindex import CursorKind, TokenKind

SUFFIXES = {".h", ".hpp", ".hxx", ".hh", ".cpp", ".cc", ".cxx", ".ipp"}
UNKNOWN = "-"
TYPES = {
    CursorKind.CLASS_DECL,
    CursorKind.STRUCT_DECL,
    CursorKind.UNION_DECL,
    CursorKind.ENUM_DECL,
    CursorKind.CLASS_TEMPLATE,
    CursorKind.CLASS_TEMPLATE_PARTIAL_SPECIALIZATION,
}
FUNCTIONS = {
    CursorKind.FUNCTION_DECL,
    CursorKind.FUNCTION_TEMPLATE,
    CursorKind.CXX_METHOD,
    CursorKind.CONSTRUCTOR,
    CursorKind.DESTRUCTOR,
    CursorKind.CONVERSION_FUNCTION,
}
OTHERS = {
    CursorKind.ENUM_CONSTANT_DECL,
    CursorKind.FIELD_DECL,
    CursorKind.TYPEDEF_DECL,
    CursorKind.TYPE_ALIAS_DECL,
    CursorKind.TYPE_ALIAS_TEMPLATE_DECL,
}


class SourceRanges(ctypes.Structure):
    _fields_ = [("count", ctypes.c_uint), ("ranges", ctypes.POINTER(cindex.SourceRange))]


cindex.conf.lib.clang_getSkippedRanges.restype = ctypes.POINTER(SourceRanges)
cindex.conf.lib.clang_getSkippedRanges.argtypes = [cindex.TranslationUnit, cindex.File]


class Reader:
    def __init__(self, path, text, unit):
        self.path, self.text, self.unit, self.lines = path, text, unit, []

    def tell(self, cursor, name, around, whole):
        """A declaration whose name stands in the file as it is."""
        at = cursor.location.offset
        if not self.is_written(cursor, name):
            return
        end = cursor.extent.end.line if whole else UNKNOWN
        container = self.path_of(around)
        line = self.text.count(b"\n", 0, at) + 1
        self.lines.append(f"D\t{name}\t{line}\t{end}\t{container}")

    def is_written(self, cursor, name):
        return self.text.startswith(name.encode(), cursor.location.offset)

    def qualified(self, cursor, around):
        """What a member belongs to that is defined outside of it, as it is written."""
        before = self.text[max(0, cursor.location.offset - 300) : cursor.location.offset]
        written = re.search(rb"\b((?!template)(?:\w+(?:\s*<[^;{}()]*>)?\s*::\s*)+)$", before)
        return None if written is None else around + [written.group(1).decode().rstrip()[:-2].rstrip()]

    def visit(self, cursor, around, in_code):
        for child in cursor.get_children():
            location = child.location
            if location.file is None or location.file.name != self.path:
                continue
            self.declaration(child, around, in_code)

    def declaration(self, cursor, around, in_code):
        kind, name = cursor.kind, cursor.spelling
        inside, code = around, in_code
        if kind == CursorKind.NAMESPACE:
            if name and not cursor.is_anonymous() and self.is_written(cursor, name):
                self.tell(cursor, name, around, True)
                inside = None if around is None else around + [name]
        elif kind in TYPES:
            instantiated = re.search(rb"template\s+(class|struct)\s+([\w:]+::)?$", self.text[: cursor.location.offset])
            if cursor.is_definition() and name and not cursor.is_anonymous() and "(" not in name and not instantiated:
                self.tell(cursor, name, around, True)
                inside = None if around is None else around + [name]
            code = False
        elif kind in FUNCTIONS:
            written = name if name.startswith("operator") else re.sub(r"<.*", "", name)
            if kind == CursorKind.DESTRUCTOR:
                written = "~" + re.sub(r"<.*", "", name.lstrip("~"))
            outside = cursor.semantic_parent != cursor.lexical_parent and cursor.semantic_parent.kind in TYPES
            of = self.qualified(cursor, around) if outside else around
            self.function(cursor, written, of)
            inside, code = None if of is None else of + [written.lstrip("~")], True
        elif kind in OTHERS:
            if not (in_code and kind in (CursorKind.TYPEDEF_DECL, CursorKind.TYPE_ALIAS_DECL)):
                self.tell(cursor, name, around, False)
        elif kind == CursorKind.VAR_DECL and not in_code:
            outside = cursor.semantic_parent != cursor.lexical_parent and cursor.semantic_parent.kind in TYPES
            self.tell(cursor, name, self.qualified(cursor, around) if outside else around, False)
        elif kind == CursorKind.MACRO_DEFINITION:
            self.tell(cursor, name, [], False)
        self.visit(cursor, inside, code)

    def function(self, cursor, name, around):
        if name.startswith("~"):  # the name is told without its sign
            at = self.text.find(name[1:].encode(), cursor.location.offset)
            if self.text.startswith(b"~", cursor.location.offset) and at >= 0:
                line = self.text.count(b"\n", 0, at) + 1
                self.lines.append(f"D\t{name[1:]}\t{line}\t{self.end(cursor)}\t{self.path_of(around)}")
            return
        if re.match(r"operator\b", name):  # as it is written
            written = re.match(rb"operator\s*(\"\"\s*\w+|\(\s*\)|\[\s*\]|[^\s\w(]+|[^(]+)", self.text[cursor.location.offset :])
            if not written:
                return
            line = self.text.count(b"\n", 0, cursor.location.offset) + 1
            told = " ".join(written.group(0).decode().split())
            self.lines.append(f"D\t{told}\t{line}\t{self.end(cursor)}\t{self.path_of(around)}")
            return
        before = len(self.lines)
        self.tell(cursor, name, around, True)
        if len(self.lines) > before and not cursor.is_definition():
            parts = self.lines[-1].split("\t")
            self.lines[-1] = "\t".join([*parts[:3], UNKNOWN, parts[4]])

    @staticmethod
    def path_of(around):
        return UNKNOWN if around is None else "::".join(around)

    @staticmethod
    def end(cursor):
        return cursor.extent.end.line if cursor.is_definition() else UNKNOWN

    def skipped(self):
        file = self.unit.get_file(self.path)
        ranges = cindex.conf.lib.clang_getSkippedRanges(self.unit, file).contents
        for i in range(ranges.count):
            some = ranges.ranges[i]
            yield f"X\t{some.start.line}\t{some.end.line}"

    def regions(self):
        for token in self.unit.get_tokens(extent=self.unit.cursor.extent):
            start, end = token.extent.start.offset, token.extent.end.offset
            if token.kind == TokenKind.COMMENT:
                yield f"R\tcomment\t{start}\t{end}"
            elif token.kind == TokenKind.LITERAL and self.text[end - 1 : end] in (b'"', b"'"):
                yield f"R\tstring\t{start}\t{end}"


def read(path, flags):
    text = path.read_bytes()
    try:
        if b"\r" in text or b"\t\f" in text or text.decode().startswith("\ufeff") or len(text) > 300_000:
            return
    except UnicodeDecodeError:
        return
    options = cindex.TranslationUnit.PARSE_DETAILED_PROCESSING_RECORD
    unit = cindex.Index.create().parse(str(path), ["-x", "c++", "-std=c++17", "-w", *flags], options=options)
    if any(diagnostic.severity >= cindex.Diagnostic.Error for diagnostic in unit.diagnostics):
        return
    reader = Reader(str(path), text, unit)
    reader.visit(unit.cursor, [], False)
    print("\n".join([f"F\t{path}", *dict.fromkeys(reader.lines), *reader.skipped(), *reader.regions()]), flush=True)


def main():
    flags = [argument for argument in sys.argv[1:] if argument.startswith("-")]
    for folder in [argument for argument in sys.argv[1:] if not argument.startswith("-")]:
        paths = [path for path in sorted(pathlib.Path(folder).rglob("*")) if path.suffix in SUFFIXES and path.is_file()]
        for path in paths:
            read(path, flags)


main()
