package sarnik.visual;

/**
 * A scale worn by several visuals and dashboards, changed once.
 *
 * @param name what it is called
 * @param words what it is of, such as "complaints per 10,000 people"
 * @param colour its scale: fixed ends and breaks for a measure, an order of values for a category
 */
public record SharedKey(String name, String words, Colour colour) {}
