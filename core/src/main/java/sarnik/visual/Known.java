package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;

/**
 * Which of some values there are.
 *
 * @param values those there are
 * @param where "Refills does not have in town", for a sentence about the others
 */
public record Known(List<String> values, String where) {

    /** Those that a row of the source has; all where that cannot be asked just now, none where the dataset has gone. */
    public static Known of(Optional<Source> source, List<String> values, Datasets datasets) {
        if (source.isEmpty()) return new Known(List.of(), "");
        Datasets.Found found = datasets.find(source.get().dataset());
        // What cannot be asked just now is not known to be a stranger.
        if (found instanceof Datasets.Found.Unfit) return new Known(values, "");
        if (!(found instanceof Datasets.Found.Ready ready)) return new Known(List.of(), null);
        LoadedDataset dataset = ready.dataset();
        Set<String> known = dataset.having(source.get().column(), values);
        return new Known(
                values.stream().filter(known::contains).toList(),
                phrase(
                        "{0} does not have in {1}",
                        dataset.name(), ColumnWords.of(source.get().column())));
    }
}
