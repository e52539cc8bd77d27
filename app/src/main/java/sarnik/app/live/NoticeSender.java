package sarnik.app.live;

import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Timestamp;
import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.mail.MailException;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import sarnik.app.outside.RemoteFiles;
import sarnik.app.web.RefusedException;
import sarnik.live.DeviceState;
import tools.jackson.databind.json.JsonMapper;

/**
 * Sends what is to be told of turns, once it is due: what goes to one address at once goes as one. What cannot be sent
 * is tried again, ever later, for about a day.
 */
@Component
class NoticeSender {

    private static final Logger LOG = LoggerFactory.getLogger(NoticeSender.class);

    /** What follows soon goes along with the next, so that a flood of turns is a few mails. */
    private static final int APART_SECONDS = 30;

    private static final int AT_ONCE = 500;
    private static final int MOST_LINES = 50;
    private static final int MOST_TRIES = 30;
    private static final int LONGEST_WAIT_SECONDS = 3600;
    private static final DateTimeFormatter MOMENT = DateTimeFormatter.ofPattern("d MMMM, HH:mm", Locale.ENGLISH);

    private final LiveConnections connections;
    private final RunningFeeds feeds;
    private final Mails mails;
    private final RemoteFiles outside;
    private final JsonMapper mapper;

    NoticeSender(LiveConnections connections, RunningFeeds feeds, Mails mails, RemoteFiles outside, JsonMapper mapper) {
        this.connections = connections;
        this.feeds = feeds;
        this.mails = mails;
        this.outside = outside;
        this.mapper = mapper;
    }

    private record To(long feed, String way, String address) {}

    /**
     * A turn that is told.
     *
     * @param until when it ended; null while it holds
     */
    record Told(String device, String name, String kind, String state, Instant since, Instant until, String why) {}

    /** What is sent to a web hook. */
    record Hooked(long feed, String name, List<Told> turns) {}

    @Scheduled(fixedDelay = 1000)
    void send() {
        try {
            for (To to : due()) send(to);
        } catch (SQLException away) {
            LOG.debug("What is to be told cannot be read", away);
        }
    }

