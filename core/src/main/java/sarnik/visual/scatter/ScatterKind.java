package sarnik.visual.scatter;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Telling;
import sarnik.place.PlacedTable;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Summary;
import sarnik.scale.Aligned;
import sarnik.scale.CircleSizes;
import sarnik.scale.LeastSquares;
import sarnik.scale.NumberWords;
import sarnik.scale.Palette;
import sarnik.table.CodedColumn;
import sarnik.table.Rounded;
import sarnik.table.Sums;
import sarnik.visual.Answers;
import sarnik.visual.Asked;
import sarnik.visual.Axis;
import sarnik.visual.Box;
import sarnik.visual.CategoryColours;
import sarnik.visual.Colour;
import sarnik.visual.Ingredients;
import sarnik.visual.Key;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;
import sarnik.visual.Written;

/** The kind of visual that says how two things go together. */
public final class ScatterKind implements VisualKind<Scatter> {

    /** More marks than this are more than can be told apart; the largest upwards and along are kept. */
    static final int MOST_DOTS = 20_000;

    /** A mark whose distance from the line is more than this many deviations stands out. */
    private static final double FAR = 2.5;

    /** Where the largest is more than so many times the middle one, most marks would lie in a corner. */
    private static final double FAR_APART = 20;

    private static final int MOST_NAMED = 12;
    private static final double ONE_SIZE = 4;
    private static final double LARGEST = 18;

    private static final String MEASURE = "{\"$ref\": \"#/$defs/measure\"}";
    private static final Slot ACROSS =
            Slot.at("/across", "measure along", MEASURE).needed();
    private static final Slot UP = Slot.at("/up", "measure upwards", MEASURE).needed();
    private static final Slot SIZE = Slot.at("/size", "size", "{\"anyOf\": [{\"type\": \"null\"}, " + MEASURE + "]}");
    private static final Slot LINE = Slot.at("/line", "line of least squares", "{\"type\": [\"boolean\", \"null\"]}");
    private static final Slot QUARTERS =
            Slot.at("/quarters", "quarters", "{\"enum\": [\"MEAN\", \"MEDIAN\", \"OWN\", null]}");
    private static final Slot BOUNDS = Slot.at(
            "/bounds",
            "bounds",
            "{\"type\": [\"object\", \"null\"], \"additionalProperties\": false, \"properties\": "
                    + "{\"across\": {\"$ref\": \"#/$defs/number\"}, \"up\": {\"$ref\": \"#/$defs/number\"}}}");
    private static final Slot SCALE = Slot.at("/scale", "axes", "{\"enum\": [\"EVEN\", \"FACTORS\", null]}");

    @Override
    public List<String> asked() {
        return List.of("scatter", "dots");
    }

    @Override
    public String name() {
        return "scatter";
    }

    @Override
    public Class<Scatter> type() {
        return Scatter.class;
    }

    @Override
    public Class<ScatterDrawing> drawing() {
        return ScatterDrawing.class;
    }

    @Override
    public String sign() {
        return "M2 7h.6M4 5h.6M5 7h.6M6 4h.6M8 2h.6M3 3h.6";
    }

    @Override
    public List<Slot> slots() {
        return List.of(
                Slots.DATASET,
                Slots.CATEGORY,
                ACROSS,
                UP,
                SIZE,
                Slots.COLOUR,
                LINE,
                QUARTERS,
                BOUNDS,
                SCALE,
                Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Scatter.class);
    }

    @Override
    public String words(Scatter scatter) {
        return phrase("the scatter of {0}", ColumnWords.of(scatter.category()));
    }

    @Override
    public Set<Long> datasets(Scatter scatter) {
        return Set.of(scatter.dataset());
    }

    @Override
    public Optional<Source> picks(Scatter scatter) {
        return Optional.of(new Source(scatter.dataset(), scatter.category()));
    }

    @Override
    public boolean hasKey(Scatter visual) {
        return visual.colour() != null;
    }

