package sarnik.visual.words;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import sarnik.brief.Brief.Kind;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Slot;
import sarnik.data.ColumnWords;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.visual.Asked;
import sarnik.visual.Fields;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.Trail;
import sarnik.visual.VisualKind;

/** The kind of visual that says something in words, with figures inside the sentences. */
public final class WordsKind implements VisualKind<Words> {

    private static final Slot TEXT = Slot.at("/text", "text", "{\"type\": \"string\", \"maxLength\": 10000}")
            .needed();
    private static final Slot DATASET = Slot.at("/dataset", "dataset", "{\"type\": [\"integer\", \"null\"]}");
    private static final Slot FIGURES = Slot.at(
            "/figures",
            "figures",
            "{\"type\": [\"array\", \"null\"], \"items\": {\"$ref\": \"#/$defs/measure\"}, \"maxItems\": 20}");

    @Override
    public String name() {
        return "words";
    }

    @Override
    public Class<Words> type() {
        return Words.class;
    }

    @Override
    public Class<WordsDrawing> drawing() {
        return WordsDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 2h8M1 4h7M1 6h8M1 8h5";
    }

    @Override
    public List<Slot> slots() {
        return List.of(TEXT, DATASET, FIGURES);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Words.class);
    }

    @Override
    public String words(Words words) {
        return phrase("the words");
    }

    @Override
    public Set<Long> datasets(Words words) {
        return words.dataset() == null ? Set.of() : Set.of(words.dataset());
    }

    @Override
    public Plan plan(Words words, Scene scene) {
        Plan plan = new Plan();
        if (words.dataset() == null
                || words.figures() == null
                || words.figures().isEmpty())
            return plan.drawn(answers ->
                    new WordsDrawing(title(words), CommonMark.of(words.text(), name -> null), List.of(), null));
        LoadedDataset dataset = scene.dataset(words.dataset());
        Asked asked = plan.ask(dataset, Query.of(scene.shown(dataset, null), List.of(), words.figures()));
        return plan.drawn(answers -> {
            Frame frame = answers.of(asked);
            return new WordsDrawing(
                    title(words),
                    CommonMark.of(
                            words.text(),
                            field -> Fields.figure(field, dataset, words.figures(), m -> frame.value(m, 0))),
                    List.of(),
                    Trail.of(frame.trail()));
        });
    }

    private static String title(Words words) {
        return words.title() == null ? "" : words.title();
    }

    @Override
    public void brief(Words words, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        line.say("Words: ");
        line.slot(
                TEXT,
                words.text().isBlank() ? "+ text" : "“" + shortened(words.text()) + "”",
                Kind.TEXT,
                words.text().isBlank(),
                false,
                List.of(new Option(words.text(), "", words.text())));
        if (words.dataset() == null) {
            line.say(" ");
            line.slot(
                    DATASET,
                    "+ figures of a dataset",
                    Kind.CHOSEN,
                    true,
                    false,
                    choices.datasets().entrySet().stream()
                            .map(d -> new Option(d.getValue(), "", d.getKey()))
                            .toList());
            line.say(".");
            return;
        }
        LoadedDataset dataset = datasets.get(words.dataset());
        int count = words.figures() == null ? 0 : words.figures().size();
        line.say(" with figures of " + dataset.name() + ": ");
        line.slot(
                FIGURES,
                count == 0
                        ? "+ figures"
                        : String.join(
                                ", ",
                                words.figures().stream()
                                        .map(m -> "{" + ColumnWords.of(m) + "}")
                                        .toList()),
                Kind.SET,
                count == 0,
                count > 0,
                choices.measures(dataset));
        line.say(".");
    }

    private static String shortened(String text) {
        String line = text.strip().lines().findFirst().orElse("");
        return line.length() <= 60 ? line : line.substring(0, 59) + "…";
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset) {
        if (question != Question.SAY) return List.of();
        List<Proposal> proposals = new ArrayList<>();
        Measure measure = Telling.measures(dataset).stream().findFirst().orElse(Measure.ROWS);
        String name = ColumnWords.of(measure);
        proposals.add(new Proposal(
                "A sentence with a figure in it",
                new Words(
                        null,
                        null,
                        "",
                        "What is shown comes to **{" + name + "}** (" + name + ").",
                        dataset.id(),
                        List.of(measure)),
                10,
                3));
        proposals.add(new Proposal(
                "A heading and a few words",
                new Words(null, null, "", "## What this page answers\n\nSay here how it is to be read.", null, null),
                10,
                4));
        String credit = dataset.about().credit();
        if (credit != null && !credit.isEmpty())
            proposals.add(new Proposal(
                    "Where the figures come from", new Words(null, null, "", "Source: " + credit, null, null), 10, 2));
        return proposals;
    }
}
