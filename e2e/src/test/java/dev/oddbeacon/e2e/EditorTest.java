package dev.oddbeacon.e2e;

import static dev.oddbeacon.e2e.EditorClient.got;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.google.gson.Gson;
import dev.oddbeacon.e2e.EditorClient.Document;
import java.io.IOException;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.eclipse.lsp4j.CallHierarchyIncomingCallsParams;
import org.eclipse.lsp4j.CallHierarchyItem;
import org.eclipse.lsp4j.CallHierarchyOutgoingCallsParams;
import org.eclipse.lsp4j.CallHierarchyPrepareParams;
import org.eclipse.lsp4j.CodeActionContext;
import org.eclipse.lsp4j.CodeActionParams;
import org.eclipse.lsp4j.CodeLens;
import org.eclipse.lsp4j.CodeLensParams;
import org.eclipse.lsp4j.Command;
import org.eclipse.lsp4j.DefinitionParams;
import org.eclipse.lsp4j.Diagnostic;
import org.eclipse.lsp4j.DidChangeTextDocumentParams;
import org.eclipse.lsp4j.DidSaveTextDocumentParams;
import org.eclipse.lsp4j.DocumentHighlightParams;
import org.eclipse.lsp4j.DocumentSymbol;
import org.eclipse.lsp4j.DocumentSymbolParams;
import org.eclipse.lsp4j.ExecuteCommandParams;
import org.eclipse.lsp4j.HoverParams;
import org.eclipse.lsp4j.ImplementationParams;
import org.eclipse.lsp4j.Location;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.PublishDiagnosticsParams;
import org.eclipse.lsp4j.Range;
import org.eclipse.lsp4j.ReferenceContext;
import org.eclipse.lsp4j.ReferenceParams;
import org.eclipse.lsp4j.RenameParams;
import org.eclipse.lsp4j.TextDocumentContentChangeEvent;
import org.eclipse.lsp4j.TextDocumentEdit;
import org.eclipse.lsp4j.TextDocumentIdentifier;
import org.eclipse.lsp4j.TypeHierarchyItem;
import org.eclipse.lsp4j.TypeHierarchyPrepareParams;
import org.eclipse.lsp4j.TypeHierarchySubtypesParams;
import org.eclipse.lsp4j.VersionedTextDocumentIdentifier;
import org.eclipse.lsp4j.WorkspaceEdit;
import org.eclipse.lsp4j.WorkspaceSymbol;
import org.eclipse.lsp4j.WorkspaceSymbolParams;
import org.eclipse.lsp4j.jsonrpc.ResponseErrorException;
import org.eclipse.lsp4j.services.TextDocumentService;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** An editor in work trees of the demo's repositories: the real process, spoken to over its standard input and output. */
class EditorTest {
    private static final String PLANNER = "src/main/java/quillhaven/berth/plan/BerthPlanner.java";

    @TempDir
    Path folder;

    private Path berths;
    private EditorClient editor;
    private TextDocumentService documents;

    private Path cloned(String repository) throws IOException {
        Path tree = folder.toRealPath().resolve(repository);
        GitFolder.create(folder.resolve("any"))
                .git(
                        "clone",
                        "-q",
                        Http.get(Demo.address(), "/api/v1/repositories/" + repository)
                                .text("location"),
                        tree.toString());
        return tree;
    }

    private void start(Object options, Path... folders) throws IOException {
        editor = new EditorClient(Demo.address(), options, folders);
        documents = editor.server().getTextDocumentService();
    }

    @BeforeEach
    void cloneARepository() throws IOException {
        berths = cloned("berth-planner");
    }

    @AfterEach
    void endTheEditor() {
        editor.close();
    }

    private List<? extends Location> definition(Document document, Position at) {
        return got(documents.definition(new DefinitionParams(document.id(), at)))
                .getLeft();
    }

    private List<? extends Location> references(Document document, Position at) {
        return got(documents.references(new ReferenceParams(document.id(), at, new ReferenceContext(false))));
    }

    private static String line(String text, Location location) {
        return text.lines()
                .skip(location.getRange().getStart().getLine())
                .findFirst()
                .orElse("");
    }

