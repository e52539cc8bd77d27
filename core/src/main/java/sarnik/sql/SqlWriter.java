package sarnik.sql;

import static sarnik.language.Language.phrase;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import sarnik.formula.Formula;
import sarnik.formula.FormulaException;
import sarnik.formula.Kind;
import sarnik.formula.MeasureFormula;
import sarnik.formula.SqlDialect;
import sarnik.formula.SqlScope;
import sarnik.formula.Surroundings;
import sarnik.query.Condition;
import sarnik.query.GroupKey;
import sarnik.query.Measure;
import sarnik.query.NumberText;
import sarnik.query.PushedPart;
import sarnik.query.QueryException;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Table;

/**
 * Writes one statement: what it asks for is written first, and then what it is asked of, with those columns only that
 * were named meanwhile. What is found out here of the words that say where rows are (places, areas, provinces) travels
 * along as a list.
 */
final class SqlWriter {

    /** Up to so many words a condition about places is written as one about the words. */
    private static final int FEW_WORDS = 2000;

    private static final String MISSING = "";
    private static final Long NO_WHOLE = Long.MIN_VALUE;
    private static final double NO_NUMBER = -Double.MAX_VALUE;

    private final StayingRows rows;
    private final Table table;
    private final SqlDialect dialect;
    /** Columns that are named, and whether as the database has them. */
    private final Set<String> needed = new LinkedHashSet<>();

    private final Set<String> plain = new LinkedHashSet<>();
    /** Columns of what was found out here, by the block of words that they belong to. */
    private final Map<Integer, Set<String>> mapped = new LinkedHashMap<>();

    private final List<Condition.Newest> newest = new ArrayList<>();
    private final List<String> numbers;

    SqlWriter(StayingRows rows, Table table) {
        this.rows = rows;
        this.table = table;
        this.dialect = rows.dialect();
        this.numbers = rows.columns().stream().map(SourceColumn::name).toList();
    }

    SqlDialect dialect() {
        return dialect;
    }

    ColumnType type(String column) {
        return table.find(column)
                .orElseThrow(() -> new QueryException(phrase("There is no column “{0}” any more", column)))
                .type();
    }

    // --- columns ---------------------------------------------------------------------------------------

    /** A column's value; decimal numbers as they are computed with. */
    String value(String column) {
        String exact = exact(column);
        SourceColumn source = rows.source(column);
        return source != null && source.type() == ColumnType.DECIMAL && source.held() != SourceColumn.Held.FLOAT
                ? dialect.cast(exact, Kind.DECIMAL)
                : exact;
    }

    /** A column's value as it is summed up. */
    String exact(String column) {
        type(column);
        if (rows.source(column) != null) {
            needed.add(column);
            return "r." + at(column);
        }
        StayingRows.Worked worked = rows.worked(column);
        if (worked != null) return formula(worked.formula(), worked.on());
        int block = block(column);
        if (block < 0) throw StayingRows.cannot(table, "“" + column + "”");
        Set<String> of = mapped.computeIfAbsent(block, b -> new LinkedHashSet<>());
        of.add(column);
        return "p" + block + ".v" + List.copyOf(of).indexOf(column);
    }

    /** A column as the database's indexes know it; null where its values are made of it first. */
    private String indexed(String column) {
        SourceColumn source = rows.source(column);
        if (source == null || source.plain(dialect) == null) return null;
        plain.add(column);
        return "r.x" + numbers.indexOf(column);
    }

    private String at(String column) {
        return "c" + numbers.indexOf(column);
    }

    /** The block of words from which a column was found out; -1 where it was not. */
    int block(String column) {
        if (!column.startsWith("@") || rows.worked(column) != null) return -1;
        int block = column.equals("@origin") || column.endsWith(" from") ? 1 : 0;
        return block < rows.face().blocks().size() ? block : -1;
    }

    /** A formula of single rows. */
    String formula(Formula formula, Surroundings on) {
        return formula.sql(rows.scope(this, on));
    }

    /** The condition under which it cannot be worked out; null for never. */
    String unworked(Formula formula, Surroundings on) {
        return formula.unworked(rows.scope(this, on));
    }

    /** The condition under which what it sums up cannot be worked out; null for never. */
    String unworked(MeasureFormula formula, Surroundings on) {
        return formula.unworked(rows.scope(this, on));
    }

