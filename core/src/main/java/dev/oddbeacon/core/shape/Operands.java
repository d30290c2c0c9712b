package dev.oddbeacon.core.shape;

import dev.oddbeacon.core.source.language.Word;
import dev.oddbeacon.core.source.language.Word.Role;

/**
 * Tells where expressions begin and end in a sequence of tokens, as far as that can be told without a grammar: operands
 * with what belongs to them, and operators between. For one thread.
 */
final class Operands {
    private static final int LONGEST_ANGLES = 200; // tokens
    private static final int LONGEST_SIGNATURE = 30; // tokens between the parameters of a function and its body
    private static final int LONGEST_HEAD = 200;

    private static final int DOT = '.';
    private static final int OPTIONAL_DOT = Syntax.code("?.");
    private static final int COLONS = Syntax.code("::");
    private static final int ARROW = Syntax.code("->");
    private static final int INCREMENT = Syntax.code("++");
    private static final int DECREMENT = Syntax.code("--");
    private static final int SPREAD = Syntax.code("...");

    private final Tokens tokens;
    private final Syntax syntax;
    private int levelFound; // of the operator that was looked at last

    Operands(Tokens tokens, Syntax syntax) {
        this.tokens = tokens;
        this.syntax = syntax;
    }

    /** Where the expressions that begin with a token may end. */
    static final class Ends {
        private int[] ends = new int[8];
        private int size;

        void add(int end) {
            if (size == ends.length) {
                ends = java.util.Arrays.copyOf(ends, size * 2);
            }
            ends[size++] = end;
        }

        int size() {
            return size;
        }

        int get(int index) {
            return ends[index];
        }
    }

    /**
     * All expressions that begin with a token, as the tokens behind them, ascending.
     *
     * @param limit the level of the loosest operator that they may hold
     */
    Ends ends(int from, int limit) {
        Ends ends = new Ends();
        boolean isHead = isInHead(from);
        int conditions = 0; // of ?: that are not through
        int at = from;
        boolean tests = false; // whether a type stands next
        while (true) {
            boolean creates = false;
            if (tests && isWord(at, "final")) {
                at++;
            }
            for (int next = prefix(at, limit); next > at; next = prefix(at, limit)) {
                creates |= isWord(at, "new");
                at = next;
            }
            at = operand(at, isHead);
            if (at == Tokens.NONE) {
                return ends;
            }
            if (conditions == 0) {
                ends.add(at);
            }
            for (int next = postfix(at, isHead, creates); next > at; next = postfix(at, isHead, creates)) {
                if (limit == Syntax.NAME && tokens.opens(at)) {
                    return ends;
                }
                at = next;
                if (conditions == 0) {
                    ends.add(at);
                }
            }
            int closing = tests && tokens.sign(at) == '<' ? endOfAngles(at) : Tokens.NONE;
            if (closing != Tokens.NONE) {
                at = closing + 1;
                if (conditions == 0) {
                    ends.add(at);
                }
            }
            if (tests && tokens.kind(at) == Tokens.WORD && tokens.word(at).isName()) {
                at++; // what is tested gets a name
                if (conditions == 0) {
                    ends.add(at);
                }
            }
            boolean isElse = conditions > 0 && tokens.sign(at) == ':';
            int next = isElse ? at + 1 : infix(at, limit);
            if (next == Tokens.NONE) {
                return ends;
            }
            tests = !isElse && levelFound == Syntax.COMPARE && tokens.kind(at) == Tokens.WORD;
            conditions += isElse ? -1 : levelFound == Syntax.TERNARY && tokens.sign(at) == '?' ? 1 : 0;
            at = next;
        }
    }

