package sarnik.bench;

import com.microsoft.playwright.Page;
import de.siegmar.fastcsv.reader.CsvReader;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.GeometryFactory;
import org.locationtech.jts.geom.Point;
import org.locationtech.jts.geom.prep.PreparedGeometry;
import org.locationtech.jts.geom.prep.PreparedGeometryFactory;
import org.locationtech.jts.index.strtree.STRtree;
import sarnik.demo.DemoFiles;
import sarnik.demo.DemoNetwork;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;
import sarnik.format.BoundaryFiles;
import sarnik.formula.Formula;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.geo.AreaFinder;
import sarnik.geo.BoundarySet;
import sarnik.place.Gazetteer;
import sarnik.place.Place;
import sarnik.place.Placing;
import sarnik.place.TablePlacer;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.CsvFile;
import sarnik.table.DecimalColumn;
import sarnik.table.FileChoices;
import sarnik.table.Shaping;
import sarnik.table.Table;
import sarnik.table.TableReader;
import tools.jackson.databind.JsonNode;

/**
 * Side-by-side measurements: same data, same run, warmed. Usage: {@code Bench ADDRESS [--small | --short | --placing |
 * --tables | --maps | --page | --gestures | --readers | --engine | --hundred | --links | --feeds [--seconds N] [--kills N] [--millions N] |
 * --ends [--applications N] [--databases N] | --disk [--times N] | --read-only [--times N] | --two [--times N]]
 * [--json FILE]},
 * with the demo running at the address.
 */
public final class Bench {

    private static final int PICKS = 60;

    private final Report report;
    private final String base;

    /** Whether everything is only gone through once, on little data, to see that it still runs. */
    private final boolean brief;

    private final double warm;
    private final int runs;

    private Bench(String base, boolean brief) {
        this.base = base;
        this.brief = brief;
        this.report = new Report(brief);
        this.warm = 2.5;
        this.runs = 9;
    }

    public static void main(String[] arguments) throws Exception {
        List<String> words = List.of(arguments);
        Bench bench = new Bench(arguments[0], words.contains("--short"));
        int json = words.indexOf("--json");
        if (!bench.brief) awaitRest();
        bench.run(words);
        if (json > 0) bench.report.json(Path.of(words.get(json + 1)));
    }

    /** After its start the application goes on working for a while, on the same cores; at most two minutes. */
    private static void awaitRest() throws IOException, InterruptedException {
        long pid = Long.parseLong(Files.readString(Path.of(System.getenv("SARNIK_BENCH_HOME"), "demo", "app.pid"))
                .strip());
        for (int i = 0; i < 40; i++) {
            Duration before = processorTime(pid);
            Thread.sleep(3000);
            if (processorTime(pid).minus(before).toMillis() < 300) return;
        }
    }

    private static Duration processorTime(long pid) {
        return ProcessHandle.of(pid)
                .flatMap(process -> process.info().totalCpuDuration())
                .orElse(Duration.ZERO);
    }

    private static int number(List<String> words, String name, int usual) {
        int at = words.indexOf(name);
        return at < 0 ? usual : Integer.parseInt(words.get(at + 1));
    }

