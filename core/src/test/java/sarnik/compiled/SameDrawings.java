package sarnik.compiled;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntUnaryOperator;
import java.util.function.Supplier;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.PlaceSheet;
import sarnik.data.Ranking;
import sarnik.data.Rule;
import sarnik.query.Frame;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Over;
import sarnik.query.Rank;
import sarnik.query.RowPage;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.state.ReaderState;
import sarnik.table.Table;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.AskedRows;
import sarnik.visual.Drawing;
import sarnik.visual.Plan;
import sarnik.visual.Reference;
import sarnik.visual.Scene;
import sarnik.visual.SharedKey;
import sarnik.visual.Sight;
import sarnik.visual.Source;
import sarnik.visual.States;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;
import sarnik.visual.bars.Bars;
import sarnik.visual.bars.BarsDrawing;
import sarnik.visual.bars.BarsKind;
import sarnik.visual.figure.Figure;
import sarnik.visual.figure.FigureDrawing;
import sarnik.visual.figure.FigureKind;
import sarnik.visual.funnel.Funnel;
import sarnik.visual.funnel.FunnelDrawing;
import sarnik.visual.funnel.FunnelKind;
import sarnik.visual.grid.Grid;
import sarnik.visual.grid.GridDrawing;
import sarnik.visual.grid.GridKind;
import sarnik.visual.lines.Lines;
import sarnik.visual.lines.LinesDrawing;
import sarnik.visual.lines.LinesKind;
import sarnik.visual.list.ListDrawing;
import sarnik.visual.list.ListKind;
import sarnik.visual.list.Listing;
import sarnik.visual.ring.Ring;
import sarnik.visual.ring.RingDrawing;
import sarnik.visual.ring.RingKind;
import sarnik.visual.scatter.Scatter;
import sarnik.visual.scatter.ScatterDrawing;
import sarnik.visual.scatter.ScatterKind;
import sarnik.visual.table.TableDrawing;
import sarnik.visual.table.TableKind;
import sarnik.visual.table.TableVisual;
import sarnik.visual.words.Words;
import sarnik.visual.words.WordsDrawing;
import sarnik.visual.words.WordsKind;

/** Plans, answers and draws visuals of several kinds over generated narrowings and writes what is drawn. */
final class SameDrawings {

    private static final int TIMES = 25;
    private static final Measure LITRES = new Measure(Summary.SUM, "litres");
    private static final Measure PIECES = new Measure(Summary.AVERAGE, "pieces");

    private final LoadedDataset dataset;
    private final InMemoryEngine engine;
    private final IntUnaryOperator below;

    SameDrawings(Table table, InMemoryEngine engine, IntUnaryOperator below) {
        this.dataset = new LoadedDataset(1, "Rows", table, null, Map.of());
        this.engine = engine;
        this.below = below;
    }

    void draw(Supplier<List<Stage>> stages) {
        for (int n = 0; n < TIMES; n++) {
            SameScene scene = new SameScene(dataset, stages.get(), stages.get());
            boolean turn = below.applyAsInt(2) == 0;
            bars((BarsDrawing) drawn(new BarsKind(), bars(turn), scene));
            lines((LinesDrawing) drawn(new LinesKind(), lines(turn), scene));
            ring((RingDrawing) drawn(
                    new RingKind(),
                    new Ring("p", null, "", 1, "town", Measure.ROWS, turn ? 3 : null, null, null, null),
                    scene));
            funnel((FunnelDrawing) drawn(
                    new FunnelKind(),
                    new Funnel("p", null, "", 1, "town", Measure.ROWS, LITRES, null, null, turn, null),
                    scene));
            scatter((ScatterDrawing) drawn(
                    new ScatterKind(),
                    new Scatter(
                            "p",
                            null,
                            "",
                            1,
                            "town",
                            LITRES,
                            PIECES,
                            turn ? Measure.ROWS : null,
                            null,
                            true,
                            Scatter.Quarters.MEAN,
                            null,
                            null,
                            null),
                    scene));
            grid((GridDrawing) drawn(
                    new GridKind(),
                    new Grid(
                            "p",
                            null,
                            "",
                            1,
                            new Grid.Edge("at", TimeStep.HOUR_OF_DAY, null),
                            turn ? new Grid.Edge("town", null, null) : new Grid.Edge("day", TimeStep.WEEKDAY, null),
                            LITRES,
                            null,
                            null,
                            null),
                    scene));
            table((TableDrawing) drawn(
                    new TableKind(),
                    new TableVisual(
                            "p",
                            null,
                            "",
                            1,
                            List.of("town", "open"),
                            List.of(LITRES, Measure.ROWS),
                            null,
                            null,
                            true,
                            turn,
                            true,
                            List.of(new TableVisual.Look(LITRES, new States(2, 1))),
                            turn ? "day" : null,
                            null,
                            null),
                    scene));
            figure((FigureDrawing) drawn(
                    new FigureKind(),
                    new Figure(
                            "p",
                            null,
                            "",
                            1,
                            turn ? LITRES : PIECES,
                            new Figure.Against(
                                    turn ? Figure.Against.Kind.YEAR : Figure.Against.Kind.WHOLE, null, null, "day"),
                            new States(2, 1),
                            "day",
                            null,
                            null,
                            null),
                    scene));
            list((ListDrawing) drawn(
                    new ListKind(),
                    new Listing(
                            "p",
                            null,
                            "",
                            1,
                            turn ? "town" : null,
                            turn ? "{town}: {sum of litres}" : "{town} on {day}",
                            null,
                            turn ? List.of(LITRES) : null,
                            null,
                            turn ? null : new Listing.By("litres", true),
                            null,
                            null,
                            null),
                    scene));
            SameCore.say(((WordsDrawing) drawn(
                            new WordsKind(),
                            new Words(
                                    "p",
                                    null,
                                    "",
                                    "# Refills\n\n**{sum of litres}** in all:\n\n- one `two`\n- "
                                            + "[three](https://example.org)",
                                    1L,
                                    List.of(LITRES)),
                            scene))
                    .blocks()
                    .toString());
        }
    }

