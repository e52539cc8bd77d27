package sarnik.demo;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.Charset;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import sarnik.place.Gazetteer;
import sarnik.place.Place;

/**
 * The network's other tables, each in a format and with the oddities that analysts meet. All of it is made up, but for
 * the
 * names and positions of towns. The same seed writes the same figures.
 *
 * <p>Oddities, on purpose:
 *
 * <ul>
 *   <li>complaints: Windows-1252, semicolons, decimal commas, codes that have lost their leading zero, "-" and "n/a"
 * for no
 *       value, a week that nobody reported ({@link #SILENT_WEEK}), a row of totals at the bottom;
 *   <li>probes: two whose position is 0, 0;
 *   <li>cartridges: a workbook with a title, names of columns over two rows, and preformatted text;
 *   <li>service rounds: latitude and longitude the wrong way round;
 *   <li>field visits: misspellings, namesakes, local spellings, towns that exist nowhere.
 * </ul>
 */
final class DemoTables {

    static final LocalDate FIRST_WEEK = LocalDate.of(2024, 6, 3);
    static final int WEEKS = 104;
    static final int SILENT_WEEK = 60;
    private static final int PROVINCES = 52;
    private static final Charset WINDOWS = Charset.forName("windows-1252");

    private final DemoNetwork network;

    DemoTables(DemoNetwork network) {
        this.network = network;
    }

    /** Stomach complaints by province, week and age band. */
    void complaints(Path file) throws IOException {
        Random random = new Random(DemoNetwork.SEED + 11);
        try (BufferedWriter out = Files.newBufferedWriter(file, WINDOWS)) {
            out.write("provincia;semana;0-14 años;15-64 años;65 y más;casos;personas;por 10.000\r\n");
            long all = 0;
            for (int p = 1; p <= PROVINCES; p++) {
                int people = 90_000 + (int) (Math.pow(random.nextDouble(), 2.5) * 3_000_000);
                double base = 0.6 + random.nextDouble() * 1.4;
                // A third of the codes went through a program that took them for numbers.
                String code = p % 3 == 1 ? String.valueOf(p) : "%02d".formatted(p);
                for (int week = 0; week < WEEKS; week++) {
                    LocalDate monday = FIRST_WEEK.plusWeeks(week);
                    if (week == SILENT_WEEK) {
                        out.write("%s;%s;-;-;-;n/a;%d;n/a\r\n".formatted(code, day(monday), people));
                        continue;
                    }
                    double warmth = 1 + 0.5 * Math.cos((monday.getDayOfYear() - 210) * 2 * Math.PI / 365);
                    double outbreak = p == 49 && week > 78 && week < 84 ? 4.5 : 1;
                    long young = Math.round(
                            people / 10_000.0 * base * warmth * outbreak * 0.35 * (0.7 + 0.6 * random.nextDouble()));
                    long adult = Math.round(
                            people / 10_000.0 * base * warmth * outbreak * 0.4 * (0.7 + 0.6 * random.nextDouble()));
                    long old = Math.round(
                            people / 10_000.0 * base * warmth * outbreak * 0.25 * (0.7 + 0.6 * random.nextDouble()));
                    long cases = young + adult + old;
                    all += cases;
                    out.write("%s;%s;%d;%d;%d;%d;%d;%s\r\n"
                            .formatted(
                                    code,
                                    day(monday),
                                    young,
                                    adult,
                                    old,
                                    cases,
                                    people,
                                    comma(cases * 10_000.0 / people)));
                }
            }
            out.write("Total;;;;;%d;;\r\n".formatted(all));
        }
    }

    private static String day(LocalDate day) {
        return "%02d/%02d/%d".formatted(day.getDayOfMonth(), day.getMonthValue(), day.getYear());
    }

    private static String comma(double value) {
        return String.format(Locale.ROOT, "%.2f", value).replace('.', ',');
    }

