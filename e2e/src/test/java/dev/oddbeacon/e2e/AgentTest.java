package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import io.modelcontextprotocol.client.McpClient;
import io.modelcontextprotocol.client.McpSyncClient;
import io.modelcontextprotocol.client.transport.HttpClientStreamableHttpTransport;
import io.modelcontextprotocol.client.transport.ServerParameters;
import io.modelcontextprotocol.client.transport.StdioClientTransport;
import io.modelcontextprotocol.json.McpJsonDefaults;
import io.modelcontextprotocol.spec.McpSchema;
import io.modelcontextprotocol.spec.McpSchema.TextContent;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Agents on the demo, by the client of the protocol's own SDK, over both of its transports. */
class AgentTest {
    private static McpSyncClient overHttp;
    private static McpSyncClient overPipes;

    @BeforeAll
    static void start() {
        overHttp = McpClient.sync(HttpClientStreamableHttpTransport.builder(Demo.address())
                        .endpoint("/mcp")
                        .build())
                .build();
        overHttp.initialize();
        Map<String, String> environment = new LinkedHashMap<>(System.getenv());
        Launched.environment(environment);
        overPipes = McpClient.sync(new StdioClientTransport(
                        ServerParameters.builder("sh")
                                .args(Launched.HOME.resolve("oddbeacon").toString(), "mcp", "--url", Demo.address())
                                .env(environment)
                                .build(),
                        McpJsonDefaults.getMapper()))
                .build();
        overPipes.initialize();
    }

    @AfterAll
    static void stop() {
        overHttp.close();
        overPipes.close();
    }

    private static String text(McpSyncClient client, Call call) {
        McpSchema.CallToolResult result = client.callTool(McpSchema.CallToolRequest.builder(call.tool)
                .arguments(call.arguments)
                .build());
        assertThat(result.isError()).as("%s", call).isFalse();
        return ((TextContent) result.content().getFirst()).text();
    }

    private record Call(String tool, Map<String, Object> arguments) {}

    private static Call lines(String text) {
        return new Call("search_lines", Map.of("text", text));
    }

    private static Call around(String text) {
        return new Call("search_lines", Map.of("text", text, "context", 1));
    }

    private static Call symbols(String name) {
        return new Call("search_symbols", Map.of("name", name));
    }

    private static Call read(String repository, String path) {
        return new Call("read_file", Map.of("repository", repository, "path", path));
    }

    /**
     * A question of somebody who works on the demo.
     *
     * @param calls that answer it
     * @param told what the answers hold
     * @param words that the names of files may hold, for whoever has nothing but them
     * @param files that hold the answer; none if all must be read to know that nothing is missing
     */
    private record Question(String text, List<Call> calls, List<String> told, List<String> words, List<String> files) {}

    private static Question question(String text, List<Call> calls, List<String> told, String words, String... files) {
        return new Question(text, calls, told, List.of(words.split(" ")), List.of(files));
    }

    private static final String PLANNER = "berth-planner/src/main/java/quillhaven/berth/plan/BerthPlanner.java";

