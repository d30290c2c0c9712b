"""Writes what the C compiler says of C files, as DumpedTruth reads it: python3 c.py OUT FLAG… FILE.c… >DUMP

The compiler sees one variant of each file, so lines that it does not see are emptied in copies, which are what is
compared; what a file defines is read from the debugging information of its object: functions, variables, types.
"""
import pathlib
import re
import subprocess
import sys

out = pathlib.Path(sys.argv[1])
flags = [argument for argument in sys.argv[2:] if argument.startswith("-")]
sources = [pathlib.Path(argument) for argument in sys.argv[2:] if argument.endswith(".c")]
out.mkdir(parents=True, exist_ok=True)
TAGS = {"DW_TAG_subprogram", "DW_TAG_variable", "DW_TAG_structure_type", "DW_TAG_union_type", "DW_TAG_enumeration_type", "DW_TAG_typedef"}


def run(*command):
    return subprocess.run(command, capture_output=True, text=True, errors="replace", check=False)


def seen_lines(source):
    """The lines of the file itself that the compiler reads, by number, and the macros that it defines."""
    lines, macros, current, number = {}, [], "", 0
    for line in run("gcc", "-E", "-fdirectives-only", *flags, str(source)).stdout.split("\n"):
        marker = re.match(r'# (\d+) "([^"]*)"', line)
        if marker:
            number, current = int(marker.group(1)), marker.group(2)
            continue
        if current == str(source):
            lines[number] = line
            define = re.match(r"#define\s+(\w+)", line)
            if define:
                macros.append((define.group(1), number))
        number += 1
    return lines, macros


def debugged(source, object_file):
    """What the object defines, with the line of the file."""
    compiled = run("gcc", "-g", "-gdwarf-4", "-O0", "-fno-eliminate-unused-debug-types", "-fno-eliminate-unused-debug-symbols", "-fkeep-inline-functions", "-fkeep-static-functions",
                   "-fkeep-static-consts", "-c", *flags, str(source), "-o", str(object_file))
    if compiled.returncode:
        print(source, compiled.stderr[:200], file=sys.stderr)
        return None
    files = [line.split() for line in run("readelf", "--debug-dump=rawline", str(object_file)).stdout.split("\n")]
    own = {parts[0] for parts in files if len(parts) == 5 and parts[0].isdigit() and parts[4] == source.name}
    found, entry, names = set(), {}, {}

    def finish():
        if "name" in entry:
            names[entry["at"]] = entry["name"]
        elif "of" in entry and entry["of"] in names:
            entry["name"] = names[entry["of"]]
        if entry.get("tag") in TAGS and entry.get("depth") == 1 and entry.get("file") in own and "name" in entry and "line" in entry:
            is_announced = entry["tag"] in ("DW_TAG_subprogram", "DW_TAG_variable") and entry.get("declaration")
            if not is_announced and not (entry["tag"] == "DW_TAG_structure_type" and entry.get("declaration")):
                found.add((entry["name"], int(entry["line"], 0)))

    for line in run("readelf", "--debug-dump=info", str(object_file)).stdout.split("\n"):
        start = re.match(r"\s*<(\d+)><([0-9a-f]+)>: Abbrev Number: \d+ \((\w+)\)", line)
        if start:
            finish()
            entry = {"depth": int(start.group(1)), "at": start.group(2), "tag": start.group(3)}
            continue
        attribute = re.match(r"\s*<[0-9a-f]+>\s+(DW_AT_\w+)\s*:\s*(.*?)\s*$", line)
        if attribute:
            name, value = attribute.groups()
            value = value.split("): ")[-1].strip().removeprefix("<0x").removesuffix(">")
            key = {"DW_AT_name": "name", "DW_AT_decl_file": "file", "DW_AT_decl_line": "line", "DW_AT_declaration": "declaration", "DW_AT_specification": "of"}.get(name)
            if key:
                entry[key] = value
    finish()
    return found


for source in sources:
    found = debugged(source, out / (source.stem + ".o"))
    if found is None:
        continue
    lines, macros = seen_lines(source)
    copy = out / f"{sources.index(source)}-{source.name}"
    last = max(lines, default=0)
    copy.write_text("\n".join("" if lines.get(i, "").startswith("#undef") else lines.get(i, "") for i in range(1, last + 1)) + "\n")
    print("F", copy, sep="\t")
    # what a macro puts together out of parts of names stands nowhere in the text
    found = {(name, line) for name, line in found if re.search(rf"\b{re.escape(name)}\b", lines.get(line, ""))}
    for name, line in sorted(found | set(macros), key=lambda pair: pair[1]):
        print("D", name, line, sep="\t")
