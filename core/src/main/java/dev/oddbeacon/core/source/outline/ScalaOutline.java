package dev.oddbeacon.core.source.outline;

import dev.oddbeacon.core.source.Kind;
import dev.oddbeacon.core.source.language.Word;
import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Scala, with braces and without: a declaration goes on until a line begins that is indented no deeper, unless that line can
 * only go on with what stands before it.
 */
final class ScalaOutline implements Outline {
    private static final int DEEPEST = 1_000;
    private static final int LONGEST_LOOK = 2_000;
    private static final String OPERATORS = "!#%&*+-/:<=>?@\\^|~";

    private enum Role {
        /** Members of a type, or what stands in a file. */
        TEMPLATE,
        CODE,
        /** Parameters of a type, which may be fields. */
        PARAMETERS,
        OTHER
    }

    /** A declaration that goes on. */
    private static final class Open {
        private final Open outer; // in the same bracket
        private final int mark; // or that of what is around, if it has no name
        private final boolean owned;
        private final int column;
        private boolean holdsMembers;
        private boolean isType; // its head may have parameters and supertypes
        private boolean isCase;
        private int lists; // of parameters
        private boolean inHead = true;

        Open(Open outer, int mark, boolean owned, int column) {
            this.outer = outer;
            this.mark = mark;
            this.owned = owned;
            this.column = column;
        }
    }

    /** An open bracket, or the file. */
    private static final class Bracket {
        private final byte sign;
        private final Role role;
        private int owner;
        private final boolean allFields; // of a case class
        private final boolean endsDeclaration; // with its closing bracket
        private Open open;
        private boolean makesNew; // behind the word new
        private boolean imports;
        private int heldModifiers = -1; // while a bracket within is open
        private int heldSupertype = Marks.NONE;
        private int parameter = -1; // where the name of one begins
        private int parameterEnd;
        private boolean isField;

        Bracket(byte sign, Role role, int owner, boolean allFields, boolean endsDeclaration) {
            this.sign = sign;
            this.role = role;
            this.owner = owner;
            this.allFields = allFields;
            this.endsDeclaration = endsDeclaration;
        }
    }

    private final byte[] text;
    private final TextAhead ahead;
    private final Marks marks;
    private final Deque<Bracket> around = new ArrayDeque<>();
    private Bracket top = new Bracket((byte) 0, Role.TEMPLATE, Marks.NONE, false, false);
    private final int[] opened = new int[3]; // brackets of each kind
    private int ignored; // brackets beyond the deepest
    private boolean lineBegins = true;
    private int lineStart; // of its first token
    private int lineColumn;
    private int modifiers = -1; // where they begin, before a declaration
    private boolean isCase;
    private boolean begins = true; // a statement begins
    private boolean annotation; // its name goes on
    private boolean packages; // the word before
    private boolean ends; // the word before
    private Kind kind; // of the declaration whose name is to come
    private int keyword;
    private boolean isGiven;
    private boolean further; // another name may follow behind a comma
    private Kind furtherKind;
    private boolean furtherCase;
    private int several = Marks.NONE; // the first of the marks of one pattern, which end together
    private int lastOfSeveral = Marks.NONE;
    private int skipped; // what stands before is a part of a name that has been read
    private int supertypeOf = Marks.NONE;
    private int superStart = -1;
    private int superEnd;
    private byte lastSign;
    private int lastEnd;

    ScalaOutline(byte[] text, Marks marks) {
        this.text = text;
        this.ahead = new TextAhead(text);
        this.marks = marks;
    }

    // tokens

    @Override
    public void word(int start, int end, Word word) {
        if (start < skipped) {
            return;
        }
        boolean isMember = lastSign == '.' && lastEnd == start;
        arrive(start, isMember || !ends(start) && goesOn(start, end, word));
        boolean afterEnd = ends;
        ends = begins && ahead.is(start, end, "end");
        if (top.imports) {
            begins = false;
        } else if (kind != null) {
            named(start, end);
        } else if (annotation && (lastSign == '@' || isMember)) {
            annotation = true; // its name goes on
        } else if (isMember || afterEnd) {
            plain(start, end, word);
        } else {
            annotation = false;
            meaning(start, end, word);
        }
        token(end, (byte) 0);
    }

    /** Whether a line begins with the word "end", which ends what stands before. */
    private boolean ends(int start) {
        return lineBegins && ahead.startsWith(start, "end");
    }

