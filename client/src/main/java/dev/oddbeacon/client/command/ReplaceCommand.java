package dev.oddbeacon.client.command;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.api.Replacement.In;
import dev.oddbeacon.api.SavedSearch;
import dev.oddbeacon.client.options.ReadingOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Mistakes;
import dev.oddbeacon.client.output.ReplacementReport;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.WorkTree;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
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
            "Of an expression that is one shape( ), ?name and ?*name in WITH are what its variables stand for.",
            "Generated, vendored, minified and translated files are listed, and not changed.",
            "",
            "Examples:",
            "  oddbeacon replace --word --repo shore-ops TIDEWATCH_URL GAUGES_URL",
            "  oddbeacon replace --regex --type java 'URI\\.create\\((.*?)\\)' 'Addresses.of($1)'",
            "  oddbeacon replace --expression 'shape(URI.create(?address))' 'Addresses.of(?address)'",
            "  oddbeacon replace --symbol Rule.check violation",
            "  oddbeacon replace --symbol --in both BerthPlanner QuayPlanner",
            "  oddbeacon replace --repo shore-ops TIDEWATCH_URL GAUGES_URL --patch - > shore-ops.patch",
            "  oddbeacon replace --here --apply TIDEWATCH_URL GAUGES_URL"
        })
public final class ReplaceCommand implements Callable<Integer>, SearchToKeep {
    @Parameters(
            index = "0",
            arity = "0..1",
            paramLabel = "TEXT",
            description = "What to look for, as of lines; with --symbol a name. Not with --saved.")
    private String text;

    @Parameters(index = "1", arity = "0..1", paramLabel = "WITH", description = "What stands instead; may be empty.")
    private String with;

    @Option(
            names = "--symbol",
            description =
                    "TEXT is the name of a symbol: it is replaced where it is declared and used, in code. As Rule.check, only that one, with what it overrides and what overrides it.")
    private boolean symbol;

    @Option(names = "--mentions", description = "With --symbol: in comments and strings as well.")
    private boolean mentions;

    @Option(
            names = "--in",
            paramLabel = "text|paths|both",
            defaultValue = "text",
            description = "Where: in texts, in paths, whose files are renamed, or in both (default: ${DEFAULT-VALUE}).")
    private In in;

    @Option(
            names = "--edit",
            description =
                    "With --patch or --apply: edit the lines that were found, as a text in $VISUAL or $EDITOR; WITH is left out.")
    private boolean edit;

    @Option(
            names = "--saved",
            paramLabel = "SEARCH",
            description = "The saved search of this name, with its replacement or WITH alone.")
    private String saved;

    @Mixin
    private ReadingOptions reading;

    @Mixin
    private ScopeOptions scope;

    @Option(names = "--keep-case", description = "In capitals, or with a first capital, where the match is.")
    private boolean keepCase;

    @Option(
            names = "--leave",
            paramLabel = "PLACE",
            description =
                    "Leave as it is: REPO, REPO/PATH, REPO/PATH:LINE:COLUMN of one match, or REPO/PATH:path of a name.")
    private List<String> left = new ArrayList<>();

    @Option(
            names = "--own",
            paramLabel = "REPO/PATH:LINE:COLUMN=TEXT",
            description = "What stands instead of a single match; REPO/PATH:path=NEW for the whole path of a file.")
    private List<String> own = new ArrayList<>();

