package sarnik.bench;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.zip.GZIPOutputStream;
import sarnik.dashboard.AnswerStore;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.DocumentJson;
import sarnik.dashboard.Kinds;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.Sources;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;
import sarnik.narrow.Narrowing;
import sarnik.narrow.StateReader;
import sarnik.query.Frame;
import sarnik.query.InMemoryEngine;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.RowPage;
import sarnik.query.RowQuery;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import tools.jackson.databind.JsonNode;

/** Measures a page of twelve visuals of eight kinds: its first answer, a pick, a change of one slot. */
final class PageBench {

    /** Bytes that the figures of a page may take on their way, packed: thousands. */
    private static final double MOST_FRAME = 60;

    private static final String SUM = "\"measure\": {\"summary\": \"SUM\", \"column\": \"%s\"}";
    static final List<String> VISUALS = List.of(
            "\"type\": \"bars\", \"category\": \"product\", " + SUM.formatted("litres"),
            "\"type\": \"bars\", \"category\": \"town\", \"rank\": {\"end\": \"TOP\", \"count\": 10, \"held\": false}, "
                    + SUM.formatted("litres"),
            "\"type\": \"lines\", \"time\": \"day\", \"step\": \"MONTH\", \"measures\": [{\"summary\": \"SUM\", "
                    + "\"column\": \"litres\"}]",
            "\"type\": \"lines\", \"time\": \"day\", \"step\": \"WEEK\", \"category\": \"state\", "
                    + "\"measures\": [{\"summary\": \"SUM\", \"column\": \"takings\"}]",
            "\"type\": \"ring\", \"category\": \"state\", " + SUM.formatted("takings"),
            "\"type\": \"scatter\", \"category\": \"town\", \"across\": {\"summary\": \"SUM\", \"column\": "
                    + "\"litres\"}, "
                    + "\"up\": {\"summary\": \"SUM\", \"column\": \"takings\"}",
            "\"type\": \"grid\", \"down\": {\"column\": \"product\"}, \"across\": {\"column\": \"day\", \"step\": "
                    + "\"WEEKDAY\"}, "
                    + SUM.formatted("litres"),
            "\"type\": \"figure\", " + SUM.formatted("litres"),
            "\"type\": \"figure\", \"measure\": {\"summary\": \"AVERAGE\", \"column\": \"takings\"}, "
                    + "\"against\": {\"kind\": \"WHOLE\"}",
            "\"type\": \"figure\", \"measure\": {\"summary\": \"DISTINCT\", \"column\": \"kiosk\"}, \"over\": \"day\"",
            "\"type\": \"table\", \"categories\": [\"town\"], \"totals\": true, \"measures\": "
                    + "[{\"summary\": \"SUM\", \"column\": \"litres\"}, {\"summary\": \"COUNT\"}]",
            "\"type\": \"words\", \"text\": \"{sum of takings}\", \"figures\": [{\"summary\": \"SUM\", \"column\": "
                    + "\"takings\"}]");

    private final Report report;
    private final double warm;
    private final int runs;

    PageBench(Report report, double warm, int runs) {
        this.report = report;
        this.warm = warm;
        this.runs = runs;
    }

    /** Remembers the questions that reach the engine. */
    private record Recording(QueryEngine engine, List<Query> asked) implements QueryEngine {

        @Override
        public Frame answer(Table table, Query query) {
            asked.add(query);
            return engine.answer(table, query);
        }

        @Override
        public List<Frame> answer(Table table, List<Query> queries) {
            asked.addAll(queries);
            return engine.answer(table, queries);
        }

        @Override
        public RowPage rows(Table table, RowQuery query) {
            return engine.rows(table, query);
        }
    }

    void run(int rows) throws Exception {
        RefillTable refills = RefillTable.of(rows);
        LoadedDataset dataset = new LoadedDataset(1, "Refills", refills.table(), null, Map.of());
        Datasets datasets = id -> new Datasets.Found.Ready(dataset);
        Dashboard twelve = page(VISUALS);
        Dashboard one = page(List.of(VISUALS.get(0), VISUALS.get(5)));
        report.title("A page of 12 visuals of 8 kinds, %,d refills, median of %d runs".formatted(rows, runs));
        Recording recording = new Recording(new InMemoryEngine(), new ArrayList<>());
        Page all = new Page(twelve, datasets, new Answerer(recording, new AnswerStore(0)));
        double bytes = all.packed("") / 1000.0;
        report.size("figures of the whole page on their way, packed", bytes, "aim", MOST_FRAME, 1);
        try (Databases databases = new Databases()) {
            databases.fill(refills);
            compare("first answer of all of them", all, "", twelve.visuals().keySet(), databases, refills, recording);
            compare(
                    "a pick that reaches eleven",
                    all,
                    "p.v1=still",
                    Narrowing.touched(twelve, Kinds.ALL, "v1"),
                    databases,
                    refills,
                    recording);
            compare("one slot changed", all, "p.v1=warm", List.of("v6"), databases, refills, recording);
        }
        Page alone = new Page(one, datasets, new Answerer(new InMemoryEngine(), new AnswerStore(0)));
        double of12 =
                report.median(warm, runs, () -> all.draw("p.v1=still", Narrowing.touched(twelve, Kinds.ALL, "v1")));
        double of1 = report.median(warm, runs, () -> alone.draw("p.v1=still", List.of("v2")));
        report.time("a pick on the page of 12", of12, "2.5 × a pick on one of 1", 2.5 * of1, 1);
        Page kept = new Page(twelve, datasets, new Answerer(new InMemoryEngine(), new AnswerStore(8_000_000)));
        kept.draw("p.v1=still", Narrowing.touched(twelve, Kinds.ALL, "v1"));
        double again =
                report.median(warm, runs, () -> kept.draw("p.v1=still", Narrowing.touched(twelve, Kinds.ALL, "v1")));
        report.time("the same pick by another reader, answers kept", again, "a pick that is new", of12, 1);
    }

