package sarnik.brief;

import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Brief.Control;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.Brief.Part;
import sarnik.brief.Brief.Words;

/** A line of words and slots that is being written. */
public final class BriefLine {

    private final String at;
    private final List<Part> parts;

    /**
     * @param at JSON pointer of the part that the line is about
     */
    public BriefLine(String at) {
        this(at, new ArrayList<>());
    }

    private BriefLine(String at, List<Part> parts) {
        this.at = at;
        this.parts = parts;
    }

    /** The same line, going on about a part within. */
    public BriefLine about(String pointer) {
        return new BriefLine(at + pointer, parts);
    }

    public void say(String words) {
        parts.add(new Words(words));
    }

    /** A slot that always has a value. */
    public void choose(Slot slot, String text, List<Option> options) {
        slot(slot, text, Kind.CHOSEN, false, false, options);
    }

    /** A slot that may be empty: faint where it is, and then it cannot be emptied. */
    public void may(Slot slot, String text, boolean empty, List<Option> options) {
        may(slot, text, Kind.CHOSEN, empty, options);
    }

    public void may(Slot slot, String text, Kind kind, boolean empty, List<Option> options) {
        slot(slot, text, kind, empty, !empty, options);
    }

    public void slot(Slot slot, String text, Kind kind, boolean empty, boolean removable, List<Option> options) {
        parts.add(new Control(slot.name(), text, at + slot.pointer(), kind, empty, removable, options));
    }

    /** A slot elsewhere in the document. */
    public void elsewhere(
            String name, String pointer, String text, boolean empty, boolean removable, List<Option> options) {
        elsewhere(name, pointer, Kind.CHOSEN, text, empty, removable, options);
    }

    public void elsewhere(
            String name,
            String pointer,
            Kind kind,
            String text,
            boolean empty,
            boolean removable,
            List<Option> options) {
        parts.add(new Control(name, text, pointer, kind, empty, removable, options));
    }

    public List<Part> parts() {
        return parts;
    }
}
