package dev.oddbeacon.core.query.expression;

import dev.oddbeacon.core.query.CommitCondition;
import dev.oddbeacon.core.query.Days;
import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.query.Patterns;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.text.EditDistance;
import dev.oddbeacon.core.text.Words;
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

/**
 * Reads the expression language, by recursive descent. A mistake does not end it: it is noted with its place, and
 * reading goes on, so that half an expression is a query already, and all mistakes are told at once.
 *
 * <pre>
 *   expression  alternative { "or" alternative }
 *   alternative operand { ["and"] operand }
 *   operand     "not" operand | "(" expression ")" | word | "phrase" | /regex/ | name "(" arguments ")"
 * </pre>
 */
public final class ExpressionParser {
    private static final int DEEPEST = 100;
    private static final int MOST_CLAUSES = 250;
    private static final int MOST_WORDS_BETWEEN = 1_000;
    private static final int LONGEST_SIMILAR = 60;
    private static final List<String> CLAUSES = Stream.concat(
                    Stream.of(
                            "line",
                            "near",
                            "like",
                            "code",
                            "comment",
                            "string",
                            "outside",
                            "declares",
                            "uses",
                            "symbol",
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

    private final String text;
    private final List<Mistake> mistakes = new ArrayList<>();
    private int at;
    private int depth;
    private int clauses;
    private int calls; // how many argument lists are open: in them a comma ends a word

    private ExpressionParser(String text) {
        this.text = text;
    }

    /** @param mistakes in the order of their places; empty if the expression is right */
    public record Parsed(Query query, List<Mistake> mistakes) {}

    public static Parsed parse(String text) {
        ExpressionParser parser = new ExpressionParser(text);
        Query query = parser.expression();
        while (parser.at < text.length() && parser.depth >= 0) {
            parser.mistake(
                    "This ) closes nothing.",
                    parser.at,
                    1,
                    "put it in quotes if it is text",
                    Optional.of(parser.without(parser.at, 1)));
            parser.at++;
            query = Query.and(List.of(query, parser.expression()));
        }
        return new Parsed(query, List.copyOf(parser.mistakes));
    }

    private Query expression() {
        List<Query> alternatives = new ArrayList<>();
        Optional<Query> first = alternative();
        first.ifPresent(alternatives::add);
        while (word().equalsIgnoreCase("or")) {
            int operator = at;
            if (alternatives.isEmpty()) {
                mistake(
                        "There is nothing before this \"or\".",
                        operator,
                        2,
                        "write what should be found instead",
                        Optional.of(without(operator, 2)));
            }
            at += 2;
            Optional<Query> next = alternative();
            if (next.isEmpty()) {
                missing("There is nothing after this \"or\".", operator, 2);
            }
            next.ifPresent(alternatives::add);
        }
        List<Query> right = alternatives.stream()
                .filter(alternative -> !(alternative instanceof Query.Everything))
                .toList();
        return right.isEmpty() ? Query.EVERYTHING : Query.or(right);
    }

    private Optional<Query> alternative() {
        List<Query> operands = new ArrayList<>();
        while (true) {
            String word = word();
            if (word.equalsIgnoreCase("and")) {
                int operator = at;
                if (operands.isEmpty()) {
                    mistake(
                            "There is nothing before this \"and\".",
                            operator,
                            3,
                            "write what should be found as well",
                            Optional.of(without(operator, 3)));
                }
                at += 3;
                boolean ends = isAtEnd() || word().equalsIgnoreCase("or") || word().equalsIgnoreCase("and");
                if (ends) {
                    missing("There is nothing after this \"and\".", operator, 3);
                }
                continue;
            }
            if (word.equalsIgnoreCase("or") || isAtEnd()) {
                return operands.isEmpty() ? Optional.empty() : Optional.of(Query.and(operands));
            }
            operands.add(operand().orElse(Query.EVERYTHING)); // what is wrong still stands there
        }
    }

    /** Whether nothing follows that could be an operand. */
    private boolean isAtEnd() {
        skipSpace();
        return at >= text.length() || text.charAt(at) == ')' || calls > 0 && text.charAt(at) == ',';
    }

    private Optional<Query> operand() {
        if (++clauses > MOST_CLAUSES && clauses == MOST_CLAUSES + 1) {
            mistake(
                    "The expression has more than " + MOST_CLAUSES + " clauses.",
                    at,
                    text.length() - at,
                    "search in several steps",
                    Optional.empty());
        }
        if (clauses > MOST_CLAUSES) {
            at = text.length();
            return Optional.empty();
        }
        int start = at;
        char c = text.charAt(at);
        if (c == '(') {
            return parenthesised(start);
        }
        if (c == '"') {
            String phrase = phrase();
            return phrase.isEmpty() ? Optional.empty() : Optional.of(new TextClause.Text(phrase));
        }
        if (c == '/') {
            return regex();
        }
        String word = word();
        at += word.length();
        boolean isCall = at < text.length() && text.charAt(at) == '(';
        if (word.equalsIgnoreCase("not")) {
            return negated(start);
        }
        if (isCall) {
            return call(word, start);
        }
        return Optional.of(
                word.indexOf('*') >= 0 || word.indexOf('?') >= 0 ? wildcard(word, start) : new TextClause.Text(word));
    }

    private Query wildcard(String word, int start) {
        if (word.chars().allMatch(c -> c == '*' || c == '?')) {
            mistake(
                    word + " alone would match every word.",
                    start,
                    word.length(),
                    "put it in quotes if it is text",
                    Optional.of(replaced(start, word.length(), '"' + word + '"')));
        }
        return new TextClause.Wildcard(word);
    }

    private Optional<Query> negated(int start) {
        if (isAtEnd() || word().equalsIgnoreCase("or") || word().equalsIgnoreCase("and")) {
            missing("There is nothing after this \"not\".", start, 3);
            return Optional.empty();
        }
        if (tooDeep()) {
            return Optional.empty();
        }
        depth++;
        Optional<Query> part = operand();
        depth--;
        return part.map(Query.Not::new);
    }

    private Optional<Query> parenthesised(int start) {
        if (tooDeep()) {
            return Optional.empty();
        }
        at++;
        depth++;
        int callsOutside = calls;
        calls = 0;
        Query inside = expression();
        calls = callsOutside;
        depth--;
        close(start, "This ( is not closed.");
        if (inside instanceof Query.Everything && mistakes.isEmpty()) {
            mistake(
                    "There is nothing between these parentheses.",
                    start,
                    at - start,
                    "write what to find, or put them in quotes if they are text",
                    Optional.of(without(start, at - start)));
        }
        return Optional.of(inside);
    }

    private boolean tooDeep() {
        if (depth < DEEPEST) {
            return false;
        }
        mistake(
                "The expression is nested more than " + DEEPEST + " deep here.",
                at,
                1,
                "search for less at once",
                Optional.empty());
        at = text.length();
        clauses = MOST_CLAUSES + 1;
        return true;
    }

    private void close(int open, String message) {
        skipSpace();
        if (at < text.length() && text.charAt(at) == ')') {
            at++;
        } else if (clauses <= MOST_CLAUSES) {
            note(
                    message + " A ) is expected"
                            + (at < text.length() ? " before \"" + text.charAt(at) + "\"." : " at the end."),
                    open,
                    1,
                    Optional.of(text.substring(0, at) + ")" + text.substring(at)),
                    at >= text.length());
        }
    }

    private String phrase() {
        int start = at++;
        StringBuilder phrase = new StringBuilder();
        while (at < text.length() && text.charAt(at) != '"') {
            char c = text.charAt(at++);
            if (c != '\\') {
                boolean isHalfALineBreak = c == '\r' && at < text.length() && text.charAt(at) == '\n';
                phrase.append(isHalfALineBreak ? "" : String.valueOf(c));
                continue;
            }
            if (at >= text.length()) {
                break;
            }
            char escaped = text.charAt(at++);
            switch (escaped) {
                case '"', '\\' -> phrase.append(escaped);
                case 't' -> phrase.append('\t');
                case 'n' -> phrase.append('\n');
                case 'r' -> phrase.append('\r');
                default -> {
                    mistake(
                            "\\" + escaped + " is no escape in a phrase.",
                            at - 2,
                            2,
                            "write \\\\ for a backslash; \\\" \\t \\n \\r are the others",
                            Optional.of(replaced(at - 2, 2, "\\\\" + escaped)));
                    phrase.append(c).append(escaped);
                }
            }
        }
        if (at >= text.length()) {
            note(
                    "This quotation mark is not closed. A \" is expected at the end.",
                    start,
                    1,
                    Optional.of(text + "\""),
                    true);
        } else {
            at++;
        }
        if (phrase.isEmpty()) {
            mistake(
                    "This phrase is empty.",
                    start,
                    at - start,
                    "write what to find between the quotation marks",
                    Optional.of(without(start, at - start)));
        }
        return phrase.toString();
    }

    private Optional<Query> regex() {
        int start = at++;
        StringBuilder regex = new StringBuilder();
        List<Integer> places = new ArrayList<>(); // of each character in text
        boolean literal = false;
        while (at < text.length() && text.charAt(at) != '/') {
            char c = text.charAt(at);
            boolean pair = c == '\\' && at + 1 < text.length();
            if (literal && text.startsWith("\\E", at)) {
                literal = false;
            } else if (pair && !literal) {
                literal = text.charAt(at + 1) == 'Q';
                if (text.charAt(at + 1) == '/') {
                    at++;
                    regex.append('/');
                    places.add(at++);
                    continue;
                }
            }
            int count = pair && (!literal || text.charAt(at + 1) == 'Q') ? 2 : 1;
            for (int i = 0; i < count; i++) {
                regex.append(text.charAt(at));
                places.add(at++);
            }
        }
        boolean closed = at < text.length();
        if (closed) {
            at++;
        } else {
            note(
                    "This regular expression is not closed. A / is expected at the end.",
                    start,
                    1,
                    Optional.of(text + "/"),
                    true);
        }
        if (regex.isEmpty()) {
            mistake(
                    "This regular expression is empty.",
                    start,
                    at - start,
                    "write one between the slashes, or \"/\" for a slash that is text",
                    Optional.of(without(start, at - start)));
            return Optional.empty();
        }
        Optional<Mistake> wrong = Patterns.mistake(regex.toString());
        if (wrong.isPresent()) {
            int place = wrong.get().position() < places.size()
                    ? places.get(wrong.get().position())
                    : start;
            note(wrong.get().message(), place, 1, Optional.empty(), !closed);
            return Optional.empty();
        }
        return Optional.of(new TextClause.Pattern(regex.toString()));
    }

    /** A name, and the parenthesis after it. */
    private Optional<Query> call(String name, int start) {
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
            case "code", "comment", "string" ->
                argument("text, as in " + name + "(berth)")
                        .map(part -> new Query.InRegion(Set.of(Region.valueOf(name.toUpperCase(Locale.ROOT))), part));
            case "outside" -> outside();
            case "declares" -> symbol(SymbolRole.DECLARATION, name);
            case "uses" -> symbol(SymbolRole.USE, name);
            case "symbol" -> symbol(SymbolRole.ANY, name);
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

    private Optional<Query> mentions(CommitCondition.Where where, int start) {
        String name = where.name().toLowerCase(Locale.ROOT);
        Optional<Query> part = argument(
                where == CommitCondition.Where.BY ? "a person, as in by(marta)" : "text, as in " + name + "(berth)");
        Optional<String> wrong = part.flatMap(ExpressionParser::notText);
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
        Optional<String> wrong = part.flatMap(ExpressionParser::notContent);
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
                        .map(ExpressionParser::notContent)
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
                ? pair(start, "near(8,").map(pair -> new TextClause.Near(words, pair.get(0), pair.get(1)))
                : Optional.empty();
    }

    private Optional<List<Query>> pair(int start, String name) {
        Optional<Query> left = argument("text");
        if (!comma("This takes two texts, as in "
                + name.replaceFirst("^line$", "line(").replaceFirst("8,$", "8, ") + "berth, buffer).")) {
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
                        .map(ExpressionParser::notText)
                        .flatMap(Optional::stream)
                        .findFirst();
            case TextClause.Near _,
                    TextClause.OnLine _,
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

    /** The word at the current place, after any space; empty if none begins here. */
    private String word() {
        skipSpace();
        int end = at;
        while (end < text.length()
                && !ExpressionSyntax.endsWord(text.codePointAt(end), calls > 0)
                && !(end == at && text.charAt(end) == '"')) {
            end += Character.charCount(text.codePointAt(end));
        }
        return text.substring(at, end);
    }

    private void skipSpace() {
        while (at < text.length() && ExpressionSyntax.isSpace(text.codePointAt(at))) {
            at += Character.charCount(text.codePointAt(at));
        }
    }

    private String without(int start, int length) {
        return replaced(start, length, "").strip();
    }

    private String replaced(int start, int length, String by) {
        return text.substring(0, start) + by + text.substring(start + length);
    }

    /** Something is missing after an operator: a matter of time if it is the end. */
    private void missing(String message, int position, int length) {
        boolean atEnd = at >= text.length();
        note(message, position, length, Optional.of(without(position, length)), atEnd);
    }

    private void missingOrWrong(String message, int position, int length) {
        boolean atEnd = position >= text.length();
        note(message, Math.min(position, text.length()), atEnd ? 0 : length, Optional.empty(), atEnd);
    }

    private void mistake(String message, int position, int length, String advice, Optional<String> suggestion) {
        note(
                message + " " + Character.toUpperCase(advice.charAt(0)) + advice.substring(1) + ".",
                position,
                length,
                suggestion,
                false);
    }

    private void note(String message, int position, int length, Optional<String> suggestion, boolean unfinished) {
        mistakes.add(new Mistake(message, position, length, suggestion.filter(other -> !other.isBlank()), unfinished));
    }
}
