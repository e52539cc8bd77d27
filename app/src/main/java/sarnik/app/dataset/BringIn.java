package sarnik.app.dataset;

import java.nio.file.Path;
import java.time.Instant;
import java.util.Locale;
import java.util.Map;
import sarnik.place.Placing;
import sarnik.table.ColumnType;
import sarnik.table.CsvReading;

/**
 * A file on its way in: chosen, looked at, not yet kept.
 *
 * @param id unguessable
 * @param person whose it is
 * @param file where it waits
 * @param fileName what it was called
 * @param reading what came of reading it
 * @param types types that the person has set
 * @param guess how its rows might be placed; null when nothing fits
 * @param at when it was chosen
 * @param refreshes the dataset whose newer rows it holds; null for a new dataset
 */
record BringIn(
        String id,
        long person,
        Path file,
        String fileName,
        CsvReading reading,
        Map<String, ColumnType> types,
        Placing guess,
        Instant at,
        Long refreshes) {

    /** The file's name without its ending, as a name for the dataset. */
    String name() {
        String name = fileName.replaceFirst("\\.[A-Za-z0-9]{1,5}$", "").replace('_', ' ').replace('-', ' ').strip();
        return name.isEmpty() ? "Table" : name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
    }

    BringIn reread(CsvReading reading, Map<String, ColumnType> types, Placing guess) {
        return new BringIn(id, person, file, fileName, reading, types, guess, at, refreshes);
    }
}
