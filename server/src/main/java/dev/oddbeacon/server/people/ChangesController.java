package dev.oddbeacon.server.people;

import dev.oddbeacon.api.ChangesAnswer;
import dev.oddbeacon.server.access.ChangeLog;
import dev.oddbeacon.server.load.Downloads;
import dev.oddbeacon.server.web.BadRequestException;
import jakarta.servlet.http.HttpServletResponse;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.time.format.DateTimeParseException;
import org.springframework.http.HttpHeaders;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;
import tools.jackson.databind.json.JsonMapper;

/** {@code /api/v1/records-of-change}: what was done, by whom, from where. */
@RestController
class ChangesController {
    private static final String JSON_LINES = "application/x-ndjson";
    private static final int IN_A_PIECE = 1_000;
    private static final int LONGEST_LINE = 2_000; // bytes

    private final ChangeLog changes;
    private final Downloads downloads;

    ChangesController(ChangeLog changes, Downloads downloads) {
        this.changes = changes;
        this.downloads = downloads;
    }

    /**
     * A page, the newest first.
     *
     * @param before the id that {@code next} of the page before tells
     * @param since a day, in UTC
     * @param until a day, in UTC; it is one of them
     */
    @GetMapping("/api/v1/records-of-change")
    ChangesAnswer changes(
            @RequestParam(required = false) Long before,
            @RequestParam(required = false) String account,
            @RequestParam(required = false) String action,
            @RequestParam(required = false) String since,
            @RequestParam(required = false) String until) {
        return changes.page(before == null ? Long.MAX_VALUE : before, wanted(account, action, since, until));
    }

    /** All that are wanted, the newest first, as JSON lines. */
    @GetMapping("/api/v1/records-of-change/file")
    StreamingResponseBody file(
            @RequestParam(required = false) String account,
            @RequestParam(required = false) String action,
            @RequestParam(required = false) String since,
            @RequestParam(required = false) String until,
            HttpServletResponse response) {
        ChangeLog.Wanted wanted = wanted(account, action, since, until);
        response.setContentType(JSON_LINES + ";charset=UTF-8");
        response.setHeader(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"records-of-change.jsonl\"");
        return downloads.body(writer -> write(wanted, writer));
    }

    private void write(ChangeLog.Wanted wanted, Downloads.Writer writer) throws IOException {
        Long[] before = {Long.MAX_VALUE};
        while (before[0] != null) {
            writer.write(new Downloads.Piece((long) IN_A_PIECE * LONGEST_LINE, () -> {
                ChangesAnswer page = changes.page(before[0], wanted, IN_A_PIECE);
                before[0] = page.next();
                ByteArrayOutputStream lines = new ByteArrayOutputStream();
                for (ChangesAnswer.Change change : page.changes()) {
                    lines.write(JsonMapper.shared().writeValueAsBytes(change));
                    lines.write('\n');
                }
                return lines.toByteArray();
            }));
        }
    }

    private static ChangeLog.Wanted wanted(String account, String action, String since, String until) {
        return new ChangeLog.Wanted(given(account), given(action), day("since", since, 0), day("until", until, 1));
    }

    private static String given(String value) {
        return value == null || value.isEmpty() ? null : value;
    }

    private static Instant day(String name, String text, int later) {
        if (given(text) == null) {
            return null;
        }
        try {
            return LocalDate.parse(text)
                    .plusDays(later)
                    .atStartOfDay(ZoneOffset.UTC)
                    .toInstant();
        } catch (DateTimeParseException e) {
            throw new BadRequestException(name + " is a day such as 2026-05-01.");
        }
    }
}
