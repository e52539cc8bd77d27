package sarnik.visual.details;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.IntStream;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.place.Place;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.RowPage;
import sarnik.query.RowQuery;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.scale.Aligned;
import sarnik.state.Texts;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.AskedRows;
import sarnik.visual.Fields;
import sarnik.visual.Plan;
import sarnik.visual.Scene;
import sarnik.visual.Source;
import sarnik.visual.TinyLine;
import sarnik.visual.Trail;
import sarnik.visual.Written;

/** How a sheet of details is drawn. */
final class DetailsPlan {

    private static final int MOST_VALUES = 4;
    private static final int MOST_ROWS = 6;
    private static final int MOST_HEADS = 5;
    private static final int MOST_SPOTS = 600;

    private final Details details;
    private final Scene scene;
    private final LoadedDataset dataset;
    private final Plan plan = new Plan();
    private final List<Measure> figures;
    /** The value asked for; null for the first. */
    private final String wanted;

    private final Asked all;
    private final List<Stage> one;
    private final Asked measured;
    private final Map<String, Asked> columns = new LinkedHashMap<>();
    private final Map<LoadedDataset, AskedRows> tied = new LinkedHashMap<>();
    private final List<String> untied = new ArrayList<>();
    private Asked around;
    /** Figures that rest on the others as well, among all; null where there are none. */
    private Asked among;

    private final List<Measure> amongOthers;
    private Asked lines;
    private TimeStep step;

    DetailsPlan(Details details, Scene scene) {
        this.details = details;
        this.scene = scene;
        LoadedDataset known = scene.dataset(details.dataset());
        this.dataset = known.with(details.by());
        this.figures = details.figures() == null ? List.of() : details.figures();
        this.wanted = scene.sight().find() == null || scene.sight().find().isEmpty()
                ? null
                : scene.sight().find();
        List<Stage> shown = scene.shown(dataset, details.rule());
        Query each =
                Query.of(shown, List.of(details.by()), List.of(Measure.ROWS)).filled();
        all = plan.ask(dataset, each);
        // Where it lies is told by the others, also while one alone is picked.
        if (Boolean.TRUE.equals(details.spot()))
            around = plan.ask(
                    dataset,
                    Query.of(scene.whole(dataset, details.rule()), List.of(details.by()), List.of(Measure.ROWS))
                            .filled());
        one = new ArrayList<>(shown);
        one.add(new Stage(phrase("Only the one whose sheet this is"), List.of(only(each))));
        List<Measure> measures = new ArrayList<>(figures);
        // The ends of numbers are measured along; other columns are asked for their values.
        for (String column : told())
            if (dataset.table().column(column).type().isNumber())
                for (Summary end : new Summary[] {Summary.MINIMUM, Summary.MAXIMUM})
                    measures.add(new Measure(end, column));
        measures.add(Measure.ROWS);
        measured = plan.ask(dataset, Query.of(one, List.of(), measures));
        amongOthers = figures.stream().filter(dataset::isAmongGroups).toList();
        // As its spot: also while one alone is picked.
        if (!amongOthers.isEmpty())
            among = plan.ask(
                    dataset,
                    Query.of(scene.whole(dataset, details.rule()), List.of(details.by()), amongOthers)
                            .filled());
        for (String column : told())
            if (!dataset.table().column(column).type().isNumber())
                columns.put(
                        column,
                        plan.ask(
                                dataset,
                                Query.of(one, List.of(column), List.of(Measure.ROWS))
                                        .filled()));
        if (details.over() != null && !figures.isEmpty()) {
            step = TinyLine.step(dataset, details.over());
            lines = plan.ask(
                    dataset,
                    Query.by(one, List.of(new GroupKey.Step(details.over(), step, null)), figures)
                            .filled());
        }
        if (details.tied() != null) for (long id : details.tied()) tie(id);
    }

    private Condition only(Query each) {
        if (wanted != null) return new Condition.OneOf(details.by(), List.of(wanted));
        return new Condition.Among(details.by(), dataset.table(), each.sorted(Sort.BY_KEY, 1), 0, false);
    }

