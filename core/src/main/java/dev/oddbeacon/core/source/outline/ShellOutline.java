package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Word;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;

/**
 * Shell: functions, aliases, and variables that are set outside functions. Follows commands and what stands in brackets, so
 * that a pattern, an argument or a value is taken for no command; tokens that stand directly side by side are one word.
 */
final class ShellOutline implements Outline {
    private static final int DEEPEST = 1_000;
    private static final int MOST_ESCAPED = 32;
    private static final int LONGEST_SUBSCRIPT = 200;

    private enum Place {
        FILE(true),
        /** {@code { … }}. */
        GROUP(true),
        /** {@code ( … )}. */
        SUBSHELL(true),
        /** {@code $( … )}. */
        SUBSTITUTION(true),
        /** {@code "… $( … ) …"}. */
        IN_STRING(true),
        /** Behind a pattern of {@code case}. */
        BRANCH(true),
        /** Between {@code case} and {@code in}. */
        SUBJECT(false),
        PATTERN(false),
        /** {@code (( … ))}, {@code [ ( … ]}, the values of an array, and the like. */
        BRACKETS(false),
        /** {@code ${ … }}. */
        EXPANSION(false),
        /** {@code [[ … ]]}. */
        TEST(false);

        private final boolean holdsCommands;

        Place(boolean holdsCommands) {
            this.holdsCommands = holdsCommands;
        }
    }

    /** An open bracket, and the command at hand within. */
    private static final class Context {
        private Place place;
        private final int owner; // the function around
        private final int owned; // the function that ends with it
        private final int base; // its first variable among those that wait
        private boolean command; // more than variables has been read
        private boolean declares; // export, readonly, declare
        private boolean aliases;
        private int words;
        private int start; // of the first word

        Context(Place place, int owner, int owned, int base) {
            this.place = place;
            this.owner = owner;
            this.owned = owned;
            this.base = base;
        }
    }

    private final byte[] text;
    private final TextAhead ahead;
    private final Marks marks;
    private final Deque<Context> around = new ArrayDeque<>();
    private Context top = new Context(Place.FILE, Marks.NONE, Marks.NONE, 0);
    private int substitutions; // that are open
    private int ignored; // contexts beyond the deepest
    private int[] variables = new int[16]; // that wait for the end of their command: starts and ends
    private int waiting;
    private int lastEnd = -1;
    private byte lastSign;
    private int naming = -1; // where the name behind the word function starts; -2 before it
    private int function = Marks.NONE; // whose body is to come

    ShellOutline(byte[] text, Marks marks) {
        this.text = text;
        this.ahead = new TextAhead(text);
        this.marks = marks;
    }

    @Override
    public void word(int start, int end, Word word) {
        boolean isFirst = begin(start);
        if (isFirst && top.place == Place.SUBJECT && ahead.is(start, end, "in")) {
            top.place = Place.PATTERN;
        } else if (isFirst && top.place == Place.PATTERN && ahead.is(start, end, "esac") && isWhole(end)) {
            pop(end);
            top.command = true;
        } else if (isFirst && top.place.holdsCommands && naming == -1) {
            if (!top.command) {
                first(start, end, word);
            } else if (top.declares && end < text.length && text[end] == '=') {
                declare(start, end, top.aliases ? Kind.FUNCTION : Kind.VARIABLE);
            }
        }
        token(end, (byte) 0);
    }

    /** The first word of a command, or one behind variables that are set. */
    private void first(int start, int end, Word word) {
        if (isWhole(end) && reserved(start, end, word)) {
            return;
        }
        if (isAssigned(end)) {
            if (text[end] == '=') {
                if (waiting + 2 > variables.length) {
                    variables = Arrays.copyOf(variables, waiting * 2);
                }
                variables[waiting++] = start;
                variables[waiting++] = end;
            }
            return;
        }
        command(start);
        top.declares = isWhole(end) && word.role() == Word.Role.MODIFIER;
        top.aliases = top.declares && ahead.is(start, end, "alias");
    }

    private void command(int start) {
        top.command = true;
        top.words = 1;
        top.start = start;
        waiting = top.base;
    }

    /** {@code name=}, {@code name+=}, {@code name[at]=}. */
    private boolean isAssigned(int end) {
        int i = end;
        if (i < text.length && text[i] == '[') {
            while (i < text.length && i < end + LONGEST_SUBSCRIPT && text[i] != ']' && text[i] != '\n') {
                i++;
            }
            i++;
        }
        i += i < text.length && text[i] == '+' ? 1 : 0;
        return i < text.length && text[i] == '=';
    }

