package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.TieGraph;
import sarnik.data.Words;
import sarnik.narrow.Link;
import sarnik.narrow.Link.Effect;
import sarnik.narrow.Link.Gesture;
import sarnik.narrow.Parameter;
import sarnik.place.PlacedTable;
import sarnik.visual.Source;
import sarnik.visual.Visual;
import sarnik.visual.VisualKind;

/** Writes what follows when something is done on a visual: a sentence for each gesture. */
final class LinkBrief {

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final Choices choices;
    private final String id;
    private final Visual visual;

    LinkBrief(Dashboard dashboard, Datasets datasets, Choices choices, String id) {
        this.dashboard = dashboard;
        this.datasets = datasets;
        this.choices = choices;
        this.id = id;
        this.visual = dashboard.visuals().get(id);
    }

    void write(BriefLine line) {
        Map<String, Link> links = new LinkedHashMap<>();
        dashboard.links().entrySet().stream()
                .filter(e -> e.getValue().from().equals(id))
                .sorted(Map.Entry.<String, Link>comparingByValue(
                                Comparator.comparing(Link::gesture).thenComparing(Link::follows))
                        .thenComparing(Map.Entry.comparingByKey()))
                .forEach(e -> links.put(e.getKey(), e.getValue()));
        Gesture said = null;
        for (Map.Entry<String, Link> link : links.entrySet()) {
            boolean further = link.getValue().gesture() == said;
            if (said != null && !further) line.say(".");
            if (further) line.say(", and ");
            else gesture(link.getKey(), link.getValue(), line);
            effect(link.getKey(), link.getValue(), line);
            said = link.getValue().gesture();
        }
        if (said != null) line.say(".");
        line.say(" ");
        String fresh = "/links/k" + id + (links.isEmpty() ? "" : "x" + (links.size() + 1));
        for (int n = links.size() + 2; dashboard.links().containsKey(fresh.substring("/links/".length())); n++)
            fresh = "/links/k" + id + "x" + n;
        line.elsewhere("link", fresh, "+ link", true, false, effects(new Link(id, null), Choices.map("across", true)));
    }

    /** What is picked on it: "a town". */
    private String thing() {
        Optional<Source> source = kind(visual).picks(visual);
        String column = source.map(Source::column).orElse("");
        String words = column.equals(PlacedTable.PLACE) ? "place" : ColumnWords.of(column);
        return ("aeiou".indexOf(Character.toLowerCase(words.isEmpty() ? 'x' : words.charAt(0))) < 0 ? "a " : "an ")
                + words;
    }

    private void gesture(String link, Link of, BriefLine line) {
        line.say(" When ");
        List<Option> options = new ArrayList<>();
        for (Gesture gesture : Gesture.values()) {
            if (gesture == Gesture.FRAMED && !kind(visual).framed()) continue;
            if (gesture == Gesture.SPANNED && !kind(visual).spanned()) continue;
            options.add(new Option(words(gesture), hint(gesture), changed(of, "on", gesture.name())));
        }
        line.elsewhere("gesture", "/links/" + link, words(of.gesture()), false, false, options);
        line.say(", ");
    }

    private String words(Gesture gesture) {
        return switch (gesture) {
            case PICKED -> thing() + " is picked here";
            case HOVERED -> "the pointer rests on " + thing() + " here";
            case FRAMED -> "the map is moved";
            case SPANNED -> "a stretch is drawn here";
            case OPENED -> thing() + " is opened here";
        };
    }

    private static String hint(Gesture gesture) {
        return switch (gesture) {
            case PICKED -> "pressed, or drawn around";
            case HOVERED -> "for as long as it rests there";
            case FRAMED -> "by what is in sight of it";
            case SPANNED -> "of time or of numbers";
            case OPENED -> "pressed twice";
        };
    }

    private void effect(String link, Link of, BriefLine line) {
        String path = "/links/" + link;
        line.elsewhere("effect", path, words(of), false, true, effects(of, plain(of)));
        if (of.follows() != Effect.NARROW) return;
        List<String> lost = lost(of);
        if (!lost.isEmpty() || of.goesAcross()) {
            line.say(", with ");
            line.elsewhere(
                    "other datasets",
                    path,
                    of.goesAcross()
                            ? "rows of other datasets that have a partner among what is left"
                            : "of other datasets only what this column is tied to",
                    false,
                    false,
                    List.of(
                            new Option(
                                    "rows of other datasets that have a partner among what is left",
                                    "through ties, over several datasets where it takes them",
                                    changed(of, "across", true)),
                            new Option(
                                    "of other datasets only what this column is tied to",
                                    "",
                                    changed(of, "across", null))));
        }
        // A link that leads nowhere does nothing: its author is told, and which tie would serve.
        if (!lost.isEmpty()) line.say(" (" + String.join("; ", lost) + ")");
        if (of.gesture() == Gesture.FRAMED) return;
        line.say(of.asksFirst() ? ", " : " ");
        line.elsewhere(
                "nothing picked",
                path,
                of.asksFirst() ? "and nothing is shown there until then" : "+ nothing until then",
                !of.asksFirst(),
                false,
                List.of(
                        new Option(
                                "and nothing is shown there until then",
                                "but a sentence that says pick something",
                                changed(of, "asks", true)),
                        new Option("everything is shown there until then", "", changed(of, "asks", null))));
    }

