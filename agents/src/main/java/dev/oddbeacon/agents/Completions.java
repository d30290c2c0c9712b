package dev.oddbeacon.agents;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.SymbolsAnswer;
import io.modelcontextprotocol.spec.McpSchema.CompleteReference;
import io.modelcontextprotocol.spec.McpSchema.CompleteRequest;
import io.modelcontextprotocol.spec.McpSchema.CompleteResult;
import io.modelcontextprotocol.spec.McpSchema.PromptReference;
import io.modelcontextprotocol.spec.McpSchema.ResourceReference;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;

/** What may be meant while an argument of a prompt, or a part of a resource's address, is being typed. */
final class Completions {
    private static final int MOST = 20;

    private Completions() {}

    /** Everything that has arguments. */
    static List<CompleteReference> references() {
        List<CompleteReference> all = new ArrayList<>();
        Prompts.ALL.forEach(prompt -> all.add(new PromptReference(prompt.name())));
        all.add(new ResourceReference(Resources.template().uriTemplate()));
        return all;
    }

    /** The values that go on as what is typed begins; none where nothing is known, or the service refuses. */
    static CompleteResult complete(Asker asker, CompleteRequest asked) {
        String typed = asked.argument().value();
        List<String> values;
        try {
            values = switch (asked.argument().name()) {
                case "name" -> typed.isBlank() ? List.of() : symbols(asker, typed);
                case "place" -> files(asker, typed);
                case "repository" -> repositories(asker, typed);
                case "path" -> paths(asker, given(asked, "repository"), typed);
                default -> List.of(); // free text
            };
        } catch (RefusedException e) {
            values = List.of();
        }
        List<String> first = values.stream().distinct().limit(MOST).toList();
        return new CompleteResult(new CompleteResult.CompleteCompletion(first, null, values.size() > first.size()));
    }

    private static String given(CompleteRequest asked, String name) {
        Map<String, String> arguments =
                asked.context() == null ? null : asked.context().arguments();
        return arguments == null ? null : arguments.get(name);
    }

    private static List<String> symbols(Asker asker, String typed) {
        return asker
                .get(
                        Asker.Question.of("search", "symbols")
                                .with("q", typed.replace('.', ' '))
                                .with("reading", "fragments")
                                .with("limit", MOST + 1),
                        SymbolsAnswer.class)
                .symbols()
                .stream()
                .map(symbol -> typed.contains(".")
                                && symbol.container() != null
                                && !symbol.container().isEmpty()
                        ? symbol.container().substring(symbol.container().lastIndexOf('.') + 1) + "." + symbol.name()
                        : symbol.name())
                .toList();
    }

    private static List<String> repositories(Asker asker, String typed) {
        return Stream.of(asker.get(
                        Asker.Question.of("repositories").with("find", typed).with("limit", MOST + 1),
                        RepositoryInfo[].class))
                .map(RepositoryInfo::name)
                .toList();
    }

    private static List<String> paths(Asker asker, String repository, String typed) {
        return found(asker, repository, typed).map(FilesAnswer.File::path).toList();
    }

    private static List<String> files(Asker asker, String typed) {
        return found(asker, null, typed)
                .map(file -> file.repository() + "/" + file.path())
                .toList();
    }

    private static Stream<FilesAnswer.File> found(Asker asker, String repository, String typed) {
        return asker
                .get(
                        Asker.Question.of("search", "files")
                                .with("q", typed)
                                .with("repo", repository)
                                .with("limit", MOST + 1),
                        FilesAnswer.class)
                .files()
                .stream();
    }
}