    @Override
    public Plan plan(Scatter scatter, Scene scene) {
        LoadedDataset dataset = scene.dataset(scatter.dataset());
        Plan plan = new Plan();
        List<Measure> measures = new ArrayList<>(List.of(scatter.across(), scatter.up()));
        if (scatter.size() != null) measures.add(scatter.size());
        Asked asked = plan.ask(
                dataset,
                Query.of(scene.shown(dataset, scatter.rule()), List.of(scatter.category()), measures)
                        .filled());
        String by = scatter.colour() == null ? null : scatter.colour().category();
        if (by != null && dataset.table().find(by).isEmpty())
            throw new MisfitException(phrase("There is no column “{0}” any more", by));
        Asked counts = by == null || by.equals(scatter.category())
                ? null
                : plan.ask(
                        dataset,
                        Query.of(
                                        scene.shown(dataset, scatter.rule()),
                                        List.of(scatter.category(), by),
                                        List.of(Measure.ROWS))
                                .filled());
        CategoryColours colours = by == null ? null : CategoryColours.of(dataset, by, scatter.colour(), scene);
        // While time is played, the axes are held over what each step shows.
        Asked held = scene.steps(dataset)
                .map(step -> plan.ask(
                        dataset,
                        Query.by(
                                        scene.scaled(dataset, scatter.rule()),
                                        List.of(new GroupKey.Of(scatter.category()), step),
                                        List.of(scatter.across(), scatter.up()))
                                .filled()))
                .orElse(null);
        return plan.drawn(answers -> draw(scatter, dataset, answers, asked, counts, held, colours));
    }

    /** The figures that axes have room for. */
    private record Room(double[] x, double[] y, int[] both) {

        static Room of(double[] x, double[] y) {
            return new Room(
                    x,
                    y,
                    IntStream.range(0, x.length)
                            .filter(g -> Double.isFinite(x[g]) && Double.isFinite(y[g]))
                            .toArray());
        }

        Room and(Frame held) {
            return held == null
                    ? this
                    : of(
                            joined(x, held.values().get(0)),
                            joined(y, held.values().get(1)));
        }

        private static double[] joined(double[] some, double[] more) {
            return DoubleStream.concat(Arrays.stream(some), Arrays.stream(more)).toArray();
        }

        /** Those that have a place on the axes. */
        int[] known(boolean factors) {
            return factors
                    ? IntStream.of(both).filter(g -> x[g] > 0 && y[g] > 0).toArray()
                    : both;
        }
    }

