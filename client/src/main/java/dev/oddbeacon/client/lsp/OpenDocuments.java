package dev.oddbeacon.client.lsp;

import dev.oddbeacon.client.worktree.LocalIndex;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.search.Excerpt;
import dev.oddbeacon.core.symbols.SymbolQuery;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import org.eclipse.lsp4j.Location;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.Range;
import org.eclipse.lsp4j.WorkspaceSymbol;
import org.eclipse.lsp4j.jsonrpc.messages.Either;

/**
 * Searches that are limited to the documents that the editor has open, as they are on its screen, whatever repository
 * they are of and whether the service can be reached or not.
 */
final class OpenDocuments implements AutoCloseable {
    private static final int MOST = 1_000;

    private final Documents documents;
    private final Map<String, String> addresses = new HashMap<>(); // by their path in the index
    private LocalIndex index;
    private long asOf = -1;

    OpenDocuments(Documents documents) {
        this.documents = documents;
    }

    /**
     * Each match of a text.
     *
     * @throws dev.oddbeacon.core.query.InvalidQueryException if it cannot be read so
     */
    List<Location> lines(String text, Reading reading) {
        CompiledQuery query = CompiledQuery.of(
                new TextQuery(text, reading, CaseMode.AUTO, false)
                        .understand(false)
                        .query(),
                CaseMode.AUTO);
        return search(local -> {
            LineAnswer answer = new LineSearch(
                            query,
                            MOST,
                            0,
                            LineAnswer.Position.START,
                            false,
                            LineSearch.Order.RELEVANCE,
                            LineSearch.Show.LINES)
                    .run(local.context());
            List<Location> found = new ArrayList<>();
            for (LineAnswer.FileHits file : answer.page()) {
                String address = addresses.get(local.path(file.file()));
                for (Excerpt excerpt : file.excerpts()) {
                    for (Excerpt.Line line : excerpt.lines()) {
                        line.matches()
                                .forEach(match -> found.add(new Location(
                                        address,
                                        new Range(
                                                new Position(line.number() - 1, match.start()),
                                                new Position(line.number() - 1, match.end())))));
                    }
                }
            }
            return found;
        });
    }

    /** What they declare, by parts of names. */
    List<WorkspaceSymbol> symbols(String text) {
        SymbolQuery query = SymbolQuery.of(text, SymbolQuery.NameReading.FRAGMENTS, CaseMode.AUTO, Scope.EVERYTHING);
        return search(local -> Symbols.search(local, query, SymbolRole.DECLARATION).stream()
                .map(symbol -> {
                    Position start = new Position(symbol.line().number() - 1, symbol.column() - 1);
                    Position end = new Position(
                            start.getLine(),
                            start.getCharacter() + symbol.name().length());
                    return new WorkspaceSymbol(
                            symbol.name(),
                            Kinds.of(symbol.kind().orElseThrow().label()),
                            Either.forLeft(
                                    new Location(addresses.get(local.path(symbol.file())), new Range(start, end))),
                            symbol.container());
                })
                .toList());
    }

    private synchronized <T> List<T> search(Function<LocalIndex, List<T>> search) {
        long now = documents.changes();
        if (now != asOf) {
            close();
            Map<String, byte[]> files = new TreeMap<>();
            documents.all().forEach((file, document) -> {
                String path = file.getRoot().relativize(file).toString().replace('\\', '/');
                files.put(path, document.text().getBytes(StandardCharsets.UTF_8));
                addresses.put(path, document.uri());
            });
            if (!files.isEmpty()) {
                index = LocalIndex.of("open", "now", files);
            }
            asOf = now;
        }
        return index == null ? List.of() : search.apply(index);
    }

    @Override
    public synchronized void close() {
        addresses.clear();
        if (index != null) {
            index.close();
            index = null;
        }
        asOf = -1;
    }
}
