package sarnik.app.dashboard;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import sarnik.app.dataset.DatasetEdits;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.dataset.FrozenDataset;
import sarnik.app.key.SharedKeys;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.web.DayWords;
import sarnik.app.web.RefusedException;
import sarnik.dashboard.Differences;
import sarnik.visual.SharedKey;
import tools.jackson.databind.json.JsonMapper;

/** Publishes dashboards: what readers see is an edition, which never changes; drafts go on. */
@Service
class Editions {

    private static final int MOST = 200;
    private static final int LONGEST_WORDS = 400;

    private final StoredDashboardRepository dashboards;
    private final StoredEditionRepository editions;
    private final Readings readings;
    private final DatasetService datasets;
    private final DatasetEdits edits;
    private final SharedKeys keys;
    private final PeopleService people;
    private final Rights rights;
    private final JsonMapper mapper;

    Editions(
            StoredDashboardRepository dashboards,
            StoredEditionRepository editions,
            Readings readings,
            DatasetService datasets,
            DatasetEdits edits,
            SharedKeys keys,
            PeopleService people,
            Rights rights,
            JsonMapper mapper) {
        this.dashboards = dashboards;
        this.editions = editions;
        this.readings = readings;
        this.datasets = datasets;
        this.edits = edits;
        this.keys = keys;
        this.people = people;
        this.rights = rights;
        this.mapper = mapper;
    }

    /**
     * An edition as lists show it.
     *
     * @param shown whether it is the one that readers see
     * @param rows over which rows it is, in words
     */
    public record Listed(long id, int number, String words, String by, String day, boolean shown, String rows) {}

    /**
     * A dataset of the draft.
     *
     * @param frozen whether the newest edition shows it as it was
     * @param live whether its rows come by themselves, so that it is always shown as it is
     * @param staysIn the database in which its rows stay, so that it is always shown as it is; null where they are held
     *     here
     */
    public record Rested(long id, String name, int version, long rows, boolean frozen, boolean live, String staysIn) {}

    /**
     * What stands about publishing a dashboard.
     *
     * @param since what has changed since the edition that readers see, a phrase each; empty where nothing has, or
     *     nothing is shown
     */
    public record Standing(List<Listed> editions, List<Rested> datasets, List<String> since, Takes takes) {}

