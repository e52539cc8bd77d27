package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.dashboard.Fixture.ENGINE;
import static sarnik.table.TestTables.csv;

import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Tie;
import sarnik.narrow.StateReader;
import sarnik.query.TimeStep;
import sarnik.visual.Drawing;
import sarnik.visual.MisfitDrawing;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.figure.FigureDrawing;

/**
 * Picks, links, a player and ranks over generated tables, held against an evaluation that is written as plainly as can
 * be.
 */
@DisplayName("Picks, links, players and ranks together")
class LinksAgainstPlainTest {

    private static final LocalDate FIRST = LocalDate.of(2026, 1, 5);
    private static final List<String> PRODUCTS = List.of("still", "warm", "mineral", "sparkling");
    private static final int WORLDS = 30;
    private static final int STATES = 25;

    /** Kiosks (1), refills at them (2), and the weather of each week (3), which refills share by their day. */
    private static final class World {
        final List<Map<String, String>> kiosks = new ArrayList<>();
        final List<Map<String, String>> refills = new ArrayList<>();
        final List<Map<String, String>> weather = new ArrayList<>();
        final Datasets datasets;

        World(Random random) {
            int count = 2 + random.nextInt(5);
            for (int k = 0; k < count; k++) kiosks.add(row("code", "K" + k, "open", one(random, "yes", "no")));
            for (int r = 0; r <= random.nextInt(50); r++)
                refills.add(row(
                        "kiosk",
                        "K" + random.nextInt(count + 1),
                        "day",
                        FIRST.plusDays(random.nextInt(35)).toString(),
                        "product",
                        PRODUCTS.get(random.nextInt(4)),
                        "litres",
                        String.valueOf(1 + random.nextInt(9))));
            for (int week = 0; week < 4; week++)
                weather.add(
                        row("monday", FIRST.plusWeeks(week).toString(), "sky", one(random, "fair", "grey", "rain")));
            Map<Long, LoadedDataset> all = Map.of(
                    1L, dataset(1, "code,open", kiosks, List.of()),
                    2L,
                            dataset(
                                    2,
                                    "kiosk,day,product,litres",
                                    refills,
                                    List.of(new Tie("kiosk", 1, "code"), new Tie("day", 3, "monday", TimeStep.WEEK))),
                    3L, dataset(3, "monday,sky", weather, List.of()));
            datasets = id -> Datasets.Found.of(Optional.ofNullable(all.get(id)));
        }

        List<Map<String, String>> of(int dataset) {
            return dataset == 1 ? kiosks : dataset == 2 ? refills : weather;
        }
    }

    private static String one(Random random, String... values) {
        return values[random.nextInt(values.length)];
    }

    private static Map<String, String> row(String... cells) {
        Map<String, String> row = new LinkedHashMap<>();
        for (int i = 0; i < cells.length; i += 2) row.put(cells[i], cells[i + 1]);
        return row;
    }

    private static LoadedDataset dataset(long id, String columns, List<Map<String, String>> rows, List<Tie> ties) {
        List<String> lines = new ArrayList<>(List.of(columns));
        rows.forEach(row -> lines.add(String.join(",", row.values())));
        return new LoadedDataset(
                id,
                "D" + id,
                csv(lines.toArray(String[]::new)),
                null,
                Map.of(),
                About.NONE,
                Map.of(),
                List.of(),
                ties,
                Boundaries.NONE);
    }

    private static String mondayOf(String day) {
        return LocalDate.parse(day)
                .with(TemporalAdjusters.previousOrSame(DayOfWeek.MONDAY))
                .toString();
    }

    /** What joins the rows of two datasets that lie next to each other, by the first's number and the second's. */
    private static Function<Map<String, String>, String> key(int of, int towards) {
        if (of == 1) return row -> row.get("code");
        if (of == 3) return row -> row.get("monday");
        return towards == 1 ? row -> row.get("kiosk") : row -> mondayOf(row.get("day"));
    }

    /** The rows of a dataset that have a partner among some of another: by way of refills, if they have to. */
    private static Set<Map<String, String>> partners(World world, int of, List<Map<String, String>> some, int dataset) {
        if (of != 2 && dataset != 2) return partners(world, 2, new ArrayList<>(partners(world, of, some, 2)), dataset);
        Set<String> keys = some.stream().map(key(of, dataset)).collect(Collectors.toSet());
        Set<Map<String, String>> found = Collections.newSetFromMap(new java.util.IdentityHashMap<>());
        world.of(dataset).stream()
                .filter(row -> keys.contains(key(dataset, of).apply(row)))
                .forEach(found::add);
        return found;
    }

