package sarnik.demo;

import java.io.BufferedWriter;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/** Writes the network's tables as an analyst would have them: CSV files (RFC 4180, UTF-8). */
public final class DemoFiles {

    private DemoFiles() {}

    /** Writes the list of kiosks. */
    public static void kiosks(DemoNetwork network, Path file) throws IOException {
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("code,name,town,province,country,longitude,latitude,model,opened,status,wheelchair "
                    + "access,phone\r\n");
            for (Kiosk k : network.kiosks()) {
                List<String> cells = new ArrayList<>(List.of(
                        k.code(),
                        k.name(),
                        k.town(),
                        k.province(),
                        k.country(),
                        degrees(k.lon()),
                        degrees(k.lat()),
                        k.model(),
                        k.opened().toString(),
                        k.status(),
                        k.access(),
                        k.phone()));
                cells.replaceAll(c -> c.contains(",") || c.contains("\"") ? '"' + c.replace("\"", "\"\"") + '"' : c);
                out.write(String.join(",", cells) + "\r\n");
            }
        }
    }

    private static String degrees(double value) {
        return Double.isNaN(value) ? "" : String.format(Locale.ROOT, "%.5f", value);
    }

    /** Writes refills. */
    public static void refills(DemoNetwork network, int rows, Path file) throws IOException {
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("kiosk,day,product,litres,takings,state\r\n");
            StringBuilder line = new StringBuilder();
            new Refills(network).make(rows, (kiosk, day, product, litres, takings, state) -> {
                line.setLength(0);
                line.append(network.kiosks().get(kiosk).code())
                        .append(',')
                        .append(LocalDate.ofEpochDay(day))
                        .append(',')
                        .append(Refills.PRODUCTS.get(product))
                        .append(',')
                        .append(litres)
                        .append(',')
                        .append(takings)
                        .append(',')
                        .append(Refills.STATES.get(state))
                        .append("\r\n");
                write(out, line);
            });
        }
    }

    /**
     * Writes refills for databases that hold them, before the demo is loaded.
     *
     * @param arguments how many; {@code csv} as PostgreSQL copies them in, or {@code tsv} with the types of the columns
     *     at the top; the file
     */
    public static void main(String[] arguments) throws IOException {
        Path file = Path.of(arguments[2]);
        int rows = Integer.parseInt(arguments[0]);
        if (arguments[1].equals("csv")) {
            refills(DemoNetwork.shipped(), rows, file);
            return;
        }
        DemoNetwork network = DemoNetwork.shipped();
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            out.write("kiosk:text,day:date,product:text,litres:decimal,takings:decimal,state:text\n");
            new Refills(network)
                    .make(
                            rows,
                            (kiosk, day, product, litres, takings, state) -> write(
                                    out,
                                    String.join(
                                            "\t",
                                            network.kiosks().get(kiosk).code(),
                                            LocalDate.ofEpochDay(day).toString(),
                                            Refills.PRODUCTS.get(product),
                                            String.valueOf(litres),
                                            String.valueOf(takings),
                                            Refills.STATES.get(state) + "\n")));
        }
    }

    private static void write(BufferedWriter out, CharSequence line) {
        try {
            out.append(line);
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
