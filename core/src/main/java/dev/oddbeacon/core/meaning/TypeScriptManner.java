package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** TypeScript: the type stands behind a colon; a module is a file. */
final class TypeScriptManner implements Manner {
    private static final Set<Trait> TRAITS =
            EnumSet.of(Trait.ONE_SPACE, Trait.FUNCTIONS_WITHIN, Trait.TYPES_ARE_ALIASES);
    private static final int DEEPEST = 50;
    private static final String DEFAULT = "default";

    /**
     * Something that a module passes on, or calls by another name.
     *
     * @param name by which others import it; empty for all that is there
     * @param from the module that it is of; empty if it is of this one
     * @param original its name there; empty for all of it
     */
    record Export(String name, String from, String original) {
        boolean isOfAll() {
            return name.isEmpty();
        }

        boolean isModule() {
            return !name.isEmpty() && original.isEmpty();
        }
    }

    @Override
    public Set<Trait> traits() {
        return TRAITS;
    }

    @Override
    public List<Import> imports(CodeFile file) {
        Code code = file.code();
        List<Import> imports = new ArrayList<>();
        for (int token = 0; token < code.count(); token++) {
            if (!code.is(token, "import") || code.is(token + 1, '(') || code.is(token + 1, '.')) {
                token = Math.max(token, code.is(token, '{') ? code.partner(token) : token);
                continue;
            }
            int at = code.is(token + 1, "type") && !code.is(token + 2, "from") ? token + 2 : token + 1;
            int end = at;
            while (end < code.count() && !code.isLiteral(end) && !code.is(end, ';')) {
                end = code.is(end, '{') ? Math.max(end, code.partner(end)) + 1 : end + 1;
            }
            if (code.isLiteral(end)) {
                imported(code, at, unquoted(code.text(end)), imports);
            }
            token = Math.max(token, end);
        }
        return imports;
    }

    private static void imported(Code code, int token, String from, List<Import> into) {
        int at = token;
        if (code.isName(at) && !code.is(at, "from")) {
            into.add(new Import(from, DEFAULT, code.text(at), false));
            at = code.is(at + 1, ',') ? at + 2 : at + 1;
        }
        if (code.is(at, '*') && code.is(at + 1, "as")) {
            into.add(new Import(from, "", code.text(at + 2), false));
        } else if (code.is(at, '{')) {
            for (Export one : list(code, at, from)) {
                into.add(new Import(from, one.original(), one.name(), false));
            }
        }
    }

    /** {@code a, b as c, type D} among braces. */
    private static List<Export> list(Code code, int open, String from) {
        List<Export> all = new ArrayList<>();
        int close = code.partner(open);
        for (int at = open + 1; at < close; at++) {
            int first = code.is(at, "type") && !code.is(at + 1, ',') && at + 1 < close && !code.is(at + 1, "as")
                    ? at + 1
                    : at;
            int last = code.is(first + 1, "as") ? first + 2 : first;
            all.add(new Export(code.text(last), from, code.text(first)));
            at = last;
            while (at < close && !code.is(at, ',')) {
                at++;
            }
        }
        return all;
    }

    /** What a module passes on, or calls by another name. */
    static List<Export> exports(CodeFile file) {
        Code code = file.code();
        List<Export> exports = new ArrayList<>();
        for (int token = 0; token < code.count(); token++) {
            if (!code.is(token, "export")) {
                token = Math.max(token, code.is(token, '{') ? code.partner(token) : token);
                continue;
            }
            int at = code.is(token + 1, "type") && (code.is(token + 2, '{') || code.is(token + 2, '*'))
                    ? token + 2
                    : token + 1;
            if (code.is(at, '{') && code.partner(at) > at) {
                int close = code.partner(at);
                String from =
                        code.is(close + 1, "from") && code.isLiteral(close + 2) ? unquoted(code.text(close + 2)) : "";
                exports.addAll(list(code, at, from));
                token = close;
            } else if (code.is(at, '*')) {
                boolean isNamed = code.is(at + 1, "as");
                int from = isNamed ? at + 4 : at + 2;
                if (code.isLiteral(from)) {
                    exports.add(new Export(isNamed ? code.text(at + 2) : "", unquoted(code.text(from)), ""));
                }
            } else if (code.is(at, DEFAULT)) {
                int name = at + 1;
                while (code.is(name, "async")
                        || code.is(name, "function")
                        || code.is(name, "class")
                        || code.is(name, "abstract")
                        || code.is(name, "interface")
                        || code.is(name, '*')) {
                    name++;
                }
                exports.add(new Export(DEFAULT, "", code.text(name)));
            }
        }
        return exports;
    }

