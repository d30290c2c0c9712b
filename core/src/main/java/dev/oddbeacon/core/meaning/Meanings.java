package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.meaning.Meaning.Standing;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * Says what names mean where they are used, by the types that are written: of variables, parameters, fields, of what
 * methods return, of what is created and cast to. For one thread.
 */
final class Meanings {
    private static final int DEEPEST = 40;
    private static final int MOST_TYPES = 300;
    private static final int MOST_VALUES = 20_000;

    /** A member of a type, or of one that it extends. */
    private record Found(Member member, Type.Known owner) {}

    private final Types types;
    private Reading last;

    Meanings(Types types) {
        this.types = types;
    }

    /** What the name at a token means. */
    Meaning at(CodeFile file, int token) {
        if (last == null || last.file != file) {
            last = new Reading(file);
        }
        return last.meaning(token);
    }

    /** What stands in one file. */
    private final class Reading {
        private final CodeFile file;
        private final Code code;
        private final Manner manner;
        private final Map<Long, Type> values = new HashMap<>();
        /** By the first token of a value: what it is up to another token, so that a long chain is gone along once. */
        private final Map<Integer, TreeMap<Integer, Type>> beginnings = new HashMap<>();

        private int depth;

        Reading(CodeFile file) {
            this.file = file;
            this.code = file.code();
            this.manner = Types.manner(file);
        }

        Meaning meaning(int token) {
            String name = code.text(token);
            int before = code.is(token - 1, '>') ? angle(token - 1) - 1 : token - 1; // Gauge.<Depth>of
            boolean isReference = code.are(before - 1, "::");
            boolean isCall = code.is(token + 1, '(');
            int arguments = isCall ? arguments(token + 1).size() : -1;
            if (isReference || code.is(before, '.')) {
                if (isImport(token)) {
                    return imported(token);
                }
                int dot = isReference ? before - 1 : before;
                Type receiver = value(chainStart(dot - 1), dot);
                return of(receiver, name, token, isCall, isReference, arguments);
            }
            if (isCall && code.is(token - 1, "new")) {
                return type(token);
            }
            if (isCall && !code.is(token - 1, '@')) {
                return unqualifiedCall(token, name, arguments);
            }
            if (code.is(token + 1, '=') && !code.are(token + 1, "==")) {
                Optional<Type> annotation = annotationAround(token);
                if (annotation.isPresent()) {
                    return of(annotation.get(), name, token, true, false, 0);
                }
            }
            if (isCase(token)) {
                Optional<Type> chosen = switchedOn(token);
                if (chosen.isPresent() && chosen.get() instanceof Type.Known) {
                    Meaning meaning = of(chosen.get(), name, token, false, false, -1);
                    if (meaning.standing() != Standing.SOMETHING_ELSE) {
                        return meaning;
                    }
                }
            }
            if (manner.declaresLocal(file, token)
                    || manner.local(file, name, token).isPresent()) {
                return Meaning.somethingElse();
            }
            Optional<Meaning> field = field(token, name);
            return field.orElseGet(() -> type(token));
        }

        /** Members of a type. */
        private Meaning of(Type receiver, String name, int token, boolean isCall, boolean isReference, int arguments) {
            return switch (receiver) {
                case Type.Known known -> {
                    List<Found> found = isReference
                            ? members(known, name, true, -1)
                            : narrowed(members(known, name, isCall, arguments), token, isCall);
                    if (found.isEmpty() && !isCall && !isReference) {
                        Optional<Type.Known> nested = types.inherited(known, name, 0);
                        if (nested.isPresent()) {
                            yield told(
                                    List.of(nested.get().declaration().spot()),
                                    nested.get().isOnly(),
                                    -1,
                                    false);
                        }
                    }
                    if (!found.isEmpty()) {
                        yield told(found, known.isOnly(), arguments, isCall);
                    }
                    yield hasUnknownAbove(known) ? Meaning.unknown(arguments, isCall) : Meaning.somethingElse();
                }
                case Type.Foreign _ -> Meaning.somethingElse();
                case Type.ArrayOf _ -> Meaning.somethingElse();
                case Type.Guess guess -> {
                    List<Spot> spots = new ArrayList<>();
                    for (Type.Known option : guess.options()) {
                        for (Found one : members(option, name, isCall || isReference, isReference ? -1 : arguments)) {
                            spots.add(spot(one));
                        }
                    }
                    yield spots.isEmpty()
                            ? Meaning.unknown(arguments, isCall || isReference)
                            : new Meaning(spots, Standing.GUESSED, arguments, isCall);
                }
            };
        }

        private Meaning told(List<?> found, boolean isOnly, int arguments, boolean isCall) {
            List<Spot> spots = found.stream()
                    .map(one -> one instanceof Found member ? spot(member) : (Spot) one)
                    .toList();
            return new Meaning(spots, isOnly ? Standing.TOLD : Standing.GUESSED, arguments, isCall);
        }

        private Spot spot(Found found) {
            Spot type = found.owner.declaration().spot();
            return new Spot(type.segment(), type.blob(), found.member.declared(), type.branchNumber(), type.file());
        }

        private boolean hasUnknownAbove(Type.Known type) {
            Set<TypeDeclaration> seen = new HashSet<>();
            return hasUnknownAbove(type, seen);
        }

