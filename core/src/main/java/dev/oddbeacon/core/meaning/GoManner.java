package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Go: the type stands behind; a package is a folder. */
final class GoManner implements Manner {
    private static final Set<Trait> TRAITS = EnumSet.of(Trait.ONE_SPACE, Trait.METHODS_OUTSIDE, Trait.EMBEDS);
    private static final int DEEPEST = 50;

    @Override
    public Set<Trait> traits() {
        return TRAITS;
    }

    @Override
    public List<Import> imports(CodeFile file) {
        Code code = file.code();
        List<Import> imports = new ArrayList<>();
        for (int token = 0; token < code.count() && !code.is(token, "func") && !code.is(token, "type"); token++) {
            if (!code.is(token, "import")) {
                continue;
            }
            int close = code.is(token + 1, '(') ? code.partner(token + 1) : token + 3;
            for (int at = token + 1; at < close && at < code.count(); at++) {
                if (code.isLiteral(at)) {
                    String path = unquoted(code.text(at));
                    boolean isNamed = code.isName(at - 1) && !code.isFirst(at);
                    boolean isOfAll = code.is(at - 1, '.');
                    String alias = isOfAll ? "" : isNamed ? code.text(at - 1) : lastPart(path);
                    imports.add(new Import(path, "", alias, isOfAll));
                    if (close == token + 3) {
                        break;
                    }
                }
            }
        }
        return imports;
    }

    private static String unquoted(String text) {
        return text.length() < 2 ? "" : text.substring(1, text.length() - 1);
    }

    /** The name that a package has most likely: the last part of its path, unless that is a version. */
    static String lastPart(String path) {
        int slash = path.lastIndexOf('/');
        String last = path.substring(slash + 1);
        boolean isVersion = last.length() > 1 && last.charAt(0) == 'v' && Character.isDigit(last.charAt(1));
        return isVersion && slash > 0 ? lastPart(path.substring(0, slash)) : last;
    }

    @Override
    public Optional<TypeName> type(Code code, int token) {
        return Optional.ofNullable(type(code, token, 0));
    }

    private static TypeName type(Code code, int token, int depth) {
        int at = token;
        if (depth > DEEPEST) {
            return null;
        }
        if (code.are(at, "...")) {
            TypeName element = type(code, at + 3, depth + 1);
            return element == null ? null : element.withDimensions(1);
        }
        if (code.is(at, '*')) {
            return type(code, at + 1, depth + 1);
        }
        if (code.is(at, '(') && code.partner(at) > at) {
            TypeName inner = type(code, at + 1, depth + 1);
            return inner == null
                    ? null
                    : new TypeName(
                            inner.parts(), inner.arguments(), inner.dimensions(), inner.token(), code.partner(at) + 1);
        }
        if (code.is(at, '[') && code.partner(at) > at) {
            TypeName element = type(code, code.partner(at) + 1, depth + 1);
            return element == null ? null : element.withDimensions(1);
        }
        if (code.is(at, '<') && code.is(at + 1, '-')) {
            at += 2;
        }
        if (code.is(at, "chan")) {
            int element = code.are(at + 1, "<-") ? at + 3 : at + 1;
            TypeName of = type(code, element, depth + 1);
            return of == null ? null : new TypeName(List.of(Type.CHANNEL), List.of(of), 0, at, of.end());
        }
        if (code.is(at, "map") && code.is(at + 1, '[')) {
            TypeName key = type(code, at + 2, depth + 1);
            TypeName value = key == null ? null : type(code, code.partner(at + 1) + 1, depth + 1);
            return value == null ? null : new TypeName(List.of("map"), List.of(key, value), 0, at, value.end());
        }
        if (code.is(at, "func") && code.is(at + 1, '(')) {
            int end = code.partner(at + 1) + 1;
            Optional<TypeName> result = end <= 0 ? Optional.empty() : result(code, end);
            int last = code.is(end, '(')
                    ? code.partner(end) + 1
                    : result.map(TypeName::end).orElse(end);
            return new TypeName(List.of(Type.FUNCTION), result.stream().toList(), 0, at, last);
        }
        if ((code.is(at, "struct") || code.is(at, "interface")) && code.is(at + 1, '{')) {
            return new TypeName(List.of(code.text(at)), List.of(), 0, at, code.partner(at + 1) + 1);
        }
        if (!code.isName(at)) {
            return null;
        }
        List<String> parts = new ArrayList<>(List.of(code.text(at)));
        int last = at++;
        if (code.is(at, '.') && code.isName(at + 1)) {
            parts.add(code.text(at + 1));
            last = at + 1;
            at += 2;
        }
        List<TypeName> arguments = new ArrayList<>();
        if (code.is(at, '[') && code.end(at - 1) == code.start(at) && !code.is(at + 1, ']')) {
            int close = code.partner(at);
            int next = at + 1;
            while (next < close) {
                TypeName one = type(code, next, depth + 1);
                if (one == null || one.end() < close && !code.is(one.end(), ',')) {
                    return new TypeName(parts, List.of(), 0, last, at);
                }
                arguments.add(one);
                next = one.end() + 1;
            }
            at = close + 1;
        }
        return new TypeName(List.copyOf(parts), List.copyOf(arguments), 0, last, at);
    }

