package sarnik.app.work;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.springframework.web.context.request.async.DeferredResult;
import sarnik.app.web.RefusedException;

@DisplayName("The queue of answers")
class AnswerQueueTest {

    private final AnswerQueue queue = new AnswerQueue(1);
    private final CountDownLatch open = new CountDownLatch(1);
    private final List<String> order = new CopyOnWriteArrayList<>();

    @AfterEach
    void close() {
        open.countDown();
        queue.close();
    }

    private static AnswerQueue.Asker who(String name) {
        return new AnswerQueue.Asker(name, null);
    }

    /** Holds the one permit until it is opened. */
    private void hold() throws InterruptedException {
        CountDownLatch begun = new CountDownLatch(1);
        queue.answer(who("holder"), ticket -> {
            begun.countDown();
            open.await();
            return null;
        });
        begun.await();
    }

    private DeferredResult<String> ask(AnswerQueue.Asker asker, String words) {
        return queue.answer(asker, ticket -> {
            order.add(words);
            return words;
        });
    }

    private static <T> Object awaited(DeferredResult<T> result) throws InterruptedException {
        CountDownLatch done = new CountDownLatch(1);
        Object[] came = new Object[1];
        result.setResultHandler(r -> {
            came[0] = r;
            done.countDown();
        });
        done.await();
        return came[0];
    }

    @Test
    void letsThoseWhoAskTakeTurnsWhateverEachHasWaiting() throws Exception {
        hold();
        List<DeferredResult<String>> all = new ArrayList<>();
        for (int i = 0; i < 5; i++) all.add(ask(who("greedy"), "greedy " + i));
        all.add(ask(who("modest"), "modest"));
        open.countDown();
        for (DeferredResult<String> one : all) awaited(one);
        assertThat(order).containsExactly("greedy 0", "modest", "greedy 1", "greedy 2", "greedy 3", "greedy 4");
    }

    @Test
    void dropsWhatANewerQuestionOfThePageHasOvertaken() throws Exception {
        hold();
        AnswerQueue.Asker page = new AnswerQueue.Asker("ana", "ana page");
        DeferredResult<String> older = ask(page, "older");
        DeferredResult<String> each = ask(page.each(), "each");
        DeferredResult<String> newer = ask(page, "newer");
        assertThat(awaited(older))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        r -> assertThat(r.getMessage()).contains("A newer question of this page"));
        open.countDown();
        assertThat(awaited(newer)).isEqualTo("newer");
        assertThat(awaited(each)).isEqualTo("each");
        assertThat(order).containsExactly("each", "newer");
    }

    @Test
    void dropsWhatAPageThatHasBeenLeftHasAsked() throws Exception {
        hold();
        AnswerQueue.Asker page = new AnswerQueue.Asker("ana", "ana page");
        DeferredResult<String> left = ask(page, "left");
        DeferredResult<String> other = ask(new AnswerQueue.Asker("ana", "ana other"), "other");
        queue.gone(who("ana"));
        queue.gone(page);
        queue.gone(page);
        assertThat(awaited(left))
                .isInstanceOfSatisfying(
                        RefusedException.class, r -> assertThat(r.getMessage()).contains("has been left"));
        open.countDown();
        assertThat(awaited(other)).isEqualTo("other");
        assertThat(order).containsExactly("other");
    }

    @Test
    void tellsWorkThatGoesOnThatNobodyWantsItAnyMore() throws Exception {
        AnswerQueue.Asker page = new AnswerQueue.Asker("ana", "ana page");
        CountDownLatch begun = new CountDownLatch(1);
        AtomicInteger steps = new AtomicInteger();
        queue.answer(page, ticket -> {
            begun.countDown();
            open.await();
            ticket.check();
            return steps.incrementAndGet();
        });
        begun.await();
        DeferredResult<String> newer = ask(page, "newer");
        open.countDown();
        assertThat(awaited(newer)).isEqualTo("newer");
        assertThat(steps).hasValue(0);
    }

    @Test
    void hasABoundForEachWhoAsks() throws Exception {
        hold();
        List<DeferredResult<String>> all = new ArrayList<>();
        for (int i = 0; i < 25; i++) all.add(ask(who("greedy"), "n"));
        assertThat(awaited(all.get(24)))
                .isInstanceOfSatisfying(
                        RefusedException.class,
                        r -> assertThat(r.status().value()).isEqualTo(429));
        DeferredResult<String> other = ask(who("other"), "other");
        open.countDown();
        assertThat(awaited(other)).isEqualTo("other");
    }

    @Test
    void givesNoTurnToWhatIsNotReadyYet() throws Exception {
        CompletableFuture<Void> data = new CompletableFuture<>();
        DeferredResult<String> waiting = queue.answer(who("ana"), data, ticket -> {
            order.add("waiting");
            return "waiting";
        });
        assertThat(awaited(ask(who("rui"), "at once"))).isEqualTo("at once");
        data.complete(null);
        assertThat(awaited(waiting)).isEqualTo("waiting");
        assertThat(order).containsExactly("at once", "waiting");
    }

    @Test
    void letsOthersTakeATurnWhileSomebodyWaitsForADatabase() throws Exception {
        CountDownLatch answered = new CountDownLatch(1);
        CountDownLatch begun = new CountDownLatch(1);
        DeferredResult<String> slow = queue.answer(
                who("slow"),
                ticket -> AnswerQueue.elsewhere(() -> {
                    begun.countDown();
                    return answered.getCount() == 0 ? "there" : null;
                }));
        begun.await();
        assertThat(awaited(ask(who("quick"), "quick"))).isEqualTo("quick");
        assertThat(slow.hasResult()).isFalse();
        answered.countDown();
        assertThat(awaited(slow)).isEqualTo("there");
        assertThat(awaited(ask(who("next"), "next")))
                .as("the permit is there again")
                .isEqualTo("next");
        hold();
        ask(who("waits"), "waits");
        assertThat(queue.waiting()).as("and there is one of them").isEqualTo(1);
    }

    @Test
    void waitsForNoDatabaseWhoseAnswerNobodyWants() throws Exception {
        AnswerQueue.Asker page = new AnswerQueue.Asker("ana", "ana page");
        CountDownLatch begun = new CountDownLatch(1);
        AtomicInteger looks = new AtomicInteger();
        DeferredResult<String> older = queue.answer(
                page,
                ticket -> AnswerQueue.elsewhere(() -> {
                    looks.incrementAndGet();
                    begun.countDown();
                    return null;
                }));
        begun.await();
        assertThat(awaited(ask(page, "newer"))).isEqualTo("newer");
        assertThat(awaited(older)).isInstanceOf(RefusedException.class);
        // Whoever waited has its permit no more, and asks no more.
        int then = looks.get();
        assertThat(awaited(ask(who("next"), "next"))).isEqualTo("next");
        assertThat(looks.get()).isLessThanOrEqualTo(then + 1);
    }

    @Test
    void outsideOfAnAnswerItIsWaitedForByItself() {
        AtomicInteger looks = new AtomicInteger();
        assertThat(AnswerQueue.<Integer>elsewhere(() -> looks.incrementAndGet() < 3 ? null : looks.get()))
                .isEqualTo(3);
    }
}
