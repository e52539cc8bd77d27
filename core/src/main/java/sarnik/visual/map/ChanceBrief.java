package sarnik.visual.map;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.scale.NumberWords;
import sarnik.statistics.AgeBands;
import sarnik.statistics.RateOf;
import sarnik.table.CodedColumn;
import sarnik.table.Column;

/** Writes the words of a layer's sentence about how far its rates can be trusted and what is more than chance. */
final class ChanceBrief {

    private static final int MOST_BANDS = 130;
    private static final double MOSTLY = 0.8;
    private static final Pattern AGES = Pattern.compile("(?i).*\\b(age|ages|edad|edades|âge|idade|alter)\\b.*");

    private final BriefLine line;
    private final Layer layer;
    private final LoadedDataset dataset;
    private final Chance chance;

    /** @param layer coloured by a measure */
    ChanceBrief(BriefLine line, Layer layer, LoadedDataset dataset) {
        this.line = line;
        this.layer = layer;
        this.dataset = dataset;
        this.chance = layer.chance() == null ? Chance.GUESSED : layer.chance();
    }

    void write() {
        Optional<LoadedDataset.Rate> rate = layer.colour().per() != null
                ? Optional.empty()
                : dataset.rate(layer.colour().measure());
        if (rate.isPresent() || chance.of() != null) of(rate);
        if (rate.isPresent() || chance.isToward()) toward();
        if (rate.isPresent() || chance.ages() != null) ages();
        clusters();
    }

    private void of(Optional<LoadedDataset.Rate> rate) {
        RateOf guess = rate.map(r -> r.counted() ? RateOf.SHARE : r.isForMany() ? RateOf.EVENTS : null)
                .orElse(null);
        List<Option> options = new ArrayList<>();
        for (Chance.Of of : Chance.Of.values())
            options.add(new Option(of.words(), hint(of), map(of, chance.toward(), chance.ages(), chance.clusters())));
        String text = chance.of() != null
                ? "taken as " + chance.of().words()
                : guess == null ? "+ how sure" : "+ how sure: taken as " + guess.words() + " (guessed)";
        boolean isEmpty = chance.of() == null;
        line.say(isEmpty ? " " : ", ");
        line.slot(LayerSlots.at("/chance").named("what the rate is of"), text, Kind.CHOSEN, isEmpty, false, options);
    }

    private static String hint(Chance.Of of) {
        return switch (of) {
            case EVENTS -> "complaints for 10,000 people; too few are hatched";
            case SHARE -> "taps that work, of all taps; too few are hatched";
            case NONE -> "such as litres for each refill";
        };
    }

    private void toward() {
        boolean now = chance.isToward();
        line.say(now ? ", " : " ");
        line.slot(
                LayerSlots.at("/chance").named("rates of few"),
                now ? "drawn toward the whole" : "+ draw toward the whole",
                Kind.CHOSEN,
                !now,
                false,
                List.of(
                        new Option(
                                "as they were counted", "", map(chance.of(), null, chance.ages(), chance.clusters())),
                        new Option(
                                "drawn toward the whole",
                                "the more, the fewer they rest on",
                                map(chance.of(), true, chance.ages(), chance.clusters()))));
    }

    private void ages() {
        List<String> bands =
                dataset.columnNames().stream().filter(this::mayBeAges).toList();
        Chance.Ages now = chance.ages();
        if (now == null && bands.isEmpty()) return;
        List<Option> options = new ArrayList<>();
        if (now != null)
            options.add(
                    new Option("as they were counted", "", map(chance.of(), chance.toward(), null, chance.clusters())));
        for (String band : bands)
            for (Chance.Like like : Chance.Like.values())
                options.add(new Option(
                        "ages alike " + like.words(),
                        "by " + ColumnWords.of(band),
                        map(chance.of(), chance.toward(), new Chance.Ages(band, like), chance.clusters())));
        line.say(now == null ? " " : ", ");
        line.slot(
                LayerSlots.at("/chance").named("ages"),
                now == null
                        ? "+ make ages alike"
                        : "ages alike " + now.like().words() + " by " + ColumnWords.of(now.band()),
                Kind.CHOSEN,
                now == null,
                false,
                options);
    }

    /** Whether most values of a column say an age, or its name does. */
    private boolean mayBeAges(String name) {
        Column column = dataset.table().column(name);
        if (column.type().isNumber())
            return AGES.matcher(name.replace('_', ' ')).matches();
        if (!(column instanceof CodedColumn coded)
                || coded.dictionary().size() < 2
                || coded.dictionary().size() > MOST_BANDS
                || name.startsWith("@")) return false;
        long ages = coded.dictionary().stream()
                .filter(text -> AgeBands.start(text).isPresent())
                .count();
        return ages >= MOSTLY * coded.dictionary().size();
    }

    private void clusters() {
        Chance.Clusters now = chance.clusters();
        List<Option> options = new ArrayList<>();
        if (now != null)
            options.add(
                    new Option("the values themselves", "", map(chance.of(), chance.toward(), chance.ages(), null)));
        for (Chance.By by : Chance.By.values())
            options.add(new Option(
                    by.words(),
                    by.hint(),
                    map(
                            chance.of(),
                            chance.toward(),
                            chance.ages(),
                            new Chance.Clusters(by, now == null ? null : now.near()))));
        line.say(now == null ? " " : ", where there are more than chance of ");
        line.slot(
                LayerSlots.at("/chance").named("what is more than chance"),
                now == null ? "+ more than chance" : now.by().words(),
                Kind.CHOSEN,
                now == null,
                false,
                options);
        if (now == null) return;
        line.say(" among ");
        List<Option> near = new ArrayList<>();
        boolean areas = PlaceMarks.setOf(layer, dataset).isPresent() && layer.kind() != Layer.Kind.SHAPES;
        if (areas) near.add(near(now, null));
        for (int nearest : new int[] {4, 6, 8, 12}) near.add(near(now, new Chance.Near(null, nearest)));
        for (double km : new double[] {5, 10, 25, 50, 100, 250}) near.add(near(now, new Chance.Near(km, null)));
        line.choose(LayerSlots.at("/chance").named("neighbours"), words(now.near(), areas), near);
    }

    private Option near(Chance.Clusters now, Chance.Near near) {
        return new Option(
                words(near, true),
                "",
                map(chance.of(), chance.toward(), chance.ages(), new Chance.Clusters(now.by(), near)));
    }

    private static String words(Chance.Near near, boolean areas) {
        if (near == null || near.isTouching()) return areas ? "those that touch" : "the nearest 6";
        return near.km() != null
                ? "those within " + NumberWords.full(near.km()) + " km"
                : "the nearest " + near.nearest();
    }

    /** As it stands in the document; what is not said is left out. */
    private static Map<String, Object> map(Chance.Of of, Boolean toward, Chance.Ages ages, Chance.Clusters clusters) {
        Map<String, Object> map = Choices.map();
        if (of != null) map.put("of", of.name());
        if (Boolean.TRUE.equals(toward)) map.put("toward", true);
        if (ages != null)
            map.put("ages", Choices.map("band", ages.band(), "like", ages.like().name()));
        if (clusters != null) {
            Map<String, Object> found = Choices.map("by", clusters.by().name());
            Chance.Near near = clusters.near();
            if (near != null && near.km() != null) found.put("near", Choices.map("km", near.km()));
            if (near != null && near.nearest() != null) found.put("near", Choices.map("nearest", near.nearest()));
            map.put("clusters", found);
        }
        return map;
    }
}
