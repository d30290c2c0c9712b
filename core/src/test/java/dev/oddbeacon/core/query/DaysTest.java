package dev.oddbeacon.core.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class DaysTest {
    private static final Instant NOW = Instant.parse("2026-03-31T23:59:00Z");

    @ParameterizedTest
    @CsvSource({
        "2024-02-29, 2024-02-29",
        "2024-02, 2024-02-01",
        "2024, 2024-01-01",
        "' 2024 ', 2024-01-01",
        "0d, 2026-03-31",
        "3d, 2026-03-28",
        "2w, 2026-03-17",
        "1m, 2026-02-28",
        "1y, 2025-03-31"
    })
    void aDayBeginsAtMidnight(String day, String start) {
        assertThat(Days.start(day, NOW)).isEqualTo(Instant.parse(start + "T00:00:00Z"));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "yesterday", "2024-02-30", "2024-13", "99999d", "-1d", "2024/01/01", "2024-1-1"})
    void whatIsNoDayIsRefusedWithTheWaysToWriteOne(String day) {
        assertThatThrownBy(() -> Days.start(day, NOW))
                .isInstanceOf(InvalidQueryException.class)
                .hasMessageContaining("2026-01-31");
    }
}
