package dev.oddbeacon.server.history;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** A random history with branches and merges: what is told of it over HTTP is what Git tells. */
class AgainstGitTest {
    private static final String REPOSITORY = "/api/v1/repositories/drift";
    private static final int COMMITS = 40;
    private static final String[] PATHS = {"log.txt", "src/tide.c", "src/deep/surge.c", "docs/read me.md"};

    private static TestRepository git;
    private static TestService service;
    private static List<String> commits;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        Random random = new Random(23);
        git = TestRepository.create(folder.resolve("drift"));
        git.write(PATHS[0], "start\n").commit("Start");
        for (int i = 1; i <= COMMITS; i++) {
            String path = PATHS[random.nextInt(PATHS.length)];
            if (i % 9 == 4) {
                git.git("checkout", "-q", "-b", "side" + i, "HEAD");
                change(path, random, i);
                git.commit("Side " + i);
                git.git("checkout", "-q", "main");
                change(PATHS[(Arrays.asList(PATHS).indexOf(path) + 1) % PATHS.length], random, i + 100);
                git.commit("Main " + i);
                git.git("merge", "-q", "--no-ff", "-m", "Merge side " + i, "side" + i);
            } else if (i % 13 == 0 && Files.exists(git.path().resolve(path)) && !path.equals(PATHS[0])) {
                Files.delete(git.path().resolve(path));
                git.commit("Remove " + path);
            } else {
                change(path, random, i);
                git.commit("Change " + i);
            }
        }
        commits = git.git("rev-list", "main").lines().toList();
        service = TestService.start(Database.shared().create(), folder.resolve("data"))
                .add("drift", git.path());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    /** Inserts, changes or takes out a few lines that stand nowhere else. */
    private static void change(String path, Random random, int number) throws IOException {
        Path file = git.path().resolve(path);
        List<String> lines = new ArrayList<>(Files.exists(file) ? Files.readAllLines(file) : List.of());
        for (int k = 0; k <= random.nextInt(4); k++) {
            int at = random.nextInt(lines.size() + 1);
            if (k > 0 && lines.size() > 6 && random.nextInt(3) == 0) {
                lines.remove(at % lines.size());
            } else {
                lines.add(at, "line " + number + "." + k + " of " + path);
            }
        }
        git.write(path, String.join("\n", lines) + "\n");
    }

    private static JsonNode get(String path, String... parameters) {
        TestService.Answer answer = service.get(REPOSITORY + path, parameters);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return answer.json();
    }

    private static List<String> pathsAt(String commit) throws IOException {
        return git.git("-c", "core.quotePath=false", "ls-tree", "-r", "--name-only", commit)
                .lines()
                .toList();
    }

    private static Stream<String> someCommits() {
        return Stream.iterate(0, i -> i < commits.size(), i -> i + 5).map(commits::get);
    }

    @Test
    void theLogOfEachPath() throws IOException {
        for (String path :
                Stream.concat(Stream.of("", "src"), Arrays.stream(PATHS)).toList()) {
            List<String> told = new ArrayList<>();
            get("/log", "path", path, "follow", "false", "limit", "500")
                    .path("entries")
                    .forEach(entry -> told.add(entry.path("commit").path("id").asString()));
            List<String> command = new ArrayList<>(List.of("log", "--format=%H", "main"));
            if (!path.isEmpty()) {
                command.addAll(List.of("--", path));
            }
            List<String> ofGit = git.git(command.toArray(String[]::new)).lines().toList();
            assertThat(told).as("log of '%s'", path).hasSizeGreaterThan(3).containsExactlyInAnyOrderElementsOf(ofGit);
        }
    }

