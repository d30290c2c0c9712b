package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.SavedSearch.Subject;
import dev.oddbeacon.server.records.SavedSearchRecord;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * A saved search as it is run.
 *
 * @param owner whose it is; empty for everybody's
 * @param version of what is searched
 */
public record KnownSearch(
        long id, String owner, String name, Subject subject, Map<String, List<String>> parameters, long version) {
    private static final String PERSON = "person:";

    public static KnownSearch of(SavedSearchRecord record) {
        return new KnownSearch(
                record.id(),
                record.owner(),
                record.name(),
                Subjects.named(record.subject()),
                JsonMapper.shared().readValue(record.parameters(), new TypeReference<Map<String, List<String>>>() {}),
                record.version());
    }

    /** The account whose own search it is. */
    public Optional<String> account() {
        return owner.startsWith(PERSON) ? Optional.of(owner.substring(PERSON.length())) : Optional.empty();
    }

    /** Whether it searches what was, so that it can only be run once the past is read. */
    public boolean isOfPast() {
        return subject == Subject.COMMITS;
    }
}
