package sarnik.app.web;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.sql.SQLException;
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
class DatabaseAway extends OncePerRequestFilter {

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
            LOG.error("{} {}: the database does not do what it should", request.getMethod(), request.getRequestURI());
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
}
