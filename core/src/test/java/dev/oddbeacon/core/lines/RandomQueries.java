package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.Bounds;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.shape.Shape;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.text.Filled;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Random;
import java.util.Set;

/** Makes up queries of all kinds, about texts of given pieces. */
final class RandomQueries {
    private static final String[] REGEXES = {
        "^",
        "$",
        "^$",
        "berth|tide",
        "[ab]+",
        "(?i)TIDE.*k",
        "b.*h",
        "\\bab\\b",
        "a{2,3}",
        "\\w+->",
        "[^a]$",
        "\\s",
        "t(i|I)de",
        "(berth|tide)(a|b)?",
        "x*",
        "\\d+",
        "\\pL+_",
        "\u0434+",
        "[\u03C3\u03C2]",
        "a.?b",
        "(?:ab|a)(?:b|_)",
        "\\.\\(",
        "be[rx]th +",
        "k",
        "ab+_",
        "(?:ti)+de",
        "b{2}k|a+b",
        "[ab]{2,}k",
        "\\x{1F6A2}",
        "ti|tide",
        "a|ab|abb",
        "^a",
        "b$",
        "(a|_)*b"
    };
    private static final String[] WILDCARDS = {"ti*", "*th", "b?rth", "t*e", "a*b?", "?\u03C3*", "B*"};
    private static final String[] NAMES = {
        "berth", "Berth", "TIDE", "t*", "ab", "class Berth", "Berth.tide", "field ti*"
    };
    private static final String[] SIMILAR = {"tdie", "brth", "berths", "ab", "a", "tide", "abberth"};

    private final Random random;
    private final String[] atoms;
    private final List<String> texts;

    RandomQueries(Random random, String[] atoms, List<String> texts) {
        this.random = random;
        this.atoms = atoms;
        this.texts = texts;
    }

    private <T> T one(T[] of) {
        return of[random.nextInt(of.length)];
    }

    Query query(int depth) {
        int kind = random.nextInt(depth == 0 ? 6 : 17);
        return switch (kind) {
            case 0, 1, 2, 3, 4 -> text(true);
            case 5 -> random.nextInt(3) > 0 ? condition() : text(true);
            case 6, 7 -> Query.and(List.of(query(depth - 1), query(depth - 1)));
            case 8, 9 -> Query.or(List.of(query(depth - 1), query(depth - 1)));
            case 10, 11 -> new Query.Not(query(depth - 1));
            case 14 ->
                new Query.Holds(
                        random.nextInt(4) == 0 ? new Query.Not(text(true)) : Query.or(List.of(text(true), text(true))));
            case 12 -> new Query.Marked(one(Query.Mark.values()), query(depth - 1));
            case 15, 16 -> new Query.InRegion(regions(), random.nextBoolean() ? text(true) : query(depth - 1));
            default ->
                random.nextBoolean()
                        ? new TextClause.Near(random.nextInt(4), text(false), text(false))
                        : new TextClause.OnLine(text(false), text(false));
        };
    }

    private Set<Region> regions() {
        Region one = one(Region.values());
        return random.nextBoolean() ? Set.of(one) : Set.copyOf(EnumSet.complementOf(EnumSet.of(one)));
    }

    private Query condition() {
        return switch (random.nextInt(10)) {
            case 0 -> new FileCondition.Repository(random.nextBoolean() ? "x" : "[y]");
            case 1 -> new FileCondition.Under(random.nextBoolean() ? "dir" : "f1");
            case 2 -> new FileCondition.Type(random.nextBoolean() ? "java" : "m*");
            case 3 -> new FileCondition.HasTrait(random.nextBoolean() ? "test" : "documentation");
            case 4 -> new FileCondition.Except("odd");
            case 5 ->
                new FileCondition.Listed(List.of("x/f1.java", random.nextBoolean() ? "y/dir/f2" : "y/test/f0.md"));
            case 6 -> new FileCondition.Label("on*");
            case 7 ->
                switch (random.nextInt(3)) {
                    case 0 -> new FileCondition.Changed(Optional.of("2026-03"), Optional.empty());
                    case 1 -> new FileCondition.Changed(Optional.empty(), Optional.of("1y"));
                    default -> new FileCondition.Changed(Optional.of("3d"), Optional.of("2027"));
                };
            case 8 ->
                switch (random.nextInt(3)) {
                    case 0 -> new FileCondition.Size(OptionalLong.of(random.nextInt(100)), OptionalLong.empty());
                    case 1 -> new FileCondition.Size(OptionalLong.empty(), OptionalLong.of(random.nextInt(200)));
                    default ->
                        new FileCondition.Size(
                                OptionalLong.of(random.nextInt(60)), OptionalLong.of(60 + random.nextInt(60)));
                };
            default -> new FileCondition.OnBranch("main");
        };
    }