    // --- keys ------------------------------------------------------------------------------------------

    /** A key as it is grouped by: texts, whole numbers for dates, steps and classes, or decimal numbers. */
    String key(GroupKey key) {
        ColumnType type = type(key.column());
        if (key instanceof GroupKey.Step step) return step(step, type);
        if (key instanceof GroupKey.Classes classes) {
            if (!type.isNumber())
                throw new QueryException(phrase("“{0}” holds {1}, which have no classes", key.column(), type.said()));
            String value = value(key.column());
            StringBuilder sql = new StringBuilder("(CASE WHEN " + value + " IS NULL THEN NULL");
            for (int b = 0; b < classes.breaks().size(); b++)
                sql.append(" WHEN ")
                        .append(value)
                        .append(" < ")
                        .append(dialect.literal(Kind.DECIMAL, classes.breaks().get(b)))
                        .append(" THEN ")
                        .append(b);
            return dialect.cast(
                    sql.append(" ELSE ")
                            .append(classes.breaks().size())
                            .append(" END)")
                            .toString(),
                    Kind.WHOLE);
        }
        return number(key.column(), type);
    }

    /** A column's value, dates as days and date-times as seconds since 1970-01-01, yes and no as words. */
    String number(String column, ColumnType type) {
        String value = value(column);
        return switch (type) {
            case DATE -> dialect.day(value);
            case TIME -> dialect.second(value);
            case YES_NO -> "(CASE WHEN " + value + " THEN 'yes' WHEN NOT " + value + " THEN 'no' END)";
            default -> value;
        };
    }

    /** A column's value as text, as it is searched. */
    String written(String column, ColumnType type) {
        String value = value(column);
        return switch (type) {
            case TEXT -> value;
            case YES_NO -> number(column, type);
            case WHOLE -> dialect.cast(value, Kind.TEXT);
            case DECIMAL -> {
                String written = dialect.written(value, Kind.DECIMAL);
                yield written == null ? dialect.cast(value, Kind.TEXT) : written;
            }
            case DATE -> dialect.written(value, Kind.DATE);
            case TIME -> dialect.written(value, Kind.TIME);
        };
    }

    private String step(GroupKey.Step key, ColumnType type) {
        TimeStep step = key.step();
        if (type == ColumnType.DATE && step.needsTime())
            throw new QueryException(phrase("“{0}” holds {1}, which have no hours", key.column(), type.said()));
        if (type != ColumnType.DATE && type != ColumnType.TIME)
            throw new QueryException(phrase("“{0}” holds {1}, which are no dates", key.column(), type.said()));
        String value = value(key.column());
        String time = type == ColumnType.DATE ? dialect.cast(value, Kind.TIME) : value;
        String day = value;
        if (type == ColumnType.TIME) {
            if (key.zone() != null) {
                if (key.zoneColumn() != null && table.find(key.zoneColumn()).isEmpty())
                    throw new QueryException(
                            phrase(
                                    "The clock of each place can be read only where rows have places, which those here have not"));
                time = dialect.inZone(
                        time, key.zoneColumn() == null ? dialect.text(key.zone()) : value(key.zoneColumn()));
            }
            day = dialect.cast(time, Kind.DATE);
        }
        String days = dialect.day(day);
        String year = dialect.part("YEAR", time);
        String month = dialect.part("MONTH", time);
        return switch (step) {
            case MINUTE ->
                "(%s * 1440 + %s * 60 + %s)".formatted(days, dialect.part("HOUR", time), dialect.part("MINUTE", time));
            case HOUR -> "(%s * 24 + %s)".formatted(days, dialect.part("HOUR", time));
            case DAY -> days;
            // Divided where nothing is below zero, since whole numbers are cut towards it.
            case WEEK -> "((%s + 3 + 7000000) / 7 - 1000000)".formatted(days);
            case MONTH -> "(%s * 12 + %s - 1)".formatted(year, month);
            case QUARTER -> "(%s * 4 + %s - 1)".formatted(year, dialect.part("QUARTER", time));
            case YEAR -> year;
            case HOUR_OF_DAY -> dialect.part("HOUR", time);
            case WEEKDAY -> "(" + dialect.part("ISODOW", time) + " - 1)";
            case MONTH_OF_YEAR -> "(" + month + " - 1)";
        };
    }

