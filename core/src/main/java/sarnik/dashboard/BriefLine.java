package sarnik.dashboard;

import java.util.ArrayList;
import java.util.List;
import sarnik.dashboard.Brief.Kind;
import sarnik.dashboard.Brief.Option;
import sarnik.dashboard.Brief.Part;
import sarnik.dashboard.Brief.Slot;
import sarnik.dashboard.Brief.Words;

/** A line of words and slots that is being written. */
final class BriefLine {

    private final List<Part> parts = new ArrayList<>();

    void say(String words) {
        parts.add(new Words(words));
    }

    /** A slot that always has a value. */
    void choose(String name, String text, String path, List<Option> options) {
        parts.add(new Slot(name, text, path, Kind.CHOSEN, false, false, options));
    }

    void slot(
            String name, String text, String path, Kind kind, boolean empty, boolean removable, List<Option> options) {
        parts.add(new Slot(name, text, path, kind, empty, removable, options));
    }

    List<Part> parts() {
        return parts;
    }
}
