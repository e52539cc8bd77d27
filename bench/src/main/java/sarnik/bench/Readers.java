package sarnik.bench;

import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Many readers at once: each signs in, then picks a town at random, waits for the answer and picks again. On loopback,
 * for a
 * time that is bounded, and besides them somebody who opens home and somebody who signs in.
 */
final class Readers {

    private static final Pattern TOKEN = Pattern.compile("name=\"_csrf\" content=\"([^\"]+)\"");
    private static final int SIGNING_IN = 4;

    private final Report report;
    private final URI base;
    private final HttpClient http = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .executor(Executors.newFixedThreadPool(8, Readers::quiet))
            .build();
    private final List<Session> sessions = new ArrayList<>();

    private record Session(String cookie, String token) {}

    Readers(Report report, String base) {
        this.report = report;
        this.base = URI.create(base);
    }

    private static Thread quiet(Runnable work) {
        Thread thread = new Thread(work);
        thread.setDaemon(true);
        return thread;
    }

    /**
     * @param counts how many readers, one after the other
     * @param seconds how long each lasts
     */
    void run(int[] counts, int seconds) throws Exception {
        SarnikClient client = new SarnikClient(base.toString());
        if (!client.signIn("ana", "aljibe-ana1")) throw new IllegalStateException("The demo's analyst cannot sign in");
        JsonNode all = client.json("POST", "/api/dashboards/1/frames", Map.of("state", ""));
        JsonNode towns = all.get("places")
                .get(all.at("/drawings/v1/layers/0/places").asString())
                .get("ids");
        JsonNode touched = client.read(client.get("/api/dashboards/1")).at("/touches/v1");
        report.title("Readers who pick at random on “Where do refills sell?”, %d s each".formatted(seconds));
        double first = 0;
        for (int count : counts) {
            signIn(count);
            double rate = picking(count, seconds, towns, touched);
            if (count == 4) first = rate;
            if (count > 4 && first > 0)
                report.rate("answers a second of %,d readers".formatted(count), rate, "/s", "of 4 readers", first, 0.9);
        }
    }

    private double picking(int count, int seconds, JsonNode towns, JsonNode touched) throws Exception {
        ConcurrentLinkedQueue<Double> times = new ConcurrentLinkedQueue<>();
        AtomicInteger refused = new AtomicInteger();
        long end = System.nanoTime() + seconds * 1_000_000_000L;
        CountDownLatch done = new CountDownLatch(count);
        for (int r = 0; r < count; r++) ask(sessions.get(r), new Random(r), end, towns, touched, times, refused, done);
        ConcurrentLinkedQueue<Double> home = new ConcurrentLinkedQueue<>();
        ConcurrentLinkedQueue<Double> entering = new ConcurrentLinkedQueue<>();
        while (System.nanoTime() < end) {
            home.add(timed(() -> sent(
                    request("/").header("Cookie", sessions.get(0).cookie).GET().build())));
            entering.add(timed(() -> entered()));
            Thread.sleep(250);
        }
        done.await();
        double[] sorted =
                times.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        double rate = sorted.length / (double) seconds;
        System.out.printf(
                Locale.ENGLISH,
                "%,5d readers %,8.1f answers/s   p50 %,8.0f ms   p95 %,8.0f ms   p99 %,8.0f ms   refused %,d   "
                        + "home p95 %,5.0f ms   sign-in p95 %,5.0f ms%n",
                count,
                rate,
                at(sorted, 0.5),
                at(sorted, 0.95),
                at(sorted, 0.99),
                refused.get(),
                at(home),
                at(entering));
        if (count == 16) report.time("95 of 100 answers to 16 readers", at(sorted, 0.95), "aim", 300, 1);
        if (count == 500) {
            report.time("95 of 100 home pages among 500 readers", at(home), "aim", 1000, 1);
            report.time("95 of 100 sign-ins among 500 readers", at(entering), "aim", 1000, 1);
        }
        return rate;
    }

    private void ask(
            Session session,
            Random random,
            long end,
            JsonNode towns,
            JsonNode touched,
            ConcurrentLinkedQueue<Double> times,
            AtomicInteger refused,
            CountDownLatch done) {
        if (System.nanoTime() >= end) {
            done.countDown();
            return;
        }
        String body = JsonMapper.shared()
                .writeValueAsString(Map.of(
                        "state",
                        "p.v1=" + towns.get(random.nextInt(towns.size())).asString(),
                        "ids",
                        touched));
        HttpRequest request = request("/api/dashboards/1/frames")
                .header("Cookie", session.cookie)
                .header("X-CSRF-TOKEN", session.token)
                .header("Content-Type", "application/json")
                .POST(BodyPublishers.ofString(body))
                .build();
        long began = System.nanoTime();
        http.sendAsync(request, HttpResponse.BodyHandlers.ofByteArray()).whenComplete((answer, failed) -> {
            if (failed != null || answer.statusCode() != 200) refused.incrementAndGet();
            else if (System.nanoTime() <= end) times.add((System.nanoTime() - began) / 1e6);
            ask(session, random, end, towns, touched, times, refused, done);
        });
    }

    private interface Sending {
        void send() throws Exception;
    }

    private static double timed(Sending sending) throws Exception {
        long began = System.nanoTime();
        sending.send();
        return (System.nanoTime() - began) / 1e6;
    }

    private static double at(ConcurrentLinkedQueue<Double> times) {
        return at(times.stream().mapToDouble(Double::doubleValue).sorted().toArray(), 0.95);
    }

    private static double at(double[] sorted, double share) {
        return sorted.length == 0 ? Double.NaN : sorted[Math.min(sorted.length - 1, (int) (sorted.length * share))];
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(base.resolve(path));
    }

    private HttpResponse<String> sent(HttpRequest request) throws IOException, InterruptedException {
        return http.send(request, HttpResponse.BodyHandlers.ofString());
    }

    /** Signs somebody in as a browser does: the page, its token, the form, home. */
    private Session entered() throws IOException, InterruptedException {
        HttpResponse<String> page = sent(request("/sign-in").GET().build());
        String before = cookie(page);
        String form = "username=rui&password=" + URLEncoder.encode("aljibe-rui1", StandardCharsets.UTF_8) + "&_csrf="
                + URLEncoder.encode(token(page), StandardCharsets.UTF_8);
        HttpResponse<String> in = sent(request("/sign-in")
                .header("Cookie", before)
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(BodyPublishers.ofString(form))
                .build());
        String after = cookie(in);
        HttpResponse<String> home =
                sent(request("/").header("Cookie", after).GET().build());
        if (home.statusCode() != 200) throw new IOException("The demo's reader cannot sign in: " + home.statusCode());
        return new Session(after, token(home));
    }

    private static String cookie(HttpResponse<String> answer) throws IOException {
        return answer.headers()
                .firstValue("Set-Cookie")
                .map(c -> c.substring(0, c.indexOf(';')))
                .orElseThrow(() -> new IOException("no session was given"));
    }

    private static String token(HttpResponse<String> page) {
        Matcher matcher = TOKEN.matcher(page.body());
        return matcher.find() ? matcher.group(1) : "";
    }

    /** Signs readers in until there are so many. */
    private void signIn(int count) throws Exception {
        ExecutorService pool = Executors.newFixedThreadPool(SIGNING_IN, Readers::quiet);
        try {
            List<java.util.concurrent.Callable<Session>> missing = new ArrayList<>();
            for (int i = sessions.size(); i < count; i++) missing.add(this::entered);
            for (var one : pool.invokeAll(missing)) sessions.add(one.get());
        } finally {
            pool.shutdown();
        }
    }
}
