package sarnik.app.work;

import static sarnik.language.Language.phrase;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import java.util.ArrayDeque;
import java.util.HashMap;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.web.RefusedException;
import sarnik.language.Language;

/**
 * The queue in which answers are worked out: as many at once as there are cores, more would only make each other
 * slower. It is
 * fair, since those who ask take turns whatever each has waiting, and bounded for each and for all. What a newer
 * question of
 * the same page has overtaken, or whose page has been left, is dropped, waiting or at work. Whoever asks holds no
 * thread while waiting, so pages and sign-in
 * never wait behind answers.
 */
@Component
public class AnswerQueue implements AutoCloseable {

    /** What a browser sends with questions of which only the newest matters: a name of the page it has open. */
    public static final String PAGE = "Sarnik-Page";

    private static final int MOST_OF_ONE = 24;
    private static final int MOST = 2000;
    private static final int LONGEST_PAGE = 80;
    private static final long PATIENCE = 60_000;
    private static final long LOADING = 15;

    /** A page that is told that rows are on their way asks again by itself. */
    private static final long LOADING_FOR_PAGE = 2;

    private final int permits;
    private final ExecutorService workers;

    /** What waits, by who asks; those stand in the order of their turns. */
    private final Map<String, ArrayDeque<Task<?>>> waiting = new HashMap<>();

    private final ArrayDeque<String> turns = new ArrayDeque<>();
    private final Map<String, Task<?>> newest = new HashMap<>();
    private int count;
    private int working;

    /**
     * Who asks.
     *
     * @param who one who takes turns with others
     * @param page of whose questions only the newest matters; null where each does
     */
    public record Asker(String who, String page) {

        /** Whoever has sent a request: the session, or the page of somebody who has none. */
        public static Asker of(HttpServletRequest request) {
            HttpSession session = request.getSession(false);
            String page = request.getHeader(PAGE);
            if (page != null && page.length() > LONGEST_PAGE) page = null;
            // Many who bear a link may come from one address: each page of theirs takes turns by itself.
            String who = session != null ? session.getId() : request.getRemoteAddr() + (page == null ? "" : " " + page);
            return new Asker(who, page == null ? null : who + " " + page);
        }

        /** The same, of whose questions each matters. */
        public Asker each() {
            return new Asker(who, null);
        }
    }

    /** Says whether an answer is still wanted. */
    public interface Ticket {

        /** @throws CancellationException when nobody wants the answer any more */
        void check();
    }

    /** The work of an answer. */
    @FunctionalInterface
    public interface Answer<T> {
        T work(Ticket ticket) throws Exception;
    }

    /** The answer that is worked out on this thread. */
    private static final ThreadLocal<Task<?>> AT_WORK = new ThreadLocal<>();

    /**
     * Waits for something that is worked out elsewhere, such as in a database. Others take a turn meanwhile.
     *
     * @param wait waits for a moment; gives null where it has to be called again
     * @throws CancellationException when nobody wants the answer any more
     */
    public static <T> T elsewhere(Supplier<T> wait) {
        Task<?> task = AT_WORK.get();
        if (task != null) task.rest();
        try {
            T found = wait.get();
            while (found == null) {
                if (task != null) task.check();
                found = wait.get();
            }
            return found;
        } finally {
            if (task != null) task.goOn();
        }
    }

    private final class Task<T> implements Ticket {

        private final Asker asker;
        private final Answer<T> answer;
        private final DeferredResult<T> result = new DeferredResult<>(PATIENCE);
        private final Language language = Language.spoken();
        private volatile boolean dropped;

        Task(Asker asker, Answer<T> answer) {
            this.asker = asker;
            this.answer = answer;
            result.onTimeout(
                    () -> refuse(
                            HttpStatus.SERVICE_UNAVAILABLE,
                            () -> phrase(
                                    "So many questions wait that yours was not answered within a minute. Ask again in a little while.")));
            result.onError(e -> dropped = true);
        }

        @Override
        public void check() {
            if (dropped || Thread.currentThread().isInterrupted()) throw new CancellationException();
        }

        void refuse(HttpStatus status, Supplier<String> sentence) {
            dropped = true;
            result.setErrorResult(new RefusedException(status, Language.in(language, sentence)));
        }

        void overtaken() {
            refuse(HttpStatus.CONFLICT, () -> phrase("A newer question of this page has taken the place of this one."));
        }

        /** Gives its permit to others while it waits. */
        void rest() {
            synchronized (AnswerQueue.this) {
                working--;
                dispatch();
            }
        }

        /** Takes a permit again; for a moment there may be one too many at work. */
        void goOn() {
            synchronized (AnswerQueue.this) {
                working++;
            }
        }

