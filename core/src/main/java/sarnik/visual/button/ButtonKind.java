package sarnik.visual.button;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import sarnik.brief.Brief;
import sarnik.brief.Brief.Option;
import sarnik.brief.BriefLine;
import sarnik.brief.Choices;
import sarnik.brief.Parts;
import sarnik.brief.Slot;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.visual.Plan;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Scene;
import sarnik.visual.VisualKind;
import sarnik.visual.button.Button.Does;

/** The kind of visual that is pressed. */
public final class ButtonKind implements VisualKind<Button> {

    private static final Slot WORDS = Slot.at(
                    "/words", "words on the button", "{\"type\": \"string\", \"maxLength\": 200}")
            .needed();
    private static final Slot DOES = Slot.at(
                    "/does",
                    "what a press does",
                    "{\"type\": \"object\", \"additionalProperties\": false, \"required\": [\"kind\"], "
                            + "\"properties\": {"
                            + "\"kind\": {\"enum\": [\"CLEAR\", \"STATE\", \"ADDRESS\", \"FIGURES\", \"PAGE\"]}, "
                            + "\"address\": {\"type\": [\"string\", \"null\"], \"maxLength\": 2000, "
                            + "\"pattern\": "
                            + "\"^(?:https?://[^\\\\s]+|mailto:[^\\\\s]+|/(?![/\\\\\\\\])[^\\\\s]*|#[^\\\\s]*|)$\"}, "
                            + "\"state\": {\"type\": [\"string\", \"null\"], \"maxLength\": 20000}, "
                            + "\"visual\": {\"type\": [\"string\", \"null\"], \"maxLength\": 31}, "
                            + "\"page\": {\"type\": [\"string\", \"null\"], \"maxLength\": 31}}}")
            .needed();

    @Override
    public String name() {
        return "button";
    }

    @Override
    public Class<Button> type() {
        return Button.class;
    }

    @Override
    public Class<ButtonDrawing> drawing() {
        return ButtonDrawing.class;
    }

    @Override
    public String sign() {
        return "M1 3h8v4H1zM3 5h4";
    }

    @Override
    public List<Slot> slots() {
        return List.of(WORDS, DOES);
    }

    @Override
    public List<Class<?>> said() {
        return List.of(Button.class, Does.class);
    }

    @Override
    public String words(Button button) {
        return phrase("the button “{0}”", button.words());
    }

    @Override
    public Set<Long> datasets(Button button) {
        return Set.of();
    }

    @Override
    public Set<String> dependsOn(Button button) {
        return Stream.of(button.does().visual(), button.does().page())
                .filter(Objects::nonNull)
                .collect(Collectors.toSet());
    }

    @Override
    public Plan plan(Button button, Scene scene) {
        Does does = button.does();
        boolean empty = does.kind() == Does.Kind.ADDRESS
                        && (does.address() == null || does.address().isEmpty())
                || does.kind() == Does.Kind.FIGURES && does.visual() == null
                || does.kind() == Does.Kind.PAGE && does.page() == null;
        return Plan.of(new ButtonDrawing(
                button.title() == null ? "" : button.title(),
                button.words(),
                does.kind().name().toLowerCase(Locale.ROOT),
                does.address(),
                does.state(),
                does.visual(),
                does.page(),
                empty ? phrase("A press does nothing yet. Say in the brief where it leads.") : null));
    }

    @Override
    public void brief(Button button, BriefLine line, BriefLine looks, Choices choices, Datasets datasets) {
        Does does = button.does();
        line.say("A button that says ");
        line.slot(
                WORDS,
                "“" + button.words() + "”",
                Brief.Kind.TYPED,
                false,
                false,
                List.of(new Option(button.words(), "", "")));
        line.say(" and ");
        List<Option> options = new ArrayList<>();
        options.add(new Option(
                Does.Kind.CLEAR.words(), "what was chosen and picked", new Does(Does.Kind.CLEAR, null, null, null)));
        options.add(new Option(
                Does.Kind.ADDRESS.words(),
                "to a web address or another dashboard",
                new Does(Does.Kind.ADDRESS, "", null, null)));
        for (Parts.Part part : choices.parts().visuals())
            options.add(new Option(
                    "takes the figures of “" + part.words() + "” along",
                    "as a CSV file",
                    new Does(Does.Kind.FIGURES, null, null, part.id())));
        if (choices.parts().pages().size() > 1)
            for (Parts.Part page : choices.parts().pages())
                options.add(new Option(
                        "goes to the page “" + page.words() + "”",
                        "what was chosen is kept",
                        new Does(Does.Kind.PAGE, null, null, null, page.id())));
        // The state is that of the page at the moment: the browser puts it in.
        options.add(new Option(
                "shows what is chosen now",
                "filters, picks and numbers as they are",
                Choices.map("kind", "STATE", "state", Brief.STATE_NOW)));
        line.choose(
                DOES,
                does.kind() == Does.Kind.FIGURES && does.visual() != null
                        ? "takes the figures of “" + choices.parts().nameOf(does.visual()) + "” along"
                        : does.kind() == Does.Kind.PAGE && does.page() != null
                                ? "goes to the page “" + choices.parts().nameOf(does.page()) + "”"
                                : does.kind().words(),
                options);
        if (does.kind() == Does.Kind.ADDRESS) {
            boolean empty = does.address() == null || does.address().isEmpty();
            line.say(", to ");
            line.slot(
                    Slot.within("/does/address", "address"),
                    empty ? "+ address" : does.address(),
                    Brief.Kind.TYPED,
                    empty,
                    false,
                    List.of(new Option(empty ? "" : does.address(), "", "")));
        }
        line.say(".");
    }

    @Override
    public List<Proposal> proposals(Question question, LoadedDataset dataset, Parts parts) {
        if (question != Question.LET_CHOOSE) return List.of();
        return List.of(
                proposal(
                        "A button that puts everything back",
                        "Show everything",
                        new Does(Does.Kind.CLEAR, null, null, null)),
                proposal("A button that leads elsewhere", "Read more", new Does(Does.Kind.ADDRESS, "", null, null)));
    }

    private static Proposal proposal(String words, String on, Does does) {
        return new Proposal(words, new Button(null, null, "", on, does), 5, 2);
    }
}
