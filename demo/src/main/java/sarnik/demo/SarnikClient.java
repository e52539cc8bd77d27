package sarnik.demo;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Works with a running Sarnik as a person's browser would: signs in, holds the session, sends forms and JSON. */
public final class SarnikClient {

    // Idle connections are let go before the server closes them (after 20 s): one closed at that very moment fails what
    // is sent.
    static {
        if (System.getProperty("jdk.httpclient.keepalive.timeout") == null) {
            System.setProperty("jdk.httpclient.keepalive.timeout", "10");
        }
    }

    /** What is answered as long as the rows of a dataset are read and placed. */
    private static final int STILL_READ = 503;

    private static final int MOST_TRIES = 300;

    private static final Pattern TOKEN = Pattern.compile("name=\"_csrf\" content=\"([^\"]+)\"");

    private final URI base;
    private final JsonMapper mapper = JsonMapper.builder().build();
    private final HttpClient http;
    private String token = "";

    /**
     * @param base address of the server, such as http://127.0.0.1:8080
     */
    public SarnikClient(String base) {
        this(
                URI.create(base),
                HttpClient.newBuilder()
                        .cookieHandler(new CookieManager())
                        .followRedirects(HttpClient.Redirect.NORMAL)
                        .build());
    }

    private SarnikClient(URI base, HttpClient http) {
        this.base = base;
        this.http = http;
    }

    /** The same session at another instance on the same host, as when a balancer sends a request there. */
    public SarnikClient at(String other) {
        SarnikClient there = new SarnikClient(URI.create(other), http);
        there.token = token;
        return there;
    }

    /** What the session is known by, as a header {@code Cookie} says it. */
    public String cookies() {
        return ((CookieManager) http.cookieHandler().orElseThrow())
                .getCookieStore().getCookies().stream()
                        .map(cookie -> cookie.getName() + "=" + cookie.getValue())
                        .collect(Collectors.joining("; "));
    }

    /** Signs in; whether the name and password were taken. */
    public boolean signIn(String name, String password) throws IOException, InterruptedException {
        token = token(get("/sign-in").body());
        String form = Map.of("username", name, "password", password, "_csrf", token).entrySet().stream()
                .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
                .collect(Collectors.joining("&"));
        HttpResponse<String> answer = send(request("/sign-in")
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(BodyPublishers.ofString(form))
                .build());
        token = token(answer.body());
        return answer.uri().getQuery() == null && answer.statusCode() == 200;
    }

    private static String token(String page) {
        Matcher matcher = TOKEN.matcher(page);
        return matcher.find() ? matcher.group(1) : "";
    }

    public HttpResponse<String> get(String path) throws IOException, InterruptedException {
        return send(request(path).GET().build());
    }

    /** Takes what lies at an address into a file. */
    public HttpResponse<Path> download(String path, Path file) throws IOException, InterruptedException {
        return http.send(request(path).GET().build(), HttpResponse.BodyHandlers.ofFile(file));
    }