    private static final List<Question> QUESTIONS = List.of(
            question(
                    "How long is the mooring buffer, and since when?",
                    List.of(around("mooring buffer")),
                    List.of("ten minutes", "autumn of 2021"),
                    "mooring buffer",
                    "berth-planner/docs/mooring-buffer.md"),
            question(
                    "Where is the planner's default buffer set?",
                    List.of(symbols("MooringBuffer DEFAULT")),
                    List.of("MooringBuffer.java"),
                    "buffer default",
                    "berth-planner/src/main/java/quillhaven/berth/plan/MooringBuffer.java"),
            question(
                    "Who calls BerthPlanner.assign?",
                    List.of(new Call("uses", Map.of("of", PLANNER + ":36:28"))),
                    List.of("3 places in 1 file", ":30:35", ":54:35", ":60:36"),
                    "planner java"),
            question(
                    "Which rules does the planner know?",
                    List.of(lines("implements Rule")),
                    List.of("BufferRule", "DepthRule", "LengthRule", "QuietHoursRule"),
                    "rule java"),
            question(
                    "Which programs still ask for depths in feet?",
                    List.of(lines("depth_feet")),
                    List.of("deck-signs/", "hull-telemetry/", "passenger-app/", "shore-ops/", "tidewatch/"),
                    "depth feet"),
            question(
                    "How old may a tide reading be?",
                    List.of(lines("older than twenty minutes"), read("tidewatch", "tidewatch/freshness.py")),
                    List.of("freshness.py", "LIMIT = timedelta(minutes=20)"),
                    "reading tide fresh",
                    "tidewatch/tidewatch/freshness.py"),
            question(
                    "Who put logging into the planner, and who took it out?",
                    List.of(new Call("search_commits", Map.of("text", "planner is slow"))),
                    List.of("Revert", "Log every candidate"),
                    "planner log"),
            question(
                    "Which commit does the planner's line 30 come from?",
                    List.of(new Call(
                            "line_history",
                            Map.of(
                                    "repository",
                                    "berth-planner",
                                    "path",
                                    "src/main/java/quillhaven/berth/plan/BerthPlanner.java",
                                    "line",
                                    30))),
                    List.of("Assign berths in the order of arrival"),
                    "planner"),
            question(
                    "How does a gate know a good ticket without the office?",
                    List.of(around("offline")),
                    List.of("signed", "fare-gate/README.md"),
                    "gate ticket offline",
                    "fare-gate/README.md"),
            question(
                    "What does the gate's ticket package declare?",
                    List.of(new Call(
                            "outline", Map.of("repository", "fare-gate", "path", "internal/ticket/ticket.go"))),
                    List.of("Ticket"),
                    "ticket go",
                    "fare-gate/internal/ticket/ticket.go"),
            question(
                    "What do passengers read at high water?",
                    List.of(lines("High water")),
                    List.of("translations/en/disturbances.json", "may be late"),
                    "disturbance en high water",
                    "passenger-app/src/translations/en/disturbances.json"),
            question(
                    "Which of the app's files must not be edited?",
                    List.of(around("Do not edit")),
                    List.of("src/generated/"),
                    "generated readme",
                    "passenger-app/README.md"),
            question(
                    "Which table holds the tickets?",
                    List.of(new Call("search_symbols", Map.of("name", "ticket", "kinds", List.of("table")))),
                    List.of("006-ticket.sql"),
                    "ticket table sql",
                    "shore-ops/database/migrations/006-ticket.sql"),
            question(
                    "What is to be done when a gauge is silent?",
                    List.of(
                            new Call("search_files", Map.of("text", "gauge silent")),
                            read("shore-ops", "runbooks/gauge-silent.md")),
                    List.of("gauge-silent.md"),
                    "gauge silent runbook",
                    "shore-ops/runbooks/gauge-silent.md"),
            question(
                    "When did the mooring buffer become ten minutes in the database?",
                    List.of(new Call("search_commits", Map.of("touches", List.of("database/migrations/012*")))),
                    List.of("shore-ops"),
                    "mooring buffer ten sql"),
            question(
                    "Which frames does tidewatch refuse?",
                    List.of(new Call("uses", Map.of("of", "BrokenFrame"))),
                    List.of("tidewatch/tidewatch/gauge.py"),
                    "frame gauge",
                    "tidewatch/tidewatch/gauge.py"),
            question(
                    "Which Latin-1 signs are there?",
                    List.of(around("Latin-1")),
                    List.of("Skerry Lodge", "encoding.rb"),
                    "sign latin encoding",
                    "deck-signs/README.md",
                    "deck-signs/lib/deck_signs/encoding.rb"),
            question(
                    "What may interrupt handlers aboard not do?",
                    List.of(lines("interrupt handlers")),
                    List.of("No floating point"),
                    "interrupt hull",
                    "hull-telemetry/README.md"),
            question(
                    "Why are readings in UTC?",
                    List.of(
                            new Call("search_files", Map.of("text", "utc")),
                            read("shore-ops", "decisions/04-readings-in-utc.md")),
                    List.of("04-readings-in-utc.md"),
                    "reading utc",
                    "shore-ops/decisions/04-readings-in-utc.md"),
            question(
                    "What uses the address of tidewatch?",
                    List.of(new Call(
                            "search_lines", Map.of("text", "tidewatch", "types", List.of("java", "typescript")))),
                    List.of("TidewatchClient"),
                    "tidewatch java address"));

    @Test
    void bothTransportsHaveTheSameTools() {
        assertThat(overPipes.listTools().tools()).isEqualTo(overHttp.listTools().tools());
        assertThat(overPipes.getServerInfo().name()).isEqualTo("odd-beacon");
        assertThat(overPipes.getServerInstructions()).isEqualTo(overHttp.getServerInstructions());
    }

    @Test
    void bothTransportsGiveTheSameAnswers() {
        for (Question question : QUESTIONS) {
            for (Call call : question.calls) {
                assertThat(text(overPipes, call)).as("%s", call).isEqualTo(text(overHttp, call));
            }
        }
    }

