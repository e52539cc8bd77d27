package sarnik.app.live;

import java.util.List;
import java.util.Map;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.dataset.Live;
import sarnik.app.people.SignedIn;
import sarnik.app.web.DayWords;
import sarnik.app.web.RefusedException;
import sarnik.live.MessageGuess;
import sarnik.live.MessageShape;
import tools.jackson.databind.json.JsonMapper;

/**
 * What is said of feeds: how messages become readings, how long those are kept, from which values on devices are bad.
 */
@RestController
@RequestMapping("/api/feeds")
class FeedApi {

    private final Feeds feeds;
    private final FeedSources sources;
    private final RunningFeeds running;
    private final Samples samples;
    private final Troubles troubles;
    private final ReadingWriter writer;
    private final Subscriptions subscriptions;
    private final ThingsReader things;
    private final NoticeSender notices;
    private final Mails mails;
    private final JsonMapper mapper;

    FeedApi(
            Feeds feeds,
            FeedSources sources,
            RunningFeeds running,
            Samples samples,
            Troubles troubles,
            ReadingWriter writer,
            Subscriptions subscriptions,
            ThingsReader things,
            NoticeSender notices,
            Mails mails,
            JsonMapper mapper) {
        this.feeds = feeds;
        this.sources = sources;
        this.running = running;
        this.samples = samples;
        this.troubles = troubles;
        this.writer = writer;
        this.subscriptions = subscriptions;
        this.things = things;
        this.notices = notices;
        this.mails = mails;
        this.mapper = mapper;
    }

    /**
     * A feed.
     *
     * @param shape how messages become readings; null until it is said
     * @param broker which broker it is read from; null for none
     * @param standing how that stands; null for none
     * @param things which server of SensorThings it is read from; null for none
     * @param thingsStanding how that stands; null for none
     * @param devicesDataset the dataset of its devices as they are now; null until it has a shape
     * @param readingsDataset the dataset of its newest readings
     * @param devices how many have sent
     * @param readings how many are at hand
     * @param parts datasets that it is shown as besides
     * @param told what people were told of turns or are to be, the newest first
     * @param mails whether the settings name a server for mail
     * @param waiting whether readings wait on the disk, since the database is away
     */
    record Feed(
            long id,
            long revision,
            String name,
            MessageShape shape,
            FeedSettings settings,
            Broker broker,
            FeedStanding standing,
            ThingsSource things,
            FeedStanding thingsStanding,
            Long devicesDataset,
            Long readingsDataset,
            int devices,
            int readings,
            boolean waiting,
            Map<Live.Part, Long> parts,
            List<NoticeSender.NoticeLine> told,
            boolean mails,
            List<Samples.Sample> samples,
            List<TroubleLine> troubles) {}

    /** What could not be read, or not as it was sent. */
    record TroubleLine(String words, String message, boolean lost, long times, String last) {}

    /**
     * How the reading from a broker stands.
     *
     * @param words why nothing comes; null while it does
     */
    record FeedStanding(boolean open, String since, String words) {}

    /** A name to make a feed of. */
    record Named(String name) {}

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    Feeds.Made make(@RequestBody Named named, @AuthenticationPrincipal SignedIn person) {
        return feeds.make(named.name(), person);
    }

    @GetMapping("/{id}")
    ResponseEntity<Feed> feed(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        LiveFeed kept = feeds.needed(id, person);
        RunningFeed now = running.find(id).orElseThrow(() -> RefusedException.gone("feed"));
        Feed feed = new Feed(
                id,
                kept.getRevision(),
                kept.getName(),
                kept.getShape() == null ? null : mapper.readValue(kept.getShape(), MessageShape.class),
                mapper.readValue(kept.getSettings(), FeedSettings.class),
                kept.getBroker() == null ? null : mapper.readValue(kept.getBroker(), Broker.class),
                subscriptions
                        .standing(id)
                        .map(s -> new FeedStanding(s.isOpen(), DayWords.of(s.since()), s.words()))
                        .orElse(null),
                kept.getThings() == null ? null : mapper.readValue(kept.getThings(), ThingsSource.class),
                things.standing(id)
                        .map(s -> new FeedStanding(s.isOpen(), DayWords.of(s.since()), s.words()))
                        .orElse(null),
                kept.getDevicesDataset(),
                kept.getReadingsDataset(),
                now.devices().size(),
                now.rows(),
                writer.isAway(),
                feeds.parts(kept),
                notices.newest(id),
                mails.isThere(),
                samples.of(id),
                troubles.of(id).stream()
                        .map(t -> new TroubleLine(t.words(), t.message(), t.lost(), t.times(), DayWords.of(t.last())))
                        .toList());
        return ResponseEntity.ok().eTag("\"" + kept.getRevision() + "\"").body(feed);
    }

