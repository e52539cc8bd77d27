package sarnik.narrow;

import static sarnik.language.Language.phrase;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import sarnik.data.ColumnWords;
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

    /** What addresses call what was picked elsewhere: {@code carry.2.town=Soria}. */
    public static final String CARRIED = "carry.";

    /** So many strangers are named. */
    private static final int MOST_NAMED = 12;

    private final Wires wires;
    private final Datasets datasets;
    private final Registry kinds;
    private final FilterScene scene;
    private final List<String> misfits = new ArrayList<>();
    private final List<String> strangers = new ArrayList<>();
    private ReaderState state = ReaderState.NOTHING;

    private StateReader(Wires wires, Datasets datasets, Registry kinds, LocalDate today) {
        this.wires = wires;
        this.datasets = datasets;
        this.kinds = kinds;
        this.scene = new FilterScene(today, datasets, null);
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
        StateReader reader = new StateReader(wires, datasets, kinds, LocalDate.ofEpochDay(0));
        ReaderState.parts(text, reader::take, reader::named);
        reader.strangers();
        return new Read(reader.state, List.copyOf(reader.misfits));
    }

    /** A part that an address calls by the name its author gave it. */
    private void named(String name, String text) {
        String id = wires.names().entrySet().stream()
                .filter(e -> e.getValue().equals(name))
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse(null);
        if (id == null && name.startsWith(CARRIED)) {
            carried(name.substring(CARRIED.length()), text);
            return;
        }
        if (name.equals(ReaderState.PAGE) && id == null) {
            String page = Texts.decode(text);
            take(
                    Part.PAGE,
                    ReaderState.PAGE,
                    wires.names().entrySet().stream()
                            .filter(e ->
                                    e.getValue().equals(page) && wires.pageIds().contains(e.getKey()))
                            .map(Map.Entry::getKey)
                            .findFirst()
                            .orElse(page));
        } else if (id == null) strangers.add(name);
        else if (wires.filters().containsKey(id)) take(Part.FILTER, id, text);
        else if (wires.parameters().containsKey(id)) take(Part.PARAMETER, id, text);
        else if (wires.visuals().containsKey(id))
            take(kinds.of(wires.visuals().get(id)).part(), id, text);
        else strangers.add(name);
    }

    /** What was picked on another dashboard: it sets the filter, or the pick, that is about the same column. */
    private void carried(String source, String text) {
        int dot = source.indexOf('.');
        for (Map.Entry<String, Filter> entry : wires.filters().entrySet()) {
            Filter filter = entry.getValue();
            if (source.equals(filter.dataset() + "." + filter.column())
                    && kinds.of(filter).counted(filter).isPresent()) {
                take(Part.FILTER, entry.getKey(), text);
                return;
            }
        }
        for (Map.Entry<String, Visual> entry : wires.visuals().entrySet()) {
            Optional<Source> picks = kinds.of(entry.getValue()).picks(entry.getValue());
            if (picks.isPresent()
                    && source.equals(picks.get().dataset() + "." + picks.get().column())) {
                take(Part.PICK, entry.getKey(), text);
                return;
            }
        }
        misfits.add(
                dot < 0
                        ? phrase("What was picked came along, but nothing here is about it; it is left out.")
                        : phrase(
                                "What was picked came along, but nothing here is about {0}; it is left out.",
                                ColumnWords.of(source.substring(dot + 1))));
    }

    private void strangers() {
        if (strangers.isEmpty()) return;
        misfits.add(phrase(
                "The address says something of {0}, which this dashboard does not know; it is left out.",
                Words.list(
                        strangers.stream()
                                .limit(MOST_NAMED)
                                .map(s -> "“" + s + "”")
                                .toList(),
                        "and")));
    }

    private void take(Part part, String id, String text) {
        if (text.isEmpty()) return;
        switch (part) {
            case FILTER -> filter(id, text);
            case PICK -> pick(id, text);
            case TURNED -> turned(id, text);
            case OFFERED -> offered(id, text);
            case PARAMETER -> parameter(id, text);
            case FRAME -> frame(id, text);
            case MOMENT -> moment(id, text);
            case SCALES -> scales(text);
            case PAGE -> page(text);
        }
    }

    private void filter(String id, String text) {
        Filter filter = wires.filters().get(id);
        if (filter == null) {
            misfits.add(phrase("The address names a filter that this dashboard no longer has; it is left out."));
            return;
        }
        if (Texts.isAll(text)) {
            if (filter.how().first() != null) state = state.with(Part.FILTER, id, new Value.All());
            return;
        }
        FilterKind<Filter> kind = kinds.of(filter);
        Optional<Value> value = kind.read(filter, text);
        if (value.isEmpty()) {
            misfits.add(phrase(
                    "The address holds no {0} that can be read for “{1}”; it is left out.",
                    kind.expected(), filter.words()));
            return;
        }
        Value read = value.get();
        // A range that is open at both ends is everything; two dots that can be chosen are a value like others.
        if (!(read instanceof Value.Choice) && read.text().equals("..")) return;
        if (read instanceof Value.Choice choice) {
            List<String> known = known(kind.known(filter, choice.values(), scene), choice.values());
            if (known.isEmpty()) return;
            read = new Value.Choice(known);
        }
        if (!read.text().equals(filter.how().first())) state = state.with(Part.FILTER, id, read);
    }

    private void pick(String id, String text) {
        Visual visual = wires.visuals().get(id);
        VisualKind<Visual> kind = visual == null ? null : kinds.of(visual);
        if (kind == null || kind.picks(visual).isEmpty()) {
            misfits.add(
                    phrase("The address names a pick on a visual that this dashboard no longer has; it is left out."));
            return;
        }
        Optional<Value.Pick> pick = Texts.pick(text);
        if (pick.isEmpty()) {
            misfits.add(phrase("The address holds a pick that cannot be read; it is left out."));
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
            misfits.add(phrase(
                    "The address asks for {0}, which {1}; it is left out.",
                    Words.list(strangers, "and"), known.where()));
        }
        return known.values();
    }

    private void turned(String id, String text) {
        Visual visual = wires.visuals().get(id);
        List<String> parts = visual == null ? List.of() : kinds.of(visual).turnable(visual);
        if (parts.isEmpty()) {
            misfits.add(
                    phrase("The address names layers of a map that this dashboard no longer has; they are left out."));
            return;
        }
        List<String> known = Texts.values(text).stream().filter(parts::contains).toList();
        if (!known.isEmpty()) state = state.with(Part.TURNED, id, new Value.Choice(known));
    }

    private void offered(String id, String text) {
        List<String> swap = wires.swaps().get(id);
        if (swap != null && text.matches("\\d{1,3}") && Integer.parseInt(text) < swap.size()) {
            if (Integer.parseInt(text) > 0)
                state = state.with(Part.OFFERED, id, new Value.Number(Integer.parseInt(text)));
            return;
        }
        int dot = id.indexOf('.');
        Visual visual = dot > 0 ? wires.visuals().get(id.substring(0, dot)) : null;
        boolean fits = visual != null && kinds.of(visual).offers(visual).contains(id.substring(dot + 1));
        if (!fits || !text.matches("\\d{1,3}"))
            misfits.add(phrase(
                    "The address chooses a measure for a layer that this dashboard no longer has; it is left out."));
        else if (Integer.parseInt(text) > 0)
            state = state.with(Part.OFFERED, id, new Value.Number(Integer.parseInt(text)));
    }

    private void scales(String text) {
        if (text.equals(ReaderState.ALL_ROWS) || text.equals(ReaderState.SHOWN_ROWS))
            state = state.with(Part.SCALES, ReaderState.PAGE, new Value.Choice(List.of(text)));
        else misfits.add(phrase("The address says of the scales what they cannot rest on; it is left out."));
    }

    private void page(String text) {
        String page = Texts.decode(text);
        if (!wires.pageIds().contains(page))
            misfits.add(
                    phrase("The address leads to a page that this dashboard no longer has; its first page is shown."));
        else if (!page.equals(wires.firstPage()))
            state = state.with(Part.PAGE, ReaderState.PAGE, new Value.Choice(List.of(page)));
    }

    private void parameter(String id, String text) {
        Parameter parameter = wires.parameters().get(id);
        if (parameter == null) {
            misfits.add(phrase("The address sets something that this dashboard no longer has; it is left out."));
            return;
        }
        Optional<Value> value = parameter.read(Texts.decode(text));
        if (value.isPresent()) {
            if (!value.equals(parameter.begins())) state = state.with(Part.PARAMETER, id, value.get());
            return;
        }
        misfits.add(unfit(parameter, Texts.decode(text)));
    }

    private static String unfit(Parameter parameter, String text) {
        if (parameter.kind() != Parameter.Type.NUMBER)
            return phrase("The address sets {0} to something that it cannot be; it is left out.", parameter.name());
        try {
            return phrase(
                    "The address sets {0} to {1}, which lies beyond what it can be; it is left out.",
                    parameter.name(), NumberWords.full(Double.parseDouble(text)));
        } catch (NumberFormatException odd) {
            return phrase("The address sets {0} to something that is no number; it is left out.", parameter.name());
        }
    }

    private void frame(String id, String text) {
        boolean followed = wires.links().values().stream()
                .anyMatch(link -> link.from().equals(id) && link.gesture() == Link.Gesture.FRAMED);
        Optional<Value.Pick> frame = Texts.pick(text).filter(Value.Extent.class::isInstance);
        if (!followed || !wires.visuals().containsKey(id))
            misfits.add(phrase("The address says what is in sight of a map that nothing follows; it is left out."));
        else if (frame.isEmpty())
            misfits.add(phrase("The address holds an extent that cannot be read; it is left out."));
        else state = state.with(Part.FRAME, id, frame.get());
    }

    private void moment(String id, String text) {
        Visual visual = wires.visuals().get(id);
        Optional<Value> moment =
                visual == null ? Optional.empty() : kinds.of(visual).moment(visual, text, datasets);
        if (moment.isEmpty())
            misfits.add(phrase(
                    "The address holds a moment that cannot be read, or of a player that has gone; it is left out."));
        else state = state.with(Part.MOMENT, id, moment.get());
    }
}