    private void run(List<String> words) throws Exception {
        MapBench maps = new MapBench(report, base, Files.createTempDirectory("sarnik-bench"));
        if (words.contains("--maps")) {
            maps.run();
            return;
        }
        TablesBench tables = new TablesBench(report, base, Files.createTempDirectory("sarnik-bench"), brief);
        if (words.contains("--tables")) {
            tables.run();
            return;
        }
        if (words.contains("--readers")) {
            new Readers(report, base)
                    .run(brief ? new int[] {1, 4} : new int[] {1, 4, 16, 50, 200, 500}, brief ? 1 : 20);
            return;
        }
        if (words.contains("--links")) {
            int minutes = words.contains("--small") ? 2 : 20;
            new LinkReaders(report, base).run(500, 2000, minutes * 60);
            return;
        }
        if (words.contains("--feeds")) {
            FeedBench feeds = new FeedBench(report, base);
            boolean isSmall = words.contains("--small");
            int seconds = number(words, "--seconds", isSmall ? 60 : 1800);
            feeds.run(seconds, 2000, 10_000, 20, 0);
            feeds.run(seconds / 2, 2000, 10_000, 20, number(words, "--kills", isSmall ? 1 : 10));
            int millions = number(words, "--millions", isSmall ? 1 : 100);
            if (millions > 0) feeds.year(1_000_000L * millions);
            return;
        }
        if (words.contains("--ends")) {
            new EndsBench(base).run(report, number(words, "--applications", 1000), number(words, "--databases", 200));
            return;
        }
        if (words.contains("--two")) {
            new EndsBench(base).twoInstances(report, number(words, "--times", 40));
            return;
        }
        if (words.contains("--engine")) {
            reading();
            engine(few(1_000_000));
            if (!words.contains("--small")) engine(10_000_000);
            return;
        }
        if (words.contains("--hundred")) {
            hundred(100_000_000);
            return;
        }
        if (words.contains("--disk")) {
            new EndsBench(base).fullDisk(report, number(words, "--times", 20));
            return;
        }
        if (words.contains("--read-only")) {
            new EndsBench(base).failingDisk(report, number(words, "--times", 20));
            return;
        }
        PageBench page = new PageBench(report, brief ? 0 : 1.5, brief ? 1 : 15);
        if (words.contains("--page")) {
            page.run(few(650_000));
            page.inBrowser(base, brief ? 3 : PICKS);
            if (!words.contains("--small") && !brief) page.run(10_000_000);
            return;
        }
        GestureBench gestures = new GestureBench(report, brief);
        if (words.contains("--gestures")) {
            gestures.inBrowser(base);
            gestures.whatIf(few(words.contains("--small") ? 1_000_000 : 10_000_000));
            return;
        }
        placing();
        areas();
        if (words.contains("--placing")) return;
        tables.run();
        maps.run();
        formulas();
        picks();
        page.run(few(650_000));
        page.inBrowser(base, brief ? 3 : PICKS);
        gestures.inBrowser(base);
        gestures.whatIf(few(words.contains("--small") ? 1_000_000 : 10_000_000));
        if (brief) {
            new Readers(report, base).run(new int[] {1, 4}, 1);
            new LinkReaders(report, base).briefly();
            new FeedBench(report, base).briefly();
        }
        reading();
        engine(few(1_000_000));
        if (!words.contains("--small") && !brief) engine(10_000_000);
    }

    /** So many, or a fiftieth of it where things are only gone through. */
    private int few(int many) {
        return brief ? many / 50 : many;
    }

    // --- the engine -----------------------------------------------------------------------------------

    private static Query narrowing() {
        List<Condition> five = List.of(
                new Condition.Between("day", "2025-01-01", "2026-03-31"),
                new Condition.OneOf("product", List.of("still", "sparkling", "mineral")),
                new Condition.OneOf("state", List.of("final")),
                new Condition.Between("litres", "5", "80"),
                new Condition.Between("takings", "1", "30"));
        return Query.of(
                List.of(new Stage("five", five)),
                List.of("town"),
                List.of(
                        new Measure(Summary.SUM, "litres"),
                        Measure.ROWS,
                        new Measure(Summary.SUM, "takings"),
                        new Measure(Summary.AVERAGE, "litres")));
    }

    private static Query distinct() {
        return Query.of(
                List.of(new Stage("a year", List.of(new Condition.Between("day", "2025-01-01", "2025-12-31")))),
                List.of("product"),
                List.of(new Measure(Summary.DISTINCT, "kiosk")));
    }

    private static Query topTen() {
        return new Query(
                List.of(),
                List.of("town"),
                Query.Missing.LEFT_OUT,
                List.of(new Measure(Summary.SUM, "litres")),
                Optional.of(new Rank(0, Rank.End.TOP, 10, false)),
                new Sort(0, true),
                Integer.MAX_VALUE);
    }

    private void engine(int rows) throws Exception {
        report.title("%,d refills, %d cores, median of %d runs"
                .formatted(rows, Runtime.getRuntime().availableProcessors(), runs));
        RefillTable refills = RefillTable.of(rows);
        InMemoryEngine engine = new InMemoryEngine();
        Map<String, Query> queries = new LinkedHashMap<>();
        queries.put("five conditions by town: count, two sums, average", narrowing());
        queries.put("distinct kiosks of a year by product", distinct());
        queries.put("top ten towns by litres", topTen());
        Map<String, List<String>> touched = Map.of(
                "five conditions by town: count, two sums, average",
                        List.of("day", "product", "state", "litres", "takings", "town"),
                "distinct kiosks of a year by product", List.of("day", "product", "kiosk"),
                "top ten towns by litres", List.of("town", "litres"));
        try (Databases databases = new Databases()) {
            databases.fill(refills);
            for (var query : queries.entrySet()) {
                databases.check(refills, query.getValue(), engine.answer(refills.table(), query.getValue()));
                double ours = report.median(warm, runs, () -> engine.answer(refills.table(), query.getValue()));
                for (Databases.Which which : Databases.Which.values()) {
                    boolean isPostgres = which == Databases.Which.POSTGRESQL;
                    double theirs = report.median(
                            isPostgres ? 0 : warm,
                            isPostgres ? 3 : runs,
                            () -> databases.answer(which, refills, query.getValue()));
                    report.time(query.getKey(), ours, which.words, theirs, isPostgres ? 20 : 2);
                }
                double[] kept = new double[1];
                double limit =
                        report.median(warm, runs, () -> kept[0] += refills.readOnce(touched.get(query.getKey())));
                report.time(query.getKey(), ours, "reading the columns once", limit, 1 / 3.0);
            }
        }
    }

