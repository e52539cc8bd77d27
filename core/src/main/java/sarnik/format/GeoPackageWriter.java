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
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import sarnik.table.Column;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.WholeColumn;

/** Writes a table of places as a GeoPackage (OGC 12-128r18) with one layer of points in degrees. */
final class GeoPackageWriter {

    private static final String DEGREES_WKT = "GEOGCS[\"WGS 84\",DATUM[\"WGS_1984\",SPHEROID[\"WGS 84\",6378137,298.257223563]],PRIMEM[\"Greenwich\",0],UNIT[\"degree\",0.0174532925199433]]";

    private static final List<String> FRAME = List.of(
            "PRAGMA application_id = 0x47504B47",
            "PRAGMA user_version = 10300",
            "CREATE TABLE gpkg_spatial_ref_sys (srs_name TEXT NOT NULL, srs_id INTEGER NOT NULL PRIMARY KEY, organization TEXT NOT NULL,"
                    + " organization_coordsys_id INTEGER NOT NULL, definition TEXT NOT NULL, description TEXT)",
            "INSERT INTO gpkg_spatial_ref_sys VALUES ('WGS 84', 4326, 'EPSG', 4326, '" + DEGREES_WKT + "', NULL),"
                    + " ('Undefined Cartesian', -1, 'NONE', -1, 'undefined', NULL), ('Undefined geographic', 0, 'NONE', 0, 'undefined', NULL)",
            "CREATE TABLE gpkg_contents (table_name TEXT NOT NULL PRIMARY KEY, data_type TEXT NOT NULL, identifier TEXT UNIQUE, description TEXT DEFAULT '',"
                    + " last_change DATETIME NOT NULL DEFAULT (strftime('%Y-%m-%dT%H:%M:%fZ','now')), min_x DOUBLE, min_y DOUBLE, max_x DOUBLE, max_y DOUBLE,"
                    + " srs_id INTEGER REFERENCES gpkg_spatial_ref_sys(srs_id))",
            "CREATE TABLE gpkg_geometry_columns (table_name TEXT NOT NULL, column_name TEXT NOT NULL, geometry_type_name TEXT NOT NULL, srs_id INTEGER NOT NULL,"
                    + " z TINYINT NOT NULL, m TINYINT NOT NULL, PRIMARY KEY (table_name, column_name))");

    private GeoPackageWriter() {}

    static void write(Table table, List<String> columns, String name, IntFunction<double[]> position, Path file) throws IOException {
        try (Connection connection = DriverManager.getConnection("jdbc:sqlite:" + file)) {
            connection.setAutoCommit(true);
            try (Statement statement = connection.createStatement()) {
                for (String sql : FRAME) statement.execute(sql);
            }
            connection.setAutoCommit(false);
            fill(connection, table, columns, tableName(name), position);
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

    private static void fill(Connection connection, Table table, List<String> columns, String name, IntFunction<double[]> position) throws SQLException {
        String quoted = quoted(name);
        // SQLite does not tell columns apart by their case.
        Map<String, String> called = new LinkedHashMap<>();
        for (String column : columns) called.put(column, TableFormat.free(column, called.values()));
        String shape = TableFormat.free("geom", called.values());
        String id = TableFormat.free("fid", called.values());
        List<String> definitions = new ArrayList<>();
        definitions.add(quoted(id) + " INTEGER PRIMARY KEY AUTOINCREMENT");
        if (position != null) definitions.add(quoted(shape) + " POINT");
        for (String column : columns) definitions.add(quoted(called.get(column)) + " " + type(table.column(column)));
        try (Statement statement = connection.createStatement()) {
            statement.execute("CREATE TABLE " + quoted + " (" + String.join(", ", definitions) + ")");
        }
        double[] bounds = bounds(table.rows(), position);
        try (PreparedStatement contents = connection.prepareStatement("INSERT INTO gpkg_contents (table_name, data_type, identifier, min_x, min_y, max_x, max_y, srs_id) VALUES (?, ?, ?, ?, ?, ?, ?, ?)")) {
            contents.setString(1, name);
            contents.setString(2, position == null ? "attributes" : "features");
            contents.setString(3, name);
            for (int i = 0; i < 4; i++) {
                if (bounds == null) contents.setNull(4 + i, Types.DOUBLE);
                else contents.setDouble(4 + i, bounds[i]);
            }
            if (position == null) contents.setNull(8, Types.INTEGER);
            else contents.setInt(8, 4326);
            contents.execute();
        }
        if (position != null) {
            try (PreparedStatement shapes = connection.prepareStatement("INSERT INTO gpkg_geometry_columns VALUES (?, ?, 'POINT', 4326, 0, 0)")) {
                shapes.setString(1, name);
                shapes.setString(2, shape);
                shapes.execute();
            }
        }
        String marks = "?, ".repeat(columns.size() + (position == null ? 0 : 1)).replaceFirst(", $", "");
        List<String> names = new ArrayList<>();
        if (position != null) names.add(quoted(shape));
        columns.forEach(c -> names.add(quoted(called.get(c))));
        try (PreparedStatement insert = connection.prepareStatement("INSERT INTO " + quoted + " (" + String.join(", ", names) + ") VALUES (" + marks + ")")) {
            for (int row = 0; row < table.rows(); row++) {
                int at = 1;
                if (position != null) insert.setBytes(at++, point(position.apply(row)));
                for (String column : columns) set(insert, at++, table.column(column), row);
                insert.execute();
            }
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
        else if (column instanceof WholeColumn whole) insert.setLong(at, whole.values()[row]);
        else if (column instanceof DecimalColumn decimal) insert.setDouble(at, decimal.values()[row]);
        else if (column.type() == sarnik.table.ColumnType.YES_NO) insert.setInt(at, column.text(row).equals("yes") ? 1 : 0);
        else insert.setString(at, column.text(row));
    }

    private static double[] bounds(int rows, IntFunction<double[]> position) {
        double[] bounds = null;
        for (int row = 0; position != null && row < rows; row++) {
            double[] at = position.apply(row);
            if (at == null) continue;
            if (bounds == null) bounds = new double[] {at[0], at[1], at[0], at[1]};
            bounds[0] = Math.min(bounds[0], at[0]);
            bounds[1] = Math.min(bounds[1], at[1]);
            bounds[2] = Math.max(bounds[2], at[0]);
            bounds[3] = Math.max(bounds[3], at[1]);
        }
        return bounds;
    }

    /** Header (magic, version 0, little-endian without envelope, system) and the point as well-known binary. */
    private static byte[] point(double[] at) {
        if (at == null) return null;
        return ByteBuffer.allocate(29).order(ByteOrder.LITTLE_ENDIAN).put((byte) 'G').put((byte) 'P').put((byte) 0).put((byte) 1).putInt(4326)
                .put((byte) 1).putInt(1).putDouble(at[0]).putDouble(at[1]).array();
    }
}
