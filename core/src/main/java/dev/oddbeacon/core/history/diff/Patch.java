package dev.oddbeacon.core.history.diff;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Writes differences as a unified diff, as Git takes them. */
public final class Patch {
    private Patch() {}

    public static byte[] of(List<FileDiff> files) {
        ByteArrayOutputStream patch = new ByteArrayOutputStream();
        for (FileDiff file : files) {
            patch.writeBytes(head(file).getBytes(StandardCharsets.UTF_8));
            file.hunks().forEach(hunk -> add(patch, hunk));
        }
        return patch.toByteArray();
    }

    private static String head(FileDiff file) {
        StringBuilder patch = new StringBuilder();
        PathChange change = file.change();
        PathChange.Kind kind = change.kind();
        patch.append("diff --git ")
                .append(quoted("a/" + change.from()))
                .append(' ')
                .append(quoted("b/" + change.path()))
                .append('\n');
        if (kind == PathChange.Kind.ADDED) {
            patch.append("new file mode ")
                    .append(Integer.toOctalString(change.modeAfter()))
                    .append('\n');
        } else if (kind == PathChange.Kind.DELETED) {
            patch.append("deleted file mode ")
                    .append(Integer.toOctalString(change.modeBefore()))
                    .append('\n');
        } else if (change.modeBefore() != change.modeAfter()) {
            patch.append("old mode ")
                    .append(Integer.toOctalString(change.modeBefore()))
                    .append("\nnew mode ")
                    .append(Integer.toOctalString(change.modeAfter()))
                    .append('\n');
        }
        if (kind == PathChange.Kind.RENAMED) {
            patch.append("rename from ")
                    .append(quoted(change.from()))
                    .append("\nrename to ")
                    .append(quoted(change.path()))
                    .append('\n');
        }
        if (!change.before().equals(change.after())) {
            patch.append("index ")
                    .append(change.before())
                    .append("..")
                    .append(change.after())
                    .append(
                            change.modeBefore() == change.modeAfter()
                                    ? " " + Integer.toOctalString(change.modeAfter())
                                    : "")
                    .append('\n');
        }
        String old = kind == PathChange.Kind.ADDED ? "/dev/null" : quoted("a/" + change.from());
        String now = kind == PathChange.Kind.DELETED ? "/dev/null" : quoted("b/" + change.path());
        if (file.binary()) {
            patch.append("Binary files ")
                    .append(old)
                    .append(" and ")
                    .append(now)
                    .append(" differ\n");
        } else if (!file.hunks().isEmpty()) {
            patch.append("--- ")
                    .append(old)
                    .append(tail(old))
                    .append("\n+++ ")
                    .append(now)
                    .append(tail(now))
                    .append('\n');
        }
        return patch.toString();
    }

    /** A name with a space is followed by a tab, so that it is known where it ends. */
    private static String tail(String name) {
        return name.startsWith("\"") || name.indexOf(' ') < 0 ? "" : "\t";
    }

    private static void add(ByteArrayOutputStream patch, FileDiff.Hunk hunk) {
        patch.writeBytes(("@@ -" + range(hunk.oldStart(), hunk.oldLines()) + " +"
                        + range(hunk.newStart(), hunk.newLines()) + " @@\n")
                .getBytes(StandardCharsets.UTF_8));
        for (FileDiff.Line line : hunk.lines()) {
            patch.write(line.kind());
            patch.writeBytes(line.raw());
            if (line.raw().length == 0 || line.raw()[line.raw().length - 1] != '\n') {
                patch.writeBytes("\n\\ No newline at end of file\n".getBytes(StandardCharsets.UTF_8));
            }
        }
    }

    private static String range(int start, int lines) {
        return lines == 1 ? String.valueOf(start) : start + "," + lines;
    }

    private static String quoted(String path) {
        boolean plain = path.chars().allMatch(c -> c >= 0x20 && c < 0x7F && c != '"' && c != '\\');
        if (plain) {
            return path;
        }
        StringBuilder quoted = new StringBuilder("\"");
        for (byte b : path.getBytes(StandardCharsets.UTF_8)) {
            switch (b) {
                case '"', '\\' -> quoted.append('\\').append((char) b);
                case '\n' -> quoted.append("\\n");
                case '\t' -> quoted.append("\\t");
                default -> {
                    if (b >= 0x20 && b < 0x7F) {
                        quoted.append((char) b);
                    } else {
                        quoted.append('\\').append(String.format("%03o", b & 0xFF));
                    }
                }
            }
        }
        return quoted.append('"').toString();
    }
}
