package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.meaning.Manner.Trait;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Stream;

/** The types of the values that are written in a file. What was worked out is kept. */
final class Expressions {
    private static final int DEEPEST = 40;
    private static final int MOST_VALUES = 20_000;

    private final CodeFile file;
    private final Code code;
    private final Manner manner;
    private final Types types;
    private final Members members;
    private final Overloads overloads;
    private final Phrases phrases;
    private final Scopes scopes;
    private final Map<Long, Type> values = new HashMap<>();
    /** By the first token of a value: what it is up to another token, so that a long chain is gone along once. */
    private final Map<Integer, TreeMap<Integer, Type>> beginnings = new HashMap<>();

    private int depth;

    Expressions(CodeFile file, Types types, Members members, Phrases phrases, Scopes scopes) {
        this.file = file;
        this.code = file.code();
        this.manner = Types.manner(file);
        this.types = types;
        this.members = members;
        this.overloads = new Overloads(types, members);
        this.phrases = phrases;
        this.scopes = scopes;
    }

    /**
     * Of several methods those that the arguments in brackets fit best.
     *
     * @param open the bracket
     */
    List<Found> best(List<Found> found, int open) {
        if (found.size() < 2) {
            return found;
        }
        List<Type> given = new ArrayList<>();
        for (int[] range : phrases.arguments(open)) {
            boolean isNull = range[1] == range[0] + 1 && code.is(range[0], "null");
            given.add(isNull ? null : value(range[0], range[1]));
        }
        return overloads.best(found, given);
    }

    /** The type of a variable or a field that has no receiver; empty if the name is none. */
    private Optional<Type> variable(int token, String name) {
        Optional<Manner.Local> local = manner.local(file, name, token);
        if (local.isPresent()) {
            return Optional.of(typeOf(local.get(), token));
        }
        Optional<Scopes.Visible> visible = scopes.visible(token, name, false, -1);
        return visible.isPresent()
                ? visible.map(one -> members.valueOf(one.found().getFirst()))
                : types.module(file, name).map(Type.Module::new);
    }

    /** The type of a value that is written in a range of tokens. */
    Type value(int from, int to) {
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
        int question = phrases.choice(from, to);
        if (question > 0) {
            int colon = phrases.colon(question, to);
            Type first = value(question + 1, colon);
            return first.isUnknown() ? value(colon + 1, to) : first;
        }
        Map.Entry<Integer, Type> begun =
                beginnings.getOrDefault(from, new TreeMap<>()).floorEntry(to);
        if (begun != null) {
            return suffixes(from, begun.getValue(), begun.getKey(), to);
        }
        return beginning(from, to)
                .map(one -> one.end == to ? one.type : suffixes(from, one.type, one.end, to))
                .orElse(Type.Guess.NOTHING);
    }

    /**
     * What a value begins with.
     *
     * @param end the token behind it
     */
    private record Beginning(Type type, int end) {}

    private Optional<Beginning> beginning(int at, int to) {
        Optional<Beginning> created =
                manner.created(code, at).map(one -> new Beginning(named(one.type(), at), Math.min(one.end(), to)));
        if (created.isPresent()) {
            return created;
        }
        if (code.is(at, '(')) {
            return bracketed(at, to);
        }
        Optional<Manner.Prefix> prefix = manner.prefix(code, at);
        if (prefix.isPresent()) {
            Type behind = value(prefix.get().end(), to);
            Type type = switch (prefix.get().effect()) {
                case SAME -> behind;
                case ELEMENT -> element(behind, 1);
                case PROMISED -> promised(behind);
            };
            return Optional.of(new Beginning(type, to));
        }
        if (code.isLiteral(at)) {
            return Optional.of(new Beginning(literal(at), at + 1));
        }
        if (code.is(at, "true") || code.is(at, "false")) {
            return Optional.of(new Beginning(new Type.Foreign("boolean", List.of()), at + 1));
        }
        if (code.is(at, "this") || code.is(at, "super")) {
            boolean isAbove = code.is(at, "super");
            return scopes.around(at).stream()
                    .limit(1)
                    .flatMap(self -> isAbove ? types.supertypes(self).stream().limit(1) : Stream.of(self))
                    .map(type -> new Beginning(type, at + 1))
                    .findFirst();
        }
        if (!code.isName(at)) {
            return Optional.empty();
        }
        String name = code.text(at);
        if (code.is(at + 1, '(')) {
            Type type = called(at, name);
            return Optional.of(new Beginning(type, code.partner(at + 1) < 0 ? to : code.partner(at + 1) + 1));
        }
        Optional<Type> variable = variable(at, name);
        return variable.isPresent() ? Optional.of(new Beginning(variable.get(), at + 1)) : typeName(at, to);
    }

