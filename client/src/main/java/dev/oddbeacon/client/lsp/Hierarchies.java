package dev.oddbeacon.client.lsp;

import com.google.gson.Gson;
import com.google.gson.JsonElement;
import dev.oddbeacon.api.CallsAnswer;
import dev.oddbeacon.api.SymbolAt;
import dev.oddbeacon.client.service.ExitStatus;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import dev.oddbeacon.core.source.Kind;
import java.util.List;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.BiFunction;
import java.util.function.Function;
import java.util.stream.Stream;
import org.eclipse.lsp4j.CallHierarchyIncomingCall;
import org.eclipse.lsp4j.CallHierarchyItem;
import org.eclipse.lsp4j.CallHierarchyOutgoingCall;
import org.eclipse.lsp4j.Location;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.Range;
import org.eclipse.lsp4j.SymbolKind;
import org.eclipse.lsp4j.TypeHierarchyItem;

/** Types above and below a type, and what calls what, one level at a time. */
final class Hierarchies {
    private static final Gson JSON = new Gson();

    private final Service service;
    private final Sources sources;
    private final Symbols symbols;
    private final Locations locations;

    Hierarchies(Service service, Sources sources, Symbols symbols, Locations locations) {
        this.service = service;
        this.sources = sources;
        this.symbols = symbols;
        this.locations = locations;
    }

    /** The types that a name means. */
    List<TypeHierarchyItem> types(Symbols.Named named) {
        return indexed(named)
                .filter(place -> isType(place.kind()))
                .flatMap(place -> typeItem(place).stream())
                .toList();
    }

    private Stream<Place> indexed(Symbols.Named named) {
        return symbols.declarations(named).stream().filter(place -> !place.isNow());
    }

    private static boolean isType(String kind) {
        return Kind.of(kind).filter(Kind::isType).isPresent();
    }

    List<TypeHierarchyItem> related(TypeHierarchyItem item, Function<SymbolAt, List<SymbolAt.Target>> which) {
        return symbols.told(place(item.getData())).map(which).orElse(List.of()).stream()
                .map(Place::of)
                .flatMap(place -> typeItem(place).stream())
                .toList();
    }

    private static Place place(Object data) {
        return JSON.fromJson((JsonElement) data, Place.class);
    }

    private Optional<TypeHierarchyItem> typeItem(Place place) {
        return locations.of(place).map(location -> {
            TypeHierarchyItem item = new TypeHierarchyItem(
                    place.name(),
                    Kinds.of(place.kind()),
                    location.getUri(),
                    location.getRange(),
                    location.getRange(),
                    place.detail());
            item.setData(JSON.toJsonTree(place));
            return item;
        });
    }

    /** What a name means that can be called, or can call. */
    List<CallHierarchyItem> callables(Symbols.Named named) {
        return indexed(named).flatMap(place -> callItem(place).stream()).toList();
    }

    private Optional<CallHierarchyItem> callItem(Place place) {
        return locations.of(place).map(location -> {
            CallHierarchyItem item = new CallHierarchyItem(
                    place.name(), Kinds.of(place.kind()), location.getUri(), location.getRange(), location.getRange());
            item.setDetail(place.detail());
            item.setData(JSON.toJsonTree(place));
            return item;
        });
    }

    List<CallHierarchyIncomingCall> callers(CallHierarchyItem item) {
        return ends(item, "callers", (end, self) -> end, CallHierarchyIncomingCall::new);
    }

    /** The calls stand in the file of the item that calls. */
    List<CallHierarchyOutgoingCall> callees(CallHierarchyItem item) {
        return ends(item, "callees", (end, self) -> self, CallHierarchyOutgoingCall::new);
    }

    private <T> List<T> ends(
            CallHierarchyItem item,
            String direction,
            BiFunction<Place, Place, Place> sitesIn,
            BiFunction<CallHierarchyItem, List<Range>, T> call) {
        if (item.getData() == null) {
            return List.of();
        }
        Place self = place(item.getData());
        return calls(self, direction).stream()
                .flatMap(end -> item(end).stream().flatMap(other -> {
                    String name = end.declaration() == null
                            ? self.name()
                            : direction.equals("callers")
                                    ? self.name()
                                    : end.declaration().name();
                    Place in = sitesIn.apply(inFile(end), self);
                    List<Range> ranges = end.sites().stream()
                            .flatMap(site -> range(in, site, name).stream())
                            .toList();
                    return ranges.isEmpty() ? Stream.of() : Stream.of(call.apply(other, ranges));
                }))
                .toList();
    }

    private List<CallsAnswer.End> calls(Place self, String direction) {
        try {
            return service.get(
                            Service.path("calls"),
                            new Service.Parameters().add("of", self.written()).add("direction", direction),
                            CallsAnswer.class)
                    .ends();
        } catch (ServiceProblem e) {
            if (e.exitStatus() == ExitStatus.NOTHING_FOUND) {
                return List.of();
            }
            throw e;
        }
    }

    private static Place inFile(CallsAnswer.End end) {
        return new Place(end.repository(), end.branch(), end.path(), 1, 1, fileName(end.path()), null, "", "", false);
    }

    private static String fileName(String path) {
        return path.substring(path.lastIndexOf('/') + 1);
    }

    /** A declaration, or the file itself if the calls stand in none. */
    private Optional<CallHierarchyItem> item(CallsAnswer.End end) {
        if (end.declaration() != null) {
            return callItem(Place.of(end.declaration()));
        }
        Place file = inFile(end);
        return locations.of(file).map(location -> {
            Range top = new Range(new Position(0, 0), new Position(0, 0));
            CallHierarchyItem item = new CallHierarchyItem(file.name(), SymbolKind.File, location.getUri(), top, top);
            item.setDetail(file.detail());
            return item;
        });
    }

    private Optional<Range> range(Place in, CallsAnswer.Site site, String name) {
        Optional<WorkFolder> folder = sources.ofRepository(in.repository());
        OptionalInt line = folder.isPresent() ? folder.get().now(in.path(), site.line()) : OptionalInt.of(site.line());
        return line.isEmpty()
                ? Optional.empty()
                : Optional.of(new Range(
                        new Position(line.getAsInt() - 1, site.column() - 1),
                        new Position(line.getAsInt() - 1, site.column() - 1 + name.length())));
    }

    /** Where the types below a type, or the methods that override a method, are declared. */
    List<Location> implementations(Symbols.Named named) {
        return locations.of(indexed(named)
                .flatMap(place -> symbols.told(place).stream())
                .filter(told -> told.declared() != null)
                .flatMap(told -> (isType(told.declared().kind()) ? told.subtypes() : told.family()).stream())
                .map(Place::of)
                .toList());
    }
}
