package dev.oddbeacon.server.index;

import dev.oddbeacon.core.query.Glob;
import dev.oddbeacon.git.Mirror;
import java.io.IOException;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * The branches and tags to index: those that are wanted by name, and those that a pattern matches.
 *
 * @param targets each once
 * @param problems why some that are wanted are not among them, in words
 */
record Targets(List<Target> targets, List<String> problems) {
    private static final int MOST = 200;
    private static final int MOST_SHOWN = 10;

    /**
     * A branch or tag to index.
     *
     * @param name without what says whether it is a branch or a tag
     * @param ref its full name
     * @param isDefault whether it is searched when none is named
     */
    record Target(String name, String ref, boolean isDefault) {}

    /** Tells when the commit of a branch or tag was made, by its full name; empty if it names no commit. */
    @FunctionalInterface
    interface Dates {
        Optional<Instant> committed(String ref) throws IOException;
    }

    /**
     * What stands for branches and tags: a name; or a pattern, for all that it matches, or the newest of them.
     *
     * @param globs over full names
     * @param newest so many, those with the newest commits; all if it is empty
     */
    record Pattern(List<Glob> globs, Optional<Integer> newest) {
        /** A text that is a name, or {@code release/*}, {@code tags/v*}, {@code tags/*:5}. @return empty for a name */
        static Optional<Pattern> of(String wanted) {
            int colon = wanted.lastIndexOf(':'); // which no name can have
            if (colon < 0 && wanted.indexOf('*') < 0 && wanted.indexOf('?') < 0) {
                return Optional.empty();
            }
            String names = colon < 0 ? wanted : wanted.substring(0, colon);
            boolean hasKind = names.startsWith("tags/") || names.startsWith("heads/");
            return Optional.of(new Pattern(
                    (hasKind ? List.of("refs/" + names) : List.of("refs/heads/" + names, "refs/tags/" + names))
                            .stream().map(Glob::ofName).toList(),
                    colon < 0 ? Optional.empty() : Optional.of(number(wanted, colon))));
        }

        private static int number(String wanted, int colon) {
            try {
                int number = Integer.parseInt(wanted.substring(colon + 1));
                if (number > 0 && number <= MOST) {
                    return number;
                }
            } catch (NumberFormatException e) {
                // as one that is too large
            }
            throw new IllegalArgumentException("What stands behind : in \"" + wanted
                    + "\" must say how many of the newest are wanted, a number from 1 to " + MOST + ".");
        }
    }

    /** @param wanted names and patterns; none for the branch that HEAD stands for */
    static Targets of(List<String> wanted, Mirror.Refs refs, Dates dates) throws IOException {
        List<String> problems = new ArrayList<>();
        Map<String, String> found = new TreeMap<>(); // full names by short ones, those that are named first
        List<String> order = new ArrayList<>();
        Optional<String> named = Optional.empty();
        for (String text : wanted.isEmpty() ? refs.head().stream().toList() : wanted) {
            Optional<Pattern> pattern = Pattern.of(text);
            List<String> matching = pattern.isPresent()
                    ? matching(pattern.get(), refs, dates)
                    : refs.find(text).stream().toList();
            if (matching.isEmpty()) {
                problems.add(missing(text, pattern.isPresent(), refs));
            } else if (pattern.isEmpty() && named.isEmpty()) {
                named = Optional.of(text);
            }
            for (String ref : matching) {
                String name = Mirror.Refs.shortName(ref);
                if (found.putIfAbsent(name, ref) == null) {
                    order.add(name);
                }
            }
        }
        if (order.size() > MOST) {
            problems.add("Its patterns match " + order.size() + " branches and tags; the first " + MOST
                    + " are indexed. Say :NUMBER behind a pattern for the newest of them.");
            order = order.subList(0, MOST);
        }
        String byDefault = named.or(() -> refs.head().filter(found::containsKey))
                .or(() -> found.keySet().stream().findFirst())
                .orElse("");
        List<Target> targets = order.stream()
                .map(name -> new Target(name, found.get(name), name.equals(byDefault)))
                .toList();
        return new Targets(targets, problems);
    }

    private static List<String> matching(Pattern pattern, Mirror.Refs refs, Dates dates) throws IOException {
        List<String> matching = new ArrayList<>();
        Map<String, Instant> committed = new TreeMap<>();
        for (String ref : refs.refs().keySet()) {
            if (pattern.globs.stream().anyMatch(glob -> glob.matches(ref))) {
                Optional<Instant> when = pattern.newest.isPresent() ? dates.committed(ref) : Optional.of(Instant.EPOCH);
                when.ifPresent(instant -> {
                    matching.add(ref);
                    committed.put(ref, instant);
                });
            }
        }
        return matching.stream()
                .sorted(Comparator.comparing((String ref) -> committed.get(ref)).reversed())
                .limit(pattern.newest.orElse(Integer.MAX_VALUE))
                .toList();
    }

    private static String missing(String text, boolean isPattern, Mirror.Refs refs) {
        Set<String> names = new HashSet<>();
        refs.refs().keySet().forEach(full -> names.add(Mirror.Refs.shortName(full)));
        return (isPattern ? "None of its branches and tags is like " : "It has no branch or tag ")
                + text
                + (names.isEmpty()
                        ? "."
                        : "; it has "
                                + names.stream().sorted().limit(MOST_SHOWN).toList() + ".");
    }

    List<String> names() {
        return targets.stream().map(Target::name).toList();
    }
}
