package dev.oddbeacon.server.files;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Operation;
import java.util.Optional;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/search/files} */
@RestController
class FileSearchController {
    private final Contexts contexts;

    FileSearchController(Contexts contexts) {
        this.contexts = contexts;
    }

    @Operation(
            summary = "Files, or folders, by their path",
            description = "Skipped files are found as well. Without a text, all files of the scope.")
    @RequestMapping(
            path = "/api/v1/search/files",
            method = {RequestMethod.GET, RequestMethod.POST})
    FilesAnswer files(Caller caller, @ParameterObject FileParameters parameters, ScopeParameters within) {
        long start = System.nanoTime();
        Optional<Cursor> from = parameters.from();
        try (CallerContext context = contexts.open(caller, from, "")) {
            FileSearch search = parameters.search(
                    context, context.scope(within), from.map(Cursor::passed).orElse(0));
            Query query = search.query();
            context.check(query);
            FileSearch.Answer answer = search.run(context.search());
            return FileAnswers.files(
                    search,
                    ExpressionPrinter.print(query),
                    context.state(query),
                    context.view(),
                    answer,
                    context.cursor(Cursor.Kind.FILES, answer.next()),
                    Parameters.millisSince(start));
        }
    }
}