    /** Twenty questions, with the tools and with files alone; the figures are those of docs/agents.md. */
    @Test
    void questionsNeedFewCallsAndBytes() throws IOException {
        List<JsonNode> files = allFiles();
        List<String> rows = new ArrayList<>();
        long calls = 0;
        long bytes = 0;
        long readings = 0;
        long read = 0;
        for (Question question : QUESTIONS) {
            String answer = String.join(
                    "",
                    question.calls.stream().map(call -> text(overHttp, call)).toList());
            assertThat(answer).as(question.text).contains(question.told);
            long own = answer.getBytes(StandardCharsets.UTF_8).length;
            long[] plain = plainReading(question, files);
            calls += question.calls.size();
            bytes += own;
            readings += plain[0];
            read += plain[1];
            rows.add("| " + question.text + " | " + question.calls.size() + " | " + own + " | " + plain[0] + " | "
                    + plain[1] + " |");
        }
        rows.add("| **all** | " + calls + " | " + bytes + " | " + readings + " | " + read + " |");
        Files.createDirectories(Path.of("target"));
        Files.write(Path.of("target/agents.md"), rows);
        assertThat(calls).isLessThan(readings / 5);
        assertThat(bytes).isLessThan(read / 5);
    }

    private static List<JsonNode> allFiles() {
        List<JsonNode> files = new ArrayList<>();
        Http.get(Demo.address(), "/api/v1/search/files?limit=1000&order=path")
                .json()
                .path("files")
                .forEach(files::add);
        return files;
    }

    /**
     * Calls and bytes of somebody who can list files and read whole ones: those first whose names hold the most words of
     * the question, until the answer is complete.
     */
    private static long[] plainReading(Question question, List<JsonNode> files) {
        List<JsonNode> order = files.stream()
                .sorted(Comparator.comparingLong((JsonNode file) -> -words(question, name(file)))
                        .thenComparing(AgentTest::name))
                .toList();
        List<String> left = new ArrayList<>(question.files);
        long calls = 1;
        long bytes = files.stream().mapToLong(file -> name(file).length() + 1L).sum();
        for (JsonNode file : order) {
            calls++;
            bytes += file.path("bytes").asLong();
            left.remove(name(file));
            if (left.isEmpty() && !question.files.isEmpty()) {
                break;
            }
        }
        return new long[] {calls, bytes};
    }

    private static String name(JsonNode file) {
        return file.path("repository").asString() + "/" + file.path("path").asString();
    }

    private static long words(Question question, String name) {
        return question.words.stream()
                .filter(word -> name.toLowerCase(Locale.ROOT).contains(word))
                .count();
    }

    private static List<String> completed(
            McpSyncClient client,
            McpSchema.CompleteReference of,
            String argument,
            String typed,
            Map<String, String> given) {
        return client.completeCompletion(new McpSchema.CompleteRequest(
                        of,
                        new McpSchema.CompleteRequest.CompleteArgument(argument, typed),
                        null,
                        new McpSchema.CompleteRequest.CompleteContext(given)))
                .completion()
                .values();
    }

    @Test
    void argumentsAreCompletedWhileTheyAreTyped() {
        McpSchema.CompleteReference symbol = new McpSchema.PromptReference("explain_symbol");
        McpSchema.CompleteReference place = new McpSchema.PromptReference("why_line");
        McpSchema.CompleteReference file = new McpSchema.ResourceReference("oddbeacon://file/{repository}/{path}");
        for (McpSyncClient client : List.of(overHttp, overPipes)) {
            assertThat(completed(client, symbol, "name", "BerthPl", Map.of())).contains("BerthPlanner");
            assertThat(completed(client, symbol, "name", "BerthPlanner.as", Map.of()))
                    .contains("BerthPlanner.assign");
            assertThat(completed(client, place, "place", "ticket.go", Map.of()))
                    .contains("fare-gate/internal/ticket/ticket.go");
            assertThat(completed(client, file, "repository", "fare", Map.of())).containsExactly("fare-gate");
            assertThat(completed(client, file, "path", "README", Map.of("repository", "fare-gate")))
                    .containsExactly("README.md");
            assertThat(completed(client, symbol, "name", "", Map.of())).isEmpty();
            assertThat(completed(
                            client, new McpSchema.PromptReference("find_behaviour"), "behaviour", "late", Map.of()))
                    .isEmpty();
        }
    }
}
