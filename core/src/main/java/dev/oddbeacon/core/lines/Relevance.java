package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.snapshot.FileNames;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Traits;
import java.util.ArrayList;
import java.util.List;

/**
 * How likely a file is the one that is meant. Points are few and simple, so that an order can be understood, and told
 * by the index alone, so that files need not be looked at to be put in order:
 * <pre>
 *   60   it declares a type, a function, a macro or the like of this name; 40 a constant, a variable or the like,
 *        25 a field, a key or the like, 15 a prototype, 10 something whose name begins so; a fourth of that for a name
 *        that is only a part of what is searched for. Several words put together are a name, too
 *   40   its name, up to the first full stop, is what was searched for
 *   20   its name holds what was searched for
 *   15   its code uses the name that was searched for
 *   1-8  one point for each doubling of these uses
 *  -15   a test
 *  -25   vendored, generated or minified
 *   -5   documentation
 *  -1    each folder that it stands in
 * </pre>
 *
 * @param declared the number of the {@link Kind} of the weightiest declaration of a name that is searched for, {@link
 * #BEGINS} or {@link #NOTHING}; with {@link #BESIDE_MORE} added if the text holds more than the name
 * @param uses in its code of the name that is searched for
 * @param traits of the file, as {@link Traits#mask} has them
 * @param depth folders that it stands in
 */
public record Relevance(FileNames.Match name, int declared, int uses, int traits, int depth) {
    /** What is declared, if nothing is. */
    static final byte NOTHING = -1;
    /** What is declared, if its name only begins with what is searched for. */
    static final byte BEGINS = -2;

    /** Added to the kind of a declaration of a name that is only a part of what is searched for. */
    static final int BESIDE_MORE = 64;

    private static final int USED = 15;
    private static final int MOST_DOUBLINGS = 8;
    private static final int TEST = 15;
    private static final int FOREIGN = 25;
    private static final int DOCUMENTATION = 5;

    static int declaredPoints(int declared) {
        return switch (declared) {
            case NOTHING -> 0;
            case BEGINS -> 10;
            default ->
                declared >= BESIDE_MORE ? points(Kind.of(declared - BESIDE_MORE)) / 4 : points(Kind.of(declared));
        };
    }

    private static int points(Kind kind) {
        return switch (kind) {
            case CLASS,
                    INTERFACE,
                    TRAIT,
                    STRUCT,
                    UNION,
                    ENUM,
                    RECORD,
                    OBJECT,
                    TYPE,
                    TABLE,
                    FUNCTION,
                    METHOD,
                    CONSTRUCTOR,
                    MACRO,
                    VIEW,
                    TARGET -> 60;
            case NAMESPACE, CONSTANT, VARIABLE, STAGE, INDEX, HEADING -> 40;
            case FIELD, KEY, SELECTOR, ID -> 25;
            case PROTOTYPE -> 15;
            case SUPERTYPE, EXTENSION -> 0;
        };
    }

    private static int points(FileNames.Match name) {
        return switch (name) {
            case IS -> 40;
            case HOLDS -> 20;
            case NONE -> 0;
        };
    }

    private static int usedPoints(int uses) {
        return uses == 0 ? 0 : USED + Math.min(MOST_DOUBLINGS, 32 - Integer.numberOfLeadingZeros(uses));
    }

    public int points() {
        return points(name)
                + declaredPoints(declared)
                + usedPoints(uses)
                - ((traits & Traits.TESTS) != 0 ? TEST : 0)
                - ((traits & Traits.FOREIGN) != 0 ? FOREIGN : 0)
                - ((traits & Traits.DOCUMENTATION) != 0 ? DOCUMENTATION : 0)
                - depth;
    }

    /** In words, what the points are for. */
    public List<String> reasons() {
        List<String> reasons = new ArrayList<>();
        if (declared != NOTHING) {
            String what = switch (declared) {
                case BEGINS -> "it declares what begins so";
                default ->
                    declared >= BESIDE_MORE
                            ? "it declares a part of it, as "
                                    + Kind.of(declared - BESIDE_MORE).label()
                            : "it declares it, as " + Kind.of(declared).label();
            };
            reasons.add(what + " (+" + declaredPoints(declared) + ")");
        }
        switch (name) {
            case IS -> reasons.add("the file is named so (+" + points(name) + ")");
            case HOLDS -> reasons.add("the file's name holds it (+" + points(name) + ")");
            case NONE -> {}
        }
        if (uses > 0) {
            reasons.add("its code uses the name " + (uses == 1 ? "once" : uses + " times") + " (+" + usedPoints(uses)
                    + ")");
        }
        if ((traits & Traits.TESTS) != 0) {
            reasons.add("a test (-" + TEST + ")");
        }
        if ((traits & Traits.FOREIGN) != 0) {
            reasons.add("vendored, generated or minified (-" + FOREIGN + ")");
        }
        if ((traits & Traits.DOCUMENTATION) != 0) {
            reasons.add("documentation (-" + DOCUMENTATION + ")");
        }
        if (depth > 0) {
            reasons.add(depth + (depth == 1 ? " folder deep (-" : " folders deep (-") + depth + ")");
        }
        return reasons;
    }
}
