package dev.oddbeacon.core.source.outline;

/** Looks at a text beyond the token at hand. Offsets are bytes; each method looks only as far as it says. */
final class TextAhead {
    private final byte[] text;

    TextAhead(byte[] text) {
        this.text = text;
    }

    /** Whether a range holds a word, and nothing else. */
    boolean is(int start, int end, String word) {
        return end - start == word.length() && startsWith(start, word);
    }

    boolean startsWith(int start, String sample) {
        if (start + sample.length() > text.length) {
            return false;
        }
        for (int i = 0; i < sample.length(); i++) {
            if (text[start + i] != sample.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    /** Behind spaces and tabs. */
    int behindSpaces(int from) {
        int at = from;
        while (at < text.length && (text[at] == ' ' || text[at] == '\t')) {
            at++;
        }
        return at;
    }

    /** Behind blanks, ends of lines among them. */
    int behindBlanks(int from) {
        int at = from;
        while (at < text.length && text[at] >= 0 && text[at] <= ' ') {
            at++;
        }
        return at;
    }

    /** Behind blanks and comments that begin with two slashes. */
    int behindBlanksAndComments(int from) {
        int at = behindBlanks(from);
        while (startsWith(at, "//")) {
            while (at < text.length && text[at] != '\n') {
                at++;
            }
            at = behindBlanks(at);
        }
        return at;
    }

    /** Behind the letters, digits and the like of a name. */
    int behindName(int from) {
        int at = from;
        while (at < text.length && BraceOutline.isNameByte(text[at])) {
            at++;
        }
        return at;
    }

    /** Behind {@code a.b.c}, of which the first name begins at an offset. */
    int behindChain(int from) {
        int at = behindName(from);
        while (at + 1 < text.length && text[at] == '.' && BraceOutline.isNameByte(text[at + 1])) {
            at = behindName(at + 1);
        }
        return at;
    }

    /** Behind the bracket that belongs to the one at an offset, or as far as may be looked. */
    int behindBracket(int from, int farthest) {
        int depth = 0;
        int at = from;
        while (at < text.length && at < from + farthest) {
            depth += text[at] == '(' || text[at] == '[' ? 1 : text[at] == ')' || text[at] == ']' ? -1 : 0;
            at++;
            if (depth == 0) {
                break;
            }
        }
        return at;
    }
}
