package sarnik.bench;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.Duration;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import sarnik.demo.SarnikClient;
import sarnik.demo.SarnikDevice;
import tools.jackson.databind.JsonNode;

/** People and devices that work while something ends suddenly; each knows what was acknowledged, and looks for it. */
final class Hands {

    private static final Duration LONGEST_WAIT = Duration.ofSeconds(60);
    private static final int ROWS_BROUGHT = 400;
    private static final long PAUSE_MILLIS = 200;
    private static final int EDITIONS_KEPT = 40;
    private static final Pattern WAITS = Pattern.compile("data-let-go=\"([0-9a-f-]{36})\"");

    private final String base;
    private final Server server;
    private final List<Hand> all = new ArrayList<>();
    private volatile boolean isRunning = true;
    private volatile long pauseMillis;
    private SarnikClient looker;

    /** @param base where they send what they do */
    Hands(String base, Server server) {
        this.base = base;
        this.server = server;
    }

    /**
     * Begins the work of four people.
     *
     * @param withDevices whether devices and a reader work as well; all then pause between steps, as people do, so that
     *     an instance comes up beside them
     */
    void begin(boolean withDevices) throws Exception {
        pauseMillis = withDevices ? PAUSE_MILLIS : 0;
        SarnikClient ana = new SarnikClient(base);
        ana.signIn("ana", "aljibe-ana1");
        letGo(ana);
        all.addAll(List.of(new Editor(), new Publisher(), new Bringer(), new Refresher()));
        if (withDevices) all.addAll(List.of(new Sender(), new Looker()));
        // All have begun before one lets go what waits of the person that they all are.
        for (Hand hand : all) hand.begin();
        for (Hand hand : all) {
            Thread thread = new Thread(hand);
            thread.setDaemon(true);
            thread.start();
        }
    }

    /** @throws IllegalStateException where something that was acknowledged is not there, or half a thing is */
    void check() throws Exception {
        for (Hand hand : all) hand.check();
    }

    /** What was sent and could not be gone on with waits on, also when what took it has ended. */
    private static void letGo(SarnikClient client) throws IOException, InterruptedException {
        Matcher waits = WAITS.matcher(client.get("/bring").body());
        while (waits.find()) client.send("DELETE", "/api/bring/" + waits.group(1), "application/json", "");
    }

    /** How much was acknowledged, in words. */
    String said() {
        return all.stream().map(Hand::said).reduce((a, b) -> a + ", " + b).orElse("");
    }

    /** Ends the work and takes away what it has made. */
    void end() throws Exception {
        isRunning = false;
        for (Hand hand : all) hand.tidy();
    }

    /** Somebody who does the same over and over; what was acknowledged is noted. */
    private abstract class Hand implements Runnable {
        SarnikClient client;
        /** The number of the last step that was acknowledged. */
        volatile long acknowledged;
        /** How many steps were acknowledged. */
        volatile long done;
        /** The number of the step that is on its way. */
        volatile long step;

        abstract void begin() throws Exception;

        /** Does a step once. @return whether it was acknowledged */
        abstract boolean once(long number) throws Exception;

        /** @throws IllegalStateException where something that was acknowledged is not there, or half a thing is */
        abstract void check() throws Exception;

        abstract String said();

        void tidy() throws Exception {}

        SarnikClient signedIn() throws IOException, InterruptedException {
            while (true) {
                try {
                    SarnikClient made = new SarnikClient(base);
                    if (made.signIn("ana", "aljibe-ana1")) return made;
                } catch (IOException away) {
                    // It is there again soon.
                }
                TimeUnit.MILLISECONDS.sleep(200);
            }
        }

        /** Whoever looks whether all is there: signed in once, since a session outlasts every end. */
        SarnikClient looks() throws IOException, InterruptedException {
            synchronized (Hands.this) {
                if (looker == null || !isSignedIn(looker)) looker = signedIn();
                return looker;
            }
        }

        private static boolean isSignedIn(SarnikClient client) throws IOException, InterruptedException {
            return client.get("/me").uri().getPath().equals("/me");
        }

