package sarnik.app.web;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import java.sql.SQLException;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.transaction.CannotCreateTransactionException;

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
