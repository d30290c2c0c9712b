package dev.oddbeacon.server.access;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Over HTTP a service answers with some repositories hidden exactly as one that never had them: every address that
 * reads, with all that is known of the hidden ones as parameters.
 */
class HiddenOverHttpTest {
    private static final List<String> REPOSITORIES = List.of("berth", "fare", "gate", "hull");
    private static final Set<String> HIDDEN = Set.of("fare", "hull");
    /** What differs between two services whatever they are asked. */
    private static final String OWN =
            "\"(tookMillis|heapBytes|indexBytes|pastBytes|segments|indexed|checked|changed)\":(\"[^\"]*\"|[0-9.E-]+)";

    @TempDir
    static Path folder;

    private static TestService restricted;
    private static TestService never;

    @BeforeAll
    static void start() throws IOException {
        Random random = new Random(5);
        Map<String, Path> locations = new TreeMap<>();
        for (String name : REPOSITORIES) {
            TestRepository repository = TestRepository.create(folder.resolve(name));
            for (int commit = 0; commit < 4; commit++) {
                String type = Character.toUpperCase(name.charAt(0)) + name.substring(1) + commit;
                repository
                        .write(
                                "src/" + type + ".java",
                                "/** Only" + name + " tides. */\nclass " + type
                                        + " extends Gauge {\n    void assign() { canary" + name + "("
                                        + random.nextInt(5) + "); }\n}\n")
                        .write("src/Shared.java", "class Gauge {\n    void assign() { shared(" + commit + "); }\n}\n")
                        .write("docs/" + name + ".md", "# The " + name + "\nTides of " + commit + "\n")
                        .commit("Canary" + name + " number " + commit);
            }
            repository.git("tag", "release-" + name);
            locations.put(name, repository.path());
        }
        restricted = TestService.start(Database.shared().create(), folder.resolve("restricted"));
        never = TestService.start(Database.shared().create(), folder.resolve("never"));
        locations.forEach((name, path) -> restricted.add(name, path, "label-" + name));
        locations.forEach((name, path) -> {
            if (!HIDDEN.contains(name)) {
                never.add(name, path, "label-" + name);
            }
        });
        restricted.hide(HIDDEN);
    }

    @AfterAll
    static void stop() {
        restricted.close();
        never.close();
    }

    private record Question(String path, List<String> parameters) {
        static Question of(String path, String... parameters) {
            return new Question(path, List.of(parameters));
        }
    }

    private static List<Question> questions() {
        List<Question> questions = new ArrayList<>(List.of(
                Question.of("/api/v1/repositories"),
                Question.of("/api/v1/status"),
                Question.of("/api/v1/types"),
                Question.of("/api/v1/exclusion-sets")));
        Set<String> texts = new TreeSet<>(List.of("tides", "assign", "Gauge", "shared", "the"));
        REPOSITORIES.forEach(name ->
                texts.addAll(List.of("canary" + name, "canray" + name, "Only" + name, name, "release-" + name)));
        for (String text : texts) {
            for (String order : List.of("path", "relevance", "recent")) {
                questions.add(Question.of(
                        "/api/v1/search/lines",
                        "q",
                        text,
                        "order",
                        order,
                        "counts",
                        "exact",
                        "limit",
                        "3",
                        "regions",
                        "true"));
            }
            questions.add(Question.of("/api/v1/search/lines", "q", "not holds(" + text + ")", "reading", "expression"));
            questions.add(Question.of("/api/v1/search/lines", "q", text, "only", "counts", "counts", "exact"));
            questions.add(Question.of("/api/v1/search/lines/second-looks", "q", text, "word", "true", "case", "match"));
            questions.add(Question.of(
                    "/api/v1/search/lines/second-looks",
                    "q",
                    text.substring(0, 2) + text.charAt(text.length() - 1) + text.substring(2),
                    "under",
                    "scr"));
            questions.add(Question.of("/api/v1/search/lines/over-time", "q", text));
            questions.add(Question.of("/api/v1/search/files", "q", text));
            questions.add(Question.of("/api/v1/search/files", "q", text, "kind", "folder"));
            for (String role : List.of("declaration", "use", "any")) {
                questions.add(Question.of("/api/v1/search/symbols", "q", text, "role", role, "counts", "exact"));
            }
            questions.add(Question.of("/api/v1/search/commits", "q", text, "counts", "exact"));
            questions.add(Question.of("/api/v1/search/commits", "adds", text, "counts", "exact"));
            questions.add(Question.of("/api/v1/search/lines", "q", "a", "branch", text));
        }
        for (String name : REPOSITORIES) {
            String type = Character.toUpperCase(name.charAt(0)) + name.substring(1) + "3";
            questions.add(Question.of("/api/v1/search/lines", "q", "a", "repo", name));
            questions.add(Question.of("/api/v1/search/lines", "q", "a", "label", "label-" + name));
            questions.add(Question.of("/api/v1/search/lines", "q", "a", "file", name + "/src/Shared.java"));
            questions.add(Question.of(
                    "/api/v1/search/lines/about", "q", "tides", "repository", name, "path", "src/" + type + ".java"));
            questions.add(Question.of(
                    "/api/v1/search/lines/about", "q", "tides", "repository", "berth", "path", "docs/" + name + ".md"));
            String repository = "/api/v1/repositories/" + name;
            questions.add(Question.of(repository));
            for (String path : List.of("/tree", "/log", "/skipped", "/revisions", "/diff")) {
                questions.add(Question.of(repository + path));
            }
            for (String path : List.of("/file", "/raw", "/outline", "/regions", "/counterparts", "/blame", "/log")) {
                questions.add(Question.of(repository + path, "path", "src/Shared.java"));
                questions.add(Question.of(repository + path, "path", "src/" + type + ".java"));
            }
            questions.add(Question.of(repository + "/outline", "path", "src/Shared.java", "uses", "true"));
            questions.add(Question.of(repository + "/symbol", "path", "src/Shared.java", "line", "1", "column", "7"));
            questions.add(Question.of(repository + "/symbol", "path", "src/Shared.java", "line", "2", "column", "10"));
            questions.add(Question.of(repository + "/translations", "path", "src/Shared.java", "line", "1"));
            questions.add(Question.of(repository + "/commits/main"));
            questions.add(Question.of(
                    "/api/v1/recognised", "location", folder.resolve(name).toString()));
            questions.add(Question.of(
                    "/api/v1/archive", "file", name + "/src/Shared.java", "file", name + "/src/Missing.java"));
        }
        return questions;
    }

