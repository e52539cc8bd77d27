package sarnik.bench;

import java.io.IOException;
import java.io.InputStream;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Readings as they come: many devices send, many pages watch, and the application and PostgreSQL are killed meanwhile.
 * Every reading that was acknowledged has to be there once, and to be seen soon. All on one machine.
 */
final class FeedBench {

    /** So many readings are sent in one message. */
    private static final int TOGETHER = 200;

    /** So many messages are on their way at most. */
    private static final int ON_THEIR_WAY = 400;

    private static final int SAMPLES_SECONDS = 120;
    private static final Duration PATIENCE = Duration.ofSeconds(40);

    private final Report report;
    private final URI base;
    private final Server server;
    private final HttpClient http = HttpClient.newBuilder()
            .version(HttpClient.Version.HTTP_1_1)
            .executor(Executors.newFixedThreadPool(4, FeedBench::quiet))
            .build();

    FeedBench(Report report, String base) {
        this.report = report;
        this.base = URI.create(base);
        this.server = new Server(base);
    }

    private static Thread quiet(Runnable work) {
        Thread thread = new Thread(work);
        thread.setDaemon(true);
        return thread;
    }

    /** A feed that is measured, and the page that shows it. */
    private record Measured(long feed, long dashboard, String token, String page) {}

    private SarnikClient analyst() throws IOException, InterruptedException {
        SarnikClient client = new SarnikClient(base.toString());
        if (!client.signIn("ana", "aljibe-ana1")) throw new IllegalStateException("The demo's analyst cannot sign in");
        return client;
    }

    private static void put(SarnikClient client, long feed, String what, Object body)
            throws IOException, InterruptedException {
        long revision =
                client.read(client.get("/api/feeds/" + feed)).get("revision").asLong();
        HttpResponse<String> answer = client.send(
                "PUT",
                "/api/feeds/" + feed + "/" + what,
                "application/json",
                JsonMapper.shared().writeValueAsString(body),
                "If-Match",
                "\"" + revision + "\"");
        if (answer.statusCode() >= 300) throw new IllegalStateException(answer.body());
    }

    private static Map<String, Object> field(String at, String name) {
        Map<String, Object> field = new LinkedHashMap<>();
        field.put("at", at);
        field.put("name", name);
        field.put("type", "DECIMAL");
        field.put("unit", null);
        return field;
    }

    /** A feed whose messages hold a device, a moment, a value, a number and when they were sent. */
    static JsonNode feed(SarnikClient client, String name) throws IOException, InterruptedException {
        JsonNode made = client.json("POST", "/api/feeds", Map.of("name", name + " " + System.currentTimeMillis()));
        put(
                client,
                made.get("id").asLong(),
                "shape",
                Map.of(
                        "readings",
                        "",
                        "device",
                        "/d",
                        "time",
                        "/t",
                        "form",
                        "MILLISECONDS",
                        "fields",
                        List.of(field("/v", "value"), field("/n", "number"), field("/s", "sent"))));
        return made;
    }

