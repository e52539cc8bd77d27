package sarnik.app.token;

import java.util.regex.Pattern;

/** What a program may do with a token; the person's own rights hold besides. */
public enum Scope {
    READ("read: figures, rows, pictures"),
    BRING("bring tables in, refresh and place them"),
    COMPOSE("compose dashboards"),
    HAND_ON("publish and hand on");

    private static final Pattern READING = Pattern.compile("/api/(dashboards|editions|versions|shown)/[^/]+/"
            + "(frames|rows|pictures|narrowings|filters/values|places/\\w+)|/api/questions|/api/jobs/[^/]+");

    private static final Pattern HANDING = Pattern.compile("/api/(dashboards|datasets)/[^/]+/"
            + "(editions|edition|links|grants|takes|shared|viewer-rule)(/.*)?|/api/requests(/.*)?");

    private static final Pattern BRINGING = Pattern.compile("/api/(bring|datasets|boundary-sets|images)(/.*)?");

    private final String words;

    Scope(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** What a request needs. */
    static Scope of(String method, String path) {
        if (HANDING.matcher(path).matches() && !method.equals("GET")) return HAND_ON;
        if (method.equals("GET") || READING.matcher(path).matches()) return READ;
        return BRINGING.matcher(path).matches() ? BRING : COMPOSE;
    }
}
