package sarnik.app.share;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Links")
class LinksTest {

    private static final String JSON = "application/json";
    private static final String FORM = "application/x-www-form-urlencoded";

    private static long dashboard;

    private RunningSarnik sarnik;
    private SarnikClient ana;

    @BeforeEach
    void aPublishedDashboard(RunningSarnik running) throws Exception {
        sarnik = running;
        ana = sarnik.client("ana");
        if (dashboard != 0) return;
        dashboard = Samples.dashboard(ana, "Shown by links?");
        ana.json("POST", "/api/dashboards/" + dashboard + "/editions", Map.of());
    }

    private JsonNode link(Map<String, ?> more) throws Exception {
        Map<String, Object> wanted = new HashMap<>(more);
        wanted.putIfAbsent("name", "A link of the test");
        return ana.json("POST", "/api/dashboards/" + dashboard + "/links", wanted);
    }

    private SarnikClient stranger() {
        return new SarnikClient(sarnik.base());
    }

    private static String path(JsonNode link) {
        return link.get("path").asString();
    }

    private static HttpResponse<String> frames(SarnikClient client, String path) throws Exception {
        return client.send("POST", "/api" + path + "/frames", JSON, "{\"state\":\"\",\"ids\":[\"v2\"]}");
    }

    private static String full(HttpResponse<String> frames) {
        return Samples.parse(frames.body()).at("/drawings/v2/full").asString();
    }

    @Test
    void anyoneWhoHasItSeesTheEditionAndNeverTheDraft() throws Exception {
        long id = Samples.dashboard(ana, "Drafts go on?");
        String below = "/api/dashboards/" + id;
        JsonNode link = ana.json("POST", below + "/links", Map.of("name", "x", "opensTo", "ANYONE"));
        assertThat(stranger().get(path(link)).statusCode()).as("not published").isEqualTo(404);
        assertThat(frames(stranger(), path(link)).statusCode()).isEqualTo(404);
        ana.json("POST", below + "/editions", Map.of());
        HttpResponse<String> page = stranger().get(path(link));
        assertThat(page.statusCode()).isEqualTo(200);
        assertThat(page.body())
                .contains("Drafts go on?")
                .doesNotContain("Sign out")
                .doesNotContain("_csrf");
        assertThat(page.headers().allValues("Set-Cookie"))
                .as("no cookie is needed")
                .isEmpty();
        assertThat(full(frames(stranger(), path(link)))).isEqualTo("179");
        JsonNode now = ana.read(ana.get(below));
        ana.read(ana.send(
                "PATCH",
                below,
                Samples.JSON_PATCH,
                "[{\"op\":\"replace\",\"path\":\"/visuals/v2/measure\",\"value\":{\"summary\":\"COUNT\"}},"
                        + "{\"op\":\"replace\",\"path\":\"/title\",\"value\":\"A draft\"}]",
                "If-Match",
                "\"" + now.get("revision").asLong() + "\""));
        assertThat(full(frames(stranger(), path(link)))).isEqualTo("179");
        assertThat(stranger().get(path(link)).body()).doesNotContain("A draft");
        assertThat(ana.read(ana.get(below + "/editions")).get("since").toString())
                .contains("the dashboard's title", "the measure of the figure “Litres”");
        ana.json("POST", below + "/editions", Map.of("words", "Counted"));
        assertThat(full(frames(stranger(), path(link)))).isEqualTo("6");
        ana.json("PUT", below + "/edition", Map.of("number", 1));
        assertThat(full(frames(stranger(), path(link)))).as("gone back").isEqualTo("179");
        assertThat(ana.read(ana.get(below + "/editions/1/differences?to=2")).toString())
                .contains("the dashboard's title");
        ana.json("PUT", below + "/edition", Map.of());
        assertThat(frames(stranger(), path(link)).statusCode())
                .as("taken back from readers")
                .isEqualTo(404);
    }

