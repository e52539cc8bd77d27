package sarnik.app.web;

import java.util.List;

/** What pages may load and who may show them in a frame (Content Security Policy, level 3). */
public final class PagePolicy {

    private static final String LOADED =
            "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; "
                    + "font-src 'self'; connect-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'self'; "
                    + "frame-src 'self'; object-src 'none'; frame-ancestors 'self'";

    private PagePolicy() {}

    /** Two pages of its own stand side by side in frames; nobody else frames them. */
    public static String own() {
        return LOADED;
    }

    /** A page that some sites may show in a frame as well. */
    public static String framedBy(List<String> origins) {
        return origins.isEmpty() ? LOADED : LOADED + " " + String.join(" ", origins);
    }
}
