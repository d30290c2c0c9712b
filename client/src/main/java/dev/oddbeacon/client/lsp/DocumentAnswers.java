package dev.oddbeacon.client.lsp;

import dev.oddbeacon.client.worktree.LocalIndex;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.symbols.FileOutline;
import dev.oddbeacon.core.symbols.SymbolQuery;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import org.eclipse.lsp4j.DocumentHighlight;
import org.eclipse.lsp4j.DocumentHighlightKind;
import org.eclipse.lsp4j.DocumentSymbol;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.Range;

/** What is told of one document from its text alone, as it is on the screen. */
final class DocumentAnswers {
    private static final int MOST = 5_000;

    private DocumentAnswers() {}

    private static LocalIndex index(Source source) {
        return LocalIndex.of(
                source.repository(), "main", Map.of(source.path(), source.text().getBytes(StandardCharsets.UTF_8)));
    }

    /** What it declares, one in another. */
    static List<DocumentSymbol> outline(Source source) {
        List<DocumentSymbol> outermost = new ArrayList<>();
        Deque<DocumentSymbol> around = new ArrayDeque<>();
        for (FileOutline.Symbol symbol : declarations(source)) {
            Position start = new Position(symbol.line() - 1, symbol.column() - 1);
            Range name = new Range(
                    start,
                    new Position(
                            start.getLine(),
                            start.getCharacter() + symbol.name().length()));
            int last = Math.max(symbol.line(), symbol.endLine());
            Range all = new Range(
                    new Position(symbol.line() - 1, 0),
                    new Position(last - 1, source.line(last).length()));
            DocumentSymbol told =
                    new DocumentSymbol(symbol.name(), Kinds.of(symbol.kind().label()), all, name, symbol.signature());
            told.setChildren(new ArrayList<>());
            while (around.size() > symbol.depth()) {
                around.pop();
            }
            (around.isEmpty() ? outermost : around.peek().getChildren()).add(told);
            around.push(told);
        }
        return outermost;
    }

    static List<FileOutline.Symbol> declarations(Source source) {
        try (LocalIndex local = index(source)) {
            return FileOutline.of(local.view(), 0, 0, MOST).symbols();
        }
    }

    /** The comments and strings of a text: start and end in UTF-16 units, and 1 for a comment, 2 for a string. */
    static int[] regions(Source source) {
        try (LocalIndex local = index(source)) {
            return FileOutline.regions(local.view(), 0, 0);
        }
    }

    /** Where a name stands in its code. */
    static List<DocumentHighlight> highlights(Source source, String name) {
        try (LocalIndex local = index(source)) {
            return Symbols.search(local, SymbolQuery.whole(name, Scope.EVERYTHING), SymbolRole.ANY).stream()
                    .map(symbol -> {
                        Position start = new Position(symbol.line().number() - 1, symbol.column() - 1);
                        return new DocumentHighlight(
                                new Range(start, new Position(start.getLine(), start.getCharacter() + name.length())),
                                symbol.role() == SymbolRole.DECLARATION
                                        ? DocumentHighlightKind.Write
                                        : DocumentHighlightKind.Text);
                    })
                    .toList();
        }
    }
}
