package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.segment.SegmentNames;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.FileNames;
import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.text.Words;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * How likely files are those that are meant, told before any of them is looked at: by their paths and traits, and by
 * what the index knows of the names in their code. So the first page is the best one as soon as it is full, however
 * many files are found in the end.
 */
final class Ranking {
    /** Of the texts of a search, and of the names in them, so many are looked at. */
    private static final int MOST = 8;

    private static final int SHORTEST = 3;
    /** What is typed so far finds names that begin so; with less, too many do. */
    private static final int SHORTEST_BEGINNING = 5;

    private final View view;
    private final Texts texts;
    private final List<Named> bySegment;

    /**
     * What is searched for.
     *
     * @param parts folded, in UTF-8
     * @param words of a text of several, put together without what separates them
     * @param names that are searched for, folded: the text, or its words put together as names are
     * @param others names that stand in it beside more
     * @param mayGoOn whether the text is one name that may be the beginning of a longer one
     */
    record Texts(List<byte[]> parts, List<byte[]> words, List<byte[]> names, List<byte[]> others, boolean mayGoOn) {
        /** Of a search that is not put in order. */
        static final Texts NONE = new Texts(List.of(), List.of(), List.of(), List.of(), false);

        static Texts of(CompiledQuery query) {
            List<String> texts = query.wantedClauses().stream()
                    .flatMap(clause -> clause.plan().alternatives().stream())
                    .limit(MOST)
                    .toList();
            List<String> parts = new ArrayList<>();
            List<String> words = new ArrayList<>();
            List<String> names = new ArrayList<>();
            List<String> others = new ArrayList<>();
            for (String text : texts) {
                List<String> inText = names(text);
                if (text.length() >= SHORTEST) {
                    parts.add(text);
                }
                if (inText.size() == 1) {
                    names.addAll(inText);
                } else if (text.equals(String.join(" ", inText))) {
                    words.add(String.join("", inText));
                    names.add(String.join("", inText));
                    names.add(String.join("_", inText));
                }
                if (inText.size() > 1) {
                    others.addAll(inText);
                }
            }
            boolean mayGoOn =
                    texts.size() == 1 && names.equals(texts) && names.getFirst().length() >= SHORTEST_BEGINNING;
            return new Texts(bytes(parts), bytes(words), bytes(names), bytes(others), mayGoOn);
        }

        private static List<byte[]> bytes(List<String> texts) {
            return texts.stream()
                    .distinct()
                    .limit(MOST)
                    .map(text -> text.getBytes(StandardCharsets.UTF_8))
                    .toList();
        }

        /** Whether uses of the names are told, which are no more than where the text stands if it holds more. */
        boolean countsUses() {
            return others.isEmpty();
        }

        private static List<String> names(String text) {
            List<String> names = new ArrayList<>();
            int start = -1;
            for (int i = 0; i <= text.length(); i++) {
                boolean within = i < text.length() && Words.isWordPart(text.charAt(i));
                if (within && start < 0) {
                    start = i;
                } else if (!within && start >= 0) {
                    if (i - start > 1 && !Character.isDigit(text.charAt(start))) {
                        names.add(text.substring(start, i));
                    }
                    start = -1;
                }
            }
            return names;
        }
    }

    /**
     * What the code of a segment says of the names that are searched for.
     *
     * @param declared by blob, as {@link Relevance#declared} has it; no entries if there is nothing to say
     * @param uses by blob, of the names; no entries if they are not counted
     */
    record Named(byte[] declared, int[] uses) {
        private static final Named NONE = new Named(new byte[0], new int[0]);

        int declared(int blob) {
            return declared.length == 0 ? Relevance.NOTHING : declared[blob];
        }

        int uses(int blob) {
            return uses.length == 0 ? 0 : uses[blob];
        }
    }

    /** @param named of each segment, in the order of the view */
    Ranking(View view, Texts texts, List<Named> named) {
        this.view = view;
        this.texts = texts;
        this.bySegment = named;
    }

