package dev.oddbeacon.client.output;

import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.FileDescriptor;
import java.io.FileOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.Optional;

/** Standard output and error, with colours where they are wanted and without anything that a terminal would obey. */
public final class Terminal {
    /** When to colour. */
    public enum Color {
        AUTO,
        ALWAYS,
        NEVER
    }

    /** The roles that text can have, each with its colour. Numbers are those of ECMA-48, "Select Graphic Rendition". */
    public enum Style {
        PATH("1"),
        MATCH("1;38;5;172"),
        QUIET("2"),
        PROBLEM("31");

        private final String code;

        Style(String code) {
            this.code = code;
        }
    }

    private static final int COMMIT_DIGITS = 10;
    private static final PrintStream OUT =
            new PrintStream(new FileOutputStream(FileDescriptor.out), false, StandardCharsets.UTF_8);
    private static final PrintStream ERR =
            new PrintStream(new FileOutputStream(FileDescriptor.err), true, StandardCharsets.UTF_8);

    private final boolean colored;

    public Terminal(Color color) {
        this.colored =
                color == Color.ALWAYS || color == Color.AUTO && isInteractive() && System.getenv("NO_COLOR") == null;
    }

    /** The version of this program; empty before it is packaged. */
    public static Optional<String> version() {
        return Optional.ofNullable(Terminal.class.getPackage().getImplementationVersion());
    }

    /** Whether a person reads standard output: the launcher knows. */
    public static boolean isInteractive() {
        return Boolean.getBoolean("oddbeacon.terminal");
    }

    public void line(String text) {
        OUT.print(text);
        OUT.print('\n');
        if (OUT.checkError()) {
            throw new ServiceProblem("", ExitStatus.FOUND); // who read the output has left
        }
    }

    /** A value as JSON, on a line of its own. */
    public void json(Object value) {
        line(Service.JSON.writeValueAsString(value));
    }

    /** A name, as a line, or as it is with a zero byte behind it. */
    public void item(String name, boolean zeroByte) {
        if (zeroByte) {
            OUT.print(name + '\0');
        } else {
            line(styled(Style.PATH, clean(name)));
        }
    }

    /** Something for the person, which is no result. */
    public static void note(String message) {
        flush();
        message.lines().forEach(line -> ERR.println(clean(line)));
    }

    public static void bytes(byte[] bytes) {
        OUT.write(bytes, 0, bytes.length);
    }

    public static void flush() {
        OUT.flush();
    }

    public static void complain(String message) {
        if (!message.isEmpty()) {
            flush();
            String[] lines = message.split("\n");
            for (int i = 0; i < lines.length; i++) {
                ERR.println((i == 0 ? "oddbeacon: " : "") + clean(lines[i]));
            }
        }
    }

    /** Overwrites the line of progress, where somebody looks. */
    public static void progress(String message) {
        if (isInteractive()) {
            ERR.print("\r\033[K" + clean(message));
            ERR.flush();
        }
    }

    public String styled(Style style, String text) {
        return colored ? "\033[" + style.code + "m" + text + "\033[0m" : text;
    }

    /** The first digits of a commit's id, as many as people need to tell it from others. */
    public static String shortened(String commit) {
        return commit.substring(0, Math.min(COMMIT_DIGITS, commit.length()));
    }

    /**
     * Text of a repository, made harmless: control characters become their pictures ({@code U+2400} and on), and
     * characters that would turn the direction of writing become replacement characters. Tabs stay.
     */
    public static String clean(String text) {
        StringBuilder clean = null;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            char shown = shown(c);
            if (shown != c && clean == null) {
                clean = new StringBuilder(text);
            }
            if (clean != null) {
                clean.setCharAt(i, shown);
            }
        }
        return clean == null ? text : clean.toString();
    }

    private static char shown(char c) {
        if (c < 0x20 && c != '\t') {
            return (char) (0x2400 + c);
        }
        if (c == 0x7F) {
            return '\u2421';
        }
        boolean turns =
                c >= 0x202A && c <= 0x202E || c >= 0x2066 && c <= 0x2069 || c == 0x200E || c == 0x200F || c == 0x061C;
        return turns || c >= 0x80 && c < 0xA0 || c == 0x2028 || c == 0x2029 ? '\uFFFD' : c;
    }
}
