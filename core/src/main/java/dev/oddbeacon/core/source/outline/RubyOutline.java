package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Word;
import java.util.Arrays;

/** Ruby: blocks are closed by a word, statements end with their lines. */
final class RubyOutline implements Outline {
    private static final int DEEPEST = 2_000;

    private final byte[] text;
    private final Marks marks;
    private int[] owners = new int[32]; // of each open block: a mark, or that of the block around
    private boolean[] owns = new boolean[32];
    private int depth;
    private int ignored;
    // of the line at hand
    private int tokens;
    private byte lastSign; // 0 if the last token was a word or a literal
    private boolean lastIsValue;
    private boolean lastIsSymbol;
    private boolean loop; // while x do: the do belongs to it
    private int firstStart;
    private int firstEnd;
    private boolean firstIsName;
    private int chainStart; // of a.b:c at the start of the line
    private int lastEnd;
    // of a declaration whose name is to come
    private Kind kind;
    private int start;
    private int nameStart;
    private int nameEnd;
    private int nameFrom;
    private int list = Marks.NONE; // attr_reader :a, :b
    private int supertypeOf = Marks.NONE;
    private int superStart = -1;
    private int superEnd;
    private int brackets;
    private int braces;
    private int[] bracketsAround = new int[32]; // of each open brace

    RubyOutline(byte[] text, Marks marks) {
        this.text = text;
        this.marks = marks;
    }

    private int owner() {
        return depth == 0 ? Marks.NONE : owners[depth - 1];
    }

    @Override
    public void word(int from, int to, Word word) {
        if (kind != null) {
            if (name(from, to, word)) {
                lastEnd = to;
                lastSign = 0;
                return;
            }
        }
        if (supertypeOf != Marks.NONE && word.isName()) {
            superStart = from;
            superEnd = to;
        }
        boolean isFirst = tokens == 0;
        if (isFirst) {
            firstStart = from;
            firstEnd = to;
            firstIsName = word.isName();
            chainStart = from;
        } else if (lastSign == '.' || lastSign == ':') {
            if (list != Marks.NONE && lastSign == ':') {
                field(from, to);
            }
            boolean isNested =
                    firstIsName && from >= 2 && firstEnd == from - 2 && text[from - 1] == ':' && text[from - 2] == ':';
            if (isNested || firstIsName && tokens <= 8 && tokens % 2 == 0) {
                firstStart = from;
                firstEnd = to;
            }
        }
        boolean isMember = lastSign == '.' && tokens > 0
                || from > 0 && (text[from - 1] == ':' || text[from - 1] == '@' || text[from - 1] == '$')
                || text.length > to && text[to] == ':' && (to + 1 >= text.length || text[to + 1] != ':');
        if (!isMember) {
            role(from, to, word, isFirst);
        }
        lastIsSymbol = from > 0 && text[from - 1] == ':' && !(from > 1 && text[from - 2] == ':');
        if (isFirst && isAttribute(from, to)) {
            list = 0;
        }
        token((byte) 0, to);
        lastIsValue = word.isName() || word.role() == Word.Role.VALUE || word.role() == Word.Role.CLOSES;
        if (loop && !lastIsValue && !isFirst) {
            lastSign = '|'; // until a or: its condition goes on
        }
    }

    private void role(int from, int to, Word word, boolean isFirst) {
        switch (word.role()) {
            case DECLARES -> {
                kind = word.kind();
                start = from;
                nameStart = -1;
                nameFrom = to;
                open(Marks.NONE);
            }
            case OPENS -> {
                if (!(loop && to - from == 2)) {
                    open(Marks.NONE);
                }
                loop = false;
            }
            case OPENS_FIRST -> {
                if (isFirst || !lastIsValue && lastSign != 0) {
                    open(Marks.NONE);
                    loop = to - from == 5 || to - from == 3; // while, until, for
                }
            }
            case CLOSES -> close(to);
            default -> {}
        }
    }

    private boolean isAttribute(int from, int to) {
        return to - from >= 11
                && text[from] == 'a'
                && text[from + 1] == 't'
                && text[from + 2] == 't'
                && text[from + 3] == 'r'
                && text[from + 4] == '_';
    }

    private void field(int from, int to) {
        int mark = marks.add(Kind.FIELD, owner(), from, from, to);
        marks.end(mark, to);
    }

    /** {@code self.}, before the name of a method. */
    private boolean isSelf(int from, int to) {
        return to - from == 4
                && to < text.length
                && (text[to] == '.' || text[to] == ':')
                && text[from] == 's'
                && text[from + 1] == 'e'
                && text[from + 2] == 'l'
                && text[from + 3] == 'f';
    }

