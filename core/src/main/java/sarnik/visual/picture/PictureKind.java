package sarnik.visual.picture;

import static sarnik.language.Language.phrase;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.table.CodedColumn;
import sarnik.visual.Asked;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.VisualKind;

/** The kind of visual that is a picture: a photograph, a drawing, a sign. */
public final class PictureKind implements VisualKind<Picture> {

    private static final Slot IMAGE =
            Slot.at("/image", "picture", "{\"type\": [\"string\", \"null\"], \"pattern\": \"^[0-9a-f]{64}$\"}");
    private static final Slot SHOWS =
            Slot.at("/shows", "what it shows", "{\"type\": [\"string\", \"null\"], \"maxLength\": 1000}");
    private static final Slot FILLS = Slot.at("/fills", "fit", "{\"type\": [\"boolean\", \"null\"]}");
    private static final Slot EACH = Slot.at("/each", "pictures of values", """
            {"type": ["object", "null"], "additionalProperties": false, "required": ["dataset", "column"], "properties":
              {"dataset": {"type": "integer"}, "column": {"$ref": "#/$defs/column"},
               "shots": {"type": "object", "maxProperties": 2000, "propertyNames": {"maxLength": 200}, "additionalProperties":
                 {"type": "object", "additionalProperties": false, "required": ["image"], "properties":
                   {"image": {"type": "string", "pattern": "^[0-9a-f]{64}$"},
                    "shows": {"type": ["string", "null"], "maxLength": 1000}}}}}}""");
    private static final Slot COLUMN = Slot.within("/each/column", "what they are of");
    private static final Slot SHOTS = Slot.within("/each/shots", "pictures");

    /** So many values are offered to say whose a picture is. */
    private static final int MOST_VALUES = 2000;

    @Override
    public String name() {
        return "picture";
    }

    @Override
    public Class<Picture> type() {
        return Picture.class;
    }

    @Override
    public Class<PictureDrawing> drawing() {
        return PictureDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 2h8v6H1zM1 7l2.5-2.5L6 7l1.5-1.5L9 7M6.5 4h.1";
    }

