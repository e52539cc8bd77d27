package sarnik.app.live;

import static sarnik.language.Language.phrase;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import sarnik.app.dashboard.Reading;
import sarnik.app.dataset.DatasetService;
import sarnik.app.dataset.Description;
import sarnik.app.dataset.Live;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.app.web.RefusedException;
import sarnik.live.DeviceState;

/** What is amiss now among the devices that a dashboard shows, the longest first, for people to see and to note. */
@RestController
class AmissApi {

    private static final int LONGEST_NOTE = 400;

    private final RunningFeeds feeds;
    private final Turns turns;
    private final DatasetService datasets;
    private final PeopleService people;

    AmissApi(RunningFeeds feeds, Turns turns, DatasetService datasets, PeopleService people) {
        this.feeds = feeds;
        this.turns = turns;
        this.datasets = datasets;
        this.people = people;
    }

    /**
     * A device with which something is amiss.
     *
     * @param turn by which it is noted
     * @param dataset the dataset of devices that it is in
     * @param device its code
     * @param kind of which kind it is; null where that is not said
     * @param since milliseconds since 1970
     * @param seenBy who has seen it; null for nobody
     * @param seenAt when, milliseconds since 1970; null for nobody
     * @param note what was noted; null for nothing
     */
    record Amiss(
            long turn,
            long dataset,
            String device,
            String name,
            String kind,
            DeviceState state,
            long since,
            String why,
            String seenBy,
            Long seenAt,
            String note) {}

    /**
     * @param shows whether devices are shown at all
     * @param notes whether this viewer may note something
     */
    record AllAmiss(boolean shows, boolean notes, List<Amiss> amiss) {}

    @GetMapping({
        "/api/dashboards/{id}/amiss",
        "/api/editions/{edition}/amiss",
        "/api/versions/{version}/amiss",
        "/api/shown/{bearer}/amiss"
    })
    AllAmiss amiss(Reading reading, @AuthenticationPrincipal SignedIn person) {
        boolean shows = false;
        List<Amiss> all = new ArrayList<>();
        for (long dataset : reading.dashboard().datasets()) {
            Optional<RunningFeed> feed = devicesOf(reading, dataset);
            shows |= feed.isPresent();
            feed.ifPresent(f -> all.addAll(amiss(f, dataset, reading)));
        }
        all.sort(java.util.Comparator.comparingLong(Amiss::since));
        return new AllAmiss(shows, person != null, all);
    }

    private Optional<RunningFeed> devicesOf(Reading reading, long dataset) {
        Long feed = reading.datasets().feed(dataset);
        if (feed == null) return Optional.empty();
        return datasets.description(dataset)
                .map(Description::live)
                .filter(live -> live.part() == Live.Part.DEVICES)
                .flatMap(live -> feeds.find(live.feed()));
    }

    /** Those that this viewer sees a row of. */
    private List<Amiss> amiss(RunningFeed feed, long dataset, Reading reading) {
        Set<String> seen = RunningFeed.codes(reading.datasets().needed(dataset).table());
        List<Amiss> amiss = new ArrayList<>();
        for (Turns.Open open : turns.amiss(feed)) {
            RunningFeed.Device device = feed.device(open.device());
            if (device == null || !seen.contains(device.code)) continue;
            RunningFeed.Listed listed = feed.listed(device.code);
            amiss.add(new Amiss(
                    open.id(),
                    dataset,
                    device.code,
                    listed == null || listed.name() == null ? device.code : listed.name(),
                    listed == null ? null : listed.kind(),
                    open.state(),
                    open.since().toEpochMilli(),
                    device.why(open.state(), open.why()),
                    open.seenBy() == null ? null : people.nameOf(open.seenBy()),
                    open.seenAt() == null ? null : open.seenAt().toEpochMilli(),
                    open.note()));
        }
        return amiss;
    }

    /** What somebody notes; empty for only having seen it. */
    record AmissNote(String note) {}

    @PostMapping({
        "/api/dashboards/{id}/amiss/{turn}",
        "/api/editions/{edition}/amiss/{turn}",
        "/api/versions/{version}/amiss/{turn}"
    })
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void note(
            Reading reading,
            @PathVariable long turn,
            @RequestBody AmissNote note,
            @AuthenticationPrincipal SignedIn person) {
        String words = note.note() == null ? "" : note.note().strip();
        if (words.length() > LONGEST_NOTE)
            throw new RefusedException(phrase("A note has {0} characters at most.", LONGEST_NOTE));
        for (long dataset : reading.dashboard().datasets()) {
            RunningFeed feed = devicesOf(reading, dataset).orElse(null);
            if (feed == null || amiss(feed, dataset, reading).stream().noneMatch(a -> a.turn() == turn)) continue;
            if (turns.note(feed, turn, person.id(), words.isEmpty() ? null : words)) return;
        }
        throw new RefusedException(
                HttpStatus.NOT_FOUND, phrase("This is over: the device has turned to another state."));
    }
}
