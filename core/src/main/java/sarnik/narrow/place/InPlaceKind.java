package sarnik.narrow.place;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Parts;
import sarnik.brief.Slot;
import sarnik.data.LoadedDataset;
import sarnik.data.RolledUp;
import sarnik.data.Words;
import sarnik.geo.Near;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.query.Condition;
import sarnik.scale.NumberWords;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.visual.Known;

/** The kind of filter that keeps rows by where they lie. */
public final class InPlaceKind implements FilterKind<InPlace> {

    private static final Slot SETS = Slot.at(
            "/sets",
            "areas",
            "{\"type\": [\"array\", \"null\"], \"items\": {\"type\": \"string\", \"maxLength\": 120}, \"maxItems\": 12}");
    private static final Slot MAP = Slot.at("/map", "map", "{\"type\": [\"string\", \"null\"], \"maxLength\": 31}");

    @Override
    public String name() {
        return "place";
    }

    @Override
    public Class<InPlace> type() {
        return InPlace.class;
    }

    @Override
    public List<Slot> slots() {
        List<Slot> slots = new ArrayList<>(SHARED);
        slots.addAll(List.of(COLUMN, SETS, MAP));
        return slots;
    }

    /** Places and where rows come from are text; which column holds them the dataset's placing says. */
    @Override
    public boolean fits(Column column) {
        return column instanceof CodedColumn;
    }

    @Override
    public String misfit() {
        return phrase("The rows of this filter are no longer placed.");
    }

    @Override
    public FilterOffer offer(InPlace filter, Column column, FilterScene scene) {
        LoadedDataset dataset = scene.of(filter).orElseThrow();
        return FilterOffer.values(
                name(),
                filter.words(),
                List.of(),
                0,
                Choices.map(
                        "map",
                        filter.map() == null ? "" : filter.map(),
                        "areas",
                        sets(filter).stream()
                                .flatMap(set -> dataset.placesOf(RolledUp.column(set)).values().stream())
                                .map(area -> Choices.map("id", area.id(), "name", area.said()))
                                .toList()));
    }

    private static List<String> sets(InPlace filter) {
        return filter.sets() == null ? List.of() : filter.sets();
    }

    @Override
    public Optional<Value> read(InPlace filter, String text) {
        if (!text.startsWith("~")) {
            List<String> values = Texts.values(text);
            return values.isEmpty() ? Optional.empty() : Optional.of(new Value.Choice(values));
        }
        Optional<Value.Around> around = Texts.around(text);
        if (around.isPresent()) return around.map(a -> (Value) a);
        return Texts.pick(text).filter(Value.Extent.class::isInstance).map(pick -> (Value) pick);
    }

    @Override
    public String expected() {
        return phrase("area, place or extent");
    }

    @Override
    public Known known(InPlace filter, List<String> values, FilterScene scene) {
        LoadedDataset dataset = scene.of(filter).orElse(null);
        if (dataset == null) return new Known(values, "");
        return new Known(
                values.stream()
                        .filter(id -> named(filter, id, dataset).isPresent())
                        .toList(),
                phrase("{0} does not have among its places", dataset.name()));
    }

    /** The place or area of this id. */
    private static Optional<Place> named(InPlace filter, String id, LoadedDataset dataset) {
        Place own = dataset.placesOf(filter.column()).get(id);
        if (own != null) return Optional.of(own);
        return sets(filter).stream()
                .flatMap(set -> dataset.shown(set, id).stream())
                .findFirst();
    }

    @Override
    public List<Condition> conditions(
            InPlace filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        Map<String, Place> places = dataset.placesOf(column);
        if (value instanceof Value.Choice choice)
            return List.of(new Condition.OneOf(column, dataset.meant(choice.values())));
        Predicate<Place> lies = value instanceof Value.Around around
                ? p -> Near.within(around.metres(), around.lon(), around.lat(), p.lon(), p.lat())
                : inBox((Value.Extent) value);
        return List.of(new Condition.OneOf(
                column,
                places.values().stream().filter(lies).map(Place::id).sorted().toList()));
    }

    private static Predicate<Place> inBox(Value.Extent box) {
        return p -> Near.inBox(p.lon(), p.lat(), box.west(), box.south(), box.east(), box.north());
    }

    @Override
    public String words(InPlace filter, Value value, FilterScene scene) {
        if (value instanceof Value.Around around)
            return phrase(
                    "{0} within {1} km of {2}",
                    filter.words(), NumberWords.full(around.metres() / 1000), around.name());
        if (value instanceof Value.Extent) return phrase("{0} in sight of the map", filter.words());
        Optional<LoadedDataset> dataset = scene.of(filter);
        return phrase(
                "{0} in {1}",
                filter.words(),
                Words.list(
                        ((Value.Choice) value)
                                .values().stream()
                                        .map(id -> dataset.flatMap(d -> named(filter, id, d))
                                                .map(Place::said)
                                                .orElse(id))
                                        .sorted()
                                        .toList(),
                        "or"));
    }

    @Override
    public List<Beginning> beginnings(LoadedDataset dataset) {
        return dataset.table().find(PlacedTable.PLACE).isEmpty() ? List.of() : List.of(of(PlacedTable.PLACE));
    }

    @Override
    public Beginning of(String column) {
        return new Beginning(offers(column), Choices.map("column", column, "title", "Place"));
    }

    @Override
    public String offers(String column) {
        return "Where rows lie: areas, around a place, in sight of a map";
    }

    @Override
    public void brief(InPlace filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        boolean origin = filter.column().equals(PlacedTable.ORIGIN);
        line.say("The reader may keep to ");
        if (dataset.table().find(PlacedTable.ORIGIN).isPresent())
            line.choose(
                    COLUMN,
                    origin ? "where rows come from" : "where rows lie",
                    List.of(
                            new Option("where rows lie", "", PlacedTable.PLACE),
                            new Option("where rows come from", "", PlacedTable.ORIGIN)));
        else line.say("where rows lie");
        line.say(" in " + dataset.name() + ": around a place that is searched for");
        List<String> sets = sets(filter);
        line.say(sets.isEmpty() ? ", " : ", in areas of ");
        line.may(
                SETS,
                sets.isEmpty() ? "+ areas" : Words.list(sets, "and"),
                Kind.SET,
                sets.isEmpty(),
                choices.sets().stream().map(set -> new Option(set, "", set)).toList());
        List<Parts.Part> maps =
                choices.parts().visuals().stream().filter(Parts.Part::framed).toList();
        String named = choices.parts().visuals().stream()
                .filter(p -> p.id().equals(filter.map()))
                .map(Parts.Part::words)
                .findFirst()
                .orElse("a map that has gone");
        line.say(filter.map() == null ? ", " : ", in sight of ");
        line.may(
                MAP,
                filter.map() == null ? "+ in sight of a map" : named,
                filter.map() == null,
                maps.stream().map(p -> new Option(p.words(), "", p.id())).toList());
        line.say(".");
    }
}
