package dev.oddbeacon.core.snapshot;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.commits.CommitAnswer;
import dev.oddbeacon.core.commits.CommitSearch;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Exclusions;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Budget;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.SearchContext;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import java.io.IOException;
import java.net.URISyntaxException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/**
 * Files of two repositories of the demo, as version 0.1.0 wrote them before stored values had codes of their own: they
 * open, and say what that version read from them. Whoever changes a format so that they do not, gives it another magic.
 */
class EarlierIndexTest {
    private View view;

    private static Path file(String name) throws URISyntaxException {
        return Path.of(EarlierIndexTest.class
                .getResource("/dev/oddbeacon/core/earlier/" + name)
                .toURI());
    }

    private static ViewBuilder.Wanted branch(String repository, String commit) throws URISyntaxException {
        return new ViewBuilder.Wanted(
                new Branch(repository, Set.of(), "main", commit, Instant.EPOCH, true), file(repository + ".snapshot"));
    }

    @BeforeEach
    void open() throws IOException, URISyntaxException {
        view = ViewBuilder.next(
                ViewBuilder.empty(),
                List.of(file("all.segment")),
                List.of(
                        branch("berth-planner", "e6eeae8b7dcdbbd1b63500fc59ccfb4b6bdf6a61"),
                        branch("shore-ops", "c04398b1130e1b1183042a5cb2295d6b790d5186")),
                Map.of(
                        "berth-planner",
                        List.of(file("berth-planner.history")),
                        "shore-ops",
                        List.of(file("shore-ops.history"))));
    }

    @AfterEach
    void close() {
        view.release();
    }

    private SearchContext context() {
        return Library.context(view, Exclusions.NONE, new Budget(Duration.ofMinutes(1)));
    }

    private LineAnswer lines(String expression) {
        Query query = new TextQuery(expression, Reading.EXPRESSION, CaseMode.AUTO, false)
                .understand(false)
                .query();
        return LineSearch.counting(CompiledQuery.of(query, CaseMode.AUTO)).run(context());
    }

    private static List<String> told(List<Share> shares) {
        return shares.stream()
                .map(share -> share.value() + " " + (share.hits() > 0 ? share.hits() : share.files()))
                .toList();
    }

    @Test
    void everyFileIsAsItWasWritten() throws IOException {
        for (SegmentReader segment : view.segments()) {
            segment.verify();
        }
        view.snapshot(0).verify();
        view.past("shore-ops").graph().files().getFirst().verify();
    }

    @Test
    void filesHaveTheirStandingsTypesAndTraits() {
        SnapshotReader shore = view.snapshot(1);
        assertThat(shore.standing(shore.find("runbooks/current.md").orElseThrow()))
                .isEqualTo(SnapshotFile.Standing.LINK);
        assertThat(shore.standing(shore.find("tools/hull-telemetry").orElseThrow()))
                .isEqualTo(SnapshotFile.Standing.SUBMODULE);
        assertThat(view.snapshot(0).count()).isEqualTo(47);
        assertThat(shore.count()).isEqualTo(70);
        int test = view.snapshot(0).startingWith("src/test/").from();
        assertThat(Traits.labels(view.snapshot(0).traits(test))).containsExactly("test");
        LineAnswer all = lines("not zqzq");
        assertThat(told(all.facets().type()))
                .containsExactly(
                        "yaml 28", "java 25", "markdown 20", "text 20", "sql 14", "shell 5", "dockerfile 2", "xml 1");
        assertThat(told(all.facets().trait())).containsExactly("documentation 20", "configuration 3", "test 3");
    }

    @Test
    void textRegionsAndPostingsAreRead() {
        assertThat(lines("repo(berth-planner) berth"))
                .satisfies(answer -> assertThat(List.of(answer.hits(), (long) answer.files()))
                        .containsExactly(113L, 29L));
        assertThat(lines("repo(shore-ops) berth").hits()).isEqualTo(6);
        assertThat(lines("comment(tide)").hits()).isEqualTo(1);
        assertThat(lines("string(a)"))
                .satisfies(answer -> assertThat(List.of(answer.hits(), (long) answer.files()))
                        .containsExactly(47L, 30L));
    }

    @Test
    void kindsOfDeclarationsAreRead() {
        SymbolAnswer answer = new SymbolSearch(
                        SymbolQuery.of("*", SymbolQuery.NameReading.GLOB, CaseMode.AUTO, Scope.EVERYTHING),
                        SymbolRole.ANY,
                        Set.of(),
                        Set.of(),
                        0,
                        1,
                        true)
                .run(context());
        assertThat(answer.symbols()).isEqualTo(1_773);
        assertThat(told(answer.kinds()))
                .containsExactlyInAnyOrder(
                        "key 228",
                        "field 75",
                        "method 29",
                        "namespace 25",
                        "heading 20",
                        "class 15",
                        "constructor 12",
                        "table 9",
                        "record 8",
                        "variable 7",
                        "interface 2",
                        "index 1");
    }

    @Test
    void commitsWithTheirChangesAreRead() {
        Query all = new TextQuery("repo(berth-planner)", Reading.EXPRESSION, CaseMode.AUTO, false)
                .understand(false)
                .query();
        CommitAnswer answer = new CommitSearch(all, CaseMode.AUTO, 0, 50, true).run(context());
        assertThat(answer.commits()).isEqualTo(14);
        assertThat(told(answer.facets().person())).containsExactly("Ines Okafor 6", "Li Sørensen 4", "Tomás Brennan 4");
        assertThat(answer.page().get(1)).satisfies(found -> {
            assertThat(found.commit().message()).isEqualTo("Move to the new address of tidewatch\n");
            assertThat(found.files())
                    .extracting(file -> file.kind().label() + " +" + file.added() + " -" + file.removed())
                    .containsExactly("modified +1 -1", "modified +1 -1");
        });
        Query adds = new TextQuery("repo(berth-planner) adds(berth)", Reading.EXPRESSION, CaseMode.AUTO, false)
                .understand(false)
                .query();
        assertThat(new CommitSearch(adds, CaseMode.AUTO, 0, 50, true)
                        .run(context())
                        .commits())
                .isEqualTo(9);
        assertThat(Arrays.stream(view.past("berth-planner").newestFirst()).count())
                .isEqualTo(15);
    }
}
