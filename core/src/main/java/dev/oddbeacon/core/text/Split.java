package dev.oddbeacon.core.text;

import java.util.ArrayList;
import java.util.List;

/**
 * Takes text apart without regular expressions, in one pass, whatever the text: what callers and repositories send is
 * split by nothing else.
 */
public final class Split {
    private Split() {}

    /** The words between white space; none of them is empty. */
    public static List<String> words(String text) {
        List<String> words = new ArrayList<>();
        int start = -1;
        for (int i = 0; i <= text.length(); i++) {
            boolean isSpace = i == text.length() || Character.isWhitespace(text.charAt(i));
            if (isSpace && start >= 0) {
                words.add(text.substring(start, i));
                start = -1;
            } else if (!isSpace && start < 0) {
                start = i;
            }
        }
        return words;
    }

    /** All that stands between separators, the empty as well: one part more than there are separators. */
    public static List<String> parts(String text, char separator) {
        return parts(text, separator, Integer.MAX_VALUE);
    }

    /** @param most parts; the last has what is left, separators and all */
    public static List<String> parts(String text, char separator, int most) {
        List<String> parts = new ArrayList<>();
        int start = 0;
        for (int at = text.indexOf(separator);
                at >= 0 && parts.size() < most - 1;
                at = text.indexOf(separator, start)) {
            parts.add(text.substring(start, at));
            start = at + 1;
        }
        parts.add(text.substring(start));
        return parts;
    }

    /** The names in a path, without empty ones. */
    public static List<String> names(String path) {
        List<String> names = parts(path, '/');
        names.removeIf(String::isEmpty);
        return names;
    }

    /** A text without any of a character at its beginning and end. */
    public static String strip(String text, char edge) {
        int start = 0;
        while (start < text.length() && text.charAt(start) == edge) {
            start++;
        }
        return stripEnd(text.substring(start), edge);
    }

    /** A text without any of a character at its end. */
    public static String stripEnd(String text, char edge) {
        int end = text.length();
        while (end > 0 && text.charAt(end - 1) == edge) {
            end--;
        }
        return text.substring(0, end);
    }
}