    private boolean goesOn(int start, int end, Word word) {
        return word.role() == Word.Role.EXTENDS
                || ahead.is(start, end, "else")
                || ahead.is(start, end, "catch")
                || ahead.is(start, end, "finally")
                || ahead.is(start, end, "yield")
                || ahead.is(start, end, "then")
                || ahead.is(start, end, "do")
                || ahead.is(start, end, "match");
    }

    private void meaning(int start, int end, Word word) {
        boolean isPackage = packages;
        packages = false;
        switch (word.role()) {
            case MODIFIER -> {
                if (!word.isName() || begins || modifiers >= 0) {
                    modifier(start);
                    return;
                }
                plain(start, end, word);
            }
            case DECLARES -> {
                if (ahead.startsWith(end, "=\"")) { // an attribute of markup
                    plain(start, end, word);
                } else {
                    declares(start, end, word, isPackage);
                }
            }
            case EXTENDS -> {
                endSupertype();
                Open open = top.open;
                supertypeOf = open != null && open.isType && open.inHead && open.owned ? open.mark : Marks.NONE;
                forget();
            }
            case STATEMENT -> {
                top.makesNew = ahead.is(start, end, "new");
                top.imports = begins && (ahead.is(start, end, "import") || ahead.is(start, end, "export"));
                forget();
            }
            default -> plain(start, end, word);
        }
    }

    private void modifier(int start) {
        modifiers = modifiers < 0 ? start : modifiers;
    }

    private void forget() {
        modifiers = -1;
        isCase = false;
        begins = false;
        packages = false;
    }

    private void plain(int start, int end, Word word) {
        if (top.role == Role.PARAMETERS && top.parameter != -2) {
            top.parameter = start;
            top.parameterEnd = end;
        }
        if (supertypeOf != Marks.NONE && word.isName()) {
            superStart = start;
            superEnd = end;
        }
        forget();
    }

    private void declares(int start, int end, Word word, boolean isPackage) {
        switch (word.kind()) {
            case NAMESPACE -> {
                packages = true;
                int name = ahead.behindBlanks(end);
                if (!ahead.startsWith(name, "object")) {
                    keyword = start;
                    kind = Kind.NAMESPACE;
                }
            }
            case CONSTANT, VARIABLE -> {
                if (ahead.is(start, end, "case")) {
                    casePattern(start, end);
                } else if (ahead.is(start, end, "given")) {
                    given(start, end);
                } else if (top.role == Role.PARAMETERS) {
                    top.isField = true;
                } else {
                    begin(start, word.kind());
                }
            }
            case ENUM -> {
                if (begins || modifiers >= 0) {
                    begin(start, Kind.ENUM);
                } else {
                    plain(start, end, word);
                }
            }
            case EXTENSION -> {
                int next = ahead.behindBlanks(end);
                boolean isExtension = begins && next < text.length && (text[next] == '(' || text[next] == '[');
                if (isExtension) {
                    push(owner(), false, start).holdsMembers = holdsMembers();
                    forget();
                } else {
                    plain(start, end, word);
                }
            }
            default -> {
                if (isPackage) {
                    modifier(start);
                }
                begin(start, word.kind());
            }
        }
    }

    private void begin(int start, Kind of) {
        keyword = modifiers >= 0 ? modifiers : start;
        kind = of;
        further = false;
        modifiers = -1;
        begins = false;
    }

    /** {@code case class}, {@code case A, B} of an enum, or a pattern. */
    private void casePattern(int start, int end) {
        int next = ahead.behindBlanks(end);
        if (ahead.startsWith(next, "class ") || ahead.startsWith(next, "object ")) {
            isCase = true;
            modifier(start);
            return;
        }
        boolean isConstant = holdsMembers() && owner() != Marks.NONE && marks.kind(owner()) == Kind.ENUM;
        if (isConstant) {
            isCase = true;
            keyword = modifiers >= 0 ? modifiers : start;
            kind = Kind.CONSTANT;
        } else {
            forget();
        }
    }

    /** {@code given name: Type}, or one without a name. */
    private void given(int start, int end) {
        if (!(begins || modifiers >= 0)) {
            forget();
            return;
        }
        int name = ahead.behindBlanks(end);
        int i = ahead.behindName(name);
        boolean hasName = i > name;
        i = ahead.behindBlanks(i);
        while (i < text.length && i < end + LONGEST_LOOK && (text[i] == '[' || text[i] == '(')) {
            i = ahead.behindBlanks(ahead.behindBracket(i, LONGEST_LOOK));
        }
        boolean isNamed = hasName && i + 1 < text.length && text[i] == ':' && text[i + 1] != ':' && text[i + 1] != '\n';
        if (isNamed) {
            begin(start, Kind.CONSTANT);
            isGiven = true;
        } else {
            push(owner(), false, modifiers >= 0 ? modifiers : start).holdsMembers = true;
            forget();
        }
    }