    @Test
    void aFrozenDatasetStaysAsItWasAndOthersAreAlwaysTheNewest() throws Exception {
        long id = Samples.dashboard(ana, "Frozen?");
        String below = "/api/dashboards/" + id;
        long dataset =
                ana.read(ana.get(below)).at("/document/visuals/v2/dataset").asLong();
        ana.json("POST", below + "/editions", Map.of("frozen", List.of(dataset)));
        JsonNode link = ana.json("POST", below + "/links", Map.of("name", "x", "opensTo", "ANYONE"));
        refresh(dataset, Samples.SALES.replace("100", "1000"));
        assertThat(full(frames(stranger(), path(link)))).as("as of then").isEqualTo("179");
        assertThat(ana.read(ana.send("POST", below + "/frames", JSON, "{\"state\":\"\",\"ids\":[\"v2\"]}"))
                        .at("/drawings/v2/full")
                        .asString())
                .as("the draft shows the newest rows")
                .isEqualTo("1,079");
        assertThat(ana.describe(
                                dataset,
                                "calculations",
                                Map.of("formulas", List.of(), "rules", List.of("product = 'still'")))
                        .statusCode())
                .isEqualTo(204);
        assertThat(full(frames(stranger(), path(link))))
                .as("nor does what is calculated change it")
                .isEqualTo("179");
        assertThat(ana.read(ana.get(below + "/editions")).get("since").toString())
                .contains("is at version 2, published as of version 1");
        // So many newer versions that the oldest would be forgotten.
        for (int i = 0; i < 14; i++) refresh(dataset, Samples.SALES.replace("100", String.valueOf(200 + i)));
        assertThat(full(frames(stranger(), path(link)))).isEqualTo("179");
        ana.json("POST", below + "/editions", Map.of());
        assertThat(full(frames(stranger(), path(link)))).isEqualTo("263");
        assertThat(ana.send("DELETE", "/api/datasets/" + dataset, JSON, "").statusCode())
                .as("a dataset that an edition shows is not taken away")
                .isEqualTo(409);
    }

    private void refresh(long dataset, String csv) throws Exception {
        JsonNode taken = ana.read(ana.upload(RunningSarnik.file("sales.csv", csv), "sales.csv", "?dataset=" + dataset));
        ana.read(ana.send("POST", "/api/bring/" + taken.get("id").asString() + "/serve", JSON, ""));
    }

    @Test
    void aLinkThatIsEndedGuessedOrHalfCopiedOpensToNobody() throws Exception {
        JsonNode link = link(Map.of("opensTo", "ANYONE"));
        String path = path(link);
        assertThat(path).matches("/shown/[A-Za-z0-9_-]{32}");
        assertThat(full(frames(stranger(), path))).isEqualTo("179");
        for (String odd : List.of(
                path.substring(0, path.length() - 1),
                path + "x",
                path.toLowerCase(java.util.Locale.ROOT),
                "/shown/" + "A".repeat(32),
                "/shown/~~",
                "/shown/%00",
                "/shown/'%20or%20'1'='1")) {
            assertThat(stranger().get(odd).statusCode()).as(odd).isIn(400, 404);
            assertThat(frames(stranger(), odd).statusCode()).as(odd).isIn(400, 404);
        }
        assertThat(stranger().get(path.substring(0, path.length() - 1)).body()).contains("copied in part");
        String one = "/api/dashboards/" + dashboard + "/links/" + link.get("id").asLong();
        assertThat(ana.send("DELETE", one, JSON, "").statusCode())
                .as("what is open is ended first")
                .isEqualTo(400);
        assertThat(ana.send("POST", one + "/end", JSON, "").statusCode()).isEqualTo(204);
        assertThat(stranger().get(path).statusCode()).isEqualTo(410);
        assertThat(stranger().get(path).body()).contains("has ended");
        assertThat(frames(stranger(), path).statusCode()).isEqualTo(410);
        assertThat(ana.send("DELETE", one, JSON, "").statusCode()).isEqualTo(204);
        assertThat(frames(stranger(), path).statusCode()).isEqualTo(404);
    }