    // --- measures --------------------------------------------------------------------------------------

    /** A plain measure as decimal numbers. @param where which rows take part; null for all */
    SummedUp measure(Measure measure, String where) {
        String behind = SqlDialect.only(where);
        if (measure.column() == null) {
            if (measure.summary() != Summary.COUNT)
                throw new QueryException(
                        phrase("A {0} needs a column", measure.summary().said()));
            return SummedUp.of(dialect.cast("COUNT(*)" + behind, Kind.DECIMAL), SummedUp.Merge.ADDED);
        }
        ColumnType type = type(measure.column());
        if (measure.summary().needsNumber() && !type.isNumber())
            throw new QueryException(phrase(
                    "The {0} needs numbers, but “{1}” holds {2}",
                    measure.summary().said(), measure.column(), type.said()));
        String exact = exact(measure.column());
        return switch (measure.summary()) {
            case COUNT -> decimal("COUNT(" + exact + ")" + behind, SummedUp.Merge.ADDED);
            case DISTINCT -> decimal("COUNT(DISTINCT " + exact + ")" + behind, SummedUp.Merge.NONE);
            case SUM -> decimal("SUM(" + exact + ")" + behind, SummedUp.Merge.ADDED);
            case AVERAGE ->
                new SummedUp(
                        List.of(
                                dialect.cast("SUM(" + exact + ")" + behind, Kind.DECIMAL),
                                dialect.cast("COUNT(" + exact + ")" + behind, Kind.DECIMAL)),
                        SummedUp.Merge.ADDED);
            case MINIMUM -> decimal("MIN(" + exact + ")" + behind, SummedUp.Merge.LEAST);
            case MAXIMUM -> decimal("MAX(" + exact + ")" + behind, SummedUp.Merge.GREATEST);
            case MEDIAN, PERCENTILE ->
                decimal("(" + dialect.percentile(measure.fraction(), exact, where) + ")", SummedUp.Merge.NONE);
            case FORMULA -> throw new IllegalStateException("A formula is summed up by its parts");
        };
    }

    private SummedUp decimal(String sum, SummedUp.Merge merge) {
        return SummedUp.of(dialect.cast(sum, Kind.DECIMAL), merge);
    }

    /** A part of a formula: decimal numbers, or the different keys of figures that are known. */
    SummedUp part(PushedPart part) {
        List<String> conditions = conditions(part.only());
        String where = conditions.isEmpty() ? null : String.join(" AND ", conditions);
        if (part.of() instanceof PushedPart.Of.Plain plain) return measure(plain.measure(), where);
        if (part.of() instanceof PushedPart.Of.Squares squares) {
            String value = value(squares.column());
            return decimal("SUM(" + value + " * " + value + ")" + SqlDialect.only(where), SummedUp.Merge.ADDED);
        }
        if (part.of() instanceof PushedPart.Of.Variance variance)
            return decimal(
                    "VAR_SAMP(" + dialect.cast(value(variance.column()), Kind.DECIMAL) + ")" + SqlDialect.only(where),
                    SummedUp.Merge.NONE);
        if (part.of() instanceof PushedPart.Of.Known known)
            return SummedUp.of(dialect.gathered(text(known.known().column())), SummedUp.Merge.NONE);
        PushedPart.Of.Written written = (PushedPart.Of.Written) part.of();
        try {
            return written(written.summed(), rows.scope(this, written.on()), where);
        } catch (FormulaException lacks) {
            throw new QueryException(lacks.getMessage());
        }
    }

    private static SummedUp written(MeasureFormula.Summed summed, SqlScope scope, String where) {
        if (!summed.isSummedUp()) return SummedUp.of(summed.sql(scope, where), SummedUp.Merge.NONE);
        return switch (summed.function()) {
            case "AVG" ->
                new SummedUp(
                        summed.divided().stream()
                                .map(one -> one.sql(scope, where))
                                .toList(),
                        SummedUp.Merge.ADDED);
            case "MIN" -> SummedUp.of(summed.sql(scope, where), SummedUp.Merge.LEAST);
            case "MAX" -> SummedUp.of(summed.sql(scope, where), SummedUp.Merge.GREATEST);
            default -> SummedUp.of(summed.sql(scope, where), SummedUp.Merge.ADDED);
        };
    }

