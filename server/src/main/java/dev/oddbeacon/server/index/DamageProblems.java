package dev.oddbeacon.server.index;

import java.util.List;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;

/**
 * A search read from a file of the index that was cut behind its back, or lies on a bad sector: the JVM makes an error
 * of it. The file is named, taken out and rebuilt.
 */
@RestControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class DamageProblems {
    private static final Logger LOG = LoggerFactory.getLogger(DamageProblems.class);

    private final IndexUpkeep upkeep;
    private final IndexJobs jobs;

    DamageProblems(IndexUpkeep upkeep, IndexJobs jobs) {
        this.upkeep = upkeep;
        this.jobs = jobs;
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> damaged(InternalError e) {
        List<String> cut = upkeep.cut();
        LOG.error("Files of the index are damaged and are rebuilt: {}", cut, e);
        jobs.verifySoon();
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(
                HttpStatus.SERVICE_UNAVAILABLE,
                (cut.isEmpty() ? "A file of the index" : "The index's file " + String.join(", ", cut))
                        + " cannot be read: it was cut, or the disk is failing. It is taken out now, and its repositories are indexed anew. Try again in a moment.");
        problem.setTitle("The index is damaged");
        return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                .header(HttpHeaders.RETRY_AFTER, "5")
                .body(problem);
    }
}
