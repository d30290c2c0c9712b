package dev.oddbeacon.server.web;

import dev.oddbeacon.api.Problem;
import dev.oddbeacon.core.ingest.TreeTooLargeException;
import dev.oddbeacon.core.query.InvalidQueryException;
import dev.oddbeacon.core.query.Mistake;
import dev.oddbeacon.core.search.BudgetOverException;
import dev.oddbeacon.core.text.ScanStoppedException;
import dev.oddbeacon.git.BlobTooLargeException;
import dev.oddbeacon.git.RepositoryProblemException;
import java.io.IOException;
import java.util.List;
import org.apache.catalina.connector.ClientAbortException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.web.firewall.RequestRejectedException;
import org.springframework.transaction.TransactionException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;

/** Errors as RFC 9457 problem details. */
@RestControllerAdvice
public class Problems extends ResponseEntityExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(Problems.class);

    @ExceptionHandler
    ProblemDetail invalidQuery(InvalidQueryException e) {
        ProblemDetail problem = problem(HttpStatus.BAD_REQUEST, "The search cannot be run", e.getMessage());
        List<Problem.Mistake> mistakes = e.mistakes().stream()
                .filter(mistake -> mistake.position() != Mistake.NOWHERE)
                .map(Problems::mistake)
                .toList();
        if (!mistakes.isEmpty()) {
            problem.setProperty("position", mistakes.getFirst().position());
            problem.setProperty("mistakes", mistakes);
        }
        return problem;
    }

    public static Problem.Mistake mistake(Mistake mistake) {
        return new Problem.Mistake(
                mistake.message(),
                mistake.position(),
                mistake.length(),
                mistake.suggestion().orElse(null),
                mistake.unfinished());
    }

    @ExceptionHandler
    ProblemDetail badRequest(BadRequestException e) {
        return problem(HttpStatus.BAD_REQUEST, "The request cannot be taken", e.getMessage());
    }

    @ExceptionHandler
    ProblemDetail rejected(RequestRejectedException e) {
        return problem(
                HttpStatus.BAD_REQUEST,
                "The request cannot be taken",
                "A name of a parameter or a header has characters that cannot be seen. Leave them out.");
    }

    @ExceptionHandler
    ProblemDetail repositoryProblem(RepositoryProblemException e) {
        return problem(HttpStatus.BAD_REQUEST, "The repository cannot be registered", e.getMessage());
    }

    @ExceptionHandler
    ProblemDetail notFound(NotFoundException e) {
        return problem(HttpStatus.NOT_FOUND, "Not found", e.getMessage());
    }

    @ExceptionHandler
    ProblemDetail conflict(ConflictException e) {
        return problem(HttpStatus.CONFLICT, "Changed meanwhile, or there already", e.getMessage());
    }

    @ExceptionHandler
    ProblemDetail forbidden(ForbiddenException e) {
        return problem(HttpStatus.FORBIDDEN, "Not allowed", e.getMessage());
    }

    @ExceptionHandler
    ProblemDetail gone(GoneException e) {
        return problem(HttpStatus.GONE, "Gone", e.getMessage());
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> over(BudgetOverException e) {
        return busy(new BusyException(
                "This took too long and was given up. Ask for less: a smaller file, a folder, fewer commits."));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> stopped(ScanStoppedException e) {
        return busy(new BusyException("Looking through this took too long. Give a longer literal text."));
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> busy(BusyException e) {
        return ResponseEntity.status(HttpStatus.SERVICE_UNAVAILABLE)
                .header(HttpHeaders.RETRY_AFTER, "1")
                .body(problem(HttpStatus.SERVICE_UNAVAILABLE, "Not now", e.getMessage()));
    }

    /** A body that cannot be read is wrong, or has grown too large meanwhile. */
    @Override
    protected ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            if (cause instanceof TooLargeException large) {
                return handleExceptionInternal(e, tooLarge(large), headers, HttpStatus.CONTENT_TOO_LARGE, request);
            }
        }
        return super.handleHttpMessageNotReadable(e, headers, status, request);
    }

    @ExceptionHandler({TooLargeException.class, TreeTooLargeException.class, BlobTooLargeException.class})
    ProblemDetail tooLarge(Exception e) {
        return problem(HttpStatus.CONTENT_TOO_LARGE, "Too large", e.getMessage());
    }

    /** What the service keeps on its disk cannot be read; that a caller has left is nobody's problem. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> unreadable(IOException e) {
        if (e instanceof ClientAbortException) {
            return null;
        }
        LOG.error("A file cannot be read", e);
        return ResponseEntity.internalServerError()
                .body(
                        problem(
                                HttpStatus.INTERNAL_SERVER_ERROR,
                                "The service failed",
                                "The service's copy of this repository cannot be read: it is damaged, or has just been removed. Refresh the repository; its log tells more."));
    }

    @ExceptionHandler
    ProblemDetail changedAtOnce(ConcurrencyFailureException e) {
        LOG.info("Two changed the same at once: {}", e.getMessage());
        return problem(
                HttpStatus.CONFLICT,
                "Changed meanwhile, or there already",
                "Somebody else changed the same at this moment, so that nothing was changed. Look at it again, and try once more.");
    }

    @ExceptionHandler({DataAccessException.class, TransactionException.class})
    ProblemDetail recordsUnreachable(Exception e) {
        LOG.warn("The records cannot be reached: {}", e.getMessage());
        return problem(
                HttpStatus.SERVICE_UNAVAILABLE,
                "The records cannot be reached",
                "MariaDB does not answer, so nothing can be changed now. Searching goes on. Start MariaDB again, or look into its log.");
    }

    @ExceptionHandler
    ProblemDetail unexpected(RuntimeException e) {
        LOG.error("Unexpected", e);
        return problem(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "The service failed",
                "This is a defect of the service; its log tells more. ("
                        + e.getClass().getSimpleName() + ")");
    }

    private static ProblemDetail problem(HttpStatus status, String title, String detail) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, detail);
        problem.setTitle(title);
        return problem;
    }
}
