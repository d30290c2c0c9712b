package dev.oddbeacon.core.meaning;

import java.util.Map;
import java.util.Optional;

/**
 * A member that a name reaches.
 *
 * @param owner the type that it is a member of, which may be above the one that was asked; empty if it stands in none
 * @param isOnly whether no other can be meant
 */
record Found(Member member, Optional<Type.Known> owner, boolean isOnly) {
    static Found in(Type.Known owner, Member member) {
        return new Found(member, Optional.of(owner), owner.isOnly());
    }

    Spot spot() {
        return member.spot();
    }

    /** What the type parameters of its owner stand for: a member that is declared outside gives them names of its own. */
    Map<String, Type> bindings() {
        boolean isOutside = member.declared().qualifierEnd() > member.declared().qualifierStart();
        return owner.map(type -> Types.bindings(
                        isOutside ? member.variables() : type.declaration().variables(), type.arguments()))
                .orElse(Map.of());
    }
}
