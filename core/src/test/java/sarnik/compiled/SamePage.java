package sarnik.compiled;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.IntUnaryOperator;
import sarnik.dashboard.Answerer;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.PageDrawer;
import sarnik.dashboard.Sources;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.Filter;
import sarnik.narrow.Link;
import sarnik.narrow.Registry;
import sarnik.narrow.StateReader;
import sarnik.narrow.choice.Choice;
import sarnik.narrow.choice.ChoiceKind;
import sarnik.narrow.dates.Dates;
import sarnik.narrow.dates.DatesKind;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.table.Table;
import sarnik.visual.Drawing;
import sarnik.visual.Visual;
import sarnik.visual.ring.Ring;
import sarnik.visual.ring.RingDrawing;
import sarnik.visual.ring.RingKind;

/** Reads addresses, narrows a page of linked visuals by them and writes what is left of the rows, step by step. */
final class SamePage {

    private static final int TIMES = 30;
    private static final List<String> PARTS = List.of(
            "f.f1=yes",
            "f.f2=2025-01-01..2025-08-31",
            "p.v1=Soria",
            "p.v2=%C3%81vila.Soria",
            "p.v9=gone",
            "f.f1=maybe");

    private static final Registry KINDS =
            new Registry(List.of(new RingKind()), List.of(new ChoiceKind(), new DatesKind()));

    private final Datasets datasets;
    private final InMemoryEngine engine;
    private final IntUnaryOperator below;

    SamePage(Table table, InMemoryEngine engine, IntUnaryOperator below) {
        LoadedDataset dataset = new LoadedDataset(1, "Rows", table, null, Map.of());
        this.datasets = id -> new Datasets.Found.Ready(dataset);
        this.engine = engine;
        this.below = below;
    }

    void draw() {
        Map<String, Visual> visuals = new LinkedHashMap<>();
        visuals.put("v1", ring("town"));
        visuals.put("v2", ring("open"));
        Map<String, Filter> filters =
                Map.of("f1", new Choice("p1", 1, 1, "open", ""), "f2", new Dates("p1", 2, 1, "day", ""));
        Dashboard dashboard = new Dashboard(
                2,
                "Same",
                Map.of("p1", new Dashboard.Page("", 1)),
                visuals,
                filters,
                Map.of("k1", new Link("v1", null)),
                Map.of(),
                null,
                null,
                null,
                null,
                null,
                null,
                null,
                null);
        for (int n = 0; n < TIMES; n++) {
            StringBuilder address = new StringBuilder();
            for (String part : PARTS)
                if (below.applyAsInt(2) == 0)
                    address.append(address.isEmpty() ? "" : "&").append(part);
            StateReader.Read read = StateReader.read(address.toString(), dashboard, datasets, KINDS);
            SameCore.say(address + " " + read.misfits());
            Map<String, Drawing> drawn = new PageDrawer(
                            dashboard, read.state(), new Sources(datasets), new Answerer(engine), Map.of(), KINDS)
                    .draw(visuals.keySet(), () -> {});
            new TreeMap<>(drawn).forEach((id, drawing) -> say(id, drawing));
        }
    }

    private static void say(String id, Drawing drawing) {
        if (!(drawing instanceof RingDrawing ring)) {
            SameCore.say(id + " " + drawing.title());
            return;
        }
        ring.trail().steps().forEach(step -> SameCore.say(id + " " + step.words() + ": " + step.left()));
        ring.parts().forEach(part -> SameCore.say(part.label() + " " + part.full()));
    }

    private static Ring ring(String column) {
        return new Ring("p1", null, "", 1, column, Measure.ROWS, null, null, null, null);
    }
}
