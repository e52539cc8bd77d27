package sarnik.app.live;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.atomic.AtomicLong;
import sarnik.app.Uptime;
import sarnik.live.DeviceState;
import sarnik.live.MessageReader;
import sarnik.live.MessageShape;
import sarnik.live.Movement;
import sarnik.live.Reading;
import sarnik.live.StateKeeper;
import sarnik.table.Column;
import sarnik.table.ColumnType;
import sarnik.table.GrowingTable;
import sarnik.table.LongIndex;
import sarnik.table.Table;

/**
 * A feed at work: its devices as they are now and its newest readings, which grow as they come. What is kept comes from
 * the database only, so that all instances hold the same. Safe to share between threads.
 */
final class RunningFeed {

    static final String DEVICE = "device";
    static final String TIME = "time";
    static final String LON = "lon";
    static final String LAT = "lat";
    static final String NAME = "name";
    static final String KIND = "kind";
    static final String STATE = "state";
    static final String SINCE = "since";
    static final String WHY = "why";
    static final String NEWEST = "newest";
    static final String HEADING = "heading";
    static final String NOTED = "noted";

    /** Names that its tables have themselves. */
    static final List<String> OWN =
            List.of(DEVICE, TIME, LON, LAT, NAME, KIND, STATE, SINCE, WHY, NEWEST, HEADING, NOTED);

    /** So many readings are at hand at most; the oldest give way. */
    static final int MOST_ROWS = 2_000_000;

    /** So many devices a feed has at most; readings of more are not taken. */
    static final int MOST_DEVICES = 100_000;

    private static final long AHEAD = 60_000;

    /** A device's readings of a second are taken as long as it does not send so many more than it may. */
    static final int READINGS_A_SECOND = 50;

    private static final double AT_ONCE = 20_000;

    /** A device as it is now. */
    static final class Device {
        final int number;
        final String code;
        final StateKeeper state;
        final Movement movement;
        Object[] newest;
        Listed listed;
        private double allowed = AT_ONCE;
        private long allowedAt;

        Device(int number, String code, StateKeeper state, Movement movement, int columns) {
            this.number = number;
            this.code = code;
            this.state = state;
            this.movement = movement;
            this.newest = new Object[columns];
        }

        /** Why it is in a state just now. @param kept what is kept of that, which has reasons that are gone as well */
        String why(DeviceState of, String kept) {
            StateKeeper.Turn now = state.now();
            return now == null || now.state() != of ? kept : now.why();
        }
    }

    /** What a list of devices says of one. NaN where it has no place there. */
    record Listed(String name, String kind, double lon, double lat) {}

    /**
     * A state that a device has turned to, or is in for more reasons.
     *
     * @param known the moment of the newest reading of it that this rests on, milliseconds since 1970
     */
    record Turned(int device, StateKeeper.Turn turn, long known) {

        static Turned of(Device device, StateKeeper.Turn turn) {
            return new Turned(device.number, turn, device.state.newest());
        }

        /** Whether it is another state than before: of one that stays what is noted stays as well. */
        boolean isOther() {
            return turn.since() == known;
        }
    }

    final long id;
    final long revision;
    final String name;
    final MessageShape shape;
    final FeedSettings settings;
    final String tokenHash;

    /** Names of the columns of its table in the database. */
    final List<String> columns;

    /** For each field of the shape its column. */
    private final int[] columnOf;

    private final MessageReader reader;
    private final GrowingTable readings;
    private final int width;
    private LongIndex rowOf = new LongIndex();
    private final Map<String, Device> devices = new LinkedHashMap<>();
    private final Map<Integer, Device> byNumber = new HashMap<>();
    private Map<String, Listed> list = Map.of();

    /** Counting begins with how long the program has run, so that a feed that is read anew never says a number that it had said before. */
    private static AtomicLong counter() {
        return new AtomicLong(Uptime.millis());
    }

    /** Goes up as newer readings are at hand, a second apart at least. */
    private final AtomicLong tick = counter();

    /** What is noted of the states that devices are in, by their numbers. */
    private Map<Integer, String> notes = Map.of();

    /** Goes up as turns come, or are noted. */
    private final AtomicLong turns = counter();

    /** Goes up as readings are put together. */
    private final AtomicLong rolls = counter();

    private boolean isNewer;

    RunningFeed(
            long id,
            long revision,
            String name,
            MessageShape shape,
            FeedSettings settings,
            List<String> columns,
            String tokenHash) {
        this.id = id;
        this.revision = revision;
        this.name = name;
        this.shape = shape;
        this.settings = settings;
        this.columns = columns;
        this.tokenHash = tokenHash;
        this.columnOf = shape == null
                ? new int[0]
                : shape.fields().stream()
                        .mapToInt(f -> columns.indexOf(f.name()))
                        .toArray();
        this.reader = shape == null
                ? null
                : new MessageReader(shape, new MessageReader.Clocks(AHEAD, settings.keepDays() * 86_400_000L));
        this.readings = new GrowingTable(types());
        this.width = readings.names().size();
    }

    MessageReader reader() {
        return reader;
    }

