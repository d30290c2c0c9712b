package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.meaning.Meaning.Standing;
import dev.oddbeacon.core.snapshot.View;
import java.util.List;
import java.util.Optional;

/** What the names that a file uses mean, as far as the types tell that are written. For one thread. */
public final class UsedNames {
    private final int branchNumber;
    private final int file;
    private final Types types;

    public UsedNames(View view, int branchNumber, int file) {
        this.branchNumber = branchNumber;
        this.file = file;
        this.types = new Types(view, branchNumber);
    }

    /**
     * The declarations of which a name means one, and nothing else.
     *
     * @param offset of the name, in the content of the segment of the file's blob
     * @return empty if that is not told, or if it means something that the index does not declare
     */
    public List<Spot> told(long offset) {
        return read().map(one -> new Meanings(types).at(one, one.token(offset)))
                .filter(meaning -> meaning.standing() == Standing.TOLD)
                .map(Meaning::declarations)
                .orElse(List.of());
    }

    private Optional<CodeFile> read() {
        return types.file(branchNumber, file)
                .filter(one -> Manner.of(one.language()).isPresent());
    }
}
