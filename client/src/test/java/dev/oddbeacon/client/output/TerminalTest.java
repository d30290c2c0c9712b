package dev.oddbeacon.client.output;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.api.LinesAnswer.Line;
import dev.oddbeacon.api.LinesAnswer.Match;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TerminalTest {
    @Test
    void nothingReachesTheTerminalThatItWouldObey() {
        assertThat(Terminal.clean("a\tb")).isEqualTo("a\tb");
        assertThat(Terminal.clean("\033[2J\r\n\u009b\u202E\u007F"))
                .isEqualTo("\u241B[2J\u240D\u240A\uFFFD\uFFFD\u2421");
    }

    @Test
    void matchesAreMarkedAlsoInTheMiddleOfALongLine() {
        Line line = new Line(1, "xx tern yy", 1_000, List.of(new Match(1_003, 1_007)), false);
        assertThat(MarkedText.of(new Terminal(Terminal.Color.ALWAYS), line))
                .isEqualTo("\u2026xx \033[1;38;5;172mtern\033[0m yy");
        assertThat(MarkedText.of(new Terminal(Terminal.Color.NEVER), line)).isEqualTo("\u2026xx tern yy");
    }

    @ParameterizedTest
    @CsvSource({"999, 999 B", "1000, 1.0 kB", "1300000000, 1.3 GB", "15000000, 15 MB"})
    void sizesAreDecimal(long bytes, String text) {
        assertThat(Amounts.bytes(bytes)).isEqualTo(text);
    }
}
