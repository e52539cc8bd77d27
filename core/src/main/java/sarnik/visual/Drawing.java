package sarnik.visual;

import java.util.List;

/** What the browser draws of a visual: every figure in it is ready, with its words. Each kind of visual has its own. */
public interface Drawing {

    /** What stands above it. */
    String title();

    /** What its colours, sizes and shapes stand for, part by part; empty where they stand for nothing. */
    default List<NamedKey> keys() {
        return List.of();
    }

    /**
     * How much it tells, 0 where all that it shows is alike to 1: what is proposed is ranked by it, and what cannot say
     * stands in the middle.
     */
    default double tells() {
        return .5;
    }
}
