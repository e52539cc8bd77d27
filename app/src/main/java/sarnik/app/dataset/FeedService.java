package sarnik.app.dataset;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.SarnikProperties;
import sarnik.app.instance.Alone;
import sarnik.app.outside.RemoteTables;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.app.work.Progress;
import sarnik.data.MisfitException;
import sarnik.place.Match;
import sarnik.place.PlacedTable;
import sarnik.place.Words;
import sarnik.table.Reading;
import sarnik.table.Shaping;
import sarnik.table.TableDiff;
import sarnik.table.UnreadableTableException;
import tools.jackson.databind.json.JsonMapper;

/** Brings newer rows of datasets in from an address: on demand, and by itself when they are due. */
@Service
class FeedService {

    private static final Logger LOG = LoggerFactory.getLogger(FeedService.class);
    private static final int SHORTEST_SECONDS = 5;
    private static final int LONGEST_SECONDS = 90 * 86_400;
    private static final int SECONDS_AFTER_FAILURE = 60;
    private static final int REFRESHES_KEPT = 50;
    private static final int STRANGERS_NAMED = 3;

    private final DatasetRepository datasets;
    private final DatasetRefreshRepository refreshes;
    private final Descriptions descriptions;
    private final DatasetService service;
    private final RowKeeper keeper;
    private final StayingKeeper staying;
    private final RemoteTables remote;
    private final JsonMapper mapper;
    private final TransactionTemplate transaction;
    private final Path directory;

    /** Of a dataset that is being refreshed: two at once would undo each other. */
    private static final String REFRESH = "refresh";

    private final Alone alone;

    FeedService(
            DatasetRepository datasets,
            DatasetRefreshRepository refreshes,
            Descriptions descriptions,
            DatasetService service,
            RowKeeper keeper,
            StayingKeeper staying,
            RemoteTables remote,
            JsonMapper mapper,
            TransactionTemplate transaction,
            Alone alone,
            SarnikProperties properties) {
        this.alone = alone;
        this.datasets = datasets;
        this.refreshes = refreshes;
        this.descriptions = descriptions;
        this.service = service;
        this.keeper = keeper;
        this.staying = staying;
        this.remote = remote;
        this.mapper = mapper;
        this.transaction = transaction;
        this.directory = properties.workDirectory();
    }

    /** The newest refreshes of a dataset, newest first. */
    @Transactional(readOnly = true)
    public List<DatasetRefresh> refreshes(long id) {
        return refreshes.findTop12ByDatasetIdOrderByIdDesc(id);
    }

    /**
     * Sets where newer rows come from.
     *
     * @param address empty for nowhere
     * @param seconds how often it is asked by itself; null for on demand only
     * @return the revision after it
     * @throws RefusedException when the address may not be asked, or the time is out of bounds
     */
    long set(long id, long revision, String address, Integer seconds, boolean append, SignedIn person) {
        Description said = descriptions.needed(id);
        // Rows that stay elsewhere are looked at again where they are.
        if (said.isStaying()) address = "stays";
        boolean none = address == null || address.isBlank();
        if (!none && !said.isStaying()) remote.check(address);
        if (seconds != null && (seconds < SHORTEST_SECONDS || seconds > LONGEST_SECONDS)) {
            throw new RefusedException(
                    "A feed can be asked every %d seconds at the soonest and every 90 days at the latest."
                            .formatted(SHORTEST_SECONDS));
        }
        String feed = none ? null : mapper.writeValueAsString(new Feed(address.strip(), seconds, append, person.id()));
        Instant due = none || seconds == null ? null : now().plusSeconds(seconds);
        return descriptions.change(id, revision, person, d -> d.feed(feed, due));
    }

    private static Instant now() {
        return Clock.systemUTC().instant();
    }

    /**
     * Asks the feeds that are due. One after the other, so that they do not crowd out readers; each by one instance. As
     * long as it is asked it is due again soon, so that another goes on when this one ends over it.
     */
    @Scheduled(fixedDelay = 1000)
    void askWhatIsDue() {
        for (Dataset dataset : datasets.findByFeedDueBefore(now())) {
            long id = dataset.getId();
            try (Alone.Turn turn = turn(id)) {
                if (turn == null || !datasets.isDue(id, now())) continue;
                Feed feed = mapper.readValue(dataset.getFeed(), Feed.class);
                next(id, Math.min(feed.seconds(), SECONDS_AFTER_FAILURE));
                boolean failed = asked(id, new Progress("Asking")).getOutcome() == DatasetRefresh.Outcome.FAILED;
                next(id, failed ? Math.max(feed.seconds(), SECONDS_AFTER_FAILURE) : feed.seconds());
            } catch (RuntimeException broken) {
                LOG.error("The feed of dataset {} could not be asked", id, broken);
            }
        }
    }

