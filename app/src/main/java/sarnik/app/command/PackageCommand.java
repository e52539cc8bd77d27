package sarnik.app.command;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import sarnik.app.SarnikApplication;
import sarnik.app.carried.Packages;
import sarnik.app.dashboard.DashboardService;
import sarnik.app.web.RefusedException;

/**
 * Packs what is published of a dashboard as static files: {@code ./sarnik package "Where do refills sell?" --out
 * x.zip}, or only the file in which newer data come: {@code --data-only --out data.js}. Ends with 0 when the file is
 * written, else with 2.
 */
public final class PackageCommand {

    static final int WRITTEN = 0;
    static final int NOT_WRITTEN = 2;

    private static final String USAGE = "usage: ./sarnik package DASHBOARD [--data-only] [--out FILE]";

    private PackageCommand() {}

    /** What is wanted. */
    record Wanted(String dashboard, boolean dataOnly, Path out) {

        /** @throws IllegalArgumentException when it cannot be read; the message says why */
        static Wanted of(String... args) {
            List<String> bare = new ArrayList<>();
            boolean dataOnly = false;
            String out = null;
            for (int i = 0; i < args.length; i++) {
                if (args[i].equals("--data-only")) dataOnly = true;
                else if (args[i].equals("--out") && i + 1 < args.length) out = args[++i];
                else if (args[i].startsWith("--"))
                    throw new IllegalArgumentException(
                            args[i].equals("--out") ? "--out needs a file." : "there is no " + args[i] + ".");
                else bare.add(args[i]);
            }
            if (bare.size() != 1)
                throw new IllegalArgumentException("say which dashboard, by its number or its title.");
            String usual = dataOnly ? "data.js" : "dashboard.zip";
            return new Wanted(
                    bare.get(0), dataOnly, Path.of(out == null ? usual : out).toAbsolutePath());
        }
    }

    public static void main(String[] args) {
        PrintStream err = new PrintStream(System.err, true, StandardCharsets.UTF_8);
        Wanted wanted;
        try {
            wanted = Wanted.of(args);
        } catch (IllegalArgumentException unfit) {
            err.println("sarnik: " + unfit.getMessage());
            err.println(USAGE);
            System.exit(NOT_WRITTEN);
            return;
        }
        int end;
        // On a port of its own that nobody is told: the application may be running beside it.
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(SarnikApplication.class)
                .properties("server.port=0", "logging.level.root=ERROR", "logging.level.sarnik=ERROR")
                .run("--server.port=0", "--spring.main.log-startup-info=false", "--sarnik.first-people=")) {
            end = run(context.getBean(DashboardService.class), context.getBean(Packages.class), wanted, err);
        }
        System.exit(end);
    }

    static int run(DashboardService dashboards, Packages packages, Wanted wanted, PrintStream err) {
        try {
            long id = dashboards.published(wanted.dashboard()).id();
            byte[] bytes =
                    wanted.dataOnly() ? packages.data(id) : packages.make(id).zip();
            Files.write(wanted.out(), bytes);
            err.printf("sarnik: wrote %s, %,d bytes%n", wanted.out(), bytes.length);
            return WRITTEN;
        } catch (IllegalArgumentException | RefusedException refused) {
            err.println("sarnik: " + refused.getMessage());
            return NOT_WRITTEN;
        } catch (IOException failed) {
            err.println("sarnik: " + wanted.out() + " cannot be written: " + failed.getMessage());
            return NOT_WRITTEN;
        }
    }
}