    /** @param mayBeMarked whether the text may be a composed one */
    private Query text(boolean mayBeMarked) {
        return switch (random.nextInt(15)) {
            case 14 -> mayBeMarked ? filled() : literal();
            case 13 -> number();
            case 12 -> mayBeMarked ? shape() : literal();
            case 10 -> symbol(one(NAMES));
            case 11 -> new Query.InRegion(regions(), literal());
            case 0, 1 -> new TextClause.Pattern(one(REGEXES));
            case 2 -> new TextClause.Wildcard(one(WILDCARDS));
            case 3 -> new TextClause.Like(one(SIMILAR));
            case 4 ->
                mayBeMarked
                        ? new Query.Marked(one(Query.Mark.values()), text(false))
                        : Query.or(List.of(literal(), literal()));
            default -> literal();
        };
    }

    /** A text with something put into its rooms. */
    private Query filled() {
        String sentence = (texts.isEmpty() ? one(atoms) + " " + one(atoms) : excerpt())
                .replace("{0}", one(atoms).strip())
                .replace("%s", "7")
                .replace("\" + x + \"", "tide")
                .replace('\n', ' ')
                .strip();
        return Filled.needed(sentence).isEmpty() || sentence.length() > Filled.LONGEST
                ? literal()
                : new TextClause.Filled(sentence);
    }

    private Query number() {
        BigDecimal low =
                BigDecimal.valueOf(random.nextInt(-10, 60)).divide(BigDecimal.valueOf(random.nextInt(3) == 0 ? 4 : 1));
        BigDecimal high = low.add(BigDecimal.valueOf(random.nextInt(30)));
        return new TextClause.NumberIn(
                switch (random.nextInt(4)) {
                    case 0 -> new Bounds(Optional.of(low), Optional.empty());
                    case 1 -> new Bounds(Optional.empty(), Optional.of(high));
                    default -> new Bounds(Optional.of(low), Optional.of(high));
                });
    }

    /** Code that may stand in a text, perhaps with a variable before, behind or in the middle. */
    private Query shape() {
        String text = texts.isEmpty() ? one(atoms) : excerpt();
        int at = random.nextInt(text.length() + 1);
        String code = switch (random.nextInt(5)) {
            case 0 -> text;
            case 1 -> text + " ?x";
            case 2 -> "?x " + text;
            case 3 -> text.substring(0, at) + " ?*rest " + text.substring(at);
            default -> text.substring(0, at) + " ?x " + text.substring(at) + " ?x";
        };
        Shape shape = new Shape(code, random.nextInt(4) == 0 ? List.of(one(atoms)) : List.of());
        return shape.mistake().isEmpty() ? new TextClause.OfShape(shape) : literal();
    }

    /** What a use of more than a name means, types tell: no naive evaluation knows it. */
    private Query symbol(String name) {
        boolean asksMore = name.contains(" ") || name.contains(".");
        return new TextClause.Symbol(asksMore ? SymbolRole.DECLARATION : one(SymbolRole.values()), name);
    }

    private Query literal() {
        String text = random.nextBoolean() && !texts.isEmpty() ? excerpt() : "";
        while (text.isEmpty() || text.contains("\u0000")) {
            text = "";
            for (int i = random.nextInt(3); i >= 0; i--) {
                text += one(atoms);
            }
        }
        return new TextClause.Text(text);
    }

    private String excerpt() {
        String text = texts.get(random.nextInt(texts.size()));
        if (text.isEmpty()) {
            return "";
        }
        int start = text.offsetByCodePoints(0, random.nextInt(text.codePointCount(0, text.length())));
        int rest = text.codePointCount(start, text.length());
        return text.substring(start, text.offsetByCodePoints(start, Math.min(rest, 1 + random.nextInt(9))));
    }

    /** All texts and limits that may occur, for tests that only parse and print. */
    List<Query> many(int count) {
        List<Query> queries = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            queries.add(query(3));
        }
        return queries;
    }
}