    /** Declares a name, or several in brackets. */
    private void named(int start, int end) {
        if (kind == Kind.NAMESPACE) {
            namespace(start);
            return;
        }
        boolean isValue = (kind == Kind.CONSTANT || kind == Kind.VARIABLE) && !isGiven && !isCase;
        int behind = text[end - 1] == '_' ? behindOperators(end) : end;
        boolean isExtractor =
                isValue && (behind < text.length && (text[behind] == '(' || text[behind] == '.') || isInfix(behind));
        if (isExtractor) {
            patterns(start);
            return;
        }
        skipped = behind;
        declare(start, behind);
    }

    /** {@code val head :: tail = …}, {@code val all @ (a, b) = …}. */
    private boolean isInfix(int end) {
        int i = ahead.behindSpaces(end);
        return i < text.length
                && (text[i] == '@' || text[i] == ':' && i + 1 < text.length && text[i + 1] == ':')
                && i > end;
    }

    private void namespace(int start) {
        int last = ahead.behindChain(start);
        int mark = marks.add(Kind.NAMESPACE, owner(), keyword, start, last);
        int next = ahead.behindSpaces(last);
        boolean holds = next < text.length && (text[next] == '{' || text[next] == ':');
        if (holds) {
            push(mark, true, keyword).holdsMembers = true;
        } else {
            top.owner = mark;
            marks.end(mark, text.length);
        }
        kind = null;
        skipped = last;
        forget();
    }

    private void declare(int start, int end) {
        int parent = owner();
        boolean inType = isInType();
        Kind found = kind;
        boolean isValue = found == Kind.CONSTANT || found == Kind.VARIABLE;
        boolean declares = !isValue || holdsMembers() || isCase;
        if (found == Kind.FUNCTION && inType) {
            found = Kind.METHOD;
        } else if (isValue && inType && !isCase && !isGiven) {
            found = Kind.FIELD;
        }
        int mark = parent;
        if (declares && !(end - start == 1 && text[start] == '_')) {
            mark = marks.add(found, parent, keyword, start, end);
        } else {
            declares = false;
        }
        Open open = push(mark, declares, keyword);
        open.isType = found.isType() && found != Kind.TYPE || isCase;
        open.holdsMembers = open.isType || isGiven;
        open.isCase = isCase;
        further = isValue && !isGiven;
        furtherKind = kind;
        furtherCase = isCase && isValue;
        kind = null;
        isGiven = false;
        forget();
    }

    /** Whether what is declared here is a member of a type. */
    private boolean isInType() {
        int parent = owner();
        boolean isInFile = around.isEmpty() && top.open == null;
        return holdsMembers() && !isInFile && (parent == Marks.NONE || marks.kind(parent) != Kind.NAMESPACE);
    }

    /** {@code val (a, Some(b)) = …}: names with small letters, but those of types. */
    private void patterns(int start) {
        int parent = owner();
        boolean declares = holdsMembers();
        boolean inType = isInType();
        int i = start;
        int depth = 0;
        boolean isType = false;
        int until = Math.min(text.length, start + LONGEST_LOOK);
        while (i < until) {
            byte c = text[i];
            if (c == '(' || c == '[') {
                depth++;
            } else if (c == ')' || c == ']') {
                depth--;
                isType &= depth > 0;
            } else if (c == '=' && depth <= 0 || c == '\n' && depth <= 0) {
                break;
            } else if (c == ',') {
                isType = false;
            } else if (c == ':' && !(i + 1 < until && text[i + 1] == ':') && !(i > 0 && text[i - 1] == ':')) {
                isType = true;
            } else if (c == '"') {
                i++;
                while (i < until && text[i] != '"' && text[i] != '\n') {
                    i++;
                }
            } else if (BraceOutline.isNameByte(c)) {
                int from = i;
                i = ahead.behindName(i);
                boolean isSmall = text[from] >= 'a' && text[from] <= 'z' || text[from] == '_' && i > from + 1;
                boolean isChain = i < until && (text[i] == '.' || text[i] == '(') || text[from - 1] == '.';
                if (declares && isSmall && !isChain && !isType && !isValueWord(from, i)) {
                    int mark = marks.add(inType ? Kind.FIELD : kind, parent, keyword, from, i);
                    several = several == Marks.NONE ? mark : several;
                    lastOfSeveral = mark;
                }
                continue;
            }
            i++;
        }
        push(parent, false, keyword);
        kind = null;
        skipped = i;
        lastEnd = i;
        forget();
    }