    /** The same page in the demo: from the gesture to the picture in a browser. */
    void inBrowser(String base, int picks) throws Exception {
        report.title("The same page in the browser, 650,000 refills of the demo");
        SarnikClient client = new SarnikClient(base);
        if (!client.signIn("ana", "aljibe-ana1")) throw new IllegalStateException("The demo's analyst cannot sign in");
        JsonNode made = client.json("POST", "/api/dashboards", Map.of("title", "Twelve at once"));
        long id = made.get("id").asLong();
        StringBuilder patch =
                new StringBuilder("[{\"op\": \"add\", \"path\": \"/links/k1\", \"value\": {\"from\": \"v1\"}}");
        for (int v = 0; v < VISUALS.size(); v++)
            patch.append(
                    ", {\"op\": \"add\", \"path\": \"/visuals/v%d\", \"value\": {\"page\": \"p1\", \"at\": {\"x\": %d, \"y\": %d, \"w\": 6, \"h\": 6}, \"title\": \"\", \"dataset\": 2, %s}}"
                            .formatted(
                                    v + 1,
                                    6 * (v % 4),
                                    6 * (v / 4),
                                    VISUALS.get(v).replace("\"town\"", "\"@place\"")));
        client.read(client.send(
                "PATCH",
                "/api/dashboards/" + id,
                "application/json-patch+json",
                patch.append("]").toString(),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        try (SarnikBrowser browser = new SarnikBrowser()) {
            com.microsoft.playwright.Page page = browser.signedIn(base, "ana", "aljibe-ana1", 1280, 800);
            page.navigate("/dashboards/" + id);
            SarnikBrowser.drawn(page);
            double[] times = new double[picks];
            for (int i = 0; i < picks; i++) times[i] = ((Number) page.evaluate(PICK, i)).doubleValue();
            Arrays.sort(times);
            report.time("gesture to drawn picture, median", Report.median(times), "aim", 100, 1);
            report.time("gesture to drawn picture, 95 of 100", times[(int) (times.length * 0.95)], "aim", 100, 1);
        } finally {
            client.send("DELETE", "/api/dashboards/" + id, "application/json", "");
        }
    }

    /** Picks another product and gives the time until the picture of all that follows stands, milliseconds. */
    private static final String PICK = """
            async i => {
              const bars = [...document.querySelectorAll('[data-visual=v1] .bar[data-key]')];
              const drawn = new Promise(r => document.getElementById('sheet').addEventListener('drawn',
                () => requestAnimationFrame(() => setTimeout(() => r(performance.now()), 0)), { once: true }));
              const began = performance.now();
              bars[i % bars.length].dispatchEvent(new MouseEvent('click', { bubbles: true }));
              return (await drawn) - began;
            }""";

    private void compare(
            String what,
            Page page,
            String state,
            Collection<String> ids,
            Databases databases,
            RefillTable refills,
            Recording recording)
            throws Exception {
        recording.asked.clear();
        page.draw(state, ids);
        List<Query> asked = List.copyOf(recording.asked);
        double ours = report.median(warm, runs, () -> page.draw(state, ids));
        double theirs = report.median(0, Math.max(1, runs / 3), () -> {
            for (Query query : asked) databases.answer(Databases.Which.DUCKDB_CODED, refills, query);
        });
        report.time(what + " (%d queries)".formatted(asked.size()), ours, "DuckDB, one after another", theirs, 2);
    }

    private static Dashboard page(List<String> visuals) {
        StringBuilder all = new StringBuilder();
        for (int v = 0; v < visuals.size(); v++)
            all.append(v == 0 ? "" : ", ")
                    .append(
                            "\"v%d\": {\"page\": \"p1\", \"at\": {\"x\": 0, \"y\": %d, \"w\": 8, \"h\": 6}, \"title\": \"\", \"dataset\": 1, %s}"
                                    .formatted(v + 1, 6 * v, visuals.get(v)));
        return DashboardDocument.parse(
                        "{\"schema\": 2, \"title\": \"x\", \"pages\": {\"p1\": {\"title\": \"\", \"order\": 1}}, "
                                + "\"filters\": {}, "
                                + "\"links\": {\"k1\": {\"from\": \"v1\"}}, \"visuals\": {" + all + "}}")
                .dashboard();
    }

    /** A page that is drawn in the order in which the server draws it. */
    private record Page(Dashboard dashboard, Datasets datasets, Answerer answerer) {

        Map<String, Drawing> draw(String state, Collection<String> ids) {
            ReaderState read =
                    StateReader.read(state, dashboard, datasets, Kinds.ALL).state();
            Map<String, Drawing> drawn = new PageDrawer(
                            dashboard,
                            read,
                            new Sources(datasets, name -> Optional.empty(), LocalDate.EPOCH),
                            answerer,
                            Map.of())
                    .draw(ids, () -> {});
            drawn.forEach((id, drawing) -> {
                if (drawing instanceof MisfitDrawing misfit) throw new IllegalStateException(id + ": " + misfit.why());
            });
            return drawn;
        }

        /** Bytes of the answer as it is sent, packed. */
        int packed(String state) throws Exception {
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            try (GZIPOutputStream out = new GZIPOutputStream(bytes)) {
                out.write(DocumentJson.write(draw(state, dashboard.visuals().keySet()))
                        .getBytes(StandardCharsets.UTF_8));
            }
            return bytes.size();
        }
    }
}
