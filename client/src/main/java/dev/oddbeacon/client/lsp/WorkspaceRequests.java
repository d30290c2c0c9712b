package dev.oddbeacon.client.lsp;

import com.google.gson.JsonPrimitive;
import dev.oddbeacon.api.BlameAnswer;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Reading;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Stream;
import org.eclipse.lsp4j.DidChangeConfigurationParams;
import org.eclipse.lsp4j.DidChangeWatchedFilesParams;
import org.eclipse.lsp4j.DidChangeWorkspaceFoldersParams;
import org.eclipse.lsp4j.ExecuteCommandParams;
import org.eclipse.lsp4j.Location;
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

    /**
     * Finds matches in the documents that are open: the text, and how it is read ({@code plain}, {@code regex} or {@code
     * expression}) unless it is plain. The answer is a list of locations.
     */
    static final String LINES_IN_OPEN = "oddbeacon.linesInOpen";

    private static final int OF_LINE = 4;
    private static final int MOST = 100;

    private final EditorServer server;
    private final Service service;
    private final Sources sources;
    private final Symbols symbols;
    private final Locations locations;
    private final Findings findings;
    private final OpenDocuments openDocuments;

    WorkspaceRequests(
            EditorServer server,
            Service service,
            Sources sources,
            Symbols symbols,
            Locations locations,
            Findings findings,
            OpenDocuments openDocuments) {
        this.server = server;
        this.service = service;
        this.sources = sources;
        this.symbols = symbols;
        this.locations = locations;
        this.findings = findings;
        this.openDocuments = openDocuments;
    }

    @Override
    public CompletableFuture<Either<List<? extends SymbolInformation>, List<? extends WorkspaceSymbol>>> symbol(
            WorkspaceSymbolParams asked) {
        if (asked.getQuery().isBlank()) {
            return CompletableFuture.completedFuture(Either.forRight(List.of()));
        }
        if (server.settings().symbolsIn() == EditorSettings.SymbolsIn.OPEN) {
            return server.answer(_ -> Either.forRight(openDocuments.symbols(asked.getQuery())));
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
        if (asked.getCommand().equals(LINES_IN_OPEN)) {
            return server.answer(_ -> linesInOpen(arguments));
        }
        return server.answer(_ -> {
            String address = switch (asked.getCommand()) {
                case SHOW -> arguments.size() == 1 ? arguments.getFirst() : "";
                case SHOW_ORIGIN -> arguments.size() == OF_LINE ? origin(arguments) : "";
                default -> "";
            };
            if (!locations.isInConsole(address)) {
                throw new ServiceProblem(
                        SHOW + " takes one address of the service's console, " + SHOW_ORIGIN
                                + " a repository, a branch, a path and a line, " + LINES_IN_OPEN
                                + " a text and how it is read; there is no other command.",
                        ExitStatus.WRONG);
            }
            ShowDocumentParams show = new ShowDocumentParams(address);
            show.setExternal(true);
            server.editor().showDocument(show);
            return null;
        });
    }

    private List<Location> linesInOpen(List<String> arguments) {
        Optional<Reading> reading = arguments.isEmpty() || arguments.getFirst().isEmpty() || arguments.size() > 2
                ? Optional.empty()
                : arguments.size() == 1
                        ? Optional.of(Reading.PLAIN)
                        : Stream.of(Reading.values())
                                .filter(one -> one.name().equalsIgnoreCase(arguments.get(1)))
                                .findFirst();
        if (reading.isEmpty()) {
            throw new ServiceProblem(
                    LINES_IN_OPEN + " takes a text, and plain, regex or expression.", ExitStatus.WRONG);
        }
        try {
            return openDocuments.lines(arguments.getFirst(), reading.get());
        } catch (InvalidQueryException e) {
            throw new ServiceProblem(e.getMessage(), ExitStatus.WRONG);
        }
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
        server.beside(() -> findings.publish(server.settings(), server.editor()));
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
