package dev.oddbeacon.core.meaning;

import dev.oddbeacon.core.segment.PieceStructure.Declared;
import dev.oddbeacon.core.segment.SegmentReader;
import dev.oddbeacon.core.snapshot.View;
import dev.oddbeacon.core.source.Kind;
import java.lang.foreign.MemorySegment;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/** Finds declarations by their names, as seen from a branch: there, and on the default branches of other repositories. */
public final class Spots {
    private static final int MOST_SORTED = 20_000;

    private final View view;
    private final int branchNumber;

    public Spots(View view, int branchNumber) {
        this.view = view;
        this.branchNumber = branchNumber;
    }

    /** The branch that they are seen from. */
    int branchNumber() {
        return branchNumber;
    }

    /** Whether a branch is looked at. */
    public boolean isSeen(int other) {
        boolean own =
                view.branch(other).repository().equals(view.branch(branchNumber).repository());
        return own ? other == branchNumber : view.branch(other).isDefault();
    }

    /** The declarations of a name, by branch, file and place; most of them, if there are very many. */
    public List<Spot> of(String name) {
        return of(name, false);
    }

    /** The types that name another as a supertype. */
    public List<Spot> subtypesOf(String name) {
        return of(name, true);
    }

    private List<Spot> of(String name, boolean asSupertype) {
        List<Spot> spots = new ArrayList<>();
        byte[] utf8 = name.getBytes(StandardCharsets.UTF_8);
        for (SegmentReader segment : view.segments()) {
            if (view.isUsed(segment)) {
                segment.names().occurrences(utf8, (piece, _, _, from, to) -> {
                    if (to > from) {
                        inPiece(segment, piece, utf8, asSupertype, spots);
                    }
                });
            }
        }
        spots.sort(Comparator.comparingInt(Spot::branchNumber)
                .thenComparingInt(Spot::file)
                .thenComparingLong(spot -> spot.declared().nameStart()));
        return spots;
    }

    private void inPiece(SegmentReader segment, int piece, byte[] name, boolean asSupertype, List<Spot> into) {
        int blob = segment.blobOf(piece);
        for (Declared one : segment.declarations(piece)) {
            boolean meant = asSupertype
                    ? one.kind() == Kind.SUPERTYPE && one.parent() >= 0
                    : !one.kind().isUse();
            if (!meant
                    || one.nameEnd() - one.nameStart() != name.length
                    || segment.content().asSlice(one.nameStart(), name.length).mismatch(MemorySegment.ofArray(name))
                            >= 0) {
                continue;
            }
            Declared told = asSupertype ? segment.declaration(blob, one.parent()) : one;
            view.forEachPlace(segment, blob, (other, number) -> {
                if (isSeen(other) && into.size() < MOST_SORTED) {
                    into.add(new Spot(segment, blob, told, other, number));
                }
            });
        }
    }
}