    @Option(names = "--generated", description = "Change generated, vendored, minified and translated files as well.")
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
        return Mistakes.marking(text == null ? "" : text, this::run);
    }

    private int run() {
        checkOptions();
        Replacement wanted = edit ? edited() : wanted();
        if (apply) {
            return new PatchHere(service, scope.workTree(service).get()).apply(wanted);
        }
        if (patch != null) {
            return write(wanted);
        }
        Replacement.Preview preview = preview(wanted);
        ReplacementReport.print(new Terminal(color), preview);
        return ExitStatus.of(preview.fileCount() > 0);
    }

    private void checkOptions() {
        if (apply && scope.workTree(service).isEmpty()) {
            throw wrong("--apply goes with --here, in the work tree that is to change.");
        }
        if (apply && message != null) {
            throw wrong("--apply commits nothing; leave out --message, or --apply.");
        }
        if (saved != null && text != null && with != null) {
            throw wrong("With --saved the text is that of the saved search; give WITH alone, or nothing.");
        }
        if (saved == null && text == null) {
            throw wrong("TEXT is missing: what to look for.");
        }
        if (edit && (with != null || saved != null || symbol || in != In.TEXT)) {
            throw wrong("--edit hands the lines that TEXT finds to your editor; leave out WITH and the other options.");
        }
        if (edit && patch == null && !apply) {
            throw wrong("--edit goes with --patch, or with --here --apply, so that nothing that you edit is lost.");
        }
        if (!edit && saved == null && with == null) {
            throw wrong("WITH is missing: what stands instead. It may be empty: ''.");
        }
        if (mentions && !symbol && saved == null) {
            throw wrong("--mentions goes with --symbol: a text is replaced wherever it stands.");
        }
    }

    private static ServiceProblem wrong(String message) {
        return new ServiceProblem(message, ExitStatus.WRONG);
    }

    private Replacement.Preview preview(Replacement wanted) {
        return service.post(Service.path("replacements", "preview"), wanted, Replacement.Preview.class);
    }

    @Override
    public Service.Parameters toKeep() {
        Service.Parameters parameters = new Service.Parameters().add("q", text);
        if (symbol) {
            parameters.add("reading", "plain");
        } else {
            reading.addTo(parameters);
        }
        scope.addTo(parameters, service);
        return parameters;
    }

    @Override
    public String subject() {
        return symbol ? "symbols" : "lines";
    }

    @Override
    public Optional<SavedSearch.Instead> instead() {
        return Optional.of(new SavedSearch.Instead(
                with,
                keepCase ? Boolean.TRUE : null,
                in == In.TEXT ? null : in.name().toLowerCase(Locale.ROOT),
                mentions ? Boolean.TRUE : null));
    }

    private Replacement wanted() {
        if (saved == null) {
            return replacement(subject(), toKeep().values(), instead().orElseThrow(), List.of());
        }
        SavedSearch search = service.get(SearchesCommand.path(saved), new Service.Parameters(), SavedSearch.class);
        Optional<String> alone = Optional.ofNullable(with).or(() -> Optional.ofNullable(text));
        SavedSearch.Instead kept = search.replacement();
        if (alone.isEmpty() && kept == null) {
            throw wrong(saved + " only finds; give WITH, what stands instead.");
        }
        return replacement(
                search.subject(),
                search.parameters(),
                alone.map(one ->
                                new SavedSearch.Instead(one, keepCase, in.name().toLowerCase(Locale.ROOT), mentions))
                        .orElse(kept),
                List.of());
    }

    /** The lines that were found, as they were edited. */
    private Replacement edited() {
        List<Replacement.EditedLine> lines = new LinesInEditor(service).edit(toKeep());
        return replacement(null, null, new SavedSearch.Instead(null, null, null, null), lines);
    }

    private Replacement replacement(
            String subject,
            Map<String, List<String>> parameters,
            SavedSearch.Instead instead,
            List<Replacement.EditedLine> lines) {
        Map<String, String> byPlace = new HashMap<>();
        for (String each : own) {
            int equals = each.indexOf('=');
            if (equals <= 0) {
                throw wrong("--own takes REPO/PATH:LINE:COLUMN=TEXT, not \"" + each + "\".");
            }
            byPlace.put(each.substring(0, equals), each.substring(equals + 1));
        }
        String by = message == null || author != null
                ? author
                : WorkTree.setting("user.name") + " <" + WorkTree.setting("user.email") + ">";
        return new Replacement(
                subject,
                parameters,
                instead.with(),
                instead.keepCase(),
                instead.in(),
                instead.mentions(),
                generated,
                left,
                byPlace,
                lines,
                message,
                by);
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
            throw wrong(patch + " cannot be written: " + e.getMessage());
        }
        return ExitStatus.FOUND;
    }

    /** Of one repository its patch, of several a ZIP, which must be wanted. */
    private byte[] patches(Replacement wanted) {
        String path = Service.path("replacements", "patches");
        if (patch.endsWith(".zip")) {
            return service.postBytes(path, wanted);
        }
        List<String> repositories = preview(wanted).repositories();
        if (repositories.isEmpty()) {
            throw new ServiceProblem("Nothing would change.", ExitStatus.NOTHING_FOUND);
        }
        if (repositories.size() > 1) {
            throw wrong("Something would change in " + String.join(", ", repositories)
                    + ". Name one with --repo, or a file that ends with .zip.");
        }
        return service.postBytes(path + new Service.Parameters().add("repository", repositories.getFirst()), wanted);
    }
}
