package sarnik.data;

import java.util.List;
import sarnik.query.Condition;
import sarnik.query.Stage;

/** A standing rule of a visual: only rows whose column has one of these values. */
public record Rule(String column, List<String> values) {

    /** The stage of the query that it is. */
    public Stage stage() {
        return new Stage(
                "Always only where %s is %s".formatted(ColumnWords.of(column), Words.list(values, "or")),
                List.of(new Condition.OneOf(column, values)));
    }
}