    private static Bars bars(boolean turn) {
        return new Bars(
                "p",
                null,
                "",
                1,
                "town",
                turn ? LITRES.over(new Over(Over.Kind.SHARE, null, null)) : LITRES,
                new Ranking(Rank.End.BOTH, 2, turn, true),
                null,
                turn ? null : "open",
                null,
                turn,
                null,
                null,
                null,
                List.of(new Reference(Reference.Kind.MEAN, null, null, null, null)),
                null,
                null,
                null);
    }

    private static Lines lines(boolean turn) {
        return new Lines(
                "p",
                null,
                "",
                1,
                "day",
                turn ? TimeStep.MONTH : TimeStep.WEEK,
                null,
                List.of(LITRES),
                turn ? "open" : null,
                null,
                null,
                turn ? null : true,
                null,
                null,
                null,
                null,
                null);
    }

    private <V extends Visual> Drawing drawn(VisualKind<V> kind, V visual, Scene scene) {
        Plan plan = kind.plan(visual, scene);
        Map<Asked, Frame> frames = new HashMap<>();
        for (Asked asked : plan.asked())
            frames.put(asked, engine.answer(asked.dataset().table(), asked.query()));
        Drawing drawing = plan.draw(new Answers() {
            @Override
            public Frame of(Asked asked) {
                return frames.get(asked);
            }

            @Override
            public RowPage rows(AskedRows asked) {
                return engine.rows(asked.dataset().table(), asked.query());
            }
        });
        SameCore.say(kind.name() + " “" + drawing.title() + "”");
        return drawing;
    }

    private static String bits(double... values) {
        StringBuilder text = new StringBuilder();
        for (double v : values)
            text.append(Long.toHexString(Double.doubleToLongBits(v))).append(' ');
        return text.toString();
    }

    private static void bars(BarsDrawing drawn) {
        SameCore.say(drawn.words() + " " + drawn.others() + " " + drawn.notes());
        drawn.axis().ticks().forEach(t -> SameCore.say(t.text() + " " + bits(t.at())));
        for (BarsDrawing.Bar bar : drawn.bars()) {
            SameCore.say(bar.label() + "|" + bar.text() + "|" + bar.full() + "|" + bits(bar.start(), bar.end()));
            if (bar.parts() != null)
                bar.parts()
                        .forEach(p -> SameCore.say(
                                "  " + p.label() + "|" + p.colour() + "|" + p.text() + "|" + bits(p.start(), p.end())));
        }
        drawn.references().forEach(r -> SameCore.say(r.text() + " " + bits(r.value())));
    }

    private static void lines(LinesDrawing drawn) {
        SameCore.say(drawn.words() + " " + drawn.steps() + " " + drawn.from() + " " + drawn.to() + " " + drawn.notes());
        drawn.ticks().forEach(t -> SameCore.say(t.step() + " " + t.text()));
        drawn.lines()
                .forEach(l -> SameCore.say(l.label() + "|" + l.colour() + "|" + l.texts() + "|" + bits(l.values())));
    }

