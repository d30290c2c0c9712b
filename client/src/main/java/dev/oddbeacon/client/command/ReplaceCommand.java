package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.client.options.ReadingOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Mistakes;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.service.WorkTree;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "replace",
        mixinStandardHelpOptions = true,
        description =
                "Shows what would change if WITH stood instead of TEXT, and writes it as patches. The service changes nothing in any repository.%n",
        footer = {
            "",
            "Of a regular expression, $1, $${name} and $0 in WITH are what its groups matched, and $$ is a dollar.",
            "Generated and vendored files are listed, and not changed.",
            "",
            "Examples:",
            "  oddbeacon replace --word --repo shore-ops TIDEWATCH_URL GAUGES_URL",
            "  oddbeacon replace --regex --type java 'URI\\.create\\((.*?)\\)' 'Addresses.of($1)'",
            "  oddbeacon replace --repo shore-ops TIDEWATCH_URL GAUGES_URL --patch - > shore-ops.patch",
            "  oddbeacon replace --here --apply TIDEWATCH_URL GAUGES_URL"
        })
public final class ReplaceCommand implements Callable<Integer> {
    @Parameters(index = "0", paramLabel = "TEXT", description = "What to look for, as of lines.")
    private String text;

    @Parameters(index = "1", paramLabel = "WITH", description = "What stands instead; may be empty.")
    private String with;

    @Mixin
    private ReadingOptions reading;

    @Mixin
    private ScopeOptions scope;

    @Option(names = "--keep-case", description = "In capitals, or with a first capital, where the match is.")
    private boolean keepCase;

    @Option(
            names = "--leave",
            paramLabel = "PLACE",
            description = "Leave as it is: REPO, REPO/PATH, or REPO/PATH:LINE:COLUMN of one match.")
    private List<String> left = new ArrayList<>();

    @Option(
            names = "--own",
            paramLabel = "REPO/PATH:LINE:COLUMN=TEXT",
            description = "What stands instead of a single match.")
    private List<String> own = new ArrayList<>();

    @Option(names = "--generated", description = "Change generated and vendored files as well.")
    private boolean generated;

    @Option(
            names = "--patch",
            paramLabel = "FILE|-",
            description =
                    "Write what git apply takes: of one repository a patch; of several, a ZIP with one for each, whose name ends with .zip.")
    private String patch;

    @Option(
            names = "--message",
            paramLabel = "TEXT",
            description = "With --patch: write mails that git am commits with this message.")
    private String message;

    @Option(
            names = "--author",
            paramLabel = "NAME <ADDRESS>",
            description = "Of that commit (default: yours, as Git knows it).")
    private String author;

    @Option(
            names = "--apply",
            description = "With --here: apply it to the work tree, unless files that change have uncommitted changes.")
    private boolean apply;

    @Option(
            names = "--color",
            paramLabel = "auto|always|never",
            defaultValue = "auto",
            description = "Whether to colour (default: ${DEFAULT-VALUE}, on a terminal).")
    private Terminal.Color color;

    @Mixin
    private Service service;

    @Override
    public Integer call() {
        return Mistakes.marking(text, this::run);
    }

    private int run() {
        if (apply && scope.workTree(service).isEmpty()) {
            throw new ServiceProblem("--apply goes with --here, in the work tree that is to change.", ExitStatus.WRONG);
        }
        Replacement wanted = wanted();
        if (apply && message != null) {
            throw new ServiceProblem("--apply commits nothing; leave out --message, or --apply.", ExitStatus.WRONG);
        }
        if (apply) {
            return apply(wanted, scope.workTree(service).get());
        }
        if (patch != null) {
            return write(wanted);
        }
        Replacement.Preview preview =
                service.post(Service.path("replacements", "preview"), wanted, Replacement.Preview.class);
        print(preview);
        return ExitStatus.of(preview.matches() > 0);
    }

    private Replacement wanted() {
        Service.Parameters parameters = new Service.Parameters().add("q", text);
        reading.addTo(parameters);
        scope.addTo(parameters, service);
        Map<String, String> byPlace = new HashMap<>();
        for (String each : own) {
            int equals = each.indexOf('=');
            if (equals <= 0) {
                throw new ServiceProblem(
                        "--own takes REPO/PATH:LINE:COLUMN=TEXT, not \"" + each + "\".", ExitStatus.WRONG);
            }
            byPlace.put(each.substring(0, equals), each.substring(equals + 1));
        }
        String by = message == null || author != null
                ? author
                : WorkTree.setting("user.name") + " <" + WorkTree.setting("user.email") + ">";
        return new Replacement(parameters.values(), with, keepCase, left, byPlace, generated, message, by);
    }

