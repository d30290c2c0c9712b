package dev.oddbeacon.agents;

import io.modelcontextprotocol.spec.McpSchema;
import io.modelcontextprotocol.spec.McpSchema.GetPromptResult;
import io.modelcontextprotocol.spec.McpSchema.PromptArgument;
import io.modelcontextprotocol.spec.McpSchema.PromptMessage;
import io.modelcontextprotocol.spec.McpSchema.Role;
import io.modelcontextprotocol.spec.McpSchema.TextContent;
import java.util.List;
import java.util.Map;

/** Prompts for the common jobs. */
final class Prompts {
    private Prompts() {}

    /**
     * A prompt about one thing.
     *
     * @param text with %s for the thing
     */
    record Template(String name, String title, String description, String argument, String of, String text) {
        McpSchema.Prompt described() {
            return McpSchema.Prompt.builder(name)
                    .title(title)
                    .description(description)
                    .arguments(List.of(PromptArgument.builder(argument)
                            .description(of)
                            .required(true)
                            .build()))
                    .build();
        }

        GetPromptResult told(Map<String, Object> arguments) {
            String told = text.formatted(Given.of(arguments).text(argument));
            return GetPromptResult.builder(List.of(PromptMessage.builder(
                                    Role.USER, TextContent.builder(told).build())
                            .build()))
                    .description(description)
                    .build();
        }
    }

    static final List<Template> ALL = List.of(
            new Template(
                    "explain_symbol",
                    "Explain a symbol",
                    "What a function or type does, and who relies on it",
                    "name",
                    "Its name, as in Berth.assign",
                    "Explain %s. Find its declaration with search_symbols, read it and what it calls, then list its uses and say what each group of callers relies on. Cite every statement by repository, path and line."),
            new Template(
                    "find_behaviour",
                    "Find where something happens",
                    "The code behind what a program is seen to do",
                    "behaviour",
                    "What is seen: a message, a label, a wrong number",
                    "Find the code that makes this happen: %s. Begin with the words that a user sees or a log prints (search_lines), go on by uses until you reach what decides it, and name that place by repository, path and line."),
            new Template(
                    "judge_change",
                    "Judge a change",
                    "What changes elsewhere if a symbol changes",
                    "name",
                    "What is to be changed, as in Berth.assign",
                    "I want to change %s. Find its uses in all repositories, tell apart code, tests, documents and configuration, and list what must change with it, what may break, and which tests hold it. Cite repository, path and line."),
            new Template(
                    "why_line",
                    "Why a line is as it is",
                    "The commits behind a line",
                    "place",
                    "REPOSITORY/PATH:LINE",
                    "Say why %s is as it is: use line_history, then search_commits for lines that were there before, and tell the story with commits and dates."));
}
