package sarnik.app.people;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.net.http.HttpResponse;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;

@ExtendWith(RunningSarnik.class)
@DisplayName("Who may do what")
class RightsTest {

    /** Every address and who may use it: nobody signed in (all), everyone signed in (reader), authors, stewards. */
    private static final Map<String, String> RIGHTS = new TreeMap<>(Map.ofEntries(
            Map.entry("GET /sign-in", "all"),
            Map.entry("GET /api/editions/{edition}", "reader"),
            Map.entry("GET /api/shown/{bearer}", "all"),
            Map.entry("GET /api/shown/{bearer}/changes", "all"),
            // It takes readings with the token of their feed only.
            Map.entry("POST /readings/{feed}", "token"),
            Map.entry("GET /api/dashboards/{id}/changes", "reader"),
            Map.entry("GET /api/editions/{edition}/changes", "reader"),
            Map.entry("GET /api/versions/{version}/changes", "analyst"),
            Map.entry("GET /api/shown/{bearer}/amiss", "all"),
            Map.entry("GET /api/dashboards/{id}/amiss", "reader"),
            Map.entry("GET /api/editions/{edition}/amiss", "reader"),
            Map.entry("GET /api/versions/{version}/amiss", "analyst"),
            Map.entry("POST /api/dashboards/{id}/amiss/{turn}", "reader"),
            Map.entry("POST /api/editions/{edition}/amiss/{turn}", "reader"),
            Map.entry("POST /api/versions/{version}/amiss/{turn}", "analyst"),
            Map.entry("PUT /api/feeds/{id}/broker", "analyst"),
            Map.entry("PUT /api/feeds/{id}/things", "analyst"),
            Map.entry("GET /api/sensorthings/v1.1/**", "reader"),
            Map.entry("POST /api/feeds/{id}/parts", "analyst"),
            Map.entry("GET /feeds", "analyst"),
            Map.entry("POST /feeds", "analyst"),
            Map.entry("GET /feeds/{id}", "analyst"),
            Map.entry("POST /api/feeds", "analyst"),
            Map.entry("GET /api/feeds/{id}", "analyst"),
            Map.entry("DELETE /api/feeds/{id}", "analyst"),
            Map.entry("GET /api/feeds/{id}/guess", "analyst"),
            Map.entry("POST /api/feeds/{id}/preview", "analyst"),
            Map.entry("PUT /api/feeds/{id}/shape", "analyst"),
            Map.entry("PUT /api/feeds/{id}/settings", "analyst"),
            Map.entry("POST /api/feeds/{id}/token", "analyst"),
            Map.entry("DELETE /api/feeds/{id}/troubles", "analyst"),
            Map.entry("POST /api/editions/{edition}/frames", "reader"),
            Map.entry("POST /api/shown/{bearer}/frames", "all"),
            Map.entry("POST /api/editions/{edition}/filters/values", "reader"),
            Map.entry("POST /api/shown/{bearer}/filters/values", "all"),
            Map.entry("POST /api/editions/{edition}/narrowings", "reader"),
            Map.entry("POST /api/shown/{bearer}/narrowings", "all"),
            Map.entry("POST /api/editions/{edition}/places/told", "reader"),
            Map.entry("POST /api/shown/{bearer}/places/told", "all"),
            Map.entry("POST /api/editions/{edition}/places/others", "reader"),
            Map.entry("POST /api/shown/{bearer}/places/others", "all"),
            Map.entry("POST /api/editions/{edition}/pictures", "reader"),
            Map.entry("POST /api/shown/{bearer}/pictures", "all"),
            Map.entry("POST /api/editions/{edition}/rows", "reader"),
            Map.entry("POST /api/shown/{bearer}/rows", "all"),
            Map.entry("GET /api/editions/{edition}/visuals/{visual}/layers/{layer}/shapes/{band}", "reader"),
            Map.entry("GET /api/shown/{bearer}/visuals/{visual}/layers/{layer}/shapes/{band}", "all"),
            Map.entry("GET /api/editions/{edition}/files/{file}", "reader"),
            Map.entry("GET /api/shown/{bearer}/files/{file}", "all"),
            Map.entry("GET /api/shown/{bearer}/boundary-sets/{name}/shapes/{band}", "all"),
            Map.entry("GET /api/shown/{bearer}/grounds/{name}/{z}/{x}/{y}", "all"),
            Map.entry("GET /api/shown/{bearer}/places", "all"),
            Map.entry("GET /shown/{secret}", "all"),
            Map.entry("GET /shown/{secret}/beside", "all"),
            Map.entry("POST /shown/{secret}", "all"),
            Map.entry("POST /shown/{secret}/beside", "all"),
            Map.entry("GET /editions/{edition}", "reader"),
            Map.entry("GET /editions/{edition}/beside", "reader"),
            Map.entry("GET /dashboards/{id}/hand-over", "analyst"),
            Map.entry("GET /api/dashboards/{id}/editions", "analyst"),
            Map.entry("POST /api/dashboards/{id}/editions", "analyst"),
            Map.entry("GET /api/dashboards/{id}/findings", "analyst"),
            Map.entry("PUT /api/dashboards/{id}/edition", "analyst"),
            Map.entry("DELETE /api/dashboards/{id}/editions/{number}", "analyst"),
            Map.entry("GET /api/dashboards/{id}/editions/{number}/differences", "analyst"),
            Map.entry("PUT /api/dashboards/{id}/takes", "analyst"),
            Map.entry("GET /api/dashboards/{id}/grants", "analyst"),
            Map.entry("PUT /api/dashboards/{id}/grants", "analyst"),
            Map.entry("GET /api/datasets/{id}/grants", "analyst"),
            Map.entry("PUT /api/datasets/{id}/grants", "analyst"),
            Map.entry("POST /api/requests", "reader"),
            Map.entry("GET /api/dashboards/{id}/file", "analyst"),
            Map.entry("POST /api/dashboard-files", "analyst"),
            Map.entry("POST /api/dashboard-files/match", "analyst"),
            Map.entry("PUT /api/datasets/{id}/viewer-rule", "analyst"),
            Map.entry("PUT /api/datasets/{id}/kept-answers", "analyst"),
            Map.entry("POST /api/datasets/{id}/viewer-rule/try", "analyst"),
            Map.entry("POST /people/groups", "steward"),
            Map.entry("POST /people/groups/{id}", "steward"),
            Map.entry("GET /api/requests", "analyst"),
            Map.entry("POST /api/requests/{request}", "analyst"),
            Map.entry("GET /api/dashboards/{id}/links", "analyst"),
            Map.entry("POST /api/dashboards/{id}/links", "analyst"),
            Map.entry("PUT /api/dashboards/{id}/links/{link}", "analyst"),
            Map.entry("POST /api/dashboards/{id}/links/{link}/end", "analyst"),
            Map.entry("DELETE /api/dashboards/{id}/links/{link}", "analyst"),
            Map.entry("GET /acts", "steward"),
            Map.entry("GET /acts.csv", "steward"),
            Map.entry("GET /", "reader"),
            Map.entry("GET /dashboards/{id}", "reader"),
            Map.entry("GET /api/dashboards/{id}", "reader"),
            Map.entry("POST /api/dashboards/{id}/frames", "reader"),
            Map.entry("GET /dashboards/{id}/compose", "analyst"),
            Map.entry("POST /dashboards", "analyst"),
            Map.entry("POST /api/dashboards", "analyst"),
            Map.entry("GET /api/dashboards", "reader"),
            Map.entry("GET /api/datasets", "analyst"),
            Map.entry("GET /api/versions/{version}", "analyst"),
            Map.entry("POST /api/versions/{version}/frames", "analyst"),
            Map.entry("POST /api/versions/{version}/filters/values", "analyst"),
            Map.entry("POST /api/versions/{version}/narrowings", "analyst"),
            Map.entry("POST /api/versions/{version}/places/told", "analyst"),
            Map.entry("POST /api/versions/{version}/places/others", "analyst"),
            Map.entry("POST /api/versions/{version}/pictures", "analyst"),
            Map.entry("POST /api/versions/{version}/rows", "analyst"),
            Map.entry("GET /api/versions/{version}/files/{file}", "analyst"),
            Map.entry("GET /api/versions/{version}/visuals/{visual}/layers/{layer}/shapes/{band}", "analyst"),
            Map.entry("GET /versions/{version}", "analyst"),
            Map.entry("GET /dashboards/{id}/versions", "analyst"),
            Map.entry("GET /api/dashboards/{id}/versions", "analyst"),
            Map.entry("PUT /api/dashboards/{id}/versions/{revision}/name", "analyst"),
            Map.entry("GET /api/dashboards/{id}/versions/{revision}/differences", "analyst"),
            Map.entry("POST /api/dashboards/{id}/versions/{revision}/back", "analyst"),
            Map.entry("PUT /api/dashboards/{id}/tags", "analyst"),
            Map.entry("PUT /api/dashboards/{id}/mark", "reader"),
            Map.entry("GET /api/dashboards/{id}/package", "analyst"),
            Map.entry("GET /api/dashboards/{id}/package.zip", "analyst"),
            Map.entry("GET /api/dashboards/{id}/package-data.js", "analyst"),
            Map.entry("POST /api/dashboards/first", "analyst"),
            Map.entry("PATCH /api/dashboards/{id}", "analyst"),
            Map.entry("DELETE /api/dashboards/{id}", "analyst"),
            Map.entry("POST /api/dashboards/{id}/undo", "analyst"),
            Map.entry("POST /api/dashboards/{id}/redo", "analyst"),
            Map.entry("GET /api/dashboards/{id}/briefs/{part}", "analyst"),
            Map.entry("GET /api/dashboards/{id}/removals/{parts}", "analyst"),
            Map.entry("GET /api/dashboards/{id}/arrangements/{parts}", "analyst"),
            Map.entry("GET /api/dashboards/{id}/own-colours", "analyst"),
            Map.entry("POST /api/dashboards/{id}/sentences", "analyst"),
            Map.entry("POST /api/dashboards/{id}/formulas/try", "analyst"),
            Map.entry("POST /api/dashboards/{id}/filters/values", "reader"),
            Map.entry("POST /api/dashboards/{id}/narrowings", "reader"),
            Map.entry("GET /api/dashboards/{id}/wiring", "analyst"),
            Map.entry("GET /dashboards/{id}/wiring", "analyst"),
            Map.entry("GET /dashboards/{id}/texts", "analyst"),
            Map.entry("GET /dashboards/{id}/beside", "reader"),
            Map.entry("GET /api/dashboards/{id}/views", "reader"),
            Map.entry("PUT /api/dashboards/{id}/views", "reader"),
            Map.entry("DELETE /api/dashboards/{id}/views/{view}", "reader"),
            Map.entry("GET /api/dashboards/{id}/starting-sheets/{name}", "analyst"),
            Map.entry("GET /api/dashboards/starting-sheets", "reader"),
            Map.entry("GET /api/dashboards/{id}/others/{part}", "analyst"),
            Map.entry("GET /api/dashboards/{id}/copies/{parts}", "analyst"),
            Map.entry("GET /api/dashboards/{id}/proposals", "analyst"),
            Map.entry("GET /bring", "analyst"),
            Map.entry("GET /bring/{id}", "analyst"),
            Map.entry("POST /api/bring", "analyst"),
            Map.entry("POST /api/bring/address", "analyst"),
            Map.entry("GET /api/bring/{id}", "analyst"),
            Map.entry("DELETE /api/bring/{id}", "analyst"),
            Map.entry("POST /api/bring/{id}/intake", "analyst"),
            Map.entry("GET /hosts", "steward"),
            Map.entry("GET /databases", "steward"),
            Map.entry("POST /databases", "steward"),
            Map.entry("POST /databases/remove", "steward"),
            Map.entry("POST /databases/try", "steward"),
            Map.entry("GET /api/databases", "analyst"),
            Map.entry("GET /api/databases/{id}/tables", "analyst"),
            Map.entry("POST /api/databases/{id}/count", "analyst"),
            Map.entry("POST /hosts", "steward"),
            Map.entry("POST /api/bring/{id}/placing", "analyst"),
            Map.entry("POST /api/bring/{id}/keep", "analyst"),
            Map.entry("POST /api/bring/{id}/serve", "analyst"),
            Map.entry("GET /datasets/{id}", "analyst"),
            Map.entry("GET /datasets/{id}/rows.{format}", "analyst"),
            Map.entry("GET /api/datasets/{id}/rows", "analyst"),
            Map.entry("POST /api/bring/{id}/areas", "analyst"),
            Map.entry("GET /boundary-sets", "analyst"),
            Map.entry("GET /boundary-sets/{name}", "analyst"),
            Map.entry("GET /api/boundary-sets/{name}/shapes/{band}", "reader"),
            Map.entry("DELETE /api/boundary-sets/{name}", "analyst"),
            Map.entry("GET /datasets/{id}/formulas", "analyst"),
            Map.entry("POST /api/datasets/{id}/formulas/try", "analyst"),
            Map.entry("PUT /api/datasets/{id}/calculations", "analyst"),
            Map.entry("PUT /api/datasets/{id}/ties", "analyst"),
            Map.entry("POST /api/datasets/{id}/ties/match", "analyst"),
            Map.entry("PUT /api/datasets/{id}/about", "analyst"),
            Map.entry("PUT /api/datasets/{id}/name", "analyst"),
            Map.entry("PUT /api/datasets/{id}/feed", "analyst"),
            Map.entry("POST /api/datasets/{id}/feed", "analyst"),
            Map.entry("DELETE /api/datasets/{id}", "analyst"),
            Map.entry("POST /api/datasets/{id}/versions/{number}/serve", "analyst"),
            Map.entry("GET /datasets/{id}/placing", "analyst"),
            Map.entry("POST /api/datasets/{id}/decisions", "analyst"),
            Map.entry("GET /api/datasets/{id}/decisions", "analyst"),
            Map.entry("GET /api/datasets/{id}", "analyst"),
            Map.entry("GET /api/datasets/{id}/placing", "analyst"),
            Map.entry("PUT /api/datasets/{id}/shared", "analyst"),
            Map.entry("PUT /api/dashboards/{id}/shared", "analyst"),
            Map.entry("GET /api/jobs/{id}", "analyst"),
            Map.entry("DELETE /api/jobs/{id}", "analyst"),
            Map.entry("DELETE /api/questions", "all"),
            Map.entry("GET /api/places", "reader"),
            Map.entry("POST /api/dashboards/{id}/places/told", "reader"),
            Map.entry("POST /api/dashboards/{id}/places/others", "reader"),
            Map.entry("POST /api/dashboards/{id}/pictures", "reader"),
            Map.entry("POST /api/dashboards/{id}/rows", "reader"),
            Map.entry("GET /api/dashboards/{id}/visuals/{visual}/layers/{layer}/shapes/{band}", "reader"),
            Map.entry("GET /api/dashboards/{id}/files/{file}", "reader"),
            Map.entry("POST /api/images", "analyst"),
            Map.entry("GET /api/dashboards/{id}/moves", "analyst"),
            Map.entry("POST /api/dashboards/{id}/duplicates", "analyst"),
            Map.entry("POST /api/dashboards/{id}/duplicates/{part}", "analyst"),
            Map.entry("GET /keys", "analyst"),
            Map.entry("POST /keys", "analyst"),
            Map.entry("PUT /api/keys/{name}", "analyst"),
            Map.entry("GET /grounds", "steward"),
            Map.entry("POST /grounds", "steward"),
            Map.entry("GET /api/grounds/{name}/{z}/{x}/{y}", "reader"),
            Map.entry("GET /people", "steward"),
            Map.entry("POST /people/{id}", "steward"),
            Map.entry("GET /me", "reader"),
            Map.entry("POST /me/sessions", "reader"),
            Map.entry("GET /me/tokens", "reader"),
            Map.entry("POST /me/tokens", "reader"),
            Map.entry("POST /me/tokens/{id}", "reader"),
            Map.entry("GET /me/factor", "reader"),
            Map.entry("POST /me/factor", "reader"),
            Map.entry("POST /me/factor/end", "reader"),
            Map.entry("GET /sign-in/code", "reader"),
            Map.entry("POST /sign-in/code", "reader"),
            Map.entry("GET /sign-in/password", "reader"),
            Map.entry("POST /sign-in/password", "reader"),
            Map.entry("POST /me", "reader"),
            Map.entry("POST /datasets/kept", "steward"),
            Map.entry("POST /people", "steward")));

