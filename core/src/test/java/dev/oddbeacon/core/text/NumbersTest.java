package dev.oddbeacon.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NumbersTest {
    private static List<String> of(String line) {
        List<String> found = new ArrayList<>();
        Numbers.Scan scan = new Numbers.Scan(line);
        while (scan.next()) {
            found.add(line.substring(scan.start(), scan.end()) + "="
                    + scan.value().toPlainString());
        }
        return found;
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "berths = 42;                | 42=42",
                "depth(-3.5)                 | -3.5=-3.5",
                "a - 5, a-6, f()-7, [x]-8    | 5=5 6=6 7=7 8=8",
                "x = -9                      | -9=-9",
                "1_000_000 and 25_0          | 1_000_000=1000000 25_0=250",
                "0xFF, 0x1F_FF, 0b101        | 0xFF=255 0x1F_FF=8191 0b101=5",
                "2.5e3 1E-2 6e+1             | 2.5e3=2500 1E-2=0.01 6e+1=60",
                "12px 30ms 10L 4u64 7usize   | 12=12 30=30 10=10 4=4 7=7",
                "width: .5                   | .5=0.5",
                "1..10                       | 1=1 10=10",
                "007                         | 007=7",
                "2026-12-01                  | 2026=2026 12=12 01=1",
                "100%                        | 100=100",
                "99.                         | 99=99",
                "5e                          | 5=5",
            })
    void areRead(String line, String wanted) {
        assertThat(String.join(" ", of(line))).isEqualTo(wanted);
    }

    @ParameterizedTest
    @CsvSource({
        "pier7",
        "v2",
        "_8",
        "1.2.3",
        "10.0.0.1",
        "pair.1",
        "f().2",
        "a[i].3",
        "3fa94e1b77",
        "berth٣4",
        "--",
        "1e99999",
        "12345678901234567890123456789012345678901"
    })
    void areNotRead(String line) {
        assertThat(of(line)).isEmpty();
    }

    @Test
    void longRunsOfDigitsTakeNoLongTime() {
        String digits = "9".repeat(3_000_000);
        assertThat(of("0x" + digits + " " + digits + " 1." + digits + " 1e" + digits + " 7"))
                .containsExactly("7=7");
    }

    @Test
    void isAllOfAText() {
        assertThat(Numbers.parse("2.5e3").orElseThrow()).isEqualByComparingTo("2500");
        assertThat(Numbers.parse("-4").orElseThrow()).isEqualByComparingTo("-4");
        assertThat(Numbers.parse("4 ")).isEmpty();
        assertThat(Numbers.parse("4px")).isEmpty();
        assertThat(Numbers.parse("")).isEmpty();
        assertThat(Numbers.parse("four")).isEmpty();
    }
}
