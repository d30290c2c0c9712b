package dev.oddbeacon.core.ingest;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.segment.Blobs;
import dev.oddbeacon.core.segment.NewFiles;
import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.ViewBuilder;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Random;
import java.util.function.ToLongFunction;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Large files in which nothing repeats, such as keys and pictures written as letters, fit into memory. */
class NoisyFilesTest {
    private static final int FILES = 6;
    private static final int BYTES = 9 << 20; // before they are written as letters

    @Test
    void aRepositoryOfNoiseIsIndexedInASmallHeap(@TempDir Path folder) throws Exception {
        Process process = new ProcessBuilder(
                        Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                        "--add-modules=jdk.incubator.vector",
                        "-Xmx256m",
                        "-XX:+ExitOnOutOfMemoryError",
                        "-cp",
                        System.getProperty("java.class.path"),
                        Indexing.class.getName(),
                        folder.toString())
                .redirectErrorStream(true)
                .start();
        String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(process.waitFor()).as(output).isZero();
        assertThat(output).contains(FILES + " files searched");
    }

    /** What the test runs in a process of its own. */
    static final class Indexing {
        public static void main(String[] arguments) throws IOException {
            Ingest.Ingested done = new Ingest(NewFiles.in(Path.of(arguments[0])), 32 << 20, 2, "")
                    .run(new Noise(), ViewBuilder.empty(), new IngestProgress(), () -> false);
            System.out.println(done.files() - done.skipped() + " files searched");
        }
    }

    private static final class Noise implements SourceTree {
        @Override
        public List<Entry> entries(ToLongFunction<ObjectId> knownBytes) {
            List<Entry> entries = new ArrayList<>();
            for (int i = 0; i < FILES; i++) {
                entries.add(new Entry("noise" + i + ".txt", new ObjectId(i + 1, 0, 0), Kind.FILE, BYTES * 4L / 3));
            }
            return entries;
        }

        @Override
        public Blobs blobs() {
            return new Blobs() {
                @Override
                public byte[] read(ObjectId id) {
                    byte[] noise = new byte[BYTES];
                    new Random(id.hashCode()).nextBytes(noise);
                    return Base64.getMimeEncoder().encode(noise);
                }

                @Override
                public void close() {}
            };
        }
    }
}
