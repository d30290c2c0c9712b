package dev.oddbeacon.core.query;

/** How a symbol stands at a place. */
public enum SymbolRole {
    /** It is introduced there. */
    DECLARATION,
    /** Its name stands there otherwise. */
    USE,
    /** Either. */
    ANY
}