    private static ScatterDrawing draw(
            Scatter scatter,
            LoadedDataset dataset,
            Answers answers,
            Asked asked,
            Asked counts,
            Asked held,
            CategoryColours colours) {
        Frame frame = answers.of(asked);
        double[] x = frame.values().get(0);
        double[] y = frame.values().get(1);
        double[] sizes = scatter.size() == null ? null : frame.values().get(2);
        List<String> notes = new ArrayList<>();
        Room own = Room.of(x, y);
        Room room = own.and(held == null ? null : answers.of(held));
        int[] both = own.both();
        int missing = frame.size() - both.length;
        if (missing > 0)
            notes.add(phrase(
                    "{0, plural, one {# has no figure for one of the two and is left out.} other {# have no figure for one of the two and are left out.}}",
                    missing));
        if (both.length > MOST_DOTS) {
            notes.add(phrase(
                    "Only the {0} largest of {1} marks are drawn; the line rests on all of them.",
                    MOST_DOTS, both.length));
        }
        Written along = Written.of(dataset, scatter.across(), null);
        Written upwards = Written.of(dataset, scatter.up(), null);
        boolean factors = byFactors(scatter, room.x(), room.y(), room.both());
        int[] known = own.known(factors);
        int nothing = frame.size() - missing - known.length;
        if (nothing > 0)
            notes.add(phrase(
                    "{0, plural, one {# with zero or less has no place on axes by factors.} other {# with zero or less have no place on axes by factors.}}",
                    nothing));
        if (factors && scatter.scale() == null)
            notes.add(phrase("The figures lie so far apart that the axes run by factors."));
        int[] within = room.known(factors);
        Axis across = axis(room.x(), within, along, dataset.words(scatter.across()), factors);
        Axis up = axis(room.y(), within, upwards, dataset.words(scatter.up()), factors);
        LeastSquares line = factors ? LeastSquares.of(logs(x), logs(y)) : LeastSquares.of(x, y);
        double[] unlike = factors ? unlike(logs(x), logs(y), known, line) : unlike(x, y, known, line);
        Map<String, String> values = counts == null ? Map.of() : commonest(answers.of(counts));
        double largest = sizes == null
                ? 0
                : Arrays.stream(sizes)
                        .filter(Double::isFinite)
                        .map(Math::abs)
                        .max()
                        .orElse(0);
        CircleSizes circle = sizes == null ? null : new CircleSizes(CircleSizes.Rule.AREA, largest, LARGEST);
        int[] drawn = IntStream.of(known)
                .boxed()
                .sorted(Comparator.comparingDouble(
                        (Integer g) -> sizes == null ? -Math.abs(y[g]) : -Math.abs(sizes[g])))
                .limit(MOST_DOTS)
                .mapToInt(g -> g)
                .toArray();
        Set<Integer> named = named(known, unlike);
        Map<String, Integer> worn = new LinkedHashMap<>();
        List<String> keys = IntStream.of(drawn).mapToObj(g -> frame.key(0, g)).toList();
        List<String> labels =
                keys.stream().map(key -> dataset.label(scatter.category(), key)).toList();
        List<String> palette = new ArrayList<>();
        String plain = one(scatter.colour());
        int[] wearing = new int[drawn.length];
        for (int d = 0; d < drawn.length; d++) {
            String value = colours == null ? null : counts == null ? keys.get(d) : values.get(keys.get(d));
            if (colours != null) worn.merge(value == null ? phrase("(missing)") : value, 1, (a, b) -> a + b);
            String colour = colours == null ? plain : colours.of(value);
            if (!palette.contains(colour)) palette.add(colour);
            wearing[d] = palette.indexOf(colour);
        }
        List<List<String>> texts = new ArrayList<>(List.of(texts(drawn, x, along), texts(drawn, y, upwards)));
        if (sizes != null) texts.add(texts(drawn, sizes, Written.of(dataset, scatter.size(), null)));
        ScatterDrawing.Dots dots = new ScatterDrawing.Dots(
                keys,
                labels.equals(keys) ? null : labels,
                IntStream.of(drawn).map(g -> parts(across.at(x[g]))).toArray(),
                IntStream.of(drawn).map(g -> parts(up.at(y[g]))).toArray(),
                circle == null
                        ? new double[] {ONE_SIZE}
                        : IntStream.of(drawn)
                                .mapToDouble(g -> Math.max(1.5, round(circle.radius(sizes[g]))))
                                .toArray(),
                palette,
                palette.size() == 1 ? new int[] {0} : wearing,
                IntStream.range(0, drawn.length)
                        .filter(d -> named.contains(drawn[d]))
                        .toArray(),
                texts);
        double[] cut = cut(scatter, x, y, known, across, up);
        return new ScatterDrawing(
                Scene.titleOf(
                        scatter,
                        phrase("{0} against {1}", ColumnWords.of(scatter.up()), ColumnWords.of(scatter.across()))),
                across,
                up,
                dots,
                Boolean.TRUE.equals(scatter.line()) ? fit(line, across, up) : null,
                cut,
                cut == null ? List.of() : quarters(scatter),
                scatter.size() == null ? null : dataset.words(scatter.size()),
                colours == null ? null : ColumnWords.of(scatter.colour().category()),
                swatches(worn, colours),
                notes,
                Trail.of(frame.trail()));
    }

    private static List<String> texts(int[] drawn, double[] values, Written written) {
        return IntStream.of(drawn).mapToObj(g -> written.full(values[g])).toList();
    }

    private static int parts(double place) {
        return (int) Rounded.up(place * ScatterDrawing.Dots.FINE);
    }

    private static String one(Colour colour) {
        if (colour == null || colour.palette() == null || colour.category() != null)
            return Palette.ALL.get("loch").colours(3).get(2);
        try {
            return Palette.of(colour.palette()).colours(3).get(2);
        } catch (IllegalArgumentException unfit) {
            throw new MisfitException(unfit.getMessage());
        }
    }

