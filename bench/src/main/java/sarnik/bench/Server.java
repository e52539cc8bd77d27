package sarnik.bench;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.HttpURLConnection;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileStore;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The running application and its PostgreSQL, as processes of this machine: what they hold, and their sudden ends. */
final class Server {

    private static final Pattern USED = Pattern.compile("total \\d+K, used (\\d+)K");
    private static final int STARTS_SECONDS = 120;

    /** A disk that is larger is nobody's to fill. */
    private static final long LARGEST_DISK = 4L << 30;

    /** Where the demo that is measured keeps its data; null where it is not one of this machine's. */
    private final Path place = System.getenv("SARNIK_BENCH_HOME") == null
            ? null
            : Path.of(System.getenv("SARNIK_BENCH_HOME")).resolve("demo");

    private final String base;

    /** @param base the application's address */
    Server(String base) {
        this.base = base;
    }

    Connection database() throws SQLException {
        return DriverManager.getConnection(
                System.getenv("SARNIK_BENCH_DB"), "sarnik", System.getenv("SARNIK_BENCH_PASSWORD"));
    }

    private static ProcessHandle application() {
        return ProcessHandle.allProcesses()
                .filter(Server::isApplication)
                .findFirst()
                .orElse(null);
    }

    private static boolean isApplication(ProcessHandle process) {
        return process.info().commandLine().orElse("").contains("sarnik-run.jar");
    }

    /**
     * What the application's heap holds once what nobody needs is collected, MB; NaN where it is not on this machine.
     */
    static double held() throws IOException, InterruptedException {
        ProcessHandle application = application();
        if (application == null) return Double.NaN;
        String id = Long.toString(application.pid());
        said("jcmd", id, "GC.run");
        Matcher used = USED.matcher(said("jcmd", id, "GC.heap_info"));
        return used.find() ? Long.parseLong(used.group(1)) / 1024.0 : Double.NaN;
    }

    /** So many threads the application runs, and so many files and connections it has open. */
    static long[] open() throws IOException {
        Path process = Path.of("/proc", Long.toString(application().pid()));
        try (var threads = Files.list(process.resolve("task"));
                var files = Files.list(process.resolve("fd"))) {
            return new long[] {threads.count(), files.count()};
        }
    }

    private static String said(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        try (InputStream in = process.getInputStream()) {
            String text = new String(in.readAllBytes(), StandardCharsets.UTF_8);
            process.waitFor();
            return text;
        }
    }

    String base() {
        return base;
    }

    /** What an instance of the application is started by. */
    record Instance(List<String> command, Path folder, Map<String, String> variables) {

        static Instance of(ProcessHandle running) throws IOException {
            Path process = Path.of("/proc", Long.toString(running.pid()));
            Map<String, String> variables = new LinkedHashMap<>();
            for (String variable : Files.readString(process.resolve("environ")).split("\0")) {
                int equals = variable.indexOf('=');
                variables.put(variable.substring(0, equals), variable.substring(equals + 1));
            }
            return new Instance(
                    List.of(Files.readString(process.resolve("cmdline")).split("\0")),
                    process.resolve("cwd").toRealPath(),
                    variables);
        }

        String port() {
            return variables.get("SARNIK_PORT");
        }

        long begin(Path log) throws IOException {
            ProcessBuilder builder = new ProcessBuilder(command)
                    .directory(folder.toFile())
                    .redirectErrorStream(true)
                    .redirectOutput(ProcessBuilder.Redirect.appendTo(log.toFile()));
            builder.environment().clear();
            builder.environment().putAll(variables);
            return builder.start().pid();
        }
    }

    /** Kills the application (kill -9) and starts it as it was started; comes back when it answers. */
    void killApplication() throws IOException, InterruptedException {
        begin(kill());
    }

    /** Kills the application (kill -9). @return by what it is started again */
    Instance kill() throws IOException, InterruptedException {
        String port = String.valueOf(URI.create(base).getPort());
        for (ProcessHandle process :
                ProcessHandle.allProcesses().filter(Server::isApplication).toList()) {
            Instance found = Instance.of(process);
            if (!port.equals(found.port())) continue;
            kill(process);
            return found;
        }
        throw new IllegalStateException("Nothing runs at " + base);
    }

    /** Starts the application; comes back when it answers. */
    void begin(Instance instance) throws IOException, InterruptedException {
        // Beside what it writes, so that what has started the demo stops this one as well.
        Path own = Path.of(instance.variables.get("SARNIK_WORK")).getParent();
        Files.createDirectories(own);
        Files.writeString(own.resolve("app.pid"), Long.toString(instance.begin(own.resolve("app.log"))));
        for (int tenth = 0; !answers(); tenth++) {
            if (tenth > 10 * STARTS_SECONDS) throw new IllegalStateException("The application does not start again");
            TimeUnit.MILLISECONDS.sleep(100);
        }
    }

