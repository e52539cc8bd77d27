package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import sarnik.table.Table;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("A dataset")
class DatasetTest {

    private static JsonNode intake(SarnikClient client, JsonNode taken, Object intake) throws Exception {
        return client.json("POST", "/api/bring/" + taken.get("id").asString() + "/intake", intake);
    }

    private static long keep(SarnikClient client, JsonNode taken, String name) throws Exception {
        String body = "{\"name\":\"" + name + "\",\"placing\":" + taken.get("guess") + "}";
        return Long.parseLong(client.read(client.send(
                        "POST", "/api/bring/" + taken.get("id").asString() + "/keep", "application/json", body))
                .get("id")
                .asString());
    }

    @Test
    void isReadShapedAndReadTheSameWayAtEveryRefresh(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken = ana.read(ana.upload(
                RunningSarnik.file(
                        "wide.csv",
                        "town;province;note;2023;2024;2025\nSoria;Soria;x;1.500;-;3\nZamora;Zamora;y;2.500;7;"
                                + "\nTotal;;;4.000;7;3\n"),
                "wide.csv"));
        assertThat(ana.get(taken.get("address").asString()).body())
                .contains("columns are named by periods")
                .contains("“-” 1 times");
        intake(
                ana,
                taken,
                Map.of(
                        "shaping",
                        Map.of(
                                "names",
                                Map.of("town", "place"),
                                "dropped",
                                List.of("note"),
                                "missing",
                                List.of("-"),
                                "decimalMark",
                                "COMMA",
                                "turn",
                                Map.of(
                                        "columns",
                                        List.of("2023", "2024", "2025"),
                                        "period",
                                        "year",
                                        "value",
                                        "litres"))));
        JsonNode again = ana.read(ana.get("/api/bring/" + taken.get("id").asString()));
        assertThat(again.at("/guess/town").asString())
                .as("guessed anew from the new names")
                .isEqualTo("place");
        long id = keep(ana, again, "Wide made long");
        Table table = sarnik.bean(DatasetService.class).needed(id).dataset().table();
        assertThat(table.names()).startsWith("place", "province", "year", "litres");
        assertThat(IntStream.range(0, table.rows())
                        .mapToObj(r -> table.column("litres").text(r))
                        .collect(Collectors.toList()))
                .containsExactly("1500.0", "3.0", "2500.0", "7.0");

        JsonNode newer = ana.read(ana.upload(
                RunningSarnik.file("wide2.csv", "town;province;note;2023;2024;2025\nSoria;Soria;x;1;2;-\n"),
                "wide2.csv",
                "?dataset=" + id));
        ana.read(ana.send("POST", "/api/bring/" + newer.get("id").asString() + "/serve", "application/json", ""));
        Table after = sarnik.bean(DatasetService.class).needed(id).dataset().table();
        assertThat(after.rows()).isEqualTo(2);
        assertThat(after.names()).isEqualTo(table.names());
        assertThat(after.column("litres").type())
                .isEqualTo(table.column("litres").type());
    }

    @Test
    void whoseWayOfReadingDoesNotWorkStillWaitsAsItWas(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken = ana.read(ana.upload(Samples.sales(), "sales.csv"));
        HttpResponse<String> unfit = ana.send(
                "POST",
                "/api/bring/" + taken.get("id").asString() + "/intake",
                "application/json",
                "{\"shaping\":{\"names\":{\"town\":\"province\"}}}");
        assertThat(unfit.statusCode()).isEqualTo(422);
        assertThat(unfit.body()).contains("Two columns would be called");
        assertThat(ana.get(taken.get("address").asString()).body()).contains("7 rows".replace('7', '6'));
    }