    /** What many rows take in memory, and how long a pick among them does. */
    private void hundred(int rows) throws Exception {
        report.title("%,d refills in memory".formatted(rows));
        Table table = RefillTable.of(rows).table();
        System.gc();
        Runtime machine = Runtime.getRuntime();
        report.size("held by the table", table.bytes() / 1e3, "aim", 2e6, 1);
        report.size("in use in all", (machine.totalMemory() - machine.freeMemory()) / 1e3, "aim", 2e6, 1);
        InMemoryEngine engine = new InMemoryEngine();
        List<String> kiosks = ((CodedColumn) table.column("kiosk")).dictionary();
        picked(
                engine,
                table,
                "a kiosk picked: its takings by product",
                new Condition.OneOf("kiosk", List.of(kiosks.get(77))),
                "product");
        picked(
                engine,
                table,
                "a month picked: takings by town",
                new Condition.Between("day", "2025-05-01", "2025-05-31"),
                "town");
    }

    /** How long a pick takes, of which the takings are summed up by a column. */
    private void picked(InMemoryEngine engine, Table table, String words, Condition pick, String by) throws Exception {
        Query query = Query.of(
                List.of(new Stage("a pick", List.of(pick))),
                List.of(by),
                List.of(new Measure(Summary.SUM, "takings"), Measure.ROWS));
        report.time(words, report.median(warm, runs, () -> engine.answer(table, query)), "aim", 500, 1);
    }

    // --- reading and placing -----------------------------------------------------------------------------

    private void reading() throws Exception {
        int count = few(1_000_000);
        report.title("Reading a CSV file of %,d refills".formatted(count));
        Path file = Files.createTempFile("refills", ".csv");
        try {
            DemoFiles.refills(DemoNetwork.shipped(), count, file);
            Table[] table = new Table[1];
            Report.Work read = () -> table[0] = new TableReader()
                    .read(CsvFile.open(file, FileChoices.NONE), Shaping.NONE)
                    .table();
            double first = report.once(read);
            // Java goes on compiling what reads for as long; until then a file takes twice the time.
            double ours = report.median(20, 9, read);
            long[] fields = new long[1];
            double bare = report.median(3, 3, () -> {
                try (var reader = CsvReader.builder().ofCsvRecord(file)) {
                    reader.forEach(r -> fields[0] += r.getFieldCount());
                }
            });
            report.time("read, typed and held", ours, "cutting into cells only", bare, 0.2);
            report.time("read, typed and held", ours, "aim", 1000, 1);
            try (Databases databases = new Databases()) {
                report.time(
                        "read, typed and held",
                        ours,
                        "DuckDB's reader",
                        report.median(3, 3, () -> databases.readCsv(file)),
                        1);
            }
            System.out.printf(
                    Locale.ENGLISH, "%-58s %,9.1f ms%n", "the same, the first file that the process reads", first);
            System.out.printf(
                    Locale.ENGLISH,
                    "%-58s %,9.1f MB of arrays for a file of %,.1f MB%n",
                    "memory of the table",
                    table[0].bytes() / 1e6,
                    Files.size(file) / 1e6);
        } finally {
            Files.delete(file);
        }
    }

