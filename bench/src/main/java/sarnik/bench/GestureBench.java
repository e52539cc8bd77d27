package sarnik.bench;

import com.microsoft.playwright.Page;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.data.Datasets;
import sarnik.data.Formulated;
import sarnik.data.LoadedDataset;
import sarnik.data.SheetFormula;
import sarnik.demo.SarnikBrowser;
import sarnik.demo.SarnikClient;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.query.FormulaMeasure;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Summary;
import tools.jackson.databind.JsonNode;

/**
 * Measures what a reader turns: a handle that is dragged, a moment that is played, a pointer that rests on something.
 */
final class GestureBench {

    private static final int SECONDS = 3;
    private static final String NAME = "then";
    private static final String FORMULA =
            "SUM(CASE WHEN product = 'still' THEN takings * (1 + %s / 100) * GREATEST(0.0, 1 - %s / 100 * 0.6) ELSE "
                    + "takings END)";

    private final Report report;
    private final boolean brief;

    GestureBench(Report report, boolean brief) {
        this.report = report;
        this.brief = brief;
    }

    /** A formula that follows a handle, by town: a change of the handle, and the same asked of DuckDB. */
    void whatIf(int rows) throws Exception {
        RefillTable refills = RefillTable.of(rows);
        LoadedDataset dataset = new LoadedDataset(1, "Refills", refills.table(), null, Map.of());
        InMemoryEngine engine = new InMemoryEngine();
        Query query = Query.of(List.of(), List.of("town"), List.of(new Measure(Summary.FORMULA, NAME)));
        report.title("What if, %,d refills by town".formatted(rows));
        SheetFormula formula = new SheetFormula(1, NAME, FORMULA.formatted(":rise", ":rise"));
        double[] rise = {0};
        double ours = report.median(brief ? 0 : 1.5, brief ? 1 : 15, () -> {
            rise[0] += 0.5;
            Datasets of = Formulated.of(
                    new SheetFormula.Scene(
                            id -> new Datasets.Found.Ready(dataset), engine, LocalDate.EPOCH, Map.of("rise", rise[0])),
                    List.of(formula));
            of.get(1).answer(engine, query);
        });
        report.time("a change of the handle", ours, "aim", 250, 1);
        try (Databases databases = new Databases()) {
            databases.fill(refills);
            MeasureFormula written = MeasureFormula.parse(FORMULA.formatted("7.5", "7.5"), Scope.of(refills.table()));
            Query asked = query.with(
                    Map.of(NAME, FormulaMeasure.of(written, refills.table(), Surroundings.on(LocalDate.EPOCH))));
            double theirs = report.median(
                    0, brief ? 1 : 5, () -> databases.answer(Databases.Which.DUCKDB_CODED, refills, asked));
            report.time("a change of the handle", ours, "DuckDB", theirs, 1);
        }
    }

