package sarnik.sentence;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.brief.Brief.Control;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;

/** What is found out about a dataset's words while one sentence is read, each once. */
final class Vocabulary {

    private final LoadedDataset dataset;
    private final Map<String, Telling.Meaning> meanings = new HashMap<>();
    private final Map<String, List<String>> keys = new HashMap<>();
    private final Map<String, String> leads = new HashMap<>();

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

    /** Whether a control chooses a measure or a column: what its visual is about, rather than how it looks. */
    boolean isTelling(Control control) {
        return !control.empty()
                && control.options().size() > 1
                && control.options().stream()
                        .allMatch(option -> Phrase.measure(option.value()).isPresent()
                                || option.value() instanceof String column
                                        && dataset.columnNames().contains(column));
    }

    /** The words that lead up to a control once something is chosen there, but for those that always stand there. */
    String lead(Draft draft, Control control) {
        return leads.computeIfAbsent(draft.visual().getClass() + control.path() + control.empty(), key -> {
            boolean open = control.empty() && !control.options().isEmpty();
            String lead = open
                    ? draft.with(control, control.options().get(0).value(), false)
                            .map(then -> then.lead(control))
                            .orElse("")
                    : draft.lead(control);
            return lead.substring(
                            1 + Math.max(lead.lastIndexOf(','), Math.max(lead.lastIndexOf(':'), lead.lastIndexOf('.'))))
                    .replace(" in " + dataset.name(), "")
                    .strip();
        });
    }
}