    /**
     * A token at or before which no expression begins that ends with another.
     *
     * @param behind the token behind it
     * @param limit the level of the loosest operator in it
     */
    int earliest(int behind, int limit) {
        boolean hasAngles = false;
        int at = behind;
        while (at > 0) {
            int sign = tokens.sign(at - 1);
            boolean isApart = sign == ';'
                    || sign == ',' && !hasAngles
                    || limit < Syntax.ASSIGN && Syntax.assigns(sign)
                    || tokens.opens(at - 1) && !tokens.closes(at - 1);
            int before = isApart ? Tokens.NONE : tokens.before(at - 1);
            if (before == Tokens.NONE) {
                return at;
            }
            hasAngles |= sign == '>';
            at = before;
        }
        return at;
    }

    /** The token behind all that stands up to the next comma, semicolon or closing bracket. */
    int endOfPart(int from) {
        int at = from;
        while (at < tokens.size()) {
            int sign = tokens.sign(at);
            if (sign == ',' || sign == ';' || tokens.closes(at)) {
                return at;
            }
            int closing = sign == '<' ? endOfAngles(at) : Tokens.NONE;
            boolean holdsTypes = closing != Tokens.NONE
                    && tokens.kind(closing + 1) != Tokens.NUMBER
                    && tokens.kind(closing + 1) != Tokens.STRING;
            at = holdsTypes ? closing + 1 : tokens.behind(at);
            if (at == Tokens.NONE) {
                return from;
            }
        }
        return at;
    }

    /**
     * Whether an expression may begin with a token, rather than go on with it.
     *
     * @param limit the level of the loosest operator that belongs to it: with a looser one before it, it begins there
     */
    boolean mayBegin(int token, int limit) {
        if (tokens.kind(token) == Tokens.SIGN && !tokens.opens(token) && !syntax.isOfName(tokens.sign(token))) {
            boolean isPrefix = limit > Syntax.POSTFIX && syntax.isPrefix(tokens.sign(token));
            if (!isPrefix || isOperandEnd(token - 1) && !endsLine(token)) {
                return false;
            }
        }
        if (tokens.closes(token) || tokens.sign(token) == '{' && limit <= Syntax.POSTFIX) {
            return false;
        }
        int before = token - 1;
        if (before < 0) {
            return true;
        }
        if (tokens.kind(token) == Tokens.WORD) {
            boolean isChoice = !tokens.word(token).isName() && Syntax.isChoice(tokens.text(token));
            if (isChoice && beginsStatement(token) || limit >= Syntax.COMPARE && isOfTest(before)) {
                return false;
            }
        }
        return switch (tokens.kind(before)) {
            case Tokens.STRING -> tokens.opens(before) || tokens.kind(token) != Tokens.STRING;
            case Tokens.NUMBER -> !tokens.opens(token);
            case Tokens.WORD -> mayBeginAfterWord(token, before, limit);
            default -> mayBeginAfterSign(token, before, limit);
        };
    }

    private boolean beginsStatement(int token) {
        int sign = tokens.sign(token - 1);
        return sign == ';' || sign == '{' || sign == '}' || sign == ')' || sign == ':' || endsLine(token);
    }

    private boolean mayBeginAfterWord(int token, int before, int limit) {
        if (isOperandEnd(before)) {
            return !tokens.opens(token) || endsLine(token);
        }
        String text = tokens.text(before);
        int level = syntax.levelOfWord(text);
        if (level != Syntax.NONE) {
            return level > limit;
        }
        if (text.equals("new")) {
            return false;
        }
        if (Syntax.isPrefixWord(text)) {
            return limit <= Syntax.POSTFIX || text.equals("not") && limit < Syntax.NOT;
        }
        return tokens.sign(token) != '(' || !Syntax.isHead(text);
    }

    /** Whether a token ends the type that something is tested for: what follows is its name. */
    private boolean isOfTest(int last) {
        int at = last;
        while (tokens.sign(at) == ']' && tokens.sign(at - 1) == '[') {
            at -= 2;
        }
        if (tokens.sign(at) == '>') {
            at = openingOfAngles(at) - 1;
        }
        while (tokens.sign(at - 1) == DOT && tokens.kind(at - 2) == Tokens.WORD) {
            at -= 2;
        }
        return tokens.kind(at) == Tokens.WORD && (isWord(at - 1, "instanceof") || isWord(at - 1, "is"));
    }

