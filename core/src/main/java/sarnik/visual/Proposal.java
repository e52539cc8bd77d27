package sarnik.visual;

/**
 * A visual that answers a question.
 *
 * @param words what it answers
 * @param visual the visual; page and box are put in when it is added
 * @param w columns of the grid that it would take
 * @param h rows
 */
public record Proposal(String words, Visual visual, int w, int h) {}
