package sarnik.app.share;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import sarnik.app.people.PeopleService;
import sarnik.app.people.Role;
import sarnik.app.testing.MapSamples;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * What somebody is shown under a rule on rows is, answer for answer, what is shown of a dataset that never had the
 * other rows.
 */
@ExtendWith(RunningSarnik.class)
@DisplayName("Rows by viewer")
class ViewerRowsTest {

    private static final JsonMapper MAPPER = JsonMapper.shared();
    private static final String JSON = "application/json";
    private static final String HEADER = "town,province,country,day,product,litres,driver";
    private static final List<String> TOWNS = List.of(
            "Soria,Soria",
            "Almazán,Soria",
            "Zamora,Zamora",
            "Benavente,Zamora",
            "Burgos,Burgos",
            "Miranda de Ebro,Burgos",
            "Albacete,Albacete",
            "Hellín,Albacete");
    private static final Map<String, Object> SPAIN =
            Map.of("zoom", 5.5, "west", -10, "south", 35, "east", 5, "north", 44);
    private static final List<String> STATES = List.of(
            "",
            "f.f1=still",
            "f.f1=warm&p.v3=place-of-first-bar",
            "f.f2=2026-01-05..2026-02-10",
            "p.v4=still",
            "w.page=shown");

    /** What is asked about a page that is read, by the addresses of the interface. */
    private static final Set<String> ASKED = new TreeSet<>(Set.of(
            "GET ",
            "POST /frames",
            "POST /filters/values",
            "POST /narrowings",
            "POST /places/told",
            "POST /places/others",
            "POST /pictures",
            "POST /rows",
            "GET /files/{file}",
            "GET /visuals/{visual}/layers/{layer}/shapes/{band}"));

    private record Row(String town, String province, String rest) {
        String line() {
            return town + "," + province + ",Spain," + rest;
        }
    }

    private static List<Row> rows(long seed) {
        Random random = new Random(seed);
        List<Row> rows = new ArrayList<>();
        for (int i = 0; i < 140; i++) {
            String[] town = TOWNS.get(random.nextInt(TOWNS.size())).split(",");
            String product = List.of("still", "sparkling", "warm").get(random.nextInt(3));
            // Each town has drivers of its own: their names tell whether its rows were seen.
            rows.add(new Row(
                    town[0],
                    town[1],
                    "2026-%02d-%02d,%s,%d,%s %d"
                            .formatted(
                                    1 + random.nextInt(2),
                                    1 + random.nextInt(28),
                                    product,
                                    1 + random.nextInt(900),
                                    "driver of " + town[0],
                                    random.nextInt(4))));
        }
        // Every column has values in each part, so that each is of the same type when the part is read alone.
        return rows;
    }

    private static long dashboard(SarnikClient author, List<Row> rows) throws Exception {
        String file = rows.stream().map(Row::line).collect(Collectors.joining("\n", HEADER + "\n", "\n"));
        long sales = author.bring(RunningSarnik.file("sales.csv", file), "Viewed sales");
        String visuals = MapSamples.map(
                        "v1",
                        0,
                        12,
                        "",
                        "\"dataset\":%1$d,\"size\":{%2$s,\"rule\":\"AREA\",\"radius\":20},\"colour\":{%2$s,\"method\":\"NATURAL\",\"classes\":3,\"palette\":\"loch\"},\"tip\":{\"over\":\"day\"}"
                                .formatted(sales, MapSamples.sum("litres")))
                + (",\"v2\":{\"type\":\"figure\",\"page\":\"p1\",\"at\":{\"x\":12,\"y\":0,\"w\":6,\"h\":4},"
                                + "\"title\":\"Litres\",\"dataset\":%1$d,\"measure\":{\"summary\":\"SUM\","
                                + "\"column\":\"litres\"}}"
                                + ",\"v3\":{\"type\":\"bars\",\"page\":\"p1\",\"at\":{\"x\":12,\"y\":4,\"w\":12,"
                                + "\"h\":6},\"title\":\"Towns\",\"dataset\":%1$d,\"category\":\"@place\","
                                + "\"measure\":{\"summary\":\"SUM\",\"column\":\"litres\"}}"
                                + ",\"v4\":{\"type\":\"bars\",\"page\":\"p1\",\"at\":{\"x\":0,\"y\":12,\"w\":12,"
                                + "\"h\":6},\"title\":\"Drivers\",\"dataset\":%1$d,\"category\":\"driver\","
                                + "\"measure\":{\"summary\":\"DISTINCT\",\"column\":\"town\"}}")
                        .formatted(sales);
        String filters = """
                ,{"op":"add","path":"/filters/f1","value":{"type":"choice","page":"p1","order":1,"dataset":%1$d,"column":"product","title":"Product"}}
                ,{"op":"add","path":"/filters/f2","value":{"type":"dates","page":"p1","order":2,"dataset":%1$d,"column":"day","title":"Day"}}
                ,{"op":"add","path":"/filters/f3","value":{"type":"choice","page":"p1","order":3,"dataset":%1$d,"column":"driver","title":"Driver"}}
                ,{"op":"add","path":"/links/k3","value":{"from":"v3"}},{"op":"add","path":"/links/k4","value":{"from":"v4"}}""".formatted(sales);
        JsonNode made = author.json("POST", "/api/dashboards", Map.of("title", "Who sees what?"));
        long id = made.get("id").asLong();
        author.read(author.send(
                "PATCH",
                "/api/dashboards/" + id,
                Samples.JSON_PATCH,
                "[{\"op\":\"replace\",\"path\":\"/visuals\",\"value\":{%s}},{\"op\":\"add\",\"path\":\"/links/k1\",\"value\":{\"from\":\"v1\"}}%s]"
                        .formatted(visuals, filters),
                "If-Match",
                "\"" + made.get("revision").asLong() + "\""));
        author.publish(id);
        return id;
    }

