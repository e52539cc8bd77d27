package sarnik.visual.map;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.function.IntFunction;
import sarnik.data.MisfitException;
import sarnik.data.OwnShapes;
import sarnik.query.QueryEngine;
import sarnik.table.Table;
import sarnik.visual.Scene;
import sarnik.visual.Sight;

/**
 * What is asked about a map beside its drawing: one place, those near it or like it, its rows, its shapes. Everything
 * follows what the map is narrowed by.
 */
public final class MapAnswers {

    private final MapVisual map;
    private final Scene scene;
    private final QueryEngine engine;

    public MapAnswers(MapVisual map, Scene scene, QueryEngine engine) {
        this.map = map;
        this.scene = scene;
        this.engine = engine;
    }

    /**
     * What is told of a place on a layer.
     *
     * @throws MisfitException when the layer has gone or no longer fits its data
     */
    public PlaceTeller.Told tell(String layer, String place) {
        return PlaceTeller.tell(engine, rows(layer), place);
    }

    /**
     * Places of a layer within a distance of one of them, nearest first, itself among them.
     *
     * @param metres along the ground
     * @throws MisfitException as {@link #tell}
     */
    public List<PlaceTeller.Found> near(String layer, String place, double metres) {
        return PlaceTeller.near(engine, rows(layer), place, metres);
    }

    /**
     * The places of a layer that are most like one of them in all that the layer shows and tells, itself first.
     *
     * @param count how many besides itself
     * @throws MisfitException as {@link #tell}
     */
    public List<PlaceTeller.Found> alike(String layer, String place, int count) {
        return PlaceTeller.alike(engine, rows(layer), place, count);
    }

    /**
     * Rows to hand out.
     *
     * @param table the rows
     * @param position longitude and latitude of each, degrees
     */
    public record Rows(Table table, IntFunction<double[]> position) {}

    /**
     * The rows of a layer that lie within an extent.
     *
     * @param all whether with all columns that people know, else with those that the layer shows or tells, unless the
     *     map hands out all
     * @throws MisfitException as {@link #tell}, and when there are more than can be handed out at once
     */
    public Rows rowsWithin(String layer, Sight extent, boolean all) {
        LayerRows.Rows rows = rows(layer).within(engine, extent, all || map.handsOutAll());
        return new Rows(rows.table(), rows.position());
    }

    /**
     * The shapes that the rows of a layer brought along.
     *
     * @throws MisfitException when the layer has gone, or its rows brought none
     */
    public OwnShapes ownShapes(String layer) {
        LayerRows rows = rows(layer);
        if (rows.layer.kind() != Layer.Kind.SHAPES)
            throw new MisfitException(phrase("This layer does not show the shapes of its rows."));
        return rows.dataset()
                .ownShapes()
                .orElseThrow(() -> new MisfitException(phrase(
                        "The rows of “{0}” brought no shapes along.",
                        rows.dataset().name())));
    }

    private LayerRows rows(String layer) {
        return MapKind.rows(map, layer, scene);
    }
}
