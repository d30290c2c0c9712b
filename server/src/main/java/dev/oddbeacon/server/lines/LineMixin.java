package dev.oddbeacon.server.lines;

import com.fasterxml.jackson.annotation.JsonInclude;
import dev.oddbeacon.api.LinesAnswer;
import org.springframework.boot.jackson.JacksonMixin;

/** Leaves out of each line what was not asked for. */
@JacksonMixin(LinesAnswer.Line.class)
interface LineMixin {
    @JsonInclude(JsonInclude.Include.NON_NULL)
    int[] regions();
}
