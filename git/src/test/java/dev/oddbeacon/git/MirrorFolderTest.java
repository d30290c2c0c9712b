package dev.oddbeacon.git;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class MirrorFolderTest {
    @TempDir
    private Path folder;

    @Test
    void goesThoughSomethingStillWritesThereForAMoment() throws Exception {
        Path packs = Files.createDirectories(folder.resolve("7.git/objects/pack"));
        CountDownLatch writing = new CountDownLatch(20);
        Thread writer = Thread.ofPlatform().start(() -> {
            long end = System.nanoTime() + 1_000_000_000L;
            for (int i = 0; System.nanoTime() < end; i++) {
                try {
                    Files.write(packs.resolve("tmp_pack_" + i), new byte[10]);
                } catch (IOException e) {
                    // it is being deleted
                }
                writing.countDown();
            }
        });
        writing.await();
        MirrorFolder.delete(folder.resolve("7.git"));
        writer.join();
        assertThat(folder).isEmptyDirectory();
    }

    @Test
    void hasTheSizeOfItsObjects() throws IOException {
        Path objects = Files.createDirectories(folder.resolve("7.git/objects/ab"));
        Files.write(objects.resolve("one"), new byte[1_000]);
        Files.write(folder.resolve("7.git/config"), new byte[50]);
        assertThat(MirrorFolder.bytes(folder.resolve("7.git"))).isEqualTo(1_000);
        assertThat(MirrorFolder.bytes(folder.resolve("none"))).isZero();
    }
}
