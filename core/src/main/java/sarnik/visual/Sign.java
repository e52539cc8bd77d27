package sarnik.visual;

import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import sarnik.brief.Brief.Option;
import sarnik.brief.Slot;

/** Small signs, drawn for Sarnik, that say at a glance what a figure is about. */
public enum Sign {
    MONEY(
            "coins",
            "M2 6.5c0 1 1.6 1.8 3.5 1.8S9 7.5 9 6.5 7.4 4.7 5.5 4.7 2 5.5 2 6.5zM2 6.5v3c0 1 1.6 1.8 3.5 1.8M9 "
                    + "6.5v1.2M7 10.5c0 1 1.6 1.8 3.5 1.8s3.5-.8 3.5-1.8-1.6-1.8-3.5-1.8S7 9.5 7 10.5zM7 10.5v2c0 1 1.6 1.8 3.5 1.8s3.5-.8 3.5-1.8v-2"),
    PARCEL("a parcel", "M2.5 5L8 2.5 13.5 5v6.5L8 14l-5.5-2.5zM2.5 5L8 7.5 13.5 5M8 7.5V14M5.2 3.8l5.5 2.5"),
    PEOPLE(
            "people",
            "M5.5 7.5a2.3 2.3 0 1 0 0-4.6 2.3 2.3 0 0 0 0 4.6zM1.5 13c.3-2.5 1.9-3.8 4-3.8s3.7 1.3 4 3.8M10.5 "
                    + "7.2a1.9 1.9 0 1 0-.6-3.7M11.2 9.3c1.9.2 3 1.4 3.3 3.7"),
    PLACE(
            "a place",
            "M8 14s4.5-4.2 4.5-7.7a4.5 4.5 0 0 0-9 0C3.5 9.8 8 14 8 14zM8 7.9a1.6 1.6 0 1 0 0-3.2 1.6 1.6 0 0 0 "
                    + "0 3.2z"),
    CLOCK("a clock", "M8 14A6 6 0 1 0 8 2a6 6 0 0 0 0 12zM8 4.8V8l2.4 1.6"),
    DAY("a day", "M2.5 4h11v9.5h-11zM2.5 7h11M5.5 2.5V5M10.5 2.5V5M8 9v2.5"),
    DROP("a drop", "M8 2.2c2.6 3 4 5.2 4 7.3a4 4 0 0 1-8 0c0-2.1 1.4-4.3 4-7.3zM6 10a2 2 0 0 0 1.6 1.7"),
    WARMTH("a thermometer", "M6.5 9.2V3.6a1.5 1.5 0 0 1 3 0v5.6a2.9 2.9 0 1 1-3 0zM8 6v5.5M11.5 4h2M11.5 6.5h1.5"),
    HEALTH("a heart", "M8 13.5S2.2 10 2.2 6.2A3 3 0 0 1 8 5.2a3 3 0 0 1 5.8 1C13.8 10 8 13.5 8 13.5z"),
    GROWTH("a leaf", "M3 13.5C3 7 7 3.5 13.5 3c0 6-3 9.5-7.5 9.5-1 0-1.8-.3-2.4-.8M5.5 10.5L10 6.5"),
    WORK(
            "a spanner",
            "M13.5 4.5a3.3 3.3 0 0 1-4.3 4.1L4.5 13.3a1.3 1.3 0 0 1-1.8-1.8L7.4 6.8a3.3 3.3 0 0 1 4.1-4.3L9.7 "
                    + "4.4l1.9 1.9z"),
    ROAD("a road", "M4.5 2.5L2.5 13.5M11.5 2.5l2 11M8 3v2M8 7.2v2M8 11.2v2"),
    ENERGY("a spark", "M9 2L4 9h3.500L7 14l5-7H8.500z"),
    QUESTION("a question", "M5.5 5.8A2.5 2.5 0 1 1 8.8 8.2C8.2 8.5 8 8.9 8 9.8M8 12.5v.6");

    /** Which of them a visual has. */
    public static final Slot SLOT = Slot.at(
            "/sign",
            "sign",
            Arrays.stream(values())
                    .map(sign -> "\"" + sign + "\"")
                    .collect(Collectors.joining(", ", "{\"enum\": [", ", null]}")));

    private final String words;
    private final String path;

    Sign(String words, String path) {
        this.words = words;
        this.path = path;
    }

    public String words() {
        return words;
    }

    /** It as the path of an SVG of 16 by 16, drawn in lines. */
    public String path() {
        return path;
    }

    /** All of them, to choose from. */
    public static List<Option> options() {
        return Arrays.stream(values())
                .map(sign -> new Option(sign.words, "", sign.name()))
                .toList();
    }
}