    /** The columns of readings. */
    private Map<String, ColumnType> types() {
        Map<String, ColumnType> types = new LinkedHashMap<>();
        types.put(DEVICE, ColumnType.TEXT);
        types.put(TIME, ColumnType.TIME);
        if (shape == null) return types;
        if (shape.isMoving()) {
            types.put(LON, ColumnType.DECIMAL);
            types.put(LAT, ColumnType.DECIMAL);
        }
        shape.fields().forEach(f -> types.put(f.name(), f.type()));
        return types;
    }

    // --- what comes ------------------------------------------------------------------------------------

    /** Whether a device may send one more reading now; others do not suffer from one that sends too many. */
    synchronized boolean mayTake(String code, long now) {
        Device device = devices.get(code);
        if (device == null) return list.containsKey(code) || settings.strangers() && devices.size() < MOST_DEVICES;
        device.allowed =
                Math.min(AT_ONCE, device.allowed + READINGS_A_SECOND * Math.max(0, now - device.allowedAt) / 1000);
        device.allowedAt = now;
        if (device.allowed < 1) return false;
        device.allowed--;
        return true;
    }

    synchronized boolean knows(String code) {
        return devices.containsKey(code) || list.containsKey(code);
    }

    synchronized boolean has(int number) {
        return byNumber.containsKey(number);
    }

    /** The number of a device; null where it has none yet. */
    synchronized Integer number(String code) {
        Device device = devices.get(code);
        return device == null ? null : device.number;
    }

    synchronized Device put(int number, String code) {
        Device known = devices.get(code);
        if (known != null) return known;
        Device device = new Device(
                number,
                code,
                new StateKeeper(shape, settings.thresholds(), settings.silentSeconds() * 1000),
                new Movement(Math.max(1, settings.trailMinutes()) * 60_000L),
                columns.size());
        device.listed = list.get(code);
        devices.put(code, device);
        byNumber.put(number, device);
        isNewer = true;
        return device;
    }

    /** A reading as it is kept. */
    ReadingStore.Row row(int device, Reading reading) {
        Object[] values = new Object[columns.size()];
        for (int f = 0; f < columnOf.length; f++) values[columnOf[f]] = reading.values()[f];
        return new ReadingStore.Row(device, reading.millis(), reading.lon(), reading.lat(), values);
    }

    private Reading reading(String code, ReadingStore.Row row) {
        Object[] values = new Object[columnOf.length];
        for (int f = 0; f < values.length; f++) values[f] = row.values()[columnOf[f]];
        return new Reading(code, row.millis(), row.lon(), row.lat(), values);
    }

    /**
     * Takes rows that are kept.
     *
     * @return the states that devices turned to
     */
    synchronized List<Turned> take(List<ReadingStore.Row> rows) {
        List<Turned> turned = new ArrayList<>();
        List<ReadingStore.Row> inTime = new ArrayList<>(rows);
        inTime.sort(Comparator.comparingLong(ReadingStore.Row::millis));
        for (ReadingStore.Row row : inTime) {
            Device device = byNumber.get(row.device());
            if (device == null) continue;
            Reading reading = reading(device.code, row);
            boolean isBelieved = !reading.hasPosition()
                    || device.movement.take(new Movement.Position(row.millis(), row.lon(), row.lat()));
            put(isBelieved ? reading : reading.withoutPosition(), row.device());
            if (row.millis() >= device.state.newest())
                for (int c = 0; c < device.newest.length; c++)
                    if (row.values()[c] != null) device.newest[c] = row.values()[c];
            StateKeeper.Turn turn = device.state.take(reading);
            if (turn != null) turned.add(Turned.of(device, turn));
        }
        forget(turned);
        if (!rows.isEmpty()) isNewer = true;
        return turned;
    }

    /** What was noted of a state is not said of the next. */
    private void forget(List<Turned> turned) {
        if (turned.isEmpty() || notes.isEmpty()) return;
        Map<Integer, String> left = new HashMap<>(notes);
        turned.stream().filter(Turned::isOther).forEach(one -> left.remove(one.device()));
        notes = left;
    }

    private void put(Reading reading, int device) {
        Object[] values = new Object[width];
        int at = 0;
        values[at++] = reading.device();
        values[at++] = Math.floorDiv(reading.millis(), 1000L);
        if (shape.isMoving()) {
            values[at++] = reading.hasPosition() ? reading.lon() : null;
            values[at++] = reading.hasPosition() ? reading.lat() : null;
        }
        for (Object value : reading.values()) values[at++] = value;
        int known = rowOf.size();
        int row = rowOf.number(key(device, reading.millis()));
        if (row < known) readings.fill(row, values);
        else readings.add(values);
        if (readings.rows() > MOST_ROWS) dropFirst(MOST_ROWS / 10);
    }

    /** Milliseconds take 42 bits until the year 2109. */
    private static long key(int device, long millis) {
        return (long) device << 42 | millis & (1L << 42) - 1;
    }

    private void dropFirst(int count) {
        readings.dropFirst(count);
        LongIndex left = new LongIndex();
        for (int row = count; row < rowOf.size(); row++) left.number(rowOf.key(row));
        rowOf = left;
        isNewer = true;
    }

