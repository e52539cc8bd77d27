package sarnik.app.live;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import sarnik.app.dataset.DatasetEdits;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.dataset.Live;
import sarnik.app.dataset.RowKeeper;
import sarnik.app.dataset.TieService;
import sarnik.app.outside.RemoteFiles;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.secret.Hashes;
import sarnik.app.web.RefusedException;
import sarnik.data.About;
import sarnik.data.Datasets;
import sarnik.data.LoadedDataset;
import sarnik.data.Tie;
import sarnik.live.Field;
import sarnik.live.MessageGuess;
import sarnik.live.MessageReader;
import sarnik.live.MessageShape;
import sarnik.live.Reading;
import sarnik.live.Visits;
import sarnik.place.Place;
import sarnik.place.PlacedTable;
import sarnik.place.Placing;
import sarnik.sql.Engines;
import sarnik.table.Column;
import sarnik.table.Table;
import tools.jackson.core.JacksonException;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Makes feeds and changes what is said of them: how messages become readings, how long they are kept, what is bad. */
@Service
class Feeds {

    /** Devices or places that a list of them may have that stays in a database. */
    private static final int MOST_LISTED = 100_000;

    private static final Logger LOG = LoggerFactory.getLogger(Feeds.class);
    private static final TypeReference<List<String>> NAMES = new TypeReference<>() {};
    private static final int LONGEST_NAME = 120;
    private static final int MOST_FIELDS = 200;

    private final LiveFeedRepository stored;
    private final RunningFeeds running;
    private final ReadingStore store;
    private final LiveConnections connections;
    private final Samples samples;
    private final RowKeeper keeper;
    private final DatasetService datasets;
    private final DatasetEdits edits;
    private final TieService ties;
    private final PeopleService people;
    private final Rights rights;
    private final RemoteFiles outside;
    private final RollUps rollUps;
    private final JsonMapper mapper;
    private final TransactionTemplate transaction;

    Feeds(
            LiveFeedRepository stored,
            RunningFeeds running,
            ReadingStore store,
            LiveConnections connections,
            Samples samples,
            RowKeeper keeper,
            DatasetService datasets,
            DatasetEdits edits,
            TieService ties,
            PeopleService people,
            Rights rights,
            RemoteFiles outside,
            RollUps rollUps,
            JsonMapper mapper,
            TransactionTemplate transaction) {
        this.stored = stored;
        this.running = running;
        this.store = store;
        this.connections = connections;
        this.samples = samples;
        this.keeper = keeper;
        this.datasets = datasets;
        this.edits = edits;
        this.ties = ties;
        this.people = people;
        this.rights = rights;
        this.outside = outside;
        this.rollUps = rollUps;
        this.mapper = mapper;
        this.transaction = transaction;
    }

    /** A feed in a list. */
    record Listed(long id, String name, String owner, boolean isShaped, int devices, int readings, long amiss) {}

    /** The feeds that somebody may look after, by name. */
    List<Listed> all(SignedIn person) {
        return stored.findAllByOrderByName().stream()
                .filter(feed -> mayChange(feed, person))
                .map(feed -> {
                    RunningFeed now = running.find(feed.getId()).orElseThrow();
                    List<RunningFeed.Device> devices = now.devices();
                    return new Listed(
                            feed.getId(),
                            feed.getName(),
                            people.nameOf(feed.getCreatedBy()),
                            now.shape != null,
                            devices.size(),
                            now.rows(),
                            devices.stream()
                                    .filter(d -> d.state.now() != null
                                            && d.state.now().state().compareTo(sarnik.live.DeviceState.WATCH) > 0)
                                    .count());
                })
                .toList();
    }

    private static boolean mayChange(LiveFeed feed, SignedIn person) {
        return feed.getCreatedBy() == person.id() || person.role() == Role.STEWARD;
    }

    /** A feed that this person may look after; what others have is as if it were not there. */
    LiveFeed needed(long id, SignedIn person) {
        return stored.findById(id)
                .filter(feed -> mayChange(feed, person))
                .orElseThrow(() -> RefusedException.gone("feed"));
    }

    /** A feed and the token by which readings are sent to it, which is told once. */
    record Made(long id, String token) {}