    private static Measured prepared(SarnikClient client) throws IOException, InterruptedException {
        JsonNode made = feed(client, "Measured");
        long feed = made.get("id").asLong();
        JsonNode said = client.read(client.get("/api/feeds/" + feed));
        JsonNode dashboard = client.json("POST", "/api/dashboards", Map.of("title", "Measured " + feed));
        long id = dashboard.get("id").asLong();
        client.read(client.send(
                "PATCH",
                "/api/dashboards/" + id,
                "application/json-patch+json",
                """
                [{"op":"add","path":"/visuals/v1","value":{"type":"figure","page":"p1","at":{"x":0,"y":0,"w":6,"h":4},"title":"Newest",
                   "dataset":%1$s,"measure":{"summary":"MAXIMUM","column":"sent"}}},
                 {"op":"add","path":"/visuals/v2","value":{"type":"bars","page":"p1","at":{"x":6,"y":0,"w":12,"h":6},"title":"States",
                   "dataset":%1$s,"category":"state","measure":{"summary":"COUNT"}}},
                 {"op":"add","path":"/visuals/v3","value":{"type":"lines","page":"p1","at":{"x":0,"y":6,"w":24,"h":6},"title":"Value",
                   "dataset":%2$s,"time":"time","step":"MINUTE","measures":[{"summary":"AVERAGE","column":"value"}]}}]""".formatted(said.get("devicesDataset"), said.get("readingsDataset")),
                "If-Match",
                "\"" + dashboard.get("revision").asLong() + "\""));
        client.publish(id);
        JsonNode link = client.json(
                "POST",
                "/api/dashboards/" + id + "/links",
                Map.of("name", "Measured " + System.nanoTime(), "opensTo", "ANYONE"));
        return new Measured(
                feed,
                id,
                made.get("token").asString(),
                "/api" + link.get("path").asString());
    }

    /**
     * @param seconds how long devices send
     * @param rate readings a second
     * @param devices how many send
     * @param pages how many watch
     * @param kills how often the application and PostgreSQL are killed each, evenly over the time
     */
    void run(int seconds, int rate, int devices, int pages, int kills) throws Exception {
        report.title("%,d readings a second of %,d devices for %,d s, %d pages watch, %d sudden ends each"
                .formatted(rate, devices, seconds, pages, kills));
        SarnikClient client = analyst();
        Measured measured = prepared(client);
        Sent sent = new Sent(measured, devices);
        Seen seen = new Seen(measured.page, pages);
        Thread ends = new Thread(() -> kill(kills, seconds));
        ends.start();
        List<Double> memory = new ArrayList<>();
        long began = System.nanoTime();
        long next = began + SAMPLES_SECONDS * 1_000_000_000L;
        long messages = (long) seconds * rate / TOGETHER;
        for (long m = 0; m < messages; m++) {
            long due = began + m * TOGETHER * 1_000_000_000L / rate;
            long left = due - System.nanoTime();
            if (left > 0) TimeUnit.NANOSECONDS.sleep(left);
            sent.send();
            if (System.nanoTime() > next && kills == 0) {
                next += SAMPLES_SECONDS * 1_000_000_000L;
                memory.add(Server.held());
            }
        }
        ends.join();
        sent.finish();
        // What was sent last is seen within a page's second.
        TimeUnit.SECONDS.sleep(3);
        seen.close();
        sent.tell();
        if (!memory.isEmpty())
            System.out.printf(
                    Locale.ENGLISH,
                    "%58s held by the application every %d s, MB:%s%n",
                    "",
                    SAMPLES_SECONDS,
                    memory.stream().map(mb -> " %.0f".formatted(mb)).reduce("", String::concat));
        double[] late = seen.late(sent);
        System.out.printf(
                Locale.ENGLISH,
                "%58s %,d looks of %d pages, %d of them in vain; from sent to seen p50 %,.0f ms, p95 %,.0f ms, p99 "
                        + "%,.0f ms%n",
                "",
                seen.looks.get(),
                pages,
                seen.vain.get(),
                at(late, 0.5),
                at(late, 0.95),
                at(late, 0.99));
        if (seconds > 300)
            for (int from = 0; from < seconds; from += 300)
                System.out.printf(
                        Locale.ENGLISH,
                        "%58s sent from %,d s on: p50 %,.0f ms, p95 %,.0f ms%n",
                        "",
                        from,
                        at(seen.late(sent, from, from + 300), 0.5),
                        at(seen.late(sent, from, from + 300), 0.95));
        if (kills == 0) report.time("95 of 100 readings are seen after", at(late, 0.95), "aim", 2000, 1);
        sent.check();
        System.out.printf("%58s every reading that was acknowledged is there, and once%n", "");
        takeAway(measured.dashboard, measured.feed);
    }

