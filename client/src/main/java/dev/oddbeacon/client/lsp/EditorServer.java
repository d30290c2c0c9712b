package dev.oddbeacon.client.lsp;

import com.google.gson.JsonParseException;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.function.Function;
import org.eclipse.lsp4j.CodeActionKind;
import org.eclipse.lsp4j.CodeActionOptions;
import org.eclipse.lsp4j.CodeLensOptions;
import org.eclipse.lsp4j.ExecuteCommandOptions;
import org.eclipse.lsp4j.InitializeParams;
import org.eclipse.lsp4j.InitializeResult;
import org.eclipse.lsp4j.MessageParams;
import org.eclipse.lsp4j.MessageType;
import org.eclipse.lsp4j.RenameOptions;
import org.eclipse.lsp4j.SaveOptions;
import org.eclipse.lsp4j.ServerCapabilities;
import org.eclipse.lsp4j.ServerInfo;
import org.eclipse.lsp4j.SetTraceParams;
import org.eclipse.lsp4j.TextDocumentSyncKind;
import org.eclipse.lsp4j.TextDocumentSyncOptions;
import org.eclipse.lsp4j.WorkspaceFolder;
import org.eclipse.lsp4j.WorkspaceFoldersOptions;
import org.eclipse.lsp4j.WorkspaceServerCapabilities;
import org.eclipse.lsp4j.jsonrpc.CancelChecker;
import org.eclipse.lsp4j.jsonrpc.Launcher;
import org.eclipse.lsp4j.jsonrpc.ResponseErrorException;
import org.eclipse.lsp4j.jsonrpc.messages.ResponseError;
import org.eclipse.lsp4j.jsonrpc.messages.ResponseErrorCode;
import org.eclipse.lsp4j.launch.LSPLauncher;
import org.eclipse.lsp4j.services.LanguageClient;
import org.eclipse.lsp4j.services.LanguageServer;
import org.eclipse.lsp4j.services.TextDocumentService;
import org.eclipse.lsp4j.services.WorkspaceService;

/** The service in an editor, by the Language Server Protocol, version 3.17. */
public final class EditorServer implements LanguageServer {
    private final String version;
    private final Documents documents = new Documents();
    private final OpenDocuments openDocuments = new OpenDocuments(documents);
    private final Copies copies;
    private final Sources sources;
    private final TextRequests textRequests;
    private final WorkspaceRequests workspaceRequests;
    private final ExecutorService threads = Executors.newVirtualThreadPerTaskExecutor();
    private LanguageClient editor;
    private volatile boolean isShutDown;
    private volatile boolean takesMarkdown;
    private volatile boolean takesVersions;
    private volatile EditorSettings settings = EditorSettings.NONE;

    private EditorServer(Service service, String version) {
        this.version = version;
        this.copies = new Copies(service);
        this.sources = new Sources(service, documents, copies, this::warn);
        Locations locations = new Locations(service, sources, copies);
        Symbols symbols = new Symbols(service, sources);
        Findings findings = new Findings(service, sources, documents);
        Renaming renaming = new Renaming(service, sources, documents, symbols, this::tell);
        Hierarchies hierarchies = new Hierarchies(service, sources, symbols, locations);
        this.textRequests = new TextRequests(
                this,
                service,
                documents,
                sources,
                symbols,
                locations,
                hierarchies,
                new Hovers(service, sources, symbols, locations),
                renaming,
                findings);
        this.workspaceRequests =
                new WorkspaceRequests(this, service, sources, symbols, locations, findings, openDocuments);
    }

    /**
     * Serves an editor until it ends.
     *
     * @return the exit status that the protocol asks for
     */
    public static int serve(Service service, String version, InputStream in, OutputStream out) {
        EditorServer server = new EditorServer(service, version);
        Launcher<LanguageClient> launcher = LSPLauncher.createServerLauncher(server, in, out);
        server.editor = launcher.getRemoteProxy();
        Future<Void> listening = launcher.startListening();
        try {
            listening.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } catch (ExecutionException e) {
            throw new ServiceProblem(
                    "The editor could not be understood: " + e.getCause().getMessage(), ExitStatus.FAILED);
        } finally {
            server.sources.close();
            server.openDocuments.close();
            server.threads.shutdownNow();
        }
        return server.isShutDown ? 0 : 1;
    }

    LanguageClient editor() {
        return editor;
    }

    EditorSettings settings() {
        return settings;
    }

    boolean takesMarkdown() {
        return takesMarkdown;
    }

    boolean takesVersions() {
        return takesVersions;
    }

    void set(Object given) {
        try {
            settings = EditorSettings.of(given);
        } catch (JsonParseException e) {
            warn("The settings of oddbeacon could not be read: " + e.getMessage() + ". They look like "
                    + EditorSettings.FORM + ".");
        }
    }

    private void warn(String message) {
        editor.showMessage(new MessageParams(MessageType.Warning, message));
    }

    private void tell(String message) {
        editor.showMessage(new MessageParams(MessageType.Info, message));
    }

