package sarnik.carried;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.function.LongFunction;
import java.util.regex.Pattern;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DocumentJson;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Tie;
import sarnik.geo.BoundarySet;
import sarnik.geo.IndexedSet;
import sarnik.place.Place;
import sarnik.query.InMemoryEngine;
import sarnik.reading.ReadPage;
import sarnik.table.Table;
import sarnik.visual.SharedKey;

/**
 * Picks what a dashboard needs to be carried away: the columns that it names and that its formulas need, all rows that are
 * seen, the boundary sets and shared keys that it asks for. What was picked is drawn and compared with what all of it
 * draws; where anything differs, all columns are taken.
 */
public final class Carrier {

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final Function<String, Optional<SharedKey>> keys;
    private final LongFunction<Calculations> calculations;
    private final LocalDate today;
    private final String text;

    /** What was asked for while all was drawn. */
    private final Map<String, SharedKey> askedKeys = new ConcurrentHashMap<>();

    private final Map<String, IndexedSet> askedSets = new ConcurrentHashMap<>();

    /**
     * @param keys finds shared keys by name
     * @param calculations what is calculated over a dataset
     * @param today the day that relative periods are counted from
     */
    public Carrier(
            Dashboard dashboard,
            Datasets datasets,
            Function<String, Optional<SharedKey>> keys,
            LongFunction<Calculations> calculations,
            LocalDate today) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.keys = keys;
        this.calculations = calculations;
        this.today = today;
        this.text = DocumentJson.write(dashboard);
    }

    /**
     * What was picked of a dataset, for its author to look over.
     *
     * @param left columns that are not taken along
     */
    public record Said(String dataset, int rows, List<String> columns, List<String> left) {}

    /** What was picked. */
    public record Picked(CarriedFile file, List<Said> said) {}

    /**
     * @throws MisfitException when a dataset cannot be asked, or what is carried would not show the same; the message is
     *     for people
     */
    public Picked pick() {
        String whole = drawn(watched());
        Picked picked = picked(false);
        if (drawn(carried(picked)).equals(whole)) return picked;
        picked = picked(true);
        if (drawn(carried(picked)).equals(whole)) return picked;
        throw new MisfitException("Carried away, this dashboard would not show the same as here. It is not packed.");
    }

    private String drawn(Datasets of) {
        ReadPage page =
                new ReadPage(dashboard, of, this::key, new Answerer(new InMemoryEngine()), today, DocumentJson.PARTS);
        ReadPage.Frames frames = page.frames("", null, Map.of(), null, () -> {});
        return DocumentJson.write(List.of(
                new TreeMap<>(frames.drawings()), new TreeMap<>(frames.places()), new TreeMap<>(page.offers())));
    }

    private Datasets carried(Picked picked) {
        return CarriedPage.datasets(picked.file(), today);
    }

    private Optional<SharedKey> key(String name) {
        Optional<SharedKey> found = keys.apply(name);
        found.ifPresent(key -> askedKeys.put(name, key));
        return found;
    }

    /** The datasets themselves, noting which boundary sets are asked for. */
    private Datasets watched() {
        Boundaries around = datasets.boundaries();
        Boundaries noting = new Boundaries() {
            @Override
            public Optional<IndexedSet> find(String name) {
                Optional<IndexedSet> found = around.find(name);
                found.ifPresent(set -> askedSets.put(name, set));
                return found;
            }

            @Override
            public Optional<Place> provinceOf(Place place) {
                return around.provinceOf(place);
            }
        };
        Map<Long, LoadedDataset> watched = new LinkedHashMap<>();
        for (long id : dashboard.datasets()) {
            LoadedDataset of = datasets.get(id);
            watched.put(
                    id,
                    new LoadedDataset(
                            id,
                            of.name(),
                            of.table(),
                            of.placing(),
                            of.places(),
                            of.about(),
                            of.measures(),
                            of.rules(),
                            of.ties(),
                            noting));
        }
        return new Datasets() {
            @Override
            public Found find(long id) {
                return Found.of(Optional.ofNullable(watched.get(id)));
            }

            @Override
            public Boundaries boundaries() {
                return noting;
            }
        };
    }

    private Picked picked(boolean all) {
        List<CarriedFile.OfDataset> heads = new ArrayList<>();
        Map<Long, Table> tables = new LinkedHashMap<>();
        List<Said> said = new ArrayList<>();
        Map<String, Place> provinces = new LinkedHashMap<>();
        Map<String, String> provinceOf = new LinkedHashMap<>();
        for (long id : dashboard.datasets()) {
            LoadedDataset of = datasets.get(id);
            List<Calculations.Item> measures = calculations.apply(id).formulas().stream()
                    .filter(item ->
                            item.measure() && of.measures().containsKey(item.name()) && names(text, item.name()))
                    .toList();
            List<Tie> ties = of.ties().stream()
                    .filter(tie -> dashboard.datasets().contains(tie.dataset()))
                    .toList();
            Set<String> tied = tiedColumns(id, ties);
            List<String> taken = of.table().names().stream()
                    .filter(name -> all
                            || name.startsWith("@")
                            || tied.contains(name)
                            || names(text, name)
                            || measures.stream().anyMatch(item -> names(item.text(), name)))
                    .toList();
            Table table = of.table().only(taken);
            tables.put(id, table);
            heads.add(new CarriedFile.OfDataset(
                    id,
                    of.name(),
                    table.rows(),
                    of.placing(),
                    List.copyOf(of.places().values()),
                    of.about(),
                    measures,
                    of.rules().stream().map(rule -> rule.words()).toList(),
                    ties,
                    CarriedFile.columnsOf(table)));
            said.add(new Said(
                    of.name(),
                    table.rows(),
                    taken.stream().filter(name -> !name.startsWith("@")).toList(),
                    of.table().names().stream()
                            .filter(name -> !taken.contains(name))
                            .toList()));
            of.places()
                    .values()
                    .forEach(place -> datasets.boundaries().provinceOf(place).ifPresent(province -> {
                        provinces.put(province.id(), province);
                        provinceOf.put(place.id(), province.id());
                    }));
        }
        List<BoundarySet> sets =
                new TreeMap<>(askedSets).values().stream().map(IndexedSet::set).toList();
        CarriedFile.Head head = new CarriedFile.Head(
                dashboard,
                List.copyOf(new TreeMap<>(askedKeys).values()),
                heads,
                sets.stream()
                        .map(set -> new CarriedFile.OfSet(set.name(), set.level(), set.credit()))
                        .toList(),
                List.copyOf(provinces.values()),
                provinceOf);
        return new Picked(new CarriedFile(head, tables, sets), said);
    }

    /** Columns by which datasets of the dashboard are tied, on either side. */
    private Set<String> tiedColumns(long id, List<Tie> ties) {
        Set<String> columns = new LinkedHashSet<>();
        ties.forEach(tie -> columns.add(tie.column()));
        for (long other : dashboard.datasets())
            datasets.get(other).ties().stream()
                    .filter(tie -> tie.dataset() == id)
                    .forEach(tie -> columns.add(tie.equals()));
        return columns;
    }

    /** Whether a text names a column: as a word of its own, whatever stands around it. */
    private static boolean names(String text, String name) {
        return Pattern.compile("(?<![\\p{L}\\p{N}_])" + Pattern.quote(escaped(name)) + "(?![\\p{L}\\p{N}_])")
                .matcher(text)
                .find();
    }

    /** As it stands within JSON and in formulas alike: names with quotes stand there as they are written there. */
    private static String escaped(String name) {
        return name.replace("\\", "\\\\").replace("\"", "\\\"");
    }
}