    @Override
    public Member member(CodeFile file, Declared declared) {
        Code code = file.code();
        int name = file.nameToken(declared);
        if (declared.kind().isCallable()) {
            int open = variables(code, name + 1, new ArrayList<>());
            List<TypeName> parameters = new ArrayList<>();
            boolean takesMore = parameters(code, open, parameters);
            return new Member(
                    file.spot(declared),
                    result(code, code.partner(open) + 1),
                    parameters,
                    takesMore,
                    parameters.size() - (takesMore ? 1 : 0),
                    variables(file, declared),
                    false);
        }
        int at = name + 1;
        while (code.is(at, ',') && code.isName(at + 1)) { // depth, width int
            at += 2;
        }
        Optional<TypeName> type = code.isFirst(at) ? Optional.empty() : type(code, at);
        if (type.isEmpty() && code.is(at, '=')) {
            type = created(code, code.is(at + 1, '&') ? at + 2 : at + 1).map(Created::type);
        }
        return new Member(file.spot(declared), type, List.of(), false, 0, List.of(), false);
    }

    /** What a function returns whose brackets end before a token. */
    private static Optional<TypeName> result(Code code, int behind) {
        if (behind <= 0 || code.isFirst(behind) || code.is(behind, '{')) {
            return Optional.empty();
        }
        if (!code.is(behind, '(')) {
            return Optional.ofNullable(type(code, behind, 0));
        }
        List<TypeName> results = new ArrayList<>();
        parameters(code, behind, results);
        return results.size() < 2
                ? results.stream().findFirst()
                : Optional.of(new TypeName(List.of(Type.SEVERAL), results, 0, behind, code.partner(behind) + 1));
    }

    @Override
    public Optional<TypeName> underlying(CodeFile file, Declared declared) {
        Code code = file.code();
        int behind = variables(code, file.nameToken(declared) + 1, new ArrayList<>());
        return declared.kind() == Kind.TYPE ? type(code, code.is(behind, '=') ? behind + 1 : behind) : Optional.empty();
    }

    /** Reads what stands in the brackets of a function; whether the last takes any number. */
    private static boolean parameters(Code code, int open, List<TypeName> into) {
        int close = code.is(open, '(') ? code.partner(open) : -1;
        boolean isNamed = false;
        List<int[]> entries = new ArrayList<>();
        for (int at = open + 1; at < close; ) {
            int end = at;
            while (end < close && !code.is(end, ',')) {
                end = code.partner(end) > end ? code.partner(end) + 1 : end + 1;
            }
            boolean hasType = code.isName(at) && end > at + 1 && !code.is(at + 1, '.') && !isGeneric(code, at + 1, end);
            isNamed |= hasType;
            entries.add(new int[] {at, end});
            at = end + 1;
        }
        TypeName last = null;
        boolean takesMore = false;
        List<TypeName> reversed = new ArrayList<>();
        for (int i = entries.size() - 1; i >= 0; i--) {
            int from = entries.get(i)[0];
            boolean hasType = !isNamed || entries.get(i)[1] > from + 1;
            int start = isNamed ? from + 1 : from;
            if (hasType) {
                last = type(code, start, 0);
                takesMore |= i == entries.size() - 1 && code.are(start, "...");
            }
            reversed.add(last == null ? new TypeName(List.of("?"), List.of(), 0, from, from + 1) : last);
        }
        into.addAll(reversed.reversed());
        return takesMore;
    }

