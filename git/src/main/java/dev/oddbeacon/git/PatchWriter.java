package dev.oddbeacon.git;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;
import org.eclipse.jgit.diff.DiffAlgorithm;
import org.eclipse.jgit.diff.DiffFormatter;
import org.eclipse.jgit.diff.EditList;
import org.eclipse.jgit.diff.RawText;
import org.eclipse.jgit.diff.RawTextComparator;
import org.eclipse.jgit.lib.Constants;
import org.eclipse.jgit.lib.ObjectInserter;
import org.eclipse.jgit.util.Base85;
import org.eclipse.jgit.util.QuotedString;

/**
 * Writes changes of files as patches that {@code git apply} and {@code git am} take. Files with a NUL, such as those in
 * UTF-16, are written as Git's binary patches, which hold the whole of them.
 */
public final class PatchWriter {
    private static final int MOST_ON_LINE = 52; // bytes, of a binary patch

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();

    /** Adds the change of a file, whose mode stays. */
    public PatchWriter add(String path, byte[] before, byte[] after) {
        line("diff --git " + quoted("a/" + path) + " " + quoted("b/" + path));
        return content(path, path, before, after);
    }

    /** Adds a file that gets another path, and stays as it is. */
    public PatchWriter rename(String path, String newPath) {
        line("diff --git " + quoted("a/" + path) + " " + quoted("b/" + newPath));
        line("similarity index 100%");
        line("rename from " + quoted(path));
        line("rename to " + quoted(newPath));
        return this;
    }

    /** Adds a file that gets another path and is changed. */
    public PatchWriter rename(String path, String newPath, byte[] before, byte[] after) {
        line("diff --git " + quoted("a/" + path) + " " + quoted("b/" + newPath));
        line("similarity index 50%"); // how similar they are is not asked when it is applied
        line("rename from " + quoted(path));
        line("rename to " + quoted(newPath));
        return content(path, newPath, before, after);
    }

    private PatchWriter content(String path, String newPath, byte[] before, byte[] after) {
        line("index " + id(before) + ".." + id(after));
        if (hasNul(before) || hasNul(after)) {
            line("GIT binary patch");
            literal(after);
            literal(before);
            return this;
        }
        line("--- " + quoted("a/" + path) + tabAfterSpace(path));
        line("+++ " + quoted("b/" + newPath) + tabAfterSpace(newPath));
        RawText old = new RawText(before);
        RawText young = new RawText(after);
        EditList edits = DiffAlgorithm.getAlgorithm(DiffAlgorithm.SupportedAlgorithm.HISTOGRAM)
                .diff(RawTextComparator.DEFAULT, old, young);
        try (DiffFormatter formatter = new DiffFormatter(out)) {
            formatter.format(edits, old, young);
            formatter.flush();
        } catch (IOException e) {
            throw new UncheckedIOException(e); // nothing that it writes to can fail
        }
        return this;
    }

    /** A path with a space ends with a tab, as Git writes it, so that nothing is taken for a date. */
    private static String tabAfterSpace(String path) {
        return path.indexOf(' ') >= 0 && quoted(path).equals(path) ? "\t" : "";
    }

    private static String quoted(String path) {
        return QuotedString.GIT_PATH.quote(path);
    }

    private static boolean hasNul(byte[] content) {
        for (byte each : content) {
            if (each == 0) {
                return true;
            }
        }
        return false;
    }

    private static String id(byte[] content) {
        try (ObjectInserter.Formatter formatter = new ObjectInserter.Formatter()) {
            return formatter.idFor(Constants.OBJ_BLOB, content).name();
        }
    }

    private void literal(byte[] content) {
        line("literal " + content.length);
        ByteArrayOutputStream deflated = new ByteArrayOutputStream();
        try (DeflaterOutputStream deflater = new DeflaterOutputStream(deflated, new Deflater())) {
            deflater.write(content);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        byte[] bytes = deflated.toByteArray();
        for (int at = 0; at < bytes.length; at += MOST_ON_LINE) {
            int length = Math.min(MOST_ON_LINE, bytes.length - at);
            out.write(length <= 26 ? 'A' + length - 1 : 'a' + length - 27);
            out.writeBytes(Base85.encode(bytes, at, length));
            out.write('\n');
        }
        out.write('\n');
    }

    private void line(String text) {
        out.writeBytes((text + "\n").getBytes(StandardCharsets.UTF_8));
    }

    public byte[] toBytes() {
        return out.toByteArray();
    }

    /**
     * The same as a mail, which {@code git am} takes and commits.
     *
     * @param author {@code Name <address>}, visible characters only
     * @param message of the commit; its first line is the subject
     */
    public byte[] toMail(String author, Instant date, String message) {
        String subject = message.strip().lines().findFirst().orElse("");
        String body = message.strip().substring(subject.length()).strip();
        ByteArrayOutputStream mail = new ByteArrayOutputStream();
        mail.writeBytes(("From " + "0".repeat(40) + " Mon Sep 17 00:00:00 2001\n"
                        + "From: " + author + "\n"
                        + "Date: "
                        + DateTimeFormatter.RFC_1123_DATE_TIME
                                .format(date.atZone(ZoneOffset.UTC))
                                .replace("GMT", "+0000")
                        + "\nSubject: [PATCH] " + subject + "\n"
                        + "MIME-Version: 1.0\nContent-Type: text/plain; charset=UTF-8\nContent-Transfer-Encoding: 8bit\n\n"
                        + (body.isEmpty() ? "" : body + "\n")
                        + "---\n\n")
                .getBytes(StandardCharsets.UTF_8));
        mail.writeBytes(out.toByteArray());
        mail.writeBytes("-- \noddbeacon\n\n".getBytes(StandardCharsets.UTF_8));
        return mail.toByteArray();
    }
}
