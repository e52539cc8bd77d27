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
import sarnik.app.MemoryBudget;
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
import sarnik.sql.FaceMaker;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningSarnik.class)
@DisplayName("Datasets that are too large to be held in memory")
class OutgrownTest {

    private static final int REFILLS = 5_000;
    private static final int MANY = 30_000;

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
        assertThat(sorted(ana, kept)).isEqualTo(sorted(ana, held));
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

    @Test
    void areReadPartByPartAndNeverHeld() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        DemoFiles.kiosks(DemoNetwork.shipped(), files.resolve("kiosks.csv"));
        ana.bring(files.resolve("kiosks.csv"), "Kiosks of many rows");
        DemoFiles.refills(DemoNetwork.shipped(), MANY, files.resolve("refills.csv"));
        List<String> written = new ArrayList<>(Files.readAllLines(files.resolve("refills.csv")));
        // Far below, a cell that is no number.
        String[] cells = written.get(MANY - 5).split(",");
        cells[3] = "much";
        written.set(MANY - 5, String.join(",", cells));
        Files.write(files.resolve("refills.csv"), written);
        long held = bring(ana, "Many held");
        limit.upTo(100_000);
        MemoryBudget memory = sarnik.bean(MemoryBudget.class);
        long reserved = memory.reserved();
        JsonNode taken = ana.read(ana.upload(files.resolve("refills.csv"), "refills.csv"));
        String id = taken.get("id").asString();
        assertThat(taken.get("guess").get("dataset").asLong())
                .as("tied to the kiosks")
                .isPositive();
        assertThat(ana.get("/bring/" + id).body())
                .contains("There are too many rows to be held while they are looked over.")
                .contains("and stay in Sarnik’s own database")
                .contains("%,d rows, 6 columns".formatted(MANY))
                .contains("1 left out: keep as text");
        assertThat(memory.reserved() - reserved).isBetween(1L, 60_000L);
        JsonNode kept = ana.json(
                "POST", "/api/bring/" + id + "/keep", Map.of("name", "Many kept", "placing", taken.get("guess")));
        long many = kept.get("id").asLong();
        assertThat(dataset(many).table().staying()).as("not in memory").isNotNull();
        assertThat(dataset(many).table().weight()).isEqualTo(MANY);
        limit.upTo(Long.MAX_VALUE);
        assertThat(sorted(ana, many)).isEqualTo(sorted(ana, held));
        Query query =
                Query.of(List.of(), List.of("@place"), List.of(Measure.ROWS, new Measure(Summary.SUM, "takings")));
        Frame wanted = dataset(held).answer(new Engines(), query);
        limit.upTo(100_000);
        Frame found = dataset(many).answer(new Engines(), query);
        assertThat(found.keys().get(0))
                .hasSizeGreaterThan(10)
                .containsExactly(wanted.keys().get(0));
        for (int m = 0; m < 2; m++)
            assertThat(found.values().get(m)).containsExactly(wanted.values().get(m));
        // Newer ones are compared with them, and put below them, where they are kept.
        written.add(written.get(7));
        written.add("K0001,2026-06-01,still,1,0.18,final");
        Files.write(files.resolve("refills.csv"), written);
        JsonNode newer = ana.read(ana.upload(files.resolve("refills.csv"), "refills.csv", "?dataset=" + many));
        assertThat(ana.get("/bring/" + newer.get("id").asString()).body())
                .contains("has %,d rows; %,d are served now".formatted(MANY + 2, MANY))
                .contains("Put 2 below the old ones")
                .contains("spread evenly, were placed for this");
        long bytes = datasets.description(many).orElseThrow().served().bytes();
        ana.json("POST", "/api/bring/" + newer.get("id").asString() + "/serve?append=true", Map.of());
        assertThat(dataset(many).table().weight()).isEqualTo(MANY + 2);
        assertThat(datasets.description(many).orElseThrow().served().bytes()).isBetween(bytes + 1, bytes + 200);
        JsonNode instead = ana.read(ana.upload(files.resolve("refills.csv"), "refills.csv", "?dataset=" + many));
        assertThat(ana.get("/bring/" + instead.get("id").asString()).body()).contains("Put 0 below the old ones");
        ana.json("POST", "/api/bring/" + instead.get("id").asString() + "/serve?append=false", Map.of());
        assertThat(dataset(many).table().weight()).isEqualTo(MANY + 2);
        assertThat(datasets.description(many).orElseThrow().served().number()).isEqualTo(3);
    }

    @Test
    void areRefusedWhereTooManyDifferentValuesSayWhereTheyAre() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        StringBuilder text = new StringBuilder("lat,lon,litres\n");
        for (int row = 0; row <= FaceMaker.MOST_PLACED; row++)
            text.append("41.").append(100_000 + row).append(",-2.5,1\n");
        Files.writeString(files.resolve("points.csv"), text);
        limit.upTo(1_000_000);
        JsonNode taken = ana.read(ana.upload(files.resolve("points.csv"), "points.csv"));
        var refused = ana.send(
                "POST",
                "/api/bring/" + taken.get("id").asString() + "/keep",
                "application/json",
                "{\"name\":\"Points\",\"placing\":" + taken.get("guess") + "}");
        assertThat(refused.body()).contains("“lat”, “lon” has more than 200,000 different values");
        assertThat(ana.get("/datasets").body()).doesNotContain(">Points<");
    }

    @Test
    void areNotComparedWithRowsOfTooManyColumns() throws Exception {
        SarnikClient ana = sarnik.client("ana");
        StringBuilder header = new StringBuilder("name");
        for (int c = 1; c <= RowStore.WIDEST; c++) header.append(",n").append(c);
        Files.writeString(files.resolve("wide.csv"), header + "\nsome" + ",1".repeat(RowStore.WIDEST) + "\n");
        limit.upTo(20_000);
        long wide = ana.bring(files.resolve("wide.csv"), "Wide");
        StringBuilder rows = new StringBuilder("name,n1\n");
        for (int row = 0; row < MANY * 2; row++) rows.append("K").append(row).append(",1\n");
        Files.writeString(files.resolve("many.csv"), rows);
        var refused = ana.upload(files.resolve("many.csv"), "many.csv", "?dataset=" + wide);
        assertThat(refused.body()).contains("have more than 200 columns");
        assertThat(dataset(wide).table().weight()).isEqualTo(1);
    }

    private static List<String> sorted(SarnikClient ana, long id) throws Exception {
        return lines(ana, id).stream().sorted().toList();
    }

    private static List<String> lines(SarnikClient ana, long id) throws Exception {
        return ana.get("/datasets/" + id + "/rows.csv").body().lines().toList();
    }
}
