package dev.oddbeacon.core.search;

import dev.oddbeacon.core.query.matching.Plan;
import dev.oddbeacon.core.segment.GramLists;
import dev.oddbeacon.core.segment.Grams;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.segment.SegmentWords;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.IntUnaryOperator;

/**
 * From a plan to the pieces of a text that may match: the postings of the plan's grams, intersected and united.
 *
 * @param words the dictionary of the text; without one, similar words and numbers may stand anywhere
 * @param comparable what stands for a piece when parts of a plan are held against each other: the first piece of its
 * blob, if they may be in different ones
 */
public record PlannedPieces(GramLists lists, Optional<SegmentWords> words, Effort effort, IntUnaryOperator comparable) {
    public static final IntUnaryOperator ITSELF = piece -> piece;
    /** With this few pieces left, verifying them is cheaper than reading another list. */
    private static final int FEW = 8;
    /** A list of more bytes than this for each piece that is left costs more to read than it saves. */
    private static final int WORTH_READING = 2_000;
    /** The grams of one text say much the same; what the rarest leave over, the others hardly narrow. */
    private static final int MOST_LISTS = 16;
    /** A list with more than this share of all pieces narrows less than it costs. */
    private static final double DENSE = 0.6;
    /** With more words than this that would do, all text is looked at. */
    private static final int MOST_WORDS = 500;

    /** @param acrossPieces whether the parts of the plan may be in different pieces of a blob */
    public static PlannedPieces of(SegmentReader segment, Effort effort, boolean acrossPieces) {
        return new PlannedPieces(
                segment.grams(),
                Optional.of(segment.words()),
                effort,
                acrossPieces ? piece -> segment.firstPiece(segment.blobOf(piece)) : ITSELF);
    }

    /** The pieces, ascending; empty stands for all of them. */
    public Optional<int[]> of(Plan plan) {
        return switch (plan) {
            case Plan.Anything _ -> Optional.empty();
            case Plan.Holds holds -> holding(holds.folded());
            case Plan.Similar similar -> anyOf(words -> words.similar(similar.folded(), similar.edits()));
            case Plan.Numbered numbered ->
                numbered.mayBeFraction() ? Optional.empty() : anyOf(words -> words.numbers(numbered::mayHold));
            case Plan.AllOf all -> {
                Optional<int[]> result = Optional.empty();
                for (Plan part : all.parts()) {
                    Optional<int[]> pieces = of(part).map(this::comparable);
                    if (pieces.isPresent()) {
                        result = Optional.of(
                                result.isEmpty() ? pieces.get() : SortedInts.intersection(result.get(), pieces.get()));
                    }
                    if (result.isPresent() && result.get().length == 0) {
                        break;
                    }
                }
                yield result;
            }
            case Plan.AnyOf any -> anyOf(any.parts());
        };
    }

    private Optional<int[]> anyOf(List<Plan> parts) {
        int[] result = {};
        for (Plan part : parts) {
            Optional<int[]> pieces = of(part);
            if (pieces.isEmpty()) {
                return Optional.empty();
            }
            result = SortedInts.union(result, pieces.get());
        }
        return Optional.of(result);
    }

    /** Pieces that can be intersected. */
    private int[] comparable(int[] pieces) {
        return comparable == ITSELF ? pieces : SortedInts.mapped(pieces, comparable);
    }

    /** The pieces with one of the words that would do. */
    private Optional<int[]> anyOf(Function<SegmentWords, List<String>> choice) {
        return words.map(choice)
                .filter(chosen -> chosen.size() <= MOST_WORDS)
                .flatMap(chosen -> anyOf(chosen.stream().map(Plan::holds).toList()));
    }

    private Optional<int[]> holding(String folded) {
        int[] grams = Grams.of(folded.getBytes(StandardCharsets.UTF_8));
        if (grams.length == 0) {
            return Optional.empty();
        }
        long[] shortestFirst = new long[grams.length]; // their bytes, and their numbers
        for (int i = 0; i < grams.length; i++) {
            int list = lists.list(grams[i]);
            if (list < 0) {
                return Optional.of(new int[0]);
            }
            shortestFirst[i] = (long) lists.listBytes(list) << Integer.SIZE | list;
        }
        Arrays.sort(shortestFirst);
        count(shortestFirst[0]);
        int[] result = lists.pieces((int) shortestFirst[0]);
        for (int i = 1; i < Math.min(MOST_LISTS, grams.length); i++) {
            int bytes = (int) (shortestFirst[i] >>> Integer.SIZE);
            if (result.length <= FEW || bytes / result.length > WORTH_READING || bytes > DENSE * lists.pieceCount()) {
                break;
            }
            count(shortestFirst[i]);
            result = lists.intersection((int) shortestFirst[i], result);
        }
        return Optional.of(result);
    }

    private void count(long bytesAndList) {
        effort.lists.incrementAndGet();
        effort.postingsBytes.addAndGet(bytesAndList >>> Integer.SIZE);
    }
}