    @Test
    void aLinkEndsAfterItsLastDay() throws Exception {
        assertThat(ana.send(
                                "POST",
                                "/api/dashboards/" + dashboard + "/links",
                                JSON,
                                "{\"name\":\"x\",\"opensTo\":\"ANYONE\",\"ends\":\"2020-01-31\"}")
                        .body())
                .contains("lies in the past");
        JsonNode link = link(Map.of(
                "opensTo",
                "ANYONE",
                "ends",
                java.time.LocalDate.now(java.time.ZoneOffset.UTC).toString()));
        assertThat(full(frames(stranger(), path(link)))).isEqualTo("179");
        ShareLinkRepository links = sarnik.bean(ShareLinkRepository.class);
        ShareLink stored = links.findById(link.get("id").asLong()).orElseThrow();
        assertThat(stored.isOpen(stored.getEndsAt().minusMillis(1))).isTrue();
        assertThat(stored.isOpen(stored.getEndsAt())).isFalse();
    }

    @Test
    void aPasswordIsAskedForBeforeAnythingIsShown() throws Exception {
        assertThat(ana.send(
                                "POST",
                                "/api/dashboards/" + dashboard + "/links",
                                JSON,
                                "{\"name\":\"x\",\"password\":\"short\"}")
                        .statusCode())
                .isEqualTo(400);
        JsonNode link = link(Map.of("opensTo", "ANYONE", "password", "three old bridges"));
        String path = path(link);
        assertThat(stranger().get(path).body()).contains("asks for a password").doesNotContain("Shown by links?");
        assertThat(frames(stranger(), path).statusCode()).isEqualTo(401);
        HttpResponse<String> wrong = stranger().send("POST", path, FORM, "password=three+old+bridge");
        assertThat(wrong.statusCode()).isEqualTo(401);
        assertThat(wrong.body()).contains("not the password of this link").doesNotContain("Shown by links?");
        HttpResponse<String> right = stranger().send("POST", path, FORM, "password=three+old+bridges");
        assertThat(right.body()).contains("Shown by links?");
        String base = right.body().replaceAll("(?s).*data-base=\"([^\"]+)\".*", "$1");
        String opened = base.substring("/api".length());
        assertThat(full(frames(stranger(), opened))).isEqualTo("179");
        String pass = opened.substring(opened.indexOf('~') + 1);
        long until = Long.parseLong(pass.substring(0, pass.indexOf('.')));
        for (String forged : List.of(
                pass.replace(String.valueOf(until), String.valueOf(until + 1)),
                pass.substring(0, pass.length() - 1) + (pass.endsWith("0") ? "1" : "0"),
                "1." + pass.substring(pass.indexOf('.') + 1),
                "x"))
            assertThat(frames(stranger(), path + "~" + forged).statusCode())
                    .as(forged)
                    .isEqualTo(401);
        JsonNode other = link(Map.of("opensTo", "ANYONE", "password", "three old bridges"));
        assertThat(frames(stranger(), path(other) + "~" + pass).statusCode())
                .as("a pass opens its own link only")
                .isEqualTo(401);
        Map<String, Object> change =
                new HashMap<>(Map.of("name", "x", "opensTo", "ANYONE", "password", "four new towers"));
        ana.json(
                "PUT",
                "/api/dashboards/" + dashboard + "/links/" + link.get("id").asLong(),
                change);
        assertThat(frames(stranger(), opened).statusCode())
                .as("another password ends what the first has opened")
                .isEqualTo(401);
        for (int i = 0; i < 8; i++) stranger().send("POST", path, FORM, "password=guess" + i);
        assertThat(stranger()
                        .send("POST", path, FORM, "password=four+new+towers")
                        .body())
                .as("guessing has to wait")
                .contains("too many wrong tries");
    }

