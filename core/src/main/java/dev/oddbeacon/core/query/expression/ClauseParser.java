package dev.oddbeacon.core.query.expression;

import dev.oddbeacon.core.query.Bounds;
import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.shape.Shape;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.text.EditDistance;
import dev.oddbeacon.core.text.Filled;
import dev.oddbeacon.core.text.Numbers;
import dev.oddbeacon.core.text.Words;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Stream;

/** Reads the clauses of expressions, {@code name(arguments)}: which there are, and what each takes. */
abstract class ClauseParser extends ExpressionScanner {
    private static final int MOST_WORDS_BETWEEN = 1_000;
    private static final int LONGEST_SIMILAR = 60;

    private static final List<String> CLAUSES = Stream.concat(
                    Stream.of(
                            "line",
                            "near",
                            "like",
                            "filled",
                            "number",
                            "code",
                            "comment",
                            "string",
                            "outside",
                            "declares",
                            "uses",
                            "symbol",
                            "shape",
                            "holds",
                            "repo",
                            "label",
                            "branch",
                            "under",
                            "type",
                            "trait",
                            "except",
                            "files",
                            "changed",
                            "size",
                            "by",
                            "says",
                            "adds",
                            "removes",
                            "touches",
                            "after",
                            "before"),
                    Arrays.stream(Query.Mark.values()).map(value -> value.name().toLowerCase(Locale.ROOT)))
            .sorted()
            .toList();

    /** A name, and the parenthesis after it. */
    Optional<Query> call(String name, int start) {
        if (tooDeep()) {
            return Optional.empty();
        }
        if (!CLAUSES.contains(name)) {
            String nearest = CLAUSES.stream()
                    .min(Comparator.comparingInt(known -> EditDistance.of(known, name.toLowerCase(Locale.ROOT))))
                    .orElseThrow();
            boolean isNear = EditDistance.of(nearest, name.toLowerCase(Locale.ROOT)) <= 2;
            int end = endOfCall(at);
            note(
                    "There is no clause " + name + "( ). Known are " + String.join(", ", CLAUSES)
                            + ". Text with parentheses stands in quotes.",
                    start,
                    name.length(),
                    Optional.of(replaced(
                            start,
                            (isNear ? at : end) - start,
                            isNear ? nearest : ExpressionSyntax.quoted(text.substring(start, end)))),
                    false);
            at = end;
            return Optional.empty();
        }
        at++;
        depth++;
        calls++;
        Optional<Query> query = switch (name) {
            case "near" -> near(start);
            case "line" -> pair(start, "line").map(pair -> new TextClause.OnLine(pair.get(0), pair.get(1)));
            case "like" -> name("a word, as in like(harbour)").flatMap(word -> like(word, start));
            case "number" -> number();
            case "filled" ->
                name("a sentence in quotes, as in filled(\"Berth 7 is taken by Heron\")")
                        .flatMap(sentence -> filled(sentence, start));
            case "code", "comment", "string" ->
                argument("text, as in " + name + "(berth)")
                        .map(part -> new Query.InRegion(Set.of(Region.valueOf(name.toUpperCase(Locale.ROOT))), part));
            case "outside" -> outside();
            case "declares" -> symbol(SymbolRole.DECLARATION, name);
            case "uses" -> symbol(SymbolRole.USE, name);
            case "symbol" -> symbol(SymbolRole.ANY, name);
            case "shape" -> shape(start);
            case "holds" -> holds(start);
            case "repo" ->
                name("the name of a repository, as in repo(tidewatch) or repo(*-app)")
                        .map(FileCondition.Repository::new);
            case "label" -> name("a label, as in label(onboard)").map(FileCondition.Label::new);
            case "branch" -> name("a branch or tag, as in branch(main)").map(FileCondition.OnBranch::new);
            case "under" ->
                name("a folder or file, as in under(src/main) or under(*.java)").map(FileCondition.Under::new);
            case "type" -> name("a type of files, as in type(java)").map(FileCondition.Type::new);
            case "trait" -> name("a trait of files, as in trait(test)").map(FileCondition.HasTrait::new);
            case "except" ->
                name("the name of an exclusion set, as in except(translations)").map(FileCondition.Except::new);
            case "files" ->
                names("files as repository/path, as in files(tidewatch/README.md, fare-gate/go.mod)")
                        .map(FileCondition.Listed::new);
            case "changed" -> changed();
            case "size" -> size();
            case "by", "says", "adds", "removes" ->
                mentions(CommitCondition.Where.valueOf(name.toUpperCase(Locale.ROOT)), start);
            case "touches" ->
                name("a folder or file, as in touches(src/main) or touches(*.sql)")
                        .map(CommitCondition.Touches::new);
            case "after" -> day().map(day -> new CommitCondition.Committed(CommitCondition.Side.AFTER, day));
            case "before" -> day().map(day -> new CommitCondition.Committed(CommitCondition.Side.BEFORE, day));
            default ->
                argument("text, as in " + name + "(berth)")
                        .map(part -> new Query.Marked(Query.Mark.valueOf(name.toUpperCase(Locale.ROOT)), part));
        };
        calls--;
        depth--;
        close(start, "The parenthesis of " + name + "( is not closed.");
        return query;
    }