    private void placing() throws Exception {
        Table pairs = pairs(few(100_000));
        report.title("Placing %,d distinct pairs of town and province".formatted(pairs.rows()));
        TablePlacer placer = new TablePlacer(Gazetteer.shipped());
        double ours = report.median(3, 5, () -> placer.byName(pairs, new Placing.ByName("town", "province", null)));
        report.rate("distinct pairs a second", pairs.rows() / ours * 1000, "/s", "aim", 50_000, 1);
        Table rows = repeated(pairs(few(60_000)), few(1_000_000));
        double joint = report.median(1, 3, () -> placer.byName(rows, new Placing.ByName("town", "province", null)));
        report.time(
                "%,d rows with %,d distinct places, jointly".formatted(rows.rows(), few(60_000)),
                joint,
                "aim",
                5000,
                1);
        Table points = points(few(1_000_000));
        double spots = report.median(0, 1, () -> placer.byCoordinates(points, new Placing.ByCoordinates("lat", "lon")));
        report.time("%,d distinct points".formatted(points.rows()), spots, "aim", 30_000, 1);
        List<String> slips = Gazetteer.shipped().townsOf("ES").stream()
                .map(Place::name)
                .filter(n -> n.length() > 6)
                .limit(few(2000))
                .map(n -> n.substring(0, 3) + n.charAt(4) + n.charAt(3) + n.substring(5))
                .toList();
        double fuzzy =
                report.median(2, 5, () -> slips.forEach(s -> Gazetteer.shipped().search(s, 9)));
        report.time("a misspelled name looked up", fuzzy / slips.size(), "aim", 1, 1);
    }

    private void areas() throws Exception {
        int count = few(1_000_000);
        report.title("%,d points in the 8,119 municipalities of Spain that have a shape".formatted(count));
        BoundarySet set = BoundaryFiles.shipped(BoundaryFiles.Shipped.MUNICIPALITIES);
        AreaFinder finder = new AreaFinder(set);
        Random random = new Random(1);
        double[] lon = random.doubles(count, -9.3, 3.3).toArray();
        double[] lat = random.doubles(count, 36, 43.8).toArray();
        int[] found = new int[2];
        double ours = report.median(1, 3, () -> {
            found[0] = 0;
            for (int i = 0; i < lon.length; i++) if (finder.at(lon[i], lat[i]) >= 0) found[0]++;
        });
        report.time("the area that holds each point", ours, "aim", 3000, 1);
        STRtree tree = new STRtree();
        GeometryFactory shapes = new GeometryFactory();
        set.areas()
                .forEach(area ->
                        tree.insert(area.shape().getEnvelopeInternal(), PreparedGeometryFactory.prepare(area.shape())));
        tree.build();
        double plain = report.median(1, 3, () -> {
            found[1] = 0;
            for (int i = 0; i < lon.length; i++) {
                Point point = shapes.createPoint(new Coordinate(lon[i], lat[i]));
                for (Object each : tree.query(point.getEnvelopeInternal())) {
                    if (((PreparedGeometry) each).covers(point)) {
                        found[1]++;
                        break;
                    }
                }
            }
        });
        if (found[0] != found[1])
            throw new IllegalStateException("The two find " + found[0] + " and " + found[1] + " points");
        report.time("the area that holds each point", ours, "a tree of boxes and prepared shapes", plain, 1);
    }

    private void formulas() throws Exception {
        Table table = RefillTable.of(few(1_000_000)).table();
        report.title("Formulas over %,d refills".formatted(table.rows()));
        Surroundings today = Surroundings.on(java.time.LocalDate.of(2026, 5, 31));
        Formula formula = Formula.parse(
                "CASE WHEN product = 'still' AND litres > 10 THEN takings / litres ELSE ROUND(litres * 2, 1) END",
                Scope.of(table));
        double column = report.median(2, 5, () -> formula.compute(table, today));
        report.rate(
                "rows a second, with CASE, comparison and rounding",
                table.rows() / column * 1000,
                "/s",
                "aim",
                1_000_000,
                1);
        InMemoryEngine engine = new InMemoryEngine();
        MeasureFormula rate = MeasureFormula.parse("SUM(takings) / NULLIF(SUM(litres), 0)", Scope.of(table));
        Query query = Query.of(List.of(), List.of("town"), List.of(new Measure(Summary.FORMULA, "rate")))
                .with(Map.of("rate", FormulaMeasure.of(rate, table, today)));
        Query sums = Query.of(
                List.of(),
                List.of("town"),
                List.of(new Measure(Summary.SUM, "takings"), new Measure(Summary.SUM, "litres")));
        report.time(
                "a measure formula by town",
                report.median(warm, runs, () -> engine.answer(table, query)),
                "its two sums alone",
                report.median(warm, runs, () -> engine.answer(table, sums)),
                0.3);
    }

    /** The rows of a table over and over, up to this many. */
    private static Table repeated(Table table, int rows) {
        Map<String, Column> columns = new LinkedHashMap<>();
        for (String name : table.names()) {
            CodedColumn column = (CodedColumn) table.column(name);
            int[] codes = IntStream.range(0, rows)
                    .map(r -> column.codes().get(r % table.rows()))
                    .toArray();
            columns.put(
                    name,
                    new CodedColumn(
                            ColumnType.TEXT,
                            Codes.of(codes, rows, column.dictionary().size()),
                            column.dictionary()));
        }
        return new Table(columns);
    }

