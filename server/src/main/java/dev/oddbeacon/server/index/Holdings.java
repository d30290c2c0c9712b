package dev.oddbeacon.server.index;

import dev.oddbeacon.server.Settings;
import dev.oddbeacon.server.objects.SharedFiles;
import dev.oddbeacon.server.records.MachineRecords;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** What this machine has on its disk. */
@Component
public class Holdings {
    private final Path folder;
    private final Path mirrors;
    private final SharedFiles shared;
    private final LocalMirrors wanted;

    Holdings(Settings settings, SharedFiles shared, LocalMirrors wanted) {
        this.folder = settings.indexFolder();
        this.mirrors = settings.mirror(0).getParent();
        this.shared = shared;
        this.wanted = wanted;
    }

    public MachineRecords.Holdings now() {
        long[] bytes = {0};
        int files = count(folder, file -> bytes[0] += file.toFile().length());
        return new MachineRecords.Holdings(
                files,
                bytes[0],
                shared.missing(),
                shared.brought(),
                count(mirrors, _ -> {}),
                wanted.wanted().size());
    }

    private interface Each {
        void look(Path file);
    }

    private static int count(Path folder, Each each) {
        try (Stream<Path> files = Files.list(folder)) {
            return (int) files.peek(each::look).count();
        } catch (IOException e) {
            return 0; // nothing is there yet
        }
    }
}
