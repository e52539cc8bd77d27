package sarnik.sql;

import static sarnik.language.Language.phrase;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import sarnik.formula.MeasureFormula;
import sarnik.formula.SqlDialect;
import sarnik.query.FormulaMeasure;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Groups;
import sarnik.query.Lacked;
import sarnik.query.Measure;
import sarnik.query.PushedPart;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.QueryException;
import sarnik.query.RowPage;
import sarnik.query.RowQuery;
import sarnik.query.RowTrail;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.sql.SqlStatement.Out;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Sums;
import sarnik.table.Table;

/**
 * Answers queries to rows that stay in a database: rows are narrowed, grouped and summed up there, the groups are
 * ranked and ordered here, by the same rules as those of tables in memory. Safe to share between threads.
 */
public final class SqlEngine implements QueryEngine {

    /** More groups than these are not fetched. */
    public static final int MOST_GROUPS = 250_000;

    private static final DateTimeFormatter CLOCK =
            DateTimeFormatter.ofPattern("HH:mm:ss").withZone(ZoneOffset.UTC);

    @Override
    public Frame answer(Table table, Query query) {
        return answer(table, List.of(query)).get(0);
    }

    /** Queries of the same stages and keys are one statement. */
    private record Shape(List<Stage> stages, List<GroupKey> keys, Query.Missing missing) {}

    /**
     * A statement about groups, and where in its answer each sum stands. Where groups are made by places, and what is
     * summed up allows it, the database groups by the words that say them; those of one place are put together here.
     */
    private static final class Asked {
        final StayingRows rows;
        final Table table;
        final Shape shape;
        final SqlWriter writer;
        /** Sums by their SQL. */
        final Map<String, SummedUp.Merge> sums = new LinkedHashMap<>();

        private final Map<String, Out> outs = new LinkedHashMap<>();
        /** What the database groups by, by its SQL, and the type of what it gives. */
        private final Map<String, Out> grouped = new LinkedHashMap<>();

        private boolean byWords;

        Asked(StayingRows rows, Table table, Shape shape) {
            this.rows = rows;
            this.table = table;
            this.shape = shape;
            this.writer = new SqlWriter(rows, table);
            add(writer.measure(Measure.ROWS, null), Out.DECIMAL);
        }

        /** Where in the answer sums stand, counted from the first. */
        int[] add(SummedUp summed, Out out) {
            for (String sql : summed.sums()) {
                sums.putIfAbsent(sql, summed.merge());
                outs.putIfAbsent(sql, out);
            }
            return summed.sums().stream()
                    .mapToInt(sql -> List.copyOf(sums.keySet()).indexOf(sql))
                    .toArray();
        }

        private int block(GroupKey key) {
            return key instanceof GroupKey.Of ? writer.block(key.column()) : -1;
        }

        SqlStatement statement() {
            byWords = !sums.containsValue(SummedUp.Merge.NONE)
                    && shape.keys.stream().anyMatch(key -> block(key) >= 0);
            List<String> where = new ArrayList<>(writer.only());
            where.addAll(writer.conditions(shape.stages));
            for (GroupKey key : shape.keys) {
                if (byWords && block(key) >= 0) {
                    for (String word : rows.face().blocks().get(block(key)).columns())
                        grouped.put(writer.value(word), out(writer.type(word)));
                    continue;
                }
                String sql = writer.key(key);
                grouped.put(sql, key instanceof GroupKey.Of ? out(writer.type(key.column())) : Out.WHOLE);
                if (shape.missing == Query.Missing.LEFT_OUT) where.add(sql + " IS NOT NULL");
            }
            List<String> selected = new ArrayList<>(grouped.keySet());
            selected.addAll(sums.keySet());
            List<Out> all = new ArrayList<>(grouped.values());
            sums.keySet().forEach(sum -> all.add(outs.get(sum)));
            String by = IntStream.rangeClosed(1, grouped.size())
                    .mapToObj(String::valueOf)
                    .collect(Collectors.joining(", "));
            String sql = "SELECT " + String.join(", ", selected) + writer.from() + where(where)
                    + (grouped.isEmpty() ? "" : " GROUP BY " + by + " LIMIT " + (MOST_GROUPS + 1));
            return new SqlStatement(sql, all, MOST_GROUPS + 1);
        }

