package sarnik.sentence;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sarnik.brief.Brief.Control;
import sarnik.brief.Brief.Option;
import sarnik.sentence.SentenceReader.Next;
import sarnik.visual.VisualKind;

/** How a sentence can go on: only what fits at its end. */
final class Continuation {

    private static final int MOST = 9;
    /** So many of one control where nothing says which is meant. */
    private static final int MOST_OF_ONE = 2;

    private final SentenceReader reader;
    private final String sentence;

    Continuation(SentenceReader reader, String sentence) {
        this.reader = reader;
        this.sentence = sentence;
    }

    /** Kinds of visuals, where none is named yet. */
    List<Next> kinds(List<Word> words) {
        String begun = words.isEmpty() ? "" : words.get(words.size() - 1).key();
        List<Next> next = new ArrayList<>();
        for (VisualKind<?> kind : reader.kinds()) {
            String asked = kind.asked().get(0);
            if (asked.startsWith(begun)) next.add(new Next(asked, "", asked + " of "));
        }
        return next;
    }

    /**
     * @param draft what is read by now
     * @param readTo the word behind the last phrase
     * @param set paths of what is chosen already
     */
    List<Next> after(Draft draft, List<Word> words, int readTo, Set<String> set) {
        List<Word> left = words.subList(readTo, words.size());
        boolean finished = sentence.isEmpty() || !isWord(sentence.charAt(sentence.length() - 1));
        // A finished word that says nothing ends what could be meant; an unfinished one begins it.
        Map<String, Next> next = new LinkedHashMap<>();
        List<Control> controls = draft.controls();
        Map<Control, String> leads = new IdentityHashMap<>();
        for (Control control : controls) leads.put(control, reader.vocabulary().lead(draft, control));
        controls = controls.stream()
                .sorted(Comparator.comparingInt(
                        control -> reader.vocabulary().isTelling(control) ? 0 : control.empty() ? 1 : 2))
                .toList();
        for (int from = 0; from <= left.size() && next.isEmpty(); from++)
            begun(controls, leads, left.subList(0, from), left.subList(from, left.size()), finished, set, next);
        return next.values().stream().limit(MOST).toList();
    }

    private void begun(
            List<Control> all,
            Map<Control, String> lead,
            List<Word> before,
            List<Word> begun,
            boolean finished,
            Set<String> set,
            Map<String, Next> next) {
        List<String> leads = before.stream().map(Word::key).toList();
        List<Control> controls = new ArrayList<>(all);
        controls.sort((a, b) -> Integer.compare(common(lead.get(b), leads), common(lead.get(a), leads)));
        int best = controls.isEmpty() ? 0 : common(lead.get(controls.get(0)), leads);
        for (Control control : controls) {
            if (set.contains(control.path()) && begun.isEmpty()) continue;
            // Once words lead up to something, only that is offered.
            if (best > 0 && common(lead.get(control), leads) < best) continue;
            int offered = 0;
            for (Option option : control.options()) {
                if (option.value() == null || offered == (begun.isEmpty() && best == 0 ? MOST_OF_ONE : MOST)) continue;
                boolean fits = Phrase.of(control, option, reader.vocabulary()).stream()
                        .anyMatch(phrase -> begins(phrase.keys(), begun, finished));
                if (!fits) continue;
                offered++;
                String text = option.text().replace("…", "").strip();
                String words = leads.isEmpty() ? (lead.get(control) + " " + text).strip() : text;
                int cut = begun.isEmpty() ? sentence.length() : begun.get(0).from();
                String kept = sentence.substring(0, cut);
                String gap = kept.isEmpty() || kept.endsWith(" ") ? "" : " ";
                next.putIfAbsent(words, new Next(words, option.hint(), kept + gap + words + " "));
            }
        }
    }

    private static int common(String lead, List<String> words) {
        List<String> keys = Word.keys(lead);
        return (int) words.stream().filter(keys::contains).count();
    }

    private static boolean begins(List<String> keys, List<Word> begun, boolean finished) {
        if (begun.size() > keys.size()) return false;
        for (int i = 0; i < begun.size(); i++) {
            String key = begun.get(i).key();
            boolean open = !finished && i == begun.size() - 1;
            if (open ? !keys.get(i).startsWith(key) : !keys.get(i).equals(key)) return false;
        }
        return !(finished && begun.size() == keys.size() && !begun.isEmpty());
    }

    private static boolean isWord(char c) {
        return Character.isLetterOrDigit(c);
    }
}