    private static String unquoted(String text) {
        return text.length() < 2 ? "" : text.substring(1, text.length() - 1);
    }

    @Override
    public Optional<Import> importedAt(CodeFile file, int token) {
        Code code = file.code();
        int open = code.around(token);
        boolean isSameAgain = code.is(token - 1, "as") && code.text(token).equals(code.text(token - 2));
        boolean begins =
                code.is(token - 1, '{') || code.is(token - 1, ',') || code.is(token - 1, "type") || isSameAgain;
        if (!code.is(open, '{') || !begins) {
            return Optional.empty();
        }
        int before = open - 1;
        while (before > open - 4 && !code.is(before, "import") && !code.is(before, "export")) {
            before--;
        }
        int from = code.partner(open) + 1;
        boolean isListed = code.is(before, "import") || code.is(before, "export");
        return isListed && code.is(from, "from") && code.isLiteral(from + 1)
                ? Optional.of(new Import(unquoted(code.text(from + 1)), code.text(token), "", false))
                : Optional.empty();
    }

    @Override
    public Optional<TypeName> type(Code code, int token) {
        return Optional.ofNullable(type(code, token, 0));
    }

    /** Reads a type with its alternatives. */
    private static TypeName type(Code code, int token, int depth) {
        if (depth > DEEPEST) {
            return null;
        }
        int at = code.is(token, '|') || code.is(token, '&') ? token + 1 : token;
        List<TypeName> all = new ArrayList<>();
        boolean isWhole = true;
        while (true) {
            TypeName one = part(code, at, depth + 1);
            if (one == null) {
                return null;
            }
            at = one.end();
            if (!isNothing(one)) {
                all.add(one);
            }
            if (code.is(at, "extends") && depth > 0) { // Depth extends number ? Gauge : Bell
                isWhole = false;
            }
            if (!code.is(at, '|') && !code.is(at, '&') || code.is(at + 1, '|') || code.is(at + 1, '&')) {
                break;
            }
            at++;
        }
        return all.size() == 1 && isWhole && all.getFirst().end() == at
                ? all.getFirst()
                : new TypeName(TypeName.ONE_OF, all, 0, token, at);
    }

    private static boolean isNothing(TypeName type) {
        return type.dimensions() == 0
                && type.arguments().isEmpty()
                && (type.parts().equals(List.of("undefined")) || type.parts().equals(List.of("null")));
    }

    private static TypeName part(Code code, int token, int depth) {
        int at = token;
        while (code.is(at, "readonly")
                || code.is(at, "keyof")
                || code.is(at, "typeof")
                || code.is(at, "unique")
                || code.is(at, "infer")
                || code.is(at, "asserts")
                || code.is(at, "abstract")
                || code.is(at, "new")) {
            at++;
        }
        boolean isOther = at > token && !code.is(at - 1, "readonly");
        TypeName found = withoutBrackets(code, at, depth);
        if (found == null) {
            return null;
        }
        int end = found.end();
        int dimensions = 0;
        while (code.is(end, '[') && code.partner(end) > end && !code.isFirst(end)) {
            isOther |= code.partner(end) > end + 1;
            dimensions++;
            end = code.partner(end) + 1;
        }
        if (code.is(end, "is") && !code.isFirst(end)) { // one is Gauge
            TypeName told = type(code, end + 1, depth + 1);
            return told == null ? null : unknown("boolean", token, told.end());
        }
        return isOther
                ? unknown("", token, end)
                : new TypeName(found.parts(), found.arguments(), found.dimensions() + dimensions, found.token(), end);
    }

