package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.RolledUp;
import sarnik.query.Measure;
import sarnik.visual.Scales;

/** The areas of a boundary set, filled. */
final class Areas implements LayerKind {

    @Override
    public String hint() {
        return "areas filled with colour";
    }

    @Override
    public String name(String what, LoadedDataset dataset) {
        return phrase("{0} by area", what);
    }

    @Override
    public void sentence(LayerBrief brief) {
        brief.say(" of ");
        brief.areasOf("the boundary set it is placed by");
        brief.ofDataset(" in ");
        brief.colour();
        brief.label();
        brief.tip();
    }

    @Override
    public LayerPlan plan(LayerRows rows, Scales scales) {
        Layer layer = rows.layer;
        String set = PlaceMarks.setOf(layer, rows.dataset())
                .orElseThrow(() -> new MisfitException(phrase(
                        "The rows of “{0}” lie at points. Choose the areas they are counted by in the layer’s brief",
                        rows.dataset().name())));
        String column = layer.set() == null ? layer.placeColumn() : RolledUp.column(set);
        return new PlaceMarks(rows, scales, column, Measure.ROWS).filled(set, null);
    }
}
