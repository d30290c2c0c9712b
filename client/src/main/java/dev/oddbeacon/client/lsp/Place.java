package dev.oddbeacon.client.lsp;

import dev.oddbeacon.api.SymbolAt;
import dev.oddbeacon.api.SymbolsAnswer;

/**
 * A name in a file of a repository.
 *
 * @param branch as the service names it; empty for the default branch
 * @param line from 1
 * @param column from 1, in UTF-16 units
 * @param isNow whether the line is that of the work tree as it is now; else that of the index
 */
record Place(
        String repository,
        String branch,
        String path,
        int line,
        int column,
        String name,
        String kind,
        String container,
        String signature,
        boolean isNow) {

    static Place of(SymbolAt.Target target) {
        return new Place(
                target.repository(),
                target.branch(),
                target.path(),
                target.line(),
                target.column(),
                target.name(),
                target.kind(),
                target.container(),
                target.signature(),
                false);
    }

    static Place of(SymbolsAnswer.Symbol symbol) {
        return new Place(
                symbol.repository(),
                symbol.branch(),
                symbol.path(),
                symbol.line(),
                symbol.column(),
                symbol.name(),
                symbol.kind(),
                symbol.container(),
                symbol.signature(),
                false);
    }

    /** As the service takes it. */
    String written() {
        return repository + "/" + path + ":" + line + ":" + column;
    }

    /** Where it is, in a few words. */
    String detail() {
        return container.isEmpty() ? repository : container + ", " + repository;
    }

    boolean isSameAs(Place other) {
        return repository.equals(other.repository)
                && path.equals(other.path)
                && line == other.line
                && column == other.column
                && isNow == other.isNow;
    }
}
