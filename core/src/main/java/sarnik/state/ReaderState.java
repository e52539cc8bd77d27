package sarnik.state;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.function.BiConsumer;

/**
 * What a reader has chosen. With the dashboard it fully determines what is shown.
 *
 * <p>Its text form stands in the web address: {@code f.ID=a,b} for a filter's values, {@code
 * f.ID=2025-06-01..2026-05-31} for its dates (either end may be left out), {@code p.ID=a,b} for picks or {@code
 * p.ID=~class.l1.2} for one that is said by a predicate, {@code h.ID=a,b} for layers of a map that are turned from
 * shown to hidden or back, {@code s.ID.LAYER=2} for the measure chosen among those a layer offers for its colour,
 * {@code s.ID.LAYER.size=1} for its size, {@code v.ID=12.5} for the value of a parameter, {@code g.page=p2} for the
 * page that is looked at, if it is not the first; ids ascending, values percent-encoded.
 *
 * @param values what was set, by part and id: {@code f.f1}
 */
public record ReaderState(SortedMap<String, Value> values) {

    /** The id under which the page is kept that is looked at. */
    public static final String PAGE = "page";

    /** Scales rest on all rows, before any filter: so they are the same on two pages side by side. */
    public static final String ALL_ROWS = "all";

    /** Scales rest on what is shown. */
    public static final String SHOWN_ROWS = "shown";

    public static final ReaderState NOTHING = new ReaderState(new TreeMap<>());

    /** A part of a state. */
    public enum Part {
        /** What a filter keeps. */
        FILTER("f"),
        /** What is picked on a visual. */
        PICK("p"),
        /** What of a visual is turned from shown to hidden or back. */
        TURNED("h"),
        /** Which of what a visual offers is chosen. */
        OFFERED("s"),
        /** The value of a parameter. */
        PARAMETER("v"),
        /** What is in sight of a map, where others follow it. */
        FRAME("e"),
        /** The moment of a player. */
        MOMENT("m"),
        /** What the scales of the page rest on, where the reader has turned that; its id is {@link #PAGE}. */
        SCALES("w"),
        /** Which page is looked at; its id is {@link #PAGE}. */
        PAGE("g");

        private final String letter;

        Part(String letter) {
            this.letter = letter;
        }

        private static Part of(char letter) {
            for (Part part : values()) if (part.letter.charAt(0) == letter) return part;
            return null;
        }

        String key(String id) {
            return letter + "." + id;
        }
    }

    public ReaderState {
        values = new TreeMap<>(values);
    }

    /** What was set there, where it is of this class. */
    public <V extends Value> Optional<V> get(Part part, String id, Class<V> type) {
        return Optional.ofNullable(values.get(part.key(id)))
                .filter(type::isInstance)
                .map(type::cast);
    }

    /** What was set of a part, by id. */
    public <V extends Value> Map<String, V> all(Part part, Class<V> type) {
        Map<String, V> all = new LinkedHashMap<>();
        values.forEach((key, value) -> {
            if (key.startsWith(part.key("")) && type.isInstance(value)) all.put(key.substring(2), type.cast(value));
        });
        return all;
    }

    /** This state with something set; null takes it away. */
    public ReaderState with(Part part, String id, Value value) {
        SortedMap<String, Value> next = new TreeMap<>(values);
        if (value == null) next.remove(part.key(id));
        else next.put(part.key(id), value);
        return new ReaderState(next);
    }

    /** Whether the reader has turned a layer from shown to hidden or back. */
    public boolean isTurned(String visual, String layer) {
        return get(Part.TURNED, visual, Value.Choice.class)
                .map(c -> c.values().contains(layer))
                .orElse(false);
    }

    /** The number of what was chosen among those a layer offers, from 0. */
    public int offered(String visual, String layer) {
        return get(Part.OFFERED, visual + "." + layer, Value.Number.class)
                .map(n -> (int) n.value())
                .orElse(0);
    }

    /** The canonical text form; empty when nothing is chosen. */
    public String text() {
        StringBuilder text = new StringBuilder();
        values.forEach((key, value) -> {
            String said = value.text();
            if (!said.isEmpty())
                text.append(text.length() == 0 ? "" : "&")
                        .append(key, 0, 2)
                        .append(Texts.encode(key.substring(2)))
                        .append('=')
                        .append(said);
        });
        return text.toString();
    }

    /**
     * Takes the text form apart.
     *
     * @param text the query part of a web address, without its question mark
     * @param each is given the part, its id, and its value, which is still encoded
     * @param named is given what is called by a name of its author's, and its value, which is still encoded
     */
    public static void parts(String text, Said each, BiConsumer<String, String> named) {
        for (String one : text == null ? new String[0] : text.split("&")) {
            int equals = one.indexOf('=');
            if (equals < 1 || equals == one.length() - 1) continue;
            String value = one.substring(equals + 1);
            Part part = equals < 3 || one.charAt(1) != '.' ? null : Part.of(one.charAt(0));
            if (part != null) each.take(part, Texts.decode(one.substring(2, equals)), value);
            else named.accept(Texts.decode(one.substring(0, equals)), value);
        }
    }

    /** Takes a part of a state. */
    public interface Said {

        void take(Part part, String id, String text);
    }
}
