package sarnik.format;

import com.linuxense.javadbf.DBFDataType;
import com.linuxense.javadbf.DBFField;
import com.linuxense.javadbf.DBFWriter;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import sarnik.table.Table;
import sarnik.table.TestTables;

/** Small files in every format, made by hand or by writers other than Sarnik's. */
final class SampleFiles {

    static final String GEOJSON = """
            {"type": "FeatureCollection", "features": [
              {"type": "Feature", "id": "k1", "properties": {"town": "Soria", "litres": 12.5, "open": true, "station": {"kind": "wall"}, "note": null},
               "geometry": {"type": "Point", "coordinates": [-2.4667, 41.7667]}},
              {"type": "Feature", "properties": {"town": "Zamora", "litres": 7},
               "geometry": {"type": "Polygon", "coordinates": [[[-6, 41], [-5, 41], [-5, 42], [-6, 42], [-6, 41]], [[-5.8, 41.2], [-5.8, 41.8], [-5.2, 41.8], [-5.2, 41.2], [-5.8, 41.2]]]}},
              {"type": "Feature", "properties": {"town": "nowhere"}, "geometry": null}
            ]}""";

    /** Two squares that share a side, in steps of a tenth of a degree. */
    static final String TOPOJSON = """
            {"type": "Topology", "transform": {"scale": [0.1, 0.1], "translate": [-3, 40]},
             "objects": {"zones": {"type": "GeometryCollection", "geometries": [
               {"type": "Polygon", "id": "W", "properties": {"name": "West"}, "arcs": [[0, 1]]},
               {"type": "Polygon", "id": "E", "properties": {"name": "East"}, "arcs": [[2, -1]]}]},
               "spots": {"type": "Point", "coordinates": [5, 5]}},
             "arcs": [[[10, 0], [0, 10]], [[10, 10], [-10, 0], [0, -10], [10, 0]], [[10, 0], [10, 0], [0, 10], [-10, 0]]]}""";

    static final String KML = """
            <?xml version="1.0" encoding="UTF-8"?>
            <kml xmlns="http://www.opengis.net/kml/2.2"><Document><name>Stands</name>
              <Folder><Placemark><name>Soria &amp; sons</name><description><![CDATA[<b>wall</b>]]></description>
                <ExtendedData><Data name="litres"><value>12.5</value></Data><SchemaData><SimpleData name="open">yes</SimpleData></SchemaData></ExtendedData>
                <Point><coordinates>-2.4667,41.7667,1060</coordinates></Point></Placemark></Folder>
              <Placemark><name>Round</name><MultiGeometry><Polygon><outerBoundaryIs><LinearRing><coordinates>
                -6,41 -5,41 -5,42 -6,42 -6,41</coordinates></LinearRing></outerBoundaryIs></Polygon></MultiGeometry></Placemark>
              <Placemark><name>Way</name><TimeStamp><when>2026-05-01</when></TimeStamp><LineString><coordinates>-3,40 -3,41</coordinates></LineString></Placemark>
            </Document></kml>""";

    static final String GPX = """
            <?xml version="1.0"?>
            <gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1">
              <metadata><name>Round</name></metadata>
              <wpt lat="41.7667" lon="-2.4667"><name>Depot</name></wpt>
              <trk><name>Van 1</name><trkseg>
                <trkpt lat="41.70" lon="-2.40"><ele>1050</ele><time>2026-05-04T07:30:00Z</time></trkpt>
                <trkpt lat="41.71" lon="-2.41"><time>2026-05-04T07:40:00.250Z</time></trkpt></trkseg><trkseg>
                <trkpt lat="41.72" lon="-2.42"/></trkseg></trk>
            </gpx>""";

    static final String LINES =
            "{\"town\": \"Soria\", \"litres\": 3}\n{\"litres\": 4, \"town\": \"Zamora\", \"tags\": [\"a\", \"b\"]}\n";

    private SampleFiles() {}

    static Table points() {
        return TestTables.csv(
                "town,litres,takings,day,seen,open",
                "Soria,12,1.5,2026-05-01,2026-05-01T07:30:05,yes",
                "\"A, \"\"b\"\"\",,,,,no",
                "Zamora,-3,2.25,2025-12-31,2025-12-31T00:00:00,");
    }

