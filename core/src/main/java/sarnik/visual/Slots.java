package sarnik.visual;

import sarnik.brief.Slot;

/** Slots that several kinds of visual have. */
public final class Slots {

    public static final Slot PAGE =
            Slot.at("/page", "page", "{\"$ref\": \"#/$defs/id\"}").needed();

    public static final Slot AT =
            Slot.at("/at", "place on the sheet", "{\"$ref\": \"#/$defs/box\"}").needed();

    public static final Slot TITLE = Slot.at("/title", "title", "{\"$ref\": \"#/$defs/words\"}");

    public static final Slot DATASET =
            Slot.at("/dataset", "dataset", "{\"type\": \"integer\"}").needed();

    public static final Slot MEASURE =
            Slot.at("/measure", "measure", "{\"$ref\": \"#/$defs/measure\"}").needed();

    public static final Slot CATEGORY =
            Slot.at("/category", "category", "{\"$ref\": \"#/$defs/column\"}").needed();

    public static final Slot RANK = Slot.at("/rank", "rank", "{\"$ref\": \"#/$defs/rank\"}");

    private Slots() {}
}
