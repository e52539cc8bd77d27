package sarnik.app.command;

import java.io.BufferedInputStream;
import java.io.ByteArrayOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Base64;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * A browser without a window that opens one page and makes pictures of it. It is told what to do by its own protocol
 * (Chrome DevTools) over two pipes, so no port is opened, and it ends with the program that has started it. Each message
 * is a JSON object that ends in a byte of nought; questions and answers share a number.
 */
final class HiddenBrowser implements AutoCloseable {

    /** A picture comes as one long word. */
    private static final JsonMapper JSON = JsonMapper.builder(JsonFactory.builder()
                    .streamReadConstraints(StreamReadConstraints.builder()
                            .maxStringLength(Integer.MAX_VALUE)
                            .build())
                    .build())
            .build();

    private static final String CHROMIUM = "/usr/lib/chromium/chromium";
    /** Its two pipes are what it reads and writes under the numbers 3 and 4. */
    private static final List<String> OVER_PIPES =
            List.of("/bin/sh", "-c", "exec \"$@\" 3<&0 4>&1 </dev/null >/dev/null 2>&1", "browser");

    private final Path profile;
    private final Process process;
    private final OutputStream questions;
    private final InputStream answers;
    private final CompletableFuture<?> impatient;
    private final AtomicBoolean late = new AtomicBoolean();
    private final Duration patience;
    private int asked;
    private String session;

    /**
     * Starts it.
     *
     * @param patience after which it is ended, whatever it does
     * @throws IOException when it cannot be started
     */
    HiddenBrowser(Duration patience) throws IOException {
        this.patience = patience;
        profile = Files.createTempDirectory("sarnik-picture");
        List<String> command = new ArrayList<>(OVER_PIPES);
        command.addAll(List.of(
                System.getProperty("sarnik.browser", installed()),
                "--headless=new",
                "--remote-debugging-pipe",
                "--no-sandbox",
                "--disable-gpu",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                "--no-first-run",
                "--hide-scrollbars",
                "--user-data-dir=" + profile));
        try {
            process = new ProcessBuilder(command).start();
        } catch (IOException failed) {
            deleteAll(profile);
            throw failed;
        }
        questions = process.getOutputStream();
        answers = new BufferedInputStream(process.getInputStream());
        impatient = CompletableFuture.runAsync(
                () -> {
                    late.set(true);
                    process.destroyForcibly();
                },
                CompletableFuture.delayedExecutor(patience.toMillis(), TimeUnit.MILLISECONDS));
    }

    /** Without windows if there is one: it starts in half the time. */
    private static String installed() {
        String windowless = CHROMIUM + "-headless-shell";
        return Files.isExecutable(Path.of(windowless)) ? windowless : CHROMIUM;
    }

    /**
     * Opens a page.
     *
     * @param width of its window, CSS pixels
     * @param height of its window, CSS pixels
     * @throws IOException when it does not come
     */
    void open(String address, int width, int height) throws IOException {
        String target = ask("Target.createTarget", Map.of("url", "about:blank"))
                .path("targetId")
                .asString();
        session = ask("Target.attachToTarget", Map.of("targetId", target, "flatten", true))
                .path("sessionId")
                .asString();
        ask(
                "Emulation.setDeviceMetricsOverride",
                Map.of("width", width, "height", height, "deviceScaleFactor", 1, "mobile", false));
        ask("Page.enable", Map.of());
        String refused =
                ask("Page.navigate", Map.of("url", address)).path("errorText").asString("");
        if (!refused.isEmpty()) throw new IOException("the page did not come: %s.".formatted(refused));
        JsonNode told;
        do told = next();
        while (!told.path("method").asString("").equals("Page.loadEventFired"));
    }

    /**
     * Waits until something settles in the page.
     *
     * @param promise a JavaScript expression whose value is a promise
     * @throws IOException when it is rejected; the message is that of the page
     */
    void await(String promise) throws IOException {
        String outcome =
                "(async () => %s)().then(() => '', refused => String(refused.message ?? refused))".formatted(promise);
        JsonNode result = ask(
                        "Runtime.evaluate", Map.of("expression", outcome, "awaitPromise", true, "returnByValue", true))
                .path("result");
        String refused = result.path("value").asString("");
        if (!refused.isEmpty()) throw new IOException("the page could not be drawn: " + refused);
    }

    /** The page on paper of the size that its style asks for. */
    byte[] pdf() throws IOException {
        return data(ask(
                "Page.printToPDF",
                Map.of("preferCSSPageSize", true, "printBackground", true, "displayHeaderFooter", false)));
    }

    /** What is in its window. */
    byte[] png() throws IOException {
        return data(ask("Page.captureScreenshot", Map.of("format", "png")));
    }

    private static byte[] data(JsonNode answer) {
        return Base64.getDecoder().decode(answer.path("data").asString());
    }

    private JsonNode ask(String method, Map<String, Object> parameters) throws IOException {
        int number = ++asked;
        Map<String, Object> question = new TreeMap<>(Map.of("id", number, "method", method, "params", parameters));
        if (session != null) question.put("sessionId", session);
        try {
            questions.write(JSON.writeValueAsBytes(question));
            questions.write(0);
            questions.flush();
        } catch (IOException gone) {
            throw ended(gone);
        }
        JsonNode told;
        do told = next();
        while (told.path("id").asInt(0) != number);
        if (told.has("error"))
            throw new IOException("the browser refused %s: %s."
                    .formatted(method, told.path("error").path("message").asString("")));
        return told.path("result");
    }

    /** The next message: an answer, or news. */
    private JsonNode next() throws IOException {
        ByteArrayOutputStream message = new ByteArrayOutputStream();
        try {
            for (int read = answers.read(); read != 0; read = answers.read()) {
                if (read < 0) throw new EOFException();
                message.write(read);
            }
            return JSON.readTree(message.toString(StandardCharsets.UTF_8));
        } catch (IOException | JacksonException gone) {
            throw ended(gone);
        }
    }

    private IOException ended(Exception cause) {
        return new IOException(
                late.get()
                        ? "the page was not drawn within %d seconds.".formatted(patience.toSeconds())
                        : "the browser has ended before the picture was made. Is Chromium installed?",
                cause);
    }

    @Override
    public void close() throws IOException {
        impatient.cancel(false);
        process.destroy();
        try {
            if (!process.waitFor(5, TimeUnit.SECONDS)) process.destroyForcibly().waitFor();
        } catch (InterruptedException interrupted) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
        } finally {
            deleteAll(profile);
        }
    }

    private static void deleteAll(Path folder) throws IOException {
        try (var files = Files.walk(folder)) {
            for (Path file : files.sorted(Comparator.reverseOrder()).toList()) Files.deleteIfExists(file);
        } catch (UncheckedIOException | NoSuchFileException stillWritten) {
            // What the browser is still taking away itself need not be taken away here.
        }
    }
}
