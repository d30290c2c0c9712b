package dev.oddbeacon.server.results;

import dev.oddbeacon.api.Result;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;

/**
 * What became of results between two times. A line is the same one wherever it stands in its file; else where it stands in
 * another file of its branch; else where most words of it stand on in its file, so that an edited line is neither gone nor
 * new.
 *
 * @param came in their order now
 * @param went in their order before
 * @param stayed what each is now by what it was
 */
public record Changes(List<Result> came, List<Result> went, Map<Result, Result> stayed) {
    private static final double ALIKE = 0.6; // of the words of both
    private static final int MOST_PAIRS = 100_000; // of one file

    /** What two results have in common that are the same one. */
    private record Key(List<String> parts) {
        static Key of(String... parts) {
            List<String> list = new ArrayList<>();
            for (String part : parts) {
                list.add(Objects.requireNonNullElse(part, ""));
            }
            return new Key(list);
        }
    }

    public static Changes between(List<Result> before, List<Result> now) {
        Map<Result, Result> stayed = new LinkedHashMap<>();
        Set<Result> went = new java.util.LinkedHashSet<>(before);
        Set<Result> came = new java.util.LinkedHashSet<>(now);
        pair(went, came, stayed, Changes::inItsFile);
        pair(went, came, stayed, Changes::inItsBranch);
        pairEdited(went, came, stayed);
        return new Changes(List.copyOf(came), List.copyOf(went), stayed);
    }

    private static Key inItsFile(Result result) {
        return result.path() == null
                ? Key.of(result.repository(), result.commit())
                : Key.of(
                        result.repository(),
                        result.branch(),
                        result.path(),
                        result.name(),
                        Objects.requireNonNullElse(result.text(), "").strip());
    }

    /** Null for what has nothing but its path. */
    private static Key inItsBranch(Result result) {
        return result.path() == null || result.text() == null
                ? null
                : Key.of(
                        result.repository(),
                        result.branch(),
                        result.name(),
                        result.text().strip());
    }

    private static void pair(
            Set<Result> went, Set<Result> came, Map<Result, Result> stayed, Function<Result, Key> key) {
        Map<Key, Deque<Result>> open = new HashMap<>();
        for (Result result : went) {
            Key of = key.apply(result);
            if (of != null) {
                open.computeIfAbsent(of, _ -> new ArrayDeque<>()).add(result);
            }
        }
        for (Result result : List.copyOf(came)) {
            Deque<Result> same = open.get(key.apply(result));
            if (same != null && !same.isEmpty()) {
                Result earlier = same.poll();
                stayed.put(earlier, result);
                went.remove(earlier);
                came.remove(result);
            }
        }
    }

    private static void pairEdited(Set<Result> went, Set<Result> came, Map<Result, Result> stayed) {
        Map<Key, List<Result>> open = byFile(went);
        byFile(came).forEach((file, candidates) -> {
            List<Result> earlier = new ArrayList<>(open.getOrDefault(file, List.of()));
            if ((long) earlier.size() * candidates.size() > MOST_PAIRS) {
                return;
            }
            for (Result result : candidates) {
                Result nearest = null;
                double most = ALIKE;
                for (Result other : earlier) {
                    double alike = alike(words(other.text()), words(result.text()));
                    if (alike >= most) {
                        most = alike;
                        nearest = other;
                    }
                }
                if (nearest != null) {
                    earlier.remove(nearest);
                    stayed.put(nearest, result);
                    went.remove(nearest);
                    came.remove(result);
                }
            }
        });
    }

    private static Map<Key, List<Result>> byFile(Set<Result> results) {
        Map<Key, List<Result>> byFile = new LinkedHashMap<>();
        for (Result result : results) {
            if (result.path() != null && result.text() != null) {
                Key file = Key.of(result.repository(), result.branch(), result.path(), result.name());
                byFile.computeIfAbsent(file, _ -> new ArrayList<>()).add(result);
            }
        }
        return byFile;
    }

    private static double alike(Set<String> one, Set<String> other) {
        if (one.isEmpty() || other.isEmpty()) {
            return 0;
        }
        Set<String> both = new HashSet<>(one);
        both.retainAll(other);
        return 2.0 * both.size() / (one.size() + other.size());
    }

    /** The runs of letters and digits of a text. */
    private static Set<String> words(String text) {
        Set<String> words = new HashSet<>();
        int start = -1;
        for (int i = 0; i <= text.length(); i++) {
            boolean inWord = i < text.length() && Character.isLetterOrDigit(text.charAt(i));
            if (inWord && start < 0) {
                start = i;
            } else if (!inWord && start >= 0) {
                words.add(text.substring(start, i));
                start = -1;
            }
        }
        return words;
    }
}