        private boolean hasUnknownAbove(Type.Known type, Set<TypeDeclaration> seen) {
            return seen.size() > MOST_TYPES
                    || seen.add(type.declaration())
                            && (types.hasForeignSupertype(type)
                                    || types.supertypes(type).stream().anyMatch(above -> hasUnknownAbove(above, seen)));
        }

        private boolean isImport(int token) {
            int at = token;
            while (at > 0 && (code.is(at - 1, '.') || code.isName(at - 1))) {
                at--;
            }
            return code.is(at - 1, "import") || code.is(at - 1, "static") && code.is(at - 2, "import");
        }

        private Meaning imported(int token) {
            List<String> parts = new ArrayList<>();
            for (int at = token; code.isName(at); at -= 2) {
                parts.addFirst(code.text(at));
                if (!code.is(at - 1, '.')) {
                    break;
                }
            }
            String name = parts.removeLast();
            Optional<Type.Known> type = types.contained(name, String.join(".", parts));
            if (type.isPresent()) {
                return told(List.of(type.get().declaration().spot()), type.get().isOnly(), -1, false);
            }
            if (parts.size() > 1) {
                String owner = parts.removeLast();
                Optional<Type.Known> of = types.contained(owner, String.join(".", parts));
                if (of.isPresent()) {
                    List<Found> all = new ArrayList<>(members(of.get(), name, true, -1));
                    all.addAll(members(of.get(), name, false, -1));
                    if (!all.isEmpty()) {
                        return told(all, of.get().isOnly(), -1, false);
                    }
                }
            }
            return Meaning.somethingElse();
        }

        private Meaning type(int token) {
            int first = token;
            while (code.is(first - 1, '.') && code.isName(first - 2)) {
                first -= 2;
            }
            List<String> parts = new ArrayList<>();
            for (int at = first; at <= token; at += 2) {
                parts.add(code.text(at));
            }
            Optional<Type.Known> found = types.declared(file, parts, file.enclosing(token));
            return found.map(known -> told(List.of(known.declaration().spot()), known.isOnly(), -1, false))
                    .orElseGet(Meaning::somethingElse);
        }

        /** A field by its name alone. */
        private Optional<Meaning> field(int token, String name) {
            for (Type.Known scope : scopes(token)) {
                List<Found> found = members(scope, name, false, -1);
                if (!found.isEmpty()) {
                    return Optional.of(told(found, scope.isOnly(), -1, false));
                }
            }
            return statically(name, false, -1, token);
        }

        /** What is imported of a type. */
        private Optional<Meaning> statically(String name, boolean isCall, int arguments, int token) {
            boolean isForeign = false;
            for (Import one : file.imports(manner)) {
                if (!one.isMember() || !one.isOfAll() && !one.alias().equals(name)) {
                    continue;
                }
                Optional<Type.Known> owner = owner(one);
                if (owner.isEmpty()) {
                    isForeign |= !one.isOfAll();
                    continue;
                }
                List<Found> found = narrowed(members(owner.get(), name, isCall, arguments), token, isCall);
                if (!found.isEmpty()) {
                    return Optional.of(told(found, owner.get().isOnly(), arguments, isCall));
                }
            }
            return isForeign ? Optional.of(Meaning.somethingElse()) : Optional.empty();
        }

        /** The type whose members are imported. */
        private Optional<Type.Known> owner(Import one) {
            int dot = one.from().lastIndexOf('.');
            return types.contained(
                    one.from().substring(dot + 1), dot < 0 ? "" : one.from().substring(0, dot));
        }

        private Meaning unqualifiedCall(int token, String name, int arguments) {
            boolean isUnsure = false;
            for (Type.Known scope : scopes(token)) {
                List<Found> found = narrowed(members(scope, name, true, arguments), token, true);
                if (!found.isEmpty()) {
                    return told(found, scope.isOnly() && !isUnsure, arguments, true);
                }
                isUnsure |= hasUnknownAbove(scope);
            }
            Optional<Meaning> imported = statically(name, true, arguments, token);
            if (imported.isPresent()) {
                return imported.get();
            }
            return isUnsure ? Meaning.unknown(arguments, true) : Meaning.somethingElse();
        }

        /** The types around a place, the innermost first; of those without a name, what they extend. */
        private List<Type.Known> scopes(int token) {
            List<Type.Known> scopes = new ArrayList<>();
            Optional<Declared> at = file.enclosing(token);
            while (at.isPresent()) {
                Declared one = at.get();
                Optional<Declared> parent = file.parent(one);
                if (one.kind().isType()) {
                    scopes.add(self(one));
                } else if (parent.isPresent()
                        && !parent.get().kind().isType()
                        && parent.get().kind() != Kind.NAMESPACE) {
                    anonymousAround(one).ifPresent(scopes::add);
                }
                at = parent;
            }
            return scopes;
        }

        private Type.Known self(Declared type) {
            return new Type.Known(types.declaration(file.spot(type)), List.of(), true);
        }

