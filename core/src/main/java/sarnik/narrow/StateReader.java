package sarnik.narrow;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import sarnik.data.Datasets;
import sarnik.data.Words;
import sarnik.scale.NumberWords;
import sarnik.state.ReaderState;
import sarnik.state.ReaderState.Part;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.visual.Known;
import sarnik.visual.Source;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/** Reads a reader state from an address. Whatever does not fit the dashboard or its data is left out and said. */
public final class StateReader {

    /** So many strangers are named. */
    private static final int MOST_NAMED = 12;

    private final Wires wires;
    private final Datasets datasets;
    private final Registry kinds;
    private final List<String> misfits = new ArrayList<>();
    private ReaderState state = ReaderState.NOTHING;

    private StateReader(Wires wires, Datasets datasets, Registry kinds) {
        this.wires = wires;
        this.datasets = datasets;
        this.kinds = kinds;
    }

    /**
     * A state read from an address.
     *
     * @param state what fits the dashboard
     * @param misfits a sentence for each part that does not
     */
    public record Read(ReaderState state, List<String> misfits) {}

    /**
     * @param text the query part of a web address, without its question mark; parts that are not of a state are passed
     *     over
     */
    public static Read read(String text, Wires wires, Datasets datasets, Registry kinds) {
        StateReader reader = new StateReader(wires, datasets, kinds);
        ReaderState.parts(text, (part, said) -> reader.take(part, said[0], said[1]));
        return new Read(reader.state, List.copyOf(reader.misfits));
    }

    private void take(Part part, String id, String text) {
        switch (part) {
            case FILTER -> filter(id, text);
            case PICK -> pick(id, text);
            case TURNED -> turned(id, text);
            case OFFERED -> offered(id, text);
            case PARAMETER -> number(id, text);
            case PAGE -> page(text);
        }
    }

    private void filter(String id, String text) {
        Filter filter = wires.filters().get(id);
        if (filter == null) {
            misfits.add("The address names a filter that this dashboard no longer has; it is left out.");
            return;
        }
        FilterKind<Filter> kind = kinds.of(filter);
        Optional<Value> value = kind.read(text);
        if (value.isEmpty()) {
            misfits.add("The address holds no " + kind.expected() + " that can be read for “" + filter.words()
                    + "”; it is left out.");
            return;
        }
        if (!(value.get() instanceof Value.Choice choice)) {
            if (!value.get().text().equals("..")) state = state.with(Part.FILTER, id, value.get());
            return;
        }
        List<String> known = known(
                Known.of(Optional.of(new Source(filter.dataset(), filter.column())), choice.values(), datasets),
                choice.values());
        if (!known.isEmpty()) state = state.with(Part.FILTER, id, new Value.Choice(known));
    }

    private void pick(String id, String text) {
        Visual visual = wires.visuals().get(id);
        VisualKind<Visual> kind = visual == null ? null : kinds.of(visual);
        if (kind == null || kind.picks(visual).isEmpty()) {
            misfits.add("The address names a pick on a visual that this dashboard no longer has; it is left out.");
            return;
        }
        Optional<Value.Pick> pick = Texts.pick(text);
        if (pick.isEmpty()) {
            misfits.add("The address holds a pick that cannot be read; it is left out.");
            return;
        }
        if (!(pick.get() instanceof Value.Values values)) {
            state = state.with(Part.PICK, id, pick.get());
            return;
        }
        List<String> known = known(kind.known(visual, values.values(), datasets), values.values());
        if (!known.isEmpty()) state = state.with(Part.PICK, id, new Value.Values(known));
    }

    /** Leaves out values that no row has. A dataset that has gone is told by the visuals. */
    private List<String> known(Known known, List<String> asked) {
        if (known.values().size() < asked.size() && known.where() != null) {
            List<String> strangers = asked.stream()
                    .filter(v -> !known.values().contains(v))
                    .limit(MOST_NAMED)
                    .toList();
            misfits.add("The address asks for %s, which %s; it is left out."
                    .formatted(Words.list(strangers, "and"), known.where()));
        }
        return known.values();
    }

    private void turned(String id, String text) {
        Visual visual = wires.visuals().get(id);
        List<String> parts = visual == null ? List.of() : kinds.of(visual).turnable(visual);
        if (parts.isEmpty()) {
            misfits.add("The address names layers of a map that this dashboard no longer has; they are left out.");
            return;
        }
        List<String> known = Texts.values(text).stream().filter(parts::contains).toList();
        if (!known.isEmpty()) state = state.with(Part.TURNED, id, new Value.Choice(known));
    }

    private void offered(String id, String text) {
        int dot = id.indexOf('.');
        Visual visual = dot > 0 ? wires.visuals().get(id.substring(0, dot)) : null;
        boolean fits = visual != null && kinds.of(visual).offers(visual).contains(id.substring(dot + 1));
        if (!fits || !text.matches("\\d{1,3}"))
            misfits.add("The address chooses a measure for a layer that this dashboard no longer has; it is left out.");
        else if (Integer.parseInt(text) > 0)
            state = state.with(Part.OFFERED, id, new Value.Number(Integer.parseInt(text)));
    }

    private void page(String text) {
        String page = Texts.decode(text);
        if (!wires.pageIds().contains(page))
            misfits.add("The address leads to a page that this dashboard no longer has; its first page is shown.");
        else if (!page.equals(wires.firstPage()))
            state = state.with(Part.PAGE, ReaderState.PAGE, new Value.Choice(List.of(page)));
    }

    private void number(String id, String text) {
        Parameter parameter = wires.parameters().get(id);
        if (parameter == null) {
            misfits.add("The address sets a number that this dashboard no longer has; it is left out.");
            return;
        }
        try {
            double number = Double.parseDouble(Texts.decode(text));
            if (!parameter.allows(number))
                misfits.add("The address sets %s to %s, which lies beyond what it can be; it is left out."
                        .formatted(parameter.name(), NumberWords.full(number)));
            else if (number != parameter.value()) state = state.with(Part.PARAMETER, id, new Value.Number(number));
        } catch (NumberFormatException odd) {
            misfits.add(
                    "The address sets %s to something that is no number; it is left out.".formatted(parameter.name()));
        }
    }
}
