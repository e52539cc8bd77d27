package sarnik.app.rights;

/** What somebody may do with a thing; each holds those before it. */
public enum May {
    READ("read it"),
    COMPOSE("change it"),
    HAND_ON("hand it on");

    private final String words;

    May(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    boolean holds(May other) {
        return compareTo(other) >= 0;
    }
}
