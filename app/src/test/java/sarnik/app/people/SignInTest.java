package sarnik.app.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.jdbc.core.simple.JdbcClient;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.web.RefusedException;
import sarnik.demo.SarnikClient;

@ExtendWith(RunningSarnik.class)
@DisplayName("Signing in")
class SignInTest {

    private static final String FORM = "application/x-www-form-urlencoded";
    private static final String OTHER = "quite-another-7";

    private static SarnikClient signedIn(RunningSarnik sarnik, String name, String password) throws Exception {
        SarnikClient client = new SarnikClient(sarnik.base());
        assertThat(client.signIn(name, password)).isTrue();
        return client;
    }

    @Test
    void waitsRiseWithWrongTriesAndAreForgottenWithARightOne(RunningSarnik sarnik) {
        long[] now = {System.currentTimeMillis()};
        // Two instances count together.
        SignInWaits other = new SignInWaits(sarnik.bean(JdbcClient.class), () -> now[0]);
        SignInWaits waits = new SignInWaits(sarnik.bean(JdbcClient.class), () -> now[0]);
        for (int i = 0; i < 4; i++) other.wrong("waits", "192.0.2.1");
        assertThat(waits.seconds("waits", "192.0.2.1")).isZero();
        List<Long> rising = new ArrayList<>();
        for (int i = 0; i < 5; i++) {
            waits.wrong("Waits ", "192.0.2.1");
            rising.add(waits.seconds("waits", "192.0.2.1"));
        }
        assertThat(rising).containsExactly(1L, 2L, 4L, 8L, 16L);
        assertThat(waits.seconds("waits", "192.0.2.9")).as("from elsewhere").isZero();
        assertThat(waits.seconds("waits too", "192.0.2.1")).as("somebody else").isZero();
        now[0] -= 3_000_000;
        assertThat(waits.seconds("waits", "192.0.2.1"))
                .as("a clock that was set back makes nobody wait for longer")
                .isEqualTo(16);
        now[0] -= 3_600_000;
        assertThat(waits.seconds("waits", "192.0.2.1"))
                .as("nor does one that was wrong by hours")
                .isZero();
        now[0] += 6_616_000;
        assertThat(waits.seconds("waits", "192.0.2.1")).isZero();
        for (int i = 0; i < 40; i++) waits.wrong("waits", "198.51.100." + i);
        assertThat(waits.seconds("waits", "203.0.113.1"))
                .as("one name from many addresses")
                .isPositive();
        for (int i = 0; i < 110; i++) waits.wrong("name" + i, "203.0.113.200");
        assertThat(waits.seconds("fresh", "203.0.113.200"))
                .as("many names from one address")
                .isPositive()
                .isLessThanOrEqualTo(900);
        waits.right("waits", "203.0.113.1");
        assertThat(waits.seconds("waits", "203.0.113.1")).isZero();
    }

    @Test
    void aTryTooManyIsNotTakenAndSaysHowLongToWait(RunningSarnik sarnik) throws Exception {
        sarnik.bean(PeopleService.class).add("waiter", "Waiter", RunningSarnik.PASSWORD, Role.READER);
        SarnikClient client = new SarnikClient(sarnik.base());
        assertThat(client.signIn("waiter", "wrong-1")).isFalse();
        // As many as make the wait longer than this test takes on a slow machine.
        for (int i = 0; i < 12; i++) sarnik.bean(SignInWaits.class).wrong("waiter", "127.0.0.1");
        assertThat(client.signIn("waiter", RunningSarnik.PASSWORD))
                .as("though it is right")
                .isFalse();
        assertThat(client.get("/sign-in?wait=7").body()).contains("The next is taken in 7 seconds.");
    }

    /** @return for how many seconds the sessions that were begun since may rest; the others of the tests go on */
    private static List<Integer> resting(RunningSarnik sarnik, long since) {
        return sarnik.bean(JdbcClient.class)
                .sql("SELECT max_inactive_interval FROM sessions WHERE creation_time >= ? ORDER BY 1")
                .param(since)
                .query(Integer.class)
                .list();
    }

