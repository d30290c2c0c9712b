package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.language.Language;
import java.util.Optional;

/** Where what a file imports stands, in languages that import folders or files. Not for several threads. */
interface Modules {
    /** Whether something that stands in no type is seen in a file without an import. */
    boolean isOwn(CodeFile file, Spot spot);

    /**
     * How near something that stands in no type is to what a file imports.
     *
     * @param from as the import says it
     * @return 0 if it is not there
     */
    int nearness(CodeFile file, String from, Spot spot);

    /** Of languages that have modules; empty for those in which a file says its package by a qualified name. */
    static Optional<Modules> of(Language language, View view) {
        return language.name().equals("go") ? Optional.of(new GoModules(view)) : Optional.empty();
    }
}