    private int endOfCall(int open) {
        int nested = 0;
        for (int i = open; i < text.length(); i++) {
            nested += text.charAt(i) == '(' ? 1 : text.charAt(i) == ')' ? -1 : 0;
            if (nested == 0) {
                return i + 1;
            }
        }
        return text.length();
    }

    private Optional<Query> outside() {
        skipSpace();
        int from = at;
        String region = word();
        at += region.length();
        Optional<Region> known = Arrays.stream(Region.values())
                .filter(value -> value.name().equalsIgnoreCase(region))
                .findFirst();
        if (known.isEmpty()) {
            missingOrWrong(
                    "outside( begins with code, comment or string, as in outside(comment, berth).",
                    from,
                    Math.max(1, region.length()));
            endOfArguments();
            return Optional.empty();
        }
        return comma("outside(" + region + " needs a text after the region, as in outside(comment, berth).")
                ? argument("text").map(part -> Query.InRegion.outside(known.get(), part))
                : Optional.empty();
    }

    private Optional<Query> symbol(SymbolRole role, String clause) {
        int from = at;
        Optional<String> first = wordOrPhrase("the name of a symbol, as in " + clause + "(Berth), " + clause
                + "(Berth.assign) or " + clause + "(class Berth*)");
        if (first.isEmpty()) {
            return Optional.empty();
        }
        String name = first.get();
        if (at < text.length() && text.charAt(at) != ')' && text.charAt(at) != ',') {
            name += " " + wordOrPhrase("the name of a symbol").orElse("");
        }
        try {
            SymbolName.of(name);
        } catch (InvalidQueryException e) {
            note(e.getMessage(), from, Math.max(1, at - from), Optional.empty(), false);
            return Optional.empty();
        }
        return Optional.of(new TextClause.Symbol(role, name));
    }

    private Optional<Query> shape(int start) {
        Optional<String> code = code("code, as in shape(assign(?stay, null))");
        List<String> without = new ArrayList<>();
        while (code.isPresent() && at < text.length() && text.charAt(at) == ',') {
            at++;
            skipSpace();
            if (!text.startsWith(CodeInShape.WITHOUT, at)) {
                missingOrWrong(
                        "After its code, shape( takes without: and what must not stand in it, as in shape(?lock.lock(); ?*rest }, without: ?lock.unlock()).",
                        at,
                        1);
                endOfArguments();
                return Optional.empty();
            }
            at += CodeInShape.WITHOUT.length();
            Optional<String> part = code("code that must not stand in it");
            part.ifPresent(without::add);
            if (part.isEmpty()) {
                return Optional.empty();
            }
        }
        Optional<Shape> shape = code.map(written -> new Shape(written, without));
        Optional<String> wrong = shape.flatMap(Shape::mistake);
        wrong.ifPresent(message -> note(message, start, at - start, Optional.empty(), at >= text.length()));
        return shape.filter(_ -> wrong.isEmpty()).map(TextClause.OfShape::new);
    }

