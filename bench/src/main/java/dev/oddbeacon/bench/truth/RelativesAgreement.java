package dev.oddbeacon.bench.truth;

import dev.oddbeacon.bench.truth.CompilerUses.Place;
import dev.oddbeacon.bench.truth.CompilerUses.Relating;
import dev.oddbeacon.core.meaning.Spot;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.Navigation;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;

/** Holds what we say of relatives (what a type extends, what extends it, what a method overrides) against a compiler. */
final class RelativesAgreement {
    /** What was said, what is so, and what of it was said. */
    static final class Counts {
        int asked;
        int said;
        int so;
        int right;

        double precision() {
            return said == 0 ? 1 : right / (double) said;
        }

        double recall() {
            return so == 0 ? 1 : right / (double) so;
        }
    }

    private final Map<String, Counts> byQuestion = new LinkedHashMap<>();
    private final List<String> examples = new ArrayList<>();

    Map<String, Counts> byQuestion() {
        return byQuestion;
    }

    List<String> examples() {
        return examples;
    }

    /**
     * Draws types and methods that have relatives.
     *
     * @param most of each
     */
    void add(Path folder, CompilerUses told, int most, long seed, Path scratch) throws IOException {
        View view = UsesAgreement.view(folder, scratch);
        Map<Place, Set<Place>> above = relations(told, Relating.EXTENDS, false);
        Map<Place, Set<Place>> below = relations(told, Relating.EXTENDS, true);
        Map<Place, Set<Place>> overridden = relations(told, Relating.OVERRIDES, false);
        Map<Place, Set<Place>> overriding = relations(told, Relating.OVERRIDES, true);
        for (Place type : drawn(Set.of(above.keySet(), below.keySet()), most, seed)) {
            at(view, type).ifPresent(found -> {
                compare("extends", type, places(view, found.supertypes()), above.getOrDefault(type, Set.of()));
                compare("is extended by", type, places(view, found.subtypes()), below.getOrDefault(type, Set.of()));
            });
        }
        for (Place method : drawn(Set.of(overridden.keySet(), overriding.keySet()), most, seed)) {
            at(view, method).ifPresent(found -> {
                Spot spot = found.meant().getFirst();
                Set<Place> said = new Navigation(view, 0, spot.file())
                        .overridden(spot).stream()
                                .map(one -> UsesAgreement.place(
                                        view,
                                        one.segment(),
                                        one.blob(),
                                        one.file(),
                                        one.declared().nameStart()))
                                .collect(Collectors.toSet());
                compare("overrides", method, said, overridden.getOrDefault(method, Set.of()));
                compare("family", method, places(view, found.family()), family(method, overridden, overriding));
            });
        }
        view.release();
    }

    private static Map<Place, Set<Place>> relations(CompilerUses told, Relating how, boolean isTurned) {
        Map<Place, Set<Place>> found = new HashMap<>();
        for (CompilerUses.Relation one : told.relations()) {
            if (one.how() == how) {
                found.computeIfAbsent(isTurned ? one.to() : one.from(), _ -> new HashSet<>())
                        .add(isTurned ? one.from() : one.to());
            }
        }
        return found;
    }

    private static List<Place> drawn(Set<Set<Place>> from, int most, long seed) {
        List<Place> all = new ArrayList<>(
                from.stream().flatMap(Set::stream).distinct().sorted().toList());
        Collections.shuffle(all, new Random(seed));
        return all.subList(0, Math.min(most, all.size()));
    }

    /** All that are bound by overriding, in whatever direction. */
    private static Set<Place> family(
            Place method, Map<Place, Set<Place>> overridden, Map<Place, Set<Place>> overriding) {
        Set<Place> found = new HashSet<>();
        List<Place> open = new ArrayList<>(List.of(method));
        while (!open.isEmpty()) {
            Place one = open.removeLast();
            if (found.add(one)) {
                open.addAll(overridden.getOrDefault(one, Set.of()));
                open.addAll(overriding.getOrDefault(one, Set.of()));
            }
        }
        found.remove(method);
        return found;
    }

    private static Optional<Navigation.At> at(View view, Place place) {
        OptionalInt file = view.snapshot(0).find(place.path());
        return file.isEmpty()
                ? Optional.empty()
                : new Navigation(view, 0, file.getAsInt()).at(place.line(), place.column());
    }

    private static Set<Place> places(View view, List<Navigation.Target> targets) {
        return targets.stream()
                .map(one -> new Place(view.snapshot(0).path(one.file()), one.line(), one.column()))
                .collect(Collectors.toSet());
    }

    private void compare(String question, Place of, Set<Place> said, Set<Place> so) {
        Counts counts = byQuestion.computeIfAbsent(question, _ -> new Counts());
        counts.asked++;
        counts.said += said.size();
        counts.so += so.size();
        for (Place one : said) {
            if (so.contains(one)) {
                counts.right++;
            } else {
                examples.add("WRONG  " + of + " " + question + " " + one);
            }
        }
        so.stream()
                .filter(one -> !said.contains(one))
                .forEach(one -> examples.add("MISSED " + of + " " + question + " " + one));
    }
}