    /** An axis that holds zero only where the values lie near it: what counts is how the marks lie to each other. */
    private static Axis axis(double[] values, int[] known, Written written, String words, boolean factors) {
        if (factors)
            return Axis.logarithmic(
                    IntStream.of(known).mapToDouble(g -> values[g]).min().orElse(1),
                    IntStream.of(known).mapToDouble(g -> values[g]).max().orElse(10),
                    written,
                    words);
        double least = IntStream.of(known).mapToDouble(g -> values[g]).min().orElse(0);
        double most = IntStream.of(known).mapToDouble(g -> values[g]).max().orElse(1);
        boolean near = least >= 0 && least < most * 0.4 || most <= 0 && most > least * 0.4 || least < 0 && most > 0;
        return Axis.of(least, most, near, written, words);
    }

    /**
     * Whether equal lengths are equal factors: as was said, or where few large figures press all others into a corner.
     */
    private static boolean byFactors(Scatter scatter, double[] x, double[] y, int[] known) {
        if (scatter.scale() != null) return scatter.scale() == Scatter.Scale.FACTORS;
        return known.length >= 20 && areFarApart(x, known) && areFarApart(y, known);
    }

    private static boolean areFarApart(double[] values, int[] known) {
        double[] sorted =
                IntStream.of(known).mapToDouble(g -> values[g]).sorted().toArray();
        return sorted[0] > 0 && sorted[sorted.length - 1] > FAR_APART * sorted[sorted.length / 2];
    }

    private static double[] logs(double[] values) {
        return Arrays.stream(values)
                .map(v -> v > 0 ? Math.log10(v) : Double.NaN)
                .toArray();
    }

    /** How many deviations each mark lies off the line. */
    private static double[] unlike(double[] x, double[] y, int[] known, LeastSquares line) {
        double[] off = new double[x.length];
        double squares = 0;
        for (int g : known) {
            off[g] = y[g] - (Double.isNaN(line.slope()) ? 0 : line.at(x[g]));
            squares += off[g] * off[g];
        }
        double deviation = known.length < 3 ? 0 : Math.sqrt(squares / (known.length - 2));
        for (int g : known) off[g] = deviation > 0 ? Math.abs(off[g]) / deviation : 0;
        return off;
    }

    private static Set<Integer> named(int[] known, double[] unlike) {
        return Set.copyOf(IntStream.of(known)
                .filter(g -> unlike[g] > FAR)
                .boxed()
                .sorted(Comparator.comparingDouble(g -> -unlike[g]))
                .limit(MOST_NAMED)
                .toList());
    }

    private static Map<String, String> commonest(Frame counts) {
        Map<String, String> best = new LinkedHashMap<>();
        Map<String, Double> most = new LinkedHashMap<>();
        for (int g = 0; g < counts.size(); g++) {
            if (counts.value(0, g) <= most.getOrDefault(counts.key(0, g), 0.0)) continue;
            most.put(counts.key(0, g), counts.value(0, g));
            best.put(counts.key(0, g), counts.key(1, g));
        }
        return best;
    }

    /** The part of the line that lies within both axes. */
    private static ScatterDrawing.Fit fit(LeastSquares line, Axis across, Axis up) {
        if (line.points() < 3 || Double.isNaN(line.r())) return null;
        boolean factors = across.logarithmic();
        double[] ends = {scaled(across.low(), factors), scaled(across.high(), factors)};
        if (line.slope() != 0) {
            double a = (scaled(up.low(), factors) - line.intercept()) / line.slope();
            double b = (scaled(up.high(), factors) - line.intercept()) / line.slope();
            ends[0] = Math.max(ends[0], Math.min(a, b));
            ends[1] = Math.min(ends[1], Math.max(a, b));
        }
        if (ends[0] >= ends[1]) return null;
        return new ScatterDrawing.Fit(
                end(ends[0], line, across, up),
                end(ends[1], line, across, up),
                factors
                        ? phrase(
                                "r = {0} of the logarithms over {1} marks", Aligned.written(line.r(), 2), line.points())
                        : phrase("r = {0} over {1} marks", Aligned.written(line.r(), 2), line.points()));
    }

    private static double scaled(double value, boolean factors) {
        return factors ? Math.log10(value) : value;
    }

    private static double[] end(double along, LeastSquares line, Axis across, Axis up) {
        double height = line.at(along);
        return across.logarithmic()
                ? new double[] {fine(across.at(Math.pow(10, along))), fine(up.at(Math.pow(10, height)))}
                : new double[] {fine(across.at(along)), fine(up.at(height))};
    }

