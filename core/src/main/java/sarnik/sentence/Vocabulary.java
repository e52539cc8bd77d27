package sarnik.sentence;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;

/** What is found out about a dataset's words while one sentence is read, each once. */
final class Vocabulary {

    private final LoadedDataset dataset;
    private final Map<String, Telling.Meaning> meanings = new HashMap<>();
    private final Map<String, List<String>> keys = new HashMap<>();

    private Optional<String> time;

    Vocabulary(LoadedDataset dataset) {
        this.dataset = dataset;
    }

    LoadedDataset dataset() {
        return dataset;
    }

    /** What the numbers of a column are likely to be. */
    Telling.Meaning meaning(String column) {
        return meanings.computeIfAbsent(column, name -> Telling.meaning(dataset, name));
    }

    /** The column that says when, where there is one. */
    Optional<String> time() {
        if (time == null) time = Telling.time(dataset);
        return time;
    }

    /** The keys of a text's words. */
    List<String> keys(String text) {
        return keys.computeIfAbsent(text, Word::keys);
    }
}
