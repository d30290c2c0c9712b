package dev.oddbeacon.agents;

/**
 * Where an answer goes on: at a page of the service, after so many of its results.
 *
 * @param cursor of the page; empty for the first
 * @param passed results of that page that were told before
 */
record Page(String cursor, int passed) {
    private static final char SIGN = '+';

    /** @throws RefusedException if it is none */
    static Page parse(String more) {
        if (more.isEmpty()) {
            return new Page("", 0);
        }
        int sign = more.lastIndexOf(SIGN);
        try {
            return new Page(more.substring(0, sign), Integer.parseUnsignedInt(more.substring(sign + 1)));
        } catch (IndexOutOfBoundsException | NumberFormatException e) {
            throw new RefusedException("\"more\" is \"" + more
                    + "\", which no answer has said. Give what the last answer ended with, or leave it out.");
        }
    }

    String written() {
        return cursor + SIGN + passed;
    }
}
