package sarnik.table;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * What came of reading a file.
 *
 * @param table the rows as they would be kept; some of them, spread evenly, where they are too many to be held
 * @param parts all rows, which may be more than are held
 * @param troubles cells and rows that could not be taken as they stood
 * @param form how the file is written, for people
 * @param columns all columns of the file after turning, in their order, those that are left out too
 * @param source the name in the file of each kept column, by its name in the table
 * @param missingWords words found in columns of numbers or dates that usually mean "no value", with how often they
 *     occur
 * @param periods columns that could be turned into rows because they are named by periods; empty where there are fewer
 *     than three
 * @param ofYear the column, as the file names it, that says of which year those are; null where they say so themselves, or
 *     none does
 * @param said what was guessed of how columns are written, by their names in the table; those of which it goes without
 *     saying are not there
 * @param monthFirst whether dates have their month before their day; null where no column has either
 * @param sums rows that are sums of others
 * @param marks the marks in its numbers
 * @param rows rows and cells that may be meant in another way than they stand
 * @param units units beside the numbers of each column of numbers, by its name in the table; more than one cannot be
 *     added up. Of each column of times {@link #OFFSET} where times were turned into UTC
 * @param newerPeriods columns that have become rows though they were not there when it was said which do
 * @param gonePeriods columns that were to become rows and are not there
 * @param position the columns of the table with the longitudes and latitudes that the file's own shapes give; empty
 *     where it has none
 */
public record Reading(
        Table table,
        TableParts parts,
        Troubles troubles,
        String form,
        List<String> columns,
        Map<String, String> source,
        Map<String, Long> missingWords,
        List<String> periods,
        String ofYear,
        List<String> position,
        Map<String, Said> said,
        Boolean monthFirst,
        Sums sums,
        Marks marks,
        Rows rows,
        Map<String, List<String>> units,
        List<String> newerPeriods,
        List<String> gonePeriods) {

    /** Stands for the offset from UTC behind times. */
    public static final String OFFSET = "UTC";

    /** A hundredth and a thousandth: numbers with such a sign and without it are not of one size. */
    private static final Set<String> PARTS = Set.of("%", "‰");

    /** What is to be said of columns most of whose cells are not of their type any more, a sentence for each. */
    public List<String> mostlyUnread() {
        List<String> said = new ArrayList<>();
        for (String name : table.names()) {
            long unread = troubles.unread().getOrDefault(name, 0L);
            if (unread == 0) continue;
            Column column = table.column(name);
            double missing =
                    IntStream.range(0, table.rows()).filter(column::isMissing).count() / (double) table.rows();
            long read = parts.rows() - Math.round(missing * parts.rows());
            if (unread > read)
                said.add("In “%s” %,d of %,d cells are no %s any more and could not be read."
                        .formatted(name, unread, unread + read, column.type().words()));
        }
        return said;
    }

    /**
     * What is to be said of numbers that stand in other units than before, a sentence for each column.
     *
     * @param before the unit by the column's name; empty where there was none, not there where it is not known
     */
    public List<String> otherUnits(Map<String, String> before) {
        List<String> said = new ArrayList<>();
        units.forEach((column, now) -> {
            String was = before.get(column);
            if (now.size() > 1)
                said.add("“%s” has amounts in several units (%s), which cannot be added up."
                        .formatted(column, String.join(", ", now)));
            else if (now.contains(OFFSET) && "".equals(was))
                said.add("“%s” has offsets from UTC behind its times, and had none before.".formatted(column));
            else if (now.isEmpty() && OFFSET.equals(was))
                said.add("“%s” has no offset from UTC behind its times, as it had before.".formatted(column));
            else if (now.isEmpty() && was != null && PARTS.contains(was))
                said.add("“%s” has no %s beside its numbers, as it had before.".formatted(column, was));
            else if (!now.isEmpty()
                    && was != null
                    && !was.equals(now.get(0))
                    && (!was.isEmpty() || PARTS.contains(now.get(0))))
                said.add("“%s” is in %s, and was %s before."
                        .formatted(column, now.get(0), was.isEmpty() ? "without a unit" : "in " + was));
        });
        return said;
    }

    /**
     * Rows and cells that may be meant in another way than they stand in the file.
     *
     * @param names how many rows repeat the names of the columns
     * @param withNames whether those are kept
     * @param lone how many rows have one cell only, which is words
     * @param loneAre what becomes of those
     * @param examples what the first of them say
     * @param gaps columns that are filled at the head of groups only, as the file names them, with how many rows have no
     *     cell of their own
     * @param filledDown columns that are filled down, with how many cells were
     * @param merged columns with numbers in merged cells
     * @param hidden how many rows the sheet does not show
     * @param onlyShown whether those are left out
     * @param again how many rows are the same as one above in every cell, where that is likely to be a mistake or they
     *     are left out
     * @param eachOnce whether those are left out
     */
    public record Rows(
            long names,
            boolean withNames,
            long lone,
            Shaping.Lone loneAre,
            List<String> examples,
            Map<String, Long> gaps,
            Map<String, Long> filledDown,
            List<Merged> merged,
            long hidden,
            boolean onlyShown,
            long again,
            boolean eachOnce) {

        public Rows {
            examples = List.copyOf(examples);
            gaps = Collections.unmodifiableMap(gaps);
            filledDown = Collections.unmodifiableMap(filledDown);
            merged = List.copyOf(merged);
        }
    }

    /**
     * Numbers in cells that are merged over several rows.
     *
     * @param column as the file names it
     * @param example the first number, as it is written
     * @param over how many rows it stands over
     * @param once whether only the first of them holds it
     */
    public record Merged(String column, String example, int over, boolean once) {}

    /**
     * Rows that are sums of others.
     *
     * @param leftOut how many rows are totals and are left out
     * @param totals what the first of them say
     * @param likely how many rows are likely to be subtotals
     * @param without whether those are left out too
     * @param subtotals what the first of them say
     * @param within how many other rows have a cell that says that they are the total of a category
     * @param withoutWithin whether those are left out too
     * @param categories which cells of the first of them say so, each once
     * @param summingUp how many rows are likely to sum others up in another way
     * @param withoutSummingUp whether those are left out
     * @param statistics what the first of them say
     */
    public record Sums(
            long leftOut,
            List<String> totals,
            long likely,
            boolean without,
            List<String> subtotals,
            long within,
            boolean withoutWithin,
            List<OfACategory> categories,
            long summingUp,
            boolean withoutSummingUp,
            List<String> statistics) {
        public Sums {
            statistics = List.copyOf(statistics);
            totals = List.copyOf(totals);
            subtotals = List.copyOf(subtotals);
            categories = List.copyOf(categories);
        }
    }

    /**
     * A cell that says that its row is the total of a category.
     *
     * @param word what it says: "Total", "Both sexes"
     * @param column in which column
     */
    public record OfACategory(String word, String column) {}

    /**
     * Marks in numbers.
     *
     * @param decimal the mark before decimals, with which numbers are read that can be read either way; null where no
     *     number has a mark
     * @param columns where only a guess tells whether a mark stands before decimals or between thousands
     * @param example the first such number as it is written; null for none
     */
    public record Marks(Shaping.DecimalMark decimal, List<String> columns, String example) {
        public Marks {
            columns = List.copyOf(columns);
        }

        /** What is said of the guess; null where there is none. */
        public String words() {
            return example == null
                    ? null
                    : "Numbers such as “%s” in %s can be read either way. They are taken as %s."
                            .formatted(example, String.join(", ", columns), read(decimal));
        }

        /** The other way. */
        public Shaping.DecimalMark other() {
            return decimal == Shaping.DecimalMark.POINT ? Shaping.DecimalMark.COMMA : Shaping.DecimalMark.POINT;
        }

        /** The example with decimals after a point, if it has some, and nothing between thousands. */
        public String read(Shaping.DecimalMark mark) {
            char before = mark == Shaping.DecimalMark.COMMA ? ',' : '.';
            return example.indexOf(before) < 0 ? example.replaceAll("[.,]", "") : example.replace(before, '.');
        }
    }

    /**
     * How a column is written.
     *
     * @param words for people: "day first"
     * @param unit beside its numbers; empty where there is none
     * @param either whether its dates can be read with the day first and with the month first, and only a guess tells
     */
    public record Said(String words, String unit, boolean either) {}
}
