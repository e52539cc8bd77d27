package sarnik.app.testing;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.ParameterContext;
import org.junit.jupiter.api.extension.ParameterResolver;
import org.springframework.boot.SpringApplication;
import org.springframework.context.ConfigurableApplicationContext;
import sarnik.app.SarnikApplication;
import sarnik.app.people.PeopleService;
import sarnik.app.people.SignedIn;
import sarnik.demo.SarnikClient;
import sarnik.standins.Mailbox;
import sarnik.standins.OpenIdProvider;
import sarnik.standins.RemoteTable;

/**
 * The real application over a real PostgreSQL on loopback, started once for all tests; they talk to it from outside. A
 * test asks for it as a parameter.
 */
public final class RunningSarnik implements ParameterResolver {

    /** Everyone's password. */
    public static final String PASSWORD = "correct-horse-9";

    /** Tests leave files behind that nobody keeps. */
    public static final int MOST_WAITING = 150;

    /** The address of loopback from which a proxy would forward. */
    public static final String PROXY = "127.0.0.7";

    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final Path DATABASE = place("database");

    private static RunningSarnik one;

    private ConfigurableApplicationContext context;
    private OpenIdProvider provider;
    private Mailbox mailbox;
    private RemoteTable hooks;
    private String database;
    private String base;
    private final Map<String, SarnikClient> clients = new ConcurrentHashMap<>();
    private final Map<String, SarnikClient> pages = new ConcurrentHashMap<>();

    @Override
    public boolean supportsParameter(ParameterContext parameter, ExtensionContext extension) {
        return parameter.getParameter().getType() == RunningSarnik.class;
    }

    /** A place for what tests keep on the disk; tests run in several processes, each of which has places of its own. */
    public static Path place(String name) {
        return Path.of(System.getProperty("sarnik.tests", "target/tests"), name).toAbsolutePath();
    }

    @Override
    public Object resolveParameter(ParameterContext parameter, ExtensionContext extension) {
        return running();
    }

    /** The tests' runner ends a launch with each class, so it is the process that the application lives as long as. */
    private static synchronized RunningSarnik running() {
        if (one == null) {
            one = started();
            Runtime.getRuntime().addShutdownHook(new Thread(one::close));
        }
        return one;
    }

    private static RunningSarnik started() {
        try {
            RunningSarnik running = new RunningSarnik();
            postgres("stop");
            String port = postgres("start", "--fast");
            postgres("recreate");
            running.provider = OpenIdProvider.start(0);
            running.mailbox = Mailbox.start(0);
            running.hooks = RemoteTable.start(0, () -> 0, null, running.mailbox);
            running.database = port;
            running.context = running.begin(place("work"));
            running.base = address(running.context);
            return running;
        } catch (IOException | InterruptedException failed) {
            throw new IllegalStateException("The application could not be started for the tests", failed);
        }
    }

    private ConfigurableApplicationContext begin(Path work) throws IOException {
        SpringApplication application = new SpringApplication(SarnikApplication.class);
        application.setRegisterShutdownHook(false);
        return application.run(
                "--spring.datasource.url=jdbc:postgresql://127.0.0.1:" + database + "/sarnik",
                "--spring.datasource.username=sarnik",
                "--spring.datasource.password="
                        + Files.readString(DATABASE.resolve("password")).strip(),
                "--server.port=0",
                "--sarnik.mail.host=127.0.0.1",
                "--sarnik.mail.port=" + mailbox.port(),
                "--sarnik.largest-file=8MB",
                "--sarnik.patience=3s",
                "--sarnik.proxies=" + PROXY.replace(".", "\\."),
                "--sarnik.most-waiting=" + MOST_WAITING,
                "--sarnik.open-id.issuer=" + provider.issuer(),
                "--sarnik.open-id.client-secret=between-us",
                "--sarnik.open-id.name=the network's office",
                "--sarnik.open-id.claim=email",
                "--sarnik.work-directory=" + work,
                "--sarnik.first-people=marta:steward:%1$s\nana:analyst:%1$s\nberta:analyst:%1$s\nrui:reader:%1$s"
                        .formatted(PASSWORD));
    }

    /** Starts one more instance on the same database; whoever asks for it closes it. */
    public ConfigurableApplicationContext another() throws IOException {
        return another("work-of-another");
    }

    /** The same, with a place of its own for what it writes. */
    public ConfigurableApplicationContext another(String work) throws IOException {
        return begin(place(work));
    }

    /** Where an instance is reached. */
    public static String address(ConfigurableApplicationContext instance) {
        return "http://127.0.0.1:" + instance.getEnvironment().getProperty("local.server.port");
    }

    private static String postgres(String command, String... more) throws IOException, InterruptedException {
        List<String> words = new java.util.ArrayList<>(
                List.of("bash", ROOT.resolve("tools/postgres.sh").toString(), command, DATABASE.toString()));
        words.addAll(List.of(more));
        Process process = new ProcessBuilder(words)
                .redirectError(ProcessBuilder.Redirect.INHERIT)
                .start();
        String said = new String(process.getInputStream().readAllBytes()).strip();
        if (process.waitFor() != 0) throw new IOException("tools/postgres.sh " + command + " failed");
        return said;
    }

    /** The address of the server. */
    public String base() {
        return base;
    }

    /** Where mail arrives that is sent. */
    public Mailbox mailbox() {
        return mailbox;
    }

    /** The port of a web hook, {@code /hook}, whose messages the mailbox keeps. */
    public int hookPort() {
        return hooks.port();
    }

    public <T> T bean(Class<T> type) {
        return context.getBean(type);
    }

    /** A client that is signed in under this name; one for all tests. */
    public SarnikClient client(String name) {
        return clients.computeIfAbsent(name, this::signedIn);
    }

    /** A client whose session is that of somebody's pages; begun anew where a test has ended it. */
    public SarnikClient forPages(String name) {
        return pages.compute(name, (n, before) -> before != null && isSignedIn(before) ? before : signedIn(n));
    }

    private static boolean isSignedIn(SarnikClient client) {
        try {
            return client.get("/api/datasets").statusCode() != 401;
        } catch (IOException | InterruptedException failed) {
            throw new IllegalStateException(failed);
        }
    }

    /** A client with a session of its own. */
    public SarnikClient signedIn(String name) {
        try {
            SarnikClient client = new SarnikClient(base);
            if (!client.signIn(name, PASSWORD)) throw new IllegalStateException(name + " cannot sign in");
            return client;
        } catch (IOException | InterruptedException failed) {
            throw new IllegalStateException(failed);
        }
    }

    /** Somebody as signed in. */
    public SignedIn person(String name) {
        return (SignedIn) bean(PeopleService.class).loadUserByUsername(name);
    }

    /** A file for bringing in. */
    public static Path file(String name, String content) {
        try {
            Path directory = Files.createTempDirectory("sarnik-file");
            return Files.writeString(directory.resolve(name), content);
        } catch (IOException failed) {
            throw new java.io.UncheckedIOException(failed);
        }
    }

    private void close() {
        try {
            context.close();
            hooks.close();
            mailbox.close();
            provider.close();
            postgres("stop");
        } catch (IOException | InterruptedException failed) {
            throw new IllegalStateException("The application could not be ended after the tests", failed);
        }
    }
}
