package sarnik.visual;

import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.PlaceSheet;
import sarnik.data.Rule;
import sarnik.query.GroupKey;
import sarnik.query.Stage;
import sarnik.state.ReaderState;

/** What a visual is planned in: its rows, narrowed in the fixed order, and what the reader has set. */
public interface Scene {

    /** Id of the visual. */
    String id();

    /** @throws sarnik.data.MisfitException when it has gone or is unfit */
    LoadedDataset dataset(long id);

    Datasets datasets();

    /**
     * The stages of what is shown: standing rules of the dataset, filters, links, the visual's own rule.
     *
     * @param rule the visual's own; null for none
     */
    List<Stage> shown(LoadedDataset dataset, Rule rule);

    /** The stages of the whole, on which scales and held ranks rest: the same before links. */
    List<Stage> whole(LoadedDataset dataset, Rule rule);

    /**
     * The stages of what scales rest on: of the whole, unless the reader has turned them to what is shown, or to all
     * rows.
     */
    default List<Stage> scaled(LoadedDataset dataset, Rule rule) {
        return whole(dataset, rule);
    }

    /**
     * The steps of which one at a time is shown just now: what is held is held over all of them. Empty where nothing is
     * played, or all up to a moment is shown.
     */
    default Optional<GroupKey.Step> steps(LoadedDataset dataset) {
        return Optional.empty();
    }

    /**
     * How another visual of the dashboard is drawn.
     *
     * @throws sarnik.data.MisfitException when there is none of this id, or it is about another visual itself
     */
    Plan plan(String visual);

    /** The column of a dataset that means the same as one of another, its own, by place or by a tie; empty for none. */
    Optional<String> same(Source source, LoadedDataset dataset);

    ReaderState state();

    /**
     * The value of a parameter, as the reader has set it or as it is at first; empty where there is none of this id.
     */
    Optional<Double> number(String parameter);

    /** A shared key. */
    Optional<SharedKey> key(String name);

    /** What is in sight of the visual. */
    Sight sight();

    /** The day that relative periods are counted from. */
    LocalDate today();

    /** Takes note of a sheet of places that the drawing will name places by. */
    void names(PlaceSheet sheet);

    /** A sheet that was noted. */
    PlaceSheet sheet(String tag);

    /** The title, or what stands in for it where none was written. */
    static String titleOf(Visual visual, String fallback) {
        String title = visual.title();
        if (title != null && !title.isBlank()) return title;
        return fallback.isEmpty() ? "" : Character.toUpperCase(fallback.charAt(0)) + fallback.substring(1);
    }
}
