package sarnik.app.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.UUID;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.userdetails.UserDetailsService;
import sarnik.app.people.SignedIn;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.web.RefusedException;

@ExtendWith(RunningSarnik.class)
@DisplayName("Work that takes longer than a moment")
class JobsTest {

    private static SignedIn who(RunningSarnik sarnik, String name) {
        return (SignedIn) sarnik.bean(UserDetailsService.class).loadUserByUsername(name);
    }

    @Test
    void thatEndsSoonAnswersAtOnce(RunningSarnik sarnik) {
        try (Jobs jobs = new Jobs(UUID.randomUUID())) {
            ResponseEntity<Object> answer = jobs.begin(who(sarnik, "ana"), "Counting", progress -> 7);
            assertThat(answer.getStatusCode().value()).isEqualTo(200);
            assertThat(answer.getBody()).isEqualTo(7);
            assertThatThrownBy(() -> jobs.begin(who(sarnik, "ana"), "Counting", progress -> {
                        throw new RefusedException("It cannot be counted.");
                    }))
                    .isInstanceOf(RefusedException.class)
                    .hasMessage("It cannot be counted.");
        }
    }

    @Test
    void saysHowFarItHasComeAndStopsWhenItsPersonSaysSo(RunningSarnik sarnik) throws Exception {
        SignedIn ana = who(sarnik, "ana");
        CountDownLatch stopped = new CountDownLatch(1);
        CountDownLatch asked = new CountDownLatch(1);
        try (Jobs jobs = new Jobs(UUID.randomUUID())) {
            ResponseEntity<Object> answer = jobs.begin(ana, "Counting", progress -> {
                try {
                    progress.at(3, 10);
                    asked.await();
                    progress.at(4, 10);
                    return "counted";
                } finally {
                    stopped.countDown();
                }
            });
            assertThat(answer.getStatusCode().value()).isEqualTo(202);
            Jobs.Going going = (Jobs.Going) answer.getBody();
            assertThat(going).isEqualTo(new Jobs.Going(going.job(), true, "Counting", 3, 10));
            assertThatThrownBy(() -> jobs.state(going.job(), who(sarnik, "berta")))
                    .as("another's")
                    .hasMessageContaining("no such job");
            assertThatThrownBy(() -> jobs.stop(going.job(), who(sarnik, "berta")))
                    .hasMessageContaining("no such job");
            jobs.stop(going.job(), ana);
            asked.countDown();
            stopped.await();
            assertThatThrownBy(() -> jobs.state(going.job(), ana)).hasMessage("Stopped. Nothing was changed.");
        }
    }

    @Test
    void ofOnePersonIsBounded(RunningSarnik sarnik) {
        CountDownLatch end = new CountDownLatch(1);
        try (Jobs jobs = new Jobs(UUID.randomUUID())) {
            for (int i = 0; i < 8; i++)
                jobs.begin(who(sarnik, "ana"), "Waiting", progress -> {
                    end.await();
                    return "done";
                });
            assertThatThrownBy(() -> jobs.begin(who(sarnik, "ana"), "Waiting", progress -> 1))
                    .hasMessageContaining("8 jobs of yours");
            assertThat(jobs.begin(who(sarnik, "berta"), "Waiting", progress -> 1)
                            .getStatusCode()
                            .value())
                    .as("another's have their own bound")
                    .isEqualTo(202);
            end.countDown();
        }
    }
}
