package sarnik.live;

/** How a device is, the best first. */
public enum DeviceState {
    GOOD("good"),
    WATCH("watch"),
    BAD("bad"),
    /** It has said nothing for longer than it should. */
    SILENT("silent");

    private final String words;

    DeviceState(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** The worse of two that are told by values. */
    public DeviceState worse(DeviceState other) {
        return other.compareTo(this) > 0 ? other : this;
    }
}
