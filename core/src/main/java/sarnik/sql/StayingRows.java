package sarnik.sql;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.formula.Formula;
import sarnik.formula.FormulaException;
import sarnik.formula.MeasureFormula;
import sarnik.formula.SqlDialect;
import sarnik.formula.SqlScope;
import sarnik.formula.Surroundings;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.QueryException;
import sarnik.table.Staying;
import sarnik.table.Table;

/** Rows that stay in a database, and how its language asks for them. Immutable; safe to share between threads. */
public final class StayingRows implements Staying {

    private final SqlRunner runner;
    private final SqlDialect dialect;
    private final String where;
    private final String relation;
    private final Map<String, SourceColumn> columns;
    private final Face face;
    private final Map<String, Worked> worked;
    private final List<Condition> only;

    /** A column that is worked out of others. */
    record Worked(Formula formula, Surroundings on) {}

    /**
     * @param where what the database is called
     * @param relation the table or query that has the rows, as what stands behind FROM
     * @param columns its columns
     * @param face what is known of it
     */
    public StayingRows(
            SqlRunner runner,
            SqlDialect dialect,
            String where,
            String relation,
            List<SourceColumn> columns,
            Face face) {
        this(runner, dialect, where, relation, byName(columns), face, Map.of(), List.of());
    }

    private StayingRows(
            SqlRunner runner,
            SqlDialect dialect,
            String where,
            String relation,
            Map<String, SourceColumn> columns,
            Face face,
            Map<String, Worked> worked,
            List<Condition> only) {
        this.runner = runner;
        this.dialect = dialect;
        this.where = where;
        this.relation = relation;
        this.columns = columns;
        this.face = face;
        this.worked = worked;
        this.only = List.copyOf(only);
    }

    private static Map<String, SourceColumn> byName(List<SourceColumn> columns) {
        Map<String, SourceColumn> all = new LinkedHashMap<>();
        columns.forEach(c -> all.put(c.name(), c));
        return all;
    }

    /** The rows behind the face of a table; empty where the table holds its rows. */
    public static Optional<StayingRows> of(Table table) {
        return table.staying() instanceof StayingRows rows ? Optional.of(rows) : Optional.empty();
    }

    @Override
    public long rows() {
        return face.rows();
    }

    @Override
    public String where() {
        return where;
    }

    public Face face() {
        return face;
    }

    SqlRunner runner() {
        return runner;
    }

    SqlDialect dialect() {
        return dialect;
    }

    String relation() {
        return relation;
    }

    List<SourceColumn> columns() {
        return List.copyOf(columns.values());
    }

    SourceColumn source(String column) {
        return columns.get(column);
    }

    Worked worked(String column) {
        return worked.get(column);
    }

    /** What a row has to meet to be there at all. */
    List<Condition> only() {
        return only;
    }

    /**
     * The same rows with a column that is worked out of others.
     *
     * @throws FormulaException when the database cannot work it out; it says which part
     */
    public StayingRows with(String name, Formula formula, Surroundings on, Table table) {
        check(formula, on, table);
        Map<String, Worked> all = new LinkedHashMap<>(worked);
        all.put(name, new Worked(formula, on));
        return new StayingRows(runner, dialect, where, relation, columns, face, all, only);
    }

    /**
     * Some of the rows only; others are not there.
     *
     * @param condition what a row has to meet
     * @param narrowed what is known of those that are left
     */
    public StayingRows only(Condition condition, Face narrowed) {
        List<Condition> all = new ArrayList<>(only);
        all.add(condition);
        return new StayingRows(runner, dialect, where, relation, columns, narrowed, worked, all);
    }

    /** The same rows as they are known by another face. */
    StayingRows faced(Face other, List<SourceColumn> known) {
        return new StayingRows(runner, dialect, where, relation, byName(known), other, worked, only);
    }

    /**
     * Checks that the database can work a formula out.
     *
     * @throws FormulaException when it cannot; it says which part
     */
    public void check(Formula formula, Surroundings on, Table table) {
        new SqlWriter(this, table).formula(formula, on);
    }

    /**
     * Checks that the database can work a measure out.
     *
     * @throws QueryException when it cannot; it says which part
     */
    public void check(FormulaMeasure measure, Table table) {
        SqlWriter writer = new SqlWriter(this, table);
        measure.pushed().forEach(writer::part);
    }

    /**
     * In how many rows a formula cannot be worked out.
     *
     * @throws QueryException when they cannot be counted
     */
    public long unworked(Formula formula, Surroundings on, Table table) {
        SqlWriter writer = new SqlWriter(this, table);
        return unworked(writer, writer.unworked(formula, on));
    }

    /**
     * In how many rows what a measure sums up cannot be worked out.
     *
     * @throws QueryException when they cannot be counted
     */
    public long unworked(MeasureFormula formula, Surroundings on, Table table) {
        SqlWriter writer = new SqlWriter(this, table);
        return unworked(writer, writer.unworked(formula, on));
    }

    private long unworked(SqlWriter writer, String when) {
        if (when == null) return 0;
        List<String> conditions = new ArrayList<>(writer.only());
        conditions.add("(" + when + ")");
        return (Long) runner.ask(List.of(SqlEngine.count(writer, conditions)))
                .get(0)
                .rows()
                .get(0)[0];
    }

    /** Where a formula is worked out, its columns found by a writer. */
    SqlScope scope(SqlWriter writer, Surroundings on) {
        return new SqlScope(dialect, writer::value, writer::exact, on);
    }

    /** Says that something cannot be asked of the rows while they stay where they are. */
    public static QueryException cannot(Table table, String what) {
        return new QueryException(phrase(
                "{0} cannot be asked while the rows stay in {1}. Bring them in to have it",
                what, table.staying().where()));
    }
}
