package sarnik.dashboard;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import sarnik.brief.Choices;
import sarnik.data.ColumnWords;
import sarnik.data.LoadedDataset;
import sarnik.data.Telling;
import sarnik.data.Words;
import sarnik.narrow.FilterKind;
import sarnik.query.Measure;
import sarnik.visual.Box;
import sarnik.visual.Proposal;
import sarnik.visual.Question;

/**
 * The page that is made of a dataset by itself: where, how much, how it has changed and which are the most, with
 * filters above. Its parts are ordinary ones, to be changed at will.
 */
public final class FirstPage {

    /** With more values to choose from a filter is no help at first. */
    private static final int MOST_TO_CHOOSE = 300;

    private static final int MOST_FIGURES = 4;
    private static final int MOST_FILTERS = 4;

    private static final int LEFT = 14;
    private static final int RIGHT = Dashboard.COLUMNS - LEFT;
    private static final int FIGURE = 4;
    private static final int UPPER = 7;
    private static final int LOWER = 6;
    private static final int BELOW = 8;

    private final LoadedDataset dataset;
    private final Supplier<String> ids;
    private DashboardDocument made;
    private int top;

    private FirstPage(LoadedDataset dataset, Supplier<String> ids) {
        this.dataset = dataset;
        this.ids = ids;
        this.made = DashboardDocument.empty(title(dataset));
    }

    /**
     * Makes the first page of a dataset.
     *
     * @param ids gives a fresh suffix for an id: lower-case letters and digits
     */
    public static DashboardDocument of(LoadedDataset dataset, Supplier<String> ids) {
        FirstPage page = new FirstPage(dataset, ids);
        page.filters();
        page.figures();
        page.answers();
        return page.made;
    }

    /** A question that the page answers, of whatever is at hand. */
    static String title(LoadedDataset dataset) {
        Measure first = Telling.amount(dataset);
        String name = first.column() == null ? dataset.name() : ColumnWords.of(first.column());
        boolean time = Telling.time(dataset).isPresent();
        String asks = dataset.isPlaced()
                ? time ? "where, how much, and how has it changed?" : "where, and how much?"
                : time ? "how much, and how has it changed?" : "how much, and of what?";
        return name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1) + ": " + asks;
    }

    /** What was guessed of the numbers, so that it can be seen and changed; empty where there are none. */
    public static String guesses(LoadedDataset dataset) {
        List<String> said = new ArrayList<>();
        said.addAll(guess(dataset, Telling.Meaning.AMOUNT, "taken to add up, so summed"));
        said.addAll(guess(dataset, Telling.Meaning.RATE, "taken for rates or states, so averaged"));
        said.addAll(guess(dataset, Telling.Meaning.NAME, "taken for names, so left out"));
        return said.isEmpty()
                ? ""
                : "By their names and values " + String.join("; ", said) + ". Each brief can say otherwise.";
    }

    private static List<String> guess(LoadedDataset dataset, Telling.Meaning meaning, String words) {
        List<String> columns = Telling.numbers(dataset, meaning).stream()
                .filter(column -> dataset.about().meaning(column).isEmpty())
                .toList();
        if (columns.isEmpty()) return List.of();
        return List.of(Words.list(columns, "and") + (columns.size() == 1 ? " is " : " are ") + words);
    }

    private void filters() {
        FilterKind.choosable(dataset).stream()
                .filter(column -> Telling.distinct(dataset, column) <= MOST_TO_CHOOSE
                        || Choices.isTime(dataset.table().column(column)))
                .filter(column -> !dataset.table().column(column).type().isNumber())
                .sorted(Comparator.comparingInt(this::worth))
                .limit(MOST_FILTERS)
                .forEach(column -> add(proposals().filter(dataset, column)));
    }

    /** Time first, then what leaves the fewest to choose from. */
    private int worth(String column) {
        if (Telling.time(dataset).filter(column::equals).isPresent()) return 0;
        return column.startsWith("@") ? Integer.MAX_VALUE : Telling.distinct(dataset, column);
    }

    private void figures() {
        List<Proposal> figures = proposals().visuals(Question.HOW_MUCH, dataset).stream()
                .limit(MOST_FIGURES)
                .toList();
        if (figures.isEmpty()) return;
        int wide = Dashboard.COLUMNS / figures.size();
        for (int f = 0; f < figures.size(); f++) put(figures.get(f), f * wide, top, wide, FIGURE);
        top += FIGURE;
    }

    private void answers() {
        List<Proposal> where = proposals().visuals(Question.WHERE, dataset);
        List<Proposal> changed = proposals().visuals(Question.CHANGED, dataset);
        List<Proposal> most = proposals().visuals(Question.WHICH_MOST, dataset);
        List<Proposal> left =
                new ArrayList<>(first(where).or(() -> first(changed)).stream().toList());
        List<Proposal> right = new ArrayList<>(first(most).stream().toList());
        if (!where.isEmpty()) first(changed).ifPresent(right::add);
        List<Proposal> below = new ArrayList<>(otherKinds(most));
        if (left.isEmpty()) {
            left.addAll(right);
            right.clear();
        }
        if (right.isEmpty() && !below.isEmpty()) right.add(below.remove(0));
        sides(left, right);
        first(proposals().visuals(Question.EXACTLY, dataset)).ifPresent(below::add);
        row(below);
    }

    /** The first of each kind but the first kind. */
    private static List<Proposal> otherKinds(List<Proposal> proposals) {
        Map<Class<?>, Proposal> firsts = new LinkedHashMap<>();
        for (Proposal proposal : proposals) firsts.putIfAbsent(proposal.visual().getClass(), proposal);
        return firsts.values().stream().skip(1).toList();
    }

    private void sides(List<Proposal> left, List<Proposal> right) {
        if (left.isEmpty()) return;
        int high = right.size() > 1 ? UPPER + LOWER : UPPER + 2;
        put(left.get(0), 0, top, right.isEmpty() ? Dashboard.COLUMNS : LEFT, high);
        for (int r = 0; r < right.size(); r++) {
            int from = r == 0 ? 0 : UPPER;
            put(right.get(r), LEFT, top + from, RIGHT, right.size() == 1 ? high : r == 0 ? UPPER : LOWER);
        }
        top += high;
    }

    private void row(List<Proposal> below) {
        int x = 0;
        for (int b = 0; b < below.size(); b++) {
            int wide = b == below.size() - 1 ? Dashboard.COLUMNS - x : RIGHT - 2;
            put(below.get(b), x, top, wide, BELOW);
            x += wide;
        }
    }

    private static Optional<Proposal> first(List<Proposal> proposals) {
        return proposals.stream().findFirst();
    }

    private void put(Proposal proposal, int x, int y, int w, int h) {
        add(proposals().visual(proposal, new Box(x, y, w, h)));
    }

    private Proposals proposals() {
        return new Proposals(made.dashboard(), made.dashboard().firstPage(), ids);
    }

    private void add(Proposals.Added added) {
        List<Map<String, Object>> ops = added.ops();
        made = made.edit(DocumentJson.write(ops)).after();
    }
}
