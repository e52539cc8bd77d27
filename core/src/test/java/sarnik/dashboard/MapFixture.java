package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import sarnik.brief.Brief;
import sarnik.data.About;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.PlaceSheet;
import sarnik.format.BoundaryFiles;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.geo.IndexedSet;
import sarnik.narrow.StateReader;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.TablePlacer;
import sarnik.query.InMemoryEngine;
import sarnik.table.Table;
import sarnik.visual.Drawing;
import sarnik.visual.SharedKey;
import sarnik.visual.Sight;
import sarnik.visual.map.LayerDrawn;
import sarnik.visual.map.MapDrawing;

/** Datasets with places and maps of them, for tests of layers. */
public final class MapFixture {

    public static final String PROVINCES = "Provinces of Spain";
    public static final IndexedSet SET = new IndexedSet(BoundaryFiles.shipped(BoundaryFiles.Shipped.PROVINCES));
    public static final Boundaries BOUNDARIES = name -> name.equals(PROVINCES) ? Optional.of(SET) : Optional.empty();
    static final InMemoryEngine ENGINE = new InMemoryEngine();

    static final TablePlacer PLACER = new TablePlacer(Gazetteer.shipped());

    static LoadedDataset dataset(long id, String name, PlacedTable placed, Placing placing) {
        return new LoadedDataset(
                id,
                name,
                placed.table(),
                placing,
                placed.places(),
                new About(null, null, name + "’s credit", null, null, Map.of("litres", new About.OfColumn("L", ""))),
                Map.of(),
                List.of(),
                List.of(),
                BOUNDARIES);
    }

    /** Three towns of two provinces, with two rows each. */
    static LoadedDataset sales() {
        Table rows = csv(
                "town,province,country,product,litres,day",
                "Soria,Soria,Spain,still,10,2026-01-01",
                "Soria,Soria,Spain,warm,30,2026-02-01",
                "Zamora,Zamora,Spain,still,100,2026-01-01",
                "Zamora,Zamora,Spain,still,60,2026-03-01",
                "Benavente,Zamora,Spain,warm,5,2026-01-01",
                "Benavente,Zamora,Spain,warm,15,2026-02-01");
        Placing.ByName by = new Placing.ByName("town", "province", "country");
        return dataset(1, "Sales", PLACER.byName(rows, by), by);
    }

    /** The sales with measures that are worked out. */
    static LoadedDataset sales(Calculations.Item... measures) {
        LoadedDataset plain = sales();
        Calculations.Applied applied = new Calculations(List.of(measures), List.of())
                .apply(plain.table(), Scope.of(plain.table()), Surroundings.on(LocalDate.of(2026, 5, 31)));
        assertThat(applied.troubles()).isEmpty();
        return new LoadedDataset(
                1,
                "Sales",
                applied.table(),
                plain.placing(),
                plain.places(),
                plain.about(),
                applied.measures(),
                List.of(),
                List.of(),
                BOUNDARIES);
    }

    /** Points with nothing, zero and a negative figure among them. */
    static LoadedDataset odd() {
        Table rows = csv(
                "town,province,country,litres",
                "Soria,Soria,Spain,0",
                "Zamora,Zamora,Spain,-40",
                "Burgos,Burgos,Spain,",
                "Palencia,Palencia,Spain,10");
        Placing.ByName by = new Placing.ByName("town", "province", "country");
        return dataset(2, "Odd", PLACER.byName(rows, by), by);
    }

    static LoadedDataset sent() {
        Table rows = csv(
                "from,to,pieces",
                "Soria,Zamora,10",
                "Soria,Zamora,20",
                "Zamora,Soria,7",
                "Soria,Soria,3",
                "Soria,Burgos,1");
        Placing.FromTo by = new Placing.FromTo(new Placing.ByWords("from"), new Placing.ByWords("to"));
        return dataset(3, "Sent", PLACER.by(rows, by), by);
    }

