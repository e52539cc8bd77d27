package sarnik.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicLong;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.springframework.http.HttpStatus;
import sarnik.app.web.RefusedException;

@DisplayName("The memory that data may fill")
class MemoryBudgetTest {

    private static final long MB = 1 << 20;

    private final MemoryBudget budget = new MemoryBudget(1000 * MB);

    @Test
    void isGivenBackOnceWhateverIsClosedTwice() {
        MemoryBudget.Share file = budget.reserve(300 * MB, "This file");
        MemoryBudget.Share picture = budget.reserve(200 * MB, "This picture");
        file.close();
        file.close();
        assertThat(budget.reserved()).isEqualTo(200 * MB);
        picture.become(50 * MB, "This picture");
        assertThat(budget.reserved()).isEqualTo(50 * MB);
        picture.close();
        assertThat(budget.reserved()).isZero();
    }

    @Test
    void refusesWhatNeverFitsOtherThanWhatDoesNotFitNow() {
        assertThatThrownBy(() -> budget.reserve(701 * MB, "This file"))
                .isInstanceOfSatisfying(
                        RefusedException.class, r -> assertThat(r.status()).isEqualTo(HttpStatus.CONTENT_TOO_LARGE))
                .hasMessageStartingWith("This file needs about 701 MB of memory, and Sarnik may use 700 MB");
        try (MemoryBudget.Share first = budget.reserve(600 * MB, "This file")) {
            assertThatThrownBy(() -> budget.reserve(200 * MB, "This picture"))
                    .isInstanceOfSatisfying(
                            RefusedException.class,
                            r -> assertThat(r.status()).isEqualTo(HttpStatus.SERVICE_UNAVAILABLE))
                    .hasMessageContaining("100 MB are free just now");
            assertThatThrownBy(() -> first.become(800 * MB, "This file")).isInstanceOf(RefusedException.class);
            assertThat(budget.reserved())
                    .as("a share that cannot grow stays as it was")
                    .isEqualTo(600 * MB);
        }
        assertThat(budget.reserved()).isZero();
    }

    @Test
    void tellsWhatIsLeftForVersionsThatGiveWay() {
        List<Long> told = new ArrayList<>();
        budget.whenLeft(told::add);
        budget.reserve(300 * MB, "This file").close();
        assertThat(told).containsExactly(1000 * MB, 700 * MB, 1000 * MB);
    }

    @Test
    void neverGivesOutMoreThanThereIsWhenManyAsk() throws InterruptedException {
        AtomicLong most = new AtomicLong();
        budget.whenLeft(left -> most.accumulateAndGet(1000 * MB - left, Math::max));
        List<Thread> asking = new ArrayList<>();
        for (int t = 0; t < 8; t++) {
            Thread thread = new Thread(() -> {
                for (int i = 1; i < 500; i++) {
                    try (MemoryBudget.Share share = budget.reserve(i % 400 * MB, "This file")) {
                        share.become(i % 90 * MB, "This file");
                    } catch (RefusedException full) {
                        assertThat(full).hasMessageContaining("Try again");
                    }
                }
            });
            asking.add(thread);
            thread.start();
        }
        for (Thread thread : asking) thread.join();
        assertThat(budget.reserved()).isZero();
        assertThat(most.get()).isPositive().isLessThanOrEqualTo(700 * MB);
    }
}
