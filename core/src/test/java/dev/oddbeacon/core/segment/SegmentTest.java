package dev.oddbeacon.core.segment;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.text.TextDecoder;
import dev.oddbeacon.core.text.Utf8;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SegmentTest {
    private static final String LONG = ("a line about terns\n".repeat(5_000) + "the last, about puffins\n").repeat(2);

    @TempDir
    Path folder;

    private Path write() throws IOException {
        try (SegmentWriter writer = new SegmentWriter.Workshop().open(folder.resolve("one.segment"), "")) {
            writer.addText(
                    id(3),
                    6,
                    new TextDecoder.Text("first\n".getBytes(StandardCharsets.UTF_8), TextDecoder.Encoding.UTF_8),
                    _ -> Optional.empty());
            writer.addBinary(id(1), 99);
            writer.addText(
                    id(4), 0, new TextDecoder.Text(new byte[0], TextDecoder.Encoding.UTF_8), _ -> Optional.empty());
            writer.addText(
                    id(2),
                    LONG.length(),
                    new TextDecoder.Text(LONG.getBytes(StandardCharsets.UTF_8), TextDecoder.Encoding.LATIN_1),
                    _ -> Optional.empty());
            return writer.finish();
        }
    }

    private static ObjectId id(int number) {
        return ObjectId.of(String.format("%040x", number));
    }

    private static int[] pieces(SegmentReader reader, String text) {
        int list = reader.grams().list(Grams.of(text.getBytes(StandardCharsets.UTF_8))[0]);
        return list < 0 ? new int[0] : reader.grams().pieces(list);
    }

    @Test
    void readsBackWhatWasWritten() throws IOException {
        try (SegmentReader reader = new SegmentReader(write())) {
            assertThat(reader.blobCount()).isEqualTo(4);
            int large = reader.find(id(2));
            assertThat(reader.id(large)).isEqualTo(id(2));
            assertThat(reader.encoding(large)).isEqualTo(TextDecoder.Encoding.LATIN_1);
            assertThat(reader.lines(large)).isEqualTo(10_002);
            assertThat(Utf8.string(reader.content(), reader.start(large), reader.end(large)))
                    .isEqualTo(LONG);
            assertThat(reader.state(reader.find(id(1)))).isEqualTo(BlobState.BINARY);
            assertThat(reader.fileBytes(reader.find(id(1)))).isEqualTo(99);
            assertThat(reader.start(reader.find(id(4)))).isEqualTo(reader.end(reader.find(id(4))));
            assertThat(reader.find(id(7))).isEqualTo(-1);
            reader.verify();
        }
    }

    @Test
    void cutsLargeBlobsIntoPiecesOfWholeLines() throws IOException {
        try (SegmentReader reader = new SegmentReader(write())) {
            assertThat(reader.pieceCount()).isGreaterThan(3);
            for (int piece = reader.firstPiece(3) + 1; piece < reader.pieceCount(); piece++) {
                assertThat(Utf8.string(reader.content(), reader.pieceStart(piece) - 1, reader.pieceStart(piece)))
                        .isEqualTo("\n");
            }
            assertThat(pieces(reader, "puf"))
                    .as("a rare text names pieces, not the blob")
                    .hasSize(2);
            assertThat(pieces(reader, "ter")).hasSize(reader.firstPiece(4) - reader.firstPiece(3));
            assertThat(pieces(reader, "xyz")).isEmpty();
        }
    }

    @Test
    void knowsTheNumberOfALine() throws IOException {
        try (SegmentReader reader = new SegmentReader(write())) {
            int large = reader.find(id(2));
            int offset = LONG.lastIndexOf("the last");
            assertThat(reader.lineNumber(large, reader.start(large) + offset)).isEqualTo(10_002);
            assertThat(reader.lineNumber(large, reader.start(large))).isEqualTo(1);
        }
    }

    @Test
    void aDamagedFileIsSaidByName() throws IOException {
        Path file = write();
        byte[] bytes = Files.readAllBytes(file);
        for (int at : new int[] {3, 20, bytes.length - 3}) {
            byte[] damaged = bytes.clone();
            damaged[at] ^= 0x20;
            Files.write(file, damaged);
            assertThatThrownBy(() -> new SegmentReader(file))
                    .isInstanceOf(DamagedFileException.class)
                    .hasMessageContaining("one.segment");
        }
        Files.write(file, Arrays.copyOf(bytes, bytes.length / 2));
        assertThatThrownBy(() -> new SegmentReader(file)).isInstanceOf(DamagedFileException.class);
        byte[] text = bytes.clone();
        text[SectionFile.headerBytes(SegmentWriter.ABOUT) + 16] ^= 1;
        Files.write(file, text);
        try (SegmentReader reader = new SegmentReader(file)) {
            assertThatThrownBy(reader::verify).isInstanceOf(DamagedFileException.class);
        }
    }

    @Test
    void nothingOfTheFinalNameExistsBeforeItIsWhole() throws IOException {
        try (SegmentWriter writer = new SegmentWriter.Workshop().open(folder.resolve("half.segment"), "")) {
            writer.addBinary(id(1), 1);
        }
        assertThat(folder).isEmptyDirectory();
    }
}