    private String text(String column) {
        ColumnType type = type(column);
        if (type != ColumnType.TEXT) throw StayingRows.cannot(table, phrase("What is known for each “{0}”", column));
        return value(column);
    }

    // --- conditions ------------------------------------------------------------------------------------

    /** All conditions of stages. */
    List<String> conditions(List<Stage> stages) {
        List<String> all = new ArrayList<>();
        for (Stage stage : stages) for (Condition condition : stage.conditions()) all.add(condition(condition));
        return all;
    }

    /** Whether a row meets a condition, as SQL; a missing value meets none but that it is missing. */
    String condition(Condition condition) {
        if (condition instanceof Condition.Holds || condition instanceof Condition.Among)
            throw new IllegalStateException("A condition that was worked out elsewhere is not of the database");
        if (condition instanceof Condition.Meets meets)
            return meets.ways().isEmpty()
                    ? "FALSE"
                    : meets.ways().stream()
                            .map(way -> formula(meets.formula(), way))
                            .collect(Collectors.joining(" OR ", "(", ")"));
        if (condition instanceof Condition.Not not)
            return "(NOT COALESCE(" + condition(not.of()) + ", FALSE) AND " + filled(not.of()) + ")";
        if (condition instanceof Condition.Newest one) return newest(one);
        String column = condition.column();
        ColumnType type = type(column);
        if (condition instanceof Condition.Missing) return value(column) + " IS NULL";
        if (condition instanceof Condition.Filled) return value(column) + " IS NOT NULL";
        if (condition instanceof Condition.InGroups in) return inGroups(in);
        if (condition instanceof Condition.Contains contains) return contains(column, type, contains.text());
        if (condition instanceof Condition.OneOf of) return oneOf(column, type, of.values());
        if (condition instanceof Condition.NoneOf of) {
            String values = values(type, of.values());
            return value(column) + (values.isEmpty() ? " IS NOT NULL" : " NOT IN (" + values + ")");
        }
        return between((Condition.Between) condition, type);
    }

    private String filled(Condition condition) {
        return condition instanceof Condition.Meets ? "TRUE" : value(condition.column()) + " IS NOT NULL";
    }

    /** Without those that no row can hold. */
    private String values(ColumnType type, List<String> values) {
        if (type == ColumnType.WHOLE)
            return LongStream.of(NumberText.wholes(values))
                    .mapToObj(v -> dialect.literal(Kind.WHOLE, v))
                    .collect(Collectors.joining(", "));
        return values.stream().map(v -> literal(type, v)).collect(Collectors.joining(", "));
    }

    private String oneOf(String column, ColumnType type, List<String> values) {
        if (values.isEmpty()) return "FALSE";
        String words = words(column, values);
        if (words != null) return words;
        String literals = values(type, values);
        return literals.isEmpty() ? "FALSE" : value(column) + " IN (" + literals + ")";
    }

    /**
     * A condition about places as one about the words that say them, of which an index may know; null where they are
     * many.
     */
    private String words(String column, List<String> values) {
        int number = block(column);
        if (number < 0 || !(table.column(column) instanceof CodedColumn coded)) return null;
        Face.Block block = rows.face().blocks().get(number);
        if (block.columns().size() != 1 || type(block.columns().get(0)) != ColumnType.TEXT) return null;
        Set<String> wanted = Set.copyOf(values);
        Set<String> words = new TreeSet<>();
        Column said = table.column(block.columns().get(0));
        for (int row = block.from(); row < block.from() + block.counts().size(); row++) {
            String value = coded.text(row);
            if (value == null || !wanted.contains(value)) continue;
            if (said.isMissing(row) || words.size() == FEW_WORDS) return null;
            words.add(said.text(row));
        }
        return words.isEmpty()
                ? "FALSE"
                : value(block.columns().get(0)) + " IN (" + values(ColumnType.TEXT, List.copyOf(words)) + ")";
    }

    private String contains(String column, ColumnType type, String text) {
        if (type != ColumnType.TEXT && type != ColumnType.YES_NO)
            throw new QueryException(phrase("“{0}” holds {1}, in which no words are looked for", column, type.said()));
        String wanted = text.toLowerCase(Locale.ROOT);
        CodedColumn coded = (CodedColumn) table.column(column);
        // Which words hold it is known here, unless there are more words than are listed.
        if (!rows.face().open().contains(column) && coded.dictionary().size() <= FEW_WORDS)
            return oneOf(
                    column,
                    type,
                    coded.dictionary().stream()
                            .filter(word -> word.toLowerCase(Locale.ROOT).contains(wanted))
                            .toList());
        return "STRPOS(" + dialect.lower(value(column)) + ", " + dialect.text(wanted) + ") > 0";
    }

