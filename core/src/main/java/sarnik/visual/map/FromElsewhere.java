package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.data.MisfitException;
import sarnik.visual.Scene;

/** Pictures or vector tiles of a source that a steward has added, laid over the ground; no figures. */
final class FromElsewhere implements LayerKind.Bare {

    @Override
    public String hint() {
        return "pictures or vector tiles from a source that a steward has added";
    }

    @Override
    public String name(Layer layer) {
        return layer.set() == null ? phrase("Pictures") : layer.set();
    }

    @Override
    public LayerDrawn drawn(Layer layer, LayerDrawn.Head head, Scene scene) {
        if (layer.set() == null) throw new MisfitException(phrase("No source is chosen for the pictures"));
        return new LayerDrawn.OfPictures(head, layer.set());
    }

    @Override
    public void sentence(BriefLine line, Layer layer, Choices choices) {
        line.say("pictures of ");
        line.choose(
                LayerSlots.at("/set").named("source of the pictures"),
                layer.set() == null ? "a source" : layer.set(),
                choices.grounds().stream()
                        .map(source -> new Option(source, "", source))
                        .toList());
    }
}
