package sarnik.engines;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;
import sarnik.formula.Formula;
import sarnik.formula.MeasureFormula;
import sarnik.formula.Scope;
import sarnik.formula.Surroundings;
import sarnik.query.Condition;
import sarnik.query.FormulaMeasure;
import sarnik.query.GroupKey;
import sarnik.query.Having;
import sarnik.query.Measure;
import sarnik.query.Over;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/** Tables and queries by chance, the same for every engine. */
final class Generated {

    static final LocalDate TODAY = LocalDate.of(2026, 5, 31);

    /** What is grouped by and summed up, in the order of the columns of a table. */
    static final List<String> NAMES = List.of("town", "open", "pieces", "litres", "day", "at");

    private static final List<String> TEXTS = List.of("Soria", "soria", "Ávila", "a'b", "\\x", "zz\"z", "日本", "ñandú");

    private static final List<String> PLACES = List.of("p1", "p2", "p3");

    /** Measure formulas that every engine works out. */
    static final List<String> EVERYWHERE = List.of(
            "SUM(pieces) / COUNT(litres)",
            "AVG(litres) FILTER (WHERE open) - MIN(litres)",
            "COUNT(DISTINCT day)",
            "SUM(DISTINCT pieces)",
            "STDDEV_SAMP(litres)",
            "VAR_SAMP(pieces) FILTER (WHERE litres > 0)",
            "PERCENTILE_CONT(0.25) WITHIN GROUP (ORDER BY litres)",
            "PERCENTILE_DISC(0.9) WITHIN GROUP (ORDER BY pieces)",
            "COALESCE(MAX(pieces), 0) + COUNT(litres) FILTER (WHERE day IS NULL)",
            "CASE WHEN COUNT(*) > 5 THEN AVG(pieces * litres) END",
            "COUNT(DISTINCT pieces) * 100.0 / COUNT(*)",
            "AVG(DISTINCT litres)",
            "COUNT(DISTINCT open) FILTER (WHERE town = 'Soria')",
            "SUM(CASE WHEN open THEN 1 ELSE 0 END)",
            "SUM(pieces / NULLIF(pieces - 1, 0))",
            "SUM(litres / pieces)",
            "SUM(MOD(pieces, 3)) FILTER (WHERE at >= '2025-10-10' AND day <> DATE '2024-10-08')",
            "AVG(ROUND(litres)) + SUM(ROUND(litres * 1.5, 1))",
            "SUM(SQRT(litres)) + SUM(LN(litres)) + SUM(POWER(litres, 2))",
            "COUNT(*) FILTER (WHERE UPPER(town) LIKE 'S_R%' OR town ILIKE '%ñ%')",
            "COUNT(*) FILTER (WHERE CHAR_LENGTH(town) BETWEEN 2 AND 4 AND POSITION('a' IN town) > 0)",
            "SUM(EXTRACT(DOW FROM day)) + SUM(EXTRACT(WEEK FROM at)) + SUM(EXTRACT(HOUR FROM at)) + SUM(EXTRACT(DOY "
                    + "FROM day))",
            "MAX(DATE_TRUNC('month', day)) - MIN(day)",
            "SUM(day - DATE '2024-10-01') + COUNT(DISTINCT day + 7)",
            "SUM(EXTRACT(EPOCH FROM at - TIMESTAMP '2025-10-09 00:00:00'))",
            "MAX(GREATEST(pieces, litres, 1)) + MIN(LEAST(pieces, 2))",
            "SUM(CAST(litres AS INTEGER)) + SUM(CAST(CAST(pieces AS VARCHAR) AS DOUBLE PRECISION))",
            "COUNT(*) FILTER (WHERE open IS NOT TRUE) + COUNT(*) FILTER (WHERE (pieces > 1) IS UNKNOWN)",
            "COUNT(*) FILTER (WHERE town IS DISTINCT FROM 'Soria' AND NOT (pieces IN (1, 2, NULL)))",
            "COUNT(*) FILTER (WHERE CASE town WHEN 'soria' THEN TRUE WHEN 'zz\"z' THEN open END)",
            "SUM(WIDTH_BUCKET(litres, -4, 4, 8)) + SUM(ABS(pieces)) + SUM(FLOOR(litres)) + SUM(CEIL(litres)) + "
                    + "SUM(SIGN(litres))",
            "COUNT(*) FILTER (WHERE town < 'b' OR town || 'x' = 'Soriax' OR REPLACE(town, 'o', '0') = 's0ria')",
            "SUM(COALESCE(litres / pieces, 7)) + COUNT(*) FILTER (WHERE (litres / pieces) IS NULL)",
            "SUM(CASE WHEN litres / pieces > 1 THEN 1 ELSE 0 END) + SUM(GREATEST(SQRT(litres), 0.5))",
            "COUNT(*) FILTER (WHERE litres / pieces > 1 OR open) + COUNT(*) FILTER (WHERE open OR litres / pieces > 1)",
            "COUNT(*) FILTER (WHERE NOT (LN(litres) > 0 AND open)) + COUNT(*) FILTER (WHERE litres IN (1 / pieces, 0.5))",
            "COUNT(*) FILTER (WHERE pieces NOT BETWEEN 4 / pieces AND 2 OR litres IS DISTINCT FROM SQRT(litres))",
            "SUM(COALESCE(NULL / pieces, 3)) + SUM(COALESCE(CAST(NULL AS INTEGER), CAST(NULL AS DECIMAL(3,1)), pieces))",
            "SUM(NULLIF(pieces, MOD(3, pieces))) + COUNT(CASE pieces WHEN 2 / pieces THEN town ELSE 'x' END)",
            "SUM(COALESCE(CAST(town AS INTEGER), CAST(litres * 1e30 AS BIGINT), 3)) + SUM(EXP(litres * 1000))",
            "SUM(COALESCE(CAST(litres AS DECIMAL(2,1)), 5)) + SUM(COALESCE(CAST(litres * 20 AS DECIMAL(2,1)), 5))",
            "COUNT(*) FILTER (WHERE COALESCE(CAST('2025-02-' || CAST(30 + pieces AS VARCHAR) AS DATE), day) >= day)",
            "COUNT(*) FILTER (WHERE at + INTERVAL '36 hours' > TIMESTAMP '2025-10-12 00:00:00' AND TRIM(town) <> 'x')");

