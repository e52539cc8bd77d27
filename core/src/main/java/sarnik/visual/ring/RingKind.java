package sarnik.visual.ring;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.Telling;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.Sort;
import sarnik.scale.Aligned;
import sarnik.scale.Palette;
import sarnik.table.Sums;
import sarnik.visual.Asked;
import sarnik.visual.Box;
import sarnik.visual.CategoryColours;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.Source;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;
import sarnik.visual.Written;

/** The kind of visual that shows the parts of a whole, as far as they can be told apart. */
public final class RingKind implements VisualKind<Ring> {

    /** Beyond this many parts a ring tells nothing; the rest are others. */
    static final int MOST_PARTS = 8;

    /** Parts whose shares are nearer than this can hardly be told apart in a ring. */
    private static final double NEAR = 0.02;

    private static final Slot PARTS =
            Slot.at("/parts", "number of parts", "{\"type\": [\"integer\", \"null\"], \"minimum\": 2, \"maximum\": 8}");

    @Override
    public String name() {
        return "ring";
    }

    @Override
    public Class<Ring> type() {
        return Ring.class;
    }

    @Override
    public Class<RingDrawing> drawing() {
        return RingDrawing.class;
    }

    @Override
    public String sign() {
        return "M5 1a4 4 0 1 0 .1 0M5 3a2 2 0 1 0 .1 0";
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, Slots.CATEGORY, Slots.MEASURE, PARTS, Slots.COLOUR, Slots.FORMAT, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Ring.class);
    }

    @Override
    public String words(Ring ring) {
        return phrase("the ring of {0}", ColumnWords.of(ring.category()));
    }

    @Override
    public Set<Long> datasets(Ring ring) {
        return Set.of(ring.dataset());
    }

    @Override
    public Optional<Source> picks(Ring ring) {
        return Optional.of(new Source(ring.dataset(), ring.category()));
    }

    @Override
    public boolean hasKey(Ring visual) {
        return true;
    }

    @Override
    public Plan plan(Ring ring, Scene scene) {
        LoadedDataset dataset = scene.dataset(ring.dataset());
        if (!dataset.addsUp(ring.measure()))
            throw new MisfitException(phrase(
                    "The parts of a ring have to add up, and “{0}” does not. Choose a sum or a number of rows in the brief, or make bars of it",
                    ColumnWords.of(ring.measure())));
        Plan plan = new Plan();
        Asked asked = plan.ask(
                dataset,
                Query.of(scene.shown(dataset, ring.rule()), List.of(ring.category()), List.of(ring.measure()))
                        .sorted(new Sort(0, true), Integer.MAX_VALUE));
        CategoryColours colours = CategoryColours.of(dataset, ring.category(), ring.colour(), scene);
        return plan.drawn(answers -> draw(ring, dataset, answers.of(asked), colours));
    }

    private static RingDrawing draw(Ring ring, LoadedDataset dataset, Frame frame, CategoryColours colours) {
        double[] values = frame.values().get(0);
        long negative = Arrays.stream(values).filter(v -> v < 0).count();
        if (negative > 0)
            throw new MisfitException(phrase(
                    "{0, plural, one {# of the parts is below zero} other {# of the parts are below zero}}, and a ring has no room for less than nothing. Make bars of it in the brief",
                    negative));
        int[] order = IntStream.range(0, values.length)
                .filter(g -> Double.isFinite(values[g]) && values[g] > 0)
                .toArray();
        double whole = Sums.of(Arrays.stream(order).mapToDouble(g -> values[g]).toArray());
        int most = ring.parts() == null ? MOST_PARTS : ring.parts();
        int own = order.length <= most ? order.length : most - 1;
        Written written = Written.of(dataset, ring.measure(), ring.format());
        List<RingDrawing.Part> parts = new ArrayList<>();
        for (int i = 0; i < own; i++) {
            String key = frame.key(0, order[i]);
            parts.add(
                    part(key, dataset.label(ring.category(), key), colours.of(key), values[order[i]], whole, written));
        }
        if (own < order.length) {
            double rest = Sums.of(IntStream.range(own, order.length)
                    .mapToDouble(i -> values[order[i]])
                    .toArray());
            parts.add(part(null, phrase("{0} others", order.length - own), Palette.OTHERS, rest, whole, written));
        }
        List<String> notes = new ArrayList<>();
        if (areHardToTellApart(parts))
            notes.add(phrase("Some parts are so nearly alike that bars would show which is more."));
        String words = ColumnWords.of(ring.measure());
        return new RingDrawing(
                Scene.titleOf(ring, phrase("{0} by {1}", words, ColumnWords.of(ring.category()))),
                words,
                written.brief(whole),
                written.full(whole),
                parts,
                notes,
                Trail.of(frame.trail()));
    }

    private static RingDrawing.Part part(
            String key, String label, String colour, double value, double whole, Written written) {
        double share = whole == 0 ? 0 : value / whole;
        return new RingDrawing.Part(
                key,
                label,
                colour,
                share,
                written.brief(value),
                written.full(value),
                Aligned.written(share * 100, share < 0.01 ? 1 : 0) + " %");
    }

    private static boolean areHardToTellApart(List<RingDrawing.Part> parts) {
        long near = IntStream.range(1, parts.size())
                .filter(i -> parts.get(i).key() != null
                        && parts.get(i - 1).share() - parts.get(i).share() < NEAR)
                .count();
        return parts.size() > 4 && near * 2 >= parts.size();
    }

    @Override
    public void brief(Ring ring, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(ring.dataset());
        line.say("A ring of ");
        line.choose(Slots.MEASURE, ColumnWords.of(ring.measure()), choices.measures(dataset, dataset::addsUp));
        line.say(" in " + dataset.name() + ", a part for each ");
        line.choose(Slots.CATEGORY, ColumnWords.of(ring.category()), Choices.categories(dataset));
        line.say(", ");
        List<Option> counts = new ArrayList<>();
        for (int n = 3; n <= MOST_PARTS; n++) counts.add(new Option("up to " + Choices.count(n) + " parts", "", n));
        line.may(
                PARTS,
                "up to " + Choices.count(ring.parts() == null ? MOST_PARTS : ring.parts()) + " parts",
                ring.parts() == null,
                counts);
        Choices.rule(line, ring.rule(), dataset);
        line.say(".");
        Slots.format(looks, ring.format());
        Slots.categoryColour(looks, ring.colour(), choices);
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.WHICH_MOST) return List.of();
        Measure measure = Telling.amount(dataset);
        return Telling.categories(dataset).stream()
                .filter(c -> !c.startsWith("@") && Telling.distinct(dataset, c) <= 6)
                .limit(1)
                .map(c -> new Proposal(
                        "What is the whole made of? " + ColumnWords.of(measure) + " by " + ColumnWords.of(c),
                        new Ring(null, null, "", dataset.id(), c, measure, null, null, null, null),
                        8,
                        8))
                .toList();
    }

    @Override
    public Ingredients ingredients(Ring ring) {
        return new Ingredients(
                ring.dataset(),
                List.of(ring.category()),
                List.of(ring.measure()),
                null,
                ring.rule(),
                null,
                ring.colour());
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        LoadedDataset dataset =
                from.dataset() == null ? null : datasets.ready(from.dataset()).orElse(null);
        if (dataset == null) return Optional.empty();
        Optional<Measure> measure = from.measuresOrRows().stream()
                .map(Measure::plain)
                .filter(dataset::addsUp)
                .findFirst();
        Optional<String> category = from.categories().stream()
                .findFirst()
                .or(() -> Telling.categories(dataset).stream().findFirst());
        if (measure.isEmpty() || category.isEmpty()) return Optional.empty();
        return Optional.of(new Become(
                new Ring(
                        page,
                        at,
                        title,
                        dataset.id(),
                        category.get(),
                        measure.get(),
                        null,
                        from.colour(),
                        null,
                        from.rule()),
                from.left(category.get(), measure.get(), false)));
    }
}
