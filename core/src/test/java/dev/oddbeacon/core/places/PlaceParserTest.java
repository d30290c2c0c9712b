package dev.oddbeacon.core.places;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import java.time.Duration;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
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

    /** The forms as regular expressions, which backtrack: what the parser must agree with on short lines. */
    private static final String PATH =
            "(?<path>(?:(?<![A-Za-z])[A-Za-z]:)?[^\\s\"'`<>|:*?()\\[\\]{},;=\\x00-\\x1f]{1,1000})";

    private static final String NUMBERS = "(?<line>[0-9]{1,8})(?:[:,.] ?(?<column>[0-9]{1,7}))?(?![0-9])";

    private static final List<Pattern> FORMS = Stream.of(
                    "(?<name>[\\p{L}_$][\\p{L}\\p{Nd}_$]*(?:\\.[\\p{L}_$<][\\p{L}\\p{Nd}_$<>]*)+)\\((?<path>[^\\s():]{1,200}):(?<line>[0-9]{1,8})(?<column>)\\)",
                    "[\"'](?<path>[^\"'\\x00-\\x1f]{1,1000})[\"'],? (?:on )?line (?<line>[0-9]{1,8})(?![0-9])(?:,? col(?:umn)? (?<column>[0-9]{1,7})(?![0-9]))?",
                    PATH + ":\\[" + NUMBERS + "\\]",
                    PATH + "\\(" + NUMBERS + "\\)",
                    PATH + ":" + NUMBERS,
                    PATH + "(?:, | on |: ?| )line " + NUMBERS)
            .map(Pattern::compile)
            .toList();

    private static List<String> byRegularExpressions(String line) {
        List<String> found = new ArrayList<>();
        BitSet claimed = new BitSet();
        for (Pattern form : FORMS) {
            Matcher matcher = form.matcher(line);
            while (matcher.find()) {
                String path = matcher.group("path");
                int taken = claimed.nextSetBit(matcher.start());
                if (PlaceParser.isPath(path.startsWith("///") ? path.substring(2) : path)
                        && (taken < 0 || taken >= matcher.end())) {
                    claimed.set(matcher.start(), matcher.end());
                    String column = matcher.group("column");
                    found.add(matcher.start() + "-" + matcher.end() + " " + Integer.parseInt(matcher.group("line"))
                            + " " + (column == null || column.isEmpty() ? 0 : Integer.parseInt(column)));
                }
            }
        }
        return found.stream().sorted().toList();
    }

    @Test
    void findsWhatTheFormsSayAsRegularExpressions() {
        Random random = new Random(7);
        String[] parts = {
            "a.b(",
            "(",
            ")",
            ":",
            "1",
            "48",
            "a/b.c",
            "c.d",
            "\"",
            " line ",
            "'",
            "[",
            "]",
            ",",
            ".x",
            "\\",
            "<",
            "$",
            "é",
            " on",
            "///",
            " ",
            "123456789",
            ", col 7",
            "C:",
            "Main.java",
            "9x"
        };
        for (int round = 0; round < 60_000; round++) {
            StringBuilder line = new StringBuilder();
            for (int i = random.nextInt(12); i >= 0; i--) {
                line.append(parts[random.nextInt(parts.length)]);
            }
            assertThat(PlaceParser.parse(line.toString(), 100).stream()
                            .map(place -> place.start() + "-" + place.end() + " " + place.line() + " " + place.column())
                            .sorted())
                    .as(line.toString())
                    .isEqualTo(byRegularExpressions(line.toString()));
        }
    }

    @Test
    void readsEachCharacterOfHostileTextAFewTimesOnly() {
        String[] hostile = {
            "a.".repeat(10_000) + "1",
            "a.".repeat(9_000) + "(1",
            "a.(b:1".repeat(3_000),
            "x".repeat(19_990) + ":1",
            "x ".repeat(9_000) + " line 1",
            "\"x".repeat(9_000) + "1",
            ":[1".repeat(6_000),
            "a/b.c:1 ".repeat(2_000)
        };
        String text = String.join("\n", hostile) + "\n";
        assertTimeoutPreemptively(Duration.ofSeconds(20), () -> PlaceParser.parse(text.repeat(40), Integer.MAX_VALUE));
    }
}
