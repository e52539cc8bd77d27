package sarnik.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import java.io.IOException;
import java.sql.SQLException;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.transaction.CannotCreateTransactionException;
import sarnik.language.Language;

@DisplayName("A request while the database is away")
class DatabaseAwayTest {

    private static MockHttpServletResponse answer(String address, FilterChain chain) throws Exception {
        MockHttpServletResponse response = new MockHttpServletResponse();
        new DatabaseAway().doFilter(new MockHttpServletRequest("GET", address), response, chain);
        return response;
    }

    @Test
    void isToldSoWhereTheSessionIsLookedFor() throws Exception {
        MockHttpServletResponse page = answer("/", (request, response) -> {
            response.getWriter().write("half a page");
            throw new CannotCreateTransactionException("away", new SQLException("refused", "08001"));
        });
        assertThat(page.getStatus()).isEqualTo(503);
        assertThat(page.getHeader("Retry-After")).isEqualTo("2");
        assertThat(page.getContentAsString())
                .isEqualTo(
                        "The database cannot be reached just now. What was kept is safe; try again in a little while.");
    }

    @Test
    void isToldSoOnAPageThatNeedsNoDatabaseInTheLanguageThatIsSpoken() throws Exception {
        MockHttpServletRequest request = new MockHttpServletRequest("GET", "/dashboards/1");
        request.addHeader("Accept", "text/html,*/*;q=0.8");
        MockHttpServletResponse response = new MockHttpServletResponse();
        Language spanish = new Language(
                "es", sentence -> sentence.startsWith("The database cannot be reached") ? "Sin base & <datos>" : null);
        Language.in(spanish, () -> {
            try {
                new DatabaseAway().doFilter(request, response, (asked, answer) -> {
                    throw new CannotCreateTransactionException("away", new SQLException("refused", "08001"));
                });
            } catch (IOException | ServletException failed) {
                throw new AssertionError(failed);
            }
            return null;
        });
        assertThat(response.getStatus()).isEqualTo(503);
        assertThat(response.getContentType()).isEqualTo("text/html;charset=UTF-8");
        assertThat(response.getContentAsString())
                .contains("<html lang=\"es\">", "<p class=\"mb-5\">Sin base &amp; &lt;datos&gt;</p>");
    }

    @Test
    void isToldSoAsAProgramReadsIt() throws Exception {
        MockHttpServletResponse answer = answer("/api/dashboards", (request, response) -> {
            throw new ServletException(
                    new DataAccessResourceFailureException("full", new SQLException("no room", "53100")));
        });
        assertThat(answer.getStatus()).isEqualTo(503);
        assertThat(answer.getContentType()).isEqualTo("application/problem+json");
        assertThat(answer.getContentAsString()).contains("\"status\":503").contains("The database's disk is full");
    }

    @Test
    void isNotToldSoOfAnythingElse() {
        assertThatThrownBy(() -> answer("/", (request, response) -> {
                    throw new IllegalStateException("another mistake");
                }))
                .hasMessage("another mistake");
    }

    @Test
    void isLeftAsItIsOnceItsAnswerIsOnItsWay() {
        assertThatThrownBy(() -> answer("/", (request, response) -> {
                    response.flushBuffer();
                    throw new CannotCreateTransactionException("away");
                }))
                .isInstanceOf(CannotCreateTransactionException.class);
    }
}