    /** The datasets that a link is to narrow and cannot reach. */
    private List<String> lost(Link link) {
        Optional<Source> source = kind(visual).picks(visual);
        if (source.isEmpty()) return List.of();
        List<String> lost = new ArrayList<>();
        TieGraph graph = new TieGraph(dashboard.datasets(), datasets);
        dashboard.visuals().forEach((other, of) -> {
            if (!link.reaches(other) || link.to() == null && !of.page().equals(visual.page())) return;
            for (long dataset : kind(of).datasets(of)) {
                if (Unreached.is(datasets, graph, source.get(), dataset, link.goesAcross()))
                    Unreached.words(datasets, source.get(), dataset).ifPresent(lost::add);
            }
        });
        return lost.stream().distinct().toList();
    }

    private String words(Link of) {
        return switch (of.follows()) {
            case NARROW -> targets(of) + (of.to() == null || of.to().size() == 1 ? " is narrowed" : " are narrowed");
            case LIGHT -> "what belongs to it is lit in " + targets(of);
            case FLY -> targets(of) + (of.to() != null && of.to().size() > 1 ? " fly there" : " flies there");
            case OPEN -> targets(of) + (of.to() != null && of.to().size() > 1 ? " slide in" : " slides in");
            case SET -> choices.parts().nameOf(of.part()) + " takes its value";
            case BESIDE -> "the page “" + choices.parts().nameOf(of.part()) + "” slides in beside it, about that alone";
            case GO ->
                of.dashboard() != null
                        ? "another dashboard is gone to with it"
                        : "the page “" + choices.parts().nameOf(of.part()) + "” is gone to with it";
        };
    }

    private String targets(Link of) {
        if (of.to() == null) return of.follows() == Effect.FLY ? "every map" : "every other visual";
        return Words.list(
                of.to().stream()
                        .map(dashboard.visuals()::get)
                        .filter(Objects::nonNull)
                        .map(LinkBrief::name)
                        .toList(),
                "and");
    }

    static String name(Visual visual) {
        if (visual.title() != null && !visual.title().isBlank()) return "“" + visual.title() + "”";
        return kind(visual).words(visual);
    }

    @SuppressWarnings("unchecked")
    private static VisualKind<Visual> kind(Visual visual) {
        return (VisualKind<Visual>) Kinds.ALL.of(visual);
    }

    /** What can follow, each with the whole link. @param base what stays of it */
    private List<Option> effects(Link of, Map<String, Object> base) {
        List<Option> options = new ArrayList<>();
        options.add(option(of, base, Effect.NARROW, null, null));
        for (String other : others()) options.add(option(of, base, Effect.NARROW, List.of(other), null));
        options.add(option(of, base, Effect.LIGHT, null, null));
        List<String> maps = dashboard.visuals().entrySet().stream()
                .filter(e -> kind(e.getValue()).framed())
                .map(Map.Entry::getKey)
                .toList();
        for (String map : maps) options.add(option(of, base, Effect.FLY, List.of(map), null));
        for (String other : others()) options.add(option(of, base, Effect.OPEN, List.of(other), null));
        for (var control : choices.parts().controls()) {
            Parameter parameter = dashboard.parameters().get(control.id());
            // A word of a sentence is chosen, not picked.
            if (parameter != null && parameter.kind() == Parameter.Type.WORD) continue;
            options.add(option(of, base, Effect.SET, null, control.id()));
        }
        for (var page : choices.parts().pages())
            if (!page.id().equals(visual.page()))
                for (Effect leads : List.of(Effect.GO, Effect.BESIDE))
                    options.add(option(of, base, leads, null, page.id()));
        choices.dashboards().forEach((dashboard, title) -> {
            Map<String, Object> value = value(base, Effect.GO, null, null);
            value.put("dashboard", dashboard);
            options.add(new Option("the dashboard “" + title + "” is gone to with it", "", value));
        });
        return options;
    }

    /** Those of its own page first. */
    private List<String> others() {
        return dashboard.visuals().entrySet().stream()
                .filter(other -> !other.getKey().equals(id))
                .sorted(Comparator.comparing(other -> !other.getValue().page().equals(visual.page())))
                .map(Map.Entry::getKey)
                .toList();
    }

    private Option option(Link of, Map<String, Object> base, Effect effect, List<String> to, String part) {
        Link link = new Link(id, to, of.on(), effect, part, null, null, null);
        String hint = to != null && !dashboard.visuals().get(to.get(0)).page().equals(visual.page())
                ? "on the page “"
                        + dashboard.pageName(dashboard.visuals().get(to.get(0)).page()) + "”"
                : "";
        return new Option(words(link), hint, value(base, effect, to, part));
    }

    private Map<String, Object> value(Map<String, Object> base, Effect effect, List<String> to, String part) {
        Map<String, Object> value = new LinkedHashMap<>(base);
        for (String gone : List.of("to", "part", "dashboard", "effect")) value.remove(gone);
        value.put("from", id);
        if (effect != Effect.NARROW) value.put("effect", effect.name());
        if (to != null) value.put("to", to);
        if (part != null) value.put("part", part);
        return value;
    }

    private static Map<String, Object> plain(Link link) {
        return DocumentJson.plain(link);
    }

    private static Map<String, Object> changed(Link link, String name, Object value) {
        Map<String, Object> plain = plain(link);
        if (value == null) plain.remove(name);
        else plain.put(name, value);
        return plain;
    }
}
