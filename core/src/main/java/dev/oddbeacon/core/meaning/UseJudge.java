package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.snapshot.View;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Says how surely a name that is used somewhere means one of some declarations of that name. What was read is kept, so
 * one judge is asked about many places. For one thread.
 */
public final class UseJudge {
    private final View view;
    private final List<Spot> targets;
    private final Map<Integer, Types> types = new HashMap<>();
    private final Map<Spot, Target> known = new HashMap<>();

    /** What is known of a declaration that is asked for. */
    private record Target(Optional<Member> member, Optional<String> ownerType, String container) {}

    /** @param targets declarations of one name */
    public UseJudge(View view, List<Spot> targets) {
        this.view = view;
        this.targets = List.copyOf(targets);
    }

    /**
     * How surely a name means one of the declarations.
     *
     * @param offset of the name, in the content of the segment of the file's blob
     */
    public Certainty of(int branchNumber, int file, long offset) {
        Types seen = types.computeIfAbsent(branchNumber, number -> new Types(view, number));
        Optional<CodeFile> read = seen.file(branchNumber, file);
        if (read.isEmpty()) {
            return Certainty.BY_NAME;
        }
        Meaning meaning = new Meanings(seen).at(read.get(), read.get().token(offset));
        boolean isMeant = meaning.declarations().stream().anyMatch(this::isTarget);
        return switch (meaning.standing()) {
            case TOLD ->
                !isMeant
                        ? Certainty.BY_NAME
                        : meaning.declarations().stream().allMatch(this::isTarget)
                                ? Certainty.SURE
                                : Certainty.LIKELY;
            case GUESSED -> isMeant ? Certainty.LIKELY : Certainty.BY_NAME;
            case SOMETHING_ELSE -> Certainty.BY_NAME;
            case UNKNOWN -> isLikely(seen, read.get(), meaning) ? Certainty.LIKELY : Certainty.BY_NAME;
        };
    }

    private boolean isTarget(Spot spot) {
        return targets.stream().anyMatch(spot::isSameAs);
    }

    /** Whether a file of which nothing more is known speaks of a type that a declaration stands in. */
    private boolean isLikely(Types seen, CodeFile file, Meaning meaning) {
        for (Spot spot : targets) {
            Target target = known.computeIfAbsent(spot, one -> target(seen, one));
            boolean takes = !meaning.isCall()
                    || target.member.map(member -> member.takes(meaning.arguments())).orElse(true);
            if (takes && spot.declared().kind().isCallable() == meaning.isCall() && speaksOf(file, spot, target)) {
                return true;
            }
        }
        return false;
    }

    private static Target target(Types seen, Spot spot) {
        Optional<CodeFile> file = seen.file(spot.branchNumber(), spot.file());
        Optional<Declared> owner = file.flatMap(one -> one.parent(spot.declared()))
                .filter(one -> one.kind().isType());
        return new Target(
                file.map(one -> Types.manner(one).member(one, spot.declared())),
                owner.map(spot.segment()::name),
                file.map(CodeFile::namespace).orElse(""));
    }

    private boolean speaksOf(CodeFile file, Spot spot, Target target) {
        if (file.branchNumber() == spot.branchNumber() && file.file() == spot.file()) {
            return true;
        }
        boolean samePackage = !target.container.isEmpty() && target.container.equals(file.namespace());
        return samePackage || target.ownerType.isPresent() && names(file).contains(target.ownerType.get());
    }

    private final Map<CodeFile, Set<String>> namesOf = new HashMap<>();

    private Set<String> names(CodeFile file) {
        return namesOf.computeIfAbsent(file, one -> {
            Set<String> names = new HashSet<>();
            for (int token = 0; token < one.code().count(); token++) {
                if (one.code().isName(token)) {
                    names.add(one.code().text(token));
                }
            }
            return names;
        });
    }
}
