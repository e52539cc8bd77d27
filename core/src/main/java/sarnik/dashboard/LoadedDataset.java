package sarnik.dashboard;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.query.Frame;
import sarnik.query.FormulaMeasure;
import sarnik.query.Query;
import sarnik.query.QueryEngine;
import sarnik.query.Stage;
import sarnik.table.CodedColumn;
import sarnik.table.Table;

/**
 * A dataset's newest version, ready to be asked.
 *
 * @param id the dataset
 * @param name what it is called
 * @param table its rows; with the columns of {@link PlacedTable} if it is placed
 * @param placing how it is placed; null if it is not
 * @param places the places that occur, by id
 * @param about what is told of it
 * @param measures its measure formulas by name
 * @param rules its standing rules, each a stage of every query
 * @param ties its columns that mean the same as columns of others
 */
public record LoadedDataset(long id, String name, Table table, Placing placing, Map<String, Place> places, About about, Map<String, FormulaMeasure> measures,
        List<Stage> rules, List<Tie> ties) {

    /** A dataset of which nothing is told. */
    public LoadedDataset(long id, String name, Table table, Placing placing, Map<String, Place> places) {
        this(id, name, table, placing, places, About.NONE, Map.of(), List.of(), List.of());
    }

    /** Answers a query, whose measures may name measure formulas of this dataset. */
    Frame answer(QueryEngine engine, Query query) {
        return engine.answer(table, query.with(measures));
    }

    /** Names of the columns that a visual can use: all but those that stand for rules. */
    List<String> columnNames() {
        return table.names().stream().filter(name -> !name.startsWith(Calculations.RULE)).toList();
    }

    public boolean isPlaced() {
        return placing != null;
    }

    /** What a value of a column is called: places by name, all else as it stands. */
    public String label(String column, String value) {
        boolean isPlace = column.equals(PlacedTable.PLACE) || column.equals(PlacedTable.ORIGIN);
        if (value == null) return isPlace ? "(unplaced)" : "(missing)";
        if (!isPlace) return value;
        return Optional.ofNullable(places.get(value)).map(Place::name).orElse(value);
    }

    /** Whether a row has this value in a column of text, yes/no or places; other columns are taken to have any. */
    boolean has(String column, String value) {
        if (column.equals(PlacedTable.PLACE)) return places.containsKey(value);
        return table.find(column).map(c -> !(c instanceof CodedColumn coded) || coded.dictionary().contains(value)).orElse(false);
    }
}