    private void print(Replacement.Preview preview) {
        Terminal terminal = new Terminal(color);
        for (Replacement.File file : preview.files()) {
            terminal.line(terminal.styled(Terminal.Style.PATH, Terminal.clean(file.repository() + "/" + file.path())));
            for (Replacement.Change change : file.changes()) {
                String place = change.line() + ":" + change.column();
                terminal.line("  " + place + (change.applied() ? "" : "  left as it is"));
                change.before().lines().forEach(line -> terminal.line("    - " + Terminal.clean(line)));
                if (change.applied()) {
                    change.after().lines().forEach(line -> terminal.line("    + " + Terminal.clean(line)));
                }
                change.warnings()
                        .forEach(warning -> terminal.line(terminal.styled(Terminal.Style.PROBLEM, "    ! " + warning)));
            }
        }
        preview.left()
                .forEach(each -> Terminal.complain(
                        Terminal.clean(each.repository() + "/" + each.path()) + " stays: " + each.why()));
        if (preview.fileCount() > preview.files().size()) {
            Terminal.complain("the first " + preview.files().size() + " files are shown");
        }
        Terminal.complain(Amounts.of(preview.matches(), "match", "matches") + " in "
                + Amounts.of(preview.fileCount(), "file") + " would change; --patch writes it");
    }

    private int write(Replacement wanted) {
        byte[] bytes = patches(wanted);
        if (patch.equals("-")) {
            Terminal.bytes(bytes);
            return ExitStatus.FOUND;
        }
        try {
            Files.write(Path.of(patch), bytes);
        } catch (IOException e) {
            throw new ServiceProblem(patch + " cannot be written: " + e.getMessage(), ExitStatus.WRONG);
        }
        return ExitStatus.FOUND;
    }

    /** Of one repository its patch, of several a ZIP, which must be wanted. */
    private byte[] patches(Replacement wanted) {
        Replacement.Preview preview =
                service.post(Service.path("replacements", "preview"), wanted, Replacement.Preview.class);
        List<String> repositories = preview.files().stream()
                .map(Replacement.File::repository)
                .distinct()
                .toList();
        if (repositories.isEmpty()) {
            throw new ServiceProblem("Nothing would change.", ExitStatus.NOTHING_FOUND);
        }
        boolean isOne = repositories.size() == 1
                && preview.fileCount() == preview.files().size();
        if (!isOne && !patch.endsWith(".zip")) {
            throw new ServiceProblem(
                    "Something would change in " + String.join(", ", repositories)
                            + ". Name one with --repo, or a file that ends with .zip.",
                    ExitStatus.WRONG);
        }
        return service.postBytes(
                Service.path("replacements", "patches")
                        + (isOne && !patch.endsWith(".zip")
                                ? new Service.Parameters().add("repository", repositories.getFirst())
                                : ""),
                wanted);
    }

    private int apply(Replacement wanted, WorkTree here) {
        byte[] bytes = service.postBytes(
                Service.path("replacements", "patches") + new Service.Parameters().add("repository", here.repository()),
                wanted);
        try {
            Path kept = Files.createTempFile("oddbeacon-", ".patch");
            Files.write(kept, bytes);
            List<String> changed = git(here, "apply", "--whitespace=nowarn", "--numstat", "-z", kept.toString())
                    .lines()
                    .flatMap(line -> java.util.Arrays.stream(line.split("\0")))
                    .map(line -> line.substring(line.lastIndexOf('\t') + 1))
                    .filter(path -> !path.isEmpty())
                    .toList();
            List<String> status = new ArrayList<>(List.of("status", "--porcelain", "--"));
            status.addAll(changed);
            String uncommitted = git(here, status.toArray(String[]::new));
            if (!uncommitted.isEmpty()) {
                Files.delete(kept);
                throw new ServiceProblem(
                        "Files that would change have uncommitted changes. Commit them, or take them out of the scope:\n"
                                + uncommitted.lines().map(String::strip).collect(Collectors.joining("\n")),
                        ExitStatus.WRONG);
            }
            git(here, "apply", "--whitespace=nowarn", kept.toString());
            Terminal.complain(Amounts.of(changed.size(), "file") + " changed; git apply -R " + kept + " takes it back");
            return ExitStatus.FOUND;
        } catch (IOException e) {
            throw new ServiceProblem("The patch cannot be applied: " + e.getMessage(), ExitStatus.FAILED);
        }
    }

    private static String git(WorkTree here, String... arguments) throws IOException {
        List<String> command = new ArrayList<>(List.of("git"));
        command.addAll(List.of(arguments));
        Process git =
                new ProcessBuilder(command).directory(here.root().toFile()).start();
        try {
            String out = new String(git.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            String err = new String(git.getErrorStream().readAllBytes(), StandardCharsets.UTF_8);
            if (git.waitFor() != 0) {
                throw new ServiceProblem(
                        "Git does not take the patch; the work tree may be at another commit than was searched. "
                                + err.strip(),
                        ExitStatus.WRONG);
            }
            return out;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted");
        }
    }
}
