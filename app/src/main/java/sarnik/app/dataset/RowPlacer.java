package sarnik.app.dataset;

import java.util.List;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import sarnik.app.boundary.BoundarySets;
import sarnik.app.web.RefusedException;
import sarnik.place.Decisions;
import sarnik.place.Gazetteer;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.place.TablePlacer;
import sarnik.place.Watch;
import sarnik.sql.StayingRows;
import sarnik.table.Table;

/** Places the rows of a table by a recipe: by names, codes, coordinates, areas, ties, or from one place to another. */
@Component
class RowPlacer {

    private final BoundarySets boundaries;

    RowPlacer(BoundarySets boundaries) {
        this.boundaries = boundaries;
    }

    /**
     * Places a table.
     *
     * @param decided what has been decided about its words
     * @param tied the datasets that it is placed by
     * @param watch told how far it has come
     * @throws RefusedException when the recipe does not fit the table, or its tie leads to nothing
     */
    PlacedTable place(Table table, Placing placing, Decisions decided, List<Loaded> tied, Watch watch) {
        PlacedTable placed = placed(table, placing, decided, tied, watch);
        if (!(table.staying() instanceof StayingRows rows) || placing instanceof Placing.FromTo) return placed;
        // What was found stands for as many rows as there are there.
        for (int b = 0; b < rows.face().blocks().size(); b++)
            if (rows.face().blocks().get(b).columns().equals(placing.columns()))
                return placed.counted(rows.face().counts(b, table.rows()));
        throw new RefusedException(
                "Where the rows are is not known by %s yet. Look at them again.".formatted(placing.words()));
    }

    private PlacedTable placed(Table table, Placing placing, Decisions decided, List<Loaded> tied, Watch watch) {
        if (placing instanceof Placing.FromTo both) {
            if (both.ends().anyMatch(Placing.FromTo.class::isInstance))
                throw new RefusedException("An origin or a destination is one place.");
            return place(table, both.to(), decided, tied, watch).from(place(table, both.from(), decided, tied, watch));
        }
        TablePlacer placer = new TablePlacer(Gazetteer.shipped(), decided, boundaries.land(), watch);
        try {
            if (placing instanceof Placing.ByArea area) {
                return placer.byArea(
                        table,
                        area.column(),
                        boundaries
                                .find(area.set())
                                .orElseThrow(() -> new RefusedException("The boundary set “" + area.set()
                                        + "” has gone. Bring one of that name in again, or "
                                        + "bring the rows in anew and place them another way.")));
            }
            if (!(placing instanceof Placing.ByTie tie)) return placer.by(table, placing);
            PlacedTable other = tied.stream()
                    .filter(t -> t.dataset().id() == tie.dataset())
                    .findFirst()
                    .map(Loaded::placed)
                    .orElse(null);
            // Of rows that stay elsewhere only the words that say where they are belong together.
            if (other != null
                    && other.table().staying() instanceof StayingRows far
                    && far.face().blocks().stream().noneMatch(b -> b.columns().contains(tie.equals())))
                throw new RefusedException(
                        "The rows of the other dataset stay in %s, where only %s says where they are. Tie to that, or bring those rows in."
                                .formatted(
                                        far.where(),
                                        far.face().blocks().stream()
                                                .flatMap(b -> b.columns().stream())
                                                .collect(Collectors.joining(", "))));
            if (other == null)
                throw new RefusedException("The dataset that this one is tied to has gone, or is not placed itself.");
            return placer.byTie(table, tie.column(), other, tie.equals());
        } catch (IllegalArgumentException unfit) {
            throw new RefusedException(unfit.getMessage() + ". Choose the columns that tell where a row is.");
        }
    }
}
