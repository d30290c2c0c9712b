package dev.oddbeacon.server;

import java.nio.file.Path;
import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.util.unit.DataSize;

/**
 * What can be configured under {@code oddbeacon.}
 *
 * @param data the data folder
 * @param largestFile larger files are skipped
 * @param historyCommits how many commits of a repository are indexed, the newest ones
 * @param searchTime after which a search answers with what it has
 * @param warmUp whether to ask itself a few things after the start
 */
@ConfigurationProperties("oddbeacon")
public record Settings(Path data, DataSize largestFile, int historyCommits, Duration searchTime, boolean warmUp) {
    /** Files of the index. */
    public Path indexFolder() {
        return data.toAbsolutePath().resolve("index");
    }

    /** The mirror of a repository. */
    public Path mirror(long repositoryId) {
        return data.toAbsolutePath().resolve("mirrors").resolve(repositoryId + ".git");
    }
}
