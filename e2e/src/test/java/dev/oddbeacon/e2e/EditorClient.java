package dev.oddbeacon.e2e;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.stream.Stream;
import org.eclipse.lsp4j.ClientCapabilities;
import org.eclipse.lsp4j.DidOpenTextDocumentParams;
import org.eclipse.lsp4j.HoverCapabilities;
import org.eclipse.lsp4j.InitializeParams;
import org.eclipse.lsp4j.InitializeResult;
import org.eclipse.lsp4j.InitializedParams;
import org.eclipse.lsp4j.MessageActionItem;
import org.eclipse.lsp4j.MessageParams;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.PublishDiagnosticsParams;
import org.eclipse.lsp4j.ShowDocumentParams;
import org.eclipse.lsp4j.ShowDocumentResult;
import org.eclipse.lsp4j.ShowMessageRequestParams;
import org.eclipse.lsp4j.TextDocumentClientCapabilities;
import org.eclipse.lsp4j.TextDocumentIdentifier;
import org.eclipse.lsp4j.TextDocumentItem;
import org.eclipse.lsp4j.WorkspaceClientCapabilities;
import org.eclipse.lsp4j.WorkspaceEditCapabilities;
import org.eclipse.lsp4j.WorkspaceFolder;
import org.eclipse.lsp4j.jsonrpc.Launcher;
import org.eclipse.lsp4j.launch.LSPLauncher;
import org.eclipse.lsp4j.services.LanguageClient;
import org.eclipse.lsp4j.services.LanguageServer;

/** An editor, as far as the protocol goes: it starts {@code oddbeacon lsp} through the launcher and speaks with it. */
final class EditorClient implements LanguageClient, AutoCloseable {
    private static final int SECONDS = 60;

    private final Process process;
    private final RecordedSession session = new RecordedSession();
    private final LanguageServer server;
    private final InitializeResult started;
    final BlockingQueue<MessageParams> messages = new LinkedBlockingQueue<>();
    final BlockingQueue<PublishDiagnosticsParams> diagnostics = new LinkedBlockingQueue<>();
    final BlockingQueue<ShowDocumentParams> shown = new LinkedBlockingQueue<>();

    /** @param options that the editor sets; null for none */
    EditorClient(String service, Object options, Path... folders) throws IOException {
        ProcessBuilder builder = new ProcessBuilder(
                        "sh", Launched.HOME.resolve("oddbeacon").toString(), "lsp", "--url", service)
                .directory(folders[0].toFile())
                .redirectError(ProcessBuilder.Redirect.INHERIT);
        Launched.environment(builder.environment());
        builder.environment()
                .put("XDG_CACHE_HOME", folders[0].resolveSibling("cache").toString());
        this.process = builder.start();
        Launcher<LanguageServer> launcher = LSPLauncher.createClientLauncher(
                this, session.of(process.getInputStream()), session.of(process.getOutputStream()), true, null);
        launcher.startListening();
        this.server = launcher.getRemoteProxy();
        InitializeParams given = new InitializeParams();
        given.setWorkspaceFolders(Stream.of(folders)
                .map(folder -> new WorkspaceFolder(
                        folder.toUri().toString(), folder.getFileName().toString()))
                .toList());
        given.setCapabilities(capabilities());
        given.setInitializationOptions(options);
        this.started = got(server.initialize(given));
        server.initialized(new InitializedParams());
    }

    private static ClientCapabilities capabilities() {
        TextDocumentClientCapabilities text = new TextDocumentClientCapabilities();
        text.setHover(new HoverCapabilities(List.of("markdown", "plaintext"), false));
        WorkspaceClientCapabilities workspace = new WorkspaceClientCapabilities();
        WorkspaceEditCapabilities edit = new WorkspaceEditCapabilities();
        edit.setDocumentChanges(true);
        workspace.setWorkspaceEdit(edit);
        return new ClientCapabilities(workspace, text, Map.of());
    }

    InitializeResult started() {
        return started;
    }

    LanguageServer server() {
        return server;
    }

    /** The answer to a request. */
    static <T> T got(CompletableFuture<T> answer) {
        try {
            return answer.get(SECONDS, TimeUnit.SECONDS);
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException cause ? cause : new IllegalStateException(e.getCause());
        } catch (InterruptedException | TimeoutException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Opens a document with the text that it has on the disk. */
    Document open(Path file) throws IOException {
        return open(file, Files.readString(file));
    }

    Document open(Path file, String text) {
        Document document = new Document(file.toUri().toString(), text);
        server.getTextDocumentService()
                .didOpen(new DidOpenTextDocumentParams(new TextDocumentItem(document.uri, "any", 1, text)));
        return document;
    }

    /** A document that is open. */
    record Document(String uri, String text) {
        TextDocumentIdentifier id() {
            return new TextDocumentIdentifier(uri);
        }

        /** Where a text stands for the first time; it must. */
        Position of(String part) {
            int at = text.indexOf(part);
            if (at < 0) {
                throw new IllegalArgumentException(part + " does not stand in " + uri);
            }
            String before = text.substring(0, at);
            int line = (int) before.chars().filter(c -> c == '\n').count();
            return new Position(line, at - before.lastIndexOf('\n') - 1);
        }
    }

    @Override
    public void telemetryEvent(Object event) {
        throw new UnsupportedOperationException();
    }

    @Override
    public void publishDiagnostics(PublishDiagnosticsParams given) {
        diagnostics.add(given);
    }

    @Override
    public void showMessage(MessageParams message) {
        messages.add(message);
    }

    @Override
    public CompletableFuture<MessageActionItem> showMessageRequest(ShowMessageRequestParams asked) {
        return CompletableFuture.completedFuture(null);
    }

    @Override
    public CompletableFuture<ShowDocumentResult> showDocument(ShowDocumentParams asked) {
        shown.add(asked);
        return CompletableFuture.completedFuture(new ShowDocumentResult(true));
    }

    @Override
    public void logMessage(MessageParams message) {
        // nobody reads it
    }

    /** Ends as the protocol asks, and gives the exit status. */
    int end() {
        got(server.shutdown());
        server.exit();
        try {
            int status = process.waitFor(SECONDS, TimeUnit.SECONDS) ? process.exitValue() : -1;
            session.assertThatItIsAsSpecified(true);
            return status;
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Ends at once, and holds what was said against the specification. */
    @Override
    public void close() {
        process.destroyForcibly();
        session.assertThatItIsAsSpecified(false);
    }
}