    private boolean isValueWord(int from, int to) {
        return ahead.is(from, to, "true") || ahead.is(from, to, "false") || ahead.is(from, to, "null");
    }

    @Override
    public void literal(int start, int end) {
        if (start < skipped) {
            return;
        }
        arrive(start, false);
        endSupertype();
        annotation = false;
        forget();
        token(end, (byte) 0);
    }

    @Override
    public void sign(int at, byte sign) {
        if (at < skipped) {
            return;
        }
        arrive(at, sign != '@' && sign != '(' && (sign != '{' || holdsBody()));
        switch (sign) {
            case '(', '[', '{' -> opens(at, sign);
            case ')', ']', '}' -> closes(at, sign);
            default -> other(at, sign);
        }
        token(at + 1, sign);
    }

    /** Whether a brace at the start of a line belongs to what stands before it. */
    private boolean holdsBody() {
        return top.open == null || top.open.inHead || lastSign == '=';
    }

    private void opens(int at, byte sign) {
        if (kind != null && sign != '{') {
            if (kind == Kind.CONSTANT || kind == Kind.VARIABLE) {
                patterns(at);
                return;
            }
            kind = null;
        }
        Open open = top.open;
        int supertype = supertypeOf;
        if (superStart >= 0) {
            marks.add(Kind.SUPERTYPE, supertypeOf, superStart, superStart, superEnd);
            superStart = -1;
        }
        boolean inHead = open != null && open.inHead && open.isType;
        Bracket bracket;
        if (sign == '{') {
            endSupertype();
            boolean isBody = open != null && open.inHead && open.holdsMembers;
            if (isBody) {
                if (open.owned) {
                    marks.headEnd(open.mark, lastEnd);
                }
                open.inHead = false;
            }
            Role role = top.imports ? Role.OTHER : isBody || top.makesNew ? Role.TEMPLATE : Role.CODE;
            bracket = new Bracket(sign, role, owner(), false, isBody);
        } else if (sign == '(' && inHead && supertype == Marks.NONE && !annotation) {
            open.lists++;
            bracket = new Bracket(sign, Role.PARAMETERS, owner(), open.isCase && open.lists == 1, false);
        } else {
            bracket = new Bracket(sign, Role.OTHER, owner(), false, false);
        }
        annotation = false;
        if (around.size() >= DEEPEST) {
            ignored++;
            return;
        }
        around.push(top);
        opened[place(sign)]++;
        top.heldModifiers = sign == '{' ? -1 : modifiers;
        top.heldSupertype = sign == '{' ? Marks.NONE : supertype;
        top.makesNew &= sign != '{';
        bracket.imports = top.imports;
        top = bracket;
        begins = sign == '{';
        modifiers = -1;
        supertypeOf = Marks.NONE;
    }

    private void closes(int at, byte sign) {
        if (ignored > 0) {
            ignored--;
            return;
        }
        byte wanted = (byte) (sign == ')' ? '(' : sign == ']' ? '[' : '{');
        if (opened[place(wanted)] == 0) {
            return; // closes nothing
        }
        while (top.sign != wanted && !around.isEmpty()) {
            pop();
        }
        parameter();
        boolean endsDeclaration = top.endsDeclaration;
        pop();
        kind = null;
        if (endsDeclaration && top.open != null) {
            end(top.open, at + 1);
            top.open = top.open.outer;
        }
        modifiers = top.heldModifiers;
        supertypeOf = top.heldSupertype;
        begins = false;
    }

    private static int place(byte sign) {
        return sign == '(' ? 0 : sign == '[' ? 1 : 2;
    }

    private void pop() {
        if (top.sign != 0) {
            opened[place(top.sign)]--;
        }
        while (top.open != null) {
            end(top.open, lastEnd);
            top.open = top.open.outer;
        }
        if (!around.isEmpty()) {
            top = around.pop();
        }
    }