    private boolean mayBeginAfterSign(int token, int before, int limit) {
        int sign = tokens.sign(before);
        if (sign == ')' || sign == ']') {
            boolean isCast = isCast(before) && (!tokens.opens(token) || syntax.onlyCasts);
            return endsLine(token) || (isCast ? limit <= Syntax.POSTFIX : !tokens.opens(token));
        }
        if (sign == DOT && syntax.levelOfSign(DOT) != Syntax.NONE) {
            return tokens.kind(token) != Tokens.WORD && syntax.levelOfSign(DOT) > limit;
        }
        if (sign == DOT || sign == OPTIONAL_DOT || sign == COLONS || sign == '\\') {
            return false;
        }
        if (sign == ARROW && syntax.arrowMembers) {
            return false;
        }
        if (syntax.isOfName(sign) && sign != '%') {
            return tokens.end(before) < tokens.start(token);
        }
        if (sign == INCREMENT || sign == DECREMENT) {
            return isOperandEnd(before - 1) || limit <= Syntax.POSTFIX;
        }
        int angle = sign == '>' ? openingOfAngles(before) : Tokens.NONE;
        if (angle != Tokens.NONE) {
            return !tokens.opens(token) && tokens.sign(angle - 1) != DOT;
        }
        if (sign == '<' && angles(before) != Tokens.NONE) {
            return limit >= Syntax.ANY;
        }
        int level = syntax.levelOfSign(sign);
        if (syntax.isPrefix(sign) && !isOperandEnd(before - 1)) {
            return sign == SPREAD || limit <= Syntax.POSTFIX;
        }
        return level == Syntax.NONE || level > limit;
    }

    /** Whether an operand may end with a token. */
    boolean isOperandEnd(int token) {
        if (token < 0) {
            return false;
        }
        return switch (tokens.kind(token)) {
            case Tokens.NUMBER -> true;
            case Tokens.STRING -> !tokens.opens(token);
            case Tokens.WORD -> {
                Word word = tokens.word(token);
                yield word.isName() || isMember(token) || Syntax.isOperand(tokens.text(token), word);
            }
            default -> tokens.sign(token) == ')' || tokens.sign(token) == ']';
        };
    }

    private boolean isMember(int word) {
        return word > 0 && syntax.isMember(tokens.sign(word - 1));
    }

    /** Whether a closing parenthesis ends the type of a cast. */
    private boolean isCast(int closing) {
        if (!syntax.casts || tokens.sign(closing) != ')') {
            return false;
        }
        int opening = tokens.opening(closing);
        return opening != Tokens.NONE
                && isTypeInParentheses(opening)
                && !isOperandEnd(opening - 1)
                && !isHeadBefore(opening);
    }

    private boolean isHeadBefore(int token) {
        return token > 0 && tokens.kind(token - 1) == Tokens.WORD && Syntax.isHead(tokens.text(token - 1));
    }

    private boolean isTypeInParentheses(int opening) {
        int closing = tokens.mate(opening);
        boolean named = false;
        for (int at = opening + 1; at < closing; at++) {
            int sign = tokens.sign(at);
            boolean isWord = tokens.kind(at) == Tokens.WORD;
            named |= isWord;
            boolean isOfType = isWord
                    || sign == '.'
                    || sign == '<'
                    || sign == '>'
                    || sign == '['
                    || sign == ']'
                    || sign == '*'
                    || sign == ','
                    || sign == '?'
                    || sign == '&'
                    || sign == COLONS
                    || sign == '\\';
            if (!isOfType) {
                return false;
            }
        }
        return named;
    }

    /** Whether a line ends before a token, and the statement with it. */
    private boolean endsLine(int token) {
        if (!syntax.linesEnd || token >= tokens.size() || !tokens.breaksBefore(token)) {
            return false;
        }
        int around = tokens.around(token);
        return around == Tokens.NONE || tokens.sign(around) != '(' && tokens.sign(around) != '[';
    }

