package sarnik.app.web;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.HttpStatus;

/** Problem details (RFC 9457) written where no controller answers: in filters. */
public final class Problems {

    private Problems() {}

    /**
     * @param sentence without quotation marks of ASCII and backslashes
     */
    public static void write(
            HttpServletRequest request, HttpServletResponse response, HttpStatus status, String sentence)
            throws IOException {
        response.setStatus(status.value());
        boolean script = request.getRequestURI().startsWith("/api/");
        byte[] body = (script ? "{\"status\":%d,\"detail\":\"%s\"}".formatted(status.value(), sentence) : sentence)
                .getBytes(StandardCharsets.UTF_8);
        response.setContentType(script ? "application/problem+json" : "text/plain;charset=UTF-8");
        response.setContentLength(body.length);
        response.getOutputStream().write(body);
    }
}