    /** Starts one more instance on the same database, on a port that is free. */
    Server beside() throws IOException, InterruptedException {
        int port;
        try (ServerSocket free = new ServerSocket(0)) {
            port = free.getLocalPort();
        }
        Instance as = Instance.of(application());
        Map<String, String> variables = new LinkedHashMap<>(as.variables);
        variables.put("SARNIK_PORT", String.valueOf(port));
        variables.put(
                "SARNIK_WORK", place.resolve("also-" + port).resolve("work").toString());
        Server other = new Server("http://127.0.0.1:" + port);
        other.begin(new Instance(as.command, as.folder, variables));
        return other;
    }

    private static void kill(ProcessHandle process) throws InterruptedException {
        process.destroyForcibly();
        while (process.isAlive()) TimeUnit.MILLISECONDS.sleep(10);
    }

    private boolean answers() {
        try {
            HttpURLConnection connection =
                    (HttpURLConnection) URI.create(base + "/sign-in").toURL().openConnection();
            connection.setReadTimeout(2000);
            return connection.getResponseCode() == 200;
        } catch (IOException away) {
            return false;
        }
    }

    /**
     * Kills PostgreSQL (kill -9 of the one that all its processes are children of) and starts it again; comes back when
     * the application has found it.
     */
    void killDatabase() throws IOException, InterruptedException {
        Path cluster = place.resolve("database/cluster");
        long id = Long.parseLong(
                Files.readAllLines(cluster.resolve("postmaster.pid")).get(0).strip());
        ProcessHandle first = ProcessHandle.of(id).orElseThrow();
        List<ProcessHandle> children = first.children().toList();
        kill(first);
        // They end by themselves when they see that the first is gone; a new one starts only then.
        for (ProcessHandle child : children) kill(child);
        standUp();
    }

    /** Starts PostgreSQL where it does not run. */
    private void startDatabase() throws IOException, InterruptedException {
        done("bash", "tools/postgres.sh", "start", place.resolve("database").toString());
    }

    /** Fills the disk on which all is kept to the last byte for a while. */
    void fillDisk(long millis) throws IOException, InterruptedException {
        if (Files.getFileStore(place).getTotalSpace() > LARGEST_DISK)
            throw new IllegalStateException(
                    "Its data are on no small disk of their own; ./sarnik bench --disk makes one");
        Path filler = place.resolveSibling("filler");
        byte[] some = new byte[4096];
        try (OutputStream out = Files.newOutputStream(filler)) {
            while (true) out.write(some);
        } catch (IOException full) {
            TimeUnit.MILLISECONDS.sleep(millis);
        } finally {
            Files.delete(filler);
        }
        standUp();
    }

    /**
     * Lets the disk on which all is kept fail: its system finds a fault and takes nothing more, as it does when a disk
     * is about to break. After a while all that runs on it ends at once, the disk is looked through and mounted again,
     * and PostgreSQL and the application are started on it.
     */
    void failDisk(long millis) throws IOException, InterruptedException {
        Path home = place.getParent();
        FileStore store = Files.getFileStore(home);
        Path device = Path.of(store.name());
        Path image = home.resolveSibling(home.getFileName() + ".image");
        if (!Files.exists(image) || !device.getFileName().toString().startsWith("loop"))
            throw new IllegalStateException(
                    "Its data are on no disk of their own that may fail; ./sarnik bench --read-only makes one");
        Instance as = Instance.of(application());
        Files.writeString(Path.of("/sys/fs/ext4", device.getFileName().toString(), "trigger_fs_error"), "1");
        TimeUnit.MILLISECONDS.sleep(millis);
        for (ProcessHandle process : ProcessHandle.allProcesses().toList()) if (holds(process, home)) kill(process);
        done("umount", home.toString());
        // 1 says that it has found something and mended it.
        int mended = new ProcessBuilder("e2fsck", "-p", image.toString())
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start()
                .waitFor();
        if (mended > 1) throw new IllegalStateException("The disk cannot be mended: e2fsck ended with " + mended);
        done("mount", "-o", "loop,errors=remount-ro", image.toString(), home.toString());
        startDatabase();
        begin(as);
    }

    private static boolean holds(ProcessHandle process, Path disk) {
        try (var files = Files.list(Path.of("/proc", Long.toString(process.pid()), "fd"))) {
            return files.anyMatch(file -> isOn(disk, file))
                    || isOn(disk, Path.of("/proc", Long.toString(process.pid()), "cwd"));
        } catch (IOException gone) {
            return false;
        }
    }

    private static boolean isOn(Path disk, Path link) {
        try {
            return Files.readSymbolicLink(link).startsWith(disk);
        } catch (IOException gone) {
            return false;
        }
    }

    private static void done(String... command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command).redirectErrorStream(true).start();
        String words = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        if (process.waitFor() != 0)
            throw new IllegalStateException(String.join(" ", command) + " ended with: " + words);
    }

    /** Starts what has ended over its disk, as its steward would. */
    private void standUp() throws IOException, InterruptedException {
        startDatabase();
        for (int tenth = 0; !answers(); tenth++) {
            if (tenth > 10 * STARTS_SECONDS) throw new IllegalStateException("The application does not answer again");
            TimeUnit.MILLISECONDS.sleep(100);
        }
    }
}
