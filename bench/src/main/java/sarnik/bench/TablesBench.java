package sarnik.bench;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.List;
import java.util.Random;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import sarnik.demo.DemoFiles;
import sarnik.demo.DemoNetwork;
import sarnik.demo.SarnikClient;
import sarnik.format.TableFile;
import sarnik.place.Gazetteer;
import sarnik.place.HeldOut;
import sarnik.place.Place;
import sarnik.table.FileChoices;
import sarnik.table.Shaping;
import sarnik.table.TableReader;

/**
 * Tables as people bring them: the command as a whole process, a workbook, the look at a large file; and what placing
 * says of itself.
 */
final class TablesBench {

    /** The look at 5,000,000 rows before this was measured, milliseconds. */
    private static final double LOOK_BEFORE = 69_000;

    private final Report report;
    private final String base;
    private final Path directory;

    /** A fiftieth of the rows where things are only gone through. */
    private final boolean brief;

    TablesBench(Report report, String base, Path directory, boolean brief) {
        this.report = report;
        this.base = base;
        this.directory = directory;
        this.brief = brief;
    }

    private int few(int many) {
        return brief ? many / 50 : many;
    }

    void run() throws Exception {
        command();
        workbook();
        look();
        calibration();
    }

    // --- ./sarnik place -----------------------------------------------------------------------------

    private void command() throws Exception {
        report.title("./sarnik place, the whole process");
        Path one = Files.writeString(directory.resolve("one.csv"), "town,province\nSoria,Soria\n");
        // The first start after a build makes ready what later ones use.
        place(one);
        report.time("one row", report.median(0, 5, () -> place(one)), "aim", 1000, 1);
        Path many = directory.resolve("many.csv");
        repeated(many, few(1_000_000), few(60_000));
        report.time(
                "%,d rows with %,d distinct pairs".formatted(few(1_000_000), few(60_000)),
                report.median(0, 3, () -> place(many)),
                "aim",
                10_000,
                1);
        Files.delete(many);
    }

    private void place(Path file) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(
                        "./sarnik",
                        "place",
                        file.toString(),
                        "--out",
                        directory.resolve("placed.csv").toString())
                .redirectErrorStream(true)
                .redirectOutput(directory.resolve("place.log").toFile())
                .start();
        if (process.waitFor() > 1)
            throw new IOException("./sarnik place failed: " + Files.readString(directory.resolve("place.log")));
    }

    private static void repeated(Path file, int rows, int pairs) throws IOException {
        List<Place> towns = Gazetteer.shipped().townsOf("ES");
        Random random = new Random(3);
        String[] words = new String[pairs];
        for (int i = 0; i < pairs; i++) {
            Place town = towns.get(random.nextInt(towns.size()));
            String name = i % 3 == 0 && town.name().length() > 6
                    ? town.name().substring(0, 4) + town.name().substring(5)
                    : town.name();
            words[i] = "\"" + name + "\",\""
                    + Gazetteer.shipped().provinceOf(town).map(Place::name).orElse("") + "\",\""
                    + (i % 7 == 0 ? "c/ " + i : "") + "\"";
        }
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("town,province,street\n");
            for (int row = 0; row < rows; row++) out.write(words[random.nextInt(pairs)] + "\n");
        }
    }

    // --- files --------------------------------------------------------------------------------------

    private void workbook() throws Exception {
        int rows = few(100_000);
        report.title("Reading a workbook of %,d rows and 12 columns".formatted(rows));
        Path file = directory.resolve("book.xlsx");
        Random random = new Random(1);
        try (OutputStream out = Files.newOutputStream(file);
                Workbook book = new Workbook(out, "Bench", "1.0")) {
            Worksheet sheet = book.newWorksheet("Rows");
            for (int c = 0; c < 12; c++) sheet.value(0, c, "column " + c);
            for (int row = 1; row <= rows; row++) {
                for (int c = 0; c < 12; c++) {
                    switch (c % 4) {
                        case 0 -> sheet.value(row, c, "town " + random.nextInt(5000));
                        case 1 -> sheet.value(row, c, random.nextInt(100_000));
                        case 2 -> sheet.value(row, c, random.nextDouble() * 100);
                        default -> {
                            sheet.value(row, c, LocalDate.of(2026, 1, 1).plusDays(random.nextInt(300)));
                            sheet.style(row, c).format("yyyy-mm-dd").set();
                        }
                    }
                }
                if (row % 1000 == 0) sheet.flush();
            }
        }
        report.time(
                "opened, typed and held",
                report.median(
                        3,
                        3,
                        () -> new TableReader()
                                .read(TableFile.open(file, FileChoices.NONE).rows(), Shaping.NONE)),
                "aim",
                4000,
                1);
        Files.delete(file);
    }

    private void look() throws Exception {
        int rows = few(5_000_000);
        report.title("The look at %,d rows: sent, read, typed, its placing guessed".formatted(rows));
        SarnikClient client = new SarnikClient(base);
        if (!client.signIn("ana", "aljibe-ana1")) throw new IllegalStateException("The demo's analyst cannot sign in");
        Path file = directory.resolve("look.csv");
        DemoFiles.refills(DemoNetwork.shipped(), rows, file);
        String[] id = new String[1];
        double look = report.median(
                0,
                1,
                () -> id[0] =
                        client.read(client.upload(file, "look.csv")).get("id").asString());
        report.time(
                "%,d rows, %,d MB".formatted(rows, Files.size(file) >> 20),
                look,
                "a quarter of what it was",
                brief ? look : LOOK_BEFORE / 4,
                1);
        client.send("DELETE", "/api/bring/" + id[0], "application/json", "");
        Files.delete(file);
    }

    // --- confidence ---------------------------------------------------------------------------------

    private void calibration() {
        HeldOut held = HeldOut.judge();
        report.title("Confidence on countries and dirt that were held out: %,d names, %.1f %% placed"
                .formatted(held.names(), 100 * held.placed()));
        report.error("expected calibration error", held.calibrationError(), 0.03);
        report.error("wrong among those called placed", 1 - held.right(), 0.02);
    }
}
