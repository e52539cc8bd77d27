package sarnik.format;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.sql.Statement;
import java.sql.Types;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import sarnik.geo.WrittenShape;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/** Writes a table of places as a GeoPackage (OGC 12-128r18) with one layer of shapes in degrees. */
final class GeoPackageWriter {

    private static final String DEGREES_WKT = "GEOGCS[\"WGS 84\",DATUM[\"WGS_1984\",SPHEROID[\"WGS "
            + "84\",6378137,298.257223563]],PRIMEM[\"Greenwich\",0],UNIT[\"degree\",0.0174532925199433]]";

    private static final List<String> FRAME = List.of(
            "PRAGMA application_id = 0x47504B47",
            "PRAGMA user_version = 10300",
            "CREATE TABLE gpkg_spatial_ref_sys (srs_name TEXT NOT NULL, srs_id INTEGER NOT NULL PRIMARY KEY, "
                    + "organization TEXT NOT NULL,"
                    + " organization_coordsys_id INTEGER NOT NULL, definition TEXT NOT NULL, description TEXT)",
            "INSERT INTO gpkg_spatial_ref_sys VALUES ('WGS 84', 4326, 'EPSG', 4326, '" + DEGREES_WKT + "', NULL),"
                    + " ('Undefined Cartesian', -1, 'NONE', -1, 'undefined', NULL), ('Undefined geographic', 0, "
                    + "'NONE', 0, 'undefined', NULL)",
            "CREATE TABLE gpkg_contents (table_name TEXT NOT NULL PRIMARY KEY, data_type TEXT NOT NULL, "
                    + "identifier TEXT UNIQUE, description TEXT DEFAULT '',"
                    + " last_change DATETIME NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ','now')), min_x "
                    + "DOUBLE, min_y DOUBLE, max_x DOUBLE, max_y DOUBLE,"
                    + " srs_id INTEGER REFERENCES gpkg_spatial_ref_sys(srs_id))",
            "CREATE TABLE gpkg_geometry_columns (table_name TEXT NOT NULL, column_name TEXT NOT NULL, "
                    + "geometry_type_name TEXT NOT NULL, srs_id INTEGER NOT NULL,"
                    + " z TINYINT NOT NULL, m TINYINT NOT NULL, PRIMARY KEY (table_name, column_name))");

    /** Of third coordinates: some shapes may have them. */
    private static final int OPTIONAL = 2;

    private GeoPackageWriter() {}

