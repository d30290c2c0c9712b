package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A little of what {@code bench --only torture} does for hours. */
class TortureTest {
    @TempDir
    private Path folder;

    @Test
    void whateverIsDoneToItsProcessesAndFilesTheAnswersAreThoseOfAScan() throws IOException, InterruptedException {
        Path output = folder.resolve("output");
        ProcessBuilder builder = new ProcessBuilder(List.of(
                        "sh",
                        Launched.HOME.resolve("oddbeacon").toString(),
                        "bench",
                        "--only",
                        "torture",
                        "--minutes",
                        "1",
                        "--seed",
                        "20261129",
                        "--data",
                        folder.toString()))
                .redirectErrorStream(true)
                .redirectOutput(output.toFile())
                .redirectInput(new File("/dev/null"));
        Launched.environment(builder.environment());
        Process process = builder.start();
        if (!process.waitFor(8, TimeUnit.MINUTES)) {
            process.descendants().forEach(ProcessHandle::destroyForcibly);
            process.destroyForcibly();
        }
        assertThat(process.waitFor()).as(Files.readString(output)).isZero();
        assertThat(Files.readString(output)).contains("| answers after a blow | [] | as a scan finds | met |");
    }
}