    private boolean reserved(int start, int end, Word word) {
        if (word.role() == Word.Role.DECLARES) {
            naming = -2;
            top.command = true;
            top.start = start;
            return true;
        }
        if (word.role() != Word.Role.STATEMENT) {
            return false;
        }
        if (ahead.is(start, end, "case")) {
            push(Place.SUBJECT, top.owner, Marks.NONE);
        } else if (ahead.is(start, end, "esac")) {
            if (top.place == Place.BRANCH) {
                pop(end);
            }
            top.command = true;
        } else {
            top.command = ahead.is(start, end, "fi")
                    || ahead.is(start, end, "done")
                    || ahead.is(start, end, "for")
                    || ahead.is(start, end, "select")
                    || ahead.is(start, end, "in");
        }
        function = Marks.NONE;
        return true;
    }

    @Override
    public void literal(int start, int end) {
        if (text[start] == ')' && !around.isEmpty()) { // the string around goes on
            while (top.place != Place.IN_STRING && !around.isEmpty()) {
                pop(start);
            }
            if (!around.isEmpty()) {
                pop(start);
            }
            token(start, (byte) 0);
        }
        if (begin(start) && top.place.holdsCommands && !top.command) {
            command(start);
        }
        token(end, (byte) 0);
        if (end - start >= 2 && text[end - 1] == '(' && text[end - 2] == '$') {
            push(Place.IN_STRING, top.owner, Marks.NONE);
        }
    }

    @Override
    public void sign(int at, byte sign) {
        switch (sign) {
            case '(' -> opens(at);
            case ')' -> {
                boolean joins = top.place == Place.SUBSTITUTION || top.place == Place.BRACKETS;
                closes(at);
                token(at + 1, joins && function == Marks.NONE ? 0 : sign);
                return;
            }
            case '{' -> {
                if (lastSign == '$' && lastEnd == at) {
                    push(Place.EXPANSION, top.owner, Marks.NONE);
                } else if (startsGroup(at)) {
                    int body = function;
                    function = Marks.NONE;
                    naming = -1;
                    push(Place.GROUP, body == Marks.NONE ? top.owner : body, body);
                } else {
                    other(at);
                }
            }
            case '}' -> {
                if (top.place == Place.EXPANSION) {
                    pop(at + 1);
                } else if (top.place == Place.GROUP && !top.command && lastEnd < at) {
                    endCommand();
                    pop(at + 1);
                    top.command = true;
                } else if (top.place == Place.GROUP && lastSign == ';') {
                    pop(at + 1);
                    top.command = true;
                } else {
                    other(at);
                }
            }
            case ';' -> {
                boolean endsBranch = lastSign == ';' && lastEnd == at || at + 1 < text.length && text[at + 1] == '&';
                if (top.place.holdsCommands) {
                    endCommand();
                    if (endsBranch && top.place == Place.BRANCH) {
                        top.place = Place.PATTERN;
                    }
                }
            }
            case '|', '&' -> {
                boolean redirects = lastEnd == at && (lastSign == '>' || lastSign == '<')
                        || sign == '&' && at + 1 < text.length && text[at + 1] == '>';
                if (!redirects && top.place.holdsCommands) {
                    endCommand();
                }
            }
            case '[' -> {
                boolean isTest = lastSign == '[' && lastEnd == at && top.place.holdsCommands && top.start == at - 1;
                if (isTest && at + 1 < text.length && text[at + 1] <= ' ') {
                    push(Place.TEST, top.owner, Marks.NONE);
                } else {
                    other(at);
                }
            }
            case ']' -> {
                if (top.place == Place.TEST && lastSign == ']' && lastEnd == at) {
                    pop(at + 1);
                }
            }
            case '!' -> {
                if (begin(at) && !top.command && isWhole(at + 1)) {
                    break;
                }
                other(at);
            }
            default -> other(at);
        }
        token(at + 1, sign);
    }

    /** A sign that is a part of a word. */
    private void other(int at) {
        if (begin(at) && top.place.holdsCommands && !top.command) {
            command(at);
        }
    }

    private boolean startsGroup(int at) {
        boolean isOwn = at + 1 == text.length || text[at + 1] >= 0 && text[at + 1] <= ' ';
        return isOwn && top.place.holdsCommands && (!top.command || function != Marks.NONE || naming >= 0 && named(at));
    }