    /** Measure formulas that PostgreSQL works out besides. */
    static final List<String> IN_POSTGRES = List.of(
            "MODE() WITHIN GROUP (ORDER BY pieces)",
            "CORR(litres, pieces)",
            "REGR_SLOPE(pieces, litres) FILTER (WHERE open)",
            "REGR_INTERCEPT(litres, pieces)",
            "REGR_R2(litres, pieces * 2)",
            "COUNT(*) FILTER (WHERE LEFT(town, 2) = 'So' OR town ~ '^z+' OR CONCAT(town, pieces) = 'Soria1')",
            "COUNT(*) FILTER (WHERE SPLIT_PART(town, 'o', 2) = 'ria' OR CAST(litres AS VARCHAR) = '0.5' OR "
                    + "SUBSTRING(town FROM 0 FOR 3) = 'So')",
            "COUNT(*) FILTER (WHERE TO_CHAR(at, 'YYYY-MM-DD HH24') = '2025-10-11 03' OR TO_CHAR(day, 'D') = '1')",
            "COUNT(*) FILTER (WHERE COALESCE(SPLIT_PART(town, 'o', pieces), 'x') = 'x' OR LEFT(town, pieces * 1000000000) = '')",
            "COUNT(*) FILTER (WHERE CONCAT(town, 1 / pieces) = 'Soria' OR SUBSTRING(town FROM 1 FOR pieces) IS NULL)",
            "SUM(CAST(LPAD(CAST(pieces AS VARCHAR), 2, '0') AS INTEGER)) FILTER (WHERE pieces >= 0)");

