package sarnik.app.people;

/** What a person may do; each role may do what the ones below it may. */
public enum Role {
    STEWARD("steward"),
    ANALYST("analyst"),
    READER("reader");

    private final String words;

    Role(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