    /** {@code Set[string]} is a type, {@code all []string} a name and one. */
    private static boolean isGeneric(Code code, int open, int end) {
        return code.is(open, '[')
                && code.end(open - 1) == code.start(open)
                && code.partner(open) == end - 1
                && code.partner(open) > open + 1;
    }

    @Override
    public List<TypeVariable> variables(CodeFile file, Declared declared) {
        Code code = file.code();
        List<TypeVariable> variables = new ArrayList<>();
        int name = file.nameToken(declared);
        if (declared.kind() != Kind.METHOD) {
            variables(code, name + 1, variables);
        } else if (code.is(name - 1, ')')) { // func (s *Set[K]) Has(…)
            for (int at = code.partner(name - 1); at < name && at > 0; at++) {
                boolean isNamed = code.isName(at) && (code.is(at - 1, '[') || code.is(at - 1, ','));
                if (isNamed) {
                    variables.add(new TypeVariable(code.text(at), Optional.empty()));
                }
            }
        }
        return variables;
    }

    /** Reads type parameters, if a bracket opens right there; the token behind them. */
    private static int variables(Code code, int open, List<TypeVariable> into) {
        boolean isThere = code.is(open, '[')
                && code.partner(open) > open + 2
                && code.end(open - 1) == code.start(open)
                && code.isName(open + 1)
                && !code.is(open + 2, ']');
        if (!isThere) {
            return open;
        }
        int close = code.partner(open);
        List<String> names = new ArrayList<>();
        for (int at = open + 1; at < close; ) {
            names.add(code.text(at));
            if (code.is(at + 1, ',')) {
                at += 2;
                continue;
            }
            TypeName bound = type(code, code.is(at + 1, '~') ? at + 2 : at + 1, 0);
            names.forEach(name -> into.add(new TypeVariable(name, Optional.ofNullable(bound))));
            names.clear();
            at = bound == null ? close : bound.end();
            while (at < close && !code.is(at, ',')) {
                at++;
            }
            at++;
        }
        return close + 1;
    }

    @Override
    public Optional<Created> created(Code code, int token) {
        if ((code.is(token, "make") || code.is(token, "new")) && code.is(token + 1, '(')) {
            return type(code, token + 2).map(type -> new Created(type, code.partner(token + 1) + 1));
        }
        boolean isType = code.isName(token)
                || code.is(token, '[')
                || code.is(token, "map")
                || code.is(token, "struct")
                || code.is(token, "func");
        return !isType
                ? Optional.empty()
                : type(code, token)
                        .filter(type -> code.partner(type.end()) > type.end())
                        .filter(type -> code.is(token, "func") || isOpenedBy(code, type, !code.isName(token)))
                        .map(type -> new Created(type, code.partner(type.end()) + 1));
    }

    /** Whether what stands in braces, or in brackets, right behind a type makes a value of it. */
    private static boolean isOpenedBy(Code code, TypeName type, boolean mayConvert) {
        int open = type.end();
        return code.start(open) == code.end(open - 1) && (code.is(open, '{') || mayConvert && code.is(open, '('));
    }

    @Override
    public Optional<Created> asserted(Code code, int token) {
        return code.is(token, '.') && code.is(token + 1, '(')
                ? type(code, token + 2)
                        .filter(type -> type.end() == code.partner(token + 1))
                        .map(type -> new Created(type, type.end() + 1))
                : Optional.empty();
    }

    @Override
    public Optional<Prefix> prefix(Code code, int token) {
        if (code.are(token, "<-")) {
            return Optional.of(new Prefix(Prefix.Effect.ELEMENT, token + 2));
        }
        boolean isSign = code.is(token, '&')
                || code.is(token, '*')
                || code.is(token, '-')
                || code.is(token, '+')
                || code.is(token, '!')
                || code.is(token, '^');
        return isSign ? Optional.of(new Prefix(Prefix.Effect.SAME, token + 1)) : Optional.empty();
    }

