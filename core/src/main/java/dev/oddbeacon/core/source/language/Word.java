package dev.oddbeacon.core.source.language;

import dev.oddbeacon.core.source.Kind;

/**
 * A word with a meaning in a language.
 *
 * @param kind what it declares, if it does
 * @param isName whether it is a name as well, where its meaning does not apply
 */
public record Word(Role role, Kind kind, boolean isName) {
    /** The role of a word in a language. */
    public enum Role {
        /** Reserved, and nothing else is known of it. */
        RESERVED,
        /** Stands before a declaration. */
        MODIFIER,
        /** Begins a declaration: the name follows. */
        DECLARES,
        /** Supertypes follow. */
        EXTENDS,
        /** Begins a statement, and so ends a declaration before it. */
        STATEMENT,
        /** Reserved, and has a value: this, null. */
        VALUE,
        /** Opens a block that an end word closes. */
        OPENS,
        /** Opens a block if it stands at the start of a statement. */
        OPENS_FIRST,
        /** Closes a block. */
        CLOSES
    }

    static final Word NONE = new Word(Role.RESERVED, Kind.SUPERTYPE, true);
}
