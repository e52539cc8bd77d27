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
}
