package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.SymbolAt;
import dev.oddbeacon.api.SymbolsAnswer;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.client.worktree.LocalIndex;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.symbols.Navigation;
import dev.oddbeacon.core.symbols.SymbolAnswer;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.core.symbols.SymbolSearch;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Set;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.Range;

/**
 * What names mean and where they are used: as the service knows it for lines that are as they were indexed, as the
 * index of the work tree's changes knows it for those that are not.
 */
final class Symbols {
    /** Places that one request takes from the service. */
    static final int MOST = 2_000;

    private static final int PAGE = 1_000;
    private static final String BY_NAME = "by name only";

    private final Service service;
    private final Sources sources;

    Symbols(Service service, Sources sources) {
        this.service = service;
        this.sources = sources;
    }

    /**
     * A name in a file.
     *
     * @param range of it
     * @param told what the service says of it; empty if its line is new, or the service knows nothing
     */
    record Named(Source source, String name, Range range, Optional<SymbolAt> told) {}

    /** The name at a position; empty if none stands there. */
    Optional<Named> at(Source source, Position position) {
        return source.name(position).map(range -> {
            OptionalInt line = source.indexedLine(range.getStart().getLine() + 1);
            Optional<SymbolAt> told = line.isEmpty()
                    ? Optional.empty()
                    : told(
                            source.repository(),
                            source.branch(),
                            source.path(),
                            line.getAsInt(),
                            range.getStart().getCharacter() + 1);
            return new Named(source, source.text(range), range, told);
        });
    }

    /** What the service says of an indexed place; empty if no name stands there. */
    Optional<SymbolAt> told(Place place) {
        return told(place.repository(), place.branch(), place.path(), place.line(), place.column());
    }

    private Optional<SymbolAt> told(String repository, String branch, String path, int line, int column) {
        try {
            return Optional.of(service.get(
                    Service.path("repositories", repository, "symbol"),
                    new Service.Parameters()
                            .add("path", path)
                            .add("line", line)
                            .add("column", column)
                            .add("rev", branch),
                    SymbolAt.class));
        } catch (ServiceProblem e) {
            if (e.exitStatus() == ExitStatus.NOTHING_FOUND) {
                return Optional.empty();
            }
            throw e;
        }
    }

    /** Where a name is declared, the likeliest first: as surely as it is known for any. */
    List<Place> declarations(Named named) {
        List<SymbolAt.Target> told = named.told()
                .map(symbol -> symbol.declared() != null ? List.of(symbol.declared()) : symbol.declarations())
                .orElse(List.of());
        List<Place> sure = told.stream()
                .filter(target -> !target.reason().equals(BY_NAME))
                .filter(target -> target.reason().equals(told.getFirst().reason()))
                .map(Place::of)
                .toList();
        if (!sure.isEmpty()) {
            return sure;
        }
        List<Place> here = declaredHere(named);
        if (!here.isEmpty()) {
            return here;
        }
        return told.isEmpty()
                ? byName(named.name(), "declaration")
                : told.stream().map(Place::of).toList();
    }

    /** What files that changed declare, if their lines are new, as one of them understands the name or else by the name. */
    private List<Place> declaredHere(Named named) {
        Optional<WorkFolder> folder = named.source().folder();
        if (folder.isEmpty()) {
            return List.of();
        }
        List<Place> understood = folder.get().local(local -> {
            OptionalInt file = local.file(named.source().path());
            return file.isEmpty()
                    ? List.<Place>of()
                    : new Navigation(local.view(), 0, file.getAsInt())
                                    .at(
                                            named.range().getStart().getLine() + 1,
                                            named.range().getStart().getCharacter() + 1)
                                    .map(at -> at.declared().map(List::of).orElse(at.declarations()))
                                    .orElse(List.of())
                                    .stream()
                                    .map(target -> place(folder.get(), local, target))
                                    .toList();
        });
        return understood.isEmpty() ? onNewLines(folder.get(), named.name(), SymbolRole.DECLARATION) : understood;
    }

    private static Place place(WorkFolder folder, LocalIndex local, Navigation.Target target) {
        return new Place(
                folder.repository(),
                folder.branch(),
                local.path(target.file()),
                target.line(),
                target.column(),
                target.name(),
                target.kind().label(),
                target.container(),
                target.signature(),
                true);
    }

