package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.Outline;
import dev.oddbeacon.api.RepositoryInfo;
import dev.oddbeacon.client.service.Service;
import dev.oddbeacon.client.service.ServiceProblem;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.eclipse.lsp4j.Location;
import org.eclipse.lsp4j.Position;
import org.eclipse.lsp4j.Range;

/** Where places are for the editor: in a work tree that it has open, or in a copy of a file of another repository. */
final class Locations {
    private static final long LOOK_AGAIN = Duration.ofSeconds(10).toNanos();
    private static final int AT_A_TIME = 8;

    private final Service service;
    private final Sources sources;
    private final Copies copies;

    private record Known(RepositoryInfo repository, long at) {}

    private final Map<String, Known> repositories = new ConcurrentHashMap<>();

    Locations(Service service, Sources sources, Copies copies) {
        this.service = service;
        this.sources = sources;
        this.copies = copies;
    }

    /** Where places are, in their order, without those whose lines went. */
    List<Location> of(List<Place> places) {
        try (ExecutorService threads =
                Executors.newFixedThreadPool(AT_A_TIME, Thread.ofVirtual().factory())) {
            List<Future<Optional<Location>>> found = places.stream()
                    .map(place -> threads.submit(() -> of(place)))
                    .toList();
            List<Location> all = new ArrayList<>();
            for (Future<Optional<Location>> one : found) {
                one.get().ifPresent(all::add);
            }
            return all;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return List.of();
        } catch (ExecutionException e) {
            throw e.getCause() instanceof RuntimeException cause ? cause : new IllegalStateException(e.getCause());
        }
    }

    /** Where a place is; empty if its line went, or the service has its file no more. */
    Optional<Location> of(Place place) {
        Optional<WorkFolder> folder = sources.ofRepository(place.repository());
        if (folder.isPresent()) {
            OptionalInt line =
                    place.isNow() ? OptionalInt.of(place.line()) : folder.get().now(place.path(), place.line());
            return line.isEmpty()
                    ? Optional.empty()
                    : Optional.of(new Location(
                            folder.get().file(place.path()).toUri().toString(), range(place, line.getAsInt())));
        }
        return file(place).map(file -> new Location(file.toUri().toString(), range(place, place.line())));
    }

    private Optional<Path> file(Place place) {
        return commit(place).flatMap(commit -> copies.of(place.repository(), place.branch(), place.path(), commit));
    }

    private Optional<String> commit(Place place) {
        Known known = repositories.get(place.repository());
        if (known == null || System.nanoTime() - known.at > LOOK_AGAIN) {
            try {
                known = new Known(
                        service.get(
                                Service.path("repositories", place.repository()),
                                new Service.Parameters(),
                                RepositoryInfo.class),
                        System.nanoTime());
            } catch (ServiceProblem e) {
                return Optional.empty();
            }
            repositories.put(place.repository(), known);
        }
        return known.repository.branches().stream()
                .filter(branch -> place.branch().isEmpty() || branch.name().equals(place.branch()))
                .findFirst()
                .map(RepositoryInfo.Branch::commit);
    }

    /** The name of a place, on a line. */
    static Range range(Place place, int line) {
        return new Range(
                new Position(line - 1, place.column() - 1),
                new Position(line - 1, place.column() - 1 + place.name().length()));
    }

    /** The address of a line in the console. */
    String inConsole(Source source, int line) {
        return page(
                "file",
                new Service.Parameters()
                        .add("in", source.repository())
                        .add("path", source.path())
                        .addGiven("rev", source.branch())
                        .add("line", line));
    }

    /** The address of a commit in the console. */
    String commitInConsole(String repository, String commit) {
        return page("commit", new Service.Parameters().add("in", repository).add("id", commit));
    }

    /** The address of the uses of a declaration in the console; on a branch, of its name. */
    String usesInConsole(Source source, Outline.Symbol symbol) {
        return page(
                "symbols",
                new Service.Parameters()
                        .add("q", symbol.name())
                        .add("reading", "plain")
                        .add("role", "use")
                        .addGiven(
                                "of",
                                symbol.usesMeant() == null || !source.branch().isEmpty()
                                        ? ""
                                        : source.repository() + "/" + source.path() + ":" + symbol.line() + ":"
                                                + symbol.column()));
    }

    /** Whether an address is one of the console's. */
    boolean isInConsole(String address) {
        return address.startsWith(service.console());
    }

    private String page(String name, Service.Parameters parameters) {
        return service.console() + name + parameters;
    }
}
