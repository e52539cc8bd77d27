package sarnik.dashboard;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Documents as an older Sarnik saved them: those that shipped with it, kept as files. */
@DisplayName("Documents of older forms")
class OlderFormsTest {

    private static final JsonMapper MAPPER = JsonMapper.shared();

    private static String saved(String name) throws IOException {
        try (var in = OlderFormsTest.class.getResourceAsStream("form-1/" + name + ".json")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "where-do-refills-sell",
                "complaints",
                "depot-to-tap",
                "day-on-the-road",
                "takings",
                "warm-weather",
                "visits",
                "who-supplies-us"
            })
    void areReadAsTheyWereSavedAndKeepEveryPart(String name) throws IOException {
        DashboardDocument document = DashboardDocument.parse(saved(name));
        assertThat(document.dashboard().schema()).isEqualTo(DashboardDocument.FORM);
        // All that was said is still said, and nothing was added but the form.
        ObjectNode before = (ObjectNode) MAPPER.readTree(saved(name));
        before.put("schema", DashboardDocument.FORM);
        assertThat((JsonNode) MAPPER.readTree(document.json())).isEqualTo(before);
        document.dashboard().visuals().forEach((id, visual) -> {
            JsonNode was = before.get("visuals").get(id);
            JsonNode now = MAPPER.readTree(DocumentJson.write(visual));
            holds(now, was, id);
        });
        // It can be edited, and the edit taken back.
        DashboardDocument.Edit edit =
                document.edit("[{\"op\": \"replace\", \"path\": \"/title\", \"value\": \"Other\"}]");
        assertThat(edit.after().edit(edit.inverse()).after().dashboard()).isEqualTo(document.dashboard());
    }

    /** Everything that was said is said in the record that was read, by the same name and with the same value. */
    private static void holds(JsonNode now, JsonNode was, String where) {
        if (was.isObject()) {
            was.properties().forEach(p -> {
                if (!p.getValue().isNull()) holds(now.get(p.getKey()), p.getValue(), where + "/" + p.getKey());
            });
        } else if (was.isNumber()) {
            assertThat(now.asDouble()).as(where).isEqualTo(was.asDouble());
        } else if (was.isArray() && was.size() > 0 && was.get(0).isNumber()) {
            for (int i = 0; i < was.size(); i++)
                assertThat(now.get(i).asDouble()).as(where).isEqualTo(was.get(i).asDouble());
        } else if (!was.isArray()) {
            assertThat(now).as(where).isEqualTo(was);
        }
    }

    @Test
    void thatAreNewerAreRefusedWithASentence() {
        assertThatThrownBy(() -> DashboardDocument.parse("{\"schema\": 99, \"title\": \"x\"}"))
                .isInstanceOf(DashboardException.class)
                .hasMessageContaining("made by a newer Sarnik")
                .hasMessageEndingWith("up to date.");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "[]", "7", "{", "{\"schema\": \"1\"}", "{\"schema\": null}", "{\"schema\": 0}"})
    void thatAreNoneAreRefused(String text) {
        assertThatThrownBy(() -> DashboardDocument.parse(text)).isInstanceOf(DashboardException.class);
    }
}
