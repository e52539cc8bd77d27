package sarnik.visual.grid;

import java.util.List;
import sarnik.visual.Drawing;
import sarnik.visual.Key;
import sarnik.visual.NamedKey;
import sarnik.visual.Spread;
import sarnik.visual.Trail;

/**
 * @param words what is measured
 * @param across the columns, in their order
 * @param down the rows, in their order
 * @param classes class of colour of each cell, row by row; -1 for no data
 * @param texts the figures of the cells, row by row; "–" for no data
 * @param key what the colours mean
 * @param notes sentences about what is not as one would expect
 */
public record GridDrawing(
        String title,
        String words,
        List<Head> across,
        List<Head> down,
        int[] classes,
        List<String> texts,
        Key key,
        List<String> notes,
        Trail trail)
        implements Drawing {

    @Override
    public double tells() {
        double[] cells = new double[classes.length];
        for (int i = 0; i < cells.length; i++) cells[i] = classes[i] < 0 ? Double.NaN : classes[i];
        return Spread.of(cells);
    }

    @Override
    public List<NamedKey> keys() {
        return List.of(new NamedKey("", null, key));
    }

    /**
     * @param key the value
     * @param label what it is called
     */
    public record Head(String key, String label) {}
}