        @Override
        public void run() {
            boolean hasFailed = true;
            while (isRunning) {
                try {
                    if (hasFailed) {
                        if (client == null || !isSignedIn(client)) client = signedIn();
                        letGo(client);
                        hasFailed = false;
                    }
                    step++;
                    if (once(step)) {
                        acknowledged = step;
                        done++;
                    }
                    TimeUnit.MILLISECONDS.sleep(pauseMillis);
                } catch (IOException | RuntimeException away) {
                    // Whether it was done is not known; that is what is looked at.
                    if (!isRunning || !rest()) return;
                    hasFailed = true;
                } catch (Exception ending) {
                    return;
                }
            }
        }

        /** Whoever is not answered asks again after a while, so that what starts has the machine. */
        private static boolean rest() {
            try {
                TimeUnit.MILLISECONDS.sleep(PAUSE_MILLIS);
                return true;
            } catch (InterruptedException ending) {
                return false;
            }
        }

        void mustBe(boolean is, String words) {
            if (!is) throw new IllegalStateException(getClass().getSimpleName() + ": " + words);
        }
    }

    private long newDashboard(String title) throws IOException, InterruptedException {
        SarnikClient made = new SarnikClient(base);
        made.signIn("ana", "aljibe-ana1");
        return made.json("POST", "/api/dashboards", Map.of("title", title))
                .get("id")
                .asLong();
    }

    private long number(String sql) throws SQLException {
        try (Connection connection = server.database();
                Statement statement = connection.createStatement();
                ResultSet found = statement.executeQuery(sql)) {
            return found.next() ? found.getLong(1) : -1;
        }
    }

    /** Writes the number of the step into a title, by a patch on the revision that stands. */
    private class Editor extends Hand {
        long dashboard;

        @Override
        void begin() throws Exception {
            dashboard = newDashboard("0");
        }

        @Override
        boolean once(long number) throws Exception {
            return edited(number) == 200;
        }

        int edited(long number) throws Exception {
            JsonNode now = client.read(client.get("/api/dashboards/" + dashboard));
            return client.send(
                            "PATCH",
                            "/api/dashboards/" + dashboard,
                            "application/json-patch+json",
                            "[{\"op\":\"replace\",\"path\":\"/title\",\"value\":\"%d\"}]".formatted(number),
                            "If-Match",
                            "\"" + now.get("revision").asLong() + "\"")
                    .statusCode();
        }

        @Override
        void check() throws Exception {
            long known = acknowledged;
            long at = Long.parseLong(looks().json("GET", "/api/dashboards/" + dashboard, null)
                    .at("/document/title")
                    .asString());
            mustBe(
                    at >= known && at <= step,
                    "the title says %d, acknowledged was %d of %d".formatted(at, known, step));
        }

        @Override
        String said() {
            return "%,d edits".formatted(done);
        }

        @Override
        void tidy() throws Exception {
            looks().send("DELETE", "/api/dashboards/" + dashboard, "application/json", "");
        }
    }

    /** Edits and publishes: an edition has to say what was said before it. */
    private final class Publisher extends Editor {
        @Override
        boolean once(long number) throws Exception {
            if (edited(number) != 200) return false;
            client.publish(dashboard);
            if (number % EDITIONS_KEPT == 0) takeOldOnesAway();
            return true;
        }

        /** A dashboard keeps 200 editions at most, and then asks to take old ones away. */
        private void takeOldOnesAway() throws Exception {
            String editions = "/api/dashboards/" + dashboard + "/editions";
            JsonNode kept = client.read(client.get(editions)).get("editions");
            for (int i = EDITIONS_KEPT; i < kept.size(); i++)
                client.send("DELETE", editions + "/" + kept.get(i).get("number").asLong(), "application/json", "");
        }

        @Override
        void check() throws Exception {
            long known = acknowledged;
            long at = number("""
                    SELECT coalesce(max((document::jsonb ->> 'title')::bigint), 0) FROM editions WHERE dashboard_id = %d""".formatted(dashboard));
            mustBe(
                    at >= known && at <= step,
                    "the edition says %d, acknowledged was %d of %d".formatted(at, known, step));
        }

        @Override
        String said() {
            return "%,d editions".formatted(done);
        }
    }

    /** Brings tables in: each that was kept has all its rows, and none has some of them. */
    private final class Bringer extends Hand {
        private final List<Long> kept = new ArrayList<>();
        private Path file;

