package sarnik.app.connection;

import static sarnik.language.Language.phrase;

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
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import sarnik.app.language.Languages;
import sarnik.app.web.Problems;
import sarnik.language.Language;

/** Says in a sentence what the server refuses before the application is asked, such as an address that cannot be read. */
@Component
class PlainRefusals implements WebServerFactoryCustomizer<TomcatServletWebServerFactory> {

    private static final Logger LOG = LoggerFactory.getLogger(PlainRefusals.class);

    private final Languages languages;

    PlainRefusals(Languages languages) {
        this.languages = languages;
    }

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
                writer.write(page(request, response.getStatus()));
                response.finishResponse();
            } catch (IOException left) {
                LOG.debug("Nobody waits for the answer any more", left);
            }
        }
    }

    /** Where an address cannot be read, it may be that nothing is read of which language is wanted: English then. */
    private String page(Request request, int status) {
        return Language.in(
                languages.wanted(request.getHeader(HttpHeaders.ACCEPT_LANGUAGE)).orElse(Language.ENGLISH),
                () -> Problems.page(
                        status,
                        status == HttpServletResponse.SC_BAD_REQUEST
                                ? phrase("This address cannot be read. Check how it is written.")
                                : phrase(
                                        "The server could not answer. What you had kept is not touched; go back and try again.")));
    }
}