    /** Measure formulas over all groups. */
    static final List<String> WINDOWS = List.of(
            "SUM(litres) / NULLIF(SUM(SUM(litres)) OVER (), 0)",
            "RANK() OVER (ORDER BY SUM(pieces) DESC)",
            "SUM(pieces) - LAG(SUM(pieces), 2) OVER (PARTITION BY open ORDER BY day)",
            "AVG(SUM(pieces)) OVER (ORDER BY day ROWS 3 PRECEDING)");

    /** Columns that are worked out of others. */
    static final Map<String, String> WORKED = Map.of(
            "most", "COALESCE(litres / pieces, 9)",
            "size", "CASE WHEN litres > 2 THEN 'large' WHEN litres > 0 THEN 'small' END",
            "later", "day + pieces",
            "each", "litres / pieces",
            "both", "open AND pieces > 0");

    private Generated() {}

    /** A table with places that its towns stand for, and what is worked out of its columns. */
    static Table table(Random random, int rows) {
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("town", coded(random, rows, TEXTS, ColumnType.TEXT));
        columns.put("open", coded(random, rows, CodedColumn.NO_YES, ColumnType.YES_NO));
        columns.put(
                "pieces",
                new WholeColumn(IntStream.range(0, rows)
                        .mapToLong(i -> random.nextInt(6) == 0 ? WholeColumn.MISSING : random.nextInt(9) - 4)
                        .toArray()));
        columns.put(
                "litres",
                new DecimalColumn(IntStream.range(0, rows)
                        .mapToDouble(i -> random.nextInt(6) == 0 ? Double.NaN : (random.nextInt(81) - 40) / 8.0)
                        .toArray()));
        columns.put(
                "day",
                new DateColumn(IntStream.range(0, rows)
                        .map(i -> random.nextInt(6) == 0 ? DateColumn.MISSING : 20_000 + random.nextInt(20))
                        .toArray()));
        columns.put(
                "at",
                new TimeColumn(IntStream.range(0, rows)
                        .mapToLong(i ->
                                random.nextInt(6) == 0 ? TimeColumn.MISSING : 1_760_000_000L + random.nextInt(400_000))
                        .toArray()));
        return new Table(columns);
    }

    /** The same, with a row in thirty far from the others. */
    static Table withOutliers(Random random, int rows) {
        Table table = table(random, rows);
        WholeColumn pieces = (WholeColumn) table.column("pieces");
        DecimalColumn litres = (DecimalColumn) table.column("litres");
        return table.with(Map.of(
                "pieces",
                new WholeColumn(IntStream.range(0, rows)
                        .mapToLong(i -> i % 30 != 7 || pieces.isMissing(i) ? pieces.get(i) : 1_000 + i % 60)
                        .toArray()),
                "litres",
                new DecimalColumn(IntStream.range(0, rows)
                        .mapToDouble(i -> i % 30 == 11 ? -90.25 - i % 4 : litres.get(i))
                        .toArray())));
    }

    /** The same with a place for each town, and what is worked out. */
    static Table grown(Table table) {
        Table all = table.with(Map.of("@place", places((CodedColumn) table.column("town")), "@zone", zones((CodedColumn)
                table.column("town"))));
        for (Map.Entry<String, String> one : WORKED.entrySet())
            all = all.with(Map.of(
                    one.getKey(),
                    formula(one.getValue(), all).compute(all, on()).column()));
        return all;
    }

    static Surroundings on() {
        return Surroundings.on(TODAY);
    }

    static Formula formula(String text, Table table) {
        return Formula.parse(text, Scope.of(table));
    }

    /** A place for most towns. */
    static CodedColumn places(CodedColumn towns) {
        return said(towns, town -> town.equals("a'b") ? -1 : Math.floorMod(town.hashCode(), PLACES.size()), PLACES);
    }