    /** Probes that measure the water, as GeoJSON. */
    void probes(Path file) throws IOException {
        Random random = new Random(DemoNetwork.SEED + 12);
        List<Kiosk> kiosks = network.kiosks().stream()
                .filter(k -> !Double.isNaN(k.lon()))
                .limit(120)
                .toList();
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("{\"type\":\"FeatureCollection\",\"features\":[");
            for (int i = 0; i < kiosks.size(); i++) {
                Kiosk k = kiosks.get(i);
                boolean lost = i == 40 || i == 77;
                out.write(String.format(
                        Locale.ROOT,
                        "%s\n{\"type\":\"Feature\",\"geometry\":{\"type\":\"Point\",\"coordinates\":[%.5f,"
                                + "%.5f]},\"properties\":"
                                + "{\"probe\":\"P%03d\",\"kiosk\":\"%s\",\"model\":\"%s\",\"installed\":\"%s\","
                                + "\"battery\":%d}}",
                        i == 0 ? "" : ",",
                        lost ? 0 : k.lon(),
                        lost ? 0 : k.lat(),
                        i + 1,
                        k.code(),
                        random.nextBoolean() ? "Sonda 1" : "Sonda 2",
                        LocalDate.of(2025, 1, 6).plusDays(random.nextInt(400)),
                        20 + random.nextInt(80)));
            }
            out.write("\n]}\n");
        }
    }

    /** Cartridges sent from depots to towns, month by month, as a workbook. */
    void cartridges(Path file) throws IOException {
        Random random = new Random(DemoNetwork.SEED + 13);
        List<String> depots = List.of("Soria, Spain", "Zamora, Spain", "Albacete, Spain", "Évora, Portugal");
        List<Kiosk> kiosks =
                network.kiosks().stream().filter(k -> !k.town().isEmpty()).toList();
        try (OutputStream out = Files.newOutputStream(file);
                Workbook book = new Workbook(out, "Aljibe", "1.0")) {
            Worksheet sheet = book.newWorksheet("Cartridges");
            sheet.value(0, 0, "Cartridges sent, Aljibe (made up)");
            String[] above = {"month", "depot", "destination", "Sent", "", "label"};
            String[] below = {"", "", "", "pieces", "boxes", ""};
            for (int c = 0; c < above.length; c++) {
                if (!above[c].isEmpty()) sheet.value(2, c, above[c]);
                if (!below[c].isEmpty()) sheet.value(3, c, below[c]);
            }
            sheet.range(2, 3, 2, 4).merge();
            for (int i = 0; i < 2400; i++) {
                int row = 4 + i;
                Kiosk to = kiosks.get(random.nextInt(kiosks.size()));
                String depot = to.country().equals("Portugal") ? depots.get(3) : depots.get(random.nextInt(3));
                int pieces = 2 + random.nextInt(40);
                sheet.value(row, 0, LocalDate.of(2025, 6, 1).plusMonths(i / 200));
                sheet.style(row, 0).format("yyyy-mm-dd").set();
                sheet.value(row, 1, depot);
                sheet.value(row, 2, to.town() + ", " + to.country());
                sheet.value(row, 3, pieces);
                sheet.value(row, 4, (pieces + 11) / 12);
                sheet.value(
                        row, 5, "%s → %s: %d pcs".formatted(depot.substring(0, depot.indexOf(',')), to.town(), pieces));
            }
        }
    }

    /** What the vans did, stop by stop, as CSV. */
    void rounds(Path file) throws IOException {
        Random random = new Random(DemoNetwork.SEED + 14);
        List<Kiosk> kiosks = network.kiosks().stream()
                .filter(k -> !Double.isNaN(k.lon()) && k.country().equals("Spain"))
                .toList();
        List<String> jobs = List.of("filter", "clean", "refill salts", "repair", "inspect");
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("van,day,order,stop time,job,minutes,latitude,longitude\r\n");
            for (int van = 1; van <= 6; van++) {
                for (int day = 0; day < 5; day++) {
                    Kiosk at = kiosks.get(random.nextInt(kiosks.size()));
                    List<Kiosk> left = new ArrayList<>(kiosks);
                    LocalTime time = LocalTime.of(7, 30);
                    int stops = 22 + random.nextInt(7);
                    for (int stop = 1; stop <= stops; stop++) {
                        int minutes = 8 + random.nextInt(25);
                        // The device wrote longitude where latitude belongs.
                        out.write(String.format(
                                Locale.ROOT,
                                "Van %d,%s,%d,%sT%s,%s,%d,%.5f,%.5f\r\n",
                                van,
                                LocalDate.of(2026, 5, 18).plusDays(day),
                                stop,
                                LocalDate.of(2026, 5, 18).plusDays(day),
                                time,
                                jobs.get(random.nextInt(jobs.size())),
                                minutes,
                                at.lon(),
                                at.lat()));
                        left.remove(at);
                        at = nearest(at, left);
                        time = time.plusMinutes(minutes + 5 + random.nextInt(12))
                                .withSecond(0);
                    }
                }
            }
        }
    }

    private static Kiosk nearest(Kiosk from, List<Kiosk> left) {
        Kiosk best = left.get(0);
        for (Kiosk k : left)
            if (Math.hypot(k.lon() - from.lon(), k.lat() - from.lat())
                    < Math.hypot(best.lon() - from.lon(), best.lat() - from.lat())) best = k;
        return best;
    }

    /** Visits in the field, as JSON, one object a line. */
    void visits(Path file) throws IOException {
        Random random = new Random(DemoNetwork.SEED + 15);
        List<Place> towns = Gazetteer.shipped().townsOf("ES");
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            for (int i = 0; i < 3000; i++) {
                Place town = towns.get((int) (Math.pow(random.nextDouble(), 2) * 2500));
                String province =
                        Gazetteer.shipped().provinceOf(town).map(Place::name).orElse("");
                String name = random.nextInt(12) == 0
                        ? slip(town.name(), random)
                        : i % 400 == 7 ? "Villaverde del Vacío" : town.name();
                out.write(("{\"visited on\":\"%s\",\"municipality\":\"%s\",\"province\":\"%s\",\"clean\":\"%s\","
                                + "\"state\":\"%s\",\"minutes\":%d}\n")
                        .formatted(
                                LocalDate.of(2026, 1, 5).plusDays(random.nextInt(140)),
                                name,
                                random.nextInt(9) == 0 ? "" : province,
                                random.nextInt(7) == 0 ? "no" : "yes",
                                random.nextInt(6) == 0 ? "draft" : "final",
                                5 + random.nextInt(50)));
            }
        }
    }

    /** A slip of the pen: two letters swapped, one left out, or an accent lost. */
    private static String slip(String name, Random random) {
        if (name.length() < 5) return name;
        int at = 1 + random.nextInt(name.length() - 3);
        return switch (random.nextInt(3)) {
            case 0 -> name.substring(0, at) + name.charAt(at + 1) + name.charAt(at) + name.substring(at + 2);
            case 1 -> name.substring(0, at) + name.substring(at + 1);
            default ->
                java.text.Normalizer.normalize(name, java.text.Normalizer.Form.NFD)
                        .replaceAll("\\p{M}", "");
        };
    }
}
