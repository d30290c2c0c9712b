package dev.oddbeacon.server.access;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.server.access.Cursor.Kind;
import dev.oddbeacon.server.access.Cursor.ViewId;
import dev.oddbeacon.server.web.BadRequestException;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.NullAndEmptySource;
import org.junit.jupiter.params.provider.ValueSource;

class CursorTest {
    @ParameterizedTest
    @EnumSource(Kind.class)
    void isReadAsItWasWritten(Kind kind) {
        Random random = new Random(11);
        for (int i = 0; i < 500; i++) {
            Cursor cursor = new Cursor(
                    kind,
                    new ViewId(random.nextLong(), random.nextInt(1_000), random.nextInt()),
                    (long) random.nextInt(5_000) << 32 | random.nextInt(90_000),
                    random.nextInt(Integer.MAX_VALUE));
            assertThat(Cursor.parse(kind, cursor.toString())).hasValue(cursor);
        }
    }

    @ParameterizedTest
    @NullAndEmptySource
    void nothingStandsForTheFirstPage(String text) {
        assertThat(Cursor.parse(Kind.LINES, text)).isEmpty();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "x",
                "1-2-3",
                "l-1-2-3-4",
                "l-1-2-3-4-5-6",
                "l-1--3-4-5",
                "l-1-2-3-4-!",
                "l-1-2-3-99999999999999999999-1",
                "l-1-2-3-4-zzzzzz",
                "q-1-2-3-4-5"
            })
    void anythingElseIsRefused(String text) {
        assertThatThrownBy(() -> Cursor.parse(Kind.LINES, text))
                .isInstanceOf(BadRequestException.class)
                .hasMessageContaining("none that this service handed out");
    }

    @Test
    void noSubjectTakesTheCursorOfAnother() {
        String ofFiles = new Cursor(Kind.FILES, new ViewId(1, 2, 3), 0, 100).toString();
        assertThatThrownBy(() -> Cursor.parse(Kind.LINES, ofFiles))
                .isInstanceOf(BadRequestException.class)
                .hasMessageContaining("another kind of search");
    }
}