    static CodedColumn zones(CodedColumn towns) {
        return said(
                towns,
                town -> town.equals("a'b") ? -1 : Math.floorMod(town.length(), 3),
                List.of("Europe/Madrid", "Atlantic/Canary", "Australia/Lord_Howe"));
    }

    private static CodedColumn said(
            CodedColumn towns, java.util.function.ToIntFunction<String> of, List<String> words) {
        int[] codes = IntStream.range(0, towns.size())
                .map(row -> towns.isMissing(row) ? -1 : of.applyAsInt(towns.text(row)))
                .toArray();
        return new CodedColumn(ColumnType.TEXT, Codes.of(codes, codes.length, words.size()), words);
    }

    private static Column coded(Random random, int rows, List<String> words, ColumnType type) {
        return new CodedColumn(
                type,
                Codes.of(
                        IntStream.range(0, rows)
                                .map(i -> random.nextInt(words.size() + 1) - 1)
                                .toArray(),
                        rows,
                        words.size()),
                words);
    }

    static Map<String, FormulaMeasure> measures(List<String> texts, Table table) {
        Map<String, FormulaMeasure> measures = new LinkedHashMap<>();
        for (String text : texts)
            measures.put(text, FormulaMeasure.of(MeasureFormula.parse(text, Scope.of(table)), table, on()));
        return measures;
    }

    static Query query(Random random, List<String> formulas) {
        List<Stage> stages = new ArrayList<>();
        for (int s = random.nextInt(3); s > 0; s--)
            stages.add(new Stage(
                    "stage " + s, List.of(condition(random), condition(random)).subList(0, 1 + random.nextInt(2))));
        List<GroupKey> groups = random.nextInt(4) == 0
                ? List.of()
                : random.nextInt(3) == 0
                        ? List.of(
                                key(random, NAMES.get(random.nextInt(3))),
                                key(random, NAMES.get(3 + random.nextInt(3))))
                        : List.of(
                                random.nextInt(3) == 0
                                        ? new GroupKey.Of(List.of("@place", "@zone", "size", "later", "both")
                                                .get(random.nextInt(5)))
                                        : key(random, NAMES.get(random.nextInt(6))));
        List<Measure> measures = new ArrayList<>();
        for (int m = 1 + random.nextInt(4); m > 0; m--) measures.add(measure(random, formulas));
        // What is rounded in two ways may order nearly equal values differently.
        boolean rounded = measures.stream()
                .anyMatch(m -> m.over() != null || m.summary() == Summary.FORMULA || "each".equals(m.column()));
        Optional<Rank> rank = !rounded && random.nextInt(3) == 0 && !groups.isEmpty()
                ? Optional.of(
                        new Rank(0, Rank.End.values()[random.nextInt(3)], 1 + random.nextInt(5), random.nextBoolean()))
                : Optional.empty();
        Sort sort = rounded || random.nextBoolean()
                ? Sort.BY_KEY
                : new Sort(random.nextInt(measures.size()), random.nextBoolean());
        return new Query(
                stages,
                groups,
                Query.Missing.values()[random.nextInt(2)],
                measures,
                rounded || groups.isEmpty() || random.nextInt(3) > 0
                        ? List.of()
                        : List.of(new Having(0, 1.0, random.nextBoolean(), 30.0, random.nextBoolean(), false, "some")),
                rank,
                sort,
                random.nextInt(4) == 0 ? 3 : Integer.MAX_VALUE,
                Map.of());
    }

    private static GroupKey key(Random random, String name) {
        if (random.nextBoolean()) return new GroupKey.Of(name);
        TimeStep step = TimeStep.values()[random.nextInt(TimeStep.values().length)];
        return switch (name) {
            case "day" -> step.needsTime() ? new GroupKey.Of(name) : new GroupKey.Step(name, step, null);
            case "at" ->
                new GroupKey.Step(
                        name,
                        step,
                        List.of("Europe/Madrid", "America/New_York", "Asia/Kathmandu", "UTC", "@zone")
                                .get(random.nextInt(5)));
            case "litres", "pieces" -> new GroupKey.Classes(name, List.of(-1.0, 0.5, 2.0));
            default -> new GroupKey.Of(name);
        };
    }

