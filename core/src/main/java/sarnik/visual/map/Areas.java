package sarnik.visual.map;

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
        return what + " by area";
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
                .orElseThrow(() ->
                        new MisfitException("The rows of “" + rows.dataset().name()
                                + "” lie at points. Choose the areas they are counted by in the layer's brief"));
        String column = layer.set() == null ? layer.placeColumn() : RolledUp.column(set);
        return new PlaceMarks(rows, scales, column, Measure.ROWS).filled(set, null);
    }
}
