package sarnik.data;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Measure;
import sarnik.query.Summary;
import sarnik.table.CodedColumn;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.Extremes;
import sarnik.table.WholeColumn;

/** Which columns of a dataset are likely to tell something. */
public final class Telling {

    private static final int MOST_CATEGORY_VALUES = 20_000;

    /** Last words of names of numbers that name something instead of measuring it. */
    private static final Set<String> NAMES = Set.of(
            "id",
            "code",
            "number",
            "no",
            "nr",
            "num",
            "key",
            "year",
            "quarter",
            "month",
            "week",
            "weekday",
            "day",
            "hour",
            "minute",
            "lat",
            "lon",
            "lng",
            "latitude",
            "longitude",
            "easting",
            "northing",
            "phone",
            "tel",
            "telephone",
            "fax",
            "postcode",
            "zip",
            "plz",
            "cp",
            "uuid",
            "cod",
            "codigo",
            "código",
            "año",
            "mes",
            "jahr",
            "monat",
            "année",
            "mois");

    /**
     * Words of names of numbers that say how much there is of something for each of something else, or how it stands.
     */
    private static final Set<String> RATES = Set.of(
            "per",
            "rate",
            "ratio",
            "share",
            "percent",
            "pct",
            "percentage",
            "mean",
            "average",
            "avg",
            "median",
            "temperature",
            "temp",
            "price",
            "index",
            "score",
            "rating",
            "age",
            "density",
            "concentration",
            "level",
            "ph",
            "speed",
            "pressure",
            "humidity",
            "intensity",
            "probability",
            "battery",
            "charge",
            "voltage",
            "volt",
            "volts",
            "signal",
            "altitude",
            "elevation",
            "height",
            "depth",
            "rank",
            "grade",
            "stars",
            "mark",
            "latency",
            "moisture",
            "noise",
            "decibel",
            "db",
            "salinity",
            "turbidity",
            "wind",
            "gust",
            "uv",
            "ozone",
            "pm1",
            "pm10",
            "pm2",
            "pm25",
            "no2",
            "o3",
            "co2",
            "so2",
            "nox",
            "bpm",
            "pulse",
            "bmi",
            "tasa",
            "taxa",
            "taux",
            "anteil",
            "precio",
            "preço",
            "preco",
            "prix",
            "preis",
            "porcentaje",
            "porcentagem",
            "percentagem",
            "pourcentage",
            "prozent",
            "promedio",
            "moyenne",
            "durchschnitt",
            "mittelwert",
            "mediana",
            "médiane",
            "temperatura",
            "température",
            "temperatur",
            "edad",
            "idade",
            "âge",
            "alter",
            "densidad",
            "densidade",
            "densité",
            "dichte",
            "índice",
            "indice",
            "nivel",
            "nível",
            "niveau",
            "velocidad",
            "velocidade",
            "vitesse",
            "geschwindigkeit",
            "presión",
            "presion",
            "pressão",
            "pressao",
            "pression",
            "druck",
            "humedad",
            "umidade",
            "humidade",
            "humidité",
            "feuchte",
            "feuchtigkeit",
            "luftfeuchte",
            "luftfeuchtigkeit",
            "batería",
            "bateria",
            "batterie",
            "tensión",
            "tensão",
            "spannung",
            "ruido",
            "ruído",
            "bruit",
            "salinidad",
            "salinidade",
            "turbidez",
            "turbidité",
            "trübung");

    /** Words that say that something was added up, whatever it is called besides: a total price is no price. */
    private static final Set<String> ADDED = Set.of(
            "total",
            "totals",
            "subtotal",
            "sum",
            "amount",
            "importe",
            "suma",
            "soma",
            "somme",
            "montant",
            "betrag",
            "summe",
            "gesamt");

    /** From so many rows on a run of whole numbers without a repetition is taken for names of the rows. */
    private static final int LEAST_FOR_NAMES = 20;

    private static final int FIRST_YEAR = 1900;
    private static final int LAST_YEAR = 2100;

    private Telling() {}

    /** What can be made of the numbers of a column. */
    public enum Meaning {
        /** They are amounts: their sum is one. */
        AMOUNT("adds up, is summed"),
        /** They are rates or states, whose sum means nothing: their average is taken. */
        RATE("a rate or state, is averaged"),
        /** They name something, or say when or where: they measure nothing. */
        NAME("a name, is not measured");

        private final String words;