    private List<Place> byName(String name, String role) {
        return pages(
                        new Service.Parameters()
                                .add("q", name)
                                .add("reading", "plain")
                                .add("case", "match")
                                .add("role", role),
                        () -> false)
                .map(Place::of)
                .toList();
    }

    /**
     * Where a name is used, and declared if that is wanted: surely or likely, with what it overrides and what overrides
     * it; by the name alone where no more is known.
     *
     * @param cancelled whether nobody waits for it any more
     */
    List<Place> references(Named named, boolean withDeclarations, BooleanSupplier cancelled) {
        List<Place> found = new ArrayList<>();
        if (withDeclarations) {
            found.addAll(declarations(named));
            named.told().ifPresent(told -> told.family().forEach(target -> found.add(Place.of(target))));
        }
        Optional<String> of = named.told().map(SymbolAt::usesMeant).map(SymbolAt.UsesMeant::of);
        if (of.isPresent()) {
            pages(
                            new Service.Parameters()
                                    .add("of", of.get())
                                    .add("role", "use")
                                    .add("family", true),
                            cancelled)
                    .map(Place::of)
                    .forEach(found::add);
        } else {
            found.addAll(byName(named.name(), "use"));
        }
        for (WorkFolder folder : sources.folders()) {
            found.addAll(onNewLines(folder, named.name(), SymbolRole.USE));
        }
        return distinct(found);
    }

    private static List<Place> distinct(List<Place> places) {
        List<Place> once = new ArrayList<>();
        places.stream()
                .filter(place -> once.stream().noneMatch(place::isSameAs))
                .forEach(once::add);
        return once;
    }

    /** Symbols whose names hold all parts of a text, of all repositories. */
    List<Place> named(String text, int most) {
        List<Place> found = new ArrayList<>(service
                .search(
                        Service.path("search", "symbols"),
                        new Service.Parameters()
                                .add("q", text)
                                .add("reading", "fragments")
                                .add("limit", most),
                        SymbolsAnswer.class)
                .symbols()
                .stream()
                .map(Place::of)
                .toList());
        for (WorkFolder folder : sources.folders()) {
            found.addAll(onNewLines(
                    folder,
                    SymbolQuery.of(text, SymbolQuery.NameReading.FRAGMENTS, CaseMode.AUTO, Scope.EVERYTHING),
                    SymbolRole.DECLARATION));
        }
        return found;
    }

    private Stream<SymbolsAnswer.Symbol> pages(Service.Parameters parameters, BooleanSupplier cancelled) {
        List<SymbolsAnswer.Symbol> found = new ArrayList<>();
        String cursor = null;
        do {
            SymbolsAnswer answer = service.search(
                    Service.path("search", "symbols"),
                    new Service.Parameters()
                            .addAll(parameters)
                            .add("limit", PAGE)
                            .addGiven("cursor", cursor),
                    SymbolsAnswer.class);
            found.addAll(answer.symbols());
            cursor = answer.next();
        } while (cursor != null && found.size() < MOST && !cancelled.getAsBoolean());
        return found.stream().limit(MOST);
    }

    /** Where a name stands on lines of a work tree that are not indexed. */
    private List<Place> onNewLines(WorkFolder folder, String name, SymbolRole role) {
        return onNewLines(folder, SymbolQuery.whole(name, Scope.EVERYTHING), role);
    }

    private List<Place> onNewLines(WorkFolder folder, SymbolQuery query, SymbolRole role) {
        List<Place> all = folder.local(local -> search(local, query, role).stream()
                .map(symbol -> new Place(
                        folder.repository(),
                        folder.branch(),
                        local.path(symbol.file()),
                        symbol.line().number(),
                        symbol.column(),
                        symbol.name(),
                        symbol.kind().map(Kind::label).orElse(null),
                        symbol.container(),
                        symbol.signature(),
                        true))
                .toList());
        Predicate<Place> isNew = place -> folder.lines(place.path())
                .map(map -> map.before(place.line()).isEmpty())
                .orElse(true);
        return all.stream().filter(isNew).toList();
    }

    /** Places of a local index. */
    static List<SymbolAnswer.Symbol> search(LocalIndex local, SymbolQuery query, SymbolRole role) {
        return new SymbolSearch(query, role, Set.of(), Set.of(), 0, MOST, true)
                .run(local.context())
                .page();
    }
}
