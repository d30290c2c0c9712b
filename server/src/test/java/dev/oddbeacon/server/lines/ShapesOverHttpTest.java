package dev.oddbeacon.server.lines;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestService.Answer;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Code of a shape, asked for over HTTP by searches of every subject, and made of code that was chosen. */
class ShapesOverHttpTest {
    private static TestService service;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        service = TestService.start(Database.shared().create(), folder.resolve("data"))
                .add(
                        "berths",
                        TestRepository.create(folder.resolve("berths"))
                                .write("src/Plan.java", """
                                        package quay;

                                        class Plan {
                                            void clear(Stay stay) {
                                                assign(stay, // nobody
                                                    null);
                                                assign(of(stay, 2), null);
                                                assign(stay, north);
                                                log("assign(stay, null)");
                                            }

                                            void lock(Lock gate) {
                                                gate.lock();
                                                move();
                                            }

                                            void close(Lock gate) {
                                                gate.lock();
                                                try {
                                                    move();
                                                } finally {
                                                    gate.unlock();
                                                }
                                            }
                                        }
                                        """)
                                .write("tide.py", "assign(stay,  null)\n")
                                .write("notes.txt", "assign(stay, null)\n")
                                .commit("Plans")
                                .path());
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    private static List<String> hits(String expression, String... more) {
        List<String> parameters = new ArrayList<>(List.of("q", expression, "reading", "expression"));
        parameters.addAll(List.of(more));
        Answer answer = service.get("/api/v1/search/lines", parameters.toArray(String[]::new));
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        List<String> hits = new ArrayList<>();
        for (JsonNode file : answer.json().path("files")) {
            for (JsonNode excerpt : file.path("excerpts")) {
                for (JsonNode line : excerpt.path("lines")) {
                    if (!line.path("matches").isEmpty()) {
                        hits.add(file.path("path").asString() + ":"
                                + line.path("number").asInt());
                    }
                }
            }
        }
        return hits;
    }

    @Test
    void blanksCommentsAndLinesDoNotCount() {
        assertThat(hits("shape(assign(?stay, null))"))
                .containsExactlyInAnyOrder("src/Plan.java:5", "src/Plan.java:6", "src/Plan.java:7", "tide.py:1");
        assertThat(hits("shape(assign(?stay, null)) type(java) not under(test)"))
                .hasSize(3);
        assertThat(hits("shape(ASSIGN(?stay, NULL))")).isEmpty();
        assertThat(hits("shape(ASSIGN(?stay, NULL))", "case", "ignore")).hasSize(4);
    }

    @Test
    void whatMustNotStandWithinIsLeftOut() {
        assertThat(hits("shape(?gate.lock(); ?* }, without: ?gate.unlock())"))
                .containsExactly("src/Plan.java:13", "src/Plan.java:14", "src/Plan.java:15");
    }

    @Test
    void otherSubjectsTakeItAsContent() {
        assertThat(found("files", "shape(assign(?_, null))")).isEqualTo(2);
        assertThat(found("symbols", "clear shape(assign(?_, null))")).isEqualTo(1);
        assertThat(found("symbols", "clear shape(assign(?_, north, ?_))")).isZero();
        assertThat(found("commits", "shape(assign(?_, null))")).isEqualTo(1);
    }

    private static int found(String subject, String expression) {
        Answer answer = service.get("/api/v1/search/" + subject, "q", expression, "reading", "expression");
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return answer.json().path(subject).size();
    }

    @Test
    void mistakesAreTold() {
        assertThat(service.get("/api/v1/search/lines", "q", "shape(?x)", "reading", "expression")
                        .detail())
                .contains("besides its variables");
        assertThat(service.get("/api/v1/search/lines", "q", "near(3, shape(a(?x)), b)", "reading", "expression")
                        .detail())
                .contains("cannot stand in near( )");
        assertThat(service.get("/api/v1/search/lines", "q", "shape(a, also: b)", "reading", "expression")
                        .status())
                .as("a comma and a colon are code")
                .isEqualTo(200);
    }

    @Test
    void codeBecomesExpressions() {
        JsonNode shapes = service.with(Map.of())
                .post("/api/v1/shapes", Map.of("code", "assign(of(stay, 2), null)", "language", "java"))
                .json();

        assertThat(shapes.path("same").asString()).isEqualTo("shape(assign(of(stay, 2), null))");
        assertThat(shapes.path("alike").asString()).isEqualTo("shape(assign(of(?stay, ?number), null))");
        assertThat(hits(shapes.path("alike").asString())).containsExactly("src/Plan.java:7");
        assertThat(refused("// nothing", "java")).contains("no code in it");
        assertThat(refused("x", "klingon")).contains("no profile");
        assertThat(refused("x".repeat(10_001), "java")).contains("at most 10000");
    }

    private static String refused(String code, String language) {
        Answer answer = service.with(Map.of()).post("/api/v1/shapes", Map.of("code", code, "language", language));
        assertThat(answer.status()).isEqualTo(400);
        return answer.detail();
    }
}
