package sarnik.sql;

import static sarnik.language.Language.phrase;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import sarnik.formula.Formula;
import sarnik.formula.SqlDialect;
import sarnik.formula.Surroundings;
import sarnik.query.QueryException;
import sarnik.sql.SqlStatement.Out;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/** Looks at rows that stay in a database, so that what can be chosen of them is known without asking each time. */
public final class FaceMaker {

    /** Words of a column that are listed, the commonest first. */
    public static final int MOST_WORDS = 20_000;

    /** Different words that say where rows are. */
    public static final int MOST_PLACED = 200_000;

    private static final int SAMPLE = 500;

    /** A face has room for the words of columns that are worked out later. */
    private static final int LEAST = 1000;

    private FaceMaker() {}

    /** A face with the table that goes with it. */
    public record Made(Table table, Face face, List<SourceColumn> columns) {}

    /**
     * Looks at a table or a query.
     *
     * @param relation as what stands behind FROM
     * @param columns its columns
     * @param placed columns that say together where rows are, one list for each end; empty for none
     * @throws QueryException when it cannot be asked, or has more different words of places than can be placed
     */
    public static Made look(
            SqlRunner runner,
            SqlDialect dialect,
            String where,
            String relation,
            List<SourceColumn> columns,
            List<List<String>> placed) {
        StayingRows rows = new StayingRows(
                runner, dialect, where, relation, columns, new Face(0, Instant.EPOCH, List.of(), List.of()));
        Table empty = empty(columns, rows);
        return look(rows, empty, placed);
    }

    /**
     * Looks again at rows that are known, at those of them that are seen.
     *
     * @param rows with all that a row has to meet to be there
     * @param table the face that was known, without what was made of it
     */
    public static Made again(StayingRows rows, Table table) {
        return look(
                rows,
                table,
                rows.face().blocks().stream().map(Face.Block::columns).toList());
    }

    private static Table empty(List<SourceColumn> columns, StayingRows rows) {
        Map<String, Column> none = new LinkedHashMap<>();
        for (SourceColumn column : columns) none.put(column.name(), Column.of(column.type(), List.of()));
        return new Table(none, rows);
    }

