package dev.oddbeacon.core.segment;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.text.CaseFolding;
import java.io.IOException;
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
    void namesForEachGramThePiecesThatHoldIt() throws IOException {
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
    void knowsLongLines() throws IOException {
        String line = "abcdefghijklmnopqrstuvwxyz0123456789".repeat(3_000);
        assertListsOf(List.of(
                line,
                line.substring(0, 16_383) + "é" + line,
                line.substring(0, 16_384) + "é" + line,
                line.substring(0, 16_385) + "\né\n" + line + "\nX"));
    }

    @Test
    void keepsManyPiecesOfOneGram() throws IOException {
        List<String> pieces = new ArrayList<>();
        for (int i = 0; i < 20_000; i++) {
            pieces.add(i % 3 == 0 ? "abc" : i % 1_000 == 1 ? "xyz" : "");
        }
        assertListsOf(pieces);
    }

    @Test
    void keepsPiecesThatAreFarFromOneAnother() throws IOException {
        byte[] text = "abc".getBytes(StandardCharsets.UTF_8);
        List<Integer> pieces = List.of(0, 14, 28, 43, 70_000, 70_001, PostingsBuilder.MOST_PIECES - 1);
        for (int piece : pieces) {
            builder.add(text, 0, text.length, piece);
        }
        assertThat(decoded()).isEqualTo(Map.of('a' << 16 | 'b' << 8 | 'c', pieces));
    }

    private void assertListsOf(List<String> pieces) throws IOException {
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
        assertThat(decoded()).isEqualTo(expected);
    }

    private Map<Integer, List<Integer>> decoded() throws IOException {
        Map<Integer, List<Integer>> result = new TreeMap<>();
        builder.forEach((gram, list, length) -> {
            List<Integer> pieces = new ArrayList<>();
            int piece = 0;
            for (int at = 0; at < length; ) {
                int gap = 0;
                int shift = 0;
                for (; list[at] < 0; shift += 7) {
                    gap |= (list[at++] & 0x7F) << shift;
                }
                piece += gap | list[at++] << shift;
                pieces.add(piece);
            }
            result.put(gram, pieces);
        });
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
