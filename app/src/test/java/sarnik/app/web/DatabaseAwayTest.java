package sarnik.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import java.io.IOException;
import java.sql.SQLException;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.ResponseEntity;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.transaction.CannotCreateTransactionException;
import org.springframework.web.servlet.ModelAndView;
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

    @ParameterizedTest
    @CsvSource({
        "08006, true",
        "08001, true",
        "57P01, true",
        "57P03, true",
        "53100, true",
        "42601, false",
        "57014, false",
        "23505, false",
        ", false"
    })
    void knowsADatabaseThatIsAwayByItsState(String state, boolean isAway) {
        SQLException failed = new SQLException("of the database", state);
        Throwable around = new IllegalStateException("of a task", new RuntimeException(failed));
        assertThat((Object) DatabaseAway.cause(around)).isEqualTo(isAway ? failed : null);
    }

    /** What a device that sends readings is told: no page, and when it may come again. */
    @Test
    void isToldSoInPlainTextWhereNoPageIsTaken() {
        MockHttpServletRequest request = new MockHttpServletRequest("POST", "/readings/2");
        IllegalStateException failed =
                new IllegalStateException("The readings cannot be read", new SQLException("refused", "08001"));
        Refusals refusals = new Refusals(null);
        ResponseEntity<?> told = (ResponseEntity<?>) refusals.unexpected(failed, request);
        assertThat(told.getStatusCode().value()).isEqualTo(503);
        assertThat(told.getHeaders().getFirst("Retry-After")).isEqualTo("2");
        assertThat(told.getHeaders().getContentType()).hasToString("text/plain;charset=UTF-8");
        assertThat(told.getBody()).asString().startsWith("The database cannot be reached just now.");
        request.addHeader("Accept", "text/html");
        assertThat(refusals.unexpected(failed, request))
                .isInstanceOfSatisfying(
                        ModelAndView.class,
                        page -> assertThat(page.getStatus().value()).isEqualTo(503));
    }
}
