package sarnik.app.dashboard;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Function;
import org.springframework.stereotype.Service;
import sarnik.app.dataset.DatasetService;
import sarnik.dashboard.Brief;
import sarnik.dashboard.BriefWriter;
import sarnik.dashboard.Dashboard;
import sarnik.dashboard.DashboardDocument;
import sarnik.dashboard.Datasets;
import sarnik.dashboard.Drawer;
import sarnik.dashboard.Drawing;
import sarnik.dashboard.FilterOffer;
import sarnik.dashboard.LoadedDataset;
import sarnik.dashboard.Narrowing;
import sarnik.dashboard.Proposals;
import sarnik.dashboard.ReaderState;
import sarnik.query.InMemoryEngine;
import sarnik.query.QueryEngine;

/** Answers what a dashboard shows, says and might show. */
@Service
class FrameService {

    private static final long MOST_ENDINGS = 60_466_176;

    private final DatasetService datasets;
    private final QueryEngine engine = new InMemoryEngine();

    FrameService(DatasetService datasets) {
        this.datasets = datasets;
    }

    /**
     * What the visuals show.
     *
     * @param state the state's canonical text form
     * @param showing what has been chosen, in words
     * @param misfits sentences about what in the asked state does not fit
     * @param drawings by visual
     */
    record Frames(String state, List<Narrowing.Showing> showing, List<String> misfits, Map<String, Drawing> drawings) {}

    /**
     * @param ids the visuals asked for; null for all
     */
    Frames frames(Dashboard dashboard, String stateText, List<String> ids) {
        Datasets once = once();
        ReaderState.Read read = ReaderState.parse(stateText, dashboard, once);
        Drawer drawer = new Drawer(dashboard, read.state(), once, engine);
        List<String> wanted = ids == null ? List.copyOf(dashboard.visuals().keySet()) : ids;
        Map<String, Drawing> drawn = new ConcurrentHashMap<>();
        wanted.parallelStream().forEach(id -> drawn.put(id, drawer.draw(id)));
        Map<String, Drawing> inOrder = new LinkedHashMap<>();
        wanted.forEach(id -> inOrder.put(id, drawn.get(id)));
        return new Frames(read.state().text(), new Narrowing(dashboard, read.state(), once).nowShowing(), read.misfits(), inOrder);
    }

    /** What each filter offers to choose from. */
    Map<String, FilterOffer> offers(Dashboard dashboard) {
        Datasets once = once();
        Map<String, FilterOffer> offers = new LinkedHashMap<>();
        for (String id : dashboard.filtersOf(dashboard.firstPage())) offers.put(id, FilterOffer.of(dashboard.filters().get(id), once));
        return offers;
    }

    Brief brief(Dashboard dashboard, String id) {
        return new BriefWriter(dashboard, once(), engine).write(id);
    }

    /**
     * A proposal with its picture.
     *
     * @param drawing null for filters
     */
    record Drawn(String id, String words, List<Map<String, Object>> ops, Drawing drawing) {}

    List<Drawn> proposals(DashboardDocument document, Proposals.Question question, long dataset, Function<Object, String> json) {
        Datasets once = once();
        return new Proposals(document.dashboard(), FrameService::freshEnding).answer(question, once.get(dataset)).stream()
                .map(p -> {
                    Dashboard after = document.edit(json.apply(p.ops())).after().dashboard();
                    Drawing drawing = after.visuals().containsKey(p.id()) ? new Drawer(after, ReaderState.NOTHING, once, engine).draw(p.id()) : null;
                    return new Drawn(p.id(), p.words(), p.ops(), drawing);
                })
                .toList();
    }

    /** A fresh ending for an id: five letters and digits by chance, so that two authors never make the same. */
    private static String freshEnding() {
        return Long.toString(ThreadLocalRandom.current().nextLong(MOST_ENDINGS / 36, MOST_ENDINGS), 36);
    }

    /** Looks each dataset up once, so that all figures of one answer rest on one version. */
    private Datasets once() {
        Map<Long, Optional<LoadedDataset>> seen = new ConcurrentHashMap<>();
        return id -> seen.computeIfAbsent(id, datasets::find);
    }
}
