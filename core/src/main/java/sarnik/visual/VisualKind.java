package sarnik.visual;

import static sarnik.language.Language.phrase;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Parts;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Rule;
import sarnik.data.Words;
import sarnik.state.ReaderState;
import sarnik.state.Value;

/**
 * A kind of visual. Everything about it stands in its own room; nothing outside it and the registry names it.
 *
 * @param <V> its record in the document
 */
public interface VisualKind<V extends Visual> {

    /** What it is called in documents, in the browser and in tests: {@code bars}. */
    String name();

    Class<V> type();

    /** The class of what it draws. */
    Class<? extends Drawing> drawing();

    /** A small picture of it in a square of ten, as an SVG path that is stroked. */
    String sign();

    /** What parts of its drawing are called that are one of several. */
    default Map<Class<?>, String> parts() {
        return Map.of();
    }

    /** The interfaces that those parts have in common. */
    default List<Class<?>> typed() {
        return List.of();
    }

    /** Records of its own in the document, of which only what is said is written. */
    default List<Class<?>> said() {
        return List.of();
    }

    /** What can be said of it, each declared once. */
    List<Slot> slots();

    /** What an author may call it who asks for one in a sentence, in one or more words each. */
    default List<String> asked() {
        return List.of(name());
    }

    /** What any of them is called in the history: "the bars". */
    default String called() {
        return "the " + name();
    }

    /** What a person calls one: "the bars of town". */
    String words(V visual);

    /** Ids of the datasets that it rests on. */
    Set<Long> datasets(V visual);

    /** Ids of other parts of the dashboard that it is about, and goes with when they are taken away. */
    default Set<String> dependsOn(V visual) {
        return Set.of();
    }

    /** Ids of the filters and numbers that stand in it, instead of in the strip. */
    default Set<String> holds(V visual) {
        return Set.of();
    }

    /** Names of the stored files that it shows. */
    default Set<String> files(V visual) {
        return Set.of();
    }

    /** Whether its colours, sizes or shapes stand for something, so that a key can be made of it. */
    default boolean hasKey(V visual) {
        return false;
    }

    /**
     * The queries it needs, and what is drawn of their answers.
     *
     * @throws sarnik.data.MisfitException when it does not fit its data
     */
    Plan plan(V visual, Scene scene);

    /**
     * Writes its sentence, and what is folded away about its looks.
     *
     * @param line begins at the visual's place in the document
     * @throws sarnik.data.MisfitException when its dataset has gone
     */
    void brief(V visual, BriefLine line, BriefLine looks, Choices choices, Datasets datasets);

    /** What a pick on it means; empty where nothing can be picked. */
    default Optional<Source> picks(V visual) {
        return Optional.empty();
    }

    /**
     * What picked rows are told from others by, beyond a list of values.
     *
     * @throws sarnik.data.MisfitException when the pick does not fit what is shown
     */
    default Picked picked(V visual, Value.Pick pick, Scene scene) {
        if (pick instanceof Value.Span span) return new Picked.Between(span.from(), span.to());
        return Picked.values(pick instanceof Value.Values of ? of.values() : List.of());
    }

    /** The values among those picked that it may show; of those it cannot know it says that it shows them. */
    default Known known(V visual, List<String> values, Datasets datasets) {
        return Known.of(picks(visual), values, datasets);
    }

    /** What of a reader's state an address sets that calls it by its name. */
    default ReaderState.Part part() {
        return ReaderState.Part.PICK;
    }

    /** The moment that a text says, of a kind that plays time; empty where it says none. */
    default Optional<Value> moment(V visual, String text, Datasets datasets) {
        return Optional.empty();
    }

    /** How it plays time for its page; empty for a kind that does not. */
    default Optional<Playing> plays(V visual, Datasets datasets) {
        return Optional.empty();
    }

    /** Whether it shows an extent of the Earth, which can be framed. */
    default boolean framed() {
        return false;
    }

    /** Whether a stretch of time or of numbers can be drawn on it. */
    default boolean spanned() {
        return false;
    }

    /** What a picked value is called. */
    default String label(V visual, String value, Datasets datasets) {
        return picks(visual)
                .flatMap(s -> datasets.ready(s.dataset()).map(d -> d.label(s.column(), value)))
                .orElse(value);
    }

    /** What is picked, in words: "Soria and Zamora". */
    default String pickWords(V visual, Value.Pick pick, Datasets datasets) {
        if (pick instanceof Value.Span span) return phrase("from {0} to {1}", span.from(), span.to());
        List<String> values = pick instanceof Value.Values of ? of.values() : List.of();
        return Words.list(
                values.stream().map(v -> label(visual, v, datasets)).sorted().toList(), "and");
    }

    /** Ids of its parts that a reader can turn from shown to hidden and back. */
    default List<String> turnable(V visual) {
        return List.of();
    }

    /** What in it leaves a choice among measures to the reader. */
    default List<String> offers(V visual) {
        return List.of();
    }

    /** Its standing rules. */
    default List<Rule> rules(V visual) {
        Rule rule = ingredients(visual).rule();
        return rule == null ? List.of() : List.of(rule);
    }

    /** Whether its drawing changes with a parameter, other than through its rules. */
    default boolean uses(V visual, String parameter) {
        return false;
    }

    /**
     * Where in it a parameter stands that is to be taken away, as JSON pointers from the visual's own place.
     */
    default Stream<String> places(V visual, String parameter) {
        return Stream.empty();
    }

    /** What it answers to a question about a dataset, best first. */
    default List<Proposal> proposals(Question question, LoadedDataset dataset) {
        return List.of();
    }

    /** The same beside the parts that a dashboard has already. */
    default List<Proposal> proposals(Question question, LoadedDataset dataset, Parts parts) {
        return proposals(question, dataset);
    }

    /** What it holds that another kind could show. */
    default Ingredients ingredients(V visual) {
        return Ingredients.NONE;
    }

    /** A visual of this kind made of what another held; empty where it cannot show that. */
    default Optional<Become> become(Ingredients from, String page, Box at, String title, Datasets datasets) {
        return Optional.empty();
    }

    /**
     * @param visual what it becomes
     * @param left what could not be taken over, in words
     */
    record Become(Visual visual, List<String> left) {}
}
