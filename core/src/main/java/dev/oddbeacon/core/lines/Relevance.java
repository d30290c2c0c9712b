package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.snapshot.FileNames;
import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.Traits;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * How likely a file is the one that is meant. Points are few and simple, so that an order can be understood, and told
 * by the index alone, so that files need not be looked at to be put in order:
 * <pre>
 *   60   it declares a type, a function, a macro or the like of this name; 40 a constant, a variable or the like,
 *        25 a field, a key or the like, 15 a prototype, 10 something whose name begins so
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
 * @param declared the kind of the weightiest declaration of a name that is searched for
 * @param begins whether the name of a declaration begins with the one that is searched for
 * @param uses in its code of the name that is searched for
 * @param traits of the file, as {@link Traits#mask} has them
 * @param depth folders that it stands in
 */
public record Relevance(
        FileNames.Match name, Optional<Kind> declared, boolean begins, int uses, int traits, int depth) {
    private static final int BEGINS = 10;
    private static final int USED = 15;
    private static final int MOST_DOUBLINGS = 8;
    private static final int TEST = 15;
    private static final int FOREIGN = 25;
    private static final int DOCUMENTATION = 5;

    /** What the declaration of a name is worth. */
    static int weight(Kind kind) {
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

    public int points() {
        return nameWeight()
                + declaredWeight()
                + (uses > 0 ? USED + doublings() : 0)
                - (isTest() ? TEST : 0)
                - (isForeign() ? FOREIGN : 0)
                - (isDocumentation() ? DOCUMENTATION : 0)
                - depth;
    }

    /** In words, what the points are for. */
    public List<String> reasons() {
        List<String> reasons = new ArrayList<>();
        switch (name) {
            case IS -> reasons.add("the file is named so (+" + nameWeight() + ")");
            case HOLDS -> reasons.add("the file's name holds it (+" + nameWeight() + ")");
            case NONE -> {}
        }
        if (declared.isPresent()) {
            reasons.add("it declares it, as " + declared.get().label() + " (+" + declaredWeight() + ")");
        } else if (begins) {
            reasons.add("it declares what begins so (+" + BEGINS + ")");
        }
        if (uses > 0) {
            reasons.add("its code uses the name " + (uses == 1 ? "once" : uses + " times") + " (+"
                    + (USED + doublings()) + ")");
        }
        if (isTest()) {
            reasons.add("a test (-" + TEST + ")");
        }
        if (isForeign()) {
            reasons.add("vendored, generated or minified (-" + FOREIGN + ")");
        }
        if (isDocumentation()) {
            reasons.add("documentation (-" + DOCUMENTATION + ")");
        }
        if (depth > 0) {
            reasons.add(depth + (depth == 1 ? " folder deep (-" : " folders deep (-") + depth + ")");
        }
        return reasons;
    }

    private int nameWeight() {
        return switch (name) {
            case IS -> 40;
            case HOLDS -> 20;
            case NONE -> 0;
        };
    }

    private int declaredWeight() {
        return declared.map(Relevance::weight).orElse(begins ? BEGINS : 0);
    }

    private int doublings() {
        return Math.min(MOST_DOUBLINGS, 32 - Integer.numberOfLeadingZeros(uses));
    }

    private boolean isTest() {
        return (traits & Traits.TESTS) != 0;
    }

    private boolean isForeign() {
        return (traits & Traits.FOREIGN) != 0;
    }

    private boolean isDocumentation() {
        return (traits & Traits.DOCUMENTATION) != 0;
    }
}