    /** A page of twelve visuals over the demo's refills, with a player and a handle, in a browser. */
    void inBrowser(String base) throws Exception {
        report.title("Turned in the browser, 650,000 refills, 12 visuals and a player");
        SarnikClient client = new SarnikClient(base);
        if (!client.signIn("ana", "aljibe-ana1")) throw new IllegalStateException("The demo's analyst cannot sign in");
        JsonNode made = client.json("POST", "/api/dashboards", Map.of("title", "Twelve that are turned"));
        long id = made.get("id").asLong();
        client.read(client.send(
                "PATCH",
                "/api/dashboards/" + id,
                "application/json-patch+json",
                patch(),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        try (SarnikBrowser browser = new SarnikBrowser()) {
            Page page = browser.signedIn(base, "ana", "aljibe-ana1", 1280, 800);
            page.navigate("/dashboards/" + id);
            SarnikBrowser.drawn(page);
            hovered(page);
            dragged(page);
            played(page);
        } finally {
            client.send("DELETE", "/api/dashboards/" + id, "application/json", "");
        }
    }

    private static String patch() {
        List<String> ops = new ArrayList<>(List.of(
                add("/links/k1", "{\"from\": \"v1\"}"),
                add("/links/k2", "{\"from\": \"v2\", \"on\": \"HOVERED\", \"effect\": \"LIGHT\"}"),
                add(
                        "/parameters/rise",
                        "{\"name\": \"Rise\", \"order\": 1, \"value\": 0, \"low\": 0, \"high\": 100, "
                                + "\"control\": \"SLIDER\"}"),
                add(
                        "/formulas/m1",
                        "{\"dataset\": 2, \"name\": \"" + NAME + "\", \"text\": \""
                                + FORMULA.formatted(":rise", ":rise") + "\"}"),
                add(
                        "/visuals/p1",
                        "{\"page\": \"p1\", \"at\": {\"x\": 0, \"y\": 18, \"w\": 24, \"h\": 3}, \"title\": "
                                + "\"\", \"type\": \"player\", "
                                + "\"dataset\": 2, \"column\": \"day\", \"step\": \"WEEK\", \"mode\": "
                                + "\"MOMENT\", \"speed\": 10}")));
        Map<Integer, String> visuals = new LinkedHashMap<>();
        for (int v = 0; v < PageBench.VISUALS.size(); v++) visuals.put(v, PageBench.VISUALS.get(v));
        visuals.put(
                4,
                "\"type\": \"bars\", \"category\": \"product\", \"measure\": {\"summary\": \"FORMULA\", \"column\": \""
                        + NAME + "\"}");
        visuals.forEach((v, says) -> ops.add(add(
                "/visuals/v" + (v + 1),
                "{\"page\": \"p1\", \"at\": {\"x\": %d, \"y\": %d, \"w\": 6, \"h\": 6}, \"title\": \"\", \"dataset\": 2, %s}"
                        .formatted(6 * (v % 4), 6 * (v / 4), says.replace("\"town\"", "\"@place\"")))));
        return "[" + String.join(", ", ops) + "]";
    }

    private static String add(String path, String value) {
        return "{\"op\": \"add\", \"path\": \"" + path + "\", \"value\": " + value + "}";
    }

    private void hovered(Page page) {
        double[] times = new double[brief ? 3 : 40];
        for (int i = 0; i < times.length; i++) times[i] = ((Number) page.evaluate(HOVER, i)).doubleValue();
        Arrays.sort(times);
        report.time("a pointer on a bar lights, 95 of 100", times[(int) (times.length * 0.95)], "aim", 30, 1);
    }

    /** Rests the pointer on another bar and gives the time that the page works on it, milliseconds. */
    private static final String HOVER = """
            async i => {
              const bars = [...document.querySelectorAll('[data-visual=v2] .bar[data-key]')];
              await new Promise(requestAnimationFrame);
              const began = performance.now();
              for (const kind of ['pointerover', 'pointerenter', 'pointermove', 'mouseover', 'mousemove'])
                bars[i % bars.length].dispatchEvent(new PointerEvent(kind, { bubbles: true }));
              document.body.offsetHeight;
              await new Promise(requestAnimationFrame);
              return performance.now() - began;
            }""";

    private void dragged(Page page) {
        // The server has done it before, as in the rest of these measurements.
        for (int warm = 0; warm < (brief ? 0 : 3); warm++) page.evaluate(DRAG, SECONDS * 1000);
        @SuppressWarnings("unchecked")
        Map<String, Object> said = (Map<String, Object>) page.evaluate(DRAG, SECONDS * 1000);
        report.rate(
                "pictures a second while a handle is dragged, %s changes".formatted(said.get("changes")),
                ((Number) said.get("drawn")).doubleValue() / SECONDS,
                "/s",
                "aim",
                10,
                1);
        report.time("from the last change to its picture", ((Number) said.get("last")).doubleValue(), "aim", 100, 1);
    }

    /** Drags the handle at 30 changes a second and counts what is drawn. */
    private static final String DRAG = """
            async milliseconds => {
              const handle = document.querySelector('#strip [data-filter=rise] input[type=range]');
              const sheet = document.getElementById('sheet');
              let drawn = 0;
              let at = 0;
              const count = () => { drawn++; at = performance.now(); };
              sheet.addEventListener('drawn', count);
              const began = performance.now();
              let changes = 0;
              while (performance.now() - began < milliseconds) {
                handle.value = String(changes++ % 100);
                handle.dispatchEvent(new Event('input', { bubbles: true }));
                await new Promise(r => setTimeout(r, 33));
              }
              const last = performance.now();
              handle.value = '42';
              handle.dispatchEvent(new Event('input', { bubbles: true }));
              handle.dispatchEvent(new Event('change', { bubbles: true }));
              const until = drawn;
              while (drawn === until && performance.now() - last < 5000) await new Promise(r => setTimeout(r, 5));
              await new Promise(requestAnimationFrame);
              const done = performance.now() - last;
              sheet.removeEventListener('drawn', count);
              return { changes, drawn: until, last: done };
            }""";

    private void played(Page page) {
        page.click("[data-visual=p1] button[aria-label=Play]");
        page.waitForTimeout(brief ? 500 : 6000);
        @SuppressWarnings("unchecked")
        Map<String, Object> said = (Map<String, Object>) page.evaluate(PLAY, SECONDS * 1000);
        report.rate(
                "moments a second that are shown, asked 10",
                ((Number) said.get("moments")).doubleValue() / SECONDS,
                "/s",
                "aim",
                10,
                0.9);
        report.time("the longest between two", ((Number) said.get("longest")).doubleValue(), "aim", 250, 1);
    }

    /** Counts the moments that are shown, and the longest wait between two, milliseconds. */
    private static final String PLAY = """
            async milliseconds => {
              const sheet = document.getElementById('sheet');
              let moments = 0;
              let longest = 0;
              let before = performance.now();
              const count = () => {
                moments++;
                longest = Math.max(longest, performance.now() - before);
                before = performance.now();
              };
              sheet.addEventListener('drawn', count);
              await new Promise(r => setTimeout(r, milliseconds));
              sheet.removeEventListener('drawn', count);
              return { moments, longest };
            }""";
}
