package sarnik.app.instance;

import static org.assertj.core.api.Assertions.assertThat;

import com.sun.net.httpserver.Headers;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import jakarta.servlet.FilterChain;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import sarnik.app.testing.RunningSarnik;

/** Requests about what another instance holds, which here is a server that notes what it is asked. */
@ExtendWith(RunningSarnik.class)
@DisplayName("A request that is handed on")
class HandedOnTest {

    private final UUID other = UUID.randomUUID();
    private final AtomicReference<Headers> asked = new AtomicReference<>();
    private final AtomicReference<String> sent = new AtomicReference<>();
    private HttpServer server;
    private Instances instances;
    private JdbcClient database;
    private HandedOn filter;

    /** What was asked of this instance itself, in the end. */
    private String here;

    private final FilterChain chain =
            (request, response) -> here = new String(request.getInputStream().readAllBytes(), StandardCharsets.UTF_8);

    @BeforeEach
    void begin(RunningSarnik sarnik) throws IOException {
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 8);
        server.createContext("/", this::answer);
        server.start();
        instances = sarnik.bean(Instances.class);
        database = sarnik.bean(JdbcClient.class);
        database.sql("INSERT INTO instances (id, address, seen_at) VALUES (?, ?, now())")
                .params(other, "http://127.0.0.1:" + server.getAddress().getPort())
                .update();
        filter = new HandedOn(
                List.of(path -> path.startsWith("/held/") ? Optional.of(other) : Optional.empty()), instances);
    }

    @AfterEach
    void end() {
        server.stop(0);
        database.sql("DELETE FROM instances WHERE id = ?").param(other).update();
    }

    private void answer(HttpExchange exchange) throws IOException {
        asked.set(exchange.getRequestHeaders());
        sent.set(exchange.getRequestMethod() + " " + exchange.getRequestURI() + " "
                + new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
        byte[] said = "held there".getBytes(StandardCharsets.UTF_8);
        exchange.getResponseHeaders().add("Content-Type", "text/plain");
        exchange.getResponseHeaders().add("Vary", "Cookie");
        exchange.getResponseHeaders().add("Vary", "Accept-Language");
        exchange.sendResponseHeaders(409, said.length);
        exchange.getResponseBody().write(said);
        exchange.close();
    }

    private static MockHttpServletRequest request(String method, String path, String body) {
        MockHttpServletRequest request = new MockHttpServletRequest(method, path);
        request.setContent(body.getBytes(StandardCharsets.UTF_8));
        request.setRemoteAddr("192.0.2.7");
        request.setScheme("https");
        return request;
    }

    private MockHttpServletResponse answered(MockHttpServletRequest request) throws Exception {
        MockHttpServletResponse response = new MockHttpServletResponse();
        filter.doFilter(request, response, chain);
        return response;
    }

    @Test
    void arrivesWholeAndItsAnswerComesBackWhole() throws Exception {
        MockHttpServletRequest request = request("POST", "/held/1", "{\"names\": \"ñandú\"}");
        request.setQueryString("append=true&x=%C3%B1");
        request.addHeader("Cookie", "sarnik-session=abc");
        request.addHeader("X-CSRF-TOKEN", "t");
        MockHttpServletResponse response = answered(request);
        assertThat(sent.get()).isEqualTo("POST /held/1?append=true&x=%C3%B1 {\"names\": \"ñandú\"}");
        assertThat(asked.get().getFirst("Cookie")).isEqualTo("sarnik-session=abc");
        assertThat(asked.get().getFirst("X-CSRF-TOKEN")).isEqualTo("t");
        assertThat(response.getStatus()).isEqualTo(409);
        assertThat(response.getContentAsString()).isEqualTo("held there");
        assertThat(response.getHeaders("Vary")).containsExactly("Cookie", "Accept-Language");
        assertThat(here).as("it is not answered here as well").isNull();
    }

    @Test
    void saysWhoAsksAndNotWhatTheySayOfThemselves() throws Exception {
        MockHttpServletRequest request = request("GET", "/held/1", "");
        request.addHeader("X-Forwarded-For", "10.0.0.1");
        request.addHeader("X-Forwarded-Proto", "http");
        request.addHeader("X-Forwarded-Host", "example.org");
        request.addHeader("Forwarded", "for=10.0.0.1");
        answered(request);
        assertThat(asked.get().get("X-Forwarded-For")).containsExactly("192.0.2.7");
        assertThat(asked.get().get("X-Forwarded-Proto")).containsExactly("https");
        assertThat(asked.get()).doesNotContainKeys("X-Forwarded-Host", "Forwarded");
    }

    @Test
    void isNotHandedOnTwice() throws Exception {
        MockHttpServletRequest request = request("POST", "/held/1", "body");
        request.addHeader("Sarnik-Handed-On", UUID.randomUUID().toString());
        answered(request);
        assertThat(here).isEqualTo("body");
        assertThat(asked.get()).isNull();
    }

    @Test
    void isAnsweredHereWhereItIsAboutNothingOfTheSort() throws Exception {
        answered(request("POST", "/anything", "body"));
        assertThat(here).isEqualTo("body");
        assertThat(asked.get()).isNull();
    }

    @Test
    void isAnsweredHereWhereTheOtherHasEnded() throws Exception {
        database.sql("UPDATE instances SET seen_at = now() - interval '11 seconds' WHERE id = ?")
                .param(other)
                .update();
        answered(request("POST", "/held/1", "silent for long"));
        assertThat(here).isEqualTo("silent for long");
        database.sql("UPDATE instances SET seen_at = now() WHERE id = ?")
                .param(other)
                .update();
        server.stop(0);
        answered(request("POST", "/held/1", "does not listen"));
        assertThat(here).as("with its body").isEqualTo("does not listen");
        assertThat(instances.isThere(other)).as("nobody asks there again").isFalse();
    }

    @Test
    void isToBeAskedAgainWhereTheOtherEndsOverIt() throws Exception {
        HttpServer cut = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 8);
        cut.createContext("/", HttpExchange::close);
        cut.start();
        database.sql("UPDATE instances SET address = ? WHERE id = ?")
                .params("http://127.0.0.1:" + cut.getAddress().getPort(), other)
                .update();
        MockHttpServletResponse response = answered(request("POST", "/held/1", "body"));
        cut.stop(0);
        assertThat(response.getStatus()).isEqualTo(503);
        assertThat(response.getHeader("Retry-After")).isEqualTo("2");
        assertThat(here).as("whether it was done is not known").isNull();
    }
}
