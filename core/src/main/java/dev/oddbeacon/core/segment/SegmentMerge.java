package dev.oddbeacon.core.segment;

import dev.oddbeacon.core.source.Signs;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.TextDecoder;
import java.io.IOException;
import java.lang.foreign.ValueLayout;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;

/**
 * Makes one segment of several, and leaves blobs behind that nobody refers to any more.
 *
 * <p>Every refresh adds a small segment, and every search looks into each of them. So segments are sorted into classes
 * by their size, each eight times the one before; when a class has eight members, they become one of the next class.
 * A blob is thus written once for each class, however many refreshes there are, and the number of segments grows with
 * the logarithm of the index (O'Neil and others, "The Log-Structured Merge-Tree", 1996).
 */
public final class SegmentMerge {
    private static final long MOST_TABLE_BYTES = 64 << 20;
    private static final int FAN_IN = SizeClasses.FAN_IN;

    private SegmentMerge() {}

    /** Says which blobs of a segment are referred to. */
    @FunctionalInterface
    public interface Wanted {
        boolean isWanted(SegmentReader segment, int blob);
    }

    /** Says in which language to analyse a blob, if it is text. */
    @FunctionalInterface
    public interface Languages {
        /** Those that they were analysed in before. */
        Languages SAME = (segment, blob, _) -> segment.language(blob);

        Optional<Language> of(SegmentReader segment, int blob, Signs signs);
    }

    /**
     * The segments that should become one now: none, eight or so of a kind and a group, or one of which more than half is
     * not wanted any more.
     *
     * @param largest bytes of text that no merged segment should exceed
     */
    public static List<SegmentReader> due(List<SegmentReader> segments, Wanted wanted, long largest) {
        return segments.stream()
                .collect(Collectors.groupingBy(segment -> segment.about().group(), TreeMap::new, Collectors.toList()))
                .values()
                .stream()
                .map(group -> dueOf(group, wanted, largest))
                .filter(due -> !due.isEmpty())
                .findFirst()
                .orElse(List.of());
    }

    private static List<SegmentReader> dueOf(List<SegmentReader> segments, Wanted wanted, long largest) {
        Map<Integer, List<SegmentReader>> classes = new TreeMap<>();
        Map<SegmentReader, Long> sizes = new java.util.IdentityHashMap<>();
        for (SegmentReader segment : segments) {
            long bytes = wantedBytes(segment, wanted);
            sizes.put(segment, bytes);
            if (bytes < segment.content().byteSize() / 2) {
                return List.of(segment);
            }
            classes.computeIfAbsent(SizeClasses.of(bytes), _ -> new ArrayList<>())
                    .add(segment);
        }
        for (List<SegmentReader> members : classes.values()) {
            List<SegmentReader> chosen = new ArrayList<>();
            long bytes = 0;
            int pieces = 0;
            long tables = 0;
            for (SegmentReader member : members) {
                if (bytes + sizes.get(member) <= largest
                        && pieces + member.pieceCount() <= SegmentWriter.MOST_PIECES
                        && tables + tableBytes(member) <= MOST_TABLE_BYTES) {
                    chosen.add(member);
                    bytes += sizes.get(member);
                    pieces += member.pieceCount();
                    tables += tableBytes(member);
                }
            }
            if (chosen.size() >= FAN_IN) {
                return chosen;
            }
        }
        return List.of();
    }

    /** Postings and words, which are in memory until the merged segment is finished, several times as large. */
    private static long tableBytes(SegmentReader segment) {
        return segment.size() - segment.content().byteSize();
    }

    private static long wantedBytes(SegmentReader segment, Wanted wanted) {
        long bytes = 0;
        for (int blob = 0; blob < segment.blobCount(); blob++) {
            bytes += wanted.isWanted(segment, blob) ? segment.end(blob) - segment.start(blob) + 1 : 0;
        }
        return bytes;
    }

    /**
     * Writes the wanted blobs of several segments of one group into a new one.
     *
     * @return whether there were any; else no file is left
     */
    public static boolean write(List<SegmentReader> segments, Wanted wanted, Languages languages, Path target)
            throws IOException {
        String group = segments.getFirst().about().group();
        if (segments.stream().anyMatch(segment -> !segment.about().group().equals(group))) {
            throw new IllegalArgumentException("segments of different groups");
        }
        Set<ObjectId> written = new HashSet<>();
        try (SegmentWriter writer = new SegmentWriter.Workshop().open(target, group)) {
            for (SegmentReader segment : segments) {
                for (int blob = 0; blob < segment.blobCount(); blob++) {
                    if (!wanted.isWanted(segment, blob) || !written.add(segment.id(blob))) {
                        continue;
                    }
                    if (segment.state(blob) == BlobState.BINARY) {
                        writer.addBinary(segment.id(blob), segment.fileBytes(blob));
                    } else {
                        byte[] text = segment.content()
                                .asSlice(segment.start(blob), segment.end(blob) - segment.start(blob))
                                .toArray(ValueLayout.JAVA_BYTE);
                        int number = blob;
                        writer.addText(
                                segment.id(blob),
                                segment.fileBytes(blob),
                                new TextDecoder.Text(text, segment.encoding(blob)),
                                signs -> languages.of(segment, number, signs));
                    }
                }
            }
            if (written.isEmpty()) {
                return false;
            }
            writer.finish();
            return true;
        }
    }
}
