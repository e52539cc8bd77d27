package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Tie;
import sarnik.narrow.StateReader;
import sarnik.query.InMemoryEngine;
import sarnik.query.RowTrail;
import sarnik.table.ColumnType;
import sarnik.visual.figure.FigureDrawing;

/**
 * Generated dashboards over three tied tables: what each figure counts equals a plain evaluation, row by row, that
 * knows nothing of the engine, of stages or of ties as the program keeps them.
 */
@DisplayName("Filters of all kinds, against a plain evaluation")
class FiltersAgainstPlainTest {

    private static final int TABLES = 30;
    private static final int STATES = 25;
    private static final LocalDate TODAY = LocalDate.of(2026, 3, 15);
    private static final List<String> PRODUCTS = List.of("still", "warm", "sparkling", "*", "~odd", "!no", "a,b");
    private static final Map<String, ColumnType> TYPES = Map.of(
            "code", ColumnType.TEXT,
            "open", ColumnType.YES_NO,
            "kiosk", ColumnType.TEXT,
            "day", ColumnType.DATE,
            "product", ColumnType.TEXT,
            "litres", ColumnType.WHOLE,
            "note", ColumnType.TEXT);
    private static final InMemoryEngine ENGINE = new InMemoryEngine();

    /**
     * Kiosks 1, refills 2 (kiosk = code), checks 3 (kiosk = code): refills and checks know each other by kiosks alone.
     */
    private static final class World {
        final List<Map<String, String>> kiosks = new ArrayList<>();
        final List<Map<String, String>> refills = new ArrayList<>();
        final List<Map<String, String>> checks = new ArrayList<>();
        final Datasets datasets;

        World(Random random) {
            int count = 2 + random.nextInt(6);
            for (int k = 0; k < count; k++) kiosks.add(row("code", "K" + k, "open", some(random, "yes", "no", "")));
            for (int r = 0; r <= random.nextInt(40); r++)
                refills.add(row(
                        "kiosk",
                        "K" + random.nextInt(count + 2),
                        "day",
                        TODAY.minusDays(random.nextInt(400)).toString(),
                        "product",
                        PRODUCTS.get(random.nextInt(PRODUCTS.size())),
                        "litres",
                        random.nextInt(8) == 0 ? "" : String.valueOf(random.nextInt(50))));
            for (int c = 0; c <= random.nextInt(15); c++)
                checks.add(row(
                        "kiosk",
                        "K" + random.nextInt(count + 1),
                        "note",
                        some(random, "Clean tap", "no TAP", "dust", "")));
            Map<Long, LoadedDataset> all = Map.of(
                    1L, dataset(1, "Kiosks", "code,open", kiosks, List.of()),
                    2L,
                            dataset(
                                    2,
                                    "Refills",
                                    "kiosk,day,product,litres",
                                    refills,
                                    List.of(new Tie("kiosk", 1, "code"))),
                    3L, dataset(3, "Checks", "kiosk,note", checks, List.of(new Tie("kiosk", 1, "code"))));
            datasets = id -> Datasets.Found.of(Optional.ofNullable(all.get(id)));
        }

        List<Map<String, String>> of(int dataset) {
            return dataset == 1 ? kiosks : dataset == 2 ? refills : checks;
        }
    }

    private static String some(Random random, String... values) {
        return values[random.nextInt(values.length)];
    }

    private static Map<String, String> row(String... cells) {
        Map<String, String> row = new LinkedHashMap<>();
        for (int i = 0; i < cells.length; i += 2) row.put(cells[i], cells[i + 1]);
        return row;
    }

    private static LoadedDataset dataset(
            long id, String name, String columns, List<Map<String, String>> rows, List<Tie> ties) {
        List<String> lines = new ArrayList<>(List.of(columns));
        for (Map<String, String> row : rows)
            lines.add(row.values().stream()
                    .map(v -> v.contains(",") ? "\"" + v + "\"" : v)
                    .collect(Collectors.joining(",")));
        return new LoadedDataset(
                id, name, csv(TYPES, lines), null, Map.of(), About.NONE, Map.of(), List.of(), ties, Boundaries.NONE);
    }

