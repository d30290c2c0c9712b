package dev.oddbeacon.server.replacements;

import dev.oddbeacon.api.Replacement;
import dev.oddbeacon.api.Replacement.In;
import dev.oddbeacon.api.SavedSearch.Subject;
import dev.oddbeacon.api.ScopePart;
import dev.oddbeacon.core.lines.LineAnswer;
import dev.oddbeacon.core.lines.LineSearch;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.Reading;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.expression.TextQuery;
import dev.oddbeacon.core.query.matching.CompiledQuery;
import dev.oddbeacon.core.replace.EncodedText;
import dev.oddbeacon.core.replace.ShapeReplacement;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.text.Visible;
import dev.oddbeacon.git.PatchWriter;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.lines.LineParameters;
import dev.oddbeacon.server.searches.Subjects;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import dev.oddbeacon.server.web.Parameters;
import java.io.IOException;
import java.time.Clock;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.springframework.stereotype.Component;

/**
 * Replaces what a search matches, in copies: what comes out is what would change, and patches. Nothing is written to a
 * repository.
 */
@Component
class Replacements {
    static final int MOST_MATCHES = 200_000;
    private static final int LONGEST_MESSAGE = 10_000; // characters
    private static final int LONGEST_AUTHOR = 200;
    /** What of a search for symbols says which places are meant: a name is replaced at all of them, or at none. */
    private static final Set<String> OF_PLACES = Set.of("role", "kind", "case");

    private final Contexts contexts;
    private final Clock clock;

    Replacements(Contexts contexts, Clock clock) {
        this.contexts = contexts;
        this.clock = clock;
    }

    Replacement.Preview preview(Caller caller, Replacement wanted, int mostFiles) throws IOException {
        try (CallerContext context = contexts.open(caller)) {
            return run(context, wanted, true).preview(mostFiles);
        }
    }

    /**
     * One file as it would be.
     *
     * @throws NotFoundException if it would not change
     */
    Replacement.After file(Caller caller, Replacement wanted, String repository, String path) throws IOException {
        try (CallerContext context = contexts.open(caller)) {
            return run(context, only(wanted, repository, path), false).files().stream()
                    .filter(file -> file.at().repository().equals(repository)
                            && file.path().equals(path))
                    .findFirst()
                    .map(file -> new Replacement.After(
                            file.newPath().orElse(path),
                            file.edit()
                                    .flatMap(edit -> EncodedText.of(edit.after()))
                                    .map(EncodedText::text)
                                    .orElse("")))
                    .orElseThrow(() -> new NotFoundException(path + " of " + repository + " would not change."));
        }
    }

    /** The same in one file. */
    private static Replacement only(Replacement wanted, String repository, String path) {
        Map<String, List<String>> parameters = null;
        if (wanted.parameters() != null) {
            parameters = new HashMap<>(wanted.parameters());
            parameters.put(ScopePart.FILE.parameter(), List.of(repository + "/" + path));
        }
        return new Replacement(
                wanted.subject(),
                parameters,
                wanted.with(),
                wanted.keepCase(),
                wanted.in(),
                wanted.mentions(),
                wanted.generated(),
                wanted.except(),
                wanted.own(),
                Objects.requireNonNullElse(wanted.lines(), List.<Replacement.EditedLine>of()).stream()
                        .filter(line -> repository.equals(line.repository()) && path.equals(line.path()))
                        .toList(),
                null,
                null);
    }

    /** A patch for each branch of a repository in which something changes, in their order. */
    Map<At, byte[]> patches(Caller caller, Replacement wanted) throws IOException {
        boolean isMail = wanted.message() != null;
        if (isMail) {
            checkCommit(wanted.message(), wanted.author());
        }
        Map<At, PatchWriter> writers;
        try (CallerContext context = contexts.open(caller)) {
            writers = run(context, wanted, false).patches();
        }
        Map<At, byte[]> patches = new LinkedHashMap<>();
        writers.forEach((at, writer) -> patches.put(
                at,
                isMail ? writer.toMail(wanted.author().strip(), clock.instant(), wanted.message()) : writer.toBytes()));
        return patches;
    }

    private static void checkCommit(String message, String author) {
        if (message.isBlank() || message.length() > LONGEST_MESSAGE) {
            throw new BadRequestException(
                    "The message of a commit is missing, or has more than " + LONGEST_MESSAGE + " characters.");
        }
        String name = Objects.requireNonNullElse(author, "").strip();
        int mark = name.indexOf('<');
        if (mark <= 0
                || name.indexOf('>') != name.length() - 1
                || name.length() > LONGEST_AUTHOR
                || !Visible.isVisible(name)) {
            throw new BadRequestException("The author of a commit is written as Name <address>.");
        }
    }

