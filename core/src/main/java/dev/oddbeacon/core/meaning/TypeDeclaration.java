package dev.oddbeacon.core.meaning;

import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * A type that is declared in the index.
 *
 * @param variables its type parameters
 * @param supertypes as they are written
 * @param underlying the type that it gives another name, or is made of
 * @param members by name, in the order of the file
 * @param nested the types that are declared in it, by name
 */
record TypeDeclaration(
        Spot spot,
        List<TypeVariable> variables,
        List<TypeName> supertypes,
        Optional<TypeName> underlying,
        Map<String, List<Member>> members,
        Map<String, Spot> nested) {
    private static final TypeName NOT_TOLD = new TypeName(List.of("?"), List.of(), 0, 0, 0);

    /** One of a language whose types are not read: what it has and extends is not known. */
    static TypeDeclaration unread(Spot spot) {
        return new TypeDeclaration(spot, List.of(), List.of(NOT_TOLD), Optional.empty(), Map.of(), Map.of());
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof TypeDeclaration type && spot.isSameAs(type.spot);
    }

    @Override
    public int hashCode() {
        return (spot.branchNumber() * 31 + spot.file()) * 31 + spot.declared().number();
    }
}