    private void other(int at, byte sign) {
        if (kind != null && sign != ',' && sign != ';') {
            operator(at);
            return;
        }
        switch (sign) {
            case ';' -> {
                endSupertype();
                closeDown(lineColumn);
                top.imports = false;
                kind = null;
                forget();
                begins = true;
            }
            case ',' -> {
                if (top.role == Role.PARAMETERS) {
                    parameter();
                } else if (further && top.open != null && top.open.inHead) {
                    end(top.open, lastEnd);
                    top.open = top.open.outer;
                    kind = furtherKind;
                    isCase = furtherCase;
                    return;
                } else if (superStart >= 0) {
                    int of = supertypeOf;
                    endSupertype();
                    supertypeOf = of;
                }
                top.makesNew = false;
            }
            case '@' -> {
                annotation = true;
                modifier(at);
                return;
            }
            case '=' -> {
                boolean isArrow = at + 1 < text.length && text[at + 1] == '>';
                boolean isAssignment = !isArrow && !isOperatorSign(at - 1) && !isOperatorSign(at + 1);
                if (isAssignment && top.open != null && top.open.inHead) {
                    if (top.open.owned) {
                        marks.headEnd(top.open.mark, lastEnd);
                    }
                    top.open.inHead = false;
                    top.open.holdsMembers = false;
                    further = false;
                }
                top.makesNew = false;
            }
            case '>' -> {
                if (lastSign == '=' && lastEnd == at) {
                    begins = true;
                    modifiers = -1;
                    isCase = false;
                    return;
                }
            }
            case ':' -> {
                if (top.role == Role.PARAMETERS && top.parameter >= 0) {
                    if (top.isField || top.allFields) {
                        marks.add(Kind.FIELD, top.owner, top.parameter, top.parameter, top.parameterEnd);
                    }
                    top.parameter = -2;
                }
                further = false;
            }
            case '.' -> {
                top.makesNew &= lastSign != ')';
                return;
            }
            default -> top.makesNew = false;
        }
        annotation = false;
        forget();
    }

    private boolean isOperatorSign(int at) {
        return at >= 0 && at < text.length && OPERATORS.indexOf(text[at]) >= 0;
    }

    private int behindOperators(int from) {
        int at = from;
        while (isOperatorSign(at)) {
            at++;
        }
        return at;
    }

    private void parameter() {
        top.parameter = -1;
        top.isField = false;
    }

    /** {@code def +(other)}, {@code def ::[B](head)}. */
    private void operator(int at) {
        int end = behindOperators(at);
        if (end == at) {
            kind = null;
            return;
        }
        declare(at, end);
        skipped = end;
        lastEnd = end;
    }

    // what is open

    private int owner() {
        return top.open != null ? top.open.mark : top.owner;
    }

    private boolean holdsMembers() {
        return top.open != null ? top.open.holdsMembers : top.role == Role.TEMPLATE;
    }

    private Open push(int mark, boolean owned, int start) {
        Open open = new Open(top.open, mark, owned, lineColumn + Math.max(0, start - lineStart));
        top.open = open;
        return open;
    }

    private int column(int start) {
        int at = start;
        while (at > 0 && text[at - 1] != '\n') {
            at--;
        }
        return start - at;
    }

    /** The first token of a line ends what is indented as deep or deeper. */
    private void arrive(int start, boolean goesOn) {
        if (!lineBegins) {
            return;
        }
        lineBegins = false;
        lineStart = start;
        lineColumn = column(start);
        if (top.sign == '(' || top.sign == '[') {
            return;
        }
        if (!goesOn) {
            endSupertype();
            closeDown(lineColumn);
            top.makesNew = false;
            top.imports = false;
            if (kind != null && !(kind == Kind.FUNCTION || kind == Kind.CLASS)) {
                kind = null;
            }
            further = false;
            begins = true;
            ends = false;
        }
    }

    private void closeDown(int column) {
        while (top.open != null && top.open.column >= column) {
            end(top.open, lastEnd);
            top.open = top.open.outer;
        }
    }

    private void end(Open open, int at) {
        if (open.owned) {
            marks.end(open.mark, at);
            if (open.inHead) {
                marks.headEnd(open.mark, at);
            }
        } else if (several != Marks.NONE) {
            for (int mark = several; mark <= lastOfSeveral; mark++) {
                marks.end(mark, at);
            }
            several = Marks.NONE;
            lastOfSeveral = Marks.NONE;
        }
    }

    private void endSupertype() {
        if (supertypeOf != Marks.NONE && superStart >= 0) {
            marks.add(Kind.SUPERTYPE, supertypeOf, superStart, superStart, superEnd);
        }
        superStart = -1;
        supertypeOf = Marks.NONE;
    }

    private void token(int end, byte sign) {
        lastEnd = Math.max(lastEnd, end);
        lastSign = sign;
    }

    @Override
    public void line(int at) {
        lineBegins = true;
    }

    @Override
    public void finish(int end) {
        endSupertype();
        while (!around.isEmpty()) {
            pop();
        }
        pop();
    }
}
