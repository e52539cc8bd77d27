package sarnik.app.live;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Instant;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.SeenDatasets;
import sarnik.app.people.Groups;
import sarnik.app.people.SignedIn;
import sarnik.app.rights.May;
import sarnik.app.rights.Rights;
import sarnik.app.web.RefusedException;
import sarnik.live.Field;
import sarnik.live.Movement;

/**
 * The devices of feeds as OGC SensorThings 1.1 has them (OGC 18-088, reading only): a device is a Thing with a
 * Location, each of its numbers a Datastream, each reading an Observation. Answered are sets, single entities, what
 * they lead to, and {@code $top}, {@code $skip}, {@code $count}, {@code $orderby}, {@code $filter} by time or name, and
 * {@code $expand}; what else may be asked is refused with a sentence.
 */
@Component
class SensorThings {

    static final String BASE = "/api/sensorthings/v1.1";
    private static final int USUAL = 100;
    private static final int MOST = 1000;
    private static final int DEEPEST = 4;

    private static final Pattern STEP = Pattern.compile("([A-Za-z]+)(?:\\('?([^'()]*)'?\\))?");
    private static final Pattern BY_TIME =
            Pattern.compile("(?:phenomenonTime|resultTime) (ge|gt|le|lt|eq) '?([^' ]+)'?");
    private static final Pattern BY_NAME = Pattern.compile("name eq '((?:[^']|'')*)'");

    /** What each kind leads to: by the name of the way the kind, and whether it is one. */
    private enum Kind {
        Things,
        Locations,
        Datastreams,
        Sensors,
        ObservedProperties,
        Observations,
        FeaturesOfInterest;

        Optional<Way> way(String name) {
            return Optional.ofNullable(
                    switch (this) {
                        case Things ->
                            name.equals("Locations")
                                    ? new Way(Locations, false)
                                    : name.equals("Datastreams") ? new Way(Datastreams, false) : null;
                        case Locations -> name.equals("Things") ? new Way(Things, false) : null;
                        case Datastreams ->
                            switch (name) {
                                case "Thing" -> new Way(Things, true);
                                case "Sensor" -> new Way(Sensors, true);
                                case "ObservedProperty" -> new Way(ObservedProperties, true);
                                case "Observations" -> new Way(Observations, false);
                                default -> null;
                            };
                        case Observations ->
                            name.equals("Datastream")
                                    ? new Way(Datastreams, true)
                                    : name.equals("FeatureOfInterest") ? new Way(FeaturesOfInterest, true) : null;
                        case Sensors, ObservedProperties ->
                            name.equals("Datastreams") ? new Way(Datastreams, false) : null;
                        case FeaturesOfInterest -> null;
                    });
        }

        List<String> ways() {
            return List.of(
                            "Thing",
                            "Things",
                            "Locations",
                            "Datastreams",
                            "Datastream",
                            "Sensor",
                            "ObservedProperty",
                            "Observations",
                            "FeatureOfInterest")
                    .stream()
                    .filter(name -> way(name).isPresent())
                    .toList();
        }
    }

    private record Way(Kind to, boolean isOne) {}

    /**
     * An entity, found and not written yet.
     *
     * @param device null for what belongs to no device
     * @param field which number of the feed; -1 for none
     * @param millis of an observation
     */
    private record Entity(
            Kind kind, RunningFeed feed, RunningFeed.Device device, int field, long millis, double result) {

        String id() {
            return switch (kind) {
                case Things, Locations, FeaturesOfInterest -> feed.id + "." + device.number;
                case Datastreams -> feed.id + "." + device.number + "." + field;
                case Sensors, ObservedProperties -> feed.id + "." + field;
                case Observations -> feed.id + "." + device.number + "." + field + "." + millis;
            };
        }

        String address(String base) {
            return base + "/" + kind + "('" + id() + "')";
        }
    }

    private final LiveFeedRepository stored;
    private final RunningFeeds running;
    private final ReadingStore store;
    private final LiveConnections connections;
    private final DatasetService datasets;
    private final Groups groups;
    private final Rights rights;

    SensorThings(
            LiveFeedRepository stored,
            RunningFeeds running,
            ReadingStore store,
            LiveConnections connections,
            DatasetService datasets,
            Groups groups,
            Rights rights) {
        this.stored = stored;
        this.running = running;
        this.store = store;
        this.connections = connections;
        this.datasets = datasets;
        this.groups = groups;
        this.rights = rights;
    }

