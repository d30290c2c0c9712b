package dev.oddbeacon.core.meaning;

import java.util.List;
import java.util.Map;

/**
 * A type that is declared in the index.
 *
 * @param variables its type parameters
 * @param supertypes as they are written
 * @param members by name, in the order of the file
 * @param nested the types that are declared in it, by name
 */
record TypeDeclaration(
        Spot spot,
        List<TypeVariable> variables,
        List<TypeName> supertypes,
        Map<String, List<Member>> members,
        Map<String, Spot> nested) {
    @Override
    public boolean equals(Object other) {
        return other instanceof TypeDeclaration type && spot.isSameAs(type.spot);
    }

    @Override
    public int hashCode() {
        return (spot.branchNumber() * 31 + spot.file()) * 31 + spot.declared().number();
    }
}