        /** Whether all rows that the stages leave are counted in the answer. */
        boolean countsAll() {
            return shape.missing == Query.Missing.KEPT
                    || shape.keys.stream().allMatch(key -> byWords && block(key) >= 0);
        }

        /** How many rows the answer counts. */
        long counted(SqlRows answer) {
            return (long) answer.rows().stream()
                    .mapToDouble(row -> (Double) row[grouped.size()])
                    .sum();
        }

        /** For each group its keys, then its sums. */
        List<Object[]> groups(SqlRows answer) {
            if (answer.rows().size() > MOST_GROUPS)
                throw new QueryException(phrase(
                        "There are more than {0} groups, which are not fetched from {1}. Narrow first, or group by something coarser",
                        MOST_GROUPS, rows.where()));
            return byWords ? putTogether(answer) : answer.rows();
        }

        private List<Object[]> putTogether(SqlRows answer) {
            List<String> given = List.copyOf(grouped.keySet());
            List<SummedUp.Merge> merges = List.copyOf(sums.values());
            int keys = shape.keys.size();
            List<Function<Object[], Object>> read = new ArrayList<>();
            for (GroupKey key : shape.keys) {
                int block = block(key);
                if (block >= 0)
                    read.add(place(key.column(), rows.face().blocks().get(block), given));
                else {
                    int at = given.indexOf(writer.key(key));
                    read.add(row -> row[at]);
                }
            }
            Map<List<Object>, Object[]> groups = new LinkedHashMap<>();
            for (Object[] row : answer.rows()) {
                Object[] group = new Object[keys + merges.size()];
                for (int k = 0; k < keys; k++) group[k] = read.get(k).apply(row);
                for (int m = 0; m < merges.size(); m++) group[keys + m] = row[given.size() + m];
                List<Object> key = Arrays.asList(group).subList(0, keys);
                if (shape.missing == Query.Missing.LEFT_OUT && key.contains(null)) continue;
                Object[] first = groups.putIfAbsent(key, group);
                if (first != null)
                    for (int m = 0; m < merges.size(); m++)
                        first[keys + m] = merges.get(m).of((Double) first[keys + m], (Double) group[keys + m]);
            }
            return List.copyOf(groups.values());
        }

        /** What the words of a row stand for in a column that was found out of them. */
        private Function<Object[], Object> place(String column, Face.Block block, List<String> given) {
            int[] at = block.columns().stream()
                    .mapToInt(word -> given.indexOf(writer.value(word)))
                    .toArray();
            ColumnType[] types = block.columns().stream().map(writer::type).toArray(ColumnType[]::new);
            Map<List<String>, String> known = new HashMap<>();
            for (int row = block.from(); row < block.from() + block.counts().size(); row++) {
                List<String> words = new ArrayList<>();
                for (String word : block.columns()) words.add(table.column(word).text(row));
                known.put(words, table.column(column).text(row));
            }
            return row -> {
                List<String> words = new ArrayList<>();
                for (int w = 0; w < at.length; w++) words.add(row[at[w]] == null ? null : text(types[w], row[at[w]]));
                return known.get(words);
            };
        }
    }

    private static String where(List<String> conditions) {
        return conditions.isEmpty() ? "" : " WHERE " + String.join(" AND ", conditions);
    }

    /** A measure of a query, and where the sums stand of which it, or each of its parts, is made. */
    private record Wanted(Measure measure, List<int[]> at) {}