        Meaning(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /**
     * What the numbers of a column are: as its people say, or else as is likely by its name, its unit, how the rows are
     * placed, and the values.
     *
     * @param column name of a column of numbers
     */
    public static Meaning meaning(LoadedDataset dataset, String column) {
        return dataset.about().meaning(column).orElseGet(() -> likely(dataset, column));
    }

    /** What they are likely to be, whatever people say. */
    public static Meaning likely(LoadedDataset dataset, String column) {
        List<String> words = words(column);
        String unit = dataset.about().unit(column).toLowerCase(Locale.ROOT);
        boolean rate =
                words.stream().anyMatch(RATES::contains) && words.stream().noneMatch(ADDED::contains)
                        || column.indexOf('%') >= 0
                        || unit.indexOf('%') >= 0
                        || unit.indexOf('/') >= 0
                        || unit.indexOf('°') >= 0;
        if (rate) return Meaning.RATE;
        if (!words.isEmpty() && NAMES.contains(words.get(words.size() - 1))) return Meaning.NAME;
        if (dataset.placing() instanceof Placing.ByCoordinates by
                && (column.equals(by.lat()) || column.equals(by.lon()))) return Meaning.NAME;
        return dataset.table().column(column) instanceof WholeColumn whole && (areYears(whole) || areNames(whole))
                ? Meaning.NAME
                : Meaning.AMOUNT;
    }

    /** The words of a name: "litresPerHead" and "litres_per_head" have three. */
    private static List<String> words(String name) {
        List<String> words = new ArrayList<>();
        StringBuilder word = new StringBuilder();
        char before = ' ';
        for (char c : name.toCharArray()) {
            boolean apart = !Character.isLetterOrDigit(c);
            boolean begins = Character.isUpperCase(c) && Character.isLowerCase(before);
            if ((apart || begins) && word.length() > 0) {
                words.add(word.toString().toLowerCase(Locale.ROOT));
                word.setLength(0);
            }
            if (!apart) word.append(c);
            before = c;
        }
        if (word.length() > 0) words.add(word.toString().toLowerCase(Locale.ROOT));
        return words;
    }

    private static boolean areYears(WholeColumn column) {
        Optional<Extremes> ends = column.extremes();
        if (ends.isEmpty()) return false;
        long low = column.get(ends.get().lowest());
        long high = column.get(ends.get().highest());
        return low >= FIRST_YEAR && high <= LAST_YEAR && column.size() > 2 * (high - low + 1);
    }

    /** Whether each row has a number of its own, in a run with few gaps. */
    private static boolean areNames(WholeColumn column) {
        if (column.size() < LEAST_FOR_NAMES || !column.isComplete()) return false;
        Extremes ends = column.extremes().orElseThrow();
        long low = column.get(ends.lowest());
        long range = column.get(ends.highest()) - low;
        if (range < 0 || range > 2L * column.size()) return false;
        BitSet seen = new BitSet((int) range + 1);
        for (int row = 0; row < column.size(); row++) {
            int at = (int) (column.get(row) - low);
            if (seen.get(at)) return false;
            seen.set(at);
        }
        return true;
    }

    /** Measure formulas, then sums of amounts, decimals first, then averages of rates. */
    public static List<Measure> measures(LoadedDataset dataset) {
        Stream<Measure> formulas = dataset.measures().keySet().stream().map(name -> new Measure(Summary.FORMULA, name));
        return Stream.concat(
                        formulas,
                        amounts(dataset).stream()
                                .map(name -> new Measure(
                                        meaning(dataset, name) == Meaning.RATE ? Summary.AVERAGE : Summary.SUM, name)))
                .toList();
    }

    /** The first measure that adds up, or the number of rows: what ranks and parts of a whole are best shown by. */
    public static Measure amount(LoadedDataset dataset) {
        return measures(dataset).stream().filter(Telling::addsUp).findFirst().orElse(Measure.ROWS);
    }

    /** Whether a measure adds up, so that sizes and parts of a whole may stand for it. */
    public static boolean addsUp(Measure measure) {
        return measure.over() == null && (measure.summary() == Summary.SUM || measure.summary() == Summary.COUNT);
    }

    /** Number columns that measure something: amounts, decimals first, then rates. */
    public static List<String> amounts(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> dataset.table().column(name).type().isNumber())
                .filter(name -> meaning(dataset, name) != Meaning.NAME)
                .sorted(Comparator.comparingInt((String name) -> meaning(dataset, name) == Meaning.AMOUNT ? 0 : 1)
                        .thenComparingInt(name -> dataset.table().column(name).type() == ColumnType.DECIMAL ? 0 : 1))
                .toList();
    }

    /** The number columns of this meaning, in their order. */
    public static List<String> numbers(LoadedDataset dataset, Meaning meaning) {
        return dataset.columnNames().stream()
                .filter(name -> dataset.table().column(name).type().isNumber())
                .filter(name -> meaning(dataset, name) == meaning)
                .toList();
    }

    /** Columns whose values make good bars: few distinct values first, places ahead. */
    public static List<String> categories(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> dataset.table().column(name) instanceof CodedColumn c
                        && c.dictionary().size() > 1
                        && c.dictionary().size() <= MOST_CATEGORY_VALUES
                        && !name.equals(PlacedTable.COUNTRY)
                        && !name.equals(PlacedTable.ZONE))
                .sorted(Comparator.comparingInt((String name) -> name.startsWith("@") ? 0 : 1)
                        .thenComparingInt(name -> distinct(dataset, name)))
                .toList();
    }

    /** How many distinct values a column of text has; more than can be counted for others and for one that has gone. */
    public static int distinct(LoadedDataset dataset, String column) {
        return dataset.table().find(column).orElse(null) instanceof CodedColumn c
                ? c.dictionary().size()
                : Integer.MAX_VALUE;
    }

    /** The first column of dates or date-times. */
    public static Optional<String> time(LoadedDataset dataset) {
        return dataset.columnNames().stream()
                .filter(name -> isTime(dataset.table().column(name)))
                .findFirst();
    }

    private static boolean isTime(Column column) {
        return column.type() == ColumnType.DATE || column.type() == ColumnType.TIME;
    }
}