        /** The class without a name in which a member stands. */
        private Optional<Type.Known> anonymousAround(Declared member) {
            int at = file.token(member.start()) - 1;
            while (at > 0 && !code.is(at, '{')) {
                at = code.partner(at) >= 0 && code.partner(at) < at ? code.partner(at) - 1 : at - 1;
            }
            int brace = at;
            int open = code.is(brace - 1, ')') ? code.partner(brace - 1) : -1;
            for (int word = open; word > 0 && word > open - 60; word--) {
                if (code.is(word, "new")) {
                    return manner.type(code, word + 1)
                            .filter(type -> type.end() == open && code.partner(brace) > brace)
                            .map(type -> types.anonymous(
                                    file, member, type, file.offset(brace), file.offset(code.partner(brace))))
                            .map(type -> new Type.Known(type, List.of(), true));
                }
            }
            return Optional.empty();
        }

        /** The annotation in whose brackets a token stands right away. */
        private Optional<Type> annotationAround(int token) {
            if (!code.is(token - 1, '(') && !code.is(token - 1, ',')) {
                return Optional.empty();
            }
            int at = token - 1;
            while (at > 0 && !code.is(at, '(')) {
                if (code.is(at, ';') || code.is(at, '{') || code.is(at, '}') && code.partner(at) < 0) {
                    return Optional.empty();
                }
                at = code.partner(at) >= 0 && code.partner(at) < at ? code.partner(at) - 1 : at - 1;
            }
            int first = at - 1;
            while (code.isName(first) && code.is(first - 1, '.') && code.isName(first - 2)) {
                first -= 2;
            }
            if (!code.isName(first) || !code.is(first - 1, '@')) {
                return Optional.empty();
            }
            Optional<Declared> around = file.enclosing(first);
            return manner.type(code, first).map(type -> types.named(file, type, around, Map.of()));
        }

        private boolean isCase(int token) {
            int at = token;
            while (code.is(at - 1, ',') && (code.isName(at - 2) || code.isLiteral(at - 2))) {
                at -= 2;
            }
            return code.is(at - 1, "case");
        }

        /** The type of what a switch around a token looks at. */
        private Optional<Type> switchedOn(int token) {
            int at = token - 1;
            while (at > 0 && !code.is(at, '{')) {
                at = code.partner(at) >= 0 && code.partner(at) < at ? code.partner(at) - 1 : at - 1;
            }
            int close = at - 1;
            int open = code.partner(close);
            return code.is(close, ')') && open > 0 && code.is(open - 1, "switch")
                    ? Optional.of(value(open + 1, close))
                    : Optional.empty();
        }

        /** The arguments in brackets, as pairs of tokens. */
        private List<int[]> arguments(int open) {
            List<int[]> arguments = new ArrayList<>();
            int close = code.partner(open);
            int from = open + 1;
            if (close <= open + 1) {
                return arguments;
            }
            for (int at = from; at < close; ) {
                if (code.is(at, ',')) {
                    arguments.add(new int[] {from, at});
                    from = at + 1;
                } else if (code.is(at, '<') && code.isName(at - 1)) {
                    int past = manner.type(code, at - 1).map(TypeName::end).orElse(-1);
                    boolean isGeneric = past > 0
                            && (code.is(past, '(')
                                    || code.is(past, ':')
                                    || code.is(past, '{')
                                    || code.is(past, '.')
                                    || code.is(past, ')')
                                    || code.isName(past));
                    at = isGeneric ? past : at + 1;
                    continue;
                }
                at = code.partner(at) > at ? code.partner(at) + 1 : at + 1;
            }
            arguments.add(new int[] {from, close});
            return arguments;
        }

        /** The first token of what a receiver is written as that ends at a token. */
        private int chainStart(int last) {
            int at = last;
            while (true) {
                if (code.is(at, '>')) { // Map<String, Gauge>::get, or this.<Gauge>read
                    at = angle(at) - 1;
                    if (code.is(at, '.')) {
                        at--;
                        continue;
                    }
                }
                while ((code.is(at, ')') || code.is(at, ']') || code.is(at, '}')) && code.partner(at) >= 0) {
                    int open = code.partner(at);
                    if (open == 0) {
                        return 0;
                    }
                    boolean isPrimary = code.is(at, ')')
                            && !(code.isName(open - 1)
                                    || code.is(open - 1, '>')
                                    || code.is(open - 1, "this")
                                    || code.is(open - 1, "super"));
                    if (isPrimary) {
                        return newBefore(open);
                    }
                    at = open - 1;
                    if (code.is(at, '>')) {
                        int before = newBefore(at + 1);
                        if (before < at) {
                            return before;
                        }
                        break;
                    }
                }
                if (code.is(at, '>')) {
                    continue;
                }
                int before = newBefore(at + 1);
                if (before <= at) {
                    return before;
                }
                if (code.is(at - 1, '.') && !code.are(at - 2, "..")) {
                    at -= 2;
                    continue;
                }
                return Math.max(0, at);
            }
        }

        /** The angle bracket that belongs to a closing one. */
        private int angle(int close) {
            int open = 0;
            for (int at = close; at > 0; at--) {
                if (code.is(at, '>')) {
                    open++;
                } else if (code.is(at, '<') && --open == 0) {
                    return at;
                }
            }
            return 0;
        }

