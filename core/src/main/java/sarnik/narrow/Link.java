package sarnik.narrow;

import java.util.List;

/**
 * When something is done on one visual, something follows elsewhere. One gesture may have several effects: each is a
 * link of its own, so that two people's edits meet only where they change the same one.
 *
 * @param from id of the visual on which it is done
 * @param to ids of the visuals that follow; null for all others of its page
 * @param on the gesture; null for {@link Gesture#PICKED}
 * @param effect what follows; null for {@link Effect#NARROW}
 * @param part of set: id of the parameter or filter; of go and beside: id of the page; null for others
 * @param dashboard of go: id of another dashboard; null for a page of this one
 * @param asks of narrow: whether nothing is shown until something is picked; null for everything
 * @param across of narrow: whether rows of other datasets follow through any ties, over several hops; null where only
 *     those do whose own column is tied to what is picked
 */
public record Link(
        String from,
        List<String> to,
        Gesture on,
        Effect effect,
        String part,
        Long dashboard,
        Boolean asks,
        Boolean across) {

    /** What is done on a visual. */
    public enum Gesture {
        /** A mark is pressed, or several, or a stretch. */
        PICKED,
        /** The pointer rests on a mark. */
        HOVERED,
        /** A map is moved: what is in sight of it. */
        FRAMED,
        /** A stretch of time or of numbers is drawn. */
        SPANNED,
        /** A mark is pressed twice, or Enter on it. */
        OPENED
    }

    /** What follows. */
    public enum Effect {
        /** Rows are left out that do not belong to it. */
        NARROW,
        /** What belongs to it is lit. */
        LIGHT,
        /** Maps move to it. */
        FLY,
        /** A visual that is folded away slides in. */
        OPEN,
        /** A parameter or a filter takes its value. */
        SET,
        /** Another page or dashboard is gone to, with it. */
        GO,
        /** Another page slides in beside this one, with it: that of what is picked. */
        BESIDE
    }

    /** A pick narrows. */
    public Link(String from, List<String> to) {
        this(from, to, null, null, null, null, null, null);
    }

    public Gesture gesture() {
        return on == null ? Gesture.PICKED : on;
    }

    public Effect follows() {
        return effect == null ? Effect.NARROW : effect;
    }

    /** Whether rows of what it reaches are left out that do not belong to what is picked. */
    boolean narrows() {
        return follows() == Effect.NARROW || follows() == Effect.OPEN || leadsToPage();
    }

    /** Whether another page of this dashboard is shown, with what it is done on. */
    public boolean leadsToPage() {
        return (follows() == Effect.GO || follows() == Effect.BESIDE) && part != null && dashboard == null;
    }

    /** Whether it has this effect on this gesture. */
    public boolean has(Gesture gesture, Effect effect) {
        return gesture() == gesture && follows() == effect;
    }

    public boolean asksFirst() {
        return Boolean.TRUE.equals(asks) || follows() == Effect.OPEN || follows() == Effect.BESIDE;
    }

    public boolean goesAcross() {
        return Boolean.TRUE.equals(across);
    }

    /** Whether the link reaches the visual of this id. */
    public boolean reaches(String visual) {
        return !visual.equals(from) && (to == null || to.contains(visual));
    }
}
