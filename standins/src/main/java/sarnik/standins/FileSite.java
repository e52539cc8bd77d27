package sarnik.standins;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpHandler;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;

/** Stands in for a plain web server that gives out the files of a folder: {@code /files/…}. */
final class FileSite {

    private static final Map<String, String> TYPES = Map.of(
            "html", "text/html; charset=utf-8",
            "js", "text/javascript; charset=utf-8",
            "css", "text/css; charset=utf-8",
            "svg", "image/svg+xml",
            "woff2", "font/woff2",
            "txt", "text/plain; charset=utf-8");

    private final Path folder;

    private FileSite(Path folder) {
        this.folder = folder.toAbsolutePath().normalize();
    }

    static HttpHandler of(Path folder) {
        return new FileSite(folder)::answer;
    }

    private void answer(HttpExchange exchange) throws IOException {
        String path = exchange.getRequestURI().getPath().substring("/files/".length());
        Path file = folder.resolve(path.endsWith("/") || path.isEmpty() ? path + "index.html" : path)
                .normalize();
        if (!file.startsWith(folder) || !Files.isRegularFile(file)) {
            exchange.sendResponseHeaders(404, -1);
        } else {
            String name = file.getFileName().toString();
            String type = TYPES.getOrDefault(name.substring(name.lastIndexOf('.') + 1), "application/octet-stream");
            exchange.getResponseHeaders().set("Content-Type", type);
            byte[] bytes = Files.readAllBytes(file);
            exchange.sendResponseHeaders(200, bytes.length);
            exchange.getResponseBody().write(bytes);
        }
        exchange.close();
    }
}
