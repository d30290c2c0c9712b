package dev.oddbeacon.server.index;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.segment.ObjectId;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.server.Database;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.Waiting;
import dev.oddbeacon.server.catalogue.Catalogue;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Text of repositories of different groups never lies in one segment, whatever they share and however they change. */
class GroupsTest {
    private static final String SHARED = "the light of the harbour\n";

    @TempDir
    Path folder;

    private List<String> database;
    private TestRepository tide;
    private TestRepository fork;
    private TestRepository other;

    @BeforeEach
    void lay() throws IOException {
        database = Database.shared().create();
        tide = TestRepository.create(folder.resolve("tide"))
                .write("a.txt", SHARED)
                .commit("Start")
                .write("b.txt", "tern\n")
                .commit("More");
        tide.git("clone", "-q", tide.path().toString(), folder.resolve("fork").toString());
        fork = TestRepository.create(folder.resolve("fork"))
                .write("c.txt", "of the fork\n")
                .commit("Fork");
        other = TestRepository.create(folder.resolve("other"))
                .write("d.txt", SHARED)
                .write("e.txt", "of the other\n")
                .commit("Another start");
    }

    private TestService start(String... more) {
        return TestService.start(database, folder.resolve("data"), more);
    }

    private static int hits(TestService service, String text) {
        return service.get("/api/v1/search/lines", "q", text)
                .json()
                .path("counts")
                .path("hits")
                .asInt();
    }

    /** The groups, and the repositories that have text in each; fails if a file lies in a segment of another group. */
    private static Map<String, Set<String>> groups(TestService service) {
        Map<String, Set<String>> groups = new TreeMap<>();
        View view = service.bean(CurrentView.class).acquire();
        try {
            for (int branch = 0; branch < view.branches().size(); branch++) {
                String group = view.snapshot(branch).about().group();
                groups.computeIfAbsent(group, _ -> new TreeSet<>())
                        .add(view.branch(branch).repository());
                for (int file = 0; file < view.fileCount(branch); file++) {
                    SegmentReader segment =
                            view.location(branch, file).orElseThrow().segment();
                    assertThat(segment.about().group()).isEqualTo(group);
                }
            }
        } finally {
            view.release();
        }
        return groups;
    }

    /** How many segments hold a file. */
    private static long copies(TestService service, TestRepository repository, String path) {
        ObjectId id = id(repository, path);
        View view = service.bean(CurrentView.class).acquire();
        try {
            return view.segments().stream()
                    .filter(segment -> segment.find(id) >= 0)
                    .count();
        } finally {
            view.release();
        }
    }

    private static ObjectId id(TestRepository repository, String path) {
        try {
            return ObjectId.of(repository.git("rev-parse", "HEAD:" + path).strip());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private void assertEverythingIsFound(TestService service) {
        assertThat(hits(service, "light")).isEqualTo(3);
        assertThat(hits(service, "tern")).isEqualTo(2);
        assertThat(hits(service, "fork")).isEqualTo(1);
        assertThat(hits(service, "other")).isEqualTo(1);
    }

    @Test
    void byOriginForksAreTogetherAndASettingThatChangesMovesWhatIsIndexed() throws IOException {
        try (TestService service = start()) {
            service.add("tide", tide.path()).add("fork", fork.path()).add("other", other.path());
            assertThat(groups(service)).containsExactly(Map.entry("", Set.of("fork", "other", "tide")));
            assertThat(copies(service, tide, "a.txt")).isEqualTo(1);
            assertEverythingIsFound(service);
        }
        try (TestService service = start("--oddbeacon.groups.number=4096")) {
            assertEverythingIsFound(service);
            Waiting.until(() -> !groups(service).containsKey(""));
            assertThat(groups(service).values()).containsExactlyInAnyOrder(Set.of("fork", "tide"), Set.of("other"));
            assertEverythingIsFound(service);
            Waiting.until(() -> copies(service, tide, "a.txt") == 2);
            fork.write("c.txt", "the fork goes on\n").write("f.txt", "tern\n").commit("More of the fork");
            service.post("/api/v1/repositories/fork/refresh", "application/json", "");
            Waiting.until(() -> hits(service, "goes on") == 1);
            assertThat(copies(service, tide, "b.txt"))
                    .as("what forks share is there once")
                    .isEqualTo(1);
        }
        try (TestService service = start()) {
            Waiting.until(() -> groups(service).keySet().equals(Set.of("")));
            Waiting.until(() -> hits(service, "tern") == 3);
            assertThat(hits(service, "light")).isEqualTo(3);
        }
    }

    @Test
    void byVisibilityWhatDifferentPeopleMaySeeIsApartAlsoAfterThatChanges() throws IOException {
        try (TestService service = start("--oddbeacon.groups.by-visibility=true")) {
            service.add("tide", tide.path()).add("fork", fork.path()).add("other", other.path());
            assertThat(groups(service).values()).containsExactly(Set.of("fork", "other", "tide"));
            long id = service.bean(Catalogue.class).find("other").orElseThrow().id();
            service.bean(IndexJobs.class).show(id, Set.of("team:bridge"));
            Waiting.until(() -> groups(service).size() == 2);
            assertThat(groups(service).values()).containsExactlyInAnyOrder(Set.of("fork", "tide"), Set.of("other"));
            assertEverythingIsFound(service);
            Waiting.until(() -> copies(service, other, "e.txt") == 1);
        }
    }
}