    Made make(String name, SignedIn person) {
        String token = FeedTokens.make();
        LiveFeed feed = new LiveFeed(
                name(name),
                mapper.writeValueAsString(FeedSettings.FIRST),
                Hashes.of(token),
                person.id(),
                Clock.systemUTC().instant());
        return new Made(stored.saveAndFlush(feed).getId(), token);
    }

    private static String name(String said) {
        String name = said == null ? "" : said.strip();
        if (name.isEmpty() || name.length() > LONGEST_NAME)
            throw new RefusedException("A feed's name has 1 to %d characters.".formatted(LONGEST_NAME));
        return name;
    }

    /** Another token; the one before is taken no longer. */
    String token(long id, SignedIn person) {
        needed(id, person);
        String token = FeedTokens.make();
        change(id, null, feed -> feed.token(Hashes.of(token)));
        return token;
    }

    interface Change {
        void on(LiveFeed feed);
    }

    long change(long id, Long revision, Change change) {
        long after = transaction.execute(t -> {
            LiveFeed feed = stored.findWithLockById(id).orElseThrow(() -> RefusedException.gone("feed"));
            if (revision != null && feed.getRevision() != revision)
                throw new RefusedException(
                        HttpStatus.PRECONDITION_FAILED,
                        "Somebody changed the feed “%s” meanwhile. Look at what stands now, then say yours again."
                                .formatted(feed.getName()));
            change.on(feed);
            return stored.saveAndFlush(feed).getRevision();
        });
        changed(id, after);
        return after;
    }