    /** What a call of something without a receiver gives; a type that is called makes a value of it. */
    private Type called(int token, String name) {
        Optional<Manner.Local> local = manner.is(Trait.ONE_SPACE) ? manner.local(file, name, token) : Optional.empty();
        if (local.isPresent()) {
            return result(typeOf(local.get(), token));
        }
        Optional<Scopes.Visible> visible =
                scopes.visible(token, name, true, phrases.arguments(token + 1).size());
        if (visible.isPresent()) {
            return returned(best(visible.get().found(), token + 1), token + 1);
        }
        return types.declared(file, List.of(name), file.enclosing(token))
                .<Type>map(type -> type)
                .orElse(Type.Guess.NOTHING);
    }

    private static Type promised(Type of) {
        return of instanceof Type.Foreign promise
                        && promise.name().equals(Type.PROMISE)
                        && promise.arguments().size() == 1
                ? promise.arguments().getFirst()
                : of;
    }

    private static Type result(Type of) {
        return of instanceof Type.Foreign function
                        && function.name().equals(Type.FUNCTION)
                        && !function.arguments().isEmpty()
                ? function.arguments().getFirst()
                : Type.Guess.NOTHING;
    }

    /** A value in brackets, or one that is cast. */
    private Optional<Beginning> bracketed(int open, int to) {
        int close = code.partner(open);
        if (close < 0 || close >= to || code.are(close + 1, "->")) {
            return Optional.empty();
        }
        Optional<TypeName> cast =
                manner.type(code, open + 1).filter(name -> name.end() == close || code.is(name.end(), '&'));
        if (!manner.is(Trait.CASTS_IN_FRONT)) {
            boolean converts = cast.isPresent() && code.is(close + 1, '(') && code.partner(close + 1) < to;
            return Optional.of(
                    converts
                            ? new Beginning(named(cast.get(), open), code.partner(close + 1) + 1)
                            : new Beginning(value(open + 1, close), close + 1));
        }
        return Optional.of(
                cast.isPresent() && close + 1 < to && phrases.isOperand(close + 1)
                        ? new Beginning(named(cast.get(), open), to)
                        : new Beginning(value(open + 1, close), close + 1));
    }

    private Type literal(int at) {
        String text = code.text(at);
        return text.startsWith("\"")
                ? named(new TypeName(List.of("String"), List.of(), 0, at, at + 1), at)
                : new Type.Foreign(text.startsWith("'") ? "char" : number(text), List.of());
    }

    private static String number(String text) {
        char last = Character.toLowerCase(text.charAt(text.length() - 1));
        boolean hex = text.startsWith("0x") || text.startsWith("0X");
        return last == 'l'
                ? "long"
                : !hex && (last == 'f') ? "float" : !hex && (text.indexOf('.') >= 0 || last == 'd') ? "double" : "int";
    }

