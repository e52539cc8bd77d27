package sarnik.app.command;

import java.io.IOException;
import java.io.PrintStream;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import sarnik.app.SarnikApplication;
import sarnik.app.share.OneTimeLinks;

/**
 * Makes a picture of what readers see of a dashboard: {@code ./sarnik picture "Where do refills sell?" --out x.pdf}.
 * The page is opened by a browser that nobody sees, through a link that is made for it and ended after. Ends with 0
 * when the file is written, else with 2.
 */
public final class PictureCommand {

    static final int WRITTEN = 0;
    static final int NOT_WRITTEN = 2;

    private static final Duration PATIENCE = Duration.ofMinutes(3);
    /** Settles in a page once it shows all it is asked to show. */
    private static final String STANDS =
            "window.sarnikStands?.() ?? Promise.reject(new Error('no dashboard is shown at its address.'))";

    private static final Set<String> PAPERS = Set.of("A4", "A3", "letter");

    private PictureCommand() {}

    /**
     * What is wanted.
     *
     * @param state as it stands in addresses; empty for nothing chosen
     * @param out a file whose name ends in .pdf or .png
     */
    record Wanted(String dashboard, String state, Path out, String paper, boolean upright, boolean all, int[] size) {

        /** @throws IllegalArgumentException when it cannot be read; the message says why */
        static Wanted of(String... args) {
            Map<String, String> said = new TreeMap<>();
            List<String> bare = new ArrayList<>();
            for (int i = 0; i < args.length; i++) {
                if (!args[i].startsWith("--")) bare.add(args[i]);
                else if (Set.of("--upright", "--all").contains(args[i])) said.put(args[i], "");
                else if (i + 1 < args.length) said.put(args[i], args[++i]);
                else throw new IllegalArgumentException(args[i] + " needs something behind it.");
            }
            if (bare.size() != 1)
                throw new IllegalArgumentException("say which dashboard, by its number or its title.");
            Set<String> known = Set.of("--upright", "--all", "--state", "--out", "--paper", "--size");
            said.keySet().stream()
                    .filter(name -> !known.contains(name))
                    .findFirst()
                    .ifPresent(name -> {
                        throw new IllegalArgumentException("there is no " + name + ".");
                    });
            String out = said.getOrDefault("--out", "");
            if (!out.toLowerCase(Locale.ROOT).matches(".+\\.(pdf|png)"))
                throw new IllegalArgumentException("--out needs a file that ends in .pdf or .png.");
            String paper = said.getOrDefault("--paper", "A4");
            if (!PAPERS.contains(paper)) throw new IllegalArgumentException("--paper is A4, A3 or letter.");
            String size = said.getOrDefault("--size", "1280x800");
            if (!size.matches("\\d{3,4}x\\d{3,4}"))
                throw new IllegalArgumentException("--size is a width and a height, such as 1280x800.");
            String[] sides = size.split("x");
            return new Wanted(
                    bare.get(0),
                    said.getOrDefault("--state", ""),
                    Path.of(out).toAbsolutePath(),
                    paper,
                    said.containsKey("--upright"),
                    said.containsKey("--all"),
                    new int[] {Integer.parseInt(sides[0]), Integer.parseInt(sides[1])});
        }

        boolean isPdf() {
            return out.toString().toLowerCase(Locale.ROOT).endsWith(".pdf");
        }

        /** Where the page stands, as it is wanted. */
        String address(String link) {
            String state = this.state.startsWith("?") ? this.state.substring(1) : this.state;
            // Signs that an address cannot hold are encoded, those that are encoded already stay.
            StringBuilder query = new StringBuilder();
            for (char sign : state.toCharArray())
                query.append(
                        sign > ' ' && sign < 127 && "\"<>\\^`{|}#".indexOf(sign) < 0
                                ? String.valueOf(sign)
                                : URLEncoder.encode(String.valueOf(sign), StandardCharsets.UTF_8)
                                        .replace("+", "%20"));
            return link
                    + (state.isEmpty() ? "" : "?" + query)
                    + (isPdf() ? "#print." + paper + (upright ? ".upright" : "") + (all ? ".all" : "") : "#framed");
        }
    }

    public static void main(String[] args) {
        PrintStream err = new PrintStream(System.err, true, StandardCharsets.UTF_8);
        Wanted wanted;
        try {
            wanted = Wanted.of(args);
        } catch (IllegalArgumentException unfit) {
            err.println("sarnik: " + unfit.getMessage());
            err.println(
                    "usage: ./sarnik picture DASHBOARD --out FILE.pdf|FILE.png [--state STATE] [--all] [--paper A4|A3|letter] [--upright] [--size 1280x800]");
            System.exit(NOT_WRITTEN);
            return;
        }
        int end;
        // On a port of its own that nobody is told: the application may be running beside it.
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(SarnikApplication.class)
                .properties("server.port=0", "logging.level.root=ERROR", "logging.level.sarnik=ERROR")
                .run("--server.port=0", "--spring.main.log-startup-info=false", "--sarnik.first-people=")) {
            String base = "http://127.0.0.1:" + context.getEnvironment().getProperty("local.server.port");
            end = run(context.getBean(OneTimeLinks.class), base, wanted, err);
        }
        System.exit(end);
    }

    static int run(OneTimeLinks links, String base, Wanted wanted, PrintStream err) {
        try (OneTimeLinks.Made link = links.make(wanted.dashboard())) {
            printed(wanted, wanted.address(base + link.path()));
            return WRITTEN;
        } catch (IllegalArgumentException | IOException failed) {
            err.println("sarnik: " + failed.getMessage());
            return NOT_WRITTEN;
        } catch (InterruptedException interrupted) {
            Thread.currentThread().interrupt();
            return NOT_WRITTEN;
        }
    }

    private static void printed(Wanted wanted, String address) throws IOException, InterruptedException {
        // Written beside its place and moved there whole: a job that is stopped leaves no half of a file.
        Path part =
                wanted.out().resolveSibling(wanted.out().getFileName() + (wanted.isPdf() ? ".part.pdf" : ".part.png"));
        try (HiddenBrowser browser = new HiddenBrowser(PATIENCE)) {
            browser.open(address, wanted.size()[0], wanted.size()[1]);
            browser.await(STANDS);
            Files.write(part, wanted.isPdf() ? browser.pdf() : browser.png());
            Files.move(part, wanted.out(), java.nio.file.StandardCopyOption.REPLACE_EXISTING);
        } catch (java.nio.file.NoSuchFileException missing) {
            throw new IOException(
                    "there is no folder %s.".formatted(wanted.out().getParent()), missing);
        } finally {
            Files.deleteIfExists(part);
        }
    }
}
