package sarnik.sentence;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Control;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Words;
import sarnik.dashboard.BriefWriter;
import sarnik.dashboard.DocumentJson;
import sarnik.data.MisfitException;
import sarnik.visual.Visual;
import tools.jackson.core.JacksonException;

/** A visual that is being written, with the brief that it has by now. Immutable. */
final class Draft {

    private final BriefWriter writer;
    private final Map<String, Object> plain;
    private final Visual visual;
    private final Brief brief;

    private Draft(BriefWriter writer, Map<String, Object> plain, Visual visual, Brief brief) {
        this.writer = writer;
        this.plain = plain;
        this.visual = visual;
        this.brief = brief;
    }

    /** @return empty where it does not fit its data */
    static Optional<Draft> of(Visual visual, BriefWriter writer) {
        return of(DocumentJson.plain(visual), writer);
    }

    private static Optional<Draft> of(Map<String, Object> plain, BriefWriter writer) {
        try {
            Visual visual = DocumentJson.visual(plain);
            return Optional.of(new Draft(writer, plain, visual, writer.draft(visual)));
        } catch (JacksonException | MisfitException | IllegalArgumentException | NullPointerException unfit) {
            return Optional.empty();
        }
    }

    /** The simplest visual of its kind: with nothing that can be left out. */
    Draft bare() {
        Draft at = this;
        for (boolean again = true; again; ) {
            again = false;
            for (Control control : at.controls()) {
                Optional<Draft> without = control.removable() ? at.without(control) : Optional.empty();
                if (without.isEmpty()) continue;
                at = without.get();
                again = true;
                break;
            }
        }
        return at;
    }

    Visual visual() {
        return visual;
    }

    Brief brief() {
        return brief;
    }

    List<Control> controls() {
        return brief.parts().stream()
                .filter(part ->
                        part instanceof Control control && control.path().startsWith("/"))
                .map(Control.class::cast)
                .toList();
    }

    /** The words that lead up to a control: " in steps of ". */
    String lead(Control control) {
        StringBuilder lead = new StringBuilder();
        for (Brief.Part part : brief.parts()) {
            if (part instanceof Words words) lead.append(words.text());
            else if (part instanceof Control other) {
                if (other.path().equals(control.path())) return lead.toString();
                lead.setLength(0);
            }
        }
        return "";
    }

    /**
     * The same with something chosen.
     *
     * @param more whether it is chosen besides what is chosen already, where several can be
     * @return empty where that does not hold
     */
    Optional<Draft> with(Control control, Object value, boolean more) {
        Map<String, Object> changed = copy(plain);
        boolean several = control.kind() == Kind.SET || control.kind() == Kind.TIP;
        Object chosen = DocumentJson.plainValue(value);
        if (several) {
            List<Object> all = new ArrayList<>();
            if (more && at(changed, control.path()) instanceof List<?> before) all.addAll(before);
            if (all.contains(chosen)) return Optional.empty();
            all.add(chosen);
            chosen = all;
        }
        return put(changed, control.path(), chosen) ? of(changed, writer) : Optional.empty();
    }

    /** How the one measure that a control has chosen is worked out over the others, if it is. */
    Optional<Object> workedOut(Control control) {
        Object chosen = at(plain, control.path());
        if (chosen instanceof List<?> list) chosen = list.size() == 1 ? list.get(0) : null;
        return chosen instanceof Map<?, ?> measure ? Optional.ofNullable(measure.get("over")) : Optional.empty();
    }

    private Optional<Draft> without(Control control) {
        Map<String, Object> changed = copy(plain);
        return put(changed, control.path(), null) ? of(changed, writer) : Optional.empty();
    }

    Optional<Draft> titled(String title) {
        Map<String, Object> changed = copy(plain);
        changed.put("title", title);
        return of(changed, writer);
    }

    // --- JSON pointers (RFC 6901) --------------------------------------------------------------------

    @SuppressWarnings("unchecked")
    private static <T> T copy(T value) {
        if (value instanceof Map<?, ?> map) {
            Map<Object, Object> copied = new LinkedHashMap<>();
            map.forEach((name, part) -> copied.put(name, copy(part)));
            return (T) copied;
        }
        if (value instanceof List<?> list) {
            List<Object> copied = new ArrayList<>();
            list.forEach(part -> copied.add(copy(part)));
            return (T) copied;
        }
        return value;
    }

    private static Object at(Object root, String path) {
        Object at = root;
        for (String name : path.substring(1).split("/")) {
            if (at instanceof Map<?, ?> map) at = map.get(name);
            else if (at instanceof List<?> list && name.matches("\\d+") && Integer.parseInt(name) < list.size())
                at = list.get(Integer.parseInt(name));
            else return null;
        }
        return at;
    }

    /** @return false where there is nothing in which it could stand */
    @SuppressWarnings("unchecked")
    private static boolean put(Map<String, Object> root, String path, Object value) {
        int cut = path.lastIndexOf('/');
        Object holder = cut == 0 ? root : at(root, path.substring(0, cut));
        String name = path.substring(cut + 1);
        if (holder instanceof Map<?, ?>) {
            if (value == null) ((Map<String, Object>) holder).remove(name);
            else ((Map<String, Object>) holder).put(name, value);
            return true;
        }
        if (holder instanceof List<?> list && name.matches("\\d+") && Integer.parseInt(name) < list.size()) {
            if (value == null) list.remove(Integer.parseInt(name));
            else ((List<Object>) list).set(Integer.parseInt(name), value);
            return true;
        }
        return false;
    }

    // --- how far it says the same as a sentence --------------------------------------------------------

    /**
     * What a brief says, word by word, without the words between several.
     *
     * @param keys its words
     * @param begins at which of them each control begins
     * @param ends at which word behind it each control ends
     */
    record Said(List<String> keys, Map<Control, Integer> begins, Map<Control, Integer> ends) {}

    /** Words between the last two of several: with a third they stand elsewhere. */
    static final Set<String> BETWEEN = Set.of("and", "or");

    Said said(Vocabulary vocabulary) {
        List<String> keys = new ArrayList<>();
        Map<Control, Integer> begins = new LinkedHashMap<>();
        Map<Control, Integer> ends = new LinkedHashMap<>();
        for (Brief.Part part : brief.parts()) {
            if (part instanceof Words words) add(keys, vocabulary.keys(words.text()));
            else if (part instanceof Control control) {
                begins.put(control, keys.size());
                if (Brief.isSaid(control)) add(keys, vocabulary.keys(control.text()));
                ends.put(control, keys.size());
            }
        }
        return new Said(keys, begins, ends);
    }

    private static void add(List<String> keys, List<String> more) {
        more.stream().filter(key -> !BETWEEN.contains(key)).forEach(keys::add);
    }

    /** How many words from the first on are those of a sentence. */
    static int agrees(Said said, List<Word> sentence) {
        int same = 0;
        while (same < said.keys().size()
                && same < sentence.size()
                && said.keys().get(same).equals(sentence.get(same).key())) same++;
        return same;
    }
}