    /** The name of a type that a value begins with, qualified or not. */
    private Optional<Beginning> typeName(int from, int to) {
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
            return isTypeLike
                    ? Optional.of(new Beginning(new Type.Foreign(String.join(".", parts), List.of()), to))
                    : Optional.empty();
        }
        Optional<Beginning> generic = code.is(at, '<')
                ? manner.type(code, from)
                        .filter(whole -> whole.end() <= to)
                        .map(whole -> new Beginning(named(whole, from), whole.end()))
                : Optional.empty();
        if (generic.isPresent()) {
            return generic;
        }
        boolean isArray = code.is(at, '[') && code.is(at + 1, ']');
        return Optional.of(
                isArray ? new Beginning(new Type.Foreign("array", List.of()), to) : new Beginning(found.get(), at));
    }

    /** What follows a value: members and elements of it. */
    private Type suffixes(int first, Type value, int from, int to) {
        Type type = value;
        int at = from;
        TreeMap<Integer, Type> begun = beginnings.computeIfAbsent(first, _ -> new TreeMap<>());
        while (at < to) {
            begun.put(at, type);
            int behind = manner.behindSign(code, at);
            if (behind > at) {
                at = behind;
                continue;
            }
            if (code.is(at, '[') && code.partner(at) > at) {
                type = phrases.isPart(at) ? type : element(type, 1);
                at = code.partner(at) + 1;
            } else if (manner.asserted(code, at).isPresent()) {
                Manner.Created asserted = manner.asserted(code, at).get();
                type = named(asserted.type(), at);
                at = asserted.end();
            } else if (manner.is(Trait.ONE_SPACE) && code.is(at, '(') && code.partner(at) > at) {
                type = result(type);
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
                        best(
                                members.of(
                                        known,
                                        name,
                                        true,
                                        phrases.arguments(token + 1).size()),
                                token + 1),
                        token + 1);
            case Type.Foreign foreign -> Type.Guess.among(foreign.arguments());
            case Type.ArrayOf array -> name.equals("clone") ? array : Type.Guess.NOTHING;
            case Type.Module module -> {
                List<Found> found = types.imported(file, module.of(), name);
                yield found.isEmpty()
                        ? types.type(file, module.of(), name)
                                .<Type>map(type -> type)
                                .orElse(Type.Guess.NOTHING)
                        : returned(found, token + 1);
            }
            case Type.Guess guess -> {
                List<Type> all = new ArrayList<>();
                for (Type.Known option : guess.options()) {
                    all.add(returned(
                            members.of(
                                    option,
                                    name,
                                    true,
                                    phrases.arguments(token + 1).size()),
                            token + 1));
                }
                Type found = Type.Guess.among(all);
                yield found.isUnknown() ? guess : found;
            }
        };
    }

    private Type fieldOf(Type receiver, String name) {
        return switch (receiver) {
            case Type.Known known -> {
                List<Found> found = members.of(known, name, false, -1);
                if (!found.isEmpty()) {
                    yield members.valueOf(found.getFirst());
                }
                Optional<Type.Known> other = manner.is(Trait.EMBEDS)
                        ? types.supertypes(known).stream()
                                .filter(one -> one.declaration().spot().name().equals(name))
                                .findFirst()
                        : types.inherited(known, name, 0);
                yield other.<Type>map(one -> one).orElse(Type.Guess.NOTHING);
            }
            case Type.Guess guess ->
                Type.Guess.among(guess.options().stream()
                        .flatMap(option -> members.of(option, name, false, -1).stream())
                        .map(members::typeOf)
                        .toList());
            case Type.Module module -> {
                List<Found> found = types.imported(file, module.of(), name);
                yield found.isEmpty() ? typeOrModule(module, name) : members.valueOf(found.getFirst());
            }
            case Type.Foreign _ -> Type.Guess.NOTHING;
            case Type.ArrayOf _ -> name.equals("length") ? new Type.Foreign("int", List.of()) : Type.Guess.NOTHING;
        };
    }

    private Type typeOrModule(Type.Module module, String name) {
        Optional<Type.Known> type = types.type(file, module.of(), name);
        return type.isPresent()
                ? type.get()
                : types.module(file, module.of(), name)
                        .<Type>map(Type.Module::new)
                        .orElse(Type.Guess.NOTHING);
    }

    private Type returned(List<Found> found, int open) {
        if (found.isEmpty()) {
            return Type.Guess.NOTHING;
        }
        Type first = members.typeOf(found.getFirst());
        for (Found other : found) {
            if (!members.typeOf(other).equals(first)) {
                return Type.Guess.among(found.stream().map(members::typeOf).toList());
            }
        }
        if (first.isUnknown() && found.getFirst().member().type().isPresent()) {
            return inferred(found.getFirst(), open);
        }
        return first;
    }

    /** What a generic method returns, if an argument tells: the type that {@code Gauge.class} is of, or the same as an argument. */
    private Type inferred(Found found, int open) {
        List<int[]> arguments = phrases.arguments(open);
        Member member = found.member();
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

    private Type typeOf(Manner.Local local, int token) {
        if (local.type().isPresent()) {
            return named(local.type().get(), token);
        }
        if (local.lambda() > 0) {
            return lambdaParameter(local.lambda(), local.position());
        }
        if (local.given().isEmpty()) {
            return Type.Guess.NOTHING;
        }
        Manner.Given given = local.given().get();
        Type value = value(given.from(), given.end());
        if (given.isElement()) {
            return element(value, given.position());
        }
        if (value instanceof Type.Foreign several && several.name().equals(Type.SEVERAL)) {
            return given.position() < several.arguments().size()
                    ? several.arguments().get(given.position())
                    : Type.Guess.NOTHING;
        }
        return given.position() == 0 ? value : Type.Guess.NOTHING;
    }

    /** @param position 0 for the keys or numbers of the elements, 1 for themselves */
    private Type element(Type of, int position) {
        return switch (of) {
            case Type.ArrayOf array -> position == 0 ? new Type.Foreign("int", List.of()) : array.element();
            case Type.Known known -> {
                Optional<Type> made = types.underlying(known);
                yield made.isPresent() && !(made.get() instanceof Type.Known)
                        ? element(made.get(), position)
                        : known.arguments().size() == 1 ? Type.Guess.among(known.arguments()) : Type.Guess.NOTHING;
            }
            case Type.Foreign foreign ->
                foreign.name().equals(Type.MAP) && foreign.arguments().size() == 2
                        ? foreign.arguments().get(position)
                        : foreign.name().equals(Type.CHANNEL)
                                        && foreign.arguments().size() == 1
                                ? foreign.arguments().getFirst()
                                : Type.Guess.among(foreign.arguments());
            case Type.Guess guess -> guess;
            case Type.Module _ -> Type.Guess.NOTHING;
        };
    }

    /**
     * A parameter of a function that is given to another: of the type that this one says, else most often of one that
     * the receiver is made of.
     */
    private Type lambdaParameter(int lambda, int position) {
        int open = code.around(lambda);
        Type told = takenBy(open, lambda, position);
        if (!told.isUnknown()) {
            return told;
        }
        if (!code.is(open, '(') || !code.isName(open - 1) || !code.is(open - 2, '.')) {
            return Type.Guess.NOTHING;
        }
        Type receiver = value(phrases.chainStart(open - 3), open - 2);
        return switch (receiver) {
            case Type.Known known -> Type.Guess.among(known.arguments());
            case Type.Foreign foreign -> Type.Guess.among(foreign.arguments());
            case Type.ArrayOf array -> Type.Guess.among(List.of(array.element()));
            case Type.Module _ -> Type.Guess.NOTHING;
            case Type.Guess guess -> guess;
        };
    }

    /** The type of a parameter of a function, as what it is given to says it. */
    private Type takenBy(int open, int lambda, int position) {
        if (!code.is(open, '(') || !manner.is(Trait.ONE_SPACE) || depth > DEEPEST) {
            return Type.Guess.NOTHING;
        }
        List<int[]> arguments = phrases.arguments(open);
        int number = 0;
        while (number < arguments.size() && arguments.get(number)[1] <= lambda) {
            number++;
        }
        depth++;
        try {
            for (Found one : callable(open)) {
                List<TypeName> parameters = one.member().parameters();
                TypeName parameter = number < parameters.size() ? parameters.get(number) : null;
                Type type = parameter == null ? Type.Guess.NOTHING : members.typeOf(one, parameter);
                if (type instanceof Type.Foreign function
                        && function.name().equals(Type.FUNCTION)
                        && position + 1 < function.arguments().size()) {
                    return function.arguments().get(position + 1);
                }
            }
            return Type.Guess.NOTHING;
        } finally {
            depth--;
        }
    }

    /** What is called with the arguments in brackets, or is created with them. */
    private List<Found> callable(int open) {
        int name = open - 1;
        if (code.is(name, '>')) {
            name = phrases.angle(name) - 1;
        }
        if (!code.isName(name)) {
            return List.of();
        }
        int first = code.firstPart(name);
        if (code.is(first - 1, "new")) {
            return manner.type(code, first)
                    .map(type -> named(type, first))
                    .filter(Type.Known.class::isInstance)
                    .map(type -> members.constructors((Type.Known) type))
                    .orElse(List.of());
        }
        if (!code.is(name - 1, '.')) {
            return scopes.visible(name, code.text(name), true, -1)
                    .map(Scopes.Visible::found)
                    .orElse(List.of());
        }
        int last = manner.lastOfReceiver(code, name - 1);
        return switch (value(phrases.chainStart(last), last + 1)) {
            case Type.Known known -> members.of(known, code.text(name), true, -1);
            case Type.Module module -> types.imported(file, module.of(), code.text(name));
            default -> List.of();
        };
    }

    /** The type of a name that is written at a token. */
    Type named(TypeName name, int token) {
        return types.named(file, name, file.enclosing(token), Map.of());
    }
}