    /** A pick on the bars of a dataset's column. */
    private record Pick(int dataset, String column, Set<String> values, boolean turned, boolean across, boolean asks) {

        boolean keeps(Map<String, String> row) {
            return values.contains(row.get(column)) != turned;
        }

        String text() {
            return "p.b" + dataset + "=" + (turned ? "!" : "") + String.join(",", values);
        }
    }

    private record Played(int week, boolean upTo) {

        boolean keeps(String day) {
            String monday = FIRST.plusWeeks(week).toString();
            return upTo ? mondayOf(day).compareTo(monday) <= 0 : mondayOf(day).equals(monday);
        }

        String text() {
            // Monday, 5 January 2026, begins its second week.
            return "m.p1=" + (upTo ? ".." : "") + "2026-W%02d".formatted(week + 2);
        }
    }

    private static final Map<Integer, String> COLUMNS = Map.of(1, "open", 2, "product", 3, "sky");

    /** The rows of a dataset that a visual shows. */
    private static List<Map<String, String>> left(World world, int dataset, List<Pick> picks, Played played) {
        List<Map<String, String>> rows = new ArrayList<>(world.of(dataset));
        for (Pick pick : picks) {
            if (pick.dataset() == dataset) rows.removeIf(row -> !pick.keeps(row));
            else if (pick.across()) {
                // All picks so far of the other table narrow it together.
                List<Pick> soFar = picks.subList(0, picks.indexOf(pick) + 1).stream()
                        .filter(p -> p.dataset() == pick.dataset())
                        .toList();
                List<Map<String, String>> there = world.of(pick.dataset()).stream()
                        .filter(row -> soFar.stream().allMatch(p -> p.keeps(row)))
                        .toList();
                Set<Map<String, String>> found = partners(world, pick.dataset(), there, dataset);
                rows.removeIf(row -> !found.contains(row));
            }
        }
        if (played != null && dataset == 2) rows.removeIf(row -> !played.keeps(row.get("day")));
        if (played != null && dataset == 3) rows.removeIf(row -> !played.keeps(row.get("monday")));
        return rows;
    }

    private static Dashboard dashboard(List<Pick> picks, boolean upTo) {
        List<String> visuals = new ArrayList<>();
        String at = "'page': 'p1', 'at': {'x': 0, 'y': %d, 'w': 6, 'h': 4}, 'title': '', ";
        for (int id = 1; id <= 3; id++) {
            visuals.add(("'v%d': {" + at + "'type': 'figure', 'dataset': %d, 'measure': {'summary': 'COUNT'}}")
                    .formatted(id, 4 * id, id));
            visuals.add(("'b%d': {" + at
                            + "'type': 'bars', 'dataset': %d, 'category': '%s', 'measure': {'summary': 'COUNT'}}")
                    .formatted(id, 20 + 4 * id, id, COLUMNS.get(id)));
        }
        for (boolean held : new boolean[] {true, false})
            visuals.add(("'%s': {" + at + "'type': 'bars', 'dataset': 2, 'category': 'kiosk', "
                            + "'measure': {'summary': 'SUM', 'column': 'litres'}, 'rank': {'end': 'TOP', 'count': "
                            + "2, 'held': %s}}")
                    .formatted(held ? "held" : "free", held ? 40 : 44, held));
        visuals.add(("'p1': {" + at + "'type': 'player', 'dataset': 2, 'column': 'day', 'step': 'WEEK', 'mode': '%s'}")
                .formatted(48, upTo ? "UP_TO" : "MOMENT"));
        String links = picks.stream()
                .map(pick -> "'k%d': {'from': 'b%d'%s%s}"
                        .formatted(
                                pick.dataset(),
                                pick.dataset(),
                                pick.across() ? ", 'across': true" : "",
                                pick.asks() ? ", 'asks': true" : ""))
                .collect(Collectors.joining(", "));
        return DashboardDocument.parse(
                        ("{'schema': 2, 'title': 'T', 'pages': {'p1': {'title': '', 'order': 1}}, 'filters': {}, "
                                        + "'links': {"
                                        + links + "}, 'visuals': {" + String.join(", ", visuals) + "}}")
                                .replace('\'', '"'))
                .dashboard();
    }

    private static Pick pick(Random random, int dataset, World world) {
        List<String> known = world.of(dataset).stream()
                .map(row -> row.get(COLUMNS.get(dataset)))
                .distinct()
                .sorted()
                .toList();
        Set<String> values = new HashSet<>();
        for (int n = 0; n <= random.nextInt(2); n++) values.add(known.get(random.nextInt(known.size())));
        return new Pick(
                dataset,
                COLUMNS.get(dataset),
                values,
                random.nextInt(4) == 0,
                random.nextInt(3) > 0,
                random.nextInt(6) == 0);
    }

