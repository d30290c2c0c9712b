package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/** What names without a receiver may mean in a file: members of the types around, and what is imported of others. */
final class Scopes {
    /**
     * Members of a name that can be seen.
     *
     * @param isOnly whether no other can be meant
     */
    record Visible(List<Found> found, boolean isOnly) {}

    private final CodeFile file;
    private final Code code;
    private final Types types;
    private final Members members;
    private final Manner manner;

    Scopes(CodeFile file, Types types, Members members) {
        this.file = file;
        this.code = file.code();
        this.types = types;
        this.members = members;
        this.manner = Types.manner(file);
    }

    /**
     * The members of a name that are reached first.
     *
     * @param arguments of what is called
     * @return empty if there are none
     */
    Optional<Visible> visible(int token, String name, boolean isCall, int arguments) {
        boolean isUnsure = false;
        for (Type.Known scope : manner.is(Manner.Trait.SEES_MEMBERS) ? around(token) : List.<Type.Known>of()) {
            List<Found> found = members.of(scope, name, isCall, arguments);
            if (!found.isEmpty()) {
                return Optional.of(new Visible(found, scope.isOnly() && !isUnsure));
            }
            isUnsure |= isCall && members.hasUnknownAbove(scope);
        }
        List<Found> here = within(token, name);
        if (here.isEmpty()) {
            here = types.outermost(file, name);
        }
        if (!here.isEmpty()) {
            return Optional.of(new Visible(here, !isUnsure));
        }
        for (Import one : file.imports(manner)) {
            boolean isNamed = !one.name().isEmpty() && one.alias().equals(name);
            List<Found> outermost =
                    one.isOfAll() || isNamed ? types.imported(file, one, isNamed ? one.name() : name) : List.of();
            if (!outermost.isEmpty()) {
                return Optional.of(new Visible(outermost, !isUnsure));
            }
            if (one.isMember() && (one.isOfAll() || one.alias().equals(name))) {
                Optional<Type.Known> owner = owner(one);
                List<Found> found = owner.map(type -> members.of(type, name, isCall, arguments))
                        .orElse(List.of());
                if (!found.isEmpty()) {
                    return Optional.of(new Visible(found, owner.get().isOnly()));
                }
            }
        }
        return Optional.empty();
    }

    /** Functions that stand in one around, and the parameters of a constructor around that are fields as well. */
    private List<Found> within(int token, String name) {
        if (!manner.is(Manner.Trait.FUNCTIONS_WITHIN)) {
            return List.of();
        }
        for (Optional<Declared> at = file.enclosing(token); at.isPresent(); at = file.parent(at.get())) {
            Declared around = at.get();
            List<Found> found = file.declarations().stream()
                    .filter(one ->
                            one.parent() == around.number() && file.name(one).equals(name))
                    .filter(one -> one.kind() == Kind.FUNCTION
                            || one.kind() == Kind.FIELD && isOfConstructor(around, one, file.offset(token)))
                    .map(one -> new Found(manner.member(file, one), Optional.empty(), true))
                    .toList();
            if (!found.isEmpty()) {
                return found;
            }
        }
        return List.of();
    }

    /** Whether a field of a type is a parameter of a constructor that an offset lies in. */
    private boolean isOfConstructor(Declared type, Declared field, long offset) {
        return file.declarations().stream()
                .filter(one -> one.kind() == Kind.CONSTRUCTOR && one.parent() == type.number())
                .anyMatch(one -> one.nameEnd() < field.nameStart()
                        && field.nameStart() < one.end()
                        && one.nameEnd() < offset
                        && offset < one.end());
    }

    /** Whether a name is imported of a type that is not indexed. */
    boolean isImportedFromElsewhere(String name) {
        return file.imports(manner).stream()
                .anyMatch(one -> one.isMember()
                        && one.alias().equals(name)
                        && !one.isOfAll()
                        && owner(one).isEmpty());
    }

    /** Whether a type around extends one that is not indexed, which may have any member. */
    boolean isUnsure(int token) {
        return manner.is(Manner.Trait.SEES_MEMBERS) && around(token).stream().anyMatch(members::hasUnknownAbove);
    }

    /** The types around a place, the innermost first; those without a name as well. */
    List<Type.Known> around(int token) {
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
        int brace = code.blockAround(file.token(member.start()));
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

    /** The type whose members are imported. */
    private Optional<Type.Known> owner(Import one) {
        int dot = one.from().lastIndexOf('.');
        return types.contained(
                one.from().substring(dot + 1), dot < 0 ? "" : one.from().substring(0, dot));
    }
}
