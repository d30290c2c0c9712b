package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement.Change;
import dev.oddbeacon.core.replace.EncodedText;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * The content of a file as it is and as it would be.
 *
 * @param changes in their order, also those that are left out
 */
record FileEdit(byte[] before, byte[] after, List<Change> changes) {
    private static final int LONGEST_SHOWN = 400; // characters of a line

    boolean isChange() {
        return !Arrays.equals(before, after);
    }

    long applied() {
        return changes.stream().filter(Change::applied).count();
    }

    /** @throws StaysException if nothing is found, or its encoding does not have what would stand there */
    static FileEdit of(byte[] before, Found.Finder finder, Choice choice, String repository, String path)
            throws StaysException {
        EncodedText decoded = EncodedText.of(before).orElseThrow(() -> new StaysException("it has no text"));
        LinedText text = new LinedText(decoded.text());
        List<EncodedText.Edit> edits = new ArrayList<>();
        List<Change> changes = new ArrayList<>();
        for (Found found : finder.in(text)) {
            int line = text.line(found.start());
            int column = text.column(found.start());
            String place = Choice.place(repository, path, line, column);
            List<String> warnings = new ArrayList<>(found.warnings());
            Optional<String> with = choice.ownOf(place).or(found::with);
            if (with.isEmpty()) {
                warnings.add("its groups cannot be told; give it a replacement of its own");
            }
            boolean applied = with.isPresent() && !choice.leaves(place);
            String match = decoded.text().substring(found.start(), found.end());
            String instead = with.orElse(match);
            int lineStart = text.start(line);
            int lineEnd = text.end(text.line(Math.max(found.start(), found.end() - 1)));
            changes.add(new Change(
                    line,
                    column,
                    shown(decoded.text().substring(lineStart, lineEnd)),
                    shown(decoded.text().substring(lineStart, found.start())
                            + instead
                            + decoded.text().substring(found.end(), Math.max(found.end(), lineEnd))),
                    match,
                    instead,
                    applied,
                    List.copyOf(warnings)));
            if (applied) {
                edits.add(new EncodedText.Edit(found.start(), found.end(), instead));
            }
        }
        if (changes.isEmpty()) {
            throw new StaysException("nothing in it matches by itself");
        }
        byte[] after = decoded.after(edits)
                .orElseThrow(
                        () -> new StaysException("its encoding, " + decoded.encoding() + ", has no such characters"));
        return new FileEdit(before, after, changes);
    }

    private static String shown(String line) {
        return line.length() <= LONGEST_SHOWN ? line : line.substring(0, LONGEST_SHOWN) + "…";
    }
}