    private static double[] cut(Scatter scatter, double[] x, double[] y, int[] known, Axis across, Axis up) {
        if (scatter.quarters() == null || known.length == 0) return null;
        boolean own = scatter.quarters() == Scatter.Quarters.OWN;
        Double atX = own ? scatter.cutAt().across() : null;
        Double atY = own ? scatter.cutAt().up() : null;
        return new double[] {
            within(fine(across.at(atX == null ? middle(scatter.quarters(), x, known) : atX))),
            within(fine(up.at(atY == null ? middle(scatter.quarters(), y, known) : atY)))
        };
    }

    /** A bound beyond an axis lies at its end. */
    private static double within(double at) {
        return Double.isNaN(at) ? 0 : Math.max(0, Math.min(1, at));
    }

    private static double middle(Scatter.Quarters quarters, double[] values, int[] known) {
        double[] sorted =
                IntStream.of(known).mapToDouble(g -> values[g]).sorted().toArray();
        return quarters == Scatter.Quarters.MEAN
                ? Sums.mean(sorted)
                : (sorted[(sorted.length - 1) / 2] + sorted[sorted.length / 2]) / 2;
    }

    /** What each quarter holds: upper left, upper right, lower left, lower right. */
    private static List<String> quarters(Scatter scatter) {
        return List.of(
                phrase("{0}, {1}", less(scatter.across()), more(scatter.up())),
                phrase("more of both"),
                phrase("less of both"),
                phrase("{0}, {1}", more(scatter.across()), less(scatter.up())));
    }

    private static void bound(BriefLine line, String pointer, String words, Double bound) {
        line.say(" ");
        line.slot(
                Slot.within(pointer, "bound of " + words),
                words + " " + (bound == null ? "at its median" : NumberWords.full(bound)),
                Brief.Kind.NUMBER,
                false,
                bound != null,
                List.of());
    }

    private static boolean isCounted(Measure measure) {
        return measure.summary() == Summary.COUNT || measure.summary() == Summary.DISTINCT;
    }

    private static String less(Measure measure) {
        String what = ColumnWords.brief(measure);
        return isCounted(measure) ? phrase("few {0}", what) : phrase("little {0}", what);
    }

    private static String more(Measure measure) {
        String what = ColumnWords.brief(measure);
        return isCounted(measure) ? phrase("many {0}", what) : phrase("much {0}", what);
    }

    private static List<Key.Swatch> swatches(Map<String, Integer> worn, CategoryColours colours) {
        if (colours == null) return List.of();
        List<Key.Swatch> swatches = new ArrayList<>();
        int others = 0;
        for (String value : colours.inOrder(List.copyOf(worn.keySet()))) {
            if (colours.of(value).equals(Palette.OTHERS)) others += worn.get(value);
            else swatches.add(new Key.Swatch(colours.of(value), value, worn.get(value)));
        }
        if (others > 0) swatches.add(new Key.Swatch(Palette.OTHERS, phrase("others"), others));
        return swatches;
    }

    /** A hundred-thousandth of an axis is below what a screen shows. */
    private static double fine(double place) {
        return Rounded.up(place * 1e5) / 1e5;
    }

    private static double round(double radius) {
        return Rounded.up(radius * 100) / 100.0;
    }

    // --- its sentence ----------------------------------------------------------------------------------