    /** Whether a token stands between a word such as {@code if} and the brace of its block. */
    private boolean isInHead(int token) {
        if (!syntax.bracesBehind) {
            return false;
        }
        int around = tokens.around(token);
        for (int at = token - 1; at > around && token - at < LONGEST_HEAD; at--) {
            int sign = tokens.sign(at);
            if (sign == '{' || sign == '}') {
                return false;
            }
            if (tokens.kind(at) == Tokens.WORD && !tokens.word(at).isName() && Syntax.isHead(tokens.text(at))) {
                return true;
            }
            if (endsLine(at)) {
                return false;
            }
        }
        return false;
    }

    private boolean isWord(int token, String text) {
        return tokens.kind(token) == Tokens.WORD && tokens.text(token).equals(text);
    }

    /** The token behind an operator in front of an operand; the same token if there is none. */
    private int prefix(int at, int limit) {
        int sign = tokens.sign(at);
        if (sign != 0) {
            if (syntax.isOfName(sign) && at + 1 < tokens.size() && tokens.kind(at + 1) == Tokens.WORD) {
                return at + 1;
            }
            if (limit > Syntax.POSTFIX && syntax.isPrefix(sign)) {
                return at + 1;
            }
            boolean isCast = syntax.casts
                    && sign == '('
                    && limit > Syntax.POSTFIX
                    && tokens.mate(at) != Tokens.NONE
                    && !isHeadBefore(at)
                    && isTypeInParentheses(at)
                    && beginsOperandAfterCast(tokens.mate(at) + 1);
            return isCast ? tokens.mate(at) + 1 : at;
        }
        if (tokens.kind(at) != Tokens.WORD || tokens.word(at).isName()) {
            return at;
        }
        String text = tokens.text(at);
        return text.equals("new") || limit > Syntax.POSTFIX && Syntax.isPrefixWord(text) ? at + 1 : at;
    }

    private boolean beginsOperandAfterCast(int token) {
        return switch (tokens.kind(token)) {
            case Tokens.NUMBER, Tokens.STRING -> true;
            case Tokens.WORD -> {
                Word word = tokens.word(token);
                yield word.isName() || word.role() == Role.VALUE || isWord(token, "new");
            }
            case Tokens.SIGN ->
                tokens.sign(token) == '!'
                        || tokens.sign(token) == '~'
                        || tokens.sign(token) == '$'
                        || tokens.sign(token) == '('
                        || (tokens.sign(token) == '-' || tokens.sign(token) == '+') && isPrimitive(token - 2);
            default -> false;
        };
    }

    private boolean isPrimitive(int token) {
        return tokens.kind(token) == Tokens.WORD
                && tokens.sign(token - 1) == '('
                && tokens.word(token).role() == Role.RESERVED
                && !tokens.word(token).isName();
    }

    /** The token behind an operand; {@link Tokens#NONE} if none begins there. */
    private int operand(int at, boolean isHead) {
        switch (tokens.kind(at)) {
            case Tokens.NUMBER -> {
                return at + 1;
            }
            case Tokens.STRING -> {
                return tokens.closes(at) ? Tokens.NONE : tokens.behind(at);
            }
            case Tokens.WORD -> {
                Word word = tokens.word(at);
                if (word.isName()) {
                    return at + 1;
                }
                if (word.role() == Role.DECLARES) {
                    return function(at);
                }
                String text = tokens.text(at);
                return Syntax.isChoice(text) ? endOfBody(at + 1) : Syntax.isOperand(text, word) ? at + 1 : Tokens.NONE;
            }
            case Tokens.SIGN -> {
                boolean opens = tokens.opens(at) && (tokens.sign(at) != '{' || !isHead);
                return opens ? tokens.behind(at) : Tokens.NONE;
            }
            default -> {
                return Tokens.NONE;
            }
        }
    }

