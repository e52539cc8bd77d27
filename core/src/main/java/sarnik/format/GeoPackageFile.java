package sarnik.format;

import java.io.IOException;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Properties;
import java.util.function.Consumer;
import org.locationtech.jts.geom.Geometry;
import sarnik.geo.Projection;
import sarnik.table.UnreadableTableException;

/**
 * A layer of a GeoPackage (OGC 12-128r18): a table of an SQLite file with shapes, or without. Only plain tables are
 * read, so
 * that nothing written into the file runs.
 */
final class GeoPackageFile implements FeatureSource {

    private static final byte[] NO_SHAPE = new byte[0];

    private final Path file;
    private final String layer;
    private final String shapeColumn;
    private final Systems systems;

    private GeoPackageFile(Path file, String layer, String shapeColumn, Systems systems) {
        this.file = file;
        this.layer = layer;
        this.shapeColumn = shapeColumn;
        this.systems = systems;
    }

    static List<String> layers(Path file) throws IOException {
        return with(file, GeoPackageFile::layers);
    }

    private static List<String> layers(Connection connection) throws SQLException {
        List<String> names = new ArrayList<>();
        try (PreparedStatement ask = connection.prepareStatement(
                        "SELECT c.table_name FROM gpkg_contents c JOIN sqlite_master m ON m.name = c.table_name"
                                + " WHERE m.type = 'table' AND m.sql NOT LIKE '%VIRTUAL%' AND c.data_type IN "
                                + "('features', 'attributes') ORDER BY c.data_type DESC, c.table_name");
                ResultSet found = ask.executeQuery()) {
            while (found.next()) names.add(found.getString(1));
        }
        if (names.isEmpty())
            throw new UnreadableTableException("The GeoPackage holds no layer of features and no table.");
        return names;
    }

    /** The first layer that has a row; the first of all where none has. */
    private static String firstFilled(Connection connection, List<String> layers) throws SQLException {
        for (String layer : layers) {
            try (var statement = connection.createStatement();
                    ResultSet row =
                            statement.executeQuery("SELECT 1 FROM \"" + layer.replace("\"", "\"\"") + "\" LIMIT 1")) {
                if (row.next()) return layer;
            }
        }
        return layers.get(0);
    }

    /**
     * @param wanted the layer; null for the first that has a row
     * @param system the coordinate system that a person has said, a code of the EPSG dataset; null for that of the
     *     layer
     */
    static GeoPackageFile open(Path file, String wanted, Integer system) throws IOException {
        return with(file, connection -> {
            List<String> layers = layers(connection);
            String layer = wanted == null ? firstFilled(connection, layers) : wanted;
            if (!layers.contains(layer))
                throw new UnreadableTableException(
                        "The GeoPackage has no layer “" + layer + "”. It has: " + String.join(", ", layers) + ".");
            try (PreparedStatement ask = connection.prepareStatement(
                    "SELECT g.column_name, s.organization, s.organization_coordsys_id, s.definition, s.srs_id"
                            + " FROM gpkg_geometry_columns g LEFT JOIN gpkg_spatial_ref_sys s ON s.srs_id = "
                            + "g.srs_id WHERE g.table_name = ?")) {
                ask.setString(1, layer);
                try (ResultSet found = ask.executeQuery()) {
                    if (!found.next()) return new GeoPackageFile(file, layer, null, Systems.DEGREES);
                    return new GeoPackageFile(
                            file,
                            layer,
                            found.getString(1),
                            systems(system, found.getString(2), found.getInt(3), found.getString(4), found.getInt(5)));
                }
            } catch (SQLException noShapes) {
                // A package of plain tables may lack the table of geometry columns.
                return new GeoPackageFile(file, layer, null, Systems.DEGREES);
            }
        });
    }

    /**
     * A system by its organisation and code, else by its definition; the package's own number of it says nothing (OGC
     * 12-128r18, 1.1.2).
     */
    private static Systems systems(Integer said, String organization, int code, String definition, int own) {
        if (said != null) return Systems.of(said, null);
        Optional<Projection> known = "EPSG".equalsIgnoreCase(organization) ? Projection.ofEpsg(code) : Optional.empty();
        if (known.isPresent()) return new Systems(known.get(), null);
        boolean described = definition != null && !definition.isBlank() && !definition.equalsIgnoreCase("undefined");
        // 0 stands for degrees of which nothing is said but that they are, -1 for a plane without a place on earth.
        if (!described && own == 0) return Systems.DEGREES;
        if (!described && organization != null && code > 0)
            return Systems.unsaid(
                    ("The layer's coordinates are in %s:%d, which is not known here. Say another code of the "
                                    + "EPSG register, or save it in degrees (4326).")
                            .formatted(organization, code));
        return Systems.of(null, described ? definition : null);
    }

    private interface Use<T> {
        T of(Connection connection) throws SQLException;
    }

    private static <T> T with(Path file, Use<T> use) throws IOException {
        Properties properties = new Properties();
        properties.setProperty("open_mode", "1");
        properties.setProperty("limit_length", String.valueOf(512 << 20));
        try (Connection connection = DriverManager.getConnection(
                "jdbc:sqlite:file:" + file.toAbsolutePath().toUri().getRawPath() + "?immutable=1", properties)) {
            try (var statement = connection.createStatement()) {
                statement.execute("PRAGMA trusted_schema = OFF");
                statement.execute("PRAGMA cell_size_check = ON");
            }
            return use.of(connection);
        } catch (SQLException broken) {
            throw new UnreadableTableException(
                    "The GeoPackage cannot be read: it is broken, cut off, or another kind of SQLite file.");
        }
    }

    @Override
    public void each(Consumer<Feature> visitor) throws IOException {
        with(file, connection -> {
            try (var statement = connection.createStatement();
                    ResultSet rows = statement.executeQuery("SELECT * FROM \"" + layer.replace("\"", "\"\"") + "\"")) {
                int columns = rows.getMetaData().getColumnCount();
                long number = 0;
                while (rows.next()) {
                    number++;
                    Map<String, String> properties = new LinkedHashMap<>();
                    byte[] shape = NO_SHAPE;
                    for (int c = 1; c <= columns; c++) {
                        String name = rows.getMetaData().getColumnName(c);
                        if (name.equalsIgnoreCase(shapeColumn)) shape = rows.getBytes(c);
                        else {
                            Object value = rows.getObject(c);
                            properties.put(name, value == null || value instanceof byte[] ? "" : value.toString());
                        }
                    }
                    visitor.accept(new Feature(
                            number, properties, shape == null || shape.length == 0 ? null : shape(shape, number)));
                }
            }
            return null;
        });
    }

    /**
     * The GeoPackage's header before well-known binary: magic, version, flags, system, envelope (OGC 12-128r18, 2.1.3).
     */
    private Geometry shape(byte[] blob, long number) {
        int[] envelope = {0, 32, 48, 48, 64};
        int kind = blob.length < 8 ? 5 : (blob[3] >> 1) & 7;
        if (kind > 4 || blob[0] != 'G' || blob[1] != 'P' || blob.length < 8 + envelope[kind])
            throw Systems.brokenShape(number);
        return systems.shape(Arrays.copyOfRange(blob, 8 + envelope[kind], blob.length), number);
    }

    @Override
    public Optional<String> asks() {
        return shapeColumn == null ? Optional.empty() : Optional.ofNullable(systems.asks());
    }

    @Override
    public String words() {
        return "GeoPackage, layer “" + layer + "”" + (shapeColumn == null ? "" : ", " + systems.words());
    }
}