    @Test
    void aLinkForPeopleOpensToThoseOnly() throws Exception {
        PeopleService people = sarnik.bean(PeopleService.class);
        long otto =
                people.add("otto", "Otto", RunningSarnik.PASSWORD, Role.READER).getId();
        JsonNode named = link(Map.of("opensTo", "NAMED", "named", List.of(Map.of("kind", "PERSON", "id", otto))));
        JsonNode signedIn = link(Map.of("opensTo", "SIGNED_IN"));
        for (JsonNode link : List.of(named, signedIn)) {
            HttpResponse<String> page = stranger().get(path(link));
            assertThat(page.uri().getPath()).as("to sign in first").isEqualTo("/sign-in");
            assertThat(frames(stranger(), path(link)).statusCode()).isEqualTo(401);
            assertThat(full(frames(sarnik.client("otto"), path(link)))).isEqualTo("179");
        }
        assertThat(sarnik.client("rui").get("/dashboards/" + dashboard).statusCode())
                .as("it was not given to rui otherwise")
                .isEqualTo(404);
        assertThat(full(frames(sarnik.client("rui"), path(signedIn)))).isEqualTo("179");
        assertThat(sarnik.client("rui").get(path(named)).statusCode()).isEqualTo(403);
        assertThat(frames(sarnik.client("rui"), path(named)).statusCode()).isEqualTo(403);
        assertThat(ana.send(
                                "POST",
                                "/api/dashboards/" + dashboard + "/links",
                                JSON,
                                "{\"name\":\"x\",\"opensTo\":\"NAMED\",\"named\":[]}")
                        .statusCode())
                .isEqualTo(400);
    }

    @Test
    void whatMayNotBeTakenAlongIsRefused() throws Exception {
        Map<String, String> asked = new LinkedHashMap<>();
        String sight = "\"sight\":{\"zoom\":5,\"west\":-10,\"south\":35,\"east\":5,\"north\":44}";
        asked.put("/rows", "{\"state\":\"\",\"visual\":\"v1\",\"layer\":\"l1\",%s}".formatted(sight));
        asked.put(
                "/pictures",
                "{\"state\":\"\",\"visual\":\"v1\",%s,\"width\":300,\"height\":300,\"form\":\"svg\"}".formatted(sight));
        JsonNode all = link(Map.of("opensTo", "ANYONE"));
        JsonNode none =
                link(Map.of("opensTo", "ANYONE", "takes", Map.of("rows", false, "pictures", false, "prints", false)));
        for (var one : asked.entrySet()) {
            assertThat(stranger()
                            .send("POST", "/api" + path(all) + one.getKey(), JSON, one.getValue())
                            .statusCode())
                    .isEqualTo(200);
            HttpResponse<String> refused =
                    stranger().send("POST", "/api" + path(none) + one.getKey(), JSON, one.getValue());
            assertThat(refused.statusCode()).isEqualTo(403);
            assertThat(refused.body()).contains("be taken along");
        }
        assertThat(Samples.parse(stranger().get("/api" + path(none)).body())
                        .get("takes")
                        .toString())
                .isEqualTo("{\"rows\":false,\"pictures\":false,\"prints\":false}");
        // What the dashboard itself withholds no link gives.
        long id = Samples.dashboard(ana, "Kept back?");
        ana.publish(id);
        ana.json("PUT", "/api/dashboards/" + id + "/takes", Map.of("rows", false, "pictures", true, "prints", true));
        JsonNode generous =
                ana.json("POST", "/api/dashboards/" + id + "/links", Map.of("name", "x", "opensTo", "ANYONE"));
        for (String base : List.of("/api" + path(generous), "/api/dashboards/" + id)) {
            SarnikClient client = base.contains("shown") ? stranger() : sarnik.client("rui");
            assertThat(client.send("POST", base + "/rows", JSON, asked.get("/rows"))
                            .statusCode())
                    .isEqualTo(403);
            assertThat(client.send("POST", base + "/pictures", JSON, asked.get("/pictures"))
                            .statusCode())
                    .isEqualTo(200);
            assertThat(client.send("POST", base + "/frames", JSON, "{\"state\":\"\",\"file\":true}")
                            .statusCode())
                    .as("all digits are for files")
                    .isEqualTo(403);
        }
        assertThat(ana.send("POST", "/api/dashboards/" + id + "/rows", JSON, asked.get("/rows"))
                        .statusCode())
                .as("who may change it takes all")
                .isEqualTo(200);
    }

