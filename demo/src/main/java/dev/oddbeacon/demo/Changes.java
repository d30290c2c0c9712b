package dev.oddbeacon.demo;

import java.io.IOException;
import java.io.OutputStream;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * Lets things happen to the demo while one looks: {@code Changes ADDRESS FOLDER}. Somebody pushes every 20 seconds, a
 * repository appears in the folder that a roster follows, and another cannot be reached for three minutes.
 */
public final class Changes {
    private static final long STEP_MILLIS = 20_000;
    private static final int APPEARS = 1; // step
    private static final int GOES = 2;
    private static final int COMES_BACK = 11;
    private static final List<String> SIGHTINGS = List.of(
            "Seals on the north mole, berth 2 delayed",
            "Fog bank off Tern Point, radar lookout doubled",
            "Swell under the linkspan, ramp raised early",
            "Driftwood by the fuel jetty, launch sent",
            "Gauge 4 reads 0.3 m high, checked by lead line");

    private final HttpClient http = HttpClient.newHttpClient();
    private final URI address;
    private final Path folder;

    private Changes(URI address, Path folder) {
        this.address = address;
        this.folder = folder;
    }

    public static void main(String[] arguments) throws IOException, InterruptedException {
        Changes changes = new Changes(URI.create(arguments[1]), Path.of(arguments[2]));
        if (arguments[0].equals("prepare")) {
            changes.prepare();
        } else {
            changes.run();
        }
    }

    /** Puts back what a run that was ended left away, and makes the folder that the roster follows. */
    private void prepare() throws IOException, InterruptedException {
        if (Files.exists(away())) {
            Files.move(away(), reachable());
        }
        appear("pilot-log", "Pilots write down what they saw");
    }

    private Path reachable() {
        return folder.resolve("deck-signs.git");
    }

    private Path away() {
        return folder.resolve("deck-signs.git.away");
    }

    private void run() throws IOException, InterruptedException {
        for (int step = 0; ; step++) {
            String sighting = SIGHTINGS.get(step % SIGHTINGS.size());
            commit(folder.resolve("tidewatch.git"), "logbook/watch-" + step + ".txt", sighting + "\n", sighting);
            if (step == APPEARS) {
                appear("buoy-register", "Every buoy, its light and its keeper");
            } else if (step == GOES) {
                Files.move(reachable(), away());
                refresh("deck-signs");
            } else if (step == COMES_BACK) {
                Files.move(away(), reachable());
            }
            Thread.sleep(STEP_MILLIS);
        }
    }

    private void appear(String name, String about) throws IOException, InterruptedException {
        Path repository = folder.resolve("roster").resolve(name + ".git");
        if (!Files.exists(repository)) {
            git(repository, "", "init", "-q", "--bare", "-b", "main", repository.toString());
            commit(repository, "README.md", "# " + name + "\n\n" + about + ".\n", "Begin");
        }
    }

    private static void commit(Path repository, String path, String text, String message)
            throws IOException, InterruptedException {
        boolean isFirst = Files.notExists(repository.resolve("refs/heads/main"))
                && Files.notExists(repository.resolve("packed-refs"));
        git(
                repository,
                """
                commit refs/heads/main
                committer Ione Marsh <ione@quillhaven.example> %d +0000
                data %d
                %s%s
                M 100644 inline %s
                data %d
                %s
                """.formatted(
                                System.currentTimeMillis() / 1_000,
                                message.getBytes(StandardCharsets.UTF_8).length,
                                message,
                                isFirst ? "" : "\nfrom refs/heads/main^0",
                                path,
                                text.getBytes(StandardCharsets.UTF_8).length,
                                text),
                "fast-import",
                "--quiet");
    }

    private static void git(Path repository, String input, String... arguments)
            throws IOException, InterruptedException {
        List<String> command = new java.util.ArrayList<>(List.of("git"));
        if (Files.exists(repository)) {
            command.add("--git-dir=" + repository);
        }
        command.addAll(List.of(arguments));
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        try (OutputStream in = process.getOutputStream()) {
            in.write(input.getBytes(StandardCharsets.UTF_8));
        }
        String out = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0) {
            throw new IOException(String.join(" ", command) + ": " + out);
        }
    }

    /** Where people sign in, following finds it out by itself, a little later. */
    private void refresh(String name) throws IOException, InterruptedException {
        http.send(
                HttpRequest.newBuilder(address.resolve("api/v1/repositories/" + name + "/refresh"))
                        .POST(HttpRequest.BodyPublishers.noBody())
                        .build(),
                HttpResponse.BodyHandlers.discarding());
    }
}
