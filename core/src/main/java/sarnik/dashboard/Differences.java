package sarnik.dashboard;

import jakarta.json.Json;
import jakarta.json.JsonObject;
import jakarta.json.JsonReader;
import jakarta.json.JsonValue;
import java.io.StringReader;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;

/** Says in words what differs between two documents of one dashboard. */
public final class Differences {

    private Differences() {}

    /**
     * What was done to come from one document to another, a phrase for each part: “adding bars “Towns””.
     *
     * @return empty where they say the same
     */
    public static List<String> of(DashboardDocument before, DashboardDocument after) {
        Set<String> words = new LinkedHashSet<>();
        for (JsonValue operation : Json.createDiff(read(before), read(after)).toJsonArray()) {
            String path = operation.asJsonObject().getString("path");
            if (path.equals("/schema")) continue;
            words.add(EditWords.of(
                    Json.createArrayBuilder().add(operation).build(), before.dashboard(), after.dashboard()));
        }
        return List.copyOf(words);
    }

    private static JsonObject read(DashboardDocument document) {
        try (JsonReader reader = Json.createReader(new StringReader(document.json()))) {
            return reader.readObject();
        }
    }
}
