package sarnik.dashboard;

import static sarnik.table.TestTables.csv;

import java.time.LocalDate;
import java.util.Map;
import java.util.Optional;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.FilterScene;
import sarnik.narrow.StateReader;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.TablePlacer;
import sarnik.query.InMemoryEngine;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.Drawing;

/** Two small datasets, kiosks placed by name (1) and refills tied to them (2), and a dashboard of them. */
final class Fixture {

    static final String DOCUMENT = """
            {"schema": 1, "title": "Where?", "pages": {"p1": {"title": "", "order": 1}},
             "visuals": {
               "v1": {"type": "map", "page": "p1", "at": {"x": 0, "y": 0, "w": 12, "h": 10}, "title": "", "layers": {"l1": {"order": 1, "dataset": 2, "opacity": 0.8,
                 "size": {"measure": {"summary": "SUM", "column": "litres"}, "rule": "AREA", "radius": 20},
                 "colour": {"measure": {"summary": "AVERAGE", "column": "litres"}, "method": "NATURAL", "classes": 2, "palette": "loch"}}}},
               "v2": {"type": "bars", "page": "p1", "at": {"x": 12, "y": 0, "w": 12, "h": 6}, "title": "Top", "dataset": 2, "category": "@place",
                 "measure": {"summary": "SUM", "column": "litres"}, "rank": {"end": "TOP", "count": 2, "held": false}},
               "v3": {"type": "figure", "page": "p1", "at": {"x": 12, "y": 6, "w": 12, "h": 4}, "title": "", "dataset": 2, "measure": {"summary": "SUM", "column": "litres"}},
               "v4": {"type": "bars", "page": "p1", "at": {"x": 0, "y": 10, "w": 12, "h": 4}, "title": "", "dataset": 1, "category": "status", "measure": {"summary": "COUNT"}}},
             "filters": {
               "f1": {"type": "choice", "page": "p1", "order": 1, "dataset": 2, "column": "product", "title": ""},
               "f2": {"type": "dates", "page": "p1", "order": 2, "dataset": 2, "column": "day", "title": "Day"}},
             "links": {"k1": {"from": "v1"}, "k2": {"from": "v2", "to": ["v1", "v3"]}}}
            """;

    static final Dashboard DASHBOARD = DashboardDocument.parse(DOCUMENT).dashboard();
    static final InMemoryEngine ENGINE = new InMemoryEngine();

    /** What filters of a set of datasets are worked out in. */
    static FilterScene scene(Datasets datasets) {
        return new FilterScene(LocalDate.EPOCH, datasets, ENGINE);
    }

    private static final Table KIOSK_ROWS = csv(
            "code,town,province,country,status,phone",
            "K1,Soria,Soria,Spain,open,0600",
            "K2,Zamora,Zamora,Spain,open,0601",
            "K3,Burgos,Burgos,Spain,closed,0602",
            "K4,Nowhere,Burgos,Spain,open,0603");
    private static final Table REFILL_ROWS = csv(
            "kiosk,day,product,litres,state",
            "K1,2026-01-01,still,10,final",
            "K1,2026-02-01,warm,20,final",
            "K2,2026-01-15,still,100,final",
            "K3,2026-03-01,still,40,provisional",
            "K3,2026-03-02,warm,2,final",
            "K4,2026-01-01,still,1000,final");

    static final LoadedDataset KIOSKS;
    static final LoadedDataset REFILLS;

    static {
        TablePlacer placer = new TablePlacer(Gazetteer.shipped());
        Placing byName = new Placing.ByName("town", "province", "country");
        PlacedTable kiosks = placer.byName(KIOSK_ROWS, (Placing.ByName) byName);
        KIOSKS = new LoadedDataset(1, "Kiosks", kiosks.table(), byName, kiosks.places());
        PlacedTable refills = placer.byTie(REFILL_ROWS, "kiosk", kiosks, "code");
        REFILLS = new LoadedDataset(
                2, "Refills", refills.table(), new Placing.ByTie("kiosk", 1, "code"), refills.places());
    }

    static final Datasets DATASETS = id -> Datasets.Found.of(
            Optional.ofNullable(Map.of(1L, KIOSKS, 2L, REFILLS).get(id)));

    /** The place id of a kiosk's town. */
    static String place(int kiosk) {
        return KIOSKS.table().column(PlacedTable.PLACE).text(kiosk - 1);
    }

    static ReaderState state(String text) {
        return StateReader.read(text, DASHBOARD, DATASETS, Kinds.ALL).state();
    }

    static Drawing draw(String state, String id) {
        return Drawers.of(DASHBOARD, state(state), DATASETS).draw(id);
    }

    static Drawing drawEdited(String patch, String state, String id) {
        Dashboard edited = DashboardDocument.parse(DOCUMENT).edit(patch).after().dashboard();
        return Drawers.of(
                        edited,
                        StateReader.read(state, edited, DATASETS, Kinds.ALL).state(),
                        DATASETS)
                .draw(id);
    }

    private Fixture() {}
}
