package dev.oddbeacon.core.search;

import dev.oddbeacon.core.text.CaseFolding;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * How likely a file is the one that is meant. Points are few and simple, so that an order can be understood:
 * <pre>
 *   40   its name without the ending is what was searched for
 *   20   its name holds what was searched for
 *   15   a match is a whole word
 *   1-8  hits: one point for each doubling
 *  -15   a test, by its path
 *  -25   vendored or generated, by its path
 *  -1    each folder beyond the third
 * </pre>
 *
 * @param reasons in words, those that apply
 */
public record Relevance(int points, List<String> reasons) {
    private static final Set<String> TESTS = Set.of("test", "tests", "testing", "spec", "specs", "__tests__", "fixtures", "testdata");
    private static final Set<String> FOREIGN = Set.of("vendor", "vendored", "third_party", "third-party", "node_modules", "generated", "dist", "build", "target", "out");
    private static final int USUAL_DEPTH = 3;

    /** @param texts what was searched for, folded */
    static Relevance of(String path, List<String> texts, int hits, boolean wholeWord) {
        List<String> reasons = new ArrayList<>();
        int points = 0;
        String[] parts = path.split("/");
        int[] foldedName = CaseFolding.fold(parts[parts.length - 1]);
        String name = new String(foldedName, 0, foldedName.length);
        String stem = name.contains(".") ? name.substring(0, name.indexOf('.')) : name;
        if (texts.contains(stem)) {
            points += 40;
            reasons.add("the file is named so (+40)");
        } else if (texts.stream().anyMatch(name::contains)) {
            points += 20;
            reasons.add("the file's name holds it (+20)");
        }
        if (wholeWord) {
            points += 15;
            reasons.add("a whole word (+15)");
        }
        int doublings = Math.min(8, 32 - Integer.numberOfLeadingZeros(Math.max(0, hits)));
        points += doublings;
        reasons.add(hits + (hits == 1 ? " hit (+" : " hits (+") + doublings + ")");
        boolean isTest = false;
        boolean isForeign = false;
        for (int i = 0; i < parts.length - 1; i++) {
            isTest |= TESTS.contains(parts[i].toLowerCase(Locale.ROOT));
            isForeign |= FOREIGN.contains(parts[i].toLowerCase(Locale.ROOT));
        }
        isTest |= stem.endsWith("test") || stem.startsWith("test_") || stem.endsWith("_test") || name.contains(".test.") || name.contains(".spec.") || stem.endsWith("_spec");
        isForeign |= name.contains(".min.") || stem.endsWith("_pb2") || name.contains(".generated.");
        if (isTest) {
            points -= 15;
            reasons.add("a test (-15)");
        }
        if (isForeign) {
            points -= 25;
            reasons.add("vendored or generated (-25)");
        }
        int deep = Math.max(0, parts.length - 1 - USUAL_DEPTH);
        if (deep > 0) {
            points -= deep;
            reasons.add("deep in folders (-" + deep + ")");
        }
        return new Relevance(points, reasons);
    }
}
