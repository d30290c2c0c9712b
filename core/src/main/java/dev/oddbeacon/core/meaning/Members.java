package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.source.Kind;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** The members that types have, those of what they extend included. */
final class Members {
    private static final int MOST_TYPES = 300;

    private final Types types;
    private final String known;

    /** @param known the package of the type that all extend; empty if there is none */
    Members(Types types, String known) {
        this.types = types;
        this.known = known;
    }

    /** Members of a name in a type and in what it extends; of methods those that take so many arguments. */
    List<Found> of(Type.Known type, String name, boolean isCall, int arguments) {
        List<Found> found = new ArrayList<>();
        add(type, name, isCall, arguments, new HashSet<>(), found);
        if (found.isEmpty() && !known.isEmpty()) {
            types.contained("Object", known)
                    .ifPresent(top -> add(top, name, isCall, arguments, new HashSet<>(), found));
        }
        return found;
    }

    private void add(
            Type.Known type, String name, boolean isCall, int arguments, Set<TypeDeclaration> seen, List<Found> into) {
        if (seen.size() > MOST_TYPES || !seen.add(type.declaration())) {
            return;
        }
        boolean isOneSpace = types.isOneSpace(type.declaration());
        for (Member member : types.members(type.declaration(), name)) {
            Kind kind = member.declared().kind();
            boolean isAccessor = isCall
                    && arguments <= 0
                    && kind == Kind.FIELD
                    && type.declaration().spot().declared().kind() == Kind.RECORD;
            boolean fits = isCall
                    ? kind.isCallable() && kind != Kind.CONSTRUCTOR && member.takes(arguments) || isAccessor
                    : !kind.isCallable();
            if (fits || isOneSpace) {
                add(Found.in(type, member), into);
            }
        }
        if (!into.isEmpty() && (isOneSpace || !isCall)) {
            return;
        }
        for (Type.Known above : types.supertypes(type)) {
            add(above, name, isCall, arguments, seen, into);
        }
    }

    /** Adds a member, unless one that was found before stands for it: overrides it, or is reached first. */
    private void add(Found one, List<Found> into) {
        for (int i = 0; i < into.size(); i++) {
            Found other = into.get(i);
            Type.Known owner = one.owner().orElseThrow();
            TypeDeclaration before = other.owner().orElseThrow().declaration();
            if (!before.equals(owner.declaration()) && hasSameParameters(other.member(), one.member())) {
                boolean isOfInterface = before.spot().declared().kind() == Kind.INTERFACE;
                if (isOfInterface && types.isWithin(owner, before)) {
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

    /** Whether a type extends, further above as well, one that is declared nowhere in the index. */
    boolean hasUnknownAbove(Type.Known type) {
        Set<TypeDeclaration> seen = new HashSet<>();
        return hasUnknownAbove(type, seen);
    }

    private boolean hasUnknownAbove(Type.Known type, Set<TypeDeclaration> seen) {
        return seen.size() > MOST_TYPES
                || seen.add(type.declaration())
                        && (types.hasForeignSupertype(type)
                                || types.supertypes(type).stream().anyMatch(above -> hasUnknownAbove(above, seen)));
    }

    /** The type of what a member is when it is named: of what can be called, a function. */
    Type valueOf(Found found) {
        Type type = typeOf(found);
        boolean isFunction =
                found.member().declared().kind().isCallable() && !found.member().isAccessor();
        return isFunction ? new Type.Foreign(Type.FUNCTION, List.of(type)) : type;
    }

    /** What makes values of a type, or of one above that says it. */
    List<Found> constructors(Type.Known type) {
        Set<TypeDeclaration> seen = new HashSet<>();
        Optional<Type.Known> at = Optional.of(type);
        while (at.isPresent() && seen.add(at.get().declaration()) && seen.size() < MOST_TYPES) {
            Type.Known owner = at.get();
            List<Found> found = owner.declaration().members().values().stream()
                    .flatMap(List::stream)
                    .filter(member -> member.declared().kind() == Kind.CONSTRUCTOR)
                    .map(member -> Found.in(owner, member))
                    .toList();
            if (!found.isEmpty()) {
                return found;
            }
            at = types.supertypes(owner).stream().findFirst();
        }
        return List.of();
    }

    /** The type of a member, as its owner's type arguments make it. */
    Type typeOf(Found found) {
        return found.member().type().map(type -> typeOf(found, type)).orElse(Type.Guess.NOTHING);
    }

    /** A type that is written at a member, as its owner's type arguments make it. */
    Type typeOf(Found found, TypeName written) {
        Spot spot = found.spot();
        Optional<CodeFile> declaring = types.file(spot.branchNumber(), spot.file());
        if (declaring.isEmpty()) {
            return Type.Guess.NOTHING;
        }
        Type type = types.named(declaring.get(), written, Optional.of(spot.declared()), found.bindings());
        return found.isOnly() ? type : type instanceof Type.Known ? Type.Guess.among(List.of(type)) : type;
    }
}