    /**
     * What a statement about groups is asked for by one of its queries.
     *
     * @param lacked what rows may lack that it sums up
     * @param having of each where the number of rows stands that have it
     */
    private record Wants(List<Wanted> measures, List<Lacked> lacked, List<Integer> having) {
        static Wants of(Query query, Asked asked) {
            List<Lacked> lacked = Lacked.of(query);
            return new Wants(
                    query.measures().stream()
                            .map(measure -> wanted(measure, query, asked))
                            .toList(),
                    lacked,
                    lacked.stream()
                            .map(one -> asked.add(asked.writer.part(one.counted()), Out.DECIMAL)[0])
                            .toList());
        }
    }

    @Override
    public List<Frame> answer(Table table, List<Query> queries) {
        StayingRows rows = StayingRows.of(table).orElseThrow();
        Map<Shape, Asked> asked = new LinkedHashMap<>();
        List<Asked> of = new ArrayList<>();
        List<Wants> wanted = new ArrayList<>();
        List<Query> plain = new ArrayList<>();
        for (Query given : queries) {
            Query query = given.narrowed(resolved(given.stages()));
            Asked one = asked.computeIfAbsent(
                    new Shape(query.stages(), query.groupBy(), query.missing()),
                    shape -> new Asked(rows, table, shape));
            plain.add(query);
            of.add(one);
            wanted.add(Wants.of(query, one));
        }
        List<Asked> statements = List.copyOf(asked.values());
        List<SqlRows> answers =
                rows.runner().ask(statements.stream().map(Asked::statement).toList());
        Map<Asked, SqlRows> answered = new HashMap<>();
        for (int a = 0; a < statements.size(); a++) answered.put(statements.get(a), answers.get(a));
        Map<List<Stage>, Long> counts = counts(rows, table, statements, answered);
        List<Frame> frames = new ArrayList<>();
        for (int q = 0; q < queries.size(); q++)
            frames.add(frame(plain.get(q), of.get(q), answered.get(of.get(q)), wanted.get(q), counts, rows));
        return frames;
    }

    private static Wanted wanted(Measure measure, Query query, Asked asked) {
        if (measure.summary() != Summary.FORMULA)
            return new Wanted(measure, List.of(asked.add(asked.writer.measure(measure.plain(), null), Out.DECIMAL)));
        FormulaMeasure formula = query.formulas().get(measure.column());
        if (formula == null) throw new QueryException(phrase("There is no measure “{0}” any more", measure.column()));
        if (formula.pushed().size() != formula.parts().size())
            throw new QueryException(phrase(
                    "“{0}” cannot be worked out while the rows stay in {1}. Bring them in to have it",
                    measure.column(), asked.rows.where()));
        return new Wanted(
                measure,
                formula.pushed().stream()
                        .map(part -> asked.add(
                                asked.writer.part(part),
                                part.of() instanceof PushedPart.Of.Known ? Out.TEXT : Out.DECIMAL))
                        .toList());
    }

    /** How many rows each step of the trails leaves, those that the groups tell by themselves left out. */
    private static Map<List<Stage>, Long> counts(
            StayingRows rows, Table table, List<Asked> statements, Map<Asked, SqlRows> answered) {
        Map<List<Stage>, Long> counts = new HashMap<>();
        Map<List<Stage>, SqlStatement> open = new LinkedHashMap<>();
        for (Asked asked : statements)
            if (asked.countsAll()) counts.put(asked.shape.stages, asked.counted(answered.get(asked)));
        for (Asked asked : statements)
            for (int s = 0; s <= asked.shape.stages.size(); s++) {
                List<Stage> first = asked.shape.stages.subList(0, s);
                if (counts.containsKey(first)) continue;
                open.computeIfAbsent(first, stages -> {
                    SqlWriter writer = new SqlWriter(rows, table);
                    List<String> conditions = new ArrayList<>(writer.only());
                    conditions.addAll(writer.conditions(stages));
                    return count(writer, conditions);
                });
            }
        List<SqlRows> found = rows.runner().ask(List.copyOf(open.values()));
        int at = 0;
        for (List<Stage> stages : open.keySet())
            counts.put(stages, (Long) found.get(at++).rows().get(0)[0]);
        return counts;
    }