    /** What was measured is no part of what is measured next; somebody signs in anew, since it may have taken long. */
    private void takeAway(long dashboard, long feed) throws IOException, InterruptedException {
        SarnikClient client = analyst();
        for (String what : List.of("/api/dashboards/" + dashboard, "/api/feeds/" + feed)) {
            int status = client.send("DELETE", what, "application/json", "").statusCode();
            if (status >= 300) System.out.printf("%58s %s was not taken away: %d%n", "", what, status);
        }
    }

    private void kill(int kills, int seconds) {
        long every = kills == 0 ? 0 : seconds * 1000L / (2 * kills + 1);
        try {
            for (int k = 0; k < 2 * kills; k++) {
                TimeUnit.MILLISECONDS.sleep(every);
                long began = System.nanoTime();
                if (k % 2 == 0) server.killApplication();
                else server.killDatabase();
                System.out.printf(
                        Locale.ENGLISH,
                        "%58s %s ended at once; there again after %,.1f s%n",
                        "",
                        k % 2 == 0 ? "the application" : "PostgreSQL",
                        (System.nanoTime() - began) / 1e9);
            }
        } catch (IOException | InterruptedException failed) {
            throw new IllegalStateException(failed);
        }
    }

    private static double at(double[] sorted, double share) {
        return sorted.length == 0 ? Double.NaN : sorted[Math.min(sorted.length - 1, (int) (sorted.length * share))];
    }

    private HttpRequest.Builder request(String path) {
        return HttpRequest.newBuilder(base.resolve(path)).timeout(PATIENCE);
    }

    // --- what is sent ---------------------------------------------------------------------------------

    /** Messages that are sent again until they are acknowledged. */
    private final class Sent {
        private final Measured to;
        private final int devices;
        private final long began = System.currentTimeMillis();
        private final Semaphore free = new Semaphore(ON_THEIR_WAY);
        private final BitSet acknowledged = new BitSet();
        private final List<Double> times = new ArrayList<>();
        private final AtomicInteger again = new AtomicInteger();
        /** When messages were sent, milliseconds since the beginning. */
        private final List<Long> moments = new ArrayList<>();

        private int number;

        Sent(Measured to, int devices) {
            this.to = to;
            this.devices = devices;
        }

        void send() throws InterruptedException {
            free.acquire();
            long now = System.currentTimeMillis();
            StringBuilder body = new StringBuilder("[");
            int first = number;
            for (int i = 0; i < TOGETHER; i++, number++)
                // Devices come round every few seconds at least, so that each moment of one is one reading.
                body.append(i == 0 ? "" : ",")
                        .append("{\"d\":\"x%d\",\"t\":%d,\"v\":%s,\"n\":%d,\"s\":%d}"
                                .formatted(number % devices, now, number % 100 / 4.0, number, now - began));
            moments.add(now - began);
            HttpRequest request = request("/readings/" + to.feed)
                    .header("Authorization", "Bearer " + to.token)
                    .header("Content-Type", "application/json")
                    .POST(HttpRequest.BodyPublishers.ofString(body.append(']').toString()))
                    .build();
            send(request, first);
        }

        private void send(HttpRequest request, int first) {
            long at = System.nanoTime();
            http.sendAsync(request, HttpResponse.BodyHandlers.ofString()).whenComplete((answer, failed) -> {
                if (failed == null && answer.statusCode() == 200) {
                    synchronized (this) {
                        acknowledged.set(first, first + TOGETHER);
                        times.add((System.nanoTime() - at) / 1e6);
                    }
                    free.release();
                    return;
                }
                if (failed == null && answer.statusCode() != 503 && answer.statusCode() != 429)
                    System.out.println("Answered " + answer.statusCode() + ": " + answer.body());
                again.incrementAndGet();
                CompletableFuture.delayedExecutor(500, TimeUnit.MILLISECONDS).execute(() -> send(request, first));
            });
        }

        void finish() throws InterruptedException {
            free.acquire(ON_THEIR_WAY);
        }

