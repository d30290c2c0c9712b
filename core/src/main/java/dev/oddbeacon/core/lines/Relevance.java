package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.source.Traits;
import dev.oddbeacon.core.text.CaseFolding;
import dev.oddbeacon.core.text.Split;
import java.util.ArrayList;
import java.util.List;

/**
 * How likely a file is the one that is meant. Points are few and simple, so that an order can be understood:
 * <pre>
 *   40   its name without the ending is what was searched for
 *   20   its name holds what was searched for
 *   30   a match is the name of a declaration
 *   15   a match is a whole word
 *   1-8  hits: one point for each doubling
 *  -15   a test
 *  -25   vendored, generated or minified
 *  -1    each folder beyond the third
 * </pre>
 *
 * @param reasons in words, those that apply
 */
public record Relevance(int points, List<String> reasons) {
    private static final int USUAL_DEPTH = 3;

    /**
     * @param traits of the file, as {@link Traits#mask} has them
     * @param texts what was searched for, folded
     */
    static Relevance of(String path, int traits, List<String> texts, int hits, boolean wholeWord, boolean declares) {
        List<String> reasons = new ArrayList<>();
        int points = 0;
        String[] parts = Split.names(path).toArray(String[]::new);
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
        if (declares) {
            points += 30;
            reasons.add("it declares it (+30)");
        }
        if (wholeWord) {
            points += 15;
            reasons.add("a whole word (+15)");
        }
        int doublings = Math.min(8, 32 - Integer.numberOfLeadingZeros(Math.max(0, hits)));
        points += doublings;
        reasons.add(hits + (hits == 1 ? " hit (+" : " hits (+") + doublings + ")");
        if ((traits & Traits.TESTS) != 0) {
            points -= 15;
            reasons.add("a test (-15)");
        }
        if ((traits & Traits.FOREIGN) != 0) {
            points -= 25;
            reasons.add("vendored, generated or minified (-25)");
        }
        int deep = Math.max(0, parts.length - 1 - USUAL_DEPTH);
        if (deep > 0) {
            points -= deep;
            reasons.add("deep in folders (-" + deep + ")");
        }
        return new Relevance(points, reasons);
    }
}
