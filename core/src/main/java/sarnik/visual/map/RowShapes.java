package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import sarnik.data.LoadedDataset;
import sarnik.data.MisfitException;
import sarnik.data.OwnShapes;
import sarnik.place.PlacedTable;
import sarnik.query.Measure;
import sarnik.visual.Scales;

/** The lines, areas and points that the rows brought along. */
final class RowShapes implements LayerKind {

    @Override
    public String hint() {
        return "lines and areas as they were brought in";
    }

    @Override
    public boolean fits(LoadedDataset dataset) {
        return dataset.ownShapes().isPresent();
    }

    @Override
    public String name(String what, LoadedDataset dataset) {
        return what;
    }

    @Override
    public void sentence(LayerBrief brief) {
        brief.ofDataset(" of the rows of ");
        brief.colour();
        brief.label();
        brief.tip();
    }

    @Override
    public LayerPlan plan(LayerRows rows, Scales scales) {
        OwnShapes own = rows.dataset()
                .ownShapes()
                .orElseThrow(() -> new MisfitException(phrase(
                        "The rows of “{0}” brought no shapes along. Choose another kind of layer in its brief",
                        rows.dataset().name())));
        return new PlaceMarks(rows, scales, PlacedTable.PLACE, Measure.ROWS).filled(null, own);
    }
}
