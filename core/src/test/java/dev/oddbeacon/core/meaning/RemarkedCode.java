package dev.oddbeacon.core.meaning;

import static org.assertj.core.api.Assertions.assertThat;

import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Library;
import dev.oddbeacon.core.search.MemoryTree;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** Repositories of code in which a remark at the end of a line, behind {@code // }, says what its use is. */
final class RemarkedCode implements AutoCloseable {
    private final Library library;

    RemarkedCode(Path folder) {
        library = new Library(folder);
    }

    Library library() {
        return library;
    }

    void add(String repository, String... pathsAndTexts) throws IOException {
        MemoryTree tree = new MemoryTree();
        for (int i = 0; i < pathsAndTexts.length; i += 2) {
            tree.file(pathsAndTexts[i], pathsAndTexts[i + 1].getBytes(StandardCharsets.UTF_8));
        }
        library.add(repository, tree);
    }

    SymbolAnswer uses(String name) {
        SymbolQuery query = SymbolQuery.of(name, SymbolQuery.NameReading.PLAIN, CaseMode.MATCH, Scope.EVERYTHING);
        return new SymbolSearch(query, SymbolRole.USE, Set.of(), EnumSet.allOf(Certainty.class), 0, 1_000, true)
                .run(library.context());
    }

    /** The certainty of each use of what is declared by a name in a file, as {@link #judged(String)} says it. */
    List<String> judged(String name, String path) {
        List<Spot> spots = new Spots(library.view(), 0)
                .of(name).stream()
                        .filter(spot -> library.view()
                                .snapshot(spot.branchNumber())
                                .path(spot.file())
                                .equals(path))
                        .toList();
        SymbolQuery query = SymbolQuery.usesOf(spots, Scope.EVERYTHING);
        return judged(new SymbolSearch(query, SymbolRole.USE, Set.of(), EnumSet.allOf(Certainty.class), 0, 1_000, true)
                .run(library.context()));
    }

    /** The certainty of each use, beside the remark at the end of its line. */
    List<String> judged(String name) {
        return judged(uses(name));
    }

    private static List<String> judged(SymbolAnswer answer) {
        return answer.page().stream()
                .map(symbol -> {
                    String line = symbol.line().text();
                    String remark = line.contains("// ") ? line.substring(line.indexOf("// ") + 3) : line.strip();
                    return symbol.certainty().orElseThrow().label() + ": " + remark;
                })
                .sorted()
                .toList();
    }

    /** Whoever uses it says at the end of the line what it is. */
    static void assertAsRemarked(List<String> judged) {
        assertThat(judged)
                .isNotEmpty()
                .allSatisfy(one ->
                        assertThat(one.substring(one.indexOf(": ") + 2)).isEqualTo(one.substring(0, one.indexOf(':'))));
    }

    @Override
    public void close() {
        library.close();
    }
}
