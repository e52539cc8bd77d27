package sarnik.format;

import java.math.BigDecimal;
import java.math.BigInteger;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import org.apache.parquet.example.data.Group;
import org.apache.parquet.io.api.Binary;
import org.apache.parquet.schema.LogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.DateLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.DecimalLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.Float16LogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.IntLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.IntervalLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.TimeLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.TimeUnit;
import org.apache.parquet.schema.LogicalTypeAnnotation.TimestampLogicalTypeAnnotation;
import org.apache.parquet.schema.LogicalTypeAnnotation.UUIDLogicalTypeAnnotation;
import org.apache.parquet.schema.Type;
import org.apache.parquet.schema.Type.Repetition;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;

/** What the fields of a Parquet file hold, as text (Apache Parquet format 2.11, "Logical types"). */
final class ParquetValues {

    private static final JsonMapper MAPPER = JsonMapper.builder().build();

    /** The day from which {@code INT96} counts: 1970-01-01 as a Julian day. */
    private static final long EPOCH_JULIAN = 2_440_588;

    private static final long NANOS_A_SECOND = 1_000_000_000L;

    private ParquetValues() {}

    /** Adds the columns that a field makes. */
    static void add(Map<String, String> cells, Type field, Group row, int index) {
        add(cells, field.getName(), field, row, index);
    }

    /** @param row null where what holds the field is missing */
    private static void add(Map<String, String> cells, String name, Type field, Group row, int index) {
        int count = row == null ? 0 : row.getFieldRepetitionCount(index);
        boolean list = field.isRepetition(Repetition.REPEATED)
                || !field.isPrimitive() && field.getLogicalTypeAnnotation() != null;
        if (list) {
            cells.put(name, count == 0 ? "" : json(field, row, index).toString());
        } else if (field.isPrimitive()) {
            cells.put(name, count == 0 ? "" : text(field, row, index, 0));
        } else {
            for (int i = 0; i < field.asGroupType().getFieldCount(); i++) {
                Type inner = field.asGroupType().getType(i);
                add(cells, name + "." + inner.getName(), inner, count == 0 ? null : row.getGroup(index, 0), i);
            }
        }
    }

    /** Lists, maps and repeated fields as JSON. */
    private static JsonNode json(Type field, Group row, int index) {
        if (field.isRepetition(Repetition.REPEATED)) {
            ArrayNode items = MAPPER.createArrayNode();
            for (int i = 0; i < row.getFieldRepetitionCount(index); i++) items.add(json(field, row, index, i));
            return items;
        }
        return row.getFieldRepetitionCount(index) == 0 ? MAPPER.nullNode() : json(field, row, index, 0);
    }

    private static JsonNode json(Type field, Group row, int index, int item) {
        if (field.isPrimitive()) return MAPPER.getNodeFactory().stringNode(text(field, row, index, item));
        Group group = row.getGroup(index, item);
        // Lists and maps are wrapped in a repeated group of one or two fields.
        if (field.asGroupType().getFieldCount() == 1)
            return json(field.asGroupType().getType(0), group, 0);
        Map<String, JsonNode> fields = new LinkedHashMap<>();
        for (int i = 0; i < field.asGroupType().getFieldCount(); i++)
            fields.put(
                    field.asGroupType().getFieldName(i),
                    json(field.asGroupType().getType(i), group, i));
        return MAPPER.createObjectNode().setAll(fields);
    }

    private static String text(Type field, Group row, int index, int item) {
        LogicalTypeAnnotation meaning = field.getLogicalTypeAnnotation();
        return switch (field.asPrimitiveType().getPrimitiveTypeName()) {
            case BOOLEAN -> String.valueOf(row.getBoolean(index, item));
            case INT32 ->
                whole(row.getInteger(index, item), Integer.toUnsignedLong(row.getInteger(index, item)), meaning);
            case INT64 -> whole(row.getLong(index, item), row.getLong(index, item), meaning);
            case INT96 -> old(row.getInt96(index, item));
            case FLOAT ->
                Float.isFinite(row.getFloat(index, item))
                        ? plain(new BigDecimal(String.valueOf(row.getFloat(index, item))))
                        : "";
            case DOUBLE ->
                Double.isFinite(row.getDouble(index, item))
                        ? plain(BigDecimal.valueOf(row.getDouble(index, item)))
                        : "";
            case BINARY, FIXED_LEN_BYTE_ARRAY -> bytes(row.getBinary(index, item), meaning);
        };
    }

