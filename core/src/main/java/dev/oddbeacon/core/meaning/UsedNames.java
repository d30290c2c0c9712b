package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.meaning.Meaning.Standing;
import dev.oddbeacon.core.snapshot.View;
import java.util.ArrayList;
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

    /**
     * What a name may mean that something is called by.
     *
     * @param declarations that it means, or may mean; empty if only the name is known
     * @param offset of the name, in the content of the segment of the file's blob
     */
    public record Called(List<Spot> declarations, Certainty certainty, long offset) {}

    /**
     * What is called in a part of the file, in order; what the index does not declare is left out.
     *
     * @param from an offset in the content of the segment of the file's blob
     * @param to the offset behind it
     */
    public List<Called> called(long from, long to) {
        return types.file(branchNumber, file).map(one -> called(one, from, to)).orElse(List.of());
    }

    private List<Called> called(CodeFile one, long from, long to) {
        Code code = one.code();
        Meanings meanings = new Meanings(types);
        List<Called> all = new ArrayList<>();
        for (int token = one.token(from); token < code.count() && one.offset(token) < to; token++) {
            boolean isCall = code.isName(token) && (code.is(token + 1, '(') || code.are(token - 2, "::"));
            if (!isCall || one.isDeclared(token)) {
                continue;
            }
            if (!Types.isRead(one)) {
                Optional<Called> likely = byName(one, token);
                likely.ifPresent(all::add);
                continue;
            }
            Meaning meaning = meanings.at(one, token);
            boolean isSure = meaning.standing() == Standing.TOLD
                    && meaning.declarations().size() == 1;
            Certainty certainty = isSure
                    ? Certainty.SURE
                    : meaning.standing() == Standing.UNKNOWN ? Certainty.BY_NAME : Certainty.LIKELY;
            boolean isDeclared = certainty != Certainty.BY_NAME
                    ? !meaning.declarations().isEmpty()
                    : !types.spots(code.text(token)).isEmpty();
            if (isDeclared) {
                all.add(new Called(meaning.declarations(), certainty, one.offset(token)));
            }
        }
        return all;
    }

    /** In a language whose types are not read: likely what alone has the name in the repository. */
    private Optional<Called> byName(CodeFile one, int token) {
        List<Spot> spots = types.spots(one.code().text(token)).stream()
                .filter(spot -> spot.declared().kind().isCallable()
                        || spot.declared().kind().isType())
                .toList();
        List<Spot> own = spots.stream()
                .filter(spot -> spot.branchNumber() == branchNumber)
                .toList();
        return spots.isEmpty()
                ? Optional.empty()
                : Optional.of(
                        own.size() == 1
                                ? new Called(own, Certainty.LIKELY, one.offset(token))
                                : new Called(List.of(), Certainty.BY_NAME, one.offset(token)));
    }

    private Optional<CodeFile> read() {
        return types.file(branchNumber, file)
                .filter(one -> Manner.of(one.language()).isPresent());
    }
}
