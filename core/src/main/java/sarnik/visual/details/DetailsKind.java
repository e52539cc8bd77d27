package sarnik.visual.details;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.data.Words;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Ingredients;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Slots;
import sarnik.visual.VisualKind;

/** The kind of visual that tells all about one: a place, a device, a customer. */
public final class DetailsKind implements VisualKind<Details> {

    private static final Slot BY = Slot.at("/by", "what has a sheet each", "{\"$ref\": \"#/$defs/column\"}")
            .needed();
    private static final Slot GROUPS = Slot.at(
            "/groups",
            "what is told",
            "{\"type\": [\"array\", \"null\"], \"maxItems\": 12, \"items\": {\"type\": \"object\", "
                    + "\"additionalProperties\": false, "
                    + "\"required\": [\"columns\"], \"properties\": {\"title\": {\"type\": [\"string\", "
                    + "\"null\"], \"maxLength\": 200}, "
                    + "\"columns\": {\"type\": \"array\", \"items\": {\"$ref\": \"#/$defs/column\"}, "
                    + "\"maxItems\": 100}}}}");
    private static final Slot FIGURES = Slot.at(
            "/figures",
            "figures",
            "{\"type\": [\"array\", \"null\"], \"items\": {\"$ref\": \"#/$defs/measure\"}, \"maxItems\": 12}");
    private static final Slot OVER =
            Slot.at("/over", "tiny lines", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");
    private static final Slot SPOT = Slot.at("/spot", "small map", "{\"type\": [\"boolean\", \"null\"]}");
    private static final Slot TIED = Slot.at(
            "/tied",
            "rows of other datasets",
            "{\"type\": [\"array\", \"null\"], \"items\": {\"type\": \"integer\"}, \"maxItems\": 6}");

    @Override
    public List<String> asked() {
        return List.of("details", "all about one");
    }

    @Override
    public String name() {
        return "details";
    }

    @Override
    public Class<Details> type() {
        return Details.class;
    }

    @Override
    public Class<DetailsDrawing> drawing() {
        return DetailsDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 1h8v8H1zM3 3h4M3 5h4M3 7h2";
    }

    @Override
    public List<Slot> slots() {
        return List.of(Slots.DATASET, BY, GROUPS, FIGURES, OVER, SPOT, TIED, Choices.RULE);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Details.class, Details.Group.class);
    }

    @Override
    public String words(Details details) {
        return phrase("the sheet of one {0}", ColumnWords.of(details.by()));
    }

    @Override
    public Set<Long> datasets(Details details) {
        Set<Long> ids = new HashSet<>(Set.of(details.dataset()));
        if (details.tied() != null) ids.addAll(details.tied());
        return ids;
    }

    @Override
    public Plan plan(Details details, Scene scene) {
        return new DetailsPlan(details, scene).plan();
    }

    @Override
    public void brief(Details details, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        LoadedDataset dataset = datasets.get(details.dataset());
        line.say("All about one ");
        line.choose(BY, ColumnWords.of(details.by()), Choices.categories(dataset));
        line.say(" of " + dataset.name() + ", the one that is picked or the first");
        boolean measured = details.figures() != null && !details.figures().isEmpty();
        line.say(measured ? ", with " : " ");
        line.slot(
                FIGURES,
                measured
                        ? Words.list(
                                details.figures().stream().map(ColumnWords::of).toList(), "and")
                        : "+ figures",
                Kind.SET,
                !measured,
                measured,
                choices.measures(dataset));
        if (measured) {
            line.say(details.over() == null ? " " : ", each with ");
            line.may(
                    OVER,
                    details.over() == null ? "+ tiny lines" : "a tiny line over " + ColumnWords.of(details.over()),
                    details.over() == null,
                    Choices.times(dataset));
        }
        groups(details, line, dataset);
        if (!dataset.placesOf(details.by()).isEmpty()) {
            boolean spot = Boolean.TRUE.equals(details.spot());
            line.say(" ");
            line.may(
                    SPOT,
                    spot ? "and where it lies" : "+ where it lies",
                    !spot,
                    List.of(new Option("a small map of it among the others", "", true)));
        }
        boolean tied = details.tied() != null && !details.tied().isEmpty();
        List<Option> others = choices.datasets().entrySet().stream()
                .filter(d -> d.getKey() != details.dataset())
                .map(d -> new Option(d.getValue(), "", d.getKey()))
                .toList();
        line.say(tied ? ", with its rows in " : " ");
        line.slot(
                TIED,
                tied
                        ? Words.list(
                                details.tied().stream()
                                        .map(id -> choices.datasets().getOrDefault(id, "a dataset that has gone"))
                                        .toList(),
                                "and")
                        : "+ its rows elsewhere",
                Kind.SET,
                !tied,
                tied,
                others);
        Choices.rule(line, details.rule(), dataset);
        line.say(".");
    }