        @Override
        void begin() throws Exception {
            file = Files.createTempFile("sarnik-ends", ".csv");
            StringBuilder rows = new StringBuilder("town,country,litres\n");
            for (int r = 0; r < ROWS_BROUGHT; r++)
                rows.append("Soria,Spain,").append(r).append('\n');
            Files.writeString(file, rows);
        }

        @Override
        boolean once(long number) throws Exception {
            long id = client.bring(file, "Sudden end " + number);
            synchronized (kept) {
                kept.add(id);
            }
            return true;
        }

        @Override
        void check() throws Exception {
            List<Long> known;
            synchronized (kept) {
                known = List.copyOf(kept);
            }
            for (long id : known.subList(Math.max(0, known.size() - 5), known.size())) {
                long there = rows(id);
                mustBe(there == ROWS_BROUGHT, "dataset %d has %d rows".formatted(id, there));
            }
            long half = number("""
                    SELECT count(*) FROM datasets d LEFT JOIN dataset_served s ON s.dataset_id = d.id
                      LEFT JOIN dataset_versions v ON v.id = s.version_id
                    WHERE d.name LIKE 'Sudden end %' AND (v.id IS NULL OR v.row_count <> """ + ROWS_BROUGHT + ")");
            mustBe(half == 0, half + " datasets are half there");
            // What was checked is taken away, so that the last check is as quick as the first.
            synchronized (kept) {
                if (kept.size() < 60) return;
            }
            tidy();
        }

        private long rows(long id) throws Exception {
            long began = System.nanoTime();
            while (true) {
                HttpResponse<String> answer = looks().get("/datasets/" + id + "/rows.csv");
                if (answer.statusCode() == 200) return answer.body().lines().count() - 1;
                // Somebody who is told to wait waits; what is never answered is not there.
                mustBe(
                        answer.statusCode() >= 500 && System.nanoTime() - began < LONGEST_WAIT.toNanos(),
                        "dataset %d is answered with %d: %s".formatted(id, answer.statusCode(), answer.body()));
                TimeUnit.MILLISECONDS.sleep(200);
            }
        }

        @Override
        void tidy() throws Exception {
            List<Long> known;
            synchronized (kept) {
                known = List.copyOf(kept);
                kept.clear();
            }
            SarnikClient by = looks();
            for (long id : known) by.send("DELETE", "/api/datasets/" + id, "application/json", "");
        }

        @Override
        String said() {
            return "%,d tables".formatted(done);
        }
    }

    /** Puts the number of the step below the rows of a dataset: each that was acknowledged is there once. */
    private final class Refresher extends Hand {
        private long dataset;
        private final List<Long> put = new ArrayList<>();

        @Override
        void begin() throws Exception {
            Path first = Files.createTempFile("sarnik-ends", ".csv");
            Files.writeString(first, "town,country,step\nSoria,Spain,0\n");
            dataset = looks().bring(first, "Sudden ends, refreshed");
        }

        @Override
        boolean once(long number) throws Exception {
            Path newer = Files.createTempFile("sarnik-ends", ".csv");
            try {
                Files.writeString(newer, "town,country,step\nSoria,Spain," + number + "\n");
                JsonNode taken = client.read(client.upload(newer, "newer.csv", "?dataset=" + dataset));
                int status = client.send(
                                "POST",
                                "/api/bring/" + taken.get("id").asString() + "/serve?append=true",
                                "application/json",
                                "")
                        .statusCode();
                if (status != 200) return false;
                synchronized (put) {
                    put.add(number);
                }
                return true;
            } finally {
                Files.deleteIfExists(newer);
            }
        }

        @Override
        void check() throws Exception {
            List<Long> known;
            synchronized (put) {
                known = List.copyOf(put);
            }
            String rows = looks().get("/datasets/" + dataset + "/rows.csv").body();
            List<Long> there = rows.lines()
                    .skip(1)
                    .map(line -> line.replaceAll("^.*Spain,(\\d+).*$", "$1"))
                    .filter(text -> text.matches("\\d+"))
                    .map(Long::parseLong)
                    .toList();
            mustBe(there.stream().distinct().count() == there.size(), "a step is there twice");
            mustBe(there.containsAll(known), "an acknowledged step is not there");
        }