    @Test
    void whoHasNotSignedInYetIsForgottenSooner(RunningSarnik sarnik) throws Exception {
        long begun = System.currentTimeMillis();
        SarnikClient client = new SarnikClient(sarnik.base());
        client.get("/sign-in");
        assertThat(resting(sarnik, begun)).containsOnly(1800).isNotEmpty();
        assertThat(client.signIn("rui", RunningSarnik.PASSWORD)).isTrue();
        assertThat(resting(sarnik, begun)).contains((int) Sessions.RESTING.toSeconds());
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"1234567890", "qwertyuiop", "password123", "          ", "aaaaaaaaaaaa", "newperson1", "short"})
    void passwordsThatAreTriedFirstAreRefused(String password) {
        assertThatThrownBy(() -> Passwords.check(password, "newperson1", "New")).isInstanceOf(RefusedException.class);
    }

    @Test
    void allOfALongPasswordCounts() {
        Passwords passwords = new Passwords();
        String base = "ñandú".repeat(16);
        assertThatCode(() -> Passwords.check(base)).doesNotThrowAnyException();
        String kept = passwords.encode(base + "1");
        assertThat(passwords.matches(base + "1", kept)).isTrue();
        assertThat(passwords.matches(base + "2", kept))
                .as("they differ beyond 72 bytes")
                .isFalse();
        assertThat(passwords.matches("x".repeat(5000), kept)).isFalse();
    }

    @Test
    void onePersonIsMadeOfSeveralSpellingsAtOnce(RunningSarnik sarnik) throws Exception {
        PeopleService people = sarnik.bean(PeopleService.class);
        ExecutorService pool = Executors.newFixedThreadPool(6);
        List<Future<Boolean>> made = new ArrayList<>();
        for (String spelling : List.of("Spelled", "SPELLED", "spelled", "sPelled", "spEllEd", "speLLed")) {
            made.add(pool.submit(() -> {
                try {
                    people.add(spelling, spelling, RunningSarnik.PASSWORD, Role.READER);
                    return true;
                } catch (RefusedException taken) {
                    return false;
                }
            }));
        }
        int count = 0;
        for (Future<Boolean> one : made) if (one.get()) count++;
        pool.shutdown();
        assertThat(count).isEqualTo(1);
        signedIn(sarnik, "spelled", RunningSarnik.PASSWORD);
    }

    @Test
    void onesPasswordIsChangedByOneselfAndOtherSessionsEnd(RunningSarnik sarnik) throws Exception {
        sarnik.bean(PeopleService.class).add("changer", "Changer", RunningSarnik.PASSWORD, Role.READER);
        SarnikClient here = signedIn(sarnik, "changer", RunningSarnik.PASSWORD);
        SarnikClient elsewhere = signedIn(sarnik, "changer", RunningSarnik.PASSWORD);
        assertThat(here.send("POST", "/me", FORM, "now=wrong-one-1&next=" + OTHER + "&again=" + OTHER)
                        .body())
                .contains("is not the one you sign in with");
        assertThat(here.send(
                                "POST",
                                "/me",
                                FORM,
                                "now=" + RunningSarnik.PASSWORD + "&next=" + OTHER + "&again=different-1")
                        .body())
                .contains("not the same");
        assertThat(here.send(
                                "POST",
                                "/me",
                                FORM,
                                "now=" + RunningSarnik.PASSWORD + "&next=password123&again=password123")
                        .body())
                .contains("among the first");
        assertThat(elsewhere.get("/me").uri().getPath()).isEqualTo("/me");
        assertThat(here.send(
                                "POST",
                                "/me",
                                FORM,
                                "now=" + RunningSarnik.PASSWORD + "&next=" + OTHER + "&again=" + OTHER)
                        .body())
                .contains("The password is changed");
        assertThat(here.get("/me").uri().getPath()).isEqualTo("/me");
        assertThat(elsewhere.get("/me").uri().toString()).endsWith("/sign-in?ended");
        assertThat(elsewhere
                        .send("PUT", "/api/dashboards/1/mark", "application/json", "true")
                        .statusCode())
                .as("what a page sends that is open still")
                .isEqualTo(401);
        assertThat(elsewhere.send("POST", "/me", FORM, "now=x").uri().toString())
                .as("a form that is open still")
                .endsWith("/sign-in?ended");
        assertThat(new SarnikClient(sarnik.base()).signIn("changer", RunningSarnik.PASSWORD))
                .isFalse();
        signedIn(sarnik, "changer", OTHER);
    }

    @Test
    void aStewardClosesSomebodyAndSetsPasswords(RunningSarnik sarnik) throws Exception {
        long id = sarnik.bean(PeopleService.class)
                .add("leaver", "Leaver", RunningSarnik.PASSWORD, Role.ANALYST)
                .getId();
        SarnikClient leaver = signedIn(sarnik, "leaver", RunningSarnik.PASSWORD);
        SarnikClient marta = sarnik.client("marta");
        assertThat(leaver.send("POST", "/people/" + id, FORM, "act=reopen").statusCode())
                .isEqualTo(403);
        assertThat(marta.send("POST", "/people/" + id, FORM, "act=close").body())
                .contains("Leaver can sign in no more");
        HttpResponse<String> ended = leaver.get("/api/places?name=Soria");
        assertThat(ended.statusCode()).isEqualTo(401);
        assertThat(new SarnikClient(sarnik.base()).signIn("leaver", RunningSarnik.PASSWORD))
                .isFalse();
        assertThat(marta.send("POST", "/people/" + id, FORM, "act=reopen").body())
                .contains("can sign in again");
        assertThat(marta.send("POST", "/people/" + id, FORM, "act=word").body())
                .contains("signs in once with the word");
        assertThat(new SarnikClient(sarnik.base()).signIn("leaver", RunningSarnik.PASSWORD))
                .as("the password of before")
                .isFalse();
        long own = sarnik.bean(PeopleService.class).all().stream()
                .filter(p -> p.getSignIn().equals("marta"))
                .findFirst()
                .orElseThrow()
                .getId();
        assertThat(marta.send("POST", "/people/" + own, FORM, "act=close").body())
                .contains("cannot close yourself out");
    }
}
