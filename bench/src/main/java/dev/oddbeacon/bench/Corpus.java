package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;

/** The source tree of Debian's package {@code linux-source-6.1}, as a packed Git repository with one commit. */
final class Corpus {
    private static final String PACKAGE = "linux-source-6.1";

    private Corpus() {}

    static void prepare(Path target, Path folder) throws IOException, InterruptedException {
        System.out.println("Preparing the corpus from Debian's package " + PACKAGE);
        Command.run(folder, "apt-get", "download", PACKAGE);
        try (Stream<Path> files = Files.list(folder)) {
            Path archive = files.filter(file -> file.getFileName().toString().startsWith(PACKAGE))
                    .findFirst()
                    .orElseThrow();
            Command.run(folder, "dpkg-deb", "-x", archive.toString(), "package");
            Files.delete(archive);
        }
        Command.run(folder, "tar", "xf", "package/usr/src/" + PACKAGE + ".tar.xz");
        Path tree = folder.resolve(PACKAGE);
        Command.git(tree, "init", "-q", "-b", "main", ".");
        Command.commit(tree, "import");
        Command.git(tree, "repack", "-adq");
        Files.move(folder.resolve(PACKAGE), target);
    }
}