    @Test
    void onlyNamedSitesMayShowItInAFrame() throws Exception {
        JsonNode closed = link(Map.of("opensTo", "ANYONE"));
        JsonNode open = link(Map.of(
                "opensTo", "ANYONE", "sites", List.of("https://Example.org/some/page", "http://localhost:8123")));
        assertThat(policy(closed)).endsWith("frame-ancestors 'self'");
        assertThat(policy(open)).endsWith("frame-ancestors 'self' https://example.org http://localhost:8123");
        assertThat(stranger().get(path(open)).headers().firstValue("X-Frame-Options"))
                .isEmpty();
        assertThat(stranger().get("/sign-in").headers().firstValue("X-Frame-Options"))
                .contains("SAMEORIGIN");
        assertThat(stranger().get(path(open)).headers().firstValue("Referrer-Policy"))
                .contains("no-referrer");
        for (String odd : List.of("*", "example", "javascript:alert(1)", "https://a b", "https://x; script-src *"))
            assertThat(ana.send(
                                    "POST",
                                    "/api/dashboards/" + dashboard + "/links",
                                    JSON,
                                    Samples.parse("{\"name\":\"x\",\"sites\":[\"%s\"]}".formatted(odd))
                                            .toString())
                            .statusCode())
                    .as(odd)
                    .isEqualTo(400);
    }

    private String policy(JsonNode link) throws Exception {
        return stranger()
                .get(path(link))
                .headers()
                .firstValue("Content-Security-Policy")
                .orElse("");
    }

    @Test
    void aLinkGivesNothingButItsDashboard() throws Exception {
        JsonNode link = link(Map.of("opensTo", "ANYONE"));
        String base = "/api" + path(link);
        assertThat(stranger()
                        .get(base + "/boundary-sets/Provinces%20of%20Spain/shapes/FAR")
                        .statusCode())
                .as("a set that the dashboard does not name")
                .isEqualTo(404);
        for (String closed : List.of("/links", "/editions", "/grants", "/wiring", "/briefs/v1", "/views"))
            assertThat(stranger().get(base + closed).statusCode()).as(closed).isEqualTo(404);
        assertThat(stranger().send("PATCH", base, Samples.JSON_PATCH, "[]").statusCode())
                .isIn(404, 405);
        assertThat(stranger().get("/api/dashboards/" + dashboard).statusCode()).isEqualTo(401);
    }

    @Test
    void onlyWhoMayHandItOnMakesLinksAndPublishes() throws Exception {
        SarnikClient berta = sarnik.client("berta");
        String below = "/api/dashboards/" + dashboard;
        assertThat(berta.get(below + "/links").statusCode()).isEqualTo(403);
        assertThat(berta.send("POST", below + "/links", JSON, "{\"name\":\"x\"}")
                        .statusCode())
                .isEqualTo(403);
        assertThat(berta.send("POST", below + "/editions", JSON, "{}").statusCode())
                .isEqualTo(403);
        assertThat(berta.send("PUT", below + "/edition", JSON, "{}").statusCode())
                .isEqualTo(403);
        assertThat(berta.send("PUT", below + "/grants", JSON, "{\"who\":{\"kind\":\"EVERYBODY\"},\"may\":\"READ\"}")
                        .statusCode())
                .isEqualTo(403);
        assertThat(berta.get("/dashboards/" + dashboard + "/hand-over").statusCode())
                .isEqualTo(403);
    }

    @Test
    void whoAsksForADashboardIsAnsweredByItsOwner() throws Exception {
        long id = Samples.dashboard(ana, "Asked for?");
        ana.json("POST", "/api/dashboards/" + id + "/editions", Map.of());
        SarnikClient rui = sarnik.client("rui");
        assertThat(rui.get("/dashboards/" + id).statusCode()).isEqualTo(404);
        String ask = "{\"kind\":\"dashboards\",\"id\":%d,\"may\":\"READ\",\"words\":\"For Monday\"}";
        assertThat(rui.send("POST", "/api/requests", JSON, ask.formatted(id)).statusCode())
                .isEqualTo(204);
        assertThat(rui.send("POST", "/api/requests", JSON, ask.formatted(99999999))
                        .statusCode())
                .as("whether there is one is not told")
                .isEqualTo(204);
        assertThat(sarnik.client("berta")
                        .read(sarnik.client("berta").get("/api/requests"))
                        .toString())
                .doesNotContain("Asked for?");
        JsonNode waiting = ana.read(ana.get("/api/requests"));
        JsonNode request = null;
        for (JsonNode one : waiting) if (one.at("/of/id").asLong() == id) request = one;
        assertThat(request).isNotNull();
        assertThat(request.get("words").asString()).isEqualTo("For Monday");
        assertThat(sarnik.client("berta")
                        .send("POST", "/api/requests/" + request.get("id").asLong(), JSON, "true")
                        .statusCode())
                .isEqualTo(404);
        assertThat(ana.send("POST", "/api/requests/" + request.get("id").asLong(), JSON, "true")
                        .statusCode())
                .isEqualTo(204);
        assertThat(rui.get("/dashboards/" + id).statusCode()).isEqualTo(200);
        assertThat(rui.get("/dashboards/" + id + "/compose").statusCode())
                .as("who reads by role composes never")
                .isEqualTo(403);
    }