        @Override
        String said() {
            return "%,d refreshes".formatted(put.size());
        }

        @Override
        void tidy() throws Exception {
            looks().send("DELETE", "/api/datasets/" + dataset, "application/json", "");
        }
    }

    /** Sends readings one by one: each that was acknowledged is there, and once. */
    private final class Sender extends Hand {

        private final SarnikDevice device = new SarnikDevice(base);
        private final BitSet taken = new BitSet();
        private long feed;
        private String token;

        @Override
        void begin() throws Exception {
            JsonNode made = FeedBench.feed(looks(), "Sudden ends");
            feed = made.get("id").asLong();
            token = made.get("token").asString();
        }

        @Override
        boolean once(long number) throws Exception {
            String body = "{\"d\": \"d1\", \"t\": %d, \"v\": 1, \"n\": %d, \"s\": 0}"
                    .formatted(System.currentTimeMillis() - 1, number);
            int status = device.send(feed, token, body).statusCode();
            // No two of a device at one moment: they would be one reading.
            TimeUnit.MILLISECONDS.sleep(2);
            if (status != 200) return false;
            synchronized (taken) {
                taken.set((int) number);
            }
            return true;
        }

        @Override
        void check() throws Exception {
            BitSet known;
            synchronized (taken) {
                known = (BitSet) taken.clone();
            }
            BitSet there = new BitSet();
            long rows = 0;
            try (Connection connection = server.database();
                    Statement statement = connection.createStatement();
                    ResultSet found = statement.executeQuery("SELECT c1 FROM live.r" + feed)) {
                for (; found.next(); rows++) there.set((int) found.getDouble(1));
            }
            mustBe(rows == there.cardinality(), "%d rows hold %d readings".formatted(rows, there.cardinality()));
            known.andNot(there);
            mustBe(known.isEmpty(), known.cardinality() + " acknowledged readings are not there");
        }

        @Override
        String said() {
            return "%,d readings".formatted(taken.cardinality());
        }

        @Override
        void tidy() throws Exception {
            looks().send("DELETE", "/api/feeds/" + feed, "application/json", "");
        }
    }

    /** Turns a page this way and that: whoever answers says the same. */
    private final class Looker extends Hand {

        private static final String DASHBOARD = "/api/dashboards/1/frames";
        private static final List<String> STATES = List.of("", "f.f1=still", "f.f1=warm");

        private final Map<String, JsonNode> answers = new ConcurrentHashMap<>();
        /** How an answer was another than that of before; null where all were the same. */
        private volatile String other;

        @Override
        void begin() {}

        @Override
        boolean once(long number) throws Exception {
            String state = STATES.get((int) (number % STATES.size()));
            JsonNode frames = client.json("POST", DASHBOARD, Map.of("state", state));
            if (!frames.get("misfits").isEmpty()) other = "the state does not fit: " + frames.get("misfits");
            // An instance that has just been started says so where its rows are still on their way.
            if (frames.get("coming").asBoolean()) return false;
            JsonNode drawn = frames.get("drawings");
            JsonNode known = answers.putIfAbsent(state, drawn);
            if (known != null && !known.equals(drawn)) other = difference("", known, drawn);
            return true;
        }

        @Override
        void check() {
            mustBe(other == null, "an answer was not that of before: " + other);
        }

        /** Where two answers part first. */
        private static String difference(String at, JsonNode before, JsonNode now) {
            if (before.isObject() && now.isObject() && before.propertyNames().equals(now.propertyNames())) {
                for (String name : before.propertyNames())
                    if (!before.get(name).equals(now.get(name)))
                        return difference(at + "/" + name, before.get(name), now.get(name));
            } else if (before.isArray() && now.isArray() && before.size() == now.size()) {
                for (int i = 0; i < before.size(); i++)
                    if (!before.get(i).equals(now.get(i))) return difference(at + "/" + i, before.get(i), now.get(i));
            }
            return "%s was %.300s and is %.300s".formatted(at, before, now);
        }

        @Override
        String said() {
            return "%,d pages".formatted(done);
        }
    }
}
