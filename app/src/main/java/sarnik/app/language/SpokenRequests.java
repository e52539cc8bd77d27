package sarnik.app.language;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.Arrays;
import java.util.Optional;
import java.util.regex.Pattern;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import sarnik.language.Language;

/**
 * Answers each request in its language. The interface for programs takes the one that Accept-Language asks for first,
 * or English. Pages that are read take what the reader chose, else what the browser asks for; pages on which something
 * is composed are in English.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
public class SpokenRequests extends OncePerRequestFilter {

    /** By which an address asks for a language. */
    public static final String ASKED = "language";

    private static final String COOKIE = "sarnik-language";
    private static final Pattern READ =
            Pattern.compile("/(?:shown/.+|editions/\\d+(?:/beside)?|dashboards/\\d+(?:/beside)?|sign-in.*|error)");

    private final Languages languages;

    SpokenRequests(Languages languages) {
        this.languages = languages;
    }

    @Override
    protected boolean shouldNotFilterErrorDispatch() {
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean isRead = READ.matcher(request.getRequestURI()).matches();
        Optional<Language> asked = isRead || request.getRequestURI().equals("/") ? asked(request) : Optional.empty();
        asked.ifPresent(language -> keep(language, request, response));
        Language language = request.getRequestURI().startsWith("/api/")
                ? languages
                        .wanted(request.getHeader(HttpHeaders.ACCEPT_LANGUAGE))
                        .orElse(Language.ENGLISH)
                : isRead ? of(request, null) : Language.ENGLISH;
        try {
            Language.in(language, () -> {
                try {
                    chain.doFilter(request, response);
                } catch (IOException failed) {
                    throw new UncheckedIOException(failed);
                } catch (ServletException failed) {
                    throw new Failed(failed);
                }
                return null;
            });
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        } catch (Failed failed) {
            throw (ServletException) failed.getCause();
        }
    }

    private static final class Failed extends RuntimeException {
        private static final long serialVersionUID = 1L;

        private Failed(ServletException cause) {
            super(cause);
        }
    }

    private Optional<Language> asked(HttpServletRequest request) {
        return languages.of(request.getParameter(ASKED));
    }

    /** What the reader chose before. */
    private Optional<Language> chosen(HttpServletRequest request) {
        return request.getCookies() == null
                ? Optional.empty()
                : Arrays.stream(request.getCookies())
                        .filter(cookie -> cookie.getName().equals(COOKIE))
                        .map(Cookie::getValue)
                        .flatMap(tag -> languages.of(tag).stream())
                        .findFirst();
    }

    private static void keep(Language language, HttpServletRequest request, HttpServletResponse response) {
        response.addHeader(
                HttpHeaders.SET_COOKIE,
                ResponseCookie.from(COOKIE, language.tag())
                        .path("/")
                        .maxAge(Duration.ofDays(365))
                        .sameSite("Lax")
                        .httpOnly(true)
                        .secure(request.isSecure())
                        .build()
                        .toString());
    }

    /**
     * What a page of a dashboard is answered in, whose author has said a language: the reader's own choice comes before
     * it, the browser's wish behind it.
     *
     * @param authors null where it is left to readers
     * @return English where nobody says anything
     */
    public Language of(HttpServletRequest request, String authors) {
        return asked(request)
                .or(() -> chosen(request))
                .or(() -> languages.of(authors))
                .or(() -> languages.wanted(request.getHeader(HttpHeaders.ACCEPT_LANGUAGE)))
                .orElse(Language.ENGLISH);
    }
}
