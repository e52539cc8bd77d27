package sarnik.dashboard;

import jakarta.json.Json;
import jakarta.json.JsonException;
import jakarta.json.JsonNumber;
import jakarta.json.JsonObject;
import jakarta.json.JsonReader;
import java.io.StringReader;

/** Brings documents of older forms to the form of now, when they are read. */
final class Upgrades {

    private Upgrades() {}

    /**
     * @return the text as it is where it is of the form of now, or no document at all
     * @throws DashboardException when the document is of a form that is newer than this program
     */
    static String upgraded(String text) {
        JsonObject document;
        try (JsonReader reader = Json.createReader(new StringReader(text))) {
            document = reader.readObject();
        } catch (JsonException | IllegalStateException broken) {
            return text;
        }
        if (!(document.get("schema") instanceof JsonNumber form)) return text;
        if (form.doubleValue() > DashboardDocument.FORM)
            throw new DashboardException(
                    DashboardException.Kind.MALFORMED,
                    ("This dashboard was made by a newer Sarnik (its form is %s, this one reads up to %d). Open it there, "
                                    + "or bring this Sarnik up to date.")
                            .formatted(form, DashboardDocument.FORM));
        if (form.doubleValue() != 1) return text;
        return Json.createObjectBuilder(document)
                .add("schema", DashboardDocument.FORM)
                .build()
                .toString();
    }
}