    /** How many rows meet all of some conditions. */
    static SqlStatement count(SqlWriter writer, List<String> conditions) {
        return new SqlStatement("SELECT COUNT(*)" + writer.from() + where(conditions), List.of(Out.WHOLE), 1);
    }

    private static Frame frame(
            Query query, Asked asked, SqlRows answer, Wants wanted, Map<List<Stage>, Long> counts, StayingRows rows) {
        List<Object[]> groups = asked.groups(answer);
        int keys = query.groupBy().size();
        List<Groups.Key> columns = new ArrayList<>();
        for (int k = 0; k < keys; k++) columns.add(key(query.groupBy().get(k), asked, k, groups));
        Groups made = new Groups(query, columns, groups.size());
        List<double[]> values = new ArrayList<>();
        for (Wanted one : wanted.measures) {
            if (one.measure.summary() != Summary.FORMULA) {
                values.add(numbers(groups, keys, one.at.get(0)));
                continue;
            }
            FormulaMeasure formula = query.formulas().get(one.measure.column());
            double[][] parts = new double[one.at.size()][];
            for (int p = 0; p < parts.length; p++)
                parts[p] = formula.pushed().get(p).of() instanceof PushedPart.Of.Known known
                        ? known(groups, keys + one.at.get(p)[0], known.known())
                        : numbers(groups, keys, one.at.get(p));
            values.add(made.formula(formula, parts));
        }
        List<RowTrail.Step> steps = trail(query.stages(), counts, rows, answer.at());
        long left = sum(groups, keys);
        if (query.missing() == Query.Missing.LEFT_OUT && keys > 0)
            steps.add(new RowTrail.Step(phrase("Only rows that have a value to group by"), left, RowTrail.Unit.ROWS));
        steps.addAll(Lacked.steps(
                wanted.lacked,
                left,
                wanted.having.stream().mapToLong(at -> sum(groups, keys + at)).toArray()));
        return made.frame(values, steps);
    }

    /** The sum over all groups of numbers of rows. */
    private static long sum(List<Object[]> groups, int at) {
        return (long) groups.stream().mapToDouble(row -> number(row[at])).sum();
    }

    private static List<RowTrail.Step> trail(
            List<Stage> stages, Map<List<Stage>, Long> counts, StayingRows rows, Instant at) {
        List<RowTrail.Step> steps = new ArrayList<>();
        steps.add(new RowTrail.Step(
                phrase("All rows of {0} as of {1} UTC", rows.where(), CLOCK.format(at)),
                counts.get(List.<Stage>of()),
                RowTrail.Unit.ROWS));
        for (int s = 1; s <= stages.size(); s++)
            steps.add(
                    new RowTrail.Step(stages.get(s - 1).words(), counts.get(stages.subList(0, s)), RowTrail.Unit.ROWS));
        return steps;
    }

    /** @param at where the sum stands; of two the first is divided by the second */
    private static double[] numbers(List<Object[]> groups, int keys, int[] at) {
        double[] numbers = new double[groups.size()];
        for (int g = 0; g < numbers.length; g++) {
            double number = number(groups.get(g)[keys + at[0]]);
            if (at.length == 2) number /= number(groups.get(g)[keys + at[1]]);
            numbers[g] = Double.isFinite(number) ? number : Double.NaN;
        }
        return numbers;
    }

    private static double number(Object value) {
        return value == null ? Double.NaN : ((Number) value).doubleValue();
    }

    /** The sum of what is known of the keys that occur in each group. */
    private static double[] known(List<Object[]> groups, int column, MeasureFormula.Known known) {
        double[] numbers = new double[groups.size()];
        for (int g = 0; g < numbers.length; g++) {
            String keys = (String) groups.get(g)[column];
            double[] figures = keys == null
                    ? new double[0]
                    : Arrays.stream(keys.split(String.valueOf(SqlDialect.BETWEEN)))
                            .sorted()
                            .map(known.figures()::get)
                            .filter(Objects::nonNull)
                            .mapToDouble(f -> f)
                            .toArray();
            numbers[g] = figures.length == 0 ? Double.NaN : Sums.of(figures);
        }
        return numbers;
    }

