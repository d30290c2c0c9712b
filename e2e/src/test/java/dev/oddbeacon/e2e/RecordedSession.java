package dev.oddbeacon.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.FilterInputStream;
import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * All bytes that an editor and the server sent each other, held against the specification of the Language Server
 * Protocol, version 3.17: its base protocol, the order of a session, and what messages of the server must be like.
 */
final class RecordedSession {
    private static final JsonMapper JSON = JsonMapper.shared();

    /** What a server may send by itself, requests and notifications. */
    private static final Set<String> OF_SERVERS = Set.of(
            "window/showMessage",
            "window/showMessageRequest",
            "window/showDocument",
            "window/logMessage",
            "window/workDoneProgress/create",
            "telemetry/event",
            "client/registerCapability",
            "client/unregisterCapability",
            "workspace/workspaceFolders",
            "workspace/configuration",
            "workspace/applyEdit",
            "workspace/codeLens/refresh",
            "workspace/semanticTokens/refresh",
            "workspace/inlayHint/refresh",
            "workspace/inlineValue/refresh",
            "workspace/diagnostic/refresh",
            "textDocument/publishDiagnostics",
            "$/logTrace",
            "$/progress",
            "$/cancelRequest");

    /** What it may send before it has answered to initialize. */
    private static final Set<String> AT_FIRST = Set.of(
            "window/showMessage", "window/logMessage", "telemetry/event", "window/showMessageRequest", "$/progress");

    private final ByteArrayOutputStream ofEditor = new ByteArrayOutputStream();
    private final ByteArrayOutputStream ofServer = new ByteArrayOutputStream();

    /** What the editor reads, recorded. */
    InputStream of(InputStream server) {
        return new FilterInputStream(server) {
            @Override
            public int read() throws IOException {
                int one = super.read();
                if (one >= 0) {
                    record(ofServer, new byte[] {(byte) one}, 0, 1);
                }
                return one;
            }

            @Override
            public int read(byte[] bytes, int from, int length) throws IOException {
                int count = super.read(bytes, from, length);
                record(ofServer, bytes, from, count);
                return count;
            }
        };
    }

    /** What the editor writes, recorded. */
    OutputStream of(OutputStream server) {
        return new FilterOutputStream(server) {
            @Override
            public void write(int one) throws IOException {
                record(ofEditor, new byte[] {(byte) one}, 0, 1);
                out.write(one);
            }

            @Override
            public void write(byte[] bytes, int from, int length) throws IOException {
                record(ofEditor, bytes, from, length);
                out.write(bytes, from, length);
            }
        };
    }

    private static void record(ByteArrayOutputStream into, byte[] bytes, int from, int count) {
        if (count > 0) {
            synchronized (into) {
                into.write(bytes, from, count);
            }
        }
    }

    private static byte[] recorded(ByteArrayOutputStream from) {
        synchronized (from) {
            return from.toByteArray();
        }
    }

    /** Messages from their bytes: header fields, an empty line, and so many bytes of JSON, one right after the other. */
    static List<JsonNode> messages(byte[] bytes) {
        List<JsonNode> messages = new ArrayList<>();
        int at = 0;
        while (at < bytes.length) {
            int length = -1;
            while (true) {
                int end = at;
                while (end < bytes.length && bytes[end] != '\r') {
                    assertThat((int) bytes[end]).as("header fields are ASCII").isBetween(0x20, 0x7E);
                    end++;
                }
                if (end + 1 >= bytes.length) {
                    return messages; // cut off where the session ended
                }
                assertThat(bytes[end + 1]).as("the end of a header field").isEqualTo((byte) '\n');
                String field = new String(bytes, at, end - at, StandardCharsets.US_ASCII);
                at = end + 2;
                if (field.isEmpty()) {
                    break;
                }
                assertThat(field).matches("Content-(Length: \\d+|Type: .*charset=utf-?8.*)");
                length = field.startsWith("Content-Length: ") ? Integer.parseInt(field.substring(16)) : length;
            }
            assertThat(length).as("Content-Length").isNotNegative();
            if (at + length > bytes.length) {
                return messages;
            }
            messages.add(json(ByteBuffer.wrap(bytes, at, length)));
            at += length;
        }
        return messages;
    }

