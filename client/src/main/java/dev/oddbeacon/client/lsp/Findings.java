package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.Watch;
import dev.oddbeacon.api.Worklist;
import dev.oddbeacon.client.service.Service;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.stream.IntStream;
import org.eclipse.lsp4j.Diagnostic;
import org.eclipse.lsp4j.DiagnosticSeverity;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.PublishDiagnosticsParams;
import org.eclipse.lsp4j.Range;
import org.eclipse.lsp4j.services.LanguageClient;

/**
 * The open items of worklists, and what came since searches are watched, as diagnostics of the documents that they are
 * in.
 */
final class Findings {
    private static final int MOST = 1_000;
    private static final int LATEST = 50; // notices of a watch that are looked at

    private final Service service;
    private final Sources sources;
    private final Documents documents;

    Findings(Service service, Sources sources, Documents documents) {
        this.service = service;
        this.sources = sources;
        this.documents = documents;
    }

    /** Whether somebody wants to be told of any. */
    static boolean areWanted(EditorSettings settings) {
        return !settings.worklists().isEmpty() || !settings.watches().isEmpty();
    }

    /** Tells those of all documents that are open. */
    void publish(EditorSettings settings, LanguageClient editor) {
        List<Named> items = new ArrayList<>();
        for (String worklist : settings.worklists()) {
            service.get(
                            Service.path("worklists", worklist, "items"),
                            new Service.Parameters().add("state", "open").add("limit", MOST),
                            Worklist.Items.class)
                    .items()
                    .forEach(item -> items.add(new Named(
                            worklist,
                            item.result(),
                            "On the worklist " + worklist
                                    + (item.claimedBy() == null ? "" : "; " + item.claimedBy() + " is at it"))));
        }
        for (String watch : settings.watches()) {
            addNotices(watch, items);
        }
        documents
                .all()
                .values()
                .forEach(document -> sources.of(document.uri())
                        .ifPresent(source -> editor.publishDiagnostics(new PublishDiagnosticsParams(
                                document.uri(),
                                items.stream()
                                        .flatMap(named -> diagnostic(source, named).stream())
                                        .toList()))));
    }

    /** What came and has not gone again since, as far as the watch tells what goes. */
    private void addNotices(String watch, List<Named> into) {
        List<Watch.Notice> notices = service.get(
                        Service.path("watches", watch, "notices"),
                        new Service.Parameters().add("limit", LATEST),
                        Watch.Notices.class)
                .notices(); // the newest first
        List<Result> gone = new ArrayList<>();
        for (Watch.Notice notice : notices) {
            for (Result came : notice.came()) {
                if (gone.stream().noneMatch(went -> isSameText(went, came))) {
                    String day = notice.happened().toString().substring(0, "2026-01-31".length());
                    into.add(new Named(watch, came, "Came on " + day + ", says the watch " + watch));
                }
            }
            gone.addAll(notice.went());
        }
    }

    private static boolean isSameText(Result one, Result other) {
        return one.repository().equals(other.repository())
                && one.path().equals(other.path())
                && Objects.equals(one.text(), other.text());
    }

    /** @param list the worklist or the watch that has it */
    private record Named(String list, Result result, String message) {}

    private static Optional<Diagnostic> diagnostic(Source source, Named named) {
        Result result = named.result;
        if (result.line() == null
                || !source.repository().equals(result.repository())
                || !source.path().equals(result.path())) {
            return Optional.empty();
        }
        return lineOf(source, result).stream()
                .mapToObj(line -> {
                    String text = source.line(line);
                    int indent = text.length() - text.stripLeading().length();
                    Diagnostic told = new Diagnostic(
                            new Range(new Position(line - 1, indent), new Position(line - 1, text.length())),
                            named.message);
                    told.setSeverity(DiagnosticSeverity.Information);
                    told.setSource("Odd Beacon");
                    told.setCode(named.list);
                    return told;
                })
                .findFirst();
    }

    /** The line that has the text of a result by now: where it was indexed, or else the first with that text. */
    private static OptionalInt lineOf(Source source, Result result) {
        OptionalInt now = source.lineNow(result.line());
        String text = result.text() == null ? "" : result.text().strip();
        if (now.isPresent() && source.line(now.getAsInt()).contains(text)) {
            return now;
        }
        List<String> lines = source.text().lines().toList();
        return IntStream.range(0, lines.size())
                .filter(i -> !text.isEmpty() && lines.get(i).strip().equals(text))
                .map(i -> i + 1)
                .findFirst();
    }
}
