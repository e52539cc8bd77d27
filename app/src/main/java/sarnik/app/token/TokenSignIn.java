package sarnik.app.token;

import static sarnik.language.Language.phrase;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Optional;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.RequestAttributeSecurityContextRepository;
import org.springframework.stereotype.Component;
import sarnik.app.people.OtherSignIn;
import sarnik.app.web.Problems;

/**
 * Takes a token in the place of a session: {@code Authorization: Bearer sarnik_…}, for the JSON interface only. Whoever
 * sends one is nobody else, whatever session a cookie names; nothing of it is kept.
 */
@Component
class TokenSignIn implements OtherSignIn {

    private static final String BEARER = "Bearer ";

    private final Tokens tokens;
    private final RateLimits limits;

    TokenSignIn(Tokens tokens, RateLimits limits) {
        this.tokens = tokens;
        this.limits = limits;
    }

    @Override
    public boolean isMeant(HttpServletRequest request) {
        String said = request.getHeader(HttpHeaders.AUTHORIZATION);
        return said != null
                && said.startsWith(BEARER)
                && request.getRequestURI().startsWith("/api/");
    }

    @Override
    public boolean admit(HttpServletRequest request, HttpServletResponse response) throws IOException {
        String path = request.getRequestURI();
        if (path.startsWith("/api/shown/")
                && isTooMany(limits.count("link " + request.getRemoteAddr(), limits.forLinks()), request, response))
            return false;
        if (!isMeant(request)) return true;
        String token = request.getHeader(HttpHeaders.AUTHORIZATION)
                .substring(BEARER.length())
                .strip();
        Optional<Tokens.Bearer> bearer = tokens.bearer(token);
        if (bearer.isEmpty()) {
            response.setHeader(HttpHeaders.WWW_AUTHENTICATE, "Bearer");
            Problems.write(request, response, HttpStatus.UNAUTHORIZED, "This token is none, or has ended.");
            return false;
        }
        if (isTooMany(limits.count("person " + bearer.get().person().id(), limits.forTokens()), request, response))
            return false;
        Scope needed = Scope.of(request.getMethod(), path);
        if (!bearer.get().scopes().contains(needed)) {
            Problems.write(
                    request,
                    response,
                    HttpStatus.FORBIDDEN,
                    "This token may not %s. Make one that may, on your own page.".formatted(needed.words()));
            return false;
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(
                bearer.get().person(), null, bearer.get().person().getAuthorities()));
        SecurityContextHolder.setContext(context);
        // For this request only, also where its answer comes later.
        new RequestAttributeSecurityContextRepository().saveContext(context, request, response);
        return true;
    }

    private static boolean isTooMany(
            RateLimits.Counted counted, HttpServletRequest request, HttpServletResponse response) throws IOException {
        counted.tell(response);
        if (counted.answered()) return false;
        Problems.write(
                request,
                response,
                HttpStatus.TOO_MANY_REQUESTS,
                phrase(
                        "So many questions came from here within a minute that no more are answered. Wait as long as Retry-After says."));
        return true;
    }
}