    @Test
    void ofManyDistinctPlacesIsLookedAtPageByPage(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        int inland = 40_000;
        int atSea = 5_000;
        StringBuilder rows = new StringBuilder("lat,lon,n\n");
        for (int i = 0; i < inland; i++)
            rows.append("%.5f,%.5f,1\n".formatted(39.5 + i % 200 * 0.01, -5 + i / 200 * 0.01));
        for (int i = 0; i < atSea; i++)
            rows.append("%.5f,%.5f,1\n".formatted(39.5 + i % 100 * 0.01, -15 - i / 100 * 0.01));
        JsonNode taken = ana.read(ana.upload(RunningSarnik.file("many.csv", rows.toString()), "many.csv"));
        assertThat(ana.get(taken.get("address").asString()).body()).hasSizeLessThan(1_000_000);
        long id = keep(ana, taken, "Many places");
        assertThat(ana.get("/datasets/" + id).body()).hasSizeLessThan(1_000_000);
        assertThat(ana.get("/datasets/" + id + "/placing").body()).hasSizeLessThan(1_000_000);

        JsonNode map = ana.read(ana.get("/api/datasets/" + id + "/placing"));
        assertThat(map.get("points").size()).isBetween(100, 4_000);
        long shown = 0;
        for (JsonNode point : map.get("points")) shown += point.get("rows").asLong();
        assertThat(shown).as("gathered, not left out").isEqualTo(inland + atSea);
        assertThat(map.get("doubtful").asLong()).isEqualTo(atSea);

        JsonNode first = ana.read(ana.get("/api/datasets/" + id + "/decisions"));
        int pages = first.get("pages").asInt();
        assertThat(first.get("found").asInt()).isEqualTo(atSea);
        Set<String> words = new HashSet<>();
        for (int page = 0; page < pages; page++)
            for (JsonNode open : ana.read(ana.get("/api/datasets/" + id + "/decisions?page=" + page))
                    .get("open")) words.add(open.get("words").toString());
        assertThat(words).as("every word is on one page").hasSize(atSea);
    }

