package sarnik.compiled;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.GroupKey;
import sarnik.query.Having;
import sarnik.query.InMemoryEngine;
import sarnik.query.Measure;
import sarnik.query.Over;
import sarnik.query.Query;
import sarnik.query.Rank;
import sarnik.query.RowPage;
import sarnik.query.RowQuery;
import sarnik.query.RowTrail;
import sarnik.query.Segments;
import sarnik.query.Sort;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.scale.Classes;
import sarnik.scale.ColourScale;
import sarnik.scale.NumberWords;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.TimeColumn;
import sarnik.table.WholeColumn;

/**
 * Asks the core generated questions and writes the answers, numbers bit by bit. It runs as Java and, compiled, as
 * JavaScript; both have to write the same.
 */
public final class SameCore {

    private static final int ROWS = 3000;
    private static final int QUERIES = 400;
    private static final List<String> TOWNS = List.of("Soria", "Ávila", "Zamora", "Łódź", "", "東京", "b", "B");

    private final Numbers numbers = new Numbers(20260526);
    private final InMemoryEngine engine = new InMemoryEngine(Segments.PLAIN);

    private SameCore() {}

    public static void main(String[] arguments) {
        SameCore same = new SameCore();
        Table table = same.table();
        for (int q = 0; q < QUERIES; q++) same.answer(table, q);
        for (int q = 0; q < QUERIES / 4; q++) same.rows(table, q);
        same.scales();
        new SameDrawings(table, same.engine, same.numbers::below).draw(same::stages);
        new SamePage(table, same.engine, same.numbers::below).draw();
    }

    /** Numbers by chance that are the same wherever they are drawn: a linear congruential generator of 48 bits. */
    private static final class Numbers {
        private long seed;

        Numbers(long seed) {
            this.seed = seed;
        }

        int below(int bound) {
            seed = (seed * 0x5DEECE66DL + 0xBL) & ((1L << 48) - 1);
            return (int) ((seed >>> 17) % bound);
        }

        boolean chance(int of) {
            return below(of) == 0;
        }

        <T> T one(List<T> of) {
            return of.get(below(of.size()));
        }
    }

    static void say(String line) {
        System.out.println(line);
    }

    private Table table() {
        int[] towns = new int[ROWS];
        int[] open = new int[ROWS];
        long[] pieces = new long[ROWS];
        double[] litres = new double[ROWS];
        int[] days = new int[ROWS];
        long[] times = new long[ROWS];
        for (int row = 0; row < ROWS; row++) {
            towns[row] = numbers.chance(9) ? -1 : numbers.below(TOWNS.size());
            open[row] = numbers.chance(5) ? -1 : numbers.below(2);
            pieces[row] = numbers.chance(7) ? WholeColumn.MISSING : numbers.below(40) - 20;
            litres[row] = numbers.chance(6) ? Double.NaN : (numbers.below(2_000_000) - 1_000_000) / 777.0;
            days[row] = numbers.chance(8) ? DateColumn.MISSING : 20_000 + numbers.below(800);
            times[row] = numbers.chance(8) ? WholeColumn.MISSING : 1_750_000_000L + numbers.below(40_000_000);
        }
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("town", new CodedColumn(ColumnType.TEXT, Codes.of(towns, ROWS, TOWNS.size()), TOWNS));
        columns.put("open", new CodedColumn(ColumnType.YES_NO, Codes.of(open, ROWS, 2), CodedColumn.NO_YES));
        columns.put("pieces", new WholeColumn(pieces));
        columns.put("litres", new DecimalColumn(litres));
        columns.put("day", new DateColumn(days));
        columns.put("at", new TimeColumn(times));
        return new Table(columns);
    }

    private Condition condition() {
        return switch (numbers.below(9)) {
            case 0 -> new Condition.OneOf("town", TOWNS.subList(0, numbers.below(4)));
            case 1 -> new Condition.NoneOf("town", TOWNS.subList(0, numbers.below(4)));
            case 2 -> new Condition.Between("litres", numbers.chance(2) ? null : "-250.5", "900");
            case 3 -> new Condition.Between("day", "2025-01-01", numbers.chance(2) ? null : "2025-12-31");
            case 4 -> new Condition.Between("at", "2025-09-09T10:00", null);
            case 5 -> new Condition.InGroups(new GroupKey.Step("day", TimeStep.WEEKDAY, null), List.of("1", "6"));
            case 6 -> new Condition.Contains("town", numbers.one(List.of("o", "A", "京")));
            case 7 -> new Condition.Missing(numbers.one(List.of("town", "litres", "at")));
            default -> new Condition.Filled(numbers.one(List.of("open", "pieces", "day")));
        };
    }

    private List<Stage> stages() {
        List<Stage> stages = new ArrayList<>();
        for (int s = numbers.below(3); s > 0; s--) {
            Condition condition = condition();
            stages.add(new Stage(condition.toString(), List.of(condition)));
        }
        return stages;
    }

