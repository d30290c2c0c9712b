package dev.oddbeacon.server.symbols;

import dev.oddbeacon.api.CounterpartsAnswer;
import dev.oddbeacon.api.Outline;
import dev.oddbeacon.api.SymbolAt;
import dev.oddbeacon.api.TranslationsAnswer;
import dev.oddbeacon.core.files.Counterparts;
import dev.oddbeacon.core.meaning.Certainty;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.meaning.UseJudge;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.search.Facets.Share;
import dev.oddbeacon.core.search.FileInHand;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Language;
import dev.oddbeacon.core.symbols.FileOutline;
import dev.oddbeacon.core.symbols.Navigation;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import dev.oddbeacon.core.symbols.Translations;
import dev.oddbeacon.core.symbols.UseCounts;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.web.NotFoundException;
import io.swagger.v3.oas.annotations.Operation;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** {@code /api/v1/repositories/{name}/...}: what a file declares, and where names in it lead. */
@RestController
@RequestMapping("/api/v1/repositories/{name}")
class OutlineController {
    private static final int MOST = 5_000;
    private static final Duration USES = Duration.ofSeconds(2);
    private static final Duration USES_MEANT = Duration.ofMillis(700);
    private static final int MOST_JUDGED = 500;
    private static final int MOST_USES = 50;

    private final Contexts contexts;

    OutlineController(Contexts contexts) {
        this.contexts = contexts;
    }

    /** A file of an indexed branch. */
    private record Place(CallerContext context, View view, int number, int file, Branch branch) {}

    private <T> T at(Caller caller, String name, String path, String rev, Function<Place, T> answer) {
        try (CallerContext context = contexts.open(caller)) {
            context.repository(name);
            View view = context.view();
            int number = view.branchNumber(name, rev)
                    .orElseThrow(
                            () -> new NotFoundException(
                                    rev.isEmpty()
                                            ? name + " is not indexed yet."
                                            : rev + " of " + name
                                                    + " is not indexed, and only of indexed branches it is known what is declared. The page of repositories lists them."));
            Branch branch = view.branch(number);
            OptionalInt file = view.snapshot(number).find(path);
            if (file.isEmpty()) {
                throw new NotFoundException("There is no file " + path + " on " + branch.name() + " of " + name
                        + ". Paths start at the repository's root.");
            }
            return answer.apply(new Place(context, view, number, file.getAsInt(), branch));
        }
    }

    @Operation(
            summary = "What a file declares",
            description =
                    "On an indexed branch; at most 5,000 declarations. With uses=true each with the number of uses of its name and, where types are read, of those that mean it.")
    @GetMapping("/outline")
    Outline outline(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam(defaultValue = "") String rev,
            @RequestParam(defaultValue = "false") boolean uses) {
        return at(caller, name, path, rev, place -> {
            FileOutline outline = FileOutline.of(place.view, place.number, place.file, MOST);
            Map<String, Long> counts = uses
                    ? UseCounts.of(
                            place.context.search().within(USES),
                            place.context.everywhere(),
                            outline.symbols().stream()
                                    .map(FileOutline.Symbol::name)
                                    .toList())
                    : Map.of();
            boolean readsTypes = outline.language()
                    .flatMap(Language::named)
                    .filter(UseJudge::readsTypes)
                    .isPresent();
            List<Spot> spots = FileOutline.spots(place.view, place.number, place.file, MOST);
            Map<Spot, Long> meant = uses && readsTypes
                    ? UseCounts.meant(
                            place.context.search().within(USES_MEANT),
                            place.context.everywhere(),
                            spots.stream()
                                    .filter(spot -> spot.declared().kind() != Kind.NAMESPACE)
                                    .toList(),
                            counts,
                            MOST_JUDGED)
                    : Map.of();
            List<Outline.Symbol> symbols = IntStream.range(0, spots.size())
                    .mapToObj(i -> {
                        FileOutline.Symbol symbol = outline.symbols().get(i);
                        return new Outline.Symbol(
                                symbol.name(),
                                symbol.kind().label(),
                                symbol.container(),
                                symbol.depth(),
                                symbol.line(),
                                symbol.endLine(),
                                symbol.column(),
                                symbol.signature(),
                                counts.get(symbol.name()),
                                meant.get(spots.get(i)));
                    })
                    .toList();
            return new Outline(
                    name,
                    place.branch.name(),
                    place.branch.commit(),
                    path,
                    place.view.snapshot(place.number).type(place.file),
                    outline.language().orElse(null),
                    outline.total(),
                    symbols);
        });
    }

    @Operation(
            summary = "The parts of a file that are comments or strings",
            description =
                    "Offsets in UTF-16 units of the text that /file gives: start, end and 1 for a comment, 2 for a string, one after the other.")
    @GetMapping("/regions")
    int[] regions(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam(defaultValue = "") String rev) {
        return at(caller, name, path, rev, place -> FileOutline.regions(place.view, place.number, place.file));
    }

