package dev.oddbeacon.core.query.matching;

import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.source.Region;
import dev.oddbeacon.core.source.language.Language;
import java.util.Optional;

/**
 * What is known of the parts of the file that a finder looks at. Offsets are those of its text; asking in ascending
 * order is cheap.
 */
public interface FileParts {
    /** A file of which nothing is known: all of it is code. */
    FileParts UNKNOWN = new FileParts() {
        @Override
        public Optional<Language> language() {
            return Optional.empty();
        }

        @Override
        public Region region(long offset) {
            return Region.CODE;
        }

        @Override
        public long regionEnd() {
            return Long.MAX_VALUE;
        }

        @Override
        public boolean isDeclared(long start, long end, SymbolName name) {
            return false;
        }

        @Override
        public boolean isName(long start, long end) {
            return false;
        }

        @Override
        public boolean isUse(long start, long end, SymbolName name) {
            return false;
        }
    };

    /** What the file is written in; empty if there is no profile for it. */
    Optional<Language> language();

    /** The region that an offset lies in. */
    Region region(long offset);

    /** End of the region that was looked up last. */
    long regionEnd();

    /** Whether a range is the name of a declaration, of the kind and container that a name asks for. */
    boolean isDeclared(long start, long end, SymbolName name);

    /** Whether a range of code is a whole name, and not a reserved word. */
    boolean isName(long start, long end);

    /** Whether a name in code that declares nothing means, surely or likely, a declaration that a name asks for. */
    boolean isUse(long start, long end, SymbolName name);

    /** Whether a declaration's name, of any kind, is a range. */
    default boolean isDeclared(long start, long end) {
        return isDeclared(start, end, SymbolName.ANY);
    }
}
