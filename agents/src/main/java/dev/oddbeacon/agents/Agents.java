package dev.oddbeacon.agents;

import io.modelcontextprotocol.common.McpTransportContext;
import io.modelcontextprotocol.server.McpServer;
import io.modelcontextprotocol.server.McpServerFeatures;
import io.modelcontextprotocol.server.McpStatelessServerFeatures;
import io.modelcontextprotocol.server.McpStatelessSyncServer;
import io.modelcontextprotocol.server.McpSyncServer;
import io.modelcontextprotocol.spec.McpSchema.ServerCapabilities;
import io.modelcontextprotocol.spec.McpServerTransportProvider;
import io.modelcontextprotocol.spec.McpStatelessServerTransport;
import java.util.function.Function;

/** The service for agents, by the Model Context Protocol. */
public final class Agents {
    private static final String INSTRUCTIONS =
            "Odd Beacon has the code of a team's repositories, with their past. Search before you read, read ranges rather than files, and cite places as repository/path:line; links in answers stay right. Counts are exact unless an answer says otherwise.";

    private Agents() {}

    private static ServerCapabilities capabilities() {
        return ServerCapabilities.builder()
                .tools(false)
                .prompts(false)
                .resources(false, false)
                .completions()
                .build();
    }

    /**
     * Serves agents whose requests stand by themselves.
     *
     * @param askers whom a request is asked as
     */
    public static McpStatelessSyncServer serve(
            McpStatelessServerTransport transport, String version, Function<McpTransportContext, Asker> askers) {
        return McpServer.sync(transport)
                .serverInfo("odd-beacon", version)
                .instructions(INSTRUCTIONS)
                .capabilities(capabilities())
                .immediateExecution(true) // on the thread of the request, which knows who asks
                .tools(Tools.ALL.stream()
                        .map(tool -> new McpStatelessServerFeatures.SyncToolSpecification(
                                tool.described(),
                                (context, asked) -> tool.call(askers.apply(context), asked.arguments())))
                        .toList())
                .prompts(Prompts.ALL.stream()
                        .map(prompt -> new McpStatelessServerFeatures.SyncPromptSpecification(
                                prompt.described(), (_, asked) -> prompt.told(asked.arguments())))
                        .toList())
                .resourceTemplates(new McpStatelessServerFeatures.SyncResourceTemplateSpecification(
                        Resources.template(), (context, asked) -> Resources.read(askers.apply(context), asked.uri())))
                .completions(Completions.references().stream()
                        .map(reference -> new McpStatelessServerFeatures.SyncCompletionSpecification(
                                reference, (context, asked) -> Completions.complete(askers.apply(context), asked)))
                        .toList())
                .build();
    }

    /** Serves the one agent at the other end of a transport. */
    public static McpSyncServer serve(McpServerTransportProvider transport, String version, Asker asker) {
        return McpServer.sync(transport)
                .serverInfo("odd-beacon", version)
                .instructions(INSTRUCTIONS)
                .capabilities(capabilities())
                .tools(Tools.ALL.stream()
                        .map(tool -> new McpServerFeatures.SyncToolSpecification(
                                tool.described(), (_, asked) -> tool.call(asker, asked.arguments())))
                        .toList())
                .prompts(Prompts.ALL.stream()
                        .map(prompt -> new McpServerFeatures.SyncPromptSpecification(
                                prompt.described(), (_, asked) -> prompt.told(asked.arguments())))
                        .toList())
                .resourceTemplates(new McpServerFeatures.SyncResourceTemplateSpecification(
                        Resources.template(), (_, asked) -> Resources.read(asker, asked.uri())))
                .completions(Completions.references().stream()
                        .map(reference -> new McpServerFeatures.SyncCompletionSpecification(
                                reference, (_, asked) -> Completions.complete(asker, asked)))
                        .toList())
                .build();
    }
}