    /** What is asked besides the path. */
    private record Options(
            int top,
            int skip,
            boolean counts,
            boolean isDown,
            Instant from,
            Instant until,
            String name,
            List<String> expand,
            String query) {}

    /**
     * Answers a request.
     *
     * @param path below the base, such as {@code /Things('1.2')/Datastreams}
     * @param base the address under which entities say that they are found
     */
    Object answer(String path, Map<String, String> asked, String base, SignedIn person) {
        List<String> steps = new ArrayList<>(List.of(path.split("/")));
        steps.removeIf(String::isEmpty);
        if (steps.isEmpty()) return root(base);
        Options options = options(asked);
        return new Answering(base, person).answer(steps, options);
    }

    private static Map<String, Object> root(String base) {
        List<Map<String, Object>> sets = new ArrayList<>();
        for (Kind kind : Kind.values()) sets.add(Map.of("name", kind.name(), "url", base + "/" + kind));
        Map<String, Object> root = new LinkedHashMap<>();
        root.put("value", sets);
        root.put(
                "serverSettings",
                Map.of(
                        "conformance",
                        List.of(
                                "http://www.opengis.net/spec/iot_sensing/1.1/req/datamodel",
                                "http://www.opengis.net/spec/iot_sensing/1.1/req/resource-path/resource-path-to-entities")));
        return root;
    }

    private static RefusedException cannot(String what) {
        return new RefusedException(HttpStatus.NOT_IMPLEMENTED, "This is not answered here: " + what);
    }

    private static Options options(Map<String, String> asked) {
        int top = USUAL;
        int skip = 0;
        boolean counts = false;
        boolean isDown = false;
        Instant from = null;
        Instant until = null;
        String name = null;
        List<String> expand = List.of();
        try {
            for (Map.Entry<String, String> each : asked.entrySet()) {
                String value = each.getValue().strip();
                switch (each.getKey()) {
                    case "$top" -> top = Math.min(MOST, Integer.parseInt(value));
                    case "$skip" -> skip = Integer.parseInt(value);
                    case "$count" -> counts = Boolean.parseBoolean(value);
                    case "$expand" -> expand = List.of(value.split(","));
                    case "$orderby" -> {
                        if (!value.matches("(phenomenonTime|resultTime|id|@iot.id)( asc| desc)?"))
                            throw cannot("$orderby=" + value);
                        isDown = value.endsWith(" desc");
                    }
                    case "$filter" -> {
                        for (String part : value.split(" and ")) {
                            Matcher byTime = BY_TIME.matcher(part.strip());
                            Matcher byName = BY_NAME.matcher(part.strip());
                            if (byName.matches()) {
                                name = byName.group(1).replace("''", "'");
                                continue;
                            }
                            if (!byTime.matches()) throw cannot("$filter=" + part);
                            Instant moment = java.time.OffsetDateTime.parse(byTime.group(2))
                                    .toInstant();
                            switch (byTime.group(1)) {
                                case "ge" -> from = moment;
                                case "gt" -> from = moment.plusMillis(1);
                                case "le" -> until = moment;
                                case "lt" -> until = moment.minusMillis(1);
                                default -> from = until = moment;
                            }
                        }
                    }
                    default -> {
                        if (each.getKey().startsWith("$")) throw cannot(each.getKey());
                    }
                }
            }
        } catch (NumberFormatException | DateTimeParseException odd) {
            throw new RefusedException("“" + odd.getMessage() + "” cannot be read.");
        }
        if (top < 0 || skip < 0) throw new RefusedException("$top and $skip are 0 or more.");
        StringBuilder query = new StringBuilder();
        asked.forEach((key, value) -> {
            if (!key.equals("$skip") && !key.equals("$top"))
                query.append('&')
                        .append(key)
                        .append('=')
                        .append(java.net.URLEncoder.encode(value, java.nio.charset.StandardCharsets.UTF_8));
        });
        return new Options(top, skip, counts, isDown, from, until, name, expand, query.toString());
    }

    /** One answer to somebody, who sees some devices. */
    private final class Answering {
        private final String base;
        private final Map<RunningFeed, List<RunningFeed.Device>> seen = new LinkedHashMap<>();