        /** The token of {@code new} if what it creates ends before a token; else that token. */
        private int newBefore(int end) {
            for (int at = end - 1; at > 0 && at > end - 60; at--) {
                if (code.is(at, "new")) {
                    int from = at;
                    Optional<TypeName> type = manner.type(code, at + 1);
                    return type.isPresent() && type.get().end() == end ? from : end;
                }
                if (!code.isName(at)
                        && !code.is(at, '.')
                        && !code.is(at, '<')
                        && !code.is(at, '>')
                        && !code.is(at, ',')
                        && !code.is(at, '?')
                        && !code.isReserved(at)
                        && !code.is(at, '[')
                        && !code.is(at, ']')) {
                    return end;
                }
            }
            return end;
        }

        /** The type of a value that is written in a range of tokens. */
        private Type value(int from, int to) {
            if (from >= to || depth > DEEPEST) {
                return Type.Guess.NOTHING;
            }
            long key = (long) from << 32 | to;
            Type known = values.get(key);
            if (known != null) {
                return known;
            }
            depth++;
            try {
                Type found = chain(from, to);
                if (values.size() > MOST_VALUES) {
                    values.clear();
                    beginnings.clear();
                }
                values.put(key, found);
                return found;
            } finally {
                depth--;
            }
        }

        private Type chain(int from, int to) {
            int question = choice(from, to);
            if (question > 0) {
                int colon = colon(question, to);
                Type first = value(question + 1, colon);
                return first.isUnknown() ? value(colon + 1, to) : first;
            }
            Map.Entry<Integer, Type> begun =
                    beginnings.getOrDefault(from, new TreeMap<>()).floorEntry(to);
            if (begun != null) {
                return suffixes(from, begun.getValue(), begun.getKey(), to);
            }
            int at = from;
            Type type;
            if (code.is(at, '(')) {
                int close = code.partner(at);
                if (close < 0 || close >= to) {
                    return Type.Guess.NOTHING;
                }
                if (code.are(close + 1, "->")) {
                    return Type.Guess.NOTHING;
                }
                Optional<TypeName> cast =
                        manner.type(code, at + 1).filter(name -> name.end() == close || code.is(name.end(), '&'));
                if (cast.isPresent() && close + 1 < to && isOperand(close + 1)) {
                    return named(cast.get(), at);
                }
                type = value(at + 1, close);
                at = close + 1;
            } else if (code.is(at, "new")) {
                Optional<TypeName> name = manner.type(code, at + 1);
                if (name.isEmpty()) {
                    return Type.Guess.NOTHING;
                }
                type = named(name.get(), at);
                at = name.get().end();
                while (code.is(at, '[') && code.partner(at) > at) {
                    type = new Type.ArrayOf(type);
                    at = code.partner(at) + 1;
                }
                if (code.is(at, '(') && code.partner(at) > at) {
                    at = code.partner(at) + 1;
                }
                if (code.is(at, '{') && code.partner(at) > at) {
                    at = code.partner(at) + 1;
                }
            } else if (code.isLiteral(at)) {
                String text = code.text(at);
                type = text.startsWith("\"")
                        ? named(new TypeName(List.of("String"), List.of(), 0, at, at + 1), at)
                        : new Type.Foreign(text.startsWith("'") ? "char" : number(text), List.of());
                at++;
            } else if (code.is(at, "true") || code.is(at, "false")) {
                type = new Type.Foreign("boolean", List.of());
                at++;
            } else if (code.is(at, "this") || code.is(at, "super")) {
                List<Type.Known> scopes = scopes(at);
                if (scopes.isEmpty()) {
                    return Type.Guess.NOTHING;
                }
                Type.Known self = scopes.getFirst();
                List<Type.Known> above = code.is(at, "super") ? types.supertypes(self) : List.of();
                type = code.is(at, "this") ? self : above.isEmpty() ? Type.Guess.NOTHING : new Above(above).type();
                at++;
            } else if (code.isName(at)) {
                String name = code.text(at);
                if (code.is(at + 1, '(')) {
                    type = returned(unqualified(at, name), at + 1);
                    at = code.partner(at + 1) < 0 ? to : code.partner(at + 1) + 1;
                } else {
                    Optional<Type> variable = variable(at, name);
                    if (variable.isPresent()) {
                        type = variable.get();
                        at++;
                    } else {
                        return typeFirst(at, to);
                    }
                }
            } else {
                return Type.Guess.NOTHING;
            }
            return suffixes(from, type, at, to);
        }

        /** What is reached by a supertype: the class that is extended, or an interface. */
        private record Above(List<Type.Known> types) {
            Type type() {
                return types.getFirst();
            }
        }

        private static String number(String text) {
            char last = Character.toLowerCase(text.charAt(text.length() - 1));
            boolean hex = text.startsWith("0x") || text.startsWith("0X");
            return last == 'l'
                    ? "long"
                    : !hex && (last == 'f')
                            ? "float"
                            : !hex && (text.indexOf('.') >= 0 || last == 'd') ? "double" : "int";
        }

        private boolean isOperand(int token) {
            return code.isName(token)
                    || code.isLiteral(token)
                    || code.is(token, '(')
                    || code.is(token, "this")
                    || code.is(token, "super")
                    || code.is(token, "new")
                    || code.is(token, "null");
        }

