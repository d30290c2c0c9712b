package dev.oddbeacon.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FilledTest {
    private static final String SENTENCE = "Berth 7 is taken by MS Heron until 14:30";

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '^',
            value = {
                "berth.taken=Berth {0} is taken by {1} until {2}          | Berth {0} is taken by {1} until {2}",
                "log.info(\"Berth {} is taken by {} until {}\", b, s, t);   | Berth {} is taken by {} until {}",
                "printf(\"Berth %d is taken by %s until %s\\n\", b);        | Berth %d is taken by %s until %s",
                "`Berth ${berth.id} is taken by ${ship} until ${end}`      | Berth ${berth.id} is taken by ${ship} until ${end}",
                "f\"Berth {b} is taken by {ship!r} until {end:%H:%M}\"      | Berth {b} is taken by {ship!r} until {end:%H:%M}",
                "\"Berth #{b} is taken by #{s} until #{t}\"                 | Berth #{b} is taken by #{s} until #{t}",
                "\"Berth \" + berth + \" is taken by \" + ship + \" until \" + end; | Berth \" + berth + \" is taken by \" + ship + \" until \" + end;",
                "\"Berth %(berth)s is taken by %(ship)s until %(end)s\"     | Berth %(berth)s is taken by %(ship)s until %(end)s",
                "\"Berth \\(berth) is taken by \\(ship) until \\(end)\"       | Berth \\(berth) is taken by \\(ship) until \\(end)",
                "{{berth}} is taken by {{ship}} until {{end}}              | {{berth}} is taken by {{ship}} until {{end}}",
                "Berth $1 is taken by $ship until 14:30                    | Berth $1 is taken by $ship until 14:30",
            })
    void isMadeFrom(String line, String expected) {
        Filled.Match match = new Filled(SENTENCE, false).in(line).orElseThrow();
        assertThat(line.substring(match.start(), match.end())).isEqualTo(expected);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '^',
            value = {
                "Berth 7 is taken by MS Heron until 14:30", // it has no room
                "Berth {0} is taken by {1", // it ends before
                "{0} {1} {2}",
                "Berth {0} was taken by {1} until {2}",
                "berth {0} is TAKEN by {1} until {2}",
                "is taken {}",
            })
    void isNotMadeFrom(String line) {
        assertThat(new Filled(SENTENCE, false).in(line)).isEmpty();
    }

    @Test
    void mayIgnoreCase() {
        assertThat(new Filled(SENTENCE, true).in("BERTH {0} IS TAKEN BY {1} UNTIL {2}"))
                .isPresent();
    }

    @Test
    void needsTwoWords() {
        assertThat(Filled.needed("Berth")).isEmpty();
        assertThat(Filled.needed("Berth 7 free")).containsExactly("Berth", "free");
        assertThat(Filled.needed("Berth 7 is free")).containsExactly("Berth 7", "7 is", "is free");
    }
}
