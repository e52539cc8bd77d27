package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Supplier;
import sarnik.brief.Choices;
import sarnik.data.LoadedDataset;
import sarnik.visual.Box;
import sarnik.visual.Proposal;
import sarnik.visual.Question;

/**
 * A sheet to start from: an arrangement of questions without data. Once a dataset is chosen, each place holds what
 * answers its question best, as an ordinary visual.
 */
public enum StartingSheet {
    ONE_QUESTION(
            "one question",
            "a map, what is most, and how it has changed",
            null,
            null,
            place(Question.WHERE, 0, 0, 14, 13),
            place(Question.WHICH_MOST, 14, 0, 10, 7),
            place(Question.CHANGED, 14, 7, 10, 6)),
    TWO_MAPS(
            "two maps side by side",
            "where the one is, and where the other",
            null,
            null,
            place(Question.WHERE, 0, 0, 12, 11),
            place(Question.WHERE, 12, 0, 12, 11),
            place(Question.WHICH_MOST, 0, 11, 12, 7),
            place(Question.CHANGED, 12, 11, 12, 7)),
    WATCH_WALL(
            "watch wall",
            "fills the window, to be read from afar",
            new Dashboard.Size(Dashboard.Fit.WINDOW, null, null),
            new Finish(null, Finish.Border.STRONG, null, null, null, null, Finish.Lettering.LARGE, null),
            place(Question.HOW_MUCH, 0, 0, 8, 4),
            place(Question.HOW_MUCH, 8, 0, 8, 4),
            place(Question.HOW_MUCH, 16, 0, 8, 4),
            place(Question.WHERE, 0, 4, 14, 12),
            place(Question.CHANGED, 14, 4, 10, 6),
            place(Question.WHICH_MOST, 14, 10, 10, 6)),
    ONE_PLACE(
            "a place’s sheet",
            "all about one, beside where it lies",
            null,
            null,
            place(Question.WHERE, 0, 0, 10, 12),
            new Place(Question.EXACTLY, "details", new Box(10, 0, 14, 12), ""),
            place(Question.CHANGED, 0, 12, 12, 6),
            new Place(Question.EXACTLY, "table", new Box(12, 12, 12, 6), "")),
    REPORT(
            "report",
            "read from top to bottom, with words between",
            new Dashboard.Size(Dashboard.Fit.FIXED, 1024, null),
            new Finish(null, Finish.Border.NONE, null, null, Finish.Space.WIDE, null, null, null),
            words("## What this page answers", 0, 0, 24, 2),
            new Place(Question.SAY, "words", new Box(0, 2, 24, 3), ""),
            place(Question.WHERE, 0, 5, 24, 12),
            words("Say here what the map shows.", 0, 17, 24, 2),
            place(Question.CHANGED, 0, 19, 24, 7),
            place(Question.WHICH_MOST, 0, 26, 24, 7),
            words("Say here what follows from it.", 0, 33, 24, 2),
            new Place(Question.EXACTLY, "table", new Box(0, 35, 24, 9), ""));

    /**
     * A place on the sheet.
     *
     * @param question what it answers
     * @param kind of the visual that answers it; empty for whichever does best
     * @param at where it stands
     * @param text what is written there; empty for what is proposed
     */
    public record Place(Question question, String kind, Box at, String text) {}

    /**
     * What a sheet is made of.
     *
     * @param ops JSON Patch operations
     * @param bare what nothing of the dataset answers, in words
     */
    public record Made(List<Map<String, Object>> ops, List<String> bare) {}

    private final String words;
    private final String hint;
    private final Dashboard.Size size;
    private final Finish finish;
    private final List<Place> places;

    StartingSheet(String words, String hint, Dashboard.Size size, Finish finish, Place... places) {
        this.words = words;
        this.hint = hint;
        this.size = size;
        this.finish = finish;
        this.places = List.of(places);
    }

    private static Place place(Question question, int x, int y, int w, int h) {
        return new Place(question, "", new Box(x, y, w, h), "");
    }

    private static Place words(String text, int x, int y, int w, int h) {
        return new Place(Question.SAY, "words", new Box(x, y, w, h), text);
    }

    public String words() {
        return words;
    }

    public String hint() {
        return hint;
    }

    public List<Place> places() {
        return places;
    }

    /** The sheet of this name in any case. */
    public static StartingSheet of(String name) {
        return Arrays.stream(values())
                .filter(sheet -> sheet.name().equals(name.toUpperCase(Locale.ROOT)))
                .findFirst()
                .orElseThrow(() -> new DashboardException(
                        DashboardException.Kind.MALFORMED, "There is no sheet to start from of this name."));
    }

    /**
     * The edit that arranges a page like this, below what stands on it already.
     *
     * @param page id of the page
     * @param ids gives a fresh suffix for an id: lower-case letters and digits
     */
    public Made made(Dashboard dashboard, String page, LoadedDataset dataset, Supplier<String> ids) {
        int top = dashboard.visuals().values().stream()
                .filter(visual -> visual.page().equals(page))
                .mapToInt(visual -> visual.at().y() + visual.at().h())
                .max()
                .orElse(0);
        Proposals proposals = new Proposals(dashboard, page, ids);
        Map<Question, List<Proposal>> answers = new EnumMap<>(Question.class);
        List<Map<String, Object>> ops = new ArrayList<>();
        List<String> bare = new ArrayList<>();
        if (top == 0 && size != null) ops.add(Proposals.add("/pages/" + page + "/size", DocumentJson.plain(size)));
        if (top == 0 && finish != null) ops.add(Proposals.add("/finishes/" + page, DocumentJson.plain(finish)));
        for (Place place : places) {
            List<Proposal> open = answers.computeIfAbsent(
                    place.question(), question -> new ArrayList<>(proposals.visuals(question, dataset)));
            Proposal answer = open.stream()
                    .filter(proposal -> place.kind().isEmpty()
                            || Kinds.ALL.of(proposal.visual()).name().equals(place.kind()))
                    .findFirst()
                    .orElse(null);
            if (answer == null) {
                bare.add("“" + place.question().words() + "”");
                continue;
            }
            // The same place twice asks for two answers.
            if (place.text().isEmpty()) open.remove(answer);
            Box at = new Box(
                    place.at().x(),
                    place.at().y() + top,
                    place.at().w(),
                    place.at().h());
            for (Map<String, Object> op : proposals.visual(answer, at).ops()) ops.add(written(op, place.text()));
        }
        return new Made(ops, bare.stream().distinct().toList());
    }

    /** The same operation, with other words where it adds some. */
    @SuppressWarnings("unchecked")
    private static Map<String, Object> written(Map<String, Object> op, String text) {
        if (text.isEmpty() || !op.get("path").toString().startsWith("/visuals/")) return op;
        Map<String, Object> visual = Choices.map("type", "words", "text", text, "title", "");
        Map<String, Object> proposed = (Map<String, Object>) op.get("value");
        visual.put("page", proposed.get("page"));
        visual.put("at", proposed.get("at"));
        return Proposals.add(op.get("path").toString(), visual);
    }
}