    private static TypeName unknown(String name, int token, int end) {
        return new TypeName(List.of(name.isEmpty() ? "{}" : name), List.of(), 0, token, end);
    }

    private static TypeName withoutBrackets(Code code, int at, int depth) {
        if (code.isLiteral(at)) {
            return unknown("string", at, at + 1);
        }
        if (code.is(at, '<')) { // <T>(one: T) => T
            int open = angle(code, at);
            return open < 0 ? null : withoutBrackets(code, open, depth + 1);
        }
        int close = code.partner(at);
        if (code.is(at, '(') && close > at) {
            if (code.are(close + 1, "=>")) {
                TypeName result = type(code, close + 3, depth + 1);
                if (result == null) {
                    return null;
                }
                List<TypeName> all = new ArrayList<>(List.of(result));
                parameters(code, at, all, depth + 1);
                return new TypeName(List.of(Type.FUNCTION), all, 0, at, result.end());
            }
            TypeName inner = type(code, at + 1, depth + 1);
            return inner == null || inner.end() != close
                    ? unknown("", at, close + 1)
                    : new TypeName(inner.parts(), inner.arguments(), inner.dimensions(), inner.token(), close + 1);
        }
        if ((code.is(at, '{') || code.is(at, '[')) && close > at) {
            return unknown("", at, close + 1);
        }
        if (code.is(at, '-') || code.is(at, '`')) {
            return unknown("number", at, at + 2);
        }
        if (!code.isName(at) && !code.isReserved(at)) {
            return null;
        }
        if (code.is(at, "import") && code.is(at + 1, '(')) {
            return unknown("", at, code.firstPart(code.partner(at + 1) + 1) + 1);
        }
        List<String> parts = new ArrayList<>(List.of(code.text(at)));
        int last = at++;
        while (code.is(at, '.') && (code.isName(at + 1) || code.isReserved(at + 1))) {
            parts.add(code.text(at + 1));
            last = at + 1;
            at += 2;
        }
        List<TypeName> arguments = new ArrayList<>();
        if (code.is(at, '<')) {
            at = arguments(code, at, arguments, depth);
            if (at < 0) {
                return null;
            }
        }
        boolean isArray = parts.size() == 1
                && arguments.size() == 1
                && (parts.contains("Array") || parts.contains("ReadonlyArray"));
        TypeName element = isArray ? arguments.getFirst() : null;
        return element != null
                ? new TypeName(element.parts(), element.arguments(), element.dimensions() + 1, element.token(), at)
                : new TypeName(List.copyOf(parts), List.copyOf(arguments), 0, last, at);
    }

    /** Reads type arguments; the token behind them, or a negative number if there are none. */
    private static int arguments(Code code, int open, List<TypeName> into, int depth) {
        int at = open + 1;
        while (true) {
            TypeName one = type(code, at, depth + 1);
            if (one == null) {
                int close = angle(code, open);
                into.clear();
                return close;
            }
            into.add(one);
            at = one.end();
            if (code.is(at, '>')) {
                return at + 1;
            }
            if (!code.is(at, ',')) {
                into.clear();
                return angle(code, open);
            }
            at++;
        }
    }

    /** The token behind the angle brackets that open at one; negative if they do not close soon. */
    private static int angle(Code code, int open) {
        int depth = 0;
        for (int at = open; at < code.count() && at < open + 400; at++) {
            if (code.is(at, '<')) {
                depth++;
            } else if (code.is(at, '>') && !code.is(at - 1, '=')) {
                if (--depth == 0) {
                    return at + 1;
                }
            } else if (code.is(at, ';')) {
                return -1;
            } else if (code.partner(at) > at) {
                at = code.partner(at);
            }
        }
        return -1;
    }