        private T worked() {
            AT_WORK.set(this);
            try {
                return answer.work(this);
            } catch (RuntimeException | Error failed) {
                throw failed;
            } catch (Exception failed) {
                throw new CompletionException(failed);
            } finally {
                AT_WORK.remove();
            }
        }

        void run() {
            try {
                check();
                result.setResult(Language.in(language, this::worked));
            } catch (CancellationException dropped) {
                overtaken();
            } catch (CompletionException failed) {
                result.setErrorResult(failed.getCause());
            } catch (Throwable failed) {
                result.setErrorResult(failed);
            }
        }
    }

    @Autowired
    public AnswerQueue() {
        this(Runtime.getRuntime().availableProcessors());
    }

    /**
     * @param permits answers that are worked out at once
     */
    public AnswerQueue(int permits) {
        this.permits = permits;
        // Those that wait for a database hold a thread, but no permit.
        this.workers = Executors.newCachedThreadPool(work -> {
            Thread thread = new Thread(work, "answer");
            thread.setDaemon(true);
            return thread;
        });
    }

    @Override
    public void close() {
        workers.shutdownNow();
    }

    /** Has an answer worked out when its turn comes. */
    public <T> DeferredResult<T> answer(Asker asker, Answer<T> answer) {
        return answer(asker, CompletableFuture.completedFuture(null), answer);
    }

    /**
     * Has an answer worked out when its turn comes.
     *
     * @param ready what has to be there before it takes a turn, such as data that is on its way; it is not waited for
     *     long
     */
    public <T> DeferredResult<T> answer(Asker asker, CompletableFuture<Void> ready, Answer<T> answer) {
        Task<T> task = new Task<>(asker, answer);
        Task<?> older = asker.page == null ? null : overtake(asker.page, task);
        if (older != null) older.overtaken();
        if (ready.isDone()) enter(task);
        else (asker.page == null ? within(LOADING, ready) : soon(ready)).whenComplete((r, failed) -> enter(task));
        return task.result;
    }

    /**
     * Done when something is there, or after the short while for which a page waits for it.
     *
     * @param ready what has to be there
     */
    public static CompletableFuture<Void> soon(CompletableFuture<Void> ready) {
        return within(LOADING_FOR_PAGE, ready);
    }

    private static CompletableFuture<Void> within(long seconds, CompletableFuture<Void> ready) {
        return ready.copy().completeOnTimeout(null, seconds, TimeUnit.SECONDS);
    }

    /** Drops what a page has asked, waiting or at work: nobody looks at it any more. */
    public void gone(Asker asker) {
        Task<?> asked;
        synchronized (this) {
            asked = asker.page == null ? null : newest.remove(asker.page);
        }
        if (asked != null) asked.refuse(HttpStatus.CONFLICT, () -> phrase("The page that asked this has been left."));
    }

    private synchronized Task<?> overtake(String page, Task<?> task) {
        return newest.put(page, task);
    }

    private void enter(Task<?> task) {
        Runnable refused = null;
        synchronized (this) {
            ArrayDeque<Task<?>> own = waiting.get(task.asker.who);
            if (own != null && own.size() >= MOST_OF_ONE) {
                refused = () -> task.refuse(
                        HttpStatus.TOO_MANY_REQUESTS,
                        () -> phrase(
                                "{0} questions of yours wait already. Ask again when some are answered.", MOST_OF_ONE));
            } else if (count >= MOST) {
                refused = () -> task.refuse(
                        HttpStatus.SERVICE_UNAVAILABLE,
                        () -> phrase(
                                "So many people ask just now that yours cannot wait in line. Ask again in a little while."));
            } else {
                if (own == null) {
                    own = new ArrayDeque<>();
                    waiting.put(task.asker.who, own);
                    turns.add(task.asker.who);
                }
                own.add(task);
                count++;
                dispatch();
            }
        }
        if (refused != null) {
            leave(task);
            refused.run();
        }
    }

    /** Called with the lock held: hands out work while there is a permit. */
    private void dispatch() {
        while (working < permits && !turns.isEmpty()) {
            String who = turns.poll();
            ArrayDeque<Task<?>> own = waiting.get(who);
            Task<?> task = own.poll();
            count--;
            if (own.isEmpty()) waiting.remove(who);
            else turns.add(who);
            if (task.dropped) continue;
            working++;
            workers.execute(() -> {
                try {
                    task.run();
                } finally {
                    leave(task);
                    done();
                }
            });
        }
    }

    private synchronized void done() {
        working--;
        dispatch();
    }

    private synchronized void leave(Task<?> task) {
        if (task.asker.page != null) newest.remove(task.asker.page, task);
    }

    /** How many answers wait. */
    public synchronized int waiting() {
        return count;
    }
}
