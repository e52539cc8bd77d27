package sarnik.narrow.rules;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.LoadedDataset;
import sarnik.data.Rule;
import sarnik.data.Words;
import sarnik.narrow.FilterKind;
import sarnik.narrow.FilterOffer;
import sarnik.narrow.FilterScene;
import sarnik.query.Condition;
import sarnik.query.Stage;
import sarnik.state.Texts;
import sarnik.state.Value;
import sarnik.table.Column;
import sarnik.visual.Known;

/** The kind of filter that turns rules of the author's on and off. */
public final class RulesKind implements FilterKind<Rules> {

    private static final int MOST = 12;

    private static final List<Slot> OWN = List.of(
            Slot.at("/rules", "rules", "{\"type\": \"object\", \"maxProperties\": 12, \"additionalProperties\": \"*\"}")
                    .needed(),
            Slot.at("/rules/*/name", "name of a rule", "{\"type\": \"string\", \"minLength\": 1, \"maxLength\": 80}")
                    .needed(),
            Slot.at("/rules/*/order", "order of the rules", "{\"type\": \"integer\"}")
                    .needed(),
            Slot.at("/rules/*/rule", "rule", "{\"$ref\": \"#/$defs/rule\"}"));

    @Override
    public String name() {
        return "rules";
    }

    @Override
    public Class<Rules> type() {
        return Rules.class;
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Rules.Named.class);
    }

    @Override
    public List<Slot> slots() {
        List<Slot> slots = new ArrayList<>(SHARED);
        slots.addAll(OWN);
        return slots;
    }

    /** It is about whole rows. */
    @Override
    public boolean fits(Column column) {
        return false;
    }

    @Override
    public String misfit() {
        return phrase("The rows of these rules have gone.");
    }

    @Override
    public FilterOffer offer(Rules filter, Column column, FilterScene scene) {
        Map<String, Object> names = new LinkedHashMap<>();
        for (String id : filter.inOrder()) names.put(id, filter.rules().get(id).name());
        return FilterOffer.values(name(), filter.words(), filter.inOrder(), 0, Map.of("names", names));
    }

    @Override
    public Optional<Value> read(Rules filter, String text) {
        List<String> values = Texts.values(text);
        return values.isEmpty() ? Optional.empty() : Optional.of(new Value.Choice(values));
    }

    @Override
    public String expected() {
        return phrase("rule");
    }

    @Override
    public Known known(Rules filter, List<String> values, FilterScene scene) {
        return new Known(
                values.stream().filter(filter.rules()::containsKey).toList(), phrase("is no rule of this filter"));
    }

    @Override
    public List<Condition> conditions(
            Rules filter, Value value, String column, LoadedDataset dataset, FilterScene scene) {
        List<Condition> conditions = new ArrayList<>();
        for (String id : ((Value.Choice) value).values()) {
            Rule rule = filter.rules().get(id) == null
                    ? null
                    : filter.rules().get(id).rule();
            if (rule == null) continue;
            for (Stage stage : rule.stages(dataset, scene.today(), scene.parameters()))
                conditions.addAll(stage.conditions());
        }
        return conditions;
    }

    @Override
    public List<Rule> rules(Rules filter) {
        return filter.rules().values().stream()
                .map(Rules.Named::rule)
                .filter(Objects::nonNull)
                .toList();
    }

    @Override
    public boolean isOfColumn(Rules filter) {
        return false;
    }

    @Override
    public String words(Rules filter, Value value, FilterScene scene) {
        return phrase(
                "filter, rules|{0} {1}",
                filter.words(),
                Words.list(
                        filter.inOrder().stream()
                                .filter(((Value.Choice) value).values()::contains)
                                .map(id -> "“" + filter.rules().get(id).name() + "”")
                                .toList(),
                        "and"));
    }

    @Override
    public List<Beginning> beginnings(LoadedDataset dataset) {
        return List.of(new Beginning(
                offers(""),
                Choices.map("rules", Choices.map("r1", Choices.map("name", "Rule 1", "order", 1)), "title", "Only")));
    }

    @Override
    public String offers(String column) {
        return "Rules of your own, turned on and off by name";
    }

    @Override
    public void brief(Rules filter, BriefLine line, LoadedDataset dataset, Choices choices) {
        line.say("The reader may turn on, for " + dataset.name() + ": ");
        for (String id : filter.inOrder()) {
            Rules.Named named = filter.rules().get(id);
            String at = "/rules/" + id;
            line.slot(
                    Slot.within(at + "/name", "name of the rule"),
                    "“" + named.name() + "”",
                    Kind.TYPED,
                    false,
                    false,
                    List.of(new Option(named.name(), "", named.name())));
            Choices.rule(line.about(at), named.rule(), dataset);
            line.slot(Slot.within(at, "rule " + named.name()), "take away", Kind.REMOVE, false, true, List.of());
            line.say("; ");
        }
        if (filter.rules().size() >= MOST) return;
        int next = filter.rules().values().stream()
                        .mapToInt(Rules.Named::order)
                        .max()
                        .orElse(0)
                + 1;
        line.may(
                Slot.within("/rules/r" + next, "further rule"),
                "+ a rule",
                true,
                List.of(new Option("a further rule", "", Choices.map("name", "Rule " + next, "order", next))));
    }
}
