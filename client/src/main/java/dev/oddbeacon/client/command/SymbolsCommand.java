package dev.oddbeacon.client.command;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonUnwrapped;
import dev.oddbeacon.api.LinesAnswer;
import dev.oddbeacon.api.Result;
import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.api.SymbolsAnswer.Symbol;
import dev.oddbeacon.client.options.FragmentOptions;
import dev.oddbeacon.client.options.HereOptions;
import dev.oddbeacon.client.options.Limit;
import dev.oddbeacon.client.options.OpenOptions;
import dev.oddbeacon.client.options.Pages;
import dev.oddbeacon.client.options.PrintOptions;
import dev.oddbeacon.client.options.ScopeOptions;
import dev.oddbeacon.client.output.Amounts;
import dev.oddbeacon.client.output.Columns;
import dev.oddbeacon.client.output.Mistakes;
import dev.oddbeacon.client.output.Names;
import dev.oddbeacon.client.output.Remarks;
import dev.oddbeacon.client.output.ResultPrinter;
import dev.oddbeacon.client.output.SarifLog;
import dev.oddbeacon.client.output.SymbolPrinter;
import dev.oddbeacon.client.output.Terminal;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.worktree.ChangedFiles;
import dev.oddbeacon.client.worktree.SymbolsHere;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** {@code oddbeacon symbols}. */
@Command(
        name = "symbols",
        mixinStandardHelpOptions = true,
        description = "Finds declarations and uses by name.%n",
        footer = {
            "",
            "Examples:",
            "  oddbeacon symbols assign",
            "  oddbeacon symbols BerthPlanner.assign",
            "  oddbeacon symbols --kind class planner",
            "  oddbeacon symbols --plain --role use tideAt",
            "  oddbeacon symbols --plain --role use BerthPlanner.assign",
            "  oddbeacon symbols --glob 'read*' --type go"
        })
public final class SymbolsCommand implements Callable<Integer>, SearchToKeep {
    private static final int PAGE = 1_000;

    /** The role that symbols must have. */
    enum Role {
        DECLARATION,
        USE,
        ANY
    }

    /** How surely a use means what is asked for. */
    enum Certainty {
        SURE("sure"),
        LIKELY("likely"),
        BY_NAME("by-name");

        private final String label;

        Certainty(String label) {
            this.label = label;
        }

        @Override
        public String toString() {
            return label;
        }
    }

    @Parameters(
            paramLabel = "NAME",
            arity = "1..*",
            description =
                    "Parts of the name, or of what it is declared in, in any order: assign, berth assign, Berth.assign; first letters will do: bp for BerthPlanner.")
    private String[] texts = {};

    @Mixin
    private FragmentOptions reading;

    @Option(
            names = "--role",
            paramLabel = "declaration|use|any",
            defaultValue = "declaration",
            description = "Where it is declared, where it is used, or both (default: ${DEFAULT-VALUE}).")
    private Role role;

    @Option(
            names = "--kind",
            paramLabel = "K",
            description = "Declarations of such a kind: class, function, method, field, macro, key, ...")
    private List<String> kinds = new ArrayList<>();

    @Option(
            names = "--certainty",
            paramLabel = "sure|likely|by-name",
            split = ",",
            description =
                    "How surely uses must mean what is declared, where NAME says what that stands in (default: sure,likely).")
    private List<Certainty> certainties = new ArrayList<>();

    @Mixin
    private ScopeOptions scope;

    @Mixin
    private HereOptions here;

    @Mixin
    private OpenOptions open;

    @Option(
            names = "--limit",
            paramLabel = "N|all",
            defaultValue = "100",
            converter = Limit.Converter.class,
            description = "Most places to print (default: ${DEFAULT-VALUE}).")
    private Limit limit;

    @Mixin
    private PrintOptions print;

    @Mixin
    private Service service;

    /** A place as a JSON object; see {@link Symbol}. */
    record Place(
            @JsonInclude(JsonInclude.Include.NON_NULL) String local,
            @JsonUnwrapped Symbol symbol) {}

    private static final Columns<Symbol> COLUMNS = new Columns<Symbol>()
            .add("repository", Symbol::repository)
            .add("branch", Symbol::branch)
            .add("commit", Symbol::commit)
            .add("path", Symbol::path)
            .add("line", Symbol::line)
            .add("column", Symbol::column)
            .add("role", Symbol::role)
            .add("kind", Symbol::kind)
            .add("container", Symbol::container)
            .add("name", Symbol::name)
            .add("text", Symbol::text)
            .add("certainty", Symbol::certainty);

    @Override
    public Integer call() {
        String text = String.join(" ", texts);
        return Mistakes.marking(text, () -> run(text));
    }

