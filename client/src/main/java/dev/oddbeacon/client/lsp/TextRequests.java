package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.Outline;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.CompletableFuture;
import java.util.function.Function;
import org.eclipse.lsp4j.CallHierarchyIncomingCall;
import org.eclipse.lsp4j.CallHierarchyIncomingCallsParams;
import org.eclipse.lsp4j.CallHierarchyItem;
import org.eclipse.lsp4j.CallHierarchyOutgoingCall;
import org.eclipse.lsp4j.CallHierarchyOutgoingCallsParams;
import org.eclipse.lsp4j.CallHierarchyPrepareParams;
import org.eclipse.lsp4j.CodeAction;
import org.eclipse.lsp4j.CodeActionParams;
import org.eclipse.lsp4j.CodeLens;
import org.eclipse.lsp4j.CodeLensParams;
import org.eclipse.lsp4j.Command;
import org.eclipse.lsp4j.DeclarationParams;
import org.eclipse.lsp4j.DefinitionParams;
import org.eclipse.lsp4j.DidChangeTextDocumentParams;
import org.eclipse.lsp4j.DidCloseTextDocumentParams;
import org.eclipse.lsp4j.DidOpenTextDocumentParams;
import org.eclipse.lsp4j.DidSaveTextDocumentParams;
import org.eclipse.lsp4j.DocumentHighlight;
import org.eclipse.lsp4j.DocumentHighlightParams;
import org.eclipse.lsp4j.DocumentSymbol;
import org.eclipse.lsp4j.DocumentSymbolParams;
import org.eclipse.lsp4j.Hover;
import org.eclipse.lsp4j.HoverParams;
import org.eclipse.lsp4j.ImplementationParams;
import org.eclipse.lsp4j.Location;
import org.eclipse.lsp4j.LocationLink;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.PrepareRenameDefaultBehavior;
import org.eclipse.lsp4j.PrepareRenameParams;
import org.eclipse.lsp4j.PrepareRenameResult;
import org.eclipse.lsp4j.PublishDiagnosticsParams;
import org.eclipse.lsp4j.Range;
import org.eclipse.lsp4j.ReferenceParams;
import org.eclipse.lsp4j.RenameParams;
import org.eclipse.lsp4j.SymbolInformation;
import org.eclipse.lsp4j.TextDocumentPositionParams;
import org.eclipse.lsp4j.TypeHierarchyItem;
import org.eclipse.lsp4j.TypeHierarchyPrepareParams;
import org.eclipse.lsp4j.TypeHierarchySubtypesParams;
import org.eclipse.lsp4j.TypeHierarchySupertypesParams;
import org.eclipse.lsp4j.WorkspaceEdit;
import org.eclipse.lsp4j.jsonrpc.CancelChecker;
import org.eclipse.lsp4j.jsonrpc.messages.Either;
import org.eclipse.lsp4j.jsonrpc.messages.Either3;
import org.eclipse.lsp4j.services.TextDocumentService;

/** What the editor tells and asks of documents. */
final class TextRequests implements TextDocumentService {
    private final EditorServer server;
    private final Service service;
    private final Documents documents;
    private final Sources sources;
    private final Symbols symbols;
    private final Locations locations;
    private final Hierarchies hierarchies;
    private final Hovers hovers;
    private final Renaming renaming;
    private final Findings findings;

    TextRequests(
            EditorServer server,
            Service service,
            Documents documents,
            Sources sources,
            Symbols symbols,
            Locations locations,
            Hierarchies hierarchies,
            Hovers hovers,
            Renaming renaming,
            Findings findings) {
        this.server = server;
        this.service = service;
        this.documents = documents;
        this.sources = sources;
        this.symbols = symbols;
        this.locations = locations;
        this.hierarchies = hierarchies;
        this.hovers = hovers;
        this.renaming = renaming;
        this.findings = findings;
    }

    @Override
    public void didOpen(DidOpenTextDocumentParams given) {
        documents.open(
                given.getTextDocument().getUri(),
                given.getTextDocument().getText(),
                given.getTextDocument().getVersion());
        tellFindings();
    }

    @Override
    public void didChange(DidChangeTextDocumentParams given) {
        documents.change(
                given.getTextDocument().getUri(),
                given.getContentChanges(),
                given.getTextDocument().getVersion());
    }