    /** What is guessed of its newest messages, with how sure that is. */
    @GetMapping("/{id}/guess")
    MessageGuess.Guess guess(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        feeds.needed(id, person);
        return feeds.guess(id);
    }

    /** What its newest messages become in a shape that is not kept yet. */
    @PostMapping("/{id}/preview")
    Feeds.Preview preview(
            @PathVariable long id, @RequestBody MessageShape shape, @AuthenticationPrincipal SignedIn person) {
        feeds.needed(id, person);
        return feeds.preview(id, shape);
    }

    @PutMapping("/{id}/shape")
    ResponseEntity<Void> shape(
            @PathVariable long id,
            @RequestBody MessageShape shape,
            @RequestHeader("If-Match") String revision,
            @AuthenticationPrincipal SignedIn person) {
        return kept(feeds.shape(id, number(revision), shape, person));
    }

    /**
     * How a feed is called, kept and watched.
     *
     * @param name null for as it is
     */
    record Said(String name, FeedSettings settings) {}

    @PutMapping("/{id}/settings")
    ResponseEntity<Void> settings(
            @PathVariable long id,
            @RequestBody Said said,
            @RequestHeader("If-Match") String revision,
            @AuthenticationPrincipal SignedIn person) {
        if (said.settings() == null) throw new RefusedException("There are no settings in it.");
        return kept(feeds.settings(id, number(revision), said.name(), said.settings(), person));
    }

    /** What of a feed is to be a dataset. */
    record PartAsked(Live.Part part) {}

    /** A dataset. */
    record PartShown(long dataset) {}

    /** Shows a feed as one more dataset. */
    @PostMapping("/{id}/parts")
    PartShown part(@PathVariable long id, @RequestBody PartAsked asked, @AuthenticationPrincipal SignedIn person) {
        if (asked.part() == null) throw new RefusedException("Say what of the feed is to be a dataset.");
        return new PartShown(feeds.showPart(id, asked.part(), person));
    }

    /**
     * Which broker a feed is read from.
     *
     * @param broker null for none any more
     * @param word the password; left out for as it is, empty for none
     */
    record ReadFrom(Broker broker, String word) {}

    @PutMapping("/{id}/broker")
    ResponseEntity<Void> broker(
            @PathVariable long id,
            @RequestBody ReadFrom from,
            @RequestHeader("If-Match") String revision,
            @AuthenticationPrincipal SignedIn person) {
        return kept(sources.broker(id, number(revision), from.broker(), from.word(), person));
    }

    /**
     * Which server a feed is read from.
     *
     * @param source null for none any more
     */
    record ThingsFrom(ThingsSource source) {}

    @PutMapping("/{id}/things")
    ResponseEntity<Void> things(
            @PathVariable long id,
            @RequestBody ThingsFrom from,
            @RequestHeader("If-Match") String revision,
            @AuthenticationPrincipal SignedIn person) {
        return kept(sources.things(id, number(revision), from.source(), person));
    }

    private static ResponseEntity<Void> kept(long revision) {
        return ResponseEntity.noContent().eTag("\"" + revision + "\"").build();
    }

    private static long number(String revision) {
        try {
            return Long.parseLong(revision.replace("\"", "").strip());
        } catch (NumberFormatException none) {
            throw new RefusedException("If-Match names the revision that the change was made on.");
        }
    }

    /** A token, told once. */
    record Token(String token) {}

    @PostMapping("/{id}/token")
    Token token(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        return new Token(feeds.token(id, person));
    }

    @DeleteMapping("/{id}/troubles")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void seen(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        feeds.needed(id, person);
        troubles.forget(id);
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable long id, @AuthenticationPrincipal SignedIn person) {
        feeds.remove(id, person);
    }
}
