package sarnik.narrow;

import java.util.List;

/**
 * When something is picked on one visual, others are narrowed.
 *
 * @param from id of the visual on which is picked
 * @param to ids of the visuals that are narrowed; null for all others
 */
public record Link(String from, List<String> to) {

    /** Whether the link reaches the visual of this id. */
    public boolean reaches(String visual) {
        return !visual.equals(from) && (to == null || to.contains(visual));
    }
}
