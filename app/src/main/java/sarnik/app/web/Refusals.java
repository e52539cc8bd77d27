package sarnik.app.web;

import static sarnik.language.Language.phrase;

import jakarta.servlet.http.HttpServletRequest;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.util.Locale;
import org.apache.catalina.connector.ClientAbortException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.dao.DataAccessException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.transaction.TransactionException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.multipart.support.MissingServletRequestPartException;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import sarnik.app.SarnikProperties;
import sarnik.dashboard.DashboardException;
import sarnik.data.MisfitException;
import sarnik.query.QueryException;
import sarnik.table.UnreadableTableException;

/**
 * Turns errors into sentences: problem details (RFC 9457) for scripts, a page for browsers, plain text for whatever
 * else asks, such as a device that sends readings.
 */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class Refusals {

    private static final Logger LOG = LoggerFactory.getLogger(Refusals.class);

    /** PostgreSQL's own code (documentation, appendix A). */
    private static final String DISK_FULL = "53100";

    private final SarnikProperties properties;

    Refusals(SarnikProperties properties) {
        this.properties = properties;
    }

    @ExceptionHandler
    Object refused(RefusedException refused, HttpServletRequest request) {
        return answer(request, refused.status(), refused.getMessage());
    }

    @ExceptionHandler
    Object unreadable(UnreadableTableException unreadable, HttpServletRequest request) {
        return answer(request, HttpStatus.UNPROCESSABLE_CONTENT, unreadable.getMessage());
    }

    @ExceptionHandler
    Object dashboard(DashboardException refused, HttpServletRequest request) {
        boolean overtaken = refused.kind() == DashboardException.Kind.OVERTAKEN;
        return answer(request, overtaken ? HttpStatus.CONFLICT : HttpStatus.BAD_REQUEST, refused.getMessage());
    }

    @ExceptionHandler({MisfitException.class, QueryException.class})
    Object misfit(RuntimeException misfit, HttpServletRequest request) {
        return answer(request, HttpStatus.UNPROCESSABLE_CONTENT, misfit.getMessage());
    }

    @ExceptionHandler
    Object tooLarge(MaxUploadSizeExceededException large, HttpServletRequest request) {
        return answer(
                request,
                HttpStatus.CONTENT_TOO_LARGE,
                ("The file is larger than %,d MB, the most that can be brought in at once. Split it, or leave out "
                                + "columns that are not needed.")
                        .formatted(properties.largestFile().toMegabytes()));
    }

    @ExceptionHandler({
        HttpMessageNotReadableException.class,
        MethodArgumentTypeMismatchException.class,
        MissingServletRequestParameterException.class,
        MissingServletRequestPartException.class,
        MultipartException.class
    })
    Object malformed(Exception malformed, HttpServletRequest request) {
        for (Throwable cause = malformed; cause != null; cause = cause.getCause()) {
            if (cause instanceof UnfitTextException unfit)
                return answer(request, HttpStatus.BAD_REQUEST, unfit.sentence());
        }
        return answer(request, HttpStatus.BAD_REQUEST, "The request is not of the form that is expected here.");
    }

    @ExceptionHandler
    Object unfitText(UnfitTextException unfit, HttpServletRequest request) {
        return answer(request, HttpStatus.BAD_REQUEST, unfit.sentence());
    }

    /** Two people at the same moment: the database lets one of them. */
    @ExceptionHandler({DataIntegrityViolationException.class, ConcurrencyFailureException.class})
    Object atTheSameMoment(Exception clash, HttpServletRequest request) {
        LOG.warn("{} {} clashed with a change at the same moment", request.getMethod(), request.getRequestURI(), clash);
        return answer(
                request,
                HttpStatus.CONFLICT,
                "Somebody changed the same thing at the same moment. Nothing of yours was kept; look at what "
                        + "stands now and try again.");
    }

    @ExceptionHandler({DataAccessException.class, TransactionException.class, SQLException.class})
    Object database(Exception down, HttpServletRequest request) {
        DatabaseAway.say(LOG, request.getMethod() + " " + request.getRequestURI(), down);
        return answer(request, HttpStatus.SERVICE_UNAVAILABLE, ofDatabase(down));
    }

    /** What is said where the database does not do what it should. */
    static String ofDatabase(Throwable down) {
        for (Throwable cause = down; cause != null; cause = cause.getCause())
            if (cause instanceof SQLException sql && DISK_FULL.equals(sql.getSQLState()))
                return "The database's disk is full, so nothing more can be kept. What was kept is safe; a steward has "
                        + "to make room.";
        return phrase("The database cannot be reached just now. What was kept is safe; try again in a little while.");
    }

    @ExceptionHandler
    Object diskOrConnection(UncheckedIOException failed, HttpServletRequest request) {
        LOG.error("{} {}: a file could not be read or written", request.getMethod(), request.getRequestURI(), failed);
        return answer(
                request,
                HttpStatus.SERVICE_UNAVAILABLE,
                "A file could not be read or written on the server: its disk may be full. What was kept is "
                        + "safe; try again, or tell a steward.");
    }

    /** A page that was left: nobody reads the answer. */
    @ExceptionHandler({AsyncRequestNotUsableException.class, ClientAbortException.class})
    void left() {
        // There is nobody to tell.
    }

    @ExceptionHandler
    Object missing(NoResourceFoundException missing, HttpServletRequest request) {
        return answer(request, HttpStatus.NOT_FOUND, phrase("There is nothing at this address."));
    }

    /** What should not happen. It is written down under a number, so that it can be found. */
    @ExceptionHandler
    Object unexpected(RuntimeException unexpected, HttpServletRequest request) {
        if (unexpected instanceof org.springframework.security.access.AccessDeniedException
                || unexpected instanceof org.springframework.web.ErrorResponse) throw unexpected;
        if (DatabaseAway.cause(unexpected) != null) return database(unexpected, request);
        String number = Long.toString(System.nanoTime() & 0xFFFFFFFFL, 36).toUpperCase(Locale.ROOT);
        LOG.error("Unexpected, {}: {} {}", number, request.getMethod(), request.getRequestURI(), unexpected);
        return answer(
                request,
                HttpStatus.INTERNAL_SERVER_ERROR,
                phrase(
                        "The server made a mistake, written down as {0}. What you had kept is not touched; go back and try again.",
                        number));
    }

    private static Object answer(HttpServletRequest request, HttpStatus status, String sentence) {
        boolean isOfInterface = request.getRequestURI().startsWith("/api/");
        if (!isOfInterface && Problems.takesPage(request)) {
            ModelAndView page = new ModelAndView("error");
            page.setStatus(status);
            page.addObject("sentence", sentence);
            return page;
        }
        ResponseEntity.BodyBuilder answer = ResponseEntity.status(status);
        if (status == HttpStatus.SERVICE_UNAVAILABLE || status == HttpStatus.TOO_MANY_REQUESTS)
            answer.header(HttpHeaders.RETRY_AFTER, "2");
        if (isOfInterface)
            return answer.contentType(MediaType.APPLICATION_PROBLEM_JSON)
                    .body(ProblemDetail.forStatusAndDetail(status, sentence));
        return answer.contentType(new MediaType(MediaType.TEXT_PLAIN, StandardCharsets.UTF_8))
                .body(sentence);
    }
}