        synchronized void tell() {
            double[] sorted =
                    times.stream().mapToDouble(Double::doubleValue).sorted().toArray();
            System.out.printf(
                    Locale.ENGLISH,
                    "%58s sent %,d, acknowledged %,d, %d messages sent again; acknowledged after p50 %,.0f ms, p95 "
                            + "%,.0f ms%n",
                    "",
                    number,
                    acknowledged.cardinality(),
                    again.get(),
                    at(sorted, 0.5),
                    at(sorted, 0.95));
        }

        /** @throws IllegalStateException where a reading that was acknowledged is not there, or is there twice */
        void check() throws SQLException, InterruptedException {
            BitSet there = new BitSet();
            long rows = 0;
            // What waited on the disk is written within seconds of the database being back.
            for (int look = 0; look < 60; look++) {
                there.clear();
                rows = 0;
                try (Connection connection = server.database();
                        Statement statement = connection.createStatement()) {
                    connection.setAutoCommit(false);
                    statement.setFetchSize(50_000);
                    try (ResultSet found = statement.executeQuery("SELECT c1 FROM live.r" + to.feed)) {
                        for (; found.next(); rows++) there.set((int) found.getDouble(1));
                    }
                }
                BitSet lost = (BitSet) acknowledged.clone();
                lost.andNot(there);
                if (lost.isEmpty() && rows == there.cardinality()) return;
                TimeUnit.SECONDS.sleep(1);
            }
            BitSet lost = (BitSet) acknowledged.clone();
            lost.andNot(there);
            throw new IllegalStateException("%,d acknowledged readings are not there; %,d rows hold %,d readings"
                    .formatted(lost.cardinality(), rows, there.cardinality()));
        }
    }

    // --- what is seen ---------------------------------------------------------------------------------

    /** Pages that are told of changes and ask for what they show each time. */
    private final class Seen {
        private final String page;
        private final ExecutorService pool;
        private final AtomicLong looks = new AtomicLong();
        private final AtomicLong vain = new AtomicLong();
        private volatile boolean isOpen = true;

        /** For each page when it saw which newest moment, both in milliseconds since the epoch and the beginning. */
        private final List<List<long[]>> saw = new ArrayList<>();

        Seen(String page, int pages) {
            this.page = page;
            this.pool = Executors.newFixedThreadPool(Math.max(1, pages), FeedBench::quiet);
            for (int p = 0; p < pages; p++) {
                List<long[]> own = new ArrayList<>();
                saw.add(own);
                String name = "watching-" + p;
                pool.execute(() -> watch(name, own));
            }
        }

        private void watch(String name, List<long[]> own) {
            while (isOpen) {
                try (InputStream events = http.send(
                                HttpRequest.newBuilder(base.resolve(page + "/changes"))
                                        .header("Accept", "text/event-stream")
                                        .build(),
                                HttpResponse.BodyHandlers.ofInputStream())
                        .body()) {
                    look(name, own);
                    byte[] part = new byte[65_536];
                    for (int read = events.read(part); isOpen && read >= 0; read = events.read(part))
                        if (new String(part, 0, read, StandardCharsets.UTF_8).contains("data:")) look(name, own);
                } catch (IOException lost) {
                    pause();
                } catch (InterruptedException closing) {
                    return;
                }
            }
        }

        private static void pause() {
            try {
                TimeUnit.MILLISECONDS.sleep(500);
            } catch (InterruptedException closing) {
                Thread.currentThread().interrupt();
            }
        }

