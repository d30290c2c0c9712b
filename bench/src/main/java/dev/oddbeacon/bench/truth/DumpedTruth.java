package dev.oddbeacon.bench.truth;

import dev.oddbeacon.core.source.Region;
import java.io.BufferedReader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;

/**
 * Reads what the scripts in {@code bench/truth} write, which ask other compilers. Lines, their parts apart by tabs:
 * {@code F path}, then of that file {@code D name line}, with the line of its end and its container behind if they are known
 * ({@code -} for one that is not),
 * {@code R comment|string start end}, offsets in bytes, and {@code X first last} for lines of which nothing is told.
 */
final class DumpedTruth {
    private final BufferedReader in;
    private String line;

    DumpedTruth(BufferedReader in) throws IOException {
        this.in = in;
        this.line = in.readLine();
    }

    Optional<Truth> next() throws IOException {
        if (line == null) {
            return Optional.empty();
        }
        String path = line.substring(2);
        List<Truth.Declared> declared = new ArrayList<>();
        List<Truth.Span> regions = new ArrayList<>();
        BitSet untold = new BitSet();
        while ((line = in.readLine()) != null && !line.startsWith("F\t")) {
            String[] part = line.split("\t", -1);
            if (part[0].equals("D")) {
                declared.add(new Truth.Declared(
                        part[1],
                        Integer.parseInt(part[2]),
                        part.length > 3 && !part[3].equals("-")
                                ? OptionalInt.of(Integer.parseInt(part[3]))
                                : OptionalInt.empty(),
                        part.length > 4 && !part[4].equals("-") ? Optional.of(part[4]) : Optional.empty()));
            } else if (part[0].equals("X")) {
                untold.set(Integer.parseInt(part[1]), Integer.parseInt(part[2]) + 1);
            } else {
                regions.add(new Truth.Span(
                        part[1].equals("comment") ? Region.COMMENT : Region.STRING,
                        Integer.parseInt(part[2]),
                        Integer.parseInt(part[3])));
            }
        }
        return Optional.of(new Truth(path, declared, regions, untold));
    }
}
