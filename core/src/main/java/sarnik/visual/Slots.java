package sarnik.visual;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.Format;
import sarnik.data.LoadedDataset;
import sarnik.data.Ranking;
import sarnik.data.Words;
import sarnik.query.Measure;
import sarnik.query.Over;
import sarnik.query.Rank;
import sarnik.query.Summary;
import sarnik.query.TimeStep;
import sarnik.scale.NumberWords;
import sarnik.table.Column;
import sarnik.table.Extremes;

/** Slots that several kinds of visual have. */
public final class Slots {

    public static final Slot PAGE =
            Slot.at("/page", "page", "{\"$ref\": \"#/$defs/id\"}").needed();

    public static final Slot AT =
            Slot.at("/at", "place on the sheet", "{\"$ref\": \"#/$defs/box\"}").needed();

    public static final Slot TITLE = Slot.at("/title", "title", "{\"$ref\": \"#/$defs/words\"}");

    public static final Slot DATASET =
            Slot.at("/dataset", "dataset", "{\"type\": \"integer\"}").needed();

    public static final Slot MEASURE =
            Slot.at("/measure", "measure", "{\"$ref\": \"#/$defs/measure\"}").needed();

    public static final Slot CATEGORY =
            Slot.at("/category", "category", "{\"$ref\": \"#/$defs/column\"}").needed();

    public static final Slot RANK = Slot.at("/rank", "rank", "{\"$ref\": \"#/$defs/rank\"}");

    public static final Slot REFERENCES = Slot.at("/references", "reference lines", Reference.SCHEMA);

    public static final Slot PINNED = Slot.at("/pinned", "notes", Note.SCHEMA);

    public static final Slot COLOUR = Slot.at("/colour", "colour", "{\"$ref\": \"#/$defs/colour\"}");

    public static final Slot FORMAT = Slot.at("/format", "way figures are written", "{\"$ref\": \"#/$defs/format\"}");

    public static final Slot STATES = Slot.at("/states", "good and bad", States.SCHEMA);

    /** Steps that a note can be pinned to. */
    private static final int MOST_STEPS = 120;

    private static final Slot HELD = Slot.within("/rank/held", "what is ranked");
    private static final Slot OTHERS = Slot.within("/rank/others", "the rest");

    private Slots() {}

    /**
     * Writes the slot of a rank that says which groups are kept.
     *
     * @param usual how many are kept where nothing is said
     */
    public static void rank(BriefLine line, Ranking rank, int usual) {
        boolean held = rank != null && rank.held();
        List<Option> ranks = new ArrayList<>();
        for (Rank.End end : Rank.End.values())
            for (int count : new int[] {3, 5, 8})
                ranks.add(new Option(rankWords(end, count), "", new Ranking(end, count, held)));
        line.say(", ");
        line.may(
                RANK.named("which of them"),
                rank == null ? "the top " + Choices.count(usual) : rankWords(rank.end(), rank.count()),
                rank == null,
                ranks);
    }

    /** "the top ten", "the top and bottom five". */
    public static String rankWords(Rank.End end, int count) {
        return "the " + end.words() + " " + Choices.count(count);
    }

    /** Writes the slots that say on what a rank is taken, and what becomes of the rest. */
    public static void ranked(BriefLine line, Ranking rank) {
        line.say(", ranked ");
        line.choose(
                HELD,
                rank.held() ? "of all" : "of what is picked",
                List.of(
                        new Option("of what is picked", "picks narrow first, then the rank is taken", false),
                        new Option("of all", "the rank is taken first, then picks narrow", true)));
        boolean others = Boolean.TRUE.equals(rank.others());
        line.say(" ");
        line.may(
                OTHERS,
                others ? "with the others as one" : "+ the others",
                !others,
                List.of(new Option("with the others as one", "what the rank leaves out, summed up", true)));
    }

    /** Writes the slot of which percentile a measure is, where it is one. */
    public static void percentile(BriefLine line, String pointer, Measure measure) {
        if (measure.summary() != Summary.PERCENTILE) return;
        line.say(", the ");
        line.slot(
                Slot.within(pointer + "/at", "which percentile"),
                measure.summary().words(measure.at()),
                Kind.NUMBER,
                false,
                false,
                List.of());
    }

    /**
     * Writes the slots of a measure: which percentile it is, what is worked out over it.
     *
     * @param along whether the groups follow each other, as steps of time do: the change from one town to the next in
     *     the alphabet says nothing
     */
    public static void over(BriefLine line, String pointer, Measure measure, LoadedDataset dataset, boolean along) {
        percentile(line, pointer, measure);
        boolean addsUp = dataset.addsUp(measure.plain());
        List<Option> options = new ArrayList<>();
        if (addsUp) options.add(new Option("as a share of all", "", new Over(Over.Kind.SHARE, null, null)));
        if (addsUp && along) options.add(new Option("as a running total", "", new Over(Over.Kind.RUNNING, null, null)));
        if (along) along(options);
        options.add(new Option("as its rank", "1 for the most", new Over(Over.Kind.RANK, null, null)));
        Over over = measure.over();
        line.say(" ");
        line.may(
                Slot.within(pointer + "/over", "worked out over all"),
                over == null ? "+ worked out" : words(over),
                over == null,
                options);
    }