    private static Made look(StayingRows rows, Table table, List<List<String>> placed) {
        List<SourceColumn> columns = rows.columns();
        List<SourceColumn> ordered = columns.stream()
                .filter(c -> c.type() != ColumnType.TEXT && c.type() != ColumnType.YES_NO)
                .toList();
        List<SourceColumn> texts =
                columns.stream().filter(c -> c.type() == ColumnType.TEXT).toList();
        List<SqlStatement> statements = new ArrayList<>();
        statements.add(ends(rows, table, ordered));
        statements.add(tidy(rows, texts));
        statements.add(sample(rows, table, ordered));
        for (SourceColumn text : texts) statements.add(words(rows, table, List.of(text.name()), MOST_WORDS));
        for (List<String> block : placed) statements.add(words(rows, table, block, MOST_PLACED));
        List<SqlRows> answers = rows.runner().ask(statements);
        Object[] ends = answers.get(0).rows().get(0);
        Map<String, List<String>> values = new LinkedHashMap<>();
        for (int c = 0; c < ordered.size(); c++)
            values.put(
                    ordered.get(c).name(), some(ordered.get(c), ends[1 + 2 * c], ends[2 + 2 * c], answers.get(2), c));
        List<String> open = new ArrayList<>();
        for (int t = 0; t < texts.size(); t++) {
            List<String> words = answers.get(3 + t).rows().stream()
                    .map(row -> (String) row[0])
                    .filter(w -> w != null)
                    .toList();
            if (words.size() > MOST_WORDS) open.add(texts.get(t).name());
            values.put(texts.get(t).name(), words.subList(0, Math.min(MOST_WORDS, words.size())));
        }
        for (SourceColumn column : columns)
            if (column.type() == ColumnType.YES_NO) values.put(column.name(), List.of("no", "yes"));
        List<Face.Block> blocks = new ArrayList<>();
        Map<String, Map<Integer, String>> together = new LinkedHashMap<>();
        int from = 0;
        for (int b = 0; b < placed.size(); b++) {
            SqlRows answer = answers.get(3 + texts.size() + b);
            List<String> names = placed.get(b);
            if (answer.rows().size() > MOST_PLACED)
                throw new QueryException(phrase(
                        "{0} has more than {1} different values in all, so its rows cannot be placed where they are. Bring them in, or place them by something coarser",
                        names.stream().map(n -> "“" + n + "”").collect(Collectors.joining(", ")), MOST_PLACED));
            List<Long> counts = new ArrayList<>();
            for (int i = 0; i < answer.rows().size(); i++) {
                Object[] row = answer.rows().get(i);
                for (int c = 0; c < names.size(); c++)
                    together.computeIfAbsent(names.get(c), n -> new LinkedHashMap<>())
                            .put(
                                    from + i,
                                    row[c] == null
                                            ? ""
                                            : SqlEngine.text(
                                                    rows.source(names.get(c)).type(), row[c]));
                counts.add((Long) row[names.size()]);
            }
            blocks.add(new Face.Block(names, from, counts));
            from += answer.rows().size();
        }
        int size = Math.max(
                Math.max(LEAST, from),
                values.values().stream().mapToInt(List::size).max().orElse(0));
        Map<String, Column> made = new LinkedHashMap<>();
        for (SourceColumn column : columns) {
            Map<Integer, String> block = together.get(column.name());
            List<String> list = values.get(column.name());
            made.put(
                    column.name(),
                    column(
                            column.type(),
                            size,
                            row -> block != null ? block.get(row) : row < list.size() ? list.get(row) : null));
        }
        Object[] untidy = answers.get(1).rows().get(0);
        List<SourceColumn> known = columns.stream()
                .map(c ->
                        c.type() == ColumnType.TEXT ? c.clean(Long.valueOf(0).equals(untidy[1 + texts.indexOf(c)])) : c)
                .toList();
        Face face = new Face((Long) ends[0], answers.get(0).at(), blocks, open);
        StayingRows seen = rows.faced(face, known);
        return new Made(face.ordered(new Table(made, seen)), face, known);
    }

    /**
     * The face with a column that the database works out of others.
     *
     * @throws sarnik.formula.FormulaException when it cannot; it says which part
     * @throws QueryException when it cannot be asked
     */
    public static Table worked(Table table, String name, Formula formula, Surroundings on) {
        StayingRows rows = StayingRows.of(table).orElseThrow().with(name, formula, on, table);
        ColumnType type = formula.kind().column();
        // Named before it is known, so that it can be asked for.
        Table named = table.with(Map.of(name, missing(type, table.rows()))).staying(rows);
        if (type == ColumnType.YES_NO) return named;
        SourceColumn column = new SourceColumn(name, name, SourceColumn.Held.TEXT, type);
        List<String> values = new ArrayList<>();
        if (type == ColumnType.TEXT) {
            rows.runner().ask(words(rows, named, List.of(name), MOST_WORDS)).rows().stream()
                    .map(row -> (String) row[0])
                    .filter(w -> w != null)
                    .forEach(values::add);
        } else {
            List<SqlRows> answers = rows.runner()
                    .ask(List.of(ends(rows, named, List.of(column)), sample(rows, named, List.of(column))));
            Object[] ends = answers.get(0).rows().get(0);
            values.addAll(some(column, ends[1], ends[2], answers.get(1), 0));
        }
        Column made = column(type, table.rows(), row -> row < values.size() ? values.get(row) : null);
        if (made instanceof CodedColumn coded) {
            int[] order = new int[coded.dictionary().size()];
            Arrays.setAll(order, i -> i);
            made = coded.commonest(order);
        }
        return table.with(Map.of(name, made)).staying(rows);
    }

    /** The face with a condition that every row can be asked for, as a column of yes and no. */
    public static Table condition(Table table, String name, Formula formula, Surroundings on) {
        StayingRows rows = StayingRows.of(table).orElseThrow().with(name, formula, on, table);
        return table.with(Map.of(name, missing(ColumnType.YES_NO, table.rows())))
                .staying(rows);
    }