    private void tie(long id) {
        LoadedDataset other = scene.dataset(id);
        Optional<String> same = scene.same(new Source(dataset.id(), details.by()), other);
        if (same.isEmpty()) {
            untied.add(phrase(
                    "No tie leads from {0} to {1}. Say on its page which of its columns means the same.",
                    ColumnWords.of(details.by()), other.name()));
            return;
        }
        Condition about = new Condition.Among(
                same.get(),
                dataset.table(),
                Query.of(one, List.of(details.by()), List.of(Measure.ROWS)).filled(),
                0,
                false);
        List<Stage> stages = new ArrayList<>(scene.shown(other, null));
        stages.add(new Stage(phrase("Only those of the one whose sheet this is"), List.of(about)));
        String time = Telling.time(other).orElse(null);
        tied.put(
                other,
                plan.askRows(
                        other,
                        new RowQuery(
                                stages,
                                heads(other, same.get()),
                                time == null ? List.of() : List.of(new RowQuery.By(time, true)),
                                "",
                                0,
                                MOST_ROWS)));
    }

    /** The columns that tell most of rows that all have one value in common. */
    private static List<String> heads(LoadedDataset other, String same) {
        return other.columnNames().stream()
                .filter(c -> !c.startsWith("@") && !c.equals(same))
                .limit(MOST_HEADS)
                .toList();
    }

    private List<Details.Group> groups() {
        return details.groups() != null
                ? details.groups()
                : List.of(new Details.Group(
                        "",
                        dataset.columnNames().stream()
                                .filter(c -> !c.startsWith("@") && !c.equals(details.by()))
                                .toList()));
    }

    private List<String> told() {
        return groups().stream()
                .flatMap(g -> g.columns().stream())
                .distinct()
                .filter(c -> dataset.table().find(c).isPresent())
                .toList();
    }

    Plan plan() {
        return plan.drawn(this::draw);
    }

    private DetailsDrawing draw(Answers answers) {
        Frame values = answers.of(all);
        int at = wanted == null
                ? 0
                : IntStream.range(0, values.size())
                        .filter(g -> values.key(0, g).equals(wanted))
                        .findFirst()
                        .orElse(-1);
        boolean some = at >= 0 && at < values.size();
        String key = some ? values.key(0, at) : null;
        List<String> notes = new ArrayList<>(untied);
        for (Details.Group group : groups())
            for (String column : group.columns())
                if (dataset.table().find(column).isEmpty())
                    notes.add(phrase("There is no column “{0}” any more.", column));
        return new DetailsDrawing(
                Scene.titleOf(details, phrase("One {0}", ColumnWords.of(details.by()))),
                ColumnWords.of(details.by()),
                some ? name(key) : null,
                key,
                at + 1,
                values.size(),
                some && at > 0 ? values.key(0, at - 1) : null,
                some && at + 1 < values.size() ? values.key(0, at + 1) : null,
                wanted != null && !some && values.size() > 0,
                some ? figures(key, answers) : List.of(),
                some ? groups(answers) : List.of(),
                some ? tied(answers) : List.of(),
                some && around != null ? spot(key, answers.of(around)) : null,
                notes,
                Trail.of(answers.of(wanted != null && !some ? all : measured).trail()));
    }

    private String name(String key) {
        return Optional.ofNullable(dataset.placesOf(details.by()).get(key))
                .map(Place::said)
                .orElseGet(() -> dataset.label(details.by(), key));
    }

    private List<DetailsDrawing.Counted> figures(String key, Answers answers) {
        List<DetailsDrawing.Counted> counted = new ArrayList<>();
        for (int m = 0; m < figures.size(); m++) {
            Frame over = lines == null ? null : answers.of(lines);
            counted.add(new DetailsDrawing.Counted(
                    dataset.words(figures.get(m)),
                    Written.of(dataset, figures.get(m), null).full(value(m, key, answers)),
                    over == null ? null : TinyLine.heights(over, m, step),
                    over == null ? null : TinyLine.words(over, step)));
        }
        return counted;
    }

    private double value(int figure, String key, Answers answers) {
        int among = amongOthers.indexOf(figures.get(figure));
        if (among < 0) return answers.of(measured).value(figure, 0);
        Frame all = answers.of(this.among);
        return IntStream.range(0, all.size())
                .filter(g -> Objects.equals(key, all.key(0, g)))
                .mapToDouble(g -> all.value(among, g))
                .findFirst()
                .orElse(Double.NaN);
    }

    private List<DetailsDrawing.Told> groups(Answers answers) {
        Map<String, String> texts = texts(answers);
        return groups().stream()
                .map(g -> new DetailsDrawing.Told(
                        g.title() == null ? "" : g.title(),
                        g.columns().stream()
                                .filter(texts::containsKey)
                                .map(c -> new DetailsDrawing.Entry(ColumnWords.of(c), texts.get(c)))
                                .toList()))
                .filter(g -> !g.entries().isEmpty())
                .toList();
    }

