package dev.oddbeacon.core.text;

/** Text that shows what it is: nothing in it moves a cursor, turns the direction of writing, or begins a line of a log. */
public final class Visible {
    private static final int LONGEST_SHOWN = 100;

    private Visible() {}

    /** Whether a text has no control characters, none that turn or hide text, and no half of a surrogate pair. */
    public static boolean isVisible(String text) {
        return text.codePoints().allMatch(Visible::isVisible);
    }

    private static boolean isVisible(int codePoint) {
        return switch (Character.getType(codePoint)) {
            case Character.CONTROL,
                    Character.FORMAT,
                    Character.LINE_SEPARATOR,
                    Character.PARAGRAPH_SEPARATOR,
                    Character.SURROGATE -> false;
            default -> true;
        };
    }

    /** A text with the code of each character in it that is not visible, as {@code \\u001b}. */
    public static String escaped(String text) {
        if (isVisible(text)) {
            return text;
        }
        StringBuilder escaped = new StringBuilder();
        text.codePoints().forEach(c -> {
            if (isVisible(c)) {
                escaped.appendCodePoint(c);
            } else {
                escaped.append(String.format("\\u%04x", c));
            }
        });
        return escaped.toString();
    }

    /** A value that somebody sent, for a message: it may be missing, long, or hold characters that forge lines of a log. */
    public static String shown(String sent) {
        String text = sent == null ? "" : escaped(sent);
        return text.length() > LONGEST_SHOWN ? text.substring(0, LONGEST_SHOWN) + "…" : text;
    }
}
