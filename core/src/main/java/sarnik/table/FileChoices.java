package sarnik.table;

/**
 * How a file is to be read, where a person has corrected what was found by looking; null leaves it to looking.
 *
 * @param charset name of the encoding of a text file
 * @param delimiter the one character between cells of a text file
 * @param quote the one character around cells of a text file
 * @param headerRow the row that holds the names of the columns, the first is 1
 * @param headerRows over how many rows the names are written; 0 where there are none
 * @param sheet the sheet of a workbook, or the layer of a file that holds several
 * @param range the cells of a sheet, such as "B3:H200"
 * @param system the coordinate system of a file's shapes, a code of the EPSG dataset
 */
public record FileChoices(
        String charset,
        String delimiter,
        String quote,
        Integer headerRow,
        Integer headerRows,
        String sheet,
        String range,
        Integer system) {

    public static final FileChoices NONE = new FileChoices(null, null, null, null, null, null, null, null);

    /** Choices that say nothing of shapes. */
    public FileChoices(
            String charset,
            String delimiter,
            String quote,
            Integer headerRow,
            Integer headerRows,
            String sheet,
            String range) {
        this(charset, delimiter, quote, headerRow, headerRows, sheet, range, null);
    }

    /** These choices with another sheet; null for the first that fits. */
    public FileChoices withSheet(String other) {
        return new FileChoices(charset, delimiter, quote, headerRow, headerRows, other, range, system);
    }

    public FileChoices {
        if (delimiter != null && delimiter.length() != 1) delimiter = null;
        if (quote != null && quote.length() != 1) quote = null;
        if (headerRow != null && (headerRow < 1 || headerRow > 1000))
            throw new UnreadableTableException("The names of the columns can stand in row 1 to 1,000.");
        if (headerRows != null && (headerRows < 0 || headerRows > 5))
            throw new UnreadableTableException("The names of the columns can be written over 0 to 5 rows.");
    }
}