        Answering(String base, SignedIn person) {
            this.base = base;
            SeenDatasets of = datasets.seenBy(groups.viewer(person));
            for (LiveFeed kept : stored.findAllByOrderByName()) {
                if (kept.getDevicesDataset() == null) continue;
                boolean may = datasets.description(kept.getDevicesDataset())
                        .filter(d -> rights.may(person, d.owned(), May.READ))
                        .isPresent();
                if (!may) continue;
                Set<String> known =
                        RunningFeed.codes(of.needed(kept.getDevicesDataset()).table());
                running.find(kept.getId())
                        .ifPresent(feed -> seen.put(
                                feed,
                                feed.devices().stream()
                                        .filter(device -> known.contains(device.code))
                                        .toList()));
            }
        }

        Object answer(List<String> steps, Options options) {
            List<Entity> found = null;
            Kind kind = null;
            boolean isOne = false;
            for (int s = 0; s < steps.size(); s++) {
                Matcher step = STEP.matcher(steps.get(s));
                if (!step.matches()) throw RefusedException.gone("entity");
                String name = step.group(1);
                boolean isLast = s == steps.size() - 1;
                if (found == null) {
                    try {
                        kind = Kind.valueOf(name);
                    } catch (IllegalArgumentException none) {
                        throw RefusedException.gone("set");
                    }
                    if (kind == Kind.Observations && step.group(2) == null)
                        throw cannot("all observations at once. Ask for those of a Datastream.");
                    found = step.group(2) == null ? all(kind) : one(kind, step.group(2));
                    isOne = step.group(2) != null;
                } else {
                    if (!isOne) throw cannot("a way from many entities at once");
                    Way way = kind.way(name).orElseThrow(() -> RefusedException.gone("way"));
                    Entity from = found.get(0);
                    kind = way.to;
                    if (kind == Kind.Observations && isLast && step.group(2) == null)
                        return observations(from, options);
                    found = step.group(2) != null ? one(kind, step.group(2)) : led(from, kind);
                    isOne = way.isOne || step.group(2) != null;
                }
                if (isOne && found.isEmpty()) throw RefusedException.gone("entity");
            }
            for (String each : options.expand) check(kind, each);
            if (isOne) return written(found.get(0), options.expand, 0);
            List<Entity> all = found;
            if (options.name != null)
                all = all.stream().filter(e -> options.name.equals(nameOf(e))).toList();
            List<Object> value = all.stream()
                    .skip(options.skip)
                    .limit(options.top)
                    .map(e -> (Object) written(e, options.expand, 0))
                    .toList();
            return page(value, all.size(), String.join("/", steps), options, all.size() > options.skip + value.size());
        }

        private void check(Kind kind, String expand) {
            Kind at = kind;
            for (String step : expand.strip().split("/")) {
                if (step.contains("(")) throw cannot("options within $expand");
                at = at.way(step).orElseThrow(() -> cannot("$expand=" + expand)).to;
            }
        }

        private Map<String, Object> page(
                List<Object> value, long count, String path, Options options, boolean hasMore) {
            Map<String, Object> page = new LinkedHashMap<>();
            if (options.counts) page.put("@iot.count", count);
            if (hasMore && options.top > 0)
                page.put(
                        "@iot.nextLink",
                        base + "/" + path + "?$top=" + options.top + "&$skip=" + (options.skip + options.top)
                                + options.query);
            page.put("value", value);
            return page;
        }

        // --- finding -----------------------------------------------------------------------------------

        private List<Entity> all(Kind kind) {
            List<Entity> all = new ArrayList<>();
            seen.forEach((feed, devices) -> {
                List<Integer> numbers = numbers(feed);
                if (kind == Kind.Sensors || kind == Kind.ObservedProperties)
                    for (int field : numbers) all.add(new Entity(kind, feed, null, field, 0, 0));
                else
                    for (RunningFeed.Device device : devices)
                        if (kind == Kind.Datastreams)
                            for (int field : numbers) all.add(new Entity(kind, feed, device, field, 0, 0));
                        else all.add(new Entity(kind, feed, device, -1, 0, 0));
            });
            return all;
        }