    static void write(Table table, List<String> columns, String name, RowShapes shapes, Path file) throws IOException {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            connection.setAutoCommit(true);
            try (Statement statement = connection.createStatement()) {
                for (String sql : FRAME) statement.execute(sql);
            }
            connection.setAutoCommit(false);
            fill(connection, table, columns, tableName(name), shapes);
            connection.commit();
        } catch (SQLException failed) {
            throw new IOException("The GeoPackage could not be written", failed);
        }
    }

    /** Names that begin so are SQLite's and GeoPackage's own. */
    private static String tableName(String name) {
        String plain = name.isBlank() ? "rows" : name;
        return plain.matches("(?i)(sqlite|gpkg|rtree)_.*") ? "rows " + plain : plain;
    }

    private static void fill(Connection connection, Table table, List<String> all, String name, RowShapes shapes)
            throws SQLException {
        String quoted = quoted(name);
        List<String> columns = shapes.others(all);
        // SQLite does not tell columns apart by their case.
        Map<String, String> called = new LinkedHashMap<>();
        for (String column : columns) called.put(column, TableFormat.free(column, called.values()));
        String shape = TableFormat.free("geom", called.values());
        String id = TableFormat.free("fid", called.values());
        Kinds kinds = Kinds.of(table.rows(), shapes);
        List<String> definitions = new ArrayList<>();
        definitions.add(quoted(id) + " INTEGER PRIMARY KEY AUTOINCREMENT");
        if (shapes.any()) definitions.add(quoted(shape) + " " + kinds.type);
        for (String column : columns) definitions.add(quoted(called.get(column)) + " " + type(table.column(column)));
        try (Statement statement = connection.createStatement()) {
            statement.execute("CREATE TABLE " + quoted + " (" + String.join(", ", definitions) + ")");
        }
        try (PreparedStatement contents = connection.prepareStatement(
                "INSERT INTO gpkg_contents (table_name, data_type, identifier, min_x, min_y, max_x, max_y, "
                        + "srs_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?)")) {
            contents.setString(1, name);
            contents.setString(2, shapes.any() ? "features" : "attributes");
            contents.setString(3, name);
            double[] bounds = {
                kinds.bounds.getMinX(), kinds.bounds.getMinY(), kinds.bounds.getMaxX(), kinds.bounds.getMaxY()
            };
            for (int i = 0; i < 4; i++) {
                if (kinds.bounds.isNull()) contents.setNull(4 + i, Types.DOUBLE);
                else contents.setDouble(4 + i, bounds[i]);
            }
            if (shapes.any()) contents.setInt(8, 4326);
            else contents.setNull(8, Types.INTEGER);
            contents.execute();
        }
        if (shapes.any()) {
            try (PreparedStatement described =
                    connection.prepareStatement("INSERT INTO gpkg_geometry_columns VALUES (?, ?, ?, 4326, ?, 0)")) {
                described.setString(1, name);
                described.setString(2, shape);
                described.setString(3, kinds.type);
                described.setInt(4, kinds.high ? OPTIONAL : 0);
                described.execute();
            }
        }
        List<String> names = new ArrayList<>();
        if (shapes.any()) names.add(quoted(shape));
        columns.forEach(c -> names.add(quoted(called.get(c))));
        String marks = String.join(", ", Collections.nCopies(names.size(), "?"));
        try (PreparedStatement insert = connection.prepareStatement(
                "INSERT INTO " + quoted + " (" + String.join(", ", names) + ") VALUES (" + marks + ")")) {
            for (int row = 0; row < table.rows(); row++) {
                int at = 1;
                if (shapes.any()) insert.setBytes(at++, blob(shapes.of(row)));
                for (String column : columns) set(insert, at++, table.column(column), row);
                insert.execute();
            }
        }
    }

    /**
     * What the shapes of a layer have in common.
     *
     * @param type the name of their type, GEOMETRY where there are several
     * @param high whether some have third coordinates
     * @param bounds the box around them, degrees
     */
    private record Kinds(String type, boolean high, Envelope bounds) {

        static Kinds of(int rows, RowShapes shapes) {
            Set<String> types = new HashSet<>();
            Envelope bounds = new Envelope();
            boolean high = false;
            for (int row = 0; row < rows; row++) {
                Geometry shape = shapes.of(row);
                if (shape == null) continue;
                types.add(shape.getGeometryType().toUpperCase(Locale.ROOT));
                bounds.expandToInclude(shape.getEnvelopeInternal());
                high |= WrittenShape.hasHeight(shape);
            }
            return new Kinds(
                    types.isEmpty()
                            ? "POINT"
                            : types.size() > 1 ? "GEOMETRY" : types.iterator().next(),
                    high,
                    bounds);
        }
    }

    private static String quoted(String name) {
        return "\"" + name.replace("\"", "\"\"") + "\"";
    }

    private static String type(Column column) {
        return switch (column.type()) {
            case WHOLE -> "INTEGER";
            case DECIMAL -> "DOUBLE";
            case DATE -> "DATE";
            case TIME -> "DATETIME";
            case YES_NO -> "BOOLEAN";
            case TEXT -> "TEXT";
        };
    }

    private static void set(PreparedStatement insert, int at, Column column, int row) throws SQLException {
        if (column.isMissing(row)) insert.setNull(at, Types.NULL);
        else if (column instanceof WholeColumn whole) insert.setLong(at, whole.get(row));
        else if (column instanceof DecimalColumn decimal) insert.setDouble(at, decimal.get(row));
        else if (column.type() == sarnik.table.ColumnType.YES_NO)
            insert.setInt(at, column.text(row).equals("yes") ? 1 : 0);
        else insert.setString(at, column.text(row));
    }

    /**
     * Header (magic, version 0, little-endian without envelope, system) and the shape as ISO well-known binary; null
     * for none.
     */
    private static byte[] blob(Geometry shape) {
        if (shape == null) return null;
        int flags = shape.isEmpty() ? 0x11 : 1;
        byte[] wkb = IsoBinary.write(shape);
        return ByteBuffer.allocate(8 + wkb.length)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put((byte) 'G')
                .put((byte) 'P')
                .put((byte) 0)
                .put((byte) flags)
                .putInt(4326)
                .put(wkb)
                .array();
    }
}