    /** Code up to the parenthesis that closes the clause, or to what follows it; or a phrase that holds code. */
    private Optional<String> code(String expected) {
        skipSpace();
        if (at >= text.length() || text.charAt(at) == ')') {
            missingOrWrong("Expected here: " + expected + ".", at, 1);
            return Optional.empty();
        }
        if (text.charAt(at) == '"') {
            int from = at;
            String phrase = phrase();
            skipSpace();
            if (at < text.length() && text.charAt(at) != ')' && text.charAt(at) != ',') {
                mistake(
                        "Code that begins with a quotation mark stands in quotes as a whole.",
                        from,
                        at - from,
                        "write shape(\"\\\"a\\\" + ?x\"), for example",
                        Optional.empty());
                at = CodeInShape.end(text, at);
                return Optional.empty();
            }
            return Optional.of(phrase).filter(found -> !found.isEmpty());
        }
        int end = CodeInShape.end(text, at);
        String code = text.substring(at, end).strip();
        at = end;
        if (code.isEmpty()) {
            missingOrWrong("Expected here: " + expected + ".", at, 1);
        }
        return Optional.of(code).filter(found -> !found.isEmpty());
    }

    private Optional<Query> mentions(CommitCondition.Where where, int start) {
        String name = where.name().toLowerCase(Locale.ROOT);
        Optional<Query> part = argument(
                where == CommitCondition.Where.BY ? "a person, as in by(marta)" : "text, as in " + name + "(berth)");
        Optional<String> wrong = part.flatMap(ClauseParser::notText);
        wrong.ifPresent(what -> mistake(
                what + " cannot stand in " + name
                        + "( ), which takes words, phrases and regular expressions, joined by or.",
                start,
                at - start,
                "write it outside",
                Optional.empty()));
        return part.filter(_ -> wrong.isEmpty()).map(text -> new CommitCondition.Mentions(where, text));
    }

    private Optional<Query> changed() {
        Optional<Map<String, String>> days = bounds(
                List.of("after", "before"),
                "changed( takes after:, before: or both, as in changed(after: 2026-01-31, before: 2026-03-01).",
                day -> {
                    Days.check(day);
                    return day;
                });
        return days.map(found -> new FileCondition.Changed(
                Optional.ofNullable(found.get("after")), Optional.ofNullable(found.get("before"))));
    }

    private Optional<Query> size() {
        Optional<Map<String, Long>> sizes = bounds(
                List.of("over", "under"),
                "size( takes over:, under: or both, as in size(over: 10k, under: 2M).",
                size -> ByteSizes.parse(size)
                        .orElseThrow(
                                () -> new InvalidQueryException(
                                        "\"" + size
                                                + "\" is no size. Write a number of bytes, with k, M or G for thousands, millions or billions of them: 10k.")));
        return sizes.map(found -> new FileCondition.Size(bytes(found.get("over")), bytes(found.get("under"))));
    }

    private Optional<Query> number() {
        int start = at;
        Optional<Map<String, BigDecimal>> numbers = bounds(
                List.of("from", "to"),
                "number( takes from:, to: or both, as in number(from: 1000, to: 2500).",
                number -> Numbers.parse(number)
                        .orElseThrow(() -> new InvalidQueryException("\"" + number
                                + "\" is no number. Write it as in code: 42, -3.5, 1_000, 2.5e3 or 0x1F.")));
        Optional<Bounds> between = numbers.map(
                found -> new Bounds(Optional.ofNullable(found.get("from")), Optional.ofNullable(found.get("to"))));
        if (between.map(Bounds::isEmpty).orElse(false)) {
            note(
                    "No number is between them: from: is the smaller one, to: the larger.",
                    start,
                    Math.max(1, at - start),
                    Optional.empty(),
                    false);
            return Optional.empty();
        }
        return between.map(TextClause.NumberIn::new);
    }

    private static OptionalLong bytes(Long value) {
        return value == null ? OptionalLong.empty() : OptionalLong.of(value);
    }

