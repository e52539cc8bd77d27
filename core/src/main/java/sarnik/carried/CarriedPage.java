package sarnik.carried;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import sarnik.dashboard.AnswerStore;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.PartJson;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.geo.BoundarySet;
import sarnik.geo.IndexedSet;
import sarnik.language.Language;
import sarnik.narrow.Filter;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.InMemoryEngine;
import sarnik.query.QueryException;
import sarnik.query.Segments;
import sarnik.query.Stage;
import sarnik.reading.ReadPage;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.Table;
import sarnik.visual.SharedKey;
import sarnik.visual.Sight;
import sarnik.visual.Visual;

/**
 * A dashboard that was carried away, answering what its page asks: the same questions as the server, in the same form.
 */
public final class CarriedPage {

    private static final long KEPT_CELLS = 2_000_000;

    private final RecordJson json;
    private final ReadPage page;

    /**
     * What is asked. Each question says some of it.
     *
     * @param state a reader state's text form
     * @param file whether it is asked for a file, of which programs read the numbers; null for no
     */
    public record Question(
            String state,
            Boolean file,
            List<String> ids,
            Map<String, Sight> sights,
            Set<String> known,
            String visual,
            String layer,
            String place,
            Double metres,
            Integer count,
            String filter,
            String find,
            String words) {}

    /**
     * What is answered.
     *
     * @param answer null where it is refused
     * @param refused a sentence; null where it is answered
     */
    public record Answer(Object answer, String refused) {}

    /** @param today the day that relative periods are counted from */
    public CarriedPage(CarriedFile file, RecordJson json, LocalDate today) {
        this.json = json;
        Map<String, SharedKey> keys = file.head().keys().stream().collect(Collectors.toMap(SharedKey::name, k -> k));
        this.page = new ReadPage(
                file.head().dashboard(),
                datasets(file, today),
                name -> Optional.ofNullable(keys.get(name)),
                new Answerer(new InMemoryEngine(Segments.PLAIN), new AnswerStore(KEPT_CELLS)),
                today,
                parts(json));
    }

    /** The datasets of what was carried. */
    static Datasets datasets(CarriedFile file, LocalDate today) {
        Boundaries boundaries = boundaries(file.head(), file.sets());
        Map<Long, LoadedDataset> datasets = new HashMap<>();
        for (CarriedFile.OfDataset of : file.head().datasets())
            datasets.put(of.id(), loaded(of, file.tables().get(of.id()), boundaries, today));
        return new Datasets() {
            @Override
            public Found find(long id) {
                return Found.of(Optional.ofNullable(datasets.get(id)));
            }

            @Override
            public Boundaries boundaries() {
                return boundaries;
            }
        };
    }

    private static PartJson parts(RecordJson json) {
        return new PartJson() {
            @Override
            public Map<String, Object> plain(Object part) {
                return json.plain(part);
            }

            @Override
            public Visual visual(Map<String, Object> plain) {
                return json.read(plain, Visual.class);
            }

            @Override
            public Filter filter(Map<String, Object> plain) {
                return json.read(plain, Filter.class);
            }
        };
    }

    private static Boundaries boundaries(CarriedFile.Head head, List<BoundarySet> sets) {
        Map<String, IndexedSet> indexed = new HashMap<>();
        sets.forEach(set -> indexed.put(set.name(), new IndexedSet(set)));
        Map<String, Place> provinces = new HashMap<>();
        head.provinces().forEach(p -> provinces.put(p.id(), p));
        return new Boundaries() {
            @Override
            public Optional<IndexedSet> find(String name) {
                return Optional.ofNullable(indexed.get(name));
            }

            @Override
            public Optional<Place> provinceOf(Place place) {
                return Optional.ofNullable(provinces.get(head.provinceOf().get(CarriedFile.codes(place))));
            }
        };
    }

    private static LoadedDataset loaded(CarriedFile.OfDataset of, Table table, Boundaries boundaries, LocalDate today) {
        Map<String, Place> places = new LinkedHashMap<>();
        of.places().forEach(place -> places.put(place.id(), place));
        Map<String, IntFunction<double[]>> at = new HashMap<>();
        table.find(PlacedTable.PLACE).ifPresent(c -> at.put(Scope.PLACE, position(c, places)));
        table.find(PlacedTable.ORIGIN).ifPresent(c -> at.put("origin", position(c, places)));
        Scope scope = Scope.of(table).withPlaces(at.keySet(), Set.of());
        Surroundings surroundings = new Surroundings(Map.of(), at, Map.of(), today);
        Map<String, FormulaMeasure> measures = new LinkedHashMap<>();
        for (Calculations.Item item : of.measures())
            measures.put(item.name(), FormulaMeasure.of(MeasureFormula.parse(item.text(), scope), table, surroundings));
        List<Stage> rules = IntStream.range(0, of.rules().size())
                .mapToObj(i -> new Stage(
                        of.rules().get(i), List.of(new Condition.OneOf(Calculations.RULE + (i + 1), List.of("yes")))))
                .toList();
        return new LoadedDataset(
                of.id(), of.name(), table, of.placing(), places, of.about(), measures, rules, of.ties(), boundaries);
    }

    private static IntFunction<double[]> position(Column column, Map<String, Place> places) {
        CodedColumn ids = (CodedColumn) column;
        return row -> {
            String id = ids.text(row);
            Place place = id == null ? null : places.get(id);
            return place == null ? null : new double[] {place.lon(), place.lat()};
        };
    }

    /**
     * Answers a question.
     *
     * @param what as it stands at the end of the server's address: {@code frames}
     * @param body the question as JSON, a {@link Question}
     * @return an {@link Answer} as JSON
     */
    public String answer(String what, String body) {
        return json.write(answered(what, json.read(body, Question.class)));
    }

    private Answer answered(String what, Question asked) {
        try {
            Language spoken = Language.spoken();
            Language language = Boolean.TRUE.equals(asked.file()) ? spoken.forFiles() : spoken;
            return new Answer(Language.in(language, () -> found(what, asked)), null);
        } catch (MisfitException | QueryException misfit) {
            return new Answer(null, misfit.getMessage());
        }
    }

    private Object found(String what, Question asked) {
        String state = asked.state() == null ? "" : asked.state();
        return switch (what) {
            case "frames" -> page.frames(state, asked.ids(), asked.sights(), asked.known(), () -> {});
            case "filters/values" -> page.values(state, asked.filter(), asked.find());
            case "narrowings" -> page.find(state, asked.words());
            case "places/told" -> page.told(state, asked.visual(), asked.layer(), asked.place());
            case "places/others" ->
                page.others(state, asked.visual(), asked.layer(), asked.place(), asked.metres(), asked.count());
            default -> throw new MisfitException(phrase("This is not part of what was carried away."));
        };
    }
}
