package sarnik.app.dashboard;

import static sarnik.language.Language.phrase;

import java.io.IOException;
import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.scheduling.TaskScheduler;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import sarnik.app.dataset.LiveRows;
import sarnik.app.instance.Instances;
import sarnik.app.web.RefusedException;

/**
 * Tells open pages, by server-sent events, which of their datasets have newer rows: once a second at most, and nothing
 * to those that show none. A page that was away asks anew when it is back, so that nothing is missed.
 */
@RestController
@RequestMapping({"/api/dashboards/{id}", "/api/editions/{edition}", "/api/versions/{version}", "/api/shown/{bearer}"})
class ChangesApi implements AutoCloseable {

    private static final int MOST = 2000;

    /** A page is sent away after so long, and comes again: whoever may not see it any more is not told any more, ms. */
    private static final long LONGEST = 600_000;

    /** Something is said at least so often, so that a lost connection is noticed. */
    private static final int HEARTBEAT_MILLIS = 15_000;

    /** By then all instances know of newer rows that one of them has taken. */
    private static final Duration KNOWN_TO_ALL = Duration.ofSeconds(3);

    private final Map<SseEmitter, Page> pages = new ConcurrentHashMap<>();
    private final ExecutorService senders = Executors.newCachedThreadPool(work -> {
        Thread thread = new Thread(work, "changes");
        thread.setDaemon(true);
        return thread;
    });

    /**
     * A page that is open. What it is to be told gathers while it takes its time to listen, so that one with a slow
     * connection holds up no other.
     */
    private final class Page {
        private final SseEmitter emitter = new SseEmitter(LONGEST);
        private final Map<Long, Set<Long>> byFeed;
        private final Set<Long> untold = new LinkedHashSet<>();
        private boolean isBeating;
        private boolean isSending;

        Page(Map<Long, Set<Long>> byFeed) {
            this.byFeed = byFeed;
        }

        synchronized void tell(Set<Long> feeds, boolean beats) {
            feeds.forEach(feed -> untold.addAll(byFeed.getOrDefault(feed, Set.of())));
            isBeating |= beats;
            if (isSending || untold.isEmpty() && !isBeating) return;
            isSending = true;
            senders.execute(this::send);
        }

        private void send() {
            try {
                for (Set<Long> told = next(); told != null; told = next())
                    if (told.isEmpty()) emitter.send(SseEmitter.event().comment("here"));
                    else emitter.send(SseEmitter.event().data(new Changed(told), MediaType.APPLICATION_JSON));
            } catch (IOException | IllegalStateException gone) {
                pages.remove(emitter);
            }
        }

        /** What is to be told next: none for a word that it is there still; null when nothing is. */
        private synchronized Set<Long> next() {
            isSending = !untold.isEmpty() || isBeating;
            if (!isSending) return null;
            Set<Long> told = new LinkedHashSet<>(untold);
            untold.clear();
            isBeating = false;
            return told;
        }
    }

    ChangesApi(LiveRows live, Instances instances, TaskScheduler later) {
        // Told as soon as it is known: rows are newer once a second at most.
        live.watch(feeds -> {
            tell(feeds);
            // What a page then asks for may be asked of another instance, which knows of it a moment later.
            if (instances.hasOthers())
                later.schedule(() -> tell(feeds), Instant.now().plus(KNOWN_TO_ALL));
        });
    }

    private void tell(Set<Long> feeds) {
        pages.values().forEach(page -> page.tell(feeds, false));
    }

    @Override
    public void close() {
        // Connections end with the server; an answer that has ended already cannot be ended again.
        senders.shutdownNow();
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
        Page page = new Page(byFeed);
        SseEmitter emitter = page.emitter;
        emitter.onCompletion(() -> pages.remove(emitter));
        emitter.onTimeout(emitter::complete);
        emitter.onError(gone -> pages.remove(emitter));
        pages.put(emitter, page);
        emitter.send(SseEmitter.event().comment("here"));
        return emitter;
    }

    @Scheduled(fixedRate = HEARTBEAT_MILLIS)
    void beat() {
        pages.values().forEach(page -> page.tell(Set.of(), true));
    }
}
