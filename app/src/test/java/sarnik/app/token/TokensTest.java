package sarnik.app.token;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;

@ExtendWith(RunningSarnik.class)
@DisplayName("Tokens for programs")
class TokensTest {

    private static final String FORM = "application/x-www-form-urlencoded";

    private static HttpResponse<String> ask(RunningSarnik sarnik, String token, String method, String path, String body)
            throws Exception {
        return HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(sarnik.base() + path))
                                .header("Authorization", "Bearer " + token)
                                .header("Content-Type", "application/json")
                                .method(
                                        method,
                                        body == null
                                                ? HttpRequest.BodyPublishers.noBody()
                                                : HttpRequest.BodyPublishers.ofString(body))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
    }

    static String make(SarnikClient client, String form) throws Exception {
        String page = client.send("POST", "/me/tokens", FORM, form).body();
        Matcher found =
                Pattern.compile("id=\"token\">(sarnik_[A-Za-z0-9_-]{43})<").matcher(page);
        assertThat(found.find()).as(page).isTrue();
        return found.group(1);
    }

    private static String until(LocalDate day) {
        return "&ends=" + URLEncoder.encode(day.toString(), StandardCharsets.UTF_8);
    }

    @Test
    void letAProgramDoWhatItsScopesSayAndNoMore(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "Asked by a program?");
        String below = "/api/dashboards/" + dashboard;
        String reads = make(ana, "name=reads&scope=READ" + until(LocalDate.now().plusDays(2)));
        assertThat(ana.get("/me/tokens").body()).contains("reads").doesNotContain(reads);
        HttpResponse<String> frames =
                ask(sarnik, reads, "POST", below + "/frames", "{\"state\":\"\",\"ids\":[\"v2\"]}");
        assertThat(frames.statusCode()).isEqualTo(200);
        assertThat(Samples.parse(frames.body()).at("/drawings/v2/full").asString())
                .isEqualTo("179");
        assertThat(frames.headers().allValues("Set-Cookie"))
                .as("nothing is kept of it")
                .isEmpty();
        assertThat(frames.headers().firstValue("RateLimit-Policy").orElse("")).matches("\"minute\";q=\\d+;w=60");
        assertThat(frames.headers().firstValue("RateLimit").orElse("")).matches("\"minute\";r=\\d+;t=\\d+");
        assertThat(ask(sarnik, reads, "POST", "/api/dashboards", "{\"title\":\"x\"}")
                        .statusCode())
                .isEqualTo(403);
        assertThat(ask(sarnik, reads, "POST", below + "/editions", "{}").body()).contains("publish and hand on");
        String hands = make(ana, "name=hands&scope=READ&scope=COMPOSE&scope=HAND_ON" + until(LocalDate.now()));
        assertThat(ask(sarnik, hands, "POST", "/api/dashboards", "{\"title\":\"Made by a program?\"}")
                        .statusCode())
                .isEqualTo(201);
        assertThat(ask(sarnik, hands, "POST", below + "/editions", "{}").statusCode())
                .isEqualTo(201);
        assertThat(ask(sarnik, hands, "DELETE", "/api/bring/x", null).body()).contains("bring tables in");
        assertThat(ask(sarnik, hands, "GET", "/me", null).statusCode())
                .as("pages are for people")
                .isIn(302, 401);
    }

    @Test
    void actForTheirPersonOnlyAsFarAsThatPersonMay(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long draft = Samples.dashboard(ana, "Not for readers' programs?");
        String all = "&scope=READ&scope=BRING&scope=COMPOSE&scope=HAND_ON"
                + until(LocalDate.now().plusDays(1));
        String rui = make(sarnik.client("rui"), "name=x" + all);
        assertThat(ask(sarnik, rui, "GET", "/api/dashboards/" + draft, null).statusCode())
                .isEqualTo(404);
        assertThat(ask(sarnik, rui, "POST", "/api/dashboards", "{\"title\":\"x\"}")
                        .statusCode())
                .isEqualTo(403);
        PeopleService people = sarnik.bean(PeopleService.class);
        long gone = people.add("leaves", "Leaves", RunningSarnik.PASSWORD, Role.ANALYST)
                .getId();
        String token = make(sarnik.client("leaves"), "name=x" + all);
        assertThat(ask(sarnik, token, "GET", "/api/requests", null).statusCode())
                .isEqualTo(200);
        sarnik.client("marta").send("POST", "/people/" + gone, FORM, "act=close");
        assertThat(ask(sarnik, token, "GET", "/api/requests", null).statusCode())
                .as("somebody who may not sign in any more")
                .isEqualTo(401);
    }

    @Test
    void areRefusedWhereTheyAreNoneOrTakenAway(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        for (String odd : List.of("x", "sarnik_", "sarnik_" + "A".repeat(43))) {
            HttpResponse<String> answer = ask(sarnik, odd, "GET", "/api/requests", null);
            assertThat(answer.statusCode()).isEqualTo(401);
            assertThat(answer.headers().firstValue("WWW-Authenticate")).contains("Bearer");
        }
        String token =
                make(ana, "name=taken+away&scope=READ" + until(LocalDate.now().plusDays(1)));
        Matcher id = Pattern.compile("/me/tokens/(\\d+)\"[^>]*>(?:(?!</form>).)*taken away", Pattern.DOTALL)
                .matcher(ana.get("/me/tokens").body());
        assertThat(id.find()).isTrue();
        assertThat(sarnik.client("rui")
                        .send("POST", "/me/tokens/" + id.group(1), FORM, "")
                        .statusCode())
                .as("another's")
                .isEqualTo(404);
        ana.send("POST", "/me/tokens/" + id.group(1), FORM, "");
        assertThat(ask(sarnik, token, "GET", "/api/requests", null).statusCode())
                .isEqualTo(401);
        for (String form : List.of(
                "name=&scope=READ" + until(LocalDate.now()),
                "name=x" + until(LocalDate.now()),
                "name=x&scope=READ&ends=soon",
                "name=x&scope=READ" + until(LocalDate.now().minusDays(2)),
                "name=x&scope=READ" + until(LocalDate.now().plusYears(3))))
            assertThat(ana.send("POST", "/me/tokens", FORM, form).body()).contains("sentence-bad");
    }

    @ParameterizedTest
    @CsvSource({
        "GET, /api/dashboards/1, READ",
        "POST, /api/dashboards/1/frames, READ",
        "POST, /api/dashboards/1/places/told, READ",
        "GET, /api/dashboards/1/links, READ",
        "POST, /api/dashboards/1/links, HAND_ON",
        "PUT, /api/datasets/1/viewer-rule, HAND_ON",
        "POST, /api/datasets/1/feed, BRING",
        "POST, /api/bring, BRING",
        "PATCH, /api/dashboards/1, COMPOSE",
        "POST, /api/dashboard-files, COMPOSE",
        "DELETE, /api/dashboards/1, COMPOSE"
    })
    void eachAddressNeedsAScope(String method, String path, Scope scope) {
        assertThat(Scope.of(method, path)).isEqualTo(scope);
    }

    @Test
    void requestsAreCountedForAMinute() {
        long[] now = {30_000};
        RateLimits limits = new RateLimits(3, 3, () -> now[0]);
        for (int left : new int[] {2, 1, 0})
            assertThat(limits.count("a", 3)).isEqualTo(new RateLimits.Counted(true, 3, left, 30));
        assertThat(limits.count("a", 3)).isEqualTo(new RateLimits.Counted(false, 3, 0, 30));
        assertThat(limits.count("b", 3).answered()).as("somebody else").isTrue();
        now[0] = 60_000;
        assertThat(limits.count("a", 3)).as("the next minute").isEqualTo(new RateLimits.Counted(true, 3, 2, 60));
    }
}
