package sarnik.sentence;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Control;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.Choices;
import sarnik.dashboard.BriefWriter;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.Kinds;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Rule;
import sarnik.data.Telling;
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

    /** Words between phrases that say nothing by themselves, besides those that briefs have there. */
    private static final Set<String> SMALL = Set.of(
            "of", "by", "in", "for", "each", "and", "with", "where", "only", "which", "that", "per", "show", "me",
            "from", "over", "on", "to", "as", "are", "is", "it", "all", "every", "at", "make", "draw", "1", "column",
            "chart", "graph", "sort", "sorted", "then", "also", "plus", "has", "have", "whose", "when");

    /** So many drafts are tried before a sentence counts as none that was written. */
    private static final int MOST_TRIED = 4000;
    /** Shorter words are not taken for others. */
    private static final int LEAST_LETTERS = 4;

    private static final int LONG = 7;
    /** A sentence that agrees with a brief in so many words is likely to be one. */
    private static final int LIKELY = 5;
    /** Further values of a rule are read with it, behind the word "or". */
    private static final String RULE_VALUES = "/values";
    /** Fewer words name no visual by themselves. */
    private static final int LEAST_UNNAMED = 3;
    /** An option is looked for within so many words. */
    private static final int FAR = 7;

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final Choices choices;
    private final LoadedDataset dataset;
    private final BriefWriter writer;
    private final Vocabulary vocabulary;
    private final Map<String, String> leads = new HashMap<>();

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
     * @param words its brief
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
            Optional<Draft> exact = exactly(start.bare(), words);
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
                    Loose loose = new Loose(start, new ArrayList<>(words), new ArrayList<>(slips));
                    loose.read(named.at(), named.to());
                    return loose;
                })
                .min(Comparator.comparingInt((Loose loose) -> loose.unread.size())
                        .thenComparingInt(loose -> loose.slips.size())
                        .thenComparingInt(loose -> loose.guessed().size()))
                .map(loose -> loose.done(sentence))
                .orElseGet(() -> nothing(sentence, List.of(named.kind().name())));
    }

    private Read nothing(String sentence, List<String> unread) {
        return new Read(
                null,
                "",
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
                    Loose loose = new Loose(start, new ArrayList<>(words), new ArrayList<>());
                    loose.read(-1, -1);
                    Read read = loose.done(sentence);
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
        return nothing(sentence, words.stream().map(Word::written).toList());
    }

    // --- where reading starts --------------------------------------------------------------------------

    /** A kind that was named, and where the sentence goes on. */
    private record Named(VisualKind<?> kind, int at, int to) {}

    /** A visual that is proposed, and its simplest form. */
    private record Start(Proposal proposal, Draft bare) {
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

    // --- word by word ------------------------------------------------------------------------------------

    /** The draft whose brief is this sentence: whatever makes the two agree further is chosen, until all agrees. */
    private Optional<Draft> exactly(Draft start, List<Word> sentence) {
        List<Word> told = sentence.stream()
                .filter(word -> word.quoted() || !Draft.BETWEEN.contains(word.key()))
                .toList();
        return exactly(start, told, new int[] {MOST_TRIED}, true);
    }

    /**
     * @param left how many drafts may still be tried
     * @param opens whether something may be chosen that only opens what can be said
     */
    private Optional<Draft> exactly(Draft start, List<Word> sentence, int[] left, boolean opens) {
        Draft at = start;
        while (true) {
            Draft.Said said = at.said(vocabulary);
            int agrees = Draft.agrees(said, sentence);
            if (agrees == sentence.size() && agrees == said.keys().size()) return Optional.of(at);
            Draft best = null;
            int furthest = agrees;
            // What stands where the two part, by its words; what stands further on and is said word for word; and
            // last whatever can be chosen where they part, in words of its own.
            boolean likely = agrees >= Math.min(LIKELY, sentence.size() / 2);
            for (int pass = 0; pass < (likely ? 3 : 2) && best == null; pass++) {
                for (Control control : at.controls()) {
                    int begins = said.begins().get(control);
                    boolean here = begins <= agrees && said.ends().get(control) >= agrees;
                    if (pass == 1 ? begins <= agrees : !here) continue;
                    Optional<Object> worked = at.workedOut(control);
                    for (Chosen chosen : choices(control, sentence, Math.max(begins, agrees - FAR), pass)) {
                        if (--left[0] < 0) return Optional.empty();
                        Optional<Draft> next = at.with(control, chosen.workedOut(worked), chosen.more());
                        if (next.isEmpty()) continue;
                        Draft.Said then = next.get().said(vocabulary);
                        int further = Draft.agrees(then, sentence);
                        boolean whole =
                                further == sentence.size() && then.keys().size() == further;
                        if (further > furthest || whole) {
                            best = next.get();
                            furthest = further;
                        }
                    }
                }
            }
            if (best == null) return opens && likely ? opened(at, said, agrees, sentence, left) : Optional.empty();
            at = best;
        }
    }

    /** The same after something is chosen where the two part that says nothing yet, but opens what says it. */
    private Optional<Draft> opened(Draft at, Draft.Said said, int agrees, List<Word> sentence, int[] left) {
        for (Control control : at.controls()) {
            if (!control.empty()
                    || said.begins().get(control) > agrees
                    || said.ends().get(control) < agrees) continue;
            for (Chosen chosen : choices(control, sentence, agrees, 2)) {
                if (--left[0] < 0) return Optional.empty();
                Optional<Draft> next = at.with(control, chosen.value(), chosen.more())
                        .filter(then -> then.controls().size() > at.controls().size()
                                && Draft.agrees(then.said(vocabulary), sentence) >= agrees);
                Optional<Draft> whole = next.flatMap(then -> exactly(then, sentence, left, false));
                if (whole.isPresent()) return whole;
            }
        }
        return Optional.empty();
    }

    private record Chosen(Object value, boolean more) {

        /** Another measure is worked out as the one before it was. */
        private Object workedOut(Optional<Object> over) {
            if (over.isEmpty() || more || !(value instanceof Map<?, ?> map) || !map.containsKey("summary"))
                return value;
            Map<Object, Object> worked = new HashMap<>(map);
            worked.put("over", over.get());
            return worked;
        }
    }

    /**
     * What could be chosen in a control that stands at a word of a sentence.
     *
     * @param pass 0 for what begins near it as the sentence does, 1 for what is said anywhere, 2 for all
     */
    private List<Chosen> choices(Control control, List<Word> sentence, int at, int pass) {
        List<Chosen> chosen = new ArrayList<>();
        boolean several = control.kind() == Kind.SET || control.kind() == Kind.TIP;
        if (control.kind() == Kind.TYPED || control.kind() == Kind.TEXT) {
            for (int i = at; i < Math.min(sentence.size(), at + 2); i++)
                if (sentence.get(i).quoted() || sentence.get(i).written().matches("\\d{4}-.*"))
                    chosen.add(new Chosen(sentence.get(i).written(), false));
        } else if (control.kind() == Kind.NUMBER) {
            for (int i = at; i < Math.min(sentence.size(), at + 3); i++)
                if (sentence.get(i).isNumber())
                    chosen.add(new Chosen(Double.valueOf(sentence.get(i).key()), false));
        }
        for (Option option : control.options()) {
            boolean fits = pass == 2 || (pass == 0 ? begins(option, sentence, at) : occurs(option, sentence));
            if (option.value() == null || control.kind() == Kind.TYPED || !fits) continue;
            if (several && !control.empty()) chosen.add(new Chosen(option.value(), true));
            chosen.add(new Chosen(option.value(), false));
            for (Phrase phrase : pass == 0 ? Phrase.of(control, option, vocabulary) : List.<Phrase>of())
                if (!phrase.shortened())
                    for (int i = at; i < Math.min(sentence.size(), at + 4); i++)
                        phrase.at(sentence, i)
                                .filter(found -> !found.value().equals(option.value()))
                                .ifPresent(found -> chosen.add(new Chosen(found.value(), false)));
        }
        return chosen;
    }

    /** Whether what an option says may be what a sentence says from about a word on. */
    private boolean begins(Option option, List<Word> sentence, int at) {
        List<String> keys = vocabulary.keys(option.text());
        if (keys.isEmpty() || option.value() instanceof Rule rule && rule.form() == Rule.Is.SQL) return true;
        for (int i = at; i < Math.min(sentence.size(), at + FAR); i++)
            if (sentence.get(i).key().equals(keys.get(0))
                    || Word.isNumber(keys.get(0)) && sentence.get(i).isNumber()) return true;
        return false;
    }

    private boolean occurs(Option option, List<Word> sentence) {
        List<String> keys = vocabulary.keys(option.text());
        return Collections.indexOfSubList(sentence.stream().map(Word::key).toList(), keys) >= 0;
    }

    // --- phrase by phrase ----------------------------------------------------------------------------------

    /** Reads a sentence in which the phrases stand in any order, with other words between them. */
    private final class Loose {

        private final Start start;
        private final List<Word> words;
        private final List<Slip> slips;
        private final List<String> unread = new ArrayList<>();
        private final List<Doubt> doubts = new ArrayList<>();
        private final Set<String> set = new LinkedHashSet<>();
        private Draft draft;
        private List<Phrase> phrases;
        private Set<String> small;
        /** Behind the last phrase that was read. */
        private int readTo;

        Loose(Start start, List<Word> words, List<Slip> slips) {
            this.start = start;
            this.words = words;
            this.slips = slips;
            take(start.bare());
        }

        private void take(Draft next) {
            draft = next;
            phrases = new ArrayList<>();
            small = new HashSet<>(SMALL);
            for (Control control : draft.controls())
                for (Option option : control.options())
                    if (option.value() != null && !control.path().endsWith(RULE_VALUES))
                        phrases.addAll(Phrase.of(control, option, vocabulary));
            for (Brief.Part part : draft.brief().parts())
                if (part instanceof Brief.Words fixed) small.addAll(vocabulary.keys(fixed.text()));
            for (Control control : draft.controls()) small.addAll(vocabulary.keys(lead(draft, control)));
        }

        /** @param named where the kind is named, and @param namedTo where the sentence goes on */
        void read(int named, int namedTo) {
            int at = 0;
            List<String> before = new ArrayList<>();
            while (at < words.size()) {
                int taken = title(at);
                if (taken == 0) taken = phrase(at, before);
                if (taken == 0 && at >= named && at < namedTo) taken = namedTo - at;
                if (taken > 0) {
                    at += taken;
                    readTo = at;
                    before.clear();
                } else if (small.contains(words.get(at).key())) {
                    before.add(words.get(at++).key());
                } else if (!slipped(at)) {
                    unread.add(words.get(at++).written());
                }
            }
        }

        private int title(int at) {
            if (!words.get(at).key().matches("titled|called|title")
                    || at + 1 >= words.size()
                    || !words.get(at + 1).quoted()) return 0;
            Optional<Draft> titled = draft.titled(words.get(at + 1).written());
            titled.ifPresent(this::take);
            return titled.isPresent() ? 2 : 0;
        }

        /** Takes the phrase that says most at a word. @return how many words it has; 0 for none */
        private int phrase(int at, List<String> before) {
            List<Phrase.Found> found = new ArrayList<>();
            for (Phrase phrase : phrases) phrase.at(words, at).ifPresent(found::add);
            // A column may be called "at" or "all": then it is meant only where a column is asked for.
            boolean asked = at > 0
                    && Set.of("by", "of", "each").contains(words.get(at - 1).key());
            // One row is no number of rows; and what is said once is not unsaid by the same words further on.
            found.removeIf(one -> one.phrase().shortened()
                            && words.get(at).key().equals("row")
                            && !words.get(at).written().equalsIgnoreCase("rows")
                    || set.contains(control(one).path()) && control(one).kind() == Kind.CHOSEN);
            if (!asked)
                found.removeIf(
                        one -> one.words() == 1 && SMALL.contains(words.get(at).key()));
            for (Control control : draft.controls())
                Phrase.value(control, words, at, vocabulary).ifPresent(found::add);
            int most = found.stream().mapToInt(Phrase.Found::words).max().orElse(0);
            found.removeIf(one -> one.words() < most);
            Map<Phrase.Found, Integer> fits = new IdentityHashMap<>();
            for (Phrase.Found one : found) fits.put(one, found.size() == 1 ? 0 : fits(one, before));
            found.sort(Comparator.comparingInt((Phrase.Found one) -> -fits.get(one))
                    .thenComparing(one -> one.phrase().shortened()));
            for (Phrase.Found alone : found) {
                Phrase.Found one = alone.orOthers(words, at, vocabulary);
                Control control = one.phrase().control();
                Optional<Draft> next = draft.with(control, one.value(), set.contains(control.path()));
                if (next.isEmpty()) continue;
                doubt(alone, found, at, fits);
                set.add(control.path());
                take(next.get());
                return one.words();
            }
            return 0;
        }

        /** How well a phrase goes with the words before it, with what is said already, and with the trade's rules. */
        private int fits(Phrase.Found found, List<String> before) {
            Control control = found.phrase().control();
            List<String> lead = vocabulary.keys(lead(draft, control) + " " + control.name());
            int fits = 0;
            for (String word : before) if (!SMALL.contains(word) && lead.contains(word)) fits += 4;
            for (String word : before) if (SMALL.contains(word) && lead.contains(word)) fits += 1;
            // What has to be said comes before what may be.
            if (!set.contains(control.path()) && !control.empty()) fits += 2;
            Optional<Map<String, Object>> measure = Phrase.measure(found.value());
            if (measure.isPresent() && !rated(measure.get()) == control.name().contains("colour")) fits -= 2;
            if (measure.isPresent() && rated(measure.get()) && control.name().contains("size")) fits -= 3;
            // A number is measured rather than told apart by.
            if (measure.isEmpty()
                    && found.value() instanceof String column
                    && dataset.table()
                            .find(column)
                            .filter(c -> c.type().isNumber())
                            .isPresent()) fits -= 3;
            if (control.empty() && control.kind() != Kind.CHOSEN) fits -= 2;
            return fits;
        }

        private boolean rated(Map<String, Object> measure) {
            return measure.get("column") instanceof String column
                    && (vocabulary.meaning(column) == Telling.Meaning.RATE || "AVERAGE".equals(measure.get("summary")));
        }

        private static boolean isChosenAlone(Control control) {
            return control.empty() && control.kind() == Kind.CHOSEN;
        }

        private static Control control(Phrase.Found found) {
            return found.phrase().control();
        }

        /** Says what else the words could have meant, as well as what was taken. */
        private void doubt(Phrase.Found taken, List<Phrase.Found> found, int at, Map<Phrase.Found, Integer> fits) {
            if (!taken.phrase().shortened()) return;
            List<Next> otherwise = new ArrayList<>();
            String said = written(at, taken.words());
            for (Phrase.Found other : found) {
                if (other == taken
                        || !other.phrase().shortened()
                        || fits.get(other) < fits.get(taken) - 2
                        || control(taken) != control(other)
                                && !(control(taken).empty() && isChosenAlone(control(other)))
                        || set.contains(other.phrase().control().path())
                        || otherwise.size() == 3) continue;
                Control control = other.phrase().control();
                boolean sameControl =
                        control.path().equals(taken.phrase().control().path());
                if (sameControl && other.value().equals(taken.value())) continue;
                String words =
                        (lead(draft, control) + " " + other.phrase().option().text()).strip();
                otherwise.add(new Next(words, "", replaced(at, taken.words(), words)));
            }
            if (!otherwise.isEmpty())
                doubts.add(new Doubt(
                        said,
                        taken.phrase().control().name() + ": "
                                + taken.phrase().option().text(),
                        otherwise));
        }

        private String written(int at, int count) {
            return String.join(
                    " ",
                    words.subList(at, at + count).stream().map(Word::written).toList());
        }

        /** The sentence with other words in the place of some. */
        private String replaced(int at, int count, String by) {
            List<String> all = new ArrayList<>();
            int from = at;
            while (from > 0
                    && Set.of("by", "of", "only", "where", "is")
                            .contains(words.get(from - 1).key())) from--;
            for (int i = 0; i < words.size(); i++) {
                if (i == from) all.add(by);
                if (i < from || i >= at + count)
                    all.add(
                            words.get(i).quoted()
                                    ? "“" + words.get(i).written() + "”"
                                    : words.get(i).written());
            }
            return String.join(" ", all);
        }

        /** Reads a word as the one it is nearest to, if there is just one. */
        private boolean slipped(int at) {
            Word word = words.get(at);
            if (word.quoted() || word.isNumber() || word.key().length() < LEAST_LETTERS) return false;
            int most = word.key().length() > LONG ? 2 : 1;
            Set<String> nearest = new LinkedHashSet<>();
            Set<String> known = new LinkedHashSet<>(small);
            phrases.forEach(phrase -> known.addAll(phrase.keys()));
            if (known.contains(word.key())) return false;
            int least = most;
            for (String other : known) {
                if (other.length() < LEAST_LETTERS - 1
                        || Math.abs(other.length() - word.key().length()) > least) continue;
                int distance = Word.distance(word.key(), other);
                if (distance > least) continue;
                if (distance < least) nearest.clear();
                least = distance;
                nearest.add(other);
            }
            if (nearest.size() != 1) return false;
            String read = nearest.iterator().next();
            slips.add(new Slip(word.written(), read));
            words.set(at, new Word(read, read, word.from(), word.to(), false));
            return true;
        }

        /** What it shows without being told to. */
        List<String> guessed() {
            List<String> guessed = new ArrayList<>();
            for (Control control : draft.controls()) {
                boolean said = set.stream().anyMatch(path -> path.startsWith(control.path()));
                if (!said && isTelling(control)) guessed.add(control.name() + ": " + control.text());
            }
            return guessed;
        }

        Read done(String sentence) {
            // The last word may not be finished.
            boolean finished = sentence.isEmpty() || !Character.isLetterOrDigit(sentence.charAt(sentence.length() - 1));
            List<String> left = new ArrayList<>(unread);
            if (!finished && readTo < words.size() && !left.isEmpty()) left.remove(left.size() - 1);
            return new Read(
                    start.with(draft),
                    draft.brief().text(),
                    guessed(),
                    slips,
                    left,
                    doubts,
                    new Continuation(SentenceReader.this, sentence).after(draft, words, readTo, set));
        }
    }
}