    /** Takes a part of the name of a declaration. @return false if the name has ended */
    private boolean name(int from, int to, Word word) {
        boolean joins = nameStart >= 0 && (lastSign == '.' || lastSign == ':') && lastJoined == from;
        if (nameStart < 0 || joins) {
            if (nameStart < 0 && isSelf(from, to)) {
                lastJoined = -1;
                nameFrom = to;
                return true;
            }
            if (nameStart < 0 && !word.isName() && !(from == nameFrom + 1 && kind.isCallable())) {
                if (text[from] == 's') { // self
                    lastJoined = -1;
                    nameFrom = to;
                    return true;
                }
                kind = null;
                return false;
            }
            if (nameStart >= 0) {
                qualifierStart = qualifierStart < 0 ? nameStart : qualifierStart;
                qualifierEnd = nameEnd;
            } else {
                qualifierStart = -1;
            }
            nameStart = from;
            nameEnd = to;
            return true;
        }
        declare();
        return false;
    }

    private int lastJoined = -1; // where the next part of a chain would begin
    private int qualifierStart = -1;
    private int qualifierEnd;

    private void declare() {
        if (kind == null) {
            return;
        }
        if (nameStart >= 0) {
            int parent = depth >= 2 ? owners[depth - 2] : Marks.NONE;
            Kind found = kind == Kind.FUNCTION
                            && (parent != Marks.NONE && !marks.kind(parent).isCallable() || qualifierStart >= 0)
                    ? Kind.METHOD
                    : kind;
            int mark = marks.add(found, parent, start, nameStart, nameEnd);
            if (qualifierStart >= 0) {
                marks.qualifier(mark, qualifierStart, qualifierEnd);
            }
            if (depth > 0 && ignored == 0) {
                owners[depth - 1] = mark;
                owns[depth - 1] = true;
            }
            if (found == Kind.CLASS) {
                supertypeOf = mark;
                superStart = -1;
            }
            lastDeclared = mark;
        } else if (depth > 0) {
            owners[depth - 1] = depth > 1 ? owners[depth - 2] : Marks.NONE;
        }
        kind = null;
    }

    private int lastDeclared = Marks.NONE;

    private void open(int mark) {
        if (depth >= DEEPEST) {
            ignored++;
            return;
        }
        if (depth == owners.length) {
            owners = Arrays.copyOf(owners, depth * 2);
            owns = Arrays.copyOf(owns, depth * 2);
        }
        owners[depth] = mark == Marks.NONE ? owner() : mark;
        owns[depth++] = mark != Marks.NONE;
    }

    private void close(int at) {
        if (ignored > 0) {
            ignored--;
        } else if (depth > 0) {
            depth--;
            if (owns[depth]) {
                marks.end(owners[depth], at);
            }
            owns[depth] = false;
        }
    }

    @Override
    public void literal(int from, int to) {
        declare();
        if (list != Marks.NONE && to - from > 2 && (text[from] == '"' || text[from] == '\'')) {
            field(from + 1, to - 1);
        }
        boolean isCodeInside = to - from >= 2 && text[to - 1] == '{' && text[to - 2] == '#';
        token(isCodeInside ? (byte) '{' : 0, to);
        lastIsValue = !isCodeInside;
    }

    @Override
    public void sign(int at, byte sign) {
        if (sign == '{' || sign == '}') {
            brace(sign == '{');
        } else {
            brackets += sign == '(' || sign == '[' ? 1 : sign == ')' || sign == ']' ? -1 : 0;
        }
        if (kind != null) {
            if (nameStart < 0 && kind.isCallable() && "=<>!+-*/%[]~^&|`".indexOf(sign) >= 0) {
                qualifierStart = -1;
                operator(at);
                return;
            }
            if (nameStart >= 0
                    && kind.isCallable()
                    && lastSign == '.'
                    && lastJoined == at
                    && "=<>!+-*/%[~^&|`".indexOf(sign) >= 0) {
                qualifierStart = qualifierStart < 0 ? nameStart : qualifierStart;
                qualifierEnd = nameEnd;
                operator(at); // def it.<=>(other)
                return;
            }
            if ((sign == '.' || sign == ':') && (nameStart >= 0 && nameEnd >= at - 1 || nameStart < 0)) {
                lastSign = sign;
                lastJoined = at + 1;
                return;
            }
            if (sign == '='
                    && nameStart >= 0
                    && nameEnd == at
                    && kind.isCallable()
                    && !(at + 1 < text.length && (text[at + 1] == '=' || text[at + 1] == '~' || text[at + 1] == '>'))) {
                nameEnd = at + 1; // name=(value), name= value
                return;
            }
            if (sign == '<' && nameStart < 0 && kind == Kind.CLASS) { // class << self
                owners[depth - 1] = depth > 1 ? owners[depth - 2] : Marks.NONE;
                kind = null;
            }
            boolean isEndless = sign == '=' && nameStart >= 0 && nameEnd < at && kind.isCallable(); // def name = value
            if (nameStart >= 0) {
                declare();
            } else if (sign == '(') {
                declare();
            }
            if (isEndless) {
                close(at);
            }
        }
        if (sign == '=' && lastIsSymbol && lastEnd == at) {
            lastEnd = at + 1; // :name=
            return;
        }
        if (sign == '='
                && tokens > 0
                && !(at + 1 < text.length && (text[at + 1] == '=' || text[at + 1] == '~' || text[at + 1] == '>'))
                && lastSign == 0
                && !lastWasCompound(at)) {
            assigned(at);
        }
        if (sign == '='
                && lastDeclared != Marks.NONE
                && (lastSign == ')' || nameEnd < at && blank(nameEnd, at))
                && brackets == 0
                && depth > 0
                && owns[depth - 1]
                && owners[depth - 1] == lastDeclared
                && marks.kind(lastDeclared).isCallable()) {
            close(at); // def name(x) = value
        }
        if (sign == ';') {
            endLine();
            return;
        }
        token(sign, at + 1);
        lastIsValue = sign == ')' || sign == ']' || sign == '}';
    }

