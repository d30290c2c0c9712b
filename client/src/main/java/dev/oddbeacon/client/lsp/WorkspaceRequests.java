package dev.oddbeacon.client.lsp;

import com.google.gson.JsonPrimitive;
import dev.oddbeacon.client.service.ExitStatus;
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

    private static final int MOST = 100;

    private final EditorServer server;
    private final Sources sources;
    private final Symbols symbols;
    private final Locations locations;
    private final Findings findings;

    WorkspaceRequests(EditorServer server, Sources sources, Symbols symbols, Locations locations, Findings findings) {
        this.server = server;
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
                                place.name(),
                                Kinds.of(place.kind()),
                                Either.forLeft(location),
                                place.container().isEmpty()
                                        ? place.repository()
                                        : place.container() + ", " + place.repository())))
                .toList()));
    }

    @Override
    public CompletableFuture<Object> executeCommand(ExecuteCommandParams asked) {
        return server.answer(_ -> {
            if (asked.getCommand().equals(SHOW)
                    && asked.getArguments().size() == 1
                    && asked.getArguments().getFirst() instanceof JsonPrimitive address
                    && locations.isInConsole(address.getAsString())) {
                ShowDocumentParams show = new ShowDocumentParams(address.getAsString());
                show.setExternal(true);
                server.editor().showDocument(show);
                return null;
            }
            throw new ServiceProblem(
                    SHOW + " takes one address of the service's console; there is no other command.", ExitStatus.WRONG);
        });
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