    /** The document after somebody typed a text at a position. */
    private Document typed(Document document, Position at, String text) {
        TextDocumentContentChangeEvent change = new TextDocumentContentChangeEvent(new Range(at, at), text);
        documents.didChange(new DidChangeTextDocumentParams(
                new VersionedTextDocumentIdentifier(document.uri(), 2), List.of(change)));
        List<String> lines = document.text().lines().collect(Collectors.toList());
        String line = lines.get(at.getLine());
        lines.set(at.getLine(), line.substring(0, at.getCharacter()) + text + line.substring(at.getCharacter()));
        return new Document(document.uri(), String.join("\n", lines) + "\n");
    }

    @Test
    void aNameLeadsToItsDeclarationItsUsesAndWhatIsKnownOfIt() throws IOException {
        start(null, berths);
        Document planner = editor.open(berths.resolve(PLANNER));
        Position call = planner.of("assign(");
        assertThat(definition(planner, call))
                .singleElement()
                .satisfies(found -> assertThat(line(planner.text(), found)).contains("Optional<Stay> assign(Call"));
        assertThat(references(planner, call))
                .hasSize(3)
                .allSatisfy(found -> assertThat(line(planner.text(), found)).contains("assign("));
        assertThat(got(documents.hover(new HoverParams(planner.id(), call)))
                        .getContents()
                        .getRight()
                        .getValue())
                .contains("Optional<Stay> assign(Call call, List<Stay> stays)", "Used 3 times, in berth");
        assertThat(got(documents.documentHighlight(new DocumentHighlightParams(planner.id(), call))))
                .hasSize(4);
        assertThat(editor.end()).isEqualTo(0);
    }

    @Test
    void whatIsTypedMovesPlacesAndIsFoundItself() throws IOException {
        start(null, berths);
        Document saved = editor.open(berths.resolve(PLANNER));
        Document moved = typed(saved, new Position(0, 0), "// Typed, and not saved yet.\n");
        assertThat(references(moved, moved.of("assign(")))
                .hasSize(3)
                .allSatisfy(found -> assertThat(line(moved.text(), found)).contains("assign("));
        Position inside = moved.of("assign(");
        Document used = typed(moved, new Position(inside.getLine(), 0), "        assign(null, null); measured();\n");
        assertThat(references(used, used.of("assign(Call")))
                .hasSize(4)
                .allSatisfy(found -> assertThat(line(used.text(), found)).contains("assign("));
        assertThat(definition(used, used.of("assign(null")))
                .singleElement()
                .satisfies(found -> assertThat(line(used.text(), found)).contains("Optional<Stay> assign(Call"));
        Document declared = typed(
                used, new Position(used.of("public Plan plan(").getLine(), 0), "    private void measured() {}\n\n");
        assertThat(definition(declared, declared.of("measured();")))
                .singleElement()
                .satisfies(found -> assertThat(line(declared.text(), found)).contains("void measured()"));
    }

    @Test
    void linesThatWentAreFoundNoMore() throws IOException {
        start(null, berths);
        Document saved = editor.open(berths.resolve(PLANNER));
        Position call = saved.of("assign(");
        Range line = new Range(new Position(call.getLine(), 0), new Position(call.getLine() + 1, 0));
        documents.didChange(new DidChangeTextDocumentParams(
                new VersionedTextDocumentIdentifier(saved.uri(), 2),
                List.of(new TextDocumentContentChangeEvent(line, ""))));
        List<String> lines = saved.text().lines().collect(Collectors.toList());
        lines.remove(call.getLine());
        Document cut = new Document(saved.uri(), String.join("\n", lines) + "\n");
        assertThat(references(cut, cut.of("assign(Call")))
                .hasSize(2)
                .allSatisfy(found -> assertThat(line(cut.text(), found)).contains("assign("));
    }

