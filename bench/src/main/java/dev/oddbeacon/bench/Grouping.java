package dev.oddbeacon.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/**
 * What it costs that repositories of different groups share no text in the index: origins, each with some forks, and with a
 * folder of other people's files that all of them have.
 */
final class Grouping {
    private static final int ORIGINS = 30;
    private static final int FILES_IN_EACH = 150;
    private static final int FORKS = 4;
    private static final int FILES_OF_A_FORK = 10;
    private static final int FILES_OF_ALL = 30;
    private static final int SEARCHES = 200;

    private final Path launcher;
    private final Path source;
    private final Path folder;
    private final List<Repository> repositories = new ArrayList<>();

    private record Repository(String name, int origin, Path path) {}

    private record Taken(long bytes, long segments, double millis) {}

    private Grouping(Path launcher, Path source, Path folder) {
        this.launcher = launcher;
        this.source = source;
        this.folder = folder;
    }

    static void measure(Path launcher, Path source, Path folder, Table table) throws IOException, InterruptedException {
        Grouping grouping = new Grouping(launcher, source, folder);
        grouping.generate();
        Taken one = grouping.taken("one", Map.of(), true);
        table.note(
                repositoriesTold() + ", one group",
                "%d MB in %d segments, a page in %.1f ms",
                one.bytes >> 20,
                one.segments,
                one.millis);
        note(table, "16 groups", one, grouping.taken("sixteen", Map.of("ODDBEACON_GROUPS_NUMBER", "16"), true));
        Map<String, String> byVisibility = Map.of("ODDBEACON_GROUPS_BYVISIBILITY", "true");
        note(
                table,
                "groups by visibility, an origin and its forks seen by one team",
                one,
                grouping.taken("teams", byVisibility, true));
        note(
                table,
                "groups by visibility, each repository seen by another team",
                one,
                grouping.taken("each", byVisibility, false));
    }

    private static String repositoriesTold() {
        return ORIGINS + " repositories and " + ORIGINS * FORKS + " forks";
    }

    private static void note(Table table, String what, Taken one, Taken taken) {
        table.note(
                what,
                "%.2f times the bytes of one group, %.1f times the segments, %.2f times as long for a page",
                taken.bytes / (double) one.bytes,
                taken.segments / (double) one.segments,
                taken.millis / one.millis);
    }

    private void generate() throws IOException, InterruptedException {
        Generated generated = new Generated(source);
        int each = FILES_IN_EACH + FORKS * FILES_OF_A_FORK;
        List<String> files = generated.spread(ORIGINS * each + FILES_OF_ALL);
        List<String> ofAll = files.subList(ORIGINS * each, files.size());
        for (int origin = 0; origin < ORIGINS; origin++) {
            List<String> own = files.subList(origin * each, (origin + 1) * each);
            List<String> first = new ArrayList<>(own.subList(0, FILES_IN_EACH));
            first.addAll(ofAll);
            for (int fork = 0; fork <= FORKS; fork++) {
                String name = "r" + origin + "-" + fork;
                Path path = generated.repository(folder.resolve("code").resolve(name), first);
                if (fork > 0) {
                    int from = FILES_IN_EACH + (fork - 1) * FILES_OF_A_FORK;
                    generated.commit(path, own.subList(from, from + FILES_OF_A_FORK));
                }
                repositories.add(new Repository(name, origin, path));
            }
        }
    }

    private static String team(Repository repository, boolean ofOriginsTogether) {
        return "t" + (ofOriginsTogether ? "" + repository.origin : repository.name);
    }

    private Taken taken(String name, Map<String, String> settings, boolean ofOriginsTogether)
            throws IOException, InterruptedException {
        try (Running service = Running.startForTeam(launcher, folder.resolve(name), folder.resolve("code"), settings)) {
            service.account(
                    "member",
                    repositories.stream()
                            .map(repository -> team(repository, ofOriginsTogether))
                            .distinct()
                            .toList());
            for (Repository repository : repositories) {
                service.add(repository.name, repository.path, List.of("team:" + team(repository, ofOriginsTogether)));
            }
            service.awaitAllReady();
            List<String> texts = new Words(source).texts(2 * SEARCHES);
            Figures millis = new Figures();
            for (int i = 0; i < texts.size(); i++) {
                double took = service.millis(Running.parameter("q", texts.get(i)) + "&limit=100&context=3");
                if (i >= SEARCHES) { // by when it is warm
                    millis.add(took);
                }
            }
            try (Stream<Path> files = Files.list(service.data().resolve("index"))) {
                List<Path> segments = files.filter(file -> file.toString().endsWith(".segment"))
                        .toList();
                long bytes = segments.stream()
                        .mapToLong(file -> file.toFile().length())
                        .sum();
                return new Taken(bytes, segments.size(), millis.at(0.5));
            }
        }
    }
}
