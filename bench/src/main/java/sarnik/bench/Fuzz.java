package sarnik.bench;

import java.io.BufferedReader;
import java.io.File;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;

/**
 * Tries the readers of files with inputs that are bred by what they reach in the program (Jazzer, coverage-guided), each
 * reader beginning with what earlier runs have kept in {@code bench/corpus}.
 *
 * <p>Arguments: {@code --inputs N} a reader (1,000,000), {@code --reader NAME} for one, {@code --together} for one short
 * run over all, {@code --keep} keeps the smallest set of inputs that reaches as much.
 */
public final class Fuzz {

    private static final Path KEPT = Path.of("bench", "corpus");
    private static final Pattern COVERED = Pattern.compile("cov: (\\d+) ft: (\\d+)");
    private static final Pattern SECONDS = Pattern.compile("Done (\\d+) runs in (\\d+) second");

    /** A file of some sheets may be larger than what is bred. */
    private static final int LONGEST_INPUT = 200_000;

    private static final int SLOWEST_SECONDS = 20;

    private long inputs = 1_000_000;
    private String only;
    private boolean isTogether;
    private boolean keeps;

    private Fuzz() {}

    public static void main(String[] arguments) throws Exception {
        Fuzz fuzz = new Fuzz();
        for (int i = 0; i < arguments.length; i++)
            switch (arguments[i]) {
                case "--inputs" -> fuzz.inputs = Long.parseLong(arguments[++i]);
                case "--reader" -> fuzz.only = arguments[++i];
                case "--together" -> fuzz.isTogether = true;
                case "--keep" -> fuzz.keeps = true;
                default -> throw new IllegalArgumentException("There is no option " + arguments[i]);
            }
        System.exit(fuzz.run() ? 0 : 1);
    }

    private boolean run() throws Exception {
        Path work = Files.createTempDirectory("sarnik-fuzz");
        List<Path> archives;
        try (Stream<Path> files = Files.list(KEPT)) {
            archives = files.filter(f -> f.toString().endsWith(".zip"))
                    .filter(f -> only == null || name(f).equals(only))
                    .sorted()
                    .toList();
        }
        if (archives.isEmpty()) throw new IllegalArgumentException("There is no reader called " + only + ".");
        System.out.printf("%-26s %12s %10s %10s %10s%n", "reader", "inputs", "a second", "branches", "kept");
        boolean well = true;
        if (isTogether) {
            Path corpus = Files.createDirectory(work.resolve("all"));
            for (Path archive : archives) unpack(archive, corpus);
            well = tried("all readers", corpus, work);
        } else {
            for (Path archive : archives) {
                Path corpus = Files.createDirectory(work.resolve(name(archive)));
                unpack(archive, corpus);
                well &= tried(name(archive), corpus, work);
                if (keeps) keep(corpus, work, archive);
            }
        }
        return well;
    }

    private static String name(Path archive) {
        return archive.getFileName().toString().replace(".zip", "");
    }

    /** @return whether nothing was found */
    private boolean tried(String name, Path corpus, Path work) throws Exception {
        long began = System.nanoTime();
        // Those that are there are tried besides those that are asked for.
        long first = count(corpus);
        List<String> said = jazzer(work, "-runs=" + (inputs + first), corpus.toString());
        String covered = "";
        long runs = 0;
        for (String line : said) {
            Matcher at = COVERED.matcher(line);
            if (at.find()) covered = at.group(1);
            Matcher done = SECONDS.matcher(line);
            if (done.find()) runs = Long.parseLong(done.group(1));
        }
        double seconds = (System.nanoTime() - began) / 1e9;
        System.out.printf(
                Locale.ENGLISH, "%-26s %,12d %,10.0f %10s %,10d%n", name, runs, runs / seconds, covered, count(corpus));
        if (runs > 0) return true;
        said.stream().skip(Math.max(0, said.size() - 60)).forEach(System.out::println);
        System.out.println("A reader broke. What broke it is in " + work + ".");
        return false;
    }

    /** Runs the fuzzer as a program of its own, which ends when it is through. */
    private static List<String> jazzer(Path work, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx1500m",
                "-cp",
                classPath(),
                "com.code_intelligence.jazzer.Jazzer",
                "--target_class=" + ReaderTarget.class.getName(),
                "--instrumentation_includes=sarnik.**",
                "-max_len=" + LONGEST_INPUT,
                "-timeout=" + SLOWEST_SECONDS,
                "-rss_limit_mb=4000",
                "-seed=1"));
        command.addAll(List.of(arguments));
        Process process = new ProcessBuilder(command)
                // What breaks a reader is written where the fuzzer runs.
                .directory(work.toFile())
                .redirectErrorStream(true)
                .start();
        List<String> said = new ArrayList<>();
        try (BufferedReader lines =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) said.add(line);
        }
        process.waitFor();
        return said;
    }

    /** Where the classes are, whichever folder it is looked from. */
    private static String classPath() {
        return Stream.of(System.getProperty("java.class.path").split(File.pathSeparator))
                .map(part -> Path.of(part).toAbsolutePath().toString())
                .collect(Collectors.joining(File.pathSeparator));
    }

    private static long count(Path corpus) throws IOException {
        try (Stream<Path> files = Files.list(corpus)) {
            return files.count();
        }
    }

    private static void unpack(Path archive, Path corpus) throws IOException {
        try (ZipInputStream zip = new ZipInputStream(Files.newInputStream(archive))) {
            for (ZipEntry entry = zip.getNextEntry(); entry != null; entry = zip.getNextEntry())
                Files.write(
                        corpus.resolve(
                                name(archive) + "-" + Path.of(entry.getName()).getFileName()),
                        zip.readAllBytes());
        }
    }

    /** Keeps the fewest and shortest inputs that reach as much as all. */
    private static void keep(Path corpus, Path work, Path archive) throws Exception {
        Path fewest = Files.createDirectory(work.resolve(name(archive) + "-fewest"));
        jazzer(work, "-merge=1", fewest.toString(), corpus.toString());
        if (count(fewest) == 0) return;
        try (OutputStream out = Files.newOutputStream(archive);
                ZipOutputStream zip = new ZipOutputStream(out);
                Stream<Path> files = Files.list(fewest)) {
            int[] number = {0};
            files.sorted().forEach(file -> put(zip, "%04d".formatted(++number[0]), file));
        }
        System.out.printf(Locale.ENGLISH, "%-26s %,d inputs kept%n", "", count(fewest));
    }

    private static void put(ZipOutputStream zip, String name, Path file) {
        try (InputStream in = Files.newInputStream(file)) {
            ZipEntry entry = new ZipEntry(name);
            // The same inputs give the same archive.
            entry.setTime(0);
            zip.putNextEntry(entry);
            in.transferTo(zip);
            zip.closeEntry();
        } catch (IOException failed) {
            throw new UncheckedIOException(failed);
        }
    }
}
