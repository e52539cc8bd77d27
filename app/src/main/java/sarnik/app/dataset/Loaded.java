package sarnik.app.dataset;

import java.util.List;
import sarnik.data.Calculations;
import sarnik.data.LoadedDataset;
import sarnik.place.PlacedTable;
import sarnik.table.Table;

/**
 * A version in memory, with all that was found when it was placed.
 *
 * @param placed null where rows have no place
 * @param columns names of the columns that were brought in; the table has those of placing and formulas besides
 * @param troubles what does not work of the dataset's formulas and rules
 * @param unfit why its rows cannot be placed as the dataset says, a sentence; null where they can
 */
public record Loaded(
        LoadedDataset dataset,
        PlacedTable placed,
        List<String> columns,
        List<Calculations.Trouble> troubles,
        String unfit) {

    /** The columns that were brought in, without those that placing and formulas add. */
    Table own() {
        return dataset.table().only(columns);
    }

    /** The columns that people see: those that were brought in and those that are calculated. */
    Table shown() {
        Table table = dataset.table();
        return table.only(table.names().stream().filter(n -> !n.startsWith("@")).toList());
    }

    /** What it takes in memory, with its places and with room for what is put together of them when it is asked for. */
    long bytes() {
        long table = dataset.table().bytes();
        return placed == null ? table : table + placed.bytes();
    }

    /** The same rows under what is said about them now. */
    Loaded described(Description now) {
        return new Loaded(dataset.described(now.name(), now.about(), now.ties()), placed, columns, troubles, unfit);
    }
}