        private List<Entity> one(Kind kind, String id) {
            if (kind == Kind.Observations) {
                String[] parts = id.split("\\.");
                if (parts.length != 4 || !parts[3].matches("-?\\d{1,17}")) return List.of();
                List<Entity> stream = one(Kind.Datastreams, parts[0] + "." + parts[1] + "." + parts[2]);
                if (stream.isEmpty()) return List.of();
                Instant at = Instant.ofEpochMilli(Long.parseLong(parts[3]));
                return read(stream.get(0), at, at, false, 0, 1);
            }
            return all(kind).stream().filter(e -> e.id().equals(id)).toList();
        }

        /** What an entity leads to. */
        private List<Entity> led(Entity from, Kind to) {
            if (to == Kind.Observations) return List.of();
            List<Integer> fields = from.field >= 0 ? List.of(from.field) : numbers(from.feed);
            List<RunningFeed.Device> devices = from.device != null ? List.of(from.device) : seen.get(from.feed);
            List<Entity> led = new ArrayList<>();
            if (to == Kind.Sensors || to == Kind.ObservedProperties)
                for (int field : fields) led.add(new Entity(to, from.feed, null, field, 0, 0));
            else
                for (RunningFeed.Device device : devices)
                    if (to == Kind.Datastreams)
                        for (int field : fields) led.add(new Entity(to, from.feed, device, field, 0, 0));
                    else led.add(new Entity(to, from.feed, device, -1, 0, 0));
            return led;
        }

        private Map<String, Object> observations(Entity stream, Options options) {
            List<Entity> found =
                    read(stream, options.from, options.until, options.isDown, options.skip, options.top + 1);
            List<Object> value = found.stream()
                    .limit(options.top)
                    .map(e -> (Object) written(e, options.expand, 0))
                    .toList();
            long count = options.counts ? count(stream, options) : 0;
            return page(
                    value,
                    count,
                    "Datastreams('" + stream.id() + "')/Observations",
                    options,
                    found.size() > options.top);
        }

        private long count(Entity stream, Options options) {
            try (Connection connection = connections.open()) {
                long count = store.count(
                        connection, stream.feed.id, where(stream), parameters(stream, options.from, options.until));
                connection.commit();
                return count;
            } catch (SQLException failed) {
                throw new IllegalStateException("Observations cannot be counted", failed);
            }
        }

        private List<Entity> read(Entity stream, Instant from, Instant until, boolean isDown, int skip, int most) {
            List<Entity> found = new ArrayList<>();
            int column = stream.feed.columns.indexOf(
                    stream.feed.shape.fields().get(stream.field).name());
            String order = " ORDER BY at %s OFFSET %d LIMIT %d".formatted(isDown ? "DESC" : "", skip, most);
            ask(
                    stream,
                    from,
                    until,
                    order,
                    row -> found.add(new Entity(
                            Kind.Observations,
                            stream.feed,
                            stream.device,
                            stream.field,
                            row.millis(),
                            ((Number) row.values()[column]).doubleValue())));
            return found;
        }

        private void ask(
                Entity stream,
                Instant from,
                Instant until,
                String order,
                java.util.function.Consumer<ReadingStore.Row> taken) {
            RunningFeed feed = stream.feed;
            try (Connection connection = connections.open()) {
                store.read(
                        connection,
                        feed.id,
                        feed.columns.size(),
                        where(stream) + order,
                        taken,
                        parameters(stream, from, until));
                connection.commit();
            } catch (SQLException failed) {
                throw new IllegalStateException("Observations cannot be read", failed);
            }
        }

        private static String where(Entity stream) {
            return "device = ? AND at >= ? AND at <= ? AND c%d IS NOT NULL"
                    .formatted(stream.feed.columns.indexOf(
                            stream.feed.shape.fields().get(stream.field).name()));
        }

        private static Object[] parameters(Entity stream, Instant from, Instant until) {
            return new Object[] {
                stream.device.number,
                Timestamp.from(from == null ? Instant.EPOCH : from),
                Timestamp.from(until == null ? Instant.parse("9999-01-01T00:00:00Z") : until)
            };
        }

        // --- writing -----------------------------------------------------------------------------------