    private static final List<String> ROLES = List.of("all", "reader", "analyst", "steward");
    private static final Map<String, String> WHO = Map.of("reader", "rui", "analyst", "ana", "steward", "marta");

    @Test
    void everyAddressOfTheServerIsInTheTable(RunningSarnik sarnik) {
        Set<String> served = new TreeSet<>();
        sarnik.bean(RequestMappingHandlerMapping.class).getHandlerMethods().forEach((info, handler) -> {
            if (!handler.getBeanType().getName().startsWith("sarnik.")) return;
            info.getPatternValues()
                    .forEach(path ->
                            info.getMethodsCondition().getMethods().forEach(method -> served.add(method + " " + path)));
        });
        assertThat(served).containsExactlyElementsOf(RIGHTS.keySet());
    }

    @Test
    void everyAddressIsOpenToItsRolesAndClosedToOthers(RunningSarnik sarnik) throws Exception {
        for (String role : ROLES) {
            SarnikClient client = role.equals("all") ? anonymous(sarnik) : sarnik.client(WHO.get(role));
            for (var right : RIGHTS.entrySet()) {
                boolean mayUse =
                        !right.getValue().equals("token") && ROLES.indexOf(role) >= ROLES.indexOf(right.getValue());
                HttpResponse<String> answer = use(client, right.getKey());
                assertThat(isRefused(answer, right.getKey()))
                        .as("%s as %s: %d", right.getKey(), role, answer.statusCode())
                        .isEqualTo(!mayUse);
            }
        }
    }

