package dev.oddbeacon.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.text.CaseFolding;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FileNamesTest {
    private static final String[] PARTS = {"tide", "Tide", "ÄRGER", "ß", ".", "_", "chart", "x", "潮", "/", "/", "."};

    @TempDir
    Path folder;

    @Test
    void namesAreToldAsANaiveLookTellsThem() throws IOException {
        Random random = new Random(20_261_201);
        MemoryTree tree = new MemoryTree();
        for (int i = 0; i < 500; i++) {
            StringBuilder path = new StringBuilder("f" + i);
            for (int part = random.nextInt(8); part > 0; part--) {
                path.append(PARTS[random.nextInt(PARTS.length)]);
            }
            tree.file((path + "end").replace("//", "/a/").replace("//", "/").replace("/./", "/.a/"), new byte[0]);
        }
        try (Library library = new Library(folder)) {
            library.add("r", tree);
            SnapshotReader snapshot = library.view().snapshot(0);
            FileNames names = snapshot.fileNames();
            for (int file = 0; file < snapshot.count(); file++) {
                String path = snapshot.path(file);
                String name = path.substring(path.lastIndexOf('/') + 1);
                String folded = folded(name);
                assertThat(names.depth(file))
                        .isEqualTo((int) path.chars().filter(c -> c == '/').count());
                String text = random.nextBoolean()
                        ? folded.substring(random.nextInt(folded.length()))
                        : folded(PARTS[random.nextInt(3)] + PARTS[random.nextInt(PARTS.length)]);
                assertThat(names.match(file, text.getBytes(StandardCharsets.UTF_8)))
                        .as(path + " by " + text)
                        .isEqualTo(
                                folded.equals(text) || folded.startsWith(text + ".")
                                        ? FileNames.Match.IS
                                        : folded.contains(text) ? FileNames.Match.HOLDS : FileNames.Match.NONE);
            }
        }
    }

    @Test
    void severalWordsAreToldWhateverSeparatesThem() throws IOException {
        try (Library library = new Library(folder)) {
            library.add(
                    "r",
                    new MemoryTree()
                            .file("MooringBuffer.java", new byte[0])
                            .file("a/mooring-buffer.md", new byte[0])
                            .file("a/my_mooring_buffers", new byte[0])
                            .file("b/mooring.buffer", new byte[0])
                            .file("b/mooringsbuffer", new byte[0])
                            .file("mooringbuffer/x", new byte[0]));
            SnapshotReader snapshot = library.view().snapshot(0);
            byte[] words = "mooringbuffer".getBytes(StandardCharsets.UTF_8);
            assertThat(IntStream.range(0, snapshot.count())
                            .mapToObj(file -> snapshot.path(file) + " "
                                    + snapshot.fileNames().matchWords(file, words)))
                    .containsExactly(
                            "MooringBuffer.java IS",
                            "a/mooring-buffer.md IS",
                            "a/my_mooring_buffers HOLDS",
                            "b/mooring.buffer NONE",
                            "b/mooringsbuffer NONE",
                            "mooringbuffer/x NONE");
        }
    }

    private static String folded(String text) {
        int[] folded = CaseFolding.fold(text);
        return new String(folded, 0, folded.length);
    }
}
