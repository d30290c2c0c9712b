package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.source.language.Language;
import java.util.List;
import java.util.Optional;

/** Where what a file imports stands, in languages that import folders or files. Not for several threads. */
interface Modules {
    /** Whether something that stands in no type is seen in a file without an import. */
    boolean isOwn(CodeFile file, Spot spot);

    /** What stands in no type and is seen in a file by a name without an import. */
    List<Spot> own(CodeFile file, String name);

    /**
     * What a module has under a name.
     *
     * @param from as a file says it that imports it
     */
    List<Spot> in(CodeFile file, String from, String name);

    /** The module that another gives a name, as {@link #in} takes it. */
    default Optional<String> module(CodeFile file, String from, String name) {
        return Optional.empty();
    }

    /** Of languages that have modules; empty for those in which a file says its package by a qualified name. */
    static Optional<Modules> of(Language language, Types types) {
        return switch (language.name()) {
            case "go" -> Optional.of(new GoModules(types));
            case "typescript" -> Optional.of(new ScriptModules(types));
            default -> Optional.empty();
        };
    }
}