    private static Groups.Key key(GroupKey key, Asked asked, int at, List<Object[]> groups) {
        List<Object> values = groups.stream().map(row -> row[at]).toList();
        @SuppressWarnings("unchecked")
        Comparator<Object> order = (a, b) -> ((Comparable<Object>) a).compareTo(b);
        List<Object> sorted = values.stream()
                .filter(Objects::nonNull)
                .distinct()
                .sorted(order)
                .toList();
        Map<Object, Integer> ranks = new HashMap<>();
        for (int i = 0; i < sorted.size(); i++) ranks.put(sorted.get(i), i);
        ColumnType type = asked.writer.type(key.column());
        String[] texts = new String[values.size()];
        int[] places = new int[values.size()];
        for (int g = 0; g < texts.length; g++) {
            Object value = values.get(g);
            texts[g] = value == null ? null : text(key, type, value);
            places[g] = value == null ? sorted.size() : ranks.get(value);
        }
        return new Groups.Key(texts, places, sorted.size() + 1);
    }

    private static String text(GroupKey key, ColumnType type, Object value) {
        if (key instanceof GroupKey.Step step) return step.step().text((Long) value);
        if (key instanceof GroupKey.Classes) return value.toString();
        return text(type, value);
    }

    /** A value in its canonical text form. */
    static String text(ColumnType type, Object value) {
        return switch (type) {
            case DATE -> LocalDate.ofEpochDay((Long) value).toString();
            case TIME ->
                LocalDateTime.ofEpochSecond((Long) value, 0, ZoneOffset.UTC).toString();
            default -> value.toString();
        };
    }

    static Out out(ColumnType type) {
        return switch (type) {
            case TEXT, YES_NO -> Out.TEXT;
            case DECIMAL -> Out.DECIMAL;
            default -> Out.WHOLE;
        };
    }

    // --- rows ------------------------------------------------------------------------------------------

    @Override
    public RowPage rows(Table table, RowQuery query) {
        StayingRows rows = StayingRows.of(table).orElseThrow();
        List<Stage> stages = resolved(query.stages());
        SqlWriter writer = new SqlWriter(rows, table);
        List<String> selected = selected(writer, query.columns());
        List<String> where = new ArrayList<>(writer.only());
        where.addAll(writer.conditions(stages));
        String found = query.find().isEmpty() ? null : holding(writer, query);
        if (found != null) where.add(found);
        List<String> order = new ArrayList<>();
        for (RowQuery.By by : query.order()) {
            String value = writer.number(by.column(), writer.type(by.column()));
            boolean text = writer.type(by.column()) == ColumnType.TEXT;
            order.add((text ? writer.dialect().lower(value) : value) + (by.down() ? " DESC" : " ASC") + " NULLS LAST");
        }
        // Rows have no order of their own there: equal ones stand by all that is shown of them.
        for (int c = 1; c <= selected.size(); c++) order.add(c + " ASC NULLS LAST");
        String sql = "SELECT " + String.join(", ", selected) + writer.from() + where(where) + " ORDER BY "
                + String.join(", ", order)
                + (query.from() > 0 ? " OFFSET " + query.from() : "")
                + " LIMIT " + query.count();
        SqlStatement page = new SqlStatement(sql, outs(writer, query.columns()), Math.max(1, query.count()));
        List<List<Stage>> firsts = new ArrayList<>();
        for (int s = 0; s <= stages.size(); s++) firsts.add(stages.subList(0, s));
        List<SqlStatement> all = new ArrayList<>(List.of(page));
        for (List<Stage> first : firsts) all.add(count(rows, table, first, null));
        if (found != null) all.add(count(rows, table, stages, query));
        List<SqlRows> answers = rows.runner().ask(all);
        Map<List<Stage>, Long> counts = new HashMap<>();
        for (int f = 0; f < firsts.size(); f++)
            counts.put(firsts.get(f), (Long) answers.get(f + 1).rows().get(0)[0]);
        List<RowTrail.Step> steps = trail(stages, counts, rows, answers.get(0).at());
        long left = counts.get(stages);
        if (found != null) {
            left = (Long) answers.get(answers.size() - 1).rows().get(0)[0];
            steps.add(new RowTrail.Step(phrase("Holding “{0}”", query.find()), left, RowTrail.Unit.ROWS));
        }
        List<String[]> cells = cells(answers.get(0), writer, query.columns());
        return new RowPage(
                IntStream.range(0, cells.size()).mapToObj(i -> query.from() + i).toList(),
                cells,
                (int) Math.min(Integer.MAX_VALUE, left),
                new RowTrail(steps));
    }

