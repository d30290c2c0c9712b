package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.meaning.Meaning.Standing;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * Says what names mean where they are used, by the types that are written: of variables, parameters, fields, of what
 * methods return, of what is created and cast to. For one thread.
 */
final class Meanings {
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
        private final Phrases phrases;
        private final Members members;
        private final Scopes scopes;
        private final Expressions expressions;

        Reading(CodeFile file) {
            this.file = file;
            this.code = file.code();
            this.manner = Types.manner(file);
            this.phrases = new Phrases(code, manner);
            this.members = new Members(types, manner.known());
            this.scopes = new Scopes(file, types, members);
            this.expressions = new Expressions(file, types, members, phrases, scopes);
        }

        Meaning meaning(int token) {
            String name = code.text(token);
            int before = code.is(token - 1, '>') ? phrases.angle(token - 1) - 1 : token - 1; // Gauge.<Depth>of
            boolean isReference = code.are(before - 1, "::");
            boolean isCall = code.is(token + 1, '(');
            Optional<Import> from = manner.importedAt(file, token);
            if (from.isPresent()) {
                return imported(from.get());
            }
            if (manner.isKey(code, token)) {
                return Meaning.somethingElse();
            }
            if (isReference || code.is(before, '.')) {
                if (phrases.isImport(token)) {
                    return imported(token);
                }
                int dot = isReference ? before - 1 : before;
                int last = manner.lastOfReceiver(code, dot);
                return of(expressions.value(phrases.chainStart(last), last + 1), name, token, isCall, isReference);
            }
            if (isCall && code.is(token - 1, "new")) {
                return type(token);
            }
            Optional<TypeName> filled = manner.filled(code, token);
            if (filled.isPresent()) {
                return of(expressions.named(filled.get(), token), name, token, false, false);
            }
            if (isCall && !code.is(token - 1, '@')) {
                return unqualifiedCall(token, name);
            }
            if (code.is(token + 1, '=') && !code.are(token + 1, "==")) {
                Optional<Type> annotation = annotationAround(token);
                if (annotation.isPresent()) {
                    return of(annotation.get(), name, token, false, true);
                }
            }
            if (phrases.isCase(token)) {
                Optional<Meaning> chosen = switchedOn(token)
                        .filter(Type.Known.class::isInstance)
                        .map(type -> of(type, name, token, false, false))
                        .filter(meaning -> meaning.standing() != Standing.SOMETHING_ELSE);
                if (chosen.isPresent()) {
                    return chosen.get();
                }
            }
            if (manner.declaresLocal(file, token)
                    || manner.local(file, name, token).isPresent()) {
                return Meaning.somethingElse();
            }
            Optional<Scopes.Visible> field = scopes.visible(token, name, false, -1);
            if (field.isPresent() && manner.is(Manner.Trait.ONE_SPACE) && !code.is(token + 1, '.')) {
                Meaning type = type(token);
                if (!type.declarations().isEmpty()) { // a value and a type of one name
                    List<Spot> both = new ArrayList<>(type.declarations());
                    field.get().found().forEach(one -> both.add(one.spot()));
                    return new Meaning(both, Standing.GUESSED, -1, false);
                }
            }
            return field.map(visible -> told(visible, -1, false))
                    .orElseGet(() -> scopes.isImportedFromElsewhere(name) ? Meaning.somethingElse() : type(token));
        }

        /**
         * A member of a type.
         *
         * @param isReference whether a method is named, and not called
         */
        private Meaning of(Type receiver, String name, int token, boolean isCall, boolean isReference) {
            int arguments =
                    isCall && !isReference ? phrases.arguments(token + 1).size() : -1;
            return switch (receiver) {
                case Type.Known known -> {
                    List<Found> all = members.of(known, name, isCall || isReference, arguments);
                    List<Found> found = isCall && !isReference ? expressions.best(all, token + 1) : all;
                    if (!found.isEmpty()) {
                        yield told(new Scopes.Visible(found, known.isOnly()), arguments, isCall);
                    }
                    Optional<Type.Known> nested =
                            isCall || isReference ? Optional.empty() : types.inherited(known, name, 0);
                    if (nested.isPresent()) {
                        yield told(nested.get());
                    }
                    yield members.hasUnknownAbove(known) ? Meaning.unknown(arguments, isCall) : Meaning.somethingElse();
                }
                case Type.Foreign _, Type.ArrayOf _ -> Meaning.somethingElse();
                case Type.Module module -> {
                    List<Found> found = types.imported(file, module.of(), name);
                    yield found.isEmpty()
                            ? types.type(file, module.of(), name)
                                    .map(Reading::told)
                                    .orElseGet(Meaning::somethingElse)
                            : told(new Scopes.Visible(found, true), arguments, isCall);
                }
                case Type.Guess guess -> {
                    List<Spot> spots = guess.options().stream()
                            .flatMap(option -> members.of(option, name, isCall || isReference, arguments).stream())
                            .map(Found::spot)
                            .toList();
                    yield spots.isEmpty()
                            ? Meaning.unknown(arguments, isCall || isReference)
                            : new Meaning(spots, Standing.GUESSED, arguments, isCall);
                }
            };
        }

