package dev.oddbeacon.core.search;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.TextMatcher;
import dev.oddbeacon.core.query.TextQuery;
import dev.oddbeacon.core.search.LineAnswer.Position;
import dev.oddbeacon.core.search.LineAnswer.Stop;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class LineSearchTest {
    @TempDir
    Path folder;
    private Library library;
    private final SearchPool pool = new SearchPool(2);

    @BeforeEach
    void open() {
        library = new Library(folder);
    }

    @AfterEach
    void close() {
        library.close();
        pool.close();
    }

    private static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    private LineAnswer search(String text, Scope scope, int context) {
        return search(new TextQuery(text, Reading.PLAIN, CaseMode.AUTO, false), scope, context, new Budget(Duration.ofMinutes(1)));
    }

    private LineAnswer search(TextQuery query, Scope scope, int context, Budget budget) {
        return new LineSearch(TextMatcher.of(query), scope, 100, context, Position.START, true, budget).run(library.view(), pool);
    }

    @Test
    void excerptsThatTouchAreMerged() throws IOException {
        library.add("r", new MemoryTree().file("f", bytes("1\nhit\n3\n4\nhit\n6\n7\n8\n9\nhit\n")));
        List<LineAnswer.Excerpt> excerpts = search("hit", Scope.EVERYTHING, 1).page().getFirst().excerpts();
        assertThat(excerpts.stream().map(excerpt -> excerpt.lines().stream().map(LineAnswer.Line::number).toList()))
                .containsExactly(List.of(1, 2, 3, 4, 5, 6), List.of(9, 10));
        assertThat(search("hit", Scope.EVERYTHING, 0).page().getFirst().excerpts()).hasSize(3);
    }

    @Test
    void theScopeNarrowsByRepositoryLabelBranchAndFolder() throws IOException {
        MemoryTree tree = new MemoryTree().file("src/a", bytes("tern")).file("doc/a", bytes("tern"));
        library.add("one", tree, "birds");
        library.add("two", tree);
        library.add("two", "side", new MemoryTree().file("only", bytes("tern")), "birds");
        assertThat(search("tern", Scope.EVERYTHING, 0).hits()).as("default branches").isEqualTo(4);
        assertThat(search("tern", new Scope(List.of("t*"), List.of(), List.of(), List.of()), 0).hits()).isEqualTo(2);
        assertThat(search("tern", new Scope(List.of(), List.of("birds"), List.of(), List.of()), 0).repositories()).isEqualTo(1);
        assertThat(search("tern", new Scope(List.of(), List.of(), List.of("side"), List.of()), 0).hits()).isEqualTo(1);
        assertThat(search("tern", new Scope(List.of(), List.of(), List.of(), List.of("src", "only")), 0).hits()).isEqualTo(2);
        assertThatThrownBy(() -> search("tern", new Scope(List.of(), List.of(), List.of("none"), List.of()), 0)).isInstanceOf(InvalidQueryException.class);
    }

    @Test
    void aSearchThatIsCancelledOrTooLongSaysSo() throws IOException {
        library.add("r", new MemoryTree().file("f", bytes("tern\n".repeat(100_000))));
        Budget cancelled = new Budget(Duration.ofMinutes(1));
        cancelled.cancel();
        TextQuery query = new TextQuery("tern", Reading.PLAIN, CaseMode.AUTO, false);
        assertThat(search(query, Scope.EVERYTHING, 0, cancelled).stopped()).hasValue(Stop.CANCELLED);
        LineAnswer late = search(query, Scope.EVERYTHING, 0, new Budget(Duration.ZERO));
        assertThat(late.stopped()).hasValue(Stop.TIME);
        assertThat(late.exact()).isFalse();
    }

    @Test
    void ofAVeryLongLineThePartAroundTheMatchIsShown() throws IOException {
        library.add("r", new MemoryTree().file("f", bytes("é".repeat(50_000) + "tern" + "🚢".repeat(5_000) + "\n")));
        LineAnswer.Line line = search("tern", Scope.EVERYTHING, 0).page().getFirst().excerpts().getFirst().lines().getFirst();
        assertThat(line.text().length()).isBetween(1_990, 2_000);
        assertThat(line.matches()).containsExactly(new LineAnswer.Span(50_000, 50_004));
        assertThat(line.text().substring(50_000 - line.textStart())).startsWith("tern🚢");
        assertThat(line.text()).doesNotEndWith("\uD83D");
    }
}