    @Test
    void whoseReadingIsStoppedIsForgotten(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken = ana.read(ana.upload(Samples.sales(), "sales.csv"));
        assertThat(ana.send("DELETE", "/api/bring/" + taken.get("id").asString(), "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.get(taken.get("address").asString()).statusCode()).isEqualTo(404);
    }

    @Test
    void showsItsRowsAPageAtATimeFoundAndSorted(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        String rows = IntStream.range(0, 120)
                .mapToObj(i -> (i % 2 == 0 ? "Soria" : "Zamora") + ",Spain," + i)
                .collect(Collectors.joining("\n"));
        long id = ana.bring(RunningSarnik.file("many.csv", "town,country,n\n" + rows + "\n"), "Many");
        JsonNode last = ana.read(ana.get("/api/datasets/" + id + "/rows?page=9"));
        assertThat(last.get("page").asInt()).as("the last there is").isEqualTo(2);
        assertThat(last.get("rows")).hasSize(20);
        JsonNode found = ana.read(ana.get("/api/datasets/" + id + "/rows?find="
                + URLEncoder.encode("zamo", StandardCharsets.UTF_8) + "&sort=n&down=true"));
        assertThat(found.get("found").asInt()).isEqualTo(60);
        assertThat(found.at("/rows/0/2").asString()).isEqualTo("119");
        assertThat(found.at("/places/0").asString()).isEqualTo("Zamora");
        assertThat(ana.get("/api/datasets/" + id + "/rows?sort=height").body()).contains("no column “height”");
    }

    @ParameterizedTest
    @CsvSource({
        "csv, text/csv",
        "xlsx, application/vnd.openxmlformats",
        "geojson, application/geo+json",
        "gpkg, application/geopackage"
    })
    void isTakenAlongInOpenFormatsAndComesBack(String format, String type, RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = ana.bring(Samples.sales(), "Sales, to go");
        java.nio.file.Path file = java.nio.file.Files.createTempFile("out", "." + format);
        HttpResponse<java.nio.file.Path> answer = ana.download("/datasets/" + id + "/rows." + format, file);
        assertThat(answer.headers().firstValue("Content-Type").orElse("")).startsWith(type);
        assertThat(answer.headers().firstValue("Content-Disposition").orElse(""))
                .contains("attachment");
        JsonNode taken = ana.read(ana.upload(file, "back." + format));
        long back = keep(ana, taken, "Back");
        Table before = sarnik.bean(DatasetService.class).needed(id).dataset().table();
        Table after = sarnik.bean(DatasetService.class).needed(back).dataset().table();
        assertThat(after.rows()).isEqualTo(before.rows());
        for (String column : List.of("town", "day", "litres"))
            assertThat(after.column(column).text(1))
                    .as(column)
                    .isEqualTo(before.column(column).text(1));
        assertThat(ana.get("/datasets/" + id + "/rows.doc").statusCode()).isEqualTo(404);
    }

    @Test
    void tellsWhatItIsAndIsCalledAnew(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long id = ana.bring(Samples.sales(), "Told");
        ana.read(ana.describe(
                id,
                "about",
                Map.of(
                        "title",
                        "Refills",
                        "source",
                        "Aljibe",
                        "licence",
                        "CC BY 4.0",
                        "columns",
                        Map.of("litres", Map.of("unit", "L", "description", "Water <b>sold</b>")))));
        ana.read(ana.describe(id, "name", Map.of("name", "Told anew")));
        String page = ana.get("/datasets/" + id).body();
        assertThat(page)
                .contains("Refills; source: Aljibe; licence: CC BY 4.0")
                .contains("Water &lt;b&gt;sold")
                .contains("Told anew");
        assertThat(sarnik.bean(DatasetService.class)
                        .needed(id)
                        .dataset()
                        .about()
                        .unit("litres"))
                .isEqualTo("L");
        long dashboard = Samples.dashboard(ana, "Told to readers?");
        long shown = ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
        ana.read(ana.describe(
                shown,
                "about",
                Map.of(
                        "credit",
                        "Credit where it is due",
                        "columns",
                        Map.of("litres", Map.of("unit", "L", "description", "drawn")))));
        assertThat(ana.get("/dashboards/" + dashboard).body())
                .contains("Credit where it is due")
                .contains("litres (L): drawn");
        assertThat(ana.describe(id, "name", Map.of("name", " ")).statusCode()).isEqualTo(400);
    }

    @Test
    void isTakenAwayOnlyWhenNothingNeedsIt(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        long dashboard = Samples.dashboard(ana, "Needs a dataset?");
        long needed = ana.read(ana.get("/api/dashboards/" + dashboard))
                .at("/document/visuals/v2/dataset")
                .asLong();
        HttpResponse<String> refused = ana.send("DELETE", "/api/datasets/" + needed, "application/json", "");
        assertThat(refused.statusCode()).isEqualTo(409);
        assertThat(refused.body()).contains("Needs a dataset?");
        assertThat(ana.get("/datasets/" + needed).body()).contains("Needs a dataset?");
        long free = ana.bring(Samples.sales(), "Free");
        assertThat(ana.send("DELETE", "/api/datasets/" + free, "application/json", "")
                        .statusCode())
                .isEqualTo(204);
        assertThat(ana.get("/datasets/" + free).statusCode()).isEqualTo(404);
    }

    @Test
    void comesFromSeveralFilesOfOneShape(RunningSarnik sarnik) throws Exception {
        SarnikClient ana = sarnik.client("ana");
        JsonNode taken = ana.read(ana.upload(
                List.of(
                        RunningSarnik.file("may.csv", "town,country,n\nSoria,Spain,1\n"),
                        RunningSarnik.file("june.csv", "n,country,town\n2,Spain,Zamora\n")),
                ""));
        long id = keep(ana, taken, "Two months");
        Table table = sarnik.bean(DatasetService.class).needed(id).dataset().table();
        assertThat(table.column("town").text(1)).isEqualTo("Zamora");
        HttpResponse<String> odd = ana.upload(
                List.of(
                        RunningSarnik.file("may.csv", "town,n\nSoria,1\n"),
                        RunningSarnik.file("june.csv", "town,m\nSoria,1\n")),
                "");
        assertThat(odd.statusCode()).isEqualTo(422);
        assertThat(odd.body()).contains("june.csv").contains("lacks n");
    }
}