    @Override
    public void didClose(DidCloseTextDocumentParams given) {
        documents.close(given.getTextDocument().getUri());
        server.editor()
                .publishDiagnostics(
                        new PublishDiagnosticsParams(given.getTextDocument().getUri(), List.of()));
    }

    @Override
    public void didSave(DidSaveTextDocumentParams given) {
        sources.forget();
        tellFindings();
    }

    private void tellFindings() {
        if (Findings.areWanted(server.settings())) {
            server.beside(() -> findings.publish(server.settings(), server.editor()));
        }
    }

    private Optional<Symbols.Named> named(TextDocumentPositionParams at) {
        return sources.of(at.getTextDocument().getUri()).flatMap(source -> symbols.at(source, at.getPosition()));
    }

    /** What is told of the name at a position. */
    private <T> CompletableFuture<List<T>> ofName(
            TextDocumentPositionParams at, Function<Symbols.Named, List<T>> answer) {
        return server.answer(_ -> named(at).map(answer).orElse(List.of()));
    }

    private CompletableFuture<Either<List<? extends Location>, List<? extends LocationLink>>> declared(
            TextDocumentPositionParams at) {
        return ofName(at, named -> locations.of(symbols.declarations(named))).thenApply(Either::forLeft);
    }

    @Override
    public CompletableFuture<Either<List<? extends Location>, List<? extends LocationLink>>> definition(
            DefinitionParams at) {
        return declared(at);
    }

    @Override
    public CompletableFuture<Either<List<? extends Location>, List<? extends LocationLink>>> declaration(
            DeclarationParams at) {
        return declared(at);
    }

    @Override
    public CompletableFuture<Either<List<? extends Location>, List<? extends LocationLink>>> implementation(
            ImplementationParams at) {
        return ofName(at, hierarchies::implementations).thenApply(Either::forLeft);
    }

    @Override
    public CompletableFuture<List<? extends Location>> references(ReferenceParams at) {
        return server.answer(checker -> named(at)
                .map(named -> locations.of(
                        symbols.references(named, at.getContext().isIncludeDeclaration(), checker::isCanceled)))
                .orElse(List.of()));
    }

    @Override
    public CompletableFuture<List<TypeHierarchyItem>> prepareTypeHierarchy(TypeHierarchyPrepareParams at) {
        return ofName(at, hierarchies::types);
    }

    @Override
    public CompletableFuture<List<TypeHierarchyItem>> typeHierarchySupertypes(TypeHierarchySupertypesParams asked) {
        return server.answer(_ -> hierarchies.related(asked.getItem(), told -> told.supertypes()));
    }

    @Override
    public CompletableFuture<List<TypeHierarchyItem>> typeHierarchySubtypes(TypeHierarchySubtypesParams asked) {
        return server.answer(_ -> hierarchies.related(asked.getItem(), told -> told.subtypes()));
    }

    @Override
    public CompletableFuture<List<CallHierarchyItem>> prepareCallHierarchy(CallHierarchyPrepareParams at) {
        return ofName(at, hierarchies::callables);
    }

    @Override
    public CompletableFuture<List<CallHierarchyIncomingCall>> callHierarchyIncomingCalls(
            CallHierarchyIncomingCallsParams asked) {
        return server.answer(_ -> hierarchies.callers(asked.getItem()));
    }

    @Override
    public CompletableFuture<List<CallHierarchyOutgoingCall>> callHierarchyOutgoingCalls(
            CallHierarchyOutgoingCallsParams asked) {
        return server.answer(_ -> hierarchies.callees(asked.getItem()));
    }

    @Override
    public CompletableFuture<List<Either<SymbolInformation, DocumentSymbol>>> documentSymbol(
            DocumentSymbolParams asked) {
        return server.answerQuietly(
                List.of(),
                _ ->
                        sources
                                .of(asked.getTextDocument().getUri())
                                .map(DocumentAnswers::outline)
                                .orElse(List.of())
                                .stream()
                                .map(Either::<SymbolInformation, DocumentSymbol>forRight)
                                .toList());
    }