    @Transactional(readOnly = true)
    Standing standing(long id, SignedIn person) {
        StoredDashboard dashboard = dashboards.findById(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        rights.check(person, dashboard.owned(), May.COMPOSE);
        List<StoredEdition> all = editions.findByDashboardIdOrderByNumberDesc(id);
        Set<Long> frozen = all.isEmpty()
                ? Set.of()
                : restsOn(all.get(0)).datasets().stream()
                        .map(FrozenDataset::dataset)
                        .collect(Collectors.toSet());
        List<Rested> rested = readings.document(dashboard).dashboard().datasets().stream()
                .flatMap(d -> datasets.description(d).stream())
                .map(d -> new Rested(
                        d.id(),
                        d.name(),
                        d.served().number(),
                        d.served().rows(),
                        frozen.contains(d.id()),
                        d.isLive(),
                        datasets.staysIn(d)))
                .toList();
        return new Standing(
                all.stream().map(e -> listed(e, dashboard)).toList(), rested, since(dashboard), dashboard.takes());
    }

    private RestsOn restsOn(StoredEdition edition) {
        return mapper.readValue(edition.getRestsOn(), RestsOn.class);
    }

    private Listed listed(StoredEdition edition, StoredDashboard of) {
        List<FrozenDataset> frozen = restsOn(edition).datasets();
        String rows = frozen.isEmpty()
                ? "Always the newest rows"
                : frozen.stream()
                        .map(f -> "“%s” as of version %d".formatted(f.name(), f.number()))
                        .collect(Collectors.joining(", "));
        return new Listed(
                edition.getId(),
                edition.getNumber(),
                edition.getWords(),
                people.nameOf(edition.getPublishedBy()),
                DayWords.of(edition.getPublishedAt()),
                Objects.equals(edition.getId(), of.getEditionId()),
                rows);
    }

    private List<String> since(StoredDashboard dashboard) {
        if (dashboard.getEditionId() == null) return List.of();
        Readings.Edition shown = readings.edition(dashboard.getEditionId());
        List<String> since = new ArrayList<>(Differences.of(shown.document(), readings.document(dashboard)));
        for (FrozenDataset then : shown.restsOn().datasets()) {
            Description now = datasets.description(then.dataset()).orElse(null);
            if (now == null) since.add("the dataset “%s” has been taken away".formatted(then.name()));
            else if (now.served().version() != then.version())
                since.add("“%s” is at version %d, published as of version %d"
                        .formatted(then.name(), now.served().number(), then.number()));
        }
        Map<String, SharedKey> worn = new HashMap<>();
        shown.restsOn().keys().forEach(key -> worn.put(key.name(), key));
        for (SharedKey key : keys.all())
            if (worn.containsKey(key.name()) && !worn.get(key.name()).equals(key))
                since.add("the shared key “%s”".formatted(key.name()));
        return since;
    }

    /**
     * Publishes the draft as it stands: readers see it from now on.
     *
     * @param frozen the datasets that are shown as they are now; all others are always shown as they are
     * @param words what is new in it; may be empty
     */
    @Transactional
    Listed publish(long id, Set<Long> frozen, String words, SignedIn person) {
        StoredDashboard dashboard = held(id, person);
        String said = words == null ? "" : words.strip();
        if (said.length() > LONGEST_WORDS)
            throw new RefusedException("What is new is said in up to %d characters.".formatted(LONGEST_WORDS));
        int number = editions.highestNumber(id) + 1;
        if (number > MOST && editions.findByDashboardIdOrderByNumberDesc(id).size() >= MOST)
            throw new RefusedException("%d editions are kept. Take old ones away first.".formatted(MOST));
        Set<Long> used = readings.document(dashboard).dashboard().datasets();
        List<FrozenDataset> kept = new ArrayList<>();
        Set<Long> known = new LinkedHashSet<>();
        for (long dataset : frozen) {
            if (!used.contains(dataset))
                throw new RefusedException("This dashboard does not rest on the dataset %d.".formatted(dataset));
            datasets.description(dataset).filter(Description::isLive).ifPresent(live -> {
                throw new RefusedException(
                        "The rows of “%s” come by themselves; readers always see its newest.".formatted(live.name()));
            });
            datasets.description(dataset).filter(Description::isStaying).ifPresent(far -> {
                throw new RefusedException("The rows of “%s” stay in “%s”; readers always see what stands there."
                        .formatted(far.name(), datasets.staysIn(far)));
            });
            edits.frozen(dataset).stream().filter(f -> known.add(f.dataset())).forEach(kept::add);
        }
        RestsOn restsOn = new RestsOn(kept, keys.all());
        StoredEdition made = editions.saveAndFlush(new StoredEdition(
                dashboard, number, mapper.writeValueAsString(restsOn), said, person.id(), Instant.now()));
        dashboard.show(made.getId());
        return listed(made, dashboard);
    }

    /**
     * Shows readers another edition.
     *
     * @param number its number; null takes the dashboard back from readers
     */
    @Transactional
    void show(long id, Integer number, SignedIn person) {
        StoredDashboard dashboard = held(id, person);
        dashboard.show(number == null ? null : needed(id, number).getId());
    }

    /** Takes an edition away that readers do not see. */
    @Transactional
    void remove(long id, int number, SignedIn person) {
        StoredDashboard dashboard = held(id, person);
        StoredEdition edition = needed(id, number);
        if (Objects.equals(edition.getId(), dashboard.getEditionId()))
            throw new RefusedException("Readers see this edition. Show them another one first, or none.");
        editions.delete(edition);
    }

    /** What differs between two editions, or between one and the draft. */
    @Transactional(readOnly = true)
    List<String> between(long id, int before, Integer after, SignedIn person) {
        StoredDashboard dashboard = dashboards.findById(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        rights.check(person, dashboard.owned(), May.COMPOSE);
        Function<Integer, sarnik.dashboard.DashboardDocument> of =
                number -> readings.edition(needed(id, number).getId()).document();
        return Differences.of(of.apply(before), after == null ? readings.document(dashboard) : of.apply(after));
    }

    private StoredEdition needed(long id, int number) {
        return editions.findByDashboardIdAndNumber(id, number).orElseThrow(() -> RefusedException.gone("edition"));
    }

    private StoredDashboard held(long id, SignedIn person) {
        StoredDashboard dashboard =
                dashboards.findWithLockById(id).orElseThrow(() -> RefusedException.gone("dashboard"));
        rights.check(person, dashboard.owned(), May.HAND_ON);
        return dashboard;
    }
}