    private static void along(List<Option> options) {
        options.add(new Option("as the change to the step before", "", new Over(Over.Kind.DIFFERENCE, null, null)));
        options.add(new Option(
                "as the change to 12 steps before",
                "of months: to the year before",
                new Over(Over.Kind.DIFFERENCE, 12, null)));
        options.add(new Option(
                "as the change to 4 steps before",
                "of quarters: to the year before",
                new Over(Over.Kind.DIFFERENCE, 4, null)));
        for (int steps : new int[] {3, 7, 12, 30})
            options.add(
                    new Option("as a moving average of " + steps, "steps", new Over(Over.Kind.MOVING, steps, null)));
    }

    private static String words(Over over) {
        return switch (over.kind()) {
            case SHARE -> "as a share of all";
            case RUNNING -> "as a running total";
            case DIFFERENCE ->
                over.steps() == null || over.steps() == 1
                        ? "as the change to the step before"
                        : "as the change to " + over.steps() + " steps before";
            case MOVING -> "as a moving average of " + (over.steps() == null ? 7 : over.steps());
            case RANK -> "as its rank";
        };
    }

    /** Writes the slot of reference lines. */
    public static void references(BriefLine line, List<Reference> references, Choices choices) {
        List<Option> options = new ArrayList<>(List.of(
                new Option("the mean", "", new Reference(Reference.Kind.MEAN, null, null, null, null)),
                new Option("the median", "", new Reference(Reference.Kind.MEDIAN, null, null, null, null)),
                new Option(
                        "a target",
                        "a value that you write",
                        new Reference(Reference.Kind.TARGET, 0.0, null, null, null)),
                new Option(
                        "a band",
                        "from one value that you write to another",
                        new Reference(Reference.Kind.BAND, 0.0, null, null, 100.0))));
        choices.parameters()
                .forEach((id, parameter) -> options.add(new Option(
                        "the reader's “" + parameter.name() + "”",
                        "",
                        new Reference(Reference.Kind.PARAMETER, null, id, parameter.name(), null))));
        int count = references == null ? 0 : references.size();
        line.say(" ");
        line.slot(
                REFERENCES,
                count == 0
                        ? "+ reference line"
                        : "with "
                                + Words.list(
                                        references.stream()
                                                .map(r -> r.kind().words())
                                                .toList(),
                                        "and"),
                Kind.SET,
                count == 0,
                count > 0,
                options);
        for (int i = 0; i < count; i++) {
            Reference one = references.get(i);
            if (one.kind() == Reference.Kind.TARGET) {
                line.say(" at ");
                number(line, "/references/" + i + "/value", "value of the target", one.value());
            } else if (one.kind() == Reference.Kind.BAND) {
                line.say(" from ");
                number(line, "/references/" + i + "/value", "lower end of the band", one.value());
                line.say(" to ");
                number(line, "/references/" + i + "/to", "upper end of the band", one.to());
            }
        }
    }

    private static void number(BriefLine line, String pointer, String name, Double value) {
        line.slot(
                Slot.within(pointer, name),
                value == null ? "+ value" : NumberWords.full(value),
                Kind.NUMBER,
                value == null,
                false,
                List.of());
    }

    /**
     * Writes the slots of notes.
     *
     * @param places what they can be pinned to
     */
    public static void pinned(BriefLine line, List<Note> pinned, List<Option> places) {
        int count = pinned == null ? 0 : pinned.size();
        List<Option> more = places.stream()
                .map(place -> {
                    List<Note> notes = new ArrayList<>(count == 0 ? List.of() : pinned);
                    notes.add(new Note((String) place.value(), "What happened here"));
                    return new Option("at " + place.text(), place.hint(), notes);
                })
                .toList();
        if (count == 0) {
            if (more.isEmpty()) return;
            line.say(" ");
            line.may(PINNED, "+ note", true, more);
            return;
        }
        line.say(count == 1 ? ", with a note at " : ", with notes at ");
        for (int n = 0; n < count; n++) {
            Note note = pinned.get(n);
            if (n > 0) line.say(" and at ");
            line.choose(
                    Slot.within("/pinned/" + n + "/at", "what the note is pinned to"), placeOf(note, places), places);
            line.say(" ");
            line.slot(
                    Slot.within("/pinned/" + n + "/text", "words of the note"),
                    "“" + note.text() + "”",
                    Kind.TYPED,
                    false,
                    false,
                    List.of(new Option(note.text(), "", "")));
        }
        line.say(" ");
        line.slot(PINNED, "+ note", Kind.CHOSEN, true, true, more);
    }