    private static Measure measure(Random random, List<String> formulas) {
        Measure plain = switch (random.nextInt(8)) {
            case 4 -> new Measure(Summary.MEDIAN, random.nextBoolean() ? "litres" : "pieces");
            case 5, 7 -> new Measure(Summary.FORMULA, formulas.get(random.nextInt(formulas.size())));
            case 6 -> new Measure(Summary.PERCENTILE, "litres", (double) random.nextInt(101), null);
            case 0 -> Measure.ROWS;
            case 1 ->
                new Measure(
                        Summary.DISTINCT, random.nextInt(4) == 0 ? "@place" : NAMES.get(random.nextInt(NAMES.size())));
            case 2 -> new Measure(Summary.COUNT, NAMES.get(random.nextInt(NAMES.size())));
            default ->
                new Measure(
                        List.of(Summary.SUM, Summary.AVERAGE, Summary.MINIMUM, Summary.MAXIMUM)
                                .get(random.nextInt(4)),
                        List.of("litres", "pieces", "each").get(random.nextInt(3)));
        };
        if (random.nextInt(5) > 0 || plain.summary() == Summary.FORMULA) return plain;
        Over.Kind kind = Over.Kind.values()[random.nextInt(5)];
        return plain.over(new Over(kind, random.nextBoolean() ? null : 1 + random.nextInt(4), random.nextBoolean()));
    }

    static Condition condition(Random random) {
        return switch (random.nextInt(20)) {
            case 0 -> new Condition.OneOf("town", TEXTS.subList(0, random.nextInt(5)));
            case 1 -> new Condition.OneOf("open", List.of("yes"));
            case 2 -> new Condition.OneOf("pieces", List.of("1", "-2", "2.5", "3e0"));
            case 3 ->
                new Condition.Between(
                        "litres", random.nextBoolean() ? null : "-2.5", random.nextBoolean() ? null : "3.125");
            case 4 -> new Condition.Between("day", "2024-10-05", random.nextBoolean() ? null : "2024-10-15");
            case 5 ->
                new Condition.Between(
                        "at",
                        "2025-10-09T10:00",
                        random.nextBoolean() ? null : random.nextBoolean() ? "2025-10-11" : "2025-10-12T00:00:00");
            case 6 -> new Condition.Between("pieces", random.nextBoolean() ? "-1" : "-1.5", "2.5");
            case 8 -> new Condition.NoneOf("town", TEXTS.subList(0, random.nextInt(5)));
            case 9 -> new Condition.NoneOf("pieces", random.nextBoolean() ? List.of("1", "1.5") : List.of("1.5"));
            case 10 -> new Condition.InGroups(new GroupKey.Step("day", TimeStep.WEEKDAY, null), List.of("1", "3", "7"));
            case 11 ->
                new Condition.InGroups(
                        new GroupKey.Step("at", TimeStep.HOUR_OF_DAY, "Europe/Madrid"), List.of("08", "14", "23"));
            case 12 ->
                new Condition.Missing(
                        List.of("town", "litres", "day", "open", "@place").get(random.nextInt(5)));
            case 13 ->
                new Condition.Contains("town", List.of("o", "A", "'", "ñ", "\\").get(random.nextInt(5)));
            case 14 -> new Condition.OneOf("@place", List.of("p1", "p3"));
            case 15 -> new Condition.NoneOf("@place", List.of("p2"));
            case 16 -> new Condition.Not(new Condition.OneOf("@place", List.of("p1")));
            case 17 -> new Condition.OneOf("size", List.of("large"));
            case 18 -> new Condition.OneOf("both", List.of("yes"));
            case 19 -> new Condition.Not(new Condition.Between("pieces", "0", "1"));
            default ->
                new Condition.Filled(List.of("town", "litres", "day", "@zone").get(random.nextInt(4)));
        };
    }
}