        /** The question mark of a choice between two values. */
        private int choice(int from, int to) {
            for (int at = from; at < to; at++) {
                if (code.is(at, '?')) {
                    return at;
                }
                if (code.is(at, '<') || code.are(at, "->")) {
                    return -1;
                }
                if (code.partner(at) > at) {
                    at = code.partner(at);
                }
            }
            return -1;
        }

        private int colon(int question, int to) {
            for (int at = question + 1; at < to; at++) {
                if (code.is(at, ':') && !code.is(at + 1, ':') && !code.is(at - 1, ':')) {
                    return at;
                }
                if (code.partner(at) > at) {
                    at = code.partner(at);
                }
            }
            return to;
        }

        private Type named(TypeName name, int token) {
            return types.named(file, name, file.enclosing(token), Map.of());
        }

        /** A value that begins with the name of a type or a package. */
        private Type typeFirst(int from, int to) {
            Optional<Declared> around = file.enclosing(from);
            List<String> parts = new ArrayList<>();
            int at = from;
            Optional<Type.Known> found = Optional.empty();
            while (at < to && code.isName(at)) {
                parts.add(code.text(at));
                found = types.declared(file, parts, around);
                at++;
                if (found.isPresent() || !code.is(at, '.') || !code.isName(at + 1) || code.is(at + 2, '(')) {
                    break;
                }
                at++;
            }
            if (found.isEmpty()) {
                boolean isTypeLike = Character.isUpperCase(parts.getLast().charAt(0));
                return isTypeLike ? new Type.Foreign(String.join(".", parts), List.of()) : Type.Guess.NOTHING;
            }
            if (code.is(at, '<')) {
                Optional<TypeName> whole = manner.type(code, from);
                if (whole.isPresent() && whole.get().end() <= to) {
                    Type generic = named(whole.get(), from);
                    return whole.get().end() == to
                            ? generic
                            : suffixes(from, generic, whole.get().end(), to);
                }
            }
            if (code.is(at, '[') && code.is(at + 1, ']')) {
                return new Type.Foreign("array", List.of());
            }
            return suffixes(from, found.get(), at, to);
        }

        /** What follows a value: members and elements of it. */
        private Type suffixes(int first, Type value, int from, int to) {
            Type type = value;
            int at = from;
            TreeMap<Integer, Type> begun = beginnings.computeIfAbsent(first, _ -> new TreeMap<>());
            while (at < to) {
                begun.put(at, type);
                if (code.is(at, '[') && code.partner(at) > at) {
                    type = type instanceof Type.ArrayOf array ? array.element() : Type.Guess.NOTHING;
                    at = code.partner(at) + 1;
                } else if (code.is(at, '.')) {
                    at++;
                    if (code.is(at, '<')) {
                        int open = at;
                        while (open < to && !code.is(open, '(')) {
                            open++;
                        }
                        at = open - 1;
                    }
                    if (code.is(at, "this") || code.is(at, "super")) {
                        at++;
                    } else if (code.is(at, "class")) {
                        type = new Type.Foreign("Class", List.of(type));
                        at++;
                    } else if (code.is(at, "new")) {
                        return Type.Guess.NOTHING;
                    } else if (code.is(at + 1, '(')) {
                        type = call(type, code.text(at), at);
                        at = code.partner(at + 1) < 0 ? to : code.partner(at + 1) + 1;
                    } else {
                        type = fieldOf(type, code.text(at));
                        at++;
                    }
                } else if (code.is(at, '+') && code.is(at + 1, '+') || code.is(at, '-') && code.is(at + 1, '-')) {
                    at += 2;
                } else if (code.is(at, '=') && !code.are(at, "==")) {
                    return type; // an assignment is what it assigns
                } else {
                    return Type.Guess.NOTHING;
                }
            }
            begun.put(to, type);
            return type;
        }

        private Type call(Type receiver, String name, int token) {
            return switch (receiver) {
                case Type.Known known ->
                    returned(
                            narrowed(
                                    members(
                                            known,
                                            name,
                                            true,
                                            arguments(token + 1).size()),
                                    token,
                                    true),
                            token + 1);
                case Type.Foreign foreign -> guess(foreign.arguments());
                case Type.ArrayOf array -> name.equals("clone") ? array : Type.Guess.NOTHING;
                case Type.Guess guess -> {
                    List<Type> all = new ArrayList<>();
                    for (Type.Known option : guess.options()) {
                        all.add(returned(
                                members(option, name, true, arguments(token + 1).size()), token + 1));
                    }
                    Type found = guess(all);
                    yield found.isUnknown() ? guess : found;
                }
            };
        }

        /** One of some types, if they are known; those that these are made of otherwise. */
        private static Type guess(List<Type> among) {
            List<Type.Known> options = new ArrayList<>();
            for (Type one : among) {
                switch (one) {
                    case Type.Known known -> options.add(known);
                    case Type.Foreign foreign -> options.addAll(((Type.Guess) guess(foreign.arguments())).options());
                    case Type.ArrayOf array -> options.addAll(((Type.Guess) guess(List.of(array.element()))).options());
                    case Type.Guess guess -> options.addAll(guess.options());
                }
            }
            return options.isEmpty() ? Type.Guess.NOTHING : new Type.Guess(options);
        }

