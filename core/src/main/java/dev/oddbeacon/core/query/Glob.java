package dev.oddbeacon.core.query;

import com.google.re2j.Pattern;

/**
 * A pattern for names and paths: {@code *} and {@code ?} stand for characters of one name, {@code **} for any
 * number of folders, {@code [a-z]} for one of a range; everything else stands for itself.
 */
public final class Glob {
    private final String glob;
    private final Pattern pattern;

    private Glob(String glob, String regex) {
        this.glob = glob;
        this.pattern = Pattern.compile(regex, Pattern.DOTALL);
    }

    /** For a name as a whole. */
    public static Glob ofName(String glob) {
        return new Glob(glob, regex(glob));
    }

    /**
     * For a folder, with all below it, or a file. With a slash it starts at the root of the repository; without
     * one the name may stand at any depth.
     */
    public static Glob ofPath(String glob) {
        String trimmed = glob.endsWith("/") ? glob.substring(0, glob.length() - 1) : glob;
        boolean anchored = trimmed.contains("/");
        String inner = trimmed.startsWith("/") ? trimmed.substring(1) : trimmed;
        if (inner.isEmpty()) {
            return new Glob(glob, ".*");
        }
        return new Glob(glob, (anchored ? "" : "(?:.*/)?") + regex(inner) + "(?:/.*)?");
    }

    public boolean matches(String text) {
        return pattern.matches(text);
    }

    /** As it was written. */
    @Override
    public String toString() {
        return glob;
    }

    /** Whether a text has characters that a glob gives a meaning to. */
    public static boolean isGlob(String text) {
        return text.contains("*") || text.contains("?") || text.contains("[");
    }

    private static String regex(String glob) {
        StringBuilder regex = new StringBuilder();
        for (int i = 0; i < glob.length(); i++) {
            char c = glob.charAt(i);
            if (glob.startsWith("**/", i)) {
                regex.append("(?:.*/)?");
                i += 2;
            } else if (glob.startsWith("**", i)) {
                regex.append(".*");
                i++;
            } else if (c == '*') {
                regex.append("[^/]*");
            } else if (c == '?') {
                regex.append("[^/]");
            } else if (c == '[' && glob.indexOf(']', i + 2) > 0) {
                int close = glob.indexOf(']', i + 2);
                String members = glob.substring(i + 1, close).replace("\\", "\\\\").replace("[", "\\[");
                boolean negated = members.startsWith("!") || members.startsWith("^");
                regex.append(negated ? "[^" : "[").append(negated ? members.substring(1) : members).append(']');
                i = close;
            } else {
                regex.append(Pattern.quote(String.valueOf(c)));
            }
        }
        return regex.toString();
    }
}