    static double[] position(int row) {
        return row == 1 ? null : new double[] {-2.5 - row, 41.75 + row};
    }

    static byte[] written(TableFormat format) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            format.write(points(), "Stands", SampleFiles::position, out);
            return out.toByteArray();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    static byte[] zip(Map<String, byte[]> files) {
        try {
            ByteArrayOutputStream bytes = new ByteArrayOutputStream();
            try (ZipOutputStream zip = new ZipOutputStream(bytes)) {
                for (var file : files.entrySet()) {
                    zip.putNextEntry(new ZipEntry(file.getKey()));
                    zip.write(file.getValue());
                    zip.closeEntry();
                }
            }
            return bytes.toByteArray();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    /** Points in UTM 30N (EPSG:25830), their system described in words and their letters in UTF-8. */
    static byte[] shapefileOfPoints() {
        ByteBuffer shp = ByteBuffer.allocate(100 + 2 * 28);
        shpHeader(shp, 1);
        shpPoint(shp, 1, 545_000, 4_624_000);
        shpPoint(shp, 2, 440_000, 4_474_000);
        String prj = "PROJCS[\"ETRS_1989_UTM_Zone_30N\",GEOGCS[\"GCS_ETRS_1989\",DATUM[\"D_ETRS_1989\","
                + "SPHEROID[\"GRS_1980\",6378137.0,298.257222101]],"
                + "PRIMEM[\"Greenwich\",0.0],UNIT[\"Degree\",0.0174532925199433]],"
                + "PROJECTION[\"Transverse_Mercator\"],PARAMETER[\"False_Easting\",500000.0],"
                + "PARAMETER[\"False_Northing\",0.0],PARAMETER[\"Central_Meridian\",-3.0],"
                + "PARAMETER[\"Scale_Factor\",0.9996],PARAMETER[\"Latitude_Of_Origin\",0.0],UNIT[\"Meter\",1.0]]";
        return zip(Map.of(
                "stands.shp",
                shp.array(),
                "stands.dbf",
                dbf("Logroño", "Madrid"),
                "stands.cpg",
                bytes("UTF-8"),
                "stands.prj",
                bytes(prj)));
    }

    /** The description of degrees as it lies beside shapefiles. */
    static final String DEGREES =
            "GEOGCS[\"GCS_WGS_1984\",DATUM[\"D_WGS_1984\",SPHEROID[\"WGS_1984\",6378137.0,298.257223563]],"
                    + "PRIMEM[\"Greenwich\",0.0],UNIT[\"Degree\",0.0174532925199433]]";

    /** The points without what says their system, or with it. */
    static byte[] shapefileOfPoints(String prj, double[]... points) {
        ByteBuffer shp = ByteBuffer.allocate(100 + points.length * 28);
        shpHeader(shp, 1);
        for (int i = 0; i < points.length; i++) shpPoint(shp, i + 1, points[i][0], points[i][1]);
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("p.shp", shp.array());
        files.put(
                "p.dbf",
                dbf(java.util.stream.IntStream.range(0, points.length)
                        .mapToObj(i -> "n" + i)
                        .toArray(String[]::new)));
        if (prj != null) files.put("p.prj", bytes(prj));
        return zip(files);
    }

    /** An area whose second part is said to end two thousand million corners on. */
    static byte[] shapefileThatLies() {
        ByteBuffer shp = ByteBuffer.allocate(100 + 8 + 4 + 32 + 8 + 8 + 16 * 10);
        shpHeader(shp, 5);
        shp.order(ByteOrder.BIG_ENDIAN)
                .putInt(1)
                .putInt((shp.capacity() - 108) / 2)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(5);
        for (int i = 0; i < 4; i++) shp.putDouble(0);
        shp.putInt(2).putInt(10).putInt(0).putInt(2_000_000_000);
        return zip(Map.of("lie.shp", shp.array(), "lie.prj", bytes(DEGREES)));
    }

    /** A workbook whose first sheet holds this XML. */
    static byte[] workbookOf(String sheetData) {
        Map<String, byte[]> files = new LinkedHashMap<>();
        try {
            java.nio.file.Path whole =
                    java.nio.file.Files.write(java.nio.file.Files.createTempFile("book", ".xlsx"), workbook());
            try (Archive archive = Archive.open(whole)) {
                for (String name : archive.names())
                    files.put(name, archive.read(name).readAllBytes());
            }
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
        files.put(
                "xl/worksheets/sheet1.xml",
                bytes("<?xml version=\"1.0\"?><worksheet "
                        + "xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData>"
                        + sheetData + "</sheetData></worksheet>"));
        return zip(files);
    }

    /** One square with a square hole, in degrees. */
    static byte[] shapefileOfAreas() {
        double[][] outer = {{0, 0}, {0, 4}, {4, 4}, {4, 0}, {0, 0}};
        double[][] hole = {{1, 1}, {3, 1}, {3, 3}, {1, 3}, {1, 1}};
        int content = 4 + 32 + 4 + 4 + 8 + 16 * 10;
        ByteBuffer shp = ByteBuffer.allocate(100 + 8 + content);
        shpHeader(shp, 5);
        shp.order(ByteOrder.BIG_ENDIAN)
                .putInt(1)
                .putInt(content / 2)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(5);
        for (int i = 0; i < 4; i++) shp.putDouble(0);
        shp.putInt(2).putInt(10).putInt(0).putInt(5);
        for (double[] at : outer) shp.putDouble(at[0]).putDouble(at[1]);
        for (double[] at : hole) shp.putDouble(at[0]).putDouble(at[1]);
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("in/areas.SHP", shp.array());
        files.put("in/areas.DBF", dbf("Square"));
        files.put("in/areas.prj", bytes(DEGREES));
        return zip(files);
    }

    static void shpHeader(ByteBuffer shp, int type) {
        shp.order(ByteOrder.BIG_ENDIAN).putInt(9994).position(24);
        shp.putInt(shp.capacity() / 2)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(1000)
                .putInt(type)
                .position(100);
    }

    private static void shpPoint(ByteBuffer shp, int number, double x, double y) {
        shp.order(ByteOrder.BIG_ENDIAN)
                .putInt(number)
                .putInt(10)
                .order(ByteOrder.LITTLE_ENDIAN)
                .putInt(1)
                .putDouble(x)
                .putDouble(y);
    }

    private static byte[] dbf(String... towns) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (DBFWriter writer = new DBFWriter(out, StandardCharsets.UTF_8)) {
            DBFField town = new DBFField("TOWN", DBFDataType.CHARACTER, 20);
            DBFField litres = new DBFField("LITRES", DBFDataType.NUMERIC, 10, 2);
            writer.setFields(new DBFField[] {town, litres});
            for (int i = 0; i < towns.length; i++) writer.addRecord(new Object[] {towns[i], 2.5 + i});
        }
        return out.toByteArray();
    }

    /** Two sheets; the second has a title, names over two rows that are merged, and dates. */
    static byte[] workbook() {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            try (Workbook book = new Workbook(out, "Test", "1.0")) {
                Worksheet first = book.newWorksheet("Stands");
                first.value(0, 0, "town");
                first.value(0, 1, "litres");
                first.value(1, 0, "Soria");
                first.value(1, 1, 12);
                Worksheet second = book.newWorksheet("By year");
                second.value(0, 0, "Refills of the network");
                second.value(2, 1, "town");
                second.value(2, 2, "since");
                second.value(2, 3, "Litres");
                second.range(2, 3, 2, 4).merge();
                second.value(2, 5, "Open");
                second.value(3, 3, 2024);
                second.value(3, 4, 2025);
                second.value(4, 1, "Soria");
                second.value(4, 2, java.time.LocalDate.of(2021, 3, 4));
                second.style(4, 2).format("dd/mm/yyyy").set();
                second.value(4, 3, 0.1 + 0.2);
                second.formula(4, 4, "D5*2");
                second.value(4, 5, true);
                second.value(5, 1, "Zamora");
                second.value(5, 2, java.time.LocalDateTime.of(2021, 3, 5, 6, 30));
                second.style(5, 2).format("yyyy-mm-dd hh:mm").set();
                second.value(5, 3, 7);
            }
            return out.toByteArray();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }

    static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