        private Type fieldOf(Type receiver, String name) {
            return switch (receiver) {
                case Type.Known known -> {
                    List<Found> found = members(known, name, false, -1);
                    if (!found.isEmpty()) {
                        yield typeOf(found.getFirst());
                    }
                    yield types.inherited(known, name, 0).<Type>map(one -> one).orElse(Type.Guess.NOTHING);
                }
                case Type.Guess guess ->
                    guess(guess.options().stream()
                            .flatMap(option -> members(option, name, false, -1).stream())
                            .map(this::typeOf)
                            .toList());
                case Type.Foreign _ -> Type.Guess.NOTHING;
                case Type.ArrayOf _ -> name.equals("length") ? new Type.Foreign("int", List.of()) : Type.Guess.NOTHING;
            };
        }

        /** The type of a member, as its owner's type arguments make it. */
        private Type typeOf(Found found) {
            Spot owner = found.owner.declaration().spot();
            Optional<CodeFile> declaring = types.file(owner.branchNumber(), owner.file());
            if (declaring.isEmpty() || found.member.type().isEmpty()) {
                return Type.Guess.NOTHING;
            }
            Type type = types.named(
                    declaring.get(),
                    found.member.type().get(),
                    Optional.of(found.member.declared()),
                    Types.bindings(found.owner));
            return found.owner.isOnly() ? type : type instanceof Type.Known ? guess(List.of(type)) : type;
        }

        private Type returned(List<Found> found, int open) {
            if (found.isEmpty()) {
                return Type.Guess.NOTHING;
            }
            Type first = typeOf(found.getFirst());
            for (Found other : found) {
                if (!typeOf(other).equals(first)) {
                    return guess(found.stream().map(this::typeOf).toList());
                }
            }
            if (first.isUnknown() && found.getFirst().member.type().isPresent()) {
                return inferred(found.getFirst(), open);
            }
            return first;
        }

        /** What a generic method returns, if an argument tells: the type that {@code Gauge.class} is of, or the same as an argument. */
        private Type inferred(Found found, int open) {
            List<int[]> arguments = arguments(open);
            Member member = found.member;
            String variable = member.type().orElseThrow().last();
            boolean isOwn = member.type().get().parts().size() == 1
                    && member.type().get().dimensions() == 0
                    && member.variables().stream().anyMatch(one -> one.name().equals(variable));
            if (!isOwn) {
                return Type.Guess.NOTHING;
            }
            for (int i = 0; i < arguments.size() && i < member.parameters().size(); i++) {
                TypeName parameter = member.parameters().get(i);
                boolean isItself = parameter.parts().equals(List.of(variable));
                boolean isClass = parameter.last().equals("Class")
                        && parameter.arguments().size() == 1
                        && parameter.arguments().getFirst().parts().equals(List.of(variable));
                if (isItself || isClass) {
                    Type type = value(arguments.get(i)[0], arguments.get(i)[1]);
                    Type told = !isClass
                            ? type
                            : type instanceof Type.Foreign of && of.arguments().size() == 1
                                    ? of.arguments().getFirst()
                                    : Type.Guess.NOTHING;
                    if (!told.isUnknown()) {
                        return told;
                    }
                }
            }
            return Type.Guess.NOTHING;
        }

        private List<Found> unqualified(int token, String name) {
            int arguments = arguments(token + 1).size();
            for (Type.Known scope : scopes(token)) {
                List<Found> found = narrowed(members(scope, name, true, arguments), token, true);
                if (!found.isEmpty()) {
                    return found;
                }
            }
            for (Import one : file.imports(manner)) {
                if (one.isMember() && (one.isOfAll() || one.alias().equals(name))) {
                    Optional<Type.Known> owner = owner(one);
                    List<Found> found = owner.map(type -> members(type, name, true, arguments))
                            .orElse(List.of());
                    if (!found.isEmpty()) {
                        return found;
                    }
                }
            }
            return List.of();
        }

        /** The type of a variable or a field that has no receiver; empty if the name is none. */
        private Optional<Type> variable(int token, String name) {
            Optional<Manner.Local> local = manner.local(file, name, token);
            if (local.isPresent()) {
                return Optional.of(typeOf(local.get(), token));
            }
            for (Type.Known scope : scopes(token)) {
                List<Found> found = members(scope, name, false, -1);
                if (!found.isEmpty()) {
                    return Optional.of(typeOf(found.getFirst()));
                }
            }
            for (Import one : file.imports(manner)) {
                if (one.isMember() && (one.isOfAll() || one.alias().equals(name))) {
                    Optional<Type.Known> owner = owner(one);
                    List<Found> found =
                            owner.map(type -> members(type, name, false, -1)).orElse(List.of());
                    if (!found.isEmpty()) {
                        return Optional.of(typeOf(found.getFirst()));
                    }
                }
            }
            return Optional.empty();
        }

        private Type typeOf(Manner.Local local, int token) {
            if (local.type().isPresent()) {
                return named(local.type().get(), token);
            }
            if (local.lambda() > 0) {
                return lambdaParameter(local.lambda());
            }
            if (local.value() == 0) {
                return Type.Guess.NOTHING;
            }
            Type value = value(local.value(), local.end());
            return local.isElement() ? element(value) : value;
        }