    @Override
    public Member member(CodeFile file, Declared declared) {
        Code code = file.code();
        int name = file.nameToken(declared);
        List<TypeVariable> variables = variables(file, declared);
        int at = name + 1;
        at = code.is(at, '?') || code.is(at, '!') ? at + 1 : at;
        if (declared.kind().isCallable()) {
            int open = code.is(at, '<') ? angle(code, at) : at;
            List<TypeName> parameters = new ArrayList<>();
            int least = parameters(code, open, parameters);
            int behind = code.partner(open) + 1;
            Optional<TypeName> type = behind > 0 && code.is(behind, ':') ? type(code, behind + 1) : Optional.empty();
            boolean takesMore = least < 0;
            boolean isAccessor = code.is(name - 1, "get") || code.is(name - 1, "set");
            return new Member(
                    file.spot(declared),
                    type,
                    parameters,
                    takesMore,
                    takesMore ? -least - 1 : least,
                    variables,
                    isAccessor);
        }
        Optional<TypeName> type = code.is(at, ':') ? type(code, at + 1) : Optional.empty();
        if (type.isEmpty() && code.is(at, '=')) {
            type = created(code, at + 1).map(Created::type);
        }
        if (type.isEmpty() && declared.kind() == Kind.CONSTANT) {
            type = file.parent(declared)
                    .filter(owner -> owner.kind() == Kind.ENUM)
                    .map(owner -> new TypeName(List.of(file.name(owner)), List.of(), 0, name, name + 1));
        }
        return new Member(file.spot(declared), type, List.of(), false, 0, variables, false);
    }

    /** Reads parameters: how many arguments are needed; if the last takes any number, less than nothing by one more than that. */
    private static int parameters(Code code, int open, List<TypeName> into) {
        return parameters(code, open, into, 0);
    }

    private static int parameters(Code code, int open, List<TypeName> into, int depth) {
        int close = code.is(open, '(') ? code.partner(open) : -1;
        int least = 0;
        boolean takesMore = false;
        for (int at = open + 1; at < close; ) {
            int end = at;
            int colon = -1;
            int value = -1;
            while (end < close && !code.is(end, ',')) {
                colon = colon < 0 && value < 0 && code.is(end, ':') ? end : colon;
                value = value < 0 && code.is(end, '=') && !code.is(end + 1, '>') ? end : value;
                int angle = code.is(end, '<') ? angle(code, end) : -1;
                end = angle > 0 ? angle : code.partner(end) > end ? code.partner(end) + 1 : end + 1;
            }
            takesMore |= code.are(at, "...");
            boolean isOptional = value > 0 || takesMore || colon > 0 && code.is(colon - 1, '?');
            if (!code.is(at, "this")) {
                least += isOptional ? 0 : 1;
                TypeName type = colon < 0 ? null : type(code, colon + 1, depth);
                into.add(type == null ? unknown("", at, at + 1) : type);
            }
            at = end + 1;
        }
        return takesMore ? -least - 1 : least;
    }

    @Override
    public List<TypeVariable> variables(CodeFile file, Declared declared) {
        Code code = file.code();
        List<TypeVariable> variables = new ArrayList<>();
        int open = file.nameToken(declared) + 1;
        int end = code.is(open, '<') ? angle(code, open) : -1;
        for (int at = open + 1; at < end - 1; ) {
            while (code.is(at, "const") || code.is(at, "in") || code.is(at, "out")) {
                at++;
            }
            if (!code.isName(at)) {
                break;
            }
            TypeName bound = code.is(at + 1, "extends") ? type(code, at + 2, 1) : null;
            variables.add(new TypeVariable(code.text(at), Optional.ofNullable(bound)));
            at = bound == null ? at + 1 : bound.end();
            while (at < end - 1 && !code.is(at, ',')) {
                int angle = code.is(at, '<') ? angle(code, at) : -1;
                at = angle > 0 ? angle : Math.max(at, code.partner(at)) + 1;
            }
            at++;
        }
        return variables;
    }

