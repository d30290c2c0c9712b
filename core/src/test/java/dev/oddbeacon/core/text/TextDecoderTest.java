package dev.oddbeacon.core.text;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.text.TextDecoder.Encoding;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;

class TextDecoderTest {
    private static String text(byte[] file, Encoding expected) {
        TextDecoder.Text decoded = TextDecoder.decode(file).orElseThrow();
        assertThat(decoded.encoding()).isEqualTo(expected);
        return new String(decoded.utf8(), StandardCharsets.UTF_8);
    }

    @Test
    void readsUtf8WithAndWithoutAMark() {
        assertThat(text("Käse €".getBytes(StandardCharsets.UTF_8), Encoding.UTF_8))
                .isEqualTo("Käse €");
        assertThat(text("\uFEFFKäse".getBytes(StandardCharsets.UTF_8), Encoding.UTF_8))
                .isEqualTo("Käse");
    }

    @Test
    void readsUtf16WithAMark() {
        assertThat(text("\uFEFFlow – beam\r\n".getBytes(StandardCharsets.UTF_16LE), Encoding.UTF_16LE))
                .isEqualTo("low – beam\n");
        assertThat(text("\uFEFF🚢".getBytes(StandardCharsets.UTF_16BE), Encoding.UTF_16BE))
                .isEqualTo("🚢");
    }

    @Test
    void readsEverythingElseAsLatin1SoThatNothingIsLost() {
        assertThat(text("Café".getBytes(StandardCharsets.ISO_8859_1), Encoding.LATIN_1))
                .isEqualTo("Café");
    }

    @Test
    void aNulNearTheStartMeansBinaryButNotFarBehind() {
        assertThat(TextDecoder.decode(new byte[] {'a', 0, 'b'})).isEmpty();
        assertThat(TextDecoder.decode(("a".repeat(8_000) + "\0").getBytes(StandardCharsets.US_ASCII)))
                .isPresent();
        assertThat(TextDecoder.decode(new byte[] {(byte) 0xFF, (byte) 0xFE, 0, 0, 'a', 0, 0, 0}))
                .isEmpty();
    }

    @Test
    void aCarriageReturnBeforeALineFeedIsNotText() {
        assertThat(text("a\r\nb\rc\r\r\n".getBytes(StandardCharsets.UTF_8), Encoding.UTF_8))
                .isEqualTo("a\nb\rc\r\n");
    }

    @Test
    void knowsWellFormedUtf8AsTheJdkDoes() {
        Random random = new Random(3);
        int[] interesting = {
            'a', 0x7F, 0x80, 0xBF, 0xC0, 0xC2, 0xDF, 0xE0, 0xA0, 0x9F, 0xED, 0xEF, 0xF0, 0x90, 0x8F, 0xF4, 0xF5, 0xFF
        };
        for (int round = 0; round < 50_000; round++) {
            byte[] bytes = new byte[1 + random.nextInt(5)];
            for (int i = 0; i < bytes.length; i++) {
                bytes[i] = (byte) interesting[random.nextInt(interesting.length)];
            }
            assertThat(Utf8.isValid(bytes, 0, bytes.length))
                    .as(java.util.HexFormat.of().formatHex(bytes))
                    .isEqualTo(jdkAccepts(bytes));
        }
    }

    private static boolean jdkAccepts(byte[] bytes) {
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes));
            return true;
        } catch (CharacterCodingException e) {
            return false;
        }
    }
}
