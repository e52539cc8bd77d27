package sarnik.bench;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Response;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Many readers of one published page, by a link that opens to anyone: each picks a town, looks at what it shows, and
 * picks another some seconds later. All on one machine, the readers with the server.
 */
final class LinkReaders {

    /** A reader looks at a pick for so long, seconds; a fifth more or less. */
    private static final double LOOKS = 10;

    /** What a page may weigh before its ground, bytes. */
    private static final double MOST_FIRST = 300_000;

    private static final int FEW_IDLE = 200;

    private final Report report;
    private final URI base;
    private final HttpClient http = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .executor(Executors.newFixedThreadPool(4, work -> {
                Thread thread = new Thread(work);
                thread.setDaemon(true);
                return thread;
            }))
            .build();

    LinkReaders(Report report, String base) {
        this.report = report;
        this.base = URI.create(base);
    }

    /**
     * @param readers who pick
     * @param idle whose page is open and who do nothing
     * @param seconds how long they pick
     */
    void run(int readers, int idle, int seconds) throws Exception {
        SarnikClient client = new SarnikClient(base.toString());
        if (!client.signIn("ana", "aljibe-ana1")) throw new IllegalStateException("The demo's analyst cannot sign in");
        client.publish(1);
        JsonNode made = client.json(
                "POST",
                "/api/dashboards/1/links",
                Map.of("name", "Measured " + System.nanoTime(), "opensTo", "ANYONE"));
        try {
            measure(made.get("path").asString(), readers, idle, seconds);
        } finally {
            String own = "/api/dashboards/1/links/" + made.get("id").asLong();
            client.send("POST", own + "/end", "application/json", "{}");
            client.send("DELETE", own, "application/json", "{}");
        }
    }

    private void measure(String link, int readers, int idle, int seconds) throws Exception {
        report.title("Readers of “Where do refills sell?” by a link, each picks every %.0f s".formatted(LOOKS));
        firstVisit(link);
        String api = "/api" + link;
        JsonNode all = asked(api, Map.of("state", ""));
        JsonNode towns = all.get("places")
                .get(all.at("/drawings/v1/layers/0/places").asString())
                .get("ids");
        JsonNode touched = JsonMapper.shared()
                .readTree(http.send(request(api).GET().build(), HttpResponse.BodyHandlers.ofString())
                        .body())
                .at("/touches/v1");
        picking(api, towns, touched, readers, seconds, "%,d readers".formatted(readers));
        idle(link, idle);
        picking(
                api,
                towns,
                touched,
                readers / 10,
                Math.min(seconds, 60),
                "%,d readers beside %,d idle".formatted(readers / 10, idle));
    }

    // --- a first visit --------------------------------------------------------------------------------

    /** How much comes before the ground of maps, and when all is drawn. */
    private void firstVisit(String link) {
        try (SarnikBrowser browser = new SarnikBrowser()) {
            double[] drawn = new double[5];
            AtomicLong bytes = new AtomicLong();
            for (int i = 0; i < drawn.length; i++) {
                Page page = browser.stranger(new Browser.NewContextOptions()
                        .setViewportSize(1280, 800)
                        .setBaseURL(base.toString()));
                List<Response> came = new ArrayList<>();
                page.onResponse(came::add);
                long began = System.nanoTime();
                page.navigate(link);
                page.waitForSelector("#sheet[data-drawn]");
                drawn[i] = (System.nanoTime() - began) / 1e6;
                // asking for the size of one may let another come in, so those that came by now are counted
                bytes.set(List.copyOf(came).stream()
                        .filter(one -> !one.url().contains("/ground/"))
                        .mapToLong(one -> one.request().sizes().responseBodySize
                                + one.request().sizes().responseHeadersSize)
                        .sum());
                page.context().close();
            }
            Arrays.sort(drawn);
            report.size("first visit before the ground, kB", bytes.get() / 1e3, "aim", MOST_FIRST / 1e3, 1);
            report.time("first visit until all is drawn", drawn[drawn.length / 2], "aim", 1000, 1);
        }
    }

    // --- picking --------------------------------------------------------------------------------------