        private void look(String name, List<long[]> own) throws IOException, InterruptedException {
            looks.incrementAndGet();
            HttpResponse<String> answer = http.send(
                    request(page + "/frames")
                            .header("Content-Type", "application/json")
                            .header("Sarnik-Page", name)
                            .POST(HttpRequest.BodyPublishers.ofString(
                                    "{\"state\":\"\",\"ids\":[\"v1\",\"v2\",\"v3\"]}"))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            if (answer.statusCode() != 200) {
                vain.incrementAndGet();
                return;
            }
            JsonNode drawing = JsonMapper.shared().readTree(answer.body()).at("/drawings/v1");
            String text = drawing.path("full").asString(drawing.path("text").asString(""));
            String digits = text.replaceAll("[^0-9]", "");
            if (digits.isEmpty()) return;
            synchronized (own) {
                own.add(new long[] {System.currentTimeMillis(), Long.parseLong(digits)});
            }
        }

        void close() {
            isOpen = false;
            pool.shutdownNow();
        }

        /** For each message and page how long it was until the page showed it, milliseconds, sorted. */
        double[] late(Sent sent) {
            return late(sent, 0, Integer.MAX_VALUE);
        }

        /** The same of what was sent between two moments, seconds from the beginning. */
        double[] late(Sent sent, int from, int until) {
            List<Double> late = new ArrayList<>();
            for (List<long[]> own : saw) {
                int look = 0;
                synchronized (own) {
                    for (long moment : sent.moments) {
                        while (look < own.size() && own.get(look)[1] < moment) look++;
                        if (look < own.size() && moment >= from * 1000L && moment < until * 1000L)
                            late.add((double) (own.get(look)[0] - sent.began - moment));
                    }
                }
            }
            double[] sorted = late.stream().mapToDouble(Double::doubleValue).toArray();
            Arrays.sort(sorted);
            return sorted;
        }
    }

    // --- long times -----------------------------------------------------------------------------------

    /**
     * A year of readings, written straight into the feed's partitions, put together by the application as it does with
     * those that come, and asked for as people ask.
     *
     * @param rows about how many readings
     */
    void year(long rows) throws Exception {
        int days = 365;
        int devices = (int) Math.max(1, rows / days / 1440);
        long each = Math.min(1440, rows / days / devices);
        report.title("%,d readings kept: a year of %,d devices".formatted(each * days * devices, devices));
        SarnikClient client = analyst();
        long feed = feed(client, "A year").get("id").asLong();
        put(client, feed, "settings", kept(1));
        long began = System.nanoTime();
        LocalDate first = LocalDate.now(ZoneOffset.UTC).minusDays(days);
        write(feed, first, days, devices, each);
        System.out.printf(Locale.ENGLISH, "%58s written in %,.0f s%n", "", (System.nanoTime() - began) / 1e9);
        // Read anew, since they came past the application.
        put(client, feed, "settings", kept(2));
        JsonNode part = client.json("POST", "/api/feeds/" + feed + "/parts", Map.of("part", "DAYS"));
        began = System.nanoTime();
        while (number("SELECT coalesce(max(rolled_batch), 0) FROM live_feeds WHERE id = " + feed) == 0
                || number("SELECT count(*) FROM live.d" + feed) == 0) TimeUnit.SECONDS.sleep(1);
        System.out.printf(Locale.ENGLISH, "%58s put together in %,.0f s%n", "", (System.nanoTime() - began) / 1e9);
        Random chance = new Random(4);
        report.time(
                "a day of one device, %,d readings".formatted(each),
                report.median(
                        1,
                        15,
                        () -> day(
                                client,
                                feed,
                                first.plusDays(1 + chance.nextInt(days - 2)),
                                1 + chance.nextInt(devices),
                                each)),
                "aim",
                100,
                1);
        takeAway(yearByDay(client, part.get("dataset").asLong()), feed);
    }

    /** Kept for years, a day at hand. @param trail minutes; another one makes the feed be read anew */
    private static Map<String, Object> kept(int trail) {
        return Map.of(
                "settings",
                Map.of(
                        "keepDays",
                        3650,
                        "windowHours",
                        24,
                        "silentSeconds",
                        0,
                        "trailMinutes",
                        trail,
                        "strangers",
                        true,
                        "thresholds",
                        List.of()));
    }

