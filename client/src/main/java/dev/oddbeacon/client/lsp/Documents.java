package dev.oddbeacon.client.lsp;

import java.net.URI;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.TextDocumentContentChangeEvent;

/** The documents that the editor has open, as they are on its screen. Columns are UTF-16 units. */
final class Documents {
    /**
     * A document.
     *
     * @param text with LF only
     * @param version as the editor counts
     */
    record Open(String uri, String text, int version) {}

    private final Map<Path, Open> open = new HashMap<>();
    private long changes;

    /** The file that a document is; empty if it is none. */
    static Optional<Path> file(String uri) {
        try {
            URI address = URI.create(uri);
            return "file".equals(address.getScheme())
                    ? Optional.of(Path.of(address).normalize())
                    : Optional.empty();
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    synchronized void open(String uri, String text, int version) {
        file(uri).ifPresent(file -> open.put(file, new Open(uri, withoutCarriageReturns(text), version)));
        changes++;
    }

    synchronized void change(String uri, List<TextDocumentContentChangeEvent> edits, int version) {
        file(uri)
                .ifPresent(file -> open.computeIfPresent(file, (_, old) -> {
                    String text = old.text();
                    for (TextDocumentContentChangeEvent edit : edits) {
                        text = edited(text, edit);
                    }
                    return new Open(old.uri(), text, version);
                }));
        changes++;
    }

    synchronized void close(String uri) {
        file(uri).ifPresent(open::remove);
        changes++;
    }

    synchronized Optional<Open> at(Path file) {
        return Optional.ofNullable(open.get(file));
    }

    synchronized Map<Path, Open> all() {
        return Map.copyOf(open);
    }

    /** Grows with each change. */
    synchronized long changes() {
        return changes;
    }

    private static String edited(String text, TextDocumentContentChangeEvent edit) {
        String with = withoutCarriageReturns(edit.getText());
        return edit.getRange() == null
                ? with
                : text.substring(0, offset(text, edit.getRange().getStart()))
                        + with
                        + text.substring(offset(text, edit.getRange().getEnd()));
    }

    private static int offset(String text, Position position) {
        int at = 0;
        for (int line = 0; line < position.getLine(); line++) {
            int end = text.indexOf('\n', at);
            if (end < 0) {
                return text.length();
            }
            at = end + 1;
        }
        int end = text.indexOf('\n', at);
        return Math.min(at + position.getCharacter(), end < 0 ? text.length() : end);
    }

    static String withoutCarriageReturns(String text) {
        return text.replace("\r\n", "\n");
    }
}