    @Override
    public void brief(Scatter scatter, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(scatter.dataset());
        List<Option> measures = choices.measures(dataset);
        line.say("A scatter: one dot for each ");
        line.choose(Slots.CATEGORY.named("marks"), ColumnWords.of(scatter.category()), Choices.categories(dataset));
        line.say(" in " + dataset.name() + ", ");
        line.choose(UP, ColumnWords.of(scatter.up()), measures);
        line.say(" against ");
        line.choose(ACROSS, ColumnWords.of(scatter.across()), measures);
        line.say(scatter.size() == null ? " " : ", sized by ");
        line.may(
                SIZE,
                scatter.size() == null ? "+ size" : ColumnWords.of(scatter.size()),
                scatter.size() == null,
                measures);
        boolean coloured = scatter.colour() != null && scatter.colour().category() != null;
        line.say(coloured ? ", coloured by " : " ");
        List<Option> colours = new ArrayList<>();
        for (String name : dataset.columnNames())
            if (dataset.table().column(name) instanceof CodedColumn && !name.equals(scatter.category()))
                colours.add(new Option(ColumnWords.of(name), "", Choices.map("category", name, "palette", "flags")));
        line.may(Slots.COLOUR, coloured ? ColumnWords.of(scatter.colour().category()) : "+ colour", !coloured, colours);
        boolean fitted = Boolean.TRUE.equals(scatter.line());
        line.say(fitted ? ", with " : " ");
        line.may(
                LINE,
                fitted ? "a line of least squares" : "+ line of least squares",
                !fitted,
                List.of(new Option("a line of least squares", "and how well it fits", true)));
        line.say(scatter.quarters() == null ? " " : ", in quarters ");
        line.may(
                QUARTERS,
                scatter.quarters() == null ? "+ quarters" : scatter.quarters().words(),
                scatter.quarters() == null,
                Arrays.stream(Scatter.Quarters.values())
                        .map(q -> new Option(q.words(), "", q.name()))
                        .toList());
        if (scatter.quarters() == Scatter.Quarters.OWN) {
            bound(
                    line,
                    "/bounds/across",
                    ColumnWords.of(scatter.across()),
                    scatter.cutAt().across());
            line.say(" and");
            bound(
                    line,
                    "/bounds/up",
                    ColumnWords.of(scatter.up()),
                    scatter.cutAt().up());
        }
        Choices.rule(line, scatter.rule(), dataset);
        line.say(".");
        looks.say(" · ");
        looks.may(
                SCALE,
                scatter.scale() == null ? "+ axes" : scatter.scale().words(),
                scatter.scale() == null,
                Arrays.stream(Scatter.Scale.values())
                        .map(x -> new Option(x.words(), "", x.name()))
                        .toList());
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.TOGETHER) return List.of();
        List<Measure> sums = new ArrayList<>(Telling.measures(dataset));
        sums.add(Measure.ROWS);
        if (sums.size() < 2) return List.of();
        String marks =
                dataset.isPlaced() && dataset.table().find(PlacedTable.PLACE).isPresent()
                        ? PlacedTable.PLACE
                        : Telling.categories(dataset).stream().findFirst().orElse(null);
        if (marks == null) return List.of();
        List<Proposal> proposals = new ArrayList<>();
        for (int i = 0; i < Math.min(3, sums.size() - 1); i++) {
            Measure across = sums.get(sums.size() - 1 - (i == 0 ? 0 : i));
            Measure up = sums.get(0);
            if (across.equals(up)) continue;
            proposals.add(new Proposal(
                    "Do they go together? " + ColumnWords.of(up) + " against " + ColumnWords.of(across),
                    new Scatter(
                            null, null, "", dataset.id(), marks, across, up, null, null, true, null, null, null, null),
                    12,
                    10));
        }
        return proposals;
    }

    @Override
    public Ingredients ingredients(Scatter scatter) {
        List<Measure> measures = new ArrayList<>(List.of(scatter.up(), scatter.across()));
        if (scatter.size() != null) measures.add(scatter.size());
        return new Ingredients(
                scatter.dataset(), List.of(scatter.category()), measures, null, scatter.rule(), null, scatter.colour());
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        Optional<String> category = from.categories().stream()
                .findFirst()
                .or(() -> Telling.categories(dataset).stream().findFirst());
        if (category.isEmpty()) return Optional.empty();
        Measure up = from.measuresOrRows().get(0).plain();
        Measure across = from.measures().size() > 1
                ? from.measures().get(1).plain()
                : up.equals(Measure.ROWS)
                        ? Telling.measures(dataset).stream()
                                .findFirst()
                                .orElse(new Measure(Summary.DISTINCT, category.get()))
                        : Measure.ROWS;
        return Optional.of(new Become(
                new Scatter(
                        page,
                        at,
                        title,
                        dataset.id(),
                        category.get(),
                        across,
                        up,
                        null,
                        null,
                        true,
                        null,
                        null,
                        from.rule(),
                        null),
                from.left(category.get(), up, false)));
    }
}
