package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;

/** Files of settings, one a line: properties, TOML, INI; Make and Dockerfile, which are much like it. */
final class LinesOutline implements Outline {
    private final byte[] text;
    private final Language language;
    private final Marks marks;
    private final Found found;
    private int region;
    private int section = Marks.NONE;
    private int rule = Marks.NONE;

    LinesOutline(byte[] text, Language language, Marks marks, Found found) {
        this.text = text;
        this.language = language;
        this.marks = marks;
        this.found = found;
    }

    @Override
    public void finish(int end) {
        boolean goesOn = false;
        int line = 0;
        while (line < end) {
            int next = line;
            while (next < end && text[next] != '\n') {
                next++;
            }
            int first = line;
            while (first < next && (text[first] == ' ' || text[first] == '\t')) {
                first++;
            }
            if (!goesOn && first < next && isCode(first)) {
                if (language.has("targets")) {
                    target(line, first, next);
                } else if (language.has("stages")) {
                    stage(first, next);
                } else {
                    setting(first, next);
                }
            }
            int last = next;
            while (last > line && text[last - 1] == '\r') {
                last--;
            }
            int slashes = 0;
            while (last - slashes > line && text[last - slashes - 1] == '\\') {
                slashes++;
            }
            goesOn = language.has("continued") && slashes % 2 == 1; // two stand for one
            line = next + 1;
        }
        close(end);
    }

    private void close(int end) {
        if (section != Marks.NONE) {
            marks.end(section, end);
        }
        if (rule != Marks.NONE) {
            marks.end(rule, end);
        }
    }

    private boolean isCode(int at) {
        while (region < found.regions() && found.regionEnd(region) <= at) {
            region++;
        }
        return region == found.regions() || found.regionStart(region) > at || text[at] == '"' || text[at] == '\'';
    }

    private void setting(int first, int next) {
        if (text[first] == '[') {
            section(first, next);
            return;
        }
        int from = language.has("exports") && starts(first, next, "export ") ? first + "export ".length() : first;
        int i = from;
        boolean quoted = false;
        while (i < next) {
            byte c = text[i];
            if (c == '\\' && language.has("escaped-keys")) {
                i += 2;
                continue;
            }
            if (c == '"' || c == '\'') {
                quoted = !quoted;
            } else if (!quoted && (c == '=' || language.has("colons") && (c == ':' || c == ' ' || c == '\t'))) {
                break;
            }
            i++;
        }
        if (i >= next && !language.has("colons")) {
            return;
        }
        int to = Math.min(i, next);
        while (to > first && (text[to - 1] == ' ' || text[to - 1] == '\t' || text[to - 1] == '\r')) {
            to--;
        }
        boolean isQuoted = to - from > 2 && (text[from] == '"' || text[from] == '\'') && text[to - 1] == text[from];
        from += isQuoted ? 1 : 0;
        to -= isQuoted ? 1 : 0;
        if (from < to && text[from] != ']' && text[from] != '}') {
            int mark = marks.add(Kind.KEY, section, first, from, to);
            marks.end(mark, next);
        }
    }

    private void section(int first, int next) {
        int from = first;
        while (from < next && text[from] == '[') {
            from++;
        }
        int to = from;
        while (to < next && text[to] != ']') {
            to++;
        }
        if (to == next || to == from || text[from] == '"' && text[to - 1] == ',' || !language.has("sections")) {
            return;
        }
        while (from < to && text[from] == ' ') {
            from++;
        }
        int until = to;
        while (until > from && text[until - 1] == ' ') {
            until--;
        }
        if (section != Marks.NONE) {
            marks.end(section, first);
        }
        if (from < until) {
            section = marks.add(Kind.TABLE, Marks.NONE, first, from, until);
        }
    }

