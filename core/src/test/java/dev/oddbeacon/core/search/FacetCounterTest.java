package dev.oddbeacon.core.search;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.Facets.Spread;
import dev.oddbeacon.core.snapshot.View;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What is counted by repository and folder, held against counting all and putting all in order. */
class FacetCounterTest {
    private static final int REPOSITORIES = 90;
    private static final int MOST = 50;
    private static final int MOST_SPREAD = 40;

    @TempDir
    Path folder;

    private final Random random = new Random(20261129);

    /** A file with hits; its folder is the first below the root, as no two of a repository share more. */
    private record Counted(String repository, String folder, int hits) {}

    @Test
    void theFirstOfManyAreThoseOfAll() throws IOException {
        try (Library library = new Library(folder)) {
            for (int i = 0; i < REPOSITORIES; i++) {
                MemoryTree tree = new MemoryTree();
                tree.file("above.txt", "above\n".getBytes(StandardCharsets.UTF_8));
                for (int k = random.nextInt(6); k >= 0; k--) {
                    tree.file("d" + random.nextInt(5) + "/f" + k + ".txt", "some\n".getBytes(StandardCharsets.UTF_8));
                }
                library.add("r" + i, tree);
            }
            for (int round = 0; round < 60; round++) {
                check(library.view(), round % 3 == 0 ? 2 : 400, round % 2 == 0);
            }
        }
    }

    private void check(View view, int mostHits, boolean all) {
        FacetCounter counter = new FacetCounter(view);
        List<Counted> counted = new ArrayList<>();
        for (int branch = 0; branch < view.branches().size(); branch++) {
            for (int file = 0; file < view.snapshot(branch).count(); file++) {
                if (all || random.nextBoolean()) {
                    int hits = 1 + random.nextInt(mostHits);
                    counter.add((long) branch << 32 | file, hits);
                    String path = view.snapshot(branch).path(file);
                    int slash = path.indexOf('/');
                    counted.add(new Counted(
                            view.branch(branch).repository(), slash < 0 ? "" : "/" + path.substring(0, slash), hits));
                }
            }
        }
        Facets facets = counter.counts().facets();
        assertThat(facets.repository())
                .isEqualTo(grouped(counted, Counted::repository).entrySet().stream()
                        .map(entry -> new Share(entry.getKey(), entry.getValue().size(), hits(entry.getValue())))
                        .sorted(Comparator.comparingLong(Share::hits)
                                .thenComparingInt(Share::files)
                                .reversed()
                                .thenComparing(Share::value))
                        .limit(MOST)
                        .toList());
        List<Spread> spread = new ArrayList<>();
        grouped(counted, Counted::repository).forEach((repository, files) -> {
            List<String> folders =
                    files.stream().map(Counted::folder).distinct().toList();
            grouped(files, Counted::folder)
                    .forEach((where, there) -> spread.add(new Spread(
                            repository, folders.size() == 1 ? folders.getFirst() : where, there.size(), hits(there))));
        });
        assertThat(facets.spread())
                .isEqualTo(spread.stream()
                        .sorted(Comparator.comparingLong(Spread::hits)
                                .thenComparingInt(Spread::files)
                                .reversed()
                                .thenComparing(Spread::repository)
                                .thenComparing(Spread::folder))
                        .limit(MOST_SPREAD)
                        .toList());
    }

    private static Map<String, List<Counted>> grouped(List<Counted> counted, Function<Counted, String> by) {
        return counted.stream().collect(Collectors.groupingBy(by));
    }

    private static long hits(List<Counted> counted) {
        return counted.stream().mapToLong(Counted::hits).sum();
    }
}