    @Test
    void whereEachLineComesFrom() throws IOException {
        for (String path : pathsAt("main")) {
            Map<Integer, String> told = new TreeMap<>();
            for (JsonNode origin : get("/blame", "path", path).path("origins")) {
                for (int line = origin.path("fromLine").asInt();
                        line <= origin.path("toLine").asInt();
                        line++) {
                    told.put(line, origin.path("commit").asString());
                }
            }
            Map<Integer, String> ofGit = new TreeMap<>();
            git.git("blame", "--line-porcelain", "main", "--", path)
                    .lines()
                    .filter(line -> line.matches("[0-9a-f]{40} \\d+ \\d+.*"))
                    .map(line -> line.split(" "))
                    .forEach(parts -> ofGit.put(Integer.valueOf(parts[2]), parts[0]));
            assertThat(told).as("blame of %s", path).isNotEmpty().isEqualTo(ofGit);
        }
    }

    @Test
    void theFilesAndTextsOfEachCommit() throws IOException {
        for (String commit : someCommits().toList()) {
            List<String> told = new ArrayList<>();
            List<String> folders = new ArrayList<>(List.of(""));
            while (!folders.isEmpty()) {
                String folder = folders.removeLast();
                for (JsonNode entry :
                        get("/tree", "rev", commit, "path", folder).path("entries")) {
                    String path = (folder.isEmpty() ? "" : folder + "/")
                            + entry.path("name").asString();
                    (entry.path("kind").asString().equals("folder") ? folders : told).add(path);
                }
            }
            told.sort(Comparator.naturalOrder());
            assertThat(told)
                    .as("files of %s", commit)
                    .isEqualTo(pathsAt(commit).stream().sorted().toList());
            for (String path : told) {
                assertThat(service.get(REPOSITORY + "/raw", "rev", commit, "path", path)
                                .body()
                                .strip())
                        .as("%s at %s", path, commit)
                        .isEqualTo(git.git("show", commit + ":" + path));
            }
        }
    }

    @Test
    void whatDiffersBetweenTwoCommits() throws IOException {
        List<String> some = someCommits().toList();
        for (int i = 1; i < some.size(); i++) {
            Map<String, String> told = new TreeMap<>();
            for (JsonNode file :
                    get("/diff", "from", some.get(i), "to", some.get(i - 1)).path("files")) {
                told.put(
                        file.path("path").asString(),
                        file.path("added").asInt() + " " + file.path("removed").asInt());
            }
            Map<String, String> ofGit = new TreeMap<>();
            git.git("diff", "--numstat", "--no-renames", "-z", some.get(i), some.get(i - 1))
                    .transform(text -> Arrays.stream(text.split("\0")))
                    .map(line -> line.split("\t"))
                    .forEach(parts -> ofGit.put(parts[2], parts[0] + " " + parts[1]));
            assertThat(told)
                    .as("%s to %s", some.get(i), some.get(i - 1))
                    .isNotEmpty()
                    .isEqualTo(ofGit);
        }
    }

    @Test
    void whatEachCommitSaysAndWhereItCameFrom() throws IOException {
        for (String commit : commits) {
            JsonNode told = get("/commits/" + commit).path("commit");
            String[] ofGit =
                    git.git("log", "-1", "--format=%s%n%P%n%an%n%ae", commit).split("\n", -1);
            List<String> parents = new ArrayList<>();
            told.path("parents").forEach(parent -> parents.add(parent.asString()));
            assertThat(told.path("summary").asString()).isEqualTo(ofGit[0]);
            assertThat(String.join(" ", parents)).isEqualTo(ofGit[1]);
            assertThat(told.path("author").path("name").asString()).isEqualTo(ofGit[2]);
            assertThat(told.path("author").path("email").asString()).isEqualTo(ofGit[3]);
        }
    }

    @Test
    void whatIsNotThereIsSaidSo() {
        for (String path : List.of("/log?path=no/such", "/blame?path=no/such", "/raw?path=no/such", "/tree?path=no")) {
            TestService.Answer answer = service.get(REPOSITORY + path);
            assertThat(answer.status()).as(path).isEqualTo(404);
            assertThat(answer.detail()).as(path).contains("no").endsWith(".");
        }
        assertThat(service.get(REPOSITORY + "/commits/" + "0".repeat(40)).status())
                .isEqualTo(404);
        assertThat(service.get(REPOSITORY + "/tree", "rev", "no-such-tag").status())
                .isEqualTo(404);
    }
}
