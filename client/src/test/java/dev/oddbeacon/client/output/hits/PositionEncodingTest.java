package dev.oddbeacon.client.output.hits;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PositionEncodingTest {
    @ParameterizedTest
    @CsvSource({"utf-8,0,0", "utf-8,3,4", "utf-8,5,8", "utf-8,9,12", "utf-16,9,9", "utf-32,9,8", "utf-32,3,3"})
    void countsWhatItsNameSays(String label, int units, int place) {
        // ü is two bytes, the ferry four and two UTF-16 units
        assertThat(new PositionEncoding.Converter().convert(label).place("Gül\uD83D\uDEA2 bis 7", units))
                .isEqualTo(place);
    }
}
