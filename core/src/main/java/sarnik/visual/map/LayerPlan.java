package sarnik.visual.map;

import java.util.List;
import sarnik.visual.Answers;
import sarnik.visual.Asked;

/**
 * How a layer is drawn of the answers to what it asked.
 *
 * @param main the query whose rows the layer shows
 * @param draw draws it
 */
record LayerPlan(Asked main, Draw draw) {

    /** Draws a layer. */
    interface Draw {

        /**
         * @param notes takes sentences about what is not as one would expect
         * @throws sarnik.data.MisfitException when the scale cannot be made
         */
        LayerDrawn of(Answers answers, List<String> notes);
    }
}
