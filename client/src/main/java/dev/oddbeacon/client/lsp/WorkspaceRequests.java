package dev.oddbeacon.client.lsp;

import com.google.gson.JsonPrimitive;
import dev.oddbeacon.api.BlameAnswer;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.eclipse.lsp4j.DidChangeConfigurationParams;
import org.eclipse.lsp4j.DidChangeWatchedFilesParams;
import org.eclipse.lsp4j.DidChangeWorkspaceFoldersParams;
import org.eclipse.lsp4j.ExecuteCommandParams;
import org.eclipse.lsp4j.ShowDocumentParams;
import org.eclipse.lsp4j.SymbolInformation;
import org.eclipse.lsp4j.WorkspaceSymbol;
import org.eclipse.lsp4j.WorkspaceSymbolParams;
import org.eclipse.lsp4j.jsonrpc.messages.Either;
import org.eclipse.lsp4j.services.WorkspaceService;

/** What the editor asks of no one document. */
final class WorkspaceRequests implements WorkspaceService {
    /** Shows an address in the browser: its only argument. */
    static final String SHOW = "oddbeacon.show";

    /** Shows the commit that a line comes from: repository, branch, path, and the line as it is indexed. */
    static final String SHOW_ORIGIN = "oddbeacon.showOrigin";

    private static final int OF_LINE = 4;
    private static final int MOST = 100;

    private final EditorServer server;
    private final Service service;
    private final Sources sources;
    private final Symbols symbols;
    private final Locations locations;
    private final Findings findings;

    WorkspaceRequests(
            EditorServer server,
            Service service,
            Sources sources,
            Symbols symbols,
            Locations locations,
            Findings findings) {
        this.server = server;
        this.service = service;
        this.sources = sources;
        this.symbols = symbols;
        this.locations = locations;
        this.findings = findings;
    }

    @Override
    public CompletableFuture<Either<List<? extends SymbolInformation>, List<? extends WorkspaceSymbol>>> symbol(
            WorkspaceSymbolParams asked) {
        if (asked.getQuery().isBlank()) {
            return CompletableFuture.completedFuture(Either.forRight(List.of()));
        }
        return server.answer(_ -> Either.forRight(symbols.named(asked.getQuery(), MOST).stream()
                .flatMap(place -> locations.of(place).stream()
                        .map(location -> new WorkspaceSymbol(
                                place.name(), Kinds.of(place.kind()), Either.forLeft(location), place.detail())))
                .toList()));
    }

    @Override
    public CompletableFuture<Object> executeCommand(ExecuteCommandParams asked) {
        List<String> arguments = asked.getArguments().stream()
                .map(one -> one instanceof JsonPrimitive text ? text.getAsString() : "")
                .toList();
        return server.answer(_ -> {
            String address = switch (asked.getCommand()) {
                case SHOW -> arguments.size() == 1 ? arguments.getFirst() : "";
                case SHOW_ORIGIN -> arguments.size() == OF_LINE ? origin(arguments) : "";
                default -> "";
            };
            if (!locations.isInConsole(address)) {
                throw new ServiceProblem(
                        SHOW + " takes one address of the service's console, " + SHOW_ORIGIN
                                + " a repository, a branch, a path and a line; there is no other command.",
                        ExitStatus.WRONG);
            }
            ShowDocumentParams show = new ShowDocumentParams(address);
            show.setExternal(true);
            server.editor().showDocument(show);
            return null;
        });
    }

    /** The address of the commit that a line comes from; empty if there is no such line. */
    private String origin(List<String> place) {
        String line = place.getLast();
        return service
                .get(
                        Service.path("repositories", place.get(0), "blame"),
                        new Service.Parameters().add("path", place.get(2)).add("rev", place.get(1)),
                        BlameAnswer.class)
                .origins()
                .stream()
                .filter(origin -> line.matches("\\d{1,9}")
                        && origin.fromLine() <= Integer.parseInt(line)
                        && Integer.parseInt(line) <= origin.toLine())
                .map(origin -> locations.commitInConsole(place.getFirst(), origin.commit()))
                .findFirst()
                .orElse("");
    }

    @Override
    public void didChangeConfiguration(DidChangeConfigurationParams change) {
        server.set(change.getSettings());
        server.beside(() -> findings.publish(server.settings().worklists(), server.editor()));
    }

    @Override
    public void didChangeWatchedFiles(DidChangeWatchedFilesParams change) {
        sources.forget();
    }

    @Override
    public void didChangeWorkspaceFolders(DidChangeWorkspaceFoldersParams change) {
        server.beside(() -> change.getEvent().getAdded().forEach(folder -> server.open(folder.getUri())));
    }
}
