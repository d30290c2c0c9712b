package dev.oddbeacon.core.files;

import dev.oddbeacon.core.snapshot.SnapshotReader;
import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.text.Split;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * From code to its test and back, by the names that the ecosystems give them: BerthTest.java and Berth.java,
 * test_gauge.py and gauge.py, gate_test.go and gate.go, sign_spec.rb and sign.rb, fares.test.ts and fares.ts.
 */
public final class Counterparts {
    private static final List<String> ENDINGS = List.of(
            "Test",
            "Tests",
            "IT",
            "Spec",
            "TestCase",
            "_test",
            "_tests",
            "_spec",
            ".test",
            ".spec",
            "-test",
            ".cy",
            "-spec");
    private static final List<String> STARTS = List.of("test_", "tests_", "Test", "test-", "spec_");
    private static final int MOST_CANDIDATES = 5;

    private Counterparts() {}

    /**
     * @param isTest whether the file itself is a test
     * @param byConvention the files that are named for it, the nearest first
     * @param candidates where there is none by convention, the likeliest: those that share the most words of its name
     */
    public record Found(boolean isTest, List<String> byConvention, List<String> candidates) {}

    /** The counterparts of a file of a snapshot. */
    public static Found of(SnapshotReader snapshot, String path) {
        String own = stem(path);
        boolean isTest =
                !tested(own).isEmpty() && (isTestFolder(path) || !tested(own).contains(own));
        Set<String> sought = isTest ? tested(own) : Set.of(own);
        List<String> found = new ArrayList<>();
        List<String> others = new ArrayList<>();
        for (int file = 0; file < snapshot.count(); file++) {
            String other = snapshot.path(file);
            if (other.equals(path)) {
                continue;
            }
            String stem = stem(other);
            boolean fits = isTest
                    ? sought.contains(stem) && isCode(other, path)
                    : tested(stem).contains(own) && isCode(other, path);
            boolean otherIsTest = (snapshot.traits(file) & Traits.TESTS) != 0;
            if (fits) {
                found.add(other);
            } else if (otherIsTest != isTest && isCode(other, path) && sharedWords(own, stem) > 0) {
                others.add(other);
            }
        }
        Comparator<String> near = Comparator.comparingInt((String other) -> -sharedFolders(path, other))
                .thenComparing(Comparator.naturalOrder());
        found.sort(near);
        others.sort(Comparator.comparingInt((String other) -> -sharedWords(own, stem(other)))
                .thenComparing(near));
        return new Found(
                isTest,
                found,
                found.isEmpty() ? List.copyOf(others.subList(0, Math.min(MOST_CANDIDATES, others.size()))) : List.of());
    }

    /** Names of files that a file of this name may test; empty if its name is none of a test. */
    private static Set<String> tested(String stem) {
        Set<String> names = new LinkedHashSet<>();
        for (String ending : ENDINGS) {
            if (stem.endsWith(ending) && stem.length() > ending.length()) {
                names.add(stem.substring(0, stem.length() - ending.length()));
            }
        }
        for (String start : STARTS) {
            boolean isWord = start.endsWith("_")
                    || start.endsWith("-")
                    || stem.length() > start.length() && Character.isUpperCase(stem.charAt(start.length()));
            if (stem.startsWith(start) && stem.length() > start.length() && isWord) {
                names.add(stem.substring(start.length()));
            }
        }
        return names;
    }

    private static boolean isTestFolder(String path) {
        String lower = "/" + path.toLowerCase(Locale.ROOT);
        return lower.contains("/test") || lower.contains("/spec") || lower.contains("__tests__");
    }

    private static String stem(String path) {
        String name = path.substring(path.lastIndexOf('/') + 1);
        int dot = name.lastIndexOf('.');
        return dot <= 0 ? name : name.substring(0, dot);
    }

    private static String ending(String path) {
        return path.substring(path.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
    }

    /** Whether two files may be code and test of each other: of one ending, or of endings that go together. */
    private static boolean isCode(String a, String b) {
        return family(ending(a)).equals(family(ending(b)));
    }

    private static String family(String ending) {
        return switch (ending) {
            case "js", "jsx", "ts", "tsx", "mjs", "cjs", "vue", "svelte" -> "script";
            case "c", "h" -> "c";
            case "cc", "cpp", "cxx", "hh", "hpp" -> "cpp";
            case "java", "kt", "scala", "groovy" -> "jvm";
            default -> ending;
        };
    }

    private static Set<String> words(String stem) {
        Set<String> words = new LinkedHashSet<>();
        int start = 0;
        for (int i = 1; i <= stem.length(); i++) {
            boolean isEdge = i == stem.length()
                    || !isLetterOrDigit(stem.charAt(i))
                    || !isLetterOrDigit(stem.charAt(i - 1))
                    || isCapital(stem.charAt(i)) && !isCapital(stem.charAt(i - 1));
            if (!isEdge) {
                continue;
            }
            String word = stem.substring(start, i);
            start = i;
            String lower = word.toLowerCase(Locale.ROOT);
            if (lower.length() > 2 && !lower.startsWith("test") && !lower.equals("spec")) {
                words.add(lower);
            }
        }
        return words;
    }

    private static boolean isCapital(char c) {
        return c >= 'A' && c <= 'Z';
    }

    private static boolean isLetterOrDigit(char c) {
        return isCapital(c) || c >= 'a' && c <= 'z' || c >= '0' && c <= '9';
    }

    private static int sharedWords(String a, String b) {
        Set<String> shared = words(a);
        shared.retainAll(words(b));
        return shared.size();
    }

    private static int sharedFolders(String a, String b) {
        Set<String> folders = new LinkedHashSet<>(Split.names(a));
        folders.retainAll(Split.names(b));
        return folders.size();
    }
}
