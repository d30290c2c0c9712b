package dev.oddbeacon.core.text;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * A sentence as a program shows it, and the line of the source that it was made from: the same text with room for values
 * (see {@link Placeholders}), two words of it at least written side by side.
 */
public final class Filled {
    /** Characters of a sentence. */
    public static final int LONGEST = 400;

    private static final int LONGEST_VALUE = 80;
    private static final int LONGEST_LINE = 2_000;
    private static final int FEW_WORDS = 3;
    private static final int FEWEST_LETTERS = 5;
    /** Of the sentence's letters, one in so many stands in the source. */
    private static final int SHARE = 3;

    private final String sentence;
    private final boolean ignoresCase;
    private final List<String> needed;
    private final int letters;

    public Filled(String sentence, boolean ignoresCase) {
        this.ignoresCase = ignoresCase;
        this.sentence = spelt(sentence);
        this.needed = needed(sentence).stream().map(this::spelt).toList();
        this.letters = (int) sentence.codePoints().filter(Words::isWordPart).count();
    }

    /** Of these, one at least stands in every such line. Empty if the sentence has too little text. */
    public static List<String> needed(String sentence) {
        List<String> words = Split.words(sentence);
        words.removeIf(String::isEmpty);
        List<String> needed = new ArrayList<>();
        if (words.size() <= FEW_WORDS) {
            words.stream().filter(word -> word.length() >= FEW_WORDS).forEach(needed::add);
        } else {
            for (int i = 1; i < words.size(); i++) {
                needed.add(words.get(i - 1) + " " + words.get(i));
            }
        }
        return words.size() < 2 ? List.of() : needed;
    }

    private String spelt(String text) {
        return ignoresCase ? text.toLowerCase(Locale.ROOT) : text;
    }

    /**
     * A match in a line.
     *
     * @param start of the text, in UTF-16 units
     */
    public record Match(int start, int end) {}

    public Optional<Match> in(String line) {
        String text = spelt(line);
        if (text.length() != line.length()
                || line.length() > LONGEST_LINE
                || needed.stream().noneMatch(text::contains)
                || !Placeholders.mayBeIn(line)) {
            return Optional.empty();
        }
        List<Placeholders.Element> elements = Placeholders.elements(text);
        return elements.stream().noneMatch(Placeholders.Element::isRoom)
                ? Optional.empty()
                : new Table(text, elements).match();
    }

    /**
     * From the last element to the first, by each place in the sentence: how many letters stand in both on the way to its
     * end, and where that way ends in the line.
     */
    private final class Table {
        private static final int NO_WAY = -1;

        private final String line;
        private final List<Placeholders.Element> elements;
        private int[] most = new int[sentence.length() + 1];
        private int[] ends = new int[sentence.length() + 1];
        private int[] mostBehind = new int[sentence.length() + 1];
        private int[] endsBehind = new int[sentence.length() + 1];

        Table(String line, List<Placeholders.Element> elements) {
            this.line = line;
            this.elements = elements;
        }

        /** The first of those that hold enough of the sentence. */
        Optional<Match> match() {
            int wanted = Math.max(Math.min(FEWEST_LETTERS, letters), letters / SHARE);
            Optional<Match> found = Optional.empty();
            for (int e = elements.size(); e >= 0; e--) {
                Arrays.fill(most, NO_WAY);
                most[sentence.length()] = 0;
                ends[sentence.length()] = e;
                if (e < elements.size()) {
                    fill(elements.get(e));
                    boolean hasRoom = most[0] >= wanted
                            && elements.subList(e, ends[0]).stream().anyMatch(Placeholders.Element::isRoom);
                    if (hasRoom) {
                        found = Optional.of(new Match(
                                elements.get(e).start(),
                                elements.get(ends[0] - 1).end()));
                    }
                }
                int[] row = mostBehind;
                mostBehind = most;
                most = row;
                row = endsBehind;
                endsBehind = ends;
                ends = row;
            }
            return found;
        }

        private void fill(Placeholders.Element element) {
            int last = sentence.length();
            for (int s = 0; s < last; s++) {
                if (element.isRoom()) {
                    for (int next = s + 1; next <= Math.min(last, s + LONGEST_VALUE); next++) {
                        take(s, next, 0);
                    }
                } else if (line.charAt(element.start()) == sentence.charAt(s)) {
                    take(s, s + 1, Words.isWordPart(sentence.charAt(s)) ? 1 : 0);
                }
            }
        }

        private void take(int s, int next, int more) {
            int count = mostBehind[next] + more;
            boolean isBetter = count > most[s] || count == most[s] && endsBehind[next] < ends[s];
            if (mostBehind[next] != NO_WAY && isBetter) {
                most[s] = count;
                ends[s] = endsBehind[next];
            }
        }
    }
}