    /** {@code target: prerequisites}, {@code NAME := value}, {@code define NAME}. */
    private void target(int line, int first, int next) {
        if (text[line] == '\t') {
            return;
        }
        int from = first;
        for (String word : new String[] {"export ", "override ", "define ", "private "}) {
            if (starts(from, next, word)) {
                from += word.length();
            }
        }
        boolean defines = starts(first, next, "define ");
        int i = from;
        int depth = 0;
        while (i < next) {
            byte c = text[i];
            if (c == '$' && i + 1 < next && (text[i + 1] == '(' || text[i + 1] == '{')) {
                depth++;
                i++;
            } else if (depth > 0 && (c == ')' || c == '}')) {
                depth--;
            } else if (depth == 0 && (c == '=' || c == ':' || c == '#')) {
                break;
            }
            i++;
        }
        boolean isAssignment = i < next
                && (text[i] == '='
                        || text[i] == ':'
                                && i + 1 < next
                                && (text[i + 1] == '=' || text[i + 1] == ':' && i + 2 < next && text[i + 2] == '='));
        if (isAssignment || defines) {
            int to = defines ? Math.min(i, next) : i;
            while (to > from
                    && (text[to - 1] == ' '
                            || text[to - 1] == '\t'
                            || text[to - 1] == '?'
                            || text[to - 1] == '+'
                            || text[to - 1] == '!')) {
                to--;
            }
            if (isPlain(from, to) && !marks.knows(Marks.NONE, from, to)) {
                marks.end(marks.add(Kind.VARIABLE, Marks.NONE, first, from, to), next);
            }
        } else if (i < next && text[i] == ':') {
            if (rule != Marks.NONE) {
                marks.end(rule, line);
                rule = Marks.NONE;
            }
            int at = from;
            while (at < i) {
                while (at < i && (text[at] == ' ' || text[at] == '\t' || text[at] == '&')) {
                    at++;
                }
                int to = at;
                while (to < i && text[to] != ' ' && text[to] != '\t') {
                    to++;
                }
                boolean isSpecial =
                        at < to && text[at] == '.' && to - at > 1 && text[at + 1] >= 'A' && text[at + 1] <= 'Z';
                if (at < to && !isSpecial && !contains(at, to, '$') && !contains(at, to, '%')) {
                    rule = marks.add(Kind.TARGET, Marks.NONE, line, at, to);
                    marks.headEnd(rule, next);
                    marks.end(rule, next);
                }
                at = to;
            }
        }
    }

    private boolean starts(int from, int next, String word) {
        if (from + word.length() > next) {
            return false;
        }
        for (int i = 0; i < word.length(); i++) {
            if (text[from + i] != word.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    private boolean contains(int from, int to, char c) {
        for (int i = from; i < to; i++) {
            if (text[i] == c) {
                return true;
            }
        }
        return false;
    }

    private boolean isPlain(int from, int to) {
        return from < to && !contains(from, to, ' ') && !contains(from, to, '$');
    }

    /** {@code FROM image AS name}, {@code ARG name}, {@code ENV name=value}. */
    private void stage(int first, int next) {
        int word = first;
        while (word < next && text[word] > ' ') {
            word++;
        }
        String instruction = new String(
                        text, first, Math.min(12, word - first), java.nio.charset.StandardCharsets.ISO_8859_1)
                .toUpperCase(java.util.Locale.ROOT);
        int from = word;
        while (from < next && text[from] == ' ') {
            from++;
        }
        if (instruction.equals("FROM")) {
            if (rule != Marks.NONE) {
                marks.end(rule, first);
                rule = Marks.NONE;
            }
            String rest = new String(text, from, next - from, java.nio.charset.StandardCharsets.ISO_8859_1);
            int as = rest.toUpperCase(java.util.Locale.ROOT).lastIndexOf(" AS ");
            if (as >= 0) {
                int name = from + as + 4;
                while (name < next && text[name] == ' ') {
                    name++;
                }
                int to = name;
                while (to < next && text[to] > ' ') {
                    to++;
                }
                if (to > name) {
                    rule = marks.add(Kind.STAGE, Marks.NONE, first, name, to);
                    marks.headEnd(rule, next);
                }
            }
        } else if (instruction.equals("ARG") || instruction.equals("ENV")) {
            int to = from;
            while (to < next && text[to] > ' ' && text[to] != '=') {
                to++;
            }
            if (to > from) {
                marks.end(marks.add(Kind.VARIABLE, rule, first, from, to), next);
            }
        }
    }
}
