package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;

/**
 * What it costs that people sign in, and whether time tells of what they do not see: three services with the same
 * repositories, one without accounts, one with, one with as many hidden ones beside them, asked in turn.
 */
final class Team {
    private static final int REPOSITORIES = 300;
    private static final int FILES_IN_EACH = 20;
    private static final int TEAMS = 200;
    private static final int WARM = 2_000; // three services share the machine, and each compiles itself as it goes
    private static final int ANSWERS = 200;

    private Team() {}

    static void measure(Path launcher, Path source, Path folder, Table table) throws IOException, InterruptedException {
        Generated generated = new Generated(source);
        List<String> files = generated.spread(2 * REPOSITORIES * FILES_IN_EACH);
        Path code = folder.resolve("code");
        List<Path> repositories = new ArrayList<>();
        for (int i = 0; i < 2 * REPOSITORIES; i++) {
            repositories.add(generated.repository(
                    code.resolve("r" + i), files.subList(i * FILES_IN_EACH, (i + 1) * FILES_IN_EACH)));
        }
        List<String> teams = IntStream.range(0, TEAMS).mapToObj(i -> "t" + i).toList();
        try (Running open = Running.start(launcher, folder.resolve("open"));
                Running team = Running.startForTeam(launcher, folder.resolve("team"), code);
                Running hiding = Running.startForTeam(launcher, folder.resolve("hiding"), code)) {
            for (Running service : List.of(team, hiding)) {
                service.add("nothing", repositories.getFirst(), List.of());
            }
            for (int i = 0; i < repositories.size(); i++) {
                boolean isHidden = i >= REPOSITORIES;
                if (!isHidden) {
                    open.add("r" + i, repositories.get(i));
                    team.add("r" + i, repositories.get(i), List.of("everybody"));
                }
                hiding.add("r" + i, repositories.get(i), isHidden ? List.of() : List.of("everybody"));
            }
            for (Running service : List.of(open, team, hiding)) {
                service.awaitAllReady();
            }
            team.become("member", teams);
            hiding.become("member", teams);
            List<String> texts = new Words(source).texts(WARM + ANSWERS);
            Figures without = new Figures();
            Figures with = new Figures();
            Figures beside = new Figures();
            Figures more = new Figures(); // text by text, as texts differ more than services do
            Figures ratios = new Figures();
            for (int i = 0; i < texts.size(); i++) {
                String question = Running.parameter("q", texts.get(i)) + "&limit=100&context=3";
                boolean counts = i >= WARM;
                double[] took = new double[3];
                for (int k = 0; k < 3; k++) { // whoever is asked first finds the machine as the text before left it
                    int which = (i + k) % 3;
                    took[which] = List.of(open, team, hiding).get(which).millis(question);
                }
                if (counts) {
                    without.add(took[0]);
                    with.add(took[1]);
                    beside.add(took[2]);
                    more.add(took[1] - took[0]);
                    ratios.add(took[2] / took[1]);
                }
            }
            table.target(
                    "a page where people sign in, somebody in " + TEAMS + " teams",
                    "at most 0.3 ms more",
                    more.at(0.5) <= 0.3,
                    "%.2f ms more (median %.2f ms to %.2f ms without accounts)",
                    more.at(0.5),
                    with.at(0.5),
                    without.at(0.5));
            table.target(
                    ANSWERS + " answers beside as many hidden repositories",
                    "within 5 %",
                    Math.abs(ratios.at(0.5) - 1) < 0.05,
                    "%.3f times (median %.2f ms to %.2f ms)",
                    ratios.at(0.5),
                    beside.at(0.5),
                    with.at(0.5));
        }
    }
}