    private static SarnikClient anonymous(RunningSarnik sarnik) throws IOException, InterruptedException {
        SarnikClient client = new SarnikClient(sarnik.base());
        // A sign-in that fails still gives a session with its token.
        assertThat(client.signIn("ana", "wrong")).isFalse();
        return client;
    }

    private static HttpResponse<String> use(SarnikClient client, String address)
            throws IOException, InterruptedException {
        String method = address.substring(0, address.indexOf(' '));
        String path = address.substring(address.indexOf(' ') + 1)
                .replace("{id}", "999999")
                .replace("{edition}", "999999")
                .replace("{feed}", "999999")
                .replace("{turn}", "999999")
                .replace("{bearer}", "nobody-has-made-this-link")
                .replace("{secret}", "nobody-has-made-this-link")
                .replace("{request}", "999999")
                .replace("{link}", "999999")
                .replace("{part}", "v1")
                .replace("{parts}", "v1")
                .replace("{number}", "1")
                .replace("{version}", "999999")
                .replace("{revision}", "1")
                .replace("{format}", "csv")
                .replace("{name}", "Nowhere")
                .replace("{band}", "FAR")
                .replace("{visual}", "v1")
                .replace("{layer}", "l1")
                .replace("{view}", "1")
                .replace("{file}", "0".repeat(64))
                .replaceAll("\\{[xyz]\\}", "0");
        if (path.endsWith("/places")) path += "?name=Soria";
        if (method.equals("GET"))
            return client.get(
                    path.endsWith("own-colours")
                            ? path + "?paper=%23F7F4EC&ink=%23000000&deed=%23000000&picked=%23000000"
                            : path.endsWith("/1/differences") && path.contains("/versions/")
                                    ? path + "?to=1"
                                    : path.endsWith("v1") && path.contains("arrangements")
                                            ? path + "?act=LEFT"
                                            : path.contains("starting-sheets/")
                                                    ? path + "?dataset=1"
                                                    : path.endsWith("proposals")
                                                            ? path + "?question=WHERE&dataset=1"
                                                            : path);
        return client.send(method, path, method.equals("PATCH") ? Samples.JSON_PATCH : "application/json", "[]");
    }

