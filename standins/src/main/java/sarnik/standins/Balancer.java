package sarnik.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;

/**
 * Stands in for the balancer in front of several instances: each request goes to the next of them, whoever sends it. One
 * that does not listen is passed over, and one that breaks off before it answers what only asks; a request that one has
 * begun to answer is asked of no other.
 */
public final class Balancer implements AutoCloseable {

    private static final Set<String> OF_CONNECTION =
            Set.of("connection", "content-length", "expect", "host", "transfer-encoding", "upgrade", "keep-alive");
    private static final int PIECE = 8192;

    private final List<String> instances;
    private final HttpServer server;
    private final ExecutorService threads = Executors.newCachedThreadPool();
    private final AtomicInteger next = new AtomicInteger();
    private final HttpClient http = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .connectTimeout(Duration.ofSeconds(2))
            .build();

    private Balancer(List<String> instances, HttpServer server) {
        this.instances = List.copyOf(instances);
        this.server = server;
    }

    /** {@code Balancer PORT ADDRESS ADDRESS …}: runs until it is stopped. */
    public static void main(String[] arguments) throws IOException {
        Balancer balancer =
                start(Integer.parseInt(arguments[0]), List.of(arguments).subList(1, arguments.length));
        System.out.println("Requests to " + balancer.address() + " go to " + String.join(", ", balancer.instances)
                + ", one after the other");
    }

    /**
     * Starts on loopback.
     *
     * @param port 0 for any that is free
     * @param instances their addresses, such as {@code http://127.0.0.1:8080}
     */
    public static Balancer start(int port, List<String> instances) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 64);
        Balancer balancer = new Balancer(instances, server);
        server.createContext("/", balancer::answer);
        server.setExecutor(balancer.threads);
        server.start();
        return balancer;
    }

    /** Where it is asked. */
    public String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    @Override
    public void close() {
        server.stop(0);
        threads.shutdownNow();
    }

    private void answer(HttpExchange exchange) throws IOException {
        try {
            HttpResponse<InputStream> answer = asked(exchange);
            if (answer == null) exchange.sendResponseHeaders(503, -1);
            else pass(exchange, answer);
        } catch (IOException broken) {
            // An answer that has begun is broken off with its connection, so that nobody takes a part for the whole.
            if (exchange.getResponseCode() >= 0) throw broken;
            exchange.sendResponseHeaders(502, -1);
        } catch (InterruptedException ending) {
            Thread.currentThread().interrupt();
        }
        exchange.close();
    }

    /** What the next instance answers; null where none listens. */
    private HttpResponse<InputStream> asked(HttpExchange exchange) throws IOException, InterruptedException {
        byte[] body = exchange.getRequestBody().readAllBytes();
        int first = next.getAndIncrement();
        IOException lost = null;
        for (int tried = 0; tried < instances.size(); tried++) {
            String instance = instances.get(Math.floorMod(first + tried, instances.size()));
            try {
                return http.send(asked(exchange, instance, body), HttpResponse.BodyHandlers.ofInputStream());
            } catch (ConnectException ended) {
                // Nothing of the request was read there.
            } catch (IOException broken) {
                // What only asks can be asked again; what does something may have been done.
                if (!exchange.getRequestMethod().equals("GET")) throw broken;
                lost = broken;
            }
        }
        if (lost != null) throw lost;
        return null;
    }

    private static HttpRequest asked(HttpExchange exchange, String instance, byte[] body) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(instance + exchange.getRequestURI()))
                .method(exchange.getRequestMethod(), HttpRequest.BodyPublishers.ofByteArray(body));
        exchange.getRequestHeaders().forEach((name, values) -> {
            if (isPassed(name)) values.forEach(value -> request.header(name, value));
        });
        return request.header(
                        "X-Forwarded-For",
                        exchange.getRemoteAddress().getAddress().getHostAddress())
                .build();
    }

    private static void pass(HttpExchange exchange, HttpResponse<InputStream> answer) throws IOException {
        answer.headers().map().forEach((name, values) -> {
            if (isPassed(name)) exchange.getResponseHeaders().put(name, values);
        });
        boolean isEmpty = answer.statusCode() == 204
                || answer.statusCode() == 304
                || exchange.getRequestMethod().equals("HEAD");
        try (InputStream in = answer.body()) {
            exchange.sendResponseHeaders(answer.statusCode(), isEmpty ? -1 : 0);
            if (isEmpty) return;
            OutputStream out = exchange.getResponseBody();
            byte[] piece = new byte[PIECE];
            // What is told bit by bit is passed on at once.
            for (int read = in.read(piece); read >= 0; read = in.read(piece)) {
                out.write(piece, 0, read);
                out.flush();
            }
        }
    }

    private static boolean isPassed(String header) {
        return !OF_CONNECTION.contains(header.toLowerCase(Locale.ROOT)) && !header.startsWith(":");
    }
}