    /** What is told of each column: its value, or its values. */
    private Map<String, String> texts(Answers answers) {
        Map<String, String> texts = new LinkedHashMap<>();
        Fields fields = new Fields(dataset);
        Frame frame = answers.of(measured);
        int m = figures.size();
        for (String column : told()) {
            Column of = dataset.table().column(column);
            if (of.type().isNumber()) {
                double low = frame.value(m++, 0);
                double high = frame.value(m++, 0);
                String from = fields.value(column, Double.isNaN(low) ? null : Texts.plain(low), null);
                texts.put(
                        column,
                        low == high || Double.isNaN(low)
                                ? from
                                : phrase("{0} to {1}", from, fields.value(column, Texts.plain(high), null)));
                continue;
            }
            Frame values = answers.of(columns.get(column));
            int size = values.size();
            List<String> said = IntStream.range(0, Math.min(size, MOST_VALUES))
                    .mapToObj(g -> fields.value(column, values.key(0, g), null))
                    .toList();
            String text = String.join(", ", said);
            if (size == 0) text = "–";
            else if (size > MOST_VALUES)
                text = of instanceof CodedColumn
                        ? phrase("{0} and {1} more", text, size - MOST_VALUES)
                        : phrase("{0} to {1}", said.get(0), fields.value(column, values.key(0, size - 1), null));
            texts.put(column, text);
        }
        return texts;
    }

    private List<DetailsDrawing.TiedRows> tied(Answers answers) {
        List<DetailsDrawing.TiedRows> drawn = new ArrayList<>();
        tied.forEach((other, asked) -> {
            RowPage page = answers.rows(asked);
            List<String> heads = asked.query().columns();
            Fields fields = new Fields(other);
            drawn.add(new DetailsDrawing.TiedRows(
                    other.name(),
                    heads.stream().map(ColumnWords::of).toList(),
                    IntStream.range(0, page.size())
                            .mapToObj(r -> IntStream.range(0, heads.size())
                                    .mapToObj(c -> fields.value(heads.get(c), page.cell(r, c), null))
                                    .toList())
                            .toList(),
                    page.all()));
        });
        return drawn;
    }

    private DetailsDrawing.Spot spot(String key, Frame values) {
        Map<String, Place> places = dataset.placesOf(details.by());
        Place here = places.get(key);
        if (here == null) return null;
        int every = Math.max(1, values.size() / MOST_SPOTS);
        List<Place> others = IntStream.range(0, values.size())
                .filter(g -> g % every == 0)
                .mapToObj(g -> places.get(values.key(0, g)))
                .filter(p -> p != null)
                .toList();
        double[] lons = ends(others.stream().mapToDouble(Place::lon).toArray(), here.lon());
        double[] lats = ends(others.stream().mapToDouble(Place::lat).toArray(), here.lat());
        double shrink = Math.cos(Math.toRadians((lats[0] + lats[1]) / 2));
        double[] points = new double[others.size() * 2];
        for (int i = 0; i < others.size(); i++) {
            points[2 * i] = (others.get(i).lon() - lons[0]) / (lons[1] - lons[0]);
            points[2 * i + 1] = (lats[1] - others.get(i).lat()) / (lats[1] - lats[0]);
        }
        return new DetailsDrawing.Spot(
                points,
                (here.lon() - lons[0]) / (lons[1] - lons[0]),
                (lats[1] - here.lat()) / (lats[1] - lats[0]),
                (lons[1] - lons[0]) * shrink / (lats[1] - lats[0]),
                degrees(here.lat(), phrase("N"), phrase("S")) + ", " + degrees(here.lon(), phrase("E"), phrase("W")));
    }

    /** The least and the greatest, with a margin. */
    private static double[] ends(double[] values, double also) {
        double low = also;
        double high = also;
        for (double v : values) {
            low = Math.min(low, v);
            high = Math.max(high, v);
        }
        double margin = Math.max(0.2, (high - low) * 0.06);
        return new double[] {low - margin, high + margin};
    }

    private static String degrees(double value, String positive, String negative) {
        return phrase("degrees|{0}° {1}", Aligned.written(Math.abs(value), 2), value < 0 ? negative : positive);
    }
}
