package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.regex.Regex;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/**
 * Which texts every match of a regular expression holds.
 *
 * <p>For each part of the expression either the few texts that it can be ({@code exact}), or what it must hold
 * somewhere ({@code needs}). Neighbours that are exact multiply: {@code ab[cd]} is exactly abc or abd. Where a
 * neighbour is not exact, or they become too many, they turn into needs: {@code ab[cd].*ef} needs (abc or abd) and ef.
 * The idea of deriving index n-grams from a regular expression is Russ Cox's, "Regular Expression Matching with a
 * Trigram Index" (2012); this is a shorter form of it, on texts in place of n-grams.
 */
final class RegexPlan {
    private static final int MOST_TEXTS = 64;
    /** x{3} is looked at as xxx, up to so many. */
    private static final int MOST_COPIES = 8;
    /** Most letters of a class that is taken apart; each may have up to three forms. */
    private static final int SMALL_CLASS = 16;

    private RegexPlan() {}

    /** @param exact all texts that the part can be, folded; empty if they are many, and then needs tells more */
    private record Part(Set<String> exact, Plan needs) {
        static final Part UNKNOWN = new Part(Set.of(), Plan.ANYTHING);
        static final Part NOTHING = new Part(Set.of(""), Plan.ANYTHING);

        boolean isExact() {
            return !exact.isEmpty();
        }

        Plan plan() {
            return isExact() ? Plan.anyOf(exact.stream().map(Plan::holds).toList()) : needs;
        }
    }

    static Plan of(Regex regex) {
        return part(regex).plan();
    }

    private static Part part(Regex regex) {
        return switch (regex) {
            case Regex.Chars chars -> chars(chars);
            case Regex.Edge _ -> Part.NOTHING;
            case Regex.Concat concat -> concat(concat.parts());
            case Regex.Alternate alternate -> alternate(alternate.parts());
            case Regex.Repeat repeat -> repeat(repeat);
        };
    }

    private static Part chars(Regex.Chars chars) {
        int[] members = chars.few(3 * SMALL_CLASS);
        Set<String> texts = new LinkedHashSet<>();
        for (int member : members) {
            texts.add(Character.toString(CaseFolding.fold(member)));
        }
        return texts.isEmpty() || texts.size() > SMALL_CLASS ? Part.UNKNOWN : new Part(texts, Plan.ANYTHING);
    }

    private static Part concat(List<Regex> parts) {
        List<Plan> needs = new ArrayList<>();
        Part run = Part.NOTHING;
        boolean exact = true;
        for (Regex regex : writtenOut(parts)) {
            Part next = part(regex);
            Part repeated = repeated(regex);
            if (multiplies(run, next)) {
                run = product(run, next);
            } else if (multiplies(run, repeated)) {
                // zq+x is zq, then perhaps more of q, the last of which stands before x
                exact = false;
                needs.add(product(run, repeated).plan());
                run = repeated;
            } else {
                exact = false;
                needs.add(run.plan());
                needs.add(next.isExact() ? Plan.ANYTHING : next.needs);
                run = next.isExact() ? next : repeated.isExact() ? repeated : Part.NOTHING;
            }
        }
        if (exact) {
            return run;
        }
        needs.add(run.plan());
        return new Part(Set.of(), Plan.allOf(needs));
    }

    /**
     * Counted repetitions as copies: in [0-9]{4}px it is the last digit that stands before p. x{3,9} is looked at as
     * xxx*x.
     */
    private static List<Regex> writtenOut(List<Regex> parts) {
        List<Regex> result = new ArrayList<>();
        for (Regex part : parts) {
            if (!(part instanceof Regex.Repeat repeat) || repeat.min() < 2) {
                result.add(part);
            } else if (repeat.min() == repeat.max() && repeat.min() <= MOST_COPIES) {
                result.addAll(Collections.nCopies(repeat.min(), repeat.part()));
            } else {
                result.addAll(Collections.nCopies(repeat.min() > 2 ? 2 : 1, repeat.part()));
                result.add(new Regex.Repeat(repeat.part(), 0, -1, true));
                result.add(repeat.part());
            }
        }
        return result;
    }

    /** The repeated part, if it must occur at least once; unknown for anything else. */
    private static Part repeated(Regex regex) {
        return regex instanceof Regex.Repeat repeat && repeat.min() > 0 ? part(repeat.part()) : Part.UNKNOWN;
    }

    private static boolean multiplies(Part run, Part next) {
        return next.isExact() && run.exact.size() * next.exact.size() <= MOST_TEXTS;
    }

    private static Part product(Part left, Part right) {
        Set<String> texts = new LinkedHashSet<>();
        left.exact.forEach(a -> right.exact.forEach(b -> texts.add(a + b)));
        return new Part(texts, Plan.ANYTHING);
    }

    private static Part alternate(List<Regex> parts) {
        List<Part> alternatives = parts.stream().map(RegexPlan::part).toList();
        Set<String> texts = new LinkedHashSet<>();
        alternatives.forEach(part -> texts.addAll(part.exact));
        if (alternatives.stream().allMatch(Part::isExact) && texts.size() <= MOST_TEXTS) {
            return new Part(texts, Plan.ANYTHING);
        }
        return new Part(
                Set.of(), Plan.anyOf(alternatives.stream().map(Part::plan).toList()));
    }

    private static Part repeat(Regex.Repeat repeat) {
        if (repeat.max() == 0) {
            return Part.NOTHING;
        }
        Part part = part(repeat.part());
        if (repeat.min() == 0) {
            if (repeat.max() == 1 && part.isExact() && part.exact.size() < MOST_TEXTS) {
                Set<String> texts = new LinkedHashSet<>(part.exact);
                texts.add("");
                return new Part(texts, Plan.ANYTHING);
            }
            return Part.UNKNOWN;
        }
        if (repeat.min() == 1 && repeat.max() == 1) {
            return part;
        }
        return repeat.min() == 1 ? new Part(Set.of(), part.plan()) : concat(List.of(repeat));
    }
}