    private void picking(String api, JsonNode towns, JsonNode touched, int readers, int seconds, String who)
            throws Exception {
        ConcurrentLinkedQueue<Double> times = new ConcurrentLinkedQueue<>();
        AtomicInteger failed = new AtomicInteger();
        AtomicInteger under = new AtomicInteger();
        Random random = new Random(3);
        List<Double> memory = new ArrayList<>();
        ScheduledExecutorService clock = Executors.newScheduledThreadPool(2);
        for (int r = 0; r < readers; r++) {
            String page = "reader-" + who.hashCode() + "-" + r;
            Random own = new Random(r);
            Runnable pick = () -> {
                under.incrementAndGet();
                HttpRequest request = request(api + "/frames")
                        .header("Content-Type", "application/json")
                        .header("Sarnik-Page", page)
                        .POST(HttpRequest.BodyPublishers.ofString(JsonMapper.shared()
                                .writeValueAsString(Map.of(
                                        "state",
                                        "p.v1="
                                                + towns.get(own.nextInt(towns.size()))
                                                        .asString(),
                                        "ids",
                                        touched))))
                        .build();
                long began = System.nanoTime();
                http.sendAsync(request, HttpResponse.BodyHandlers.ofByteArray()).whenComplete((answer, refused) -> {
                    under.decrementAndGet();
                    if (refused != null || answer.statusCode() != 200) failed.incrementAndGet();
                    else times.add((System.nanoTime() - began) / 1e6);
                });
            };
            long every = (long) (LOOKS * 1000 * (0.8 + 0.4 * random.nextDouble()));
            clock.scheduleAtFixedRate(pick, (long) (every * random.nextDouble()), every, TimeUnit.MILLISECONDS);
        }
        long end = System.nanoTime() + seconds * 1_000_000_000L;
        while (System.nanoTime() < end) {
            TimeUnit.SECONDS.sleep(Math.min(120, Math.max(1, seconds / 4)));
            memory.add(Server.held());
        }
        clock.shutdownNow();
        clock.awaitTermination(30, TimeUnit.SECONDS);
        while (under.get() > 0) TimeUnit.MILLISECONDS.sleep(50);
        double[] sorted =
                times.stream().mapToDouble(Double::doubleValue).sorted().toArray();
        System.out.printf(
                Locale.ENGLISH,
                "%,5d readers for %,d s: %,d picks   p50 %,.0f ms   p95 %,.0f ms   p99 %,.0f ms   failed %,d   "
                        + "memory held by the server, MB:%s%n",
                readers,
                seconds,
                sorted.length,
                at(sorted, 0.5),
                at(sorted, 0.95),
                at(sorted, 0.99),
                failed.get(),
                memory.stream().map(mb -> " %.0f".formatted(mb)).reduce("", String::concat));
        report.time("95 of 100 picks of " + who, at(sorted, 0.95), "aim", 300, 1);
        if (failed.get() > 0) throw new IllegalStateException(failed.get() + " picks of " + who + " were not answered");
    }

    private static double at(double[] sorted, double share) {
        return sorted.length == 0 ? Double.NaN : sorted[Math.min(sorted.length - 1, (int) (sorted.length * share))];
    }

    // --- idle readers ---------------------------------------------------------------------------------

    /**
     * Readers who have opened the page and do nothing: their pages ask for nothing, and a connection that is not used
     * is closed after twenty seconds.
     */
    private void idle(String link, int idle) throws Exception {
        double before = Server.held();
        for (int i = 0; i < idle; i++) {
            HttpResponse<String> page = http.send(request(link).GET().build(), HttpResponse.BodyHandlers.ofString());
            if (page.statusCode() != 200) throw new IllegalStateException("A page did not come: " + page.statusCode());
            http.send(request("/api" + link).GET().build(), HttpResponse.BodyHandlers.ofString());
            asked("/api" + link, Map.of("state", ""));
        }
        System.out.printf(
                Locale.ENGLISH,
                "%,5d have opened it and do nothing: the server holds %,.0f MB, before %,.0f%n",
                idle,
                Server.held(),
                before);
    }

    private JsonNode asked(String api, Map<String, ?> body) throws IOException, InterruptedException {
        return JsonMapper.shared()
                .readTree(http.send(
                                request(api + "/frames")
                                        .header("Content-Type", "application/json")
                                        .POST(HttpRequest.BodyPublishers.ofString(
                                                JsonMapper.shared().writeValueAsString(body)))
                                        .build(),
                                HttpResponse.BodyHandlers.ofString())
                        .body());
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(base.resolve(path));
    }

    /** Few and short, so that the measurement cannot rot. */
    void briefly() throws Exception {
        run(20, FEW_IDLE, 2);
    }
}
