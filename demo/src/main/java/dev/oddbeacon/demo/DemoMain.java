package dev.oddbeacon.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;

/**
 * Builds the demo repositories: {@code DemoMain SOURCE TARGET}; TARGET then holds them and the list to register them
 * with.
 */
public final class DemoMain {
    private DemoMain() {}

    public static void main(String[] arguments) throws IOException {
        build(Path.of(arguments[0]), Path.of(arguments[1]));
    }

    /** @return the list, as {@code repos add --from} takes it */
    public static Path build(Path source, Path target) throws IOException {
        Files.createDirectories(target);
        List<String> list = new ArrayList<>();
        try (Stream<Path> folders = Files.list(source)) {
            for (Path folder : folders.filter(Files::isDirectory).sorted().toList()) {
                String name = folder.getFileName().toString();
                RepositoryBuilder builder = new RepositoryBuilder(folder);
                builder.build(target.resolve(name + ".git"));
                list.add(String.join(
                        "\t",
                        name,
                        name + ".git",
                        builder.chronicle().title(),
                        String.join(",", builder.chronicle().labels()),
                        String.join(",", builder.chronicle().branches())));
            }
        }
        return Files.write(target.resolve("repositories.tsv"), list);
    }
}
