package dev.oddbeacon.server.agents;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import dev.oddbeacon.api.NewToken;
import dev.oddbeacon.server.TestRepository;
import dev.oddbeacon.server.TestService;
import dev.oddbeacon.server.TestTeam;
import io.modelcontextprotocol.client.McpClient;
import io.modelcontextprotocol.client.McpSyncClient;
import io.modelcontextprotocol.client.transport.HttpClientStreamableHttpTransport;
import io.modelcontextprotocol.spec.McpSchema;
import io.modelcontextprotocol.spec.McpSchema.CallToolResult;
import io.modelcontextprotocol.spec.McpSchema.TextContent;
import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Agents with tokens of people who see different repositories, by the client of the protocol's own SDK. */
class AgentsTest {
    private static final String HIDDEN = "whimbrel";

    private static TestTeam team;
    private static McpSyncClient keeper;
    private static McpSyncClient stranger;

    @BeforeAll
    static void start(@TempDir Path folder) throws IOException {
        team = TestTeam.start(folder, "data");
        String keepersToken = token("kim", "keepers");
        String strangersToken = token("sam", "others");
        for (String name : List.of("tide", HIDDEN)) {
            TestRepository repository = TestRepository.create(folder.resolve(name))
                    .write("src/Gauge.java", "/** Of " + name + ". */\nclass Gauge {\n    void read() { read(); }\n}\n")
                    .write(name + ".txt", "a word of " + name + "\n")
                    .commit("Begin " + name);
            team.add(name, repository.path(), name.equals(HIDDEN) ? "team:keepers" : "everybody");
        }
        keeper = client(keepersToken);
        stranger = client(strangersToken);
    }

    private static String token(String name, String group) {
        return team.person(name, "reader", group)
                .post("/api/v1/tokens", new NewToken("agent", "reader", 30, List.of()))
                .json()
                .path("token")
                .asString();
    }

    private static McpSyncClient client(String token) {
        McpSyncClient client = McpClient.sync(
                        HttpClientStreamableHttpTransport.builder(team.service().address())
                                .endpoint("/mcp")
                                .addHttpRequestCustomizer((request, method, uri, body, context) ->
                                        request.header("Authorization", "Bearer " + token))
                                .build())
                .build();
        client.initialize();
        return client;
    }

    @AfterAll
    static void stop() {
        keeper.close();
        stranger.close();
        team.close();
    }

    private static CallToolResult call(McpSyncClient client, String tool, Map<String, Object> arguments) {
        return client.callTool(
                McpSchema.CallToolRequest.builder(tool).arguments(arguments).build());
    }

    private static String text(McpSyncClient client, String tool, Map<String, Object> arguments) {
        return ((TextContent) call(client, tool, arguments).content().getFirst()).text();
    }

    /** For each tool, what asks for what is hidden. */
    private static Map<String, Map<String, Object>> asking(String repository) {
        Map<String, Map<String, Object>> all = new LinkedHashMap<>();
        all.put("search_lines", Map.of("text", "word of"));
        all.put("search_files", Map.of("text", "txt"));
        all.put("search_symbols", Map.of("name", "Gauge"));
        all.put("uses", Map.of("of", "read"));
        all.put("search_commits", Map.of("text", "Begin"));
        all.put("read_file", Map.of("repository", repository, "path", repository + ".txt"));
        all.put("outline", Map.of("repository", repository, "path", "src/Gauge.java"));
        all.put("line_history", Map.of("repository", repository, "path", "src/Gauge.java", "line", 2));
        all.put("repositories", Map.of());
        return all;
    }

