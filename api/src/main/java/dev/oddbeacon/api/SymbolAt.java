package dev.oddbeacon.api;

import java.util.List;

/**
 * The answer to {@code GET /api/v1/repositories/{name}/symbol}: what the name at a place may mean.
 *
 * @param declared what is declared right there, or null
 * @param declarations the likeliest first; at most 50
 * @param uses of the name, everywhere that is not left out by default; lines and repositories tell the search
 * @param usesExact whether that is exact, or a lower bound
 * @param usesNearby of a method that is declared there: uses in files that name its type as well; else null
 * @param usesMeant uses that mean what is declared there, or the declarations that the name there means most likely;
 * null if nothing that is indexed declares the name
 * @param supertypes of a type that is declared there
 * @param subtypes of such a type: all that say they extend it
 * @param family of a method that is declared there: methods of its name in types above and below its own
 */
public record SymbolAt(
        String name,
        Target declared,
        List<Target> declarations,
        long uses,
        boolean usesExact,
        UsesNearby usesNearby,
        UsesMeant usesMeant,
        List<Target> supertypes,
        List<Target> subtypes,
        List<Target> family) {
    /**
     * Uses that are more likely to be of one method than of another of its name.
     *
     * @param type that the method stands in
     * @param expression that finds them
     */
    public record UsesNearby(String type, String expression, long uses, boolean exact) {}

    /**
     * Uses by how surely they are meant.
     *
     * @param of what the search for symbols takes to list them; null on another branch than the default one
     * @param byName uses of the name that nothing else speaks for
     * @param exact whether all were looked at; lower bounds otherwise
     */
    public record UsesMeant(String of, long sure, long likely, long byName, boolean exact) {}

    /**
     * A declaration.
     *
     * @param reason why it may be meant, in words: declared in this file, this file imports it, declared in this
     * repository, by name only
     */
    public record Target(
            String name,
            String kind,
            String container,
            String repository,
            String branch,
            String path,
            int line,
            int column,
            String signature,
            String reason) {}
}
