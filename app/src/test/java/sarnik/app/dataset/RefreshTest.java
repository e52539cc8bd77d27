package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.nio.file.Path;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sarnik.app.testing.RunningSarnik;
import sarnik.app.testing.Samples;
import sarnik.demo.SarnikClient;
import sarnik.place.PlacedTable;
import sarnik.table.ColumnType;
import sarnik.table.Table;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Bringing newer rows of a dataset in")
class RefreshTest {

    private static final String STANDS =
            "code,town,province,country,phone\nR1,Soria,Soria,Spain,600\nR2,Burgos,Burgos,Spain,601\n";

    private RunningSarnik sarnik;
    private SarnikClient ana;
    private long stands;

    @BeforeEach
    void aDataset(RunningSarnik running) throws Exception {
        sarnik = running;
        ana = running.client("ana");
        JsonNode taken = ana.read(ana.upload(RunningSarnik.file("stands.csv", STANDS), "stands.csv"));
        String id = taken.get("id").asString();
        ana.json(
                "POST",
                "/api/bring/" + id + "/intake",
                java.util.Map.of("shaping", java.util.Map.of("types", java.util.Map.of("phone", "TEXT"))));
        stands = Long.parseLong(ana.json(
                        "POST",
                        "/api/bring/" + id + "/keep",
                        java.util.Map.of("name", "Stands", "placing", taken.get("guess")))
                .get("id")
                .asString());
    }

    private JsonNode newer(String content) throws Exception {
        return ana.read(ana.upload(RunningSarnik.file("newer.csv", content), "newer.csv", "?dataset=" + stands));
    }

    private void serve(JsonNode taken) throws Exception {
        ana.read(ana.send("POST", "/api/bring/" + taken.get("id").asString() + "/serve", "application/json", ""));
    }

    private Table served() {
        return sarnik.bean(DatasetService.class).needed(stands).dataset().table();
    }

    @Test
    void thePageSaysWhatWouldChangeAndTheOldRowsAreServedMeanwhile() throws Exception {
        JsonNode taken =
                newer("code,town,province,country,phone,opened\nR2,Burgos,Burgos,Spain,0700\nR3,Zamora,Zamora,Spain,"
                        + "602,2026-01-01\nR4,Nowhere at all,Zamora,Spain,603,\n");
        String page = ana.get(taken.get("address").asString()).body();
        assertThat(page.replaceAll("<[^>]+>", " ").replaceAll("\\s+", " "))
                .contains("Newer rows for Stands")
                .contains("newer.csv has 3 rows; 2 are served now")
                .contains("0 the same 1 changed 2 added 1 gone")
                .contains("told to be the same one by code")
                .contains("These columns are new: opened")
                .contains("No town is called “Nowhere at all”")
                .contains("5 of 6 cells");
        assertThat(served().rows()).isEqualTo(2);
    }

    @Test
    void typesAndPlacingHoldForTheNewRows() throws Exception {
        serve(newer("code,town,province,country,phone\nR7,Zamora,Zamora,Spain,700\n"));
        assertThat(served().column("phone").type()).isEqualTo(ColumnType.TEXT);
        assertThat(served().column(PlacedTable.PROVINCE).text(0)).isEqualTo("Zamora");
    }

    @Test
    void everyVersionCanBeServedAgain() throws Exception {
        serve(newer("code,town,province,country,phone\nR7,Zamora,Zamora,Spain,700\n"));
        assertThat(served().rows()).isEqualTo(1);
        assertThat(ana.get("/datasets/" + stands).body())
                .contains("1 row from newer.csv, version 2")
                .contains("/versions/1/serve");
        ana.read(ana.send("POST", "/api/datasets/" + stands + "/versions/1/serve", "application/json", ""));
        assertThat(served().rows()).isEqualTo(2);
        assertThat(ana.send("POST", "/api/datasets/" + stands + "/versions/9/serve", "application/json", "")
                        .statusCode())
                .isEqualTo(404);
        serve(newer(STANDS));
        assertThat(ana.get("/datasets/" + stands).body()).as("numbers go on").contains("version 3");
    }

    @Test
    void rowsThatCannotBePlacedAsTheDatasetSaysAreNotServed() throws Exception {
        JsonNode taken = newer("code,place\nR1,Soria\n");
        assertThat(ana.get(taken.get("address").asString()).body())
                .contains("no column “town”")
                .contains("disabled");
        HttpResponse<String> answer =
                ana.send("POST", "/api/bring/" + taken.get("id").asString() + "/serve", "application/json", "");
        assertThat(answer.statusCode()).isEqualTo(400);
        assertThat(served().rows()).isEqualTo(2);
    }

    @Test
    void dashboardsAndTiedDatasetsFollow() throws Exception {
        long fills = ana.bring(RunningSarnik.file("fills.csv", "stand,n\nR1,3\nR2,4\n"), "Fills");
        assertThat(sarnik.bean(DatasetService.class).needed(fills).dataset().placing())
                .isInstanceOfSatisfying(
                        sarnik.place.Placing.ByTie.class,
                        t -> assertThat(t.column()).isEqualTo("stand"));
        assertThat(sarnik.bean(DatasetService.class)
                        .needed(fills)
                        .dataset()
                        .table()
                        .column(PlacedTable.PROVINCE))
                .isNotNull();
        long tied = ((sarnik.place.Placing.ByTie) sarnik.bean(DatasetService.class)
                        .needed(fills)
                        .dataset()
                        .placing())
                .dataset();
        Path moved = RunningSarnik.file(
                "moved.csv",
                "code,town,province,country,phone\nR1,Zamora,Zamora,Spain,600\nR2,Burgos,Burgos,Spain,601\n");
        JsonNode taken = ana.read(ana.upload(moved, "moved.csv", "?dataset=" + tied));
        serve(taken);
        assertThat(sarnik.bean(DatasetService.class)
                        .needed(fills)
                        .dataset()
                        .table()
                        .column(PlacedTable.PROVINCE)
                        .text(0))
                .isEqualTo("Zamora");
    }

    @Test
    void aColumnThatIsGoneIsSaidByTheVisualsThatUsedIt() throws Exception {
        long dashboard = Samples.dashboard(ana, "Follows?");
        JsonNode opened = ana.read(ana.get("/api/dashboards/" + dashboard));
        long sales = opened.at("/document/visuals/v2/dataset").asLong();
        JsonNode taken = ana.read(ana.upload(
                RunningSarnik.file("s.csv", "town,province,country,day,product\nSoria,Soria,Spain,2026-01-01,still\n"),
                "s.csv",
                "?dataset=" + sales));
        serve(taken);
        JsonNode frames = ana.json("POST", "/api/dashboards/" + dashboard + "/frames", java.util.Map.of("state", ""));
        assertThat(frames.at("/drawings/v2/type").asString()).isEqualTo("misfit");
        assertThat(frames.at("/drawings/v2/why").asString()).contains("no column “litres”");
    }

    @Test
    void aFileForANewDatasetCannotBeServed() throws Exception {
        JsonNode taken = ana.read(ana.upload(RunningSarnik.file("x.csv", STANDS), "x.csv"));
        assertThat(ana.send("POST", "/api/bring/" + taken.get("id").asString() + "/serve", "application/json", "")
                        .body())
                .contains("Keep it as a new one");
        assertThat(ana.upload(RunningSarnik.file("x.csv", STANDS), "x.csv", "?dataset=999999")
                        .statusCode())
                .isEqualTo(404);
    }
}