    @Test
    void everyToolTellsWhoSeesARepositoryOfItAndNobodyElse() {
        assertThat(asking(HIDDEN).keySet())
                .containsExactlyInAnyOrderElementsOf(keeper.listTools().tools().stream()
                        .map(McpSchema.Tool::name)
                        .toList());
        asking(HIDDEN).forEach((tool, arguments) -> {
            assertThat(text(keeper, tool, arguments)).as(tool).contains(HIDDEN);
            String answer = text(stranger, tool, arguments);
            boolean isNamed = arguments.containsValue(HIDDEN);
            assertThat(isNamed ? answer.replace("There is no repository " + HIDDEN, "") : answer)
                    .as(tool)
                    .doesNotContain(HIDDEN);
            assertThat(isNamed)
                    .as(tool)
                    .isEqualTo(call(stranger, tool, arguments).isError());
        });
        asking("tide")
                .forEach((tool, arguments) ->
                        assertThat(text(stranger, tool, arguments)).as(tool).contains("tide"));
        assertThatThrownBy(() -> stranger.readResource(
                        McpSchema.ReadResourceRequest.builder("oddbeacon://file/" + HIDDEN + "/" + HIDDEN + ".txt")
                                .build()))
                .hasMessageContaining("There is no repository");
    }

    @Test
    void whatIsWrongIsSaidToTheAgent() {
        CallToolResult wrong = call(keeper, "search_lines", Map.of("text", "read(", "reading", "regex"));
        assertThat(wrong.isError()).isTrue();
        assertThat(((TextContent) wrong.content().getFirst()).text()).contains("(");
        assertThat(text(keeper, "read_file", Map.of("repository", "tide", "path", "nowhere.txt")))
                .contains("There is no file nowhere.txt");
        assertThat(text(keeper, "read_file", Map.of("repository", "tide", "path", "tide.txt", "from", 7)))
                .contains("has 1 line;");
    }

    @Test
    void filesAreResourcesAndJobsArePrompts() {
        assertThat(keeper.listResourceTemplates().resourceTemplates())
                .singleElement()
                .extracting(McpSchema.ResourceTemplate::uriTemplate)
                .isEqualTo("oddbeacon://file/{repository}/{path}");
        assertThat(keeper.readResource(McpSchema.ReadResourceRequest.builder("oddbeacon://file/tide/src%2FGauge.java")
                                .build())
                        .contents())
                .singleElement()
                .satisfies(content -> assertThat(((McpSchema.TextResourceContents) content).text())
                        .contains("class Gauge"));
        assertThat(keeper.listPrompts().prompts()).hasSize(4).allSatisfy(prompt -> {
            String argument = prompt.arguments().getFirst().name();
            McpSchema.GetPromptResult told = keeper.getPrompt(McpSchema.GetPromptRequest.builder(prompt.name())
                    .arguments(Map.of(argument, "the Gauge"))
                    .build());
            assertThat(((TextContent) told.messages().getFirst().content()).text())
                    .contains("the Gauge");
        });
    }

    @Test
    void whatIsNoMessageIsRefusedWithoutATrace() {
        String token = token("tom", "others");
        for (String wrong : List.of("no JSON", "[]", "{", "{\"id\": 1}", "null")) {
            TestService.Answer answer = team.service()
                    .with(Map.of("Accept", "application/json, text/event-stream", "Authorization", "Bearer " + token))
                    .post("/mcp", "application/json", wrong);
            assertThat(answer.status()).as(wrong).isEqualTo(400);
            assertThat(answer.json().path("error").path("message").asString())
                    .as(wrong)
                    .isNotEmpty();
            assertThat(answer.body()).as(wrong).doesNotContain("stackTrace", "io.modelcontextprotocol");
        }
    }

    @Test
    void nobodyAsksWithoutAToken() {
        String initialize =
                "{\"jsonrpc\":\"2.0\",\"id\":1,\"method\":\"tools/call\",\"params\":{\"name\":\"repositories\",\"arguments\":{}}}";
        TestService.Answer refused = team.service()
                .with(Map.of("Accept", "application/json, text/event-stream"))
                .post("/mcp", "application/json", initialize);
        assertThat(refused.status()).isEqualTo(401);
        assertThat(refused.body()).doesNotContain("tide");
        assertThat(team.service()
                        .with(Map.of(
                                "Accept", "application/json, text/event-stream", "Origin", "https://elsewhere.example"))
                        .post("/mcp", "application/json", initialize)
                        .status())
                .isEqualTo(403);
    }
}