    private static boolean isRefused(HttpResponse<String> answer, String address) {
        boolean toSignIn = answer.uri().getPath().equals("/sign-in") && !address.endsWith(" /sign-in");
        return toSignIn || answer.statusCode() == 401 || answer.statusCode() == 403;
    }

    @Test
    void aDraftIsNotThereForReadersUntilItIsOpened(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        SarnikClient rui = sarnik.client("rui");
        long id = Samples.dashboard(ana, "A draft?");
        for (String path : List.of("/dashboards/" + id, "/api/dashboards/" + id))
            assertThat(rui.get(path).statusCode()).isEqualTo(404);
        assertThat(rui.send("POST", "/api/dashboards/" + id + "/frames", "application/json", "{}")
                        .statusCode())
                .isEqualTo(404);
        assertThat(rui.get("/").body()).doesNotContain("A draft?");
        ana.publish(id);
        assertThat(rui.get("/dashboards/" + id).statusCode()).isEqualTo(200);
        assertThat(rui.get("/").body()).contains("A draft?");
    }

    @Test
    void aChangeWithoutTheSessionsTokenIsRefused(RunningSarnik sarnik) throws Exception {
        var request = java.net.http.HttpRequest.newBuilder(java.net.URI.create(sarnik.base() + "/api/dashboards"))
                .POST(java.net.http.HttpRequest.BodyPublishers.ofString("{}"))
                .build();
        assertThat(java.net.http.HttpClient.newHttpClient()
                        .send(request, HttpResponse.BodyHandlers.ofString())
                        .statusCode())
                .isIn(401, 403);
        assertThat(sarnik.client("ana")
                        .send(
                                "POST",
                                "/api/dashboards",
                                "application/json",
                                "{\"title\":\"x\"}",
                                "X-CSRF-TOKEN",
                                "forged")
                        .statusCode())
                .isEqualTo(403);
    }