    /**
     * Lets time pass: devices turn silent, readings leave the window, and what is newer since may be seen.
     *
     * @return the states that devices turned to
     */
    synchronized List<Turned> pass(long now) {
        List<Turned> turned = new ArrayList<>();
        for (Device device : devices.values()) {
            StateKeeper.Turn turn = device.state.look(now);
            if (turn != null) turned.add(Turned.of(device, turn));
        }
        forget(turned);
        long oldest = Math.floorDiv(now, 1000L) - settings.windowHours() * 3600L;
        int old = 0;
        while (old < readings.rows() && readings.whole(TIME, old) < oldest) old++;
        // They are left out by the twentieth, since the others have to move up.
        if (old > 1000 && old > readings.rows() / 20 || old == readings.rows()) dropFirst(old);
        if (!turned.isEmpty() || isNewer) {
            isNewer = false;
            tick.incrementAndGet();
        }
        return turned;
    }

    /** Turns have come, or are noted. */
    synchronized void turned() {
        turns.incrementAndGet();
        isNewer = true;
    }

    /** @param now what is noted of the states that devices are in, by their numbers */
    synchronized void noted(Map<Integer, String> now) {
        notes = Map.copyOf(now);
    }

    /** More of its readings are put together. */
    synchronized void rolled() {
        rolls.incrementAndGet();
        isNewer = true;
    }

    long rolls() {
        return rolls.get();
    }

    long turns() {
        return turns.get();
    }

    /** What a list says of a device; null for nothing. */
    synchronized Listed listed(String code) {
        return list.get(code);
    }

    /** The device of a number; null for none. */
    synchronized Device device(int number) {
        return byNumber.get(number);
    }

    /** Names, kinds and places of devices from a list. */
    synchronized void list(Map<String, Listed> now) {
        if (now.equals(list)) return;
        list = Map.copyOf(now);
        devices.values().forEach(device -> device.listed = list.get(device.code));
        isNewer = true;
    }

    // --- what there is ---------------------------------------------------------------------------------

    long tick() {
        return tick.get();
    }

    synchronized Table readings() {
        return readings.table();
    }

    synchronized int rows() {
        return readings.rows();
    }

    synchronized List<Device> devices() {
        return List.copyOf(devices.values());
    }

    /** The devices that rows of a table of devices are of. */
    static Set<String> codes(Table devices) {
        Column column = devices.column(DEVICE);
        Set<String> codes = new HashSet<>();
        for (int row = 0; row < column.size(); row++) if (!column.isMissing(row)) codes.add(column.text(row));
        return codes;
    }

    /** A row for each device that is known: those that have sent, and those that a list names and have not. */
    synchronized Table devicesNow() {
        Map<String, ColumnType> types = new LinkedHashMap<>();
        types.put(DEVICE, ColumnType.TEXT);
        types.put(NAME, ColumnType.TEXT);
        types.put(KIND, ColumnType.TEXT);
        types.put(LON, ColumnType.DECIMAL);
        types.put(LAT, ColumnType.DECIMAL);
        types.put(STATE, ColumnType.TEXT);
        types.put(SINCE, ColumnType.TIME);
        types.put(WHY, ColumnType.TEXT);
        types.put(NEWEST, ColumnType.TIME);
        types.put(NOTED, ColumnType.TEXT);
        if (shape != null && shape.isMoving()) types.put(HEADING, ColumnType.DECIMAL);
        if (shape != null) shape.fields().forEach(f -> types.put(f.name(), f.type()));
        GrowingTable table = new GrowingTable(types);
        for (Device device : devices.values()) table.add(values(device, device.code, device.listed));
        list.forEach((code, listed) -> {
            if (!devices.containsKey(code)) table.add(values(null, code, listed));
        });
        return table.table();
    }

    private Object[] values(Device device, String code, Listed listed) {
        List<Object> values = new ArrayList<>();
        values.add(code);
        values.add(listed == null || listed.name() == null ? code : listed.name());
        values.add(listed == null ? null : listed.kind());
        Movement.Position position = device == null ? null : device.movement.newest();
        Double lon = position != null ? (Double) position.lon() : listed == null ? null : (Double) listed.lon();
        Double lat = position != null ? (Double) position.lat() : listed == null ? null : (Double) listed.lat();
        values.add(lon);
        values.add(lat);
        StateKeeper.Turn now = device == null ? null : device.state.now();
        values.add(now == null ? "silent" : now.state().words());
        values.add(now == null ? null : Math.floorDiv(now.since(), 1000L));
        values.add(now == null ? "nothing so far" : now.why().isEmpty() ? null : now.why());
        values.add(now == null ? null : Math.floorDiv(device.state.newest(), 1000L));
        values.add(device == null ? null : notes.get(device.number));
        if (shape != null && shape.isMoving()) {
            double heading = device == null ? Double.NaN : device.movement.heading();
            values.add(Double.isNaN(heading) ? null : (Object) heading);
        }
        for (int column : columnOf) values.add(device == null ? null : device.newest[column]);
        return values.toArray();
    }
}
