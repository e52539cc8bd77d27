package sarnik.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executors;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

@DisplayName("A balancer")
class BalancerTest {

    private final HttpClient http =
            HttpClient.newBuilder().version(HttpClient.Version.HTTP_1_1).build();
    private final List<HttpServer> servers = new ArrayList<>();
    private final CountDownLatch heard = new CountDownLatch(1);
    private Balancer balancer;

    @BeforeEach
    void begin() throws IOException {
        balancer = Balancer.start(0, List.of(server("one"), server("two")));
    }

    @AfterEach
    void end() {
        heard.countDown();
        balancer.close();
        servers.forEach(server -> server.stop(0));
    }

    private String server(String name) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 8);
        server.createContext("/", exchange -> answer(exchange, name));
        server.createContext("/bit-by-bit", this::bitByBit);
        server.createContext("/one-breaks-off", exchange -> {
            if (name.equals("one")) throw new IOException("Ended suddenly");
            answer(exchange, name);
        });
        server.createContext("/half", exchange -> {
            exchange.sendResponseHeaders(200, 0);
            exchange.getResponseBody().write("half of it".getBytes(StandardCharsets.UTF_8));
            exchange.getResponseBody().flush();
            throw new IOException("Ended suddenly");
        });
        server.setExecutor(Executors.newCachedThreadPool(work -> {
            Thread thread = new Thread(work);
            thread.setDaemon(true);
            return thread;
        }));
        server.start();
        servers.add(server);
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    /** Says who answers, how, and what was sent. */
    private static void answer(HttpExchange exchange, String name) throws IOException {
        String sent = new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8);
        String said = "%s %s %s %s %s"
                .formatted(
                        name,
                        exchange.getRequestMethod(),
                        exchange.getRequestURI(),
                        exchange.getRequestHeaders().getFirst("Cookie"),
                        sent);
        exchange.getResponseHeaders().add("Set-Cookie", "a=1");
        exchange.getResponseHeaders().add("Set-Cookie", "b=2");
        boolean isEmpty = exchange.getRequestURI().getPath().equals("/empty");
        byte[] bytes = said.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(isEmpty ? 204 : 418, isEmpty ? -1 : bytes.length);
        if (!isEmpty) exchange.getResponseBody().write(bytes);
        exchange.close();
    }

    /** Says a second line once the first was heard. */
    private void bitByBit(HttpExchange exchange) throws IOException {
        exchange.sendResponseHeaders(200, 0);
        exchange.getResponseBody().write("first\n".getBytes(StandardCharsets.UTF_8));
        exchange.getResponseBody().flush();
        try {
            heard.await();
        } catch (InterruptedException ending) {
            Thread.currentThread().interrupt();
        }
        exchange.getResponseBody().write("second\n".getBytes(StandardCharsets.UTF_8));
        exchange.close();
    }

    private HttpRequest.Builder at(String path) {
        return HttpRequest.newBuilder(URI.create(balancer.address() + path));
    }

    private HttpResponse<String> send(HttpRequest.Builder request) throws Exception {
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void sendsEachRequestToTheNextAndPassesAllOfItOn() throws Exception {
        List<String> who = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            HttpResponse<String> answer = send(at("/path?query=%C3%B1")
                    .header("Cookie", "c=3")
                    .method("PATCH", HttpRequest.BodyPublishers.ofString("what is sent")));
            assertThat(answer.statusCode()).isEqualTo(418);
            assertThat(answer.body()).endsWith("PATCH /path?query=%C3%B1 c=3 what is sent");
            assertThat(answer.headers().allValues("Set-Cookie")).containsExactly("a=1", "b=2");
            who.add(answer.body().split(" ")[0]);
        }
        assertThat(who).containsExactly("one", "two", "one", "two");
        HttpResponse<String> empty = send(at("/empty"));
        assertThat(empty.statusCode()).isEqualTo(204);
        assertThat(empty.body()).isEmpty();
    }

    @Test
    void passesOverOneThatDoesNotListen() throws Exception {
        servers.get(1).stop(0);
        for (int i = 0; i < 4; i++) assertThat(send(at("/")).body()).startsWith("one");
        servers.get(0).stop(0);
        assertThat(send(at("/")).statusCode()).isEqualTo(503);
    }

    @Test
    void asksTheNextWhereOneBreaksOffBeforeItAnswers() throws Exception {
        for (int i = 0; i < 4; i++)
            assertThat(send(at("/one-breaks-off")).body()).startsWith("two GET");
        List<Integer> done = new ArrayList<>();
        for (int i = 0; i < 4; i++)
            done.add(send(at("/one-breaks-off").POST(HttpRequest.BodyPublishers.ofString("once")))
                    .statusCode());
        assertThat(done).as("what does something is sent once").containsExactly(502, 418, 502, 418);
    }

    @Test
    void neverPassesAPartOnAsTheWhole() {
        assertThatThrownBy(() -> send(at("/half"))).isInstanceOf(IOException.class);
    }

    @Test
    void passesOnBitByBitWhatIsToldSo() throws Exception {
        HttpResponse<InputStream> answer =
                http.send(at("/bit-by-bit").build(), HttpResponse.BodyHandlers.ofInputStream());
        try (BufferedReader told = new BufferedReader(new InputStreamReader(answer.body(), StandardCharsets.UTF_8))) {
            assertThat(told.readLine()).isEqualTo("first");
            heard.countDown();
            assertThat(told.readLine()).isEqualTo("second");
        }
    }
}
