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
import java.util.stream.Collectors;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DocumentJson;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Tie;
import sarnik.data.TieGraph;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.geo.BoundarySet;
import sarnik.geo.IndexedSet;
import sarnik.place.Place;
import sarnik.query.FormulaMeasure;
import sarnik.query.InMemoryEngine;
import sarnik.reading.ReadPage;
import sarnik.table.Table;
import sarnik.visual.SharedKey;
import sarnik.visual.Visual;

/**
 * Picks what a dashboard needs to be carried away: the columns that it names and that its formulas need, all rows that
 * are seen, the boundary sets and shared keys that it asks for. What was picked is drawn and compared with what all of
 * it draws; where anything differs, all columns are taken.
 */
public final class Carrier {

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final Function<String, Optional<SharedKey>> keys;
    private final LongFunction<Calculations> calculations;
    private final LocalDate today;
    private final String text;
    private final Set<Long> reached;
    private final GrainUses uses;

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
        this.reached = reached(dashboard, datasets);
        this.uses = new GrainUses(dashboard);
    }

    /**
     * What was picked of a dataset, for its author to look over.
     *
     * @param rows that are seen
     * @param sums how many sums stand for them; null where they are carried as they are
     * @param left columns that are not taken along
     */
    public record Said(String dataset, int rows, Integer sums, List<String> columns, List<String> left) {}

    /** What was picked. */
    public record Picked(CarriedFile file, List<Said> said) {}

    /**
     * @throws MisfitException when a dataset cannot be asked, or what is carried would not show the same; the message
     *     is for people
     */
    public Picked pick() {
        Map<String, String> whole = drawn(watched());
        Picked picked = picked(false, true);
        if (drawn(carried(picked)).equals(whole)) return picked;
        if (picked.said().stream().anyMatch(said -> said.sums() != null)) {
            picked = picked(false, false);
            if (drawn(carried(picked)).equals(whole)) return picked;
        }
        picked = picked(true, false);
        Map<String, String> there = drawn(carried(picked));
        if (there.equals(whole)) return picked;
        String differing = whole.keySet().stream()
                .filter(part -> !whole.get(part).equals(there.get(part)))
                .map(this::called)
                .collect(Collectors.joining(", "));
        throw new MisfitException("Carried away, this dashboard would not show the same as here: %s. It is not packed."
                .formatted(differing));
    }

    private String called(String part) {
        Visual visual = dashboard.visuals().get(part);
        if (visual == null) return part;
        return visual.title() == null || visual.title().isBlank() ? part : "“" + visual.title() + "”";
    }

    /** What each part of the dashboard shows, as JSON. */
    private Map<String, String> drawn(Datasets of) {
        ReadPage page =
                new ReadPage(dashboard, of, this::key, new Answerer(new InMemoryEngine()), today, DocumentJson.PARTS);
        ReadPage.Frames frames = page.frames("", null, Map.of(), null, () -> {});
        Map<String, String> drawn = new TreeMap<>();
        frames.drawings().forEach((id, drawing) -> drawn.put(id, DocumentJson.write(drawing)));
        page.offers().forEach((id, offer) -> drawn.put("the filter " + id, DocumentJson.write(offer)));
        drawn.put("the places", DocumentJson.write(new TreeMap<>(frames.places())));
        return drawn;
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
        for (long id : reached) {
            LoadedDataset of = datasets.get(id);
            if (of.table().staying() != null)
                throw new MisfitException(
                        "The rows of “%s” stay in “%s”, so they cannot be carried away. Bring them in first."
                                .formatted(of.name(), of.table().staying().where()));
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
                            of.standing(),
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

    /**
     * @param all whether with all columns, else with those that it names
     * @param together whether large datasets are carried as sums at the finest grain that it asks for
     */
    private Picked picked(boolean all, boolean together) {
        List<CarriedFile.OfDataset> heads = new ArrayList<>();
        Map<Long, Table> tables = new LinkedHashMap<>();
        List<Said> said = new ArrayList<>();
        Map<String, Place> provinces = new LinkedHashMap<>();
        Map<String, String> provinceOf = new LinkedHashMap<>();
        for (long id : reached) {
            LoadedDataset of = datasets.get(id);
            boolean isShown = dashboard.datasets().contains(id);
            List<Calculations.Item> measures = calculations.apply(id).formulas().stream()
                    .filter(item ->
                            item.measure() && of.measures().containsKey(item.name()) && names(text, item.name()))
                    .toList();
            List<Tie> ties = of.ties().stream()
                    .filter(tie -> reached.contains(tie.dataset()))
                    .toList();
            Set<String> tied = tiedColumns(id);
            List<String> taken = of.table().names().stream()
                    .filter(name -> all
                            || name.startsWith("@")
                            || tied.contains(name)
                            || isShown && names(text, name)
                            || measures.stream().anyMatch(item -> names(item.text(), name)))
                    .toList();
            Table rows = of.table().only(taken);
            Table table = together ? together(of, rows, tied, measures).orElse(rows) : rows;
            tables.put(id, table);
            heads.add(new CarriedFile.OfDataset(
                    id,
                    of.name(),
                    table.rows(),
                    table.weights() != null,
                    of.placing(),
                    List.copyOf(of.places().values()),
                    of.about(),
                    measures,
                    of.standing().stream().map(rule -> rule.words()).toList(),
                    ties,
                    CarriedFile.columnsOf(table)));
            said.add(new Said(
                    of.name(),
                    rows.rows(),
                    table.weights() == null ? null : table.rows(),
                    taken.stream().filter(name -> !name.startsWith("@")).toList(),
                    of.table().names().stream()
                            .filter(name -> !taken.contains(name))
                            .toList()));
            of.places().values().forEach(place -> province(place, provinces, provinceOf));
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

    /** The sums of a dataset at the finest grain that is asked for; empty where its rows are carried. */
    private Optional<Table> together(LoadedDataset of, Table rows, Set<String> tied, List<Calculations.Item> measures) {
        boolean isCompared = dashboard.formulas().values().stream()
                .anyMatch(formula -> formula.dataset() == of.id()
                        || formula.reference() != null && formula.reference().dataset() == of.id());
        if (isCompared) return Optional.empty();
        Scope scope = Scope.of(of.table()).withPlaces(Set.of(Scope.PLACE), Set.of());
        Map<MeasureFormula, FormulaMeasure> formulas = new LinkedHashMap<>();
        for (Calculations.Item item : measures)
            formulas.put(MeasureFormula.parse(item.text(), scope), of.measures().get(item.name()));
        return Grains.of(rows, uses.of(rows, tied, formulas));
    }

    /** Notes the province of a place, and what that lies in: places are also counted by their provinces. */
    private void province(Place place, Map<String, Place> provinces, Map<String, String> provinceOf) {
        String codes = CarriedFile.codes(place);
        if (provinceOf.containsKey(codes)) return;
        datasets.boundaries().provinceOf(place).ifPresent(province -> {
            provinces.put(province.id(), province);
            provinceOf.put(codes, province.id());
            province(province, provinces, provinceOf);
        });
    }

    /** The datasets of the dashboard, and those over which the way leads from one of them to another. */
    private static Set<Long> reached(Dashboard dashboard, Datasets datasets) {
        Set<Long> reached = new LinkedHashSet<>(dashboard.datasets());
        TieGraph ties = new TieGraph(dashboard.datasets(), datasets);
        for (long from : dashboard.datasets())
            for (long to : dashboard.datasets())
                ties.way(from, to).orElse(List.of()).forEach(hop -> reached.add(hop.to()));
        return reached;
    }

    /** All ties of a dataset, also those that it is placed by. */
    private static List<Tie> ties(LoadedDataset of) {
        List<Tie> ties = new ArrayList<>(of.ties());
        if (of.placing() != null)
            of.placing().ties().forEach(tie -> ties.add(new Tie(tie.column(), tie.dataset(), tie.equals())));
        return ties;
    }

    /** Columns by which a dataset is tied to others, on either side. */
    private Set<String> tiedColumns(long id) {
        Set<String> columns = new LinkedHashSet<>();
        for (long one : reached)
            for (Tie tie : ties(datasets.get(one))) {
                if (!reached.contains(tie.dataset())) continue;
                if (one == id) columns.add(tie.column());
                if (tie.dataset() == id) columns.add(tie.equals());
            }
        return columns;
    }

    /** Whether a text names a column: as a word of its own, whatever stands around it. */
    static boolean names(String text, String name) {
        return Pattern.compile("(?<![\\p{L}\\p{N}_])" + Pattern.quote(escaped(name)) + "(?![\\p{L}\\p{N}_])")
                .matcher(text)
                .find();
    }

    /** As it stands within JSON and in formulas alike: names with quotes stand there as they are written there. */
    private static String escaped(String name) {
        return name.replace("\\", "\\\\").replace("\"", "\\\"");
    }
}