    @Override
    public Optional<TypeName> filled(Code code, int token) {
        int brace = code.around(token);
        boolean isKey = code.is(brace, '{')
                && code.is(token + 1, ':')
                && !code.is(token + 2, '=')
                && (code.is(token - 1, '{') || code.is(token - 1, ','));
        return isKey ? Optional.ofNullable(filling(code, brace, 0)) : Optional.empty();
    }

    /** The type of the value whose braces open at a token; null if it cannot be told. */
    private static TypeName filling(Code code, int brace, int depth) {
        if (depth > DEEPEST || brace <= 0) {
            return null;
        }
        boolean isInner = code.is(brace - 1, '{') || code.is(brace - 1, ',') || code.is(brace - 1, ':');
        if (!isInner) {
            int start = typeBefore(code, brace);
            TypeName written = start < 0 ? null : type(code, start, 0);
            return written == null || written.end() != brace ? null : written;
        }
        TypeName outer = filling(code, code.around(brace), depth + 1);
        if (outer == null) {
            return null;
        }
        if (outer.dimensions() > 0) {
            return outer.withDimensions(-1);
        }
        boolean isMap =
                outer.parts().equals(List.of(Type.MAP)) && outer.arguments().size() == 2;
        return isMap ? outer.arguments().get(code.is(brace - 1, ':') ? 1 : 0) : null;
    }

    /** The first token of a type that ends right before a brace; negative if there is none. */
    private static int typeBefore(Code code, int brace) {
        int at = brace - 1;
        if (code.is(at, ']') && code.partner(at) > 0 && code.isName(code.partner(at) - 1)) { // Set[string]{
            at = code.partner(at) - 1;
        }
        if (!code.isName(at)) {
            return -1;
        }
        at = code.is(at - 1, '.') && code.isName(at - 2) ? at - 2 : at;
        while (true) {
            int before = code.is(at - 1, '*') ? at - 2 : at - 1;
            if (!code.is(before, ']') || code.partner(before) < 0) {
                return at;
            }
            int open = code.partner(before);
            at = code.is(open - 1, "map") ? open - 1 : open;
        }
    }