    private static String told(TestService service, Question question) {
        TestService.Answer answer = service.get(question.path, question.parameters.toArray(String[]::new));
        return answer.status() + " "
                + answer.body().replaceAll(OWN, "").replaceAll("\"next\":\"[^\"]*\"", "\"next\":\"some\"");
    }

    @Test
    void everyAddressAnswersAsIfTheyHadNeverBeenThere() {
        List<Question> questions = questions();
        for (Question question : questions) {
            String expected = told(never, question);
            assertThat(told(restricted, question)).as(question.toString()).isEqualTo(expected);
            assertThat(expected).as(question.toString()).doesNotContain("The service failed");
        }
        System.out.println("hidden repositories over HTTP: " + questions.size() + " answers");
    }

    @Test
    void placesOfAPastedLogAreThoseOfTheOthers() {
        String log = "src/Shared.java:1\nsrc/Fare3.java:2\nfare/docs/fare.md:1\nsrc/Berth2.java:2\n";
        String expected = never.post("/api/v1/places", "text/plain", log).body().replaceAll(OWN, "");
        assertThat(restricted.post("/api/v1/places", "text/plain", log).body().replaceAll(OWN, ""))
                .isEqualTo(expected);
    }

    @Test
    void pagesFollowEachOtherAndEndWhenWhatOneMaySeeChanges() {
        TestService.Answer first = restricted.get("/api/v1/search/lines", "q", "assign", "limit", "1");
        String next = first.json().path("next").asString();
        assertThat(restricted
                        .get("/api/v1/search/lines", "q", "assign", "limit", "1", "cursor", next)
                        .json()
                        .path("files")
                        .path(0)
                        .path("repository")
                        .asString())
                .isEqualTo("berth");
        try {
            restricted.hide(Set.of("fare"));
            TestService.Answer later =
                    restricted.get("/api/v1/search/lines", "q", "assign", "limit", "1", "cursor", next);
            assertThat(later.status()).isEqualTo(410);
            assertThat(later.detail()).contains("what you may see has changed");
        } finally {
            restricted.hide(HIDDEN);
        }
    }

    @Test
    void changingOrRemovingAHiddenOneIsNotFound() {
        assertThat(restricted
                        .post("/api/v1/repositories/fare/refresh", "application/json", "")
                        .status())
                .isEqualTo(404);
        assertThat(restricted.delete("/api/v1/repositories/fare").status()).isEqualTo(404);
        assertThat(never.delete("/api/v1/repositories/fare").body())
                .isEqualTo(restricted.delete("/api/v1/repositories/fare").body());
    }
}