    @Test
    void aGroupIsGivenWhatItsPeopleMay() throws Exception {
        SarnikClient marta = sarnik.client("marta");
        PeopleService people = sarnik.bean(PeopleService.class);
        long pia = people.add("pia", "Pia", RunningSarnik.PASSWORD, Role.READER).getId();
        marta.send("POST", "/people/groups", FORM, "name=Test+office");
        long group = sarnik.bean(sarnik.app.people.Groups.class).all().stream()
                .filter(g -> g.name().equals("Test office"))
                .findFirst()
                .orElseThrow()
                .id();
        long id = Samples.dashboard(ana, "For a group?");
        ana.json("POST", "/api/dashboards/" + id + "/editions", Map.of());
        ana.json(
                "PUT",
                "/api/dashboards/" + id + "/grants",
                Map.of("who", Map.of("kind", "GROUP", "id", group), "may", "READ"));
        SarnikClient client = sarnik.client("pia");
        assertThat(client.get("/dashboards/" + id).statusCode()).isEqualTo(404);
        marta.send("POST", "/people/groups/" + group, FORM, "act=in&person=" + pia);
        assertThat(client.get("/dashboards/" + id).statusCode()).isEqualTo(200);
        marta.send("POST", "/people/groups/" + group, FORM, "act=out&person=" + pia);
        assertThat(client.get("/dashboards/" + id).statusCode()).isEqualTo(404);
    }

    @Test
    void anAnalystWithoutADatasetCannotComposeWithIt() throws Exception {
        long id = Samples.dashboard(ana, "Without its data?");
        String below = "/api/dashboards/" + id;
        long dataset =
                ana.read(ana.get(below)).at("/document/visuals/v2/dataset").asLong();
        ana.json("PUT", below + "/shared", true);
        SarnikClient berta = sarnik.client("berta");
        assertThat(berta.get("/dashboards/" + id + "/compose").statusCode()).isEqualTo(200);
        Map<String, Object> nobody = new HashMap<>();
        nobody.put("who", Map.of("kind", "ANALYSTS"));
        nobody.put("may", null);
        ana.json("PUT", "/api/datasets/" + dataset + "/grants", nobody);
        assertThat(berta.get("/dashboards/" + id + "/compose").statusCode()).isEqualTo(403);
        assertThat(berta.get("/dashboards/" + id).statusCode())
                .as("it is still read")
                .isEqualTo(200);
        assertThat(berta.get("/datasets/" + dataset).statusCode()).isEqualTo(404);
        assertThat(berta.get("/").body()).doesNotContain("/datasets/" + dataset + "\"");
        JsonNode own = berta.json("POST", "/api/dashboards", Map.of("title", "With another's data?"));
        assertThat(berta.send(
                                "PATCH",
                                "/api/dashboards/" + own.get("id").asLong(),
                                Samples.JSON_PATCH,
                                ("[{\"op\":\"add\",\"path\":\"/visuals/v2\",\"value\":{\"type\":\"figure\","
                                                + "\"page\":\"p1\",\"at\":{\"x\":0,\"y\":0,\"w\":6,\"h\":4},"
                                                + "\"title\":\"\",\"dataset\":%d,"
                                                + "\"measure\":{\"summary\":\"COUNT\"}}}]")
                                        .formatted(dataset),
                                "If-Match",
                                "\"1\"")
                        .statusCode())
                .isEqualTo(403);
        assertThat(berta.send("POST", "/api/dashboards/first", JSON, "{\"dataset\":" + dataset + "}")
                        .statusCode())
                .isEqualTo(403);
    }
}
