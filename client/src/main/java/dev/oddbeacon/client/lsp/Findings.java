package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.Worklist;
import dev.oddbeacon.client.service.Service;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.eclipse.lsp4j.Diagnostic;
import org.eclipse.lsp4j.DiagnosticSeverity;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.PublishDiagnosticsParams;
import org.eclipse.lsp4j.Range;
import org.eclipse.lsp4j.services.LanguageClient;

/** The open items of worklists, as diagnostics of the documents that they are in. */
final class Findings {
    private static final int MOST = 1_000;

    private final Service service;
    private final Sources sources;
    private final Documents documents;

    Findings(Service service, Sources sources, Documents documents) {
        this.service = service;
        this.sources = sources;
        this.documents = documents;
    }

    /** Tells those of all documents that are open. */
    void publish(List<String> worklists, LanguageClient editor) {
        List<Named> items = new ArrayList<>();
        for (String worklist : worklists) {
            service.get(
                            Service.path("worklists", worklist, "items"),
                            new Service.Parameters().add("state", "open").add("limit", MOST),
                            Worklist.Items.class)
                    .items()
                    .forEach(item -> items.add(new Named(worklist, item)));
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

    private record Named(String worklist, Worklist.Item item) {}

    private static Optional<Diagnostic> diagnostic(Source source, Named named) {
        Worklist.Item item = named.item;
        if (item.result().line() == null
                || !source.repository().equals(item.result().repository())
                || !source.path().equals(item.result().path())) {
            return Optional.empty();
        }
        return source.lineNow(item.result().line()).stream()
                .mapToObj(line -> {
                    String text = source.line(line);
                    int indent = text.length() - text.stripLeading().length();
                    Diagnostic told = new Diagnostic(
                            new Range(new Position(line - 1, indent), new Position(line - 1, text.length())),
                            "On the worklist " + named.worklist
                                    + (item.claimedBy() == null ? "" : "; " + item.claimedBy() + " is at it"));
                    told.setSeverity(DiagnosticSeverity.Information);
                    told.setSource("Odd Beacon");
                    told.setCode(named.worklist);
                    return told;
                })
                .findFirst();
    }
}