    private void opens(int at) {
        boolean adjacent = lastEnd == at;
        boolean isDouble = at + 1 < text.length && text[at + 1] == '(';
        if (!top.place.holdsCommands) {
            boolean begins = top.place == Place.PATTERN && !adjacent;
            if (!begins && top.place != Place.TEST || adjacent && lastSign == '$') {
                push(
                        adjacent && lastSign == '$' && !isDouble ? Place.SUBSTITUTION : Place.BRACKETS,
                        top.owner,
                        Marks.NONE);
            }
        } else if (isDouble && (!adjacent || lastSign == '$')) {
            top.command = true;
            push(Place.BRACKETS, top.owner, Marks.NONE);
        } else if (adjacent && (lastSign == '$' || lastSign == '<' || lastSign == '>')) {
            push(Place.SUBSTITUTION, top.owner, Marks.NONE);
        } else if (naming >= 0) {
            named(at);
            push(Place.BRACKETS, top.owner, Marks.NONE);
        } else if (top.command && top.words == 1 && closesAtOnce(at)) {
            function = marks.add(Kind.FUNCTION, top.owner, top.start, top.start, lastEnd);
            marks.headEnd(function, at + 1);
            push(Place.BRACKETS, top.owner, Marks.NONE);
        } else if (!top.command && !(adjacent && lastSign == '=')) {
            int body = function;
            function = Marks.NONE;
            push(Place.SUBSHELL, body == Marks.NONE ? top.owner : body, body);
        } else {
            push(Place.BRACKETS, top.owner, Marks.NONE);
        }
    }

    private boolean closesAtOnce(int open) {
        int i = ahead.behindSpaces(open + 1);
        return i < text.length && text[i] == ')';
    }

    private void closes(int at) {
        switch (top.place) {
            case PATTERN -> {
                top.place = Place.BRANCH;
                top.command = false;
                top.words = 0;
            }
            case BRACKETS, SUBSTITUTION -> {
                endCommand();
                pop(at + 1);
                if (function != Marks.NONE) {
                    top.command = false; // its body follows
                    top.words = 0;
                }
            }
            case SUBSHELL -> {
                endCommand();
                pop(at + 1);
                top.command = true;
            }
            default -> {}
        }
    }

    /** @return whether a word begins here, as a token that the one before does not touch */
    private boolean begin(int start) {
        boolean isFirst = endsWord(lastSign) || !touches(start);
        if (isFirst && naming == -2) {
            naming = start;
        } else if (isFirst && naming >= 0) {
            named(start);
        }
        if (isFirst && top.command) {
            top.words++;
        }
        return isFirst;
    }

    /** Whether nothing but characters without a meaning stand between the last token and an offset. */
    private boolean touches(int start) {
        int at = lastEnd;
        while (at >= 0 && at < start && at >= start - MOST_ESCAPED && (text[at] < 0 || text[at] > ' ')) {
            at++;
        }
        return at == start;
    }

    private static boolean endsWord(byte sign) {
        return sign == ';' || sign == '|' || sign == '&' || sign == '(' || sign == ')';
    }

    /** The name behind the word function is complete. */
    private boolean named(int at) {
        if (lastEnd > naming) {
            function = marks.add(Kind.FUNCTION, top.owner, top.start, naming, lastEnd);
            marks.headEnd(function, lastEnd);
        }
        naming = -1;
        return function != Marks.NONE && at >= 0;
    }

    private void token(int end, byte sign) {
        lastEnd = end;
        lastSign = sign;
    }

    /** Whether no more of a word follows. */
    private boolean isWhole(int end) {
        return end >= text.length || text[end] >= 0 && text[end] <= ' ' || ";&|()<>".indexOf(text[end]) >= 0;
    }

    private void endCommand() {
        for (int i = top.base; i < waiting; i += 2) {
            declare(variables[i], variables[i + 1], Kind.VARIABLE);
        }
        waiting = top.base;
        top.command = false;
        top.declares = false;
        top.words = 0;
        naming = -1;
    }

    private void declare(int start, int end, Kind kind) {
        if (top.owner == Marks.NONE && substitutions == 0 && !marks.knows(Marks.NONE, start, end)) {
            marks.add(kind, Marks.NONE, start, start, end);
        }
    }

    private void push(Place place, int owner, int owned) {
        if (around.size() >= DEEPEST) {
            ignored++;
            return;
        }
        substitutions += place == Place.SUBSTITUTION || place == Place.IN_STRING ? 1 : 0;
        around.push(top);
        top = new Context(place, owner, owned, waiting);
    }

    private void pop(int at) {
        if (ignored > 0) {
            ignored--;
            return;
        }
        if (around.isEmpty()) {
            return;
        }
        if (top.owned != Marks.NONE) {
            marks.end(top.owned, at);
        }
        waiting = top.base;
        substitutions -= top.place == Place.SUBSTITUTION || top.place == Place.IN_STRING ? 1 : 0;
        top = around.pop();
    }

    @Override
    public void line(int at) {
        if (top.place.holdsCommands) {
            if (naming >= 0) {
                named(at);
            }
            endCommand();
        }
        lastSign = 0;
        lastEnd = -1;
    }

    @Override
    public void finish(int end) {
        while (!around.isEmpty()) {
            endCommand();
            pop(Math.max(lastEnd, 0));
        }
        endCommand();
    }
}
