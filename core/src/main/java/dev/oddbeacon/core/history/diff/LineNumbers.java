package dev.oddbeacon.core.history.diff;

/** Gives each distinct line of some texts a number, from 0. A hash table with open addresses. */
final class LineNumbers {
    private final TextLines.Sameness sameness;
    private final int[] slots; // number of a line + 1
    private final int[] hashes;
    private final TextLines[] texts; // where a line of that number stands
    private final int[] places;
    private int count;

    LineNumbers(TextLines.Sameness sameness, int most) {
        this.sameness = sameness;
        this.slots = new int[Integer.highestOneBit(Math.max(8, most) * 2) * 2];
        this.hashes = new int[most];
        this.texts = new TextLines[most];
        this.places = new int[most];
    }

    int[] of(TextLines text, int start, int lines) {
        int[] numbers = new int[lines];
        for (int i = 0; i < lines; i++) {
            numbers[i] = number(text, start + i);
        }
        return numbers;
    }

    private int number(TextLines text, int line) {
        int hash = sameness.hash(text, line);
        int slot = (hash ^ hash >>> 15) & slots.length - 1;
        while (slots[slot] != 0) {
            int known = slots[slot] - 1;
            if (hashes[known] == hash && sameness.same(texts[known], places[known], text, line)) {
                return known;
            }
            slot = slot + 1 & slots.length - 1;
        }
        hashes[count] = hash;
        texts[count] = text;
        places[count] = line;
        slots[slot] = count + 1;
        return count++;
    }

    /** The number of entries. */
    int count() {
        return count;
    }
}