    @Test
    void aNewFileIsKnownBeforeItIsCommitted() throws IOException {
        start(null, berths);
        Path file = berths.resolve("src/main/java/quillhaven/berth/plan/Fender.java");
        Files.writeString(file, "package quillhaven.berth.plan;\n\nfinal class Fender {\n    int softness;\n}\n");
        documents.didSave(new DidSaveTextDocumentParams(
                new TextDocumentIdentifier(file.toUri().toString())));
        List<? extends WorkspaceSymbol> found = got(editor.server()
                        .getWorkspaceService()
                        .symbol(new WorkspaceSymbolParams("Fender")))
                .getRight();
        assertThat(found)
                .anySatisfy(symbol -> assertThat(symbol.getLocation().getLeft().getUri())
                        .isEqualTo(file.toUri().toString()));
        Document fender = editor.open(file);
        assertThat(got(documents.documentSymbol(new DocumentSymbolParams(fender.id()))).stream()
                        .flatMap(one -> flat(one.getRight()).stream()))
                .contains("Fender", "softness");
    }

    private static List<String> flat(DocumentSymbol symbol) {
        return Stream.concat(
                        Stream.of(symbol.getName()),
                        symbol.getChildren().stream().flatMap(child -> flat(child).stream()))
                .toList();
    }

    @Test
    void placesInOtherRepositoriesOpenAsCopiesThatCanOnlyBeRead() throws IOException {
        start(null, berths);
        List<? extends WorkspaceSymbol> found = got(editor.server()
                        .getWorkspaceService()
                        .symbol(new WorkspaceSymbolParams("Ticket")))
                .getRight();
        List<WorkspaceSymbol> elsewhere = found.stream()
                .map(WorkspaceSymbol.class::cast)
                .filter(symbol -> !symbol.getLocation()
                        .getLeft()
                        .getUri()
                        .startsWith(berths.toUri().toString()))
                .toList();
        assertThat(elsewhere).isNotEmpty();
        Location place = elsewhere.getFirst().getLocation().getLeft();
        Path copy = Path.of(URI.create(place.getUri()));
        assertThat(line(Files.readString(copy), place))
                .contains(elsewhere.getFirst().getName());
        assertThat(Files.getPosixFilePermissions(copy)).hasSize(1);
        Document open = editor.open(copy);
        assertThat(definition(open, place.getRange().getStart())).anyMatch(place::equals);
    }

    @Test
    void typesAndCallsUnfoldLevelByLevel() throws IOException {
        start(null, berths);
        Document rule = editor.open(berths.resolve("src/main/java/quillhaven/berth/rule/Rule.java"));
        Position name = rule.of("Rule {");
        List<TypeHierarchyItem> types =
                got(documents.prepareTypeHierarchy(new TypeHierarchyPrepareParams(rule.id(), name)));
        assertThat(types).singleElement().extracting(TypeHierarchyItem::getName).isEqualTo("Rule");
        assertThat(got(documents.typeHierarchySubtypes(new TypeHierarchySubtypesParams(types.getFirst()))))
                .extracting(TypeHierarchyItem::getName)
                .contains("BufferRule", "DepthRule");
        assertThat(got(documents.implementation(new ImplementationParams(rule.id(), name)))
                        .getLeft())
                .extracting(Location::getUri)
                .anyMatch(uri -> uri.endsWith("/DepthRule.java"));
        Document planner = editor.open(berths.resolve(PLANNER));
        List<CallHierarchyItem> calls = got(
                documents.prepareCallHierarchy(new CallHierarchyPrepareParams(planner.id(), planner.of("assign("))));
        assertThat(got(documents.callHierarchyIncomingCalls(new CallHierarchyIncomingCallsParams(calls.getFirst()))))
                .extracting(call -> call.getFrom().getName())
                .contains("plan");
        assertThat(got(documents.callHierarchyOutgoingCalls(new CallHierarchyOutgoingCallsParams(calls.getFirst()))))
                .extracting(call -> call.getTo().getName())
                .contains("Stay");
    }

    @Test
    void aNewNameIsGivenInTheWorkTree() throws IOException {
        start(null, berths);
        Document planner = editor.open(berths.resolve(PLANNER));
        WorkspaceEdit edit = got(documents.rename(new RenameParams(planner.id(), planner.of("assign("), "allot")));
        assertThat(edit.getDocumentChanges()).singleElement().satisfies(change -> {
            TextDocumentEdit edits = change.getLeft();
            assertThat(edits.getTextDocument().getUri()).isEqualTo(planner.uri());
            assertThat(edits.getTextDocument().getVersion()).isEqualTo(1);
            assertThat(edits.getEdits())
                    .hasSize(4)
                    .allSatisfy(one -> assertThat(one.getLeft().getNewText()).isEqualTo("allot"));
        });
        assertThatThrownBy(
                        () -> got(documents.rename(new RenameParams(planner.id(), planner.of("assign("), "two words"))))
                .isInstanceOf(ResponseErrorException.class)
                .hasMessageContaining("no white space");
    }