    private String inGroups(Condition.InGroups in) {
        if (in.groups().isEmpty()) return "FALSE";
        GroupKey key = in.key();
        if (key instanceof GroupKey.Of) return oneOf(key.column(), type(key.column()), in.groups());
        List<String> numbers = new ArrayList<>();
        for (String group : in.groups()) {
            try {
                numbers.add(String.valueOf(
                        key instanceof GroupKey.Step step ? step.step().number(group) : Long.parseLong(group)));
            } catch (RuntimeException none) {
                // No row lies in a group that there is not.
            }
        }
        return numbers.isEmpty() ? "FALSE" : key(key) + " IN (" + String.join(", ", numbers) + ")";
    }

    private String between(Condition.Between between, ColumnType type) {
        String column = between.column();
        if (type == ColumnType.TEXT || type == ColumnType.YES_NO)
            throw new QueryException(phrase("“{0}” holds text, which has no range", column));
        String value = value(column);
        List<String> parts = new ArrayList<>();
        if (type == ColumnType.TIME) {
            String indexed = indexed(column);
            if (indexed != null) value = indexed;
            boolean moment = indexed != null && rows.source(column).held() == SourceColumn.Held.MOMENT;
            if (between.from() != null) parts.add(value + " >= " + bound(second(between.from(), false), moment));
            if (between.to() != null) parts.add(value + " < " + bound(second(between.to(), true) + 1, moment));
        } else {
            if (between.from() != null) parts.add(value + " >= " + from(type, between.from()));
            if (between.to() != null) parts.add(value + " <= " + upTo(type, between.to()));
        }
        return parts.isEmpty() ? value + " IS NOT NULL" : String.join(" AND ", parts);
    }

    private String from(ColumnType type, String bound) {
        return type == ColumnType.WHOLE
                ? dialect.literal(Kind.WHOLE, NumberText.wholeFrom(bound))
                : literal(type, bound);
    }

    private String upTo(ColumnType type, String bound) {
        return type == ColumnType.WHOLE
                ? dialect.literal(Kind.WHOLE, NumberText.wholeUpTo(bound))
                : literal(type, bound);
    }

    private String bound(long second, boolean moment) {
        String time = dialect.literal(Kind.TIME, second);
        return moment ? dialect.moment(time) : time;
    }

    private String newest(Condition.Newest one) {
        int at = newest.indexOf(one);
        if (at < 0) {
            at = newest.size();
            newest.add(one);
        }
        List<String> parts = new ArrayList<>();
        parts.add(value(one.column()) + " = n" + at + ".newest");
        if (one.by() != null) parts.add(value(one.by()) + " = n" + at + ".own");
        parts.addAll(conditions(one.before()));
        return "(" + String.join(" AND ", parts) + ")";
    }

    private String literal(ColumnType type, String value) {
        return switch (type) {
            case WHOLE, DECIMAL -> dialect.literal(Kind.DECIMAL, NumberText.number(value));
            case DATE -> dialect.literal(Kind.DATE, (int) day(value));
            case TIME -> dialect.literal(Kind.TIME, second(value, false));
            case YES_NO -> value.equals("yes") ? "TRUE" : value.equals("no") ? "FALSE" : "NULL";
            case TEXT -> dialect.text(value);
        };
    }

    private static long day(String text) {
        try {
            return LocalDate.parse(text.length() > 10 ? text.substring(0, 10) : text)
                    .toEpochDay();
        } catch (DateTimeException unreadable) {
            throw new QueryException(phrase("“{0}” is not a date such as 2026-05-31", text));
        }
    }

    private static long second(String text, boolean endOfDay) {
        if (text.length() <= 10) return day(text) * 86_400 + (endOfDay ? 86_399 : 0);
        try {
            return LocalDateTime.parse(text).toEpochSecond(ZoneOffset.UTC);
        } catch (DateTimeException unreadable) {
            throw new QueryException(phrase("“{0}” is not a time such as 2026-05-31T12:30", text));
        }
    }