    /** What the code of one segment says: the part that several threads may share. */
    static Named named(SegmentReader segment, Texts texts) {
        if (texts.names.isEmpty() && texts.others.isEmpty() || segment.names().blockCount() == 0) {
            return Named.NONE;
        }
        byte[] declared = new byte[segment.blobCount()];
        Arrays.fill(declared, Relevance.NOTHING);
        int[] uses = new int[texts.countsUses() ? declared.length : 0];
        SegmentNames.Occurrences whole = (piece, used, kinds, from, to) -> {
            int blob = segment.blobOf(piece);
            if (uses.length > 0) {
                uses[blob] += used;
            }
            declare(declared, blob, kinds, from, to, 0);
        };
        SegmentNames.Occurrences beginning = (piece, _, kinds, from, to) -> {
            int blob = segment.blobOf(piece);
            for (int i = from; i < to && declared[blob] == Relevance.NOTHING; i++) {
                declared[blob] = Kind.of(kinds[i]).isUse() ? Relevance.NOTHING : Relevance.BEGINS;
            }
        };
        SegmentNames.Occurrences beside = (piece, _, kinds, from, to) ->
                declare(declared, segment.blobOf(piece), kinds, from, to, Relevance.BESIDE_MORE);
        for (byte[] name : texts.names) {
            segment.names()
                    .spelled(
                            name,
                            texts.mayGoOn,
                            (_, start, end) -> Optional.of(end - start == name.length ? whole : beginning));
        }
        for (byte[] name : texts.others) {
            segment.names().spelled(name, false, (_, _, _) -> Optional.of(beside));
        }
        return new Named(declared, uses);
    }

    /** Notes the weightiest of some declarations. @param how what is added to the numbers of their kinds */
    private static void declare(byte[] declared, int blob, byte[] kinds, int from, int to, int how) {
        for (int i = from; i < to; i++) {
            byte one = (byte) (kinds[i] + how);
            if (!Kind.of(kinds[i]).isUse()
                    && Relevance.declaredPoints(one) > Relevance.declaredPoints(declared[blob])) {
                declared[blob] = one;
            }
        }
    }

    /** Places in the order of what they are worth; of the same worth, as they were. */
    long[] ordered(long[] places) {
        int[] points = new int[places.length];
        int least = Integer.MAX_VALUE;
        int most = Integer.MIN_VALUE;
        for (int i = 0; i < places.length; i++) {
            points[i] = of(places[i]).points();
            least = Math.min(least, points[i]);
            most = Math.max(most, points[i]);
        }
        if (least >= most) {
            return places;
        }
        int[] starts = new int[most - least + 2]; // by how far the points are from the most
        for (int each : points) {
            starts[most - each + 1]++;
        }
        for (int i = 1; i < starts.length; i++) {
            starts[i] += starts[i - 1];
        }
        long[] ordered = new long[places.length];
        for (int i = 0; i < places.length; i++) {
            ordered[starts[most - points[i]]++] = places[i];
        }
        return ordered;
    }

    Relevance of(long place) {
        int branchNumber = (int) (place >>> 32);
        int file = (int) place;
        SnapshotReader snapshot = view.snapshot(branchNumber);
        FileNames names = snapshot.fileNames();
        Named named = bySegment.get(view.segmentNumber(branchNumber, file));
        int blob = view.blob(branchNumber, file);
        return new Relevance(
                match(names, file), named.declared(blob), named.uses(blob), snapshot.traits(file), names.depth(file));
    }

    private FileNames.Match match(FileNames names, int file) {
        FileNames.Match match = FileNames.Match.NONE;
        for (byte[] text : texts.parts) {
            FileNames.Match one = names.match(file, text);
            match = one.compareTo(match) > 0 ? one : match;
        }
        for (byte[] words : texts.words) {
            FileNames.Match one = names.matchWords(file, words);
            match = one.compareTo(match) > 0 ? one : match;
        }
        return match;
    }
}