    /**
     * Named arguments, each at most once, in any order: {@code after: 2026-01-31, before: 2026-03-01}.
     *
     * @param read throws InvalidQueryException for what is no value
     */
    private <T> Optional<Map<String, T>> bounds(List<String> names, String expected, Function<String, T> read) {
        Map<String, T> values = new HashMap<>();
        do {
            skipSpace();
            int from = at;
            Optional<String> name = names.stream()
                    .filter(one -> text.startsWith(one + ":", from) && !values.containsKey(one))
                    .findFirst();
            if (name.isEmpty()) {
                missingOrWrong(expected, from, Math.max(1, word().length()));
                endOfArguments();
                return Optional.empty();
            }
            at += name.get().length() + 1;
            skipSpace();
            int valueStart = at;
            Optional<String> value = wordOrPhrase("a value after " + name.get() + ":");
            try {
                value.ifPresent(given -> values.put(name.get(), read.apply(given)));
            } catch (InvalidQueryException e) {
                note(e.getMessage(), valueStart, Math.max(1, at - valueStart), Optional.empty(), false);
                return Optional.empty();
            }
            if (value.isEmpty()) {
                return Optional.empty();
            }
        } while (at < text.length() && text.charAt(at) == ',' && at++ >= 0);
        if (at < text.length() && text.charAt(at) != ')') {
            missingOrWrong(expected, at, 1);
            endOfArguments();
            return Optional.empty();
        }
        return Optional.of(values);
    }

    private Optional<String> day() {
        skipSpace();
        int from = at;
        Optional<String> day = name("a day, as in 2026-01-31, or back from today, as in 2w");
        try {
            day.ifPresent(Days::check);
            return day;
        } catch (InvalidQueryException e) {
            note(e.getMessage(), from, Math.max(1, at - from), Optional.empty(), false);
            return Optional.empty();
        }
    }

    private Optional<Query> holds(int start) {
        Optional<Query> part = argument("text, as in holds(berth)");
        Optional<String> wrong = part.flatMap(ClauseParser::notContent);
        wrong.ifPresent(what -> mistake(
                what + " cannot stand in holds( ), which is about the content of files.",
                start,
                at - start,
                "write it outside",
                Optional.empty()));
        return part.filter(_ -> wrong.isEmpty()).map(Query.Holds::new);
    }

    private static Optional<String> notContent(Query query) {
        return switch (query) {
            case FileCondition _, CommitCondition _, Query.Holds _ -> Optional.of(ExpressionPrinter.print(query));
            case Query.And _,
                    Query.Or _,
                    Query.Not _,
                    Query.Marked _,
                    Query.InRegion _,
                    Query.Everything _,
                    TextClause _ ->
                query.children().stream()
                        .map(ClauseParser::notContent)
                        .flatMap(Optional::stream)
                        .findFirst();
        };
    }

    private Optional<Query> near(int start) {
        skipSpace();
        int from = at;
        while (at < text.length() && Character.isDigit(text.charAt(at))) {
            at++;
        }
        int words = at == from || at - from > 4 ? -1 : Integer.parseInt(text.substring(from, at));
        if (words < 0 || words > MOST_WORDS_BETWEEN) {
            missingOrWrong(
                    "near( begins with a number of words, 0 to " + MOST_WORDS_BETWEEN
                            + ", as in near(8, berth, buffer).",
                    from,
                    Math.max(1, at - from));
            endOfArguments();
            return Optional.empty();
        }
        return comma("near(" + words + " needs two texts after the number, as in near(8, berth, buffer).")
                ? pair(start, "near(8, ").map(pair -> new TextClause.Near(words, pair.get(0), pair.get(1)))
                : Optional.empty();
    }

    /** @param example what an example of it begins with */
    private Optional<List<Query>> pair(int start, String example) {
        Optional<Query> left = argument("text");
        if (!comma("This takes two texts, as in " + example + "berth, buffer).")) {
            return Optional.empty();
        }
        Optional<Query> right = argument("text");
        if (left.isEmpty() || right.isEmpty()) {
            return Optional.empty();
        }
        for (Query part : List.of(left.get(), right.get())) {
            Optional<String> wrong = notText(part);
            if (wrong.isPresent()) {
                mistake(
                        wrong.get()
                                + " cannot stand in near( ) or line( ), which take words, phrases and regular expressions, joined by or.",
                        start,
                        at - start,
                        "write it outside",
                        Optional.empty());
                return Optional.empty();
            }
        }
        return Optional.of(List.of(left.get(), right.get()));
    }