    // --- statements ------------------------------------------------------------------------------------

    /** What a row has to meet to be there at all, as SQL. */
    List<String> only() {
        return rows.only().stream().map(this::condition).toList();
    }

    /** What everything that was written is asked of; written last. */
    String from() {
        // Newest ones are asked of the same rows, with other columns.
        StringBuilder joins = new StringBuilder();
        for (int n = 0; n < newest.size(); n++) joins.append(joined(newest.get(n), n));
        StringBuilder places = new StringBuilder();
        mapped.forEach((block, names) -> places.append(joined(block, List.copyOf(names))));
        List<String> selected = new ArrayList<>();
        for (String column : needed) selected.add(rows.source(column).exact(dialect) + " AS " + at(column));
        for (String column : plain)
            selected.add(rows.source(column).plain(dialect) + " AS x" + numbers.indexOf(column));
        if (selected.isEmpty()) selected.add("1 AS one");
        return " FROM (SELECT " + String.join(", ", selected) + " FROM " + rows.relation() + ") r" + places + joins;
    }

    private String joined(Condition.Newest one, int number) {
        SqlWriter inner = new SqlWriter(rows, table);
        String time = inner.value(one.column());
        String own = one.by() == null ? null : inner.value(one.by());
        List<String> conditions = new ArrayList<>(inner.only());
        conditions.addAll(inner.conditions(one.before()));
        String where = conditions.isEmpty() ? "" : " WHERE " + String.join(" AND ", conditions);
        return " LEFT JOIN (SELECT MAX(%s) AS newest%s%s%s%s) n%d ON %s"
                .formatted(
                        time,
                        own == null ? "" : ", " + own + " AS own",
                        inner.from(),
                        where,
                        own == null ? "" : " GROUP BY " + own,
                        number,
                        own == null ? "TRUE" : value(one.by()) + " = n" + number + ".own");
    }

    private static Object word(ColumnType type, String text) {
        return type == ColumnType.WHOLE
                ? (Object) Long.parseLong(text)
                : type == ColumnType.DECIMAL ? (Object) Double.parseDouble(text) : text;
    }

    /** What was found out of a block of words, joined to them. */
    private String joined(int number, List<String> names) {
        Face.Block block = rows.face().blocks().get(number);
        List<List<?>> lists = new ArrayList<>();
        List<String> titles = new ArrayList<>();
        List<String> on = new ArrayList<>();
        List<List<Object>> words = new ArrayList<>();
        for (int w = 0; w < block.columns().size(); w++) {
            String column = block.columns().get(w);
            ColumnType type = type(column);
            Object none =
                    type == ColumnType.WHOLE ? NO_WHOLE : type == ColumnType.DECIMAL ? (Object) NO_NUMBER : MISSING;
            List<Object> all = new ArrayList<>();
            Column said = table.column(column);
            for (int row = block.from(); row < block.from() + block.counts().size(); row++)
                all.add(said.isMissing(row) ? none : word(type, said.text(row)));
            words.add(all);
            titles.add("w" + w);
            String missing = type == ColumnType.WHOLE
                    ? dialect.literal(Kind.WHOLE, NO_WHOLE)
                    : type == ColumnType.DECIMAL ? dialect.literal(Kind.DECIMAL, NO_NUMBER) : dialect.text(MISSING);
            on.add("COALESCE(" + value(column) + ", " + missing + ") = p" + number + ".w" + w);
        }
        lists.addAll(words);
        for (int v = 0; v < names.size(); v++) {
            Column found = table.column(names.get(v));
            List<Object> all = new ArrayList<>();
            for (int row = block.from(); row < block.from() + block.counts().size(); row++)
                all.add(found.isMissing(row) ? MISSING : found.text(row));
            lists.add(all);
            titles.add("v" + v);
        }
        List<String> selected = new ArrayList<>();
        for (int w = 0; w < block.columns().size(); w++) selected.add("w" + w);
        for (int v = 0; v < names.size(); v++) selected.add("NULLIF(v" + v + ", '') AS v" + v);
        return " LEFT JOIN (SELECT " + String.join(", ", selected) + " FROM " + dialect.rows(lists, titles) + ") p"
                + number + " ON " + String.join(" AND ", on);
    }
}