    /** What is due later than it can be was put off by a clock that has been set back since. */
    @Scheduled(fixedDelay = 1, timeUnit = TimeUnit.MINUTES)
    void askWhatWasPutOff() {
        for (Dataset dataset : datasets.findByFeedDueAfter(now().plusSeconds(SHORTEST_SECONDS))) {
            int seconds = mapper.readValue(dataset.getFeed(), Feed.class).seconds();
            if (dataset.getFeedDue()
                    .isAfter(now().plusSeconds(Math.max(seconds, SECONDS_AFTER_FAILURE) + SHORTEST_SECONDS)))
                next(dataset.getId(), 0);
        }
    }

    private void next(long id, int seconds) {
        transaction.executeWithoutResult(t -> datasets.askNext(id, now().plusSeconds(seconds)));
    }

    /** Somebody's turn at refreshing a dataset; null where it is being refreshed, here or by another instance. */
    private Alone.Turn turn(long id) {
        try {
            return alone.at(REFRESH, id).orElse(null);
        } catch (SQLException away) {
            throw new IllegalStateException("The database is away", away);
        }
    }

    /**
     * Asks a dataset's feed once. When that fails the version before goes on being served, and why is kept.
     *
     * @throws RefusedException when the dataset has no feed, or is being refreshed already
     */
    DatasetRefresh ask(long id, Progress progress) {
        try (Alone.Turn turn = turn(id)) {
            if (turn == null) throw new RefusedException("This dataset is being refreshed already.");
            return asked(id, progress);
        }
    }

    /** Asks once, by whoever's turn it is. */
    private DatasetRefresh asked(long id, Progress progress) {
        Description said = descriptions.needed(id);
        Feed feed = said.feed();
        if (said.isStaying()) return lookAgain(said, progress);
        if (feed == null) throw new RefusedException("This dataset has no address to ask. Set one first.");
        Path file = null;
        try {
            Files.createDirectories(directory);
            file = Files.createTempFile(directory, "feed", ".part");
            remote.fetch(feed.address(), file);
            return keep(id, feed, keeper.read(id, List.of(file), List.of(feed.address()), progress), progress);
        } catch (RefusedException | UnreadableTableException | MisfitException refused) {
            return record(
                    id,
                    DatasetRefresh.Outcome.FAILED,
                    refused.getMessage() + " The version before is still served.",
                    null);
        } catch (IOException failed) {
            LOG.warn("The feed of dataset {} could not be kept", id, failed);
            return record(
                    id,
                    DatasetRefresh.Outcome.FAILED,
                    "The file could not be kept on disk. The version before is still served.",
                    null);
        } finally {
            if (file != null) file.toFile().delete();
        }
    }

    /** Looks again at rows that stay elsewhere: how many there are, and at new words in them. */
    private DatasetRefresh lookAgain(Description said, Progress progress) {
        try {
            PlacedTable before = service.needed(said.id(), progress).placed();
            int number = staying.lookAgain(
                    said.id(), said.feed() == null ? said.owner() : said.feed().person(), progress);
            Loaded now = service.needed(said.id(), progress);
            List<String> strangers = now.placed() == null ? List.of() : strangers(before, now.placed());
            return record(
                    said.id(),
                    DatasetRefresh.Outcome.SERVED,
                    "%,d rows%s."
                            .formatted(
                                    now.dataset().table().weight(),
                                    strangers.isEmpty() ? "" : "; new among their words: " + named(strangers)),
                    number);
        } catch (RefusedException | MisfitException refused) {
            return record(
                    said.id(),
                    DatasetRefresh.Outcome.FAILED,
                    refused.getMessage() + " What was known before still holds.",
                    null);
        }
    }

    private static String named(List<String> strangers) {
        return String.join(" · ", strangers.subList(0, Math.min(STRANGERS_NAMED, strangers.size())))
                + (strangers.size() > STRANGERS_NAMED
                        ? " and %,d more".formatted(strangers.size() - STRANGERS_NAMED)
                        : "");
    }

