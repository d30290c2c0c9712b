package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Java: the type stands in front. */
final class JavaManner implements Manner {
    private static final Set<String> PRIMITIVES =
            Set.of("boolean", "byte", "char", "double", "float", "int", "long", "short", "void");
    private static final Set<Trait> TRAITS = EnumSet.of(Trait.SEES_MEMBERS, Trait.CASTS_IN_FRONT);
    private static final int DEEPEST = 50;

    @Override
    public Set<Trait> traits() {
        return TRAITS;
    }

    @Override
    public String known() {
        return "java.lang";
    }

    @Override
    public List<Import> imports(CodeFile file) {
        Code code = file.code();
        List<Import> imports = new ArrayList<>();
        for (int token = 0; token < code.count() && !code.is(token, '{'); token++) {
            if (!code.is(token, "import")) {
                continue;
            }
            int at = token + 1;
            boolean isMember = code.is(at, "static");
            at += isMember ? 1 : 0;
            List<String> parts = new ArrayList<>();
            while (at < code.count() && !code.is(at, ';')) {
                if (!code.is(at, '.')) {
                    parts.add(code.text(at));
                }
                at++;
            }
            if (parts.size() > 1) {
                String last = parts.removeLast();
                String name = last.equals("*") ? "" : last;
                imports.add(new Import(String.join(".", parts), name, name, isMember));
            }
            token = at;
        }
        return imports;
    }

    @Override
    public Optional<TypeName> type(Code code, int token) {
        return Optional.ofNullable(type(code, token, 0));
    }

    private static TypeName type(Code code, int token, int depth) {
        int at = afterAnnotations(code, token);
        if (depth > DEEPEST) {
            return null;
        }
        if (code.is(at, '?')) {
            if (code.is(at + 1, "extends")) {
                return type(code, at + 2, depth + 1);
            }
            TypeName bound = code.is(at + 1, "super") ? type(code, at + 2, depth + 1) : null;
            return new TypeName(List.of("Object"), List.of(), 0, at, bound == null ? at + 1 : bound.end());
        }
        List<String> parts = new ArrayList<>();
        List<TypeName> arguments = new ArrayList<>();
        int last = at;
        if (code.isReserved(at) && PRIMITIVES.contains(code.text(at))) {
            parts.add(code.text(at++));
        } else {
            while (code.isName(at)) {
                last = at;
                parts.add(code.text(at++));
                if (code.is(at, '<')) {
                    arguments.clear();
                    at = arguments(code, at, arguments, depth);
                    if (at < 0) {
                        return null;
                    }
                }
                if (!code.is(at, '.') || code.are(at, "...")) {
                    break;
                }
                int next = afterAnnotations(code, at + 1);
                if (!code.isName(next)) {
                    break;
                }
                at = next;
            }
        }
        if (parts.isEmpty()) {
            return null;
        }
        int dimensions = 0;
        for (int open = afterAnnotations(code, at); code.is(open, '[') && code.is(open + 1, ']'); ) {
            dimensions++;
            at = open + 2;
            open = afterAnnotations(code, at);
        }
        return new TypeName(List.copyOf(parts), List.copyOf(arguments), dimensions, last, at);
    }

    /** Reads type arguments; the token behind them, or a negative number if there are none. */
    private static int arguments(Code code, int open, List<TypeName> into, int depth) {
        int at = open + 1;
        if (code.is(at, '>')) {
            return at + 1;
        }
        while (true) {
            TypeName one = type(code, at, depth + 1);
            if (one == null) {
                return -1;
            }
            into.add(one);
            at = one.end();
            while (code.is(at, '&')) {
                TypeName more = type(code, at + 1, depth + 1);
                if (more == null) {
                    return -1;
                }
                at = more.end();
            }
            if (code.is(at, '>')) {
                return at + 1;
            }
            if (!code.is(at, ',')) {
                return -1;
            }
            at++;
        }
    }

    private static int afterAnnotations(Code code, int token) {
        int at = token;
        while (code.is(at, '@') && code.isName(at + 1)) {
            at += 2;
            while (code.is(at, '.') && code.isName(at + 1)) {
                at += 2;
            }
            if (code.is(at, '(') && code.partner(at) > at) {
                at = code.partner(at) + 1;
            }
        }
        return at;
    }