    @Override
    public CompletableFuture<List<? extends DocumentHighlight>> documentHighlight(DocumentHighlightParams at) {
        return server.answerQuietly(
                List.of(),
                _ -> sources.of(at.getTextDocument().getUri())
                        .flatMap(source -> source.name(at.getPosition())
                                .map(range -> DocumentAnswers.highlights(source, source.text(range))))
                        .orElse(List.of()));
    }

    @Override
    public CompletableFuture<Hover> hover(HoverParams at) {
        return server.answerQuietly(
                null,
                _ -> named(at)
                        .flatMap(named -> hovers.of(named, server.takesMarkdown()))
                        .orElse(null));
    }

    @Override
    public CompletableFuture<List<? extends CodeLens>> codeLens(CodeLensParams asked) {
        if (!server.settings().usesShown()) {
            return CompletableFuture.completedFuture(List.of());
        }
        return server.answerQuietly(
                List.of(),
                checker -> sources.of(asked.getTextDocument().getUri())
                        .map(source -> lenses(source, checker))
                        .orElse(List.of()));
    }

    private List<CodeLens> lenses(Source source, CancelChecker checker) {
        if (source.lines().isEmpty()) {
            return List.of(); // it is new, and nothing that is indexed can use it
        }
        Outline outline = service.get(
                Service.path("repositories", source.repository(), "outline"),
                new Service.Parameters()
                        .add("path", source.path())
                        .add("rev", source.branch())
                        .add("uses", true),
                Outline.class);
        checker.checkCanceled();
        List<CodeLens> lenses = new ArrayList<>();
        for (Outline.Symbol symbol : outline.symbols()) {
            OptionalInt line = source.lineNow(symbol.line());
            Long uses = symbol.usesMeant() != null ? symbol.usesMeant() : symbol.uses();
            if (line.isPresent() && uses != null && !symbol.kind().equals("namespace")) {
                Position start = new Position(line.getAsInt() - 1, symbol.column() - 1);
                lenses.add(new CodeLens(
                        new Range(
                                start,
                                new Position(
                                        start.getLine(),
                                        start.getCharacter() + symbol.name().length())),
                        show(
                                symbol.usesMeant() != null
                                        ? Amounts.of(uses, "use")
                                        : Amounts.of(uses, "use") + " of the name",
                                locations.usesInConsole(source, symbol)),
                        null));
            }
        }
        return lenses;
    }

    private static Command show(String title, String address) {
        return new Command(title, WorkspaceRequests.SHOW, List.of(address));
    }

    @Override
    public CompletableFuture<List<Either<Command, CodeAction>>> codeAction(CodeActionParams asked) {
        return server.answerQuietly(List.of(), _ -> {
            Optional<Source> source = sources.of(asked.getTextDocument().getUri());
            OptionalInt line = source.map(
                            one -> one.indexedLine(asked.getRange().getStart().getLine() + 1))
                    .orElse(OptionalInt.empty());
            if (line.isEmpty()) {
                return List.of();
            }
            List<Either<Command, CodeAction>> actions = new ArrayList<>();
            actions.add(Either.forLeft(
                    show("Show the line in Odd Beacon's console", locations.inConsole(source.get(), line.getAsInt()))));
            actions.add(Either.forLeft(new Command(
                    "Show the commit that the line comes from",
                    WorkspaceRequests.SHOW_ORIGIN,
                    List.of(
                            source.get().repository(),
                            source.get().branch(),
                            source.get().path(),
                            String.valueOf(line.getAsInt())))));
            return actions;
        });
    }

    @Override
    public CompletableFuture<Either3<Range, PrepareRenameResult, PrepareRenameDefaultBehavior>> prepareRename(
            PrepareRenameParams at) {
        return server.answer(_ -> named(at)
                .filter(named -> !symbols.declarations(named).isEmpty())
                .map(named -> Either3.<Range, PrepareRenameResult, PrepareRenameDefaultBehavior>forFirst(named.range()))
                .orElse(null));
    }

    @Override
    public CompletableFuture<WorkspaceEdit> rename(RenameParams at) {
        return server.answer(_ -> renaming.rename(
                named(at).orElseThrow(() -> new ServiceProblem("No name of a symbol stands there.", ExitStatus.WRONG)),
                at.getNewName(),
                server.takesVersions()));
    }
}