    /** A function as an operand: a word, parameters, a body. */
    private int function(int word) {
        int at = word + 1;
        if (tokens.kind(at) == Tokens.WORD && tokens.word(at).isName()) {
            at++;
        }
        if (tokens.sign(at) != '(' || tokens.mate(at) == Tokens.NONE) {
            return Tokens.NONE;
        }
        return endOfBody(tokens.mate(at) + 1);
    }

    /** The token behind the next block; {@link Tokens#NONE} if the statement ends before. */
    private int endOfBody(int from) {
        int at = from;
        for (int i = 0; i < LONGEST_SIGNATURE && at < tokens.size(); i++) {
            if (tokens.sign(at) == '{') {
                return tokens.behind(at);
            }
            if (tokens.sign(at) == ';' || tokens.closes(at)) {
                return Tokens.NONE;
            }
            at = tokens.behind(at);
            if (at == Tokens.NONE) {
                return Tokens.NONE;
            }
        }
        return Tokens.NONE;
    }

    /** The token behind what belongs to the operand before it; the same token if nothing does. */
    private int postfix(int at, boolean isHead, boolean creates) {
        if (at >= tokens.size()) {
            return at;
        }
        if (tokens.kind(at) == Tokens.STRING) {
            boolean joins = tokens.kind(at - 1) == Tokens.STRING && !tokens.closes(at) && !endsLine(at);
            return joins ? tokens.behind(at) : at;
        }
        int sign = tokens.sign(at);
        boolean breaks = endsLine(at);
        if (sign == DOT || sign == OPTIONAL_DOT || sign == COLONS) {
            return member(at + 1, at);
        }
        if (sign == ARROW && syntax.arrowMembers || sign == '\\' || sign == ':' && syntax.colonMembers) {
            return member(at + 1, at);
        }
        if (sign == '(' && syntax.onlyCasts && isCast(at - 1)) {
            return at;
        }
        if (sign == '(' || sign == '[') {
            return breaks || tokens.mate(at) == Tokens.NONE ? at : tokens.mate(at) + 1;
        }
        if (sign == '{') {
            boolean belongs = (creates || syntax.bracesBehind && !isHead)
                    && !tokens.breaksBefore(at)
                    && tokens.mate(at) != Tokens.NONE;
            return belongs ? tokens.mate(at) + 1 : at;
        }
        if (sign == INCREMENT || sign == DECREMENT) {
            return tokens.breaksBefore(at) ? at : at + 1;
        }
        if (sign == '<') {
            int behind = angles(at);
            return behind == Tokens.NONE ? at : behind;
        }
        if ((sign == '!' || sign == '?') && syntax.marksBehind && !tokens.breaksBefore(at)) {
            return mark(at, sign);
        }
        return at;
    }

    private int mark(int at, int sign) {
        if (syntax.isRust && sign == '!' && at + 1 < tokens.size() && tokens.opens(at + 1)) {
            int behind = tokens.behind(at + 1);
            return behind == Tokens.NONE ? at : behind;
        }
        boolean beginsOperand = switch (tokens.kind(at + 1)) {
            case Tokens.NUMBER, Tokens.STRING -> true;
            case Tokens.WORD -> !endsLine(at + 1);
            case Tokens.SIGN -> tokens.sign(at + 1) == '(' && sign == '?' && !syntax.isRust;
            default -> false;
        };
        return beginsOperand ? at : at + 1;
    }

    private int member(int name, int otherwise) {
        byte kind = tokens.kind(name);
        if (kind == Tokens.WORD || kind == Tokens.NUMBER) {
            return isWord(name, "new") && tokens.kind(name + 1) == Tokens.WORD ? name + 2 : name + 1;
        }
        if (kind == Tokens.SIGN && tokens.opens(name) && tokens.mate(name) != Tokens.NONE) {
            return tokens.mate(name) + 1;
        }
        int behind = tokens.sign(name) == '<' ? angles(name) : Tokens.NONE; // Lists.<String>of()
        return behind != Tokens.NONE && tokens.kind(behind) == Tokens.WORD ? behind + 1 : otherwise;
    }

