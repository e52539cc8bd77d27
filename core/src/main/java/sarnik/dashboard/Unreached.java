package sarnik.dashboard;

import java.util.HashSet;
import java.util.Optional;
import java.util.Set;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.TieGraph;
import sarnik.table.CodedColumn;
import sarnik.visual.Source;

/** What a pick or a filter cannot reach, and which tie would serve. */
public final class Unreached {

    private Unreached() {}

    /** Whether rows of a dataset do not follow what is chosen in a column of another. */
    public static boolean is(Datasets datasets, TieGraph graph, Source source, long dataset, boolean across) {
        if (source.dataset() == dataset) return false;
        Optional<LoadedDataset> other = datasets.ready(dataset);
        if (other.isEmpty()) return false;
        if (source.column().startsWith("@")
                && other.get().table().find(source.column()).isPresent()) return false;
        boolean tied = graph.from(source.dataset()).stream()
                .anyMatch(hop ->
                        hop.to() == dataset && hop.isEqual() && hop.column().equals(source.column()));
        return !tied && (!across || graph.way(source.dataset(), dataset).isEmpty());
    }

    /** A sentence that says so, with the tie that would serve; empty where a dataset cannot be asked. */
    static Optional<String> words(Datasets datasets, Source source, long dataset) {
        Optional<LoadedDataset> from = datasets.ready(source.dataset());
        Optional<LoadedDataset> to = datasets.ready(dataset);
        if (from.isEmpty() || to.isEmpty()) return Optional.empty();
        String words = "rows of " + to.get().name() + " do not follow: no tie leads there from "
                + from.get().name();
        return Optional.of(words
                + serving(from.get(), to.get())
                        .map(tie -> ". A tie of “" + tie.equals() + "” to “" + tie.column() + "” of "
                                + from.get().name() + " would serve; say it on the page of "
                                + to.get().name())
                        .orElse(""));
    }

    /** The two columns that share most of their words; empty where none do. */
    static Optional<TieGraph.Hop> serving(LoadedDataset from, LoadedDataset to) {
        TieGraph.Hop best = null;
        double most = LEAST;
        for (String mine : to.columnNames()) {
            if (!(to.table().column(mine) instanceof CodedColumn own) || mine.startsWith("@")) continue;
            for (String theirs : from.columnNames()) {
                if (!(from.table().column(theirs) instanceof CodedColumn other) || theirs.startsWith("@")) continue;
                double share = shared(own, other);
                if (share > most) {
                    most = share;
                    best = new TieGraph.Hop(from.id(), theirs, to.id(), mine);
                }
            }
        }
        return Optional.ofNullable(best);
    }

    /** From this share of their words on, two columns may mean the same. */
    private static final double LEAST = 0.3;

    private static final int FEW = 3;

    private static double shared(CodedColumn one, CodedColumn other) {
        // Yes and no, and columns of two or three words, are alike by chance.
        if (one.dictionary().size() < FEW || other.dictionary().size() < FEW) return 0;
        Set<String> known = new HashSet<>(other.dictionary());
        long both = one.dictionary().stream().filter(known::contains).count();
        return (double) both / one.dictionary().size();
    }
}
