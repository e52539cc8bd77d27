package sarnik.demo;

import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;

/** Sends readings to feeds of a running Sarnik, as devices do over HTTP. */
public final class SarnikDevice {

    private final String base;
    private final HttpClient http = HttpClient.newHttpClient();

    /** @param base address of the server, such as http://127.0.0.1:8080 */
    public SarnikDevice(String base) {
        this.base = base;
    }

    /** Sends a message in JSON. @param feed its id @param token the feed's, or null for none */
    public HttpResponse<String> send(long feed, String token, String body) throws IOException, InterruptedException {
        return send(feed, token, "application/json", body);
    }

    /** Sends a message in any form that feeds read. @param type the form's media type */
    public HttpResponse<String> send(long feed, String token, String type, String body)
            throws IOException, InterruptedException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + "/readings/" + feed))
                .header("Content-Type", type)
                .POST(HttpRequest.BodyPublishers.ofString(body));
        if (token != null) request.header("Authorization", "Bearer " + token);
        return http.send(request.build(), HttpResponse.BodyHandlers.ofString());
    }
}
