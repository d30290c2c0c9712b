package dev.oddbeacon.agents;

import dev.oddbeacon.api.FileContent;
import io.modelcontextprotocol.spec.McpSchema;
import io.modelcontextprotocol.spec.McpSchema.ReadResourceResult;
import io.modelcontextprotocol.spec.McpSchema.TextResourceContents;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Files as resources: {@code oddbeacon://file/REPOSITORY/PATH}, the path encoded, its slashes too. */
final class Resources {
    private static final String START = "oddbeacon://file/";

    private Resources() {}

    static McpSchema.ResourceTemplate template() {
        return McpSchema.ResourceTemplate.builder(START + "{repository}/{path}", "file")
                .title("A file")
                .description(
                        "The text of a file on the default branch of a repository; the path is encoded, its slashes too.")
                .mimeType("text/plain")
                .build();
    }

    /** @throws RefusedException if there is no such file, or it has no text */
    static ReadResourceResult read(Asker asker, String uri) {
        String[] parts = uri.startsWith(START) ? uri.substring(START.length()).split("/", 2) : new String[0];
        if (parts.length < 2) {
            throw new RefusedException("\"" + uri + "\" is no file. Files are " + START + "REPOSITORY/PATH.");
        }
        FileContent file = new Files(asker).content(decoded(parts[0]), decoded(parts[1]));
        if (file.text() == null) {
            throw new RefusedException("The text of " + file.path() + " is not to be had: " + file.skipped() + ".");
        }
        return ReadResourceResult.builder(List.of(TextResourceContents.builder(uri, file.text())
                        .mimeType("text/plain")
                        .build()))
                .build();
    }

    private static String decoded(String part) {
        return URLDecoder.decode(part.replace("+", "%2B"), StandardCharsets.UTF_8);
    }
}