    private static boolean isModifier(Code code, int token) {
        return switch (code.text(token)) {
            case "public", "protected", "private", "abstract", "static", "final", "native", "synchronized" -> true;
            case "transient", "volatile", "strictfp", "default", "sealed" -> true;
            default -> false;
        };
    }

    private static int afterModifiers(Code code, int token) {
        int at = afterAnnotations(code, token);
        while (isModifier(code, at)) {
            at = afterAnnotations(code, at + 1);
        }
        return at;
    }

    @Override
    public Member member(CodeFile file, Declared declared) {
        Code code = file.code();
        int name = file.nameToken(declared);
        int at = afterModifiers(code, file.token(declared.start()));
        List<TypeVariable> variables = new ArrayList<>();
        if (code.is(at, '<')) {
            at = afterModifiers(code, variables(code, at, variables));
        }
        Optional<TypeName> type = at >= name ? Optional.empty() : type(code, at);
        if (declared.kind() == Kind.CONSTANT && type.isEmpty()) {
            type = file.parent(declared)
                    .map(owner -> new TypeName(List.of(file.name(owner)), List.of(), 0, name, name + 1));
        } else if (type.isEmpty() && code.is(name - 1, ',') && declared.number() > 0) {
            for (int before = declared.number() - 1; before >= 0; before--) { // int depth, soundings;
                Declared other = file.declaration(before);
                if (other.parent() == declared.parent()) {
                    type = other.kind().isUse()
                            ? Optional.empty()
                            : member(file, other).type();
                    break;
                }
            }
        }
        int dimensions = 0;
        for (int open = name + 1; code.is(open, '[') && code.is(open + 1, ']'); open += 2) {
            dimensions++;
        }
        int more = dimensions;
        type = type.map(one -> one.withDimensions(more));
        if (!declared.kind().isCallable()) {
            return new Member(file.spot(declared), type, List.of(), false, 0, variables, false);
        }
        List<TypeName> parameters = new ArrayList<>();
        boolean takesMore = parameters(code, name + 1, parameters);
        return new Member(
                file.spot(declared),
                type,
                parameters,
                takesMore,
                parameters.size() - (takesMore ? 1 : 0),
                variables,
                false);
    }

    /** Reads what stands in the brackets of a declaration; whether the last takes any number. */
    private static boolean parameters(Code code, int open, List<TypeName> into) {
        int close = code.is(open, '(') ? code.partner(open) : -1;
        for (int at = open + 1; at < close; ) {
            at = afterModifiers(code, at);
            TypeName type = type(code, at, 0);
            if (type == null) {
                return false;
            }
            at = afterAnnotations(code, type.end());
            boolean more = code.are(at, "...");
            int name = more ? at + 3 : at;
            if (!code.is(name, "this") && !code.is(name + 1, '.')) { // int sound(@Fast Gauge this)
                boolean isArray = more || code.is(name + 1, '[');
                into.add(type.withDimensions(isArray ? 1 : 0));
            }
            if (more) {
                return true;
            }
            while (at < close && !code.is(at, ',')) {
                at = code.partner(at) > at ? code.partner(at) + 1 : at + 1;
            }
            at++;
        }
        return false;
    }

    @Override
    public Optional<Created> created(Code code, int token) {
        return code.is(token, "new") ? type(code, token + 1).map(type -> created(code, type)) : Optional.empty();
    }

    private static Created created(Code code, TypeName name) {
        int dimensions = 0;
        int at = name.end();
        while (code.is(at, '[') && code.partner(at) > at) {
            dimensions++;
            at = code.partner(at) + 1;
        }
        if (code.is(at, '(') && code.partner(at) > at) {
            at = code.partner(at) + 1;
        }
        if (code.is(at, '{') && code.partner(at) > at) {
            at = code.partner(at) + 1;
        }
        return new Created(name.withDimensions(dimensions), at);
    }

    @Override
    public List<TypeVariable> variables(CodeFile file, Declared declared) {
        List<TypeVariable> variables = new ArrayList<>();
        Code code = file.code();
        if (declared.kind().isType()) {
            variables(code, file.nameToken(declared) + 1, variables);
        } else {
            variables(code, afterModifiers(code, file.token(declared.start())), variables);
        }
        return variables;
    }

