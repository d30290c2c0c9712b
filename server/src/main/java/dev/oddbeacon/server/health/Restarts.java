package dev.oddbeacon.server.health;

import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.server.Settings;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.util.Optional;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/** Whether the service ended by itself before this start: whatever starts it again leaves a file that says so. */
@Component
class Restarts {
    private static final Logger LOG = LoggerFactory.getLogger(Restarts.class);
    private static final int LONGEST = 300;

    private final Optional<String> lastEnd;

    Restarts(Settings settings) {
        this.lastEnd = read(settings);
        lastEnd.ifPresent(LOG::warn);
    }

    private static Optional<String> read(Settings settings) {
        try {
            String text = Files.readString(settings.data().resolve("ended")).strip();
            return text.isEmpty()
                    ? Optional.empty()
                    : Optional.of(Visible.escaped(text.substring(0, Math.min(LONGEST, text.length()))));
        } catch (NoSuchFileException e) {
            return Optional.empty();
        } catch (IOException e) {
            return Optional.of("The file \"ended\" in the data folder cannot be read: " + e.getMessage());
        }
    }

    /** What the file says, in words. */
    Optional<String> lastEnd() {
        return lastEnd;
    }
}
