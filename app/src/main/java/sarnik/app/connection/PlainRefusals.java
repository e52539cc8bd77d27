package sarnik.app.connection;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.io.Writer;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicBoolean;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ErrorReportValve;
import org.apache.coyote.ActionCode;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.tomcat.servlet.TomcatServletWebServerFactory;
import org.springframework.boot.web.server.WebServerFactoryCustomizer;
import org.springframework.stereotype.Component;

/** Says in a sentence what the server refuses before the application is asked, such as an address that cannot be read. */
@Component
class PlainRefusals implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    private static final Logger LOG = LoggerFactory.getLogger(PlainRefusals.class);

    private static final String PAGE = """
            <!DOCTYPE html>
            <html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
            <title>%1$s · Sarnik</title><link rel="icon" href="/favicon.svg" type="image/svg+xml"><link rel="stylesheet" href="/css/sarnik.css"></head>
            <body><main class="page narrow"><h1 class="text-title mt-16 mb-3">%1$s</h1><p class="mb-5">%2$s</p><a class="do" href="/">Go home</a></main></body></html>
            """;

    @Override
    public void customize(TomcatServletWebServerFactory factory) {
        factory.addContextCustomizers(
                context -> context.getParent().getPipeline().addValve(new Valve()));
    }

    private final class Valve extends ErrorReportValve {

        @Override
        protected void report(Request request, Response response, Throwable failed) {
            if (response.getStatus() < HttpServletResponse.SC_BAD_REQUEST
                    || response.getContentWritten() > 0
                    || !response.setErrorReported()) return;
            AtomicBoolean isOpen = new AtomicBoolean();
            response.getCoyoteResponse().action(ActionCode.IS_IO_ALLOWED, isOpen);
            if (!isOpen.get()) return;
            try {
                response.setContentType("text/html");
                response.setCharacterEncoding(StandardCharsets.UTF_8);
                Writer writer = response.getReporter();
                if (writer == null) return;
                writer.write(page(response.getStatus()));
                response.finishResponse();
            } catch (IOException left) {
                LOG.debug("Nobody waits for the answer any more", left);
            }
        }
    }

    /** In English: where an address cannot be read nothing is read of which language is wanted. */
    private static String page(int status) {
        return status == HttpServletResponse.SC_BAD_REQUEST
                ? PAGE.formatted("That did not work", "This address cannot be read. Check how it is written.")
                : PAGE.formatted(
                        "Something went wrong here",
                        "The server could not answer. What you had kept is not touched; go back and try again.");
    }
}
