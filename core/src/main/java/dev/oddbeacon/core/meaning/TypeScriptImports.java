package dev.oddbeacon.core.meaning;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What a file of TypeScript imports, and what it passes on. */
final class TypeScriptImports {
    private static final String DEFAULT = "default";

    private TypeScriptImports() {}

    /**
     * Something that a module passes on, or calls by another name.
     *
     * @param name by which others import it; empty for all that is there
     * @param from the module that it is of; empty if it is of this one
     * @param original its name there; empty for all of it
     */
    record Export(String name, String from, String original) {
        boolean isOfAll() {
            return name.isEmpty();
        }

        boolean isModule() {
            return !name.isEmpty() && original.isEmpty();
        }
    }

    /** What a file imports, by which names. */
    static List<Import> imports(CodeFile file) {
        Code code = file.code();
        List<Import> imports = new ArrayList<>();
        for (int token = 0; token < code.count(); token++) {
            if (!code.is(token, "import") || code.is(token + 1, '(') || code.is(token + 1, '.')) {
                token = Math.max(token, code.is(token, '{') ? code.partner(token) : token);
                continue;
            }
            int at = code.is(token + 1, "type") && !code.is(token + 2, "from") ? token + 2 : token + 1;
            int end = at;
            while (end < code.count() && !code.isLiteral(end) && !code.is(end, ';')) {
                end = code.is(end, '{') ? Math.max(end, code.partner(end)) + 1 : end + 1;
            }
            if (code.isLiteral(end)) {
                imported(code, at, unquoted(code.text(end)), imports);
            }
            token = Math.max(token, end);
        }
        return imports;
    }

    private static void imported(Code code, int token, String from, List<Import> into) {
        int at = token;
        if (code.isName(at) && !code.is(at, "from")) {
            into.add(new Import(from, DEFAULT, code.text(at), false));
            at = code.is(at + 1, ',') ? at + 2 : at + 1;
        }
        if (code.is(at, '*') && code.is(at + 1, "as")) {
            into.add(new Import(from, "", code.text(at + 2), false));
        } else if (code.is(at, '{')) {
            for (Export one : list(code, at, from)) {
                into.add(new Import(from, one.original(), one.name(), false));
            }
        }
    }

    /** {@code a, b as c, type D} among braces. */
    private static List<Export> list(Code code, int open, String from) {
        List<Export> all = new ArrayList<>();
        int close = code.partner(open);
        for (int at = open + 1; at < close; at++) {
            int first = code.is(at, "type") && !code.is(at + 1, ',') && at + 1 < close && !code.is(at + 1, "as")
                    ? at + 1
                    : at;
            int last = code.is(first + 1, "as") ? first + 2 : first;
            all.add(new Export(code.text(last), from, code.text(first)));
            at = last;
            while (at < close && !code.is(at, ',')) {
                at++;
            }
        }
        return all;
    }

    /** What a module passes on, or calls by another name. */
    static List<Export> exports(CodeFile file) {
        Code code = file.code();
        List<Export> exports = new ArrayList<>();
        for (int token = 0; token < code.count(); token++) {
            if (!code.is(token, "export")) {
                token = Math.max(token, code.is(token, '{') ? code.partner(token) : token);
                continue;
            }
            int at = code.is(token + 1, "type") && (code.is(token + 2, '{') || code.is(token + 2, '*'))
                    ? token + 2
                    : token + 1;
            if (code.is(at, '{') && code.partner(at) > at) {
                int close = code.partner(at);
                String from =
                        code.is(close + 1, "from") && code.isLiteral(close + 2) ? unquoted(code.text(close + 2)) : "";
                exports.addAll(list(code, at, from));
                token = close;
            } else if (code.is(at, '*')) {
                boolean isNamed = code.is(at + 1, "as");
                int from = isNamed ? at + 4 : at + 2;
                if (code.isLiteral(from)) {
                    exports.add(new Export(isNamed ? code.text(at + 2) : "", unquoted(code.text(from)), ""));
                }
            } else if (code.is(at, DEFAULT)) {
                int name = at + 1;
                while (code.is(name, "async")
                        || code.is(name, "function")
                        || code.is(name, "class")
                        || code.is(name, "abstract")
                        || code.is(name, "interface")
                        || code.is(name, '*')) {
                    name++;
                }
                exports.add(new Export(DEFAULT, "", code.text(name)));
            }
        }
        return exports;
    }

    private static String unquoted(String text) {
        return text.length() < 2 ? "" : text.substring(1, text.length() - 1);
    }

    /** What is imported by the name at a token in an import. */
    static Optional<Import> importedAt(CodeFile file, int token) {
        Code code = file.code();
        int open = code.around(token);
        boolean isSameAgain = code.is(token - 1, "as") && code.text(token).equals(code.text(token - 2));
        boolean begins =
                code.is(token - 1, '{') || code.is(token - 1, ',') || code.is(token - 1, "type") || isSameAgain;
        if (!code.is(open, '{') || !begins) {
            return Optional.empty();
        }
        int before = open - 1;
        while (before > open - 4 && !code.is(before, "import") && !code.is(before, "export")) {
            before--;
        }
        int from = code.partner(open) + 1;
        boolean isListed = code.is(before, "import") || code.is(before, "export");
        return isListed && code.is(from, "from") && code.isLiteral(from + 1)
                ? Optional.of(new Import(unquoted(code.text(from + 1)), code.text(token), "", false))
                : Optional.empty();
    }
}
