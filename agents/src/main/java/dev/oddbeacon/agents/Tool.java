package dev.oddbeacon.agents;

import io.modelcontextprotocol.spec.McpSchema;
import io.modelcontextprotocol.spec.McpSchema.CallToolResult;
import io.modelcontextprotocol.spec.McpSchema.ToolAnnotations;
import java.util.Map;
import java.util.function.BiFunction;

/**
 * What an agent can call. None of them changes anything.
 *
 * @param answer its text
 */
record Tool(String name, String title, String description, Inputs inputs, BiFunction<Asker, Given, String> answer) {
    McpSchema.Tool described() {
        return McpSchema.Tool.builder(name, inputs.schema())
                .title(title)
                .description(description)
                .annotations(new ToolAnnotations(title, true, false, true, false, null))
                .build();
    }

    CallToolResult call(Asker asker, Map<String, Object> arguments) {
        try {
            return CallToolResult.builder()
                    .addTextContent(answer.apply(asker, Given.of(arguments)))
                    .isError(false)
                    .build();
        } catch (RefusedException e) {
            return CallToolResult.builder()
                    .addTextContent(e.getMessage())
                    .isError(true)
                    .build();
        }
    }
}
