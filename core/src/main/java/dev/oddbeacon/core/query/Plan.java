package dev.oddbeacon.core.query;

import dev.oddbeacon.core.text.CaseFolding;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What a line must hold for a search to match on it, as far as the index can tell: folded texts, joined by and, or.
 * Every line that matches satisfies the plan; that a line satisfies it does not mean that it matches.
 */
public sealed interface Plan {
    /** Nothing is known: every line may match. */
    record Anything() implements Plan {}

    /** @param folded not empty, without line feeds */
    record Holds(String folded) implements Plan {}

    record AllOf(List<Plan> parts) implements Plan {}

    record AnyOf(List<Plan> parts) implements Plan {}

    Plan ANYTHING = new Anything();

    /** A line must hold a text, in any case. */
    static Plan holds(String text) {
        int[] folded = CaseFolding.fold(text);
        return folded.length == 0 ? ANYTHING : new Holds(new String(folded, 0, folded.length));
    }

    static Plan allOf(List<Plan> parts) {
        List<Plan> useful = new ArrayList<>();
        for (Plan part : parts) {
            switch (part) {
                case Anything _ -> { }
                case AllOf all -> useful.addAll(all.parts);
                default -> useful.add(part);
            }
        }
        return useful.isEmpty() ? ANYTHING : useful.size() == 1 ? useful.getFirst() : new AllOf(List.copyOf(useful));
    }

    static Plan anyOf(List<Plan> parts) {
        List<Plan> distinct = parts.stream().distinct().toList();
        if (distinct.isEmpty() || distinct.contains(ANYTHING)) {
            return ANYTHING;
        }
        return distinct.size() == 1 ? distinct.getFirst() : new AnyOf(distinct);
    }

    /** The longest text that every matching line holds. */
    default Optional<String> longestRequired() {
        return switch (this) {
            case Holds holds -> Optional.of(holds.folded);
            case AllOf all -> all.parts.stream().filter(Holds.class::isInstance).map(part -> ((Holds) part).folded)
                    .max(java.util.Comparator.comparingInt(String::length));
            default -> Optional.empty();
        };
    }
}