    private static String placeOf(Note note, List<Option> places) {
        return places.stream()
                .filter(p -> p.value().equals(note.at()))
                .map(Option::text)
                .findFirst()
                .orElse(note.at());
    }

    /** The steps of a column of time, the latest first, as something that a note can be pinned to. */
    public static List<Option> steps(LoadedDataset dataset, String time, TimeStep step) {
        Column column = dataset.table().find(time).orElse(null);
        if (column == null || !Choices.isTime(column)) return List.of();
        Optional<Extremes> ends = column.extremes();
        if (ends.isEmpty()) return List.of();
        TimeStep by = step == null ? StepWords.stepFor(column) : step;
        long last = number(by, column.text(ends.get().highest()));
        long first = Math.max(number(by, column.text(ends.get().lowest())), last - MOST_STEPS);
        List<Option> steps = new ArrayList<>();
        for (long n = last; n >= first; n--) steps.add(new Option(StepWords.of(by, n), "", by.text(n)));
        return steps;
    }

    private static long number(TimeStep step, String text) {
        int minute = text.length() < 16
                ? 0
                : Integer.parseInt(text.substring(11, 13)) * 60 + Integer.parseInt(text.substring(14, 16));
        return step.number(LocalDate.parse(text.substring(0, 10)).toEpochDay(), minute);
    }

    /** Where references stand that a parameter sets. */
    public static Stream<String> references(List<Reference> references, String parameter) {
        return Reference.uses(references, parameter) ? Stream.of("/references") : Stream.empty();
    }

    /** Writes the slots of when a value is good and when it is bad. */
    public static void states(BriefLine line, States states) {
        if (states != null) {
            states(line, "/states", states);
            return;
        }
        line.say(" ");
        line.may(
                STATES,
                "+ good and bad",
                true,
                List.of(
                        new Option("more is better", "good from 100, bad up to 50", new States(100, 50)),
                        new Option("less is better", "good up to 50, bad from 100", new States(50, 100))));
    }

    /** Writes the slots of states that are set, wherever they stand. */
    public static void states(BriefLine line, String pointer, States states) {
        boolean more = states.good() >= states.bad();
        line.say(more ? ", good from " : ", good up to ");
        number(line, pointer + "/good", "where good begins", states.good());
        line.say(more ? " and bad up to " : " and bad from ");
        number(line, pointer + "/bad", "where bad begins", states.bad());
        line.say(" ");
        line.choose(
                Slot.within(pointer, "good and bad"),
                more ? "(more is better)" : "(less is better)",
                List.of(new Option(
                        "turned about", "good and bad change places", new States(states.bad(), states.good()))));
    }

    /** Writes the slots of how figures are written. */
    public static void format(BriefLine looks, Format format) {
        looks.say(" · figures ");
        List<Option> options = new ArrayList<>();
        options.add(new Option("whole", "1,234,567", new Format(null, null, true, null, null)));
        options.add(new Option("per cent", "0.25 as 25 %", new Format(null, true, null, null, null)));
        for (int d = 0; d <= 3; d++)
            options.add(new Option(
                    "with " + Choices.count(d) + (d == 1 ? " decimal" : " decimals"),
                    "",
                    new Format(d, null, true, null, null)));
        options.add(new Option("in euros", "€1,234.50", new Format(2, null, true, "€", null)));
        looks.may(FORMAT, format == null ? "+ as you wish" : words(format), format == null, options);
        if (format == null) return;
        for (String[] part :
                new String[][] {{"before", "before them", format.before()}, {"after", "behind them", format.after()}}) {
            boolean empty = part[2] == null || part[2].isEmpty();
            looks.say(" ");
            looks.may(
                    Slot.within("/format/" + part[0], part[1]),
                    empty ? "+ " + part[1] : "“" + part[2] + "” " + part[1],
                    Kind.TYPED,
                    empty,
                    List.of(new Option(empty ? "" : part[2], "", "")));
        }
    }

    private static String words(Format format) {
        if (Boolean.TRUE.equals(format.percent())) return "per cent";
        if (format.decimals() != null)
            return "with " + Choices.count(format.decimals()) + (format.decimals() == 1 ? " decimal" : " decimals");
        return Boolean.TRUE.equals(format.whole()) ? "whole" : "short";
    }

    /** Writes the slot of the key that the colours of a category wear. */
    public static void categoryColour(BriefLine looks, Colour colour, Choices choices) {
        if (choices.keys().isEmpty() && (colour == null || colour.key() == null)) return;
        String key = colour == null ? null : colour.key();
        looks.say(" · colours ");
        looks.may(
                COLOUR.named("shared key of the colours"),
                key == null ? "+ of a shared key" : "of the shared key “" + key + "”",
                key == null,
                choices.keys().stream()
                        .map(k -> new Option(k.name(), k.words(), Choices.map("palette", "flags", "key", k.name())))
                        .toList());
    }
}
