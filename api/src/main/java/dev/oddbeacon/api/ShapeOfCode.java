package dev.oddbeacon.api;

/**
 * The answer to {@code POST /api/v1/shapes}: expressions that find where code is written again.
 *
 * @param same as it is written, but for blanks and comments
 * @param alike whatever its variables are called, and whatever numbers and strings stand in it; null if that would say
 *        nothing else
 */
public record ShapeOfCode(String same, String alike) {
    /**
     * What is asked.
     *
     * @param code a piece of a file
     * @param language its name, as an outline tells it
     */
    public record Code(String code, String language) {}
}