    /** The token behind an operator between operands; {@link Tokens#NONE} if there is none so tight. */
    private int infix(int at, int limit) {
        levelFound = Syntax.NONE;
        if (at >= tokens.size()) {
            return Tokens.NONE;
        }
        int next = at + 1;
        int sign = tokens.sign(at);
        if (sign != 0) {
            boolean canBegin = syntax.isPrefix(sign) && sign != Syntax.code("&&");
            if (canBegin && endsLine(at)) {
                return Tokens.NONE;
            }
            levelFound = Syntax.assigns(sign) ? Syntax.ASSIGN : syntax.levelOfSign(sign);
            if ((sign == '<' || sign == '>') && tokens.sign(next) == sign && tokens.end(at) == tokens.start(next)) {
                levelFound = Syntax.SHIFT;
                next += tokens.sign(next + 1) == sign && tokens.end(next) == tokens.start(next + 1) ? 2 : 1;
            } else if (sign == '!' && (isWord(next, "in") || isWord(next, "is"))) {
                levelFound = Syntax.COMPARE;
                next++;
            }
        } else if (tokens.kind(at) == Tokens.WORD && !tokens.word(at).isName() && !endsLine(at)) {
            levelFound = syntax.levelOfWord(tokens.text(at));
            if (isWord(at, "as") && (tokens.sign(next) == '?' || tokens.sign(next) == '!')) {
                next++;
            }
            if (isWord(at, "not")
                    && syntax.levelOfWord(tokens.kind(next) == Tokens.WORD ? tokens.text(next) : "") > 0) {
                levelFound = Syntax.COMPARE;
                next++;
            }
        }
        return levelFound == Syntax.NONE || levelFound > limit ? Tokens.NONE : next;
    }

    /** The token behind {@code <…>}, if that holds types; {@link Tokens#NONE} if it compares. */
    private int angles(int opening) {
        int closing = endOfAngles(opening);
        if (closing == Tokens.NONE) {
            return Tokens.NONE;
        }
        int next = closing + 1;
        int sign = tokens.sign(next);
        boolean follows = sign == '('
                || sign == COLONS
                || sign == '{'
                || sign == '['
                || sign == DOT
                || sign == '>'
                || tokens.kind(next) == Tokens.WORD && tokens.word(next).isName();
        return follows ? next : Tokens.NONE;
    }

    private int endOfAngles(int opening) {
        int depth = 0;
        int at = opening;
        while (at < tokens.size() && at - opening < LONGEST_ANGLES) {
            int sign = tokens.sign(at);
            if (sign == '<') {
                depth++;
            } else if (sign == '>') {
                if (--depth == 0) {
                    return at;
                }
            } else if (sign == '(' || sign == '[') {
                at = tokens.mate(at);
                if (at == Tokens.NONE) {
                    return Tokens.NONE;
                }
            } else if (sign != 0 && !isOfTypes(sign)) {
                return Tokens.NONE;
            }
            at++;
        }
        return Tokens.NONE;
    }

    private static boolean isOfTypes(int sign) {
        return sign == ','
                || sign == '.'
                || sign == '?'
                || sign == '&'
                || sign == '*'
                || sign == '|'
                || sign == '\''
                || sign == '@'
                || sign == COLONS
                || sign == ARROW
                || sign == Syntax.code("=>");
    }

    /** The {@code <} that a {@code >} closes, behind a name or a dot; {@link Tokens#NONE} if it compares. */
    private int openingOfAngles(int closing) {
        int depth = 0;
        for (int at = closing; at > 0 && closing - at < LONGEST_ANGLES; at--) {
            int sign = tokens.sign(at);
            if (sign == '>') {
                depth++;
            } else if (sign == '<') {
                if (--depth == 0) {
                    return endOfAngles(at) == closing ? at : Tokens.NONE;
                }
            } else if (sign != 0 && !isOfTypes(sign) && sign != ']' && sign != '[') {
                return Tokens.NONE;
            }
        }
        return Tokens.NONE;
    }
}
