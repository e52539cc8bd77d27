package sarnik.dashboard;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Supplier;
import sarnik.brief.Choices;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.narrow.Filter;
import sarnik.narrow.FilterKind;
import sarnik.narrow.Parameter;
import sarnik.visual.Box;
import sarnik.visual.Proposal;
import sarnik.visual.Question;
import sarnik.visual.Visual;

/** What may be added to a dashboard in answer to a question, made with the data at hand. */
public final class Proposals {

    /**
     * Something to add.
     *
     * @param id the id it will have
     * @param words what it answers
     * @param ops JSON Patch operations that add it
     */
    public record Added(String id, String words, List<Map<String, Object>> ops) {}

    private final Dashboard dashboard;
    private final Datasets datasets;
    private final String page;
    private final Supplier<String> ids;

    /** Of a dashboard whose datasets cannot be looked at. */
    Proposals(Dashboard dashboard, String page, Supplier<String> ids) {
        this(dashboard, id -> Datasets.Found.GONE, page, ids);
    }

    /**
     * @param datasets the datasets that measures may be held against
     * @param page id of the page to which they are added
     * @param ids gives a fresh suffix for an id: lower-case letters and digits
     */
    public Proposals(Dashboard dashboard, Datasets datasets, String page, Supplier<String> ids) {
        this.datasets = datasets;
        this.page = page;
        this.dashboard = dashboard;
        this.ids = ids;
    }

    /** Proposals for one dataset, best first. */
    public List<Added> answer(Question question, LoadedDataset dataset) {
        List<Added> added = new ArrayList<>();
        MeasureProposals own = new MeasureProposals(dashboard, ids);
        if (question == Question.LET_CHOOSE) {
            added.addAll(letChoose(dataset));
            added.add(own.formula(dataset));
        }
        visuals(question, dataset).forEach(proposal -> added.add(visual(proposal)));
        if (question == Question.CHANGED)
            own.change(dataset)
                    .ifPresent(change -> added.add(shown(change, dataset, visuals(Question.WHERE, dataset))));
        if (question == Question.TOGETHER)
            own.references(dataset, datasets)
                    .forEach(reference -> added.add(shown(reference, dataset, visuals(Question.WHICH_MOST, dataset))));
        return added;
    }

    /** What kinds of visuals answer, best first. */
    List<Proposal> visuals(Question question, LoadedDataset dataset) {
        return Kinds.ALL.visuals().stream()
                .flatMap(kind -> kind.proposals(question, dataset, dashboard.parts()).stream())
                .toList();
    }

    private List<Added> letChoose(LoadedDataset dataset) {
        List<Added> added = new ArrayList<>();
        for (FilterKind<?> kind : Kinds.ALL.filters())
            for (FilterKind.Beginning beginning : kind.beginnings(dataset)) added.add(filter(kind, dataset, beginning));
        added.addAll(parameters());
        return added;
    }

    /** A filter of a column, of the kind that is best for it. */
    Added filter(LoadedDataset dataset, String column) {
        FilterKind<?> kind = Kinds.ALL.filters().stream()
                .filter(k -> k.fits(dataset.table().column(column)))
                .findFirst()
                .orElseThrow();
        return filter(kind, dataset, kind.of(column));
    }

    private Added filter(FilterKind<?> kind, LoadedDataset dataset, FilterKind.Beginning beginning) {
        String id = "f" + ids.get();
        int order = 1
                + dashboard.filters().values().stream()
                        .mapToInt(Filter::order)
                        .max()
                        .orElse(0);
        Map<String, Object> filter =
                Choices.map("type", kind.name(), "page", page, "order", order, "dataset", dataset.id());
        filter.putAll(beginning.says());
        filter.put("title", filter.getOrDefault("title", ""));
        // Rows of other datasets follow, as far as ties lead.
        filter.put("terms", Choices.map("across", true));
        return new Added(id, beginning.words(), List.of(add("/filters/" + id, filter)));
    }

