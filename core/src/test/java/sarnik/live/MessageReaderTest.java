package sarnik.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import sarnik.table.ColumnType;

@DisplayName("Messages")
class MessageReaderTest {

    private static final long NOW = Instant.parse("2026-06-01T12:00:00Z").toEpochMilli();
    private static final MessageReader.Clocks CLOCKS = new MessageReader.Clocks(60_000, 30L * 86_400_000);

    private static final MessageShape PROBES = new MessageShape(
            "/readings",
            "/probe",
            "/at",
            MessageShape.Form.ISO,
            null,
            null,
            null,
            null,
            List.of(
                    new Field("/water/temperature", "temperature", ColumnType.DECIMAL, "°C"),
                    new Field("/open", "open", ColumnType.YES_NO, null),
                    new Field("/note", "note", ColumnType.TEXT, null)));

    private static final MessageShape VANS = new MessageShape(
            "", "/van", "/t", MessageShape.Form.SECONDS, "/pos/lon", "/pos/lat", null, null, List.of());

    private static MessageReader.Read read(MessageShape shape, String message) {
        return new MessageReader(shape, CLOCKS).read(message.getBytes(StandardCharsets.UTF_8), "", NOW);
    }

    @Test
    void becomeReadingsWithWhatIsSaidOnceForAll() {
        MessageReader.Read read = read(PROBES, """
                {"probe": "P-007", "open": true, "readings": [
                  {"at": "2026-06-01T11:59:58Z", "water": {"temperature": 14.5}, "note": "clear"},
                  {"at": "2026-06-01T13:59:59+02:00", "water": {"temperature": "14.75"}, "open": "no"}]}""");
        assertThat(read.troubles()).isEmpty();
        assertThat(read.readings()).extracting(Reading::device).containsOnly("P-007");
        assertThat(read.readings()).extracting(Reading::millis).containsExactly(NOW - 2000, NOW - 1000);
        assertThat(read.readings().get(0).values()).containsExactly(14.5, true, "clear");
        assertThat(read.readings().get(1).values()).containsExactly(14.75, false, null);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "2026-06-01T11:00:00Z | ISO | -3600000",
                "2026-06-01 11:00:00 | ISO | -3600000",
                "2026-06-01T11:00:00.250 | ISO | -3599750",
                "2026-06-01T13:00:00+0200 | ISO | -3600000",
                "2026-06-01T13:00:00+02 | ISO | -3600000",
                "2026-06-01T06:00:00-05:00 | ISO | -3600000",
                "1780311600 | SECONDS | -3600000",
                "1780311600.5 | SECONDS | -3599500",
                "1780311600000 | MILLISECONDS | -3600000",
                "1780311600000000 | MICROSECONDS | -3600000",
            })
    void sayWhenInTheFormOfTheFeed(String said, MessageShape.Form form, long offset) {
        MessageShape shape = new MessageShape(
                "", "/d", "/t", form, null, null, null, null, List.of(new Field("/v", "v", ColumnType.DECIMAL, null)));
        for (String written : List.of("\"" + said + "\"", said)) {
            if (form == MessageShape.Form.ISO && written.equals(said)) continue;
            MessageReader.Read read = read(shape, "{\"d\": \"x\", \"t\": " + written + ", \"v\": 1}");
            assertThat(read.readings()).extracting(Reading::millis).containsExactly(NOW + offset);
        }
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "{\"at\": \"2026-06-01T12:00:00Z\", \"water\": {\"temperature\": 1}} | does not say which device",
                "{\"probe\": \"p\", \"at\": \"yesterday\", \"water\": {\"temperature\": 1}} | which is no date and "
                        + "time",
                "{\"probe\": \"p\", \"at\": \"2016-06-01T12:00:00Z\", \"water\": {\"temperature\": 1}} | readings "
                        + "are kept for 30 days",
                "{\"probe\": \"p\", \"at\": \"2026-06-01T12:00:00Z\", \"other\": 1} | says nothing that this feed "
                        + "knows",
            })
    void thatCannotBeReadAreSaidWithTheReason(String item, String why) {
        MessageReader.Read read = read(PROBES, "{\"readings\": [" + item + "]}");
        assertThat(read.readings()).isEmpty();
        assertThat(read.troubles()).singleElement().satisfies(t -> {
            assertThat(t.words()).contains(why);
            assertThat(t.lost()).isTrue();
        });
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "{", "nonsense", "{\"a\":", "[1,", "{\"readings\": NaN}", "\u0000"})
    void thatAreBrokenAreSaidToBe(String broken) {
        MessageReader.Read read = read(PROBES, broken);
        assertThat(read.readings()).isEmpty();
        assertThat(read.troubles())
                .singleElement()
                .satisfies(t -> assertThat(t.lost()).isTrue());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "\"NaN\"",
                "\"Infinity\"",
                "\"1e999\"",
                "\"12,5\"",
                "\"0x10\"",
                "\"5d\"",
                "true",
                "{}",
                "[1]",
                "\"\""
            })
    void keepWhatTheyCanOfAReadingAndSayWhatIsNoNumber(String odd) {
        MessageReader.Read read = read(PROBES, """
                {"probe": "p", "readings": [{"at": "2026-06-01T12:00:00Z", "note": "kept", "water": {"temperature": %s}}]}""".formatted(odd));
        assertThat(read.readings())
                .singleElement()
                .satisfies(r -> assertThat(r.values()).containsExactly(null, null, "kept"));
        assertThat(read.troubles()).singleElement().satisfies(t -> {
            assertThat(t.words()).startsWith("p says").contains("for temperature, which is no decimal number");
            assertThat(t.lost()).isFalse();
        });
    }

    @Test
    void ofAClockThatIsAheadCountWhenTheyCame() {
        MessageReader.Read read = read(
                VANS,
                "{\"van\": \"A\", \"t\": %d, \"pos\": {\"lon\": -2.4, \"lat\": 41.7}}".formatted(NOW / 1000 + 7200));
        assertThat(read.readings()).extracting(Reading::millis).containsExactly(NOW);
        assertThat(read.troubles())
                .extracting(MessageReader.Trouble::words)
                .containsExactly("The clock of A is 2 hours ahead: the moment of receipt is taken");
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0, does not know where it is",
        "200, 41, is no place on Earth",
        "-2, 91, is no place on Earth",
        "x, 41, is no place on Earth"
    })
    void withoutAPlaceOnEarthHaveNone(String lon, String lat, String why) {
        MessageReader.Read read = read(
                VANS,
                "{\"van\": \"A\", \"t\": %d, \"pos\": {\"lon\": \"%s\", \"lat\": \"%s\"}}"
                        .formatted(NOW / 1000, lon, lat));
        assertThat(read.readings()).isEmpty();
        assertThat(read.troubles())
                .extracting(MessageReader.Trouble::words)
                .anySatisfy(w -> assertThat(w).contains(why));
    }

    @Test
    void ofOneValueEachSayOfWhat() {
        MessageShape shape = new MessageShape(
                "",
                "#2",
                null,
                MessageShape.Form.ISO,
                null,
                null,
                "/measure",
                "/value",
                List.of(
                        new Field("=temperature", "temperature", ColumnType.DECIMAL, null),
                        new Field("=ph", "ph", ColumnType.DECIMAL, null)));
        MessageReader reader = new MessageReader(shape, CLOCKS);
        MessageReader.Read read = reader.read(
                "{\"measure\": \"ph\", \"value\": 7.2}".getBytes(StandardCharsets.UTF_8), "probes/P-1/up", NOW);
        assertThat(read.readings()).singleElement().satisfies(r -> {
            assertThat(r.device()).isEqualTo("P-1");
            assertThat(r.millis()).isEqualTo(NOW);
            assertThat(r.values()).containsExactly(null, 7.2);
        });
        assertThat(reader.read(
                                "{\"measure\": \"salt\", \"value\": 1}".getBytes(StandardCharsets.UTF_8),
                                "probes/P-1/up",
                                NOW)
                        .troubles())
                .extracting(MessageReader.Trouble::words)
                .containsExactly("P-1 says nothing that this feed knows");
    }
}
