package dev.oddbeacon.core.segment;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.text.CaseFolding;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.junit.jupiter.api.Test;

class PostingsBuilderTest {
    private static final String[] PARTS = {
        "a", "B", "_", " ", "\n", "\n\n", "\0", "é", "É", "İ", "\u212A", "ß", "漢", "𝔄", "foo", "FOO bar", "zq", "\t",
        "\u007f"
    };
    private final PostingsBuilder builder = new PostingsBuilder();

    @Test
    void namesForEachGramThePiecesThatHoldIt() {
        long seed = Long.getLong("oddbeacon.seed", 41L);
        System.out.println("PostingsBuilderTest: seed " + seed);
        Random random = new Random(seed);
        for (int round = 0; round < 60; round++) {
            List<String> pieces = new ArrayList<>();
            for (int i = 0; i <= random.nextInt(40); i++) {
                pieces.add(text(random, round % 10 == 0 ? 30_000 : random.nextInt(300)));
            }
            assertListsOf(pieces);
        }
    }

    /** Longer than what is looked at at once, with and without characters beyond ASCII near the borders. */
    @Test
    void knowsLongLines() {
        String line = "abcdefghijklmnopqrstuvwxyz0123456789".repeat(3_000);
        assertListsOf(List.of(
                line,
                line.substring(0, 16_383) + "é" + line,
                line.substring(0, 16_384) + "é" + line,
                line.substring(0, 16_385) + "\né\n" + line + "\nX"));
    }

    @Test
    void keepsManyPiecesOfOneGram() {
        List<String> pieces = new ArrayList<>();
        for (int i = 0; i < 3_000; i++) {
            pieces.add(i % 3 == 0 ? "abc" : i % 1_000 == 1 ? "xyz" : "");
        }
        assertListsOf(pieces);
    }

    private void assertListsOf(List<String> pieces) {
        Map<Integer, List<Integer>> expected = new TreeMap<>();
        builder.clear();
        for (int piece = 0; piece < pieces.size(); piece++) {
            byte[] text = ("before\n" + pieces.get(piece)).getBytes(StandardCharsets.UTF_8);
            builder.add(text, 7, text.length, piece);
            for (String line : pieces.get(piece).split("\n")) {
                byte[] folded = line.codePoints()
                        .map(CaseFolding::fold)
                        .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                        .toString()
                        .getBytes(StandardCharsets.UTF_8);
                for (int gram : Grams.of(folded)) {
                    List<Integer> list = expected.computeIfAbsent(gram, _ -> new ArrayList<>());
                    if (list.isEmpty() || list.getLast() != piece) {
                        list.add(piece);
                    }
                }
            }
        }
        assertThat(decoded(builder.lists())).isEqualTo(expected);
    }

    private static Map<Integer, List<Integer>> decoded(PostingsBuilder.Lists lists) {
        Map<Integer, List<Integer>> result = new TreeMap<>();
        int at = 0;
        for (int i = 0; i < lists.count(); i++) {
            List<Integer> pieces = new ArrayList<>();
            int piece = 0;
            while (at < lists.ends()[i]) {
                int gap = 0;
                int shift = 0;
                for (; lists.postings()[at] < 0; shift += 7) {
                    gap |= (lists.postings()[at++] & 0x7F) << shift;
                }
                piece += gap | lists.postings()[at++] << shift;
                pieces.add(piece);
            }
            result.put(lists.grams()[i], pieces);
        }
        return result;
    }

    private static String text(Random random, int length) {
        StringBuilder text = new StringBuilder();
        while (text.length() < length) {
            text.append(PARTS[random.nextInt(PARTS.length)]);
        }
        return text.toString();
    }
}