    /** Reads type parameters, if an angle bracket opens there; the token behind them. */
    private static int variables(Code code, int open, List<TypeVariable> into) {
        if (!code.is(open, '<')) {
            return open;
        }
        int at = afterAnnotations(code, open + 1);
        while (code.isName(at)) {
            String name = code.text(at++);
            Optional<TypeName> bound = Optional.empty();
            if (code.is(at, "extends")) {
                bound = Optional.ofNullable(type(code, at + 1, 0));
                at = bound.map(TypeName::end).orElse(at + 1);
                while (code.is(at, '&')) {
                    TypeName more = type(code, at + 1, 0);
                    at = more == null ? at + 1 : more.end();
                }
            }
            into.add(new TypeVariable(name, bound));
            if (!code.is(at, ',')) {
                break;
            }
            at = afterAnnotations(code, at + 1);
        }
        return code.is(at, '>') ? at + 1 : at;
    }

    @Override
    public Optional<Local> local(CodeFile file, String name, int token) {
        Code code = file.code();
        int first = outermost(file, token);
        int[] declaring = file.declaring(name, this);
        for (int i = declaring.length - 1; i >= 0 && declaring[i] > first; i--) {
            int at = declaring[i];
            int block = at < token ? code.blockAround(at) : -1;
            boolean isOver = block >= 0 && code.partner(block) >= 0 && code.partner(block) < token;
            if (at >= token || isOver) {
                continue;
            }
            if (file.isDeclared(at)) { // a member of a class without a name, or of a local one
                return Optional.empty();
            }
            Optional<Local> found = declaredAt(code, at, token);
            if (found.isPresent()) {
                return found;
            }
        }
        return Optional.empty();
    }

    /** The first token of the outermost declaration around that is a member of a type which is not local. */
    private static int outermost(CodeFile file, int token) {
        Optional<Declared> at = file.enclosing(token);
        Optional<Declared> found = Optional.empty();
        int type = -1; // where the innermost one begins
        while (at.isPresent()) {
            if (!at.get().kind().isType() && at.get().kind() != Kind.NAMESPACE) {
                found = at;
            } else if (type < 0) {
                type = file.token(at.get().start());
            }
            at = file.parent(at.get());
        }
        int start = type;
        return found.map(one -> file.token(one.start())).orElseGet(() -> initialiser(file.code(), token, start));
    }

    /** The outermost block around a token within the body of a type, which is the body itself if there is none. */
    private static int initialiser(Code code, int token, int type) {
        int block = code.blockAround(token);
        int around = block < 0 ? -1 : code.blockAround(block);
        while (around > type && code.blockAround(around) > type) {
            block = around;
            around = code.blockAround(block);
        }
        return Math.max(0, block);
    }

    @Override
    public boolean declaresLocal(CodeFile file, int token) {
        Code code = file.code();
        return typed(code, token) != null || isLambda(code, token) || bareList(code, token) >= 0;
    }

    /** Whether a name is the parameter of a function without a name, and not what a case of a switch asks for. */
    private static boolean isLambda(Code code, int name) {
        int at = name;
        while (code.is(at - 1, ',') && (code.isName(at - 2) || code.isLiteral(at - 2))) {
            at -= 2;
        }
        return code.are(name + 1, "->") && !code.is(at - 1, "case");
    }

    /** The type that stands before a name and makes it a variable; null if none does. */
    private static TypeName typed(Code code, int name) {
        int type = code.is(name + 1, '(') ? -1 : typeBefore(code, name);
        TypeName written = type < 0 ? null : type(code, type, 0);
        return written == null || written.end() > name
                ? null
                : written.withDimensions(code.are(written.end(), "...") ? 1 : 0);
    }

    /** The bracket before the names without types that a function without a name takes; negative if there is none. */
    private static int bareList(Code code, int name) {
        boolean inList = (code.is(name - 1, '(') || code.is(name - 1, ','))
                && (code.is(name + 1, ')') || code.is(name + 1, ','));
        int open = name;
        while (inList && open > 0 && !code.is(open, '(') && (code.isName(open) || code.is(open, ','))) {
            open--;
        }
        int close = code.partner(open);
        return inList && code.is(open, '(') && close > name && code.are(close + 1, "->") ? open : -1;
    }

