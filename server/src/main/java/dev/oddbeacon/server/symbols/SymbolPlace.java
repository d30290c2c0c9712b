package dev.oddbeacon.server.symbols;

import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.core.snapshot.Branch;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.symbols.Navigation;
import dev.oddbeacon.core.symbols.SymbolQuery;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.NotFoundException;
import java.util.Comparator;
import java.util.OptionalInt;

/**
 * A place where a symbol is named, on the default branch of a repository.
 *
 * @param file the repository and the path
 * @param line from 1
 * @param column from 1, in UTF-16 units
 */
record SymbolPlace(String file, int line, int column) {
    /** @throws BadRequestException if it is none */
    static SymbolPlace parse(String text) {
        int ofColumn = text.lastIndexOf(':');
        int ofLine = ofColumn < 0 ? -1 : text.lastIndexOf(':', ofColumn - 1);
        try {
            if (ofLine > 0) {
                return new SymbolPlace(
                        text.substring(0, ofLine),
                        Integer.parseInt(text.substring(ofLine + 1, ofColumn)),
                        Integer.parseInt(text.substring(ofColumn + 1)));
            }
        } catch (NumberFormatException e) {
            // told below
        }
        throw new BadRequestException("The place \"" + text
                + "\" of a symbol must be written as REPOSITORY/PATH:LINE:COLUMN, as in berths/src/Berth.java:12:17.");
    }

    /**
     * Uses of what is named there.
     *
     * @param family whether uses of the methods that it overrides, or that override it, are meant as well
     * @throws NotFoundException if no name stands there, as far as the caller can see
     */
    SymbolQuery uses(CallerContext context, Scope scope, boolean family) {
        Navigation.At at = at(context);
        return SymbolQuery.usesOf(family ? at.meantWithFamily() : at.meant(), scope);
    }

    /**
     * What is declared there, or is meant there most likely.
     *
     * @throws NotFoundException if no name stands there, or one that nothing declares, as far as the caller can see
     */
    Navigation.At at(CallerContext context) {
        View view = context.view();
        Branch branch = view.branches().stream()
                .filter(one -> one.isDefault() && file.startsWith(one.repository() + "/"))
                .max(Comparator.comparingInt(one -> one.repository().length()))
                .orElseThrow(() -> new NotFoundException(
                        "There is no file " + file + ". Write the repository, a slash, and the path from its root."));
        int number = view.branches().indexOf(branch);
        String path = file.substring(branch.repository().length() + 1);
        OptionalInt found = view.snapshot(number).find(path);
        if (found.isEmpty()) {
            throw new NotFoundException("There is no file " + path + " on " + branch.name() + " of "
                    + branch.repository() + ". Paths start at the repository's root.");
        }
        Navigation.At at = new Navigation(view, number, found.getAsInt())
                .at(line, column)
                .orElseThrow(() -> new NotFoundException(
                        "No name of a symbol stands at " + path + ":" + line + ":" + column + "."));
        if (at.meant().isEmpty()) {
            throw new NotFoundException("Nothing that is indexed declares " + at.name() + ".");
        }
        return at;
    }
}