    @Override
    public Optional<TypeName> underlying(CodeFile file, Declared declared) {
        Code code = file.code();
        int behind = file.nameToken(declared) + 1;
        int at = code.is(behind, '<') ? angle(code, behind) : behind;
        return declared.kind() == Kind.TYPE && code.is(at, '=') ? type(code, at + 1) : Optional.empty();
    }

    @Override
    public Optional<Created> created(Code code, int token) {
        if (code.is(token, "new") && !code.is(token - 1, '.')) {
            return Optional.ofNullable(withoutBrackets(code, token + 1, 0)).map(type -> {
                int open = type.end();
                return new Created(
                        type, code.is(open, '(') && code.partner(open) > open ? code.partner(open) + 1 : open);
            });
        }
        int open = code.is(token, "async") ? token + 1 : token;
        open = code.is(open, '<') ? angle(code, open) : open;
        if (open < 0 || !code.is(open, '(') || code.partner(open) < 0) {
            return Optional.empty();
        }
        int behind = code.partner(open) + 1;
        if (code.are(behind, "=>")) {
            return Optional.of(
                    new Created(new TypeName(List.of(Type.FUNCTION), List.of(), 0, token, behind), code.count()));
        }
        return code.is(behind, ':')
                ? type(code, behind + 1)
                        .filter(result -> code.are(result.end(), "=>"))
                        .map(result -> new Created(
                                new TypeName(List.of(Type.FUNCTION), List.of(result), 0, token, behind), code.count()))
                : Optional.empty();
    }

    @Override
    public Optional<Created> asserted(Code code, int token) {
        return code.is(token, "as") && !code.is(token + 1, "const")
                ? type(code, token + 1).map(type -> new Created(type, type.end()))
                : Optional.empty();
    }

    @Override
    public Optional<Prefix> prefix(Code code, int token) {
        if (code.is(token, "await")) {
            return Optional.of(new Prefix(Prefix.Effect.PROMISED, token + 1));
        }
        return Optional.empty();
    }

    @Override
    public int behindSign(Code code, int token) {
        if (code.are(token, "?.")) {
            return code.is(token + 2, '(') || code.is(token + 2, '[') ? token + 2 : token + 1;
        }
        return code.is(token, '!') && !code.is(token + 1, '=') ? token + 1 : token;
    }

    @Override
    public int lastOfReceiver(Code code, int dot) {
        return code.is(dot - 1, '?') || code.is(dot - 1, '!') ? dot - 2 : dot - 1;
    }

    @Override
    public boolean isKey(Code code, int token) {
        boolean isFirst =
                code.is(token - 1, '{') || code.is(token - 1, ',') || code.is(token - 1, ';') || code.isFirst(token);
        int at = code.is(token + 1, '?') ? token + 2 : token + 1;
        if (code.is(code.around(token), '(')) { // a parameter of what has no body
            return code.is(at, ':') && (code.is(token - 1, '(') || code.is(token - 1, ','));
        }
        if (!isFirst || !code.is(code.around(token), '{')) {
            return false;
        }
        if (code.is(at, ':')) {
            return true;
        }
        int close = code.is(at, '(') ? code.partner(at) : -1; // { sound() { … } }
        return close > 0 && code.is(token - 1, ',') && (code.is(close + 1, '{') || code.is(close + 1, ':'));
    }

