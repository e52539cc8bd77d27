package sarnik.visual.key;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Parts;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.scale.ValueWords;
import sarnik.visual.Colour;
import sarnik.visual.Colouring;
import sarnik.visual.Drawing;
import sarnik.visual.Key;
import sarnik.visual.NamedKey;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.SharedKey;
import sarnik.visual.VisualKind;

/** The kind of visual that says what colours, sizes and shapes stand for. */
public final class KeyKind implements VisualKind<KeyVisual> {

    private static final Slot OF = Slot.at("/of", "visual", "{\"type\": [\"string\", \"null\"], \"maxLength\": 31}");
    private static final Slot KEY =
            Slot.at("/key", "shared key", "{\"type\": [\"string\", \"null\"], \"maxLength\": 200}");

    @Override
    public String name() {
        return "key";
    }

    @Override
    public Class<KeyVisual> type() {
        return KeyVisual.class;
    }

    @Override
    public Class<KeyDrawing> drawing() {
        return KeyDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 1h3v2H1zM1 4h3v2H1zM1 7h3v2H1zM6 2h3M6 5h3M6 8h2";
    }

    @Override
    public List<Slot> slots() {
        return List.of(OF, KEY);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(KeyVisual.class);
    }

    @Override
    public String words(KeyVisual key) {
        return key.key() == null ? phrase("the key") : phrase("the key “{0}”", key.key());
    }

    @Override
    public Set<Long> datasets(KeyVisual key) {
        return Set.of();
    }

    @Override
    public Set<String> dependsOn(KeyVisual key) {
        return key.of() == null ? Set.of() : Set.of(key.of());
    }

    @Override
    public Plan plan(KeyVisual key, Scene scene) {
        if (key.key() != null) return Plan.of(shared(key, scene));
        if (key.of() == null) throw new MisfitException(phrase("Choose in the brief whose key this is."));
        Plan other = scene.plan(key.of());
        return other.then(drawn -> of(key, drawn));
    }

    private static KeyDrawing of(KeyVisual key, Drawing drawn) {
        List<NamedKey> parts = drawn.keys();
        return new KeyDrawing(
                Scene.titleOf(key, phrase("Key of {0}", drawn.title())),
                parts,
                true,
                parts.isEmpty()
                        ? List.of(
                                phrase("The colours, sizes and shapes of “{0}” stand for nothing yet.", drawn.title()))
                        : List.of(),
                null);
    }

    private static KeyDrawing shared(KeyVisual key, Scene scene) {
        SharedKey shared = scene.key(key.key())
                .orElseThrow(() -> new MisfitException(
                        phrase("The shared key “{0}” has gone. Choose another in the brief.", key.key())));
        Colour colour = shared.colour();
        Key drawn = colour.order() != null && !colour.order().isEmpty()
                ? Colouring.swatches(colour, shared.words(), colour.order())
                : Colouring.byMeasure(colour, new double[0], ends(colour), shared.words(), ValueWords.NUMBER)
                        .key();
        return new KeyDrawing(
                Scene.titleOf(key, shared.name()),
                List.of(new NamedKey("", null, drawn)),
                false,
                colour.low() == null && colour.breaks() == null && colour.order() == null
                        ? List.of(phrase("This key has no ends of its own yet, so it shows none."))
                        : List.of(),
                null);
    }

    private static double[] ends(Colour colour) {
        List<Double> ends = new ArrayList<>();
        if (colour.low() != null) ends.add(colour.low());
        if (colour.breaks() != null) ends.addAll(colour.breaks());
        if (colour.high() != null) ends.add(colour.high());
        return ends.stream().mapToDouble(d -> d).toArray();
    }

    @Override
    public void brief(KeyVisual key, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        line.say("The key of ");
        if (key.key() == null) {
            line.may(
                    OF,
                    key.of() == null ? "+ a visual" : choices.parts().nameOf(key.of()),
                    key.of() == null,
                    choices.parts().visuals().stream()
                            .filter(Parts.Part::keyed)
                            .map(p -> new Option(p.words(), "", p.id()))
                            .toList());
        }
        if (key.of() == null) {
            if (choices.keys().isEmpty() && key.key() == null) {
                line.say(".");
                return;
            }
            line.say(key.key() == null ? " or " : "");
            line.may(
                    KEY,
                    key.key() == null ? "+ a shared key" : "the shared key “" + key.key() + "”",
                    key.key() == null,
                    choices.keys().stream()
                            .map(k -> new Option(k.name(), k.words(), k.name()))
                            .toList());
        }
        line.say(".");
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset, Parts parts) {
        if (question != Question.SAY) return List.of();
        return parts.visuals().stream()
                .filter(Parts.Part::keyed)
                .map(p -> new Proposal(
                        "What the colours of “" + p.words() + "” stand for",
                        new KeyVisual(null, null, "", p.id(), null),
                        5,
                        5))
                .toList();
    }
}
