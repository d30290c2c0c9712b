package dev.oddbeacon.client.command;

import dev.oddbeacon.api.NewRepository;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "add",
        mixinStandardHelpOptions = true,
        description = "Registers a repository, or many from a file.%n",
        footer = {
            "",
            "A location is a local folder, bare or not, or a file, http(s) or ssh URL.",
            "A file for --from has a repository a line, its fields separated by tabs:",
            "  NAME  LOCATION  [TITLE]  [LABELS]  [BRANCHES]      (labels and branches by commas)",
            "Folders in it are relative to the file. Lines that begin with # are passed over.",
            "",
            "Examples:",
            "  oddbeacon repos add harbour-map ~/src/harbour-map --label maps --wait",
            "  oddbeacon repos add --from var/demo/repositories.tsv --if-absent"
        })
final class ReposAddCommand implements Callable<Integer> {
    private static final int MOST_FIELDS = 6;

    @Parameters(
            index = "0",
            paramLabel = "NAME",
            arity = "0..1",
            description = "How the repository is called here: letters, digits, dots, dashes, underscores.")
    private String name;

    @Parameters(index = "1", paramLabel = "LOCATION", arity = "0..1", description = "Where it is.")
    private String location;

    @Option(names = "--title", paramLabel = "TEXT", description = "What people call it.")
    private String title;

    @Option(
            names = "--branch",
            paramLabel = "NAME",
            description =
                    "A branch or tag to index; the first one is searched by default (default: what HEAD stands for).")
    private List<String> branches = new ArrayList<>();

    @Option(names = "--label", paramLabel = "LABEL", description = "A label: a team, a customer, a release.")
    private List<String> labels = new ArrayList<>();

    @Option(
            names = "--visible-to",
            paramLabel = "WHO",
            description =
                    "Who may see it, at a service with accounts: everybody, team:NAME or person:NAME; may be repeated (default: whoever registers it).")
    private List<String> visibleTo;

    @Option(names = "--from", paramLabel = "FILE", description = "Register every repository that a file lists.")
    private Path from;

    @Option(names = "--if-absent", description = "Pass over names that are registered already.")
    private boolean ifAbsent;

    @Option(names = "--wait", description = "Return when they can be searched.")
    private boolean wait;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        List<NewRepository> wanted = from != null ? fromFile() : List.of(fromArguments());
        Set<String> present = ReposCommand.all(service).stream()
                .map(RepositoryInfo::name)
                .collect(Collectors.toCollection(HashSet::new));
        List<NewRepository> fresh = wanted.stream()
                .filter(repository -> !ifAbsent || !present.contains(repository.name()))
                .toList();
        for (NewRepository repository : fresh) {
            if (!present.add(repository.name())) {
                throw new ServiceProblem(
                        "The name " + repository.name()
                                + " is taken. Nothing was registered; choose another name, or give --if-absent.",
                        ExitStatus.WRONG);
            }
        }
        fresh.forEach(repository -> service.post(Service.path("repositories"), repository, RepositoryInfo.class));
        List<String> names = wanted.stream().map(NewRepository::name).toList();
        return wait ? new Waiting(service).until(names) : ExitStatus.FOUND;
    }

    private NewRepository fromArguments() {
        if (name == null || location == null) {
            throw new ServiceProblem(
                    "A name and a location are needed, or --from FILE. See oddbeacon repos add --help.",
                    ExitStatus.WRONG);
        }
        return new NewRepository(name, title, absolute(location, Path.of("")), branches, labels, visibleTo);
    }

    private List<NewRepository> fromFile() {
        if (name != null || title != null || !branches.isEmpty() || !labels.isEmpty()) {
            throw new ServiceProblem(
                    "With --from, names, titles, branches and labels stand in the file.", ExitStatus.WRONG);
        }
        List<NewRepository> wanted = new ArrayList<>();
        try {
            int number = 0;
            for (String line : Files.readAllLines(from)) {
                number++;
                if (line.isBlank() || line.startsWith("#")) {
                    continue;
                }
                String[] fields = line.split("\t", -1);
                if (fields.length < 2 || fields.length > MOST_FIELDS || fields[0].isBlank() || fields[1].isBlank()) {
                    throw new ServiceProblem(
                            from + ", line " + number
                                    + ": a name and a location are needed, separated by a tab; then title, labels, branches "
                                    + "and who may see it may follow. Nothing was registered.",
                            ExitStatus.WRONG);
                }
                wanted.add(new NewRepository(
                        fields[0],
                        field(fields, 2),
                        absolute(fields[1], from.toAbsolutePath().getParent()),
                        list(fields, 4),
                        list(fields, 3),
                        field(fields, 5) == null ? visibleTo : list(fields, 5)));
            }
        } catch (IOException e) {
            throw new ServiceProblem(
                    from + " cannot be read (" + e.getClass().getSimpleName() + ").", ExitStatus.WRONG);
        }
        return wanted;
    }

    private static String field(String[] fields, int index) {
        return fields.length > index && !fields[index].isBlank() ? fields[index] : null;
    }

    private static List<String> list(String[] fields, int index) {
        String field = field(fields, index);
        return field == null ? List.of() : List.of(field.split("\\s*,\\s*"));
    }

    /** The service does not know the folder that we are in. */
    private static String absolute(String location, Path folder) {
        if (location.contains("://")) {
            return location;
        }
        try {
            Path path = folder.resolve(location).toAbsolutePath().normalize();
            boolean local = Files.exists(path)
                    || location.startsWith(".")
                    || location.startsWith("/")
                    || !location.contains(":");
            return local ? path.toString() : location;
        } catch (InvalidPathException e) {
            return location;
        }
    }
}
