package dev.oddbeacon.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class ByteRunTest {
    private static final String[] SETS = {
        "a", "z", "_", "0123456789", "xyz", "ABCDEFGHIJKLMNOPQRSTUVWXYZ", "aeiou", "\u00e9\u00ff\u0080", "~!%"
    };

    private static BitSet set(String members) {
        BitSet set = new BitSet();
        members.chars().forEach(set::set);
        return set;
    }

    @Test
    void standsWhereALookAtEachPlaceFindsIt() {
        long seed = Long.getLong("oddbeacon.seed", 61L);
        System.out.println("ByteRunTest: seed " + seed);
        Random random = new Random(seed);
        int found = 0;
        for (int i = 0; i < 3_000; i++) {
            List<BitSet> wanted = IntStream.rangeClosed(0, random.nextInt(5))
                    .mapToObj(_ -> set(SETS[random.nextInt(SETS.length)]))
                    .toList();
            byte[] text = text(random, wanted);
            ByteRun.Part part = ByteRun.bestOf(wanted).orElse(null);
            if (part == null) {
                continue;
            }
            List<BitSet> run =
                    wanted.subList(part.start(), part.start() + part.run().length());
            int start = random.nextInt(20);
            int end = text.length - random.nextInt(20);
            List<Long> expected = new ArrayList<>();
            for (int at = start; at + run.size() <= end; at++) {
                int place = at;
                if (IntStream.range(0, run.size()).allMatch(k -> run.get(k).get(text[place + k] & 0xFF))) {
                    expected.add((long) at);
                }
            }
            assertThat(all(new VectorByteScan(), text, start, end, part.run()))
                    .as("seed %d, case %d", seed, i)
                    .isEqualTo(expected);
            assertThat(all(new PlainByteScan(), text, start, end, part.run()))
                    .as("seed %d, case %d, byte by byte", seed, i)
                    .isEqualTo(expected);
            found += expected.size();
        }
        assertThat(found).isGreaterThan(10_000);
    }

    private static List<Long> all(ByteScan scan, byte[] bytes, int start, int end, ByteRun run) {
        MemorySegment text = MemorySegment.ofArray(bytes);
        List<Long> found = new ArrayList<>();
        for (long at = scan.findRun(text, start, end, run); at >= 0; at = scan.findRun(text, at + 1, end, run)) {
            found.add(at);
        }
        return found;
    }

    /** Some hundred bytes in which the run stands now and then. */
    private static byte[] text(Random random, List<BitSet> run) {
        StringBuilder text = new StringBuilder();
        int length = 40 + random.nextInt(400);
        while (text.length() < length) {
            if (random.nextInt(6) == 0) {
                run.forEach(set -> text.append((char) set.stream()
                        .skip(random.nextInt(set.cardinality()))
                        .findFirst()
                        .orElseThrow()));
            } else {
                String members = SETS[random.nextInt(SETS.length)];
                text.append(members.charAt(random.nextInt(members.length())));
            }
        }
        return text.toString().getBytes(StandardCharsets.ISO_8859_1);
    }

    @Test
    void whatNearlyEveryTextHoldsIsNotWorthLookingFor() {
        assertThat(ByteRun.bestOf(List.of(set("etaoin shrdlu")))).isEmpty();
        assertThat(ByteRun.bestOf(List.of())).isEmpty();
        assertThat(ByteRun.bestOf(List.of(set("\n"), set("~")))
                        .orElseThrow()
                        .run()
                        .length())
                .isBetween(1, 2);
    }
}