    /** Statements begin anew in a block; behind it, brackets around it are open still. */
    private void brace(boolean opens) {
        if (opens) {
            if (braces == bracketsAround.length) {
                bracketsAround = Arrays.copyOf(bracketsAround, braces * 2);
            }
            if (braces < DEEPEST) {
                bracketsAround[braces] = brackets;
            }
            braces = Math.min(braces + 1, DEEPEST);
            brackets = 0;
        } else if (braces > 0) {
            brackets = bracketsAround[--braces];
        }
    }

    private boolean lastWasCompound(int at) {
        return at > 0 && "+-*/|&!<>=^%~".indexOf(text[at - 1]) >= 0;
    }

    /** {@code def ==(other)}, {@code def [](key)}. */
    private void operator(int at) {
        if (nameEnd == at && operatorStart >= 0) {
            nameEnd = at + 1;
            return;
        }
        operatorStart = at;
        int end = at;
        while (end < text.length && "=<>!+-*/%[]~^&|`@".indexOf(text[end]) >= 0) {
            end++;
        }
        nameStart = at;
        nameEnd = end;
        declare();
        operatorStart = -1;
    }

    private int operatorStart = -1;

    /** The line begins with {@code name =}. */
    private void assigned(int at) {
        if (!firstIsName || firstEnd > at || brackets != 0 || !blank(firstEnd, at)) {
            return;
        }
        int owner = owner();
        boolean inFunction = owner != Marks.NONE && marks.kind(owner).isCallable();
        boolean isConstant = text[firstStart] >= 'A' && text[firstStart] <= 'Z';
        if (inFunction
                || !isConstant
                || firstStart != chainStart && text[firstStart - 1] != ':'
                || marks.knows(owner, chainStart, firstEnd)) {
            return;
        }
        int mark = marks.add(Kind.CONSTANT, owner, chainStart, firstStart, firstEnd);
        if (firstStart != chainStart) {
            marks.qualifier(mark, chainStart, firstStart - 2);
        }
        marks.headEnd(mark, firstEnd);
        assigned = mark;
    }

    private int assigned = Marks.NONE;

    private boolean blank(int from, int to) {
        for (int i = from; i < to; i++) {
            if (text[i] != ' ' && text[i] != '\t') {
                return false;
            }
        }
        return true;
    }

    private void token(byte sign, int end) {
        tokens++;
        lastSign = sign;
        lastEnd = end;
        if (sign != 0 && sign != '.' && sign != ':') {
            tokens += tokens % 2 == 0 ? 1 : 0; // no chain any more
        }
    }

    @Override
    public void line(int at) {
        if (lastSign == ','
                || lastSign == '.'
                || loop && lastSign != 0 && !lastIsValue
                || brackets > 0 && tokens > 0 && lastSign != 0) {
            return; // goes on
        }
        endLine();
    }

    private void endLine() {
        declare();
        if (supertypeOf != Marks.NONE && superStart >= 0) {
            marks.add(Kind.SUPERTYPE, supertypeOf, superStart, superStart, superEnd);
        }
        if (lastDeclared != Marks.NONE) {
            marks.headEnd(lastDeclared, lastEnd);
            marks.end(lastDeclared, lastEnd);
            lastDeclared = Marks.NONE;
        }
        if (assigned != Marks.NONE) {
            marks.end(assigned, lastEnd);
            assigned = Marks.NONE;
        }
        supertypeOf = Marks.NONE;
        list = Marks.NONE;
        tokens = 0;
        lastSign = 0;
        lastIsValue = false;
        loop = false;
        firstIsName = false;
        brackets = 0;
    }

    @Override
    public void finish(int end) {
        endLine();
        while (depth > 0) {
            close(lastEnd);
        }
    }
}
