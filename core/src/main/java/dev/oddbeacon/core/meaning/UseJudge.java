package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.query.SymbolName;
import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.language.Language;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.WeakHashMap;

/**
 * Says how surely a name that is used somewhere means one of some declarations of that name. In languages whose types
 * are read (see {@link Manner}), by what is written there; in others by what the file speaks of. What was read is kept,
 * so one judge is asked about many places. For one thread.
 */
public final class UseJudge {
    /** Says which declarations are meant. */
    private interface Targets {
        List<Spot> of(String name, Seen from);
    }

    private final Targets targets;
    private final Reads reads;
    private final Map<Spot, Target> known = new HashMap<>();
    private final Map<Integer, Boolean> nothingElse = new HashMap<>();

    /** What was read of the files that are seen from branches; several judges may share it. */
    private static final class Reads {
        private final View view;
        private final Map<Integer, Seen> seen = new HashMap<>();
        private final Map<CodeFile, Set<String>> wordsOf = new WeakHashMap<>();

        Reads(View view) {
            this.view = view;
        }
    }

    /** What is seen from a branch. */
    private static final class Seen {
        private final Spots spots;
        private final Types types;
        private final Meanings meanings;

        Seen(View view, int branchNumber) {
            spots = new Spots(view, branchNumber);
            types = new Types(view, branchNumber);
            meanings = new Meanings(types);
        }
    }

    /**
     * What is known of a declaration that is asked for.
     *
     * @param member what can be called, and with how many arguments; empty if its language is not read
     * @param owner the type it stands in
     */
    private record Target(Optional<Member> member, Optional<String> owner, String namespace, String stem) {}

    private UseJudge(Reads reads, Targets targets) {
        this.reads = reads;
        this.targets = targets;
    }

    /** Whether the types of a language are read, so that uses can be sure. */
    public static boolean readsTypes(Language language) {
        return Manner.of(language).isPresent();
    }

    /** Of all declarations that a name as people write it asks for. */
    public static UseJudge of(View view, SymbolName symbol) {
        Map<String, List<Spot>> known = new HashMap<>();
        return new UseJudge(
                new Reads(view),
                (name, from) -> known.computeIfAbsent(
                        from.spots.branchNumber() + " " + name,
                        _ -> from.spots.of(name).stream()
                                .filter(spot -> symbol.takes(spot.declared().kind(), spot.container()))
                                .toList()));
    }

    /** Of certain declarations, all of one name. */
    public static UseJudge of(View view, List<Spot> declarations) {
        return new UseJudge(new Reads(view), (_, _) -> List.of()).ofOthers(declarations);
    }

    /** Another judge, of other declarations, that knows what this one has read. */
    public UseJudge ofOthers(List<Spot> declarations) {
        List<Spot> all = List.copyOf(declarations);
        return new UseJudge(reads, (_, _) -> all);
    }

    /**
     * How surely a name means one of the declarations.
     *
     * @param offset of the name, in the content of the segment of the file's blob
     */
    public Certainty of(String name, int branchNumber, int file, long offset) {
        Seen from = reads.seen.computeIfAbsent(branchNumber, number -> new Seen(reads.view, number));
        List<Spot> wanted = targets.of(name, from);
        Optional<CodeFile> read = wanted.isEmpty() ? Optional.empty() : from.types.file(branchNumber, file);
        if (read.isEmpty()) {
            return Certainty.BY_NAME;
        }
        if (Manner.of(read.get().language()).isEmpty()) {
            return isLikely(from, wanted, read.get(), Meaning.unknown(-1, false))
                    ? Certainty.LIKELY
                    : Certainty.BY_NAME;
        }
        Meaning meaning = from.meanings.at(read.get(), read.get().token(offset));
        boolean isMeant = meaning.declarations().stream().anyMatch(spot -> isAmong(wanted, spot));
        return switch (meaning.standing()) {
            case TOLD ->
                !isMeant
                        ? Certainty.BY_NAME
                        : meaning.declarations().stream().allMatch(spot -> isAmong(wanted, spot))
                                ? Certainty.SURE
                                : Certainty.LIKELY;
            case GUESSED -> isMeant ? Certainty.LIKELY : Certainty.BY_NAME;
            case SOMETHING_ELSE -> Certainty.BY_NAME;
            case UNKNOWN -> isLikely(from, wanted, read.get(), meaning) ? Certainty.LIKELY : Certainty.BY_NAME;
        };
    }

    private static boolean isAmong(List<Spot> wanted, Spot spot) {
        return wanted.stream().anyMatch(spot::isSameAs);
    }

    /** Whether a file whose types tell nothing more speaks of what one of the declarations stands in. */
    private boolean isLikely(Seen from, List<Spot> wanted, CodeFile file, Meaning meaning) {
        boolean isNothingElse = isNothingElse(from, wanted, file);
        for (Spot spot : wanted) {
            Target target = known.computeIfAbsent(spot, one -> target(from.types, one));
            boolean isOneSpace = Manner.of(file.language())
                    .filter(manner -> manner.is(Manner.Trait.ONE_SPACE))
                    .isPresent();
            boolean isCallable = spot.declared().kind().isCallable();
            boolean fits = target.member.isEmpty()
                    || (isOneSpace || isCallable == meaning.isCall())
                            && (!isCallable || target.member.get().takes(meaning.arguments()));
            if (fits && (isNothingElse || speaksOf(file, spot, target))) {
                return true;
            }
        }
        return false;
    }

    /** Whether nothing else that is declared in the language of a file, as far as it is seen from there, has the name. */
    private boolean isNothingElse(Seen from, List<Spot> wanted, CodeFile file) {
        return Manner.of(file.language()).isPresent()
                && nothingElse.computeIfAbsent(
                        from.spots.branchNumber(),
                        _ -> from.types.spots(wanted.getFirst().name()).stream()
                                .filter(spot ->
                                        spot.segment().language(spot.blob()).equals(Optional.of(file.language())))
                                .allMatch(spot -> isAmong(wanted, spot)));
    }

    private Target target(Types types, Spot spot) {
        Optional<CodeFile> file = types.file(spot.branchNumber(), spot.file());
        Optional<Declared> owner = file.flatMap(one -> one.parent(spot.declared()))
                .filter(one -> one.kind().isType());
        String path = reads.view.snapshot(spot.branchNumber()).path(spot.file());
        String name = path.substring(path.lastIndexOf('/') + 1);
        return new Target(
                file.flatMap(one -> Manner.of(one.language()).map(manner -> manner.member(one, spot.declared()))),
                owner.map(spot.segment()::name),
                file.map(CodeFile::namespace).orElse(""),
                name.contains(".") ? name.substring(0, name.indexOf('.')) : name);
    }

    private boolean speaksOf(CodeFile file, Spot spot, Target target) {
        if (file.branchNumber() == spot.branchNumber() && file.file() == spot.file()) {
            return true;
        }
        if (!target.namespace.isEmpty() && target.namespace.equals(file.namespace())) {
            return true;
        }
        Set<String> words = words(file);
        return target.owner.isPresent()
                ? words.contains(target.owner.get())
                : file.branchNumber() == spot.branchNumber() || words.contains(target.stem);
    }

    private Set<String> words(CodeFile file) {
        return reads.wordsOf.computeIfAbsent(file, one -> {
            Set<String> words = new HashSet<>();
            for (int token = 0; token < one.code().count(); token++) {
                if (one.code().isName(token)) {
                    words.add(one.code().text(token));
                }
            }
            return words;
        });
    }
}