    /** What readers can set that is no filter. */
    private List<Added> parameters() {
        int order = 1
                + dashboard.parameters().values().stream()
                        .mapToInt(Parameter::order)
                        .max()
                        .orElse(0);
        List<Added> added = new ArrayList<>();
        added.add(parameter(
                "A number, about which scales can turn",
                Choices.map("name", "Number " + order, "order", order, "value", 0)));
        for (Parameter.Type type :
                List.of(Parameter.Type.TEXT, Parameter.Type.DATE, Parameter.Type.YES_NO, Parameter.Type.PLACE)) {
            String thing = type == Parameter.Type.YES_NO
                    ? "switch"
                    : type == Parameter.Type.DATE ? "day" : type.name().toLowerCase(Locale.ROOT);
            added.add(parameter(
                    "A " + thing + ", which rules know by its name",
                    Choices.map(
                            "name",
                            thing.substring(0, 1).toUpperCase(Locale.ROOT) + thing.substring(1) + " " + order,
                            "order",
                            order,
                            "value",
                            0,
                            "type",
                            type.name())));
        }
        return added;
    }

    /** A measure together with a visual of it: what shows another measure first shows this one. */
    private Added shown(MeasureProposals.Made made, LoadedDataset dataset, List<Proposal> visuals) {
        if (visuals.isEmpty()) return made.added();
        Proposal proposal = visuals.get(0);
        Visual visual = MeasureProposals.showing(proposal.visual(), made);
        Added added = visual(new Proposal(made.added().words(), visual, proposal.w(), proposal.h()));
        List<Map<String, Object>> ops = new ArrayList<>(made.added().ops());
        ops.addAll(added.ops());
        return new Added(added.id(), added.words(), ops);
    }

    private Added parameter(String words, Map<String, Object> says) {
        String id = "n" + ids.get();
        return new Added(id, words, List.of(add("/parameters/" + id, says)));
    }

    /** A visual in the first free place that is large enough. */
    public Added visual(Proposal proposal) {
        return visual(proposal, free(dashboard, page, proposal.w(), proposal.h()));
    }

    /** A visual in a box, with a link where it can be picked. */
    Added visual(Proposal proposal, Box at) {
        String id = "v" + ids.get();
        List<Map<String, Object>> ops = new ArrayList<>();
        ops.add(add("/visuals/" + id, placed(proposal.visual(), page, at)));
        if (isPicked(proposal.visual())) ops.add(add("/links/k" + id, Choices.map("from", id)));
        return new Added(id, proposal.words(), ops);
    }

    private static <V extends Visual> boolean isPicked(V visual) {
        return Kinds.ALL.of(visual).picks(visual).isPresent();
    }

    /** A visual as the document has it, on a page. */
    static Map<String, Object> placed(Visual visual, String page, Box at) {
        Map<String, Object> placed = new LinkedHashMap<>(DocumentJson.plain(visual));
        placed.put("page", page);
        placed.put("at", DocumentJson.plain(at));
        return placed;
    }

    /** A JSON Patch operation that adds a part. */
    static Map<String, Object> add(String path, Object value) {
        return Choices.map("op", "add", "path", path, "value", value);
    }

    /** The first free cells of a page, from the top left, that are large enough. */
    static Box free(Dashboard dashboard, String page, int w, int h) {
        List<Box> boxes = dashboard.visuals().values().stream()
                .filter(visual -> visual.page().equals(page))
                .map(Visual::at)
                .toList();
        int bottom = boxes.stream().mapToInt(b -> b.y() + b.h()).max().orElse(0);
        for (int y = 0; y <= bottom; y++) {
            for (int x = 0; x + w <= Dashboard.COLUMNS; x++) {
                Box box = new Box(x, y, w, h);
                if (boxes.stream().noneMatch(b -> overlap(b, box))) return box;
            }
        }
        return new Box(0, bottom, w, h);
    }

    /** Whether two boxes share a cell. */
    static boolean overlap(Box a, Box b) {
        return a.x() < b.x() + b.w() && b.x() < a.x() + a.w() && a.y() < b.y() + b.h() && b.y() < a.y() + a.h();
    }
}
