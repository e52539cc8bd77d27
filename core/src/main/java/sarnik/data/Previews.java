package sarnik.data;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.Summary;
import sarnik.table.CodedColumn;
import sarnik.table.Column;

/**
 * The measures that a version of a dataset offers, each with its value over all rows. Worked out when first asked for
 * and
 * kept with the version, which never changes. Safe to share between threads.
 */
public final class Previews {

    /** Beyond this many, measures are offered without a value. */
    public static final int MOST = 40;

    private static final double USUAL_PERCENTILE = 95;

    private List<Preview> kept;

    /**
     * @param words the measure's value over all rows; empty where it was not worked out
     */
    public record Preview(Measure measure, String words) {}

    /** The number of rows, the measure formulas, and the summaries that fit each column. */
    public synchronized List<Preview> of(LoadedDataset dataset, QueryEngine engine) {
        if (kept == null) kept = preview(dataset, engine);
        return kept;
    }

    private static List<Preview> preview(LoadedDataset dataset, QueryEngine engine) {
        List<Measure> measures = measures(dataset);
        List<Measure> asked =
                measures.stream().filter(m -> isOfAll(dataset, m)).limit(MOST).toList();
        Optional<Frame> all = all(dataset, engine, asked);
        List<Preview> previews = new ArrayList<>();
        for (Measure measure : measures) {
            int at = asked.indexOf(measure);
            String words = at < 0
                    ? ""
                    : all.map(figures -> dataset.read(measure).brief(figures.value(at, 0)))
                            .orElse("");
            previews.add(new Preview(measure, words));
        }
        // A percentile needs all values of a column in a row; its figure is not worth waiting for here.
        for (String name : dataset.columnNames())
            if (dataset.table().column(name).type().isNumber())
                previews.add(new Preview(new Measure(Summary.PERCENTILE, name, USUAL_PERCENTILE, null), ""));
        return List.copyOf(previews);
    }

    /** The measures over all rows; empty where those cannot be told. */
    private static Optional<Frame> all(LoadedDataset dataset, QueryEngine engine, List<Measure> asked) {
        try {
            return Optional.of(dataset.answer(engine, Query.of(dataset.rules(), List.of(), asked)));
        } catch (MisfitException amiss) {
            return Optional.empty();
        }
    }

    /** Whether it has a value over all rows; what goes along the days has none. */
    private static boolean isOfAll(LoadedDataset dataset, Measure measure) {
        return measure.summary() != Summary.FORMULA
                || dataset.measures().get(measure.column()).keys().isEmpty();
    }

    private static List<Measure> measures(LoadedDataset dataset) {
        List<Measure> measures = new ArrayList<>();
        measures.add(Measure.ROWS);
        dataset.measures().keySet().forEach(name -> measures.add(new Measure(Summary.FORMULA, name)));
        for (String name : dataset.columnNames()) {
            Column column = dataset.table().column(name);
            if (column.type().isNumber()) {
                for (Summary summary :
                        List.of(Summary.SUM, Summary.AVERAGE, Summary.MEDIAN, Summary.MINIMUM, Summary.MAXIMUM))
                    measures.add(new Measure(summary, name));
            } else if (column instanceof CodedColumn) {
                measures.add(new Measure(Summary.DISTINCT, name));
            }
        }
        return measures;
    }
}
