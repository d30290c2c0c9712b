package dev.oddbeacon.server.search;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.search.LineAnswer.Position;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CursorTest {
    @Test
    void isReadAsItWasWritten() {
        Cursor cursor = new Cursor(123_456, new Position(7L << 32 | 98_765, 4_321));
        assertThat(Cursor.parse(cursor.toString())).isEqualTo(cursor);
    }

    @ParameterizedTest
    @ValueSource(strings = {"x", "1-2", "1-2-3-4", "1--2", "1-2-!", "99999999999999999999-1-1"})
    void anythingElseIsRefused(String text) {
        assertThatThrownBy(() -> Cursor.parse(text)).isInstanceOf(IllegalArgumentException.class).hasMessageContaining("none that this service handed out");
    }
}
