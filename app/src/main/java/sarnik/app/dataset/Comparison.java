package sarnik.app.dataset;

import java.util.List;
import sarnik.table.TableDiff;

/**
 * Newer rows of a dataset beside those it serves.
 *
 * @param against the version they were compared with
 * @param before how many rows it has
 * @param below how many of the newer rows are not there yet
 * @param placing what placing finds of the newer rows; null where they have no place, or cannot be placed
 * @param rules the dataset's standing rules that would not work with the newer rows
 * @param units what is to be said of numbers that stand in other units than before
 * @param unfit why they cannot be placed, a sentence; null where they can
 */
record Comparison(
        long against,
        long before,
        long below,
        TableDiff diff,
        PlacingPreview placing,
        List<String> rules,
        List<String> units,
        String unfit) {}
