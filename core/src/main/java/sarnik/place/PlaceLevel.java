package sarnik.place;

/** How wide a place is. */
public enum PlaceLevel {
    COUNTRY("country"),
    REGION("region"),
    PROVINCE("province"),
    TOWN("town"),
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
