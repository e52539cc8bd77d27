package sarnik.app.dataset;

import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.data.ViewerRule;
import sarnik.formula.FormulaException;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryException;
import sarnik.query.Stage;
import sarnik.sql.SqlEngine;
import sarnik.table.Table;

/** Rules that say which rows of a dataset somebody sees who may not change it. */
@Service
public class RowRules {

    private final DatasetService datasets;
    private final Descriptions descriptions;

    RowRules(DatasetService datasets, Descriptions descriptions) {
        this.datasets = datasets;
        this.descriptions = descriptions;
    }

    /**
     * Says which rows somebody sees who may not change a dataset.
     *
     * @param rule a condition; empty for all rows
     * @return the revision after it
     * @throws RefusedException when the condition does not fit its columns
     */
    long show(long id, long revision, String rule, SignedIn person) {
        if (rule == null || rule.isBlank()) return descriptions.show(id, revision, person, null);
        checked(id, rule);
        return descriptions.show(id, revision, person, rule.strip());
    }

    /**
     * How many rows of a dataset somebody would see.
     *
     * @param rule a condition
     */
    record Sight(long rows, long of) {}

    /** What a rule on rows would leave to a viewer. */
    Sight tryOut(long id, String rule, Map<String, List<String>> known) {
        ViewerRule read = checked(id, rule);
        Loaded loaded = datasets.needed(id);
        Table table = loaded.dataset().table();
        if (table.staying() != null) return sightOf(loaded, read, known);
        return new Sight(
                read.rows(table, datasets.scope(table, loaded.placed()), datasets.surroundings(loaded.placed()), known)
                        .cardinality(),
                table.rows());
    }

    private Sight sightOf(Loaded loaded, ViewerRule rule, Map<String, List<String>> known) {
        Table table = loaded.dataset().table();
        Condition condition =
                rule.condition(datasets.scope(table, loaded.placed()), datasets.surroundings(loaded.placed()), known);
        try {
            Frame counted = new SqlEngine()
                    .answer(
                            table,
                            Query.of(
                                    List.of(new Stage(rule.text(), List.of(condition))),
                                    List.of(),
                                    List.of(Measure.ROWS)));
            return new Sight(
                    Math.round(counted.value(0, 0)),
                    counted.trail().steps().get(0).left());
        } catch (FormulaException | QueryException cannot) {
            throw new RefusedException(cannot.getMessage());
        }
    }

    /** A rule on rows that fits a dataset's columns. */
    public ViewerRule checked(long id, String rule) {
        Loaded loaded = datasets.needed(id);
        try {
            ViewerRule read = new ViewerRule(rule);
            read.check(datasets.scope(loaded.dataset().table(), loaded.placed()));
            return read;
        } catch (FormulaException | IllegalArgumentException unfit) {
            throw new RefusedException("The rule on rows cannot be kept: " + unfit.getMessage());
        }
    }
}
