package sarnik.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.DataAccessException;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.transaction.TransactionException;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Says that the database does not do what it should, where that is found before a controller is asked or after it has
 * answered: sessions lie in the database as well.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 12)
public class DatabaseAway extends OncePerRequestFilter {

    private static final Logger LOG = LoggerFactory.getLogger(DatabaseAway.class);

    @Override
    protected boolean shouldNotFilterErrorDispatch() {
        return false;
    }

    @Override
    protected boolean shouldNotFilterAsyncDispatch() {
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        try {
            chain.doFilter(request, response);
        } catch (RuntimeException | ServletException failed) {
            if (response.isCommitted() || !isOfDatabase(failed)) throw failed;
            say(LOG, request.getMethod() + " " + request.getRequestURI(), failed);
            response.reset();
            response.setHeader(HttpHeaders.RETRY_AFTER, "2");
            Problems.write(request, response, HttpStatus.SERVICE_UNAVAILABLE, Refusals.ofDatabase(failed));
        }
    }

    private static boolean isOfDatabase(Throwable failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause())
            if (cause instanceof DataAccessException
                    || cause instanceof TransactionException
                    || cause instanceof SQLException) return true;
        return false;
    }

    /**
     * What says that the database cannot be reached, has ended or has no room left: states 08, 57P and 53 of PostgreSQL
     * (documentation, appendix A), or no connection in time; null for any other fault, whose stack is needed.
     */
    public static SQLException cause(Throwable failed) {
        for (Throwable cause = failed; cause != null; cause = cause.getCause())
            if (cause instanceof SQLException of && isAway(of)) return of;
        return null;
    }

    private static boolean isAway(SQLException of) {
        String state = of.getSQLState();
        return of instanceof SQLTransientConnectionException
                || state != null && (state.startsWith("08") || state.startsWith("57P") || state.startsWith("53"));
    }

    /**
     * Writes down what failed over the database. While it is away everything does, many times a second: that is a line
     * then, since whole stacks would fill a disk.
     */
    public static void say(Logger log, String what, Throwable failed) {
        SQLException away = cause(failed);
        if (away == null) log.error("{}: the database does not do what it should", what, failed);
        else log.error("{}: the database does not do what it should: {}", what, away.getMessage());
    }
}
