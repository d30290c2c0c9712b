package dev.oddbeacon.server.access;

import dev.oddbeacon.core.lines.LineAnswer.Position;
import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;

/**
 * Where a page starts, as it is handed out to callers: of which subject, in which view, and how far. Each subject has a
 * form of its own, and takes no other's.
 *
 * @param kind of the answer that it continues
 * @param view in which the next page lies
 * @param place of the file that the page starts with, as {@link Position} has it; 0 where only results are counted
 * @param passed hits of that file, or results, that earlier pages showed
 */
public record Cursor(Kind kind, ViewId view, long place, int passed) {
    private static final int PARTS = 6;

    /** Answers that have pages. */
    public enum Kind {
        LINES("l"),
        FILES("f"),
        SYMBOLS("s"),
        COMMITS("c"),
        OVER_TIME("t");

        private final String code;

        Kind(String code) {
            this.code = code;
        }
    }

    /**
     * Which view, and what of it the caller saw.
     *
     * @param lineage of the views of one process: after a restart, and in another process, it is another
     * @param hidden stands for the repositories that were hidden from the caller
     */
    public record ViewId(long lineage, long number, int hidden) {}

    /** @return empty for an empty text: the first page */
    public static Optional<Cursor> parse(Kind kind, String text) {
        if (text == null || text.isEmpty()) {
            return Optional.empty();
        }
        String[] parts = Split.parts(text, '-').toArray(String[]::new);
        if (parts.length != PARTS || Arrays.stream(Kind.values()).noneMatch(known -> known.code.equals(parts[0]))) {
            throw unknown(text);
        }
        if (!kind.code.equals(parts[0])) {
            throw new BadRequestException("The cursor \"" + text
                    + "\" is of another kind of search. Take it from \"next\" of the page before, of the same search.");
        }
        try {
            return Optional.of(new Cursor(
                    kind,
                    new ViewId(number(parts[1]), number(parts[2]), Integer.parseUnsignedInt(parts[3], 36)),
                    number(parts[4]),
                    count(parts[5])));
        } catch (NumberFormatException e) {
            throw unknown(text);
        }
    }

    /** Of which process the views are that a cursor names; empty if it is none. */
    public static OptionalLong lineage(String text) {
        List<String> parts = text == null ? List.of() : Split.parts(text, '-');
        try {
            return parts.size() == PARTS ? OptionalLong.of(number(parts.get(1))) : OptionalLong.empty();
        } catch (NumberFormatException e) {
            return OptionalLong.empty();
        }
    }

    private static long number(String text) {
        return Long.parseUnsignedLong(text, 36);
    }

    private static int count(String text) {
        int count = Integer.parseUnsignedInt(text, 36);
        if (count < 0) {
            throw new NumberFormatException(text);
        }
        return count;
    }

    private static BadRequestException unknown(String text) {
        return new BadRequestException("The cursor \"" + text
                + "\" is none that this service handed out. Take it from \"next\" of the page before.");
    }

    /** Start of a page in an answer of lines. */
    public Position position() {
        return new Position(place, passed);
    }

    @Override
    public String toString() {
        return String.join(
                "-",
                kind.code,
                Long.toUnsignedString(view.lineage, 36),
                Long.toUnsignedString(view.number, 36),
                Integer.toUnsignedString(view.hidden, 36),
                Long.toUnsignedString(place, 36),
                Integer.toUnsignedString(passed, 36));
    }
}