    @Override
    public List<Slot> slots() {
        return List.of(IMAGE, SHOWS, FILLS, EACH);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Picture.class, Picture.Each.class, Picture.Shot.class);
    }

    @Override
    public String words(Picture picture) {
        return picture.each() == null
                ? phrase("the picture")
                : phrase("the pictures of {0}", picture.each().column());
    }

    @Override
    public Set<Long> datasets(Picture picture) {
        return picture.each() == null ? Set.of() : Set.of(picture.each().dataset());
    }

    @Override
    public Set<String> files(Picture picture) {
        Set<String> files = new HashSet<>();
        if (picture.image() != null) files.add(picture.image());
        if (picture.each() != null) picture.each().shots().values().forEach(shot -> files.add(shot.image()));
        return files;
    }

    @Override
    public Plan plan(Picture picture, Scene scene) {
        if (picture.each() != null) return planEach(picture, picture.each(), scene);
        String wanting = null;
        if (picture.image() == null) wanting = phrase("There is no picture here yet. Choose one in the brief.");
        else if (picture.shows() == null || picture.shows().isBlank())
            wanting = phrase("Say in the brief what this picture shows, for those who cannot see it.");
        return Plan.of(new PictureDrawing(
                picture.title() == null ? "" : picture.title(),
                picture.image(),
                picture.shows() == null ? "" : picture.shows(),
                Boolean.TRUE.equals(picture.fills()),
                wanting));
    }

    private static Plan planEach(Picture picture, Picture.Each each, Scene scene) {
        LoadedDataset dataset = scene.dataset(each.dataset());
        Plan plan = new Plan();
        Asked asked = plan.ask(
                dataset,
                Query.by(scene.shown(dataset, null), List.of(new GroupKey.Of(each.column())), List.of(Measure.ROWS)));
        return plan.drawn(answers -> {
            Frame frame = answers.of(asked);
            String value = frame.size() == 1 ? frame.key(0, 0) : null;
            Picture.Shot shot = value == null ? null : each.shots().get(value);
            String name = value == null ? each.column() : dataset.label(each.column(), value);
            return new PictureDrawing(
                    Scene.titleOf(picture, name),
                    shot == null ? null : shot.image(),
                    shot == null ? "" : shot.shows() == null || shot.shows().isBlank() ? name : shot.shows(),
                    Boolean.TRUE.equals(picture.fills()),
                    shot != null ? null : wanting(each, frame.size(), value == null ? null : name));
        });
    }

    private static String wanting(Picture.Each each, int values, String name) {
        if (values == 0) return phrase("No {0} is shown just now.", each.column());
        if (name == null && values > 1) return phrase("Pick one {0} to see its picture.", each.column());
        return name == null
                ? phrase("What is shown has no {0}.", each.column())
                : phrase("There is no picture of {0} yet.", name);
    }

    @Override
    public void brief(Picture picture, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        if (picture.each() != null) brief(picture.each(), line, datasets);
        else brief(picture, line);
        boolean fills = Boolean.TRUE.equals(picture.fills());
        line.say(", ");
        line.choose(
                FILLS,
                fills ? "filling its box" : "seen whole",
                List.of(
                        new Option("seen whole", "with room beside it", false),
                        new Option("filling its box", "cut at two sides", true)));
        line.say(".");
    }

    private static void brief(Picture.Each each, BriefLine line, Datasets datasets) {
        LoadedDataset dataset = datasets.get(each.dataset());
        List<String> values = values(dataset, each.column());
        line.say("The picture of the ");
        line.choose(COLUMN, each.column(), Choices.categories(dataset));
        line.say(" in " + dataset.name() + " that is shown: ");
        long have = values.stream().filter(each.shots()::containsKey).count();
        line.slot(
                SHOTS,
                each.shots().isEmpty() ? "+ choose pictures" : "%,d of %,d have one".formatted(have, values.size()),
                Kind.PICTURES,
                each.shots().isEmpty(),
                false,
                values.stream()
                        .limit(MOST_VALUES)
                        .map(value -> new Option(dataset.label(each.column(), value), "", value))
                        .toList());
    }

    private static List<String> values(LoadedDataset dataset, String column) {
        return dataset.table().find(column).orElse(null) instanceof CodedColumn coded
                ? coded.dictionary().stream().sorted().toList()
                : List.of();
    }

    private static void brief(Picture picture, BriefLine line) {
        line.say("A picture: ");
        line.slot(
                IMAGE,
                picture.image() == null ? "+ choose one" : "this one",
                Kind.PICTURE,
                picture.image() == null,
                false,
                List.of());
        boolean empty = picture.shows() == null || picture.shows().isBlank();
        line.say(empty ? ", " : ", which shows ");
        line.slot(
                SHOWS,
                empty ? "+ what it shows" : "“" + picture.shows() + "”",
                Kind.TYPED,
                empty,
                false,
                List.of(new Option(empty ? "" : picture.shows(), "", "")));
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question == Question.SAY)
            return List.of(new Proposal("A picture", new Picture(null, null, "", null, null, null, null), 7, 6));
        if (question != Question.EXACTLY) return List.of();
        return names(dataset)
                .map(column -> new Proposal(
                        "A picture of each " + column,
                        new Picture(null, null, "", null, null, null, new Picture.Each(dataset.id(), column, Map.of())),
                        7,
                        6))
                .stream()
                .toList();
    }

    /** The first column that tells each row from the others: what it is about has a picture, if anything has. */
    private static Optional<String> names(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> dataset.table().find(name).orElse(null) instanceof CodedColumn coded
                        && coded.dictionary().size() > 1
                        && coded.dictionary().size() == dataset.table().rows())
                .findFirst();
    }
}
