package sarnik.dashboard;

import java.util.ArrayList;
import java.util.List;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Slot;
import sarnik.data.Words;
import sarnik.narrow.Parameter;
import sarnik.narrow.Parameter.Control;
import sarnik.narrow.Parameter.Type;
import sarnik.scale.NumberWords;

/** Writes what a parameter is, how it is turned and where it stands. */
final class ParameterBrief {

    private ParameterBrief() {}

    static Brief write(Dashboard dashboard, String id, Parameter parameter) {
        BriefLine line = new BriefLine("/parameters/" + id);
        line.say("The reader sets the " + thing(parameter.kind()) + " ");
        line.slot(
                Slot.within("/name", "name"),
                "“" + parameter.name() + "”",
                Kind.TYPED,
                false,
                false,
                List.of(new Option(parameter.name(), "", parameter.name())));
        if (parameter.kind() == Type.NUMBER) number(parameter, line);
        else other(parameter, line);
        line.say(", turned by ");
        control(parameter, line);
        if (parameter.at() != null && !parameter.at().isEmpty()) {
            line.say(". It stands in ");
            line.slot(
                    Slot.within("/at", "where it stands"),
                    Words.list(
                            parameter.at().stream()
                                    .map(at -> place(dashboard, at))
                                    .toList(),
                            "and"),
                    Kind.CHOSEN,
                    false,
                    true,
                    List.of());
        } else if (parameter.kind() == Type.NUMBER)
            line.say(
                    ". Scales can turn about it: choose it as the centre in a layer's brief; rules and formulas know it as :"
                            + id);
        else line.say(". Rules and formulas know it as :" + id);
        TermsBrief.name(dashboard, id, parameter.name(), line);
        line.say(".");
        return new Brief(line.parts(), List.of());
    }

    private static String thing(Type type) {
        return switch (type) {
            case NUMBER -> "number";
            case TEXT -> "text";
            case DATE -> "day";
            case YES_NO -> "switch";
            case WORD -> "word";
            case PLACE -> "place";
        };
    }

    private static void number(Parameter parameter, BriefLine line) {
        line.say(", at first ");
        line.slot(
                Slot.within("/value", "first value"),
                NumberWords.full(parameter.value()),
                Kind.NUMBER,
                false,
                false,
                List.of());
        bound(line, "/low", "least value", ", no less than ", parameter.low());
        bound(line, "/high", "greatest value", " and no more than ", parameter.high());
        bound(line, "/step", "step", ", by steps of ", parameter.step());
    }

    private static void bound(BriefLine line, String pointer, String name, String words, Double value) {
        line.say(value == null ? " " : words);
        line.may(
                Slot.within(pointer, name),
                value == null ? "+ " + name : NumberWords.full(value),
                Kind.NUMBER,
                value == null,
                List.of());
    }

    private static void other(Parameter parameter, BriefLine line) {
        if (parameter.kind() == Type.TEXT) {
            boolean none = parameter.choices().isEmpty();
            line.say(none ? ", " : ", one of ");
            line.slot(
                    Slot.within("/options", "texts to choose from"),
                    none ? "+ texts to choose from" : words(parameter),
                    Kind.LINES,
                    none,
                    !none,
                    parameter.choices().stream()
                            .map(o -> new Option(o.words(), "", o.words()))
                            .toList());
        } else if (parameter.kind() == Type.WORD) line.say(", one of " + words(parameter));
        List<Option> firsts = new ArrayList<>();
        if (parameter.kind() == Type.YES_NO)
            for (String yes : List.of("yes", "no")) firsts.add(new Option(yes, "", yes));
        for (int i = 0; i < parameter.choices().size(); i++) {
            String words = parameter.choices().get(i).words();
            firsts.add(new Option(words, "", parameter.kind() == Type.WORD ? String.valueOf(i) : words));
        }
        String first = parameter.begins().map(parameter::words).orElse("");
        line.say(first.isEmpty() ? ", " : ", at first ");
        line.slot(
                Slot.within("/first", "first value"),
                first.isEmpty() ? "+ first value" : first,
                firsts.isEmpty() ? Kind.TYPED : Kind.CHOSEN,
                first.isEmpty(),
                parameter.first() != null,
                firsts.isEmpty() ? List.of(new Option(first, "", first)) : firsts);
    }

    private static String words(Parameter parameter) {
        return Words.list(
                parameter.choices().stream().map(Parameter.Option::words).toList(), "or");
    }

    private static void control(Parameter parameter, BriefLine line) {
        boolean chosen = !parameter.choices().isEmpty() || parameter.kind() == Type.YES_NO;
        List<Control> fitting = parameter.kind() == Type.NUMBER
                ? List.of(Control.TYPED, Control.SLIDER, Control.STEPS)
                : chosen ? List.of(Control.LIST, Control.SWITCH) : List.of(Control.TYPED);
        Control now = parameter.control() != null && fitting.contains(parameter.control())
                ? parameter.control()
                : fitting.get(0);
        line.choose(
                Slot.within("/control", "how it is turned"),
                parameter.control() == null && chosen ? "what suits it" : words(now),
                fitting.stream()
                        .map(control -> new Option(words(control), "", control.name()))
                        .toList());
    }

    private static String words(Control control) {
        return switch (control) {
            case TYPED -> "typing";
            case LIST -> "a list";
            case SLIDER -> "a handle";
            case STEPS -> "less and more";
            case SWITCH -> "a row of words";
        };
    }

    /** "the measure of “Litres by town”". */
    private static String place(Dashboard dashboard, String at) {
        String[] path = at.split("/", 4);
        String word = path[3].substring(path[3].lastIndexOf('/') + 1);
        if (path[1].equals("visuals") && dashboard.visuals().containsKey(path[2]))
            return "the " + word + " of " + LinkBrief.name(dashboard.visuals().get(path[2]));
        if (path[1].equals("filters") && dashboard.filters().containsKey(path[2]))
            return "the " + word + " of the filter "
                    + dashboard.filters().get(path[2]).words();
        return "a part that has gone";
    }
}
