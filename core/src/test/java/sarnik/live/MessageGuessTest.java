package sarnik.live;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import sarnik.table.ColumnType;
import tools.jackson.databind.json.JsonMapper;

@DisplayName("How messages become readings")
class MessageGuessTest {

    private static final JsonMapper JSON = new JsonMapper();
    private static final long NOW = Instant.parse("2026-06-01T12:00:00Z").toEpochMilli();

    private static MessageGuess.Guess guess(String topic, String... messages) {
        return MessageGuess.of(
                Stream.of(messages)
                        .map(m -> new MessageGuess.Message(topic, JSON.readTree(m)))
                        .toList(),
                NOW);
    }

    @Test
    void isGuessedOfFlatMessages() {
        MessageGuess.Guess guess = guess(
                "",
                "{\"deviceId\": \"p1\", \"ts\": 1780311600, \"temp_c\": 12.5, \"battery_pct\": 80, \"door\": true, "
                        + "\"zip\": \"0123\"}",
                "{\"deviceId\": \"p2\", \"ts\": 1780311605, \"temp_c\": 13, \"battery_pct\": 79, \"door\": false, "
                        + "\"zip\": \"4567\"}");
        MessageShape shape = guess.shape();
        assertThat(shape.device()).isEqualTo("/deviceId");
        assertThat(shape.time()).isEqualTo("/ts");
        assertThat(shape.form()).isEqualTo(MessageShape.Form.SECONDS);
        assertThat(shape.isMoving()).isFalse();
        assertThat(shape.fields())
                .containsExactly(
                        new Field("/temp_c", "temp_c", ColumnType.DECIMAL, "°C"),
                        new Field("/battery_pct", "battery_pct", ColumnType.DECIMAL, "%"),
                        new Field("/door", "door", ColumnType.YES_NO, null),
                        new Field("/zip", "zip", ColumnType.TEXT, null));
        assertThat(guess.remarks()).allMatch(MessageGuess.Remark::sure);
    }

    @Test
    void isGuessedOfReadingsInAnArrayWithTheDeviceBesideIt() {
        MessageShape shape = guess("", """
                        {"station": {"id": "S-4", "location": {"type": "Point", "coordinates": [-2.46, 41.76]}},
                         "data": {"samples": [{"time": "2026-06-01T11:00:00Z", "flow": {"value": 3.5, "unit": "l/min"}},
                                              {"time": "2026-06-01T11:01:00Z", "flow": {"value": 3.6, "unit": "l/min"}}]}}""").shape();
        assertThat(shape.readings()).isEqualTo("/data/samples");
        assertThat(shape.device()).isEqualTo("/station/id");
        assertThat(shape.time()).isEqualTo("/time");
        assertThat(shape.lon()).isEqualTo("/station/location/coordinates/0");
        assertThat(shape.lat()).isEqualTo("/station/location/coordinates/1");
        assertThat(shape.fields()).contains(new Field("/flow/value", "flow", ColumnType.DECIMAL, "l/min"));
    }

    @Test
    void isGuessedOfOneValueAMessageAndATopic() {
        MessageGuess.Guess guess = MessageGuess.of(
                List.of(
                        message("plant/p1/up", "{\"measure\": \"ph\", \"value\": 7.1, \"time\": 1780311600000}"),
                        message("plant/p2/up", "{\"measure\": \"salt\", \"value\": 0.2, \"time\": 1780311600000}")),
                NOW);
        MessageShape shape = guess.shape();
        assertThat(shape.device()).isEqualTo("#2");
        assertThat(shape.form()).isEqualTo(MessageShape.Form.MILLISECONDS);
        assertThat(shape.measure()).isEqualTo("/measure");
        assertThat(shape.fields()).extracting(Field::name).containsExactly("ph", "salt");
        assertThat(guess.remarks())
                .filteredOn(r -> r.part().equals("device"))
                .singleElement()
                .satisfies(r -> assertThat(r.sure()).isFalse());
    }

    private static MessageGuess.Message message(String topic, String json) {
        return new MessageGuess.Message(topic, JSON.readTree(json));
    }

    @Test
    void isAskedForWhereNothingLooksLikeADevice() {
        MessageGuess.Guess guess = guess("", "{\"a\": 1.5, \"b\": 2.5}");
        assertThat(guess.shape()).isNull();
        assertThat(guess.remarks()).anySatisfy(r -> assertThat(r.words()).contains("Say where it stands"));
        assertThat(MessageGuess.of(List.of(), NOW).shape()).isNull();
    }

    @Test
    void whatMayBeADeviceOnlyIsSaidToBeUnsure() {
        MessageGuess.Guess guess =
                guess("", "{\"who\": \"north\", \"level\": 1}", "{\"who\": \"south\", \"level\": 2}");
        assertThat(guess.shape().device()).isEqualTo("/who");
        assertThat(guess.shape().time()).isNull();
        assertThat(guess.remarks()).extracting(MessageGuess.Remark::sure).containsOnly(false);
    }

    /** What is guessed of messages reads those messages without trouble. */
    @Test
    void readsTheMessagesItWasGuessedOf() {
        String[] messages = {
            "[{\"van\": \"A\", \"t\": 1780311600, \"lat\": 41.5, \"lng\": -2.5, \"speed_kmh\": 50}]",
            "{\"node\": 17, \"timestamp\": \"2026-06-01T11:00:00+02:00\", \"weather\": {\"wind\": 3.5, \"rain\": "
                    + "null}}",
            "{\"thingId\": \"a:b\", \"observed at\": \"2026-06-01 11:00:00\", \"x/y\": 4, \"deep\": {\"er\": "
                    + "{\"still\": false}}}"
        };
        for (String message : messages) {
            MessageShape shape = guess("", message).shape();
            MessageReader.Read read = new MessageReader(shape, new MessageReader.Clocks(60_000, Long.MAX_VALUE))
                    .read(message.getBytes(StandardCharsets.UTF_8), "", NOW);
            assertThat(read.troubles()).as(message).isEmpty();
            assertThat(read.readings()).as(message).hasSize(1);
            assertThat(read.readings().get(0).values()).as(message).doesNotContainNull();
        }
    }
}
