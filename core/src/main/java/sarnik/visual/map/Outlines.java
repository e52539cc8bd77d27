package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Map;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.data.MisfitException;
import sarnik.geo.IndexedSet;
import sarnik.visual.Scene;

/** The borders of a boundary set, and its names where asked for; no figures. */
final class Outlines implements LayerKind.Bare {

    @Override
    public String hint() {
        return "borders alone, without figures";
    }

    @Override
    public String name(Layer layer) {
        return layer.set() == null ? phrase("Outlines") : layer.set();
    }

    @Override
    public LayerDrawn drawn(Layer layer, LayerDrawn.Head head, Scene scene) {
        if (layer.set() == null) throw new MisfitException(phrase("No boundary set is chosen for the outlines"));
        IndexedSet set = scene.datasets()
                .boundaries()
                .find(layer.set())
                .orElseThrow(
                        () -> new MisfitException(phrase("The boundary set “{0}” has been taken away", layer.set())));
        return new LayerDrawn.OfOutlines(
                head, layer.set(), layer.label() != null, set.set().credit());
    }

    @Override
    public void sentence(BriefLine line, Layer layer, Choices choices) {
        line.say("outlines of ");
        line.choose(
                LayerSlots.at("/set").named("areas"),
                layer.set() == null ? "a boundary set" : layer.set(),
                choices.sets().stream().map(set -> new Option(set, "", set)).toList());
        boolean named = layer.label() != null;
        line.say(named ? " with " : " ");
        line.slot(
                LayerSlots.at("/label").named("names"),
                named ? "their names" : "+ names",
                Kind.CHOSEN,
                !named,
                named,
                List.of(new Option("their names", "", Map.of())));
    }
}
