package sarnik.table;

/**
 * What came of reading a CSV file.
 *
 * @param table the rows
 * @param form how the file was written
 * @param troubles cells and rows that could not be taken as they stood
 */
public record CsvReading(Table table, CsvForm form, Troubles troubles) {}
