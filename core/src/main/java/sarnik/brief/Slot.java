package sarnik.brief;

/**
 * A word of a sentence that can be chosen, declared once: where in the document it stands, what may stand there, and
 * what it is called. From it come the pointer of a brief, a part of the schema, and the words of an edit.
 *
 * @param pointer JSON pointer from the part's own place; {@code *} stands for any id
 * @param name what is chosen here, for screen readers
 * @param edit what an edit of it changes: "the rank"; null where the part around it says so
 * @param schema what may stand there, as JSON Schema; null where the part around it says so
 * @param required whether the document needs it
 */
public record Slot(String pointer, String name, String edit, String schema, boolean required) {

    /** A slot whose name says what an edit of it changes. */
    public static Slot at(String pointer, String name, String schema) {
        return new Slot(pointer, name, name, schema, false);
    }

    /** A slot within a part that says what may stand there. */
    public static Slot within(String pointer, String name) {
        return new Slot(pointer, name, null, null, false);
    }

    /** The same, without which there is no document. */
    public Slot needed() {
        return new Slot(pointer, name, edit, schema, true);
    }

    /** The same under another name for screen readers. */
    public Slot named(String other) {
        return new Slot(pointer, other, edit, schema, required);
    }

    /** The same, called otherwise in the history. */
    public Slot edited(String words) {
        return new Slot(pointer, name, words, schema, required);
    }
}