    private GroupKey key() {
        return switch (numbers.below(6)) {
            case 0 ->
                new GroupKey.Step("day", numbers.one(List.of(TimeStep.MONTH, TimeStep.WEEK, TimeStep.QUARTER)), null);
            case 1 -> new GroupKey.Step("at", numbers.one(List.of(TimeStep.HOUR_OF_DAY, TimeStep.DAY)), null);
            case 2 -> new GroupKey.Classes("litres", List.of(-500.0, 0.0, 333.3));
            case 3 -> new GroupKey.Of("open");
            default -> new GroupKey.Of("town");
        };
    }

    private Measure measure() {
        Measure plain = switch (numbers.below(9)) {
            case 0 -> new Measure(Summary.SUM, "litres");
            case 1 -> new Measure(Summary.AVERAGE, "litres");
            case 2 -> new Measure(Summary.MEDIAN, "litres");
            case 3 -> new Measure(Summary.PERCENTILE, "pieces", 90.0, null);
            case 4 -> new Measure(Summary.MINIMUM, "litres");
            case 5 -> new Measure(Summary.MAXIMUM, "pieces");
            case 6 -> new Measure(Summary.DISTINCT, "day");
            case 7 -> new Measure(Summary.COUNT, "town");
            default -> Measure.ROWS;
        };
        if (!numbers.chance(3)) return plain;
        Over.Kind kind = numbers.one(List.of(Over.Kind.values()));
        return plain.over(new Over(kind, kind == Over.Kind.MOVING ? 3 : null, null));
    }

    private void answer(Table table, int number) {
        List<GroupKey> keys = new ArrayList<>();
        for (int k = numbers.below(3); k > 0; k--) {
            GroupKey key = key();
            if (!keys.contains(key)) keys.add(key);
        }
        List<Measure> measures = new ArrayList<>(List.of(measure()));
        if (numbers.chance(2)) measures.add(measure());
        Query query = Query.by(stages(), keys, measures);
        if (!keys.isEmpty() && numbers.chance(3)) query = query.filled();
        if (numbers.chance(5)) query = query.having(new Having(0, 1.0, true, null, false, false, "more than one"));
        if (!keys.isEmpty() && numbers.chance(4))
            query = query.ranked(new Rank(0, numbers.one(List.of(Rank.End.values())), 3, numbers.chance(2)));
        if (numbers.chance(4)) query = query.sorted(new Sort(0, numbers.chance(2)), 5);
        Frame frame = engine.answer(table, query);
        say("query " + number + " of " + measures);
        trail(frame.trail());
        for (int g = 0; g < frame.size(); g++) {
            StringBuilder line = new StringBuilder();
            for (String[] key : frame.keys()) line.append(key[g]).append('|');
            for (double[] values : frame.values())
                line.append(Long.toHexString(Double.doubleToLongBits(values[g])))
                        .append('|');
            say(line.toString());
        }
    }

    private static void trail(RowTrail trail) {
        for (RowTrail.Step step : trail.steps()) say(step.words() + ": " + step.left());
    }

    private void rows(Table table, int number) {
        List<RowQuery.By> order = new ArrayList<>();
        for (int o = numbers.below(3); o > 0; o--)
            order.add(new RowQuery.By(numbers.one(table.names()), numbers.chance(2)));
        RowPage page = engine.rows(
                table,
                new RowQuery(
                        stages(),
                        List.of("town", "litres", "at"),
                        order,
                        numbers.chance(3) ? "a" : "",
                        numbers.below(30),
                        8));
        say("rows " + number + " of " + page.all());
        trail(page.trail());
        for (int r = 0; r < page.size(); r++)
            say(page.rows().get(r) + "|" + page.cell(r, 0) + "|" + page.cell(r, 1) + "|" + page.cell(r, 2));
    }

    private void scales() {
        for (int n = 0; n < 60; n++) {
            double[] values = new double[5 + numbers.below(300)];
            for (int i = 0; i < values.length; i++) values[i] = numbers.below(1_000_000) / 333.0 - 500;
            Classes.Method method = numbers.one(List.of(Classes.Method.values()));
            if (method == Classes.Method.GEOMETRIC) continue;
            ColourScale scale = ColourScale.of(
                    new ColourScale.Choice(
                            numbers.chance(4),
                            method,
                            2 + numbers.below(6),
                            "loch",
                            numbers.chance(2),
                            null,
                            null,
                            null,
                            null),
                    values);
            StringBuilder line = new StringBuilder("scale " + method);
            for (double b : scale.classes().breaks())
                line.append('|').append(Long.toHexString(Double.doubleToLongBits(b)));
            line.append('|').append(scale.colours()).append('|').append(scale.classOf(values[0]));
            say(line.toString());
            say(NumberWords.full(values[0]) + " " + NumberWords.brief(values[1] * 1000) + " " + values[2]);
        }
    }
}
