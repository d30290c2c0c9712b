package dev.oddbeacon.client.command;

import dev.oddbeacon.api.ExclusionSetInfo;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.api.TypesAndTraits;
import dev.oddbeacon.api.Worklist;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.function.Function;
import java.util.stream.Stream;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Model.OptionSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.core.type.TypeReference;

/** {@code oddbeacon complete}: what shells run for {@link CompletionCommand}. */
@Command(
        name = "complete",
        hidden = true,
        mixinStandardHelpOptions = true,
        description = "Prints what the last of these words may become, one a line; shells run it.%n")
public final class CompleteCommand implements Callable<Integer> {
    private static final int MOST = 200;

    @Parameters(paramLabel = "WORD", arity = "0..*", description = "The words behind oddbeacon, the last unfinished.")
    private List<String> words = new ArrayList<>();

    @Mixin
    private Service service;

    @Spec
    private CommandSpec spec;

    /** Names that the service has, by the option or the command that takes them. */
    private final Map<String, Function<Service, Stream<String>>> named = Map.ofEntries(
            Map.entry("--repo", CompleteCommand::repositories),
            Map.entry("--label", CompleteCommand::labels),
            Map.entry("--type", CompleteCommand::types),
            Map.entry("--trait", CompleteCommand::traits),
            Map.entry("--not-trait", CompleteCommand::traits),
            Map.entry("--except", CompleteCommand::sets),
            Map.entry("--lift", CompleteCommand::sets),
            Map.entry("--scope", CompleteCommand::searches),
            Map.entry("--saved", CompleteCommand::searches),
            Map.entry("outline", CompleteCommand::files),
            Map.entry("counterpart", CompleteCommand::files),
            Map.entry("translations", CompleteCommand::files),
            Map.entry("--near", CompleteCommand::files),
            Map.entry("show", CompleteCommand::files),
            Map.entry("log", CompleteCommand::files),
            Map.entry("blame", CompleteCommand::files),
            Map.entry("diff", CompleteCommand::files),
            Map.entry("repos", CompleteCommand::repositories),
            Map.entry("searches", CompleteCommand::searches),
            Map.entry("watches", CompleteCommand::searches),
            Map.entry("worklists", CompleteCommand::worklists),
            Map.entry("sets", CompleteCommand::sets));

    @Override
    public Integer call() {
        String unfinished = words.isEmpty() ? "" : words.getLast();
        List<String> before = words.isEmpty() ? List.of() : words.subList(0, words.size() - 1);
        try {
            candidates(before, unfinished)
                    .filter(candidate -> candidate.startsWith(unfinished))
                    .distinct()
                    .limit(MOST)
                    .forEach(new Terminal(Terminal.Color.NEVER)::line);
        } catch (ServiceProblem e) {
            return ExitStatus.FOUND; // somebody is typing: nothing is offered
        }
        return ExitStatus.FOUND;
    }

    private Stream<String> candidates(List<String> before, String unfinished) {
        CommandLine line = spec.parent().commandLine();
        String first = ""; // the command, or the group that it is of
        for (String word : before) {
            if (line.getSubcommands().containsKey(word)) {
                first = first.isEmpty() ? word : first;
                line = line.getSubcommands().get(word);
            }
        }
        CommandSpec command = line.getCommandSpec();
        OptionSpec option = before.isEmpty() ? null : command.findOption(before.getLast());
        if (option != null && option.arity().max() > 0) {
            return named.containsKey(option.longestName())
                    ? named.get(option.longestName()).apply(service)
                    : constants(option.paramLabel());
        }
        if (unfinished.startsWith("-")) {
            return command.options().stream().filter(one -> !one.hidden()).map(OptionSpec::longestName);
        }
        if (!line.getSubcommands().isEmpty()) {
            return line.getSubcommands().values().stream()
                    .filter(one -> !one.getCommandSpec().usageMessage().hidden())
                    .map(CommandLine::getCommandName);
        }
        Function<Service, Stream<String>> names = named.get(first);
        return names != null
                ? names.apply(service)
                : command.positionalParameters().stream().flatMap(one -> constants(one.paramLabel()));
    }

    /** The values of an option that takes one of a few: its placeholder names them. */
    private static Stream<String> constants(String label) {
        return label.contains("|")
                ? Arrays.stream(label.split("\\|"))
                        .filter(word -> !word.isEmpty() && word.equals(word.toLowerCase(Locale.ROOT)))
                : Stream.of();
    }

    private static Stream<RepositoryInfo> infos(Service service) {
        return service.get(Service.path("repositories"), new TypeReference<List<RepositoryInfo>>() {}).stream();
    }

    private static Stream<String> repositories(Service service) {
        return infos(service).map(RepositoryInfo::name);
    }

    private static Stream<String> files(Service service) {
        return repositories(service).map(name -> name + ":");
    }

    private static Stream<String> labels(Service service) {
        return infos(service).flatMap(info -> info.labels().stream());
    }

    private static Stream<String> types(Service service) {
        return all(service).types().stream().map(TypesAndTraits.Type::name);
    }

    private static Stream<String> traits(Service service) {
        return all(service).traits().stream().map(TypesAndTraits.Trait::name);
    }

    private static TypesAndTraits all(Service service) {
        return service.get(Service.path("types"), new Service.Parameters(), TypesAndTraits.class);
    }

    private static Stream<String> sets(Service service) {
        return service.get(Service.path("exclusion-sets"), new TypeReference<List<ExclusionSetInfo>>() {}).stream()
                .map(ExclusionSetInfo::name);
    }

    private static Stream<String> searches(Service service) {
        return service.get(Service.path("saved-searches"), new TypeReference<List<SavedSearch>>() {}).stream()
                .map(SavedSearch::name);
    }

    private static Stream<String> worklists(Service service) {
        return service.get(Service.path("worklists"), new TypeReference<List<Worklist>>() {}).stream()
                .map(Worklist::search);
    }
}
