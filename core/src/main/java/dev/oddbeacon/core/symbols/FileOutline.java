package dev.oddbeacon.core.symbols;

import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.RegionCursor;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.text.Lines;
import dev.oddbeacon.core.text.Utf8;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a file declares, in the order of the text.
 *
 * @param language in which it was analysed; empty if it was not
 * @param total declarations there are; more than are told if they are very many
 */
public record FileOutline(Optional<String> language, int total, List<Symbol> symbols) {
    /**
     * A declaration.
     *
     * @param depth how many declarations of the file it stands in
     * @param column of its name, from 1, in UTF-16 units
     */
    public record Symbol(
            String name, Kind kind, String container, int depth, int line, int endLine, int column, String signature) {}

    /** @param most declarations that are told */
    public static FileOutline of(View view, int branchNumber, int file, int most) {
        Optional<View.Location> location = view.location(branchNumber, file);
        if (location.isEmpty()) {
            return new FileOutline(Optional.empty(), 0, List.of());
        }
        SegmentReader segment = location.get().segment();
        int blob = location.get().blob();
        List<Symbol> symbols = new ArrayList<>();
        Map<Integer, Integer> depths = new HashMap<>();
        int total = 0;
        for (Spot spot : all(segment, blob, branchNumber, file)) {
            Declared declared = spot.declared();
            int depth = depths.getOrDefault(declared.parent(), -1) + 1;
            depths.put(declared.number(), declared.kind().isUse() ? depth - 1 : depth);
            if (!declared.kind().isUse() && total++ < most) {
                symbols.add(symbol(spot, depth));
            }
        }
        return new FileOutline(
                segment.language(blob).filter(_ -> !segment.isGivenUp(blob)).map(Language::name), total, symbols);
    }

    /** Where the declarations of {@link #of} are in the index, in the same order. */
    public static List<Spot> spots(View view, int branchNumber, int file, int most) {
        return view.location(branchNumber, file)
                .map(location -> all(location.segment(), location.blob(), branchNumber, file).stream()
                        .filter(spot -> !spot.declared().kind().isUse())
                        .limit(most)
                        .toList())
                .orElse(List.of());
    }

    private static List<Spot> all(SegmentReader segment, int blob, int branchNumber, int file) {
        List<Spot> all = new ArrayList<>();
        for (int piece = segment.firstPiece(blob); piece < segment.firstPiece(blob + 1); piece++) {
            for (Declared declared : segment.declarations(piece)) {
                all.add(new Spot(segment, blob, declared, branchNumber, file));
            }
        }
        return all;
    }

    /**
     * The parts of a file that are not code: start and end in UTF-16 units, and 1 for a comment or 2 for a string, one
     * after the other.
     */
    public static int[] regions(View view, int branchNumber, int file) {
        Optional<View.Location> location = view.location(branchNumber, file);
        if (location.isEmpty()) {
            return new int[0];
        }
        SegmentReader segment = location.get().segment();
        int blob = location.get().blob();
        RegionCursor regions = new RegionCursor(segment);
        regions.begin(blob);
        int[] found = new int[96];
        int count = 0;
        int units = 0;
        for (long at = segment.start(blob); at < segment.end(blob); at = regions.end()) {
            Region region = regions.region(at);
            int length = Utf8.string(segment.content(), at, regions.end()).length();
            if (region != Region.CODE) {
                if (count > 0 && found[count - 2] == units && found[count - 1] == region.code()) {
                    found[count - 2] = units + length; // it goes on in the next piece
                } else {
                    found = count + 3 > found.length ? Arrays.copyOf(found, count * 2) : found;
                    found[count++] = units;
                    found[count++] = units + length;
                    found[count++] = region.code();
                }
            }
            units += length;
        }
        return Arrays.copyOf(found, count);
    }

    private static Symbol symbol(Spot spot, int depth) {
        SegmentReader segment = spot.segment();
        int blob = spot.blob();
        Declared declared = spot.declared();
        long lineStart = Lines.start(segment.content(), declared.nameStart(), segment.start(blob));
        return new Symbol(
                segment.name(declared),
                declared.kind(),
                segment.container(blob, declared),
                depth,
                segment.lineNumber(blob, declared.nameStart()),
                segment.lineNumber(blob, Math.max(declared.nameStart(), declared.end() - 1)),
                Utf8.string(segment.content(), lineStart, declared.nameStart()).length() + 1,
                Signature.of(segment, blob, declared));
    }
}