    private List<To> due() throws SQLException {
        List<To> due = new ArrayList<>();
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement("""
                        SELECT DISTINCT n.feed, n.way, n.address FROM live_notices n
                        WHERE n.sent_at IS NULL AND NOT n.given_up AND n.due_at <= now() AND NOT EXISTS (
                          SELECT 1 FROM live_notices s WHERE s.feed = n.feed AND s.way = n.way AND s.address = n.address
                            AND s.sent_at > now() - make_interval(secs => ?))""")) {
            statement.setInt(1, APART_SECONDS);
            try (ResultSet found = statement.executeQuery()) {
                while (found.next()) due.add(new To(found.getLong(1), found.getString(2), found.getString(3)));
            }
            connection.commit();
        }
        return due;
    }

    private void send(To to) throws SQLException {
        RunningFeed feed = feeds.find(to.feed).orElse(null);
        if (feed == null) return;
        try (Connection connection = connections.open()) {
            // Another instance leaves alone what this one is about to send.
            Map<Long, Told> told = new LinkedHashMap<>();
            try (PreparedStatement statement = connection.prepareStatement("""
                    SELECT n.id, d.code, t.state, t.since, t.until, t.why FROM live_notices n
                    JOIN live_turns t ON t.id = n.turn JOIN live_devices d ON d.feed = t.feed AND d.number = t.device
                    WHERE n.feed = ? AND n.way = ? AND n.address = ? AND n.sent_at IS NULL AND NOT n.given_up
                      AND n.due_at <= now() ORDER BY t.since, n.id LIMIT %d FOR UPDATE OF n SKIP LOCKED""".formatted(AT_ONCE))) {
                statement.setLong(1, to.feed);
                statement.setString(2, to.way);
                statement.setString(3, to.address);
                try (ResultSet found = statement.executeQuery()) {
                    while (found.next()) told.put(found.getLong(1), told(found, feed));
                }
            }
            if (!told.isEmpty()) settle(connection, told.keySet(), failure(to, feed, List.copyOf(told.values())));
            connection.commit();
        }
    }

    private static Told told(ResultSet found, RunningFeed feed) throws SQLException {
        String code = found.getString(2);
        RunningFeed.Listed listed = feed.listed(code);
        Timestamp until = found.getTimestamp(5);
        return new Told(
                code,
                listed == null || listed.name() == null ? code : listed.name(),
                listed == null ? null : listed.kind(),
                DeviceState.valueOf(found.getString(3)).words(),
                found.getTimestamp(4).toInstant(),
                until == null ? null : until.toInstant(),
                found.getString(6));
    }

    /** Sends. @return why it could not be sent; null where it was */
    private String failure(To to, RunningFeed feed, List<Told> told) {
        try {
            if (to.way.equals("HOOK"))
                outside.post(to.address, mapper.writeValueAsString(new Hooked(feed.id, feed.name, told)));
            else if (!mails.isThere()) return "No server for mail is named in the settings (sarnik.mail.host).";
            else mails.send(to.address, subject(feed, told), text(feed, told));
            return null;
        } catch (MailException | RefusedException failed) {
            return failed.getMessage();
        }
    }

    static String subject(RunningFeed feed, List<Told> told) {
        return told.size() == 1
                ? "%s: %s is %s".formatted(feed.name, told.get(0).name, told.get(0).state)
                : "%s: %,d turns".formatted(feed.name, told.size());
    }

    static String text(RunningFeed feed, List<Told> told) {
        StringBuilder text = new StringBuilder();
        told.stream().limit(MOST_LINES).forEach(one -> {
            text.append("%s%s is %s since %s"
                    .formatted(
                            one.name,
                            one.name.equals(one.device) ? "" : " (" + one.device + ")",
                            one.state,
                            moment(one.since, feed)));
            if (!one.why.isEmpty()) text.append(": ").append(one.why);
            if (one.until != null) text.append("; that ended at ").append(moment(one.until, feed));
            text.append(".\n");
        });
        if (told.size() > MOST_LINES) text.append("And %,d more.%n".formatted(told.size() - MOST_LINES));
        Notices notices = feed.settings.notices();
        if (notices != null && notices.link() != null)
            text.append("\n").append(notices.link()).append("\n");
        return text.toString();
    }

    private static String moment(Instant moment, RunningFeed feed) {
        Notices notices = feed.settings.notices();
        return notices != null && notices.zone() != null
                ? MOMENT.format(moment.atZone(java.time.ZoneId.of(notices.zone())))
                : MOMENT.format(moment.atZone(ZoneOffset.UTC)) + " UTC";
    }

    private static void settle(Connection connection, Iterable<Long> ids, String failure) throws SQLException {
        String sql = failure == null
                ? "UPDATE live_notices SET sent_at = now(), failed = NULL WHERE id = ?"
                : """
                UPDATE live_notices SET tries = tries + 1, failed = ?, given_up = tries + 1 >= %d,
                  due_at = now() + make_interval(secs => least(%d, 10 * power(2, tries))) WHERE id = ?""".formatted(MOST_TRIES, LONGEST_WAIT_SECONDS);
        try (PreparedStatement update = connection.prepareStatement(sql)) {
            for (long id : ids) {
                int p = 1;
                if (failure != null) update.setString(p++, failure.substring(0, Math.min(400, failure.length())));
                update.setLong(p, id);
                update.addBatch();
            }
            update.executeBatch();
        }
    }

    // --- what was told ---------------------------------------------------------------------------------

    /**
     * Something that was told or is to be.
     *
     * @param sent when; null while it waits
     * @param failed why it was not sent the last time; null where it was, or was not tried
     */
    record NoticeLine(
            String way,
            String address,
            String device,
            String state,
            Instant due,
            Instant sent,
            String failed,
            boolean givenUp) {}

    /** The newest of a feed. */
    List<NoticeLine> newest(long feed) {
        List<NoticeLine> lines = new ArrayList<>();
        try (Connection connection = connections.open();
                PreparedStatement statement = connection.prepareStatement("""
                        SELECT n.way, n.address, d.code, t.state, n.due_at, n.sent_at, n.failed, n.given_up FROM live_notices n
                        JOIN live_turns t ON t.id = n.turn JOIN live_devices d ON d.feed = t.feed AND d.number = t.device
                        WHERE n.feed = ? ORDER BY n.id DESC LIMIT 20""")) {
            statement.setLong(1, feed);
            try (ResultSet found = statement.executeQuery()) {
                while (found.next())
                    lines.add(new NoticeLine(
                            found.getString(1),
                            found.getString(2),
                            found.getString(3),
                            DeviceState.valueOf(found.getString(4)).words(),
                            found.getTimestamp(5).toInstant(),
                            found.getTimestamp(6) == null
                                    ? null
                                    : found.getTimestamp(6).toInstant(),
                            found.getString(7),
                            found.getBoolean(8)));
            }
            connection.commit();
        } catch (SQLException away) {
            LOG.warn("What was told cannot be read: {}", away.getMessage());
        }
        return lines;
    }
}
