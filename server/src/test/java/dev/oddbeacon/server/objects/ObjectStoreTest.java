package dev.oddbeacon.server.objects;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.objects.ObjectStore.Stored;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** A bucket and a folder do the same. */
class ObjectStoreTest {
    private static final int PART = 5 << 20; // the least that the protocol allows

    @TempDir
    private static Path folder;

    private static StandInStore standIn;

    @BeforeAll
    static void start() throws IOException {
        standIn = new StandInStore(Files.createDirectory(folder.resolve("stand-in")));
        Files.createDirectory(folder.resolve("shared"));
    }

    @AfterAll
    static void stop() {
        standIn.close();
    }

    static Stream<ObjectStore> stores() throws IOException {
        return Stream.of(new S3Store(standIn.settings(), PART), new FolderStore(folder.resolve("shared")));
    }

    private static Path file(String name, int length, int seed) throws IOException {
        byte[] bytes = new byte[length];
        new Random(seed).nextBytes(bytes);
        Path file = Files.createDirectories(folder.resolve("files")).resolve(name);
        return Files.write(file, bytes);
    }

    @ParameterizedTest
    @MethodSource("stores")
    void whatIsPutThereComesBackAsItWas(ObjectStore store) throws IOException {
        for (int length : new int[] {0, 1, 70_000, PART, PART + 1, 2 * PART, 3 * PART - 1}) {
            Path file = file("length-" + length, length, length);
            store.put(file);
            Path fetched = folder.resolve("fetched");
            Files.writeString(fetched, "what was there before");
            store.fetch("length-" + length, fetched);
            assertThat(Files.mismatch(file, fetched)).as("%s bytes", length).isEqualTo(-1);
            assertThat(store.list()).contains(new Stored("length-" + length, length));
            store.delete("length-" + length);
        }
        assertThat(store.list()).isEmpty();
        store.delete("never-there");
    }

    @ParameterizedTest
    @MethodSource("stores")
    void nothingIsWrittenOver(ObjectStore store) throws IOException {
        for (int length : new int[] {100, PART + 100}) {
            Path first = file("once-" + length, length, 1);
            byte[] before = Files.readAllBytes(first);
            store.put(first);
            store.put(file("once-" + length, length, 2));
            Path fetched = folder.resolve("fetched-once");
            store.fetch("once-" + length, fetched);
            assertThat(fetched).hasBinaryContent(before);
            store.delete("once-" + length);
        }
    }

    @ParameterizedTest
    @MethodSource("stores")
    void whatIsNotThereIsTold(ObjectStore store) {
        assertThatThrownBy(() -> store.fetch("nothing", folder.resolve("nothing")))
                .isInstanceOf(NoSuchFileException.class);
    }

    @Test
    void aStoreThatRefusesOrIsGoneIsNoEmptyStore() throws IOException {
        Settings.Cluster right = standIn.settings();
        Settings.Cluster.S3 s3 = right.s3();
        S3Store wrong = new S3Store(new Settings.Cluster(
                "ferries",
                "one",
                "",
                right.objects(),
                new Settings.Cluster.S3(s3.endpoint(), s3.region(), s3.key(), "guessed"),
                right.grace(),
                right.shareAfter()));
        assertThatThrownBy(wrong::list).isInstanceOf(IOException.class);
        assertThatThrownBy(() -> wrong.fetch("any", folder.resolve("any")))
                .isInstanceOf(IOException.class)
                .isNotInstanceOf(NoSuchFileException.class);
        S3Store none = new S3Store(new Settings.Cluster(
                "ferries", "one", "", "s3://harbours/index", s3, right.grace(), right.shareAfter()));
        assertThatThrownBy(none::list).isInstanceOf(IOException.class);

        Path gone = Files.createDirectory(folder.resolve("gone"));
        FolderStore unmounted = new FolderStore(gone);
        Files.delete(gone);
        assertThatThrownBy(unmounted::list).isInstanceOf(IOException.class);
        assertThatThrownBy(() -> unmounted.fetch("any", folder.resolve("any")))
                .isInstanceOf(IOException.class)
                .isNotInstanceOf(NoSuchFileException.class);
        assertThatThrownBy(() -> unmounted.put(file("any", 10, 1))).isInstanceOf(IOException.class);
        assertThat(gone).as("where nothing is mounted, nothing is written").doesNotExist();
    }
}
