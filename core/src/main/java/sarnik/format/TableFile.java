package sarnik.format;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.zip.GZIPInputStream;
import sarnik.table.CsvFile;
import sarnik.table.FileChoices;
import sarnik.table.RowSource;
import sarnik.table.UnreadableTableException;

/**
 * A file that may hold a table, in any format that is read: CSV, XLSX, ODS, XLS, Parquet, GeoJSON, TopoJSON,
 * newline-delimited JSON, zipped shapefile, GeoPackage, KML and KMZ, GPX. The format is known by the file's bytes,
 * whatever it is called.
 *
 * <pre>{@code
 * TableFile file = TableFile.open(path, FileChoices.NONE);
 * Reading reading = new TableReader().read(file.rows(), Shaping.NONE);
 * }</pre>
 *
 * @param kind its format
 * @param rows its rows
 * @param features its features; empty where the format has none
 * @param sheets names of its sheets or layers, of which one is read; empty where there is only one
 * @param areas whether some of its features are areas
 */
public record TableFile(
        Kind kind, RowSource rows, Optional<FeatureSource> features, List<String> sheets, boolean areas) {

    private static final long LARGEST_WORKBOOK = 256L << 20;

    /** Endings of files in an archive that may be tables. */
    private static final List<String> TABLES = List.of(
            ".csv",
            ".tsv",
            ".tab",
            ".geojson",
            ".json",
            ".jsonl",
            ".ndjson",
            ".gpkg",
            ".gpx",
            ".xlsx",
            ".ods",
            ".xls",
            ".parquet",
            ".txt");

    /** The formats. */
    public enum Kind {
        CSV,
        XLSX,
        ODS,
        XLS,
        PARQUET,
        JSON,
        SHAPEFILE,
        GEOPACKAGE,
        KML,
        GPX;

        /** Whether it holds sheets of cells. */
        public boolean isWorkbook() {
            return this == XLSX || this == ODS || this == XLS;
        }
    }

    /**
     * @param choices what a person has corrected; the rest is found by looking
     * @throws UnreadableTableException when the file is of no format that is read, or breaks its rules
     */
    public static TableFile open(Path file, FileChoices choices) throws IOException {
        TableFile opened = Guarded.reading(() -> opened(file, choices));
        return new TableFile(
                opened.kind,
                new Guarded.Rows(opened.rows),
                opened.features.map(Guarded.Features::new),
                opened.sheets,
                opened.areas);
    }

    private static TableFile opened(Path file, FileChoices choices) throws IOException {
        byte[] head = head(file);
        if (starts(head, "\u001f\u008b"))
            return unpacked(
                    Unpacked.of(new GZIPInputStream(Files.newInputStream(file)), Files.size(file)), choices, List.of());
        if (starts(head, "PK\3\4") || starts(head, "PK\5\6")) return archive(file, choices);
        if (starts(head, "SQLite format 3\0")) {
            return of(
                    Kind.GEOPACKAGE,
                    GeoPackageFile.open(file, choices.sheet(), choices.system()),
                    several(GeoPackageFile.layers(file)));
        }
        if (starts(head, "\u00D0\u00CF\u0011\u00E0\u00A1\u00B1\u001A\u00E1"))
            return workbook(Kind.XLS, new XlsSheets(bounded(file)), choices);
        if (starts(head, "PAR1")) return of(Kind.PARQUET, ParquetFile.open(file, choices.system()), List.of());
        String text = new String(head, StandardCharsets.UTF_8)
                .replaceFirst("^\uFEFF", "")
                .stripLeading();
        if (text.startsWith("{") || text.startsWith("[{") || text.matches("(?s)\\[\\s*\\{.*")) {
            FeatureSource features = JsonFile.open(file, choices.sheet());
            return of(Kind.JSON, features, features instanceof TopoJsonFile topo ? several(topo.layers()) : List.of());
        }
        if (text.matches("(?is)<(\\?xml|!doctype|html|kml|gpx)\\b.*")) return xml(file, choices);
        return of(Kind.CSV, CsvFile.open(file, choices), List.of(), choices);
    }

    private static byte[] head(Path file) throws IOException {
        try (InputStream in = Files.newInputStream(file)) {
            return in.readNBytes(4096);
        }
    }

    private static boolean starts(byte[] head, String magic) {
        return new String(head, 0, Math.min(head.length, magic.length()), StandardCharsets.ISO_8859_1).equals(magic);
    }

    private static TableFile of(Kind kind, FeatureSource features, List<String> sheets) throws IOException {
        FeatureRows rows = new FeatureRows(features);
        return new TableFile(kind, rows, Optional.of(features), sheets, rows.hasAreas());
    }

    /** A table of cells, one column of which may hold shapes. */
    private static TableFile of(Kind kind, RowSource rows, List<String> sheets, FileChoices choices)
            throws IOException {
        Optional<ShapeColumn> shapes = ShapeColumn.in(rows, choices.system());
        return new TableFile(
                kind,
                shapes.<RowSource>map(s -> s).orElse(rows),
                shapes.map(s -> s),
                sheets,
                shapes.isPresent() && shapes.get().hasAreas());
    }

    /** Of a workbook the texts are held while it is read, however many rows are. */
    private static Path bounded(Path workbook) throws IOException {
        if (Files.size(workbook) > LARGEST_WORKBOOK)
            throw new UnreadableTableException(
                    "The texts of a workbook are held while it is read, so it can have up to %,d MB. Save its table as CSV or Parquet."
                            .formatted(LARGEST_WORKBOOK >> 20));
        return workbook;
    }

    private static TableFile workbook(Kind kind, Sheets sheets, FileChoices choices) throws IOException {
        return of(kind, SheetGrid.open(sheets, choices), several(sheets.names()), choices);
    }

    private static List<String> several(List<String> names) {
        return names.size() > 1 ? names : List.of();
    }

    private static TableFile archive(Path file, FileChoices choices) throws IOException {
        try (Archive archive = Archive.open(file)) {
            if (archive.find("xl/workbook.xml").isPresent()) {
                return workbook(Kind.XLSX, new XlsxSheets(bounded(file)), choices);
            }
            String document = OdsSheets.said(archive);
            if (!document.isEmpty()) return workbook(Kind.ODS, OdsSheets.of(bounded(file), archive, document), choices);
            List<String> shapefiles = Shapefile.layers(archive);
            if (!shapefiles.isEmpty())
                return of(Kind.SHAPEFILE, Shapefile.open(file, choices.sheet(), choices.system()), several(shapefiles));
            List<String> kml = archive.ending(".kml");
            if (!kml.isEmpty()) return kmz(file, kml, choices.sheet());
            List<String> tables = TABLES.stream()
                    .flatMap(ending -> archive.ending(ending).stream())
                    .toList();
            if (tables.isEmpty())
                throw new UnreadableTableException(
                        "The archive holds no table: no workbook, no text with cells, no shapes. Unpack it and "
                                + "bring the table in by itself.");
            String chosen =
                    choices.sheet() != null && tables.contains(choices.sheet()) ? choices.sheet() : tables.get(0);
            return unpacked(
                    Unpacked.of(archive.read(chosen), Files.size(file)),
                    choices.withSheet(null),
                    tables.size() > 1 ? tables : List.of());
        }
    }

    /**
     * Of several parts the first that has placemarks is read: the main one may do no more than lead to the others (OGC
     * 12-007r2, 6.1).
     */
    private static TableFile kmz(Path file, List<String> parts, String wanted) throws IOException {
        for (String part : parts.contains(wanted) ? List.of(wanted) : parts) {
            XmlFile read = new XmlFile(() -> Archive.reading(file, part), XmlFile.Kind.KML);
            if (parts.size() == 1 || part.equals(wanted) || hasAny(read)) return of(Kind.KML, read, several(parts));
        }
        throw new UnreadableTableException("The archive's KML files hold no placemark.");
    }

    private static boolean hasAny(FeatureSource features) throws IOException {
        try {
            features.each(first -> {
                throw new Enough();
            });
            return false;
        } catch (Enough one) {
            return true;
        }
    }

    /**
     * A file that was packed. @param names of the files beside which it lay in its archive; empty where it was alone
     */
    private static TableFile unpacked(Path file, FileChoices choices, List<String> names) throws IOException {
        byte[] head = head(file);
        if (starts(head, "\u001f\u008b"))
            throw new UnreadableTableException("The file is packed twice. Unpack it once and bring that in.");
        TableFile opened = opened(file, choices);
        Unpacked.goesWith(opened.rows, file);
        return names.isEmpty() ? opened : new TableFile(opened.kind, opened.rows, opened.features, names, opened.areas);
    }

    private static TableFile xml(Path file, FileChoices choices) throws IOException {
        String root = XmlFile.root(file);
        if ("gpx".equals(root)) return of(Kind.GPX, XmlFile.of(file, XmlFile.Kind.GPX), List.of());
        if ("kml".equals(root) || "Document".equals(root) || "Placemark".equals(root))
            return of(Kind.KML, XmlFile.of(file, XmlFile.Kind.KML), List.of());
        if ("document".equals(root))
            return workbook(
                    Kind.ODS,
                    new OdsSheets(() -> new BufferedInputStream(Files.newInputStream(file), 1 << 16)),
                    choices);
        throw new UnreadableTableException(
                "The file holds XML, but neither KML nor GPX nor a spreadsheet: its first element is “" + root + "”.");
    }
}