        private static Type element(Type of) {
            return switch (of) {
                case Type.ArrayOf array -> array.element();
                case Type.Known known -> known.arguments().size() == 1 ? guess(known.arguments()) : Type.Guess.NOTHING;
                case Type.Foreign foreign -> guess(foreign.arguments());
                case Type.Guess guess -> guess;
            };
        }

        /** A parameter of a function that is given to a method is most often of a type that the receiver is made of. */
        private Type lambdaParameter(int lambda) {
            int open = lambda - 1;
            while (open > 0 && !code.is(open, '(')) {
                if (code.is(open, ';') || code.is(open, '{')) {
                    return Type.Guess.NOTHING;
                }
                open = code.partner(open) >= 0 && code.partner(open) < open ? code.partner(open) - 1 : open - 1;
            }
            if (!code.isName(open - 1) || !code.is(open - 2, '.')) {
                return Type.Guess.NOTHING;
            }
            Type receiver = value(chainStart(open - 3), open - 2);
            return switch (receiver) {
                case Type.Known known -> guess(known.arguments());
                case Type.Foreign foreign -> guess(foreign.arguments());
                case Type.ArrayOf _ -> Type.Guess.NOTHING;
                case Type.Guess guess -> guess;
            };
        }

        /** Members of a name in a type and in what it extends; of methods those that take so many arguments. */
        private List<Found> members(Type.Known type, String name, boolean isCall, int arguments) {
            List<Found> found = new ArrayList<>();
            members(type, name, isCall, arguments, new HashSet<>(), found);
            if (found.isEmpty() && !manner.known().isEmpty()) {
                types.contained("Object", manner.known())
                        .ifPresent(top -> members(top, name, isCall, arguments, new HashSet<>(), found));
            }
            return found;
        }

        private void members(
                Type.Known type,
                String name,
                boolean isCall,
                int arguments,
                Set<TypeDeclaration> seen,
                List<Found> into) {
            if (seen.size() > MOST_TYPES || !seen.add(type.declaration())) {
                return;
            }
            for (Member member : type.declaration().members().getOrDefault(name, List.of())) {
                Kind kind = member.declared().kind();
                boolean isAccessor = isCall
                        && arguments == 0
                        && kind == Kind.FIELD
                        && type.declaration().spot().declared().kind() == Kind.RECORD;
                boolean fits = isCall
                        ? kind.isCallable() && kind != Kind.CONSTRUCTOR && member.takes(arguments) || isAccessor
                        : !kind.isCallable();
                if (fits) {
                    add(new Found(member, type), into);
                }
            }
            if (!into.isEmpty() && !isCall) {
                return;
            }
            for (Type.Known above : types.supertypes(type)) {
                members(above, name, isCall, arguments, seen, into);
            }
        }

        /** Adds a member, unless one that was found before stands for it: overrides it, or is reached first. */
        private void add(Found one, List<Found> into) {
            for (int i = 0; i < into.size(); i++) {
                Found other = into.get(i);
                if (!other.owner.declaration().equals(one.owner.declaration())
                        && hasSameParameters(other.member, one.member)) {
                    boolean isOfInterface =
                            other.owner.declaration().spot().declared().kind() == Kind.INTERFACE;
                    if (isOfInterface && types.isWithin(one.owner, other.owner.declaration())) {
                        into.set(i, one);
                    }
                    return;
                }
            }
            into.add(one);
        }

        private static boolean hasSameParameters(Member one, Member other) {
            if (!one.declared().kind().isCallable()
                    || one.parameters().size() != other.parameters().size()) {
                return !one.declared().kind().isCallable();
            }
            for (int i = 0; i < one.parameters().size(); i++) {
                TypeName mine = one.parameters().get(i);
                TypeName others = other.parameters().get(i);
                boolean isGeneric = others.last().length() <= 2;
                if (mine.dimensions() != others.dimensions()
                        || !isGeneric && !mine.last().equals(others.last())) {
                    return false;
                }
            }
            return true;
        }

        /** Of several methods those that take arguments of the types that are given. */
        private List<Found> narrowed(List<Found> found, int token, boolean isCall) {
            if (!isCall || found.size() < 2) {
                return found;
            }
            List<int[]> arguments = arguments(token + 1);
            List<Type> given = arguments.stream()
                    .map(range -> isNothing(range) ? null : value(range[0], range[1]))
                    .toList();
            boolean isAllKnown = given.stream().noneMatch(type -> type instanceof Type.Guess);
            List<Found> best = new ArrayList<>();
            int most = -1;
            for (Found one : found) {
                int points = points(one, given);
                if (isAllKnown && points > most) {
                    best.clear();
                    most = points;
                }
                if (points >= 0 && (points == most || !isAllKnown)) {
                    best.add(one);
                }
            }
            return best.isEmpty() ? found : best;
        }

        private boolean isNothing(int[] range) {
            return range[1] == range[0] + 1 && code.is(range[0], "null");
        }

