package sarnik.visual;

/** What the browser draws of a visual: every figure in it is ready, with its words. Each kind of visual has its own. */
public interface Drawing {

    /** What stands above it. */
    String title();
}