    private static long datasetOf(SarnikClient author, long dashboard) throws Exception {
        return author.read(author.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
    }

    private static void rule(SarnikClient author, long dataset, String rule) throws Exception {
        assertThat(author.describe(dataset, "viewer-rule", Map.of("rule", rule)).statusCode())
                .isEqualTo(204);
    }

    private static SarnikClient viewer(RunningSarnik sarnik, String name, Role role, String known) throws Exception {
        PeopleService people = sarnik.bean(PeopleService.class);
        long id = people.add(name, name, RunningSarnik.PASSWORD, role).getId();
        HttpResponse<String> said = sarnik.client("marta")
                .send(
                        "POST",
                        "/people/" + id,
                        "application/x-www-form-urlencoded",
                        "act=describe&known=" + URLEncoder.encode(known, StandardCharsets.UTF_8));
        assertThat(said.body()).contains("Kept.");
        return sarnik.client(name);
    }

    /** All that a reader can ask of a page, and what is answered, without the numbers that two datasets differ in. */
    private static Map<String, String> answers(SarnikClient client, String base, long dataset, long dashboard)
            throws Exception {
        Map<String, String> answers = new LinkedHashMap<>();
        Asker ask = (name, method, what, body) -> {
            HttpResponse<String> answer =
                    method.equals("GET") ? client.get(base + what) : client.send(method, base + what, JSON, body);
            answers.put(
                    name,
                    (answer.statusCode() + " " + answer.body())
                            .replaceAll("\"dataset\": ?" + dataset + "\\b", "\"dataset\":D")
                            .replaceAll("\"" + dataset + "\\.(?=[@a-z])", "\"D.")
                            .replaceAll("\"id\":" + dashboard + "\\b", "\"id\":B")
                            .replaceAll("\"kept\":\\[[^]]*\\]", "\"kept\":K")
                            .replace(base, "BASE"));
        };
        ask.of("sheet", "GET", "", null);
        String first = "";
        for (String state : STATES) {
            String said = state.replace("place-of-first-bar", first);
            String body = "{\"state\":\"%s\",\"sights\":{\"v1\":%s}}".formatted(said, MAPPER.writeValueAsString(SPAIN));
            ask.of("frames " + state, "POST", "/frames", body);
            if (first.isEmpty()) first = firstPlace(answers.get("frames " + state));
            for (String filter : List.of("f1", "f3"))
                ask.of(
                        "values " + filter + " " + state,
                        "POST",
                        "/filters/values",
                        "{\"state\":\"%s\",\"filter\":\"%s\",\"find\":\"\"}".formatted(said, filter));
            ask.of(
                    "rows " + state,
                    "POST",
                    "/rows",
                    "{\"state\":\"%s\",\"visual\":\"v1\",\"layer\":\"l1\",\"sight\":%s}"
                            .formatted(said, MAPPER.writeValueAsString(SPAIN)));
        }
        for (String visual : List.of("v2", "v3", "v4"))
            for (String form : List.of("csv", "geojson"))
                ask.of(
                        "rows of " + visual + " as " + form,
                        "POST",
                        "/rows",
                        "{\"state\":\"f.f1=warm&p.v3=%s\",\"visual\":\"%s\",\"form\":\"%s\"}"
                                .formatted(first, visual, form));
        for (String words : List.of("Burgos", "driver of Zamora 1", "still", "since February", "Soria warm"))
            ask.of(
                    "narrowing " + words,
                    "POST",
                    "/narrowings",
                    MAPPER.writeValueAsString(Map.of("state", "", "words", words)));
        for (String place : List.of(first, "g3108681", "nowhere")) {
            String about = "{\"state\":\"\",\"visual\":\"v1\",\"layer\":\"l1\",\"place\":\"%s\"%s}";
            ask.of("told " + place, "POST", "/places/told", about.formatted(place, ""));
            ask.of("near " + place, "POST", "/places/others", about.formatted(place, ",\"metres\":300000"));
            ask.of("alike " + place, "POST", "/places/others", about.formatted(place, ",\"count\":5"));
        }
        ask.of(
                "picture",
                "POST",
                "/pictures",
                "{\"state\":\"\",\"visual\":\"v1\",\"sight\":%s,\"width\":500,\"height\":400,\"form\":\"svg\"}"
                        .formatted(MAPPER.writeValueAsString(SPAIN)));
        ask.of("shapes", "GET", "/visuals/v1/layers/l1/shapes/FAR", null);
        ask.of("file", "GET", "/files/" + "0".repeat(64), null);
        return answers;
    }

    private interface Asker {
        void of(String name, String method, String what, String body) throws Exception;
    }

    private static String firstPlace(String frames) {
        int bars = frames.indexOf("\"v3\":");
        var place = java.util.regex.Pattern.compile("\"key\":\"(g\\d+)\"").matcher(frames);
        assertThat(place.find(Math.max(0, bars))).as("a bar of a town").isTrue();
        return place.group(1);
    }

    private static void assertAlike(Map<String, String> seen, Map<String, String> plain) {
        assertThat(seen.keySet()).isEqualTo(plain.keySet());
        seen.forEach((name, answer) ->
                assertThat(difference(answer, plain.get(name))).as(name).isEmpty());
    }

    /** Where two answers begin to differ; empty where they do not. */
    private static String difference(String seen, String plain) {
        if (seen.equals(plain)) return "";
        int at = 0;
        while (at < Math.min(seen.length(), plain.length()) && seen.charAt(at) == plain.charAt(at)) at++;
        return "seen “%s”, plain “%s”".formatted(around(seen, at), around(plain, at));
    }

    private static String around(String text, int at) {
        return text.substring(Math.max(0, at - 120), Math.min(text.length(), at + 120));
    }

    @Test
    void everythingThatAReaderCanAskIsAskedHere(RunningSarnik sarnik) {
        Set<String> served = new TreeSet<>();
        String base = "/api/shown/{bearer}";
        sarnik.bean(RequestMappingHandlerMapping.class)
                .getHandlerMethods()
                .forEach((info, handler) -> info.getPatternValues().stream()
                        .filter(path -> path.startsWith(base))
                        .forEach(path -> info.getMethodsCondition()
                                .getMethods()
                                .forEach(m -> served.add(m + " " + path.substring(base.length())))));
        // Shapes of shared sets, tiles and the gazetteer hold no rows, nor does word that there are newer ones. What is
        // amiss is asked in AmissTest, which has devices.
        served.removeAll(Set.of(
                "GET /boundary-sets/{name}/shapes/{band}",
                "GET /grounds/{name}/{z}/{x}/{y}",
                "GET /places",
                "GET /changes",
                "GET /amiss"));
        assertThat(served).isEqualTo(ASKED);
    }

    @Test
    void whatAViewerIsAnsweredIsWhatADatasetOfThoseRowsAnswers(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        List<Row> all = rows(7);
        long whole = dashboard(ana, all);
        long ruled = datasetOf(ana, whole);
        Map<String, Predicate<Row>> rules = new LinkedHashMap<>();
        rules.put("province = :viewer.province", r -> r.province().equals("Soria"));
        rules.put(
                "province = :viewer.province OR product = 'warm'",
                r -> r.province().equals("Soria") || r.rest().contains(",warm,"));
        rules.put("province = :viewer.office", r -> List.of("Soria", "Burgos").contains(r.province()));
        rules.put(
                "litres > 300 AND within(place, 'Provinces of Spain') <> :viewer.province",
                r -> litres(r) > 300 && !r.province().equals("Soria"));
        SarnikClient nora = viewer(sarnik, "nora", Role.READER, "province: Soria; office: Soria; office: Burgos");
        for (var rule : rules.entrySet()) {
            rule(ana, ruled, rule.getKey());
            long part = dashboard(ana, all.stream().filter(rule.getValue()).toList());
            assertAlike(
                    answers(nora, "/api/dashboards/" + whole, ruled, whole),
                    answers(nora, "/api/dashboards/" + part, datasetOf(ana, part), part));
            assertThat(nora.read(nora.get("/api/dashboards/" + whole))
                            .at("/kept/0")
                            .asString())
                    .as("the viewer is told")
                    .contains("you see the rows where");
        }
        assertThat(ana.read(ana.get("/api/dashboards/" + whole)).get("kept"))
                .as("who may change it sees all")
                .isEmpty();
    }

    private static int litres(Row row) {
        return Integer.parseInt(row.rest().split(",")[2]);
    }

    @Test
    void aLinkThatKeepsToSomeRowsShowsNoOthersWhateverIsAsked(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        List<Row> all = rows(11);
        long whole = dashboard(ana, all);
        long dataset = datasetOf(ana, whole);
        JsonNode link = ana.json(
                "POST",
                "/api/dashboards/" + whole + "/links",
                Map.of(
                        "name",
                        "Zamora only",
                        "opensTo",
                        "ANYONE",
                        "keeping",
                        List.of(
                                Map.of("dataset", dataset, "column", "province", "values", List.of("Zamora")),
                                Map.of("dataset", dataset, "column", "litres", "values", litresOf(all)))));
        long part = dashboard(
                ana,
                all.stream()
                        .filter(r ->
                                r.province().equals("Zamora") && litresOf(all).contains(String.valueOf(litres(r))))
                        .toList());
        JsonNode plain =
                ana.json("POST", "/api/dashboards/" + part + "/links", Map.of("name", "All", "opensTo", "ANYONE"));
        SarnikClient stranger = new SarnikClient(sarnik.base());
        Map<String, String> seen = answers(stranger, "/api" + link.get("path").asString(), dataset, whole);
        assertAlike(seen, answers(stranger, "/api" + plain.get("path").asString(), datasetOf(ana, part), part));
        assertThat(String.join(" ", seen.values())).contains("driver of Zamora").doesNotContain("driver of Soria");
    }

    /** The amounts of every other row. */
    private static List<String> litresOf(List<Row> rows) {
        List<String> some = new ArrayList<>();
        for (int i = 0; i < rows.size(); i += 2) some.add(String.valueOf(litres(rows.get(i))));
        return some.stream().distinct().toList();
    }

    @Test
    void ofWhomNothingIsKnownNothingIsShown(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long whole = dashboard(ana, rows(13));
        rule(ana, datasetOf(ana, whole), "province = :viewer.province OR NOT (province = :viewer.province)");
        JsonNode link =
                ana.json("POST", "/api/dashboards/" + whole + "/links", Map.of("name", "Anyone", "opensTo", "ANYONE"));
        assertThat(link.at("/warnings/0").asString()).contains("it shows none of them");
        SarnikClient stranger = new SarnikClient(sarnik.base());
        String base = "/api" + link.get("path").asString();
        for (String body : List.of(
                stranger.get(base).body(),
                stranger.send("POST", base + "/frames", JSON, "{\"state\":\"\"}")
                        .body(),
                stranger.send("POST", base + "/filters/values", JSON, "{\"state\":\"\",\"filter\":\"f3\"}")
                        .body())) assertThat(body).doesNotContain("driver of").doesNotContain("Almazán");
        rule(ana, datasetOf(ana, whole), "province = 'Soria'");
        assertThat(stranger.send("POST", base + "/frames", JSON, "{\"state\":\"\"}")
                        .body())
                .as("a rule that asks for nothing holds for anybody")
                .contains("driver of Soria");
    }

    @Test
    void anAnalystWhoMayReadADatasetIsHeldToItsRuleOnItsOwnPages(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        List<Row> all = rows(17);
        long whole = dashboard(ana, all);
        long ruled = datasetOf(ana, whole);
        rule(ana, ruled, "province = :viewer.province");
        SarnikClient ofelia = viewer(sarnik, "ofelia", Role.ANALYST, "province: Albacete");
        long part = datasetOf(
                ana,
                dashboard(
                        ana,
                        all.stream()
                                .filter(r -> r.province().equals("Albacete"))
                                .toList()));
        for (String what : List.of("/rows", "/rows?find=driver&sort=litres&down=true&page=1", "/placing"))
            assertThat(ofelia.get("/api/datasets/" + ruled + what).body())
                    .as(what)
                    .isEqualTo(ofelia.get("/api/datasets/" + part + what).body());
        for (String format : List.of("csv", "geojson", "spreadsheet.csv"))
            assertThat(ofelia.get("/datasets/" + ruled + "/rows." + format).body())
                    .as(format)
                    .isEqualTo(
                            ofelia.get("/datasets/" + part + "/rows." + format).body());
        assertThat(ofelia.get("/datasets/" + ruled).body())
                .contains("you see the rows where province = &#39;Albacete&#39;")
                .doesNotContain("driver of Soria");
        for (String closed : List.of("/datasets/%d/formulas", "/datasets/%d/placing", "/api/datasets/%d/decisions"))
            assertThat(ofelia.get(closed.formatted(ruled)).statusCode())
                    .as(closed)
                    .isEqualTo(403);
        assertThat(ofelia.send(
                                "POST",
                                "/api/datasets/" + ruled + "/formulas/try",
                                JSON,
                                "{\"text\":\"litres\",\"kind\":\"column\"}")
                        .statusCode())
                .isEqualTo(403);
    }
}
