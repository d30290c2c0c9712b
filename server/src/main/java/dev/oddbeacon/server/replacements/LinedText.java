package dev.oddbeacon.server.replacements;

import java.util.Arrays;

/** A text with the numbers of its lines, from 1; offsets and columns are in UTF-16 units. */
final class LinedText {
    private final String text;
    private final int[] starts; // of lines

    LinedText(String text) {
        this.text = text;
        int[] found = new int[16];
        int count = 1;
        for (int feed = text.indexOf('\n'); feed >= 0; feed = text.indexOf('\n', feed + 1)) {
            if (count == found.length) {
                found = Arrays.copyOf(found, count * 2);
            }
            found[count++] = feed + 1;
        }
        this.starts = Arrays.copyOf(found, count);
    }

    String text() {
        return text;
    }

    int lineCount() {
        return starts.length;
    }

    /** The number of the line that holds an offset. */
    int line(int offset) {
        int at = Arrays.binarySearch(starts, offset);
        return at >= 0 ? at + 1 : -at - 1;
    }

    /** The column of an offset in its line, from 1. */
    int column(int offset) {
        return offset - start(line(offset)) + 1;
    }

    /** Where a line begins. */
    int start(int line) {
        return starts[line - 1];
    }

    /** Where a line ends, before its line feed. */
    int end(int line) {
        return line < starts.length ? starts[line] - 1 : text.length();
    }
}
