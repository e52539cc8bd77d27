package sarnik.sentence;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.brief.Brief.Control;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.data.Rule;

/** Reads a sentence that is the brief of a visual, word by word. */
final class WordByWord {

    /** So many drafts are tried before a sentence counts as none that was written. */
    private static final int MOST_TRIED = 4000;
    /** A sentence that agrees with a brief in so many words is likely to be one. */
    private static final int LIKELY = 5;
    /** An option is looked for within so many words. */
    private static final int FAR = 7;

    private final Vocabulary vocabulary;
    private final List<Word> words;

    WordByWord(Vocabulary vocabulary, List<Word> words) {
        this.vocabulary = vocabulary;
        this.words = words;
    }

    /** The draft whose brief is this sentence: whatever makes the two agree further is chosen, until all agrees. */
    Optional<Draft> read(Draft start) {
        List<Word> told = words.stream()
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
}
