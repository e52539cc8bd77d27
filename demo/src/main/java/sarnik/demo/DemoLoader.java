package sarnik.demo;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Brings the demo network into a running, empty Sarnik through the same interfaces as a user's browser. */
public final class DemoLoader {

    private final SarnikClient client;
    private final Path directory;

    private static final int MOST_PACKED = 1_500_000;

    /** How many refills there are. */
    private int rows;

    /** Where the refills stay; null where they are brought in. */
    private String refillsAt;

    private long probes;

    /**
     * @param client signed in as an author
     * @param directory where the files are written
     */
    public DemoLoader(SarnikClient client, Path directory) {
        this.client = client;
        this.directory = directory;
    }

    /**
     * Usage: {@code DemoLoader ADDRESS SIGN-IN PASSWORD DIRECTORY [ROWS [PORT-OF-STAND-INS STEWARDS-PASSWORD]]}. Says
     * what it does, a line a step.
     */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        SarnikClient client = new SarnikClient(arguments[0]);
        if (!client.signIn(arguments[1], arguments[2])) {
            System.err.println("The demo data cannot be loaded: “" + arguments[1]
                    + "” cannot sign in. './sarnik reset' starts afresh.");
            System.exit(1);
        }
        int rows =
                arguments.length > 4 && !arguments[4].isEmpty() ? Integer.parseInt(arguments[4]) : Refills.SHIPPED_ROWS;
        DemoLoader loader = new DemoLoader(client, Path.of(arguments[3]));
        if (arguments.length > 7 && !arguments[7].isEmpty()) {
            SarnikClient steward = new SarnikClient(arguments[0]);
            steward.signIn("marta", arguments[6]);
            loader.outlets(steward, arguments[7].split(" "));
        }
        loader.load(rows);
        if (arguments.length > 6) {
            // The stand-in listens on this machine, which only a steward can allow.
            SarnikClient steward = new SarnikClient(arguments[0]);
            steward.signIn("marta", arguments[6]);
            int standins = Integer.parseInt(arguments[5]);
            // A web of made-up services, and their broker.
            for (int port : new int[] {standins, standins + 1})
                steward.send("POST", "/hosts", "application/x-www-form-urlencoded", "host=127.0.0.1%3A" + port);
            say("  adding aerial pictures and roads, made up, as grounds");
            addGround(steward, "Aerial pictures", 16, "http://127.0.0.1:" + arguments[5] + "/aerial/{z}/{x}/{y}.png");
            addGround(steward, "Roads", 16, "http://127.0.0.1:" + arguments[5] + "/roads/{z}/{x}/{y}.mvt");
            addGround(
                    steward,
                    "Rain in a year",
                    12,
                    "http://127.0.0.1:" + arguments[5]
                            + "/wms?SERVICE=WMS&VERSION=1.3.0&REQUEST=GetMap&LAYERS=rain&STYLES=&CRS=EPSG:3857&BBOX={bbox}"
                            + "&WIDTH=256&HEIGHT=256&FORMAT=image/png&TRANSPARENT=TRUE");
            loader.stock("http://127.0.0.1:" + arguments[5] + "/stock.csv");
            loader.feeds(arguments[0], standins);
            loader.moreThanChance();
            loader.handOver("http://127.0.0.1:" + arguments[5]);
        }
    }

    /**
     * Lets the refills stay in a database.
     *
     * @param said what it is, its port, its catalogue, its user, its password or - for none, and the table
     */
    private void outlets(SarnikClient steward, String[] said) throws IOException, InterruptedException {
        Map<String, String> form = new LinkedHashMap<>(Map.of(
                "name", "Outlets",
                "kind", said[0],
                "host", "127.0.0.1",
                "port", said[1],
                "catalog", said[2],
                "username", said[3]));
        if (!said[4].equals("-")) form.put("password", said[4]);
        steward.send(
                "POST",
                "/databases",
                "application/x-www-form-urlencoded",
                form.entrySet().stream()
                        .map(e -> e.getKey() + "=" + URLEncoder.encode(e.getValue(), StandardCharsets.UTF_8))
                        .collect(Collectors.joining("&")));
        refillsAt = "stays:Outlets/" + said[5];
    }

    /** The refills, brought in or left where they are. */
    private long refills(DemoNetwork network, int rows, long kiosks) throws IOException, InterruptedException {
        if (refillsAt == null) {
            say("  writing %,d refills and bringing them in", rows);
            DemoFiles.refills(network, rows, directory.resolve("refills.csv"));
            return client.bring(directory.resolve("refills.csv"), "Refills");
        }
        say("  leaving the refills in their database");
        String id = client.read(client.untilRead(client.send(
                        "POST",
                        "/api/bring/address",
                        "application/json",
                        JsonMapper.shared().writeValueAsString(Map.of("address", refillsAt)))))
                .get("id")
                .asString();
        return Long.parseLong(client.json(
                        "POST",
                        "/api/bring/" + id + "/keep",
                        Map.of(
                                "name",
                                "Refills",
                                "placing",
                                Map.of("type", "tie", "column", "kiosk", "dataset", kiosks, "equals", "code")))
                .get("id")
                .asString());
    }

    private static void addGround(SarnikClient steward, String name, int nearest, String address)
            throws IOException, InterruptedException {
        steward.send(
                "POST",
                "/grounds",
                "application/x-www-form-urlencoded",
                "name=" + URLEncoder.encode(name, StandardCharsets.UTF_8) + "&credit="
                        + URLEncoder.encode(name + " made up for Sarnik", StandardCharsets.UTF_8) + "&nearest="
                        + nearest + "&address=" + URLEncoder.encode(address, StandardCharsets.UTF_8));
    }

    /**
     * @return the dashboard's id
     */
    public long load(int refills) throws IOException, InterruptedException {
        rows = refills;
        Files.createDirectories(directory);
        DemoNetwork network = DemoNetwork.shipped();
        say("  bringing the kiosks in");
        DemoFiles.kiosks(network, directory.resolve("kiosks.csv"));
        long kiosks = client.bring(directory.resolve("kiosks.csv"), "Kiosks");
        long sales = refills(network, refills, kiosks);
        calculate(
                sales, List.of(formula("takings per litre", "SUM(takings) / NULLIF(SUM(litres), 0)", true)), List.of());
        client.read(client.describe(
                sales,
                "about",
                Map.of(
                        "title",
                        "Refills of the Aljibe network (made up)",
                        "source",
                        "Aljibe",
                        "licence",
                        "CC0",
                        "period",
                        "June 2024 to May 2026",
                        "columns",
                        Map.of(
                                "litres",
                                Map.of("unit", "L", "description", "water drawn at one refill"),
                                "takings",
                                Map.of("unit", "€", "description", "paid at the tap")))));
        say("  composing “Where do refills sell?”");
        long first = compose("Where do refills sell?", "where-do-refills-sell.json", Map.of("REFILLS", sales));
        others(network, kiosks, sales);
        return first;
    }

    private long complaints;

    /** The network's other tables, in their other formats. */
    private void others(DemoNetwork network, long kiosks, long sales) throws IOException, InterruptedException {
        say("  bringing complaints, probes, cartridges, service rounds and field visits in");
        DemoTables tables = new DemoTables(network);
        Path complaints = directory.resolve("complaints.csv");
        tables.complaints(complaints);
        long cases = client.bring(
                complaints,
                "Stomach complaints",
                Map.of(
                        "shaping",
                        Map.of(
                                "missing",
                                List.of("-", "n/a"),
                                "names",
                                Map.of(
                                        "provincia",
                                        "province",
                                        "semana",
                                        "week",
                                        "casos",
                                        "cases",
                                        "personas",
                                        "people",
                                        "por 10.000",
                                        "per 10,000 in the file"))),
                Map.of("type", "area", "column", "province", "set", "Provinces of Spain"));
        calculate(
                cases,
                List.of(formula(
                        "complaints per 10,000 people",
                        "SUM(cases) * 10000.0 / NULLIF(SUM(people) FILTER (WHERE cases IS NOT NULL), 0)",
                        true)),
                List.of());
        say("  composing “Complaints per 10,000 people”");
        compose("Complaints per 10,000 people", "complaints.json", Map.of("COMPLAINTS", cases));
        this.complaints = cases;
        tables.probes(directory.resolve("probes.geojson"));
        probes = client.bring(directory.resolve("probes.geojson"), "Probes");
        tables.cartridges(directory.resolve("cartridges.xlsx"));
        long cartridges = client.bring(directory.resolve("cartridges.xlsx"), "Cartridges");
        tables.rounds(directory.resolve("service-rounds.csv"));
        long rounds = client.bring(directory.resolve("service-rounds.csv"), "Service rounds");
        tables.visits(directory.resolve("field-visits.ndjson"));
        long visits = client.bring(directory.resolve("field-visits.ndjson"), "Field visits");
        calculate(
                visits,
                List.of(formula("share clean", "COUNT(*) FILTER (WHERE clean) * 100.0 / COUNT(*)", true)),
                List.of("state = 'final'"));
        say("  composing maps of flows, paths, densities, municipalities and two maps that move together");
        compose("From depot to tap", "depot-to-tap.json", Map.of("CARTRIDGES", cartridges));
        compose("A day on the road", "day-on-the-road.json", Map.of("ROUNDS", rounds));
        compose("Where is the money taken?", "takings.json", Map.of("REFILLS", sales, "KIOSKS", kiosks));
        client.json(
                "PUT",
                "/api/keys/Litres per km²".replace(" ", "%20").replace("²", "%C2%B2"),
                Map.of(
                        "words",
                        "sum of litres, L per km²",
                        "colour",
                        Map.of(
                                "measure",
                                Map.of("summary", "SUM", "column", "litres"),
                                "per",
                                "km2",
                                "palette",
                                "loch",
                                "breaks",
                                List.of(1, 2, 5, 10),
                                "low",
                                0,
                                "high",
                                40)));
        compose("Does warm weather sell water?", "warm-weather.json", Map.of("REFILLS", sales));
        compose("Visits, clean and not clean", "visits.json", Map.of("VISITS", visits));
        say("  bringing suppliers in forty countries in, and composing “Who supplies us?”");
        Suppliers.write(directory.resolve("suppliers.csv"));
        long suppliers = client.bring(directory.resolve("suppliers.csv"), "Suppliers");
        calculate(suppliers, List.of(formula("first since", "MIN(since)", true)), List.of());
        compose("Who supplies us?", "who-supplies-us.json", Map.of("SUPPLIERS", suppliers));
        say("  composing what the other kinds of visual show");
        compose("Who drinks most, who least, and when?", "top-and-bottom.json", Map.of("REFILLS", sales));
        compose("Do many refills bring much money?", "takings-against-visits.json", Map.of("REFILLS", sales));
        compose("What did the visits find?", "visits-one-by-one.json", Map.of("VISITS", visits, "KIOSKS", kiosks));
        compose("When are the vans at work?", "when-on-the-road.json", Map.of("ROUNDS", rounds));
        compose("What if a litre cost more?", "what-if.json", Map.of("REFILLS", sales));
        say("  tying the days of refills to the weeks of complaints, and composing a page of four datasets");
        client.read(client.describe(
                sales, "ties", List.of(Map.of("column", "day", "dataset", cases, "equals", "week", "step", "WEEK"))));
        compose(
                "Does the water keep people well?",
                "water-and-health.json",
                Map.of("REFILLS", sales, "KIOSKS", kiosks, "VISITS", visits, "COMPLAINTS", cases));
    }

    private static Map<String, Object> formula(String name, String text, boolean measure) {
        return Map.of("name", name, "text", text, "measure", measure);
    }

    private void calculate(long dataset, List<Map<String, Object>> formulas, List<String> rules)
            throws IOException, InterruptedException {
        client.read(client.describe(dataset, "calculations", Map.of("formulas", formulas, "rules", rules)));
    }

    /** The depots' stock, which a stand-in serves at an address and which changes every few seconds. */
    private long stock;

    private void stock(String address) throws IOException, InterruptedException {
        say("  bringing the depots' stock in from %s", address);
        Path file = directory.resolve("stock.csv");
        Files.writeString(
                file, "depot,town,province,country,cartridges,on the way,counted\nDP-01,Soria,Soria,Spain,0,0,0\n");
        stock = client.bring(file, "Depots' stock");
        client.read(client.describe(stock, "feed", Map.of("address", address, "seconds", 10, "append", false)));
        client.json("POST", "/api/datasets/" + stock + "/feed", Map.of());
    }

    /**
     * Shows a dashboard by a link to anyone, one within a page of another site, and one on a wall. Where they are
     * stands in a file beside the demo's others.
     */
    /** Feeds of the network's devices, and where its gateway learns to which addresses it sends. */
    private void feeds(String base, int standins) throws IOException, InterruptedException {
        say("  making feeds of probes and vans, and composing “Probe watch” and “Vans today”");
        Feed water = feed("Probes now", """
                {"readings": "", "device": "/probe", "time": "/time", "form": "ISO", "fields": [
                  {"at": "/water/temperature_c", "name": "temperature", "type": "DECIMAL", "unit": "°C"},
                  {"at": "/water/turbidity_ntu", "name": "turbidity", "type": "DECIMAL", "unit": "NTU"},
                  {"at": "/water/chlorine_mgl", "name": "chlorine", "type": "DECIMAL", "unit": "mg/l"},
                  {"at": "/battery_pct", "name": "battery", "type": "DECIMAL", "unit": "%"}]}""", """
                {"settings": {"keepDays": 90, "windowHours": 12, "silentSeconds": 60, "trailMinutes": 30, "strangers": true,
                  "devices": {"dataset": %d, "code": "probe", "kind": "model"},
                  "notices": {"states": ["BAD"], "well": true, "mails": ["water@aljibe.example"], "hook": "http://127.0.0.1:%d/hook",
                    "quietFrom": "23:00", "quietUntil": "05:30", "zone": "Europe/Madrid", "link": "%s/dashboards/15"},
                  "thresholds": [
                    {"column": "turbidity", "side": "ABOVE", "watch": 1, "bad": 4, "back": 0.2, "seconds": 20},
                    {"column": "chlorine", "side": "BELOW", "watch": 0.2, "bad": 0.1, "back": 0.02, "seconds": 60},
                    {"column": "battery", "side": "BELOW", "watch": 20, "bad": 5, "back": 2, "seconds": 0}]}}""".formatted(probes, standins, base));
        Feed vans = feed("Vans now", """
                {"readings": "", "device": "/van", "time": "/t", "form": "SECONDS", "lon": "/pos/lon", "lat": "/pos/lat",
                  "fields": [{"at": "/speed_kmh", "name": "speed", "type": "DECIMAL", "unit": "km/h"}]}""", """
                {"settings": {"keepDays": 30, "windowHours": 12, "silentSeconds": 60, "trailMinutes": 60, "strangers": true,
                  "stays": {"metres": 100, "minutes": 3, "places": %d, "name": "depot", "within": 1500},
                  "thresholds": []}}""".formatted(stock));
        String broker = "tcp://127.0.0.1:" + (standins + 1);
        String from = "{\"broker\": {\"address\": \"%s\", \"version\": \"5\", \"topics\": [\"aljibe/probes/+\"]}}"
                .formatted(broker);
        String below = "/api/feeds/" + water.id;
        client.read(client.send("PUT", below + "/broker", "application/json", from, "If-Match", revision(below)));
        compose(
                "Probe watch",
                "probe-watch.json",
                Map.of(
                        "PROBES",
                        water.devices,
                        "READINGS",
                        water.readings,
                        "STATES",
                        part(water, "TURNS"),
                        "HOURS",
                        part(water, "HOURS")));
        compose(
                "Vans today",
                "vans-today.json",
                Map.of(
                        "VANS",
                        vans.devices,
                        "READINGS",
                        vans.readings,
                        "MINUTES",
                        part(vans, "MINUTES"),
                        "STAYS",
                        part(vans, "STAYS")));
        Files.writeString(
                directory.resolveSibling("gateway.properties"), """
                probes=%s
                vans=%s/readings/%d
                vans.token=%s
                """.formatted(broker, base, vans.id, vans.token));
    }

    /** A feed and the datasets that it is shown as. */
    private record Feed(long id, String token, long devices, long readings) {}

    private Feed feed(String name, String shape, String settings) throws IOException, InterruptedException {
        JsonNode made = client.json("POST", "/api/feeds", Map.of("name", name));
        String below = "/api/feeds/" + made.get("id").asLong();
        client.read(client.send("PUT", below + "/shape", "application/json", shape, "If-Match", revision(below)));
        client.read(client.send("PUT", below + "/settings", "application/json", settings, "If-Match", revision(below)));
        JsonNode now = client.read(client.get(below));
        return new Feed(
                made.get("id").asLong(),
                made.get("token").asString(),
                now.get("devicesDataset").asLong(),
                now.get("readingsDataset").asLong());
    }

    /** One more dataset that a feed is shown as. */
    private long part(Feed feed, String part) throws IOException, InterruptedException {
        return client.json("POST", "/api/feeds/" + feed.id + "/parts", Map.of("part", part))
                .get("dataset")
                .asLong();
    }

    private String revision(String address) throws IOException, InterruptedException {
        return "\"" + client.read(client.get(address)).get("revision").asLong() + "\"";
    }

    /** What a statistician would ask of the figures: how sure they are, and what of them is more than chance. */
    private void moreThanChance() throws IOException, InterruptedException {
        say("  bringing upset stomachs by age in, and composing “Is it more than chance?”");
        Upsets.write(directory.resolve("upset-stomachs.csv"));
        long upsets = client.bring(
                directory.resolve("upset-stomachs.csv"),
                "Upset stomachs",
                Map.of("shaping", Map.of()),
                Map.of("type", "area", "column", "municipality", "set", "Municipalities of Spain"));
        calculate(
                upsets,
                List.of(formula(
                        "upset stomachs per 1,000 people", "SUM(cases) * 1000.0 / NULLIF(SUM(people), 0)", true)),
                List.of());
        compose("Is it more than chance?", "more-than-chance.json", Map.of("UPSETS", upsets, "COMPLAINTS", complaints));
    }

    private void handOver(String site) throws IOException, InterruptedException {
        say("  handing dashboards over: a link for anyone, one for a newspaper's page, one for a wall");
        String sells = link(1, Map.of("name", "For anyone", "opensTo", "ANYONE"));
        String news = link(
                1,
                Map.of(
                        "name",
                        "For the newspaper",
                        "opensTo",
                        "ANYONE",
                        "sites",
                        List.of(site),
                        "takes",
                        Map.of("rows", false, "pictures", true, "prints", true)));
        String wall = link(6, Map.of("name", "For the wall in the office", "opensTo", "ANYONE"));
        String probes = link(15, Map.of("name", "Probes, for anyone", "opensTo", "ANYONE"));
        String vans = link(16, Map.of("name", "Vans, for anyone", "opensTo", "ANYONE"));
        TAGS.forEach((id, tags) -> tag(id, tags));
        if (isPacked()) {
            say("  packing one as files for any web server");
            unpack(client.download("/api/dashboards/1/package.zip", directory.resolve("dashboard-1.zip"))
                    .body());
        }
        // Where the application is stands there by a name: it may be started at another port.
        Files.writeString(directory.resolve("links.txt"), """
                shown to anyone   @base%s
                in a newspaper    %s/news?frame=@encoded%s
                on a wall         @base%s#wall.20s
                probes, live      @base%s
                vans, live        @base%s
                mail that it sent %s/mails
                %s""".formatted(
                        sells,
                        site,
                        URLEncoder.encode(news + "#framed", StandardCharsets.UTF_8),
                        wall,
                        probes,
                        vans,
                        site,
                        isPacked() ? "as static files   " + site + "/files/\n" : ""));
    }

    /** What stays elsewhere cannot be carried away, and above so many rows a package is refused. */
    private boolean isPacked() {
        return refillsAt == null && rows <= MOST_PACKED;
    }

    /** By which tags dashboards are found. */
    private static final Map<Long, List<String>> TAGS = Map.of(
            1L, List.of("sales", "for the board"),
            2L, List.of("complaints"),
            3L, List.of("kiosks", "upkeep"),
            6L, List.of("upkeep", "live"));

    private void tag(long dashboard, List<String> tags) {
        try {
            client.json("PUT", "/api/dashboards/" + dashboard + "/tags", tags);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
        }
    }

    /** Lays the files of a package out where a plain web server gives them out. */
    private void unpack(Path zip) throws IOException {
        Path served = directory.resolve("served");
        try (ZipInputStream in = new ZipInputStream(Files.newInputStream(zip))) {
            for (ZipEntry entry = in.getNextEntry(); entry != null; entry = in.getNextEntry()) {
                Path file = served.resolve(entry.getName()).normalize();
                Files.createDirectories(file.getParent());
                Files.write(file, in.readAllBytes());
            }
        }
    }

    private String link(long dashboard, Map<String, ?> wanted) throws IOException, InterruptedException {
        return client.json("POST", "/api/dashboards/" + dashboard + "/links", wanted)
                .get("path")
                .asString();
    }

    private long compose(String title, String resource, Map<String, Long> datasets)
            throws IOException, InterruptedException {
        JsonNode made = client.json("POST", "/api/dashboards", Map.of("title", title));
        long id = made.get("id").asLong();
        JsonNode composed = edit(made, patch(resource, datasets));
        edit(composed, forPhones(composed.get("document")));
        client.publish(id);
        return id;
    }

    private JsonNode edit(JsonNode dashboard, String patch) throws IOException, InterruptedException {
        return client.read(client.send(
                "PATCH",
                "/api/dashboards/" + dashboard.get("id").asLong(),
                "application/json-patch+json",
                patch,
                "If-Match",
                "\"" + dashboard.get("revision").asLong() + "\""));
    }

    /** On a phone what is said in a line comes first, then the map, and what is long is cut to half a screen. */
    private static final List<String> FIRST = List.of("words", "figure", "filter", "map", "lines", "ring", "bars");

    private static final Map<String, Integer> ROWS = Map.of("map", 10, "table", 9, "list", 9, "grid", 8, "scatter", 8);

    private static String forPhones(JsonNode document) {
        List<String> edits = new ArrayList<>();
        for (String page : document.get("pages").propertyNames()) {
            String spots = document.get("visuals").properties().stream()
                    .filter(visual -> visual.getValue().get("page").asString().equals(page))
                    .sorted(Comparator.comparingInt((Map.Entry<String, JsonNode> visual) -> turn(visual.getValue()))
                            .thenComparingInt(visual ->
                                    visual.getValue().get("at").get("y").asInt())
                            .thenComparingInt(visual ->
                                    visual.getValue().get("at").get("x").asInt()))
                    .map(visual -> {
                        Integer rows = ROWS.get(visual.getValue().get("type").asString());
                        return "{\"visual\": \"%s\"%s}"
                                .formatted(visual.getKey(), rows == null ? "" : ", \"rows\": " + rows);
                    })
                    .collect(Collectors.joining(", "));
            edits.add("{\"op\": \"add\", \"path\": \"/pages/%s/phone\", \"value\": [%s]}".formatted(page, spots));
        }
        return "[" + String.join(", ", edits) + "]";
    }

    private static int turn(JsonNode visual) {
        int turn = FIRST.indexOf(visual.get("type").asString());
        return turn < 0 ? FIRST.size() : turn;
    }

    private static String patch(String resource, Map<String, Long> datasets) throws IOException {
        try (InputStream in = DemoLoader.class.getResourceAsStream(resource)) {
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            for (var dataset : datasets.entrySet())
                text = text.replace(
                        "\"" + dataset.getKey() + "\"", dataset.getValue().toString());
            return text;
        }
    }

    private static void say(String words, Object... values) {
        System.out.println(words.formatted(values));
    }
}