    @Test
    void pagesCarryAStrictPolicyAndTheCookieIsHidden(RunningSarnik sarnik) throws Exception {
        HttpResponse<String> answer = new SarnikClient(sarnik.base()).get("/sign-in");
        assertThat(answer.headers().firstValue("Content-Security-Policy").orElse(""))
                .contains("default-src 'none'")
                .contains("script-src 'self'")
                .doesNotContain("unsafe");
        assertThat(answer.headers().firstValue("X-Content-Type-Options")).contains("nosniff");
        assertThat(answer.headers().allValues("Set-Cookie"))
                .allSatisfy(cookie -> assertThat(cookie).contains("HttpOnly").contains("SameSite=Lax"));
    }

    @Test
    void passwordsAreHashedAndLongEnough(RunningSarnik sarnik) {
        PeopleService people = sarnik.bean(PeopleService.class);
        assertThat(people.all()).extracting(Person::getPassword).allMatch(p -> p.startsWith("{bcrypt}"));
        assertThat(Stream.of("short", "", null))
                .allSatisfy(password -> org.assertj.core.api.Assertions.assertThatThrownBy(
                                () -> people.add("newcomer", "New", password, Role.READER))
                        .hasMessageContaining("10 characters"));
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> people.add("ANA", "Other Ana", RunningSarnik.PASSWORD, Role.READER))
                .hasMessageContaining("already");
        org.assertj.core.api.Assertions.assertThatThrownBy(
                        () -> people.add("a b", "Spaced", RunningSarnik.PASSWORD, Role.READER))
                .hasMessageContaining("without spaces");
    }

    @Test
    void aStewardLetsSomebodyIn(RunningSarnik sarnik) throws Exception {
        SarnikClient marta = sarnik.client("marta");
        HttpResponse<String> page = marta.send(
                "POST",
                "/people",
                "application/x-www-form-urlencoded",
                "signIn=nuria&name=N%C3%BAria&role=READER&password=" + RunningSarnik.PASSWORD);
        assertThat(page.body()).contains("Núria can sign in now.");
        assertThat(new SarnikClient(sarnik.base()).signIn("NURIA", RunningSarnik.PASSWORD))
                .isTrue();
        assertThat(marta.send(
                                "POST",
                                "/people",
                                "application/x-www-form-urlencoded",
                                "signIn=nuria&name=x&role=READER&password=short")
                        .body())
                .contains("too short");
    }
}
