package dev.oddbeacon.core.query;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assertions.assertTimeoutPreemptively;

import dev.oddbeacon.core.source.Kind;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SymbolNameTest {
    @ParameterizedTest
    @CsvSource({
        "Berth.assign, Planner.Berth, true",
        "Berth::assign, Berth, true",
        "berth->assign, Planner.Berth, true",
        "Planner.Berth.assign, Berth, false",
        "B*.assign, Planner.Berth, true",
        "B?rth.assign, Berth, true",
        "b*.assign, Berth, true",
        "B*.assign, berth, false",
        "map[*].assign, map[x], true",
        "map[*].assign, mapx, false"
    })
    void whatItStandsInIsTakenFromTheEnd(String asked, String container, boolean isTaken) {
        assertThat(SymbolName.of(asked).takes(Kind.METHOD, container)).isEqualTo(isTaken);
    }

    @Test
    void manyStarsTakeNoLongerThanAFew() {
        SymbolName name = SymbolName.of("*a".repeat(40) + "zq.*");
        String container = "a".repeat(2_000);
        assertTimeoutPreemptively(
                Duration.ofSeconds(5),
                () -> assertThat(name.takes(Kind.METHOD, container)).isFalse());
    }
}
