package dev.oddbeacon.server.files;

import dev.oddbeacon.api.FilesAnswer;
import dev.oddbeacon.core.files.FileSearch;
import dev.oddbeacon.core.files.FilesFound;
import dev.oddbeacon.core.query.Query;
import dev.oddbeacon.core.query.expression.ExpressionPrinter;
import dev.oddbeacon.server.access.Caller;
import dev.oddbeacon.server.access.CallerContext;
import dev.oddbeacon.server.access.Contexts;
import dev.oddbeacon.server.access.Cursor;
import dev.oddbeacon.server.access.ScopeParameters;
import dev.oddbeacon.server.machines.Sharing;
import dev.oddbeacon.server.web.Parameters;
import io.swagger.v3.oas.annotations.Hidden;
import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletRequest;
import org.springdoc.core.annotations.ParameterObject;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestMethod;
import org.springframework.web.bind.annotation.RestController;

/** {@code GET /api/v1/search/files} */
@RestController
class FileSearchController {
    private static final String PATH = "/api/v1/search/files";

    private final Contexts contexts;
    private final Sharing sharing;

    FileSearchController(Contexts contexts, Sharing sharing) {
        this.contexts = contexts;
        this.sharing = sharing;
    }

    @Operation(
            summary = "Files, or folders, by their path",
            description = "Skipped files are found as well. Without a text, all files of the scope.")
    @RequestMapping(
            path = PATH,
            method = {RequestMethod.GET, RequestMethod.POST})
    FilesAnswer files(
            Caller caller,
            @ParameterObject FileParameters parameters,
            ScopeParameters within,
            HttpServletRequest request) {
        long start = System.nanoTime();
        try (CallerContext context = contexts.open(caller, parameters.from(), "")) {
            FileSearch search = parameters.search(context, within);
            Query query = search.query();
            context.check(query);
            FileSearch.Answer answer = sharing.run(search, PATH, FilesFound.class, context.search(), request);
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

    /** The part of another machine's search for files. */
    @Hidden
    @PostMapping(PATH + Sharing.PART)
    FilesFound part(Caller caller, FileParameters parameters, ScopeParameters within, HttpServletRequest request) {
        try (CallerContext context = contexts.open(caller)) {
            FileSearch search = parameters.search(context, within);
            return sharing.part(search, context.search(), request);
        }
    }
}
