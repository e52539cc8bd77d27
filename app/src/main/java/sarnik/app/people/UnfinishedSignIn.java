package sarnik.app.people;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Keeps whoever has typed the password, but not yet what else is asked for, from everything but the page that asks.
 */
final class UnfinishedSignIn extends OncePerRequestFilter {

    static final String CODE_PAGE = "/sign-in/code";
    static final String PASSWORD_PAGE = "/sign-in/password";

    private static final String PAGE = UnfinishedSignIn.class.getName() + ".page";
    private static final Set<String> OPEN = Set.of("/sign-in", "/sign-out", "/error");

    /** Says what a session lacks: the page on which it is made up for. @param page null for nothing */
    static void lacks(HttpSession session, String page) {
        if (page == null) session.removeAttribute(PAGE);
        else session.setAttribute(PAGE, page);
    }

    static String lacking(HttpSession session) {
        return session == null ? null : (String) session.getAttribute(PAGE);
    }

    /** What somebody still has to do who has typed the password; null for nothing. */
    static String pageFor(SignedIn person) {
        if (person.hasFactor()) return CODE_PAGE;
        return person.hasGivenWord() ? PASSWORD_PAGE : null;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String page = lacking(request.getSession(false));
        String path = request.getRequestURI();
        boolean open = page == null || path.equals(page) || OPEN.contains(path);
        if (open) chain.doFilter(request, response);
        else if (path.startsWith("/api/")) response.sendError(HttpStatus.UNAUTHORIZED.value());
        else response.sendRedirect(page);
    }
}
