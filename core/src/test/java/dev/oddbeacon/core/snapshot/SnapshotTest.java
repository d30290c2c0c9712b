package dev.oddbeacon.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.snapshot.SnapshotFile.Standing;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class SnapshotTest {
    @TempDir
    Path folder;

    @Test
    void readsBackWhatWasWrittenInTheOrderOfPaths() throws IOException {
        Random random = new Random(11);
        TreeSet<String> paths = new TreeSet<>();
        for (int i = 0; i < 300; i++) {
            paths.add("d" + random.nextInt(4) + "/é" + random.nextInt(5) + "/🚢" + random.nextInt(1_000)
                    + "x".repeat(random.nextInt(300)));
        }
        List<SnapshotFile> files = new ArrayList<>();
        paths.forEach(path -> files.add(new SnapshotFile(
                path,
                new ObjectId(random.nextLong(), random.nextLong(), random.nextInt()),
                Standing.values()[random.nextInt(Standing.values().length)],
                random.nextLong(1L << 40),
                random.nextInt(1_000),
                "type" + random.nextInt(40),
                random.nextInt(1 << 8))));
        Collections.shuffle(files, random);
        SnapshotWriter.write(folder.resolve("s"), "", files);
        files.sort((a, b) -> Arrays.compareUnsigned(
                a.path().getBytes(StandardCharsets.UTF_8), b.path().getBytes(StandardCharsets.UTF_8)));
        try (SnapshotReader reader = new SnapshotReader(folder.resolve("s"))) {
            assertThat(reader.count()).isEqualTo(files.size());
            List<String> told = new ArrayList<>();
            reader.forEachPath((path, number) -> told.add(path));
            for (int i = 0; i < files.size(); i++) {
                assertThat(reader.file(i)).isEqualTo(files.get(i));
                assertThat(reader.find(files.get(i).path())).hasValue(i);
                assertThat(told.get(i)).isEqualTo(files.get(i).path());
            }
            for (String start : List.of("", "d1", "d1/", "d1/é", "d1/é3/🚢9", "d9", "z")) {
                SnapshotReader.Range range = reader.startingWith(start);
                assertThat(range.to() - range.from()).isEqualTo((int)
                        told.stream().filter(path -> path.startsWith(start)).count());
                assertThat(told.subList(range.from(), range.to())).allMatch(path -> path.startsWith(start));
            }
            assertThat(reader.find("nowhere")).isEmpty();
            assertThat(reader.find("")).isEmpty();
        }
    }

    @Test
    void mayBeEmpty() throws IOException {
        SnapshotWriter.write(folder.resolve("s"), "", List.of());
        try (SnapshotReader reader = new SnapshotReader(folder.resolve("s"))) {
            assertThat(reader.count()).isZero();
            assertThat(reader.find("a")).isEmpty();
        }
    }
}