    private static Outcome run(CallerContext context, Replacement wanted, boolean looksOutside) throws IOException {
        Targets targets = new Targets(context, wanted);
        boolean edits = wanted.lines() != null && !wanted.lines().isEmpty();
        if (wanted.parameters() == null && wanted.with() == null && edits) {
            targets.editLines();
            return targets.outcome(Optional.empty(), Optional.empty());
        }
        if (wanted.parameters() == null || wanted.with() == null) {
            throw new BadRequestException(
                    "Give the parameters of a search, and with: what stands instead of its matches; or lines.");
        }
        Optional<Replacement.Outside> outside = Optional.empty();
        Optional<SymbolPlaces> symbol = Optional.empty();
        In in = Parameters.oneOf(In.values(), "in", wanted.in());
        switch (subject(wanted)) {
            case SYMBOLS -> symbol = symbols(context, wanted, targets, in);
            case LINES -> outside = lines(context, wanted, targets, in, looksOutside);
            case FILES, COMMITS, SCOPE ->
                throw new BadRequestException("What is replaced is found by a search for lines or symbols.");
        }
        targets.editLines();
        return targets.outcome(outside, symbol);
    }

    private static Subject subject(Replacement wanted) {
        return wanted.subject() == null ? Subject.LINES : Subjects.named(wanted.subject());
    }

    /** Finds what a search for lines matches. */
    private static Optional<Replacement.Outside> lines(
            CallerContext context, Replacement wanted, Targets targets, In in, boolean looksOutside) {
        LineParameters parameters =
                (LineParameters) Subjects.filled(Subject.LINES, Subjects.kept(Subject.LINES, wanted.parameters()));
        if (Boolean.TRUE.equals(parameters.without())) {
            throw new BadRequestException("Files that lack a text have nothing to replace. Leave out without.");
        }
        ScopeParameters within = Subjects.scope(wanted.parameters());
        TextQuery text = parameters.textQuery();
        MatchFinder finder = finder(context, wanted, text);
        if (text.reading() == Reading.EXPRESSION && in != In.TEXT) {
            throw new BadRequestException("A shape stands in the content of files. Leave out in, or take in=text.");
        }
        Query query = parameters.query(context, within);
        context.check(query);
        if (in != In.PATHS) {
            targets.addText(query, within.hasRegions(), finder);
        }
        if (in != In.TEXT) {
            targets.addPaths(text, context.scope(within), finder);
        }
        return looksOutside && in != In.PATHS && !within.values().isEmpty()
                ? outside(context, text, query)
                : Optional.empty();
    }

    private static MatchFinder finder(CallerContext context, Replacement wanted, TextQuery text) {
        if (text.reading() == Reading.EXPRESSION) {
            if (Boolean.TRUE.equals(wanted.keepCase())) {
                throw new BadRequestException("Code of a shape has no case that could be kept. Leave out keepCase.");
            }
            return new CodeFinder(ShapeReplacement.of(
                    text.understand(false).query(),
                    wanted.with(),
                    context.search().budget()::isOver));
        }
        return new TextFinder(
                text,
                dev.oddbeacon.core.replace.Replacement.of(text, wanted.with(), Boolean.TRUE.equals(wanted.keepCase())),
                context.search().budget()::isOver);
    }

    /** Where the text stands outside the scope as well. */
    private static Optional<Replacement.Outside> outside(CallerContext context, TextQuery text, Query within) {
        LineAnswer inside = count(context, within);
        LineAnswer all = count(context, text.understand(false).query());
        return Optional.of(
                new Replacement.Outside(all.hits() - inside.hits(), Math.max(0, all.files() - inside.files())));
    }

    private static LineAnswer count(CallerContext context, Query query) {
        return LineSearch.counting(CompiledQuery.of(query, CaseMode.AUTO)).run(context.search());
    }

    /** Finds the declarations and uses of a name. */
    private static Optional<SymbolPlaces> symbols(CallerContext context, Replacement wanted, Targets targets, In in) {
        Map<String, List<String>> parameters = Subjects.kept(Subject.SYMBOLS, wanted.parameters());
        parameters.keySet().stream().filter(OF_PLACES::contains).findFirst().ifPresent(name -> {
            throw new BadRequestException(
                    "A symbol is replaced where it is declared and where it is used. Leave out " + name + ".");
        });
        String name = parameters.getOrDefault("q", List.of("")).getFirst();
        if (!parameters.getOrDefault("reading", List.of("plain")).equals(List.of("plain")) || name.isBlank()) {
            throw new BadRequestException(
                    "A symbol is replaced by its whole name. Give it as q, and no other reading.");
        }
        if (wanted.with().isBlank() && in != In.PATHS) {
            throw new InvalidQueryException("A symbol cannot be without a name. Say what it is called instead.");
        }
        Scope scope = context.scope(Subjects.scope(parameters));
        context.check(scope.query());
        SymbolName symbol = SymbolName.of(name);
        if (symbol.isWild()) {
            throw new BadRequestException("A symbol is replaced by its whole name, without * and ?.");
        }
        if (symbol.asksMore() && in != In.TEXT) {
            throw new BadRequestException(
                    "Paths have only names. Leave out in, or give the name alone, without what it stands in.");
        }
        TextQuery text = new TextQuery(symbol.name(), Reading.PLAIN, CaseMode.MATCH, true);
        MatchFinder finder = finder(context, wanted, text);
        SymbolPlaces places = SymbolPlaces.of(symbol, scope, context.search(), MOST_MATCHES + 1);
        if (in != In.PATHS) {
            targets.addSymbol(places, finder, Boolean.TRUE.equals(wanted.mentions()), scope, text);
        }
        if (in != In.TEXT) {
            targets.addPaths(text, scope, finder);
        }
        return Optional.of(places);
    }
}
