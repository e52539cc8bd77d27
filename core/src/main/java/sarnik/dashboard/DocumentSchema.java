package sarnik.dashboard;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Slot;
import sarnik.narrow.FilterKind;
import sarnik.visual.Slots;
import sarnik.visual.VisualKind;

/**
 * The JSON Schema of documents, put together from what each kind says of its slots and from {@code
 * dashboard.schema.json}, which ships beside this class.
 */
final class DocumentSchema {

    private static final String ANY_ID = "/*";

    private DocumentSchema() {}

    static String text() {
        try (var in = DocumentSchema.class.getResourceAsStream("dashboard.schema.json")) {
            String frame = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            List<String> visuals = new ArrayList<>();
            for (VisualKind<?> kind : Kinds.ALL.visuals()) {
                List<Slot> slots = new ArrayList<>(List.of(Slots.PAGE, Slots.AT, Slots.TITLE));
                slots.addAll(kind.slots());
                visuals.add(object(slots, "", kind.name()));
            }
            List<String> filters = new ArrayList<>();
            for (FilterKind<?> kind : Kinds.ALL.filters()) filters.add(object(kind.slots(), "", kind.name()));
            return frame.replace(
                            "\"@visuals\"",
                            oneOf(
                                    visuals,
                                    Kinds.ALL.visuals().stream()
                                            .map(VisualKind::name)
                                            .toList()))
                    .replace(
                            "\"@filters\"",
                            oneOf(
                                    filters,
                                    Kinds.ALL.filters().stream()
                                            .map(FilterKind::name)
                                            .toList()));
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    /** Something of one of several kinds; what is wrong is said of the kind that it claims to be. */
    private static String oneOf(List<String> kinds, List<String> names) {
        List<String> cases = new ArrayList<>();
        for (int i = 0; i < kinds.size(); i++)
            cases.add("{\"if\": {\"properties\": {\"type\": {\"const\": \"%s\"}}}, \"then\": %s}"
                    .formatted(names.get(i), kinds.get(i)));
        return "{\"type\": \"object\", \"required\": [\"type\"], \"properties\": {\"type\": {\"enum\": [\"%s\"]}}, \"allOf\": [%s]}"
                .formatted(String.join("\", \"", names), String.join(", ", cases));
    }

    /**
     * An object of the slots that stand right below a pointer.
     *
     * @param type what it calls itself; null for a part
     */
    private static String object(List<Slot> slots, String below, String type) {
        List<String> properties = new ArrayList<>();
        List<String> required = new ArrayList<>();
        if (type != null) {
            properties.add("\"type\": {\"const\": \"" + type + "\"}");
            required.add("\"type\"");
        }
        for (Slot slot : slots) {
            if (slot.schema() == null || !slot.pointer().startsWith(below + "/")) continue;
            String name = slot.pointer().substring(below.length() + 1);
            if (name.contains("/") || name.equals("*")) continue;
            String schema = slot.schema();
            if (schema.contains("\"*\""))
                schema = schema.replace("\"*\"", object(slots, slot.pointer() + ANY_ID, null));
            properties.add("\"" + name + "\": " + schema);
            if (slot.required()) required.add("\"" + name + "\"");
        }
        return "{\"type\": \"object\", \"additionalProperties\": false, \"required\": [%s], \"properties\": {%s}}"
                .formatted(String.join(", ", required), String.join(", ", properties));
    }
}
