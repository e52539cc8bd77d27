package sarnik.sentence;

import java.util.ArrayList;
import java.util.Comparator;
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
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.sentence.SentenceReader.Doubt;
import sarnik.sentence.SentenceReader.Next;
import sarnik.sentence.SentenceReader.Slip;

/** Reads a sentence in which the phrases stand in any order, with other words between them. */
final class PhraseByPhrase {

    /** Words between phrases that say nothing by themselves, besides those that briefs have there. */
    private static final Set<String> SMALL = Set.of(
            "of", "by", "in", "for", "each", "and", "with", "where", "only", "which", "that", "per", "show", "me",
            "from", "over", "on", "to", "as", "are", "is", "it", "all", "every", "at", "make", "draw", "1", "column",
            "chart", "graph", "sort", "sorted", "then", "also", "plus", "has", "have", "whose", "when");

    private static final Set<String> TURNING =
            Set.of("not", "no", "without", "except", "but", "unless", "neither", "nor", "or", "never");
    /** Longer words are taken for others from which they differ in two letters. */
    private static final int LONG = 7;
    /** Further values of a rule are read with it, behind the word "or". */
    private static final String RULE_VALUES = "/values";

    private final Vocabulary vocabulary;
    private final LoadedDataset dataset;
    private final SentenceReader.Start start;
    private final List<Word> words;
    final List<Slip> slips;
    final List<String> unread = new ArrayList<>();
    private final List<Doubt> doubts = new ArrayList<>();
    final Set<String> set = new LinkedHashSet<>();
    private Draft draft;
    private List<Phrase> phrases;
    private Set<String> small;
    /** Behind the last phrase that was read. */
    private int readTo;

    PhraseByPhrase(Vocabulary vocabulary, SentenceReader.Start start, List<Word> words, List<Slip> slips) {
        this.vocabulary = vocabulary;
        this.dataset = vocabulary.dataset();
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
        for (Control control : draft.controls()) small.addAll(vocabulary.keys(vocabulary.lead(draft, control)));
        // What turns a sentence round is never passed over.
        small.removeAll(TURNING);
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
        String last = at > 0 ? words.get(at - 1).key() : "";
        // A column may be called "at" or "all": then it is meant only where a column is asked for.
        boolean asked = Set.of("by", "of", "each").contains(last);
        // A number is measured; things are told apart by it only where that is said.
        if (!Set.of("by", "each", "per").contains(last)) found.removeIf(this::isNumberColumn);
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
        List<String> lead = vocabulary.keys(vocabulary.lead(draft, control) + " " + control.name());
        int fits = 0;
        for (String word : before) if (!SMALL.contains(word) && lead.contains(word)) fits += 4;
        for (String word : before) if (SMALL.contains(word) && lead.contains(word)) fits += 1;
        // What has to be said comes before what may be.
        if (!set.contains(control.path()) && !control.empty()) fits += 2;
        Optional<Map<String, Object>> measure = Phrase.measure(found.value());
        if (measure.isPresent() && !rated(measure.get()) == control.name().contains("colour")) fits -= 2;
        if (measure.isPresent() && rated(measure.get()) && control.name().contains("size")) fits -= 3;
        if (isNumberColumn(found)) fits -= 3;
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

    private boolean isNumberColumn(Phrase.Found found) {
        return found.value() instanceof String column
                && dataset.table()
                        .find(column)
                        .filter(one -> one.type().isNumber())
                        .isPresent();
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
                    || control(taken) != control(other) && !(control(taken).empty() && isChosenAlone(control(other)))
                    || set.contains(other.phrase().control().path())
                    || otherwise.size() == 3) continue;
            Control control = other.phrase().control();
            boolean sameControl = control.path().equals(taken.phrase().control().path());
            if (sameControl && other.value().equals(taken.value())) continue;
            String words = (vocabulary.lead(draft, control) + " "
                            + other.phrase().option().text())
                    .strip();
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
                " ", words.subList(at, at + count).stream().map(Word::written).toList());
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
        if (word.quoted() || word.isNumber() || word.key().length() < SentenceReader.LEAST_LETTERS) return false;
        int most = word.key().length() > LONG ? 2 : 1;
        Set<String> nearest = new LinkedHashSet<>();
        Set<String> known = new LinkedHashSet<>(small);
        phrases.forEach(phrase -> known.addAll(phrase.keys()));
        if (known.contains(word.key())) return false;
        int least = most;
        for (String other : known) {
            if (other.length() < SentenceReader.LEAST_LETTERS - 1
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
            if (!said && vocabulary.isTelling(control)) guessed.add(control.name() + ": " + control.text());
        }
        return guessed;
    }

    SentenceReader.Read done(SentenceReader reader, String sentence) {
        // The last word may not be finished.
        boolean finished = sentence.isEmpty() || !Character.isLetterOrDigit(sentence.charAt(sentence.length() - 1));
        List<String> left = new ArrayList<>(unread);
        if (!finished && readTo < words.size() && !left.isEmpty()) left.remove(left.size() - 1);
        return new SentenceReader.Read(
                start.with(draft),
                draft.brief().text(),
                guessed(),
                slips,
                left,
                doubts,
                new Continuation(reader, sentence).after(draft, words, readTo, set));
    }
}
