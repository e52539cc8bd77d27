package sarnik.app.people;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.jdbc.core.simple.JdbcClient;
import sarnik.app.testing.RunningSarnik;
import sarnik.demo.SarnikClient;

@ExtendWith(RunningSarnik.class)
@DisplayName("A second factor, words that are given out, and sessions")
class SecondFactorTest {

    private static final String FORM = "application/x-www-form-urlencoded";
    private static final String STRONG = "seven quiet rivers";

    /** RFC 6238, appendix B, with the last six of eight digits. */
    @Test
    void codesAreThoseOfTheStandard(RunningSarnik sarnik) {
        SecondFactor factor = sarnik.bean(SecondFactor.class);
        String secret = "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ";
        assertThat(List.of(59L, 1111111109L, 1111111111L, 1234567890L, 2000000000L, 20000000000L))
                .map(second -> factor.code(secret, Instant.ofEpochSecond(second)))
                .containsExactly("287082", "081804", "050471", "005924", "279037", "353130");
        assertThat(factor.secret()).matches("[A-Z2-7]{32}").isNotEqualTo(factor.secret());
    }

    private static SarnikClient fresh(RunningSarnik sarnik, String name) throws Exception {
        sarnik.bean(PeopleService.class).add(name, name, STRONG, Role.ANALYST);
        SarnikClient client = new SarnikClient(sarnik.base());
        assertThat(client.signIn(name, STRONG)).isTrue();
        return client;
    }

    private static HttpResponse<String> form(SarnikClient client, String path, String name, String value)
            throws Exception {
        return client.send("POST", path, FORM, name + "=" + URLEncoder.encode(value, StandardCharsets.UTF_8));
    }

    private static String secret(SarnikClient client) throws Exception {
        Matcher found = Pattern.compile("id=\"secret\">([A-Z2-7 ]+)<")
                .matcher(client.get("/me/factor").body());
        assertThat(found.find()).isTrue();
        return found.group(1).replace(" ", "");
    }

    @Test
    void aCodeIsAskedForAfterThePasswordAndTakenOnce(RunningSarnik sarnik) throws Exception {
        SarnikClient quim = fresh(sarnik, "quim");
        SecondFactor factor = sarnik.bean(SecondFactor.class);
        String secret = secret(quim);
        assertThat(form(quim, "/me/factor", "code", "000000").body()).contains("not the code that the app shows");
        assertThat(secret(quim)).as("the same is still offered").isEqualTo(secret);
        Instant now = Instant.now();
        String used = factor.code(secret, now);
        HttpResponse<String> words = form(quim, "/me/factor", "code", used);
        List<String> rescues = Pattern.compile("<code>([a-z2-9-]{14})</code>")
                .matcher(words.body())
                .results()
                .map(m -> m.group(1))
                .toList();
        assertThat(rescues).hasSize(10).doesNotHaveDuplicates();

        SarnikClient again = new SarnikClient(sarnik.base());
        again.signIn("quim", STRONG);
        assertThat(again.get("/").uri().getPath()).isEqualTo("/sign-in/code");
        assertThat(again.get("/me").uri().getPath()).isEqualTo("/sign-in/code");
        assertThat(again.get("/api/requests").statusCode()).isEqualTo(401);
        assertThat(again.send("POST", "/api/dashboards", "application/json", "{\"title\":\"x\"}")
                        .statusCode())
                .isEqualTo(401);
        assertThat(form(again, "/sign-in/code", "code", used).body())
                .as("a code that was taken before")
                .contains("not a code of now");
        assertThat(form(again, "/sign-in/code", "code", "12345").body()).contains("not a code of now");
        form(again, "/sign-in/code", "code", factor.code(secret, now.plusSeconds(30)));
        assertThat(again.get("/me").body()).contains("10 rescue words are left");

        SarnikClient lost = new SarnikClient(sarnik.base());
        lost.signIn("quim", STRONG);
        form(lost, "/sign-in/code", "code", rescues.get(3).toUpperCase(java.util.Locale.ROOT));
        assertThat(lost.get("/me").body()).contains("9 rescue words are left");
        SarnikClient twice = new SarnikClient(sarnik.base());
        twice.signIn("quim", STRONG);
        assertThat(form(twice, "/sign-in/code", "code", rescues.get(3)).body()).contains("not a code of now");
        for (int i = 0; i < 8; i++) form(twice, "/sign-in/code", "code", "00000" + i);
        assertThat(form(twice, "/sign-in/code", "code", rescues.get(4)).body())
                .as("guessing has to wait")
                .contains("too many wrong tries");

        assertThat(form(lost, "/me/factor/end", "password", "not it").body()).contains("Nothing was changed");
        assertThat(form(lost, "/me/factor/end", "password", STRONG).body()).contains("without a code");
        assertThat(new SarnikClient(sarnik.base()).signIn("quim", STRONG)).isTrue();
    }