    private DatasetRefresh keep(long id, Feed feed, Reading reading, Progress progress) {
        Shaping shaping = keeper.intake(id).shaping();
        List<String> units = reading.otherUnits(shaping.units());
        if (!units.isEmpty()) throw new RefusedException(String.join(" ", units));
        List<String> unread = reading.mostlyUnread();
        if (!unread.isEmpty()) throw new RefusedException(String.join(" ", unread));
        Loaded served = service.needed(id, progress);
        RowKeeper.Beside beside = keeper.compare(id, reading.parts(), progress);
        TableDiff diff = beside.diff();
        if (!feed.append() && !beside.rules().isEmpty())
            throw new RefusedException(
                    "The newer rows do not fit what always holds here (%s), so that others would count than before."
                            .formatted(String.join("; ", beside.rules())));
        long added = feed.append() ? beside.below() : 0;
        boolean news = feed.append()
                ? added > 0
                : diff.changed() + diff.added() > 0
                        || !diff.newColumns().isEmpty()
                        || diff.gone() > 0
                        || !diff.goneColumns().isEmpty();
        if (!news) return record(id, DatasetRefresh.Outcome.UNCHANGED, "Nothing new.", null);
        int number = keeper.refresh(
                id,
                new RowKeeper.Newer(
                        reading.parts(),
                        feed.append(),
                        beside.against(),
                        reading.troubles().total(),
                        feed.address(),
                        shaping,
                        reading.units()),
                feed.person(),
                progress);
        return record(
                id,
                DatasetRefresh.Outcome.SERVED,
                words(
                        reading,
                        diff,
                        added,
                        served.placed(),
                        service.needed(id, progress).placed()),
                number);
    }

    private static String words(
            Reading reading, TableDiff diff, long putBelow, PlacedTable before, PlacedTable placed) {
        List<String> parts = new ArrayList<>();
        if (putBelow > 0) {
            parts.add("%,d rows put below the others".formatted(putBelow));
            if (diff.changed() > 0)
                parts.add("%,d of them with the same “%s” as rows that were there, which count beside them"
                        .formatted(diff.changed(), diff.key()));
        } else {
            if (diff.added() > 0) parts.add("%,d added".formatted(diff.added()));
            if (diff.changed() > 0) parts.add("%,d changed".formatted(diff.changed()));
            if (diff.gone() > 0) parts.add("%,d gone".formatted(diff.gone()));
        }
        if (!diff.newColumns().isEmpty()) parts.add("new columns: " + String.join(", ", diff.newColumns()));
        if (!diff.goneColumns().isEmpty()) parts.add("columns gone: " + String.join(", ", diff.goneColumns()));
        if (!reading.newerPeriods().isEmpty()) parts.add("new periods: " + String.join(", ", reading.newerPeriods()));
        if (!reading.gonePeriods().isEmpty()) parts.add("periods gone: " + String.join(", ", reading.gonePeriods()));
        long unread =
                reading.troubles().unread().values().stream().mapToLong(n -> n).sum();
        if (unread > 0)
            parts.add(unread == 1 ? "1 cell could not be read" : "%,d cells could not be read".formatted(unread));
        if (placed != null) {
            long open = placed.rows(Match.State.DOUBTFUL) + placed.rows(Match.State.UNPLACED);
            if (open > 0) parts.add("%,d rows doubtful or unplaced".formatted(open));
            List<String> strangers = strangers(before, placed);
            if (!strangers.isEmpty()) parts.add("new among them: " + named(strangers));
        }
        String words = String.join("; ", parts) + ".";
        return words.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + words.substring(1);
    }

    /** Words that are doubtful or unplaced now and did not occur before. */
    private static List<String> strangers(PlacedTable before, PlacedTable now) {
        Set<Words> known = before == null
                ? Set.of()
                : before.allFinds().stream().map(PlacedTable.Find::words).collect(Collectors.toSet());
        return now.allFinds().stream()
                .filter(f -> f.match().state() != Match.State.PLACED && !known.contains(f.words()))
                .map(f -> f.words().line())
                .filter(line -> !line.isEmpty())
                .distinct()
                .toList();
    }

    private DatasetRefresh record(long id, DatasetRefresh.Outcome outcome, String words, Integer number) {
        DatasetRefresh refresh = new DatasetRefresh(id, now(), outcome, words, number);
        transaction.executeWithoutResult(t -> {
            refreshes.saveAndFlush(refresh);
            refreshes.keepNewest(id, REFRESHES_KEPT);
        });
        return refresh;
    }
}
