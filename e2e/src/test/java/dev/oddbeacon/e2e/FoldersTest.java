package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;

/** Folders, lists of files and several files at once, through the interface. */
class FoldersTest {
    @TempDir
    Path folder;

    private static Http.Answer get(String path, String... parameters) {
        return Http.get(Demo.address(), "/api/v1" + path, parameters);
    }

    @Test
    void aTreeHasWhatGitLists() throws IOException {
        GitFolder clone = clone("shore-ops");
        for (String path : List.of("", "database", "database/migrations")) {
            TreeSet<String> expected = new TreeSet<>();
            for (String line : clone.git("ls-tree", "-l", "HEAD", path.isEmpty() ? "." : path + "/")
                    .split("\n")) {
                String[] parts = line.split("\\s+", 5);
                expected.add(parts[4] + (parts[1].equals("tree") ? "/" : " " + parts[3]));
            }
            TreeSet<String> found = new TreeSet<>();
            for (JsonNode entry :
                    get("/repositories/shore-ops/tree", "path", path).json().path("entries")) {
                found.add(entry.path("path").asString()
                        + (entry.path("kind").asString().equals("folder")
                                ? "/"
                                : " " + entry.path("bytes").asLong()));
            }
            assertThat(found).as(path).isEqualTo(expected);
        }
        assertThat(get("/repositories/shore-ops/tree", "path", "database/nowhere")
                        .status())
                .isEqualTo(404);
    }

    @Test
    void aTreeCanBeReadAtAnyRevision() throws IOException {
        GitFolder clone = clone("berth-planner");
        String first = clone.git("rev-list", "--max-parents=0", "HEAD");
        TreeSet<String> found = new TreeSet<>();
        get("/repositories/berth-planner/tree", "rev", first)
                .json()
                .path("entries")
                .forEach(entry -> found.add(entry.path("name").asString()));
        assertThat(found)
                .isEqualTo(new TreeSet<>(
                        List.of(clone.git("ls-tree", "--name-only", first).split("\n"))));
        assertThat(get("/repositories/berth-planner/tree", "rev", "nothing").status())
                .isEqualTo(404);
    }

    private GitFolder clone(String repository) throws IOException {
        GitFolder any = GitFolder.create(folder.resolve(repository));
        any.git("pull", "-q", get("/repositories/" + repository).text("location"), "HEAD");
        return any;
    }

    @Test
    void severalFilesComeAsOneArchive() throws IOException {
        byte[] zip = get("/archive", "file", "fare-gate/go.mod").response().body();
        Map<String, String> files = new LinkedHashMap<>();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(zip))) {
            for (var entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                files.put(entry.getName(), new String(in.readAllBytes(), StandardCharsets.UTF_8));
            }
        }
        assertThat(files).containsOnlyKeys("fare-gate/go.mod");
        assertThat(files.get("fare-gate/go.mod"))
                .isEqualTo(get("/repositories/fare-gate/file", "path", "go.mod").text("text"));
        assertThat(get("/archive", "file", "fare-gate/nowhere").status()).isEqualTo(404);
        assertThat(get("/archive", "file", "nowhere/go.mod").status()).isEqualTo(404);
    }

    @Test
    void aSearchMayComeAsAForm() {
        String form = "q=module&file=fare-gate%2Fgo.mod&file=fare-gate%2Fnowhere";
        JsonNode answer = Http.post(
                        Demo.address(),
                        "/api/v1/search/lines",
                        form,
                        "Content-Type",
                        "application/x-www-form-urlencoded")
                .json();
        assertThat(answer.path("counts").path("files").asInt()).isEqualTo(1);
        assertThat(answer.path("index").path("missingFiles").asInt()).isEqualTo(1);
        assertThat(answer.path("query").path("expression").asString())
                .isEqualTo("files(fare-gate/go.mod, fare-gate/nowhere) module");
    }

    @Test
    void whereHitsFallAddsUpToAllOfThem() {
        JsonNode answer = get("/search/lines", "q", "tide", "counts", "exact").json();
        long sum = 0;
        for (JsonNode part : answer.path("facets").path("spread")) {
            sum += part.path("hits").asLong();
        }
        assertThat(sum).isEqualTo(answer.path("counts").path("hits").asLong());
    }

    @Test
    void aFolderThatDoesNotExistIsAnsweredWithTheNearest() {
        JsonNode look = get("/search/lines/second-looks", "q", "func", "repo", "fare-gate", "under", "intrenal")
                .json()
                .path("looks")
                .path(0);
        assertThat(look.path("change").asString()).isEqualTo("under internal, as there is no intrenal");
        assertThat(look.path("hits").asLong()).isPositive();
    }
}