    @Test
    void usesStandAboveDeclarationsAndLeadToTheConsole() throws IOException, InterruptedException {
        start(null, berths);
        Document planner = editor.open(berths.resolve(PLANNER));
        List<? extends CodeLens> lenses = got(documents.codeLens(new CodeLensParams(planner.id())));
        CodeLens lens = lenses.stream()
                .filter(one -> one.getRange().getStart().equals(planner.of("assign(Call")))
                .findFirst()
                .orElseThrow();
        assertThat(lens.getCommand().getTitle()).isEqualTo("3 uses");
        got(editor.server()
                .getWorkspaceService()
                .executeCommand(new ExecuteCommandParams(
                        lens.getCommand().getCommand(), lens.getCommand().getArguments())));
        assertThat(editor.shown.poll(20, TimeUnit.SECONDS).getUri()).startsWith(Demo.address() + "/symbols?q=assign");
        Range at = new Range(planner.of("assign("), planner.of("assign("));
        List<Command> actions =
                got(documents.codeAction(new CodeActionParams(planner.id(), at, new CodeActionContext(List.of()))))
                        .stream()
                        .map(action -> action.getLeft())
                        .toList();
        assertThat(actions)
                .extracting(Command::getTitle)
                .containsExactly("Show the line in Odd Beacon's console", "Show the commit that the line comes from");
        for (Command action : actions) {
            got(editor.server()
                    .getWorkspaceService()
                    .executeCommand(new ExecuteCommandParams(action.getCommand(), action.getArguments())));
        }
        assertThat(editor.shown.poll(20, TimeUnit.SECONDS).getUri())
                .startsWith(Demo.address() + "/file?in=berth-planner")
                .endsWith("&line=30");
        assertThat(editor.shown.poll(20, TimeUnit.SECONDS).getUri())
                .startsWith(Demo.address() + "/commit?in=berth-planner&id=afddb1a399");
        assertThatThrownBy(() -> got(editor.server()
                        .getWorkspaceService()
                        .executeCommand(
                                new ExecuteCommandParams("oddbeacon.show", List.of("https://elsewhere.example/")))))
                .hasMessageContaining("there is no other command");
    }

    @Test
    void searchesAreLimitedToTheDocumentsThatAreOpen() throws IOException {
        start(Map.of("symbolsIn", "open"), berths);
        Document planner = editor.open(berths.resolve(PLANNER));
        Document own = editor.open(folder.resolve("note.java"), "class Mooring { int assignable; } // assign\n");
        List<Location> found = linesInOpen("assign");
        assertThat(found).extracting(Location::getUri).containsOnly(planner.uri(), own.uri());
        assertThat(found)
                .filteredOn(one -> one.getUri().equals(own.uri()))
                .extracting(Location::getRange)
                .containsExactly(range(0, 20, 26), range(0, 37, 43));
        assertThat(linesInOpen("assign\\w+", "regex"))
                .filteredOn(one -> one.getUri().equals(own.uri()))
                .extracting(Location::getRange)
                .containsExactly(range(0, 20, 30));
        assertThat(symbolNames("Mooring")).containsExactly("Mooring");
        assertThat(symbolNames("TideSource")).isEmpty();

        typed(own, new Position(0, 0), "class Later {} ");
        assertThat(symbolNames("Later")).containsExactly("Later");
        assertThatThrownBy(() -> linesInOpen("(", "regex")).hasMessageContaining("(");
        assertThatThrownBy(() -> linesInOpen("a", "glob")).hasMessageContaining("plain, regex or expression");
    }

    private static Range range(int line, int start, int end) {
        return new Range(new Position(line, start), new Position(line, end));
    }

