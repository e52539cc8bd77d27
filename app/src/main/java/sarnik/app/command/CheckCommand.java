package sarnik.app.command;

import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.ConfigurableApplicationContext;
import sarnik.app.SarnikApplication;
import sarnik.app.dashboard.WiringService;
import sarnik.wiring.Finding;

/**
 * Looks through a dashboard from the command line: {@code ./sarnik check "Where do refills sell?"}. Ends with 0 when
 * nothing is amiss, with 1 when something is, with 2 when it could not be looked at.
 */
public final class CheckCommand {

    static final int NOTHING_AMISS = 0;
    static final int SOMETHING_AMISS = 1;
    static final int NOT_LOOKED_AT = 2;

    private CheckCommand() {}

    public static void main(String[] args) {
        PrintStream out = new PrintStream(System.out, true, StandardCharsets.UTF_8);
        PrintStream err = new PrintStream(System.err, true, StandardCharsets.UTF_8);
        if (args.length != 1) {
            err.println("usage: ./sarnik check DASHBOARD, by its number or its title");
            System.exit(NOT_LOOKED_AT);
        }
        int end;
        // On a port of its own that nobody is told: the application may be running beside it.
        try (ConfigurableApplicationContext context = new SpringApplicationBuilder(SarnikApplication.class)
                .properties("server.port=0", "logging.level.root=ERROR", "logging.level.sarnik=ERROR")
                .run("--server.port=0", "--spring.main.log-startup-info=false", "--sarnik.first-people=")) {
            end = run(context.getBean(WiringService.class), args[0], out, err);
        }
        System.exit(end);
    }

    static int run(WiringService wirings, String dashboard, PrintStream out, PrintStream err) {
        List<Finding> findings;
        try {
            findings = wirings.check(dashboard);
        } catch (IllegalArgumentException none) {
            err.println("sarnik: " + none.getMessage());
            return NOT_LOOKED_AT;
        }
        for (Finding finding : findings)
            out.println("- " + finding.sentence() + (finding.press().isEmpty() ? "" : " [" + finding.press() + "]"));
        out.println(findings.isEmpty() ? "Nothing is amiss." : findings.size() + " to look at.");
        return findings.isEmpty() ? NOTHING_AMISS : SOMETHING_AMISS;
    }
}
