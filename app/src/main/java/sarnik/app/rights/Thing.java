package sarnik.app.rights;

/** What people have rights on. */
public enum Thing {
    DASHBOARD("dashboard"),
    DATASET("dataset");

    private final String words;

    Thing(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
