package sarnik.visual;

/** Anything on a page of a dashboard. Each kind is a record in a room of its own, with its {@link VisualKind}. */
public interface Visual {

    /** Id of the page it stands on. */
    String page();

    Box at();

    /** The title above it; empty to let its brief speak. */
    String title();
}
