package sarnik.format;

import de.siegmar.fastcsv.writer.CsvWriter;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.UnreadableTableException;
import sarnik.table.WholeColumn;
import tools.jackson.core.JsonGenerator;
import tools.jackson.databind.json.JsonMapper;

/** The formats in which a table is given out. */
public enum TableFormat {
    CSV("csv", "text/csv"),
    /** CSV in which texts that a spreadsheet would take for formulas are marked as text; its file's name says so. */
    SPREADSHEET_CSV("spreadsheet.csv", "text/csv"),
    XLSX("xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
    GEOJSON("geojson", "application/geo+json"),
    GEOPACKAGE("gpkg", "application/geopackage+sqlite3"),
    PARQUET("parquet", "application/vnd.apache.parquet");

    private static final int MOST_SHEET_ROWS = 1_048_575;
    private static final int MOST_CELL_TEXT = 32_767;
    private static final int FLUSHED_ROWS = 1000;

    /** The first day of a sheet (ISO/IEC 29500-1, 18.17.4.1), in days since 1970-01-01. */
    private static final long FIRST_IN_SHEET = LocalDate.of(1900, 1, 1).toEpochDay();

    /** From here on a number has more digits than a sheet keeps. */
    private static final long MOST_IN_SHEET = 1_000_000_000_000_000L;

    /** Steps of about a centimetre in a degree. */
    private static final double A_CENTIMETRE = 1e7;

    private final String ending;
    private final String mediaType;

    TableFormat(String ending, String mediaType) {
        this.ending = ending;
        this.mediaType = mediaType;
    }

    /** The ending of its files' names, without the point. */
    public String ending() {
        return ending;
    }

    /** Its registered media type. */
    public String mediaType() {
        return mediaType;
    }

    /**
     * Writes a table. Columns whose names start with @ are left out. GeoJSON and GeoPackage hold the rows' own shapes
     * where the
     * table has a column of them, with lines, areas and third coordinates as they came in; other rows are points.
     *
     * @param name what the table is called, for formats that name it inside
     * @param position longitude and latitude of a row in degrees, or null where it has none; for CSV and XLSX they
     *     become
     *     two more columns, {@code lon} and {@code lat}, to a centimetre, unless two columns of the table hold them
     *     already;
     *     null where rows have no place
     * @throws UnreadableTableException when the format cannot hold so many rows
     */
    public void write(Table table, String name, IntFunction<double[]> position, OutputStream out) throws IOException {
        List<String> columns =
                table.names().stream().filter(n -> !n.startsWith("@")).toList();
        switch (this) {
            case CSV -> csv(table, columns, added(table, columns, position), out, false);
            case SPREADSHEET_CSV -> csv(table, columns, added(table, columns, position), out, true);
            case XLSX -> xlsx(table, columns, name, added(table, columns, position), out);
            case GEOJSON -> geoJson(table, columns, RowShapes.of(table, columns, position), out);
            case GEOPACKAGE ->
                byFile(
                        out,
                        file -> GeoPackageWriter.write(
                                table, columns, name, RowShapes.of(table, columns, position), file));
            case PARQUET ->
                byFile(out, file -> ParquetRows.write(table, columns, RowShapes.of(table, columns, position), file));
        }
    }

    /** Writes a file. */
    private interface Writing {
        void to(Path file) throws IOException;
    }

    private void byFile(OutputStream out, Writing writing) throws IOException {
        Path file = Files.createTempFile("sarnik", "." + ending);
        try {
            writing.to(file);
            Files.copy(file, out);
        } finally {
            Files.deleteIfExists(file);
        }
    }

    /**
     * The positions that have to be added; null where there are none, or the table has them in two columns of its own.
     */
    private static IntFunction<double[]> added(Table table, List<String> columns, IntFunction<double[]> position) {
        if (position == null) return null;
        List<Column> numbers = columns.stream()
                .map(table::column)
                .filter(c -> c.type().isNumber())
                .toList();
        boolean hasThem = numbers.stream().anyMatch(n -> holds(n, table.rows(), position, 0))
                && numbers.stream().anyMatch(n -> holds(n, table.rows(), position, 1));
        return hasThem
                ? null
                : row -> {
                    double[] at = position.apply(row);
                    return at == null
                            ? null
                            : new double[] {
                                Math.round(at[0] * A_CENTIMETRE) / A_CENTIMETRE,
                                Math.round(at[1] * A_CENTIMETRE) / A_CENTIMETRE
                            };
                };
    }

    /** Whether a column holds the longitude (0) or latitude (1) of every row that has a position. */
    private static boolean holds(Column column, int rows, IntFunction<double[]> position, int which) {
        boolean any = false;
        for (int row = 0; row < rows; row++) {
            double[] at = position.apply(row);
            if (at == null) continue;
            if (column.isMissing(row)) return false;
            double value = column instanceof DecimalColumn decimal ? decimal.get(row) : ((WholeColumn) column).get(row);
            if (Math.abs(value - at[which]) > 1 / A_CENTIMETRE) return false;
            any = true;
        }
        return any;
    }

    private static void csv(
            Table table, List<String> columns, IntFunction<double[]> position, OutputStream out, boolean spreadsheet)
            throws IOException {
        var text = new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8));
        CsvWriter writer = CsvWriter.builder().build(text);
        List<String> header = columns.stream()
                .map(n -> spreadsheet && isFormula(n) ? "'" + n : n)
                .collect(Collectors.toCollection(ArrayList::new));
        if (position != null) header.addAll(List.of(free("lon", columns), free("lat", columns)));
        writer.writeRecord(header);
        for (int row = 0; row < table.rows(); row++) {
            List<String> cells = new ArrayList<>();
            for (String name : columns) {
                Column column = table.column(name);
                String cell = column.text(row);
                cells.add(spreadsheet && column.type() == ColumnType.TEXT && isFormula(cell) ? "'" + cell : cell);
            }
            if (position != null) {
                double[] at = position.apply(row);
                cells.add(at == null ? "" : String.valueOf(at[0]));
                cells.add(at == null ? "" : String.valueOf(at[1]));
            }
            writer.writeRecord(cells);
        }
        writer.flush();
    }

    /** Whether a spreadsheet would take a text for a formula (OWASP, "CSV Injection"). */
    private static boolean isFormula(String cell) {
        return cell != null && !cell.isEmpty() && "=+-@\t\r".indexOf(cell.charAt(0)) >= 0;
    }

    /** A name for an added column that the table does not have, whatever case it is written in. */
    static String free(String name, Collection<String> columns) {
        Set<String> taken = new TreeSet<>(String.CASE_INSENSITIVE_ORDER);
        taken.addAll(columns);
        String free = name;
        for (int n = 2; taken.contains(free); n++) free = name + " " + n;
        return free;
    }

    /**
     * Checks that a table fits the format, before anything is written.
     *
     * @throws UnreadableTableException when it does not
     */
    public void check(Table table) {
        if (this == XLSX && table.rows() > MOST_SHEET_ROWS) {
            throw new UnreadableTableException(
                    "A sheet holds up to %,d rows, and there are %,d. Take them as CSV, as Parquet or as a GeoPackage."
                            .formatted(MOST_SHEET_ROWS, table.rows()));
        }
        if (this != XLSX) return;
        for (String name : table.names())
            if (!name.startsWith("@") && table.column(name) instanceof CodedColumn texts && hasLonger(texts))
                throw new UnreadableTableException(
                        "A cell of a sheet holds up to %,d characters, and “%s” has longer texts. Take the rows as CSV, as Parquet or as a GeoPackage."
                                .formatted(MOST_CELL_TEXT, name));
    }

    private static boolean hasLonger(CodedColumn texts) {
        // Words are fewer than rows; not all of them need to have one.
        return texts.dictionary().stream().anyMatch(word -> word.length() > MOST_CELL_TEXT)
                && IntStream.range(0, texts.size())
                        .anyMatch(
                                row -> !texts.isMissing(row) && texts.text(row).length() > MOST_CELL_TEXT);
    }

    private static void xlsx(
            Table table, List<String> columns, String name, IntFunction<double[]> position, OutputStream out)
            throws IOException {
        XLSX.check(table);
        try (Workbook book = new Workbook(out, "Sarnik", "1.0")) {
            Worksheet sheet = book.newWorksheet(sheetName(name));
            sheet.freezePane(0, 1);
            int lon = columns.size();
            for (int c = 0; c < lon; c++) sheet.value(0, c, columns.get(c));
            if (position != null) {
                sheet.value(0, lon, free("lon", columns));
                sheet.value(0, lon + 1, free("lat", columns));
            }
            List<Column> all = columns.stream().map(table::column).toList();
            for (int row = 0; row < table.rows(); row++) {
                for (int c = 0; c < lon; c++) if (!all.get(c).isMissing(row)) value(sheet, row + 1, c, all.get(c), row);
                double[] at = position == null ? null : position.apply(row);
                if (at != null) {
                    sheet.value(row + 1, lon, at[0]);
                    sheet.value(row + 1, lon + 1, at[1]);
                }
                // Handed on now and then, so that a large sheet does not fill the memory.
                if ((row + 1) % FLUSHED_ROWS == 0) sheet.flush();
            }
        }
    }

    /** What a sheet does not know, days before 1900 and numbers of more than 15 digits, stands there as text. */
    private static void value(Worksheet sheet, int to, int c, Column column, int row) {
        if (column instanceof WholeColumn whole && Math.abs(whole.get(row)) < MOST_IN_SHEET)
            sheet.value(to, c, whole.get(row));
        else if (column instanceof DecimalColumn decimal) sheet.value(to, c, decimal.get(row));
        else if (column instanceof DateColumn dates && dates.day(row) >= FIRST_IN_SHEET) {
            sheet.value(to, c, LocalDate.ofEpochDay(dates.day(row)));
            sheet.style(to, c).format("yyyy-mm-dd").set();
        } else if (column instanceof TimeColumn times && times.second(row) >= FIRST_IN_SHEET * 86_400L) {
            sheet.value(to, c, java.time.LocalDateTime.ofEpochSecond(times.second(row), 0, java.time.ZoneOffset.UTC));
            sheet.style(to, c).format("yyyy-mm-dd hh:mm:ss").set();
        } else sheet.value(to, c, column.text(row));
    }

    private static String sheetName(String name) {
        String plain = name.replaceAll("[\\[\\]*?/\\\\:']", " ").strip();
        return plain.isEmpty()
                ? "Rows"
                : plain.length() > 31 ? plain.substring(0, 31).strip() : plain;
    }

    private static void geoJson(Table table, List<String> columns, RowShapes shapes, OutputStream out) {
        List<String> told = shapes.others(columns);
        try (JsonGenerator json = JsonMapper.builder().build().createGenerator(out)) {
            json.writeStartObject();
            json.writeStringProperty("type", "FeatureCollection");
            json.writeArrayPropertyStart("features");
            for (int row = 0; row < table.rows(); row++) {
                json.writeStartObject();
                json.writeStringProperty("type", "Feature");
                json.writeName("geometry");
                JsonShapes.write(json, shapes.of(row));
                json.writeObjectPropertyStart("properties");
                for (String name : told) {
                    json.writeName(name);
                    value(json, table.column(name), row);
                }
                json.writeEndObject();
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        }
    }

    private static void value(JsonGenerator json, Column column, int row) {
        if (column.isMissing(row)) json.writeNull();
        else if (column instanceof WholeColumn whole) json.writeNumber(whole.get(row));
        else if (column instanceof DecimalColumn decimal) json.writeNumber(decimal.get(row));
        else if (column.type() == sarnik.table.ColumnType.YES_NO)
            json.writeBoolean(column.text(row).equals("yes"));
        else json.writeString(column.text(row));
    }
}