        private Map<String, Object> written(Entity entity, List<String> expand, int depth) {
            Map<String, Object> written = new LinkedHashMap<>();
            written.put("@iot.id", entity.id());
            written.put("@iot.selfLink", entity.address(base));
            RunningFeed feed = entity.feed;
            Field field = entity.field < 0 ? null : feed.shape.fields().get(entity.field);
            switch (entity.kind) {
                case Things -> {
                    written.put("name", nameOf(entity));
                    written.put("description", "A device of the feed “" + feed.name + "”");
                    Map<String, Object> properties = new LinkedHashMap<>();
                    properties.put("code", entity.device.code);
                    if (entity.device.listed != null && entity.device.listed.kind() != null)
                        properties.put("kind", entity.device.listed.kind());
                    if (entity.device.state.now() != null)
                        properties.put(
                                "state", entity.device.state.now().state().words());
                    written.put("properties", properties);
                }
                case Locations -> {
                    written.put("name", nameOf(entity));
                    written.put("description", "Where it is");
                    written.put("encodingType", "application/geo+json");
                    written.put("location", point(entity.device));
                }
                case FeaturesOfInterest -> {
                    written.put("name", nameOf(entity));
                    written.put("description", "What is around the device");
                    written.put("encodingType", "application/geo+json");
                    written.put("feature", point(entity.device));
                }
                case Datastreams -> {
                    written.put("name", nameOf(entity));
                    written.put("description", field.name() + " of " + entity.device.code);
                    written.put(
                            "observationType", "http://www.opengis.net/def/observationType/OGC-OM/2.0/OM_Measurement");
                    String unit = field.unit() == null ? "" : field.unit();
                    written.put("unitOfMeasurement", Map.of("name", unit, "symbol", unit, "definition", ""));
                }
                case Sensors -> {
                    written.put("name", field.name());
                    written.put("description", "What measures " + field.name() + " in the feed “" + feed.name + "”");
                    written.put("encodingType", "text/plain");
                    written.put("metadata", "");
                }
                case ObservedProperties -> {
                    written.put("name", field.name());
                    written.put("description", field.name());
                    written.put("definition", "");
                }
                case Observations -> {
                    written.put(
                            "phenomenonTime",
                            Instant.ofEpochMilli(entity.millis).toString());
                    written.put(
                            "resultTime", Instant.ofEpochMilli(entity.millis).toString());
                    written.put("result", entity.result);
                }
            }
            List<String> left = new ArrayList<>(entity.kind.ways());
            for (String each : expand) {
                String[] way = each.strip().split("/", 2);
                if (way[0].isEmpty()) continue;
                Way to = entity.kind.way(way[0]).orElseThrow(() -> cannot("$expand=" + each));
                if (depth >= DEEPEST) throw cannot("so deep an $expand");
                List<String> further = way.length > 1 ? List.of(way[1]) : List.of();
                left.remove(way[0]);
                if (to.to == Kind.Observations) {
                    written.put(
                            "Observations",
                            read(entity, null, null, true, 0, 1).stream()
                                    .map(e -> written(e, further, depth + 1))
                                    .toList());
                    continue;
                }
                List<Map<String, Object>> others = led(entity, to.to).stream()
                        .limit(MOST)
                        .map(e -> written(e, further, depth + 1))
                        .toList();
                if (!to.isOne) written.merge(way[0], others, (a, b) -> a);
                else if (!others.isEmpty()) written.put(way[0], others.get(0));
            }
            for (String way : left) written.put(way + "@iot.navigationLink", entity.address(base) + "/" + way);
            return written;
        }

        private String nameOf(Entity entity) {
            if (entity.device == null)
                return entity.feed.shape.fields().get(entity.field).name();
            RunningFeed.Listed listed = entity.device.listed;
            String name = listed == null || listed.name() == null ? entity.device.code : listed.name();
            return entity.kind == Kind.Datastreams
                    ? name + ": " + entity.feed.shape.fields().get(entity.field).name()
                    : name;
        }
    }

    private static List<Integer> numbers(RunningFeed feed) {
        List<Integer> numbers = new ArrayList<>();
        for (int f = 0; f < feed.shape.fields().size(); f++)
            if (feed.shape.fields().get(f).type().isNumber()) numbers.add(f);
        return numbers;
    }

    /** Where a device is, as GeoJSON; null where that is not known. */
    private static Map<String, Object> point(RunningFeed.Device device) {
        Movement.Position at = device.movement.newest();
        double lon = at != null ? at.lon() : device.listed == null ? Double.NaN : device.listed.lon();
        double lat = at != null ? at.lat() : device.listed == null ? Double.NaN : device.listed.lat();
        return Double.isNaN(lon) || Double.isNaN(lat)
                ? null
                : Map.of("type", "Point", "coordinates", List.of(lon, lat));
    }
}
