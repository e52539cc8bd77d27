package sarnik.place;

/** How wide a place is. */
public enum PlaceLevel {
    COUNTRY("country"),
    REGION("region"),
    PROVINCE("province"),
    TOWN("town"),
    /** An area of a boundary set. */
    AREA("area"),
    /** A pair of coordinates. */
    POINT("point");

    private final String words;

    PlaceLevel(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }
}
