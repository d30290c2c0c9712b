package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Found;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.source.language.Lexer;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;

/** HTML, XML and Vue: comments, the values of attributes, ids, and the languages of certain elements. */
final class MarkupOutline {
    private static final String TEXT_CLOSES = "</textarea";

    private final byte[] text;
    private final Language language;
    private final Marks marks;
    private final Function<Language, Lexer> lexers;
    private final Found found;
    private int at;
    private int lastClosing = Integer.MAX_VALUE; // behind it, no element of text is closed
    private int identified = Marks.NONE; // the tag whose id was declared last
    private String embedded; // the language of the element that was opened last

    MarkupOutline(byte[] text, Language language, Marks marks, Function<Language, Lexer> lexers, Found found) {
        this.text = text;
        this.language = language;
        this.marks = marks;
        this.lexers = lexers;
        this.found = found;
    }

    void run() {
        while (at < text.length) {
            if (text[at] != '<') {
                at++;
            } else if (starts(at, "<!--")) {
                int end = find(at + 4, "-->");
                found.region(at, end, Region.COMMENT);
                at = end;
            } else if (starts(at, "<![CDATA[")) {
                at = find(at, "]]>");
            } else if (at + 1 < text.length
                    && (Character.isLetter(text[at + 1])
                            || text[at + 1] == '?'
                            || text[at + 1] == '!'
                            || text[at + 1] == '/'
                            || text[at + 1] == '_')) {
                tag();
            } else {
                at++;
            }
        }
    }

    private boolean starts(int from, String sample) {
        if (from + sample.length() > text.length) {
            return false;
        }
        for (int i = 0; i < sample.length(); i++) {
            if (text[from + i] != sample.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    /** Behind the next occurrence of a text, or the end. */
    private int find(int from, String sample) {
        for (int i = from; i < text.length; i++) {
            if (text[i] == sample.charAt(0) && starts(i, sample)) {
                return i + sample.length();
            }
        }
        return text.length;
    }

    private static boolean isPart(byte c) {
        return c < 0
                || c >= 'a' && c <= 'z'
                || c >= 'A' && c <= 'Z'
                || c >= '0' && c <= '9'
                || c == '-'
                || c == '_'
                || c == ':'
                || c == '.'
                || c == '@'
                || c == '#';
    }

    private void tag() {
        int start = at;
        at++;
        boolean closes = at < text.length && text[at] == '/';
        int nameStart = closes || at < text.length && (text[at] == '?' || text[at] == '!') ? at + 1 : at;
        at = nameStart;
        while (at < text.length && isPart(text[at])) {
            at++;
        }
        String name = name(nameStart, at);
        embedded = closes ? null : language.embedded().get(name);
        boolean isEmpty = false;
        while (at < text.length && text[at] != '>') {
            if (text[at] == '<') {
                return; // the tag was never closed
            }
            if (isPart(text[at])) {
                attribute(start);
            } else {
                isEmpty = text[at] == '/';
                at += text[at] == '"' || text[at] == '\'' ? quoted() : 1;
            }
        }
        at++;
        if (embedded != null && !isEmpty) {
            content(name);
        } else if (name.equals("textarea") && !closes && !isEmpty) {
            textOnly();
        }
    }

    /** Goes behind the text of an element that holds no others, if it is closed. */
    private void textOnly() {
        if (language.embedded().isEmpty() || at > lastClosing) {
            return; // no markup for browsers, or known not to be closed
        }
        int end = find(at, TEXT_CLOSES);
        if (end < text.length) {
            at = end - TEXT_CLOSES.length();
        } else {
            lastClosing = at;
        }
    }

    private String name(int from, int to) {
        return new String(text, from, Math.min(40, to - from), StandardCharsets.UTF_8).toLowerCase(Locale.ROOT);
    }

    private int quoted() {
        int end = at + 1;
        while (end < text.length && text[end] != text[at]) {
            end++;
        }
        end = Math.min(text.length, end + 1);
        found.region(at, end, Region.STRING);
        return end - at;
    }

    /** Whether part of a value is an expression in braces, which tells no name. */
    private boolean isPutIn(int from, int to) {
        for (int i = from; i < to; i++) {
            if (text[i] == '{') {
                return true;
            }
        }
        return false;
    }

    private void attribute(int tag) {
        int start = at;
        while (at < text.length && isPart(text[at])) {
            at++;
        }
        String name = name(start, at);
        int equals = at;
        while (equals < text.length && text[equals] <= ' ' && text[equals] >= 0) {
            equals++;
        }
        if (equals >= text.length || text[equals] != '=') {
            return;
        }
        int value = equals + 1;
        while (value < text.length && text[value] <= ' ' && text[value] >= 0) {
            value++;
        }
        at = value;
        int from = value;
        int to;
        if (value < text.length && (text[value] == '"' || text[value] == '\'')) {
            at += quoted();
            from++;
            to = at - 1 > value && text[at - 1] == text[value] ? at - 1 : at;
        } else {
            while (at < text.length && text[at] > ' ' && text[at] != '>') {
                at++;
            }
            to = at;
        }
        boolean isId = name.equals("id") || name.equals("xml:id");
        if (isId && from < to && tag != identified && !isPutIn(from, to)) {
            marks.add(Kind.ID, Marks.NONE, tag, from, to);
            identified = tag;
        } else if (embedded != null && (name.equals("lang") || name.equals("type"))) {
            String given = name(from, to);
            for (Map.Entry<String, String> other : language.embedded().entrySet()) {
                if (other.getKey().equals("lang=" + given)) {
                    embedded = other.getValue();
                    return;
                }
            }
            if (name.equals("type") && (given.contains("template") || given.contains("html"))) {
                embedded = null;
            } else if (name.equals("type") && given.contains("json")) {
                embedded = "json";
            }
        }
    }

    /** The content of an element in another language, up to its end. */
    private void content(String name) {
        String close = "</" + name;
        int end = at;
        while (end < text.length
                && !(text[end] == '<'
                        && end + close.length() <= text.length
                        && text[end + 1] == '/'
                        && name(end + 2, end + close.length()).equals(name))) {
            end++;
        }
        int until = end;
        String inner = embedded;
        embedded = null;
        int from = at;
        Language.named(inner).ifPresent(other -> Outlines.part(other, text, from, until, marks, lexers, found));
        at = until;
    }
}