    /**
     * Towns of the gazetteer as people write them: as they are, in capitals, without their accents, in small letters.
     */
    private static Table pairs(int count) {
        Gazetteer gazetteer = Gazetteer.shipped();
        Set<List<String>> pairs = new LinkedHashSet<>();
        List<Place> towns = new ArrayList<>();
        for (String country : Locale.getISOCountries()) towns.addAll(gazetteer.townsOf(country));
        for (int way = 0; way < 4; way++) {
            for (Place town : towns) {
                String province = gazetteer.provinceOf(town).map(Place::name).orElse("");
                if (pairs.size() < count) pairs.add(List.of(written(town.name(), way), province));
            }
        }
        return new Table(Map.of(
                "town",
                text(pairs.stream().map(p -> p.get(0)).toList()),
                "province",
                text(pairs.stream().map(p -> p.get(1)).toList())));
    }

    /** Points all over the world, none of them twice. */
    private static Table points(int count) {
        Random random = new Random(11);
        double[] lat = random.doubles(count, -60, 70)
                .map(v -> Math.round(v * 1e6) / 1e6)
                .toArray();
        double[] lon = random.doubles(count, -180, 180)
                .map(v -> Math.round(v * 1e6) / 1e6)
                .toArray();
        return new Table(Map.of("lat", new DecimalColumn(lat), "lon", new DecimalColumn(lon)));
    }

    private static String written(String name, int way) {
        return switch (way) {
            case 1 -> name.toUpperCase(Locale.ROOT);
            case 2 ->
                java.text.Normalizer.normalize(name, java.text.Normalizer.Form.NFD)
                                .replaceAll("\\p{M}", "") + " ";
            case 3 -> name.toLowerCase(Locale.ROOT);
            default -> name;
        };
    }

    private static Column text(List<String> values) {
        Map<String, Integer> codes = new LinkedHashMap<>();
        int[] column = values.stream()
                .mapToInt(v -> {
                    codes.putIfAbsent(v, codes.size());
                    return codes.get(v);
                })
                .toArray();
        return new CodedColumn(
                ColumnType.TEXT, Codes.of(column, column.length, codes.size()), List.copyOf(codes.keySet()));
    }

    // --- the demo dashboard -----------------------------------------------------------------------------

    private void picks() throws Exception {
        report.title("A pick on “Where do refills sell?”, 650,000 refills");
        SarnikClient client = new SarnikClient(base);
        if (!client.signIn("ana", "aljibe-ana1")) throw new IllegalStateException("The demo's analyst cannot sign in");
        JsonNode all = client.json("POST", "/api/dashboards/1/frames", Map.of("state", ""));
        JsonNode towns = all.get("places")
                .get(all.at("/drawings/v1/layers/0/places").asString())
                .get("ids");
        JsonNode touched = client.read(client.get("/api/dashboards/1")).at("/touches/v1");
        int[] next = {0};
        double server = report.median(
                6,
                PICKS,
                () -> client.json(
                        "POST",
                        "/api/dashboards/1/frames",
                        Map.of(
                                "state",
                                "p.v1=" + towns.get(next[0]++ % towns.size()).asString(),
                                "ids",
                                touched)));
        report.time("asked and answered over loopback", server, "aim", 30, 1);
        try (SarnikBrowser browser = new SarnikBrowser()) {
            Page page = browser.signedIn(base, "ana", "aljibe-ana1", 1280, 800);
            page.navigate("/dashboards/1");
            SarnikBrowser.drawn(page);
            double[] times = new double[brief ? 3 : PICKS];
            for (int i = 0; i < times.length; i++) times[i] = ((Number) page.evaluate(PICK, i % 10)).doubleValue();
            report.time("gesture to drawn picture in the browser", Report.median(times), "aim", 150, 1);
        }
    }

    /** Presses a bar and waits until the page has drawn the answer and shown a picture. */
    private static final String PICK = """
            async n => {
              const sheet = document.getElementById('sheet');
              const drawn = new Promise(done => sheet.addEventListener('drawn', done, { once: true }));
              const began = performance.now();
              document.querySelectorAll('[data-visual=v4] .bar')[n].dispatchEvent(new MouseEvent('click', { bubbles: true }));
              await drawn;
              await new Promise(done => requestAnimationFrame(() => setTimeout(done)));
              return performance.now() - began;
            }""";
}
