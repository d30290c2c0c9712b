package dev.oddbeacon.core.places;

/**
 * A place as a text names it.
 *
 * @param textLine the line of the text, from 1, on which it stands
 * @param start where on that line, in UTF-16 units
 * @param end one past it
 * @param text that line
 * @param path as it is named, perhaps with folders of another machine in front
 * @param line from 1; 0 is possible where a text says so
 * @param column from 1; 0 if none is named
 */
public record Place(int textLine, int start, int end, String text, String path, int line, int column) {}
