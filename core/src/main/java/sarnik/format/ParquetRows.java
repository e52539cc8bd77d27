package sarnik.format;

import com.github.luben.zstd.Zstd;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.apache.hadoop.conf.Configuration;
import org.apache.parquet.bytes.BytesInput;
import org.apache.parquet.compression.CompressionCodecFactory;
import org.apache.parquet.conf.ParquetConfiguration;
import org.apache.parquet.conf.PlainParquetConfiguration;
import org.apache.parquet.hadoop.ParquetWriter;
import org.apache.parquet.hadoop.api.WriteSupport;
import org.apache.parquet.hadoop.metadata.CompressionCodecName;
import org.apache.parquet.io.LocalOutputFile;
import org.apache.parquet.io.api.Binary;
import org.apache.parquet.io.api.RecordConsumer;
import org.apache.parquet.schema.LogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.TimeUnit;
import org.apache.parquet.schema.MessageType;
import org.apache.parquet.schema.PrimitiveType.PrimitiveTypeName;
import org.apache.parquet.schema.Type;
import org.apache.parquet.schema.Types;
import org.locationtech.jts.geom.Envelope;
import org.locationtech.jts.geom.Geometry;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/**
 * Writes rows as a Parquet file (Apache Parquet format 2), packed by Zstandard; shapes as OGC GeoParquet 1.1 has them,
 * well-known binary in degrees.
 */
final class ParquetRows {

    private static final String SHAPES = "geometry";

    private ParquetRows() {}

    /**
     * @param columns those that are written
     * @param shapes the rows' shapes
     */
    static void write(Table table, List<String> columns, RowShapes shapes, Path file) throws IOException {
        List<String> told = shapes.others(columns);
        String at = shapes.any() ? TableFormat.free(SHAPES, told) : null;
        Files.deleteIfExists(file);
        try (ParquetWriter<Integer> writer = new Builder(file, new Rows(table, told, shapes, at))
                .withConf(new PlainParquetConfiguration())
                .withCodecFactory(new Packing())
                .withCompressionCodec(CompressionCodecName.ZSTD)
                .build()) {
            for (int row = 0; row < table.rows(); row++) writer.write(row);
        } catch (UncheckedIOException failed) {
            throw failed.getCause();
        }
    }

    private static final class Builder extends ParquetWriter.Builder<Integer, Builder> {
        private final Rows rows;

        Builder(Path file, Rows rows) {
            super(new LocalOutputFile(file));
            this.rows = rows;
        }

        @Override
        protected Builder self() {
            return this;
        }

        @Override
        protected WriteSupport<Integer> getWriteSupport(Configuration never) {
            return rows;
        }

        @Override
        protected WriteSupport<Integer> getWriteSupport(ParquetConfiguration with) {
            return rows;
        }
    }

    /** Hands a row on, by its number. */
    private static final class Rows extends WriteSupport<Integer> {
        private final List<String> names;
        private final List<Column> columns;
        private final RowShapes shapes;
        private final String at;
        private final Envelope reach = new Envelope();
        private RecordConsumer out;

        Rows(Table table, List<String> names, RowShapes shapes, String at) {
            this.names = names;
            this.columns = names.stream().map(table::column).toList();
            this.shapes = shapes;
            this.at = at;
        }

        private MessageType schema() {
            List<Type> fields = new ArrayList<>();
            for (int c = 0; c < names.size(); c++)
                fields.add(field(columns.get(c)).named(names.get(c)));
            if (at != null) fields.add(Types.optional(PrimitiveTypeName.BINARY).named(at));
            return new MessageType("rows", fields);
        }

        private static Types.PrimitiveBuilder<org.apache.parquet.schema.PrimitiveType> field(Column column) {
            if (column instanceof WholeColumn) return Types.optional(PrimitiveTypeName.INT64);
            if (column instanceof DecimalColumn) return Types.optional(PrimitiveTypeName.DOUBLE);
            if (column instanceof DateColumn)
                return Types.optional(PrimitiveTypeName.INT32).as(LogicalTypeAnnotation.dateType());
            // A time as a clock shows it, of no zone.
            if (column instanceof TimeColumn)
                return Types.optional(PrimitiveTypeName.INT64)
                        .as(LogicalTypeAnnotation.timestampType(false, TimeUnit.MILLIS));
            return column.type() == ColumnType.YES_NO
                    ? Types.optional(PrimitiveTypeName.BOOLEAN)
                    : Types.optional(PrimitiveTypeName.BINARY).as(LogicalTypeAnnotation.stringType());
        }

        @Override
        public WriteContext init(Configuration never) {
            return new WriteContext(schema(), new HashMap<>());
        }

        @Override
        public WriteContext init(ParquetConfiguration with) {
            return new WriteContext(schema(), new HashMap<>());
        }

        @Override
        public void prepareForWrite(RecordConsumer consumer) {
            out = consumer;
        }

        @Override
        public void write(Integer row) {
            out.startMessage();
            for (int c = 0; c < names.size(); c++) {
                Column column = columns.get(c);
                if (column.isMissing(row)) continue;
                out.startField(names.get(c), c);
                value(column, row);
                out.endField(names.get(c), c);
            }
            Geometry shape = at == null ? null : shapes.of(row);
            if (shape != null) {
                out.startField(at, names.size());
                out.addBinary(Binary.fromConstantByteArray(IsoBinary.write(shape)));
                out.endField(at, names.size());
                reach.expandToInclude(shape.getEnvelopeInternal());
            }
            out.endMessage();
        }

        private void value(Column column, int row) {
            if (column instanceof WholeColumn whole) out.addLong(whole.get(row));
            else if (column instanceof DecimalColumn decimal) out.addDouble(decimal.get(row));
            else if (column instanceof DateColumn dates) out.addInteger(dates.day(row));
            else if (column instanceof TimeColumn times) out.addLong(times.second(row) * 1000L);
            else if (column.type() == ColumnType.YES_NO)
                out.addBoolean(column.text(row).equals("yes"));
            else out.addBinary(Binary.fromString(column.text(row)));
        }

        @Override
        public FinalizedWriteContext finalizeWrite() {
            Map<String, String> about = new LinkedHashMap<>();
            if (at != null)
                about.put(
                        "geo",
                        "{\"version\":\"1.1.0\",\"primary_column\":\"%1$s\",\"columns\":{\"%1$s\":{\"encoding\":\"WKB\",\"geometry_types\":[]%2$s}}}"
                                .formatted(at, reach.isNull() ? "" : ",\"bbox\":" + box()));
            return new FinalizedWriteContext(about);
        }

        private List<Double> box() {
            return List.of(reach.getMinX(), reach.getMinY(), reach.getMaxX(), reach.getMaxY());
        }
    }

    /** Packs pages by Zstandard, without Hadoop's pools of buffers. */
    private static final class Packing implements CompressionCodecFactory {

        @Override
        public BytesInputCompressor getCompressor(CompressionCodecName codec) {
            return new BytesInputCompressor() {
                @Override
                public BytesInput compress(BytesInput bytes) throws IOException {
                    return BytesInput.from(Zstd.compress(bytes.toByteArray()));
                }

                @Override
                public CompressionCodecName getCodecName() {
                    return CompressionCodecName.ZSTD;
                }

                @Override
                public void release() {
                    // It holds nothing.
                }
            };
        }

        @Override
        public BytesInputDecompressor getDecompressor(CompressionCodecName codec) {
            throw new UnsupportedOperationException("Only written");
        }

        @Override
        public void release() {
            // It holds nothing.
        }
    }
}
