package dev.oddbeacon.core.query;

/** The role of a symbol at a place. */
public enum SymbolRole {
    /** It is introduced there. */
    DECLARATION,
    /** Its name stands there otherwise. */
    USE,
    /** Either. */
    ANY
}