    private static Column column(ColumnType type, int size, IntFunction<String> text) {
        return Column.of(
                type, Arrays.asList(IntStream.range(0, size).mapToObj(text).toArray(String[]::new)));
    }

    private static Column missing(ColumnType type, int size) {
        return column(type, size, row -> null);
    }

    private static SqlStatement ends(StayingRows rows, Table table, List<SourceColumn> ordered) {
        SqlWriter writer = new SqlWriter(rows, table);
        List<String> selected = new ArrayList<>(List.of("COUNT(*)"));
        List<Out> outs = new ArrayList<>(List.of(Out.WHOLE));
        for (SourceColumn column : ordered) {
            String value = writer.number(column.name(), column.type());
            selected.add("MIN(" + value + ")");
            selected.add("MAX(" + value + ")");
            outs.add(SqlEngine.out(column.type()));
            outs.add(SqlEngine.out(column.type()));
        }
        return statement(writer, selected, outs, "", 1);
    }

    private static SqlStatement tidy(StayingRows rows, List<SourceColumn> texts) {
        List<String> selected = new ArrayList<>(List.of("COUNT(*)"));
        List<Out> outs = new ArrayList<>(List.of(Out.WHOLE));
        for (SourceColumn text : texts) {
            String unclean = text.unclean(rows.dialect());
            selected.add(unclean == null ? "1" : "COUNT(CASE WHEN " + unclean + " THEN 1 END)");
            outs.add(Out.WHOLE);
        }
        return new SqlStatement("SELECT " + String.join(", ", selected) + " FROM " + rows.relation(), outs, 1);
    }

    private static SqlStatement sample(StayingRows rows, Table table, List<SourceColumn> ordered) {
        SqlWriter writer = new SqlWriter(rows, table);
        List<String> selected = new ArrayList<>();
        List<Out> outs = new ArrayList<>();
        for (SourceColumn column : ordered) {
            selected.add(writer.number(column.name(), column.type()));
            outs.add(SqlEngine.out(column.type()));
        }
        if (selected.isEmpty()) {
            selected.add("1");
            outs.add(Out.WHOLE);
        }
        return statement(writer, selected, outs, " LIMIT " + SAMPLE, SAMPLE);
    }

    private static SqlStatement words(StayingRows rows, Table table, List<String> names, int most) {
        SqlWriter writer = new SqlWriter(rows, table);
        List<String> selected = new ArrayList<>();
        List<Out> outs = new ArrayList<>();
        for (String name : names) {
            selected.add(writer.number(name, writer.type(name)));
            outs.add(SqlEngine.out(writer.type(name)));
        }
        selected.add("COUNT(*)");
        outs.add(Out.WHOLE);
        String keys =
                IntStream.rangeClosed(1, names.size()).mapToObj(String::valueOf).collect(Collectors.joining(", "));
        return statement(
                writer,
                selected,
                outs,
                " GROUP BY " + keys + " ORDER BY " + selected.size() + " DESC, " + keys + " LIMIT " + (most + 2),
                most + 2);
    }

    private static SqlStatement statement(
            SqlWriter writer, List<String> selected, List<Out> outs, String behind, int most) {
        List<String> only = writer.only();
        return new SqlStatement(
                "SELECT " + String.join(", ", selected) + writer.from()
                        + (only.isEmpty() ? "" : " WHERE " + String.join(" AND ", only)) + behind,
                outs,
                most);
    }

    /** The least and the greatest value, and some that lie between. */
    private static List<String> some(SourceColumn column, Object least, Object most, SqlRows sample, int at) {
        List<String> some = new ArrayList<>();
        if (least != null) some.add(SqlEngine.text(column.type(), least));
        if (most != null) some.add(SqlEngine.text(column.type(), most));
        for (Object[] row : sample.rows()) if (row[at] != null) some.add(SqlEngine.text(column.type(), row[at]));
        return some;
    }
}
