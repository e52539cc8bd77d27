package sarnik.app.dataset;

import java.util.List;
import org.springframework.stereotype.Service;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.web.RefusedException;
import sarnik.data.Tie;
import sarnik.query.Condition;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.QueryException;
import sarnik.query.Stage;
import sarnik.query.TimeStep;
import sarnik.sql.Engines;
import sarnik.table.Column;
import sarnik.table.Table;
import sarnik.table.ValueMatch;
import tools.jackson.databind.json.JsonMapper;

/** Says what columns of a dataset mean the same as columns of others, and how many rows find a partner so. */
@Service
public class TieService {

    private final DatasetService datasets;
    private final Descriptions descriptions;
    private final JsonMapper mapper;

    TieService(DatasetService datasets, Descriptions descriptions, JsonMapper mapper) {
        this.datasets = datasets;
        this.descriptions = descriptions;
        this.mapper = mapper;
    }

    /**
     * How many rows find a partner through a tie, on each side.
     *
     * @throws RefusedException when one of the columns is not there
     */
    ValueMatch match(long id, Tie tie) {
        if (tie == null) throw new RefusedException("Say which column means the same as which.");
        if (tie.dataset() == id) throw new RefusedException("A tie leads to another dataset.");
        Column mine = column(datasets.needed(id), tie.column());
        Column theirs = column(datasets.needed(tie.dataset()), tie.equals());
        if (tie.step() != null && (tie.step().comesAgain() || tie.step().needsTime()))
            throw new RefusedException("What is shared are days, weeks, months, quarters or years.");
        try {
            Table here = datasets.needed(id).dataset().table();
            Table there = datasets.needed(tie.dataset()).dataset().table();
            if (here.staying() != null || there.staying() != null)
                return new ValueMatch(
                        matched(here, tie.column(), there, tie.equals(), tie.step()),
                        here.weight(),
                        matched(there, tie.equals(), here, tie.column(), tie.step()),
                        there.weight());
            if (tie.step() == null) return ValueMatch.of(mine, theirs);
            return ValueMatch.of(tie.step().numbers(mine), tie.step().numbers(theirs));
        } catch (QueryException unfit) {
            throw new RefusedException(unfit.getMessage());
        }
    }

    /** How many rows have a value that occurs in another table, asked where the rows are. */
    private static long matched(Table rows, String column, Table others, String equals, TimeStep step) {
        GroupKey key = step == null ? new GroupKey.Of(equals) : new GroupKey.Step(equals, step, null);
        Query values = Query.by(List.of(), List.of(key), List.of(Measure.ROWS)).filled();
        Stage found = new Stage("", List.of(new Condition.Among(column, others, values, 0, false, step, null)));
        return Math.round(new Engines()
                .answer(rows, Query.of(List.of(found), List.of(), List.of(Measure.ROWS)))
                .value(0, 0));
    }

    private static Column column(Loaded loaded, String name) {
        return loaded.dataset()
                .table()
                .find(name == null ? "" : name)
                .orElseThrow(() -> new RefusedException(
                        "“%s” has no column “%s”.".formatted(loaded.dataset().name(), name)));
    }

    /** Sets what columns of a dataset mean the same as columns of others. @return the revision after it */
    public long tie(long id, long revision, List<Tie> ties, SignedIn person) {
        descriptions.check(id, May.COMPOSE, person);
        ties.forEach(tie -> {
            match(id, tie);
            descriptions.check(tie.dataset(), May.READ, person);
        });
        return descriptions.change(id, revision, person, d -> d.tie(mapper.writeValueAsString(ties)));
    }
}
