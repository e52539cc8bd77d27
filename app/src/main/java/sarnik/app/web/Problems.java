package sarnik.app.web;

import static sarnik.language.Language.phrase;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.web.util.HtmlUtils;
import sarnik.language.Language;

/** Answers where no controller is asked, in filters: problem details (RFC 9457) to scripts, a page to people. */
public final class Problems {

    private static final String PAGE = """
            <!DOCTYPE html>
            <html lang="%1$s"><head><meta charset="utf-8">
            <meta name="viewport" content="width=device-width, initial-scale=1"><title>%2$s · Sarnik</title>
            <link rel="icon" href="/favicon.svg" type="image/svg+xml"><link rel="stylesheet" href="/css/sarnik.css"></head>
            <body><main class="page narrow">
            <p class="mark mt-16 mb-6"><svg viewBox="0 0 20 20" aria-hidden="true" fill="none" stroke="currentColor"
             stroke-width="1.4"><use href="/favicon.svg#sign"/></svg>Sarnik</p>
            <h1 class="text-title mb-3">%2$s</h1><p class="mb-5">%3$s</p><a class="do" href="/">%4$s</a></main></body></html>
            """;

    private Problems() {}

    /**
     * @param sentence without quotation marks of ASCII and backslashes
     */
    public static void write(
            HttpServletRequest request, HttpServletResponse response, HttpStatus status, String sentence)
            throws IOException {
        response.setStatus(status.value());
        String body = sentence;
        String type = "text/plain;charset=UTF-8";
        if (request.getRequestURI().startsWith("/api/")) {
            body = "{\"status\":%d,\"detail\":\"%s\"}".formatted(status.value(), sentence);
            type = "application/problem+json";
        } else if (takesPage(request)) {
            body = page(status.value(), sentence);
            type = "text/html;charset=UTF-8";
        }
        byte[] bytes = body.getBytes(StandardCharsets.UTF_8);
        response.setContentType(type);
        response.setContentLength(bytes.length);
        response.getOutputStream().write(bytes);
    }

    /** Whether who asks is a browser that shows what it is answered. */
    static boolean takesPage(HttpServletRequest request) {
        return String.valueOf(request.getHeader(HttpHeaders.ACCEPT)).contains("text/html");
    }

    /** A page that says a sentence and needs nothing but itself, in the language that is spoken. */
    public static String page(int status, String sentence) {
        String title = status >= 500 ? phrase("Something went wrong here") : phrase("That did not work");
        return PAGE.formatted(Language.spoken().tag(), escaped(title), escaped(sentence), escaped(phrase("Go home")));
    }

    /** Letters stay as they are, marks of HTML do not. */
    private static String escaped(String text) {
        return HtmlUtils.htmlEscape(text, StandardCharsets.UTF_8.name());
    }
}
