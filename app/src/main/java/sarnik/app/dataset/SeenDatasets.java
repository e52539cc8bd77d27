package sarnik.app.dataset;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import sarnik.app.people.Viewer;
import sarnik.app.web.RefusedException;
import sarnik.data.Boundaries;
import sarnik.data.Calculations;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.ViewerRule;

/**
 * Datasets as somebody sees them: some as they were at one moment, and each with no other rows than this viewer may
 * see. What is not seen is not in the tables that are handed out, so that nothing made of them can tell it.
 */
public final class SeenDatasets implements Datasets {

    /**
     * Rows that a link keeps to.
     *
     * @param rule a condition, in the language of formulas
     */
    public record Bound(long dataset, String rule) {}

    private final DatasetService service;
    private final Viewer viewer;
    private final Map<Long, FrozenDataset> frozen;
    private final List<Bound> bound;

    SeenDatasets(DatasetService service, Viewer viewer, Map<Long, FrozenDataset> frozen, List<Bound> bound) {
        this.service = service;
        this.viewer = viewer;
        this.frozen = Map.copyOf(frozen);
        this.bound = List.copyOf(bound);
    }

    Viewer viewer() {
        return viewer;
    }

    /** A dataset as it was; null where it is seen as it is now. */
    FrozenDataset frozen(long id) {
        return frozen.get(id);
    }

    boolean isFrozen(long id) {
        return frozen.containsKey(id);
    }

    /** Whether a dataset's rows come by themselves. */
    public boolean isLive(long id) {
        return feed(id) != null;
    }

    /** The feed that a dataset shows; null where its rows were brought in. */
    public Long feed(long id) {
        return service.said(id, this).map(Description::live).map(Live::feed).orElse(null);
    }

    /** What keeps rows of a dataset from this viewer; none where all are seen. */
    List<ViewerRule> rules(Description of) {
        if (viewer.isProgram()) return List.of();
        List<ViewerRule> rules = new ArrayList<>();
        if (of.viewerRule() != null && !service.seesAll(viewer, of)) rules.add(new ViewerRule(of.viewerRule()));
        bound.stream()
                .filter(b -> b.dataset() == of.id())
                .map(b -> new ViewerRule(b.rule()))
                .forEach(rules::add);
        return rules;
    }

    @Override
    public Found find(long id) {
        return service.find(id, this);
    }

    /**
     * The dataset of this id as it is seen, where nothing may be told without it.
     *
     * @throws RefusedException with 503 when its rows are still on their way, with 404 when it has gone, with 409 when
     *     it cannot be asked as it stands
     */
    public LoadedDataset needed(long id) {
        Loaded loaded = service.load(id, this).orElseThrow(() -> RefusedException.gone("dataset"));
        if (loaded.unfit() != null) throw new RefusedException(HttpStatus.CONFLICT, loaded.unfit());
        return loaded.dataset();
    }

    /** Begins to load datasets; what comes is done when all are in memory or cannot be. Waits for nothing. */
    public CompletableFuture<Void> prepare(Collection<Long> ids) {
        return service.prepare(ids, this);
    }

    /**
     * What there is of datasets just now.
     *
     * @param isWhole whether the rows of all of them are there, or cannot be
     * @param datasets those whose rows are on their way say so, and are not waited for
     */
    public record Standing(boolean isWhole, Datasets datasets) {}

    /**
     * What there is of datasets just now.
     *
     * @param ready what {@link #prepare} of them gave, some time ago. What could not be read is as good as there: it is
     *     told why
     */
    public Standing standing(Collection<Long> ids, CompletableFuture<Void> ready) {
        if (ready.isDone()) return new Standing(true, this);
        Set<Long> coming =
                ids.stream().filter(id -> !prepare(List.of(id)).isDone()).collect(Collectors.toSet());
        if (coming.isEmpty()) return new Standing(true, this);
        return new Standing(false, new Datasets() {
            @Override
            public Found find(long id) {
                return coming.contains(id) ? service.coming(id, SeenDatasets.this) : SeenDatasets.this.find(id);
            }

            @Override
            public Boundaries boundaries() {
                return SeenDatasets.this.boundaries();
            }
        });
    }

    /** What this viewer is told about rows of these datasets that are kept back, a sentence for each. */
    public List<String> told(Collection<Long> ids) {
        List<String> told = new ArrayList<>();
        for (long id : ids)
            service.said(id, this)
                    .ifPresent(of -> rules(of)
                            .forEach(rule -> told.add(phrase(
                                    "Of “{0}” you see the rows where {1}.", of.name(), rule.words(viewer.known())))));
        return told;
    }

    /** What is calculated over a dataset, as it is seen. */
    public Calculations calculations(long id) {
        return service.said(id, this).map(Description::calculations).orElse(Calculations.NONE);
    }

    @Override
    public Boundaries boundaries() {
        return service.boundaries();
    }
}