    private static void groups(Details details, BriefLine line, LoadedDataset dataset) {
        List<Option> columns = Choices.columns(dataset, c -> true);
        List<Details.Group> groups = details.groups();
        line.say(", telling ");
        if (groups == null) {
            List<String> all = dataset.columnNames().stream()
                    .filter(c -> !c.startsWith("@"))
                    .toList();
            line.may(
                    GROUPS,
                    "all columns",
                    true,
                    List.of(new Option("some columns", "in groups of your own", List.of(new Details.Group("", all)))));
            return;
        }
        for (int g = 0; g < groups.size(); g++) {
            Details.Group group = groups.get(g);
            boolean named = group.title() != null && !group.title().isEmpty();
            line.say(g == 0 ? "" : "; ");
            line.slot(
                    Slot.within("/groups/" + g + "/title", "name of the group"),
                    named ? "“" + group.title() + "”" : "+ name",
                    Kind.TYPED,
                    !named,
                    false,
                    List.of(new Option(named ? group.title() : "", "", "")));
            line.say(": ");
            line.slot(
                    Slot.within("/groups/" + g + "/columns", "columns of the group"),
                    group.columns().isEmpty()
                            ? "+ columns"
                            : Words.list(
                                    group.columns().stream()
                                            .map(ColumnWords::of)
                                            .toList(),
                                    "and"),
                    Kind.SET,
                    group.columns().isEmpty(),
                    false,
                    columns);
        }
        line.say(" ");
        List<Details.Group> more = new ArrayList<>(groups);
        more.add(new Details.Group("", List.of()));
        line.slot(GROUPS, "+ group", Kind.CHOSEN, true, true, List.of(new Option("one more group", "", more)));
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.EXACTLY) return List.of();
        List<String> bys = new ArrayList<>();
        if (dataset.isPlaced()) bys.add(PlacedTable.PLACE);
        Telling.categories(dataset).stream()
                .filter(c -> !c.startsWith("@"))
                .reduce((a, b) -> b)
                .ifPresent(bys::add);
        return bys.stream()
                .map(by -> new Proposal(
                        "All about one " + ColumnWords.of(by),
                        made(
                                null,
                                null,
                                "",
                                dataset,
                                by,
                                Telling.measures(dataset).stream().limit(3).toList()),
                        7,
                        10))
                .toList();
    }

    private static Details made(
            String page, Box at, String title, LoadedDataset dataset, String by, List<Measure> figures) {
        return new Details(
                page,
                at,
                title,
                dataset.id(),
                by,
                null,
                figures.isEmpty() ? List.of(Measure.ROWS) : figures,
                Telling.time(dataset).orElse(null),
                dataset.placesOf(by).isEmpty() ? null : true,
                null,
                null);
    }

    @Override
    public Ingredients ingredients(Details details) {
        return new Ingredients(
                details.dataset(),
                List.of(details.by()),
                details.figures() == null ? List.of() : details.figures(),
                details.over(),
                details.rule(),
                null,
                null);
    }

    @Override
    public Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        if (from.dataset() == null || from.categories().isEmpty()) return Optional.empty();
        return datasets.ready(from.dataset()).map(dataset -> {
            String by = from.categories().get(0);
            Details made = made(
                    page,
                    at,
                    title,
                    dataset,
                    by,
                    from.measuresOrRows().stream().map(Measure::plain).toList());
            List<String> left = new ArrayList<>();
            for (String one : from.categories()) if (!one.equals(by)) left.add(ColumnWords.of(one));
            return new Become(
                    new Details(
                            page,
                            at,
                            title,
                            made.dataset(),
                            by,
                            null,
                            made.figures(),
                            from.time(),
                            made.spot(),
                            null,
                            from.rule()),
                    left);
        });
    }
}
