package sarnik.app.dashboard;

import static sarnik.language.Language.phrase;

import java.io.IOException;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import sarnik.app.dataset.LiveRows;
import sarnik.app.web.RefusedException;

/**
 * Tells open pages, by server-sent events, which of their datasets have newer rows: once a second at most, and nothing to
 * those that show none. A page that was away asks anew when it is back, so that nothing is missed.
 */
@RestController
@RequestMapping({"/api/dashboards/{id}", "/api/editions/{edition}", "/api/versions/{version}", "/api/shown/{bearer}"})
class ChangesApi implements AutoCloseable {

    private static final int MOST = 2000;

    /** A page is sent away after so long, and comes again: whoever may not see it any more is not told any more, ms. */
    private static final long LONGEST = 600_000;

    /** Something is said at least so often, so that a lost connection is noticed, in seconds. */
    private static final int HEARTBEAT = 15;

    private final Map<SseEmitter, Map<Long, Set<Long>>> pages = new ConcurrentHashMap<>();
    private final Set<Long> newer = new HashSet<>();
    private final ExecutorService sender = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "changes");
        thread.setDaemon(true);
        return thread;
    });
    private int seconds;

    ChangesApi(LiveRows live) {
        live.watch(feed -> {
            synchronized (newer) {
                newer.add(feed);
            }
        });
    }

    @Override
    public void close() {
        // Connections end with the server; an answer that has ended already cannot be ended again.
        sender.shutdownNow();
        pages.clear();
    }

    /** What changed. */
    record Changed(Set<Long> datasets) {}

    @GetMapping(path = "/changes", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter changes(Reading reading) throws IOException {
        Map<Long, Set<Long>> byFeed = new TreeMap<>();
        for (long dataset : reading.dashboard().datasets()) {
            Long feed = reading.datasets().feed(dataset);
            if (feed != null)
                byFeed.computeIfAbsent(feed, f -> new LinkedHashSet<>()).add(dataset);
        }
        if (byFeed.isEmpty())
            throw new RefusedException(HttpStatus.NOT_FOUND, phrase("Nothing here changes by itself."));
        if (pages.size() >= MOST)
            throw new RefusedException(
                    HttpStatus.SERVICE_UNAVAILABLE, phrase("So many pages are told of changes that no more are."));
        SseEmitter page = new SseEmitter(LONGEST);
        page.onCompletion(() -> pages.remove(page));
        page.onTimeout(page::complete);
        page.onError(gone -> pages.remove(page));
        pages.put(page, byFeed);
        page.send(SseEmitter.event().comment("here"));
        return page;
    }

    @Scheduled(fixedRate = 1000)
    void tell() {
        Set<Long> feeds;
        synchronized (newer) {
            feeds = Set.copyOf(newer);
            newer.clear();
        }
        boolean beats = ++seconds % HEARTBEAT == 0;
        if (pages.isEmpty() || feeds.isEmpty() && !beats) return;
        sender.execute(() -> pages.forEach((page, byFeed) -> {
            Set<Long> datasets = new LinkedHashSet<>();
            feeds.forEach(feed -> datasets.addAll(byFeed.getOrDefault(feed, Set.of())));
            try {
                if (!datasets.isEmpty())
                    page.send(SseEmitter.event().data(new Changed(datasets), MediaType.APPLICATION_JSON));
                else if (beats) page.send(SseEmitter.event().comment("here"));
            } catch (IOException | IllegalStateException gone) {
                pages.remove(page);
            }
        }));
    }
}
