package sarnik.format;

import java.io.IOException;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import org.apache.parquet.ParquetReadOptions;
import org.apache.parquet.conf.PlainParquetConfiguration;
import org.apache.parquet.crypto.ParquetCryptoRuntimeException;
import org.apache.parquet.example.data.Group;
import org.apache.parquet.example.data.simple.convert.GroupRecordConverter;
import org.apache.parquet.hadoop.ParquetFileReader;
import org.apache.parquet.hadoop.metadata.FileMetaData;
import org.apache.parquet.io.ColumnIOFactory;
import org.apache.parquet.io.LocalInputFile;
import org.apache.parquet.io.MessageColumnIO;
import org.apache.parquet.schema.LogicalTypeAnnotation.GeometryLogicalTypeAnnotation;
import org.apache.parquet.schema.MessageType;
import org.apache.parquet.schema.Type;
import org.locationtech.jts.geom.Geometry;
import sarnik.geo.Projection;
import sarnik.table.UnreadableTableException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A Parquet file (Apache Parquet format 2.11), row by row. Shapes are read from its column of the type GEOMETRY, or
 * from the
 * primary column that its metadata name (OGC GeoParquet 1.1, well-known binary). Fields within fields become columns
 * of their
 * own ("address.town"), as in JSON; lists stay one text.
 */
final class ParquetFile implements FeatureSource {

    private static final String BROKEN =
            "The Parquet file is broken inside or cut off, so it cannot be read. Save or download it again.";
    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    private final Path file;
    private final MessageType schema;
    private final String shapes;
    private final Systems systems;

    private ParquetFile(Path file, MessageType schema, String shapes, Systems systems) {
        this.file = file;
        this.schema = schema;
        this.shapes = shapes;
        this.systems = systems;
    }

    /**
     * @param system the coordinate system that a person has said, a code of the EPSG dataset; null for that of the file
     */
    static ParquetFile open(Path file, Integer system) throws IOException {
        return with(file, reader -> {
            FileMetaData about = reader.getFileMetaData();
            String said = about.getKeyValueMetaData().get("geo");
            for (Type field : about.getSchema().getFields()) {
                if (field.getLogicalTypeAnnotation() instanceof GeometryLogicalTypeAnnotation geometry)
                    return new ParquetFile(
                            file, about.getSchema(), field.getName(), systems(system, geometry.getCrs()));
            }
            return said == null
                    ? new ParquetFile(file, about.getSchema(), null, Systems.DEGREES)
                    : described(file, about.getSchema(), said, system);
        });
    }

    /** With the shapes that the metadata describe; without any where they are not written as well-known binary. */
    private static ParquetFile described(Path file, MessageType schema, String said, Integer system) {
        try {
            JsonNode geo = MAPPER.readTree(said);
            String primary = geo.path("primary_column").asString("geometry");
            JsonNode column = geo.path("columns").path(primary);
            boolean binary = column.path("encoding").asString("").equalsIgnoreCase("WKB");
            if (!binary
                    || !schema.containsField(primary)
                    || !schema.getType(primary).isPrimitive())
                return new ParquetFile(file, schema, null, Systems.DEGREES);
            return new ParquetFile(file, schema, primary, systems(system, column));
        } catch (JacksonException unread) {
            return new ParquetFile(file, schema, null, Systems.DEGREES);
        }
    }

    /** Of the metadata: none said means degrees, null that it is not known (GeoParquet 1.1, "crs"). */
    private static Systems systems(Integer said, JsonNode column) {
        if (said != null) return Systems.of(said, null);
        if (!column.has("crs")) return Systems.DEGREES;
        JsonNode id = column.path("crs").path("id");
        return named(id.path("authority").asString("") + ":" + id.path("code").asString(""));
    }

    /** Of the type: nothing means degrees. */
    private static Systems systems(Integer said, String crs) {
        return said != null
                ? Systems.of(said, null)
                : crs == null || crs.isBlank() ? Systems.DEGREES : named(crs.replaceFirst("^(?i)srid:", "EPSG:"));
    }

    private static Systems named(String name) {
        if (name.equalsIgnoreCase("OGC:CRS84") || name.equalsIgnoreCase("OGC:CRS84h")) return Systems.DEGREES;
        Optional<Projection> known = name.matches("(?i)EPSG:\\d{1,9}")
                ? Projection.ofEpsg(Integer.parseInt(name.substring(5)))
                : Optional.empty();
        return known.map(p -> new Systems(p, null))
                .orElseGet(() -> Systems.unsaid((name.equals(":")
                                ? "The file does not say in which coordinate system its shapes are. "
                                : "The file's shapes are in %s, which is not known here. ".formatted(name))
                        + Systems.SAY));
    }

    private interface Use<T> {
        T of(ParquetFileReader reader) throws IOException;
    }

    private static <T> T with(Path file, Use<T> use) throws IOException {
        ParquetReadOptions options = ParquetReadOptions.builder(new PlainParquetConfiguration())
                .withCodecFactory(new ParquetCodecs())
                .build();
        // What is thrown while rows are shown is sorted out by the edge of all readers; here is only what the library
        // says itself.
        try (ParquetFileReader reader = ParquetFileReader.open(new LocalInputFile(file), options)) {
            return use.of(reader);
        } catch (ParquetCryptoRuntimeException locked) {
            throw new UnreadableTableException(
                    "The Parquet file is encrypted, so its rows cannot be read. Save it without that and bring "
                            + "that in.");
        } catch (IOException | NoClassDefFoundError broken) {
            throw new UnreadableTableException(BROKEN);
        }
    }

    @Override
    public void each(Consumer<Feature> visitor) throws IOException {
        with(file, reader -> {
            MessageColumnIO columns = new ColumnIOFactory().getColumnIO(schema);
            long number = 0;
            for (var pages = reader.readNextRowGroup(); pages != null; pages = reader.readNextRowGroup()) {
                var records = columns.getRecordReader(pages, new GroupRecordConverter(schema));
                for (long left = pages.getRowCount(); left > 0; left--)
                    visitor.accept(feature(records.read(), ++number));
            }
            return null;
        });
    }

    private Feature feature(Group row, long number) {
        if (row == null) throw new UnreadableTableException(BROKEN);
        Map<String, String> properties = new LinkedHashMap<>();
        Geometry shape = null;
        for (int f = 0; f < schema.getFieldCount(); f++) {
            Type field = schema.getType(f);
            if (field.getName().equals(shapes))
                shape = row.getFieldRepetitionCount(f) == 0
                        ? null
                        : systems.shape(row.getBinary(f, 0).getBytes(), number);
            else ParquetValues.add(properties, field, row, f);
        }
        return new Feature(number, properties, shape);
    }

    @Override
    public Optional<String> asks() {
        return shapes == null ? Optional.empty() : Optional.ofNullable(systems.asks());
    }

    @Override
    public String words() {
        return "Parquet" + (shapes == null ? "" : ", shapes in “" + shapes + "”, " + systems.words());
    }
}