        /** How well arguments fit: negative if one cannot. */
        private int points(Found one, List<Type> given) {
            int points = 0;
            for (int i = 0; i < given.size(); i++) {
                List<TypeName> parameters = one.member.parameters();
                if (parameters.isEmpty()) {
                    return -1;
                }
                TypeName written = parameters.get(Math.min(i, parameters.size() - 1));
                boolean isRest = one.member.takesMore() && i >= parameters.size() - 1;
                int fit = Math.max(
                        fit(one, written, given.get(i)), isRest ? fit(one, element(written), given.get(i)) : -1);
                if (fit < 0) {
                    return -1;
                }
                points += isRest ? 0 : fit;
            }
            return points * 2 + (one.member.takesMore() ? 0 : 1);
        }

        private static TypeName element(TypeName array) {
            return new TypeName(
                    array.parts(), array.arguments(), Math.max(0, array.dimensions() - 1), array.token(), array.end());
        }

        /** 2 if a parameter is of just that type, 1 if it may be given it, negative if it cannot. */
        private int fit(Found one, TypeName parameter, Type given) {
            boolean isPrimitive =
                    parameter.dimensions() == 0 && parameter.parts().size() == 1 && isPrimitive(parameter.last());
            if (given == null) {
                return isPrimitive ? -1 : 1;
            }
            if (given.isUnknown()) {
                return 1;
            }
            Spot owner = one.owner.declaration().spot();
            Optional<CodeFile> declaring = types.file(owner.branchNumber(), owner.file());
            if (declaring.isEmpty()) {
                return 1;
            }
            Type wanted = types.named(
                    declaring.get(), parameter, Optional.of(one.member.declared()), Types.bindings(one.owner));
            return switch (given) {
                case Type.Foreign foreign
                when isPrimitive(foreign.name()) ->
                    isPrimitive
                            ? foreign.name().equals(parameter.last())
                                    ? 2
                                    : widens(foreign.name(), parameter.last()) ? 1 : -1
                            : wanted instanceof Type.ArrayOf ? -1 : boxes(wanted, foreign.name());
                case Type.Foreign foreign ->
                    isPrimitive || wanted instanceof Type.ArrayOf
                            ? -1
                            : wanted instanceof Type.Foreign other
                                            && other.name().equals(foreign.name())
                                    ? 2
                                    : 1;
                case Type.ArrayOf array ->
                    wanted instanceof Type.ArrayOf other
                            ? array.element().equals(other.element()) ? 2 : sameDepth(array, other) ? 1 : -1
                            : isPrimitive ? -1 : isTop(wanted) ? 0 : wanted instanceof Type.Known ? -1 : 1;
                case Type.Known known ->
                    isPrimitive
                            ? unboxes(known, parameter.last())
                            : switch (wanted) {
                                case Type.Known other ->
                                    other.declaration().equals(known.declaration())
                                            ? 2
                                            : isTop(other)
                                                    ? 0
                                                    : types.isWithin(known, other.declaration())
                                                            ? 1
                                                            : hasUnknownAbove(known) ? 0 : -1;
                                case Type.ArrayOf _ -> -1;
                                case Type.Foreign _ -> hasUnknownAbove(known) ? 1 : 0;
                                case Type.Guess _ -> 1;
                            };
                case Type.Guess _ -> 1;
            };
        }

        private static boolean sameDepth(Type.ArrayOf one, Type.ArrayOf other) {
            boolean onePrimitive = one.element() instanceof Type.Foreign a && isPrimitive(a.name());
            boolean otherPrimitive = other.element() instanceof Type.Foreign b && isPrimitive(b.name());
            return !onePrimitive && !otherPrimitive;
        }

        private static boolean isTop(Type type) {
            return type instanceof Type.Known known
                    ? known.declaration().spot().name().equals("Object")
                    : type instanceof Type.Foreign foreign && foreign.name().equals("Object");
        }

        private static boolean isPrimitive(String name) {
            return switch (name) {
                case "boolean", "byte", "char", "double", "float", "int", "long", "short" -> true;
                default -> false;
            };
        }

        private static int boxes(Type wanted, String primitive) {
            if (isTop(wanted) || wanted instanceof Type.Guess) {
                return 0;
            }
            String name = wanted instanceof Type.Known known
                    ? known.declaration().spot().name()
                    : wanted instanceof Type.Foreign foreign ? foreign.name() : "";
            return switch (name) {
                case "Number", "Comparable", "Serializable" -> 0;
                case "Integer", "Long", "Short", "Byte", "Character", "Boolean", "Float", "Double" ->
                    name.toLowerCase(java.util.Locale.ROOT).startsWith(primitive) ? 0 : -1;
                default -> -1;
            };
        }

        private static int unboxes(Type.Known known, String primitive) {
            return switch (known.declaration().spot().name()) {
                case "Integer", "Long", "Short", "Byte", "Character", "Boolean", "Float", "Double" -> 0;
                default -> known.declaration().spot().name().equals(primitive) ? 0 : -1;
            };
        }

        private static boolean widens(String from, String to) {
            String order = "byte short int long float double";
            return order.contains(to)
                    && (order.contains(from)
                            ? order.indexOf(from) < order.indexOf(to)
                            : from.equals("char") && order.indexOf(to) >= order.indexOf("int"));
        }
    }
}
