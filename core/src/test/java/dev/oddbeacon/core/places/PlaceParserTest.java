package dev.oddbeacon.core.places;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlaceParserTest {
    private static List<String> places(String text) {
        return PlaceParser.parse(text, 1_000).stream()
                .map(place -> place.path() + " " + place.line() + " " + place.column())
                .toList();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "src/ring.c:48:12: error: expected ';'                       | src/ring.c 48 12",
                "src/ring.c:48: undefined reference to `x'                   | src/ring.c 48 0",
                "[ERROR] /w/berth/src/Planner.java:[48,12] cannot find symbol | /w/berth/src/Planner.java 48 12",
                "src/fare.ts(48,12): error TS2304: Cannot find name          | src/fare.ts 48 12",
                "  File \"tidewatch/surge.py\", line 48, in level              | tidewatch/surge.py 48 0",
                "\tat quillhaven.berth.plan.Planner.assign(Planner.java:48)  | quillhaven/berth/plan/Planner.java 48 0",
                "\tat app//quillhaven.berth.Planner$Slot.<init>(Planner.java:48) | quillhaven/berth/Planner.java 48 0",
                "    at fare (file:///w/app/src/fare.ts:48:12)               | /w/app/src/fare.ts 48 12",
                "  --> src/gate.rs:48:12                                     | src/gate.rs 48 12",
                "\t/w/fare-gate/internal/ticket/ticket.go:48 +0x1d           | /w/fare-gate/internal/ticket/ticket.go 48 0",
                "lib/board.rb:48:in `paint'                                  | lib/board.rb 48 0",
                "C:\\w\\deck\\board.cs:line 48                                | C:\\w\\deck\\board.cs 48 0",
                "PHP Warning: x in /w/site/index.php on line 48              | /w/site/index.php 48 0",
                "In file included from ./src/hull.h:48,                      | ./src/hull.h 48 0",
                "berth-planner/src/Main.java:48:9: void main()               | berth-planner/src/Main.java 48 9",
            })
    void readsTheFormsThatCompilersAndInterpretersWrite(String text, String place) {
        assertThat(places(text)).containsExactly(place);
    }

    @Test
    void timesAddressesAndVersionsAreNoPlaces() {
        assertThat(
                        places(
                                "2031-04-05 12:30:45 listening on http://127.0.0.1:7420/ with 10.2.3.4:80, version 1.2.3:4, ratio 3:4"))
                .isEmpty();
    }

    @Test
    void severalOnOneLineComeInItsOrder() {
        assertThat(places("first/a.c:1:2, then b.c:3; and \"c d.py\", line 5"))
                .containsExactly("first/a.c 1 2", "b.c 3 0", "c d.py 5 0");
    }

    @Test
    void saysWhereInTheTextAPlaceStands() {
        Place place = PlaceParser.parse("nothing\n  see a/b.c:7 there\n", 10).getFirst();
        assertThat(place.textLine()).isEqualTo(2);
        assertThat(place.text().substring(place.start(), place.end())).isEqualTo("a/b.c:7");
    }

    @Test
    void endsSoonOnHostileText() {
        Random random = new Random(5);
        StringBuilder text = new StringBuilder();
        String[] parts = {"a.b(", "(", ":", "1", "a/b.c", "\"", "line ", "'", "[", ",", ".x", "\\", "é", "\u0000", " "};
        for (int i = 0; i < 300_000; i++) {
            text.append(parts[random.nextInt(parts.length)]);
            if (random.nextInt(5_000) == 0) {
                text.append('\n');
            }
        }
        text.append('\n')
                .append("a.".repeat(100_000))
                .append('\n')
                .append("x".repeat(500_000))
                .append(":1");
        long start = System.nanoTime();
        PlaceParser.parse(text.toString(), 10_000);
        assertThat((System.nanoTime() - start) / 1e9).isLessThan(20);
    }
}