    @Override
    public Optional<Local> local(CodeFile file, String name, int token) {
        Code code = file.code();
        int[] declaring = file.declaring(name, this);
        int first = file.enclosing(token).map(one -> outermost(file, one)).orElse(0);
        for (int i = declaring.length - 1; i >= 0 && declaring[i] >= first; i--) {
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

    private static int outermost(CodeFile file, Declared inner) {
        Declared at = inner;
        while (file.parent(at).isPresent()) {
            at = file.parent(at).get();
        }
        return file.token(at.start());
    }

    @Override
    public boolean declaresLocal(CodeFile file, int token) {
        Code code = file.code();
        return assignment(code, token) >= 0 || variableWord(code, token) >= 0 || signature(code, token) >= 0;
    }

    /** The sign that declares the names before it, if a name is one of them; negative otherwise. */
    private static int assignment(Code code, int name) {
        int at = name + 1;
        while (code.is(at, ',') && code.isName(at + 1)) {
            at += 2;
        }
        return code.are(at, ":=") ? at : -1;
    }

    /** The first of the names that are declared together with one. */
    private static int firstOf(Code code, int name) {
        int at = name;
        while (code.is(at - 1, ',') && code.isName(at - 2)) {
            at -= 2;
        }
        return at;
    }

    /** The word, or the bracket behind it, after which a name is declared; negative if there is none. */
    private static int variableWord(Code code, int name) {
        int before = firstOf(code, name) - 1;
        boolean isWord = code.is(before, "var") || code.is(before, "const");
        int open = code.around(name);
        boolean isInGroup = code.is(open, '(')
                && (code.is(open - 1, "var") || code.is(open - 1, "const"))
                && (before == open || code.isFirst(before + 1));
        return isWord ? before : isInGroup ? open : -1;
    }

    /** The bracket of the parameters, results or receiver that a name is one of; negative if there is none. */
    private static int signature(Code code, int name) {
        int open = code.around(name);
        boolean mayBe =
                code.is(open, '(') && (code.is(name - 1, '(') || code.is(name - 1, ',')) && code.partner(open) > 0;
        return mayBe && isSignature(code, open, 0) && parameter(code, open, name) != null ? open : -1;
    }

    private static boolean isSignature(Code code, int open, int depth) {
        int before = open - 1;
        if (code.is(before, ']') && code.partner(before) > 0) { // func sum[T any](
            before = code.partner(before) - 1;
        }
        if (code.is(before, "func")) {
            return true;
        }
        if (code.isName(before)) {
            int owner = code.is(before - 1, ')') ? code.partner(before - 1) : -1;
            return code.is(before - 1, "func") || owner > 0 && code.is(owner - 1, "func");
        }
        return depth < 2
                && code.is(before, ')')
                && code.partner(before) > 0
                && isSignature(code, code.partner(before), depth + 1);
    }

    /** The type of a parameter; null if the name at a token is none. */
    private static TypeName parameter(Code code, int open, int name) {
        int close = code.partner(open);
        int at = name + 1;
        while (code.is(at, ',') && code.isName(at + 1) && at < close) { // depth, width int
            at += 2;
        }
        boolean isType = at >= close
                || code.is(at, ',')
                || code.is(at, '.') && !code.are(at, "...")
                || isGeneric(code, at, close);
        return isType ? null : type(code, at, 0);
    }

    /** The variable that is declared at a token, if it holds at another one behind it. */
    private static Optional<Local> declaredAt(Code code, int at, int user) {
        int open = signature(code, at);
        if (open >= 0) {
            int body = body(code, open);
            boolean holds = user <= code.partner(open) || body > 0 && code.partner(body) > user;
            return holds ? Optional.of(Local.typed(parameter(code, open, at))) : Optional.empty();
        }
        int first = firstOf(code, at);
        int position = (at - first) / 2;
        int sign = assignment(code, at);
        if (sign < 0) {
            return reaches(code, first, user) ? Optional.of(variable(code, at, position, user)) : Optional.empty();
        }
        boolean isElement = code.is(sign + 2, "range");
        int from = isElement ? sign + 3 : sign + 2;
        int end = end(code, from);
        if (user != at && (user < end && user > at || !reaches(code, first, user))) {
            return Optional.empty();
        }
        return Optional.of(given(code, from, end, isElement, position, user));
    }

    /** {@code var depth, width int} and {@code var gauge = first()}. */
    private static Local variable(Code code, int name, int position, int user) {
        int at = name + 1;
        while (code.is(at, ',') && code.isName(at + 1)) {
            at += 2;
        }
        Optional<TypeName> type =
                code.isFirst(at) || code.is(at, '=') ? Optional.empty() : Optional.ofNullable(type(code, at, 0));
        return type.map(Local::typed)
                .orElseGet(() -> code.is(name + 1, '=') || code.is(name + 1, ',')
                        ? given(code, firstGiven(code, name), end(code, firstGiven(code, name)), false, position, user)
                        : Local.UNTYPED);
    }

    private static int firstGiven(Code code, int name) {
        int at = name + 1;
        while (at < code.count() && !code.is(at, '=') && !code.isFirst(at)) {
            at++;
        }
        return at + 1;
    }

    private static Local given(Code code, int from, int end, boolean isElement, int position, int user) {
        boolean isSwitch = code.is(end - 1, ')') && code.is(end - 2, "type") && code.are(end - 4, ".(");
        if (isSwitch) {
            Optional<TypeName> chosen = chosen(code, end, user);
            return chosen.map(Local::typed).orElseGet(() -> Local.given(Given.value(from, end - 4)));
        }
        if (isElement) {
            return Local.given(new Given(from, end, true, position));
        }
        int start = from;
        int number = 0;
        for (int at = from; at < end; at++) {
            if (code.is(at, ',')) {
                if (number == position) {
                    return Local.given(Given.value(start, at));
                }
                number++;
                start = at + 1;
            }
            at = Math.max(at, code.partner(at));
        }
        return number > 0 && number == position
                ? Local.given(Given.value(start, end))
                : number > 0 ? Local.UNTYPED : Local.given(new Given(from, end, false, position));
    }

    /** The type of the case around a token, in the switch whose block opens at another one. */
    private static Optional<TypeName> chosen(Code code, int open, int user) {
        int brace = open;
        while (brace < user && !code.is(brace, '{')) {
            brace++;
        }
        int last = -1;
        for (int at = brace + 1; at < user; at++) {
            if (code.is(at, "case") || code.is(at, "default")) {
                last = at;
            }
            if (code.partner(at) > at) {
                at = code.partner(at) < user ? code.partner(at) : user;
            }
        }
        return last < 0 || code.is(last, "default")
                ? Optional.empty()
                : Optional.ofNullable(type(code, last + 1, 0)).filter(type -> code.is(type.end(), ':'));
    }

    /** The brace of the body of a function of which brackets open at a token; negative if it has none. */
    private static int body(Code code, int open) {
        int at = code.partner(open) + 1;
        if (code.isName(at) && code.is(open - 1, "func")) { // behind a receiver
            at++;
        }
        while (code.is(at, '(') || code.is(at, '[') && !code.is(at + 1, ']')) {
            if (code.partner(at) < 0) {
                return -1;
            }
            at = code.partner(at) + 1;
        }
        if (!code.is(at, '{') && !code.isFirst(at)) {
            TypeName result = type(code, at, 0);
            at = result == null ? at : result.end();
        }
        return code.is(at, '{') ? at : -1;
    }

    /** The token behind a value: at the end of its line, or of the head that it stands in. */
    private static int end(Code code, int from) {
        for (int at = from; at < code.count(); at++) {
            boolean isOver = code.is(at, ';')
                    || code.is(at, ')')
                    || code.is(at, '}')
                    || code.is(at, ']')
                    || code.is(at, ':')
                    || at > from && code.isFirst(at) && endsLine(code, at - 1)
                    || code.is(at, '{')
                            && at > from
                            && code.start(at) > code.end(at - 1)
                            && !isFunction(code, from, at);
            if (isOver) {
                return at;
            }
            at = Math.max(at, code.partner(at));
        }
        return code.count();
    }

    private static boolean isFunction(Code code, int from, int brace) {
        for (int at = brace - 1; at >= from; at--) {
            if (code.is(at, "func") || code.is(at, "struct") || code.is(at, "interface")) {
                return true;
            }
        }
        return false;
    }

    private static boolean endsLine(Code code, int token) {
        return code.isName(token)
                || code.isLiteral(token)
                || code.isReserved(token)
                || code.is(token, ')')
                || code.is(token, ']')
                || code.is(token, '}')
                || code.are(token - 1, "++")
                || code.are(token - 1, "--");
    }

    /** Whether a variable that is declared at a token holds at another one behind it. */
    private static boolean reaches(Code code, int first, int user) {
        int word = first - 1;
        boolean isHead = code.is(word, "if") || code.is(word, "for") || code.is(word, "switch");
        if (isHead) {
            return user < endOfStatement(code, first);
        }
        int block = code.blockAround(first);
        if (block >= 0 && code.partner(block) >= 0 && code.partner(block) < user) {
            return false;
        }
        for (int at = first + 1; at < user; at++) { // another case of the same switch
            if (code.around(at) == block && (code.is(at, "case") || code.is(at, "default"))) {
                return false;
            }
            if (code.partner(at) > at && code.partner(at) < user) {
                at = code.partner(at);
            }
        }
        return true;
    }

    /** The token behind the blocks of a statement that a token stands in the head of. */
    private static int endOfStatement(Code code, int head) {
        int at = head;
        while (at < code.count() && !code.is(at, '{')) {
            at = code.is(at, '(') || code.is(at, '[') ? Math.max(at, code.partner(at)) + 1 : at + 1;
        }
        while (at < code.count()) {
            int close = code.partner(at);
            if (close < 0) {
                return code.count();
            }
            boolean isValue = code.start(at) == code.end(at - 1); // Gauge{} in the head
            if (!isValue && !code.is(close + 1, "else")) {
                return close;
            }
            at = close + 1;
            while (at < code.count() && !code.is(at, '{')) {
                at++;
            }
        }
        return code.count();
    }
}
