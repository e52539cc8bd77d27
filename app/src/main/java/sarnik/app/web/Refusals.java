package sarnik.app.web;

import jakarta.servlet.http.HttpServletRequest;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.multipart.MultipartException;
import org.springframework.web.multipart.support.MissingServletRequestPartException;
import org.springframework.web.servlet.ModelAndView;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import sarnik.app.SarnikProperties;
import sarnik.dashboard.DashboardException;
import sarnik.dashboard.MisfitException;
import sarnik.query.QueryException;
import sarnik.table.UnreadableTableException;

/** Turns errors into sentences: problem details (RFC 9457) for scripts, a page for people. */
@ControllerAdvice
@Order(Ordered.HIGHEST_PRECEDENCE)
class Refusals {

    private static final Logger LOG = LoggerFactory.getLogger(Refusals.class);
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
        return answer(request, HttpStatus.CONTENT_TOO_LARGE,
                "The file is larger than %d MB, the most that can be brought in at once. Split it, or leave out columns that are not needed."
                        .formatted(properties.largestFile().toMegabytes()));
    }

    @ExceptionHandler({HttpMessageNotReadableException.class, MethodArgumentTypeMismatchException.class,
        MissingServletRequestParameterException.class, MissingServletRequestPartException.class, MultipartException.class})
    Object malformed(Exception malformed, HttpServletRequest request) {
        return answer(request, HttpStatus.BAD_REQUEST, "The request is not of the form that is expected here.");
    }

    @ExceptionHandler
    Object missing(NoResourceFoundException missing, HttpServletRequest request) {
        return answer(request, HttpStatus.NOT_FOUND, "There is nothing at this address.");
    }

    private static Object answer(HttpServletRequest request, HttpStatus status, String sentence) {
        if (request.getRequestURI().startsWith("/api/")) {
            ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, sentence);
            return ResponseEntity.status(status).body(problem);
        }
        LOG.debug("{} {}: {}", request.getMethod(), request.getRequestURI(), sentence);
        ModelAndView page = new ModelAndView("error");
        page.setStatus(status);
        page.addObject("sentence", sentence);
        return page;
    }
}