    @Test
    void aWordThatIsGivenOutIsChangedBeforeAnythingElse(RunningSarnik sarnik) throws Exception {
        SarnikClient before = fresh(sarnik, "xenia");
        SarnikClient marta = sarnik.client("marta");
        long id = sarnik.person("xenia").id();
        String said = form(marta, "/people/" + id, "act", "word").body();
        Matcher word = Pattern.compile("with the word ([a-z2-9-]{19}),").matcher(said);
        assertThat(word.find()).isTrue();
        assertThat(marta.get("/people").body()).as("told once").doesNotContain(word.group(1));
        assertThat(before.get("/").uri().getPath()).as("sessions are ended").isEqualTo("/sign-in");
        assertThat(new SarnikClient(sarnik.base()).signIn("xenia", STRONG)).isFalse();
        SarnikClient client = new SarnikClient(sarnik.base());
        client.signIn("xenia", word.group(1));
        assertThat(client.get("/").uri().getPath()).isEqualTo("/sign-in/password");
        assertThat(client.get("/api/requests").statusCode()).isEqualTo(401);
        String chosen = "a word of my own";
        assertThat(client.send("POST", "/sign-in/password", FORM, "next=short&again=short")
                        .body())
                .contains("too short");
        client.send("POST", "/sign-in/password", FORM, "next=a+word+of+my+own&again=a+word+of+my+own");
        assertThat(client.get("/").uri().getPath()).isEqualTo("/");
        assertThat(new SarnikClient(sarnik.base()).signIn("xenia", word.group(1)))
                .as("the word works once")
                .isFalse();
        assertThat(new SarnikClient(sarnik.base()).signIn("xenia", chosen)).isTrue();
        assertThat(client.send("POST", "/sign-in/password", FORM, "next=another+one+here&again=another+one+here")
                        .uri()
                        .getPath())
                .as("the page changes nothing afterwards")
                .isEqualTo("/");
        assertThat(new SarnikClient(sarnik.base()).signIn("xenia", chosen)).isTrue();
    }

    @Test
    void sessionsAreListedAndEnded(RunningSarnik sarnik) throws Exception {
        SarnikClient first = fresh(sarnik, "zoe");
        SarnikClient second = new SarnikClient(sarnik.base());
        second.signIn("zoe", STRONG);
        SarnikClient third = new SarnikClient(sarnik.base());
        third.signIn("zoe", STRONG);
        String page = first.get("/me").body();
        assertThat(page).contains("from 127.0.0.1", "(this one)", "End all others");
        List<String> keys = Pattern.compile("name=\"key\" value=\"([0-9a-f]+)\"")
                .matcher(page)
                .results()
                .map(m -> m.group(1))
                .toList();
        assertThat(keys).hasSize(3);
        first.send("POST", "/me/sessions", FORM, "key=");
        assertThat(first.get("/me").uri().getPath()).isEqualTo("/me");
        assertThat(second.get("/me").uri().getPath()).isEqualTo("/sign-in");
        assertThat(third.get("/api/requests").statusCode()).isEqualTo(401);
    }

    @Test
    void ofManySessionsEachIsToldWhole(RunningSarnik sarnik) throws Exception {
        sarnik.bean(PeopleService.class).add("manifold", "Manifold", RunningSarnik.PASSWORD, Role.READER);
        Sessions sessions = sarnik.bean(Sessions.class);
        long id = sarnik.person("manifold").id();
        for (int i = 0; i < 12; i++)
            assertThat(new SarnikClient(sarnik.base()).signIn("manifold", RunningSarnik.PASSWORD))
                    .isTrue();
        // What each holds lies apart: the database gives it in any order.
        sarnik.bean(JdbcClient.class)
                .sql(
                        "UPDATE sessions_attributes SET attribute_bytes = attribute_bytes WHERE attribute_name LIKE '%.from'")
                .update();
        assertThat(sessions.of(id, null))
                .hasSize(12)
                .allSatisfy(session -> assertThat(session.address()).isEqualTo("127.0.0.1"));
        sessions.endAll(id, null);
        assertThat(sessions.of(id, null)).isEmpty();
    }

    @Test
    void aSessionEndsAfterSevenDaysHoweverMuchItIsUsed(RunningSarnik sarnik) throws Exception {
        sarnik.bean(PeopleService.class).add("lasting", "Lasting", RunningSarnik.PASSWORD, Role.READER);
        SarnikClient client = new SarnikClient(sarnik.base());
        assertThat(client.signIn("lasting", RunningSarnik.PASSWORD)).isTrue();
        long id = sarnik.person("lasting").id();
        Sessions sessions = sarnik.bean(Sessions.class);
        assertThat(sessions.of(id, null)).hasSize(1);
        begun(sarnik, id, Sessions.LONGEST.minusSeconds(60));
        sessions.endThoseTooLong(Instant.now());
        assertThat(sessions.of(id, null)).as("not yet").hasSize(1);
        assertThat(client.get("/me").uri().getPath()).isEqualTo("/me");
        begun(sarnik, id, Sessions.LONGEST.plusSeconds(1));
        sessions.endThoseTooLong(Instant.now());
        assertThat(sessions.of(id, null)).isEmpty();
        assertThat(client.get("/me").uri().toString()).endsWith("/sign-in?ended");
    }

    /** Sets back when the sessions of somebody were begun. */
    private static void begun(RunningSarnik sarnik, long person, Duration ago) {
        sarnik.bean(JdbcClient.class)
                .sql("UPDATE sessions SET creation_time = ? WHERE principal_name = ?")
                .params(Instant.now().minus(ago).toEpochMilli(), String.valueOf(person))
                .update();
    }
}