    /** Answers a request that somebody made: what goes wrong is told. */
    <T> CompletableFuture<T> answer(Function<CancelChecker, T> answer) {
        CompletableFuture<CancelChecker> start = new CompletableFuture<>();
        CompletableFuture<T> answered = start.thenApplyAsync(
                checker -> {
                    try {
                        checker.checkCanceled();
                        T found = answer.apply(checker);
                        checker.checkCanceled();
                        return found;
                    } catch (ServiceProblem e) {
                        throw new ResponseErrorException(
                                new ResponseError(ResponseErrorCode.RequestFailed, e.getMessage(), null));
                    }
                },
                threads);
        start.complete(new CancelChecker() {
            @Override
            public void checkCanceled() {
                if (answered.isCancelled()) {
                    throw new CancellationException();
                }
            }
        });
        return answered;
    }

    /** Answers a request that the editor makes by itself: if it cannot be answered, the log alone tells. */
    <T> CompletableFuture<T> answerQuietly(T nothing, Function<CancelChecker, T> answer) {
        return answer(checker -> {
            try {
                return answer.apply(checker);
            } catch (ServiceProblem e) {
                editor.logMessage(new MessageParams(MessageType.Warning, e.getMessage()));
                return nothing;
            }
        });
    }

    /** Does something beside the requests. */
    void beside(Runnable work) {
        threads.execute(() -> {
            try {
                work.run();
            } catch (ServiceProblem e) {
                editor.logMessage(new MessageParams(MessageType.Warning, e.getMessage()));
            }
        });
    }

    @Override
    public CompletableFuture<InitializeResult> initialize(InitializeParams given) {
        takesMarkdown = Optional.ofNullable(given.getCapabilities().getTextDocument())
                .flatMap(text -> Optional.ofNullable(text.getHover()))
                .map(hover -> hover.getContentFormat())
                .filter(formats -> formats.contains("markdown"))
                .isPresent();
        takesVersions = Optional.ofNullable(given.getCapabilities().getWorkspace())
                .flatMap(workspace -> Optional.ofNullable(workspace.getWorkspaceEdit()))
                .map(edit -> Boolean.TRUE.equals(edit.getDocumentChanges()))
                .orElse(false);
        set(given.getInitializationOptions());
        List<WorkspaceFolder> folders = given.getWorkspaceFolders() == null ? List.of() : given.getWorkspaceFolders();
        beside(() -> {
            folders.forEach(folder -> open(folder.getUri()));
            copies.tidy();
        });
        return CompletableFuture.completedFuture(
                new InitializeResult(capabilities(), new ServerInfo("Odd Beacon", version)));
    }

    /** Makes a folder known whose documents are not open yet. */
    void open(String uri) {
        Documents.file(uri).ifPresent((Path folder) -> sources.folder(folder));
    }

    private static ServerCapabilities capabilities() {
        ServerCapabilities can = new ServerCapabilities();
        can.setPositionEncoding("utf-16");
        TextDocumentSyncOptions sync = new TextDocumentSyncOptions();
        sync.setOpenClose(true);
        sync.setChange(TextDocumentSyncKind.Incremental);
        sync.setSave(new SaveOptions(false));
        can.setTextDocumentSync(sync);
        can.setDefinitionProvider(true);
        can.setDeclarationProvider(true);
        can.setReferencesProvider(true);
        can.setImplementationProvider(true);
        can.setTypeHierarchyProvider(true);
        can.setCallHierarchyProvider(true);
        can.setWorkspaceSymbolProvider(true);
        can.setDocumentSymbolProvider(true);
        can.setDocumentHighlightProvider(true);
        can.setHoverProvider(true);
        can.setCodeLensProvider(new CodeLensOptions(false));
        can.setRenameProvider(new RenameOptions(true));
        can.setCodeActionProvider(new CodeActionOptions(List.of(CodeActionKind.Empty)));
        can.setExecuteCommandProvider(new ExecuteCommandOptions(
                List.of(WorkspaceRequests.SHOW, WorkspaceRequests.SHOW_ORIGIN, WorkspaceRequests.LINES_IN_OPEN)));
        WorkspaceFoldersOptions folders = new WorkspaceFoldersOptions();
        folders.setSupported(true);
        folders.setChangeNotifications(true);
        WorkspaceServerCapabilities workspace = new WorkspaceServerCapabilities();
        workspace.setWorkspaceFolders(folders);
        can.setWorkspace(workspace);
        return can;
    }

    @Override
    public CompletableFuture<Object> shutdown() {
        isShutDown = true;
        return CompletableFuture.completedFuture(null);
    }

    @Override
    public void exit() {
        Runtime.getRuntime().exit(isShutDown ? 0 : 1); // as the protocol asks
    }

    @Override
    public void setTrace(SetTraceParams given) {
        // nothing is traced
    }

    @Override
    public TextDocumentService getTextDocumentService() {
        return textRequests;
    }

    @Override
    public WorkspaceService getWorkspaceService() {
        return workspaceRequests;
    }
}
