package sarnik.visual.picture;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Set;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
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
        return List.of(IMAGE, SHOWS, FILLS);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Picture.class);
    }

    @Override
    public String words(Picture picture) {
        return phrase("the picture");
    }

    @Override
    public Set<Long> datasets(Picture picture) {
        return Set.of();
    }

    @Override
    public Set<String> files(Picture picture) {
        return picture.image() == null ? Set.of() : Set.of(picture.image());
    }

    @Override
    public Plan plan(Picture picture, Scene scene) {
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

    @Override
    public void brief(Picture picture, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
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

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.SAY) return List.of();
        return List.of(new Proposal("A picture", new Picture(null, null, "", null, null, null), 7, 6));
    }
}
