package sarnik.visual;

import java.util.List;
import sarnik.scale.ValueWords;

/**
 * What the colours, sizes and shapes of marks mean.
 *
 * @param sizeWords what the size stands for; null for one size
 * @param circles nested example sizes, largest first
 * @param colourWords what the colour stands for; null for one colour
 * @param colours the classes, lowest first; of a ramp its steps
 * @param missing how many marks have no data for the colour
 * @param ramp whether colours run on without classes
 * @param breaks the breaks between classes
 * @param low the low end; null where there is no value
 * @param high the high end
 * @param spread how many values fall into each of equally wide bars from the low to the high end
 * @param below numbers of the marks whose values lie below the low end that was set
 * @param above numbers of those above the high end
 * @param unsure how many marks rest on too few to be trusted; they are hatched
 * @param unsureWords what that means; null where nothing is marked so
 * @param shapes what shapes stand for; empty where all have one
 * @param hints what the author may think of
 * @param offered measures among which the reader chooses; empty where there is no choice
 * @param chosen which of them is shown
 * @param shared name of the shared key that is worn; null for none
 * @param turns whether on the dark ground of the night the palette turns about, so that the high end stands out
 *     there too
 * @param sizesOffered measures among which the reader chooses for the size or weight; empty where there is no
 *     choice
 * @param sizeChosen which of them is shown
 * @param read how the values of the colour are read
 */
public record Key(
        String sizeWords,
        List<Circle> circles,
        String colourWords,
        List<Swatch> colours,
        int missing,
        boolean ramp,
        double[] breaks,
        Double low,
        Double high,
        int[] spread,
        int[] below,
        int[] above,
        int unsure,
        String unsureWords,
        List<ShapeSwatch> shapes,
        List<String> hints,
        List<String> offered,
        int chosen,
        String shared,
        boolean turns,
        List<String> sizesOffered,
        int sizeChosen,
        ValueWords read) {

    /** An example of a size, radius in pixels. */
    public record Circle(double radius, String text) {}

    /** A colour, what it stands for and how many marks wear it. */
    public record Swatch(String colour, String text, int count) {}

    /** A shape and what it stands for. */
    public record ShapeSwatch(int shape, String text, int count) {}

    /** A key that says nothing. */
    public static final Key NONE = new Draft().key();

    /** A draft of the same. */
    public Draft draft() {
        Draft draft = new Draft();
        draft.sizeWords = sizeWords;
        draft.circles = circles;
        draft.colourWords = colourWords;
        draft.colours = colours;
        draft.missing = missing;
        draft.ramp = ramp;
        draft.breaks = breaks;
        draft.low = low;
        draft.high = high;
        draft.spread = spread;
        draft.below = below;
        draft.above = above;
        draft.unsure = unsure;
        draft.unsureWords = unsureWords;
        draft.shapes = shapes;
        draft.hints = hints;
        draft.offered = offered;
        draft.chosen = chosen;
        draft.shared = shared;
        draft.turns = turns;
        draft.sizesOffered = sizesOffered;
        draft.sizeChosen = sizeChosen;
        draft.read = read;
        return draft;
    }

    public Key sized(String words, List<Circle> examples) {
        Draft draft = draft();
        draft.sizeWords = words;
        draft.circles = examples;
        return draft.key();
    }

    public Key shaped(List<ShapeSwatch> swatches) {
        Draft draft = draft();
        draft.shapes = swatches;
        return draft.key();
    }

    /** With marks that rest on too few. */
    public Key unsure(int count, String words) {
        Draft draft = draft();
        draft.unsure = count;
        draft.unsureWords = words;
        return draft.key();
    }

    public Key hinted(List<String> more) {
        Draft draft = draft();
        draft.hints = more;
        return draft.key();
    }

    /** With measures among which the reader chooses for the size. */
    public Key offeringSizes(List<String> words, int which) {
        Draft draft = draft();
        draft.sizesOffered = words;
        draft.sizeChosen = which;
        return draft.key();
    }

    /** With measures among which the reader chooses for the colour. */
    public Key offering(List<String> words, int which) {
        Draft draft = draft();
        draft.offered = words;
        draft.chosen = which;
        return draft.key();
    }

    /** A key that is being made; what is not said means nothing. */
    public static final class Draft {
        public String sizeWords;
        public List<Circle> circles = List.of();
        public String colourWords;
        public List<Swatch> colours = List.of();
        public int missing;
        public boolean ramp;
        public double[] breaks = new double[0];
        public Double low;
        public Double high;
        public int[] spread = new int[0];
        public int[] below = new int[0];
        public int[] above = new int[0];
        public int unsure;
        public String unsureWords;
        public List<ShapeSwatch> shapes = List.of();
        public List<String> hints = List.of();
        public List<String> offered = List.of();
        public int chosen;
        public String shared;
        public boolean turns;
        public List<String> sizesOffered = List.of();
        public int sizeChosen;
        public ValueWords read = ValueWords.NUMBER;

        public Key key() {
            return new Key(
                    sizeWords,
                    circles,
                    colourWords,
                    colours,
                    missing,
                    ramp,
                    breaks,
                    low,
                    high,
                    spread,
                    below,
                    above,
                    unsure,
                    unsureWords,
                    shapes,
                    hints,
                    offered,
                    chosen,
                    shared,
                    turns,
                    sizesOffered,
                    sizeChosen,
                    read);
        }
    }
}
