package dev.oddbeacon.core.search;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.ingest.SourceTree;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FileSearchTest {
    @TempDir
    Path folder;

    @Test
    void everyFragmentMustOccurInAnyOrderAndTheNameCountsMost() throws IOException {
        try (Library library = new Library(folder)) {
            library.add("r", new MemoryTree().file("tide/chart.py", new byte[0]).file("chart/about/the/tide.md", new byte[0]).file("tide/other.py", new byte[0])
                    .other("Chart-TIDE", SourceTree.Kind.LINK));
            FileSearch.Answer answer = new FileSearch("tide chart", Scope.EVERYTHING, 10).run(library.view(), Limits.Exclusions.NONE);
            assertThat(answer.page().stream().map(FileSearch.Found::path)).containsExactly("Chart-TIDE", "tide/chart.py", "chart/about/the/tide.md");
            assertThat(answer.page().getFirst().matches()).isEqualTo(List.of(new LineAnswer.Span(0, 5), new LineAnswer.Span(6, 10)));
            assertThat(new FileSearch("", Scope.EVERYTHING, 2).run(library.view(), Limits.Exclusions.NONE).files()).isEqualTo(4);
        }
    }
}