    static LoadedDataset rounds() {
        Table rows = csv(
                "van,at,lat,lon",
                "A,2026-05-18T08:00,41.0,-3.0",
                "A,2026-05-18T09:00,41.2,-3.0",
                "A,2026-05-18T15:00,41.4,-3.0",
                "B,2026-05-18T08:30,40.0,-4.0",
                "B,2026-05-18T08:00,40.0,-4.1");
        Placing.ByCoordinates by = new Placing.ByCoordinates("lat", "lon");
        return dataset(4, "Rounds", PLACER.byCoordinates(rows, by), by);
    }

    static final Map<Long, LoadedDataset> ALL = Map.of(1L, sales(), 2L, odd(), 3L, sent(), 4L, rounds());
    static final Datasets DATASETS = new Datasets() {
        @Override
        public Found find(long id) {
            return Found.of(Optional.ofNullable(ALL.get(id)));
        }

        @Override
        public Boundaries boundaries() {
            return BOUNDARIES;
        }
    };

    static DashboardDocument document(String... layers) {
        StringBuilder all = new StringBuilder();
        for (int i = 0; i < layers.length; i++)
            all.append(i == 0 ? "" : ",")
                    .append("\"l%d\": {\"order\": %d, \"opacity\": 0.8, %s}".formatted(i + 1, i + 1, layers[i]));
        return DashboardDocument.parse("""
                {"schema": 1, "title": "x", "pages": {"p1": {"title": "", "order": 1}}, "filters": {},
                 "visuals": {"v1": {"type": "map", "page": "p1", "at": {"x": 0, "y": 0, "w": 12, "h": 10}, "title": "", "layers": {%s}},
                   "v2": {"type": "figure", "page": "p1", "at": {"x": 12, "y": 0, "w": 4, "h": 4}, "title": "", "dataset": 1, "measure": {"summary": "SUM", "column": "litres"}}},
                 "links": {"k1": {"from": "v1"}}, "parameters": {"n1": {"name": "Wanted", "order": 1, "value": 30, "low": 0, "high": 100}}}""".formatted(all));
    }

    static Dashboard map(String... layers) {
        return document(layers).dashboard();
    }

    record Drawn(MapDrawing map, Map<String, PlaceSheet> sheets) {
        LayerDrawn.OfSymbols symbols() {
            return (LayerDrawn.OfSymbols) map.layers().get(0);
        }

        LayerDrawn.OfAreas areas() {
            return (LayerDrawn.OfAreas) map.layers().get(0);
        }

        LayerDrawn.OfFlows flows() {
            return (LayerDrawn.OfFlows) map.layers().get(0);
        }

        List<String> names(String tag, int[] at) {
            return Arrays.stream(at).mapToObj(sheets.get(tag).names()::get).toList();
        }

        String note() {
            return String.join(" ", map.layers().get(0).head().notes());
        }
    }

    static Drawn draw(String state, Map<String, Sight> sights, Map<String, SharedKey> keys, String... layers) {
        Dashboard dashboard = map(layers);
        PageDrawer drawer = new PageDrawer(
                dashboard,
                StateReader.read(state, dashboard, DATASETS, Kinds.ALL).state(),
                new Sources(DATASETS, name -> Optional.ofNullable(keys.get(name)), java.time.LocalDate.EPOCH),
                Drawers.ANSWERER,
                sights);
        Drawing drawing = drawer.draw("v1");
        return new Drawn((MapDrawing) drawing, drawer.sheets());
    }

    static Drawn draw(String... layers) {
        return draw("", Map.of(), Map.of(), layers);
    }

    /** What the slot of a brief that writes to a path offers. */
    static List<String> options(Brief brief, String path) {
        return Stream.concat(brief.parts().stream(), brief.finish().stream())
                .filter(Brief.Control.class::isInstance)
                .map(Brief.Control.class::cast)
                .filter(c -> c.path().equals(path))
                .flatMap(c -> c.options().stream())
                .map(Brief.Option::text)
                .toList();
    }

    static final String LITRES = "\"measure\": {\"summary\": \"SUM\", \"column\": \"litres\"}";

    private MapFixture() {}
}
