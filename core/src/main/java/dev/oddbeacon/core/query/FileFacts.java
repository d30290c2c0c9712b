package dev.oddbeacon.core.query;

import java.time.Instant;
import java.util.Collection;
import java.util.Map;
import java.util.OptionalLong;

/** The facts about one file that conditions see. */
public interface FileFacts {
    BranchFacts branch();

    String path();

    /** Whether a glob matches its type. */
    boolean isOfType(FileCondition.Type condition);

    /** Its traits, as {@link dev.oddbeacon.core.source.Traits#mask} has them. */
    int traits();

    /** Whether an exclusion set takes it out. */
    boolean isExcluded(String set);

    boolean isListed(FileCondition.Listed list);

    /** Its size; empty if it is not known. */
    OptionalLong bytes();

    /** The moment of its last change in seconds since 1970; empty if it is not known. */
    OptionalLong lastChange();

    /** The moment from which days are counted back. */
    Instant now();

    /** More about a file than the facts, for people who ask why it was found or not. */
    interface Explained extends FileFacts {
        String type();

        /** Its traits by label, each with the reason for it. */
        Map<String, String> reasonsOfTraits();

        /** The decision of an exclusion set, in words. */
        String decisionOf(String set);
    }

    /** Labels as people read them. */
    static String told(Collection<String> labels) {
        return String.join(", ", labels.stream().sorted().toList());
    }
}