    private static JsonNode json(ByteBuffer bytes) {
        try {
            return JSON.readTree(
                    StandardCharsets.UTF_8.newDecoder().decode(bytes).toString());
        } catch (CharacterCodingException e) {
            throw new AssertionError("a message is not UTF-8", e);
        }
    }

    /** @param whole whether the editor has ended it as it should, so that nothing may be open */
    void assertThatItIsAsSpecified(boolean whole) {
        assertThatItIsAsSpecified(messages(recorded(ofEditor)), messages(recorded(ofServer)), whole);
    }

    static void assertThatItIsAsSpecified(List<JsonNode> ofEditor, List<JsonNode> ofServer, boolean whole) {
        Map<String, String> open = new HashMap<>(); // methods of the editor's requests, by id as it is written
        for (JsonNode message : ofEditor) {
            if (message.has("method") && message.has("id")) {
                open.put(message.path("id").toString(), message.path("method").asString());
            }
        }
        boolean isInitialized = false;
        Set<String> asked = new java.util.HashSet<>();
        for (JsonNode message : ofServer) {
            assertThat(message.path("jsonrpc").asString()).as("%s", message).isEqualTo("2.0");
            String method = message.path("method").asString("");
            if (method.isEmpty()) {
                String of = open.remove(message.path("id").toString());
                assertThat(of).as("what %s answers, once", message).isNotNull();
                assertThat(message.has("result") != message.has("error"))
                        .as("a result or an error: %s", message)
                        .isTrue();
                if (message.has("error")) {
                    assertThat(message.path("error").path("code").isInt()).isTrue();
                    assertThat(message.path("error").path("message").isString()).isTrue();
                }
                if (of.equals("initialize")) {
                    isInitialized = true;
                    assertThat(message.path("result").path("capabilities").isObject())
                            .isTrue();
                }
            } else {
                assertThat(OF_SERVERS).as("what servers send").contains(method);
                assertThat(isInitialized || AT_FIRST.contains(method))
                        .as("%s before it is initialized", method)
                        .isTrue();
                assertThat(!message.has("id") || asked.add(message.path("id").toString()))
                        .as("ids are given once: %s", message)
                        .isTrue();
                if (method.equals("textDocument/publishDiagnostics")) {
                    message.path("params").path("diagnostics").forEach(RecordedSession::checkDiagnostic);
                }
            }
            checkRanges(message);
        }
        if (whole) {
            assertThat(open).as("requests without an answer").isEmpty();
            assertThat(ofEditor.getLast().path("method").asString()).isEqualTo("exit");
        }
    }

    private static void checkDiagnostic(JsonNode diagnostic) {
        assertThat(diagnostic.path("range").isObject()).isTrue();
        assertThat(diagnostic.path("message").isString()).isTrue();
        assertThat(diagnostic.path("severity").asInt(1)).isBetween(1, 4);
    }

    /** Every range anywhere starts before it ends, and no position lies before the beginning. */
    private static void checkRanges(JsonNode node) {
        if (node.path("start").has("line") && node.path("end").has("line")) {
            long start = position(node.path("start"));
            assertThat(start).as("%s", node).isLessThanOrEqualTo(position(node.path("end")));
        }
        node.forEach(RecordedSession::checkRanges);
    }

    private static long position(JsonNode position) {
        assertThat(position.path("line").isInt() && position.path("character").isInt())
                .as("%s", position)
                .isTrue();
        assertThat(position.path("line").asInt()).isNotNegative();
        assertThat(position.path("character").asInt()).isNotNegative();
        return ((long) position.path("line").asInt() << 32)
                + position.path("character").asInt();
    }
}
