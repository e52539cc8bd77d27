package sarnik.bench;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import sarnik.demo.DemoNetwork;
import sarnik.demo.Refills;
import sarnik.table.CodedColumn;
import sarnik.table.Codes;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.DateColumn;
import sarnik.table.DecimalColumn;
import sarnik.table.Table;
import sarnik.table.Wholes;

/** The refills of a large network, 12,000 kiosks in about 8,000 towns, with the town beside each row. */
record RefillTable(
        Table table,
        int[] towns,
        int[] kiosks,
        int[] products,
        int[] days,
        double[] litres,
        double[] takings,
        int[] states) {

    static final List<String> NAMES = List.of("town", "kiosk", "product", "day", "litres", "takings", "state");

    static RefillTable of(int rows) {
        DemoNetwork network = new DemoNetwork(DemoNetwork.SEED, 8000, 12_000);
        Refills refills = new Refills(network);
        Map<String, Integer> codeOf = new LinkedHashMap<>();
        int[] townOf = IntStream.range(0, refills.kiosks())
                .map(k -> {
                    codeOf.putIfAbsent(refills.town(k), codeOf.size());
                    return codeOf.get(refills.town(k));
                })
                .toArray();
        RefillTable made = new RefillTable(
                null,
                new int[rows],
                new int[rows],
                new int[rows],
                new int[rows],
                new double[rows],
                new double[rows],
                new int[rows]);
        int[] row = {0};
        refills.make(rows, (kiosk, day, product, litres, takings, state) -> {
            int r = row[0]++;
            made.towns[r] = townOf[kiosk];
            made.kiosks[r] = kiosk;
            made.products[r] = product;
            made.days[r] = day;
            made.litres[r] = litres;
            made.takings[r] = takings;
            made.states[r] = state;
        });
        List<String> kioskCodes = IntStream.range(0, refills.kiosks())
                .mapToObj("K%05d"::formatted)
                .toList();
        Map<String, Column> columns = new LinkedHashMap<>();
        columns.put("town", coded(made.towns, List.copyOf(codeOf.keySet())));
        columns.put("kiosk", coded(made.kiosks, kioskCodes));
        columns.put("product", coded(made.products, Refills.PRODUCTS));
        columns.put("day", new DateColumn(made.days));
        columns.put("litres", new DecimalColumn(made.litres).narrow());
        columns.put("takings", new DecimalColumn(made.takings).narrow());
        columns.put("state", coded(made.states, Refills.STATES));
        return new RefillTable(
                new Table(columns),
                made.towns,
                made.kiosks,
                made.products,
                made.days,
                made.litres,
                made.takings,
                made.states);
    }

    private static Column coded(int[] codes, List<String> words) {
        return new CodedColumn(ColumnType.TEXT, Codes.of(codes, codes.length, words.size()), words);
    }

    /**
     * Reads every touched column once on all cores: what memory alone allows. The sum keeps the reading from being
     * left out.
     */
    double readOnce(List<String> touched) {
        int segment = 1 << 18;
        return IntStream.range(0, (table.rows() + segment - 1) / segment)
                .parallel()
                .mapToDouble(s -> {
                    int from = s * segment;
                    int to = Math.min(from + segment, table.rows());
                    double sum = 0;
                    for (String name : touched) sum += read(table.column(name), from, to);
                    return sum;
                })
                .sum();
    }

    private static double read(Column column, int from, int to) {
        if (column instanceof DecimalColumn decimals) return read(decimals.steps(), from, to);
        if (column instanceof DateColumn dates) return read(dates.days(), from, to);
        Codes codes = ((CodedColumn) column).codes();
        if (codes instanceof Codes.Bytes bytes) return read(new Wholes.Bytes(bytes.values()), from, to);
        if (codes instanceof Codes.Shorts shorts) return read(new Wholes.Shorts(shorts.values()), from, to);
        return read(new Wholes.Ints(((Codes.Ints) codes).values()), from, to);
    }

    private static double read(Wholes column, int from, int to) {
        int total = 0;
        if (column instanceof Wholes.Bytes bytes) {
            byte[] values = bytes.values();
            for (int i = from; i < to; i++) total += values[i];
        } else if (column instanceof Wholes.Shorts shorts) {
            short[] values = shorts.values();
            for (int i = from; i < to; i++) total += values[i];
        } else {
            int[] values = ((Wholes.Ints) column).values();
            for (int i = from; i < to; i++) total += values[i];
        }
        return total;
    }
}