    /** Sends JSON (or another kind of text) with the session's token. */
    public HttpResponse<String> send(String method, String path, String contentType, String body, String... headers)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = request(path)
                .header("Content-Type", contentType)
                .header("X-CSRF-TOKEN", token)
                .method(method, BodyPublishers.ofString(body));
        for (int i = 0; i < headers.length; i += 2) request.setHeader(headers[i], headers[i + 1]);
        return send(request.build());
    }

    /** Sends JSON and reads the answer, which has to be a success. */
    public JsonNode json(String method, String path, Object body) throws IOException, InterruptedException {
        return read(send(method, path, "application/json", mapper.writeValueAsString(body)));
    }

    /** Chooses a file to bring in. */
    public HttpResponse<String> upload(Path file, String fileName) throws IOException, InterruptedException {
        return upload(file, fileName, "");
    }

    /**
     * Chooses a file to bring in.
     *
     * @param query what stands behind the address, such as {@code ?dataset=3}; may be empty
     */
    public HttpResponse<String> upload(Path file, String fileName, String query)
            throws IOException, InterruptedException {
        return send(query, List.of(new Part(file, fileName)));
    }

    /** Chooses several files of one shape, under their own names. */
    public HttpResponse<String> upload(List<Path> files, String query) throws IOException, InterruptedException {
        return send(
                query,
                files.stream().map(f -> new Part(f, f.getFileName().toString())).toList());
    }

    private record Part(Path file, String name) {}

    private HttpResponse<String> send(String query, List<Part> parts) throws IOException, InterruptedException {
        String boundary = "sarnik-" + UUID.randomUUID();
        List<BodyPublisher> body = new ArrayList<>();
        for (Part part : parts) {
            body.add(BodyPublishers.ofString(
                    ("--%s\r\nContent-Disposition: form-data; name=\"file\"; filename=\"%s\"\r\nContent-Type: "
                                    + "application/octet-stream\r\n\r\n")
                            .formatted(boundary, part.name)));
            body.add(BodyPublishers.ofFile(part.file));
            body.add(BodyPublishers.ofString("\r\n"));
        }
        body.add(BodyPublishers.ofString("--" + boundary + "--\r\n"));
        HttpResponse<String> answer = send(request("/api/bring" + query)
                .header("Content-Type", "multipart/form-data; boundary=" + boundary)
                .header("X-CSRF-TOKEN", token)
                .POST(BodyPublishers.concat(body.toArray(BodyPublisher[]::new)))
                .build());
        return untilRead(answer);
    }

    /** Waits until what was sent is read. */
    public HttpResponse<String> untilRead(HttpResponse<String> answer) throws IOException, InterruptedException {
        HttpResponse<String> last = answer;
        while (last.statusCode() / 100 == 2) {
            JsonNode taken = mapper.readTree(last.body());
            if (!taken.path("working").asBoolean(false)) return last;
            last = get("/api/bring/" + taken.get("id").asString());
        }
        return last;
    }

    /**
     * Brings a file in with the placing that is guessed, and keeps it.
     *
     * @return the dataset's id
     */
    public long bring(Path file, String name) throws IOException, InterruptedException {
        JsonNode taken = read(upload(file, file.getFileName().toString()));
        JsonNode kept = json(
                "POST",
                "/api/bring/" + taken.get("id").asString() + "/keep",
                Map.of("name", name, "placing", taken.get("guess")));
        return Long.parseLong(kept.get("id").asString());
    }

    /**
     * Brings a file in, read and placed as is said, and keeps it.
     *
     * @param intake how it is read: {@code {choices, shaping}}
     * @param placing how its rows are placed
     * @return the dataset's id
     */
    public long bring(Path file, String name, Object intake, Object placing) throws IOException, InterruptedException {
        String id = read(upload(file, file.getFileName().toString())).get("id").asString();
        read(untilRead(
                send("POST", "/api/bring/" + id + "/intake", "application/json", mapper.writeValueAsString(intake))));
        return Long.parseLong(json("POST", "/api/bring/" + id + "/keep", Map.of("name", name, "placing", placing))
                .get("id")
                .asString());
    }

    /**
     * Sets a part of what is said about a dataset, on the revision that stands now.
     *
     * @param part about, name, ties, calculations or feed
     */
    public HttpResponse<String> describe(long dataset, String part, Object what)
            throws IOException, InterruptedException {
        for (int tries = 1; ; tries++) {
            long revision =
                    read(get("/api/datasets/" + dataset)).get("revision").asLong();
            HttpResponse<String> answer = send(
                    "PUT",
                    "/api/datasets/" + dataset + "/" + part,
                    "application/json",
                    mapper.writeValueAsString(what),
                    "If-Match",
                    "\"" + revision + "\"");
            // Rows of many millions may still be on their way to their places.
            if (answer.statusCode() != STILL_READ || tries == MOST_TRIES) return answer;
            Thread.sleep(1000);
        }
    }

    /** The JSON of a success. */
    public JsonNode read(HttpResponse<String> answer) throws IOException {
        if (answer.statusCode() / 100 != 2) {
            throw new IOException(
                    "%s answered %d: %s".formatted(answer.uri().getPath(), answer.statusCode(), answer.body()));
        }
        return answer.body().isEmpty() ? mapper.nullNode() : mapper.readTree(answer.body());
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(base.resolve(path));
    }

    /** Sends, and where the answer is a job that goes on, waits for what comes of it. */
    private HttpResponse<String> send(HttpRequest request) throws IOException, InterruptedException {
        HttpResponse<String> answer = http.send(request, HttpResponse.BodyHandlers.ofString());
        while (answer.statusCode() == 202) {
            String job = mapper.readTree(answer.body()).get("job").asString();
            answer = http.send(request("/api/jobs/" + job).GET().build(), HttpResponse.BodyHandlers.ofString());
        }
        return answer;
    }

    /** Publishes a dashboard as it stands, over the newest rows, for everybody who can sign in. */
    public void publish(long dashboard) throws IOException, InterruptedException {
        json("POST", "/api/dashboards/" + dashboard + "/editions", Map.of());
        json(
                "PUT",
                "/api/dashboards/" + dashboard + "/grants",
                Map.of("who", Map.of("kind", "EVERYBODY"), "may", "READ"));
    }
}
