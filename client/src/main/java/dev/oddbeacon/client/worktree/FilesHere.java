package dev.oddbeacon.client.worktree;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.files.FileSearch.PathReading;
import dev.oddbeacon.core.files.FileSearch.Sizes;
import dev.oddbeacon.core.files.FileSearch.Sorting;
import dev.oddbeacon.core.query.CaseMode;
import dev.oddbeacon.core.query.expression.ByteSizes;
import dev.oddbeacon.core.scope.Scope;
import dev.oddbeacon.wire.FilePages;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalLong;
import java.util.function.Function;

/** A search for files in a work tree as it is now. */
public final class FilesHere {
    private FilesHere() {}

    /**
     * The first page: what changed here, then what the service has.
     *
     * @param parameters of the search, by name
     * @param most files of the page
     * @param service asks it, without the files that changed, for so many files
     */
    public static FilesAnswer first(
            ChangedFiles changed,
            Map<String, List<String>> parameters,
            int most,
            Function<Integer, FilesAnswer> service) {
        Optional<Scope> scope = changed.scope(parameters);
        Values values = new Values(parameters);
        if (scope.isEmpty()) {
            return service.apply(most);
        }
        FileSearch.Answer here = new FileSearch(
                        values.text("q"),
                        values.oneOf(PathReading.values(), "reading"),
                        values.oneOf(CaseMode.values(), "case"),
                        scope.get(),
                        FileSearch.Kind.FILE,
                        sizes(values.text("size")),
                        new Sorting(
                                values.oneOf(FileSearch.Order.values(), "order"),
                                values.isTrue("reversed"),
                                List.of(),
                                values.inHand()),
                        0,
                        most)
                .run(changed.context());
        List<FilesAnswer.File> all = new ArrayList<>(FilePages.files(changed.view(), here));
        int left = most - all.size();
        FilesAnswer there = service.apply(Math.max(1, left));
        all.addAll(left > 0 ? there.files() : List.of());
        boolean isCut = left <= 0 && there.counts().files() + here.files() > most;
        return new FilesAnswer(
                there.query(),
                there.index(),
                new FilesAnswer.Counts(
                        there.counts().files() + here.files(),
                        Math.max(there.counts().repositories(), here.repositories()),
                        there.counts().exact()),
                Shares.files(there.facets(), FilePages.facets(here)),
                all,
                isCut ? LinesHere.MORE : left > 0 ? there.next() : null,
                there.tookMillis());
    }

    /** As the service reads it; what it refuses, it tells. */
    private static Sizes sizes(String size) {
        OptionalLong bytes = size.isEmpty() ? OptionalLong.empty() : ByteSizes.parse(size.substring(1));
        return bytes.isEmpty()
                ? Sizes.ANY
                : size.startsWith("+") ? new Sizes(bytes.getAsLong(), Long.MAX_VALUE) : new Sizes(0, bytes.getAsLong());
    }
}
