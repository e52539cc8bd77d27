package sarnik.app.live;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sarnik.app.Uptime;
import sarnik.app.outside.RemoteFiles;
import sarnik.app.web.RefusedException;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/**
 * Reads feeds from servers that speak OGC SensorThings 1.1: their Things with Locations and Datastreams, and of each
 * Datastream the Observations that are newer than the newest read. Each becomes a message, which is read as all
 * messages of a feed are.
 */
@Component
class ThingsReader {

    private static final Logger LOG = LoggerFactory.getLogger(ThingsReader.class);
    private static final int MOST_BYTES = 16 << 20;
    private static final int MOST_PAGES = 200;
    private static final int AT_ONCE = 1000;
    private static final String TOPIC = "Observations";

    private final LiveFeedRepository stored;
    private final RunningFeeds running;
    private final LiveConnections connections;
    private final RemoteFiles outside;
    private final Intake intake;
    private final JsonMapper mapper;

    /** When each feed is asked next, and the newest moment that is known of each of its Datastreams. */
    private final Map<Long, Long> due = new ConcurrentHashMap<>();

    private final Map<String, Instant> newest = new ConcurrentHashMap<>();
    private final Map<Long, Subscription.Standing> standings = new ConcurrentHashMap<>();

    ThingsReader(
            LiveFeedRepository stored,
            RunningFeeds running,
            LiveConnections connections,
            RemoteFiles outside,
            Intake intake,
            JsonMapper mapper) {
        this.stored = stored;
        this.running = running;
        this.connections = connections;
        this.outside = outside;
        this.intake = intake;
        this.mapper = mapper;
    }

    /** How the reading of a feed stands; empty where it is read from no server. */
    Optional<Subscription.Standing> standing(long feed) {
        return Optional.ofNullable(standings.get(feed));
    }

    @Scheduled(fixedDelay = 1000)
    void look() {
        try {
            for (LiveFeed feed : stored.findAll()) {
                if (feed.getThings() == null) {
                    standings.remove(feed.getId());
                    continue;
                }
                ThingsSource source = mapper.readValue(feed.getThings(), ThingsSource.class);
                if (due.getOrDefault(feed.getId(), 0L) > Uptime.millis()) continue;
                due.put(feed.getId(), Uptime.millis() + source.seconds() * 1000L);
                standings.put(feed.getId(), read(feed.getId(), source));
            }
        } catch (RuntimeException away) {
            LOG.debug("Servers are not asked just now", away);
        }
    }

    private Subscription.Standing read(long feed, ThingsSource source) {
        // One instance of several asks at a time.
        try (Connection connection = connections.open()) {
            if (!isOurs(connection, feed))
                return new Subscription.Standing(false, Instant.now(), "another instance of Sarnik reads it");
            read(running.find(feed).orElseThrow(), source);
            connection.commit();
            return new Subscription.Standing(true, Instant.now(), null);
        } catch (RefusedException refused) {
            return new Subscription.Standing(false, Instant.now(), refused.getMessage());
        } catch (JacksonException odd) {
            return new Subscription.Standing(false, Instant.now(), "it answers with something that is no SensorThings");
        } catch (Exception failed) {
            LOG.warn("Feed {} could not be read from {}", feed, source.address(), failed);
            return new Subscription.Standing(false, Instant.now(), Subscription.words(failed));
        }
    }

    private static boolean isOurs(Connection connection, long feed) throws SQLException {
        try (PreparedStatement statement =
                connection.prepareStatement("SELECT pg_try_advisory_xact_lock(hashtext('live things'), ?)")) {
            statement.setInt(1, (int) feed);
            try (ResultSet found = statement.executeQuery()) {
                return found.next() && found.getBoolean(1);
            }
        }
    }

    private interface Taker {
        void take(JsonNode entity) throws Exception;
    }

    /** Goes through a set, page by page. */
    private void each(String address, String root, Taker taker) throws Exception {
        String at = address;
        for (int page = 0; at != null; page++) {
            if (page >= MOST_PAGES)
                throw new RefusedException("It leads on and on: more than %d pages.".formatted(MOST_PAGES));
            JsonNode answer = mapper.readTree(outside.bytes(at, MOST_BYTES));
            if (!answer.path("value").isArray())
                throw new RefusedException("It answers with something that is no SensorThings.");
            for (JsonNode entity : answer.get("value")) taker.take(entity);
            String next = answer.path("@iot.nextLink").asString("");
            at = next.isEmpty() ? null : next.startsWith("http") ? next : root + "/" + next;
        }
    }

    private void read(RunningFeed feed, ThingsSource source) throws Exception {
        String things = source.address() + "/Things?$expand=" + encoded("Locations,Datastreams");
        each(things, source.address(), thing -> {
            JsonNode at = thing.path("Locations").path(0).path("location");
            JsonNode point = at.has("geometry") ? at.get("geometry") : at;
            for (JsonNode stream : thing.path("Datastreams")) observations(feed, source, thing, stream, point);
        });
    }

    private void observations(RunningFeed feed, ThingsSource source, JsonNode thing, JsonNode stream, JsonNode point)
            throws Exception {
        String self = stream.path("@iot.selfLink").asString("");
        if (self.isEmpty()) {
            JsonNode id = stream.get("@iot.id");
            self = source.address() + "/Datastreams(" + (id.isNumber() ? id.toString() : "'" + id.asString() + "'")
                    + ")";
        }
        String known = feed.id + " " + self;
        Instant from = newest.getOrDefault(known, Instant.now().minusSeconds(feed.settings.windowHours() * 3600L));
        String address = self + "/Observations?$top=" + AT_ONCE + "&$orderby=" + encoded("phenomenonTime asc")
                + "&$filter=" + encoded("phenomenonTime gt " + from);
        Intake.Gathered gathered = new Intake.Gathered();
        Instant[] last = {from};
        each(address, source.address(), observation -> {
            // A stretch of time ends with its second moment.
            String time = observation.path("phenomenonTime").asString("");
            String moment = time.contains("/") ? time.substring(time.indexOf('/') + 1) : time;
            intake.read(
                    feed,
                    TOPIC,
                    mapper.writeValueAsBytes(message(thing, stream, point, observation, moment)),
                    gathered);
            try {
                Instant now = java.time.OffsetDateTime.parse(moment).toInstant();
                if (now.isAfter(last[0])) last[0] = now;
            } catch (java.time.format.DateTimeParseException odd) {
                // It is listed as what could not be read.
            }
        });
        // What is not said yet how to read is asked again.
        if (feed.shape == null) return;
        intake.keep(feed, gathered).get(30, TimeUnit.SECONDS);
        newest.put(known, last[0]);
    }

    private ObjectNode message(JsonNode thing, JsonNode stream, JsonNode point, JsonNode observation, String moment) {
        ObjectNode message = mapper.createObjectNode();
        message.put("device", thing.path("name").asString(""));
        message.put("time", moment);
        // “Turbidity of W1” is called by what is measured, not by whom.
        String name = stream.path("name").asString("");
        String device = thing.path("name").asString("");
        message.put("measure", name.startsWith(device + ": ") ? name.substring(device.length() + 2) : name);
        message.set("value", observation.path("result"));
        Map<String, Object> unit = new LinkedHashMap<>();
        unit.put("symbol", stream.path("unitOfMeasurement").path("symbol").asString(""));
        message.set("unit", mapper.valueToTree(unit.get("symbol")));
        if (point.path("type").asString("").equals("Point")) {
            message.set("lon", point.path("coordinates").path(0));
            message.set("lat", point.path("coordinates").path(1));
        }
        return message;
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8).replace("+", "%20");
    }
}
