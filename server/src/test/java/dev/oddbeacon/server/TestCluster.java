package dev.oddbeacon.server;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.stream.StreamSupport;
import tools.jackson.databind.JsonNode;

/** Several machines, each with a data folder of its own, on the same records and a folder that they share. */
public final class TestCluster {
    private static final String KEY = "MDEyMzQ1Njc4OWFiY2RlZjAxMjM0NTY3ODlhYmNkZWY=";

    private final Path folder;
    private final List<String> database = Database.shared().create();
    private final Path objects;

    /** @param folder for data folders, repositories and objects */
    public TestCluster(Path folder) {
        this.folder = folder;
        this.objects = folder.resolve("objects");
        try {
            Files.createDirectory(objects);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Arguments that name the database. */
    public List<String> database() {
        return database;
    }

    /** What the machines share. */
    public Path objects() {
        return objects;
    }

    /** The data folder of a machine. */
    public Path data(String machine) {
        return folder.resolve(machine);
    }

    /** Starts a machine, which encrypts with the same key as the others unless it has another. */
    public TestService start(String machine, String... more) {
        try {
            Path key = Files.createDirectories(data(machine)).resolve("secret-key");
            if (!Files.exists(key)) {
                Files.writeString(key, KEY);
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        List<String> arguments = new ArrayList<>(List.of(more));
        for (String usual : List.of(
                "--oddbeacon.cluster.name=ferries",
                "--oddbeacon.cluster.machine=" + machine,
                "--oddbeacon.cluster.objects=" + objects)) {
            String name = usual.substring(0, usual.indexOf('=') + 1);
            if (arguments.stream().noneMatch(argument -> argument.startsWith(name))) {
                arguments.add(usual);
            }
        }
        return TestService.start(database, data(machine), arguments.toArray(String[]::new));
    }

    /** A repository with one file, {@code log.txt}. */
    public TestRepository repository(String name, String text) throws IOException {
        return TestRepository.create(folder.resolve("repositories").resolve(name))
                .write("log.txt", text)
                .commit("First of " + name);
    }

    /** Names of the objects that there are. */
    public Set<String> stored() {
        return files(objects);
    }

    /** Names of the files of a folder. */
    public static Set<String> files(Path folder) {
        try (Stream<Path> files = Files.list(folder)) {
            return files.map(file -> file.getFileName().toString()).collect(Collectors.toSet());
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Whether each of some machines reaches all of them. */
    public static boolean reachOneAnother(TestService... machines) {
        return Arrays.stream(machines).allMatch(machine -> {
            JsonNode list = machine.get("/api/v1/machines").json().path("machines");
            return list.size() == machines.length
                    && StreamSupport.stream(list.spliterator(), false)
                            .allMatch(one -> one.path("isReached").asBoolean());
        });
    }

    /** How many lines a machine finds. */
    public static int hits(TestService machine, String text) {
        return machine.get("/api/v1/search/lines", "q", text, "counts", "exact")
                .json()
                .path("counts")
                .path("hits")
                .asInt();
    }
}
