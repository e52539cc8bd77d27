package sarnik.app.connection;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.regex.Pattern;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import sarnik.app.web.Problems;

/**
 * Refuses bodies that are larger than anything that is asked for here, before they are read. Files have a bound of
 * their own.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class BodyLimit extends OncePerRequestFilter {

    /** What a reader asks with: a state, names of visuals, what is in sight. */
    private static final int QUESTION = 256 << 10;

    /** What an author says: a document, formulas, descriptions of columns. */
    private static final int EDIT = 4 << 20;

    private static final Pattern QUESTIONS = Pattern.compile("/api/(dashboards|editions|shown)/[^/]+/"
            + "(frames|rows|pictures|narrowings|filters/values|places/\\w+)|/sign-in(/\\w+)?|/sign-out|/shown/.*");

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean files =
                request.getContentType() != null && request.getContentType().startsWith("multipart/");
        // Devices send line after line for as long as they like; whoever takes them bounds each, and asks for a token
        // first.
        boolean isStream = request.getRequestURI().startsWith("/readings/")
                && String.valueOf(request.getContentType()).matches("application/(x-)?(ndjson|jsonl).*");
        if (isStream) {
            chain.doFilter(request, response);
            return;
        }
        int most = QUESTIONS.matcher(request.getRequestURI()).matches() ? QUESTION : EDIT;
        if (request.getHeader("Transfer-Encoding") != null) {
            Problems.write(
                    request,
                    response,
                    HttpStatus.LENGTH_REQUIRED,
                    "A request has to say how long its body is (Content-Length).");
        } else if (!files && request.getContentLengthLong() > most) {
            Problems.write(
                    request,
                    response,
                    HttpStatus.CONTENT_TOO_LARGE,
                    "The request holds %,d kB; here at most %,d kB are asked for."
                            .formatted(request.getContentLengthLong() >> 10, most >> 10));
        } else {
            chain.doFilter(request, response);
        }
    }
}