    private static String whole(long value, long unsigned, LogicalTypeAnnotation meaning) {
        if (meaning instanceof DateLogicalTypeAnnotation)
            return LocalDate.ofEpochDay(value).toString();
        if (meaning instanceof DecimalLogicalTypeAnnotation decimal)
            return plain(BigDecimal.valueOf(value, decimal.getScale()));
        if (meaning instanceof TimeLogicalTypeAnnotation time)
            return LocalTime.ofNanoOfDay(Math.multiplyExact(value, nanos(time.getUnit())))
                    .withNano(0)
                    .toString();
        if (meaning instanceof TimestampLogicalTypeAnnotation time)
            return moment(value, time.getUnit()) + (time.isAdjustedToUTC() ? "Z" : "");
        if (meaning instanceof IntLogicalTypeAnnotation whole && !whole.isSigned())
            return Long.toUnsignedString(unsigned);
        return String.valueOf(value);
    }

    private static long nanos(TimeUnit unit) {
        return switch (unit) {
            case MILLIS -> 1_000_000;
            case MICROS -> 1000;
            case NANOS -> 1;
        };
    }

    private static LocalDateTime moment(long value, TimeUnit unit) {
        return LocalDateTime.ofEpochSecond(Math.floorDiv(value, NANOS_A_SECOND / nanos(unit)), 0, ZoneOffset.UTC);
    }

    /** A moment as older writers store it: nanoseconds of the day, then the Julian day. */
    private static String old(Binary value) {
        ByteBuffer bytes = ByteBuffer.wrap(value.getBytes()).order(ByteOrder.LITTLE_ENDIAN);
        long nanos = bytes.getLong();
        return LocalDate.ofEpochDay(bytes.getInt() - EPOCH_JULIAN)
                .atStartOfDay()
                .plusSeconds(Math.floorDiv(nanos, NANOS_A_SECOND))
                .toString();
    }

    private static String plain(BigDecimal value) {
        return value.signum() == 0 ? "0" : value.stripTrailingZeros().toPlainString();
    }

    /** A number of two bytes (IEEE 754, binary16): a sign, five digits of exponent, ten of fraction. */
    private static String half(short bits) {
        int exponent = bits >> 10 & 0x1F;
        int fraction = bits & 0x3FF;
        if (exponent == 0x1F) return "";
        double size = exponent == 0 ? Math.scalb((double) fraction, -24) : Math.scalb(1024.0 + fraction, exponent - 25);
        return plain(BigDecimal.valueOf(bits < 0 ? -size : size));
    }

    private static String bytes(Binary value, LogicalTypeAnnotation meaning) {
        if (meaning instanceof DecimalLogicalTypeAnnotation decimal)
            return plain(new BigDecimal(new BigInteger(value.getBytes()), decimal.getScale()));
        if (meaning instanceof UUIDLogicalTypeAnnotation) {
            ByteBuffer two = value.toByteBuffer();
            return new UUID(two.getLong(), two.getLong()).toString();
        }
        if (meaning instanceof Float16LogicalTypeAnnotation)
            return half(value.toByteBuffer().order(ByteOrder.LITTLE_ENDIAN).getShort());
        if (meaning instanceof IntervalLogicalTypeAnnotation) return "";
        if (meaning != null) return value.toStringUsingUTF8();
        // Older writers do not say that bytes are text.
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(value.toByteBuffer())
                    .toString();
        } catch (CharacterCodingException noText) {
            return "";
        }
    }
}
