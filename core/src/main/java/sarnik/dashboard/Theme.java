package sarnik.dashboard;

/** The colours that a dashboard wears, by day and by night; they stand in the pages' style. */
public enum Theme {
    FIELD("field sheet", "warm paper and dark ink"),
    TIDE("tide chart", "cool paper, sea blue"),
    LEDGER("ledger", "white paper, leaf green"),
    SLATE("slate", "grey paper, ink blue"),
    KILN("kiln", "clay and plum");

    private final String words;
    private final String hint;

    Theme(String words, String hint) {
        this.words = words;
        this.hint = hint;
    }

    public String words() {
        return words;
    }

    public String hint() {
        return hint;
    }
}