    /**
     * A filter as the document has it, what is set, and which rows of its own table it keeps by itself; null where it
     * is not turned.
     */
    private record Turned(
            String json, String state, int dataset, Predicate<Map<String, String>> keeps, boolean across) {}

    private static Turned turned(Random random, String id, World world) {
        boolean across = random.nextInt(3) > 0;
        String terms = across ? ", 'terms': {'across': true}" : "";
        String json =
                "'" + id + "': {'type': '%s', 'page': 'p1', 'order': 1, 'dataset': %d, 'title': ''%s" + terms + "}";
        return switch (random.nextInt(7)) {
            case 0 -> {
                Set<String> values = Set.copyOf(PRODUCTS.subList(random.nextInt(3), 3 + random.nextInt(5)));
                boolean known = world.refills.stream().anyMatch(r -> values.contains(r.get("product")));
                yield new Turned(
                        json.formatted("choice", 2, ", 'column': 'product'"),
                        "f." + id + "="
                                + values.stream()
                                        .map(FiltersAgainstPlainTest::encoded)
                                        .collect(Collectors.joining(",")),
                        2,
                        // Values that no row has are left out of an address; all of them gone, nothing is narrowed.
                        known ? row -> values.contains(row.get("product")) : null,
                        across);
            }
            case 1 -> {
                LocalDate from = TODAY.minusDays(random.nextInt(300));
                yield new Turned(
                        json.formatted("dates", 2, ", 'column': 'day'"),
                        "f." + id + "=" + from + "..",
                        2,
                        row -> !row.get("day").isEmpty()
                                && !LocalDate.parse(row.get("day")).isBefore(from),
                        across);
            }
            case 2 ->
                new Turned(
                        json.formatted("dates", 2, ", 'column': 'day'"),
                        "f." + id + "=~before.month",
                        2,
                        row -> row.get("day").startsWith("2026-02"),
                        across);
            case 3 -> {
                int least = random.nextInt(50);
                yield new Turned(
                        json.formatted("threshold", 2, ", 'column': 'litres'"),
                        "f." + id + "=" + least,
                        2,
                        row -> !row.get("litres").isEmpty() && Integer.parseInt(row.get("litres")) >= least,
                        across);
            }
            case 4 ->
                new Turned(
                        json.formatted("yesno", 1, ", 'column': 'open'"),
                        "f." + id + "=yes",
                        1,
                        row -> row.get("open").equals("yes"),
                        across);
            case 5 ->
                new Turned(
                        json.formatted("search", 3, ", 'column': 'note'"),
                        "f." + id + "=tap",
                        3,
                        row -> row.get("note").toLowerCase().contains("tap"),
                        across);
            default ->
                new Turned(
                        json.formatted(
                                "rules",
                                2,
                                ", 'rules': {'r1': {'name': 'Much', 'order': 1, 'rule': {'is': 'SQL', 'text': "
                                        + "'litres > 20'}}}"),
                        "f." + id + "=r1",
                        2,
                        row -> !row.get("litres").isEmpty() && Integer.parseInt(row.get("litres")) > 20,
                        across);
        };
    }

    private static String encoded(String value) {
        return URLEncoder.encode(value, StandardCharsets.UTF_8)
                .replace("+", "%20")
                .replace("*", "%2A")
                .replace("~", "%7E");
    }

    /** The rows that are left of a table, said as plainly as can be. */
    private static List<Map<String, String>> left(World world, int dataset, List<Turned> turned) {
        List<Map<String, String>> rows = new ArrayList<>(world.of(dataset));
        for (Turned one : turned)
            if (one.dataset() == dataset) rows.removeIf(row -> !one.keeps().test(row));
        for (int other = 1; other <= 3; other++) {
            int of = other;
            if (other == dataset) continue;
            List<Turned> theirs = turned.stream().filter(t -> t.dataset() == of).toList();
            // All that narrows the other table narrows it together; if nothing of it goes across, nobody follows.
            for (int n = 1; n <= theirs.size(); n++) {
                if (!theirs.get(n - 1).across()) continue;
                List<Turned> soFar = theirs.subList(0, n);
                Set<String> keys = world.of(other).stream()
                        .filter(row -> soFar.stream().allMatch(t -> t.keeps().test(row)))
                        .map(row -> row.getOrDefault("code", row.get("kiosk")))
                        .collect(Collectors.toSet());
                // From refills to checks, and back, by way of a kiosk that there is.
                if (other != 1 && dataset != 1)
                    keys.retainAll(world.kiosks.stream().map(k -> k.get("code")).collect(Collectors.toSet()));
                rows.removeIf(row -> !keys.contains(row.getOrDefault("code", row.get("kiosk"))));
            }
        }
        return rows;
    }

