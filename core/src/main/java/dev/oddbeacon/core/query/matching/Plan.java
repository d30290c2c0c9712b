package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.query.Bounds;
import dev.oddbeacon.core.query.expression.ExpressionSyntax;
import dev.oddbeacon.core.text.CaseFolding;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Collectors;

/**
 * What a line must hold for a search to match on it, as far as the index can tell: folded texts, joined by and, or.
 * Every line that matches satisfies the plan; that a line satisfies it does not mean that it matches.
 */
public sealed interface Plan {
    /** Nothing is known: every line may match. */
    record Anything() implements Plan {}

    /** @param folded not empty, without line feeds */
    record Holds(String folded) implements Plan {}

    /** A word that differs from a folded one by at most so many edits. */
    record Similar(String folded, int edits) implements Plan {
        private static final int SHORT = 5;

        /** Number of edits that still count as similar, for a word of this length. */
        public static int editsFor(int letters) {
            return letters <= SHORT ? 1 : 2;
        }
    }

    /** A number between two bounds; the digits that it begins with begin a word. */
    record Numbered(Bounds bounds) implements Plan {
        /** Whether the words tell nothing: a fraction may stand without the 0 before its point. */
        public boolean mayBeFraction() {
            return meet(BigDecimal.ONE.negate(), BigDecimal.ONE);
        }

        /** Whether a number between the bounds may begin with a word, or end with it. */
        public boolean mayHold(String word) {
            int digits = 0;
            while (digits < word.length()
                    && (word.charAt(digits) == '_' || word.charAt(digits) >= '0' && word.charAt(digits) <= '9')) {
                digits++;
            }
            if (digits == 0 || word.charAt(0) == '_') {
                return false;
            }
            if (digits < word.length() && "exb".indexOf(word.charAt(digits)) >= 0) {
                return true; // an exponent, or another radix
            }
            if (word.contains("__")) {
                return true; // not what separates digits
            }
            BigDecimal whole = new BigDecimal(word.substring(0, digits).replace("_", ""));
            BigDecimal next = whole.add(BigDecimal.ONE);
            return meet(whole, next) || meet(next.negate(), whole.negate());
        }

        private boolean meet(BigDecimal low, BigDecimal high) {
            return bounds.from().map(from -> from.compareTo(high) <= 0).orElse(true)
                    && bounds.to().map(to -> to.compareTo(low) >= 0).orElse(true);
        }
    }

    record AllOf(List<Plan> parts) implements Plan {}

    record AnyOf(List<Plan> parts) implements Plan {}

    @SuppressWarnings("ClassInitializationDeadlock") // nothing else makes one
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
                case Anything _ -> {}
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

    /**
     * Texts of which every matching line holds at least one, chosen so that the shortest is as long as can be.
     * Empty if nothing is known.
     */
    default List<String> alternatives() {
        return switch (this) {
            case Anything _, Similar _, Numbered _ -> List.of();
            case Holds holds -> List.of(holds.folded);
            case AllOf all ->
                all.parts.stream()
                        .map(Plan::alternatives)
                        .max(Comparator.comparingInt(Plan::shortest))
                        .orElse(List.of());
            case AnyOf any -> {
                List<List<String>> parts =
                        any.parts.stream().map(Plan::alternatives).toList();
                yield parts.stream().anyMatch(List::isEmpty)
                        ? List.of()
                        : parts.stream().flatMap(List::stream).distinct().toList();
            }
        };
    }

    private static int shortest(List<String> texts) {
        return texts.stream().mapToInt(String::length).min().orElse(0);
    }

    /** Describes the plan to people who ask why a search took long. */
    default String describe() {
        return switch (this) {
            case Anything _ -> "anything";
            case Holds holds -> ExpressionSyntax.quoted(holds.folded);
            case Similar similar -> "similar to " + ExpressionSyntax.quoted(similar.folded);
            case Numbered _ -> "numbers";
            case AllOf all -> all.parts.stream().map(Plan::describe).collect(Collectors.joining(" and "));
            case AnyOf any -> any.parts.stream().map(Plan::describe).collect(Collectors.joining(" or ", "(", ")"));
        };
    }
}
