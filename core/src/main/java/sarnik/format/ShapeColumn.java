package sarnik.format;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.locationtech.jts.geom.Coordinate;
import org.locationtech.jts.geom.Geometry;
import org.locationtech.jts.geom.Polygonal;
import sarnik.geo.Projection;
import sarnik.geo.WrittenShape;
import sarnik.table.RowSource;
import sarnik.table.RowsOver;

/**
 * A table one of whose columns holds shapes, as well-known text or as well-known binary in hexadecimal digits (OGC
 * 06-103r4),
 * with or without the number of their system before them. The column stays as it was written, with third coordinates,
 * lines
 * and areas; {@code lon} and {@code lat} in degrees are added behind all columns, as with any features, and {@code
 * shape} where
 * the shapes are written in another system and are more than points.
 */
final class ShapeColumn extends RowsOver implements FeatureSource {

    private static final int LOOKED_AT = 200;
    private static final int FAR_ENOUGH = 20_000;

    private final int column;
    private final Systems systems;
    private final boolean areas;
    private final Map<Integer, Optional<Projection>> known = new HashMap<>();
    private final boolean said;
    private final boolean turned;

    private ShapeColumn(RowSource rows, int column, List<WrittenShape> sample, Integer said) {
        super(rows);
        this.column = column;
        this.said = said != null;
        this.areas = sample.stream().anyMatch(w -> w.shape() instanceof Polygonal);
        this.systems = systems(sample, said);
        this.turned = systems.asks() == null
                && sample.stream().anyMatch(w -> !WrittenShape.isPlainPoint(w.shape()))
                && (said == null
                        ? sample.stream().anyMatch(w -> !w.isDegrees())
                        : !systems.projection().isDegrees());
    }

    /**
     * Finds the first column whose filled cells are all shapes.
     *
     * @param said the code of the EPSG dataset of the system that a person has said; null where nobody has
     * @return empty where there is none
     */
    static Optional<ShapeColumn> in(RowSource rows, Integer said) throws IOException {
        int columns = rows.header().size();
        List<List<WrittenShape>> samples = new ArrayList<>();
        for (int c = 0; c < columns; c++) samples.add(new ArrayList<>());
        int[] seen = new int[1];
        try {
            rows.each((line, cells) -> {
                boolean goesOn = false;
                for (int c = 0; c < Math.min(columns, cells.count()); c++) {
                    List<WrittenShape> sample = samples.get(c);
                    if (sample == null
                            || sample.size() >= LOOKED_AT
                            || cells.get(c).isBlank()) {
                        goesOn |= sample != null && sample.size() < LOOKED_AT;
                        continue;
                    }
                    WrittenShape written = WrittenShape.read(cells.get(c));
                    if (written == null) samples.set(c, null);
                    else sample.add(written);
                    goesOn |= written != null;
                }
                if (!goesOn || ++seen[0] > FAR_ENOUGH) throw new Enough();
            });
        } catch (Enough enough) {
            // Looked at.
        }
        for (int c = 0; c < columns; c++)
            if (samples.get(c) != null && !samples.get(c).isEmpty())
                return Optional.of(new ShapeColumn(rows, c, samples.get(c), said));
        return Optional.empty();
    }

    private Systems systems(List<WrittenShape> sample, Integer said) {
        if (said != null) return Systems.of(said, null);
        String name = file.header().get(column);
        for (WrittenShape written : sample) {
            if (written.system() != 0 && of(written.system()).isEmpty())
                return Systems.unsaid("The shapes of “%s” say the coordinate system %d, which is not known here. %s"
                        .formatted(name, written.system(), Systems.SAY));
            if (written.system() == 0 && !written.liesInDegrees())
                return Systems.unsaid(
                        "The shapes of “%s” are not in degrees, and do not say their coordinate system. %s"
                                .formatted(name, Systems.SAY));
        }
        return Systems.DEGREES;
    }

    private Optional<Projection> of(int system) {
        return known.computeIfAbsent(system, Projection::ofEpsg);
    }

    /** The shape of a cell in degrees; null where it holds none or its system is not known. */
    private Geometry degrees(String cell) {
        WrittenShape written = cell.isBlank() ? null : WrittenShape.read(cell);
        if (written == null) return null;
        Projection projection = said || written.system() == 0 || systems.asks() != null
                ? systems.projection()
                : of(written.system()).orElse(Projection.UNSAID);
        if (!projection.isDegrees()) Systems.turn(written.shape(), projection);
        else if (!written.liesInDegrees()) return null;
        return written.shape();
    }

    /** Whether some of the shapes looked at are areas. */
    boolean hasAreas() {
        return areas;
    }

    @Override
    public List<String> header() {
        List<String> header = new ArrayList<>(file.header());
        header.add("lon");
        header.add("lat");
        if (turned) header.add(FeatureRows.SHAPE);
        return header;
    }

    @Override
    public int positionAt() {
        return file.header().size();
    }

    @Override
    public void each(RowSource.Visitor visitor) throws IOException {
        int own = file.header().size();
        String[] at = new String[turned ? 3 : 2];
        file.each((line, cells) -> {
            Geometry shape = column < cells.count() ? degrees(cells.get(column)) : null;
            Coordinate position = FeatureRows.position(shape);
            at[0] = position == null ? "" : FeatureRows.degrees(position.x);
            at[1] = position == null ? "" : FeatureRows.degrees(position.y);
            if (turned) at[2] = FeatureRows.text(shape);
            visitor.row(line, new Cells() {
                @Override
                public int count() {
                    return Math.max(own, cells.count()) + at.length;
                }

                @Override
                public String get(int index) {
                    if (index >= own && index < own + at.length) return at[index - own];
                    int before = index < own ? index : index - at.length;
                    return before < cells.count() ? cells.get(before) : "";
                }

                @Override
                public boolean isMerged() {
                    return cells.isMerged();
                }

                @Override
                public boolean isMerged(int index) {
                    return index < own && cells.isMerged(index);
                }

                @Override
                public boolean isHidden() {
                    return cells.isHidden();
                }
            });
        });
    }

    @Override
    public void each(Consumer<Feature> visitor) throws IOException {
        List<String> header = file.header();
        file.each((line, cells) -> {
            Map<String, String> properties = new LinkedHashMap<>();
            for (int c = 0; c < Math.min(header.size(), cells.count()); c++)
                if (c != column) properties.putIfAbsent(header.get(c), cells.get(c));
            visitor.accept(new Feature(line, properties, column < cells.count() ? degrees(cells.get(column)) : null));
        });
    }

    @Override
    public Optional<String> asks() {
        return Optional.ofNullable(systems.asks());
    }

    @Override
    public String words() {
        return file.words() + ", shapes in “" + file.header().get(column) + "”, " + systems.words();
    }
}