    private static SqlStatement count(StayingRows rows, Table table, List<Stage> stages, RowQuery holding) {
        SqlWriter writer = new SqlWriter(rows, table);
        List<String> where = new ArrayList<>(writer.only());
        where.addAll(writer.conditions(stages));
        if (holding != null) where.add(holding(writer, holding));
        return new SqlStatement("SELECT COUNT(*)" + writer.from() + where(where), List.of(Out.WHOLE), 1);
    }

    private static String holding(SqlWriter writer, RowQuery query) {
        String wanted = writer.dialect().text(query.find().toLowerCase(Locale.ROOT));
        List<String> any = new ArrayList<>();
        for (String column : query.columns()) {
            ColumnType type = writer.type(column);
            String text = writer.written(column, type);
            any.add("STRPOS(" + (type == ColumnType.TEXT ? writer.dialect().lower(text) : text) + ", " + wanted
                    + ") > 0");
        }
        return "(" + String.join(" OR ", any) + ")";
    }

    private static List<String> selected(SqlWriter writer, List<String> columns) {
        return columns.stream().map(c -> writer.number(c, writer.type(c))).toList();
    }

    private static List<Out> outs(SqlWriter writer, List<String> columns) {
        return columns.stream().map(c -> out(writer.type(c))).toList();
    }

    private static List<String[]> cells(SqlRows answer, SqlWriter writer, List<String> columns) {
        ColumnType[] types = columns.stream().map(writer::type).toArray(ColumnType[]::new);
        return answer.rows().stream()
                .map(row -> {
                    String[] cells = new String[types.length];
                    for (int c = 0; c < cells.length; c++) cells[c] = row[c] == null ? null : text(types[c], row[c]);
                    return cells;
                })
                .toList();
    }

    @Override
    public Taken taken(Table table, List<Stage> given, List<String> columns, int most) {
        StayingRows rows = StayingRows.of(table).orElseThrow();
        List<Stage> stages = resolved(given);
        SqlWriter writer = new SqlWriter(rows, table);
        List<String> selected = selected(writer, columns);
        List<String> where = new ArrayList<>(writer.only());
        where.addAll(writer.conditions(stages));
        SqlStatement wanted = new SqlStatement(
                "SELECT " + String.join(", ", selected) + writer.from() + where(where) + " LIMIT " + (most + 1),
                outs(writer, columns),
                most + 1);
        SqlRows answer = rows.runner().ask(wanted);
        if (answer.rows().size() > most)
            return new Taken(null, (Long)
                    rows.runner().ask(count(rows, table, stages, null)).rows().get(0)[0]);
        List<String[]> cells = cells(answer, writer, columns);
        Map<String, Column> taken = new LinkedHashMap<>();
        for (int c = 0; c < columns.size(); c++) {
            int at = c;
            taken.put(
                    columns.get(c),
                    Column.of(
                            writer.type(columns.get(c)),
                            Arrays.asList(cells.stream().map(row -> row[at]).toArray(String[]::new))));
        }
        return new Taken(new Table(taken), cells.size());
    }
}
