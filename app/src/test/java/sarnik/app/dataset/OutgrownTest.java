package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.io.TempDir;
import sarnik.app.people.Viewer;
import sarnik.app.testing.RunningSarnik;
import sarnik.data.LoadedDataset;
import sarnik.demo.DemoFiles;
import sarnik.demo.DemoNetwork;
import sarnik.demo.SarnikClient;
import sarnik.query.Condition;
import sarnik.query.Frame;
import sarnik.query.Measure;
import sarnik.query.Query;
import sarnik.query.RowTrail;
import sarnik.query.Stage;
import sarnik.query.Summary;
import sarnik.sql.Engines;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Datasets that are too large to be held in memory")
class OutgrownTest {

    private static final int REFILLS = 5_000;

    @TempDir
    Path files;

    private RunningSarnik sarnik;
    private DatasetService datasets;
    private long before;

    @AfterEach
    void holdAgain() {
        datasets.holdUpTo(before);
    }

    private LoadedDataset dataset(long id) {
        return datasets.seenBy(Viewer.PROGRAM).get(id);
    }

    private long bring(SarnikClient ana, String name) throws Exception {
        return ana.bring(files.resolve("refills.csv"), name);
    }

    @Test
    void areAskedWhereTheyAreKeptAndGiveTheSame(RunningSarnik running) throws Exception {
        sarnik = running;
        datasets = running.bean(DatasetService.class);
        before = Long.MAX_VALUE;
        SarnikClient ana = running.client("ana");
        DemoFiles.kiosks(DemoNetwork.shipped(), files.resolve("kiosks.csv"));
        DemoFiles.refills(DemoNetwork.shipped(), REFILLS, files.resolve("refills.csv"));
        ana.bring(files.resolve("kiosks.csv"), "Outgrown kiosks");
        long held = bring(ana, "Outgrown held");
        dataset(held);
        datasets.holdUpTo(20_000);
        long kept = bring(ana, "Outgrown kept");
        LoadedDataset far = dataset(kept);
        assertThat(far.table().staying()).as("not in memory").isNotNull();
        assertThat(far.table().weight()).isEqualTo(REFILLS);
        Query query = Query.of(
                List.of(new Stage("some", List.of(new Condition.OneOf("product", List.of("still", "warm"))))),
                List.of("@place"),
                List.of(
                        Measure.ROWS,
                        new Measure(Summary.SUM, "takings"),
                        new Measure(Summary.MEDIAN, "litres"),
                        new Measure(Summary.DISTINCT, "kiosk")));
        datasets.holdUpTo(Long.MAX_VALUE);
        Frame wanted = dataset(held).answer(new Engines(), query);
        Frame found = far.answer(new Engines(), query);
        assertThat(found.keys().get(0)).containsExactly(wanted.keys().get(0));
        for (int m = 0; m < 4; m++)
            assertThat(found.values().get(m))
                    .as("measure %d", m)
                    .containsExactly(wanted.values().get(m));
        assertThat(found.trail().steps().stream().map(RowTrail.Step::left))
                .containsExactlyElementsOf(
                        wanted.trail().steps().stream().map(RowTrail.Step::left).toList());
        datasets.holdUpTo(20_000);
        assertThat(ana.get("/datasets/" + kept + "/rows.csv").body().lines().count())
                .isEqualTo(REFILLS + 1);
        // Newer rows below the others are compared with all of them.
        Files.writeString(
                files.resolve("more.csv"),
                "kiosk,day,product,litres,takings,state\nK0001,2026-06-01,still,1,0.18,final\n"
                        + Files.readAllLines(files.resolve("refills.csv")).get(1) + "\n");
        JsonNode newer = ana.read(ana.upload(files.resolve("more.csv"), "more.csv", "?dataset=" + kept));
        ana.json("POST", "/api/bring/" + newer.get("id").asString() + "/serve?append=true", Map.of());
        assertThat(dataset(kept).table().weight()).isEqualTo(REFILLS + 1);
        assertThat(dataset(kept).table().staying()).isNotNull();
    }
}
