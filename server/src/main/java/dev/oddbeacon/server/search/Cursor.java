package dev.oddbeacon.server.search;

import dev.oddbeacon.core.search.LineAnswer.Position;

/** Where a page starts, as it is handed out: the number of the view, the place and the hit, in base 36. */
public record Cursor(long view, Position position) {
    public static Cursor parse(String text) {
        String[] parts = text.split("-", -1);
        try {
            if (parts.length == 3) {
                return new Cursor(Long.parseLong(parts[0], 36), new Position(Long.parseLong(parts[1], 36), Integer.parseInt(parts[2], 36)));
            }
        } catch (NumberFormatException e) {
            // said below
        }
        throw new IllegalArgumentException("The cursor \"" + text + "\" is none that this service handed out. Take it from \"next\" of the page before.");
    }

    @Override
    public String toString() {
        return Long.toString(view, 36) + "-" + Long.toString(position.place(), 36) + "-" + Integer.toString(position.hit(), 36);
    }
}
