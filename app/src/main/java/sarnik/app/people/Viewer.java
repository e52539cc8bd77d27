package sarnik.app.people;

import java.util.List;
import java.util.Map;

/**
 * Who looks: a person, or whoever bears a link.
 *
 * @param person who is signed in; null for somebody of whom nothing is known but the link
 * @param known what rules on rows may name of the viewer: values by name
 */
public record Viewer(SignedIn person, Map<String, List<String>> known) {

    /** Somebody of whom nothing is known. */
    public static final Viewer STRANGER = new Viewer(null, Map.of());

    /** The program itself, for what nobody looks at. */
    public static final Viewer PROGRAM = new Viewer(null, Map.of());

    /** Whether this is the program itself. */
    public boolean isProgram() {
        return this == PROGRAM;
    }
}
