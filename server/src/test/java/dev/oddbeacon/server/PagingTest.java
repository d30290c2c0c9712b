package dev.oddbeacon.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Pages of any size, one after the other, are the whole list: of every subject and in every order. */
class PagingTest {
    private static final int MOST = 1_000;
    private static final String[] WORDS = {"tide", "berth", "surge", "ferry"};

    private static TestService service;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        service = TestService.start(Database.shared().create(), folder.resolve("data"));
        Random random = new Random(7);
        for (String name : List.of("heron", "dunlin")) {
            TestRepository repository = TestRepository.create(folder.resolve(name));
            for (int commit = 0; commit < 12; commit++) {
                for (int file = 0; file < 3; file++) {
                    String word = WORDS[random.nextInt(WORDS.length)];
                    repository.write(
                            "src/" + word + random.nextInt(9) + ".java",
                            "class Tide" + commit + " {\n    int " + word + ";\n    // tide " + word + "\n}\n");
                }
                repository.commit(WORDS[random.nextInt(WORDS.length)] + " tide " + commit);
            }
            service.add(name, repository.path());
        }
    }

    @AfterAll
    static void stop() {
        service.close();
    }

    /** The items of all pages, each as a line. */
    private static List<String> items(String subject, int limit, String... more) {
        List<String> items = new ArrayList<>();
        String cursor = "";
        for (int page = 0; page < MOST; page++) {
            List<String> parameters = new ArrayList<>(List.of("limit", String.valueOf(limit)));
            parameters.addAll(List.of(more));
            if (!cursor.isEmpty()) {
                parameters.addAll(List.of("cursor", cursor));
            }
            TestService.Answer answer = service.get("/api/v1/search/" + subject, parameters.toArray(String[]::new));
            assertThat(answer.status()).as(answer.body()).isEqualTo(200);
            List<String> found = onPage(subject, answer.json());
            assertThat(found.size()).isLessThanOrEqualTo(limit);
            items.addAll(found);
            cursor = answer.json().path("next").asString("");
            if (cursor.isEmpty()) {
                return items;
            }
        }
        throw new AssertionError("pages without end");
    }

    private static List<String> onPage(String subject, JsonNode answer) {
        List<String> items = new ArrayList<>();
        if (!subject.equals("lines")) {
            answer.path(subject).forEach(item -> items.add(item.toString()));
            return items;
        }
        for (JsonNode file : answer.path("files")) {
            for (JsonNode excerpt : file.path("excerpts")) {
                for (JsonNode line : excerpt.path("lines")) {
                    items.add(file.path("repository").asString() + "/"
                            + file.path("path").asString() + ":"
                            + line.path("number").asInt() + ":"
                            + line.path("text").asString());
                }
            }
        }
        return items;
    }

    @ParameterizedTest
    @CsvSource({
        "lines, q, tide, order, path",
        "lines, q, tide, order, relevance",
        "lines, q, tide, order, recent",
        "lines, q, 'tide or surge', reading, expression",
        "lines, q, '[a-z]+;', reading, regex",
        "files, q, '', order, path",
        "files, q, tide, order, relevance",
        "files, q, '', order, size",
        "files, q, '', order, recent",
        "files, q, '', kind, folder",
        "symbols, q, tide, role, declaration",
        "symbols, q, tide, role, any",
        "symbols, q, '*', reading, glob",
        "commits, q, tide, reading, plain",
        "commits, adds, tide, touches, src",
    })
    void pagesAreTheWhole(String subject, String name, String value, String name2, String value2) {
        List<String> whole = items(subject, MOST, name, value, name2, value2, "context", "0");
        assertThat(whole).as("a search that finds something").isNotEmpty().doesNotHaveDuplicates();
        for (int limit : new int[] {1, 3, 7}) {
            assertThat(items(subject, limit, name, value, name2, value2, "context", "0"))
                    .as("pages of %s", limit)
                    .isEqualTo(whole);
        }
    }
}