    @Test
    void showWhatAPlainEvaluationShows() {
        Random random = new Random(20261128);
        int narrowed = 0;
        int ranked = 0;
        for (int w = 0; w < WORLDS; w++) {
            World world = new World(random);
            for (int s = 0; s < STATES; s++) {
                List<Pick> all =
                        Stream.of(1, 2, 3).map(d -> pick(random, d, world)).toList();
                List<Pick> turned =
                        all.stream().filter(p -> random.nextInt(3) > 0).toList();
                Played played = random.nextBoolean() ? new Played(random.nextInt(5), random.nextBoolean()) : null;
                Dashboard dashboard = dashboard(all, played != null && played.upTo());
                List<String> parts =
                        new ArrayList<>(turned.stream().map(Pick::text).toList());
                if (played != null) parts.add(played.text());
                Collections.shuffle(parts, random);
                String text = String.join("&", parts);
                StateReader.Read read = StateReader.read(text, dashboard, world.datasets, Kinds.ALL);
                Collections.reverse(parts);
                assertThat(StateReader.read(String.join("&", parts), dashboard, world.datasets, Kinds.ALL)
                                .state())
                        .as("the order in which things were done")
                        .isEqualTo(read.state());
                assertThat(StateReader.read(read.state().text(), dashboard, world.datasets, Kinds.ALL)
                                .state())
                        .as("the address round-trips")
                        .isEqualTo(read.state());
                // A moment of a week in which nothing was refilled is known to the player only within its span.
                Played shown = played != null && read.state().text().contains("m.p1") ? played : null;
                PageDrawer drawer = new PageDrawer(
                        dashboard,
                        read.state(),
                        new Sources(world.datasets, name -> Optional.empty(), FIRST),
                        new Answerer(ENGINE),
                        Map.of());
                Predicate<Pick> waits = pick -> pick.asks() && !turned.contains(pick);
                for (int dataset = 1; dataset <= 3; dataset++) {
                    Drawing drawing = drawer.draw("v" + dataset);
                    if (all.stream().anyMatch(waits)) {
                        assertThat(((MisfitDrawing) drawing).why()).startsWith("Pick something");
                        continue;
                    }
                    int expected = left(world, dataset, turned, shown).size();
                    assertThat(((FigureDrawing) drawing).text())
                            .as(
                                    "rows of %d under %s, refills %s, weather %s",
                                    dataset, text, world.refills, world.weather)
                            .isEqualTo(String.valueOf(expected));
                    if (expected < world.of(dataset).size()) narrowed++;
                }
                if (all.stream().anyMatch(waits)) continue;
                for (boolean held : new boolean[] {true, false}) {
                    BarsDrawing bars = (BarsDrawing) drawer.draw(held ? "held" : "free");
                    assertThat(bars.bars().stream()
                                    .map(b -> b.key() + " " + b.full())
                                    .toList())
                            .as("the two most, held %s, under %s, refills %s", held, text, world.refills)
                            .isEqualTo(ranked(world, turned, shown, held));
                    if (!bars.bars().isEmpty()) ranked++;
                }
            }
        }
        assertThat(narrowed).as("figures that were narrowed at all").isGreaterThan(500);
        assertThat(ranked).isGreaterThan(400);
    }

    /** The two kiosks with the most litres: of all, or of what is picked; with what they have of what is picked. */
    private static List<String> ranked(World world, List<Pick> picks, Played played, boolean held) {
        List<Map<String, String>> left = left(world, 2, picks, played);
        Map<String, Integer> of = litres(held ? left(world, 2, List.of(), null) : left);
        Set<String> most = of.entrySet().stream()
                .sorted(Map.Entry.<String, Integer>comparingByValue(Comparator.reverseOrder())
                        .thenComparing(Map.Entry.comparingByKey()))
                .limit(2)
                .map(Map.Entry::getKey)
                .collect(Collectors.toSet());
        return litres(left).entrySet().stream()
                .filter(e -> most.contains(e.getKey()))
                .sorted(Map.Entry.<String, Integer>comparingByValue(Comparator.reverseOrder())
                        .thenComparing(Map.Entry.comparingByKey()))
                .map(e -> e.getKey() + " " + e.getValue())
                .toList();
    }

    private static Map<String, Integer> litres(List<Map<String, String>> rows) {
        return rows.stream()
                .collect(Collectors.toMap(
                        row -> row.get("kiosk"),
                        row -> Integer.parseInt(row.get("litres")),
                        Integer::sum,
                        LinkedHashMap::new));
    }
}
