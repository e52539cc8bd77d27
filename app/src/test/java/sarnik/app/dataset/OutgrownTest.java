package sarnik.app.dataset;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.sql.DataSource;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
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
    private HeldRows limit;
    private long before;

    @BeforeEach
    void running(RunningSarnik running) {
        sarnik = running;
        datasets = running.bean(DatasetService.class);
        limit = running.bean(HeldRows.class);
        before = limit.upTo(Long.MAX_VALUE);
    }

    @AfterEach
    void holdAgain() {
        limit.upTo(before);
    }

    private LoadedDataset dataset(long id) {
        return datasets.seenBy(Viewer.PROGRAM).get(id);
    }

    private long bring(SarnikClient ana, String name) throws Exception {
        return ana.bring(files.resolve("refills.csv"), name);
    }

    @Test
    void areAskedWhereTheyAreKeptAndGiveTheSame() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        DemoFiles.kiosks(DemoNetwork.shipped(), files.resolve("kiosks.csv"));
        DemoFiles.refills(DemoNetwork.shipped(), REFILLS, files.resolve("refills.csv"));
        ana.bring(files.resolve("kiosks.csv"), "Outgrown kiosks");
        long held = bring(ana, "Outgrown held");
        dataset(held);
        limit.upTo(20_000);
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
        limit.upTo(Long.MAX_VALUE);
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
        limit.upTo(20_000);
        assertThat(lines(ana, kept)).hasSize(REFILLS + 1);
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

    @Test
    void areInPartitionsOfWhichAQuestionReadsItsOwn() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        DemoFiles.refills(DemoNetwork.shipped(), REFILLS, files.resolve("refills.csv"));
        long held = bring(ana, "Parted held");
        limit.upTo(20_000);
        long kept = bring(ana, "Parted kept");
        String table =
                RowStore.table(datasets.description(kept).orElseThrow().served().version());
        // Brought in as it was, read back as it was.
        assertThat(lines(ana, kept)).containsExactlyInAnyOrderElementsOf(lines(ana, held));
        Query query = Query.of(
                List.of(new Stage("some", List.of(new Condition.Between("day", "2024-06-10", "2024-06-20")))),
                List.of("product"),
                List.of(Measure.ROWS, new Measure(Summary.SUM, "takings")));
        LoadedDataset far = dataset(kept);
        // How many rows there are at all is asked once.
        Stage one = new Stage("one", List.of(new Condition.OneOf("product", List.of("still"))));
        far.answer(new Engines(), Query.of(List.of(one), List.of("product"), List.of(Measure.ROWS)));
        try (Connection other = sarnik.bean(DataSource.class).getConnection();
                Statement statement = other.createStatement()) {
            other.setAutoCommit(false);
            List<String> parts = new ArrayList<>();
            try (var found = statement.executeQuery("SELECT inhrelid::regclass::text FROM pg_inherits"
                    + " WHERE inhparent = '" + table + "'::regclass")) {
                while (found.next()) parts.add(found.getString(1));
            }
            assertThat(parts).hasSize(5);
            assertThat(parts.remove(table + "p0")).as("that of the first days").isTrue();
            // Whatever is not of those days cannot be read now.
            statement.execute("LOCK TABLE " + String.join(", ", parts) + " IN ACCESS EXCLUSIVE MODE");
            Frame found = far.answer(new Engines(), query);
            other.rollback();
            limit.upTo(Long.MAX_VALUE);
            Frame wanted = dataset(held).answer(new Engines(), query);
            assertThat(wanted.values().get(0)).isNotEmpty();
            assertThat(found.keys().get(0)).containsExactly(wanted.keys().get(0));
            for (int m = 0; m < 2; m++)
                assertThat(found.values().get(m))
                        .containsExactly(wanted.values().get(m));
        }
    }

    private static List<String> lines(SarnikClient ana, long id) throws Exception {
        return ana.get("/datasets/" + id + "/rows.csv").body().lines().toList();
    }
}