    @Operation(summary = "What the name at a place may mean", description = "404 if no name stands there.")
    @GetMapping("/symbol")
    SymbolAt symbol(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam int line,
            @RequestParam int column,
            @RequestParam(defaultValue = "") String rev) {
        return at(caller, name, path, rev, place -> {
            Navigation.At found = new Navigation(place.view, place.number, place.file)
                    .at(line, column)
                    .orElseThrow(() -> new NotFoundException(
                            "No name of a symbol stands at " + path + ":" + line + ":" + column + "."));
            SymbolSearch uses = new SymbolSearch(
                    SymbolQuery.whole(found.name(), place.context.everywhere()),
                    SymbolRole.USE,
                    Set.of(),
                    Set.of(),
                    0,
                    1,
                    true);
            SymbolAnswer answer = uses.run(place.context.search().within(USES));
            return new SymbolAt(
                    found.name(),
                    found.declared()
                            .map(target -> Targets.of(place.view, target))
                            .orElse(null),
                    Targets.of(place.view, found.declarations()),
                    answer.symbols(),
                    answer.exact(),
                    nearby(place.context, found),
                    meant(
                            place.context,
                            found,
                            place.branch.isDefault() ? name + "/" + path + ":" + line + ":" + column : null),
                    Targets.of(place.view, found.supertypes()),
                    Targets.of(place.view, found.subtypes()),
                    Targets.of(place.view, found.family()));
        });
    }

    /** Uses of a method are told apart from others of its name by the files that name its type. */
    private static SymbolAt.UsesNearby nearby(CallerContext context, Navigation.At found) {
        if (found.ownerType().isEmpty()) {
            return null;
        }
        String type = found.ownerType().get();
        Query expression = Query.and(List.of(
                new TextClause.Symbol(SymbolRole.USE, found.name()),
                new Query.Holds(new TextClause.Symbol(SymbolRole.ANY, type))));
        SymbolQuery query = SymbolQuery.of(
                ExpressionPrinter.print(expression),
                SymbolQuery.NameReading.EXPRESSION,
                CaseMode.MATCH,
                context.everywhere());
        SymbolAnswer answer = new SymbolSearch(query, SymbolRole.USE, Set.of(), Set.of(), 0, 1, true)
                .run(context.search().within(USES));
        return new SymbolAt.UsesNearby(type, ExpressionPrinter.print(expression), answer.symbols(), answer.exact());
    }

    /** Uses of what is declared there, or is meant most likely, by how surely it is meant. */
    private static SymbolAt.UsesMeant meant(CallerContext context, Navigation.At found, String of) {
        if (found.meant().isEmpty()) {
            return null;
        }
        SymbolQuery query = SymbolQuery.usesOf(found.meant(), context.everywhere());
        SymbolAnswer answer = new SymbolSearch(query, SymbolRole.USE, Set.of(), Set.of(), 0, 1, true)
                .run(context.search().within(USES));
        Map<String, Long> counts = answer.certainties().stream().collect(Collectors.toMap(Share::value, Share::hits));
        return new SymbolAt.UsesMeant(
                of,
                counts.getOrDefault(Certainty.SURE.label(), 0L),
                counts.getOrDefault(Certainty.LIKELY.label(), 0L),
                counts.getOrDefault(Certainty.BY_NAME.label(), 0L),
                answer.exact());
    }

    @Operation(
            summary = "From code to its test and back",
            description = "By the names that each ecosystem gives tests.")
    @GetMapping("/counterparts")
    CounterpartsAnswer counterparts(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam(defaultValue = "") String rev) {
        return at(caller, name, path, rev, place -> {
            Counterparts.Found found = Counterparts.of(place.view.snapshot(place.number), path);
            return new CounterpartsAnswer(found.isTest(), found.byConvention(), found.candidates());
        });
    }

    @Operation(
            summary = "A text in all languages, and the code that shows it",
            description =
                    "For a line of a file of translations: the files of the other languages are those whose paths differ in the name of the language alone. 404 if no other language has the key of the line.")
    @GetMapping("/translations")
    TranslationsAnswer translations(
            Caller caller,
            @PathVariable String name,
            @RequestParam String path,
            @RequestParam int line,
            @RequestParam(defaultValue = "") String rev) {
        return at(caller, name, path, rev, place -> {
            Translations.Found found = new Translations(place.view, place.number)
                    .at(place.file, line)
                    .orElseThrow(() -> new NotFoundException("No key that another language has as well stands at "
                            + path + ":" + line + ". Files of one text differ in the name of the language alone."));
            Translations.Uses uses = Translations.uses(
                    found,
                    new FileInHand(name, path),
                    place.context.everywhere(),
                    MOST_USES,
                    place.context.search().within(USES));
            return TranslationAnswers.of(place.view, place.branch, place.number, found, uses);
        });
    }
}
