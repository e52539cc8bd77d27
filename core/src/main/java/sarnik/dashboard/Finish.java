package sarnik.dashboard;

import java.util.function.Function;

/**
 * How a visual is dressed. What is null is as on its page, what is null there as on all pages, and what is null there
 * too as on a field sheet. Whether it is shown to readers is said of a visual alone.
 */
public record Finish(
        Ground ground,
        Border border,
        Corners corners,
        Shadow shadow,
        Space space,
        Heading heading,
        Lettering lettering,
        Boolean hidden) {

    /** As on a field sheet. */
    public static final Finish USUAL = new Finish(
            Ground.SHEET, Border.FINE, Corners.SQUARE, Shadow.NONE, Space.USUAL, Heading.SHOWN, Lettering.USUAL, null);

    static final Finish NOTHING = new Finish(null, null, null, null, null, null, null, null);

    /** A choice that is read in a brief. */
    interface Worded {
        String words();
    }

    /** What it stands on. */
    public enum Ground implements Worded {
        SHEET("the sheet’s ground"),
        LEAF("a lighter leaf"),
        TINT("a tint");

        private final String words;

        Ground(String words) {
            this.words = words;
        }

        @Override
        public String words() {
            return words;
        }
    }

    /** The line around it. */
    public enum Border implements Worded {
        NONE("no line"),
        FINE("a fine line"),
        STRONG("a strong line"),
        DOUBLE("a double line");

        private final String words;

        Border(String words) {
            this.words = words;
        }

        @Override
        public String words() {
            return words;
        }
    }

    /** The corners of that line. */
    public enum Corners implements Worded {
        SQUARE("square corners"),
        ROUND("round corners");

        private final String words;

        Corners(String words) {
            this.words = words;
        }

        @Override
        public String words() {
            return words;
        }
    }

    /** Whether it seems to lie on the sheet. */
    public enum Shadow implements Worded {
        NONE("no shadow"),
        CAST("a cast shadow");

        private final String words;

        Shadow(String words) {
            this.words = words;
        }

        @Override
        public String words() {
            return words;
        }
    }

    /** The space between the line and what is drawn. */
    public enum Space implements Worded {
        TIGHT("little space"),
        USUAL("some space"),
        WIDE("much space");

        private final String words;

        Space(String words) {
            this.words = words;
        }

        @Override
        public String words() {
            return words;
        }
    }

    /** Whether its title stands in the line. */
    public enum Heading implements Worded {
        SHOWN("its title shown"),
        LEFT_OUT("its title left out");

        private final String words;

        Heading(String words) {
            this.words = words;
        }

        @Override
        public String words() {
            return words;
        }
    }

    /** The size of what is written. */
    public enum Lettering implements Worded {
        SMALL("small letters"),
        USUAL("letters of the usual size"),
        LARGE("large letters"),
        POSTER("letters for a wall");

        private final String words;

        Lettering(String words) {
            this.words = words;
        }

        @Override
        public String words() {
            return words;
        }
    }

    public boolean isHidden() {
        return Boolean.TRUE.equals(hidden);
    }

    /** This, and where it says nothing, another. */
    public Finish over(Finish other) {
        return new Finish(
                first(other, Finish::ground),
                first(other, Finish::border),
                first(other, Finish::corners),
                first(other, Finish::shadow),
                first(other, Finish::space),
                first(other, Finish::heading),
                first(other, Finish::lettering),
                hidden);
    }

    private <T> T first(Finish other, Function<Finish, T> part) {
        return part.apply(this) != null ? part.apply(this) : part.apply(other);
    }
}
