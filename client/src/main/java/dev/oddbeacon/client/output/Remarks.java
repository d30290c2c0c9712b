package dev.oddbeacon.client.output;

import dev.oddbeacon.api.CommitsAnswer;
import dev.oddbeacon.api.LinesAnswer;
import java.util.List;
import java.util.Optional;

/** Remarks beside results: how much of them is shown, and what was not searched. All searches say it alike. */
public final class Remarks {
    private Remarks() {}

    /**
     * Says how many results there are.
     *
     * @param forPeople whether results are printed for people to read; else only what is left out is told, beside them
     * @param all how many there are, in words
     * @param most how many were wanted
     * @param cut whether there are more
     */
    public static void tellAmount(Terminal terminal, boolean forPeople, String all, long most, boolean cut) {
        if (forPeople) {
            terminal.line(all + (cut ? "; the first " + most + " are shown, --limit all shows every one." : "."));
        } else if (cut) {
            Terminal.complain("the first " + most + " of " + all + "; --limit all prints every one.");
        }
    }

    /** Says what of the scope could not be searched. */
    public static void tellState(LinesAnswer.IndexState index) {
        if (!index.complete()) {
            Terminal.complain("not complete: " + index.indexing() + " of "
                    + Amounts.of(index.repositories(), "repository", "repositories")
                    + " in the scope cannot be searched yet, or not as they are now; oddbeacon repos list shows them.");
            Optional.ofNullable(index.parts())
                    .orElse(List.of())
                    .forEach(part ->
                            Terminal.complain("of " + part.repository() + ", which is being read for the first time, "
                                    + percent(part) + " % of the text can be searched, and all names of files."));
        }
        Mistakes.tellMissing(index);
    }

    private static long percent(LinesAnswer.SearchedPart part) {
        return part.bytes() == 0 ? 0 : 100 * part.searchedBytes() / part.bytes();
    }

    /** Says why a search was stopped, if it was. @param advice what to do about it */
    public static void tellStopped(String stopped, String advice) {
        if (stopped != null) {
            Terminal.complain("not complete: the search took too much " + stopped + " and was stopped. " + advice);
        }
    }

    /** Says what of the past was not searched. */
    public static void tellPast(LinesAnswer.IndexState index, CommitsAnswer.Covered covered) {
        if (!index.complete()) {
            Terminal.complain("not complete: the past of " + index.indexing() + " of " + index.repositories()
                    + " repositories is not read to its end.");
        }
        if (covered.cut() > 0) {
            Terminal.complain(
                    "the past is cut at " + Amounts.of(covered.cut(), "commit") + " whose parents are not there.");
        }
        if (covered.withoutLines() > 0) {
            Terminal.complain("of " + Amounts.of(covered.withoutLines(), "commit")
                    + " the changed lines are too many to be searched.");
        }
    }
}