    private static void ring(RingDrawing drawn) {
        SameCore.say(drawn.whole() + " " + drawn.wholeFull() + " " + drawn.notes());
        drawn.parts()
                .forEach(p -> SameCore.say(p.label() + "|" + p.colour() + "|" + p.percent() + "|" + bits(p.share())));
    }

    private static void scatter(ScatterDrawing drawn) {
        ScatterDrawing.Dots dots = drawn.dots();
        for (int d = 0; d < dots.count(); d++)
            SameCore.say(dots.label(d) + "|" + dots.texts().get(0).get(d) + "|"
                    + dots.texts().get(1).get(d) + "|" + dots.x()[d] + " " + dots.y()[d]);
        for (int n : dots.named()) SameCore.say("named " + n);
        SameCore.say(dots.palette() + bits(dots.radii()));
        if (drawn.fit() != null)
            SameCore.say(drawn.fit().words() + " " + bits(drawn.fit().from())
                    + bits(drawn.fit().to()));
        if (drawn.cut() != null) SameCore.say(bits(drawn.cut()));
    }

    private static void funnel(FunnelDrawing drawn) {
        drawn.dots()
                .forEach(d -> SameCore.say(d.label() + "|" + d.x() + " " + d.y() + " " + d.beyond() + d.unsure()
                        + d.named() + "|" + d.texts()));
        drawn.limits()
                .forEach(l -> SameCore.say(
                        l.words() + java.util.Arrays.toString(l.low()) + java.util.Arrays.toString(l.high())));
        SameCore.say(drawn.wholeWords() + drawn.notes());
    }

    private static void figure(FigureDrawing drawn) {
        SameCore.say(drawn.text() + "|" + drawn.full() + "|" + drawn.against() + "|" + drawn.state() + "|"
                + drawn.lineWords());
        if (drawn.line() != null) drawn.line().forEach(value -> SameCore.say(value == null ? "-" : bits(value)));
    }

    private static void list(ListDrawing drawn) {
        drawn.lines().forEach(l -> SameCore.say(l.key() + "|" + l.text() + "|" + l.record()));
        SameCore.say(drawn.all() + " " + drawn.unit() + " " + drawn.notes());
    }

    private static void grid(GridDrawing drawn) {
        StringBuilder classes = new StringBuilder();
        for (int c : drawn.classes()) classes.append(c).append(' ');
        SameCore.say(classes + " " + drawn.texts());
        drawn.across().forEach(h -> SameCore.say(h.key() + " " + h.label()));
        drawn.key().colours().forEach(c -> SameCore.say(c.colour() + " " + c.text() + " " + c.count()));
    }

    private static void table(TableDrawing drawn) {
        drawn.rows().forEach(r -> SameCore.say(r.key() + "|" + r.cells() + "|" + r.tints() + "|" + r.sub()));
        SameCore.say(
                drawn.all() + " " + (drawn.total() == null ? "" : drawn.total().cells()));
    }

    /** A scene of one dataset without a reader. */
    private record SameScene(LoadedDataset only, List<Stage> narrowed, List<Stage> before) implements Scene {

        @Override
        public String id() {
            return "v1";
        }

        @Override
        public LoadedDataset dataset(long id) {
            return only;
        }

        @Override
        public Datasets datasets() {
            return id -> new Datasets.Found.Ready(only);
        }

        @Override
        public List<Stage> shown(LoadedDataset dataset, Rule rule) {
            return narrowed;
        }

        @Override
        public List<Stage> whole(LoadedDataset dataset, Rule rule) {
            return before;
        }

        @Override
        public Plan plan(String visual) {
            throw new IllegalStateException("There is no other visual");
        }

        @Override
        public Optional<String> same(Source source, LoadedDataset dataset) {
            return Optional.empty();
        }

        @Override
        public ReaderState state() {
            return ReaderState.NOTHING;
        }

        @Override
        public Optional<Double> number(String parameter) {
            return Optional.empty();
        }

        @Override
        public Optional<SharedKey> key(String name) {
            return Optional.empty();
        }

        @Override
        public Sight sight() {
            return Sight.FIRST;
        }

        @Override
        public LocalDate today() {
            return LocalDate.of(2026, 5, 26);
        }

        @Override
        public void names(PlaceSheet sheet) {
            throw new IllegalStateException("Nothing here has a place");
        }

        @Override
        public PlaceSheet sheet(String tag) {
            throw new IllegalStateException("Nothing here has a place");
        }
    }
}
