package sarnik.sentence;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Choices;
import sarnik.dashboard.BriefWriter;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/**
 * Reads the sentence of a visual as an author types it: "bars of litres by town, the top ten, only where product is
 * still".
 *
 * <p>It has no grammar of its own. What can be said is what the controls of the visual's brief offer at this moment, so
 * that whatever is chosen opens what can be said next. A brief that was written is read back word by word; anything
 * else is read phrase by phrase, in any order.
 */
public final class SentenceReader {

    /** Shorter words are not taken for others. */
    static final int LEAST_LETTERS = 4;

    /** Fewer words name no visual by themselves. */
    private static final int LEAST_UNNAMED = 3;

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final Choices choices;
    private final LoadedDataset dataset;
    private final BriefWriter writer;
    private final Vocabulary vocabulary;

    /**
     * @param dashboard to which the visual would be added
     * @param choices what there is to choose from besides columns
     * @param dataset which the sentence is about
     */
    public SentenceReader(Dashboard dashboard, Datasets datasets, Choices choices, LoadedDataset dataset) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.choices = choices;
        this.dataset = dataset;
        this.vocabulary = new Vocabulary(dataset);
        this.writer = new BriefWriter(dashboard, datasets, choices);
    }

    /**
     * What was read.
     *
     * @param proposal the visual; null where no kind of visual is named yet
     * @param words its brief; where there is none although a kind is named, why
     * @param guessed what it shows without being told to: "category: product"
     * @param slips words that were read as others
     * @param unread words that say nothing here
     * @param doubts what means two things
     * @param next how the sentence can go on, best first
     */
    public record Read(
            Proposal proposal,
            String words,
            List<String> guessed,
            List<Slip> slips,
            List<String> unread,
            List<Doubt> doubts,
            List<Next> next) {

        /** What was read without the visual itself. */
        public Read spoken() {
            return new Read(null, words, guessed, slips, unread, doubts, next);
        }
    }

    /** A word, and the one it was read as. */
    public record Slip(String written, String read) {}

    /**
     * Words that mean two things.
     *
     * @param written the words
     * @param read what they were taken for
     * @param otherwise the other sentences, each saying which it is
     */
    public record Doubt(String written, String read, List<Next> otherwise) {}

    /**
     * A way to go on.
     *
     * @param words what would be said
     * @param hint a tiny preview of it, may be empty
     * @param sentence the whole sentence then
     */
    public record Next(String words, String hint, String sentence) {}

    /** Reads a sentence as far as it goes. */
    public Read read(String sentence) {
        List<Word> words = new ArrayList<>(Word.of(sentence));
        List<Slip> slips = new ArrayList<>();
        Named named = named(words, slips);
        if (named == null) return unnamed(sentence, words);
        List<Start> starts = starts(named.kind());
        for (Start start : starts) {
            Optional<Draft> exact = new WordByWord(vocabulary, words).read(start.bare());
            if (exact.isPresent())
                return new Read(
                        start.with(exact.get()),
                        exact.get().brief().text(),
                        List.of(),
                        slips,
                        List.of(),
                        List.of(),
                        new Continuation(this, sentence).after(exact.get(), words, words.size(), Set.of()));
        }
        return starts.stream()
                .map(start -> {
                    PhraseByPhrase loose =
                            new PhraseByPhrase(vocabulary, start, new ArrayList<>(words), new ArrayList<>(slips));
                    loose.read(named.at(), named.to());
                    return loose;
                })
                .min(Comparator.comparingInt((PhraseByPhrase loose) -> loose.unread.size())
                        .thenComparingInt(loose -> loose.slips.size())
                        .thenComparingInt(loose -> loose.guessed().size()))
                .map(loose -> loose.done(this, sentence))
                .orElseGet(() -> nothing(
                        sentence,
                        "Nothing of %s can be shown as %s."
                                .formatted(dataset.name(), named.kind().name()),
                        List.of(named.kind().name())));
    }

    private Read nothing(String sentence, String why, List<String> unread) {
        return new Read(
                null,
                why,
                List.of(),
                List.of(),
                unread,
                List.of(),
                new Continuation(this, sentence).kinds(Word.of(sentence)));
    }

    /** A sentence that names no kind is read as of the first that says all of it: "litres by month". */
    private Read unnamed(String sentence, List<Word> words) {
        if (words.size() >= LEAST_UNNAMED) {
            for (VisualKind<?> kind : kinds())
                for (Start start : starts(kind)) {
                    PhraseByPhrase loose =
                            new PhraseByPhrase(vocabulary, start, new ArrayList<>(words), new ArrayList<>());
                    loose.read(-1, -1);
                    Read read = loose.done(this, sentence);
                    // When is understood where only one column is likely to say it.
                    String when = vocabulary.time().map(ColumnWords::of).orElse("");
                    boolean open = read.guessed().stream().anyMatch(guessed -> !guessed.endsWith(": " + when));
                    if (!loose.unread.isEmpty() || open || loose.set.isEmpty()) continue;
                    List<String> guessed = List.of("shown as: " + kind.name());
                    return new Read(
                            read.proposal(),
                            read.words(),
                            guessed,
                            read.slips(),
                            List.of(),
                            read.doubts(),
                            read.next());
                }
        }
        return nothing(sentence, "", words.stream().map(Word::written).toList());
    }

    // --- where reading starts --------------------------------------------------------------------------

    /** A kind that was named, and where the sentence goes on. */
    private record Named(VisualKind<?> kind, int at, int to) {}

    /** A visual that is proposed, and its simplest form. */
    record Start(Proposal proposal, Draft bare) {
        Proposal with(Draft draft) {
            return new Proposal(proposal.words(), draft.visual(), proposal.w(), proposal.h());
        }
    }

    private static Named named(List<Word> words, List<Slip> slips) {
        for (int at = 0; at < words.size(); at++)
            for (VisualKind<?> kind : Kinds.ALL.visuals())
                for (String asked : kind.asked()) {
                    List<String> keys = Word.keys(asked);
                    if (at + keys.size() <= words.size()
                            && keys.equals(words.subList(at, at + keys.size()).stream()
                                    .map(Word::key)
                                    .toList())) return new Named(kind, at, at + keys.size());
                }
        if (words.isEmpty() || words.get(0).key().length() < LEAST_LETTERS) return null;
        Word first = words.get(0);
        for (VisualKind<?> kind : Kinds.ALL.visuals()) {
            String key = Word.keys(kind.name()).get(0);
            if (key.length() >= LEAST_LETTERS && Word.distance(first.key(), key) == 1) {
                slips.add(new Slip(first.written(), kind.name()));
                words.set(0, new Word(key, kind.name(), first.from(), first.to(), false));
                return new Named(kind, 0, 1);
            }
        }
        return null;
    }

    /** Kinds that can be asked for with this dataset. */
    List<VisualKind<?>> kinds() {
        List<VisualKind<?>> kinds = new ArrayList<>();
        for (VisualKind<?> kind : Kinds.ALL.visuals()) if (!proposals(kind).isEmpty()) kinds.add(kind);
        return kinds;
    }

    private List<Proposal> proposals(VisualKind<?> kind) {
        List<Proposal> proposals = new ArrayList<>();
        for (Question question : Question.values())
            proposals.addAll(kind.proposals(question, dataset, dashboard.parts()));
        return proposals;
    }

    /** One start for each simplest form. */
    private List<Start> starts(VisualKind<?> kind) {
        List<Start> starts = new ArrayList<>();
        Set<Visual> seen = new HashSet<>();
        for (Proposal proposal : proposals(kind))
            Draft.of(proposal.visual(), writer).map(Draft::bare).ifPresent(bare -> {
                if (seen.add(bare.visual())) starts.add(new Start(proposal, bare));
            });
        return starts;
    }

    Vocabulary vocabulary() {
        return vocabulary;
    }
}
