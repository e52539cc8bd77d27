package sarnik.app.live;

import org.springframework.stereotype.Component;
import sarnik.app.outside.AllowedHosts;
import sarnik.app.outside.RemoteFiles;
import sarnik.app.people.SignedIn;
import sarnik.app.secret.Secrets;
import tools.jackson.databind.json.JsonMapper;

/** Where messages of a feed are fetched: a broker, a server of OGC SensorThings. */
@Component
class FeedSources {

    private final Feeds feeds;
    private final AllowedHosts hosts;
    private final RemoteFiles outside;
    private final Secrets secrets;
    private final JsonMapper mapper;

    FeedSources(Feeds feeds, AllowedHosts hosts, RemoteFiles outside, Secrets secrets, JsonMapper mapper) {
        this.feeds = feeds;
        this.hosts = hosts;
        this.outside = outside;
        this.secrets = secrets;
        this.mapper = mapper;
    }

    /**
     * Says which broker a feed is read from.
     *
     * @param broker null for none any more
     * @param word the password; null for as it is, empty for none
     * @return the revision after it
     */
    long broker(long id, long revision, Broker broker, String word, SignedIn person) {
        LiveFeed feed = feeds.needed(id, person);
        if (broker == null) return feeds.change(id, revision, f -> f.broker(null, null));
        Broker before = feed.getBroker() == null ? null : mapper.readValue(feed.getBroker(), Broker.class);
        Broker now = new Broker(
                        broker.address(),
                        broker.version(),
                        broker.topics(),
                        broker.user() == null || broker.user().isBlank() ? null : broker.user(),
                        before == null ? null : before.client())
                .checked();
        hosts.addresses(now.host(), now.port());
        // A password goes to the broker that it was given for only.
        boolean isSame = before != null && before.address().equals(now.address());
        String kept =
                word == null ? (isSame ? feed.getBrokerWord() : null) : word.isEmpty() ? null : secrets.seal(word);
        return feeds.change(id, revision, f -> f.broker(mapper.writeValueAsString(now), kept));
    }

    /**
     * Says which server a feed is read from.
     *
     * @param source null for none any more
     * @return the revision after it
     */
    long things(long id, long revision, ThingsSource source, SignedIn person) {
        feeds.needed(id, person);
        if (source == null) return feeds.change(id, revision, f -> f.things(null));
        ThingsSource now = source.checked();
        outside.checked(now.address());
        return feeds.change(id, revision, f -> f.things(mapper.writeValueAsString(now)));
    }
}
