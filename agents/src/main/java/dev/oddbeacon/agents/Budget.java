package dev.oddbeacon.agents;

import java.nio.charset.StandardCharsets;

/**
 * The text of an answer, which may have so many tokens. As every model counts its own way, three bytes of UTF-8 are
 * taken for one, which is more than code needs: an answer is rather too short than too long.
 */
final class Budget {
    static final int DEFAULT = 2_000;
    static final int LEAST = 200;
    static final int MOST = 50_000;
    private static final int BYTES = 3;
    /** Kept for what must be said in any case: what was left out, and how to go on. */
    private static final int RESERVE = 80;

    private final StringBuilder text = new StringBuilder();
    private long left;

    Budget(int tokens) {
        this.left = (long) BYTES * (tokens - RESERVE);
    }

    /** Adds a line, if there is room for it. */
    boolean line(String line) {
        long bytes = line.getBytes(StandardCharsets.UTF_8).length + 1L;
        if (bytes > left) {
            return false;
        }
        left -= bytes;
        text.append(line).append('\n');
        return true;
    }

    /** Adds what must be said. */
    Budget say(String line) {
        left -= line.getBytes(StandardCharsets.UTF_8).length + 1L;
        text.append(line).append('\n');
        return this;
    }

    String text() {
        return text.toString();
    }
}
