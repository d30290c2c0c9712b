package dev.oddbeacon.core.snapshot;

import java.util.Optional;
import java.util.OptionalInt;
import java.util.OptionalLong;

/** A file of a branch by its name, which stands for it in every view that has it. */
public record NamedFile(String repository, String branch, String path) {
    /** The file at a place of a view. */
    public static NamedFile of(View view, long place) {
        int number = (int) (place >>> 32);
        Branch branch = view.branch(number);
        return new NamedFile(
                branch.repository(), branch.name(), view.snapshot(number).path((int) place));
    }

    /** Its place in a view; empty if that does not have it. */
    public OptionalLong place(View view) {
        Optional<Integer> number = view.branchNumber(repository, branch);
        OptionalInt file = number.isPresent() ? view.snapshot(number.get()).find(path) : OptionalInt.empty();
        return file.isPresent() ? OptionalLong.of((long) number.get() << 32 | file.getAsInt()) : OptionalLong.empty();
    }
}