    private long number(String sql) throws SQLException {
        try (Connection connection = server.database();
                Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery(sql)) {
            return found.next() ? found.getLong(1) : 0;
        }
    }

    private void write(long feed, LocalDate first, int days, int devices, long each) throws SQLException {
        try (Connection connection = server.database();
                Statement statement = connection.createStatement()) {
            statement.execute(
                    "INSERT INTO live_devices (feed, number, code) SELECT %d, d, 'y' || d FROM generate_series(1, %d) d"
                            .formatted(feed, devices));
            for (int d = 0; d < days; d++) {
                LocalDate day = first.plusDays(d);
                String name = "live.r%d_%s".formatted(feed, day.toString().replace("-", ""));
                statement.execute(
                        "CREATE TABLE IF NOT EXISTS %s PARTITION OF live.r%d FOR VALUES FROM ('%s 00:00+00') TO ('%s 00:00+00')"
                                .formatted(name, feed, day, day.plusDays(1)));
                statement.execute("""
                        INSERT INTO %s (device, at, batch, c0, c1, c2)
                        SELECT d, timestamptz '%s 00:00+00' + interval '1 second' * (m * %s), (SELECT nextval('live_batches')),
                          (d * 31 + m * 7) %% 100 / 4.0, m, 0
                        FROM generate_series(0, %d) m, generate_series(1, %d) d""".formatted(name, day, 86_400.0 / each, each - 1, devices));
            }
            statement.execute("ANALYZE live.r" + feed);
        }
    }

    /** A day of one device, as a program that reads SensorThings asks for it. */
    private void day(SarnikClient client, long feed, LocalDate day, int device, long each)
            throws IOException, InterruptedException {
        String filter = URLEncoder.encode(
                "phenomenonTime ge %sT00:00:00Z and phenomenonTime lt %sT00:00:00Z".formatted(day, day.plusDays(1)),
                StandardCharsets.UTF_8);
        JsonNode said =
                client.read(client.get("/api/sensorthings/v1.1/Datastreams('%d.%d.0')/Observations?$top=1000&$filter=%s"
                        .formatted(feed, device, filter.replace("+", "%20"))));
        if (said.get("value").size() != Math.min(1000, each))
            throw new IllegalStateException("A day has " + said.get("value").size() + " readings");
    }

    private long yearByDay(SarnikClient client, long dataset) throws Exception {
        JsonNode dashboard = client.json("POST", "/api/dashboards", Map.of("title", "A year " + dataset));
        long id = dashboard.get("id").asLong();
        client.read(client.send(
                "PATCH",
                "/api/dashboards/" + id,
                "application/json-patch+json",
                """
                [{"op":"add","path":"/visuals/v1","value":{"type":"lines","page":"p1","at":{"x":0,"y":0,"w":24,"h":8},"title":"A year",
                   "dataset":%d,"time":"time","step":"DAY","measures":[{"summary":"SUM","column":"readings"}]}}]""".formatted(dataset),
                "If-Match",
                "\"" + dashboard.get("revision").asLong() + "\""));
        List<Double> first = new ArrayList<>();
        double all = report.median(1, 15, () -> {
            long began = System.nanoTime();
            JsonNode drawn = client.json("POST", "/api/dashboards/" + id + "/frames", Map.of("state", ""));
            first.add((System.nanoTime() - began) / 1e6);
            if (!drawn.at("/drawings/v1").toString().contains("lines")
                    && drawn.at("/drawings/v1").isMissingNode()) throw new IllegalStateException("Nothing is drawn");
        });
        report.time("a year of all devices by day, asked first", first.get(0), "aim", 500, 1);
        report.time("a year of all devices by day, asked again", all, "aim", 500, 1);
        return id;
    }

    /** Few and short, so that the measurement cannot rot. */
    void briefly() throws Exception {
        // More devices than readings in a message, so that each moment of one is one reading.
        run(6, 400, 1000, 2, 1);
    }
}