        private static Meaning told(Scopes.Visible visible, int arguments, boolean isCall) {
            List<Spot> spots = visible.found().stream().map(Found::spot).toList();
            return new Meaning(spots, visible.isOnly() ? Standing.TOLD : Standing.GUESSED, arguments, isCall);
        }

        private static Meaning told(Type.Known type) {
            return new Meaning(
                    List.of(type.declaration().spot()), type.isOnly() ? Standing.TOLD : Standing.GUESSED, -1, false);
        }

        /** A type, or members of one, in an import. */
        private Meaning imported(int token) {
            List<String> parts = parts(token);
            String name = parts.removeLast();
            Optional<Type.Known> type = types.contained(name, String.join(".", parts));
            if (type.isPresent() || parts.size() < 2) {
                return type.map(Reading::told).orElseGet(Meaning::somethingElse);
            }
            String owner = parts.removeLast();
            return types.contained(owner, String.join(".", parts))
                    .map(of -> {
                        List<Found> all = new ArrayList<>(members.of(of, name, true, -1));
                        all.addAll(members.of(of, name, false, -1));
                        return new Scopes.Visible(all, of.isOnly());
                    })
                    .filter(visible -> !visible.found().isEmpty())
                    .map(visible -> told(visible, -1, false))
                    .orElseGet(Meaning::somethingElse);
        }

        private Meaning imported(Import one) {
            List<Found> found = types.imported(file, one, one.name());
            return found.isEmpty()
                    ? types.type(file, one, one.name()).map(Reading::told).orElseGet(Meaning::somethingElse)
                    : told(new Scopes.Visible(found, true), -1, false);
        }

        private Meaning type(int token) {
            return types.declared(file, parts(token), file.enclosing(token))
                    .map(Reading::told)
                    .orElseGet(Meaning::somethingElse);
        }

        /** The parts of a qualified name up to a token. */
        private List<String> parts(int token) {
            List<String> parts = new ArrayList<>();
            for (int at = code.firstPart(token); at <= token; at += 2) {
                parts.add(code.text(at));
            }
            return parts;
        }

        private Meaning unqualifiedCall(int token, String name) {
            if (manner.is(Manner.Trait.ONE_SPACE)
                    && manner.local(file, name, token).isPresent()) {
                return Meaning.somethingElse();
            }
            int arguments = phrases.arguments(token + 1).size();
            Optional<Scopes.Visible> visible = scopes.visible(token, name, true, arguments);
            if (visible.isPresent()) {
                List<Found> best = expressions.best(visible.get().found(), token + 1);
                return told(new Scopes.Visible(best, visible.get().isOnly()), arguments, true);
            }
            return !scopes.isImportedFromElsewhere(name) && scopes.isUnsure(token)
                    ? Meaning.unknown(arguments, true)
                    : manner.is(Manner.Trait.ONE_SPACE) ? type(token) : Meaning.somethingElse();
        }

        /** The annotation in whose brackets a token stands right away. */
        private Optional<Type> annotationAround(int token) {
            if (!code.is(token - 1, '(') && !code.is(token - 1, ',')) {
                return Optional.empty();
            }
            int open = code.around(token);
            int first = code.firstPart(open - 1);
            return code.is(open, '(') && code.isName(first) && code.is(first - 1, '@')
                    ? manner.type(code, first).map(type -> expressions.named(type, first))
                    : Optional.empty();
        }

        /** The type of what a switch around a token looks at. */
        private Optional<Type> switchedOn(int token) {
            int close = code.blockAround(token) - 1;
            int open = code.partner(close);
            return code.is(close, ')') && open > 0 && code.is(open - 1, "switch")
                    ? Optional.of(expressions.value(open + 1, close))
                    : Optional.empty();
        }
    }
}
