package dev.oddbeacon.core.lines;

import dev.oddbeacon.core.query.FileCondition;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.query.SymbolRole;
import dev.oddbeacon.core.query.TextClause;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.core.text.Split;
import dev.oddbeacon.core.text.Words;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * How people ask elsewhere, in a search that found nothing here: a sign before a word, operators in capitals, the name of
 * a field with a colon, a distance behind a phrase. None of it is our syntax; what was perhaps meant is offered in ours.
 */
final class Habits {
    private static final int LONGEST = 500;

    private final String text;
    private int at;
    private boolean noticed;

    private Habits(String text) {
        this.text = text;
    }

    /** What the text may mean, as an expression; empty if nothing in it is written as elsewhere. */
    static Optional<String> meant(String text) {
        if (text.length() > LONGEST || text.indexOf('\n') >= 0) {
            return Optional.empty();
        }
        Habits habits = new Habits(text.strip());
        List<Query> either = new ArrayList<>();
        List<Query> all = new ArrayList<>();
        try {
            while (habits.at < habits.text.length()) {
                switch (habits.operator()) {
                    case "and" -> {}
                    case "or" -> {
                        either.add(Query.and(all));
                        all.clear();
                    }
                    case "not" -> all.add(new Query.Not(habits.part()));
                    default -> all.add(habits.part());
                }
            }
            either.add(Query.and(all));
            boolean asks = habits.noticed && either.stream().noneMatch(Query.Everything.class::isInstance);
            return asks ? Optional.of(ExpressionPrinter.print(Query.or(either))) : Optional.empty();
        } catch (InvalidQueryException e) {
            return Optional.empty(); // such as a field that takes no such value
        }
    }

    /** Goes behind an operator. @return its name here; empty if there is none */
    private String operator() {
        skipSpace();
        int end = endOfWord();
        String word = text.substring(at, end);
        String name = switch (word) {
            case "AND", "&&" -> "and";
            case "OR", "||" -> "or";
            case "NOT" -> "not";
            default -> "";
        };
        if (!name.isEmpty()) {
            noticed = true;
            at = end;
            skipSpace();
        } else if (word.length() > 1 && "-!".indexOf(word.charAt(0)) >= 0 && isStart(word.charAt(1))) {
            noticed = true;
            at++;
            return "not";
        } else if (word.length() > 1 && word.charAt(0) == '+' && isStart(word.charAt(1))) {
            noticed = true;
            at++;
        }
        return name;
    }

    private static boolean isStart(char c) {
        return Words.isWordPart(c) || c == '"';
    }

    /** A word or a phrase, perhaps of a field, perhaps with a distance behind. */
    private Query part() {
        int colon = text.indexOf(':', at);
        int end = endOfWord();
        if (colon > at && colon < end && colon + 1 < text.length() && isName(text.substring(at, colon))) {
            String field = text.substring(at, colon).toLowerCase(Locale.ROOT);
            int before = at;
            at = colon + 1;
            Optional<Query> clause = clause(field, value());
            if (clause.isPresent()) {
                noticed = true;
                return clause.get();
            }
            at = before;
        }
        boolean isPhrase = at < text.length() && text.charAt(at) == '"';
        String value = value();
        if (at < text.length() && text.charAt(at) == '~') {
            at++;
            int distance = number();
            List<String> words = Split.words(value);
            if (isPhrase && words.size() == 2) {
                noticed = true;
                return new TextClause.Near(
                        distance < 0 ? 1 : distance,
                        new TextClause.Text(words.getFirst()),
                        new TextClause.Text(words.getLast()));
            }
            if (!isPhrase && !value.isEmpty() && value.codePoints().allMatch(Words::isWordPart)) {
                noticed = true;
                return new TextClause.Like(value);
            }
        }
        if (value.isEmpty()) {
            throw new InvalidQueryException("nothing is meant");
        }
        noticed |= isPhrase;
        boolean isPattern = !isPhrase && (value.indexOf('*') >= 0 || value.indexOf('?') >= 0);
        return isPattern ? new TextClause.Wildcard(value) : new TextClause.Text(value);
    }

    private static boolean isName(String field) {
        return field.chars().allMatch(c -> c < 0x80 && Character.isLetter(c));
    }

    private static Optional<Query> clause(String field, String value) {
        if (value.isEmpty()) {
            return Optional.empty();
        }
        return switch (field) {
            case "repo", "repository", "project" -> Optional.of(new FileCondition.Repository(value));
            case "file", "path", "filename", "dir", "folder", "in" -> Optional.of(new FileCondition.Under(value));
            case "lang", "language", "type", "filetype" -> Optional.of(new FileCondition.Type(value));
            case "ext", "extension" ->
                Optional.of(new FileCondition.Under("*." + value.substring(value.lastIndexOf('.') + 1)));
            case "branch", "rev", "ref", "tag" -> Optional.of(new FileCondition.OnBranch(value));
            case "sym", "symbol", "name" -> symbol(SymbolRole.ANY, value);
            case "def", "definition", "class", "method", "function", "func" -> symbol(SymbolRole.DECLARATION, value);
            case "refs", "usage", "uses", "caller" -> symbol(SymbolRole.USE, value);
            case "text", "content", "full", "body" -> Optional.of(new TextClause.Text(value));
            default -> Optional.empty();
        };
    }

    private static Optional<Query> symbol(SymbolRole role, String value) {
        SymbolName.of(value);
        return Optional.of(new TextClause.Symbol(role, value));
    }

    private String value() {
        if (at < text.length() && text.charAt(at) == '"') {
            int end = text.indexOf('"', at + 1);
            if (end > at) {
                String phrase = text.substring(at + 1, end);
                at = end + 1;
                return phrase;
            }
        }
        int end = endOfWord();
        int tilde = text.indexOf('~', at);
        end = tilde > at && tilde < end ? tilde : end;
        String word = text.substring(at, end);
        at = end;
        return word;
    }

    private int number() {
        int from = at;
        while (at < text.length() && at - from < 3 && text.charAt(at) >= '0' && text.charAt(at) <= '9') {
            at++;
        }
        return at == from ? -1 : Integer.parseInt(text.substring(from, at));
    }

    private int endOfWord() {
        int end = at;
        while (end < text.length() && !Character.isWhitespace(text.charAt(end))) {
            end++;
        }
        return end;
    }

    private void skipSpace() {
        while (at < text.length() && Character.isWhitespace(text.charAt(at))) {
            at++;
        }
    }
}
