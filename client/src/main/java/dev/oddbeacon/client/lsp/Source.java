package dev.oddbeacon.client.lsp;

import dev.oddbeacon.client.worktree.LineMap;
import java.util.Optional;
import java.util.OptionalInt;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.Range;

/**
 * A file that the editor shows.
 *
 * @param branch empty for the default one
 * @param folder the work tree that it lies in; empty of a copy from the service
 * @param text as the editor has it
 * @param lines from those of the index to those of now; empty if the index does not have the file
 */
record Source(
        String repository,
        String branch,
        String path,
        Optional<WorkFolder> folder,
        String text,
        Optional<LineMap> lines) {

    /** The line as the index has it; empty if it is new. Lines count from 1. */
    OptionalInt indexedLine(int line) {
        return lines.map(map -> map.before(line)).orElse(OptionalInt.empty());
    }

    /** The line that an indexed line has become; empty if it went. */
    OptionalInt lineNow(int indexed) {
        return lines.map(map -> map.after(indexed)).orElse(OptionalInt.empty());
    }

    /** A line of the text, without its end; empty beyond the end. */
    String line(int number) {
        return text.lines().skip(number - 1L).findFirst().orElse("");
    }

    /** The name that stands at a position, or ends there; empty if none does. */
    Optional<Range> name(Position position) {
        String line = line(position.getLine() + 1);
        int end = Math.min(position.getCharacter(), line.length());
        int start = end;
        while (start > 0 && isPart(line, start - 1)) {
            start--;
        }
        while (end < line.length() && isPart(line, end)) {
            end++;
        }
        return start == end
                ? Optional.empty()
                : Optional.of(
                        new Range(new Position(position.getLine(), start), new Position(position.getLine(), end)));
    }

    /** Half of a character beyond the basic plane counts as part of a name. */
    private static boolean isPart(String line, int at) {
        char c = line.charAt(at);
        return Character.isJavaIdentifierPart(c) || Character.isSurrogate(c);
    }

    String text(Range range) {
        return line(range.getStart().getLine() + 1)
                .substring(range.getStart().getCharacter(), range.getEnd().getCharacter());
    }
}