    private List<Location> linesInOpen(Object... arguments) {
        Object found = got(editor.server()
                .getWorkspaceService()
                .executeCommand(new ExecuteCommandParams("oddbeacon.linesInOpen", List.of(arguments))));
        return List.of(new Gson().fromJson(new Gson().toJson(found), Location[].class));
    }

    private List<String> symbolNames(String text) {
        return got(editor.server().getWorkspaceService().symbol(new WorkspaceSymbolParams(text))).getRight().stream()
                .map(WorkspaceSymbol::getName)
                .toList();
    }

    @Test
    void whatIsLeftOfAWorklistIsTold() throws IOException, InterruptedException {
        Path hull = cloned("hull-telemetry");
        start(Map.of("worklists", List.of("depths-in-feet")), hull);
        editor.open(hull.resolve("src/channel.h"));
        List<Diagnostic> told = List.of();
        while (told.isEmpty()) {
            PublishDiagnosticsParams one = editor.diagnostics.poll(30, TimeUnit.SECONDS);
            assertThat(one).as("diagnostics").isNotNull();
            told = one.getDiagnostics();
        }
        assertThat(told)
                .allSatisfy(one -> assertThat(one.getMessage().getLeft()).startsWith("On the worklist depths-in-feet"));
        assertThat(told).extracting(one -> one.getRange().getStart().getLine()).contains(26, 27);
    }

    @Test
    void twoFoldersAreOpenAtOnce() throws IOException {
        Path gate = cloned("fare-gate");
        start(null, berths, gate);
        Document planner = editor.open(berths.resolve(PLANNER));
        Document ticket = editor.open(gate.resolve("internal/ticket/ticket.go"));
        assertThat(definition(planner, planner.of("assign("))).hasSize(1);
        assertThat(references(ticket, ticket.of("Ticket struct")))
                .isNotEmpty()
                .allSatisfy(found ->
                        assertThat(found.getUri()).startsWith(gate.toUri().toString()));
    }

    @Test
    void aRequestThatIsCancelledIsAnsweredSo() throws IOException {
        start(null, berths);
        Document planner = editor.open(berths.resolve(PLANNER));
        CompletableFuture<List<? extends Location>> asked = documents.references(
                new ReferenceParams(planner.id(), planner.of("assign("), new ReferenceContext(false)));
        asked.cancel(true);
        assertThatThrownBy(() -> got(asked)).isInstanceOf(CancellationException.class);
        assertThat(definition(planner, planner.of("assign(")))
                .as("the next one")
                .hasSize(1);
    }

    @Test
    void aServiceThatIsGoneIsToldAndFoundAgain() throws IOException, InterruptedException {
        try (Forwarder way = new Forwarder(Demo.address())) {
            editor = new EditorClient(way.address(), null, berths);
            documents = editor.server().getTextDocumentService();
            Document planner = editor.open(berths.resolve(PLANNER));
            Position call = planner.of("assign(");
            assertThat(definition(planner, call)).hasSize(1);
            way.cut();
            Thread.sleep(2_500); // until what was known of the index would be looked at again
            assertThatThrownBy(() -> definition(planner, call))
                    .isInstanceOf(ResponseErrorException.class)
                    .hasMessageContaining("No service answers at " + way.address());
            assertThat(got(documents.hover(new HoverParams(planner.id(), call))))
                    .as("what nobody asked for")
                    .isNull();
            assertThat(got(documents.documentSymbol(new DocumentSymbolParams(planner.id()))))
                    .as("what needs no service")
                    .isNotEmpty();
            way.mend();
            assertThat(definition(planner, call)).hasSize(1);
        }
    }

    @Test
    void whatIsNoWorkTreeOfTheServiceIsTold() throws IOException, InterruptedException {
        Path other = GitFolder.create(folder.resolve("other"))
                .write("a.txt", "unknown\n")
                .commit("Start")
                .path()
                .toRealPath();
        start(null, other);
        Document document = editor.open(other.resolve("a.txt"));
        assertThat(definition(document, new Position(0, 1))).isEmpty();
        assertThat(editor.messages.poll(20, TimeUnit.SECONDS).getMessage())
                .startsWith("No repository of the service was recognised in ");
        assertThat(editor.started().getServerInfo().getName()).isEqualTo("Odd Beacon");
    }
}
