package dev.oddbeacon.server.searches;

import dev.oddbeacon.api.Replacement.In;
import dev.oddbeacon.api.SavedSearch.Instead;
import dev.oddbeacon.api.SavedSearch.Subject;
import dev.oddbeacon.core.replace.Replacement;
import dev.oddbeacon.server.lines.LineParameters;
import dev.oddbeacon.server.web.BadRequestException;
import dev.oddbeacon.server.web.Parameters;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.json.JsonMapper;

/** What stands instead of what a saved search finds, as it is kept. */
final class KeptReplacement {
    private KeptReplacement() {}

    static Instead read(String json) {
        return JsonMapper.shared().readValue(json, Instead.class);
    }

    /**
     * As JSON.
     *
     * @throws BadRequestException if it cannot stand instead of what the search finds
     * @throws dev.oddbeacon.core.query.InvalidQueryException if it names a group that there is not
     */
    static String checked(Subject subject, Map<String, List<String>> parameters, Instead instead) {
        if (subject != Subject.LINES && subject != Subject.SYMBOLS) {
            throw new BadRequestException(
                    "Only what a search for lines or symbols finds is replaced. Leave out the replacement.");
        }
        if (instead.with() == null) {
            throw new BadRequestException("The replacement does not say what stands instead. Give it as with.");
        }
        Parameters.oneOf(In.values(), "in", instead.in());
        if (subject == Subject.LINES) {
            LineParameters search = (LineParameters) Subjects.filled(subject, Subjects.kept(subject, parameters));
            Replacement.of(search.textQuery(), instead.with(), Boolean.TRUE.equals(instead.keepCase()));
        }
        return JsonMapper.shared().writeValueAsString(instead);
    }
}
