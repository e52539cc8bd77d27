package sarnik.visual.map;

import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.data.LoadedDataset;
import sarnik.visual.Scales;
import sarnik.visual.Scene;

/**
 * A kind of layer. All kinds share one record, {@link Layer}, so that a layer whose kind is changed keeps all it was
 * told; everything else about a kind stands in its own class.
 */
interface LayerKind {

    /** What it draws, in a few words, for those who choose it. */
    String hint();

    /** Whether the rows of a dataset can be drawn so. */
    default boolean fits(LoadedDataset dataset) {
        return true;
    }

    /** A kind that draws no data. */
    interface Bare {

        /** What it draws, in a few words, for those who choose it. */
        String hint();

        /** A name for a layer that has none of its own. */
        String name(Layer layer);

        /**
         * The layer as it is drawn.
         *
         * @throws sarnik.data.MisfitException when what it draws has gone
         */
        LayerDrawn drawn(Layer layer, LayerDrawn.Head head, Scene scene);

        /** Writes its sentence. */
        void sentence(BriefLine line, Layer layer, Choices choices);
    }

    /** A name for a layer that has none of its own. */
    String name(String what, LoadedDataset dataset);

    /** Writes what is special about it in the sentence. */
    void sentence(LayerBrief brief);

    /**
     * The queries it needs, and what is drawn of their answers.
     *
     * @throws sarnik.data.MisfitException when the layer does not fit its data
     */
    LayerPlan plan(LayerRows rows, Scales scales);
}