    @Test
    void countWhatAPlainEvaluationCounts() {
        Random random = new Random(20261127);
        int narrowed = 0;
        for (int w = 0; w < TABLES; w++) {
            World world = new World(random);
            for (int s = 0; s < STATES; s++) {
                Map<String, Turned> turned = new TreeMap<>();
                for (int f = 0; f < random.nextInt(4); f++) turned.put("f" + f, turned(random, "f" + f, world));
                // Of one page, filters stand in the order of the strip; those that rest on others come last.
                List<Turned> inOrder = new ArrayList<>(turned.values());
                inOrder.removeIf(one -> one.keeps() == null);
                inOrder.sort(Comparator.comparing(t -> t.json().contains("threshold")));
                Dashboard dashboard = dashboard(turned.values());
                String text = turned.values().stream().map(Turned::state).collect(Collectors.joining("&"));
                StateReader.Read read = StateReader.read(text, dashboard, world.datasets, Kinds.ALL);
                assertThat(StateReader.read(read.state().text(), dashboard, world.datasets, Kinds.ALL)
                                .state())
                        .as("the address round-trips")
                        .isEqualTo(read.state());
                PageDrawer drawer = new PageDrawer(
                        dashboard,
                        read.state(),
                        new Sources(world.datasets, name -> Optional.empty(), TODAY),
                        new Answerer(ENGINE),
                        Map.of());
                for (int dataset = 1; dataset <= 3; dataset++) {
                    FigureDrawing figure = (FigureDrawing) drawer.draw("v" + dataset);
                    int expected = left(world, dataset, inOrder).size();
                    assertThat(figure.text())
                            .as(
                                    "rows of %d under %s: %s %s, refills %s",
                                    dataset,
                                    text,
                                    read.misfits(),
                                    figure.trail().steps(),
                                    world.refills)
                            .isEqualTo(String.valueOf(expected));
                    trailAddsUp(figure.trail().steps(), world.of(dataset).size(), expected);
                    if (expected < world.of(dataset).size()) narrowed++;
                }
            }
        }
        assertThat(narrowed).as("figures that were narrowed at all").isGreaterThan(300);
    }

    private static void trailAddsUp(List<RowTrail.Step> steps, int all, int left) {
        List<Long> rows = steps.stream()
                .filter(step -> step.unit() == RowTrail.Unit.ROWS)
                .map(RowTrail.Step::left)
                .toList();
        assertThat(rows).isSortedAccordingTo(Comparator.reverseOrder());
        assertThat(rows.get(0)).isEqualTo(all);
        assertThat(rows.get(rows.size() - 1)).isEqualTo(left);
    }

    private static Dashboard dashboard(Iterable<Turned> turned) {
        List<String> filters = new ArrayList<>();
        for (Turned one : turned) filters.add(one.json());
        List<String> visuals = new ArrayList<>();
        for (int id = 1; id <= 3; id++)
            visuals.add(
                    ("'v%d': {'page': 'p1', 'at': {'x': 0, 'y': %d, 'w': 6, 'h': 4}, 'title': '', 'type': 'figure', "
                                    + "'dataset': %d, 'measure': {'summary': 'COUNT'}}")
                            .formatted(id, 4 * id, id));
        return DashboardDocument.parse(
                        ("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}}, 'filters': {"
                                        + String.join(", ", filters) + "}, 'links': {}, 'visuals': {"
                                        + String.join(", ", visuals) + "}}")
                                .replace('\'', '"'))
                .dashboard();
    }
}