    @Override
    public Optional<Local> local(CodeFile file, String name, int token) {
        Code code = file.code();
        int[] declaring = file.declaring(name, this);
        for (int i = declaring.length - 1; i >= 0; i--) {
            int at = declaring[i];
            if (at > token || file.isDeclared(at)) {
                continue;
            }
            Optional<Local> found = declaredAt(code, at, token);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    @Override
    public boolean declaresLocal(CodeFile file, int token) {
        Code code = file.code();
        return variableWord(code, token) >= 0
                || code.are(token + 1, "=>") && !code.is(token - 1, '.')
                || signature(code, token) >= 0;
    }

    /** The word that declares a variable, alone, among others or out of a value; negative if a name is none. */
    private static int variableWord(Code code, int name) {
        int at = name;
        for (int i = 0; i < DEEPEST; i++) {
            int before = at - 1;
            if (code.is(before, "const")
                    || code.is(before, "let")
                    || code.is(before, "var")
                    || code.is(before, "using")) {
                return code.is(name + 1, ':') && at != name ? -1 : before;
            }
            int open = code.around(at);
            boolean isPattern = (code.is(open, '{') || code.is(open, '[')) && isInPattern(code, at, open);
            if (!isPattern) {
                return -1;
            }
            at = open;
        }
        return -1;
    }

    /** Whether all that stands in brackets before a token may be that of a pattern. */
    private static boolean isInPattern(Code code, int token, int open) {
        return code.is(token - 1, '{')
                || code.is(token - 1, '[')
                || code.is(token - 1, ',')
                || code.is(token - 1, ':')
                || code.are(token - 3, "...")
                || token - 1 == open;
    }

    /** The bracket of the parameters that a name is one of, or is taken out of one; negative if it is none. */
    private static int signature(Code code, int name) {
        int at = name;
        for (int i = 0; i < DEEPEST; i++) {
            int open = code.around(at);
            boolean begins = isInPattern(code, at, open) || code.is(at - 1, '(') || isModifier(code, at - 1);
            if (!begins || open < 0) {
                return -1;
            }
            if (code.is(open, '(')) {
                boolean ends = code.is(at + 1, ',')
                        || code.is(at + 1, ')')
                        || code.is(at + 1, ':')
                        || code.is(at + 1, '=')
                        || code.is(at + 1, '?')
                        || at != name;
                return ends && !code.is(at - 1, ':') && body(code, open) >= 0 ? open : -1;
            }
            if (!code.is(open, '{') && !code.is(open, '[') || code.is(name + 1, ':') && i == 0) {
                return -1;
            }
            at = open;
        }
        return -1;
    }

    private static boolean isModifier(Code code, int token) {
        return code.is(token, "public")
                || code.is(token, "private")
                || code.is(token, "protected")
                || code.is(token, "readonly")
                || code.is(token, "override");
    }

    /** The first token of the body of a function whose parameters open at a token; negative if it has none. */
    private static int body(Code code, int open) {
        int close = code.partner(open);
        if (close < 0
                || code.is(open - 1, "if")
                || code.is(open - 1, "for")
                || code.is(open - 1, "while")
                || code.is(open - 1, "switch")
                || code.is(open - 1, "with")
                || code.is(open - 1, "await")) {
            return -1;
        }
        int at = close + 1;
        if (code.is(at, ':')) {
            TypeName result = type(code, at + 1, 0);
            at = result == null ? at : result.end();
        }
        return code.are(at, "=>") ? at + 2 : code.is(at, '{') ? at : -1;
    }

    /** The variable that is declared at a token, if it holds at another one behind it. */
    private static Optional<Local> declaredAt(Code code, int at, int user) {
        if (code.are(at + 1, "=>") && !code.is(at - 1, '.')) {
            return holds(code, at + 3, user) ? Optional.of(Local.ofLambda(at, 0)) : Optional.empty();
        }
        int open = signature(code, at);
        if (open >= 0) {
            boolean holds = user <= code.partner(open) || holds(code, body(code, open), user);
            return holds ? Optional.of(parameter(code, open, at)) : Optional.empty();
        }
        int word = variableWord(code, at);
        if (word < 0 || !reaches(code, word, user)) {
            return Optional.empty();
        }
        if (word != at - 1) {
            return Optional.of(Local.UNTYPED);
        }
        int behind = code.is(at + 1, '!') ? at + 2 : at + 1;
        Optional<Local> typed = code.is(behind, ':')
                ? Optional.ofNullable(type(code, behind + 1, 0)).map(Local::typed)
                : Optional.empty();
        if (typed.isPresent()) {
            return typed;
        }
        boolean isElement = code.is(behind, "of");
        if (!isElement && !code.is(behind, '=')) {
            return Optional.of(Local.UNTYPED);
        }
        int end = end(code, behind + 1);
        return user > at && user < end && !isElement && isBefore(code, behind + 1, user)
                ? Optional.empty()
                : Optional.of(Local.given(isElement ? Given.element(behind + 1, end) : Given.value(behind + 1, end)));
    }

    /** Whether a variable cannot be used yet where it is given its value: but in a function it can. */
    private static boolean isBefore(Code code, int from, int user) {
        for (int at = from; at < user; at++) {
            if (code.are(at, "=>") || code.is(at, "function")) {
                return false;
            }
        }
        return true;
    }

    private static Local parameter(Code code, int open, int name) {
        if (code.around(name) != open) {
            return Local.UNTYPED;
        }
        int at = code.is(name + 1, '?') ? name + 2 : name + 1;
        if (code.is(at, ':')) {
            boolean isRest = code.are(name - 3, "...");
            TypeName type = type(code, at + 1, 0);
            return type == null || isRest && type.dimensions() == 0 ? Local.UNTYPED : Local.typed(type);
        }
        if (code.is(at, '=')) {
            int end = at + 1;
            while (end < code.partner(open) && !code.is(end, ',')) {
                end = Math.max(end, code.partner(end)) + 1;
            }
            return Local.given(Given.value(at + 1, end));
        }
        return code.are(code.partner(open) + 1, "=>")
                ? Local.ofLambda(open, position(code, open, name))
                : Local.UNTYPED;
    }

    private static int position(Code code, int open, int name) {
        int position = 0;
        for (int at = open + 1; at < name; at++) {
            position += code.is(at, ',') ? 1 : 0;
            at = Math.max(at, code.partner(at));
        }
        return position;
    }

    /** Whether a token lies in the body of a function, or of a statement, that begins at another. */
    private static boolean holds(Code code, int body, int user) {
        return code.is(body, '{') ? code.partner(body) > user : user >= body && user < end(code, body);
    }

    /** The token behind a value. */
    private static int end(Code code, int from) {
        for (int at = from; at < code.count(); at++) {
            boolean isOver = code.is(at, ';')
                    || code.is(at, ',')
                    || code.is(at, ')')
                    || code.is(at, '}')
                    || code.is(at, ']')
                    || at > from && code.isFirst(at) && endsLine(code, at);
            if (isOver) {
                return at;
            }
            int angle = code.is(at, '<') && code.isName(at - 1) ? angle(code, at) : -1;
            at = angle > 0 && code.is(angle, '(') ? angle - 1 : Math.max(at, code.partner(at));
        }
        return code.count();
    }

    /** Whether a line ends a statement before the token that begins the next one. */
    private static boolean endsLine(Code code, int next) {
        int last = next - 1;
        boolean isComplete = code.isName(last)
                || code.isLiteral(last)
                || code.is(last, ')')
                || code.is(last, ']')
                || code.is(last, '}')
                || code.is(last, '>')
                || code.is(last, "this")
                || code.is(last, "null")
                || code.is(last, "true")
                || code.is(last, "false")
                || code.is(last, '!');
        boolean isContinued = !code.isName(next)
                        && !code.isReserved(next)
                        && !code.isLiteral(next)
                        && !code.is(next, '@')
                        && !code.is(next, '{')
                || code.is(next, "as")
                || code.is(next, "instanceof")
                || code.is(next, "in")
                || code.is(next, "satisfies");
        return isComplete && !isContinued;
    }

    /** Whether a variable that is declared behind a word holds at a token behind it. */
    private static boolean reaches(Code code, int word, int user) {
        int open = code.around(word);
        if (code.is(open, '(')) { // for (const gauge of gauges)
            int close = code.partner(open);
            return close < 0 || user <= close || holds(code, close + 1, user);
        }
        int block = code.blockAround(word);
        return block < 0 || code.partner(block) < 0 || code.partner(block) > user;
    }
}