    /** The variable that is declared at a token, if one is and it holds at another one behind it. */
    private static Optional<Local> declaredAt(Code code, int at, int user) {
        TypeName written = typed(code, at);
        if (written != null) {
            if (isInClosedBrackets(code, at, user)) {
                return Optional.empty();
            }
            return Optional.of(written.parts().equals(List.of("var")) ? given(code, at) : Local.typed(written));
        }
        if (isLambda(code, at) && Phrases.holds(code, at + 3, user)) {
            return Optional.of(Local.ofLambda(at, 0));
        }
        int open = bareList(code, at);
        return open >= 0 && Phrases.holds(code, code.partner(open) + 3, user)
                ? Optional.of(Local.ofLambda(open, (at - open) / 2))
                : Optional.empty();
    }

    /** Whether a parameter of a function without a name is out of reach: its brackets and its body are closed. */
    private static boolean isInClosedBrackets(Code code, int at, int user) {
        int open = at;
        while (open >= 0 && !code.is(open, '(') && !code.is(open, '{') && !code.is(open, ';')) {
            open = code.partner(open) >= 0 && code.partner(open) < open ? code.partner(open) - 1 : open - 1;
        }
        int close = code.is(open, '(') ? code.partner(open) : -1;
        if (close < 0 || close > user) {
            return false;
        }
        if (code.are(close + 1, "->")) {
            return !Phrases.holds(code, close + 3, user);
        }
        if (code.is(open - 1, "for") || code.is(open - 1, "catch") || code.is(open - 1, "try")) {
            return !code.is(close + 1, '{') && !Phrases.holds(code, close + 1, user)
                    || code.is(close + 1, '{') && code.partner(close + 1) < user;
        }
        return false;
    }

    /** The first token of a type that ends right before a name; negative if there is none. */
    private static int typeBefore(Code code, int name) {
        int at = name - 1;
        while (code.is(at, '.') && code.is(at - 1, '.')) { // int... depths
            at--;
        }
        at = code.is(at, '.') ? at - 1 : at;
        while (code.is(at, ']') && code.is(at - 1, '[')) {
            at -= 2;
        }
        if (code.is(at, '>')) {
            int depth = 0;
            for (; at >= 0; at--) {
                if (code.is(at, '>')) {
                    depth++;
                } else if (code.is(at, '<')) {
                    if (--depth == 0) {
                        at--;
                        break;
                    }
                } else if (!code.isName(at)
                        && !code.isReserved(at)
                        && !code.is(at, ',')
                        && !code.is(at, '.')
                        && !code.is(at, '?')
                        && !code.is(at, '&')
                        && !code.is(at, '@')
                        && !code.is(at, '[')
                        && !code.is(at, ']')) {
                    return -1;
                }
            }
        }
        if (code.isReserved(at) && PRIMITIVES.contains(code.text(at))) {
            return at;
        }
        if (!code.isName(at)) {
            return code.is(at, ',') ? earlierDeclarator(code, at) : -1;
        }
        at = code.firstPart(at);
        return code.is(at - 1, '.') || code.is(at, "yield") && code.isFirst(at) ? -1 : at;
    }

    /** {@code int depth = 3, sounding;}: the type of what is declared before a comma. */
    private static int earlierDeclarator(Code code, int comma) {
        int at = comma - 1;
        while (at > 0) {
            if (code.is(at, ';') || code.is(at, '{') || code.is(at, '(') || code.is(at, '}') && code.is(at + 1, '@')) {
                break;
            }
            at = code.partner(at) >= 0 && code.partner(at) < at ? code.partner(at) - 1 : at - 1;
        }
        if (code.is(at, '(') && !code.is(at - 1, "for")) {
            return -1;
        }
        int start = afterModifiers(code, at + 1);
        TypeName type = type(code, start, 0);
        boolean declares = type != null
                && type.end() < comma
                && code.isName(type.end())
                && (code.is(type.end() + 1, '=') || code.is(type.end() + 1, ',') || code.is(type.end() + 1, '['));
        return declares ? start : -1;
    }

    /** What a variable without a type is given. */
    private static Local given(Code code, int name) {
        boolean isElement = code.is(name + 1, ':');
        int from = name + 2;
        if (!isElement && !code.is(name + 1, '=')) {
            return Local.UNTYPED;
        }
        int end = from;
        while (end < code.count() && !code.is(end, ';') && !code.is(end, ',') && !code.is(end, ')')) {
            end = code.partner(end) > end ? code.partner(end) + 1 : end + 1;
        }
        return Local.given(isElement ? Given.element(from, end) : Given.value(from, end));
    }
}