    private static Optional<String> notText(Query query) {
        return switch (query) {
            case Query.Or _, Query.Marked _, Query.InRegion _ ->
                query.children().stream()
                        .map(ClauseParser::notText)
                        .flatMap(Optional::stream)
                        .findFirst();
            case TextClause.Near _,
                    TextClause.OnLine _,
                    TextClause.OfShape _,
                    FileCondition _,
                    CommitCondition _,
                    Query.Holds _,
                    Query.Everything _ -> Optional.of(ExpressionPrinter.print(query));
            case TextClause _ -> Optional.empty();
            case Query.And _ -> Optional.of("\"and\"");
            case Query.Not _ -> Optional.of("\"not\"");
        };
    }

    private Optional<Query> argument(String expected) {
        if (isAtEnd()) {
            missingOrWrong("Expected here: " + expected + ".", at, 1);
            return Optional.empty();
        }
        Query argument = expression();
        return argument instanceof Query.Everything ? Optional.empty() : Optional.of(argument);
    }

    private boolean comma(String message) {
        skipSpace();
        if (at < text.length() && text.charAt(at) == ',') {
            at++;
            return true;
        }
        missingOrWrong(message, at, 1);
        endOfArguments();
        return false;
    }

    /** Words or phrases with commas between; at least one. */
    private Optional<List<String>> names(String expected) {
        List<String> names = new ArrayList<>();
        do {
            Optional<String> name = wordOrPhrase(expected);
            if (name.isEmpty()) {
                return Optional.empty();
            }
            names.add(name.get());
        } while (at < text.length() && text.charAt(at) == ',' && at++ >= 0);
        return Optional.of(List.copyOf(names));
    }

    private Optional<String> wordOrPhrase(String expected) {
        if (isAtEnd()) {
            missingOrWrong("Expected here: " + expected + ".", at, 1);
            return Optional.empty();
        }
        String name;
        if (text.charAt(at) == '"') {
            name = phrase();
        } else {
            name = word();
            at += name.length();
        }
        skipSpace();
        return name.isEmpty() ? Optional.empty() : Optional.of(name);
    }

    /** A word or a phrase, and nothing after it. */
    private Optional<String> name(String expected) {
        int from = at;
        Optional<String> name = wordOrPhrase(expected);
        if (name.isEmpty() && at == from) {
            return name;
        }
        boolean endsWell = at >= text.length() || text.charAt(at) == ')';
        if (!endsWell) {
            mistake(
                    "Expected here: " + expected + ", and nothing else.",
                    at,
                    1,
                    "put it in quotes if it has spaces, commas or parentheses",
                    Optional.empty());
            endOfArguments();
        }
        return name;
    }

    private Optional<Query> filled(String sentence, int start) {
        if (Filled.needed(sentence).isEmpty() || sentence.length() > Filled.LONGEST) {
            note(
                    "filled( ) takes a sentence of two words or more, and of at most " + Filled.LONGEST
                            + " characters, as a program shows it: filled(\"Berth 7 is taken by Heron\").",
                    start,
                    at - start,
                    Optional.empty(),
                    false);
            return Optional.empty();
        }
        return Optional.of(new TextClause.Filled(sentence));
    }

    private Optional<Query> like(String word, int start) {
        int letters = word.codePointCount(0, word.length());
        if (!word.codePoints().allMatch(Words::isWordPart)) {
            mistake(
                    "like( ) takes one word of letters and digits.",
                    start,
                    at - start,
                    "use several, or near( )",
                    Optional.empty());
            return Optional.empty();
        }
        if (letters > LONGEST_SIMILAR) {
            mistake(
                    "like( ) takes a word of at most " + LONGEST_SIMILAR + " letters.",
                    start,
                    at - start,
                    "search for a part of it",
                    Optional.empty());
            return Optional.empty();
        }
        return Optional.of(new TextClause.Like(word));
    }

    private void endOfArguments() {
        int open = text.lastIndexOf('(', Math.max(0, at - 1));
        int end = endOfCall(Math.max(0, open));
        at = Math.max(at, end > 0 && end <= text.length() && text.charAt(end - 1) == ')' ? end - 1 : text.length());
    }

    ClauseParser(String text) {
        super(text);
    }

    /** An expression, up to the end of the text, a comma between arguments, or a parenthesis that closes. */
    abstract Query expression();
}
