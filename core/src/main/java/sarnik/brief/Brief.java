package sarnik.brief;

import java.util.List;

/**
 * The sentence that says what a visual or filter does; its slots are its controls.
 *
 * @param parts words and slots in reading order
 * @param finish words and slots about its looks
 */
public record Brief(List<Part> parts, List<Part> finish) {

    /** In the value of an option: what the reader has chosen at the moment, which the browser puts in. */
    public static final String STATE_NOW = "@state";

    /** In the value of an option: what the filter of this brief keeps at the moment, which the browser puts in. */
    public static final String TURNED_NOW = "@turned";

    public sealed interface Part {}

    public record Words(String text) implements Part {}

    /**
     * An underlined word that can be changed.
     *
     * @param name what is chosen here, for screen readers
     * @param text the words shown
     * @param path JSON pointer of what it sets
     * @param kind chosen from options, or typed
     * @param empty whether nothing is set yet: shown faintly, as "+ rule"
     * @param removable whether it can be emptied again
     * @param options what fits
     */
    public record Control(
            String name, String text, String path, Kind kind, boolean empty, boolean removable, List<Option> options)
            implements Part {}

    public enum Kind {
        /** One of the options. */
        CHOSEN,
        /** Any text. */
        TYPED,
        /** A text of several lines. */
        TEXT,
        /** A picture that is uploaded. */
        PICTURE,
        /** Pictures that are uploaded, each of one of the options. */
        PICTURES,
        /** A formula, of words that are offered beside it. */
        FORMULA,
        /** Texts, one in each line, each kept as what is read. */
        LINES,
        /** Any number. */
        NUMBER,
        /** Some of the options, kept as a list of their values. */
        SET,
        /** As a set, in an order of the author's own. */
        ORDER,
        /** As a set, of the measures that are told of a place. */
        TIP,
        /** A palette by its name, or own colours. */
        PALETTE,
        /** Breaks and ends of a scale, over the values that are spread between them. */
        SCALE,
        /** A shared key that there is, or a new one made of the scale as it is. */
        SHARED_KEY,
        /** A column of dates and two days. */
        PERIOD,
        /** What is in sight on the map. */
        EXTENT,
        /** What is in sight, under a name. */
        SAVED_VIEW,
        /** The colours that a dashboard wears, chosen together. */
        COLOURS,
        /** Taken away as a whole. */
        REMOVE
    }

    /**
     * @param text what is read
     * @param hint a tiny preview, may be empty
     * @param value the value set at the slot's path: strings, numbers, maps and lists, as JSON
     */
    public record Option(String text, String hint, Object value) {}

    /** Whether a control is read as part of the sentence: one that is set, or shows what goes without saying. */
    public static boolean isSaid(Control control) {
        return control.kind() != Kind.REMOVE
                && (!control.empty() || !control.text().startsWith("+"));
    }

    /** The sentence as plain text; of slots that are not used, what goes without saying. */
    public String text() {
        StringBuilder text = new StringBuilder();
        for (Part part : parts) {
            if (part instanceof Words words) text.append(words.text());
            else if (part instanceof Control control && isSaid(control)) text.append(control.text());
        }
        return text.toString()
                .replaceAll("\\s+", " ")
                .replaceAll("[, ]+(?=[.;])", "")
                .replaceAll(" *, *(?=[,:])|(?<=:) *,", "")
                .replaceAll(" (?=,)", "")
                .strip();
    }
}