    /** Tells all instances that something else is said of a feed. */
    private void changed(long id, long revision) {
        running.changed(id);
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement("SELECT pg_notify('live', ?)")) {
            statement.setString(1, "%d revision-%d %s".formatted(id, revision, connections.instance()));
            statement.execute();
            connection.commit();
        } catch (SQLException away) {
            LOG.warn("Other instances were not told that a feed has changed: {}", away.getMessage());
        }
    }

    // --- how messages become readings ------------------------------------------------------------------

    /** What is guessed of the newest messages. */
    MessageGuess.Guess guess(long id) {
        List<MessageGuess.Message> messages = new ArrayList<>();
        for (Samples.Sample sample : samples.of(id)) {
            try {
                messages.add(new MessageGuess.Message(sample.topic(), mapper.readTree(sample.message())));
            } catch (JacksonException broken) {
                // What is no JSON tells nothing of those that are.
                continue;
            }
        }
        return MessageGuess.of(messages, System.currentTimeMillis());
    }

    /**
     * What comes of the newest messages.
     *
     * @param columns names of columns
     * @param rows their values as text, a row for each reading; null for missing
     */
    record Preview(List<String> columns, List<List<String>> rows, List<String> troubles) {}

    Preview preview(long id, MessageShape shape) {
        check(shape);
        MessageReader reader = new MessageReader(shape, new MessageReader.Clocks(60_000, Long.MAX_VALUE / 4));
        List<String> columns = new ArrayList<>(List.of(RunningFeed.DEVICE, RunningFeed.TIME));
        if (shape.isMoving()) columns.addAll(List.of(RunningFeed.LON, RunningFeed.LAT));
        shape.fields().forEach(f -> columns.add(f.name()));
        List<List<String>> rows = new ArrayList<>();
        List<String> troubles = new ArrayList<>();
        long now = System.currentTimeMillis();
        for (Samples.Sample sample : samples.of(id)) {
            MessageReader.Read read = reader.read(
                    sample.message().getBytes(java.nio.charset.StandardCharsets.UTF_8), sample.topic(), now);
            read.troubles().stream()
                    .map(MessageReader.Trouble::words)
                    .filter(w -> !troubles.contains(w))
                    .forEach(troubles::add);
            for (Reading reading : read.readings()) {
                List<String> row = new ArrayList<>(List.of(
                        reading.device(), Instant.ofEpochMilli(reading.millis()).toString()));
                if (shape.isMoving()) {
                    row.add(reading.hasPosition() ? String.valueOf(reading.lon()) : null);
                    row.add(reading.hasPosition() ? String.valueOf(reading.lat()) : null);
                }
                for (Object value : reading.values())
                    row.add(
                            value == null
                                    ? null
                                    : value instanceof Boolean yes ? (yes ? "yes" : "no") : value.toString());
                if (rows.size() < 30) rows.add(row);
            }
        }
        return new Preview(columns, rows, troubles);
    }

    /**
     * Says how messages become readings. Columns that are left out keep their values in the database and are there
     * again once they are named again.
     *
     * @return the revision after it
     */
    long shape(long id, long revision, MessageShape shape, SignedIn person) {
        LiveFeed before = needed(id, person);
        check(shape);
        List<String> columns = new ArrayList<>(mapper.readValue(before.getColumns(), NAMES));
        MessageShape old = before.getShape() == null ? null : mapper.readValue(before.getShape(), MessageShape.class);
        for (Field field : shape.fields()) {
            if (!columns.contains(field.name())) columns.add(field.name());
            int was = old == null ? -1 : old.field(field.name());
            if (was >= 0
                            && old.fields().get(was).type().isNumber()
                                    != field.type().isNumber()
                    || was >= 0
                            && !field.type().isNumber()
                            && old.fields().get(was).type() != field.type())
                throw new RefusedException("%s holds %s so far. Give the column another name to have it hold %s."
                        .formatted(
                                field.name(),
                                old.fields().get(was).type().words(),
                                field.type().words()));
        }
        try (Connection connection = connections.open()) {
            store.make(connection, id, columns, shape);
            connection.commit();
        } catch (SQLException failed) {
            throw new IllegalStateException("The readings' table could not be made", failed);
        }
        long after = change(
                id, revision, feed -> feed.shape(mapper.writeValueAsString(shape), mapper.writeValueAsString(columns)));
        show(id, shape, person);
        tieToList(id, person);
        return after;
    }

    private static void check(MessageShape shape) {
        if (shape.device() == null || shape.device().isBlank())
            throw new RefusedException("Say where the code of the device stands.");
        if (shape.fields().isEmpty() && !shape.isMoving())
            throw new RefusedException("A feed without columns and places says nothing.");
        if (shape.fields().size() > MOST_FIELDS)
            throw new RefusedException("A feed has %d columns at most.".formatted(MOST_FIELDS));
        List<String> places = new ArrayList<>(List.of(shape.device()));
        for (String at : new String[] {shape.time(), shape.lon(), shape.lat(), shape.measure(), shape.value()})
            if (at != null) places.add(at);
        if (!shape.readings().isEmpty()) places.add(shape.readings());
        List<String> names = new ArrayList<>();
        for (Field field : shape.fields()) {
            places.add(field.at());
            String name = field.name();
            if (name == null || name.isBlank() || name.length() > 80 || name.startsWith("@"))
                throw new RefusedException("A column's name has 1 to 80 characters and does not begin with @.");
            if (RunningFeed.OWN.contains(name))
                throw new RefusedException(
                        "Each feed has a column %s already; call this one otherwise.".formatted(name));
            if (names.contains(name)) throw new RefusedException("Two columns are called %s.".formatted(name));
            names.add(name);
        }
        for (String at : places)
            if (!at.matches("/.*|#[1-9]\\d?|=.+"))
                throw new RefusedException(
                        "“%s” is no place in a message. It begins with / (a JSON pointer) or # (a level of the topic)."
                                .formatted(at));
        if (shape.time() != null && shape.form() == null) throw new RefusedException("Say how moments are written.");
    }

    /** Shows a feed as two datasets: its devices as they are now, and its newest readings. */
    private void show(long id, MessageShape shape, SignedIn person) {
        LiveFeed feed = stored.findById(id).orElseThrow();
        RunningFeed now = running.find(id).orElseThrow();
        Map<String, About.OfColumn> units = new LinkedHashMap<>();
        for (String moment : List.of(RunningFeed.TIME, RunningFeed.SINCE, RunningFeed.NEWEST))
            units.put(moment, new About.OfColumn("", "In universal time (UTC)"));
        shape.fields().stream()
                .filter(f -> f.unit() != null && !f.unit().isBlank())
                .forEach(f -> units.put(f.name(), new About.OfColumn(f.unit(), "")));
        About about = new About(null, null, null, null, null, units);
        Placing byDevice = new Placing.ByThing(RunningFeed.DEVICE, RunningFeed.NAME, RunningFeed.LAT, RunningFeed.LON);
        if (feed.getDevicesDataset() == null) {
            long devices = keeper.keepLive(
                    feed.getName(),
                    now.devicesNow().pick(new int[0]),
                    byDevice,
                    new Live(id, Live.Part.DEVICES),
                    about,
                    List.of(),
                    person);
            long readings = keeper.keepLive(
                    feed.getName() + ": readings",
                    now.readings().pick(new int[0]),
                    placing(shape, devices),
                    new Live(id, Live.Part.READINGS),
                    about,
                    tie(devices),
                    person);
            change(id, null, f -> f.shownAs(readings, devices));
        } else {
            for (Map.Entry<Live.Part, Long> more : parts(feed).entrySet())
                if (Rolled.isOf(more.getKey()))
                    keeper.reshapeLive(
                            more.getValue(),
                            running.table(new Live(id, more.getKey())).pick(new int[0]),
                            placing(shape, feed.getDevicesDataset()),
                            About.NONE,
                            person);
            keeper.reshapeLive(feed.getDevicesDataset(), now.devicesNow().pick(new int[0]), byDevice, about, person);
            keeper.reshapeLive(
                    feed.getReadingsDataset(),
                    now.readings().pick(new int[0]),
                    placing(shape, feed.getDevicesDataset()),
                    about,
                    person);
        }
    }

    /** What is about a device follows where that is picked. */
    private static List<Tie> tie(long devices) {
        return List.of(new Tie(RunningFeed.DEVICE, devices, RunningFeed.DEVICE));
    }

    /** Readings of devices that move lie where they were made, others where their device is. */
    private static Placing placing(MessageShape shape, long devices) {
        return shape.isMoving()
                ? new Placing.ByCoordinates(RunningFeed.LAT, RunningFeed.LON)
                : new Placing.ByTie(RunningFeed.DEVICE, devices, RunningFeed.DEVICE);
    }

    private static final TypeReference<Map<Live.Part, Long>> PARTS = new TypeReference<>() {};

    /** The datasets that a feed is shown as besides its devices and readings. */
    Map<Live.Part, Long> parts(LiveFeed feed) {
        return mapper.readValue(feed.getParts(), PARTS);
    }

    /**
     * Shows a feed as one more dataset: the states of its devices, its readings put together, or where they stayed.
     *
     * @return the dataset's id; the one that shows it already where there is one
     */
    long showPart(long id, Live.Part part, SignedIn person) {
        LiveFeed feed = needed(id, person);
        RunningFeed now = running.find(id).orElseThrow();
        if (now.shape == null) throw new RefusedException("Say how its messages become readings first.");
        if (part == Live.Part.DEVICES) return feed.getDevicesDataset();
        if (part == Live.Part.READINGS) return feed.getReadingsDataset();
        if (part == Live.Part.STAYS && !now.shape.isMoving())
            throw new RefusedException("Its devices stay where they are.");
        Map<Live.Part, Long> parts = new java.util.TreeMap<>(parts(feed));
        if (parts.containsKey(part)) return parts.get(part);
        boolean hasPlaces = part == Live.Part.STAYS || now.shape.isMoving() && part != Live.Part.TURNS;
        long made = keeper.keepLive(
                feed.getName() + ": " + words(part),
                running.table(new Live(id, part)).pick(new int[0]),
                hasPlaces
                        ? new Placing.ByCoordinates(RunningFeed.LAT, RunningFeed.LON)
                        : new Placing.ByTie(RunningFeed.DEVICE, feed.getDevicesDataset(), RunningFeed.DEVICE),
                new Live(id, part),
                about(part),
                tie(feed.getDevicesDataset()),
                person);
        parts.put(part, made);
        change(id, null, f -> f.showParts(mapper.writeValueAsString(parts)));
        return made;
    }

    /** Of what is put together it is told to readers what its numbers are, and what an average of them is then. */
    private static About about(Live.Part part) {
        if (!Rolled.isOf(part)) return About.NONE;
        String span = Rolled.of(part).span.substring(2);
        return new About(
                "each number is the mean of the readings of %1$s %2$s, and an average of them counts each %2$s once"
                        .formatted(part == Live.Part.HOURS ? "an" : "a", span),
                null,
                null,
                null,
                null,
                null);
    }

    private static String words(Live.Part part) {
        return switch (part) {
            case DEVICES -> "devices";
            case READINGS -> "readings";
            case TURNS -> "states";
            case MINUTES -> "by minute";
            case HOURS -> "by hour";
            case DAYS -> "by day";
            case STAYS -> "stays";
        };
    }

    // --- how it is kept and watched --------------------------------------------------------------------

    /** @return the revision after it */
    long settings(long id, long revision, String name, FeedSettings settings, SignedIn person) {
        LiveFeed feed = needed(id, person);
        settings.checked();
        if (settings.devices() != null) {
            Description list = datasets.description(settings.devices().dataset())
                    .orElseThrow(() -> RefusedException.gone("dataset"));
            rights.check(person, list.owned(), May.READ);
            if (!list.columnNames().contains(settings.devices().code()))
                throw new RefusedException("“%s” has no column %s."
                        .formatted(list.name(), settings.devices().code()));
        }
        areas(settings.stays(), person);
        if (settings.notices() != null && settings.notices().hook() != null)
            outside.checked(settings.notices().hook());
        String called = name(name == null ? feed.getName() : name);
        long after = change(id, revision, f -> f.settings(called, mapper.writeValueAsString(settings)));
        list(id);
        tieToList(id, person);
        return after;
    }

    /**
     * Ties the devices of a feed to the dataset that lists them, so that its other columns narrow and colour them as
     * well.
     */
    private void tieToList(long id, SignedIn person) {
        LiveFeed feed = stored.findById(id).orElseThrow();
        FeedSettings.DeviceList list =
                mapper.readValue(feed.getSettings(), FeedSettings.class).devices();
        if (list == null || feed.getDevicesDataset() == null) return;
        Description devices = datasets.description(feed.getDevicesDataset()).orElseThrow();
        Tie tie = new Tie(RunningFeed.DEVICE, list.dataset(), list.code());
        if (devices.ties().contains(tie)) return;
        List<Tie> wanted = new ArrayList<>(devices.ties());
        wanted.add(tie);
        try {
            ties.tie(feed.getDevicesDataset(), devices.revision(), wanted, person);
        } catch (RefusedException unfit) {
            // Codes that are numbers there are no texts; names, kinds and places are read from it all the same.
            LOG.info("The devices of “{}” are not tied to their list: {}", feed.getName(), unfit.getMessage());
        }
    }

    /** Where devices arrive. @param person who says so, and has to see it; null for the program itself */
    private Visits.Finder areas(FeedSettings.StaysSaid said, SignedIn person) {
        List<Visits.Finder> all = new ArrayList<>();
        if (said.places() != null) {
            Description of = datasets.description(said.places()).orElseThrow(() -> RefusedException.gone("dataset"));
            if (person != null) rights.check(person, of.owned(), May.READ);
            if (!of.columnNames().contains(said.name()))
                throw new RefusedException("“%s” has no column %s.".formatted(of.name(), said.name()));
            if (datasets.find(said.places()) instanceof Datasets.Found.Ready ready)
                all.add(Stays.near(spots(ready.dataset(), said.name()), said.within()));
        }
        if (said.boundaries() != null)
            all.add(Stays.within(datasets.boundaries()
                    .find(said.boundaries())
                    .orElseThrow(() -> new RefusedException(
                            "There are no boundaries called “%s”.".formatted(said.boundaries())))));
        return (lon, lat, known) -> {
            for (Visits.Finder each : all) {
                String area = each.at(lon, lat, known);
                if (area != null) return area;
            }
            return null;
        };
    }

    /** The rows of a dataset; of those that stay in a database as many as a list of devices or places may have. */
    private static Table rows(LoadedDataset of, String... columns) {
        if (of.table().staying() == null) return of.table();
        List<String> there = Stream.of(columns)
                .filter(column -> column != null && of.table().find(column).isPresent())
                .distinct()
                .toList();
        Table taken = there.isEmpty()
                ? null
                : new Engines().taken(of.table(), List.of(), there, MOST_LISTED).rows();
        return taken == null ? new Table(Map.of()) : taken;
    }

    private static List<Stays.Spot> spots(LoadedDataset of, String named) {
        Table rows = rows(of, named, PlacedTable.PLACE);
        Column name = rows.find(named).orElse(null);
        Column place = rows.find(PlacedTable.PLACE).orElse(null);
        List<Stays.Spot> spots = new ArrayList<>();
        if (name == null || place == null) return spots;
        for (int row = 0; row < name.size(); row++) {
            Place at = place.isMissing(row) || name.isMissing(row)
                    ? null
                    : of.places().get(place.text(row));
            if (at != null) spots.add(new Stays.Spot(name.text(row), at.lon(), at.lat()));
        }
        return spots;
    }

    /** Lists of devices are looked at again once a minute: their datasets may have changed. */
    @Scheduled(fixedDelay = 60_000, initialDelay = 5_000)
    void lists() {
        stored.findAll().forEach(feed -> {
            try {
                list(feed.getId());
            } catch (RuntimeException unfit) {
                LOG.warn("The devices of “{}” could not be listed: {}", feed.getName(), unfit.getMessage());
            }
        });
    }

    private void list(long id) {
        LiveFeed feed = stored.findById(id).orElse(null);
        if (feed == null) return;
        FeedSettings settings = mapper.readValue(feed.getSettings(), FeedSettings.class);
        running.areas(id, areas(settings.stays(), null));
        FeedSettings.DeviceList list = settings.devices();
        if (list == null) {
            running.list(id, Map.of());
            return;
        }
        if (!(datasets.find(list.dataset()) instanceof Datasets.Found.Ready ready)) return;
        running.list(id, listed(ready.dataset(), list));
    }

    private static Map<String, RunningFeed.Listed> listed(LoadedDataset of, FeedSettings.DeviceList list) {
        Map<String, RunningFeed.Listed> listed = new HashMap<>();
        Table rows = rows(of, list.code(), list.name(), list.kind(), PlacedTable.PLACE);
        Column code = rows.find(list.code()).orElse(null);
        if (code == null) return listed;
        Optional<Column> name = Optional.ofNullable(list.name()).flatMap(rows::find);
        Optional<Column> kind = Optional.ofNullable(list.kind()).flatMap(rows::find);
        Optional<Column> place = rows.find(PlacedTable.PLACE);
        for (int row = 0; row < code.size(); row++) {
            if (code.isMissing(row)) continue;
            int here = row;
            Place at = place.map(p -> p.text(here)).map(of.places()::get).orElse(null);
            listed.putIfAbsent(
                    code.text(row),
                    new RunningFeed.Listed(
                            name.map(n -> n.text(here)).orElse(null),
                            kind.map(k -> k.text(here)).orElse(null),
                            at == null ? Double.NaN : at.lon(),
                            at == null ? Double.NaN : at.lat()));
        }
        return listed;
    }

    /** Takes away the days that are older than they are kept, once an hour. */
    @Scheduled(fixedDelay = 3_600_000, initialDelay = 60_000)
    void forget() {
        for (LiveFeed feed : stored.findAll()) {
            if (feed.getShape() == null) continue;
            FeedSettings settings = mapper.readValue(feed.getSettings(), FeedSettings.class);
            Instant before = Instant.now().minus(Duration.ofDays(settings.keepDays()));
            try (Connection connection = connections.open()) {
                int days = store.forget(connection, feed.getId(), before);
                RunningFeed now = running.find(feed.getId()).orElseThrow();
                // By whole days, as readings are: an hour is never worked out anew from a part of its minutes.
                rollUps.forget(
                        connection,
                        now,
                        before.truncatedTo(ChronoUnit.DAYS),
                        Instant.now()
                                .minus(Duration.ofDays(settings.keepRolledDays()))
                                .truncatedTo(ChronoUnit.DAYS));
                connection.commit();
                if (days > 0) LOG.info("Of “{}” {} days were forgotten", feed.getName(), days);
            } catch (SQLException failed) {
                LOG.warn("Old readings of “{}” could not be forgotten: {}", feed.getName(), failed.getMessage());
            }
        }
    }

    /**
     * Takes a feed away with its readings and its datasets.
     *
     * @throws RefusedException when a dashboard shows them, or something else rests on them
     */
    void remove(long id, SignedIn person) {
        LiveFeed feed = needed(id, person);
        transaction.executeWithoutResult(t -> {
            parts(feed).values().forEach(part -> edits.removeLive(part, person));
            // Readings lie where their devices are, so they go first.
            if (feed.getReadingsDataset() != null) edits.removeLive(feed.getReadingsDataset(), person);
            if (feed.getDevicesDataset() != null) edits.removeLive(feed.getDevicesDataset(), person);
            stored.deleteById(id);
        });
        changed(id, 0);
        try (Connection connection = connections.open()) {
            store.drop(connection, id);
            rollUps.drop(connection, id);
            connection.commit();
        } catch (SQLException failed) {
            LOG.warn("The readings of “{}” could not be taken away: {}", feed.getName(), failed.getMessage());
        }
    }
}