    private int run(String text) {
        Names names = scope.names(service);
        SymbolPrinter symbols = new SymbolPrinter(print.terminal(), names, Terminal.isInteractive());
        ResultPrinter<Symbol> printer = print.printer(
                COLUMNS,
                symbol -> new Place(
                        names.local(symbol.repository(), symbol.path()).orElse(null), symbol),
                (_, symbol) -> symbols.print(symbol));
        List<OpenOptions.Target> targets = new ArrayList<>();
        Pages<SymbolsAnswer> pages = Pages.of(
                limit.most(),
                PAGE,
                (cursor, most) -> page(text, cursor, most),
                page -> {
                    page.symbols().forEach(print.isSarif() ? symbol -> print.keep(found(symbol)) : printer::print);
                    page.symbols().stream()
                            .filter(_ -> open.isWanted())
                            .forEach(symbol -> targets.add(new OpenOptions.Target(
                                    symbol.repository(), symbol.path(), symbol.line(), symbol.column())));
                    return page.symbols().size();
                },
                SymbolsAnswer::next);
        print.end(service, "symbols", text);
        report(pages.first(), pages.cut());
        open.open(names, service, targets);
        return ExitStatus.of(pages.first().counts().symbols() > 0);
    }

    private static SarifLog.Found found(Symbol symbol) {
        return new SarifLog.Found(
                new Result(
                        symbol.repository(),
                        symbol.branch(),
                        symbol.commit(),
                        symbol.path(),
                        symbol.line(),
                        symbol.name(),
                        symbol.text()),
                symbol.column(),
                symbol.column() + symbol.name().length());
    }

    private void report(SymbolsAnswer answer, boolean cut) {
        SymbolsAnswer.Counts counts = answer.counts();
        boolean forPeople = print.isText() && Terminal.isInteractive();
        if (counts.symbols() == 0 && forPeople) {
            print.terminal()
                    .line("Nothing of that name in "
                            + Amounts.of(answer.index().repositories(), "repository", "repositories")
                            + (role == Role.DECLARATION ? "; --role any looks for uses too." : "."));
        } else {
            String roles = answer.facets().role().stream()
                    .map(facet -> Amounts.of(facet.hits(), facet.value()))
                    .reduce((a, b) -> a + " and " + b)
                    .orElse("0 places");
            if (roles.endsWith("uses") || roles.endsWith("use")) {
                roles += certainties(answer.facets().certainty());
            }
            String all = (counts.exact() ? "" : "at least ") + roles + " in " + Amounts.of(counts.files(), "file")
                    + " of " + Amounts.of(counts.repositories(), "repository", "repositories");
            Remarks.tellAmount(print.terminal(), forPeople, all, limit.most(), cut);
        }
        tellOthers(answer);
        Remarks.tellState(answer.index());
        Remarks.tellStopped(answer.stopped(), "Give more of the name.");
    }

    /** How many are how sure: " (3 sure, 1 likely)". */
    private String certainties(List<LinesAnswer.Facet> facets) {
        String all = facets.stream()
                .filter(facet -> isWanted(facet.value()))
                .map(facet -> Amounts.number(facet.hits()) + " " + words(facet.value()))
                .collect(Collectors.joining(", "));
        return all.isEmpty() ? "" : " (" + all + ")";
    }

    private boolean isWanted(String certainty) {
        return certainties.isEmpty()
                ? !certainty.equals(Certainty.BY_NAME.label)
                : certainties.stream().anyMatch(one -> one.label.equals(certainty));
    }

    private static String words(String certainty) {
        return certainty.equals(Certainty.BY_NAME.label) ? "by name only" : certainty;
    }

    /** Tells of uses that have the name and nothing more, as they are left out. */
    private void tellOthers(SymbolsAnswer answer) {
        answer.facets().certainty().stream()
                .filter(facet -> facet.value().equals(Certainty.BY_NAME.label) && !isWanted(facet.value()))
                .findFirst()
                .ifPresent(
                        facet -> Terminal.complain(Amounts.of(facet.hits(), "other use", "other uses") + " of the name "
                                + (facet.hits() == 1 ? "has" : "have")
                                + " nothing else in common with it, as far as types tell; --certainty by-name lists "
                                + (facet.hits() == 1 ? "it." : "them.")));
    }

    @Override
    public Service.Parameters toKeep() {
        return asked(String.join(" ", texts));
    }

    private Service.Parameters asked(String wanted) {
        Service.Parameters parameters = new Service.Parameters()
                .addGiven("q", wanted)
                .add("role", role)
                .addAll("kind", kinds)
                .addAll(
                        "certainty",
                        certainties.stream().map(Certainty::toString).toList());
        reading.addTo(parameters);
        scope.addTo(parameters, service);
        return parameters;
    }

    private SymbolsAnswer page(String wanted, String cursor, int most) {
        Optional<ChangedFiles> changed = here.changed(scope, service);
        return changed.isEmpty() || !cursor.isEmpty()
                ? ask(wanted, cursor, most)
                : SymbolsHere.first(changed.get(), asked(wanted).values(), most, left -> ask(wanted, "", left));
    }

    private SymbolsAnswer ask(String wanted, String cursor, int most) {
        Service.Parameters parameters = asked(wanted).add("limit", most).addGiven("cursor", cursor);
        here.changed(scope, service).ifPresent(changed -> changed.without(parameters));
        return service.search(Service.path("search", "symbols"), parameters, SymbolsAnswer.class);
    }
}
